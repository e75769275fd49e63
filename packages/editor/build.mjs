import { build } from 'esbuild';
import { cpSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';

const here = import.meta.dirname;

// The editor as one module for pages that build nothing; the field for markup is a second one, loaded when it is opened.
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
