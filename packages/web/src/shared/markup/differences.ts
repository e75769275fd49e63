import type { LedgerEntry } from '@typikon/core';

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
  for (const { action, reason, start, end, before } of ledger.slice(0, MOST_MARKS)) {
    // What keeps words apart is put beside them; they themselves stay. Tags that the parser added were not there.
    if (end <= start || reason === 'words-apart' || (action === 'unwrapped' && before === '')) continue;
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

/** So far ahead a tag is looked for where the two sides differ. */
const LOOK_AHEAD = 12;

interface Tag {
  text: string;
  start: number;
  /** Whether the ledger says that something in it was changed or removed. */
  isAltered: boolean;
}

/**
 * The tags of the result that did not stand so in the source. What the ledger says was removed is left out of the source
 * first; then the tags of both go side by side, so that the work is linear and a live proof does not wait for it.
 */
export function newParts(input: string, html: string, altered: readonly Mark[]): Mark[] {
  const before = tagsOf(input, altered);
  const after = tagsOf(html, []);
  const marks: Mark[] = [];
  let i = 0;
  let j = 0;
  while (j < after.length && marks.length < MOST_MARKS) {
    const tag = after[j]!;
    if (before[i]?.text === tag.text) {
      i++;
      j++;
      continue;
    }
    const source = before[i];
    // A tag that was altered stands there in another form.
    if (source?.isAltered === true && isEnd(source) === isEnd(tag)) {
      marks.push({ start: tag.start, end: tag.start + tag.text.length, kind: 'new' });
      i++;
      j++;
      continue;
    }
    const ahead = within(before, i + 1, tag.text);
    const behind = source === undefined ? -1 : within(after, j + 1, source.text);
    if (ahead !== -1 && (behind === -1 || ahead - i <= behind - j)) {
      i = ahead + 1;
      j++;
      continue;
    }
    marks.push({ start: tag.start, end: tag.start + tag.text.length, kind: 'new' });
    j++;
    // What stands in the place of something else uses that up.
    if (behind === -1) i++;
  }
  return marks;
}

function within(tags: readonly Tag[], from: number, text: string): number {
  for (let at = from; at < Math.min(tags.length, from + LOOK_AHEAD); at++) if (tags[at]!.text === text) return at;
  return -1;
}

function isEnd({ text }: Tag): boolean {
  return text.startsWith('</');
}

/** The tags of a text that do not begin in a removed part. */
function tagsOf(text: string, marks: readonly Mark[]): Tag[] {
  const sorted = [...marks].sort((a, b) => a.start - b.start);
  const gone = sorted.filter(({ kind }) => kind === 'removed');
  const tags: Tag[] = [];
  let next = 0;
  let goneUntil = -1;
  let first = 0;
  for (const match of text.matchAll(/<\/?[a-z][^>]*>/gi)) {
    const start = match.index;
    while (next < gone.length && gone[next]!.start <= start) goneUntil = Math.max(goneUntil, gone[next++]!.end);
    if (start < goneUntil) continue;
    const end = start + match[0].length;
    while (first < sorted.length && sorted[first]!.start < start) first++;
    tags.push({ text: match[0], start, isAltered: first < sorted.length && sorted[first]!.start < end });
  }
  return tags;
}
