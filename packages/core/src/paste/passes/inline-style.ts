import { append, copyPlace, ElementNode, HTML_NAMESPACE, type ChildNode, type ParentNode } from '../../html/node';
import { transform } from '../../html/transform';
import { isHidden } from '../../html/display';
import { isBlock } from '../../html/elements';
import { hasLetters } from '../../html/text';
import { ofProperty } from '../../ledger/subject';
import type { PastePasses } from '../../profile/paste-schema';
import { looseDeclarations, setAttribute, type LooseDeclaration } from '../declarations';
import type { Pass, PassRun, Reporter } from '../pass';

/** What a declaration means, said in markup; null where markup has no word for it. */
function meaningOf({ property, value }: LooseDeclaration): string | null {
  const lower = value.toLowerCase();
  if (property === 'font-weight') return /^(bold|bolder|[6-9]00)\b/.test(lower) ? 'strong' : null;
  if (property === 'font-style') return /^(italic|oblique)/.test(lower) ? 'em' : null;
  if (property === 'text-decoration' || property === 'text-decoration-line') return /line-through/.test(lower) ? 's' : null;
  if (property === 'vertical-align') return /^super\b/.test(lower) ? 'sup' : /^sub\b/.test(lower) ? 'sub' : null;
  return null;
}

/** Elements that say the same already, and those whose text is bold by itself. */
const SAYS_SO: Readonly<Record<string, readonly string[]>> = {
  strong: ['strong', 'b', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'th'],
  em: ['em', 'i', 'cite'],
  s: ['s', 'del', 'strike'],
  sup: ['sup'],
  sub: ['sub'],
};

/** What changes how the words look; an author may notice when it goes. */
const SEEN: ReadonlySet<string> = new Set(
  'color background background-color font font-family font-size font-weight font-style text-align text-decoration text-transform border'.split(
    ' ',
  ),
);

/** Properties that can hide an element. */
const HIDES: ReadonlySet<string> = new Set(['display', 'visibility', 'mso-hide']);

/** Elements that an old `align` attribute aligns the text of (HTML, section 16.2). */
const ALIGNED: ReadonlySet<string> = new Set(['p', 'div', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'li']);

/** Takes inline style away but for what is named; what it means and markup can say is said in markup first. */
export const inlineStyle: Pass<'inline-style'> = {
  id: 'inline-style',
  finds: ({ attributes }, { sheet }) => attributes.has('style') || attributes.has('align') || (attributes.has('class') && !sheet.isEmpty),
  run({ root, settings, sheet, report }) {
    transform(root, {
      element(element, parent) {
        const style = element.attribute('style');
        const declarations = style === undefined ? [] : looseDeclarations(style);
        const fromClass = settings.asMarkup ? sheet.declarationsOf(element) : [];
        const oldAlignment = ALIGNED.has(element.name) ? element.attribute('align')?.toLowerCase() : undefined;
        if (style === undefined && fromClass.length === 0 && oldAlignment === undefined) return 'keep';
        if (
          style !== undefined &&
          isHiddenBy(element) &&
          !declarations.some(({ property }) => HIDES.has(property) && stays(property, settings))
        ) {
          // Without its style it would turn up on the page.
          report.removed(element, 'change');
          return 'drop';
        }
        align(element, [...fromClass, ...declarations], oldAlignment, settings, report);
        // What stands in the attribute itself outweighs what a class says.
        const said = new Map([...fromClass, ...declarations].map((declaration) => [declaration.property, declaration]));
        if (settings.asMarkup)
          for (const declaration of said.values()) {
            const name = meaningOf(declaration);
            if (name !== null && !isSaid(name, element, parent)) say(element, name, declaration, report);
          }
        if (style !== undefined) reduce(element, style, declarations, settings, report);
        // Bold that is set back to normal means nothing.
        if ((element.name === 'b' || element.name === 'strong') && /^(normal|400)$/i.test(said.get('font-weight')?.value ?? '')) {
          report.unwrapped(element);
          return 'unwrap';
        }
        return 'keep';
      },
    });
  },
};

