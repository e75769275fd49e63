// Tries whether the tests notice: makes small changes to the code (a condition turned round, a comparison shifted, a body
// left out), one at a time, and runs the unit tests that reach them.
//   npm run mutants -- [core] [editor] [--sample 60] [--seed 1] [--since REF]
// --since changes only files that differ from a commit. Prints the share that was noticed, and what was not.
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { ensurePackages } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { Stop, main, say } from './lib/say.mjs';

/** The share of changes that the tests of each package are to notice. */
const AIMS = { core: 0.9, editor: 0.8 };
/** Changes to words, patterns and tables say little about whether tests look at what code does. */
const LEFT_OUT = ['StringLiteral', 'Regex', 'ObjectLiteral', 'ArrayDeclaration'];
/** These look at time and size, and take long. */
const SLOW_TESTS = ['growth\\.spec', 'any-bytes\\.spec', 'bundle\\.spec'];

main(async () => {
  const { names, sample, seed, since } = readOptions();
  await ensurePackages();
  let isMet = true;
  for (const name of names) {
    const places = await placesIn(name, since);
    const chosen = pick(places, sample, seed);
    if (chosen.length === 0) {
      say(`${name}: nothing to change.`);
      continue;
    }
    say(`\n== ${name}: ${chosen.length} of ${places.length} possible changes, seed ${seed}`);
    const results = await tryAll(name, chosen);
    const counted = results.filter(({ status }) => status !== 'Ignored' && status !== 'CompileError');
    const unnoticed = counted.filter(({ status }) => status === 'Survived' || status === 'NoCoverage');
    for (const { fileName, location, mutatorName, replacement, status } of unnoticed)
      say(
        `  ${shown(fileName)}:${location.start.line} ${mutatorName}${status === 'NoCoverage' ? ', no test comes here' : ''}: ${source(fileName, location)} → ${replacement}`,
      );
    const share = 1 - unnoticed.length / Math.max(1, counted.length);
    say(
      `${name}: ${counted.length - unnoticed.length} of ${counted.length} noticed, ${Math.round(share * 100)} % (aim ${AIMS[name] * 100} %)`,
    );
    isMet &&= share >= AIMS[name];
  }
  process.exit(isMet ? 0 : 1);
});

function readOptions() {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { sample: { type: 'string', default: '60' }, seed: { type: 'string', default: '1' }, since: { type: 'string' } },
  });
  const names = positionals.length === 0 ? Object.keys(AIMS) : positionals;
  const unknown = names.find((name) => !Object.hasOwn(AIMS, name));
  if (unknown !== undefined) throw new Stop(`There is no package "${unknown}" to change. There are ${Object.keys(AIMS).join(' and ')}.`);
  const [sample, seed] = [Number(values.sample), Number(values.seed)];
  if (!Number.isInteger(sample) || sample < 1) throw new Stop(`--sample needs a number of changes, not "${values.sample}".`);
  if (!Number.isInteger(seed)) throw new Stop(`--seed needs a whole number, not "${values.seed}".`);
  return { names, sample, seed, since: values.since };
}

/** Every change that could be made to the sources of a package. */
async function placesIn(name, since) {
  const { createInstrumenter } = await import('@stryker-mutator/instrumenter');
  const changed =
    since === undefined
      ? null
      : new Set(
          execFileSync('git', ['diff', '--name-only', since, '--', `packages/${name}/src`], { cwd: at('.'), encoding: 'utf8' }).split('\n'),
        );
  const files = readdirSync(at('packages', name, 'src'), { recursive: true })
    .filter((file) => file.endsWith('.ts') && !/(^|\/)index\.ts$|clobbering-names/.test(file))
    .map((file) => `packages/${name}/src/${file}`)
    .filter((file) => changed === null || changed.has(file));
  const { createInjector } = await import('typed-inject');
  const instrumenter = createInjector().provideValue('logger', silent).provideValue('options', {}).injectFunction(createInstrumenter);
  const { mutants } = await instrumenter.instrument(
    files.map((file) => ({ name: file, content: readFileSync(at(file), 'utf8'), mutate: true })),
    { excludedMutations: LEFT_OUT, ignorers: [], plugins: null, mutationLevels: [] },
  );
  const places = mutants
    .filter(({ ignoreReason }) => ignoreReason === undefined)
    .map(({ fileName, location: { start, end } }) => ({ fileName, start, end }));
  const byFile = groupBy(places);
  // A place is tried with all that is in it, so only small ones are chosen.
  return places
    .filter((place) => byFile.get(place.fileName).filter((other) => isWithin(other, place)).length <= MOST_WITHIN)
    .map(({ fileName, start, end }) => `${fileName}:${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`);
}

