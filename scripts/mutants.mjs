// Tries whether the tests notice: makes small changes to the code (a condition turned round, a comparison shifted, a call
// left out), one at a time, and runs the unit tests that come to the place.
//   npm run mutants -- [core] [editor] [--sample 60] [--seed 1] [--since REF]
// --since changes only lines that differ from a commit. Prints the share that was noticed, and what was not.
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { fingerprint } from './lib/build.mjs';
import { ensurePackages } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { Stop, main, say, step } from './lib/say.mjs';

/** The share of changes that the tests of each package are to notice. */
const AIMS = { core: 0.9, editor: 0.8 };
/** A change that makes tests run this long makes a loop without an end, which is noticed. */
const LONGEST_MS = 240_000;

main(async () => {
  const { names, sample, seed, since } = readOptions();
  await ensurePackages();
  const { changesOf } = await import('./lib/changes.mjs');
  let isMet = true;
  for (const name of names) {
    const places = sourcesOf(name).flatMap((file) => changesOf(file).filter(isSince(file, since)));
    const chosen = pick(places, sample, seed);
    if (chosen.length === 0) {
      say(`${name}: nothing to change.`);
      continue;
    }
    const testsAt = await testsOf(name);
    say(`\n== ${name}: ${chosen.length} of ${places.length} possible changes, seed ${seed}`);
    let [noticed, tried] = [0, 0];
    await inTurns(chosen, async (change) => {
      const tests = testsAt(change);
      if (tests.length > 0 && (await isNoticed(name, change, tests))) noticed++;
      else say(`  ${shown(change)}${tests.length === 0 ? ' (no test comes here)' : ''}`);
      if (++tried % 10 === 0) say(`  (${tried} tried)`);
    });
    const share = noticed / chosen.length;
    say(`${name}: ${noticed} of ${chosen.length} noticed, ${Math.round(share * 100)} % (aim ${AIMS[name] * 100} %)`);
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

/** The sources of a package, but for those that only name others or hold a table that a program wrote. */
const sourcesOf = (name) =>
  readdirSync(at('packages', name, 'src'), { recursive: true })
    .filter((file) => file.endsWith('.ts') && !/(^|\/)(index|bundle)\.ts$|clobbering-names/.test(file))
    .sort()
    .map((file) => at('packages', name, 'src', file));

/** Whether a change lies on a line that differs from a commit. */
function isSince(file, since) {
  if (since === undefined) return () => true;
  const diff = execFileSync('git', ['diff', '--unified=0', since, '--', file], { cwd: at('.'), encoding: 'utf8' });
  const ranges = [...diff.matchAll(/^@@ -\S+ \+(\d+)(?:,(\d+))? @@/gm)].map(([, from, count = '1']) => [+from, +from + +count - 1]);
  return ({ line }) => ranges.some(([from, to]) => from <= line && line <= to);
}

/** Picks some; the same seed picks the same ones. */
function pick(places, count, seed) {
  let state = seed;
  const random = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  const left = [...places];
  const chosen = [];
  while (chosen.length < count && left.length > 0) chosen.push(...left.splice(Math.floor(random() * left.length), 1));
  return chosen;
}

/**
 * Which test files come to a place, the quickest first. Every test of the package is run once for that; it is known until a
 * source or a test changes.
 */
async function testsOf(name) {
  const known = at('.data/mutants', `${name}.json`);
  const files = [name, 'core'].flatMap((one) => ['src', 'test'].map((part) => `packages/${one}/${part}`));
  const print = fingerprint([...files, 'demo', 'jest.config.mjs', 'package-lock.json']);
  let kept = existsSync(known) ? JSON.parse(readFileSync(known, 'utf8')) : null;
  if (kept?.print !== print) {
    kept = { print, tests: await step(`Finding which tests of ${name} come where`, () => runAll(name)) };
    writeFileSync(known, JSON.stringify(kept));
  }
  const tests = kept.tests.map(({ testPath, lines }) => ({
    testPath,
    lines: new Map(Object.entries(lines).map(([file, all]) => [file, new Set(all)])),
  }));
  return ({ file, line }) => tests.filter(({ lines }) => lines.get(file)?.has(line)).map(({ testPath }) => testPath);
}

/** Runs every test of a package; gives the lines of each source that the tests of a file came to, the quickest file first. */
async function runAll(name) {
  const folder = at('.data/mutants', name);
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const report = join(folder, 'times.json');
  const { code, output } = await jest(name, ['--coverage', '--coverageReporters=none', '--json', `--outputFile=${report}`], {
    TYPIKON_COVERAGE: folder,
  });
  if (code !== 0) throw new Stop(`The tests of ${name} fail before anything is changed:\n${output.slice(-2000)}`);
  const took = new Map(JSON.parse(readFileSync(report, 'utf8')).testResults.map((one) => [one.name, one.endTime - one.startTime]));
  const tests = [];
  for (const file of readdirSync(folder).filter((one) => one.endsWith('.spec.ts.json')))
    tests.push(await linesIn(JSON.parse(readFileSync(join(folder, file), 'utf8'))));
  return tests.sort((one, other) => took.get(one.testPath) - took.get(other.testPath));
}

/** The lines that the tests of a file came to; statements are looked up where they were written. */
async function linesIn({ testPath, coverage }) {
  const {
    default: { createCoverageMap },
  } = await import('istanbul-lib-coverage');
  const {
    default: { createSourceMapStore },
  } = await import('istanbul-lib-source-maps');
  const written = await createSourceMapStore().transformCoverage(createCoverageMap(coverage));
  const lines = {};
  for (const file of written.files()) {
    const { statementMap, s: counts } = written.fileCoverageFor(file).data;
    const reached = new Set();
    for (const [id, { start, end }] of Object.entries(statementMap))
      if (counts[id] > 0) for (let line = start.line; line <= end.line; line++) reached.add(line);
    lines[file] = [...reached];
  }
  return { testPath, lines };
}

/** Whether a test fails with a change; the quick ones are asked first. */
async function isNoticed(name, { file, start, end, becomes }, tests) {
  for (const some of [tests.slice(0, 3), tests.slice(3)]) {
    if (some.length === 0) continue;
    const { code } = await jest(name, ['--bail', '--runInBand', '--runTestsByPath', ...some], {
      TYPIKON_CHANGE: JSON.stringify({ file, start, end, becomes }),
    });
    if (code !== 0) return true;
  }
  return false;
}

function jest(name, options, env) {
  return new Promise((done) => {
    const config = JSON.stringify(configOf(name, 'TYPIKON_COVERAGE' in env));
    const child = spawn(process.execPath, [at('node_modules/jest/bin/jest.js'), '--config', config, ...options], {
      cwd: at('.'),
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => (output += data));
    const timer = setTimeout(() => child.kill('SIGKILL'), 'TYPIKON_CHANGE' in env ? LONGEST_MS : 2 * LONGEST_MS * 5);
    child.on('close', (code) => {
      clearTimeout(timer);
      done({ code, output });
    });
  });
}

/** One module at a time, so that a change is made in its file and what was come to is known by file. */
function configOf(name, isCovered) {
  const { transformIgnorePatterns, ...project } = PROJECTS.find(({ displayName }) => displayName === name);
  return {
    ...project,
    rootDir: at('packages', name),
    setupFilesAfterEnv: (FIRST[name] ?? [])
      .map((file) => `${at('packages', name, 'test', file)}.ts`)
      .concat(isCovered ? [at('scripts/lib/note-coverage.cjs')] : []),
    transform: { '^.+\\.[cm]?[jt]s$': [at('scripts/lib/change-transform.cjs'), swc] },
    transformIgnorePatterns,
  };
}
const {
  FIRST,
  swc,
  default: { projects: PROJECTS },
} = await import('../jest.config.mjs');

/** Does something with each, as many at once as there are processors. */
async function inTurns(all, act) {
  const left = [...all];
  await Promise.all(
    cpus().map(async () => {
      for (let next = left.shift(); next !== undefined; next = left.shift()) await act(next);
    }),
  );
}

function shown({ file, line, kind, was, becomes }) {
  const short = (text) => (text.length > 90 ? `${text.slice(0, 87)}…` : text).replace(/\s+/g, ' ');
  return `${file.slice(file.indexOf('packages/'))}:${line} ${kind}: ${short(was)} → ${short(becomes)}`;
}
