import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { ScheduledRelease } from '../../state/releases';

/** A release that waits for its time, or could not be done when it came. */
@Component({
  selector: 'ty-scheduled-strip',
  imports: [DatePipe, MatButtonModule],
  template: `
    @if (isTold()) {
      <div class="ty-notice" [class.bad]="release().state === 'failed'" role="status">
        <p>
          @if (release().state === 'waiting') {
            The draft as it was saved last is released on <b class="ty-num">{{ release().at | date: 'd MMMM y, HH:mm' }}</b>, planned by
            {{ planner() || 'somebody' }}{{ release().note ? ': ' + release().note : '.' }}
            @if (release().revision !== revision()) {
              <b>It was saved again since, so that nothing will be released.</b>
            }
          } @else {
            It was to be released on <b class="ty-num">{{ release().at | date: 'd MMMM y, HH:mm' }}</b>, and was not. {{ release().detail }}
          }
        </p>
        @if (release().state === 'waiting') {
          <button mat-stroked-button type="button" [disabled]="isBusy()" (click)="off.emit()">Call it off</button>
        }
      </div>
    }
    @if (failure(); as failure) {
      <p class="ty-failure" role="alert">{{ failure }}</p>
    }
  `,
  styles: `
    .ty-failure {
      padding: 6px 20px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScheduledStrip {
  readonly release = input.required<ScheduledRelease>();
  /** Who planned it, by name. */
  readonly planner = input('');
  /** The state of the draft. */
  readonly revision = input.required<number>();
  readonly isBusy = input(false);
  readonly failure = input('');
  readonly off = output();
  /** What was done or called off is told by the editions; a failure until the draft is another. */
  protected readonly isTold = computed(() => {
    const { state, revision } = this.release();
    return state === 'waiting' || (state === 'failed' && this.revision() <= revision + 1);
  });
}
