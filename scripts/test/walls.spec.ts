import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

/** Plants code in files that do not exist and gives, for each, the rules that complain. ESLint reads ES modules, so it has a process of its own. */
function complaintsAbout(planted: readonly (readonly [place: string, code: string])[]): string[][] {
  const run = spawnSync(process.execPath, [join(__dirname, 'plant.mjs')], {
    input: JSON.stringify(planted),
    encoding: 'utf8',
    maxBuffer: 1e8,
  });
  if (run.status !== 0) throw new Error(run.stderr);
  return JSON.parse(run.stdout) as string[][];
}

const WALLS = [
  'import-x/no-restricted-paths',
  'import-x/no-relative-packages',
  'import-x/no-extraneous-dependencies',
  'import-x/no-nodejs-modules',
  'no-restricted-syntax',
];

/** The ways to write an import. */
const WAYS: readonly [string, (from: string) => string][] = [
  ['for values', (from) => `import { x } from '${from}';\nexport const y = x;`],
  ['for types alone', (from) => `import type { X } from '${from}';\nexport type Y = X;`],
  ['when it runs', (from) => `export const y = import('${from}');`],
  ['to hand it on', (from) => `export * from '${from}';`],
];

/** File, and what it must not import. */
const FORBIDDEN: readonly [string, readonly string[]][] = [
  [
    'packages/core/src/html/planted.ts',
    ['@typikon/api', '@typikon/editor', '@angular/core', '@ngrx/store', 'rxjs', 'hono', 'sequelize', 'prosemirror-model', 'node:fs', 'fs'],
  ],
  ['packages/core/src/html/planted.ts', ['../../../api/src/index', '../css/cascade', '../checks/above-house', '../../../server/src/app']],
  ['packages/core/src/css/planted.ts', ['../ledger/entry', '../markup/clean']],
  ['packages/core/src/markup/planted.ts', ['../paste/run', '../site/can-do', '../likeness/compare']],
  ['packages/core/src/site/planted.ts', ['../checks/above-house']],
  [
    'packages/api/src/planted.ts',
    ['@typikon/editor', '@typikon/core/src/html/parse', '../../core/src/index', '../../core/src/html/parse', 'sequelize', '@angular/core'],
  ],
  [
    'packages/editor/src/planted.ts',
    [
      '@typikon/api',
      '@typikon/core/src/html/parse',
      '../../core/src/html/parse',
      '../../web/src/app',
      '@angular/core',
      'rxjs',
      'zod',
      'node:path',
    ],
  ],
  [
    'packages/server/src/planted.ts',
    [
      '@typikon/editor',
      '@typikon/core/src/html/parse',
      '../../core/src/html/parse',
      '../../web/src/app',
      '@angular/core',
      'prosemirror-model',
    ],
  ],
  [
    'packages/cli/src/planted.ts',
    ['@typikon/api', '@typikon/editor', '../../server/src/app', '../../core/src/html/parse', 'sequelize', 'hono'],
  ],
  [
    'packages/web/src/features/bench/planted.ts',
    [
      '../workshop/workshop',
      '../../features/paste/paste-chapter',
      '@typikon/core/src/html/parse',
      '../../../../core/src/index',
      '../../../../server/src/app',
      '@typikon/api/src/index',
      '@typikon/editor/src/element',
      'sequelize',
      'hono',
      'node:fs',
    ],
  ],
  ['packages/web/src/shared/page/planted.ts', ['../../features/bench/bench']],
  ['packages/web/src/state/planted.ts', ['../features/bench/bench', '../shared/profile/edit']],
  ['packages/web/src/ui/planted.ts', ['../state/api', '../shared/profile/edit', '../features/bench/bench']],
];

const ALLOWED: readonly [string, readonly string[]][] = [
  ['packages/core/src/markup/planted.ts', ['../html/parse', '../css/cascade', 'parse5', 'zod']],
  ['packages/api/src/planted.ts', ['@typikon/core', '@hono/zod-openapi']],
  ['packages/editor/src/planted.ts', ['@typikon/core', 'prosemirror-model']],
  ['packages/server/src/planted.ts', ['@typikon/core', '@typikon/api', 'sequelize', 'hono', 'node:fs']],
  ['packages/cli/src/planted.ts', ['@typikon/core', 'node:fs']],
  [
    'packages/web/src/features/bench/planted.ts',
    [
      './bench',
      '../../shared/profile/edit',
      '../../state/api',
      '../../ui/icon',
      '@typikon/core',
      '@typikon/core/light',
      '@typikon/core/settings',
      '@angular/core',
    ],
  ],
  ['packages/web/src/shared/page/planted.ts', ['../../state/api', '../../ui/icon', '../profile/edit']],
  ['packages/web/src/state/planted.ts', ['../ui/icon', '@typikon/api']],
];

const pairs = (list: typeof FORBIDDEN) => list.flatMap(([place, imports]) => imports.map((from) => [place, from] as const));
const planted = (list: typeof FORBIDDEN) =>
  pairs(list).flatMap(([place, from]) => WAYS.map(([way, written]) => ({ place, from, way, code: written(from) })));

/** What is planted, in one go: ESLint takes longer to start than to read. */
const refused = planted(FORBIDDEN);
const allowed = planted(ALLOWED);
const inPlace = [{ place: 'packages/web/src/ui/planted.ts', code: "export type Y = import('./icon').Icon;" }];
let complaints: string[][];
beforeAll(() => {
  complaints = complaintsAbout([...refused, ...allowed, ...inPlace].map(({ place, code }) => [place, code]));
});

describe('the walls', () => {
  it('refuse every forbidden import, however it is written', () => {
    const passed = refused.filter((_, n) => !complaints[n]!.some((rule) => WALLS.includes(rule)));
    expect(passed.map(({ place, from, way }) => `${place} may take ${from} ${way}`)).toEqual([]);
    expect(refused.length).toBeGreaterThan(200);
  });

  it('let through what stands below', () => {
    const answers = complaints.slice(refused.length);
    expect(
      allowed.flatMap(({ place, from, way }, n) => answers[n]!.map((rule) => `${place} may not take ${from} ${way}: ${rule}`)),
    ).toEqual([]);
  });

  it('refuse a type that is imported where it stands', () => {
    expect(complaints[refused.length + allowed.length]).toContain('no-restricted-syntax');
  });
});
