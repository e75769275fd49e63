import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Acting } from '../../state/acting';
import { ScheduledStore } from '../../state/scheduled';

/** The release of a page's thing that waits for its time, or could not be done when it came; the page says of which thing. */
@Component({
  selector: 'ty-scheduled-strip',
  imports: [DatePipe, MatButtonModule],
  template: `
    @if (scheduled.last(); as release) {
      @if (isTold()) {
        <div class="ty-notice" [class.bad]="release.state === 'failed'" role="status">
          <p>
            @if (release.state === 'waiting') {
              The draft as it was saved last is released on <b class="ty-num">{{ release.at | date: 'd MMMM y, HH:mm' }}</b>, planned by
              {{ planner() || 'somebody' }}{{ release.note ? ': ' + release.note : '.' }}
              @if (release.revision !== revision()) {
                <b>It was saved again since, so that nothing will be released.</b>
              }
            } @else {
              It was to be released on <b class="ty-num">{{ release.at | date: 'd MMMM y, HH:mm' }}</b>, and was not. {{ release.detail }}
            }
          </p>
          @if (release.state === 'waiting') {
            <button mat-stroked-button type="button" [disabled]="scheduled.isBusy()" (click)="scheduled.callOff(release)">
              Call it off
            </button>
          }
        </div>
      }
    }
    @if (scheduled.failure(); as failure) {
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
  /** The state of the draft. */
  readonly revision = input.required<number>();
  protected readonly scheduled = inject(ScheduledStore);
  private readonly acting = inject(Acting);
  /** Who planned it, by name. */
  protected readonly planner = computed(() => {
    const by = this.scheduled.last()?.askedBy;
    return this.acting.people().find(({ id }) => id === by)?.label ?? '';
  });
  /** What was done or called off is told by the editions; a failure until the draft is another. */
  protected readonly isTold = computed(() => {
    const last = this.scheduled.last();
    return last?.state === 'waiting' || (last?.state === 'failed' && this.revision() <= last.revision + 1);
  });
}
