import { VOID_ELEMENTS } from '../html/elements';
import type { ChildNode, ElementNode, ParentNode } from '../html/node';
import { parseFragment } from '../html/parse';
import { escapeText, startTag } from '../html/serialize';
import { fieldKeySchema } from '../profile/basic-schema';

/** What a template of a page is written with: HTML's elements for structure and text, and `slot` (HTML, section 4.12.4). */
export const TEMPLATE_ELEMENTS: ReadonlySet<string> = new Set(
  (
    'main article section div aside header footer nav figure figcaption center hgroup address h1 h2 h3 h4 h5 h6 p span strong em small ' +
    'ul ol li dl dt dd hr br slot'
  ).split(' '),
);
const ATTRIBUTES: ReadonlySet<string> = new Set(['class', 'lang', 'dir', 'title', 'role', 'aria-label']);
/** Elements that hold words alone (HTML, section 3.2.5.2.5): a text of several blocks cannot stand in them. */
const FOR_WORDS: ReadonlySet<string> = new Set('h1 h2 h3 h4 h5 h6 p span strong em small'.split(' '));

/** Elements of a template, slots among them, stand in one another no deeper than this. */
const DEEPEST = 32;

/** The slot that prints the title of the document. */
export const TITLE_SLOT = 'title';
/** The slot without a name prints every field that no other slot of the template prints. */
export const REST_SLOT = '';

/** How a page without a template of its own prints a document. */
export const PLAIN_TEMPLATE = `<h1><slot name="${TITLE_SLOT}"></slot></h1>\n<slot></slot>`;

/** An element around something, as far as stylesheets see it. */
export interface AroundElement {
  element: string;
  className?: string | undefined;
}

/** A place in a template where a field is printed. */
export interface TemplateSlot {
  /** The key of the field; empty for all that have no slot of their own. */
  name: string;
  /** The elements around it within the template, from the outside in. */
  around: readonly AroundElement[];
  /** Whether only words can stand there, such as in a heading. */
  isForWords: boolean;
}

/** A template as it was read. */
export interface ReadTemplate {
  slots: readonly TemplateSlot[];
  /** What is wrong with it, in sentences; it is not to be used where there is something. */
  problems: readonly string[];
}

/**
 * Reads the template of a page: markup in which `<slot name="key">` stands where a field is printed, and a slot without a name
 * for all fields that have no other.
 *
 * @param text markup of the elements of `TEMPLATE_ELEMENTS`; what stands in a slot is printed where its field is empty
 */
export function readTemplate(text: string): ReadTemplate {
  const { root, ignored } = parseFragment(text);
  const problems: string[] = [];
  const slots: TemplateSlot[] = [];
  for (const { name } of ignored) problems.push(`<${name}> cannot stand where it is`);
  visit(root, []);
  if (slots.length === 0) problems.push('it has no <slot>, so nothing of a document would show');
  return { slots, problems: [...new Set(problems)] };

  function visit(parent: ParentNode, around: readonly ElementNode[]): void {
    if (around.length > DEEPEST) {
      problems.push(`its elements are nested deeper than ${DEEPEST} levels`);
      return;
    }
    for (const child of parent.children) {
      if (child.type === 'comment') problems.push('comments have no place here');
      if (child.type !== 'element') continue;
      if (!TEMPLATE_ELEMENTS.has(child.name)) problems.push(`<${child.name}> has no place here`);
      for (const { name } of child.attributes)
        if (!ATTRIBUTES.has(name) && !(child.name === 'slot' && name === 'name'))
          problems.push(`the attribute ${name} of <${child.name}> has no place here`);
      if (child.name === 'slot') takeSlot(child, around);
      visit(child, [...around, child]);
    }
  }

  function takeSlot(slot: ElementNode, around: readonly ElementNode[]): void {
    const name = slot.attribute('name') ?? REST_SLOT;
    if (name !== REST_SLOT && !fieldKeySchema.safeParse(name).success) problems.push(`“${name}” cannot be the name of a slot`);
    if (around.some((element) => element.name === 'slot')) problems.push('a slot cannot stand in a slot');
    slots.push({
      name,
      around: around.map((element) => {
        const className = element.attribute('class')?.trim();
        return { element: element.name, ...(className === undefined || className === '' ? {} : { className }) };
      }),
      isForWords: around.some((element) => FOR_WORDS.has(element.name)),
    });
  }
}

/**
 * Prints a document through a template. An element whose slots all have nothing to print, is not printed either, with the
 * labels that it holds.
 *
 * @param text a template without problems
 * @param printed markup for each slot by its name; it stands in the page as it is, and must be clean
 * @param mark puts something around what a slot prints, such as to show where that is
 */
export function printTemplate(
  text: string,
  printed: ReadonlyMap<string, string>,
  mark: (name: string, html: string) => string = (_, html) => html,
): string {
  return contents(parseFragment(text).root).html;

  function contents(parent: ParentNode): { html: string; slots: number; filled: number } {
    const all = { html: '', slots: 0, filled: 0 };
    for (const child of parent.children) {
      const one = node(child);
      all.html += one.html;
      all.slots += one.slots;
      all.filled += one.filled;
    }
    return all;
  }

  function node(child: ChildNode): { html: string; slots: number; filled: number } {
    if (child.type === 'text') return { html: escapeText(child.value), slots: 0, filled: 0 };
    if (child.type === 'comment') return { html: '', slots: 0, filled: 0 };
    const inside = contents(child);
    if (child.name === 'slot') {
      const name = child.attribute('name') ?? REST_SLOT;
      const own = printed.get(name) ?? '';
      const html = own === '' ? inside.html : own;
      return { html: html.trim() === '' ? '' : mark(name, html), slots: 1, filled: html.trim() === '' ? 0 : 1 };
    }
    if (inside.slots > 0 && inside.filled === 0) return { ...inside, html: '' };
    const end = VOID_ELEMENTS.has(child.name) ? '' : `</${child.name}>`;
    return { ...inside, html: `${startTag(child)}${inside.html}${end}` };
  }
}

/** The slot in which the text of a document stands: the one for all fields, or the first that can hold several blocks. */
export function textSlot(text: string): TemplateSlot | null {
  const { slots } = readTemplate(text);
  return slots.find(({ name }) => name === REST_SLOT) ?? slots.find(({ name, isForWords }) => name !== TITLE_SLOT && !isForWords) ?? null;
}

/**
 * What stands around a text on a page: all elements from the outside in, and whether the title stands above it as a heading
 * of the first level. Other fields that a template prints beside it are not told.
 */
export function textFrame({ wrapper, template = PLAIN_TEMPLATE }: { wrapper: readonly AroundElement[]; template?: string | undefined }): {
  wrapper: readonly AroundElement[];
  hasTitle: boolean;
} {
  const { slots } = readTemplate(template);
  const slot = textSlot(template);
  const around = slot?.around ?? [];
  const title = slots.find(({ name }) => name === TITLE_SLOT);
  const hasTitle =
    title !== undefined &&
    title.around.length === around.length + 1 &&
    title.around[around.length]!.element === 'h1' &&
    around.every(({ element, className }, at) => title.around[at]!.element === element && title.around[at]!.className === className);
  return { wrapper: [...wrapper, ...around], hasTitle };
}