/** Whether it is its style alone that hides an element. */
function isHiddenBy(element: ElementNode): boolean {
  if (!isHidden(element)) return false;
  const others = element.attributes.filter(({ name }) => name !== 'style');
  return !isHidden(new ElementNode(element.name, element.namespace, others));
}

function reduce(
  element: ElementNode,
  style: string,
  declarations: readonly LooseDeclaration[],
  settings: PastePasses['inline-style'],
  report: Reporter,
): void {
  const kept = declarations.filter(({ property }) => stays(property, settings));
  for (const declaration of declarations)
    if (!stays(declaration.property, settings))
      report.declaration(element, declaration, SEEN.has(declaration.property) ? 'change' : 'tidy');
  const after = kept.map(({ property, value }) => `${property}: ${value}`).join('; ');
  if (after === style) return;
  if (kept.length === declarations.length) report.attribute(element, 'style', `style="${after}"`);
  setAttribute(element, 'style', after === '' ? null : after);
}

function stays(property: string, { keep, drop, vendor }: PastePasses['inline-style']): boolean {
  if (property.startsWith('-')) return vendor === 'keep';
  return drop === undefined ? keep.includes(property) : !drop.includes(property);
}

/** An alignment becomes the class that stands for it. */
function align(
  element: ElementNode,
  declarations: readonly LooseDeclaration[],
  oldAlignment: string | undefined,
  settings: PassRun<'inline-style'>['settings'],
  report: Reporter,
): void {
  const alignment = declarations.findLast(({ property }) => property === 'text-align')?.value.toLowerCase() ?? oldAlignment;
  const className = alignment === undefined ? undefined : settings.alignmentClasses[alignment as 'left'];
  if (className !== undefined && isBlock(element.name)) {
    const before = element.attribute('class') ?? '';
    const words = before.split(/\s+/).filter((word) => word !== '');
    if (!words.includes(className)) {
      setAttribute(element, 'class', [...words, className].join(' '));
      report.changed(element, `class="${className}"`, 'tidy', 0, 'paste-alignment');
    }
  }
  if (oldAlignment !== undefined) {
    report.attribute(element, 'align', '', 'change');
    setAttribute(element, 'align', null);
  }
}

function isSaid(name: string, element: ElementNode, parent: ParentNode): boolean {
  const same = SAYS_SO[name]!;
  if (same.includes(element.name)) return true;
  for (let at: ParentNode | null = parent, steps = 0; at?.type === 'element' && steps < 8; at = at.parent, steps++)
    if (same.includes(at.name)) return true;
  return false;
}

/** Puts what an element holds into one that says what its style did; of an element with blocks in it, what each block holds. */
function say(element: ElementNode, name: string, { property, value }: LooseDeclaration, report: Reporter): void {
  const same = SAYS_SO[name]!;
  const stack: ElementNode[] = [element];
  let wraps = 0;
  for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
    if (at !== element && same.includes(at.name)) continue;
    const blocks = at.children.filter((child): child is ElementNode => child.type === 'element' && isBlock(child.name));
    if (blocks.length > 0) {
      // What stands beside blocks is left alone: to wrap it would part its words from each other.
      for (const block of blocks) stack.push(block);
      continue;
    }
    if (!at.children.some(shows) || at.name === 'br') continue;
    wrapContent(at, name, element);
    wraps++;
  }
  if (wraps > 0) report.changed(element, `<${name}>`, 'tidy', 0, 'paste-meaning', ofProperty(element.name, property, value));
}

function shows(child: ChildNode): boolean {
  return child.type === 'element' || (child.type === 'text' && hasLetters(child.value));
}

function wrapContent(element: ElementNode, name: string, by: ElementNode): void {
  const wrapper = new ElementNode(name, HTML_NAMESPACE, []);
  // It stands for what the style said, so it has the place of the tag that said it.
  copyPlace(by, wrapper);
  const { children } = element;
  element.children = [];
  for (const child of children) append(wrapper, child);
  append(element, wrapper);
}
