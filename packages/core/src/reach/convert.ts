import * as z from 'zod';
import { ELEMENT_CATALOGUE } from '../markup/catalogue';
import { isBlock, VOID_ELEMENTS } from '../html/elements';
import { isHidden } from '../html/display';
import { append, ElementNode, HTML_NAMESPACE, type Attribute } from '../html/node';
import { parseFragment } from '../html/parse';
import { serialize } from '../html/serialize';
import { transform } from '../html/transform';
import { readDeclarations } from '../markup/inline-style';

/** Elements whose content is no markup, not shown, or of another language: nothing is turned into them. */
const NEVER: ReadonlySet<string> = new Set(
  'script style template textarea title noscript iframe object embed math svg dialog video audio canvas rp rt datalist progress meter select option form html head body'.split(
    ' ',
  ),
);
const CATALOGUE: ReadonlySet<string> = new Set(ELEMENT_CATALOGUE.flatMap(({ elements }) => elements.map(({ name }) => name)));

const element = z
  .string()
  .regex(/^[a-z][a-z0-9-]*$/, 'must be the name of an element, such as “h2”')
  .max(60);
const made = element.refine(
  (name) => CATALOGUE.has(name) && !VOID_ELEMENTS.has(name) && !NEVER.has(name),
  'must be an element that can hold content',
);
const token = z
  .string()
  .regex(/^[^\s"'<>&=`]+$/, 'must be one class, without spaces')
  .max(120);
/** Which elements are meant: of a name, with a class, or both. */
const which = { element: element.optional(), class: token.optional() };

const conversions = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('rename-element'), element, class: token.optional(), to: made }),
  z.strictObject({ do: z.literal('rename-class'), element: element.optional(), class: token, to: token }),
  z.strictObject({
    do: z.literal('style-to-class'),
    element: element.optional(),
    property: z
      .string()
      .regex(/^-{0,2}[a-z][a-z0-9-]*$/, 'must be a property, such as “text-align”')
      .max(60),
    value: z.string().trim().min(1).max(200).optional().describe('Only where it has this value; any where it is not given.'),
    to: token,
  }),
  z.strictObject({ do: z.literal('wrap'), ...which, element, to: made, toClass: token.optional() }),
  z.strictObject({ do: z.literal('unwrap'), ...which, element }),
]);
export type Conversion = z.output<typeof conversions>;

/** Parts of tables, by what they can stand in for each other: elsewhere the parser leaves their tags out, or moves what they hold. */
const PART_OF_TABLE: Readonly<Record<string, string>> = {
  caption: 'caption',
  colgroup: 'columns',
  col: 'column',
  thead: 'section',
  tbody: 'section',
  tfoot: 'section',
  tr: 'row',
  td: 'cell',
  th: 'cell',
};
const partOf = (name: string): string => (Object.hasOwn(PART_OF_TABLE, name) ? PART_OF_TABLE[name]! : name === 'table' ? 'table' : '');
/** What each kind of part stands in. */
const STANDS_IN: Readonly<Record<string, readonly string[]>> = {
  caption: ['table'],
  columns: ['table'],
  column: ['table', 'columns'],
  section: ['table'],
  row: ['table', 'section'],
  cell: ['row'],
};

/** Why a replacement would break what it is done to; null where it would not. */
function problemOf(conversion: Conversion): { path: string[]; message: string } | null {
  const on = (path: string, message: string) => ({ path: [path], message });
  if (conversion.do === 'rename-class') return conversion.class === conversion.to ? on('to', 'must be another class') : null;
  if (conversion.do === 'style-to-class') return null;
  const part = partOf(conversion.element);
  const isPart = part !== '' && part !== 'table';
  if (conversion.do === 'unwrap') return isPart ? on('element', 'must not be a part of a table: take the tags off the table itself') : null;
  const { element: from, to } = conversion;
  const toPart = partOf(to);
  if (conversion.do === 'wrap') {
    if (isPart) return on('element', 'must not be a part of a table: nothing can stand around it');
    return toPart === '' ? null : on('to', 'must be an element that any content can stand in');
  }
  if (from === to) return on('to', 'must be another element');
  if (part !== 'table' && part !== toPart)
    return on('to', part === '' ? 'must be an element that any content can stand in' : 'must be the same kind of part of a table');
  if (part === 'table' && toPart !== '') return on('to', 'must be an element that any content can stand in');
  return isBlock(from) && !isBlock(to) ? on('to', 'must be a block, too, so that words stay apart') : null;
}

/** A prepared replacement: one thing that is done wherever it fits. */
export const conversionSchema = conversions.superRefine((conversion, context) => {
  const problem = problemOf(conversion);
  if (problem !== null) context.addIssue({ code: 'custom', ...problem });
});

/** What a conversion made of a text. */
export interface Converted {
  html: string;
  /** In how many places it did something. */
  places: number;
}

/**
 * Does one prepared replacement wherever it fits in a text. Its words stay, and stay apart.
 *
 * @param html the text as it is stored
 * @returns the text to the letter where nothing fits; what comes out is not cleaned
 */
