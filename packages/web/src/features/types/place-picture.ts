import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { DomSanitizer } from '@angular/platform-browser';
import { PLAIN_TEMPLATE, printTemplate, slotContents, slotNameOf, type ContentType, type Field } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { frameHtml } from '../../shared/page/frame-html';

/** A small picture of a kind of page with one field marked where it is printed. The frame is sandboxed and runs nothing. */
@Component({
  selector: 'ty-place-picture',
  template:
    '<iframe [srcdoc]="page()" sandbox="" tabindex="-1" aria-hidden="true" title="The place" referrerpolicy="no-referrer"></iframe>',
  // Drawn 760 px wide, and shown 120 px wide.
  styles: `
    :host {
      display: block;
      flex: none;
      width: 120px;
      height: 96px;
      border: 1px solid var(--ty-line);
      background: #fff;
      overflow: hidden;
    }
    iframe {
      width: 760px;
      height: 608px;
      border: 0;
      transform: scale(0.158);
      transform-origin: 0 0;
      pointer-events: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlacePicture {
  readonly type = input.required<ContentType>();
  readonly field = input.required<string>();
  /** The id of the kind of page. */
  readonly on = input.required<string>();
  private readonly store = inject(Store);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly library = this.store.selectSignal(libraryFeature.selectLibrary);
  protected readonly page = computed(() => {
    const [library, type] = [this.library(), this.type()];
    const kind = library?.pageKinds.find(({ id }) => id === this.on());
    if (library === null || kind === undefined) return '';
    const marked = slotNameOf(this.field(), type, kind);
    const contents = slotContents(type, kind, { title: type.label, fields: sample(type.fields) });
    const html = printTemplate(kind.template ?? PLAIN_TEMPLATE, contents, (name, inside) =>
      name === marked ? `<div style="background:#f6d9d2;outline:6px dashed #a6301f;outline-offset:2px">${inside}</div>` : inside,
    );
    const sheets = kind.stylesheets.flatMap((id) => {
      const sheet = library.stylesheets.find((one) => one.id === id);
      return sheet === undefined || sheet.media === 'print' ? [] : [{ name: id, css: sheet.css, media: sheet.media }];
    });
    return this.sanitizer.bypassSecurityTrustHtml(
      frameHtml({ sheets, wrapper: kind.wrapper, columnPx: null }, html, null, library.siteOrigin),
    );
  });
}

/** Something in every field, as long as such a text may be. */
function sample(fields: readonly Field[]): Record<string, string> {
  return Object.fromEntries(
    fields.map(({ key, title, kind, choices, letters }): [string, string] => {
      switch (kind) {
        case 'rich':
          return [key, `<p>${'This is what stands in it. '.repeat(Math.min(12, Math.ceil((letters.to ?? 300) / 26)))}</p>`];
        case 'date':
          return [key, '2026-05-03'];
        case 'choice':
          return [key, choices[0] ?? title];
        case 'picture':
          return [key, ''];
        default:
          return [key, title];
      }
    }),
  );
}
