import type { CompiledRules } from '../../markup/compiled';
import type { AttributeTest, ElementRule, Profile } from '../../profile/schema';
import { NOTHING_WITHOUT_SOURCE } from '../../html/elements';
import { carry, type Probe } from './carrier';
import type { ComparedSubject, LinkKind, Sought } from './line';
import { UNLISTED, type Vocabulary } from './vocabulary';

/** Something to be cleaned by both, and what it would show. */
export interface Candidate {
  subject: ComparedSubject;
  probe: Probe;
  /** Whether all of the result is looked at, and not only what became of the tag. */
  isWhole?: boolean;
  /** Lines beside which it need not be told. */
  unless?: (subject: ComparedSubject) => boolean;
}

export interface ComparedSides {
  from: CompiledRules;
  to: CompiledRules;
}

/** So many values of one attribute are shown. */
const MOST_VALUES = 60;
/** Limits above this are not shown by an example: nobody would read it. */
const MOST_SHOWN = 20_000;

/** Elements of which one or the other is kept by most profiles. */
const COMMON: readonly string[] = ['div', 'blockquote', 'span', 'p', 'b', 'em', 'strong', 'li'];

type Attributes = readonly (readonly [name: string, value: string])[];

/** What the compiled tests of an attribute leave of a value; null where they refuse it. */
export function judged(rules: CompiledRules, element: string, attribute: string, value: string): string | null {
  const found = rules.element(element).attributes.get(attribute);
  if (found === undefined) return null;
  let left = value;
  for (const { judge } of found.tests) {
    const verdict = judge(left);
    if ('refuse' in verdict) return null;
    left = verdict.keep;
  }
  return left;
}

/** Attributes with which an element is most likely to stay, on both sides if that can be. */
export function usualAttributes(vocabulary: Vocabulary, { from, to }: ComparedSides, element: string, without = ''): [string, string][] {
  const names = vocabulary.demandedOf(element);
  if (NOTHING_WITHOUT_SOURCE.has(element) && !names.includes('src')) names.unshift('src');
  if (element === 'a' && !names.includes('href')) names.unshift('href');
  return names.flatMap((name): [string, string][] => {
    if (name === without) return [];
    const values = vocabulary.valuesOf(element, name).filter((value) => value !== '');
    const isKept = (rules: CompiledRules, value: string): boolean => judged(rules, element, name, value) === value;
    const value =
      values.find((one) => isKept(from, one) && isKept(to, one)) ?? values.find((one) => isKept(from, one) || isKept(to, one)) ?? values[0];
    return value === undefined ? [] : [[name, value]];
  });
}

/** Every element as such. */
export function* elementProbes(vocabulary: Vocabulary, sides: ComparedSides): Iterable<Candidate> {
  for (const element of vocabulary.elements) {
    if (vocabulary.hasSameRule(element)) continue;
    const subject: ComparedSubject = { kind: 'element', element, ...(element === UNLISTED ? { name: 'unlisted' } : {}) };
    yield { subject, probe: carry(element, usualAttributes(vocabulary, sides, element)) };
  }
}

/** The values of every attribute of which the two say something different. */
export function* attributeProbes(vocabulary: Vocabulary, sides: ComparedSides): Iterable<Candidate> {
  const ofAll = new Set<string>();
  for (const element of vocabulary.elements) {
    if (sides.from.element(element).outcome !== 'keep' || sides.to.element(element).outcome !== 'keep') continue;
    for (const attribute of vocabulary.attributesOf(element)) {
      if (vocabulary.saySame(element, attribute)) continue;
      const isOfAll = vocabulary.isOfAll(element, attribute);
      if (isOfAll && ofAll.has(attribute)) continue;
      const sources = vocabulary.sourcesOf(element, attribute);
      const others = usualAttributes(vocabulary, sides, element, attribute);
      const isOn = [sides.from, sides.to].map((rules) => rules.element(element).attributes.has(attribute));
      let shown = 0;
      for (const value of vocabulary.valuesOf(element, attribute)) {
        if (judged(sides.from, element, attribute, value) === judged(sides.to, element, attribute, value)) continue;
        // Where one of them has no rule for the attribute at all, one example says it.
        const of = isOfAll ? {} : { element };
        const subject: ComparedSubject =
          isOn[0] === isOn[1] ? subjectOf(of, attribute, value, sources.tests) : { kind: 'attribute', ...of, attribute };
        if (isOfAll) ofAll.add(attribute);
        yield { subject, probe: carry(element, [...others, [attribute, value]]) };
        if (++shown >= MOST_VALUES) break;
      }
    }
  }
}

function subjectOf(of: { element?: string }, attribute: string, value: string, tests: readonly AttributeTest[]): ComparedSubject {
  if (attribute === 'style') {
    const [property = '', ...rest] = value.split(':');
    return { kind: 'property', ...of, attribute, property, value: rest.join(':').trim() };
  }
  if (attribute === 'class') return { kind: 'class', ...of, attribute, value };
  const kind = tests.some(({ test }) => test === 'url') ? 'address' : 'value';
  return { kind, ...of, attribute, value };
}

