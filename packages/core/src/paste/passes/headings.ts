import { type ChildNode, type ElementNode } from '../../html/node';
import { hasLetters, visibleText } from '../../html/text';
import { transform } from '../../html/transform';
import type { Pass } from '../pass';

/** Turns short paragraphs that are bold as a whole into headings. */
export const headings: Pass<'headings'> = {
  id: 'headings',
  label: 'Headings',
  effect: 'Short paragraphs that are bold as a whole become headings.',
  run({ root, settings, report }) {
    transform(root, {
      element(element) {
        if (element.name !== 'p') return 'keep';
        const bold = onlyBold(element);
        const text = visibleText(element).trim();
        if (bold === null || text.length > settings.longest || /[.,;:]$/.test(text)) return 'keep';
        element.name = `h${settings.level}`;
        element.children = bold.children;
        for (const child of element.children) child.parent = element;
        report.renamed(element, 'p');
        return 'keep';
      },
    });
  },
};

/** The one bold element that holds all the words of a paragraph. */
function onlyBold(paragraph: ElementNode): ElementNode | null {
  const telling = paragraph.children.filter(
    (child: ChildNode) => child.type === 'element' || (child.type === 'text' && hasLetters(child.value)),
  );
  const [only, ...rest] = telling;
  if (only?.type !== 'element' || rest.length > 0 || (only.name !== 'strong' && only.name !== 'b')) return null;
  return visibleText(only).trim() === '' ? null : only;
}
