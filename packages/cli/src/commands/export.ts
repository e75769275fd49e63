import { compileRules, toSanitizerConfig } from '@typikon/core';
import { readArguments, required } from '../arguments';
import { Failure } from '../failure';
import { readHouse, readProfile } from '../files';
import { print, warn } from '../output';
import type { Command } from './command';

const usage = 'export --profile P.json [--house H.json] --as sanitizer [--json]';

/** Writes a profile's rules in an open format. */
export const exportCommand: Command = {
  name: 'export',
  usage,
  examples: ['export --profile demo/profiles/story-desk.json --house demo/house-limits.json --as sanitizer'],
  purpose:
    'Writes the rules as a configuration of the HTML Sanitizer API; what it cannot express goes to standard error, with --json beside it.',
  run(args) {
    const { values } = readArguments(
      args,
      { profile: { type: 'string' }, house: { type: 'string' }, as: { type: 'string' }, json: { type: 'boolean' } },
      usage,
    );
    const format = required(values.as, 'as', usage);
    if (format !== 'sanitizer') throw new Failure(`--as knows the format "sanitizer", not "${format}".`);
    const resolved = readProfile(required(values.profile, 'profile', usage));
    const house = values.house === undefined ? undefined : readHouse(values.house);
    const made = toSanitizerConfig(resolved, compileRules(resolved, house && { house }));
    if (values.json === true) print(`${JSON.stringify(made)}\n`);
    else {
      print(`${JSON.stringify(made.config, null, 2)}\n`);
      for (const limit of made.limits) warn(`${limit}\n`);
    }
    return 0;
  },
};
