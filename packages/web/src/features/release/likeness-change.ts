import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { LikenessChangeStore, type LikenessChange } from './likeness-change-store';

/** How alike the editor and the page are before and after a release, for each profile and kind of page where that changes. */
@Component({
  selector: 'ty-likeness-change',
  imports: [RouterLink],
  template: `
    <header>
      <h2 id="likeness-change-heading">Likeness</h2>
      <span class="ty-soft">of the editor and the page</span>
    </header>
    <ul aria-labelledby="likeness-change-heading">
      @if (likeness.failure(); as failure) {
        <li>
          <span role="alert">It could not be worked out. {{ failure }}</span>
        </li>
      } @else if (likeness.changes() !== null) {
        @for (one of others(); track one.key) {
          <li>
            <a [routerLink]="['/styles/likeness', one.profile, one.pageKind]">{{ one.name }}</a>
            <span class="ty-num" [class.bad]="one.after < one.before">{{ words(one) }}</span>
            <span class="ty-soft ty-num">{{ textsOf(one) }}</span>
          </li>
        }
        @if (alike() > 0) {
          <li>
            {{ others().length === 0 ? 'As alike as before' : 'As before' }}, of
            {{ alike() === 1 ? 'one profile' : alike() + ' profiles' }} on a page kind
          </li>
        } @else if (others().length === 0) {
          <li>{{ same() }}</li>
        }
      } @else {
        <li><span role="status">Comparing what authors see with the page …</span></li>
      }
    </ul>
  `,
  styleUrl: './likeness-change.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LikenessChangeList {
  /** What is said where nothing of it changes. */
  readonly same = input('What authors see is set up as before.');
  protected readonly likeness = inject(LikenessChangeStore);

  /** Those of which it is another figure, and of how many others it is the same. */
  protected readonly others = computed(() =>
    (this.likeness.changes() ?? []).filter(({ before, after }) => percent(before) !== percent(after)),
  );
  protected readonly alike = computed(() => (this.likeness.changes()?.length ?? 0) - this.others().length);

  protected words({ before, after }: LikenessChange): string {
    return `${percent(before)}, then ${percent(after)}`;
  }

  protected textsOf({ texts, isAll }: LikenessChange): string {
    const count = texts === 1 ? 'one text' : `${texts} texts`;
    return isAll ? (texts === 1 ? count : `all ${count}`) : `the first ${count}`;
  }
}

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
