import { append, ElementNode, HTML_NAMESPACE, type ParentNode } from '../../html/node';
import { transform } from '../../html/transform';
import { isBlock } from '../../html/elements';
import type { PastePasses } from '../../profile/paste-schema';
import { looseDeclarations, setAttribute, type LooseDeclaration } from '../declarations';
import type { Pass } from '../pass';

/** What a declaration means, said in markup; null where markup has no word for it. */
function meaningOf({ property, value }: LooseDeclaration): string | null {
  const lower = value.toLowerCase();
  if (property === 'font-weight') return /^(bold|bolder|[6-9]00)$/.test(lower) ? 'strong' : null;
  if (property === 'font-style') return /^(italic|oblique)/.test(lower) ? 'em' : null;
  if (property === 'text-decoration' || property === 'text-decoration-line') return /line-through/.test(lower) ? 's' : null;
  if (property === 'vertical-align') return lower === 'super' ? 'sup' : lower === 'sub' ? 'sub' : null;
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

/** Takes inline style away but for what is named; what it means and markup can say is said in markup first. */
export const inlineStyle: Pass<'inline-style'> = {
  id: 'inline-style',
  label: 'Inline style',
  effect: 'Weight and slant become strong and em; the rest goes, but for what is named.',
  run({ root, settings, report }) {
    transform(root, {
      element(element, parent) {
        const style = element.attribute('style');
        if (style === undefined) return 'keep';
        const declarations = looseDeclarations(style);
        const kept = declarations.filter(({ property }) => stays(property, settings));
        const meanings = settings.asMarkup ? declarations.flatMap((declaration) => meaningOf(declaration) ?? []) : [];
        const alignment = declarations.find(({ property }) => property === 'text-align')?.value.toLowerCase();
        const className = alignment === undefined ? undefined : settings.alignmentClasses[alignment as 'left'];
        const after = kept.map(({ property, value }) => `${property}: ${value}`).join('; ');
        if (after !== style) {
          setAttribute(element, 'style', after === '' ? null : after);
          report.changed(element, after === '' ? '' : `style="${after}"`, kept.length < declarations.length ? 'change' : 'tidy');
        }
        if (className !== undefined && isBlock(element.name)) {
          const words = (element.attribute('class') ?? '').split(/\s+/).filter((word) => word !== '' && word !== className);
          setAttribute(element, 'class', [...words, className].join(' '));
          report.changed(element, `class="${className}"`);
        }
        for (const name of meanings) if (!isSaid(name, element, parent)) wrapContent(element, name, report);
        // Bold that is set back to normal means nothing.
        if (
          (element.name === 'b' || element.name === 'strong') &&
          declarations.some(({ property, value }) => property === 'font-weight' && /^(normal|400)$/.test(value))
        ) {
          report.unwrapped(element);
          return 'unwrap';
        }
        return 'keep';
      },
    });
  },
};

function stays(property: string, { keep, drop }: PastePasses['inline-style']): boolean {
  // Office properties that later passes read go with the others once those are done.
  return drop === undefined ? keep.includes(property) : !drop.includes(property);
}

function isSaid(name: string, element: ElementNode, parent: ParentNode): boolean {
  const same = SAYS_SO[name]!;
  if (same.includes(element.name)) return true;
  for (let at: ParentNode | null = parent, steps = 0; at?.type === 'element' && steps < 8; at = at.parent, steps++)
    if (same.includes(at.name)) return true;
  return false;
}

/** Puts all that an element holds into a new one; of a block, each of its runs of text. */
function wrapContent(element: ElementNode, name: string, report: { changed(node: ElementNode, after: string): void }): void {
  if (element.children.length === 0) return;
  if (element.children.some((child) => child.type === 'element' && isBlock(child.name))) return;
  const wrapper = new ElementNode(name, HTML_NAMESPACE, []);
  // It stands for what the style said, so it has the place of the tag that said it.
  wrapper.start = element.start;
  wrapper.startTagEnd = element.startTagEnd;
  wrapper.endTagStart = element.endTagStart;
  wrapper.end = element.end;
  for (const child of element.children) append(wrapper, child);
  element.children = [];
  append(element, wrapper);
  report.changed(element, `<${name}>`);
}
