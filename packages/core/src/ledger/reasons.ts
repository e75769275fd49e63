import type { SubjectKind } from './subject';
import type { Action, Severity } from './terms';

/** Where in a profile the rule stands that decided: nowhere for what the HTML standard and the safety floor do. */
export type Chapter = 'standard' | 'safety' | 'markup' | 'paste';

/** One way to say what happened, for entries of which all of this holds. */
export interface Wording {
  action?: Action;
  kind?: SubjectKind;
  /** What stands there now. */
  after?: string;
  /** Whether letters are gone with it. */
  lost?: boolean;
  /**
   * The sentence. `{…}` names a variable (see `words.ts`), `[one|many]` is what is said of one place and of several.
   */
  sentence: string;
}

export interface ReasonRow {
  chapter: Chapter;
  /** How much of it is noticed. Whatever it is, letters that readers miss make a loss. `seen`: what went decides. */
  severity: Severity | 'seen';
  /** The first that fits is said. */
  wordings: readonly [...Wording[], Wording];
  /** What the rule is called where it is about no element of its own. */
  setting?: string;
  /** What follows the citation of the rule. */
  remark?: string;
  /** Entries are one thing, whatever the element and the attribute are called. */
  isOneThing?: true;
  /** Entries are told apart by what they made. */
  isByResult?: true;
}

/** What becomes of an element or an attribute that a rule does not let stay. */
const TAKEN: ReasonRow['wordings'] = [
  {
    kind: 'attribute',
    action: 'changed',
    sentence: '{Attribute} of [a <{element}>|{n} <{element}>] [was|were] cut down to what is allowed',
  },
  { kind: 'attribute', lost: true, sentence: '{Attribute} taken off {holders}; readers no longer see {letters}' },
  { kind: 'attribute', sentence: '{Attribute} taken off {holders}, the content stays' },
  { action: 'renamed', sentence: '[A <{element}>|{n} <{element}>] became {after}' },
  { action: 'unwrapped', sentence: '{Things} unwrapped, the words stay' },
  { action: 'shown-as-text', sentence: '{Things} shown as text' },
  { sentence: '{Things} went, with [its|their] content{lost}' },
];
const PROPERTY_TAKEN: ReasonRow['wordings'] = [{ sentence: '{Property} taken off [a <{element}>|{n} places], the content stays' }];

const row = (
  chapter: Chapter,
  severity: ReasonRow['severity'],
  sentence: string | ReasonRow['wordings'],
  more: Partial<ReasonRow> = {},
): ReasonRow => ({
  chapter,
  severity,
  wordings: typeof sentence === 'string' ? [{ sentence }] : sentence,
  ...more,
});

