/** Unit and server tests, in CommonJS mode: swc turns every module that is met by itself into CommonJS. */
export const swc = {
  jsc: { parser: { syntax: 'typescript' }, target: 'es2022' },
  module: { type: 'commonjs' },
  sourceMaps: 'inline',
  swcrc: false,
};

/**
 * Modules that are started before the tests of a package: the seed of the laws; and what takes in pastes, which comes by itself
 * in a page, while a test need not wait for it.
 */
export const FIRST = {
  core: ['../../core/test/fixed-seed'],
  cli: ['../../core/test/fixed-seed'],
  editor: ['../../core/test/fixed-seed', './with-pasting'],
};

const project = (name, testEnvironment = 'node', rootDir = `packages/${name}`) => ({
  displayName: name,
  rootDir,
  testEnvironment,
  testMatch: ['<rootDir>/test/**/*.spec.ts'],
  transform: {
    '/node_modules/parse5/dist/index\\.js$': `${import.meta.dirname}/scripts/lib/bundle-transform.cjs`,
    '\\.spec\\.ts$': [`${import.meta.dirname}/scripts/lib/spec-transform.cjs`, { swc, first: FIRST[name] }],
    '^.+\\.[cm]?[jt]s$': ['@swc/jest', swc],
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
