#!/usr/bin/env node
// Starts the command line. It is bundled from its sources at the first call and whenever they have changed.
import { createRequire } from 'node:module';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const here = join(import.meta.dirname, '..');
/** One file watches over a command, the other runs it. */
const ENTRIES = { typikon: 'src/main.ts', command: 'src/run.ts' };
const dist = join(here, 'dist');
const bundle = join(dist, 'typikon.mjs');

function newestIn(folder) {
  let newest = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true }))
    if (entry.isFile()) newest = Math.max(newest, statSync(join(entry.parentPath ?? entry.path, entry.name)).mtimeMs);
  return newest;
}

/** Bundles the sources where they are newer than what is there. */
async function bundled() {
  const sources = [join(here, 'src'), join(here, '..', 'core', 'src')];
  // How it is bundled is said here.
  const newest = Math.max(statSync(import.meta.filename).mtimeMs, ...sources.map(newestIn));
  if (existsSync(bundle) && newest <= statSync(bundle).mtimeMs) return;
  const { build } = await import('esbuild');
  const fresh = join(dist, `fresh-${process.pid}`);
  mkdirSync(dist, { recursive: true });
  await build({
    absWorkingDir: here,
    entryPoints: ENTRIES,
    outdir: fresh,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    // Everything in one file is read in half the time. Packages that ask for others by name find them from here.
    minify: true,
    banner: { js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);" },
    alias: {
      '@typikon/core': join(here, '..', 'core', 'src', 'index.ts'),
      // As one file; its modules read their data from files beside them.
      'css-tree': createRequire(import.meta.url).resolve('css-tree/dist/csstree.esm'),
    },
    logLevel: 'error',
  });
  // The one that is started last, so that it never finds an older other.
  for (const name of Object.keys(ENTRIES).reverse()) renameSync(join(fresh, `${name}.mjs`), join(dist, `${name}.mjs`));
  rmSync(fresh, { recursive: true, force: true });
}

try {
  await bundled();
  await import(pathToFileURL(bundle).href);
} catch (error) {
  process.stderr.write(`typikon: it cannot be started: ${String(error.message).replace(/\s*\n\s*/g, ' ')}\n`);
  process.exitCode = 2;
}