/** What elements must have, and where they may stand. */
export function* demandProbes(vocabulary: Vocabulary, sides: ComparedSides): Iterable<Candidate> {
  const ruleIn = ({ markup }: Profile, element: string): ElementRule | undefined =>
    Object.hasOwn(markup.elements, element) ? markup.elements[element] : undefined;
  for (const element of vocabulary.elements) {
    if (sides.from.element(element).outcome !== 'keep' || sides.to.element(element).outcome !== 'keep') continue;
    const rules = [vocabulary.from, vocabulary.to].map((profile) => ruleIn(profile, element) ?? {});
    const differ = (read: (rule: ElementRule) => unknown): boolean =>
      JSON.stringify(read(rules[0]!) ?? null) !== JSON.stringify(read(rules[1]!) ?? null);
    const usual = usualAttributes(vocabulary, sides, element);
    const of = (name: string, probe: Probe, sought?: Sought, kind: 'demand' | 'place' = 'demand'): Candidate => ({
      subject: { kind, element, name, ...(sought === undefined ? {} : { sought }) },
      probe,
      isWhole: kind === 'place',
    });
    if (differ(({ required }) => required))
      for (const name of new Set(rules.flatMap(({ required = {} }) => Object.keys(required))))
        yield of(
          `without ${name}`,
          carry(
            element,
            usual.filter(([other]) => other !== name),
          ),
          { is: 'without', attributes: [name] },
        );
    if (differ(({ anyOf }) => anyOf)) {
      for (const { anyOf } of rules)
        if (anyOf !== undefined)
          yield of(
            `without ${anyOf.attributes.join(' or ')}`,
            carry(
              element,
              usual.filter(([name]) => !anyOf.attributes.includes(name)),
            ),
            { is: 'without', attributes: anyOf.attributes },
          );
    }
    if (differ(({ forced }) => forced) || JSON.stringify(vocabulary.from.markup.links) !== JSON.stringify(vocabulary.to.markup.links))
      yield* forcedProbes(element, usual, of);
    if (differ(({ withoutSource }) => withoutSource) && element === 'img')
      yield of(
        'whose source is refused',
        carry(element, [
          ['src', 'gopher://nowhere.example/a'],
          ['alt', 'A boat'],
        ]),
        { is: 'refused-source' },
      );
    if (differ(({ empty }) => empty)) yield of('without anything in it', carry(element, usual, { content: '' }), { is: 'empty' }, 'place');
    if (differ(({ parents }) => parents))
      for (const parent of new Set([...rules.flatMap(({ parents = [] }) => parents), 'div', 'p', 'li', 'td', 'blockquote', 'section']))
        if (sides.from.kept.has(parent) && sides.to.kept.has(parent))
          yield of(`in <${parent}>`, within(element, parent, usual), { is: 'within', parent }, 'place');
    if (differ(({ depth }) => depth))
      for (const { depth } of rules)
        if (depth !== undefined)
          yield of(`${depth + 1} deep`, nested(element, depth + 1, usual), { is: 'deep', levels: depth + 1 }, 'place');
    if (differ(({ ratio }) => ratio))
      for (const [width, height] of [
        [1600, 100],
        [100, 1600],
        [400, 300],
        [300, 400],
        [1600, 900],
        [100, 100],
      ])
        yield of(`${width} by ${height}`, carry(element, [...usual, ['width', String(width)], ['height', String(height)]]), {
          is: 'shape',
        });
  }
}

const LINKS: readonly (readonly [LinkKind, string])[] = [
  ['elsewhere', 'https://elsewhere.example/a'],
  ['within', '/a/page'],
  ['other', 'nowhere:x'],
];

function* forcedProbes(
  element: string,
  usual: Attributes,
  of: (name: string, probe: Probe, sought?: Sought) => Candidate,
): Iterable<Candidate> {
  yield of('as it gets attributes', carry(element, usual));
  if (element !== 'a' && element !== 'area') return;
  for (const [kind, href] of LINKS)
    for (const target of [[], [['target', '_blank'] as const]]) {
      const others = usual.filter(([name]) => name !== 'href' && name !== 'target');
      const opensNew = target.length > 0;
      const probe = carry(element, [['href', href], ...target, ...others]);
      yield of(opensNew ? `to ${href} in a new window` : `to ${href}`, probe, { is: 'link', href: kind, opensNew });
    }
}

function within(element: string, parent: string, attributes: Attributes): Probe {
  const outer = carry(parent, [], { content: '￼' });
  const inner = carry(element, attributes, { within: [] });
  const at = outer.html.indexOf('￼');
  if (at === -1) return inner;
  return { html: outer.html.replace('￼', () => inner.html), start: at + inner.start, end: at + inner.end };
}

