import { compileRules, reachInBrief, reachOf, ReachSum, type DocumentReach, type ReachGroup, type ReachOfAll } from '@typikon/core';
import { readArguments } from '../arguments';
import { counted } from '../counted';
import { oneFolder, readDocuments } from '../documents';
import { print } from '../output';
import { readTwoProfiles, TWO_PROFILES } from '../rule-options';
import type { Command } from './command';

const usage = 'reach --from A.json --to B.json [--house H.json] [--role R] [--json] DIR';

/** So many documents of a group are named where not everything is asked for. */
const MOST_NAMED = 5;

/** Tells what a change of a profile does to documents. */
export const reachCommand: Command = {
  name: 'reach',
  usage,
  examples: [
    'reach --from demo/profiles/story-desk.json --to demo/profiles/notices-desk.json --house demo/house-limits.json demo/documents',
    'reach --from demo/profiles/story-desk.json --to demo/profiles/notices-desk.json --json demo/documents',
  ],
  purpose:
    'Cleans every document of a folder by two profiles and tells which come out differently, what goes from them and by which rule, what hurts most first. All are counted, none is estimated.',
  run(args) {
    const { values, positionals } = readArguments(args, TWO_PROFILES, usage);
    const profiles = readTwoProfiles(values, usage);
    const folder = oneFolder(positionals, usage);
    const [from, to] = [compileRules(profiles.from, profiles.options), compileRules(profiles.to, profiles.options)];
    const sum = new ReachSum();
    const names: string[] = [];
    const files: string[] = [];
    for (const { file, html } of readDocuments(folder)) {
      const reach = reachOf(html, from, to);
      sum.add(reach === null ? null : reachInBrief(reach));
      names.push(file);
      if (reach !== null && values.json === true) files.push(JSON.stringify(fileOf(file, reach)));
    }
    if (values.json === true) printJson(sum.sum(), names, files);
    else printWords(sum.sum(), names);
    return 0;
  },
};

const fileOf = (file: string, { textLost, textGained, wordsLost, wordsGained, lost, gained, entries, settled }: DocumentReach) => ({
  file,
  textLost,
  textGained,
  wordsLost,
  wordsGained,
  lost,
  gained,
  entries,
  settled,
});

function printJson({ groups, ...all }: ReachOfAll, names: readonly string[], files: readonly string[]): void {
  const named = groups.map(({ documents, ...group }) => ({
    ...group,
    documents: documents.length,
    files: documents.map((at) => names[at]),
  }));
  const head = JSON.stringify({ ...all, groups: named });
  print(`${head.slice(0, -1)},"files":[`);
  files.forEach((file, at) => print(at === 0 ? file : `,${file}`));
  print(']}\n');
}

function printWords({ documents, touched, losing, gaining, groups }: ReachOfAll, names: readonly string[]): void {
  print(
    `${counted(documents, 'document')} looked at, ${touched === 0 ? 'none comes' : touched === 1 ? '1 comes' : `${touched} come`} out differently.\n`,
  );
  if (losing.documents > 0) print(`${losing.documents === 1 ? '1 loses' : `${losing.documents} lose`} words, ${losing.words} in all.\n`);
  if (gaining.documents > 0)
    print(`${gaining.documents === 1 ? '1 keeps' : `${gaining.documents} keep`} words that went before, ${gaining.words} in all.\n`);
  for (const group of groups) print(`\n${wordsOf(group)}\n    ${namedIn(group, names)}\n`);
}

function wordsOf({ kind, sentence, rule, harm }: ReachGroup): string {
  const begin = kind === 'kept' ? 'No more: ' : '';
  return `${begin}${sentence}${rule === '' ? '' : ` (${rule})`}${harm === 'words' ? ': words are lost' : ''}`;
}

function namedIn({ documents, places }: ReachGroup, names: readonly string[]): string {
  const first = documents.slice(0, MOST_NAMED).map((at) => names[at]);
  const more = documents.length - first.length;
  return `${counted(documents.length, 'document')}, ${counted(places, 'place')}: ${first.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}
