/** One setting of the markup rules that is not about an element. */
export interface Setting {
  keys: readonly string[];
  label: string;
  kind: 'choice' | 'number' | 'text' | 'words';
  /** For a choice: the values, each in words that say what happens. */
  options?: readonly (readonly [value: string, words: string])[];
  placeholder?: string;
  /** What can be written, where the schema's own words would not do. */
  hint?: string;
}

export interface SettingGroup {
  name: string;
  gloss: string;
  settings: readonly Setting[];
}

const choice = (keys: string, label: string, options: Setting['options']): Setting => ({
  keys: keys.split('.'),
  label,
  kind: 'choice',
  options: options!,
});

/** The settings in the order in which the chapter shows them. */
export const SETTING_GROUPS: readonly SettingGroup[] = [
  {
    name: 'Links and ids',
    gloss: 'where links lead to, and names within the page',
    settings: [
      choice('urls.relative', 'Addresses without a scheme, within the site', [
        ['true', 'stay'],
        ['false', 'go'],
      ]),
      choice('links.newWindow', 'Links that open a new window', [
        ['as-written', 'as they are written'],
        ['never', 'open in the same one'],
        ['other-sites', 'all links to other sites do'],
      ]),
      {
        keys: ['links', 'ownHosts'],
        label: 'Hosts of this site, for links to other sites',
        kind: 'words',
        placeholder: 'www.example',
        hint: 'a host is written like www.example, without https://',
      },
      {
        keys: ['ids', 'prefix'],
        label: 'Every id begins with; references follow',
        kind: 'text',
        placeholder: 'no prefix',
        hint: 'a prefix begins with a letter and holds letters, digits and hyphens',
      },
    ],
  },
  {
    name: 'Headings',
    gloss: 'the title of the page owns level 1',
    settings: [
      choice('headings.others', 'Headings of levels that are not kept', [
        ['by-element', 'as the rule of each level says'],
        ['shift', 'all move, the highest to the top level'],
        ['clamp', 'take the nearest level that is kept'],
        ['paragraph', 'become paragraphs'],
      ]),
      { keys: ['headings', 'top'], label: 'The top level of the content', kind: 'number', hint: 'a level is a whole number from 1 to 6' },
    ],
  },
  {
    name: 'Spaces',
    gloss: 'what is typed or pasted to make room',
    settings: [
      choice('text.hardSpaces', 'Hard spaces', [
        ['keep', 'stay'],
        ['meaningful', 'stay between a number and its unit and by punctuation'],
        ['plain', 'become plain'],
      ]),
      choice('text.emptyParagraphs', 'Empty paragraphs', [
        ['keep', 'stay'],
        ['one', 'of several in a row one stays'],
        ['remove', 'go'],
      ]),
    ],
  },
  {
    name: 'The rest',
    gloss: 'what no rule above speaks of',
    settings: [
      choice('unlisted', 'Elements without a rule', [
        ['unwrap', 'go, their content stays'],
        ['drop', 'go with their content'],
        ['text', 'are shown as text'],
      ]),
      choice('comments', 'Comments in the markup', [
        ['drop', 'go'],
        ['keep', 'stay'],
      ]),
      {
        keys: ['limits', 'nesting'],
        label: 'Deepest nesting; deeper elements go, their content stays',
        kind: 'number',
        hint: 'the deepest nesting is a whole number from 1 to 500; browsers flatten what is nested deeper than 512',
      },
      {
        keys: ['limits', 'elements'],
        label: 'Most elements; further ones go, their content stays',
        kind: 'number',
        placeholder: 'any',
        hint: 'a whole number, or nothing for any number',
      },
      {
        keys: ['limits', 'letters'],
        label: 'Longest text in letters; what follows is cut off',
        kind: 'number',
        placeholder: 'any',
        hint: 'a whole number, or nothing for any length',
      },
    ],
  },
  {
    name: 'How it is written',
    gloss: 'readers see no difference',
    settings: [
      choice('output.characters', 'Characters outside ASCII', [
        ['raw', 'as they are: é'],
        ['named', 'by name: &eacute;'],
        ['numeric', 'by number: &#233;'],
      ]),
      choice('output.layout', 'White space between blocks', [
        ['as-is', 'as it came'],
        ['compact', 'none'],
        ['indented', 'each block on a line of its own'],
      ]),
    ],
  },
];
