#!/usr/bin/env node
// Starts the command line. It is bundled from its sources at the first call and whenever they have changed.
import { existsSync, readdirSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const here = join(import.meta.dirname, '..');
const bundle = join(here, 'dist', 'typikon.mjs');

function newestIn(folder) {
  let newest = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true }))
    if (entry.isFile()) newest = Math.max(newest, statSync(join(entry.parentPath ?? entry.path, entry.name)).mtimeMs);
  return newest;
}

const sources = [join(here, 'src'), join(here, '..', 'core', 'src')];
if (!existsSync(bundle) || Math.max(...sources.map(newestIn)) > statSync(bundle).mtimeMs) {
  const { build } = await import('esbuild');
  const fresh = `${bundle}.${process.pid}.tmp.mjs`;
  await build({
    absWorkingDir: here,
    entryPoints: ['src/main.ts'],
    outfile: fresh,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    // Registry packages stay where they are; some read data files beside them.
    packages: 'external',
    alias: { '@typikon/core': join(here, '..', 'core', 'src', 'index.ts') },
    logLevel: 'error',
  });
  renameSync(fresh, bundle);
}
await import(pathToFileURL(bundle).href);
