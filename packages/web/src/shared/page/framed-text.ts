import { DESK, settingsFor, surfaceSchema } from '@typikon/core';
import { frameHtml } from './frame-html';
import type { Shown } from '../../state/pages';

/**
 * Clean markup as its page shows it, as a document for a sandboxed frame that runs nothing.
 *
 * @param pageKind on which it shows; the first that there is where it is not known any more
 * @returns null where there is no kind of page at all
 */
export function framedText(shown: Shown | null, pageKind: string, html: string): string | null {
  const kind = shown?.pageKinds.find(({ id }) => id === pageKind) ?? shown?.pageKinds[0];
  if (shown === null || kind === undefined) return null;
  const surface = surfaceSchema.parse({ pageKind: kind.id });
  const { page } = settingsFor(surface, kind, kind, (id) => shown.stylesheets.find((sheet) => sheet.id === id), DESK);
  return frameHtml(page, html, null, shown.siteOrigin);
}
