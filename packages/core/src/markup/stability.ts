import { VOID_ELEMENTS } from '../html/elements';
import { HTML_NAMESPACE, type ElementNode, type ParentNode } from '../html/node';

/*
 * Whether a tree, once written, will be read as the same tree. The answer "surely" is cheap and covers ordinary content;
 * for everything else the caller parses the written text again and compares. Rules of HTML, section 13.2.6.4.7 "in body".
 */

/** Start tags of these close an open `p`. */
const CLOSE_PARAGRAPH = new Set(
  'address article aside blockquote center details dialog dir div dl fieldset figcaption figure footer h1 h2 h3 h4 h5 h6 header hgroup hr main menu nav ol p pre search section summary table ul li dd dt'.split(
    ' ',
  ),
);
const HEADINGS = new Set(['h1', 'h2', 'h3', 'h4', 'h5', 'h6']);
/** Ordinary elements, for which the parser has no rule but to open and close them where they stand. */
const ORDINARY = new Set(
  'abbr audio b bdi bdo big br canvas cite code data del dfn em embed font i iframe img input ins kbd label legend map mark meter output picture progress q ruby s samp small source span strike strong sub sup time track tt u var video wbr'.split(
    ' ',
  ),
);
/** Where each of these may stand; in any other place the parser may move it. */
const PARENTS: ReadonlyMap<string, readonly string[]> = new Map(
  Object.entries({
    li: ['ul', 'ol', 'menu'],
    dt: ['dl'],
    dd: ['dl'],
    caption: ['table'],
    colgroup: ['table'],
    col: ['colgroup'],
    thead: ['table'],
    tbody: ['table'],
    tfoot: ['table'],
    tr: ['thead', 'tbody', 'tfoot'],
    td: ['tr'],
    th: ['tr'],
  }),
);
/** Elements that may hold only what `PARENTS` places there, and white space. */
const STRICT = new Set(['table', 'colgroup', 'thead', 'tbody', 'tfoot', 'tr']);

/**
 * @param root the tree to be written
 * @returns true where parsing the written tree certainly gives the same tree; false where that is not certain
 */
export function isSurelyStable(root: ParentNode): boolean {
  const parents: ParentNode[] = [root];
  const places: number[] = [0];
  let [paragraphs, links] = [0, 0];
  while (parents.length > 0) {
    const depth = parents.length - 1;
    const parent = parents[depth]!;
    const parentName = parent.type === 'element' ? parent.name : '';
    const child = parent.children[places[depth]!++];
    if (child === undefined) {
      parents.pop();
      places.pop();
      if (parentName === 'p') paragraphs--;
      else if (parentName === 'a') links--;
    } else if (child.type === 'text') {
      if (STRICT.has(parentName) && /[^\t\n\f ]/.test(child.value)) return false;
    } else if (child.type === 'element') {
      const { name } = child;
      if (!canStand(child, parentName, paragraphs > 0, links > 0)) return false;
      if (child.children.length === 0 || VOID_ELEMENTS.has(name)) continue;
      if (name === 'p') paragraphs++;
      else if (name === 'a') links++;
      parents.push(child);
      places.push(0);
    }
  }
  return true;
}

function canStand(element: ElementNode, parentName: string, isInParagraph: boolean, isInLink: boolean): boolean {
  const { name } = element;
  if (element.namespace !== HTML_NAMESPACE || element.content !== null) return false;
  const parents = PARENTS.get(name);
  if (parents !== undefined ? !parents.includes(parentName) : STRICT.has(parentName)) return false;
  if (CLOSE_PARAGRAPH.has(name)) return !isInParagraph && !(HEADINGS.has(name) && HEADINGS.has(parentName));
  if (name === 'a') return !isInLink;
  if (name === 'iframe') return element.children.length === 0;
  return parents !== undefined || ORDINARY.has(name) || name.includes('-');
}
