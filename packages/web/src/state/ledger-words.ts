import type { EntryGroup } from './ledger-groups';

/** What a group of entries says, in words: what happened to the author's content, and who decided. */
export interface GroupWords {
  sentence: string;
  /** The layer, as a person calls it: "House limits", "Notices desk". */
  layer: string;
  /** The rule as a citation: "§2 Markup, font". */
  citation: string;
  /** What follows the citation, where it needs an explanation. */
  remark: string;
}

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

const count = (n: number, one: string, many: string): string => (n === 1 ? `${/^[aeiou]/.test(one) ? 'An' : 'A'} ${one}` : `${n} ${many}`);

function things({ element, places, hosts }: EntryGroup): string {
  const noun = NOUNS[element];
  const from = hosts.length === 0 ? '' : ` from ${hosts.join(', ')}`;
  return (
    (noun === undefined ? (places.length === 1 ? `A <${element}>` : `${places.length} <${element}>`) : count(places.length, ...noun)) + from
  );
}

function lost({ textLost, places }: EntryGroup): string {
  return textLost === 0
    ? ''
    : `, and ${textLost} ${textLost === 1 ? 'letter' : 'letters'} of text with ${places.length === 1 ? 'it' : 'them'}`;
}

/** The words for a group; `nameOf` gives the name of a profile by its id. */
export function wordsOf(group: EntryGroup, nameOf: (id: string) => string): GroupWords {
  const { layer, origin, element, attribute, reason } = group;
  const subject = attribute === '' ? element : element === '' ? attribute : `${attribute} on ${element}`;
  return {
    sentence: sentenceOf(group),
    layer:
      layer === 'html-standard'
        ? 'The HTML standard'
        : layer === 'safety-floor'
          ? 'Safety floor'
          : layer === 'house-limits'
            ? 'House limits'
            : nameOf(origin ?? ''),
    citation:
      layer === 'html-standard'
        ? ''
        : layer === 'safety-floor'
          ? `§0 Safety, ${subject || 'comments'}`
          : `§2 Markup, ${citationSubject(group, subject)}`,
    remark: REMARKS[reason] ?? (group.rule === '/markup/unlisted' ? 'no rule allows it' : ''),
  };
}

function citationSubject({ reason }: EntryGroup, subject: string): string {
  if (reason === 'comment-not-allowed') return 'comments';
  if (reason === 'nesting-limit') return 'nesting';
  return subject;
}

const REMARKS: Partial<Record<EntryGroup['reason'], string>> = {
  'element-forbidden': 'nothing can allow it',
  'attribute-forbidden': 'nothing can allow it',
  'address-runs-code': 'the address would run code',
  'scheme-not-allowed': 'addresses of this kind are not allowed',
  'relative-address-not-allowed': 'only whole addresses are allowed',
  'host-not-allowed': 'this host is not allowed',
  'value-not-allowed': 'the value is not one of those allowed',
  'attribute-forced': 'a frame is always closed in',
  'nesting-limit': 'nested deeper than allowed',
  'comment-forbidden': 'the comment could turn into markup',
};

function sentenceOf(group: EntryGroup): string {
  const { action, reason, element, attribute, places, after } = group;
  const n = places.length;
  const many = n !== 1;
  switch (reason) {
    case 'tag-ignored-by-parser':
      return `${many ? `${n} <${element}> tags` : `A <${element}> tag`} cannot stand where ${many ? 'they stand' : 'it stands'}; every browser leaves ${many ? 'them' : 'it'} out`;
    case 'tag-unfinished':
      return `A <${element}> tag never ends; everything from it to the end of the text is left out`;
    case 'doctype-ignored':
      return 'The document type went; it belongs to a page, not to content';
    case 'formatting-limit':
      return 'So much formatting was left open that it was closed here';
    case 'comment-not-allowed':
    case 'comment-forbidden':
      return many ? `${n} comments went; readers never saw them` : 'A comment went; readers never saw it';
    case 'nesting-impossible':
      return `${many ? `${n} places were` : 'A place was'} put in order: the elements could not stand in each other`;
    case 'nesting-limit':
      return `${things(group)} unwrapped, the content stays`;
    case 'fallback-content':
      return 'What stood inside a frame went; browsers never show it';
    case 'attribute-forced':
      return `${after || attribute} was added to ${things(group).toLowerCase()}`;
    default:
  }
  if (attribute !== '' && action !== 'removed')
    return `${capital(attributeNoun(attribute))} of ${many ? `${n} <${element}>` : `a <${element}>`} ${many ? 'were' : 'was'} cut down to what is allowed`;
  if (attribute !== '' && !(action === 'removed' && group.severity === 'loss'))
    return `${capital(attributeNoun(attribute))} taken off ${element === '' ? `${n} elements` : many ? `${n} <${element}>` : `a <${element}>`}, the content stays`;
  if (action === 'renamed') return `${many ? `${n} <${element}>` : `A <${element}>`} became ${after === '' ? 'another element' : after}`;
  if (action === 'unwrapped') return `${things(group)} unwrapped, the words stay`;
  if (action === 'shown-as-text') return `${things(group)} shown as text`;
  return `${things(group)} went, with ${many ? 'their' : 'its'} content${lost(group)}`;
}

function attributeNoun(attribute: string): string {
  if (attribute.startsWith('on')) return `the event handler ${attribute}`;
  const nouns: Record<string, string> = {
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
  return nouns[attribute] ?? attribute;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