function nested(element: string, times: number, attributes: Attributes): Probe {
  let content = 'words';
  for (let n = 1; n < times; n++) content = `a ${carry(element, attributes, { within: [], content }).html} b`;
  return carry(element, attributes, { content });
}

/** What is not any one element's: headings as a whole, ids, words, comments, limits, and how the result is written. */
export function* settingProbes({ from, to }: Vocabulary, sides: ComparedSides): Iterable<Candidate> {
  const isKept = (name: string): boolean => sides.from.kept.has(name) && sides.to.kept.has(name);
  const [a, b] = [from.markup, to.markup];
  const differ = (read: (markup: typeof a) => unknown): boolean => JSON.stringify(read(a)) !== JSON.stringify(read(b));
  const whole = (subject: ComparedSubject, html: string): Candidate => ({
    subject,
    probe: { html, start: 0, end: html.length },
    isWhole: true,
  });
  if (differ(({ headings }) => headings) || differ(({ elements }) => [1, 2, 3, 4, 5, 6].map((level) => elements[`h${level}`])))
    for (const levels of [[1], [2], [3], [4], [5], [6], [1, 2, 3], [2, 4], [3, 2], [1, 1]])
      yield {
        ...whole(
          {
            kind: 'headings',
            name: `Headings of ${levels.length === 1 ? 'level' : 'levels'} ${levels.join(', ')}`,
            sought: { is: 'headings', levels },
          },
          levels.map((level) => `<h${level}>A heading</h${level}><p>words</p>`).join(''),
        ),
        unless: ({ kind, element }) => (levels.length > 1 ? kind === 'headings' : element === `h${levels[0]}`),
      };
  if (differ(({ ids }) => ids))
    for (const html of [
      '<p id="tides">words</p>',
      '<h2 id="tides">words</h2>',
      '<a id="tides">words</a>',
      '<p><a href="#tides">words</a></p>',
    ])
      yield whole({ kind: 'ids', name: 'Ids' }, html);
  if (differ(({ text }) => text)) {
    for (const html of [
      '<p>5&nbsp;km</p>',
      '<p>some&nbsp;words</p>',
      '<p>10&nbsp;000 «&nbsp;a&nbsp;»</p>',
      '<p>A.&nbsp;B.&nbsp;Name</p>',
      '5&nbsp;km',
      'some&nbsp;words',
    ])
      yield whole({ kind: 'text', name: 'Hard spaces', sought: { is: 'hard-spaces' } }, html);
    for (const html of [
      '<p>a</p><p></p><p>b</p>',
      '<p>a</p><p></p><p></p><p>b</p>',
      '<p>a</p><p>&nbsp;</p><p>&nbsp;</p><p>b</p>',
      '<p><br></p><p>b</p>',
    ])
      yield whole({ kind: 'text', name: 'Empty paragraphs', sought: { is: 'empty-paragraphs' } }, html);
  }
  if (differ(({ comments }) => comments)) yield whole({ kind: 'comments', name: 'Comments' }, '<p>a</p><!-- a note --><p>b</p>');
  for (const key of ['nesting', 'elements', 'letters'] as const)
    if (differ(({ limits }) => limits[key]))
      for (const limit of [a.limits[key], b.limits[key]])
        if (limit !== undefined && limit <= MOST_SHOWN)
          for (const name of COMMON.toSorted((one, other) => Number(isKept(other)) - Number(isKept(one))))
            yield whole(...beyond(key, limit, name));
  if (differ(({ output }) => output)) {
    for (const html of ['<p>café – naïve</p>', 'café – naïve', '<p>5 €</p>'])
      yield whole({ kind: 'output', name: 'How characters are written', sought: { is: 'letters-beyond-ascii' } }, html);
    for (const html of [
      '<p>a</p><p>b</p>',
      '<p>a</p>\n\n<p>b</p>',
      '<h2>a</h2><p>b</p>',
      '<ul><li>a</li> <li>b</li></ul>',
      '<div><p>a</p></div>',
    ])
      yield whole({ kind: 'output', name: 'White space between blocks', sought: { is: 'several-blocks' } }, html);
  }
}

/** Markup that is one more than a limit. */
function beyond(key: 'nesting' | 'elements' | 'letters', limit: number, element: string): [ComparedSubject, string] {
  const of = (name: string): ComparedSubject => ({ kind: 'limit', name, sought: { is: 'more', of: key, than: limit } });
  if (key === 'letters') return [of(`More than ${limit} letters`), `<${element}>${'x'.repeat(limit + 1)}</${element}>`];
  if (key === 'elements') return [of(`More than ${limit} elements`), `<${element}>a</${element}>`.repeat(limit + 1)];
  const open = `<${element}>`.repeat(limit + 1);
  return [of(`Elements more than ${limit} deep`), `${open}words${`</${element}>`.repeat(limit + 1)}`];
}
