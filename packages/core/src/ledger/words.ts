import type { EntryGroup } from './groups';
import { reasonRow, type Wording } from './reasons';

const NOUNS: Readonly<Record<string, [one: string, many: string]>> = {
  iframe: ['frame', 'frames'],
  img: ['picture', 'pictures'],
  script: ['script', 'scripts'],
  style: ['style sheet', 'style sheets'],
  video: ['film', 'films'],
  audio: ['sound', 'sounds'],
  table: ['table', 'tables'],
  form: ['form', 'forms'],
  svg: ['drawing', 'drawings'],
  math: ['formula', 'formulas'],
  object: ['embedded object', 'embedded objects'],
  embed: ['embedded object', 'embedded objects'],
  a: ['link', 'links'],
  button: ['button', 'buttons'],
  input: ['form field', 'form fields'],
  noscript: ['stand-in for scripts', 'stand-ins for scripts'],
};

const ATTRIBUTE_NOUNS: Readonly<Record<string, string>> = {
  '': 'the attribute',
  style: 'the inline style',
  class: 'the class',
  align: 'the alignment',
  color: 'the colour',
  bgcolor: 'the background colour',
  face: 'the typeface',
  target: 'the new window',
  href: 'the address',
  src: 'the source',
};

const PROPERTY_NOUNS: Readonly<Record<string, string>> = {
  '': 'an unreadable part of the style',
  color: 'the colour',
  'background-color': 'the background colour',
  background: 'the background',
  'font-family': 'the typeface',
  'font-size': 'the size of the letters',
  font: 'the typeface and size',
  'text-align': 'the alignment',
};

const lookUp = (nouns: Readonly<Record<string, string>>, name: string): string | undefined =>
  Object.hasOwn(nouns, name) ? nouns[name] : undefined;

function attributeNoun(attribute: string): string {
  return lookUp(ATTRIBUTE_NOUNS, attribute) ?? (attribute.startsWith('on') ? `the event handler ${attribute}` : attribute);
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const letters = (n: number): string => (n === 1 ? '1 letter' : `${n} letters`);

/** A group's things by a noun that people use, or by their tag: "a picture from cams.example", "3 <font>". */
function things({ element, places, hosts }: EntryGroup): string {
  const n = places.length;
  const from = hosts.length === 0 ? '' : ` from ${hosts.join(', ')}`;
  const noun = Object.hasOwn(NOUNS, element) ? NOUNS[element] : undefined;
  if (element === '') return `${n === 1 ? 'an element' : `${n} elements`}${from}`;
  if (noun === undefined) return `${n === 1 ? 'a' : n} <${element}>${from}`;
  const [one, many] = noun;
  return `${n === 1 ? `${/^[aeiou]/.test(one) ? 'an' : 'a'} ${one}` : `${n} ${many}`}${from}`;
}

/** What stands for the variables of a sentence. */
const VARIABLES: Readonly<Record<string, (group: EntryGroup) => string>> = {
  n: ({ places }) => String(places.length),
  element: ({ element }) => element || 'tag',
  things,
  Things: (group) => capital(things(group)),
  holders: ({ element, places: { length } }) =>
    element === '' ? (length === 1 ? 'an element' : `${length} elements`) : length === 1 ? `a <${element}>` : `${length} <${element}>`,
  attribute: ({ attribute }) => attribute || 'the attribute',
  Attribute: ({ attribute }) => capital(attributeNoun(attribute)),
  property: ({ property }) => property || 'inline styles',
  Property: ({ property }) => capital(lookUp(PROPERTY_NOUNS, property) ?? `the style ${property}`),
  after: ({ after, attribute }) => after || attribute || 'another element',
  headings: ({ after }) => after || 'headings of another level',
  letters: ({ textLost }) => letters(textLost),
  lost: ({ textLost, places }) => (textLost <= 0 ? '' : `, and ${letters(textLost)} of text with ${places.length === 1 ? 'it' : 'them'}`),
  rests: ({ details }) => (details.length === 0 ? '' : `, by ${details.join(', ')}`),
  Names: ({ names }) => (names.length === 0 ? 'Characters' : capital(names.join(', '))),
};

/** The names of all variables that a sentence may hold. */
export const SENTENCE_VARIABLES: readonly string[] = Object.keys(VARIABLES);

function fits({ action, kind, after, lost }: Wording, group: EntryGroup): boolean {
  return (
    (action === undefined || action === group.action) &&
    (kind === undefined || kind === group.kind) &&
    (after === undefined || after === group.after) &&
    (lost === undefined || lost === group.textLost > 0)
  );
}

/** What a group of entries says, in a sentence without a full stop: what happened to the author's content. */
export function sentenceOf(group: EntryGroup): string {
  const { wordings } = reasonRow(group.reason);
  const { sentence } = wordings.find((wording) => fits(wording, group)) ?? wordings[wordings.length - 1]!;
  const isMany = group.places.length !== 1;
  return sentence
    .replace(/\[([^|\]]*)\|([^\]]*)\]/g, (_all, one: string, many: string) => (isMany ? many : one))
    .replace(/\{(\w+)\}/g, (_all, name: string) => VARIABLES[name]!(group));
}

/** What a group is about, in short: "class on p", "iframe", "comments". */
export function subjectWords({ element, attribute, property, reason }: EntryGroup): string {
  const { setting } = reasonRow(reason);
  if (setting !== undefined) return setting;
  const named = property === '' ? attribute : property;
  return named === '' ? element : element === '' ? named : `${named} on ${element}`;
}

/** What follows the citation of a group's rule, where it needs an explanation. */
export function remarkOf({ reason, rule }: EntryGroup): string {
  return reasonRow(reason).remark ?? (rule === '/markup/unlisted' ? 'no rule allows it' : '');
}
