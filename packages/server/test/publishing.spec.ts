import { pino } from 'pino';
import type { Hono } from 'hono';
import { DocumentFieldModel, DocumentModel } from '../src/db/document-models';
import { createSite } from '../src/standins/site';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('publishing', 22);
const NED = { 'typikon-person': 'ned-orr' };
const MAY = { 'typikon-person': 'may-carrow' };
const TOM = { 'typikon-person': 'tom-hallow' };
const ISA = { 'typikon-person': 'isa-wren' };
const ID = 'notice-016';
const KEY = 'body';

let site: Hono;
/** Says when readers see what is saved in notices. */
async function publish(publishing: string, approvers: string[]): Promise<void> {
  const { body, etag } = await ask<{ types: { id: string }[] }>('GET', '/site');
  const types = body.types.map((type) => (type.id === 'notice' ? { ...type, publishing, approvers } : type));
  expect((await ask('PUT', '/site', { ...body, types }, { ...ISA, 'if-match': etag })).status).toBe(200);
}

beforeAll(async () => {
  const sequelize = DocumentFieldModel.sequelize!;
  site = createSite({ sequelize, log: pino({ level: 'silent' }), applicationOrigins: [] });
  // Whoever writes notices has no role that approves them.
  await publish('two-steps', ['harbour-masters']);
});

interface State {
  revision: number;
  publicRevision: number | null;
  askedRevision: number | null;
  mayAsk: boolean;
  mayApprove: boolean;
  steps: { step: string; revision: number; note: string; by: string }[];
}
const stateFor = async (as: Record<string, string>, id = ID): Promise<State> =>
  (await ask<State>('GET', `/documents/${id}/publishing`, undefined, as)).body;
const move = (as: Record<string, string>, step: string, revision: number, note = '', id = ID) =>
  ask<State>('POST', `/documents/${id}/publishing`, { step, revision, note }, as);
async function write(html: string, as = NED, id = ID): Promise<number> {
  const { etag } = await ask('GET', `/documents/${id}`);
  const saved = await ask<{ revision: number }>(
    'PUT',
    `/documents/${id}`,
    { fields: { [KEY]: { value: html } } },
    { ...as, 'if-match': etag },
  );
  expect(saved.status).toBe(200);
  return saved.body.revision;
}
async function page(path: string): Promise<{ status: number; text: string; headers: Headers }> {
  const answer = await site.request(`http://127.0.0.1:4711${path}`, { headers: { host: '127.0.0.1:4711' } });
  return { status: answer.status, text: await answer.text(), headers: answer.headers };
}
const seen = async (id = ID): Promise<string> => (await page(`/documents/${id}`)).text;

test('what was there before is public as it is', async () => {
  expect(await stateFor(NED)).toMatchObject({
    revision: 1,
    publicRevision: 1,
    askedRevision: null,
    mayAsk: false,
    mayApprove: false,
    steps: [],
  });
  expect((await page(`/documents/${ID}`)).status).toBe(200);
});

test('what is saved in two steps is not seen until somebody else approves it, and meanwhile may be written on', async () => {
  const second = await write('<p>The limit is six knots, second version.</p>');
  expect(await seen()).not.toContain('second version');
  expect(await stateFor(NED)).toMatchObject({ revision: second, publicRevision: 1, mayAsk: true, mayApprove: false });
  expect((await move(NED, 'approved', second)).status).toBe(409);
  expect(await move(NED, 'asked', second)).toMatchObject({
    status: 200,
    body: { askedRevision: second, mayAsk: false, mayApprove: false },
  });
  expect((await move(NED, 'asked', second)).status).toBe(409);
  const third = await write('<p>The limit is seven knots, third version.</p>');
  expect(await stateFor(MAY)).toMatchObject({ revision: third, publicRevision: 1, askedRevision: second, mayApprove: true });
  // It is about the version that was looked at, and no other.
  expect((await move(MAY, 'approved', third)).status).toBe(412);
  expect((await move(NED, 'approved', second)).status).toBe(403);
  expect((await move(TOM, 'approved', second)).status).toBe(403);
  expect(await move(MAY, 'approved', second, 'Well said.')).toMatchObject({
    status: 200,
    body: { publicRevision: second, askedRevision: null },
  });
  const text = await seen();
  expect([text.includes('second version'), text.includes('third version')]).toEqual([true, false]);
  expect((await stateFor(NED)).steps.map(({ step, revision, by, note }) => [step, revision, by, note])).toEqual([
    ['approved', second, 'may-carrow', 'Well said.'],
    ['asked', second, 'ned-orr', ''],
  ]);
});

