import type { MediaContext } from '../css/media';
import type { Sheet } from '../css/stylesheet';
import type { Surface } from '../profile/surface-schema';
import type { PageKind } from '../render/page';
import { fileNameOf, overridesOf } from '../render/file-names';
import { textFrame } from '../render/template';
import type { LikenessInput } from './likeness';

/** The name of the profile's own editing stylesheet among the others. */
export const EDITING_SHEET = 'editing stylesheet';

/** What is known of a stylesheet by its id. */
export type FindSheet = (id: string) => { css: string; media: string } | undefined;

/**
 * The two settings of a profile on a page kind: what the author's surface stands on, and what the page is.
 *
 * @param surfaceKind the page kind on which the surface stands
 * @param page the page kind on which the documents are published
 */
export function settingsFor(surface: Surface, surfaceKind: PageKind, page: PageKind, find: FindSheet, media: MediaContext): LikenessInput {
  const sheetsOf = (kind: PageKind): Sheet[] =>
    kind.stylesheets.flatMap((id) => {
      const sheet = find(id);
      return sheet === undefined ? [] : [{ name: fileNameOf(id), css: sheet.css, media: sheet.media }];
    });
  const frame = textFrame(page);
  const editing: Sheet = { name: EDITING_SHEET, css: surface.editingCss };
  return {
    editor: {
      sheets: [...(surface.stylesheets === 'editing' ? [] : sheetsOf(surfaceKind)), ...(surface.stylesheets === 'page' ? [] : [editing])],
      media,
      wrapper: textFrame(surfaceKind).wrapper,
      title: '',
      columnPx: surfaceKind.contentWidthPx,
    },
    page: { sheets: sheetsOf(page), media, wrapper: frame.wrapper, title: frame.hasTitle ? 'T' : '', columnPx: null },
    editingSheets: [EDITING_SHEET],
    overrides: fileNameOf(overridesOf(page)),
  };
}
