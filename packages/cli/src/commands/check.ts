import { dirname } from 'node:path';
import {
  checkProfile,
  checkSite,
  classesIn,
  compileRules,
  kindsShowing,
  parseFragment,
  sumCensuses,
  surroundingsOf,
  takeCensus,
  type Census,
  type Finding,
  type HouseLimits,
  type ResolvedProfile,
  type SiteFinding,
  type Surroundings,
} from '@typikon/core';
import { readArguments, required } from '../arguments';
import { readDocuments } from '../documents';
import { Failure } from '../failure';
import { readHouse, readProfile, readText } from '../files';
import { print } from '../output';
import { readPageKinds, readProfiles, readSite, readStored, type StoredList } from '../site-files';
import type { Command } from './command';

const usage =
  'check --profile P.json [--house H.json] [--page-kinds K.json] [--stored LIST.json] [--site S.json] [--css A.css,B.css] [--documents DIR] [--json]';

/** Tests a profile against itself and what stands around it, and a site against its profiles. */
export const checkCommand: Command = {
  name: 'check',
  usage,
  examples: [
    'check --profile demo/profiles/story-desk.json --house demo/house-limits.json',
    'check --profile demo/profiles/story-desk.json --house demo/house-limits.json --page-kinds demo/page-kinds.json --stored demo/documents.json --site demo/site.json',
    'check --profile demo/profiles/story-desk.json --css demo/stylesheets/site.css --documents demo/documents --json',
  ],
  purpose:
    'Tests a profile against itself, its house limits, the pages that show its content, what is stored, and the site; exit code 1 says that there are findings.',
  run(args) {
    const { values } = readArguments(
      args,
      {
        profile: { type: 'string' },
        house: { type: 'string' },
        'page-kinds': { type: 'string' },
        stored: { type: 'string' },
        site: { type: 'string' },
        css: { type: 'string' },
        documents: { type: 'string' },
        json: { type: 'boolean' },
      },
      usage,
    );
    const path = required(values.profile, 'profile', usage);
    const resolved = readProfile(path);
    if (values.documents !== undefined && values.stored !== undefined)
      throw new Failure('Give either --documents, a folder, or --stored, a list of what is stored; not both.');
    const house = values.house === undefined ? null : readHouse(values.house);
    const stored = values.stored === undefined ? null : readStored(values.stored);
    const findings: (Finding | SiteFinding)[] = checkProfile({
      resolved,
      rules: compileRules(resolved, house === null ? {} : { house }),
      ...around(resolved, house, stored, values['page-kinds']),
      ...(values.css === undefined ? {} : { stylesheetClasses: classesOf(values.css.split(',')) }),
      ...(values.documents === undefined ? {} : { documents: needsOf(values.documents) }),
    });
    if (values.site !== undefined)
      findings.push(
        ...checkSite({
          site: readSite(values.site),
          profiles: readProfiles(dirname(path), house),
          ...(house === null ? {} : { house }),
          ...(values['page-kinds'] === undefined
            ? {}
            : { pageKinds: new Map(readPageKinds(values['page-kinds']).map(({ kind }) => [kind.id, kind])) }),
          ...(stored === null ? {} : { texts: stored.texts, pages: stored.pages }),
        }),
      );
    if (values.json === true) print(`${JSON.stringify(findings)}\n`);
    else for (const { severity, sentence, pointer } of findings) print(`${severity}: ${sentence} (${pointer})\n`);
    return findings.length === 0 ? 0 : 1;
  },
};

function around(
  resolved: ResolvedProfile,
  house: HouseLimits | null,
  stored: StoredList | null,
  pageKinds: string | undefined,
): Surroundings {
  const all = pageKinds === undefined ? [] : readPageKinds(pageKinds);
  // Without a list of what is stored, content of the profile may stand on every kind of page.
  const used = stored === null ? new Set(all.map(({ kind }) => kind.id)) : stored.kindsOf(resolved.id);
  const kinds = kindsShowing(
    all.map(({ kind }) => kind),
    used,
    resolved.profile.surface.pageKind,
  );
  return surroundingsOf(
    house,
    all.filter(({ kind }) => kinds.includes(kind)),
    stored === null ? null : stored.contentOf(resolved.id),
  );
}

function classesOf(paths: readonly string[]): ReadonlySet<string> {
  return new Set(paths.flatMap((path) => [...classesIn(readText(path.trim()))]));
}

function needsOf(folder: string): Surroundings['documents'] {
  return sumCensuses(censusesOf(folder)).most;
}

function* censusesOf(folder: string): Generator<Census> {
  for (const { html } of readDocuments(folder)) yield takeCensus(parseFragment(html).root);
}
