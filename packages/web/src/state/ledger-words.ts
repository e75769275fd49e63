import type { EntryGroup } from '@typikon/core';

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
  const { layer, origin, element, attribute, property, reason } = group;
  const named = property === '' ? attribute : property;
  const subject = named === '' ? element : element === '' ? named : `${named} on ${element}`;
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

/** What the rule is called where it is not about one element. */
const SETTINGS: Partial<Record<EntryGroup['reason'], string>> = {
  'comment-not-allowed': 'comments',
  'nesting-limit': 'nesting',
  'element-limit': 'number of elements',
  'letter-limit': 'length',
  'heading-level': 'headings',
  'hard-space': 'hard spaces',
  'empty-paragraph': 'empty paragraphs',
  'id-prefixed': 'prefix of ids',
  'new-window': 'new windows',
};

function citationSubject({ reason }: EntryGroup, subject: string): string {
  return SETTINGS[reason] ?? subject;
}

const REMARKS: Partial<Record<EntryGroup['reason'], string>> = {
  'element-forbidden': 'nothing can allow it',
  'attribute-forbidden': 'nothing can allow it',
  'address-runs-code': 'the address would run code',
  'scheme-not-allowed': 'addresses of this kind are not allowed',
  'relative-address-not-allowed': 'only whole addresses are allowed',
  'host-not-allowed': 'this host is not allowed',
  'value-not-allowed': 'the value is not one of those allowed',
  'attribute-forced': 'the rule puts it there',
  'required-missing': 'the rule asks for it',
  'parent-not-allowed': 'it may not stand there',
  'depth-limit': 'it may not stand in itself so deep',
  'ratio-not-allowed': 'its proportions are limited',
  'style-forbidden': 'CSS does not know it, or it could fetch or cover something',
  'style-property-not-allowed': 'no rule allows the property',
  'style-value-not-allowed': 'the value is not one of those allowed',
  'style-importance': 'nothing in content outweighs the stylesheets',
  'name-clobbers': 'the page’s own scripts go by that name',
  'id-prefixed': 'so that it cannot clash with the page’s own',
  'letter-limit': 'longer than allowed',
  'element-limit': 'more elements than allowed',
  'nesting-limit': 'nested deeper than allowed',
  'comment-forbidden': 'the comment could turn into markup',
};

function sentenceOf(group: EntryGroup): string {
  const { action, reason, element, attribute, property, places, after, textLost } = group;
  const n = places.length;
  const many = n !== 1;
  switch (reason) {
    case 'tag-ignored-by-parser':
      return `${many ? `${n} <${element}> tags` : `A <${element}> tag`} cannot stand where ${many ? 'they stand' : 'it stands'}; every browser leaves ${many ? 'them' : 'it'} out`;
    case 'tag-unfinished':
      return `A <${element}> tag never ends; everything from it to the end of the text is left out`;
    case 'attribute-repeated':
      return `The second ${attribute} of ${many ? `${n} <${element}>` : `a <${element}>`} was left out; every browser takes the first`;
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
    case 'element-limit':
      return `${things(group)} unwrapped, there were too many elements; the words stay`;
    case 'letter-limit':
      return `The text was cut off: ${textLost} ${textLost === 1 ? 'letter' : 'letters'} went`;
    case 'heading-level':
      return `${many ? `${n} <${element}>` : `A <${element}>`} became ${after === '' ? 'headings of another level' : after}`;
    case 'hard-space':
      return `${many ? `${n} hard spaces` : 'A hard space'} became plain`;
    case 'empty-paragraph':
      return `${many ? `${n} empty paragraphs` : 'An empty paragraph'} went`;
    case 'empty-element':
      return action === 'removed'
        ? `${things(group)} went; there was nothing in ${many ? 'them' : 'it'}`
        : `${things(group)} got a line to stand on`;
    case 'parent-not-allowed':
    case 'depth-limit':
      return `${things(group)} unwrapped, the words stay`;
    case 'required-missing':
      return action === 'changed'
        ? `${after || attribute} was added to ${things(group).toLowerCase()}`
        : `${things(group)} without ${attribute} ${action === 'removed' ? `went${lost(group)}` : 'unwrapped, the words stay'}`;
    case 'id-prefixed':
      return `${many ? `${n} ids and references` : 'An id or a reference to one'} got the prefix`;
    case 'new-window':
      return action === 'removed'
        ? `${many ? `${n} links` : 'A link'} no longer ${many ? 'open' : 'opens'} a new window`
        : `${after || attribute} was put on ${many ? `${n} links` : 'a link'} to other sites`;
    case 'ratio-not-allowed':
      return `The height of ${many ? `${n} <${element}>` : `a <${element}>`} was fitted to the width`;
    case 'style-forbidden':
    case 'style-property-not-allowed':
    case 'style-value-not-allowed':
      return `${capital(propertyNoun(property))} taken off ${many ? `${n} places` : `a <${element || 'tag'}>`}, the content stays`;
    case 'style-importance':
      return `!important taken off ${property || 'inline styles'} in ${many ? `${n} places` : 'one place'}`;
    case 'name-clobbers':
      return `${capital(attribute)} taken off ${many ? `${n} elements` : `a <${element}>`}, because the page’s own parts go by that name`;
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

function propertyNoun(property: string): string {
  const nouns: Record<string, string> = {
    color: 'the colour',
    'background-color': 'the background colour',
    background: 'the background',
    'font-family': 'the typeface',
    'font-size': 'the size of the letters',
    font: 'the typeface and size',
    'text-align': 'the alignment',
    '': 'what is no declaration',
  };
  return nouns[property] ?? `the style ${property}`;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