test('a version is sent back with a reason, or withdrawn; the reason is needed and kept', async () => {
  const { revision } = await stateFor(NED);
  await move(NED, 'asked', revision);
  expect((await move(MAY, 'sent-back', revision)).status).toBe(422);
  expect((await move(MAY, 'remarked', revision, 'The second sentence is hard.')).status).toBe(200);
  expect(await move(MAY, 'sent-back', revision, 'Too long.')).toMatchObject({ status: 200, body: { askedRevision: null } });
  expect((await move(MAY, 'approved', revision)).status).toBe(409);
  expect((await stateFor(NED)).steps[0]).toMatchObject({ step: 'sent-back', note: 'Too long.', by: 'may-carrow' });
  expect((await move(NED, 'asked', revision)).status).toBe(200);
  expect(await move(NED, 'withdrawn', revision)).toMatchObject({ status: 200, body: { askedRevision: null, mayAsk: true } });
  expect(await seen()).not.toContain('third version');
});

test('documents that wait, and those whose last version is not seen, are found and told in lists', async () => {
  const { revision } = await stateFor(NED);
  await move(NED, 'asked', revision);
  interface Listed {
    documents: { id: string; revision: number; publicRevision: number | null; askedRevision: number | null }[];
    count: number;
  }
  const found = (await ask<Listed>('GET', '/documents?public=asked')).body;
  expect(found.documents.map(({ id, askedRevision }) => [id, askedRevision])).toEqual([[ID, revision]]);
  expect((await ask<Listed>('GET', '/documents?public=not')).body.documents.map(({ id }) => id)).toEqual([ID]);
  await move(MAY, 'approved', revision);
  expect((await ask<Listed>('GET', '/documents?public=not')).body.count).toBe(0);
  expect(await seen()).toContain('third version');
});

test('a new document of such a type is seen by nobody until it is approved; one that is shown at once is seen at once', async () => {
  const made = await ask<{ id: string }>('POST', '/documents', { type: 'notice', title: 'A notice that waits' }, NED);
  const { id } = made.body;
  expect((await page(`/documents/${id}`)).status).toBe(404);
  expect((await page('/')).text).not.toContain('A notice that waits');
  const revision = await write('<p>It waits.</p>', NED, id);
  await move(NED, 'asked', revision, '', id);
  await move(MAY, 'approved', revision, '', id);
  expect((await page(`/documents/${id}`)).text).toContain('It waits.');
  expect((await page('/')).text).toContain('A notice that waits');
  const note = await ask<{ id: string }>('POST', '/documents', { type: 'ferry-note', title: 'No boat today' }, MAY);
  expect((await page(`/documents/${note.body.id}`)).status).toBe(200);
});

test('a version can be looked at by whoever has its address, until its time is over, and by nobody else', async () => {
  const revision = await write('<p>Not yet to be seen.</p>');
  const { status, body } = await ask<{ address: string; until: string }>('POST', `/documents/${ID}/previews`, { revision, hours: 2 }, NED);
  expect(status).toBe(201);
  const path = body.address;
  const shown = await page(path);
  expect(shown.status).toBe(200);
  expect(shown.text).toContain('Not yet to be seen.');
  expect(shown.text).toContain(`Version ${revision}, which readers do not see`);
  expect(shown.headers.get('cache-control')).toBe('no-store');
  expect(shown.headers.get('x-robots-tag')).toContain('noindex');
  expect(await seen()).not.toContain('Not yet to be seen.');
  const [, , id, number, until, signature] = path.split('/') as [string, string, string, string, string, string];
  for (const forged of [
    `/previews/${id}/${Number(number) - 1}/${until}/${signature}`,
    `/previews/${id}/${number}/${Number(until) + 1}/${signature}`,
    `/previews/notice-018/${number}/${until}/${signature}`,
    `/previews/${id}/${number}/${until}/${signature.slice(1)}`,
    `/previews/${id}/${number}/${until}/x`,
    `/previews/${id}/1e0/${until}/${signature}`,
  ])
    expect((await page(forged)).status).toBe(404);
  jest.spyOn(Date, 'now').mockReturnValue(Number(until) + 1);
  const over = await page(path);
  jest.restoreAllMocks();
  expect([over.status, over.text.includes('This preview has ended')]).toEqual([410, true]);
  expect((await ask('POST', `/documents/${ID}/previews`, { revision: 999 }, NED)).status).toBe(404);
});

