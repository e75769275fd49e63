import { fitTo, type Fit } from '@typikon/core';
import { readArguments } from '../arguments';
import { counted } from '../counted';
import { oneFolder, readDocuments } from '../documents';
import { Failure } from '../failure';
import { print } from '../output';
import { above } from '../rule-options';
import type { Command } from './command';

const usage = 'fit [--house H.json] [--role R] [--keep SHARE] [--json] DIR';

/** So much is kept whole where nothing is asked for. */
const USUAL_SHARE = '0.95';

/** Finds the least rules that keep documents whole. */
export const fitCommand: Command = {
  name: 'fit',
  usage,
  examples: [
    'fit --house demo/house-limits.json --keep 0.95 demo/documents',
    'fit --house demo/house-limits.json --keep 0.9 --json demo/documents',
  ],
  purpose:
    'Writes the least profile, weighed by risk, that keeps a share of the documents of a folder whole, and the way to it from allowing nothing to allowing all. Exit code 1 says that the house limits do not let so many be whole.',
  run(args) {
    const { values, positionals } = readArguments(
      args,
      {
        house: { type: 'string' },
        role: { type: 'string' },
        keep: { type: 'string' },
        json: { type: 'boolean' },
      },
      usage,
    );
    const keep = shareIn(values.keep ?? USUAL_SHARE);
    const folder = oneFolder(positionals, usage);
    const fit = fitTo(() => markupIn(folder), { ...above(values.house, values.role), keep });
    if (values.json === true) print(`${JSON.stringify(fit)}\n`);
    else printWords(fit, keep);
    return fit.kept < keep - 1e-9 ? 1 : 0;
  },
};

function shareIn(written: string): number {
  const share = /^(0|1|0?\.\d+|1\.0+|0\.\d*)$/.test(written) ? Number(written) : NaN;
  if (Number.isNaN(share)) throw new Failure(`--keep must be a share from 0 to 1, such as 0.95, not "${written}". Usage: typikon ${usage}`);
  return share;
}

function* markupIn(folder: string): Generator<string> {
  for (const { html } of readDocuments(folder)) yield html;
}

const percent = (share: number): string => `${(share * 100).toFixed(1)} %`;

function printWords({ profile, documents, whole, kept, rules, risk, bound, most, curve }: Fit, keep: number): void {
  for (const { allows, kept: share, risk: weight, isLeast } of curve)
    print(
      `${percent(share).padStart(7)}  risk ${String(weight).padStart(4)}${isLeast ? ' *' : '  '}  ${allows.length === 0 ? 'nothing' : allows.join(', ')}\n`,
    );
  print('\n* nothing of less risk keeps as many.\n');
  if (kept < keep - 1e-9) print(`No profile under these limits keeps more than ${counted(most, 'document')} of ${documents} whole.\n`);
  print(
    `${whole} of ${counted(documents, 'document')} whole (${percent(kept)}) with ${counted(rules, 'rule')} of risk ${risk}${risk > bound ? `; the least possible is not below ${bound}` : ', the least possible'}.\n`,
  );
  print(`\n${JSON.stringify(profile, null, 2)}\n`);
}
