import { BUTTONS, CHECKS, fieldsOf, PASS_IDS, PASS_WORDS, pastePassesSchema, PURPOSES, SITE_CHECKS, type PassId } from '../src/index';

const cell = (text: string): string => text.replace(/\|/g, '\\|').replace(/</g, '&lt;').replace(/\s+/g, ' ').trim();
const row = (...cells: readonly string[]): string => `| ${cells.map(cell).join(' | ')} |`;
const table = (heads: readonly string[], rows: readonly string[]): string =>
  [row(...heads), `|${' --- |'.repeat(heads.length)}`, ...rows].join('\n');

/** Every pass of paste cleanup, in the order in which they work where a profile says nothing else, with its settings. */
export function passesPage(): string {
  return `# Passes of paste cleanup

What is pasted goes through these passes, in this order where a profile does not say otherwise (\`paste.order\`), and then, always, through
the markup rules. A pass that is off, or not meant for the kind of source, does nothing. Settings stand under \`paste.passes\` in
[the profile format](profile-format.md); what a pass changes is told in [the ledger](ledger.md). Written by \`npm run docs\`;
\`npm run new -- pass NAME\` begins another one.

${PASS_IDS.map(passSection).join('\n\n')}
`;
}

function passSection(id: PassId): string {
  const { label, effect, unit } = PASS_WORDS[id];
  const defaults = pastePassesSchema.parse({})[id] as Record<string, unknown>;
  const rows = fieldsOf(pastePassesSchema.shape[id]).map(({ keys, title, help, options }) => {
    const choices = options.length === 0 ? '' : ` (${options.map(([value, words]) => `\`${value}\`: ${words}`).join('; ')})`;
    const value = keys.reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], defaults);
    return row(`\`${keys.join('.')}\``, `${title}${choices}`, help, value === undefined ? '' : `\`${JSON.stringify(value)}\``);
  });
  const isOn = defaults['on'] === true;
  return `## ${label} (\`${id}\`)

${effect} ${isOn ? 'On' : 'Off'} where a profile says nothing; its work is counted in ${unit[1]}.

${table(['Setting', 'Says', 'More', 'Where nothing is said'], rows)}`;
}

/** Every test of a profile and of a site. */
export function checksPage(): string {
  return `# Checks

What \`typikon check\` and the application's findings look for. A finding names its check, the rule that it is about and, where one is safe,
a fix. Written by \`npm run docs\`; \`npm run new -- check NAME\` begins another one.

## In a profile

${table(
  ['Check', 'Finds'],
  CHECKS.map(({ id, purpose }) => row(`\`${id}\``, purpose.replace(/^Finds /, ''))),
)}

## In a site

${table(
  ['Check', 'Looks for'],
  SITE_CHECKS.map(({ id, label }) => row(`\`${id}\``, label)),
)}
`;
}

/** Every button that a toolbar can hold, by what it is for. */
export function buttonsPage(): string {
  const parts = Object.entries(PURPOSES).map(([purpose, name]) => {
    const rows = BUTTONS.filter((button) => button.purpose === purpose).map(({ id, label, effect, makes, key }) =>
      row(`\`${id}\``, label, effect, makes === null ? '' : `\`${makes}\``, key === null ? '' : `\`${key}\``),
    );
    return `## ${name}\n\n${table(['Button', 'Called', 'What it does', 'Makes', 'Key'], rows)}`;
  });
  return `# Buttons of the toolbar

What a profile's \`toolbar\` can hold. \`Mod\` is Ctrl, or Cmd on a Mac. A button whose markup the rules do not keep is told by the checks.
Written by \`npm run docs\`; \`npm run new -- button NAME\` begins another one.

${parts.join('\n\n')}
`;
}
