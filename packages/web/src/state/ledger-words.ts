import { PASS_WORDS, type EntryGroup, type PassId } from '@typikon/core/settings';
import { citePass } from './paste-words';

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
          : passOf(group) !== null
            ? citePass(passOf(group)!)
            : `§2 Markup, ${citationSubject(group, subject)}`,
    remark: REMARKS[reason] ?? (group.rule === '/markup/unlisted' ? 'no rule allows it' : ''),
  };
}

/** The pass that made a group; null where the markup rules did. */
export function passOf({ rule }: EntryGroup): PassId | null {
  const id = /^\/paste\/passes\/([^/]+)/.exec(rule)?.[1];
  return id !== undefined && Object.hasOwn(PASS_WORDS, id) ? (id as PassId) : null;
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
  const { action, reason, element, attribute, property, places, after, textLost, details } = group;
  // A guess says what it rests on.
  const rests = details.length === 0 ? '' : `, by ${details.join(', ')}`;
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
    case 'half-character':
      return `${many ? `${n} halves` : 'Half'} of a character, such as of a cut emoji, ${many ? 'were' : 'was'} marked with �; no file can hold ${many ? 'them' : 'it'}`;
    case 'comment-not-allowed':
    case 'comment-forbidden':
      return many ? `${n} comments went; readers never saw them` : 'A comment went; readers never saw it';
    case 'nesting-impossible':
      return `${many ? `${n} places were` : 'A place was'} put in order: the elements could not stand in each other`;
    case 'nesting-limit':
      return `${things(group)} unwrapped, the content stays`;
    case 'element-limit':
      return `${things(group)} unwrapped, there were too many elements; the words stay`;
    case 'words-apart':
      return after === '<p>'
        ? `${many ? `${n} lines` : 'A line'} became ${many ? 'paragraphs' : 'a paragraph'}, so that words do not run together`
        : `${many ? `${n} places` : 'A place'} got ${after === '<br>' ? 'a line break' : after === ' ' ? 'a space' : 'a break or a space'}, so that words do not run together`;
    case 'part-without-whole':
      return action === 'restructured'
        ? `${things(group)} without a list got one`
        : `${things(group)} stood outside of what ${many ? 'they are parts' : 'it is a part'} of; the words stay`;
    case 'hidden-content':
      return `${things(group)} went: readers did not see ${many ? 'them' : 'it'}, and would have seen ${many ? 'them' : 'it'} once the tags were gone`;
    case 'deleted-content':
      return `${many ? `${n} tracked deletions` : 'A tracked deletion'} went${lost(group)}`;
    case 'source-refused':
      return `The words for ${many ? `${n} pictures stand` : 'a picture stand'} in ${many ? 'their' : 'its'} place`;
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
    case 'paste-style':
      return `${capital(propertyNoun(property))} taken off ${many ? `${n} places` : `one place`}, the content stays`;
    case 'paste-meaning':
      return after.startsWith('class=')
        ? `The alignment of ${many ? `${n} blocks` : 'a block'} became a class`
        : `What the style of ${many ? `${n} places` : 'one place'} meant, ${after} says now`;
    case 'paste-office':
      if (element === 'del' && action === 'removed') return `${many ? `${n} tracked deletions` : 'A tracked deletion'} went${lost(group)}`;
      if (attribute !== '') return `Properties that only another program reads went at ${many ? `${n} places` : 'one place'}`;
      if (element === '') return many ? `${n} notes of another program to itself went` : 'A note of another program to itself went';
      if (action === 'changed') return `A tab or a run of spaces became one space at ${many ? `${n} places` : 'one place'}`;
      break;
    case 'paste-note':
      return action === 'removed'
        ? `${many ? `${n} parts of notes` : 'A part of a note'} went${lost(group)}`
        : `${many ? `${n} notes` : 'A note'} became ${after.startsWith('<sup') || after === '' ? (many ? 'linked notes at the end' : 'a linked note at the end') : 'text in brackets'}`;
    case 'paste-list':
      return action === 'renamed'
        ? `${many ? `${n} paragraphs` : 'A paragraph'} became ${many ? 'list items' : 'a list item'}${rests}`
        : action === 'unwrapped'
          ? `${many ? `${n} paragraphs` : 'A paragraph'} in list items went, the words stay`
          : `Lists were put in order at ${many ? `${n} places` : 'one place'}`;
    case 'paste-heading':
      return `${many ? `${n} paragraphs` : 'A paragraph'} became ${many ? 'headings' : 'a heading'}${rests}`;
    case 'paste-link':
      return action === 'unwrapped'
        ? `${many ? `${n} links or bookmarks` : 'A link or bookmark'} that ${many ? 'lead' : 'leads'} nowhere went, the words stay`
        : element === 'a' && attribute === ''
          ? `${many ? `${n} bookmarks` : 'A bookmark'} became ids`
          : `The address of ${many ? `${n} links` : 'a link'} was mended`;
    case 'paste-picture':
      return action === 'removed'
        ? `${many ? `${n} pictures` : 'A picture'} went`
        : attribute === 'src'
          ? `${many ? `${n} pictures` : 'A picture'} went into the asset library`
          : after.startsWith('[')
            ? `${many ? `${n} pictures have` : 'A picture has'} to be uploaded; a box stands there`
            : `${many ? `${n} pictures` : 'A picture'} became smaller`;
    case 'paste-table':
      return action === 'renamed'
        ? element === 'td'
          ? `${many ? `${n} cells` : 'A cell'} became ${many ? 'headers or paragraphs' : 'a header or a paragraph'}${rests}`
          : `${many ? `${n} cells` : 'A cell'} became paragraphs`
        : attribute !== ''
          ? `${capital(attributeNoun(attribute))} taken off ${many ? `${n} parts of tables` : 'a part of a table'}`
          : action === 'removed'
            ? `${many ? `${n} <${element}>` : `A <${element}>`} that only set widths went`
            : `${things(group)} in tables unwrapped, the words stay`;
    case 'paste-join':
      return `${many ? `${n} lines were` : 'A line was'} joined to what goes on in the next`;
    case 'paste-replace':
      return action === 'removed'
        ? `${things(group)} went, as its text says${lost(group)}`
        : `${many ? `${n} places were` : 'A place was'} replaced`;
    case 'paste-typography':
      return `${many ? `${n} characters` : 'A character'} took the house form`;
    case 'paste-space':
      return `${many ? `${n} runs of hard spaces` : 'A run of hard spaces'} became plain`;
    case 'paste-invisible':
      return `${details.length === 0 ? 'Characters that nobody sees' : capital(details.join(', '))} went at ${many ? `${n} places` : 'one place'}; ${details.length === 0 ? 'they did' : 'nobody saw them, and they did'} nothing there`;
    case 'paste-blank':
      return `White space that nobody sees went at ${many ? `${n} places` : 'one place'}`;
    case 'paste-empty':
      return `${many ? `${n} empty places` : 'An empty place'} went`;
    case 'paste-lines':
      return `${many ? `${n} lines` : 'A line'} took the form that the Enter key makes`;
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
    '': 'an unreadable part of the style',
  };
  return nouns[property] ?? `the style ${property}`;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
