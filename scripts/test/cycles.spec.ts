import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import ts from 'typescript';

const ROOT = join(__dirname, '../..');

/** For each file of ours, the files that it imports by a path, for values or for types. */
function importsOf(files: readonly string[]): Map<string, string[]> {
  const known = new Set(files);
  return new Map(
    files.map((file) => [
      file,
      ts
        .preProcessFile(readFileSync(file, 'utf8'), true, true)
        .importedFiles.filter(({ fileName }) => fileName.startsWith('.'))
        .flatMap(({ fileName }) => {
          const path = resolve(dirname(file), fileName);
          return [path, `${path}.ts`, join(path, 'index.ts')].find((candidate) => known.has(candidate)) ?? [];
        }),
    ]),
  );
}

/** The ways that lead from a file back to itself, one for each file that begins one; depth first (Cormen et al., section 20.3). */
function cyclesOf(graph: ReadonlyMap<string, readonly string[]>): string[][] {
  const done = new Set<string>();
  const cycles: string[][] = [];
  const walk = (file: string, way: string[]): void => {
    const before = way.indexOf(file);
    if (before !== -1) cycles.push([...way.slice(before), file]);
    if (before !== -1 || done.has(file)) return;
    for (const next of graph.get(file) ?? []) walk(next, [...way, file]);
    done.add(file);
  };
  for (const file of graph.keys()) walk(file, []);
  return cycles;
}

describe('imports between files', () => {
  it('are found in circles where there are some', () => {
    const graph = new Map([
      ['a', ['b', 'd']],
      ['b', ['c']],
      ['c', ['a']],
      ['d', []],
    ]);
    expect(cyclesOf(graph)).toEqual([['a', 'b', 'c', 'a']]);
  });

  it('never go round in a circle', () => {
    const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', 'packages', 'e2e', 'scripts', 'bench'], {
      cwd: ROOT,
      encoding: 'utf8',
    })
      .trim()
      .split('\n')
      .filter((file) => /\.(?:ts|mjs)$/.test(file))
      .map((file) => join(ROOT, file))
      .filter((file) => existsSync(file));
    expect(files.length).toBeGreaterThan(500);
    expect(cyclesOf(importsOf(files)).map((cycle) => cycle.map((file) => file.slice(ROOT.length + 1)).join(' → '))).toEqual([]);
  });
});
