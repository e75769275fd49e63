import { linkHeader, pageQuery } from '@typikon/api';
import type { Context } from 'hono';

/** So much stored content is answered with at once, in bytes, or one piece of it where that alone is longer. */
export const MOST_BYTES = 1024 * 1024;

export { linkHeader, pageQuery };

/**
 * One page of rows that were asked for with one more than the page holds.
 *
 * @param idOf what `after` names a row by
 */
export function pageOf<Row>(context: Context, rows: readonly Row[], limit: number, idOf: (row: Row) => string): Row[] {
  const page = rows.slice(0, limit);
  if (rows.length > limit) linkNext(context, idOf(page[page.length - 1]!));
  return page;
}

/** How many of the rows fit into one answer; at least one. */
export function fitting(rows: readonly { size: number }[], most = MOST_BYTES): number {
  let bytes = 0;
  const fits = rows.findIndex(({ size }, at) => (bytes += size) > most && at > 0);
  return fits === -1 ? rows.length : fits;
}

export function linkNext(context: Context, after: string): void {
  const url = new URL(context.req.url);
  url.searchParams.set('after', after);
  context.header('Link', `<${url.pathname}${url.search}>; rel="next"`);
}
