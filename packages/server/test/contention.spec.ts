import { pino } from 'pino';
import { DatabaseError, QueryTypes, type Sequelize } from 'sequelize';
import sharp from 'sharp';
import { createApp } from '../src/app';
import { AssetModel, SpecimenModel } from '../src/db/models';
import { Contended, inTransaction, OutcomeUnknown } from '../src/db/transaction';
import { loadDocument } from '../src/documents/repository';
import { indexTexts } from '../src/features/repository';
import { titles } from '../src/routes/assets';
import { demoDatabase } from './database';

jest.setTimeout(120_000);

let sequelize: Sequelize;
let drop: () => Promise<void>;
let app: ReturnType<typeof createApp>;

beforeAll(async () => {
  ({ sequelize, drop } = await demoDatabase('contention', 0));
  app = createApp({ sequelize, log: pino({ level: 'silent' }), siteOrigins: ['http://127.0.0.1:4711'] });
});
afterAll(() => drop());

const request = async (path: string, init: RequestInit = {}): Promise<Response> =>
  app.request(`http://127.0.0.1:4710/api/v1${path}`, {
    ...init,
    headers: { host: '127.0.0.1:4710', ...(init.headers as Record<string, string>) },
  });
const post = (path: string, body: unknown) =>
  request(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

interface Sheet {
  id: string;
  css: string;
  revision: number;
}

test('style changes of the same files in opposite order: each is stored whole or refused, and none fails', async () => {
  const statuses: number[] = [];
  for (let round = 0; round < 6; round++) {
    const { stylesheets, pageKinds } = (await (await request('/style-files')).json()) as { stylesheets: Sheet[]; pageKinds: object[] };
    const changed = stylesheets.map((sheet) => ({ ...sheet, css: `${sheet.css}\n/* ${round} */` }));
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_unused, n) =>
        post('/style-files/changes', {
          stylesheets: n % 2 === 0 ? changed : [...changed].reverse(),
          pageKinds: n % 2 === 0 ? pageKinds : [...pageKinds].reverse(),
        }),
      ),
    );
    statuses.push(...answers.map(({ status }) => status));
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
    const after = ((await (await request('/style-files')).json()) as { stylesheets: Sheet[] }).stylesheets;
    expect(new Set(after.map(({ css }) => css.endsWith(`/* ${round} */`)))).toEqual(new Set([true]));
  }
  expect(new Set(statuses)).toEqual(new Set([200, 412]));
});

