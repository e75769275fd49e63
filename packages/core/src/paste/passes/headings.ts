import type { ChildNode, ElementNode } from '../../html/node';
import { firstText, hasLetters, isLineOfText } from '../../html/text';
import { transform } from '../../html/transform';
import { setAttribute, styleOf } from '../declarations';
import type { PasteSource } from '../../profile/paste-schema';
import type { Pass, Reporter } from '../pass';
import type { PastedSheet } from '../sheet';

/** Turns paragraphs that are headings in all but name into headings. */
export const headings: Pass<'headings'> = {
  id: 'headings',
  run({ root, settings, source, sheet, report }) {
    transform(root, {
      element(element) {
        if (element.name !== 'p' && element.name !== 'div') return 'keep';
        if (!isLineOfText(element)) return 'keep';
        const text = firstText(element, settings.longest + SPARE).trim();
        if (text === '' || text.length > settings.longest) return 'keep';
        const marked = settings.outline ? markOf(element, source) : null;
        if (marked !== null) {
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
        become(element, { level: settings.level, by: 'all of it is bold' }, report);
        return 'keep';
      },
    });
  },
};

/** White space that the begin of a text may hold beside its letters. */
const SPARE = 500;

/** The level of a heading and what says so. */
interface Mark {
  level: number;
  by: string;
}

function become(element: ElementNode, { level, by }: Mark, report: Reporter): void {
  const before = element.name;
  element.name = `h${level}`;
  for (const name of ['role', 'aria-level']) setAttribute(element, name, null);
  report.renamed(element, before, 0, undefined, by);
}

/** Plain class names that online word processors give to titles; elsewhere they mean anything. */
const PLAIN_TITLES: Readonly<Record<string, number>> = { title: 1, subtitle: 2, Title: 1, Subtitle: 2 };

/** The level that a program or ARIA says a paragraph has; null where nothing does. */
function markOf(element: ElementNode, source: PasteSource): Mark | null {
  if (element.attribute('role') === 'heading')
    return { level: clamped(Number(element.attribute('aria-level') ?? 2)), by: 'role="heading"' };
  const classes = element.attribute('class') ?? '';
  const by = `class="${classes}"`;
  if (/^MsoTitle(?:CxSp\w*)?$/.test(classes)) return { level: 1, by };
  if (classes === 'MsoSubtitle') return { level: 2, by };
  if (source === 'word-processor' && Object.hasOwn(PLAIN_TITLES, classes)) return { level: PLAIN_TITLES[classes]!, by };
  // Office suites that write XHTML put `_20_` for a space.
  const byClass = /^(?:MsoHeading|Heading_20_)([1-9])$/.exec(classes)?.[1];
  if (byClass !== undefined) return { level: clamped(Number(byClass)), by };
  const outline = Number(styleOf(element, 'mso-outline-level'));
  return outline >= 1 ? { level: clamped(outline), by: `mso-outline-level: ${outline}` } : null;
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
