/** Unit and server tests. CommonJS mode: swc turns every ESM dependency into CommonJS as it is met. */
const swc = [
  '@swc/jest',
  {
    jsc: { parser: { syntax: 'typescript' }, target: 'es2022' },
    module: { type: 'commonjs' },
    sourceMaps: 'inline',
    swcrc: false,
  },
];

const project = (name, testEnvironment = 'node', rootDir = `packages/${name}`) => ({
  displayName: name,
  rootDir,
  testEnvironment,
  testMatch: ['<rootDir>/test/**/*.spec.ts'],
  setupFiles: ['core', 'editor', 'cli'].includes(name) ? ['<rootDir>/../core/test/fixed-seed.ts'] : [],
  // What takes in pastes comes by itself in a page; a test need not wait for it.
  setupFilesAfterEnv: name === 'editor' ? ['<rootDir>/test/with-pasting.ts'] : [],
  transform: {
    '/node_modules/parse5/dist/index\\.js$': `${import.meta.dirname}/scripts/lib/bundle-transform.cjs`,
    '^.+\\.[cm]?[jt]s$': swc,
  },
  // Packages that are published as ES modules alone are transformed too.
  transformIgnorePatterns: [
    '/node_modules/(?!(?:parse5|entities|culori|css-tree|re2js|hono|@hono/[^/]+|openapi3-ts|@asteasolutions/[^/]+|umzug|lucide|fast-check|pure-rand|@noble/[^/]+)/)',
  ],
});

export default {
  // A busy machine loads a whole editor within the first test of a file.
  testTimeout: 60_000,
  projects: [project('core'), project('editor', 'jsdom'), project('server'), project('cli'), project('scripts', 'node', 'scripts')],
};
