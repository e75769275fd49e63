import { comparePasses, compareRules, compileRules, type ComparedSide } from '@typikon/core';
import { readArguments, required } from '../arguments';
import { readHouse, readProfile } from '../files';
import { print } from '../output';
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
    const { values } = readArguments(
      args,
      {
        from: { type: 'string' },
        to: { type: 'string' },
        house: { type: 'string' },
        role: { type: 'string' },
        json: { type: 'boolean' },
      },
      usage,
    );
    const paths = { from: required(values.from, 'from', usage), to: required(values.to, 'to', usage) };
    const house = values.house === undefined ? undefined : readHouse(values.house);
    const options = { ...(house === undefined ? {} : { house }), ...(values.role === undefined ? {} : { role: values.role }) };
    const sideOf = (path: string): ComparedSide => {
      const resolved = readProfile(path);
      return { profile: resolved.profile, rules: compileRules(resolved, options), name: resolved.profile.name };
    };
    const [from, to] = [sideOf(paths.from), sideOf(paths.to)];
    const lines = compareRules(from, to, house);
    const passes = comparePasses(from, to);
    const written = (all: typeof lines) => all.map(({ subject, kept, sentence, witness }) => ({ subject, kept, sentence, witness }));
    if (values.json === true) print(`${JSON.stringify({ lines: written(lines), passes: written(passes) })}\n`);
    else for (const { sentence, witness } of [...lines, ...passes]) print(`${sentence}\n    ${witness.replace(/\s+/g, ' ')}\n`);
    return lines.length + passes.length > 0 ? 1 : 0;
  },
};
