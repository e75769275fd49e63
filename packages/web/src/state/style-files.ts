import type { Sheet } from '@typikon/core';
import { fileNameOf } from '@typikon/core/settings';
import type { StoredPageKind, StoredStylesheet } from './types';

/** The stylesheets of a page kind in their order, by the names of their files. */
export function sheetsOf({ stylesheets }: Pick<StoredPageKind, 'stylesheets'>, all: readonly StoredStylesheet[]): Sheet[] {
  return stylesheets.flatMap((id) => {
    const sheet = all.find((one) => one.id === id);
    return sheet === undefined ? [] : [{ name: fileNameOf(id), css: sheet.css, media: sheet.media }];
  });
}

/** A stylesheet as one text, with the media query with which pages link it. */
export const cssOf = ({ css, media = '' }: Sheet): string => (media === '' ? css : `@media ${media} {\n${css}\n}`);
