import { createRequire } from 'node:module';
import { build } from 'esbuild';

/** Packages that are native, have threads of their own, or are asked for by name. */
const APART = ['sharp', 'pino', 'piscina', 'mariadb'];
/** What Sequelize would ask for with other databases. */
const OTHER_DATABASES = ['pg-hstore', 'mysql2', 'pg', 'sqlite3', 'tedious', 'oracledb', 'snowflake-sdk', 'ibm_db'];

// Everything else is in one file for each thread, which is read in less than half the time.
await build({
  absWorkingDir: import.meta.dirname,
  entryPoints: { main: 'src/main.ts', worker: 'src/lanes/worker.ts' },
  outdir: 'dist',
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  minifyWhitespace: true,
  external: [...APART, ...OTHER_DATABASES],
  banner: {
    js: [
      "import { createRequire as requireFrom } from 'node:module';",
      "import { fileURLToPath as pathOf } from 'node:url';",
      'const require = requireFrom(import.meta.url);',
      'const __filename = pathOf(import.meta.url);',
      "const __dirname = pathOf(new URL('.', import.meta.url));",
    ].join('\n'),
  },
  alias: {
    '@typikon/api': '../api/src/index.ts',
    '@typikon/core': '../core/src/index.ts',
    // As one file; its modules read their data from files beside them.
    'css-tree': createRequire(import.meta.url).resolve('css-tree/dist/csstree.esm'),
  },
  logLevel: 'warning',
});
