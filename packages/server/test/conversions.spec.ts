import { convertSome } from '../src/conversions/run';
import { DocumentFieldModel, DocumentModel } from '../src/db/document-models';
import { conversionJobs, CONVERT } from '../src/jobs/conversions';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

interface Told {
  id: number;
  state: string;
  sentence: string;
  askedBy: string;
  texts: Record<string, number>;
}
interface Text {
  document: string;
  field: string;
  title: string | null;
  state: string;
  beforeRevision: number | null;
  afterRevision: number | null;
}

const ask = useDemoApp('conversions', 60);
const AS = { 'typikon-person': 'isa-wren' };
const PROFILE = 'notices-desk';
const RENAME = { do: 'rename-element', element: 'p', to: 'h3' };
const db = () => DocumentModel.sequelize!;
const texts = async () =>
  (await DocumentFieldModel.findAll({ where: { profileId: PROFILE }, order: ['documentId', 'fieldKey'] })).map(
    ({ documentId, fieldKey, value }) => ({ document: documentId, field: fieldKey, value }),
  );
const begin = async (conversion: object = RENAME, more: object = {}) => {
  const asked = await ask<Told>('POST', `/profiles/${PROFILE}/conversions`, { conversion, texts: null, ...more }, AS);
  expect(asked.status).toBe(202);
  return asked.body;
};
const told = async (id: number) => (await ask<Told>('GET', `/conversions/${id}`)).body;
const act = (id: number, what: string) => ask<Told>('POST', `/conversions/${id}/${what}`, undefined, AS);
const run = async (id: number) => {
  while ((await convertSome(db(), id, 7)) === 7);
};

test('is tried first: what it makes, how often, and which words the rules would not let stay; nothing is stored', async () => {
  const before = await texts();
  const some = before.filter(({ value }) => value.includes('<p>') && !value.includes('<p ')).slice(0, 2);
  const names = [...some.map(({ document, field }) => ({ document, field })), { document: 'nothing', field: 'body' }];
  const tried = await ask<{ document: string; places: number; before: string; after: string; lost: string[] }[]>(
    'POST',
    `/profiles/${PROFILE}/conversions/try`,
    { conversion: RENAME, texts: names },
    AS,
  );
  expect(tried.body.map(({ document }) => document).sort()).toEqual(some.map(({ document }) => document).sort());
  for (const { places, before: was, after, lost } of tried.body) {
    expect(places).toBeGreaterThan(0);
    expect(after).toBe(was.replaceAll('<p>', '<h3>').replaceAll('</p>', '</h3>'));
    expect(lost).toEqual([]);
  }
  const bad = await ask<{ besides: string[] }[]>(
    'POST',
    `/profiles/${PROFILE}/conversions/try`,
    { conversion: { do: 'wrap', element: 'table', to: 'fieldset' }, texts: [{ document: 'notice-016', field: 'body' }] },
    AS,
  );
  expect(bad.status).toBe(200);
  // What the rules take of what it makes is told before.
  expect(bad.body.flatMap(({ besides }) => besides)).toContain('A <fieldset> unwrapped, the words stay');
  expect(await texts()).toEqual(before);
});

test('runs over all texts of a profile as new states, and is undone to the letter in one step', async () => {
  const before = await texts();
  const asked = await begin(RENAME, { note: 'Headings' });
  expect(asked).toMatchObject({ state: 'running', sentence: '<p> becomes <h3>', askedBy: 'isa-wren', texts: { waiting: before.length } });
  await run(asked.id);
  const done = await told(asked.id);
  expect(done.state).toBe('done');
  expect(Object.values(done.texts).reduce((sum, count) => sum + count, 0)).toBe(before.length);
  expect(done.texts['done']).toBe(before.filter(({ value }) => /<p[ >]/.test(value)).length);
  expect(await texts()).not.toEqual(before);
  const { body: which } = await ask<Text[]>('GET', `/conversions/${asked.id}/texts?state=done&limit=3`);
  expect(which).toHaveLength(3);
  for (const { document, beforeRevision, afterRevision } of which) {
    expect(afterRevision).toBe(beforeRevision! + 1);
    const versions = await ask<{ how: string; savedBy: string }[]>('GET', `/documents/${document}/versions`);
    expect(versions.body[0]).toMatchObject({ how: 'converted', savedBy: 'isa-wren' });
    // Its author is still who wrote it.
    expect((await DocumentModel.findByPk(document))!.changedBy).not.toBe('isa-wren');
  }
  expect((await act(asked.id, 'undo')).body.state).toBe('undoing');
  await run(asked.id);
  expect(await told(asked.id)).toMatchObject({ state: 'undone' });
  expect(await texts()).toEqual(before);
  expect((await act(asked.id, 'undo')).status).toBe(409);
});