export function convert(html: string, conversion: Conversion): Converted {
  const { root } = parseFragment(html);
  let places = 0;
  transform(root, {
    element(node, parent) {
      if (node.namespace !== HTML_NAMESPACE) return 'keep';
      // What has lost its table goes with it, or the parser would run its words together.
      const stands = STANDS_IN[partOf(node.name)];
      if (stands !== undefined && !(parent.type === 'element' && stands.includes(partOf(parent.name)))) return 'unwrap';
      if (!fits(node, conversion)) return 'keep';
      if (conversion.do === 'style-to-class') {
        if (moveToClass(node, conversion)) places++;
        return 'keep';
      }
      const wasHidden = isHidden(node);
      // What readers do not see must not turn up as text.
      if (conversion.do === 'unwrap' && wasHidden) return 'keep';
      if (conversion.do === 'rename-element') {
        node.name = conversion.to;
        if (wasHidden && !isHidden(node)) node.name = conversion.element;
        else places++;
        return 'keep';
      }
      places++;
      switch (conversion.do) {
        case 'rename-class':
          setClasses(
            node,
            classesOf(node).map((name) => (name === conversion.class ? conversion.to : name)),
          );
          return 'keep';
        case 'unwrap':
          return 'unwrap';
        case 'wrap':
          return [wrapped(node, conversion)];
      }
    },
  });
  return places === 0 ? { html, places } : { html: serialize(root), places };
}

function fits(node: ElementNode, conversion: Conversion): boolean {
  if (conversion.element !== undefined && node.name !== conversion.element) return false;
  const name = 'class' in conversion ? conversion.class : undefined;
  if (name !== undefined && !classesOf(node).includes(name)) return false;
  // What was wrapped before is not wrapped again.
  if (conversion.do !== 'wrap' || node.parent?.type !== 'element') return true;
  const { parent } = node;
  return parent.name !== conversion.to || (conversion.toClass !== undefined && !classesOf(parent).includes(conversion.toClass));
}

function wrapped(node: ElementNode, { to, toClass }: Extract<Conversion, { do: 'wrap' }>): ElementNode {
  const around = new ElementNode(to, HTML_NAMESPACE, toClass === undefined ? [] : [attribute('class', toClass)]);
  append(around, node);
  return around;
}

/** Takes a property out of the inline style and gives the element a class for it. */
function moveToClass(node: ElementNode, { property, value, to }: Extract<Conversion, { do: 'style-to-class' }>): boolean {
  const style = node.attribute('style');
  if (style === undefined) return false;
  const declarations = readDeclarations(style);
  const wanted = value === undefined ? null : (readDeclarations(`${property}:${value}`)[0]?.value.toLowerCase() ?? '');
  const meant = declarations.filter((one) => one.property === property && (wanted === null || one.value.toLowerCase() === wanted));
  if (meant.length === 0) return false;
  const rest = declarations.filter((one) => !meant.includes(one)).map(({ start, end }) => style.slice(start, end).trim());
  node.attributes =
    rest.length === 0
      ? node.attributes.filter(({ name }) => name !== 'style')
      : node.attributes.map((one) => (one.name === 'style' ? attribute('style', rest.join('; ')) : one));
  setClasses(node, [...classesOf(node), to]);
  return true;
}

const classesOf = (node: ElementNode): string[] => (node.attribute('class') ?? '').split(/[\t\n\f\r ]+/).filter((name) => name !== '');

function setClasses(node: ElementNode, names: readonly string[]): void {
  const value = [...new Set(names)].join(' ');
  const has = node.attributes.some(({ name }) => name === 'class');
  node.attributes = has
    ? node.attributes.map((one) => (one.name === 'class' ? attribute('class', value) : one))
    : [...node.attributes, attribute('class', value)];
}

const attribute = (name: string, value: string): Attribute => ({ name, value });

/** What a conversion does, in a sentence without a full stop. */
export function conversionWords(conversion: Conversion): string {
  const of =
    `${conversion.element === undefined ? '' : `<${conversion.element}>`}${'class' in conversion && conversion.class !== undefined ? ` with the class ${conversion.class}` : ''}`.trim();
  switch (conversion.do) {
    case 'rename-element':
      return `${of} becomes <${conversion.to}>`;
    case 'rename-class':
      return `The class ${conversion.class}${conversion.element === undefined ? '' : ` of <${conversion.element}>`} becomes ${conversion.to}`;
    case 'style-to-class':
      return `The style ${conversion.property}${conversion.value === undefined ? '' : `: ${conversion.value}`}${conversion.element === undefined ? '' : ` of <${conversion.element}>`} becomes the class ${conversion.to}`;
    case 'wrap':
      return `${of} comes into <${conversion.to}>${conversion.toClass === undefined ? '' : ` with the class ${conversion.toClass}`}`;
    case 'unwrap':
      return `${of} goes, what it holds stays`;
  }
}
