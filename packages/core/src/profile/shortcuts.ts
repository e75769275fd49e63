/** Marks that make formatting while the author types. */
export const SHORTCUT_IDS = [
  'heading',
  'bulleted-list',
  'numbered-list',
  'block-quote',
  'rule',
  'preformatted',
  'bold',
  'italic',
  'strike',
  'code',
  'dash',
  'ellipsis',
  'quotes',
] as const;

export type ShortcutId = (typeof SHORTCUT_IDS)[number];

export interface Shortcut {
  id: ShortcutId;
  /** What the author types, as the keyboard help shows it. */
  typed: string;
  /** What becomes of it, in words. */
  makes: string;
  /** Elements of which the rules must keep at least one. */
  elements: readonly string[];
}

/** Every typed shortcut, in the order of the keyboard help. */
export const SHORTCUTS: readonly Shortcut[] = [
  {
    id: 'heading',
    typed: '## and a space',
    makes: 'a heading; as many signs as its level',
    elements: ['h1', 'h2', 'h3', 'h4', 'h5', 'h6'],
  },
  { id: 'bulleted-list', typed: '- or * and a space', makes: 'a bulleted list', elements: ['ul'] },
  { id: 'numbered-list', typed: '1. and a space', makes: 'a numbered list that begins there', elements: ['ol'] },
  { id: 'block-quote', typed: '> and a space', makes: 'a quotation', elements: ['blockquote'] },
  { id: 'rule', typed: '--- on a line of its own', makes: 'a rule', elements: ['hr'] },
  { id: 'preformatted', typed: '``` on a line of its own', makes: 'preformatted text', elements: ['pre'] },
  { id: 'bold', typed: '**words**', makes: 'bold words', elements: ['strong', 'b'] },
  { id: 'italic', typed: '*words* or _words_', makes: 'italic words', elements: ['em', 'i'] },
  { id: 'strike', typed: '~~words~~', makes: 'words struck through', elements: ['s', 'del'] },
  { id: 'code', typed: '`words`', makes: 'words as computer text', elements: ['code'] },
  { id: 'dash', typed: '--', makes: 'a dash (–)', elements: [] },
  { id: 'ellipsis', typed: '...', makes: 'an ellipsis (…)', elements: [] },
  { id: 'quotes', typed: '" and \'', makes: 'quotation marks that curl (“ ” ‘ ’)', elements: [] },
];
