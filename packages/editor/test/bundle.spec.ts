/** @jest-environment node */
import { gzipSync } from 'node:zlib';
import { join } from 'node:path';
import { build } from 'esbuild';

const KILOBYTE = 1024;

// Bundling is heavy, and other suites run beside it.
jest.setTimeout(60_000);

/** The parts of the editor that a page loads at once, compressed. */
async function size(external: string[]): Promise<number> {
  const { outputFiles = [], metafile } = await build({
    absWorkingDir: join(__dirname, '..'),
    entryPoints: ['src/bundle.ts'],
    outdir: 'dist',
    bundle: true,
    splitting: true,
    minify: true,
    metafile: true,
    write: false,
    format: 'esm',
    platform: 'browser',
    target: 'es2022',
    external,
  });
  const main = outputFiles.find(({ path }) => path.endsWith('bundle.js'))!;
  const at = Object.entries(metafile!.outputs).find(([path]) => path.endsWith('bundle.js'))![1];
  const shared = at.imports
    .filter(({ kind, external: isOutside }) => kind === 'import-statement' && isOutside !== true)
    .map(({ path }) => path);
  return (
    [main, ...outputFiles.filter(({ path }) => shared.some((name) => path.endsWith(name)))].reduce(
      (sum, { contents }) => sum + gzipSync(contents).length,
      0,
    ) / KILOBYTE
  );
}

test('the editor’s own code stays under 250 kB, compressed; with the rules engine that every part of Typikon shares it is watched too', async () => {
  const [own, whole] = [await size(['@typikon/core']), await size([])];
  expect(own).toBeLessThan(250);
  expect(whole).toBeLessThan(430);
});
