import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatExpansionModule } from '@angular/material/expansion';
import { RouterLink } from '@angular/router';
import { lineChanges, type PageKind } from '@typikon/core';
import { isSameJson, type Json, type JsonObject } from '@typikon/core/settings';
import type { Pages } from '../../state/pages';
import { ChangesTable } from '../../shared/profile/changes-table';

/** A stylesheet or a page kind that is another than before. */
interface Changed {
  sign: '+' | '−' | '≠';
  name: string;
  link: string[] | null;
  /** What is different, in a few words. */
  words: string;
}

/** Which stylesheets and page kinds a release changes. */
@Component({
  selector: 'ty-pages-changes',
  imports: [ChangesTable, MatExpansionModule, RouterLink],
  template: `
    <section aria-labelledby="pages-changed-heading">
      <header>
        <h2 id="pages-changed-heading">What changed</h2>
        <span class="ty-soft">against edition {{ edition() }}</span>
      </header>
      <ul class="changes">
        @for (one of changed(); track one.name) {
          <li>
            <span class="sign" [class.less]="one.sign === '−'" aria-hidden="true">{{ one.sign }}</span>
            <span>
              @if (one.link) {
                <a [routerLink]="one.link">{{ one.name }}</a>
              } @else {
                {{ one.name }}
              }
              <span class="ty-soft">&ngsp;{{ one.words }}</span>
            </span>
          </li>
        }
      </ul>
      @if (kinds().count > 0) {
        <mat-expansion-panel class="settings">
          <mat-expansion-panel-header>
            <mat-panel-title>{{ kinds().count === 1 ? 'The page kind that changes' : 'Page kinds that change' }}</mat-panel-title>
          </mat-expansion-panel-header>
          <ng-template matExpansionPanelContent>
            <ty-changes-table
              [one]="kinds().before"
              [other]="kinds().after"
              [heads]="['Edition ' + edition(), 'The draft']"
              caption="Page kinds that change"
            />
          </ng-template>
        </mat-expansion-panel>
      }
    </section>
  `,
  styleUrl: './what-changes.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PagesChanges {
  readonly before = input.required<Pages>();
  readonly after = input.required<Pages>();
  /** The number of the last edition. */
  readonly edition = input.required<number>();
  protected readonly changed = computed((): Changed[] => [
    ...told(
      this.before().stylesheets,
      this.after().stylesheets,
      ({ id }) => `${id}.css`,
      'sheet',
      (then, now) => {
        const { more, fewer } = lineChanges(then.css, now.css);
        const lines = [...(more > 0 ? [`${count(more, 'line')} more`] : []), ...(fewer > 0 ? [`${count(fewer, 'line')} fewer`] : [])].join(
          ', ',
        );
        return [
          lines,
          ...(then.media === now.media ? [] : [`for ${now.media || 'all media'}`]),
          ...(then.purpose === now.purpose ? [] : ['purpose']),
        ]
          .filter((words) => words !== '')
          .join('; ');
      },
    ),
    ...told(
      this.before().pageKinds,
      this.after().pageKinds,
      ({ name }) => name,
      'kind',
      (then, now) => (Object.keys(now) as (keyof PageKind)[]).filter((key) => !isSameJson(then[key] as Json, now[key] as Json)).join(', '),
    ),
  ]);
  /** Page kinds that both have and that differ, by id. */
  protected readonly kinds = computed(() => {
    const [before, after]: [JsonObject, JsonObject] = [{}, {}];
    for (const now of this.after().pageKinds) {
      const then = this.before().pageKinds.find(({ id }) => id === now.id);
      if (then === undefined || isSameJson(asJson(then), asJson(now))) continue;
      before[now.id] = asJson(then);
      after[now.id] = asJson(now);
    }
    return { before, after, count: Object.keys(after).length };
  });
}

const asJson = (value: object): JsonObject => value as unknown as JsonObject;
const count = (number: number, word: string): string => `${number} ${word}${number === 1 ? '' : 's'}`;

/** What came, went, or is another than before. */
function told<Row extends { id: string }>(
  before: readonly Row[],
  after: readonly Row[],
  name: (row: Row) => string,
  path: string,
  difference: (then: Row, now: Row) => string,
): Changed[] {
  const gone = before
    .filter(({ id }) => !after.some((row) => row.id === id))
    .map((row): Changed => ({ sign: '−', name: name(row), link: null, words: 'is there no more' }));
  const others = after.flatMap((now): Changed[] => {
    const then = before.find(({ id }) => id === now.id);
    const link = ['/styles', path, now.id];
    if (then === undefined) return [{ sign: '+', name: name(now), link, words: 'is new' }];
    return isSameJson(asJson(then), asJson(now)) ? [] : [{ sign: '≠', name: name(now), link, words: difference(then, now) }];
  });
  return [...others, ...gone];
}
