import {
  comparePasses,
  compareRules,
  compileRules,
  holdingOf,
  readHouseLimits,
  resolveProfile,
  type ComparedSide,
  type JsonObject,
} from '@typikon/core';
import { DocumentFieldModel, DocumentModel } from '../src/db/document-models';
import { ProfileModel, SettingModel } from '../src/db/models';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('comparison', 60);
const get = <Body>(path: string) => ask<Body>('GET', path);

interface Counts {
  lines: { subject: object; kept: string; documents: number | null }[];
  counted: number;
  documents: number;
}

/** All pages of a count, added up. */
async function counted(query: string): Promise<{ lines: Counts['lines']; pages: number }> {
  let pages = 0;
  const sum = new Map<string, Counts['lines'][number]>();
  for (let path: string | undefined = `/comparison?${query}`; path !== undefined; pages++) {
    const { body, next }: { body: Counts; next: string | undefined } = await get<Counts>(path);
    for (const line of body.lines) {
      const key = JSON.stringify([line.subject, line.kept]);
      const before = sum.get(key)?.documents ?? 0;
      sum.set(key, { ...line, documents: line.documents === null ? null : before + line.documents });
    }
    path = next;
  }
  return { lines: [...sum.values()], pages };
}

async function sides(...ids: string[]): Promise<ComparedSide[]> {
  const stored = new Map((await ProfileModel.findAll()).map(({ id, document }) => [id, document]));
  const read = readHouseLimits((await SettingModel.findByPk('house-limits'))!.value);
  const house = read.ok ? read.house : undefined;
  return ids.map((id) => {
    const resolution = resolveProfile(id, (other) => stored.get(other));
    if (!resolution.ok) throw new Error(id);
    return {
      profile: resolution.resolved.profile,
      rules: compileRules(resolution.resolved, house && { house }),
      name: resolution.resolved.profile.name,
    };
  });
}

test('page by page, what is counted is what is there', async () => {
  const { lines, pages } = await counted('from=story-desk&to=notices-desk&limit=25');
  const documents = await DocumentModel.findAll({ include: { model: DocumentFieldModel, as: 'fields' } });
  expect(pages).toBe(Math.ceil(documents.length / 25));
  const [from, to] = (await sides('story-desk', 'notices-desk')) as [ComparedSide, ComparedSide];
  const read = readHouseLimits((await SettingModel.findByPk('house-limits'))!.value);
  const expected = [...compareRules(from, to, read.ok ? read.house : undefined), ...comparePasses(from, to)];
  expect(lines.map(({ subject, kept }) => ({ subject, kept }))).toEqual(expected.map(({ subject, kept }) => ({ subject, kept })));
  const holds = holdingOf(expected, from, to);
  const held = documents.map((document) => document.fields!.filter(({ profileId }) => profileId !== null).map(({ value }) => holds(value)));
  lines.forEach(({ documents: count }, at) =>
    expect(count).toBe(
      expected[at]!.subject.kind === 'pass' ? null : held.filter((texts) => texts.some((text) => text[at] === true)).length,
    ),
  );
  expect(lines.some(({ documents: count }) => count !== null && count > 0)).toBe(true);
});

test('a profile compared with itself has nothing to count, and all documents are looked at', async () => {
  const { body, next } = await get<Counts>('/comparison?from=diary&to=diary');
  expect(body).toEqual({ lines: [], counted: 80, documents: 80 });
  expect(next).toBeUndefined();
});

test.each([
  ['from=nobody&to=diary', 404, 'There is no profile "nobody".'],
  ['from=diary&to=diary&toRevision=99', 404, 'There is no profile "diary" as of revision 99.'],
  ['from=diary', 422, ''],
  ['from=diary&to=diary&fromRevision=0', 422, ''],
])('%s: %i', async (query, status, detail) => {
  const answer = await get<Counts>(`/comparison?${query}`);
  expect(answer.status).toBe(status);
  expect(answer.body.detail).toContain(detail);
});

describe('what a profile was', () => {
  test('is listed, read, and compared with what it is', async () => {
    const { body: profile, etag } = await get<{ document: JsonObject }>('/profiles/diary');
    const changed = structuredClone(profile.document) as JsonObject & { markup: JsonObject & { elements: JsonObject } };
    changed.markup = { ...changed.markup, elements: { ...changed.markup.elements, a: { outcome: 'unwrap' } } };
    const saved = await ask('PUT', '/profiles/diary/draft', changed, { 'if-match': etag });
    expect(saved.status).toBe(200);
    const { body: revisions } = await get<{ revision: number; savedAt: string }[]>('/profiles/diary/revisions');
    expect(revisions.map(({ revision }) => revision)).toEqual([2, 1]);
    expect(Date.parse(revisions[0]!.savedAt)).toBeGreaterThanOrEqual(Date.parse(revisions[1]!.savedAt));
    const first = await get<{ document: JsonObject }>('/profiles/diary/revisions/1');
    expect(first.body.document).toEqual(profile.document);
    const { lines } = await counted('from=diary&fromRevision=1&to=diary');
    expect(lines.map(({ subject, kept }) => [subject, kept])).toContainEqual([{ kind: 'element', element: 'a' }, 'from']);
    const texts = await DocumentFieldModel.findAll({ attributes: ['documentId', 'value', 'profileId'] });
    const links = new Set(
      texts.filter(({ value, profileId }) => profileId !== null && /<a[\s>]/.test(value)).map(({ documentId }) => documentId),
    );
    expect(lines.find(({ subject }) => 'element' in subject && subject.element === 'a')?.documents).toBe(links.size);
  });

  test('is in pages, the latest first', async () => {
    const page = await get<{ revision: number }[]>('/profiles/diary/revisions?limit=1');
    expect(page.body.map(({ revision }) => revision)).toEqual([2]);
    expect((await get<{ revision: number }[]>(page.next!)).body.map(({ revision }) => revision)).toEqual([1]);
  });

  test.each(['/profiles/nobody/revisions', '/profiles/nobody/revisions/1', '/profiles/diary/revisions/99'])(
    '%s is not there',
    async (path) => {
      expect((await get(path)).status).toBe(404);
    },
  );
});
