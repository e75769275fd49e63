import { takeCensus } from '../../html/census';
import { isBlock } from '../../html/elements';
import type { ElementNode, ParentNode } from '../../html/node';
import { parseFragment } from '../../html/parse';
import { elementsOf } from '../../html/transform';
import { cleanWithoutLedger } from '../../markup/clean';
import { readDeclarations } from '../../markup/inline-style';
import type { ComparedSide } from './side';
import type { ComparisonLine, LinkKind, Sought } from './line';
import { judged, type ComparedSides } from './probes';
import { UNLISTED } from './vocabulary';

/** A text as lines are looked for in it: read once for all of them. */
class Held {
  readonly root: ParentNode;
  readonly elements: readonly ElementNode[];
  private readonly named = new Map<string, ElementNode[]>();
  private counts: ReturnType<typeof takeCensus> | null = null;

  constructor(readonly html: string) {
    this.root = parseFragment(html).root;
    this.elements = elementsOf(this.root);
    for (const element of this.elements) {
      const of = this.named.get(element.name);
      if (of === undefined) this.named.set(element.name, [element]);
      else of.push(element);
    }
  }

  /** The elements with a name; all where none is given. */
  of(name: string | undefined): readonly ElementNode[] {
    return name === undefined ? this.elements : (this.named.get(name) ?? []);
  }

  get census(): ReturnType<typeof takeCensus> {
    return (this.counts ??= takeCensus(this.root));
  }
}

type Test = (text: Held) => boolean;

/**
 * Tells which lines of a comparison of two profiles a text holds the thing of.
 *
 * A value, an address, a property and a class are a line's example: a text holds it where it has that one, or another for which no
 * line speaks and of which the same side leaves more. Passes act on what is pasted and not on what is stored.
 *
 * @param lines of a comparison of these two, in this direction
 * @returns for a text, whether it holds each line's thing; null for lines of passes
 */
export function holdingOf(lines: readonly ComparisonLine[], from: ComparedSide, to: ComparedSide): (html: string) => (boolean | null)[] {
  const sides: ComparedSides = { from: from.rules, to: to.rules };
  const values = new Map<string, Set<string>>();
  for (const { subject, kept } of lines) {
    const key = groupOf(subject, kept);
    values.set(key, (values.get(key) ?? new Set()).add(subject.value ?? ''));
  }
  const isUnlisted = (name: string): boolean =>
    [from, to].every(({ profile }) => !Object.hasOwn(profile.markup.elements, name)) &&
    sides.from.element(name).outcome !== sides.to.element(name).outcome;
  const tests = lines.map((line) => testOf(line, sides, isUnlisted, values.get(groupOf(line.subject, line.kept))!));
  return (html) => {
    const text = new Held(html);
    return tests.map((test) => test?.(text) ?? null);
  };
}

/** Whether an example has what is sought in it: not every nesting that can be written is one that is read. */
export function shows({ sought, element }: ComparisonLine['subject'], html: string, sides: ComparedSides): boolean {
  return sought === undefined || soughtTest(sought, element, sides)(new Held(html));
}

/** Lines that differ in their example alone. */
const groupOf = ({ kind, element, attribute, property }: ComparisonLine['subject'], kept: string): string =>
  JSON.stringify([kind, element ?? '', attribute ?? '', property ?? '', kept]);

function testOf(
  { subject, kept }: ComparisonLine,
  sides: ComparedSides,
  isUnlisted: (element: string) => boolean,
  told: ReadonlySet<string>,
): Test | null {
  const { kind, element, attribute = '', property = '', value = '', sought } = subject;
  const isMeant = (one: string): boolean => one === value || !told.has(one);
  const isTreated = (name: string, one: string): boolean => keeperOf(sides, name, attribute, one)?.includes(kept) === true;
  const some = (test: (element: ElementNode) => boolean): Test => {
    return (text) => text.of(element).some(test);
  };
  switch (kind) {
    case 'pass':
      return null;
    case 'element':
      return element === UNLISTED ? (text: Held) => text.elements.some(({ name }) => isUnlisted(name)) : some(() => true);
    case 'attribute':
      return some((node) => valueOf(node, attribute) !== null);
    case 'value':
    case 'address':
      return some((node) => {
        const one = valueOf(node, attribute);
        return one !== null && (one === value || (isMeant(one) && isTreated(node.name, one)));
      });
    case 'class':
      return some(({ name, attributes }) => {
        const all = attributes.find((one) => one.name === 'class')?.value ?? '';
        return all === value || wordsOf(all).some((word) => word === value || (isMeant(word) && isTreated(name, word)));
      });
    case 'property':
      return some(({ name, attributes }) =>
        readDeclarations(attributes.find((one) => one.name === 'style')?.value ?? '').some((declared) => {
          if (declared.property !== property) return false;
          return declared.value === value || (isMeant(declared.value) && isTreated(name, `${property}: ${declared.value}`));
        }),
      );
    case 'ids':
      return ({ elements }: Held) =>
        elements.some((node) => valueOf(node, 'id') !== null || valueOf(node, 'href')?.startsWith('#') === true);
    case 'comments':
      return ({ root }: Held) => hasComment(root);
    case 'together':
      return ({ html }: Held) => cleanWithoutLedger(html, sides.from) !== cleanWithoutLedger(html, sides.to);
    default:
      return sought === undefined ? some(() => true) : soughtTest(sought, element, sides);
  }
}