/** Every reason there is: what is said of it, how much it is noticed, and where the rule stands. */
export const REASONS = {
  // Reading: what the HTML standard's own algorithm leaves out (HTML, section 13.2).
  'tag-ignored-by-parser': row(
    'standard',
    'tidy',
    '[A <{element}> tag|{n} <{element}> tags] cannot stand where [it stands|they stand]; every browser leaves [it|them] out',
  ),
  'tag-unfinished': row('standard', 'change', 'A <{element}> tag never ends; everything from it to the end of the text is left out'),
  'attribute-repeated': row(
    'standard',
    'tidy',
    'The second {attribute} of [a <{element}>|{n} <{element}>] was left out; every browser takes the first',
  ),
  'doctype-ignored': row('standard', 'tidy', 'The document type went; it belongs to a page, not to content'),
  'formatting-limit': row('standard', 'change', 'So much formatting was left open that it was closed here'),
  'half-character': row(
    'standard',
    'change',
    '[Half|{n} halves] of a character, such as of a cut emoji, [was|were] marked with �; no file can hold [it|them]',
  ),
  'nesting-impossible': row('standard', 'tidy', '[A place was|{n} places were] put in order: the elements could not stand in each other'),
  'part-without-whole': row('standard', 'seen', [
    { action: 'restructured', sentence: '{Things} without a list got one' },
    { sentence: '{Things} stood outside of what [it is a part|they are parts] of; the words stay' },
  ]),

  // The safety floor.
  'element-forbidden': row('safety', 'seen', TAKEN, { remark: 'nothing can allow it' }),
  'attribute-forbidden': row('safety', 'seen', TAKEN, { remark: 'nothing can allow it' }),
  'address-runs-code': row('safety', 'seen', TAKEN, { remark: 'the address would run code' }),
  'comment-forbidden': row('safety', 'tidy', '[A comment|{n} comments] went; readers never saw [it|them]', {
    setting: 'comments',
    remark: 'the comment could turn into markup',
  }),
  'style-forbidden': row('safety', 'seen', PROPERTY_TAKEN, {
    remark: 'CSS does not know it, or it could fetch or cover something',
  }),
  'name-clobbers': row(
    'safety',
    'seen',
    '{Attribute} taken off [a <{element}>|{n} elements], because the page’s own parts go by that name',
    { remark: 'the page’s own scripts go by that name' },
  ),
  'fallback-content': row('safety', 'tidy', 'What stood inside a frame went; browsers never show it'),

  // The rule of an element.
  'element-not-allowed': row('markup', 'seen', TAKEN),
  'element-dropped': row('markup', 'seen', TAKEN),
  'element-renamed': row('markup', 'change', TAKEN),
  'element-shown-as-text': row('markup', 'seen', TAKEN),
  'parent-not-allowed': row('markup', 'seen', '{Things} unwrapped, the words stay', { remark: 'it may not stand there' }),
  'depth-limit': row('markup', 'seen', '{Things} unwrapped, the words stay', { remark: 'it may not stand in itself so deep' }),
  'required-missing': row(
    'markup',
    'seen',
    [
      { kind: 'attribute', sentence: '{after} was added to {things}' },
      { action: 'unwrapped', sentence: '{Things} without {attribute} unwrapped, the words stay' },
      { sentence: '{Things} without {attribute} went{lost}' },
    ],
    { remark: 'the rule asks for it' },
  ),
  'ratio-not-allowed': row('markup', 'seen', 'The height of [a <{element}>|{n} <{element}>] was fitted to the width', {
    remark: 'its proportions are limited',
  }),
  'empty-element': row('markup', 'tidy', [
    { action: 'removed', sentence: '{Things} went; there was nothing in [it|them]' },
    { sentence: '{Things} got a line to stand on' },
  ]),
  'hidden-content': row(
    'markup',
    'seen',
    '{Things} went: readers did not see [it|them], and would have seen [it|them] once the tags were gone',
  ),
  'deleted-content': row('markup', 'seen', '[A tracked deletion|{n} tracked deletions] went{lost}'),

  // The rule of an attribute, and of the properties of its style.
  'attribute-not-allowed': row('markup', 'seen', TAKEN),
  'attribute-forced': row('markup', 'seen', '{after} was added to {things}', { remark: 'the rule puts it there' }),
  'value-not-allowed': row('markup', 'seen', TAKEN, { remark: 'the value is not one of those allowed' }),
  'scheme-not-allowed': row('markup', 'seen', TAKEN, { remark: 'addresses of this kind are not allowed' }),
  'relative-address-not-allowed': row('markup', 'seen', TAKEN, { remark: 'only whole addresses are allowed' }),
  'host-not-allowed': row('markup', 'seen', TAKEN, { remark: 'this host is not allowed' }),
  'source-refused': row('markup', 'loss', 'The words for [a picture stand in its|{n} pictures stand in their] place'),
  'style-property-not-allowed': row('markup', 'seen', PROPERTY_TAKEN, { remark: 'no rule allows the property' }),
  'style-value-not-allowed': row('markup', 'seen', PROPERTY_TAKEN, { remark: 'the value is not one of those allowed' }),
  'style-importance': row('markup', 'seen', '!important taken off {property} in [one place|{n} places]', {
    remark: 'nothing in content outweighs the stylesheets',
  }),

  // Settings of the markup chapter that are about the whole text.
  'comment-not-allowed': row('markup', 'tidy', '[A comment|{n} comments] went; readers never saw [it|them]', { setting: 'comments' }),
  'nesting-limit': row('markup', 'seen', '{Things} unwrapped, the content stays', {
    setting: 'nesting',
    remark: 'nested deeper than allowed',
  }),
  'element-limit': row('markup', 'seen', '{Things} unwrapped, there were too many elements; the words stay', {
    setting: 'number of elements',
    remark: 'more elements than allowed',
  }),
  'letter-limit': row(
    'markup',
    'seen',
    [{ lost: true, sentence: 'The text was cut off: {letters} went' }, { sentence: 'The text was cut off: {things} went' }],
    {
      setting: 'length',
      remark: 'longer than allowed',
    },
  ),
  'heading-level': row('markup', 'change', '[A <{element}>|{n} <{element}>] became {headings}', { setting: 'headings' }),
  'hard-space': row('markup', 'tidy', '[A hard space|{n} hard spaces] became plain', { setting: 'hard spaces' }),
  'empty-paragraph': row('markup', 'change', '[An empty paragraph|{n} empty paragraphs] went', { setting: 'empty paragraphs' }),
  'id-prefixed': row('markup', 'seen', '[An id or a reference to one|{n} ids and references] got the prefix', {
    setting: 'prefix of ids',
    remark: 'so that it cannot clash with the page’s own',
  }),
  'new-window': row(
    'markup',
    'seen',
    [
      { action: 'removed', sentence: '[A link no longer opens|{n} links no longer open] a new window' },
      { sentence: '{after} was put on [a link|{n} links] to other sites' },
    ],
    { setting: 'new windows' },
  ),
  'words-apart': row('markup', 'tidy', [
    { after: '<p>', sentence: '[A line became a paragraph|{n} lines became paragraphs], so that words do not run together' },
    { after: '<br>', sentence: '[A place|{n} places] got a line break, so that words do not run together' },
    { after: ' ', sentence: '[A place|{n} places] got a space, so that words do not run together' },
    { sentence: '[A place|{n} places] got a break or a space, so that words do not run together' },
  ]),

  // Passes of paste cleanup.
  'paste-office': row('paste', 'tidy', [
    { kind: 'comment', sentence: '[A note|{n} notes] of another program to itself went' },
    { action: 'unwrapped', sentence: '{Things} unwrapped, the words stay' },
    { sentence: '{Things} went, with [its|their] content{lost}' },
  ]),
  'paste-office-property': row('paste', 'tidy', 'Properties that only another program reads went at [one place|{n} places]', {
    isOneThing: true,
  }),
  'paste-tab': row('paste', 'tidy', 'A tab or a run of spaces became one space at [one place|{n} places]'),
  'paste-deletion': row('paste', 'tidy', '[A tracked deletion|{n} tracked deletions] went{lost}'),
  'paste-note': row('paste', 'change', [
    { action: 'removed', sentence: '[A part of a note|{n} parts of notes] went{lost}' },
    { sentence: '[A note became a linked note|{n} notes became linked notes] at the end' },
  ]),
  'paste-note-bracketed': row('paste', 'change', '[A note|{n} notes] became text in brackets'),
  'paste-list': row('paste', 'seen', [
    { action: 'renamed', sentence: '[A paragraph became a list item|{n} paragraphs became list items]{rests}' },
    { action: 'unwrapped', sentence: '[A paragraph|{n} paragraphs] in list items went, the words stay' },
    { action: 'removed', sentence: '[A label|{n} labels] in list items went; the list shows [its own|their like]' },
    { sentence: 'Lists were put in order at [one place|{n} places]' },
  ]),
  'paste-list-kind': row('paste', 'change', '[A list|{n} lists] became {after}{rests}'),
  'paste-heading': row('paste', 'change', '[A paragraph became a heading|{n} paragraphs became headings]{rests}'),
  'paste-style': row('paste', 'seen', [
    { kind: 'property', sentence: '{Property} taken off [one place|{n} places], the content stays' },
    { kind: 'attribute', action: 'changed', sentence: '{Attribute} was written anew at [one place|{n} places]' },
    { kind: 'attribute', sentence: '{Attribute} taken off {holders}, the content stays' },
    { action: 'removed', sentence: '{Things} went: readers did not see [it|them], and would have seen [it|them] without the style' },
    { sentence: '{Things} unwrapped: the style set [it|them] back to plain words' },
  ]),
  'paste-meaning': row('paste', 'tidy', 'What the style of [one place|{n} places] meant, {after} says now', { isByResult: true }),
  'paste-alignment': row('paste', 'tidy', 'The alignment of [a block|{n} blocks] became a class'),
  'paste-class': row('paste', 'tidy', [
    { action: 'changed', sentence: 'Classes of other programs went at [one place|{n} places]; others stay' },
    { sentence: '{Attribute} taken off {holders}, the content stays' },
  ]),
  'paste-wrapper': row('paste', 'tidy', [
    { action: 'removed', sentence: '{Things} went, with [its|their] content{lost}' },
    { sentence: '{Things} unwrapped, the words stay' },
  ]),
  'paste-element': row('paste', 'seen', TAKEN),
  'paste-link': row('paste', 'seen', [
    { action: 'unwrapped', sentence: '[A link or bookmark that leads|{n} links or bookmarks that lead] nowhere went, the words stay' },
    { action: 'removed', kind: 'element', sentence: '[A link or bookmark that leads|{n} links or bookmarks that lead] nowhere went{lost}' },
    { action: 'removed', sentence: '{Attribute} taken off {holders}: nothing points to it' },
    { sentence: 'The address of [a link|{n} links] was mended' },
  ]),
  'paste-bookmark': row('paste', 'tidy', '[A bookmark became an id|{n} bookmarks became ids]'),
  'paste-picture': row('paste', 'seen', '[A picture|{n} pictures] went'),
  'paste-picture-kept': row('paste', 'change', '[A picture|{n} pictures] went into the asset library'),
  'paste-picture-box': row('paste', 'change', '[A picture has|{n} pictures have] to be uploaded; a box stands there'),
  'paste-picture-width': row('paste', 'tidy', '[A picture|{n} pictures] became smaller'),
  'paste-table': row('paste', 'seen', [
    { kind: 'attribute', sentence: '{Attribute} taken off [a part of a table|{n} parts of tables]' },
    { action: 'removed', sentence: '[A <{element}>|{n} <{element}>] that only set widths went' },
    { action: 'renamed', sentence: '[A cell became a paragraph|{n} cells became paragraphs]' },
    { sentence: '{Things} in tables unwrapped, the words stay' },
  ]),
  'paste-table-header': row('paste', 'change', '[A cell became a header|{n} cells became headers]{rests}'),
  'paste-join': row('paste', 'tidy', '[A line was|{n} lines were] joined to what goes on in the next'),
  'paste-replace': row('paste', 'change', [
    { action: 'removed', sentence: '{Things} went, as its text says{lost}' },
    { sentence: '[A place was|{n} places were] replaced' },
  ]),
  'paste-typography': row('paste', 'tidy', '[A character|{n} characters] took the house form'),
  'paste-space': row('paste', 'tidy', '[A run|{n} runs] of hard spaces became plain'),
  'paste-invisible': row('paste', 'tidy', '{Names} went at [one place|{n} places]; nobody saw them, and they did nothing there'),
  'paste-blank': row('paste', 'tidy', 'White space that nobody sees went at [one place|{n} places]'),
  'paste-empty': row('paste', 'tidy', '[An empty place|{n} empty places] went'),
  'paste-lines': row('paste', 'tidy', '[A line|{n} lines] took the form that the Enter key makes'),
} satisfies Record<string, ReasonRow>;

/** Why something was changed or removed, as a code. */
export type Reason = keyof typeof REASONS;

export const reasonRow = (reason: Reason): ReasonRow => REASONS[reason];