test('several work on it at once: each text is done once', async () => {
  const before = await texts();
  const { id } = await begin();
  await Promise.all([run(id), run(id), run(id)]);
  // The last of them may have seen texts that others had still.
  await run(id);
  const now = await told(id);
  expect(now.state).toBe('done');
  const { body: which } = await ask<Text[]>('GET', `/conversions/${id}/texts?state=done`);
  for (const { document, afterRevision } of which)
    expect((await ask<{ revision: number }>('GET', `/documents/${document}`)).body.revision).toBe(afterRevision);
  await act(id, 'undo');
  await Promise.all([run(id), run(id)]);
  await run(id);
  expect(await texts()).toEqual(before);
});

test('broken off in the middle of a text it is gone on with where it was: nothing is lost, nothing done twice', async () => {
  const before = await texts();
  const { id } = await begin();
  const query = db().query.bind(db());
  for (const statements of [9, 23, 41]) {
    let count = 0;
    const broken = jest.spyOn(db(), 'query').mockImplementation((...args: Parameters<typeof query>) => {
      if (++count > statements && /INSERT|UPDATE/.test(JSON.stringify(args[0]))) throw new Error('The process is gone.');
      return query(...args);
    });
    await expect(run(id)).rejects.toThrow('The process is gone.');
    broken.mockRestore();
  }
  expect((await told(id)).state).toBe('running');
  await run(id);
  const { body: which } = await ask<Text[]>('GET', `/conversions/${id}/texts?state=done`);
  const revisions = new Map((await DocumentModel.findAll()).map(({ id: document, revision }) => [document, revision]));
  for (const { document, afterRevision } of which) expect(revisions.get(document)).toBe(afterRevision);
  await act(id, 'undo');
  await run(id);
  expect(await texts()).toEqual(before);
});

test('is stopped between two texts and gone on with; what somebody changes meanwhile is not undone', async () => {
  const { id } = await begin();
  expect(await convertSome(db(), id, 2)).toBe(2);
  expect((await act(id, 'stop')).body.state).toBe('stopped');
  expect(await convertSome(db(), id, 5)).toBe(0);
  expect((await act(id, 'stop')).status).toBe(409);
  expect((await act(id, 'go-on')).body.state).toBe('running');
  await run(id);
  const { body: which } = await ask<Text[]>('GET', `/conversions/${id}/texts?state=done`);
  const [first] = which;
  const { body: document } = await ask<{ revision: number }>('GET', `/documents/${first!.document}`);
  const changed = { fields: { [first!.field]: { value: '<p>Somebody wrote this since</p>' } } };
  expect((await ask('PUT', `/documents/${first!.document}`, changed, { ...AS, 'if-match': `"${document.revision}"` })).status).toBe(200);
  await act(id, 'undo');
  await run(id);
  expect((await told(id)).texts).toMatchObject({ kept: 1, undone: which.length - 1 });
  const text = await DocumentFieldModel.findOne({ where: { documentId: first!.document, fieldKey: first!.field } });
  expect(text?.value).toBe('<p>Somebody wrote this since</p>');
});

test('texts that are not there, or of another profile, are told and left', async () => {
  const { id } = await begin(RENAME, {
    texts: [
      { document: 'nothing', field: 'body' },
      { document: 'old-tansy-back', field: 'body' },
    ],
  });
  await run(id);
  expect(await told(id)).toMatchObject({ state: 'done', texts: { gone: 2 } });
});

test('what cannot be is refused with the reason', async () => {
  const post = (profile: string, conversion: object, names: unknown = null) =>
    ask('POST', `/profiles/${profile}/conversions`, { conversion, texts: names }, AS);
  expect((await post('nobody', RENAME)).status).toBe(404);
  expect((await post(PROFILE, RENAME, [])).status).toBe(422);
  const bad = await post(PROFILE, { do: 'rename-element', element: 'p', to: 'script' });
  expect([bad.status, bad.body.detail]).toEqual([422, expect.stringMatching(/must be an element that can hold content/)]);
  expect((await ask('GET', '/conversions/4711')).status).toBe(404);
  const clerk = { 'typikon-person': 'una-pell' };
  expect((await ask('POST', `/profiles/${PROFILE}/conversions`, { conversion: RENAME, texts: null }, clerk)).status).toBe(403);
});

test('the job goes on until nothing is left, or it is to be left', async () => {
  const ended = jest.fn();
  const left = [20, 20, 3];
  const lane = { run: jest.fn(() => Promise.resolve(left.shift() ?? 0)) };
  const jobs = conversionJobs(lane as never, ended);
  await jobs[CONVERT]!('5', () => Promise.resolve(true));
  expect(lane.run.mock.calls).toEqual([
    ['convertSome', { id: 5, most: 20 }],
    ['convertSome', { id: 5, most: 20 }],
    ['convertSome', { id: 5, most: 20 }],
  ]);
  left.push(20, 20);
  await jobs[CONVERT]!('5', () => Promise.resolve(false));
  expect(left).toEqual([20]);
  expect(ended).toHaveBeenCalledTimes(2);
});
