import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { BUTTONS, CHECKS, PASS_IDS, SITE_CHECKS } from '../src/index';
import { buttonsPage, checksPage, passesPage } from './lists-page';

const DOCS = join(__dirname, '..', '..', '..', 'docs');

describe('a page of all there is of a kind', () => {
  test.each([
    ['passes.md', passesPage, PASS_IDS],
    ['checks.md', checksPage, [...CHECKS, ...SITE_CHECKS].map(({ id }) => id)],
    ['buttons.md', buttonsPage, BUTTONS.map(({ id }) => id)],
  ] as const)('docs/%s is that of the code (npm run docs writes it) and holds each once', (file, page, ids) => {
    const written = readFileSync(join(DOCS, file), 'utf8');
    expect(written).toBe(page());
    for (const id of ids)
      expect(
        written.split('\n').filter((line) => (file === 'passes.md' ? line.endsWith(`(\`${id}\`)`) : line.startsWith(`| \`${id}\` |`))),
      ).toHaveLength(1);
  });
  test('each says what it is for, in other words than the next', () => {
    const said = [...CHECKS.map(({ purpose }) => purpose), ...BUTTONS.map(({ effect }) => effect)];
    expect(said.filter((words) => words.trim().length < 10)).toEqual([]);
    expect(new Set(said).size).toBe(said.length);
  });
});
