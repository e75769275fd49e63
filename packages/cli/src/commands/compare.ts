import { comparePasses, compareRules, compileRules, type ComparedSide, type ResolvedProfile } from '@typikon/core';
import { readArguments } from '../arguments';
import { print } from '../output';
import { readTwoProfiles, TWO_PROFILES } from '../rule-options';
import type { Command } from './command';

const usage = 'compare --from A.json --to B.json [--house H.json] [--role R] [--json]';

/** Tells what each of two profiles keeps that the other takes. */
export const compareCommand: Command = {
  name: 'compare',
  usage,
  examples: ['compare --from demo/profiles/story-desk.json --to demo/profiles/notices-desk.json --house demo/house-limits.json'],
  purpose:
    'Tells what each of two profiles keeps that the other takes, computed from their rules; each line has markup that shows it: cleaned by both, or pasted, for what passes do. Exit code 1 says that there are lines.',
  run(args) {
    const { values } = readArguments(args, TWO_PROFILES, usage);
    const { options, ...profiles } = readTwoProfiles(values, usage);
    const sideOf = (resolved: ResolvedProfile): ComparedSide => ({
      profile: resolved.profile,
      rules: compileRules(resolved, options),
      name: resolved.profile.name,
    });
    const [from, to] = [sideOf(profiles.from), sideOf(profiles.to)];
    const lines = compareRules(from, to, options.house);
    const passes = comparePasses(from, to);
    const written = (all: typeof lines) => all.map(({ subject, kept, sentence, witness }) => ({ subject, kept, sentence, witness }));
    if (values.json === true) print(`${JSON.stringify({ lines: written(lines), passes: written(passes) })}\n`);
    else for (const { sentence, witness } of [...lines, ...passes]) print(`${sentence}\n    ${witness.replace(/\s+/g, ' ')}\n`);
    return lines.length + passes.length > 0 ? 1 : 0;
  },
};
