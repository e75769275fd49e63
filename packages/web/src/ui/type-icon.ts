import { ChangeDetectionStrategy, Component, ElementRef, effect, inject, input } from '@angular/core';
import { createElement } from 'lucide';
import { IconSet } from './icon-set';

/** The icon of a content type, in its colour of the theme. It says nothing to people who do not see it. */
@Component({
  selector: 'ty-type-icon',
  template: '',
  styles: `
    :host {
      display: inline-grid;
      place-items: center;
      flex: none;
      width: 1.35em;
      height: 1.35em;
      color: var(--ty-type-colour, var(--ty-ink));
    }
  `,
  host: { 'aria-hidden': 'true', '[style.--ty-type-colour]': '"var(--ty-of-" + colour() + ")"' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TypeIcon {
  readonly name = input.required<string>();
  readonly colour = input('ink');
  readonly sizePx = input(18);

  constructor() {
    const set = inject(IconSet);
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    effect((onCleanup) => {
      const [name, size] = [this.name(), this.sizePx()];
      let isWanted = true;
      onCleanup(() => (isWanted = false));
      void set.named(name).then((node) => {
        if (isWanted) draw(host, createElement(node), size);
      });
    });
  }
}

function draw(host: HTMLElement, svg: SVGElement, size: number): void {
  svg.setAttribute('width', String(size));
  svg.setAttribute('height', String(size));
  svg.setAttribute('stroke-width', '1.6');
  host.replaceChildren(svg);
}
