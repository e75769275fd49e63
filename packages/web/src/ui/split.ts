import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, input, linkedSignal } from '@angular/core';

/**
 * Two panes with a grip between them that is dragged or moved by the arrow keys
 * (ARIA Authoring Practices, "Window Splitter"). The size is kept in the browser.
 */
@Component({
  selector: 'ty-split',
  template: `
    <div class="first" [style.flex-basis.%]="isWhole() ? 100 : share()"><ng-content select="[first]" /></div>
    <div
      class="grip"
      [hidden]="isWhole()"
      role="separator"
      tabindex="0"
      [attr.aria-label]="label()"
      [attr.aria-orientation]="direction() === 'row' ? 'vertical' : 'horizontal'"
      [attr.aria-valuenow]="rounded()"
      [attr.aria-valuemin]="min"
      [attr.aria-valuemax]="max"
      (pointerdown)="begin($event)"
      (pointermove)="move($event)"
      (pointerup)="end($event)"
      (keydown)="key($event)"
    ></div>
    <div class="second" [hidden]="isWhole()"><ng-content select="[second]" /></div>
  `,
  styles: `
    :host {
      display: flex;
      min-width: 0;
      min-height: 0;
      flex: 1;
    }
    :host.column {
      flex-direction: column;
    }
    .first,
    .second {
      display: flex;
      flex-direction: column;
      min-width: 0;
      min-height: 0;
      overflow: hidden;
    }
    .first {
      flex: 0 0 auto;
    }
    .second {
      flex: 1 1 0;
    }
    [hidden] {
      display: none;
    }
    .grip {
      flex: 0 0 7px;
      background: var(--ty-sunken);
      border: solid var(--ty-line);
      border-width: 0 1px;
      cursor: col-resize;
      touch-action: none;
    }
    :host.column > .grip {
      border-width: 1px 0;
      cursor: row-resize;
    }
    .grip:hover {
      background: var(--ty-line);
    }
  `,
  host: { '[class.column]': "direction() === 'column'" },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Split {
  readonly direction = input<'row' | 'column'>('row');
  readonly label = input.required<string>();
  /** Share of the first pane, in percent, before anybody moved the grip. */
  readonly initial = input(50);
  /** The name under which the share is kept. */
  readonly name = input.required<string>();
  readonly min = 20;
  readonly max = 90;
  /** Whether the first pane has all the room; the share comes back afterwards. */
  readonly isWhole = input(false);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** What was chosen since the name became this one. */
  private readonly moved = linkedSignal<string, number | null>({ source: () => this.name(), computation: () => null });
  protected readonly share = computed(() => this.moved() ?? this.kept() ?? this.initial());
  protected readonly rounded = computed(() => Math.round(this.share()));
  private readonly kept = computed(() => {
    const kept = Number(localStorage.getItem(`typikon.split.${this.name()}`) ?? Number.NaN);
    return kept >= this.min && kept <= this.max ? kept : null;
  });

  protected begin(event: PointerEvent): void {
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
    event.preventDefault();
    (event.target as HTMLElement).focus();
  }

  protected move(event: PointerEvent): void {
    if (!(event.target as HTMLElement).hasPointerCapture(event.pointerId)) return;
    const box = this.host.getBoundingClientRect();
    this.set(this.direction() === 'row' ? ((event.clientX - box.left) / box.width) * 100 : ((event.clientY - box.top) / box.height) * 100);
  }

  protected end(event: PointerEvent): void {
    (event.target as HTMLElement).releasePointerCapture(event.pointerId);
  }

  protected key(event: KeyboardEvent): void {
    const [less, more] = this.direction() === 'row' ? ['ArrowLeft', 'ArrowRight'] : ['ArrowUp', 'ArrowDown'];
    const to =
      event.key === less
        ? this.share() - 2
        : event.key === more
          ? this.share() + 2
          : event.key === 'Home'
            ? this.min
            : event.key === 'End'
              ? this.max
              : null;
    if (to === null) return;
    event.preventDefault();
    this.set(to);
  }

  private set(share: number): void {
    const kept = Math.min(this.max, Math.max(this.min, share));
    this.moved.set(kept);
    localStorage.setItem(`typikon.split.${this.name()}`, kept.toFixed(1));
  }
}
