import { DecimalPipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { benchFeature } from '../../state/bench';

/** The figures of a proof: how much text is kept, what was changed, what was lost, how heavy the markup is. */
@Component({
  selector: 'ty-measure-line',
  imports: [DecimalPipe],
  template: `
    @if (figures(); as figures) {
      <dl>
        <div>
          <dd>{{ figures.kept | number: '1.0-1' }} %</dd>
          <dt>kept<span class="ty-unseen"> of the text</span></dt>
        </div>
        <div>
          <dd>{{ figures.changes | number }}</dd>
          <dt>{{ figures.changes === 1 ? 'change' : 'changes' }} by {{ figures.rules === 1 ? 'one rule' : figures.rules + ' rules' }}</dt>
        </div>
        <div [class.lost]="figures.losses > 0">
          <dd>{{ figures.losses | number }}</dd>
          <dt>lost</dt>
        </div>
        <div title="Characters of markup for each letter of text, and before">
          <dd>{{ figures.weight | number: '1.1-1' }}</dd>
          <dt><span class="ty-unseen">characters of markup </span>a letter, was {{ figures.weightBefore | number: '1.1-1' }}</dt>
        </div>
        <div>
          <dd>{{ figures.inlineStyles | number }}</dd>
          <dt>{{ figures.inlineStyles === 1 ? 'inline style' : 'inline styles' }}</dt>
        </div>
      </dl>
    }
  `,
  styles: `
    dl {
      display: flex;
      flex-wrap: wrap;
      justify-content: space-between;
      gap: 0 10px;
      margin: 0;
      padding: 3px 16px;
      border-bottom: 1px solid var(--ty-line);
      background: var(--ty-paper);
    }
    div {
      display: flex;
      align-items: baseline;
      gap: 4px;
      white-space: nowrap;
    }
    dd {
      margin: 0;
      font: 600 14px/22px var(--ty-serif);
      font-variant-numeric: tabular-nums;
    }
    dt {
      font-size: 11.5px;
      line-height: 22px;
      color: var(--ty-soft);
    }
    .lost dt,
    .lost dd {
      color: var(--ty-rubric);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MeasureLine {
  private readonly proof = inject(Store).selectSignal(benchFeature.selectProof);
  protected readonly figures = computed(() => {
    const measures = this.proof()?.measures;
    if (measures === undefined) return null;
    const { lettersBefore, lettersMissed, markupPerTextBefore, markupPerTextAfter, inlineStyles, changes, losses, rules } = measures;
    return {
      kept: lettersBefore === 0 ? 100 : Math.max(0, Math.floor((1000 * (lettersBefore - lettersMissed)) / lettersBefore) / 10),
      changes,
      rules,
      losses,
      weight: markupPerTextAfter,
      inlineStyles,
      weightBefore: markupPerTextBefore,
    };
  });
}
