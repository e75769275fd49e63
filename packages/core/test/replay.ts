import type { LedgerEntry } from '../src/index';

/** One replacement in the input. */
interface Edit {
  start: number;
  end: number;
  text: string;
}

/**
 * Does to the input what a ledger says was done, by its places alone: what was removed is cut out, tags that went or were
 * renamed are replaced, attributes are changed or put there. Reads nothing but the input and the entries.
 */
export function replay(input: string, ledger: readonly LedgerEntry[]): string {
  const edits = ledger.flatMap((entry) => editsOf(input, entry));
  // What lies inside something that goes whole goes with it; a whole tag says all of its attributes.
  const outer = edits.filter(
    (edit) =>
      !edits.some((other) => other !== edit && covers(other, edit) && !(covers(edit, other) && edits.indexOf(edit) < edits.indexOf(other))),
  );
  return outer
    .sort((a, b) => b.start - a.start || b.end - a.end)
    .reduce((text, { start, end, text: replacement }) => text.slice(0, start) + replacement + text.slice(end), input);
}

function covers(one: Edit, other: Edit): boolean {
  // What is put in at the edge of something stands outside it.
  if (other.start === other.end) return one.start < other.start && one.end > other.end;
  return one.start <= other.start && one.end >= other.end;
}

function editsOf(input: string, { action, reason, start, end, before, after, path }: LedgerEntry): Edit[] {
  if (reason === 'words-apart')
    return [{ start, end: start, text: after }, ...(after === '<p>' ? [{ start: end, end, text: '</p>' }] : [])];
  if (reason === 'source-refused') return [{ start, end, text: after }];
  const name = path.slice(path.lastIndexOf(' ') + 1).replace(/:nth-child\(\d+\)$/, '');
  const tagEnd = start + before.length;
  const endTag = new RegExp(`</${name}[\\t\\n\\f\\r ]*>$`, 'i').exec(input.slice(start, end));
  const endTagAt = endTag === null ? [] : [{ start: start + endTag.index, end }];
  switch (action) {
    case 'removed':
      return [{ start, end, text: '' }];
    case 'unwrapped':
      // The tags of an element that the parser added are not in the input.
      if (!new RegExp(`^<${name}[\\s/>]`, 'i').test(before)) return [];
      return [{ start, end: tagEnd, text: '' }, ...endTagAt.map((at) => ({ ...at, text: '' }))];
    case 'renamed':
      return [{ start, end: tagEnd, text: after }, ...endTagAt.map((at) => ({ ...at, text: `</${/^<([^\s>]+)/.exec(after)![1]!}>` }))];
    case 'changed': {
      if (!before.startsWith('<')) return [{ start, end, text: after }];
      // Something was put into a tag, just before it ends.
      const place = end - (/\s*\/?>$/.exec(before)?.[0].length ?? 0);
      return [{ start: place, end: place, text: ` ${after}` }];
    }
    default:
      return [];
  }
}
