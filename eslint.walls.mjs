/*
 * The walls of the house: who may import from whom, whether by a package's name, by a path, for types alone or when it runs.
 * docs/architecture.md draws them; scripts/test/walls.spec.ts plants every forbidden import once.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import importX, { createNodeResolver } from 'eslint-plugin-import-x';

const root = import.meta.dirname;
const foldersOf = (path) =>
  readdirSync(join(root, path), { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map(({ name }) => name);

/** Inside the core, each folder stands on those before it. */
export const CORE_ORDER = [
  'html',
  'css',
  'ledger',
  'profile',
  'markup',
  'toolbar',
  'paste',
  'proof',
  'reach',
  'render',
  'styles',
  'likeness',
  'site',
  'checks',
  'export',
];

/** Inside the web application, each folder stands on those behind it. */
export const WEB_ORDER = ['features', 'shared', 'state', 'ui'];

/** What the code of each package takes from the others. */
export const PACKAGES = {
  core: [],
  api: ['core'],
  editor: ['core'],
  server: ['api', 'core'],
  cli: ['core'],
  web: ['api', 'core', 'editor'],
};

const features = foldersOf('packages/web/src/features');
const packageZones = Object.entries(PACKAGES).map(([name, taken]) => ({
  target: `packages/${name}/src`,
  from: Object.keys(PACKAGES)
    .filter((other) => other !== name && !taken.includes(other))
    .map((other) => `packages/${other}`),
}));
const coreZones = CORE_ORDER.slice(0, -1).map((folder, place) => ({
  target: `packages/core/src/${folder}`,
  from: CORE_ORDER.slice(place + 1).map((later) => `packages/core/src/${later}`),
}));
const webZones = WEB_ORDER.slice(1).map((folder, place) => ({
  target: `packages/web/src/${folder}`,
  from: WEB_ORDER.slice(0, place + 1).map((before) => `packages/web/src/${before}`),
}));
const featureZones = features.map((feature) => ({
  target: `packages/web/src/features/${feature}`,
  from: features.filter((other) => other !== feature).map((other) => `packages/web/src/features/${other}`),
  message: 'A feature takes nothing from another: what both need stands in shared/.',
}));
const zones = [...packageZones, ...coreZones, ...webZones, ...featureZones].map((zone) => ({
  message: 'Imports go one way; see docs/architecture.md.',
  ...zone,
}));

const TYPIKON = String.raw`^@typikon/`;
/** The ways into our packages: by name, or what their "exports" name. */
const WAYS_IN = ['core', 'api', 'editor'].flatMap((name) => {
  const { exports } = JSON.parse(readFileSync(new URL(`packages/${name}/package.json`, import.meta.url), 'utf8'));
  return Object.keys(exports).map((way) => `@typikon/${name}${way.slice(1)}`);
});

export const walls = [
  {
    files: ['packages/*/src/**/*.ts'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [
        createNodeResolver({ extensions: ['.ts', '.mjs', '.js', '.json'], conditionNames: ['types', 'import', 'default'] }),
      ],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
      'import-x/internal-regex': TYPIKON,
    },
    rules: {
      'import-x/no-restricted-paths': ['error', { basePath: root, zones }],
      'import-x/no-relative-packages': 'error',
      'no-restricted-syntax': [
        'error',
        ...['ImportDeclaration', 'ExportNamedDeclaration', 'ExportAllDeclaration', 'ImportExpression'].map((node) => ({
          selector: `${node}[source.value=/^@typikon\\u002F/]:not([source.value=/^(${WAYS_IN.join('|').replaceAll('/', '\\u002F')})$/])`,
          message: 'A package is taken by its name alone: what others need stands in its index.',
        })),
        { selector: 'TSImportType', message: 'Types are imported at the top of the file.' },
      ],
    },
  },
  // What a package takes from the registry stands in its own package.json.
  ...Object.keys(PACKAGES).map((name) => ({
    files: [`packages/${name}/src/**/*.ts`],
    rules: {
      'import-x/no-extraneous-dependencies': [
        'error',
        { packageDir: [join(root, 'packages', name)], devDependencies: false, includeInternal: true, includeTypes: true },
      ],
    },
  })),
  {
    // The computation, the contract, the editor and the application run in browsers.
    files: ['packages/{core,api,editor,web}/src/**/*.ts'],
    rules: { 'import-x/no-nodejs-modules': 'error' },
  },
];
