import type { PageKind, Stylesheet } from '@typikon/core';
import { lastShared, stateOfShared } from '../editions/shared';
import { pagesIn } from './draft';
import { everything } from './repository';

/** Page kinds and stylesheets by their ids. */
export interface PagesById {
  pageKinds: ReadonlyMap<string, PageKind>;
  stylesheets: ReadonlyMap<string, Stylesheet>;
}

const byId = <Row extends { id: string }>(rows: readonly Row[]): Map<string, Row> => new Map(rows.map((row) => [row.id, row]));

let known: { number: number; pages: PagesById } | null = null;

/** What readers see: page kinds and stylesheets as they were released last. */
export async function releasedPages(): Promise<PagesById> {
  const number = await stateOfShared('pages');
  if (known?.number !== number) {
    const { pageKinds, stylesheets } = pagesIn((await lastShared('pages'))?.document ?? {});
    known = { number, pages: { pageKinds: byId(pageKinds), stylesheets: byId(stylesheets) } };
  }
  return known.pages;
}

/** Page kinds and stylesheets as they are worked on. */
export async function draftPages(): Promise<PagesById> {
  const { pageKinds, stylesheets } = await everything();
  return { pageKinds: byId(pageKinds), stylesheets: byId(stylesheets) };
}