describe('pictures of one title at once', () => {
  const put = async (title: string, sameName: string, bytes: Buffer) =>
    request(`/assets?${new URLSearchParams({ title, folder: 'quays', sameName }).toString()}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: new Uint8Array(bytes),
    });
  const picture = (shade: number) =>
    sharp({ create: { width: 2, height: 2, channels: 3, background: { r: shade, g: 0, b: 0 } } })
      .png()
      .toBuffer();

  test('where both are to be kept, each gets a title of its own', async () => {
    const bytes = await Promise.all(Array.from({ length: 50 }, (_unused, n) => picture(n)));
    const answers = await Promise.all(bytes.map((one) => put('quay.png', 'keep-both', one)));
    expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([201]));
    const all = await AssetModel.findAll({ where: { folder: 'quays' }, attributes: ['title'] });
    expect(new Set(all.map(({ title }) => title)).size).toBe(50);
    expect(all.map(({ title }) => title).sort()).toContain('quay (50).png');
  });
  test('where it is to be asked, one is stored and the others are told of it', async () => {
    const answers = await Promise.all(Array.from({ length: 12 }, async (_unused, n) => put('pier.png', 'ask', await picture(n))));
    const statuses = answers.map(({ status }) => status).sort();
    expect(statuses).toEqual([201, ...Array.from({ length: 11 }, () => 409)]);
    const refused = answers.find(({ status }) => status === 409)!;
    expect(await refused.json()).toMatchObject({ existing: { title: 'pier.png', bytes: expect.any(Number) } });
  });
  test('a long title gets its number within the limit, and no letter is cut in two', () => {
    const long = `${'😀'.repeat(100)}.png`.slice(-200);
    const [first, second] = [...titles(`${'é'.repeat(196)}.png`)];
    expect([first!.length, second!.length]).toEqual([200, 200]);
    expect(second).toMatch(/é \(2\)\.png$/);
    for (const title of titles(long)) {
      expect(title.length).toBeLessThanOrEqual(200);
      expect(encodeURIComponent(title)).toBeTruthy();
    }
    expect([...titles('no ending')].slice(0, 2)).toEqual(['no ending', 'no ending (2)']);
  });
});

test('specimens that are added at once each have a place of their own', async () => {
  const before = await SpecimenModel.count();
  const answers = await Promise.all(
    Array.from({ length: 30 }, (_unused, n) =>
      post('/specimens', {
        format: 'typikon-specimen/1',
        id: `many-${n}`,
        name: `Many ${n}`,
        profile: 'diary',
        arrives: 'paste',
        payload: { types: { 'text/html': '<p>x</p>' } },
      }),
    ),
  );
  expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([201]));
  const all = await SpecimenModel.findAll({ attributes: ['position'], raw: true });
  expect(new Set(all.map(({ position }) => position)).size).toBe(before + 30);
  const listed = (await (await request('/specimens?limit=500')).json()) as { id: string; payload?: object; size: number }[];
  expect(listed.at(-1)!.id).toMatch(/^many-/);
  expect(listed.every(({ payload, size }) => payload === undefined && size > 10)).toBe(true);
});

describe('a transaction', () => {
  const failing = (errno: number) => {
    const error = Object.assign(new Error('Deadlock found'), { errno });
    return Object.assign(new DatabaseError(error as never), { original: error });
  };
  test.each([1213, 1205, 1020])('is tried again where others were in the way (%i), and begins anew each time', async (errno) => {
    let tries = 0;
    const result = await inTransaction(sequelize, () => (++tries < 4 ? Promise.reject(failing(errno)) : Promise.resolve('done')));
    expect([result, tries]).toEqual(['done', 4]);
  });
  test('gives up in the end with a sentence', async () => {
    await expect(inTransaction(sequelize, () => Promise.reject(failing(1213)))).rejects.toThrow(Contended);
  });
  test('of which nobody knows whether it was committed is told as that', async () => {
    const whole = sequelize.transaction.bind(sequelize) as (act: (transaction: never) => Promise<unknown>) => Promise<unknown>;
    sequelize.transaction = (async (act: (transaction: never) => Promise<unknown>) => {
      await whole(act);
      throw new Error('socket has unexpectedly been closed');
    }) as never;
    try {
      await expect(inTransaction(sequelize, () => Promise.resolve(1))).rejects.toThrow(OutcomeUnknown);
      const answer = await post('/profiles', { id: 'unknown', document: { format: 'typikon-profile/1', name: 'Unknown' } });
      expect(answer.status).toBe(503);
      expect(await answer.json()).toMatchObject({ outcome: 'unknown', detail: expect.stringContaining('not known whether it was saved') });
    } finally {
      sequelize.transaction = whole as never;
    }
    // It was, and whoever looks finds it.
    expect((await request('/profiles/unknown')).status).toBe(200);
  });
});

describe('a transaction that began to read before another one stored a document', () => {
  const ID = 'notice-016';
  interface Stored {
    fields: { key: string; value: string }[];
  }
  const bodyOf = ({ fields }: Stored): string => fields.find(({ key }) => key === 'body')!.value;
  async function write(id: string, html: string): Promise<void> {
    const etag = (await request(`/documents/${id}`)).headers.get('etag') ?? '';
    const saved = await request(`/documents/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'if-match': etag, 'typikon-person': 'isa-wren' },
      body: JSON.stringify({ fields: { body: { value: html } } }),
    });
    expect(saved.status).toBe(200);
  }

  test('sees the document as it is once it holds it, and what it indexes is what stands there', async () => {
    await write(ID, '<p>Before</p><ul><li>x</li></ul>');
    await sequelize.transaction(async (transaction) => {
      await sequelize.query('SELECT COUNT(*) FROM documents', { transaction, type: QueryTypes.SELECT });
      await write(ID, '<p>After</p><blockquote><p>x</p></blockquote>');
      const document = (await loadDocument(ID, transaction, true))!;
      expect(bodyOf(document)).toBe('<p>After</p><blockquote><p>x</p></blockquote>');
      const { revision } = document.fields.find(({ key }) => key === 'body')!;
      await indexTexts(sequelize, [{ documentId: ID, fieldKey: 'body', revision, html: '<p>Now</p>' }], transaction);
    });
    const held = await sequelize.query<{ element: string }>(
      `SELECT x.element FROM text_features AS h JOIN text_index AS t ON t.id = h.text_id JOIN features AS x ON x.id = h.feature_id
       WHERE t.document_id = ? AND t.field_key = 'body'`,
      { replacements: [ID], type: QueryTypes.SELECT },
    );
    expect(held.map(({ element }) => element)).toEqual(['p']);
  });

  test('documents that are stored at once, with contents that nobody had, are all stored', async () => {
    const ids = ['notice-015', 'notice-016', 'notice-017', 'notice-018'];
    for (let round = 0; round < 5; round++)
      await Promise.all(ids.map((id) => write(id, `<p>Round ${round} of ${id}, <a href="/r/${round}/${id}">more</a></p>`)));
    for (const id of ids) expect(bodyOf((await (await request(`/documents/${id}`)).json()) as Stored)).toContain(`Round 4 of ${id}`);
  });
});
