import { elementsIn } from '../css/cascade';
import { parseFragment } from '../html/parse';
import { renderedText } from '../html/rendered-text';
import type { Field } from './schema';

/** A line of text, a choice and an address are no longer than this, in UTF-16 units. */
const LONGEST_PLAIN = 1000;
/** An address of a picture: a path within the site, or of the web (URL Standard, section 4.4). */
const PICTURE_ADDRESS = /^(\/(?!\/)|https?:\/\/)[^\s"'<>\\]+$/i;

/**
 * Why a value cannot stand in a field, as a sentence; null where it can. Rich text can hold anything: its profile cleans it.
 *
 * @param value clean markup of rich text, plain text of all other fields
 */
export function valueProblem({ title, kind, needed, choices }: Field, value: string): string | null {
  if (needed && isEmptyValue(kind, value)) return `“${title}” is needed, and it is empty.`;
  if (kind === 'rich' || value === '') return null;
  if (value.length > LONGEST_PLAIN) return `“${title}” can have ${LONGEST_PLAIN} letters at most.`;
  if (/[\r\n]/.test(value)) return `“${title}” is one line, and this has several.`;
  switch (kind) {
    case 'date':
      return isDate(value) ? null : `“${title}” must be a date, such as 2026-05-03.`;
    case 'choice':
      return choices.includes(value) ? null : `“${title}” must be one of ${choices.join(', ')}.`;
    case 'picture':
      return PICTURE_ADDRESS.test(value) ? null : `“${title}” must be the address of a picture, such as /assets/pier.jpg.`;
    default:
      return null;
  }
}

/** Whether a reader would see nothing of a value. */
export function isEmptyValue(kind: Field['kind'], value: string): boolean {
  if (kind !== 'rich' || value.trim() === '') return value.trim() === '';
  const { root } = parseFragment(value);
  return renderedText(root).trim() === '' && ![...elementsIn(root)].some(({ name }) => SHOWN.has(name));
}
const SHOWN: ReadonlySet<string> = new Set(['img', 'iframe', 'video', 'audio', 'hr', 'svg', 'picture']);

/** How long a value is, in letters that a reader sees. */
export function valueLetters(kind: Field['kind'], value: string): number {
  return [...(kind === 'rich' ? renderedText(parseFragment(value).root).trim() : value)].length;
}

function isDate(value: string): boolean {
  const date = new Date(`${value}T00:00:00Z`);
  return /^\d{4}-\d\d-\d\d$/.test(value) && !Number.isNaN(date.getTime()) && date.toISOString().startsWith(value);
}

/**
 * Links of a text that lead to pages of the site outside of the folder within which the field's links stay.
 *
 * @returns their paths, each once, in the order in which they stand; none for a field that names no folder
 */
export function strayLinks({ linksWithin }: Pick<Field, 'linksWithin'>, html: string): string[] {
  if (linksWithin === '') return [];
  const paths = addresses(html, 'href')
    .filter((address) => /^\/(?!\/)/.test(address))
    .map((address) => address.replace(/[?#].*$/, ''));
  return [...new Set(paths)].filter((path) => !isOffered({ linksWithin }, path));
}

/** Whether a page of the site is offered to link to in a field, by its path. */
export function isOffered({ linksWithin }: Pick<Field, 'linksWithin'>, path: string): boolean {
  return path.startsWith(linksWithin === '' || linksWithin.startsWith('/') ? linksWithin : `/${linksWithin}`);
}

/** Pictures of the library that a text shows, by name, each once. */
export function libraryPictures(html: string): string[] {
  const names = addresses(html, 'src').flatMap((address) => /^\/assets\/([^/?#]+)$/.exec(address)?.[1] ?? []);
  return [...new Set(names)];
}

function addresses(html: string, attribute: string): string[] {
  return [...elementsIn(parseFragment(html).root)].flatMap((element) => element.attribute(attribute)?.trim() ?? []);
}
