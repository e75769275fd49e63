import { expectationWords } from '@typikon/core/settings';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { benchFeature } from '../../state/bench';

/** What must come out of the specimen, and whether it does under the draft. */
@Component({
  selector: 'ty-expectations-view',
  template: `
    <ul tabindex="0" aria-label="What must come out of the specimen">
      @for (row of rows(); track $index) {
        <li [class.missed]="!row.isMet">
          <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" fill="none" stroke="currentColor" stroke-width="1.7">
            @if (row.isMet) {
              <path d="m3 8.500 3.200 3.500L13 4.500" />
            } @else {
              <path d="M3 3h10v10H3zM3 13 13 3" />
            }
          </svg>
          <b>{{ row.isMet ? 'Met' : 'Missed' }}</b>
          <span
            >{{ row.words }}{{ row.isMet ? '.' : ', but it came out otherwise: ' }}
            @if (!row.isMet) {
              <code>{{ row.found }}</code>
            }
          </span>
        </li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: flex;
      flex: 1;
      min-height: 0;
    }
    ul {
      flex: 1;
      margin: 0;
      padding: 0;
      overflow: auto;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 20px 52px 1fr;
      gap: 8px;
      align-items: baseline;
      padding: 6px 16px;
      border-bottom: 1px solid var(--ty-hair);
      font-size: 13px;
      line-height: 18px;
      overflow-wrap: anywhere;
    }
    svg {
      align-self: center;
      color: var(--ty-verdigris);
    }
    b {
      font-weight: 500;
      color: var(--ty-verdigris);
    }
    .missed svg,
    .missed b {
      color: var(--ty-rubric);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ExpectationsView {
  private readonly proof = inject(Store).selectSignal(benchFeature.selectProof);
  protected readonly rows = computed(() =>
    (this.proof()?.verdicts ?? []).map(({ expectation, isMet, found }) => ({ words: expectationWords(expectation), isMet, found })),
  );
}
