import { isHidden } from '../../html/display';
import { textInPlaceOf, type ElementNode, type ParentNode } from '../../html/node';
import { hasLetters, visibleLetters } from '../../html/text';
import { elementsOf, transform } from '../../html/transform';
import { looseDeclarations, setAttribute, styleOf } from '../declarations';
import type { PasteSource } from '../../profile/paste-schema';
import type { Pass, PassRun, Reporter } from '../pass';

/** Elements whose text is hidden, though they show something themselves, or are needed by others. */
const SHOWN_OTHERWISE: ReadonlySet<string> = new Set(
  'area audio canvas datalist embed iframe meter noscript object param progress rp script template video'.split(' '),
);

/** Elements that stand in the head of an office page, or that only the program itself reads. */
const OFFICE_ONLY: ReadonlySet<string> = new Set(['xml', 'meta', 'link', 'style', 'title', 'base']);

/** Sources that mark every word with the language they check its spelling by. */
const MARKS_LANGUAGES: ReadonlySet<string> = new Set(['word-processor', 'spreadsheet', 'presentation', 'web-mail', 'chat']);

/** List and note properties are still needed by the passes that rebuild those; the others only their own program reads. */
const OFFICE_PROPERTY =
  /^(?:mso-(?!list|element|footnote|endnote|special-(?:character|format)|outline-level)|tab-stops|tab-interval|-aw-|page-break|page$|layout-grid|text-underline-position|text-autospace|text-fit-text|ruby-)/;
const HAS_OFFICE_PROPERTY = /(?:^|[;\s])(?:mso-|tab-|-aw-|page|layout-grid|text-underline-position|text-autospace|text-fit-text|ruby-)/i;

const ODD_ATTRIBUTE =
  /^(?:o|v|w|x|m|xml|xmlns)(?::|$)|^(?:data-(?:sheets|ccp|contrast|font|listid|leveltext|aria-posinset|stringify|wac)|sdnum|sdval|paraid|paraeid|eza$)/;

/** Takes away what office programs put on the clipboard for themselves; tracked deletions and margin comments as they are set. */
export const officeLeftovers: Pass<'office-leftovers'> = {
  id: 'office-leftovers',
  run(run) {
    const { root, settings, report } = run;
    const pointedTo = new Set<string>();
    for (const element of elementsOf(root)) {
      const href = element.attribute('href');
      if (href?.startsWith('#') === true) pointedTo.add(href.slice(1));
    }
    const marksLanguages = settings.languages === 'drop' && MARKS_LANGUAGES.has(run.source);
    const marks: Marks = {
      language: marksLanguages ? languageOfMost(root) : null,
      direction: marksLanguages && !elementsOf(root).some((element) => element.attribute('dir')?.toLowerCase() === 'rtl') ? 'ltr' : null,
    };
    transform(root, {
      comment(comment) {
        report.removed(comment);
        return 'drop';
      },
      element(element) {
        const { name } = element;
        if (name === 'del' && settings.deletions === 'drop') {
          report.removed(element, 'tidy', 'paste-deletion');
          return 'drop';
        }
        if (OFFICE_ONLY.has(name) || isPageBreak(element)) {
          report.removed(element);
          return 'drop';
        }
        if (isPageFurniture(element, run.source)) {
          report.removed(element, 'tidy', undefined, 'a header or footer of the page');
          return 'drop';
        }
        if (settings.comments === 'drop' && isMarginComment(element)) {
          report.removed(element);
          return 'drop';
        }
        if (settings.hidden === 'drop' && isHidden(element) && !SHOWN_OTHERWISE.has(name)) {
          report.removed(element);
          return 'drop';
        }
        if (name === 'ins' || name.includes(':') || name.includes('-') || isHiddenMarker(element) || isCommentedText(element)) {
          return report.unwrap(element);
        }
        if (isEmptyAnchor(element, pointedTo)) {
          report.removed(element);
          return 'drop';
        }
        if (isFiller(element)) {
          const lost = visibleLetters(element);
          report.changed(element, ' ', 'tidy', lost, 'paste-tab');
          return [textInPlaceOf(element, ' ')];
        }
        cleanAttributes(element, marks, report);
        return 'keep';
      },
    });
  },
};

/** The language and the direction that go without saying. */
interface Marks {
  language: string | null;
  direction: 'ltr' | null;
}

function cleanAttributes(element: ElementNode, { language, direction }: Marks, report: PassRun['report']): void {
  const style = element.attribute('style');
  if (style !== undefined && HAS_OFFICE_PROPERTY.test(style)) cleanStyle(element, style, report);
  if (element.attributes.length === 0) return;
  for (const { name, value } of element.attributes.slice())
    if (isOdd(name) || (name === 'lang' && primaryOf(value) === language) || (name === 'dir' && value.toLowerCase() === direction)) {
      report.attribute(element, name, '', 'tidy', 'paste-office-property');
      setAttribute(element, name, null);
    }
}

