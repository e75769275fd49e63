import type { ChildNode, ElementNode } from '../../html/node';
import { hasLetters, visibleText } from '../../html/text';
import { transform } from '../../html/transform';
import { setAttribute, styleOf } from '../declarations';
import type { Pass } from '../pass';
import type { PastedSheet } from '../sheet';

/** Turns paragraphs that are headings in all but name into headings. */
export const headings: Pass<'headings'> = {
  id: 'headings',
  label: 'Headings',
  effect: 'Titles and outline levels become headings.',
  unit: ['heading', 'headings'],
  run({ root, settings, sheet, report }) {
    transform(root, {
      element(element) {
        if (element.name !== 'p' && element.name !== 'div') return 'keep';
        const text = visibleText(element).trim();
        if (text === '' || text.length > settings.longest) return 'keep';
        const marked = settings.outline ? markedLevel(element) : 0;
        if (marked > 0) {
          become(element, marked, report);
          return 'keep';
        }
        const bold = element.name === 'p' ? onlyBold(element, sheet) : null;
        if (bold === null || /[.,;:]$/.test(text)) return 'keep';
        if (!settings.boldOnly) {
          report.offers++;
          return 'keep';
        }
        if (bold !== element) {
          element.children = bold.children;
          for (const child of element.children) child.parent = element;
        }
        become(element, settings.level, report);
        return 'keep';
      },
    });
  },
};

function become(element: ElementNode, level: number, report: { renamed(element: ElementNode, before: string): void }): void {
  const before = element.name;
  element.name = `h${level}`;
  for (const name of ['role', 'aria-level']) setAttribute(element, name, null);
  report.renamed(element, before);
}

/** The level that a program or ARIA says a paragraph has; 0 where nothing does. */
function markedLevel(element: ElementNode): number {
  if (element.attribute('role') === 'heading') return clamped(Number(element.attribute('aria-level') ?? 2));
  const classes = element.attribute('class') ?? '';
  if (/^(?:MsoTitle|MsoTitleCxSp\w*|title)$/.test(classes)) return 1;
  if (/^(?:MsoSubtitle|subtitle)$/.test(classes)) return 2;
  const byClass = /^MsoHeading([1-9])$/.exec(classes)?.[1];
  if (byClass !== undefined) return clamped(Number(byClass));
  const outline = Number(styleOf(element, 'mso-outline-level'));
  return outline >= 1 ? clamped(outline) : 0;
}

function clamped(level: number): number {
  return Math.min(6, Math.max(1, Math.round(level) || 2));
}

/** The one bold element that holds all the words of a paragraph, which may be the paragraph itself. */
function onlyBold(paragraph: ElementNode, sheet: PastedSheet): ElementNode | null {
  if (isBold(paragraph, sheet)) return paragraph;
  const telling = paragraph.children.filter(
    (child: ChildNode) => child.type === 'element' || (child.type === 'text' && hasLetters(child.value)),
  );
  const [only, ...rest] = telling;
  return only?.type === 'element' && rest.length === 0 && isBold(only, sheet) ? only : null;
}

function isBold(element: ElementNode, sheet: PastedSheet): boolean {
  if (element.name === 'strong' || element.name === 'b') return true;
  const weight =
    styleOf(element, 'font-weight') || (sheet.declarationsOf(element).findLast(({ property }) => property === 'font-weight')?.value ?? '');
  return /^(bold|bolder|[6-9]00)\b/i.test(weight);
}