test('what the house converts is seen where what it was made of was, and else waits with it', async () => {
  const convert = async (): Promise<void> => {
    const asked = await ask<{ id: number }>(
      'POST',
      '/profiles/notices-desk/conversions',
      { conversion: { do: 'rename-element', element: 'h2', to: 'h3' }, texts: [{ document: ID, field: KEY }] },
      ISA,
    );
    expect(asked.status).toBe(202);
    const { convertSome } = await import('../src/conversions/run');
    await convertSome(DocumentFieldModel.sequelize!, asked.body.id, 10);
  };
  const first = await write('<h2>Seen</h2><p>One.</p>');
  await move(NED, 'asked', first);
  await move(MAY, 'approved', first);
  await convert();
  expect(await stateFor(NED)).toMatchObject({ revision: first + 1, publicRevision: first + 1 });
  expect(await seen()).toContain('<h3>Seen</h3>');
  const draft = await write('<h2>Unseen</h2><p>Two.</p>');
  await convert();
  expect(await stateFor(NED)).toMatchObject({ revision: draft + 1, publicRevision: first + 1 });
  expect(await seen()).toContain('<h3>Seen</h3>');
});

test('where a type is shown at once again, the last version is shown by whoever may write it', async () => {
  await publish('at-once', []);
  const { revision, publicRevision } = await stateFor(NED);
  expect(publicRevision).toBeLessThan(revision);
  expect((await stateFor(NED)).mayApprove).toBe(true);
  expect((await move(NED, 'asked', revision)).status).toBe(409);
  expect(await move(NED, 'approved', revision)).toMatchObject({ status: 200, body: { publicRevision: revision } });
  expect((await DocumentModel.findByPk(ID))!.publicRevision).toBe(revision);
  const next = await write('<p>Seen at once.</p>');
  expect(await stateFor(NED)).toMatchObject({ revision: next, publicRevision: next });
  expect(await seen()).toContain('Seen at once.');
});

describe('what is taken from readers', () => {
  test('is seen by nobody until a version is approved again, and says why', async () => {
    await publish('two-steps', ['harbour-masters']);
    const revision = await write('<p>To be taken away.</p>');
    expect((await move(NED, 'asked', revision)).status).toBe(200);
    expect((await move(MAY, 'approved', revision)).status).toBe(200);
    expect(await stateFor(NED)).toMatchObject({ publicRevision: revision, mayHide: false });
    expect((await move(NED, 'hidden', revision, 'No.')).status).toBe(403);
    expect((await move(MAY, 'hidden', revision)).status).toBe(422);
    expect((await move(MAY, 'hidden', revision - 1, 'Wrong version')).status).toBe(412);
    const hidden = await move(MAY, 'hidden', revision, 'It names somebody.');
    expect(hidden.body).toMatchObject({ publicRevision: null, mayHide: false });
    expect(hidden.body.steps[0]).toMatchObject({ step: 'hidden', revision, note: 'It names somebody.', by: 'may-carrow' });
    expect((await page(`/documents/${ID}`)).status).toBe(404);
    expect((await page('/')).text).not.toContain(`/documents/${ID}"`);
    expect((await move(MAY, 'hidden', revision, 'Again')).status).toBe(409);
    const next = await write('<p>Without a name.</p>');
    expect((await page(`/documents/${ID}`)).status).toBe(404);
    await move(NED, 'asked', next);
    expect((await move(MAY, 'approved', next)).status).toBe(200);
    expect(await seen()).toContain('Without a name.');
  });

  test('stays away from them also where a save is shown at once, until somebody shows it', async () => {
    await publish('at-once', []);
    const first = await write('<p>Shown at once.</p>');
    expect(await seen()).toContain('Shown at once.');
    expect((await move(NED, 'hidden', first, 'Not yet.')).status).toBe(200);
    const second = await write('<p>Mended.</p>');
    expect(await stateFor(NED)).toMatchObject({ revision: second, publicRevision: null, mayApprove: true });
    expect((await page(`/documents/${ID}`)).status).toBe(404);
    expect((await move(NED, 'approved', second)).status).toBe(200);
    expect(await seen()).toContain('Mended.');
    await write('<p>And on.</p>');
    expect(await seen()).toContain('And on.');
  });
});
