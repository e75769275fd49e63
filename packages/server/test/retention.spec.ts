import type { ContentType } from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DocumentFieldModel, DocumentVersionModel } from '../src/db/document-models';
import { JobModel } from '../src/db/models';
import { loadDocument, storeDocument } from '../src/documents/repository';
import { versionAt } from '../src/documents/versions';
import { versionJobs } from '../src/jobs/old-versions';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('retention', 22);
const ISA = { 'typikon-person': 'isa-wren' };
const ID = 'notice-016';
const OTHER = 'notice-018';
const database = (): Sequelize => DocumentFieldModel.sequelize!;

async function write(id: string, html: string): Promise<number> {
  const { etag } = await ask('GET', `/documents/${id}`);
  const saved = await ask<{ revision: number }>(
    'PUT',
    `/documents/${id}`,
    { fields: { body: { value: html } } },
    { ...ISA, 'if-match': etag },
  );
  expect(saved.status).toBe(200);
  return saved.body.revision;
}
async function settle(type: object): Promise<void> {
  const { body, etag } = await ask<{ types: { id: string }[] }>('GET', '/site');
  const types = body.types.map((one) => (one.id === 'notice' ? { ...one, ...type } : one));
  expect((await ask('PUT', '/site', { ...body, types }, { ...ISA, 'if-match': etag })).status).toBe(200);
}
const run = (): Promise<void> => versionJobs(database())['old-versions']!('all', () => Promise.resolve(true));
const kept = async (id: string): Promise<number[]> =>
  (await DocumentVersionModel.findAll({ where: { documentId: id }, order: ['revision'], raw: true })).map(({ revision }) => revision);
const toGo = async (query: string): Promise<{ versions: number; documents: number }> =>
  (await ask<{ versions: number; documents: number }>('GET', `/types/notice/outdated-versions?${query}`)).body;
const contents = async (): Promise<number> =>
  Number((await database().query<{ n: number }>('SELECT COUNT(*) AS n FROM contents', { type: QueryTypes.SELECT }))[0]!.n);
const orphans = async (): Promise<number> =>
  Number(
    (
      await database().query<{ n: number }>(
        'SELECT COUNT(*) AS n FROM contents AS c WHERE NOT EXISTS (SELECT 1 FROM version_fields AS f WHERE f.hash = c.hash)',
        { type: QueryTypes.SELECT },
      )
    )[0]!.n,
  );

beforeAll(async () => {
  // A document of the demo has a past of its own.
  await DocumentVersionModel.destroy({ where: { documentId: 'notice-015' } });
  await database().query('DELETE FROM contents WHERE NOT EXISTS (SELECT 1 FROM version_fields AS f WHERE f.hash = contents.hash)');
  for (let at = 1; at <= 5; at++) await write(ID, `<p>Notice, ${at} of five.</p>`);
  // Another document has what one of the first had.
  await write(OTHER, '<p>Notice, 2 of five.</p>');
});

test('all are kept as long as nothing else is said', async () => {
  expect(await kept(ID)).toEqual([1, 2, 3, 4, 5, 6]);
  expect(await toGo('')).toEqual({ versions: 0, documents: 0 });
  await run();
  expect(await kept(ID)).toEqual([1, 2, 3, 4, 5, 6]);
});

test('what a limit would delete is counted before, and nothing that readers saw unless that is said', async () => {
  expect(await toGo('last=2')).toEqual({ versions: 0, documents: 0 });
  expect(await toGo('last=2&public=false')).toEqual({ versions: 4, documents: 1 });
  expect(await toGo('last=1&public=false')).toEqual({ versions: 6, documents: 2 });
  // The first of both is as old as the demo.
  expect(await toGo('days=1&public=false')).toEqual({ versions: 2, documents: 2 });
  await database().query('UPDATE document_versions SET saved_at = saved_at - INTERVAL 10 DAY WHERE document_id = ? AND revision < 4', {
    replacements: [ID],
  });
  expect(await toGo('days=5&public=false')).toEqual({ versions: 4, documents: 2 });
  expect(await toGo('days=5&last=4&public=false')).toEqual({ versions: 2, documents: 1 });
  expect((await ask('GET', '/types/notice/outdated-versions?last=0')).status).toBe(422);
});

