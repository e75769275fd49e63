import { DocumentFieldModel } from '../src/db/document-models';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

interface Question {
  id: number;
  document: string;
  field: string;
  person: string;
  note: string;
  before: string;
  after: string;
  edition: number;
  revision: number;
  askedBy: string;
  answer: string;
  answeredBy: string;
  answeredAt: string | null;
  reply: string;
}

const ask = useDemoApp('questions', 0);
const as = (person: string) => ({ 'typikon-person': person });
const PROFILE = 'notices-desk';
const TEXT = { document: 'notice-016', field: 'body' };
const post = (texts: object[], note = '', person = 'isa-wren') =>
  ask<{ asked: number; untouched: number; missing: number }>('POST', `/profiles/${PROFILE}/questions`, { texts, note }, as(person));
const list = async (query: Record<string, string>) =>
  (await ask<Question[]>('GET', `/questions?${new URLSearchParams(query).toString()}`)).body;
const answer = (id: number, what: string, person: string, reply = '') =>
  ask<Question>('POST', `/questions/${id}/answer`, { answer: what, reply }, as(person));

beforeAll(async () => {
  // The draft is stricter: tables go.
  const { body } = await ask<{ document: { markup: { elements: object } }; revision: number }>('GET', `/profiles/${PROFILE}`);
  const elements = { ...body.document.markup.elements, table: { outcome: 'drop' } };
  const stricter = { ...body.document, markup: { ...body.document.markup, elements } };
  const saved = await ask('PUT', `/profiles/${PROFILE}/draft`, stricter, { ...as('isa-wren'), 'if-match': `"${body.revision}"` });
  expect(saved.status).toBe(200);
});

test('asks who changed a text last, with both renderings; texts that come out as before are not asked about', async () => {
  const asked = await post([TEXT, { document: 'notice-015', field: 'body' }, { document: 'nothing', field: 'body' }], 'May the table go?');
  expect([asked.status, asked.body]).toEqual([201, { asked: 1, untouched: 1, missing: 1 }]);
  const [question, ...others] = await list({ person: 'ned-orr', open: 'true' });
  expect(others).toEqual([]);
  expect(question).toMatchObject({
    ...TEXT,
    person: 'ned-orr',
    note: 'May the table go?',
    edition: 1,
    revision: 1,
    askedBy: 'isa-wren',
    answer: '',
  });
  expect(question!.before).toContain('<table');
  expect(question!.after).not.toContain('<table');
  expect(await list({ person: 'may-carrow', open: 'true' })).toEqual([]);
});

test('asked again before it is answered, it is one question', async () => {
  await post([TEXT], 'Once more');
  expect((await list({ document: TEXT.document })).map(({ note }) => note)).toEqual(['Once more']);
});

test('who was asked answers, once; nobody else does', async () => {
  const [question] = await list({ person: 'ned-orr' });
  expect((await answer(question!.id, 'fine', 'may-carrow')).status).toBe(403);
  const answered = await answer(question!.id, 'stays', 'ned-orr', 'Charts are corrected by it.');
  expect(answered.body).toMatchObject({
    answer: 'stays',
    answeredBy: 'ned-orr',
    reply: 'Charts are corrected by it.',
    answeredAt: expect.any(String),
  });
  expect((await answer(question!.id, 'fine', 'ned-orr')).status).toBe(409);
  expect((await answer(4711, 'fine', 'ned-orr')).status).toBe(404);
  expect(await list({ profile: PROFILE, open: 'true' })).toEqual([]);
  expect(await list({ profile: PROFILE, open: 'false' })).toHaveLength(1);
  // It can be asked again once it has an answer, and then both stand.
  await post([TEXT], 'And now?');
  expect(await list({ profile: PROFILE })).toHaveLength(2);
});

test('comes in pages; what cannot be is refused', async () => {
  const first = await ask<Question[]>('GET', `/questions?profile=${PROFILE}&limit=1`);
  const rest = await ask<Question[]>('GET', first.next!);
  expect([first.body[0]!.note, rest.body[0]!.note, rest.next]).toEqual(['And now?', 'Once more', undefined]);
  expect((await ask('POST', '/profiles/nobody/questions', { texts: [TEXT] }, as('isa-wren'))).status).toBe(404);
  expect((await post([], '')).status).toBe(422);
  expect((await post([TEXT], '', 'una-pell')).status).toBe(403);
  expect((await answer(1, 'perhaps', 'ned-orr')).status).toBe(422);
  await DocumentFieldModel.update({ size: 30_000_000 }, { where: { documentId: TEXT.document, fieldKey: TEXT.field } });
  const long = await post([TEXT]);
  expect([long.status, long.body]).toMatchObject([422, { detail: expect.stringMatching(/hold 30 MB; of 20 MB at most/) }]);
});
