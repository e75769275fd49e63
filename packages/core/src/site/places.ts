import { escapeAttribute, escapeText } from '../html/serialize';
import type { PageKind } from '../render/page';
import { PLAIN_TEMPLATE, readTemplate, REST_SLOT, TITLE_SLOT, type TemplateSlot } from '../render/template';
import type { ContentType, Field } from './schema';

/** A place on a kind of page where a field is printed. */
export interface FieldPlace {
  /** The id of the kind of page. */
  pageKind: string;
  name: string;
  /** Whether it is the page of the document itself, not a list or a feed. */
  isOwnPage: boolean;
  /** All elements around the text, from the outside in, such as `main.page > article.body > aside`. */
  path: string;
  /** Whether only words can stand there. */
  isForWords: boolean;
}

/** A document as its fields hold it. */
export interface DocumentValues {
  title: string;
  /** By key: clean markup of rich text, plain text of all other fields. */
  fields: Readonly<Record<string, string | undefined>>;
}

/** The field in which the title of a document stands: the first of one line. A type without one has titles all the same. */
export function titleField({ fields }: Pick<ContentType, 'fields'>): Field | null {
  return fields.find(({ kind }) => kind === 'line') ?? null;
}

/** The field that holds what a document says: the first rich text that is needed, or else the first. */
export function mainField({ fields }: Pick<ContentType, 'fields'>): Field | null {
  return fields.find(({ kind, needed }) => kind === 'rich' && needed) ?? fields.find(({ kind }) => kind === 'rich') ?? null;
}

/** The kinds of page that print documents of a type: their own, and those that show parts of them elsewhere. */
export const kindsOf = ({ pageKind, alsoOn }: Pick<ContentType, 'pageKind' | 'alsoOn'>): string[] => [...new Set([pageKind, ...alsoOn])];

const templateOf = ({ template }: Pick<PageKind, 'template'>): string => template ?? PLAIN_TEMPLATE;

/** Which slot prints a field; undefined where none does. */
function slotOf(field: Field, type: Pick<ContentType, 'fields'>, slots: readonly TemplateSlot[]): TemplateSlot | undefined {
  const isTitle = titleField(type)?.key === field.key;
  return (
    slots.find(({ name }) => name === field.key) ??
    (isTitle ? slots.find(({ name }) => name === TITLE_SLOT) : slots.find(({ name }) => name === REST_SLOT))
  );
}

/** The name of the slot that prints a field on a kind of page; null where none does. */
export function slotNameOf(key: string, type: Pick<ContentType, 'fields'>, kind: Pick<PageKind, 'template'>): string | null {
  const field = type.fields.find((one) => one.key === key);
  return field === undefined ? null : (slotOf(field, type, readTemplate(templateOf(kind)).slots)?.name ?? null);
}

/**
 * Where the fields of a type show: computed from the templates of the kinds of page that print it.
 *
 * @returns the places of each field by its key; none for a field that no template prints
 */
export function fieldPlaces(type: ContentType, kinds: ReadonlyMap<string, PageKind>): ReadonlyMap<string, readonly FieldPlace[]> {
  const places = new Map<string, FieldPlace[]>(type.fields.map(({ key }) => [key, []]));
  for (const id of kindsOf(type)) {
    const kind = kinds.get(id);
    if (kind === undefined) continue;
    const { slots } = readTemplate(templateOf(kind));
    for (const field of type.fields) {
      const slot = slotOf(field, type, slots);
      if (slot === undefined) continue;
      const path = [...kind.wrapper, ...slot.around]
        .map(({ element, className }) => [element, ...(className ?? '').split(/\s+/).filter((name) => name !== '')].join('.'))
        .join(' > ');
      places.get(field.key)!.push({ pageKind: id, name: kind.name, isOwnPage: id === type.pageKind, path, isForWords: slot.isForWords });
    }
  }
  return places;
}

/** The kind of page on which a field is looked at first: the document's own where that prints it, else the first that does. */
export function firstPlace(type: ContentType, key: string, kinds: ReadonlyMap<string, PageKind>): string {
  const places = fieldPlaces(type, kinds).get(key) ?? [];
  return (places.find(({ isOwnPage }) => isOwnPage) ?? places[0])?.pageKind ?? type.pageKind;
}

/** Slots of a kind of page that no field of any type on it fills. */
export function unfilledSlots(kind: PageKind, types: readonly ContentType[]): string[] {
  const own = types.filter((type) => kindsOf(type).includes(kind.id));
  const keys = new Set(own.flatMap(({ fields }) => fields.map(({ key }) => key)));
  const names = readTemplate(templateOf(kind)).slots.map(({ name }) => name);
  return own.length === 0 ? [] : [...new Set(names)].filter((name) => name !== REST_SLOT && name !== TITLE_SLOT && !keys.has(name));
}

/** One field as it is printed; empty where it holds nothing. */
function printedField(field: Field, value: string, altOf: (address: string) => string): string {
  if (value.trim() === '') return '';
  switch (field.kind) {
    case 'rich':
      return value;
    case 'picture':
      return `<img src="${escapeAttribute(value)}" alt="${escapeAttribute(altOf(value))}">`;
    case 'date':
      return `<time datetime="${escapeAttribute(value)}">${escapeText(longDate(value))}</time>`;
    default:
      return escapeText(value);
  }
}

/** 2026-05-03 as 3 May 2026; what is no date stays as it is. */
export function longDate(value: string): string {
  const [, year, month, day] = /^(\d{4})-(\d\d)-(\d\d)$/.exec(value) ?? [];
  const name = MONTHS[Number(month) - 1];
  return year === undefined || name === undefined ? value : `${Number(day)} ${name} ${year}`;
}
const MONTHS = 'January February March April May June July August September October November December'.split(' ');

/**
 * What each slot of a kind of page prints of a document.
 *
 * @param altOf the alternative text of a picture of the library, by its address
 * @returns markup by the name of the slot, for `renderPage`
 */
export function slotContents(
  type: Pick<ContentType, 'fields'>,
  kind: Pick<PageKind, 'template'>,
  { title, fields }: DocumentValues,
  altOf: (address: string) => string = () => '',
): Map<string, string> {
  const { slots } = readTemplate(templateOf(kind));
  const isTitle = titleField(type)?.key;
  const contents = new Map<string, string>([[TITLE_SLOT, escapeText(title)]]);
  for (const field of type.fields) {
    const value = field.key === isTitle ? title : (fields[field.key] ?? '');
    const html = printedField(field, value, altOf);
    const slot = slotOf(field, type, slots);
    if (slot === undefined || html === '' || slot.name === TITLE_SLOT) continue;
    if (slot.name === REST_SLOT) {
      // What is no text of several blocks becomes one by itself.
      const block = field.kind === 'rich' ? html : `<p>${html}</p>`;
      contents.set(REST_SLOT, [contents.get(REST_SLOT), block].filter((part) => part !== undefined).join('\n'));
    } else contents.set(slot.name, html);
  }
  return contents;
}
