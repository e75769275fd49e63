import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { checkProfile, classesIn, compileRules, parseFragment, sumCensuses, takeCensus, type Surroundings } from '@typikon/core';
import { readArguments, required } from '../arguments';
import { Failure } from '../failure';
import { readHouse, readProfile, readText } from '../files';
import { print } from '../output';
import type { Command } from './command';

const usage = 'check --profile P.json [--house H.json] [--css A.css,B.css] [--documents DIR] [--json]';

/** Tests a profile against itself and what stands around it. */
export const checkCommand: Command = {
  name: 'check',
  usage,
  examples: [
    'check --profile demo/profiles/story-desk.json --house demo/house-limits.json',
    'check --profile demo/profiles/story-desk.json --css demo/stylesheets/site.css --documents pages --json',
  ],
  purpose:
    'Tests a profile against itself, its house limits, its stylesheets and stored documents; exit code 1 says that there are findings.',
  run(args) {
    const { values } = readArguments(
      args,
      {
        profile: { type: 'string' },
        house: { type: 'string' },
        css: { type: 'string' },
        documents: { type: 'string' },
        json: { type: 'boolean' },
      },
      usage,
    );
    const resolved = readProfile(required(values.profile, 'profile', usage));
    const surroundings: Surroundings = {
      ...(values.house === undefined ? {} : { house: readHouse(values.house) }),
      ...(values.css === undefined ? {} : { stylesheetClasses: classesOf(values.css.split(',')) }),
      ...(values.documents === undefined ? {} : { documents: needsOf(values.documents) }),
    };
    const { house } = surroundings;
    const findings = checkProfile({ resolved, rules: compileRules(resolved, house && { house }), ...surroundings });
    if (values.json === true) print(`${JSON.stringify(findings)}\n`);
    else for (const { severity, sentence, pointer } of findings) print(`${severity}: ${sentence} (${pointer})\n`);
    return findings.length === 0 ? 0 : 1;
  },
};

function classesOf(paths: readonly string[]): ReadonlySet<string> {
  return new Set(paths.flatMap((path) => [...classesIn(readText(path.trim()))]));
}

function needsOf(folder: string): Surroundings['documents'] {
  let names: string[];
  try {
    names = readdirSync(folder).filter((name) => name.endsWith('.html'));
  } catch {
    throw new Failure(`${folder}: cannot be read as a folder of documents.`);
  }
  return sumCensuses(names.map((name) => takeCensus(parseFragment(readText(join(folder, name))).root))).most;
}