/** Which sides leave more of a value: one, both where each makes something else of it, or null where they do the same. */
function keeperOf({ from, to }: ComparedSides, element: string, attribute: string, value: string): ('from' | 'to')[] | null {
  if (from.element(element).outcome !== 'keep' || to.element(element).outcome !== 'keep') return null;
  const [one, other] = [judged(from, element, attribute, value), judged(to, element, attribute, value)];
  if (one === other) return null;
  if (one === null || other === value) return ['to'];
  return other === null || one === value ? ['from'] : ['from', 'to'];
}

function soughtTest(sought: Sought, element: string | undefined, sides: ComparedSides): Test {
  const some = (test: (node: ElementNode) => boolean): Test => {
    return (text) => text.of(element).some(test);
  };
  switch (sought.is) {
    case 'without':
      return some((node) => sought.attributes.every((name) => valueOf(node, name) === null));
    case 'refused-source':
      return some((node) => {
        const source = valueOf(node, 'src');
        return source !== null && [sides.from, sides.to].some((rules) => judged(rules, node.name, 'src', source) === null);
      });
    case 'link':
      return some((node) => {
        const href = valueOf(node, 'href');
        return href !== null && linkKind(href) === sought.href && (valueOf(node, 'target') === '_blank') === sought.opensNew;
      });
    case 'shape':
      return some((node) => valueOf(node, 'width') !== null && valueOf(node, 'height') !== null);
    case 'empty':
      return some(isEmpty);
    case 'within':
      return some(({ parent }) => parent?.type === 'element' && parent.name === sought.parent);
    case 'deep':
      return (text) => text.of(element).some((node) => levelsOf(node) >= sought.levels);
    case 'headings':
      return ({ elements }) => isSubsequence(sought.levels, elements);
    case 'hard-spaces':
      return ({ html }) => html.includes('\u00a0') || /&nbsp;|&#160;|&#xa0;/i.test(html);
    case 'empty-paragraphs':
      return (text) => text.of('p').some(isEmpty);
    case 'letters-beyond-ascii':
      // eslint-disable-next-line no-control-regex -- every character that is not ASCII, written as itself or by a reference
      return ({ html }) => /[^\x00-\x7f]|&(?!amp;|lt;|gt;|quot;)/.test(html);
    case 'several-blocks':
      return ({ elements }) => elements.filter(({ name }) => isBlock(name)).length > 1;
    case 'more':
      return ({ census, elements }) => (sought.of === 'elements' ? elements.length : census[sought.of]) > sought.than;
  }
}

const valueOf = ({ attributes }: ElementNode, name: string): string | null => attributes.find((one) => one.name === name)?.value ?? null;

const wordsOf = (text: string): string[] => text.split(/[\t\n\f\r ]+/).filter((word) => word !== '');

function linkKind(href: string): LinkKind {
  const scheme = /^\s*([a-z][a-z0-9+.-]*):/i.exec(href)?.[1]?.toLowerCase();
  if (scheme === undefined) return href.trim().startsWith('//') ? 'elsewhere' : 'within';
  return scheme === 'https' || scheme === 'http' ? 'elsewhere' : 'other';
}

/** Whether a reader sees nothing of an element: white space and line breaks alone. */
const isEmpty = (node: ElementNode): boolean =>
  node.children.every((child) => (child.type === 'element' ? child.name === 'br' : child.type === 'comment' || child.value.trim() === ''));

/** How many elements of its name an element stands in, itself one of them. */
function levelsOf(node: ElementNode): number {
  let levels = 0;
  for (let at: ParentNode | null = node; at !== null; at = at.parent) if (at.type === 'element' && at.name === node.name) levels++;
  return levels;
}

/** Whether headings of these levels stand in a text in this order, whatever stands between them. */
function isSubsequence(levels: readonly number[], elements: readonly ElementNode[]): boolean {
  let at = 0;
  for (const { name } of elements) if (name === `h${levels[at]}` && ++at === levels.length) return true;
  return false;
}

function hasComment(root: ParentNode): boolean {
  const stack: ParentNode[] = [root];
  for (let node = stack.pop(); node !== undefined; node = stack.pop())
    for (const child of node.children) {
      if (child.type === 'comment') return true;
      if (child.type === 'element') stack.push(child);
    }
  return false;
}
