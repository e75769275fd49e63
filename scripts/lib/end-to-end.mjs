import { readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { at } from './paths.mjs';

/** Where the end-to-end tests are once they are built: within the project, so that they find its packages. */
export const BUILT = at('.data', 'e2e');

/** Makes JavaScript of the end-to-end tests and of what they import: turned file by file, each run would spend seconds on it. */
export async function buildEndToEnd() {
  const { build } = await import('esbuild');
  rmSync(BUILT, { recursive: true, force: true });
  await build({
    entryPoints: endToEndFiles().map((name) => at('e2e', name)),
    outdir: BUILT,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: 'linked',
    logLevel: 'error',
    plugins: [
      {
        // Scripts know the folder that they stand in.
        name: 'scripts-stay',
        setup: (built) =>
          void built.onResolve({ filter: /^\.{1,2}\/.*\.mjs$/ }, ({ path, resolveDir }) => ({
            path: join(resolveDir, path),
            external: true,
          })),
      },
    ],
  });
}

/** The files of them. */
export const endToEndFiles = () => readdirSync(at('e2e')).filter((name) => name.endsWith('.e2e.ts'));