/** Changes that one place may hold, its own among them. */
const MOST_WITHIN = 4;

function groupBy(places) {
  const groups = new Map();
  for (const place of places) {
    const group = groups.get(place.fileName);
    if (group === undefined) groups.set(place.fileName, [place]);
    else group.push(place);
  }
  return groups;
}

function isWithin({ start, end }, outer) {
  const isBefore = (one, other) => one.line < other.line || (one.line === other.line && one.column <= other.column);
  return isBefore(outer.start, start) && isBefore(end, outer.end);
}

const silent = Object.fromEntries(['trace', 'debug', 'info', 'warn', 'error', 'fatal'].map((level) => [level, () => undefined]));
for (const level of ['Trace', 'Debug', 'Info', 'Warn', 'Error', 'Fatal']) silent[`is${level}Enabled`] = () => false;

/** Picks some places; the same seed picks the same ones. */
function pick(places, count, seed) {
  let state = seed;
  const random = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  const left = [...new Set(places)];
  const chosen = [];
  while (chosen.length < count && left.length > 0) chosen.push(...left.splice(Math.floor(random() * left.length), 1));
  return chosen;
}

async function tryAll(name, mutate) {
  const { Stryker } = await import('@stryker-mutator/core');
  const { default: jest } = await import('../jest.config.mjs');
  const { setupFiles, transform, transformIgnorePatterns, testEnvironment } = jest.projects.find(({ displayName }) => displayName === name);
  const stryker = new Stryker({
    testRunner: 'jest',
    plugins: ['@stryker-mutator/jest-runner'],
    jest: {
      projectType: 'custom',
      enableFindRelatedTests: false,
      config: {
        testEnvironment: `@stryker-mutator/jest-runner/jest-env/${testEnvironment === 'jsdom' ? 'jsdom' : 'node'}`,
        testMatch: [`<rootDir>/packages/${name}/test/**/*.spec.ts`],
        testPathIgnorePatterns: ['/node_modules/', ...SLOW_TESTS],
        setupFiles: setupFiles.map((file) => file.replace('<rootDir>/..', '<rootDir>/packages')),
        transform,
        transformIgnorePatterns,
        testTimeout: 60_000,
      },
    },
    coverageAnalysis: 'perTest',
    // What runs once as a module is loaded cannot be told by the test that reaches it.
    ignoreStatic: true,
    warnings: { preprocessorErrors: false, slow: false },
    mutate,
    mutator: { excludedMutations: LEFT_OUT },
    concurrency: 2,
    timeoutMS: 30_000,
    tempDirName: '.data/mutants',
    ignorePatterns: ['/bench', '/docs', '/packages/web', '/packages/server', '**/dist', '/.data', '/e2e'],
    checkers: [],
    reporters: ['progress-append-only'],
    logLevel: 'warn',
    fileLogLevel: 'off',
    allowConsoleColors: false,
    disableTypeChecks: true,
  });
  return stryker.runMutationTest();
}

function shown(fileName) {
  const place = fileName.indexOf('packages/');
  return place === -1 ? fileName : fileName.slice(place);
}

/** What stands at a place, on one line. */
function source(fileName, { start, end }) {
  const lines = readFileSync(at(shown(fileName)), 'utf8')
    .split('\n')
    .slice(start.line - 1, end.line);
  lines[lines.length - 1] = lines[lines.length - 1].slice(0, end.column - 1);
  lines[0] = lines[0].slice(start.column - 1);
  const text = lines.map((line) => line.trim()).join(' ');
  return text.length > 100 ? `${text.slice(0, 97)}…` : text;
}
