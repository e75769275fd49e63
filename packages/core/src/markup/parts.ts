/** Elements that mean something only in others, and those others (HTML, section 4, "Contexts in which this element can be used"). */
const WHOLES: Readonly<Record<string, string>> = {
  li: 'ul ol menu dir',
  dt: 'dl',
  dd: 'dl',
  figcaption: 'figure',
  summary: 'details',
  legend: 'fieldset',
  caption: 'table',
  colgroup: 'table',
  col: 'colgroup',
  thead: 'table',
  tbody: 'table',
  tfoot: 'table',
  tr: 'thead tbody tfoot table',
  td: 'tr',
  th: 'tr',
  option: 'select optgroup datalist',
  optgroup: 'select',
  rt: 'ruby',
  rp: 'ruby',
  source: 'picture video audio',
  track: 'video audio',
};

const COMPILED: ReadonlyMap<string, ReadonlySet<string>> = new Map(
  Object.entries(WHOLES).map(([part, wholes]) => [part, new Set(wholes.split(' '))]),
);

/** The elements that a part has to stand in directly; null for an element that is no part. */
export function wholesOf(part: string): ReadonlySet<string> | null {
  return COMPILED.get(part) ?? null;
}

/** The whole that is made for a part that stands without one. The parts of others become lines of their own. */
export const MADE_WHOLES: Readonly<Record<string, 'ul' | 'dl' | undefined>> = Object.assign(
  Object.create(null) as object,
  {
    li: 'ul',
    dt: 'dl',
    dd: 'dl',
  } as const,
);

/** Elements that the parser adds by itself around others (HTML, section 13.2.6.4.9 "in table"): where those are kept, these are too. */
export const IMPLIED_BY: Readonly<Record<string, string | undefined>> = Object.assign(Object.create(null) as object, {
  tbody: 'tr',
  colgroup: 'col',
});
