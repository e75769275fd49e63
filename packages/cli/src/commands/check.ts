import { checkProfile, compileRules } from '@typikon/core';
import { readArguments, required } from '../arguments';
import { readHouse, readProfile } from '../files';
import { print } from '../output';
import type { Command } from './command';

const usage = 'check --profile P.json [--house H.json] [--json]';

/** Tests a profile against itself and the house limits. */
export const checkCommand: Command = {
  name: 'check',
  usage,
  purpose: 'Tests a profile against itself and its house limits; exit code 1 says that there are findings.',
  run(args) {
    const { values } = readArguments(args, { profile: { type: 'string' }, house: { type: 'string' }, json: { type: 'boolean' } }, usage);
    const resolved = readProfile(required(values.profile, 'profile', usage));
    const house = values.house === undefined ? undefined : readHouse(values.house);
    const findings = checkProfile({ resolved, rules: compileRules(resolved, house && { house }) });
    if (values.json === true) print(`${JSON.stringify(findings)}\n`);
    else for (const { severity, sentence, pointer } of findings) print(`${severity}: ${sentence} (${pointer})\n`);
    return findings.length === 0 ? 0 : 1;
  },
};
