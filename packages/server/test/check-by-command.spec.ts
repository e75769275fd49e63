import type * as files from 'node:fs';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  checkProfile,
  checkSite,
  compileRules,
  kindsShowing,
  pagesOfHelp,
  readHouseLimits,
  resolveProfile,
  surroundingsOf,
  type ComparedSide,
  type HouseLimits,
  type JsonObject,
  type PageKind,
  type Sheet,
  type Site,
  type StoredContent,
  type Stylesheet,
} from '@typikon/core';
import { call } from '../../cli/src/call';
import { DocumentFieldModel, DocumentModel } from '../src/db/document-models';
import { useDemoApp } from './demo-app';

/*
 * What the application finds in the profiles and in the site, from what the server answers, is what `typikon check` finds in
 * the same as files.
 */

jest.setTimeout(180_000);

const folder = mkdtempSync(join(tmpdir(), 'typikon-check-'));

const ask = useDemoApp('check_by_command', 40);
const get = async <T>(path: string): Promise<T> => (await ask<T>('GET', path)).body;

afterAll(() => rmSync(folder, { recursive: true, force: true }));

const write = (path: string, value: unknown): void => {
  mkdirSync(join(folder, path, '..'), { recursive: true });
  writeFileSync(join(folder, path), typeof value === 'string' ? value : JSON.stringify(value));
};

interface Answers {
  profiles: { id: string; document: JsonObject }[];
  house: HouseLimits;
  site: Site;
  pageKinds: PageKind[];
  stylesheets: Stylesheet[];
  census: Omit<StoredContent, 'classes'> & { classesByProfile: Record<string, Record<string, number>> };
  counts: { type: string; field: string; profileId: string; pageKindId: string; count: number; taken: Record<string, number> }[];
}

async function answers(): Promise<Answers> {
  const [profiles, house, site, files, census, counts] = await Promise.all([
    get<Answers['profiles']>('/profiles'),
    get<JsonObject>('/house-limits'),
    get<Site>('/site'),
    get<{ stylesheets: Stylesheet[]; pageKinds: (PageKind & { revision: number })[] }>('/style-files'),
    get<Answers['census']>('/texts/census'),
    get<Answers['counts']>('/texts/counts'),
  ]);
  const pageKinds = files.pageKinds.map(({ revision: _revision, ...kind }): PageKind => kind);
  const limits = readHouseLimits(house);
  if (!limits.ok) throw new Error(JSON.stringify(limits.problems));
  return { profiles, house: limits.house, site, pageKinds, stylesheets: files.stylesheets, census, counts };
}

/** Everything that the answers hold, as files, and the stored texts beside them. */
async function writeAll({ profiles, house, site, pageKinds, stylesheets }: Answers): Promise<void> {
  for (const { id, document } of profiles) write(`profiles/${id}.json`, document);
  write('house.json', house);
  write('site.json', site);
  write('page-kinds.json', pageKinds);
  for (const { id, css } of stylesheets) write(`stylesheets/${id}.css`, css);
  write(
    'stylesheets.json',
    stylesheets.map(({ id, purpose, media }) => ({ id, purpose, media })),
  );
  const fields = await DocumentFieldModel.findAll({ include: [{ model: DocumentModel, as: 'document' }] });
  const list = fields.flatMap(({ documentId, fieldKey, profileId, pageKindId, value, taken, document }) => {
    if (profileId === null) return [];
    const file = `${documentId}.${fieldKey}.html`;
    write(`stored/${file}`, value);
    const names = taken === '' ? [] : taken.split(',');
    return [{ file, profile: profileId, pageKind: pageKindId, id: documentId, type: document!.typeId, field: fieldKey, taken: names }];
  });
  expect(list.length).toBeGreaterThan(60);
  write('stored.json', list);
}

/** What the command line writes. */
function byCommand(profile: string): unknown[] {
  const written: Buffer[] = [];
  const spy = jest.spyOn(jest.requireActual<typeof files>('node:fs'), 'writeSync').mockImplementation(((
    _to: number,
    bytes: Buffer,
    from: number,
  ) => {
    written.push(Buffer.from(bytes.subarray(from)));
    return bytes.length - from;
  }) as never);
  try {
    const at = (path: string): string => join(folder, path);
    const around = [
      '--house',
      at('house.json'),
      '--page-kinds',
      at('page-kinds.json'),
      '--stored',
      at('stored.json'),
      '--site',
      at('site.json'),
    ];
    const { failure } = call(['check', '--profile', at(`profiles/${profile}.json`), ...around, '--json']);
    expect(failure).toBe('');
  } finally {
    spy.mockRestore();
  }
  return JSON.parse(Buffer.concat(written).toString('utf8')) as unknown[];
}

test('each profile and the site have the findings that the application lists', async () => {
  const all = await answers();
  await writeAll(all);
  const { profiles, house, site, pageKinds, stylesheets, census, counts } = all;
  const documents = new Map(profiles.map(({ id, document }) => [id, document]));
  const sides = new Map<string, ComparedSide>();
  const resolvedOf = (id: string) => {
    const resolution = resolveProfile(id, (other) => documents.get(other));
    if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
    return resolution.resolved;
  };
  for (const id of documents.keys()) {
    const resolved = resolvedOf(id);
    sides.set(id, { profile: resolved.profile, rules: compileRules(resolved, { house }), name: resolved.profile.name });
  }
  const there = new Set(['/', ...(await DocumentModel.findAll({ attributes: ['id'] })).map(({ id }) => `/documents/${id}`)]);
  const ofSite = checkSite({
    site,
    profiles: sides,
    house,
    pageKinds: new Map(pageKinds.map((kind) => [kind.id, kind])),
    texts: counts.map(({ type, field, profileId, count, taken }) => ({ type, field, profile: profileId, count, taken })),
    pages: new Set(pagesOfHelp(site).filter((path) => there.has(path))),
  });
  expect(ofSite.length).toBeGreaterThan(5);
  let found = 0;
  for (const id of documents.keys()) {
    const resolved = resolvedOf(id);
    const used = new Set(counts.filter(({ profileId }) => profileId === id).map(({ pageKindId }) => pageKindId));
    const publishedOn = kindsShowing(pageKinds, used, resolved.profile.surface.pageKind).map((kind) => ({
      kind,
      sheets: kind.stylesheets.map((name): Sheet => {
        const { css, media } = stylesheets.find((sheet) => sheet.id === name)!;
        return { name: `${name}.css`, css, media };
      }),
    }));
    const ofProfile = checkProfile({
      resolved,
      rules: sides.get(id)!.rules,
      ...surroundingsOf(house, publishedOn, { ...census, classes: census.classesByProfile[id] ?? {} }),
    });
    found += ofProfile.length;
    expect([id, byCommand(id)]).toEqual([id, JSON.parse(JSON.stringify([...ofProfile, ...ofSite]))]);
  }
  expect(found).toBeGreaterThan(1);
});
