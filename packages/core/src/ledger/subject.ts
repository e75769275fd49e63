/** What kind of thing an entry is about. `content` is the text as a whole, or a place in it. */
export type SubjectKind = 'element' | 'attribute' | 'property' | 'text' | 'comment' | 'doctype' | 'content';

/** What an entry is about, told by the code that changed or removed it. */
export interface Subject {
  kind: SubjectKind;
  /** The element itself, or the one that the attribute, the declaration, the text or the comment stands in; empty at the top. */
  element: string;
  /** The attribute; of an element, the one for whose sake it went. */
  attribute?: string;
  /** The property of inline style. */
  property?: string;
  /** The value of the attribute or of the property, as it was read, cut after 500 characters; of an element, that of the attribute for whose sake it went, or of its source. */
  value?: string;
  /** The host that the address names, with its port. */
  host?: string;
  /** What the thing is called beside that: characters by name, a parent that an element may not stand in. */
  name?: string;
}

const LONGEST_VALUE = 500;
/** What a value ends with that was cut. */
const CUT = '…';

const cutValue = (value: string): string => (value.length <= LONGEST_VALUE ? value : `${value.slice(0, LONGEST_VALUE)}${CUT}`);

/** The value that a subject has whole; undefined where it has none, or was cut. */
export function wholeValue({ value }: Subject): string | undefined {
  return value !== undefined && value.length > LONGEST_VALUE ? undefined : value;
}

/** Entries about the same kind of thing share one subject; names that no standard has are as many as the input likes. */
const MOST_SHARED = 300;
const shared: Record<'element' | 'text' | 'comment', Map<string, Subject>> = { element: new Map(), text: new Map(), comment: new Map() };

function sharedSubject(kind: 'element' | 'text' | 'comment', element: string): Subject {
  const known = shared[kind].get(element);
  if (known !== undefined) return known;
  const subject: Subject = Object.freeze({ kind, element });
  if (shared[kind].size < MOST_SHARED) shared[kind].set(element, subject);
  return subject;
}

/** An element, or its tags. */
export const ofElement = (element: string): Subject => sharedSubject('element', element);
/** Words, spaces or characters in an element. */
export const ofText = (element: string): Subject => sharedSubject('text', element);
export const ofComment = (element: string): Subject => sharedSubject('comment', element);
/** The text as a whole, or what cannot be told apart in it. */
export const OF_CONTENT: Subject = Object.freeze({ kind: 'content', element: '' });
export const OF_DOCTYPE: Subject = Object.freeze({ kind: 'doctype', element: '' });

/** @param host that the value names, where it is an address */
export function ofAttribute(element: string, attribute: string, value?: string, host?: string | null): Subject {
  const subject: Subject = { kind: 'attribute', element, attribute };
  if (value !== undefined) subject.value = cutValue(value);
  if (host != null) subject.host = host;
  return subject;
}

/** An element that went, or was not what it should be, for the sake of one of its attributes. */
export function ofElementBy(element: string, attribute: string | undefined, value: string | undefined, host?: string | null): Subject {
  const subject: Subject = { kind: 'element', element };
  if (attribute !== undefined) subject.attribute = attribute;
  if (value !== undefined) subject.value = cutValue(value);
  if (host != null) subject.host = host;
  return subject;
}

/** A declaration of a `style` attribute. */
export function ofProperty(element: string, property: string, value: string): Subject {
  return { kind: 'property', element, attribute: 'style', property, value: cutValue(value) };
}

/** Whether an entry is about an element as such, and not about something that it has. */
export const isElementAsSuch = ({ kind, attribute }: Subject): boolean => kind === 'element' && attribute === undefined;
