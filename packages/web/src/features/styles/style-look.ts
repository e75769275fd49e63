import { ChangeDetectionStrategy, Component, ElementRef, effect, inject, input } from '@angular/core';

const SHOWN =
  /^(color|background-color|font-(family|style|weight|variant.*)|text-transform|letter-spacing|text-decoration-(line|color|style)|border-(left|bottom|top)-(width|style|color)|border-.*-radius)$/;

/** A label that looks as the style does on a page. */
@Component({
  selector: 'ty-style-look',
  template: '{{ label() }}',
  styles: `
    :host {
      display: inline-block;
      max-width: 100%;
      padding: 1px 8px;
      border: 0 solid currentcolor;
      border-radius: 2px;
      background: #fff;
      color: #20292e;
      font:
        14px/22px Georgia,
        serif;
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StyleLook {
  readonly label = input.required<string>();
  readonly changes = input.required<readonly { property: string; value: string }[]>();

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    effect(() => {
      host.removeAttribute('style');
      for (const { property, value } of this.changes()) if (SHOWN.test(property)) host.style.setProperty(property, value);
      // As large as on the page where a line has room for it.
      const size = Number.parseFloat(this.changes().find(({ property }) => property === 'font-size')?.value ?? '');
      if (size > 0) host.style.setProperty('font-size', `${Math.min(20, Math.max(11, size * 0.82))}px`);
    });
  }
}
