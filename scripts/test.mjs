// Runs every test: unit tests, server tests against a private MariaDB, tests of the web application, end-to-end tests in Chromium.
// With names of suites (unit, web, e2e) only those. Ends with "N passed, N failed" over all.
import { spawn } from 'node:child_process';
import { readFileSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { buildServer, buildWeb } from './lib/build.mjs';
import { startDatabase } from './lib/database.mjs';
import { BUILT, buildEndToEnd, endToEndFiles } from './lib/end-to-end.mjs';
import { checkDisk, ensureAll } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { freePort } from './lib/ports.mjs';
import { Stop, main, say, step } from './lib/say.mjs';
import { scratchFolder } from './lib/scratch.mjs';
import { startServer } from './lib/server.mjs';

const SUITES = ['unit', 'web', 'e2e'];

main(async () => {
  const wanted = process.argv.slice(2);
  const unknown = wanted.find((name) => !SUITES.includes(name));
  if (unknown !== undefined) throw new Stop(`There is no suite "${unknown}". The suites are ${SUITES.join(', ')}.`);
  const has = (name) => wanted.length === 0 || wanted.includes(name);
  const begin = Date.now();
  const since = () => `, begun after ${Math.round((Date.now() - begin) / 1000)} s`;
  checkDisk();
  await ensureAll({ mariadb: true, chromium: has('e2e') });

  const work = scratchFolder();
  // Databases, browsers and what tests write have their folders there too.
  process.env.TMPDIR = work;
  const results = [];
  try {
    if (has('unit')) {
      say(`\n== Unit and server tests${since()}`);
      const database = await startDatabase(join(work, 'db'));
      try {
        results.push(await jest('jest.config.mjs', join(work, 'unit.json'), database.env));
      } finally {
        await database.stop();
      }
    }
    // What the end-to-end tests need is made meanwhile: the compiler keeps one processor busy, and not always that.
    const prepared = has('e2e') ? prepare(join(work, 'filled')) : null;
    prepared?.catch(() => undefined);
    if (has('web')) {
      say(`\n== Web application${since()}`);
      results.push(await jest('packages/web/jest.config.mjs', join(work, 'web.json')));
    }
    if (prepared !== null) {
      const filled = await prepared;
      say(`\n== End to end${since()}`);
      results.push(await endToEnd(work, filled));
    }
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
  const failures = results.flatMap((result) => result.failures);
  // Said again at the end: what stands above it is long.
  if (failures.length > 0) say(`\n== What failed\n${failures.join('\n\n')}`);
  const passed = results.reduce((sum, result) => sum + result.passed, 0);
  const failed = results.reduce((sum, result) => sum + result.failed, 0);
  say(`\nAll suites took ${Math.round((Date.now() - begin) / 1000)} s.`);
  say(`${passed} passed, ${failed} failed`);
  process.exit(failed === 0 && passed > 0 ? 0 : 1);
});

/** Runs one Jest configuration. */
async function jest(config, output, env = {}) {
  const code = await show(
    process.execPath,
    [at('node_modules/jest/bin/jest.js'), '--config', at(config), '--ci', '--maxWorkers=2', '--json', `--outputFile=${output}`],
    { env },
  );
  return counted(code, config, () => {
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites, testResults } = JSON.parse(readFileSync(output, 'utf8'));
    const failures = testResults.filter(({ status }) => status === 'failed').map(({ name, message }) => `${name}\n${message}`);
    return { passed: numPassedTests, failed: numFailedTests + numRuntimeErrorTestSuites, failures };
  });
}

/** Builds what is served and the tests of it, and fills a database; gives the folder of it. */
async function prepare(filled) {
  await buildServer();
  await buildWeb({ isQuick: true });
  await buildEndToEnd();
  return filledDatabase(filled);
}

/**
 * A database with the demo data, made once for all end-to-end tests, with its background work done.
 *
 * @returns the folder that they copy
 */
async function filledDatabase(folder) {
  await step('Filling a database for the tests', async () => {
    const database = await startDatabase(folder);
    const [port, sitePort] = [await freePort(), await freePort()];
    const env = { ...database.env, TYPIKON_SITE_PORT: String(sitePort), TYPIKON_DEMO_DIR: at('demo') };
    const server = await startServer({ port, env });
    const isIdle = async () => / 0$/.test((await database.sql('SELECT COUNT(*) AS n FROM typikon.jobs')).trim().replace(/\s+/g, ' '));
    // Twice in a row: one job may ask for the next.
    for (let idle = 0; idle < 2; idle = (await isIdle()) ? idle + 1 : 0) await new Promise((done) => setTimeout(done, 700));
    await server.stop();
    await database.stop();
  });
  return folder;
}

/** Runs the end-to-end tests with Node's own test runner, two files at a time, the longest first: none of them is waited for at the end. */
async function endToEnd(work, filled) {
  const files = endToEndFiles().sort((one, other) => lengthOf(other) - lengthOf(one));
  const results = [];
  const lane = async (name) => {
    // What a browser has read of the application it need not read again: the next file finds it at the same address.
    const ports = [await freePort(), await freePort()];
    const env = {
      TYPIKON_TEST_DATABASE: filled,
      TYPIKON_TEST_PORTS: ports.join(' '),
      TYPIKON_TEST_BROWSER: join(work, `browser-${name}`),
    };
    for (let file = files.shift(); file !== undefined; file = files.shift()) results.push(await endToEndFile(file, work, env));
  };
  await Promise.all([lane('one'), lane('two')]);
  const sum = (of) => results.reduce((total, result) => total + result[of], 0);
  return { passed: sum('passed'), failed: sum('failed'), failures: results.flatMap(({ failures }) => failures) };
}

/** About how long a file takes: as long as it is, but for one that walks through every view in few lines. */
function lengthOf(file) {
  return file === 'sizes.e2e.ts' ? Infinity : statSync(at('e2e', file)).size;
}

/** Runs one of them; what it says is shown once it has ended, so that two never stand between each other. */
async function endToEndFile(file, work, env) {
  const output = join(work, `${file}.tap`);
  const said = [];
  const code = await new Promise((resolve) => {
    const child = spawn(
      process.execPath,
      [
        '--enable-source-maps',
        '--test-reporter=spec',
        '--test-reporter-destination=stdout',
        '--test-reporter=tap',
        `--test-reporter-destination=${output}`,
        join(BUILT, file.replace(/ts$/, 'mjs')),
      ],
      { cwd: at('.'), env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] },
    );
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes) => said.push(bytes));
    child.on('error', () => resolve(1));
    child.on('close', (ended) => resolve(ended ?? 1));
  });
  const report = Buffer.concat(said).toString('utf8').trimEnd();
  say(`\n${file}\n${report}`);
  return counted(code, file, () => {
    const tap = readFileSync(output, 'utf8');
    const count = (word) => Number(new RegExp(`^# ${word} (\\d+)$`, 'm').exec(tap)[1]);
    const failed = count('fail') + count('cancelled');
    const details = report.slice(report.lastIndexOf('failing tests:'));
    return { passed: count('pass'), failed, failures: failed === 0 ? [] : [`${file}, ${details}`] };
  });
}

/** What a run came to. One that left no results, or ended with an error beside them, counts as one failure. */
function counted(code, what, read) {
  const broken = { failed: 1, failures: [`${what} ended with ${code}, without a test that failed.`] };
  try {
    const result = read();
    return code !== 0 && result.failed === 0 ? { ...result, ...broken } : result;
  } catch {
    return { passed: 0, ...broken };
  }
}

function show(command, args, { env = {} } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: at('.'), env: { ...process.env, ...env }, stdio: ['ignore', 'inherit', 'inherit'] });
    child.on('error', () => resolve(1));
    child.on('close', (code) => resolve(code ?? 1));
  });
}
