import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { goesOn, type ToldConversion } from '../../state/conversions';

/** How far the last conversion is: stopped, gone on with, or undone from here. */
@Component({
  selector: 'ty-conversion-strip',
  imports: [MatButtonModule, MatProgressBarModule],
  template: `
    <p role="status">
      <b>{{ latest().sentence }}</b> <span class="ty-num">{{ how() }}</span>
      @if (failure(); as failure) {
        <span class="bad">{{ failure }}</span>
      }
    </p>
    @if (isOn()) {
      <mat-progress-bar mode="determinate" aria-label="Texts converted" [value]="share()"></mat-progress-bar>
    }
    <div class="acts">
      @switch (latest().state) {
        @case ('running') {
          <button mat-stroked-button type="button" [disabled]="isBusy()" (click)="acted.emit('stop')">Stop</button>
        }
        @case ('stopped') {
          <button mat-stroked-button type="button" [disabled]="isBusy()" (click)="acted.emit('go-on')">Go on</button>
          <button mat-stroked-button type="button" [disabled]="isBusy()" (click)="acted.emit('undo')">Undo it</button>
        }
        @case ('done') {
          <button mat-stroked-button type="button" [disabled]="isBusy() || changed() === 0" (click)="acted.emit('undo')">Undo it</button>
        }
      }
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px 14px;
      padding: 8px 16px;
      border-bottom: 1px solid var(--ty-line);
      background: var(--ty-verdigris-wash);
      font-size: 13px;
    }
    p {
      flex: 1 1 300px;
    }
    b {
      margin-right: 6px;
      font-weight: 600;
    }
    .bad {
      color: var(--ty-rubric);
    }
    mat-progress-bar {
      width: 160px;
    }
    .acts {
      display: flex;
      gap: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConversionStrip {
  readonly latest = input.required<ToldConversion>();
  readonly failure = input('');
  readonly isBusy = input(false);
  readonly acted = output<'stop' | 'go-on' | 'undo'>();
  protected readonly isOn = computed(() => goesOn(this.latest()));
  private readonly counts = computed(() => {
    const { texts } = this.latest();
    return { all: Object.values(texts).reduce((sum, count) => sum + count, 0), waiting: texts.waiting ?? 0, done: texts.done ?? 0 };
  });
  protected readonly changed = computed(() => this.counts().done);
  protected readonly share = computed(() => {
    const { all, waiting, done } = this.counts();
    const left = this.latest().state === 'undoing' ? done : waiting;
    return all === 0 ? 100 : (100 * (all - left)) / all;
  });
  protected readonly how = computed(() => {
    const { state, texts } = this.latest();
    const { all, waiting, done } = this.counts();
    const of = (count: number): string => (count === 1 ? 'one text' : `${count} texts`);
    const rest = [
      ...(texts.same ? [`${of(texts.same)} had nothing that fits`] : []),
      ...(texts.gone ? [`${of(texts.gone)} had gone`] : []),
      ...(texts.refused ? [`${of(texts.refused)} had too many tags to be cleaned at once`] : []),
    ];
    switch (state) {
      case 'running':
        return `${all - waiting} of ${of(all)} done`;
      case 'stopped':
        return `was stopped after ${all - waiting} of ${of(all)}`;
      case 'undoing':
        return `is being undone, ${of(done)} left`;
      case 'undone':
        return `was undone in ${of(texts.undone ?? 0)}${texts.kept ? `; ${of(texts.kept)} changed since and stayed so` : ''}`;
      default:
        return [`was done in ${of(done)}`, ...rest].join('; ');
    }
  });
}
