import { readFileSync } from 'node:fs';
import type { Command } from './commands/command';

/** What each option is for, wherever it is taken. */
const OPTIONS: Readonly<Record<string, string>> = {
  as: 'what the rules are written as: sanitizer',
  css: 'stylesheets of the site, with commas between',
  documents: 'a folder of stored documents',
  editing: 'stylesheets that only the editor has, with commas between',
  editor: 'stylesheets of the editor, in order, with commas between',
  'editor-width': 'the width of the editor in pixels',
  field: 'the key of a field',
  from: 'one profile',
  keep: 'the share of the documents that stay whole, from 0 to 1; 0.95 where it is not given',
  house: 'the house limits above the profile',
  json: 'writes everything that is known as one JSON value',
  jsonl: 'reads and writes one JSON value in each line',
  junit: 'a file for the results as JUnit XML',
  'page-kinds': 'the kinds of page, with their stylesheets in a folder beside the file',
  own: 'only specimens that are meant for this profile',
  page: 'stylesheets of the page, in order, with commas between',
  'page-width': 'the width of the page in pixels',
  profile: 'the profile; what it extends is looked for beside it',
  properties: 'the properties that are told, with commas between',
  role: 'for whose content; house limits may except a role',
  sheets: 'stylesheets in order, with commas between',
  site: 'the site document',
  stored: 'a list of what is stored, with its files in a folder of that name beside it',
  to: 'the other profile',
  type: 'the id of a content type',
  update: 'writes what now comes out as expectations',
  width: 'the width of the window in pixels',
};

/** The version of Typikon that is called. */
export const version = (): string =>
  (JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8')) as { version: string }).version;

/** What is said of all commands. */
export const helpOfAll = (commands: readonly Command[]): string =>
  `typikon ${version()}: editor profiles on the command line

${commands.map(({ usage, purpose }) => `  typikon ${usage}\n      ${purpose}\n`).join('\n')}
  typikon COMMAND --help
      What a command takes, with examples.

Exit codes: 0 done, 1 findings, 2 bad call or bad input.
`;

/** What is said of one command: what it does, what it takes, and how it is called. */
export function helpOf({ usage, purpose, examples }: Command): string {
  const options = optionsOf(usage);
  const widest = Math.max(0, ...options.map((name) => name.length));
  const described = options.map((name) => `  --${name.padEnd(widest)}  ${OPTIONS[name] ?? ''}`).join('\n');
  return `typikon ${usage}

${purpose}

${described}

Examples:
${examples.map((example) => `  typikon ${example}`).join('\n')}
`;
}

/** The options that a usage names, in their order, each once. */
export const optionsOf = (usage: string): string[] => [...new Set([...usage.matchAll(/--([a-z-]+)/g)].map(([, name]) => name!))];
