import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { compressFolder } from './compress.mjs';
import { at, root } from './paths.mjs';
import { run } from './run.mjs';
import { step } from './say.mjs';

const WEB_SOURCES = [
  'packages/core/src',
  'packages/editor/src',
  'packages/web/src',
  'packages/web/public',
  'packages/web/angular.json',
  'packages/web/tsconfig.json',
  'packages/web/tsconfig.app.json',
  'tsconfig.base.json',
  'package-lock.json',
];

/** What the stamp of a build says whose files are not yet as small as they can be. */
const QUICK = ' quick';

/**
 * Builds the web application where its sources changed since the last build.
 *
 * @param isQuick whether what is served may be larger than it need be: tests alone read it, on this machine
 */
export async function buildWeb({ isQuick = false } = {}) {
  copyDictionary();
  await writeIcons();
  const stamp = at('packages/web/dist/.sources');
  const wanted = fingerprint(WEB_SOURCES, (path) => !path.endsWith('.spec.ts'));
  const made = existsSync(stamp) && existsSync(at('packages/web/dist/index.html')) ? readFileSync(stamp, 'utf8') : '';
  if (made === wanted || (isQuick && made === wanted + QUICK)) return;
  if (made !== wanted + QUICK) await compileWeb();
  await step('Compressing it', () => compressFolder(at('packages/web/dist'), { isQuick }));
  writeFileSync(stamp, isQuick ? wanted + QUICK : wanted);
}

async function compileWeb() {
  await step('Building the web application (a minute or two)', () =>
    run(process.execPath, [at('node_modules/@angular/cli/bin/ng.js'), 'build'], {
      cwd: at('packages/web'),
      // Pieces that always come together are one file: fewer, and better compressed.
      env: { NG_CLI_ANALYTICS: 'false', NG_BUILD_OPTIMIZE_CHUNKS: 'true' },
      what: 'The build of the web application',
    }),
  );
}

/** Puts the dictionary that hyphens at line ends are closed by among the files that the application serves. */
export function copyDictionary() {
  const folder = at('packages/web/public/dictionaries/en-GB');
  mkdirSync(folder, { recursive: true });
  for (const file of ['index.aff', 'index.dic', 'license']) cpSync(at('node_modules/dictionary-en-gb', file), join(folder, file));
}

/** Puts every icon of the set, by its name in words, among the files that the application serves: a script would bring all of them along. */
export async function writeIcons() {
  const { icons } = await import('lucide');
  const inWords = (name) =>
    name
      .replace(/([a-z])([A-Z0-9])/g, '$1-$2')
      .replace(/([0-9])([A-Z])/g, '$1-$2')
      .replace(/([A-Z])([A-Z][a-z])/g, '$1-$2')
      .toLowerCase();
  const set = Object.fromEntries(Object.entries(icons).map(([name, node]) => [inWords(name), node]));
  mkdirSync(at('packages/web/public'), { recursive: true });
  writeFileSync(at('packages/web/public/icons.json'), JSON.stringify(set));
}

/** Builds the server; it takes a moment. */
export async function buildServer() {
  await run(process.execPath, ['build.mjs'], { cwd: at('packages/server'), what: 'The build of the server' });
}

/** A hash over the contents of files, and of all files in folders, as far as they count. */
export function fingerprint(paths, counts = () => true) {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else if (counts(path)) hash.update(relative(root, path)).update('\0').update(readFileSync(path)).update('\0');
  };
  for (const path of paths) visit(at(path));
  return hash.digest('hex');
}
