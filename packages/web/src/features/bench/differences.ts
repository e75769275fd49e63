import type { LedgerEntry } from '@typikon/core';
import { diffArrays } from 'diff';

/** A stretch of a text and how it is marked. */
export interface Mark {
  start: number;
  end: number;
  kind: 'removed' | 'changed' | 'new';
}

/** More marks than this are not drawn: nobody reads them one by one, and the ledger has them all. */
const MOST_MARKS = 20_000;

/** What of the source is gone or changed, by the ledger. An unwrapped element loses its two tags, not its content. */
export function removedParts(input: string, ledger: readonly LedgerEntry[]): Mark[] {
  const marks: Mark[] = [];
  for (const { action, start, end, before } of ledger.slice(0, MOST_MARKS)) {
    if (end <= start) continue;
    if (action === 'removed') marks.push({ start, end, kind: 'removed' });
    else if (action === 'unwrapped' || action === 'renamed' || action === 'shown-as-text') {
      const kind = action === 'unwrapped' ? 'removed' : 'changed';
      marks.push({ start, end: Math.min(end, before.endsWith('…') ? input.indexOf('>', start) + 1 : start + before.length), kind });
      const close = input.lastIndexOf('</', end - 1);
      if (close > start && /^<\/[^<>]*>$/.test(input.slice(close, end))) marks.push({ start: close, end, kind });
    } else marks.push({ start, end, kind: 'changed' });
  }
  return marks;
}

const TOKEN = /<[^>]*>|&[a-z0-9#]+;|[^<\s&]+|\s+|[<&]/gi;

/** The tags of the result that did not stand in the source, found by comparing the two token by token; nothing where that would take too long. */
export function newParts(input: string, html: string): Mark[] {
  if (input.length + html.length > 400_000) return [];
  const parts = diffArrays(input.match(TOKEN) ?? [], html.match(TOKEN) ?? [], { timeout: 150 });
  if (parts === undefined) return [];
  const marks: Mark[] = [];
  let at = 0;
  for (const { value, added, removed } of parts) {
    if (removed) continue;
    for (const token of value) {
      if (added && token.startsWith('<')) marks.push({ start: at, end: at + token.length, kind: 'new' });
      at += token.length;
    }
  }
  return marks;
}
