import { diffArrays } from 'diff';
import { parseFragment } from '../html/parse';
import { serialize } from '../html/serialize';

/** Texts that differ in more blocks than this are not put together: it would take too long. */
const MOST_DIFFERENCES = 2000;

/**
 * Puts together what two people made of one text, block by block: what stands at the top of the markup is taken from whoever changed
 * it.
 *
 * @param base clean markup that both began with
 * @param mine what one of them made of it
 * @param theirs what the other made of it
 * @returns null where both changed the same block, or both wrote something new in the same place
 */
export function mergeTexts(base: string, mine: string, theirs: string): string | null {
  if (mine === theirs || theirs === base) return mine;
  if (mine === base) return theirs;
  const blocks = blocksOf(base);
  const [ours, others] = [changesBetween(blocks, blocksOf(mine)), changesBetween(blocks, blocksOf(theirs))];
  if (ours === null || others === null) return null;
  const merged: string[] = [];
  let at = 0;
  while (ours.length > 0 || others.length > 0) {
    const [one, other] = [ours[0], others[0]];
    if (one !== undefined && other !== undefined && isSame(one, other)) others.shift();
    else if (one !== undefined && other !== undefined && areInEachOthersWay(one, other)) return null;
    const first = other === undefined || (one !== undefined && isBefore(one, other)) ? ours.shift()! : others.shift()!;
    merged.push(...blocks.slice(at, first.from), ...first.blocks);
    at = first.to;
  }
  return [...merged, ...blocks.slice(at)].join('');
}

/** Blocks that stand in the place of others: of those from one number up to another, the last left out. */
interface Change {
  from: number;
  to: number;
  blocks: string[];
}

function changesBetween(base: readonly string[], text: readonly string[]): Change[] | null {
  const parts = diffArrays([...base], [...text], { maxEditLength: MOST_DIFFERENCES });
  if (parts === undefined) return null;
  const changes: Change[] = [];
  let at = 0;
  let open: Change | null = null;
  for (const { added, removed, value } of parts) {
    if (!added && !removed) {
      at += value.length;
      open = null;
      continue;
    }
    if (open === null) changes.push((open = { from: at, to: at, blocks: [] }));
    if (added) open.blocks.push(...value);
    else open.to = at += value.length;
  }
  return changes;
}

const isSame = (one: Change, other: Change): boolean =>
  one.from === other.from && one.to === other.to && one.blocks.join('\n') === other.blocks.join('\n');

/** Whether two changes are about the same block, or about the same place between two. */
function areInEachOthersWay(one: Change, other: Change): boolean {
  if (one.from === other.from) return one.to > one.from === other.to > other.from;
  const [first, second] = one.from < other.from ? [one, other] : [other, one];
  return second.from < first.to;
}

/** What comes in before a block stands before what becomes of it. */
const isBefore = (one: Change, other: Change): boolean => one.from < other.from || (one.from === other.from && one.to <= other.to);

/** What stands at the top of markup, each thing with the white space behind it. */
function blocksOf(text: string): string[] {
  // Written anew, each thing ends where the next begins.
  const html = serialize(parseFragment(text).root);
  const { children } = parseFragment(html).root;
  const blocks: string[] = [];
  children.forEach((child, at) => {
    const block = html.slice(child.start, children[at + 1]?.start ?? html.length);
    if (child.type === 'text' && block.trim() === '' && blocks.length > 0) blocks[blocks.length - 1] += block;
    else blocks.push(block);
  });
  return blocks;
}
