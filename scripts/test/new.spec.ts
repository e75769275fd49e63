import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { camelOf, KINDS, planOf } from '../lib/new.mjs';

const ROOT = join(__dirname, '../..');
const read = (path: string): string | null => (existsSync(join(ROOT, path)) ? readFileSync(join(ROOT, path), 'utf8') : null);
const plan = (kind: string, name: string): Map<string, string> => planOf(kind, name, read) as Map<string, string>;

/** A name that nothing of ours has. */
const NAMES: Readonly<Record<string, string>> = { setting: 'surface.tideLinePx' };
const kinds = Object.keys(KINDS).map((kind) => [kind, NAMES[kind] ?? 'tide-line'] as const);

describe.each(kinds)('a new %s, %s', (kind, name) => {
  const texts = plan(kind, name);

  test('is made of files that can be read as TypeScript', () => {
    for (const [path, text] of texts) {
      const { diagnostics } = ts.transpileModule(text, {
        fileName: path,
        reportDiagnostics: true,
        compilerOptions: { target: ts.ScriptTarget.ES2023 },
      });
      expect([path, diagnostics?.map(({ messageText }) => messageText)]).toEqual([path, []]);
    }
  });

  test('has a test to start from, and takes nothing away from what is there', () => {
    const added = [...texts.keys()].filter((path) => read(path) === null);
    expect(added.filter((path) => path.endsWith('.spec.ts'))).toHaveLength(1);
    for (const [path, text] of texts) {
      const was = read(path)?.split('\n') ?? [];
      const now = text.split('\n');
      // What was there is what is there, with lines between.
      let at = 0;
      for (const line of now) if (line === was[at]) at++;
      expect([path, at]).toEqual([path, was.length]);
    }
  });

  test('is refused where it is there already', () => {
    const taken = [...texts.keys()].find((path) => read(path) === null)!;
    expect(() => planOf(kind, name, (path: string) => (path === taken ? '' : read(path)))).toThrow(`${taken} is there already.`);
  });
});

test.each([
  ['pas', 'tide-line', /no kind "pas".*pass, check/],
  ['check', 'Tide Line', /"Tide Line" cannot be the name/],
  ['check', '../tide', /cannot be the name/],
  ['setting', 'tideLine', /"surface\.rulerPx"/],
])('%s %s is refused with what it should be', (kind, name, message) => expect(() => plan(kind, name)).toThrow(message));

test('a name in words becomes one in code', () => expect(camelOf('tide-line-2')).toBe('tideLine2'));