/** Remembers what a pattern says of names: the same few come again and again. */
function remembered(pattern: RegExp): (name: string) => boolean {
  const known = new Map<string, boolean>();
  return (name) => {
    let fits = known.get(name);
    if (fits === undefined) {
      fits = pattern.test(name);
      if (known.size >= MOST_NAMES) known.clear();
      known.set(name, fits);
    }
    return fits;
  };
}
const MOST_NAMES = 500;
const isOdd = remembered(ODD_ATTRIBUTE);
const isOffice = remembered(OFFICE_PROPERTY);

function cleanStyle(element: ElementNode, style: string, report: Reporter): void {
  const declarations = looseDeclarations(style);
  const kept = declarations.filter(({ property }) => !isOffice(property));
  if (kept.length === declarations.length) return;
  const after = kept.map(({ property, value }) => `${property}:${value}`).join(';');
  for (const declaration of declarations)
    if (isOffice(declaration.property)) report.declaration(element, declaration, 'tidy', 'paste-office-property');
  setAttribute(element, 'style', after === '' ? null : after);
}

function isPageBreak(element: ElementNode): boolean {
  return element.name === 'br' && /page-break-before\s*:\s*always|mso-break-type\s*:\s*section/i.test(element.attribute('style') ?? '');
}

function isMarginComment(element: ElementNode): boolean {
  if (element.attributes.length === 0) return false;
  const id = element.attribute('id') ?? '';
  return (
    /comment-list|comment$/.test(styleOf(element, 'mso-element')) ||
    /^(?:MsoCommentReference|annotation_style_by_filter)$/.test(element.attribute('class') ?? '') ||
    /^_(?:anchor|com)_\d+$/.test(id)
  );
}

/** What a program prints at the top and bottom of each page: it belongs to the paper, not to the text. */
function isPageFurniture(element: ElementNode, source: PasteSource): boolean {
  if (element.attributes.length === 0) return false;
  if (/^(?:header|footer|first-header|first-footer|even-header|even-footer)$/.test(styleOf(element, 'mso-element'))) return true;
  const classes = element.attribute('class') ?? '';
  if (/^Mso(?:Header|Footer)$/.test(classes)) return true;
  return (
    source === 'word-processor' && /^(?:p|div)$/.test(element.name) && /^(?:Header|Footer)(?:_20_(?:left|right|first))?$/.test(classes)
  );
}

/** The anchor around words that a margin comment is about: the words stay. */
function isCommentedText(element: ElementNode): boolean {
  return element.name === 'a' && (element.attribute('style') ?? '').includes('mso-comment-reference');
}

function isEmptyAnchor(element: ElementNode, pointedTo: ReadonlySet<string>): boolean {
  if (element.name !== 'a' || hasContent(element)) return false;
  const name = element.attribute('name') ?? element.attribute('id') ?? '';
  return element.attributes.every(({ name: attribute }) => /^(name|id|style|class|title)$/.test(attribute)) && !pointedTo.has(name);
}

/** What a program writes in the place of a tab or of several spaces. */
function isFiller(element: ElementNode): boolean {
  if (element.name !== 'span') return false;
  const style = element.attribute('style') ?? '';
  return /mso-tab-count|mso-spacerun/i.test(style) && element.children.every((child) => child.type === 'text');
}

function hasContent(element: ElementNode): boolean {
  return element.children.some((child) => child.type === 'element' || (child.type === 'text' && hasLetters(child.value)));
}

/** The wrapper that an online word processor puts around everything: bold that is not bold. */
function isHiddenMarker(element: ElementNode): boolean {
  return /^(b|span|div)$/.test(element.name) && /docs-internal-guid/.test(element.attribute('id') ?? '');
}

/** The language that the most letters are marked with, without its region; null where none is marked. */
function languageOfMost(root: ParentNode): string | null {
  const counts = new Map<string, number>();
  for (const element of elementsOf(root)) {
    const language = element.attribute('lang');
    if (language === undefined) continue;
    const primary = primaryOf(language);
    const letters = element.children.reduce((sum, child) => sum + (child.type === 'text' ? child.value.length : 1), 0);
    counts.set(primary, (counts.get(primary) ?? 0) + letters);
  }
  return [...counts].reduce<[string | null, number]>((best, next) => (next[1] > best[1] ? next : best), [null, -1])[0];
}

function primaryOf(language: string): string {
  return language.split('-')[0]!.toLowerCase();
}
