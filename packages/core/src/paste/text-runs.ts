import { isBlock, REPLACED_ELEMENTS } from '../html/elements';
import type { ParentNode, TextNode } from '../html/node';
import type { Range } from '../html/positions';
import { steps } from '../html/steps';
import { placeOfText, replaceParts, type TextChange } from '../html/text-place';

/** Text nodes that a reader sees as one line of text, since only inline markup stands between them. */
export interface TextRun {
  nodes: TextNode[];
  /** Their texts, joined. */
  text: string;
}

/** Text in these is the author's own, to the letter. */
const AS_WRITTEN: ReadonlySet<string> = new Set(['pre', 'textarea', 'listing', 'xmp', 'plaintext', 'script', 'style']);
const CODE: ReadonlySet<string> = new Set(['code', 'kbd', 'samp']);

/**
 * The runs of text in a tree, in document order. Blocks, breaks, pictures and the like part them; preformatted text is left out.
 *
 * @param withCode whether `code`, `kbd` and `samp` count; where not, they part runs and are left out
 */
export function textRuns(root: ParentNode, withCode = true): TextRun[] {
  const runs: TextRun[] = [];
  let nodes: TextNode[] = [];
  const close = (): void => {
    if (nodes.length > 0) runs.push({ nodes, text: nodes.length === 1 ? nodes[0]!.value : nodes.map(({ value }) => value).join('') });
    nodes = [];
  };
  const stack: { node: ParentNode; next: number }[] = [{ node: root, next: 0 }];
  for (let open = stack[0]; open !== undefined; open = stack[stack.length - 1]) {
    const child = open.node.children[open.next++];
    steps.taken++;
    if (child === undefined) {
      stack.pop();
      if (open.node.type === 'fragment' || parts(open.node.name, withCode)) close();
    } else if (child.type === 'text') nodes.push(child);
    else if (child.type === 'element') {
      if (parts(child.name, withCode)) close();
      if (!AS_WRITTEN.has(child.name) && (withCode || !CODE.has(child.name))) stack.push({ node: child, next: 0 });
    }
  }
  return runs;
}

function parts(name: string, withCode: boolean): boolean {
  return isBlock(name) || name === 'br' || REPLACED_ELEMENTS.has(name) || AS_WRITTEN.has(name) || (!withCode && CODE.has(name));
}

/** A stretch of a run's text and what takes its place. */
export type Replaced = TextChange;

/** The node that a change was made in, and where in the input stood what it is about. */
export interface Changed {
  node: TextNode;
  place: Range | null;
}

/**
 * Puts other text in the place of stretches of a run. What is put in goes to the node that the stretch begins in.
 *
 * @param changes in the order of the text, not overlapping
 */
export function replaceInRun({ nodes }: TextRun, changes: readonly Replaced[]): Changed[] {
  const made: Changed[] = [];
  let begin = 0;
  let next = 0;
  // A change that goes beyond its node is cut from the ones that follow.
  let cutUntil = 0;
  for (const node of nodes) {
    const { length } = node.value;
    const end = begin + length;
    const own: TextChange[] = [];
    if (cutUntil > begin) {
      const cut = { start: 0, end: Math.min(cutUntil - begin, length), text: '' };
      own.push(cut);
      const place = placeOfText(node, cut.start, cut.end);
      const last = made[made.length - 1]!;
      if (place !== null && last.place !== null && place.end > last.place.end) last.place = { start: last.place.start, end: place.end };
    }
    while (next < changes.length && changes[next]!.start < end) {
      const change = changes[next]!;
      const [from, to] = [change.start - begin, Math.min(length, change.end - begin)];
      made.push({ node, place: placeOfText(node, from, to) });
      own.push({ start: from, end: to, text: change.text });
      cutUntil = change.end;
      next++;
    }
    if (own.length > 0) replaceParts(node, own);
    begin = end;
  }
  return made;
}
