import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { changesOfSite, type Site, type SiteChange } from '@typikon/core';

/** How a kind of change is marked. */
const SIGNS: Readonly<Record<SiteChange['what'], { sign: string; word: string }>> = {
  new: { sign: '+', word: 'New' },
  gone: { sign: '−', word: 'Gone' },
  changed: { sign: '≠', word: 'Changed' },
  moved: { sign: '↕', word: 'Moved' },
};

/** What of content types, their fields and the statements of who writes with what a release changes. */
@Component({
  selector: 'ty-site-changes',
  template: `
    <section aria-labelledby="site-changed-heading">
      <header>
        <h2 id="site-changed-heading">What changed</h2>
        <span class="ty-soft">against edition {{ edition() }}</span>
      </header>
      <ul class="changes">
        @for (one of changes(); track $index) {
          <li>
            <span class="sign" [class.less]="one.what === 'gone'" aria-hidden="true">{{ one.sign }}</span>
            <span
              ><span class="ty-unseen">{{ one.word }}: </span>{{ one.sentence }}</span
            >
          </li>
        }
      </ul>
    </section>
  `,
  styleUrl: './what-changes.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SiteChanges {
  readonly before = input.required<Site>();
  readonly after = input.required<Site>();
  /** The number of the last edition. */
  readonly edition = input.required<number>();
  protected readonly changes = computed(() =>
    changesOfSite(this.before(), this.after()).map((change) => ({ ...change, ...SIGNS[change.what] })),
  );
}
