/** How the editor holds each element that the markup rules may allow. All names are in lower case. */

/** What may stand inside a block that holds blocks; a line is words without a paragraph around them. */
export const FLOW = '(line | block)+';

/** Blocks whose content is words. */
export const TEXT_BLOCKS = ['p', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'pre'] as const;

/** Blocks that hold other blocks, with what may stand in them: names of elements, or 'flow' for anything. */
export const CONTAINERS: Readonly<Record<string, readonly string[] | 'flow'>> = {
  blockquote: 'flow',
  ul: ['li'],
  ol: ['li'],
  menu: ['li'],
  li: 'flow',
  dl: ['dt', 'dd'],
  dt: 'flow',
  dd: 'flow',
  div: 'flow',
  section: 'flow',
  article: 'flow',
  aside: 'flow',
  header: 'flow',
  footer: 'flow',
  main: 'flow',
  nav: 'flow',
  hgroup: 'flow',
  search: 'flow',
  center: 'flow',
  address: 'flow',
  fieldset: 'flow',
  legend: 'flow',
  figure: 'flow',
  figcaption: 'flow',
  details: 'flow',
  summary: 'flow',
  table: ['caption', 'colgroup', 'thead', 'tbody', 'tfoot'],
  caption: 'flow',
  colgroup: ['col'],
  thead: ['tr'],
  tbody: ['tr'],
  tfoot: ['tr'],
  tr: ['td', 'th'],
  td: 'flow',
  th: 'flow',
};

/** Containers that stand only inside a certain parent, never on their own. */
export const PARTS: ReadonlySet<string> = new Set([
  'li',
  'dt',
  'dd',
  'caption',
  'colgroup',
  'col',
  'thead',
  'tbody',
  'tfoot',
  'tr',
  'td',
  'th',
  'figcaption',
  'summary',
  'legend',
]);

/** The part that only this container may hold, beside anything else. */
export const PART_OF: Readonly<Record<string, string>> = { figure: 'figcaption', details: 'summary', fieldset: 'legend' };

/** Elements without content that stand among words. */
export const INLINE_LEAVES = ['br', 'img', 'wbr', 'iframe', 'input'] as const;

/** Elements without content that stand among blocks, or in a table's column group. */
export const BLOCK_LEAVES = ['hr', 'col'] as const;

/** Elements that mark words. A link comes first so that it is written around the others. */
export const MARKS = [
  'a',
  'strong',
  'em',
  'b',
  'i',
  'u',
  's',
  'del',
  'ins',
  'small',
  'big',
  'mark',
  'sub',
  'sup',
  'code',
  'kbd',
  'samp',
  'var',
  'cite',
  'q',
  'dfn',
  'abbr',
  'time',
  'data',
  'bdi',
  'bdo',
  'strike',
  'tt',
  'font',
  'span',
  'label',
] as const;
