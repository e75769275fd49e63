import { build } from 'esbuild';

// Own code and @typikon/core are bundled from source; every registry package stays in node_modules.
await build({
  absWorkingDir: import.meta.dirname,
  entryPoints: { main: 'src/main.ts', worker: 'src/lanes/worker.ts' },
  outdir: 'dist',
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  packages: 'external',
  alias: { '@typikon/api': '../api/src/index.ts', '@typikon/core': '../core/src/index.ts' },
  logLevel: 'warning',
});
