import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('left', 40);
const AS = { 'typikon-person': 'isa-wren' };
const PROFILE = 'notices-desk';
const KEPT = { document: 'notice-016', field: 'body' };

interface LeftOut {
  edition: number;
  line: { kind: string; element: string };
}
interface Look {
  texts: number;
  touched: { document: string; field: string }[];
}
const change = async (elements: object) => {
  const { body } = await ask<{ document: { markup: { elements: object } }; revision: number }>('GET', `/profiles/${PROFILE}`);
  const next = { ...body.document, markup: { ...body.document.markup, elements: { ...body.document.markup.elements, ...elements } } };
  const saved = await ask<{ revision: number }>('PUT', `/profiles/${PROFILE}/draft`, next, { ...AS, 'if-match': `"${body.revision}"` });
  expect(saved.status).toBe(200);
  return saved.body.revision;
};
const release = (revision: number, leave: object[] = []) =>
  ask('POST', `/profiles/${PROFILE}/editions`, { note: 'Why', leave }, { ...AS, 'if-match': `"${revision}"` });
const left = async () =>
  (await ask<{ document: string; field: string; title: string; edition: number }[]>('GET', `/profiles/${PROFILE}/left`)).body;
const leftOut = async (document: string) => (await ask<LeftOut[]>('GET', `/documents/${document}/left-out`)).body;
/** The earlier edition by which readers see the body of a document. */
const shownBy = async (document: string) =>
  (await ask<{ fields: { key: string; shownBy: number | null }[] }>('GET', `/documents/${document}`)).body.fields.find(
    ({ key }) => key === 'body',
  )!.shownBy;
const isTable = ({ line }: LeftOut) => line.kind === 'element' && line.element === 'table';
const reach = async () => (await ask<Look>('POST', `/profiles/${PROFILE}/reach`, {}, AS)).body;
const touchedBy = ({ touched }: Look) => touched.map(({ document }) => document);

test('a text that a release leaves as it is is shown by the edition before; the others follow', async () => {
  const revision = await change({ table: { outcome: 'drop' } });
  const others = touchedBy(await reach()).filter((document) => document !== KEPT.document);
  expect(others.length).toBeGreaterThan(0);
  expect((await release(revision, [KEPT, { document: 'nothing', field: 'body' }])).status).toBe(201);
  expect(await left()).toEqual([{ ...KEPT, title: 'Notice 16: chart corrections', edition: 1 }]);
  expect((await leftOut(KEPT.document)).filter(isTable)).toEqual([]);
  expect(await shownBy(KEPT.document)).toBe(1);
  expect(await shownBy(others[0]!)).toBe(null);
  expect((await leftOut(others[0]!)).find(isTable)).toMatchObject({ edition: 2 });
});

test('no later release touches it, and it keeps its own edition', async () => {
  const before = (await reach()).texts;
  const revision = await change({ sup: { outcome: 'drop' } });
  const looked = await reach();
  expect(touchedBy(looked)).not.toContain(KEPT.document);
  expect(looked.texts).toBe(before);
  expect((await release(revision, [KEPT])).status).toBe(201);
  expect((await left()).map(({ edition }) => edition)).toEqual([1]);
});

test('once it is edited it is like all others', async () => {
  const { etag } = await ask('GET', `/documents/${KEPT.document}`);
  const fields = { body: { value: '<p>Now</p><table><tbody><tr><td>Gone</td></tr></tbody></table>' } };
  const saved = await ask<{ fields: { key: string; value: string }[] }>(
    'PUT',
    `/documents/${KEPT.document}`,
    { fields },
    { ...AS, 'if-match': etag },
  );
  expect(saved.body.fields.find(({ key }) => key === 'body')?.value).toBe('<p>Now</p>');
  expect(await shownBy(KEPT.document)).toBe(null);
  expect(await left()).toEqual([]);
});

test('it can follow again before that; what did not stay behind is told', async () => {
  const revision = await change({ strong: { outcome: 'drop' } });
  await release(revision, [KEPT]);
  expect(await left()).toHaveLength(1);
  const texts = [KEPT, { document: 'notice-014', field: 'body' }];
  expect((await ask('POST', `/profiles/${PROFILE}/follow`, { texts }, AS)).body).toEqual({ following: 1, others: 1 });
  expect(await left()).toEqual([]);
  expect((await ask('POST', `/profiles/${PROFILE}/follow`, { texts }, { 'typikon-person': 'una-pell' })).status).toBe(403);
  expect((await ask('POST', `/profiles/${PROFILE}/follow`, { texts: [] }, AS)).status).toBe(422);
});
