import { groupEntries, REASONS, sentenceOf, type Chapter, type Reason } from '../src/index';
import { outcomeOf, WITNESSES } from './reasons';

const CHAPTERS: readonly (readonly [Chapter, heading: string, about: string])[] = [
  [
    'standard',
    'The HTML standard',
    'What the standard’s own algorithm does with markup that breaks its rules (HTML, section 13.2). Every browser does the same.',
  ],
  ['safety', 'The safety floor', 'What no rule can allow.'],
  ['markup', 'Markup rules', 'What the rules of the profile, of those it extends, or of the house limits do not let stay.'],
  ['paste', 'Paste cleanup', 'What passes do to what is pasted, before the markup rules.'],
];

/** So long may markup be that stands in a line of the page. */
const LONGEST = 110;

const code = (text: string): string => (text === '' ? 'nothing' : `\`${text.replace(/\|/g, '\\|').replace(/\n/g, ' ')}\``);
const visible = (text: string): string =>
  text.replace(/[\u200b\u00a0\ud800-\udfff]/g, (character) => `&#x${character.charCodeAt(0).toString(16)};`);

/** The page about the ledger: what an entry holds, and every reason with its sentence and an example that shows it. */
export function ledgerPage(): string {
  const sections = CHAPTERS.map(([chapter, heading, about]) => {
    const rows = (Object.keys(REASONS) as Reason[]).filter((reason) => REASONS[reason].chapter === chapter).map(line);
    return `## ${heading}\n\n${about}\n\n| Reason | Noticed | In words | Example |\n|---|---|---|---|\n${rows.join('\n')}\n`;
  });
  return `${HEAD}\n${sections.join('\n')}`;
}

function line(reason: Reason): string {
  const witness = WITNESSES[reason];
  const { html, ledger } = outcomeOf(witness);
  const group = groupEntries(ledger).find((one) => one.reason === reason)!;
  const { severity } = REASONS[reason];
  const isShort = witness.input.length <= LONGEST && html.length <= LONGEST;
  const example = isShort ? `${code(visible(witness.input))} → ${code(visible(html))}` : '';
  return `| \`${reason}\` | ${severity === 'seen' ? 'as what went is' : severity} | ${sentenceOf(group).replace(/</g, '&lt;')}. | ${example} |`;
}

const HEAD = `# The ledger

Whatever is changed or removed, at paste, at save or at render, is one entry of a ledger, which says what, by which rule, why, where, and
how much of it readers miss. \`typikon clean --json\` and \`typikon paste --json\` write it; its JSON Schema is
[ledger.schema.json](ledger.schema.json) (format \`typikon-ledger/1\`).

- **stage**: where it happened, in the order in which markup goes: \`read\`, \`paste\`, \`markup\`, \`settle\`, \`render\`.
- **layer** and **rule**: who decided, and the JSON Pointer of the rule in the document that this names; **origin**, the profile that set it.
- **action**: \`removed\`, \`unwrapped\`, \`renamed\`, \`changed\`, \`shown-as-text\`, \`restructured\`.
- **subject**: what the entry is about, told by the code that did it: \`kind\`, \`element\`, and where it matters \`attribute\`, \`property\`,
  \`value\`, \`host\` and \`name\`. What keeps a thing from now on, what lets it through, and how entries are grouped rest on it.
- **start**, **end**, **line**, **column**, **path**: where, in the input and in the tree.
- **before**, **after**: what stood there and what stands there now.
- **textLost**: letters that readers could see and that are gone; **severity**: \`loss\`, where readers miss something, \`change\`, where
  authors may notice, \`tidy\`, where nobody sees a difference.
- **reason**: a code of the tables below; **detail**: what a guess rests on.

This page is written from the table of reasons (\`packages/core/src/ledger/reasons.ts\`) by \`npm run docs\`; a test reaches every reason.
`;
