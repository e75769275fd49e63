import { ChangeDetectionStrategy, Component, ElementRef, effect, inject, input } from '@angular/core';
import { createElement, type IconNode } from 'lucide';

/** Draws an icon. It says nothing to people who do not see it: the control around it has the words. */
@Component({
  selector: 'ty-icon',
  template: '',
  styles: ':host { display: inline-grid; place-items: center; }',
  host: { 'aria-hidden': 'true' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Icon {
  readonly node = input.required<IconNode>();
  readonly sizePx = input(17);

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    effect(() => {
      const svg = createElement(this.node());
      svg.setAttribute('width', String(this.sizePx()));
      svg.setAttribute('height', String(this.sizePx()));
      svg.setAttribute('stroke-width', '1.6');
      host.replaceChildren(svg);
    });
  }
}