test('saving the limit has them deleted in the background; what another version has stays', async () => {
  const before = await contents();
  await settle({ versions: { last: 2, public: false } });
  expect(await JobModel.count({ where: { kind: 'old-versions' } })).toBe(1);
  await run();
  expect(await kept(ID)).toEqual([5, 6]);
  expect(await kept(OTHER)).toEqual([1, 2]);
  expect(await orphans()).toBe(0);
  // Those of the first four are gone but for what the other document has.
  expect(await contents()).toBe(before - 3);
  const other = (await versionAt(database(), OTHER, 2))!;
  expect(other.fields.find(({ key }) => key === 'body')!.value).toBe('<p>Notice, 2 of five.</p>');
  expect((await ask('GET', `/documents/${ID}/versions/2`)).status).toBe(404);
  expect((await ask<{ revision: number }[]>('GET', `/documents/${ID}/versions`)).body.map(({ revision }) => revision)).toEqual([6, 5]);
});

test('what readers see, what waits and what a conversion can be put back to stays however old it is', async () => {
  await settle({ versions: { last: 1, public: false }, publishing: 'two-steps', approvers: [] });
  const asked = await write(ID, '<h2>Waits</h2>');
  await ask('POST', `/documents/${ID}/publishing`, { step: 'asked', revision: asked, note: '' }, ISA);
  await write(ID, '<h2>Later</h2>');
  const conversion = await ask<{ id: number }>(
    'POST',
    '/profiles/notices-desk/conversions',
    { conversion: { do: 'rename-element', element: 'h2', to: 'h3' }, texts: [{ document: ID, field: 'body' }] },
    ISA,
  );
  const { convertSome } = await import('../src/conversions/run');
  await convertSome(database(), conversion.body.id, 10);
  const last = await write(ID, '<p>Last.</p>');
  await run();
  // 6 is what readers see, 7 waits, 8 is what the conversion began from, 10 is the last.
  expect([asked, last]).toEqual([7, 10]);
  expect(await kept(ID)).toEqual([6, 7, 8, 10]);
  await settle({ versions: { last: 1, public: true } });
  await run();
  expect(await kept(ID)).toEqual([6, 7, 8, 10]);
});

test('what is deleted waits for whoever is about to store the same', async () => {
  await settle({ versions: { last: 1, public: false }, publishing: 'at-once' });
  const html = '<p>About to be stored</p>';
  await write(ID, html);
  await write(ID, '<p>Not that</p>');
  const other = (await loadDocument(OTHER))!;
  const { body } = await ask<{ types: ContentType[] }>('GET', '/site');
  const type = body.types.find(({ id }) => id === 'notice')!;
  const fields = other.fields.map((field) => (field.key === 'body' ? { ...field, value: html, revision: field.revision + 1 } : field));
  let deleting: Promise<void> = Promise.resolve();
  await database().transaction(async (transaction) => {
    await storeDocument({ ...other, fields, revision: other.revision + 1 }, other, type, { how: 'written' }, transaction);
    deleting = run();
    // It comes to the contents, and no further.
    await new Promise((done) => setTimeout(done, 500));
  });
  await deleting;
  const version = (await versionAt(database(), OTHER, other.revision + 1))!;
  expect(version.fields.find(({ key }) => key === 'body')?.value).toBe(html);
  expect(await orphans()).toBe(0);
});

test('a version that is stored while what it holds is deleted elsewhere has it all the same', async () => {
  await settle({ versions: { last: 1, public: false }, publishing: 'at-once' });
  for (let round = 0; round < 6; round++) {
    const html = `<p>Round ${round}</p>`;
    await write(ID, html);
    await write(ID, '<p>Between</p>');
    // One deletes the only version with it while another document gets the same.
    const [, revision] = await Promise.all([run(), write(OTHER, html)]);
    const version = (await versionAt(database(), OTHER, revision))!;
    expect(version.fields.find(({ key }) => key === 'body')?.value).toBe(html);
  }
  await run();
  expect(await orphans()).toBe(0);
});
