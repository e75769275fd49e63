import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { RouterLink } from '@angular/router';
import type { OtherDraft } from './together';

/** Other drafts that can be released with one, all or none. */
@Component({
  selector: 'ty-together-list',
  imports: [MatCheckboxModule, RouterLink],
  template: `
    <header>
      <h2 id="together-heading">Released with it</h2>
      <span class="ty-soft">all or none</span>
    </header>
    <ul aria-labelledby="together-heading">
      @for (other of others(); track other.key) {
        <li>
          <mat-checkbox [checked]="chosen().has(other.key)" (change)="choose(other, $event.checked)">{{ other.name }}</mat-checkbox>
          <a [routerLink]="other.link"
            >What it would do<span class="ty-unseen"> ({{ other.name }})</span></a
          >
        </li>
      }
    </ul>
  `,
  styleUrl: './together-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TogetherList {
  readonly others = input.required<readonly OtherDraft[]>();
  /** Those that are chosen, by key. */
  readonly chosen = model.required<ReadonlySet<string>>();

  protected choose({ key }: OtherDraft, isChosen: boolean): void {
    this.chosen.update((all) => new Set(isChosen ? [...all, key] : [...all].filter((other) => other !== key)));
  }
}
