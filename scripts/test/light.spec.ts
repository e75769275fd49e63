import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';

const ROOT = join(__dirname, '../..');
/** What reads markup, styles, patterns or Markdown, and what schemas are made of. */
const READERS = ['parse5', 'css-tree', 're2js', 'markdown-it'];

const WEB = join(ROOT, 'packages/web/src');
const texts = new Map(
  readdirSync(WEB, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(ts|html)$/.test(name))
    .map((name) => [`packages/web/src/${name}`, readFileSync(join(WEB, name), 'utf8')]),
);
/** Parts that templates draw later: their files are imported as others are, and the compiler makes that a later import. */
const LATER = new Set([...texts.values()].flatMap((text) => [...text.matchAll(/@defer\b[^{]*\{\s*<([a-z-]+)/g)].map(([, name]) => name!)));
const isDrawnLater = (file: string): boolean => LATER.has(/selector: '([a-z-]+)'/.exec(texts.get(file) ?? '')?.[1] ?? '');

/** The packages that some files bring along at once; what they load later does not count. */
async function broughtBy(...entries: string[]): Promise<Set<string>> {
  const { metafile } = await build({
    absWorkingDir: ROOT,
    entryPoints: entries,
    outdir: 'nowhere',
    bundle: true,
    splitting: true,
    write: false,
    metafile: true,
    format: 'esm',
    platform: 'browser',
    logLevel: 'error',
    external: ['@angular/*', '@ngrx/*', '@codemirror/*', 'echarts', 'ngx-echarts', 'mammoth', 'read-excel-file', 'postal-mime'],
  });
  const found = new Set<string>();
  const seen = new Set<string>();
  const open = [...entries];
  for (let file = open.pop(); file !== undefined; file = open.pop()) {
    if (seen.has(file) || (isDrawnLater(file) && !entries.includes(file))) continue;
    seen.add(file);
    const name = /node_modules\/((?:@[^/]+\/)?[^/]+)/.exec(file)?.[1];
    if (name !== undefined) found.add(name);
    for (const { path, kind, external } of metafile.inputs[file]?.imports ?? [])
      if (kind === 'import-statement' && external !== true) open.push(path);
  }
  return found;
}

describe('what comes along at once', () => {
  it('is found where it is much', async () => {
    const brought = await broughtBy('packages/web/src/state/rules.ts');
    expect([...READERS, 'zod'].filter((name) => !brought.has(name))).toEqual([]);
  });

  it.each([
    ['the first view', ['packages/web/src/main.ts'], [...READERS, 'zod']],
    ['the workshop', ['packages/web/src/workshop.routes.ts', 'packages/web/src/features/workshop/markup-chapter.ts'], READERS],
    ['the author’s editor', ['packages/editor/src/bundle.ts'], ['re2js', 'markdown-it']],
  ])('%s does without what it does not need at first', async (_name, entries, without) => {
    const brought = await broughtBy(...entries);
    expect(without.filter((name) => brought.has(name))).toEqual([]);
  });
});
