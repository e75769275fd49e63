import { build } from 'esbuild';
import { cpSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';

const here = import.meta.dirname;

// The editor for pages that build nothing. What it loads later (what takes in pastes, patterns, the field for markup) stands in parts/.
rmSync(join(here, 'dist'), { recursive: true, force: true });
const { metafile } = await build({
  absWorkingDir: here,
  entryPoints: { 'typikon-editor': 'src/bundle.ts' },
  outdir: 'dist',
  bundle: true,
  splitting: true,
  minify: true,
  metafile: true,
  format: 'esm',
  platform: 'browser',
  target: 'es2022',
  chunkNames: 'parts/[name]-[hash]',
  logLevel: 'warning',
});
mkdirSync(join(here, 'dist'), { recursive: true });
cpSync(join(here, 'src/editor.css'), join(here, 'dist/typikon-editor.css'));
export { metafile };
