import { CertainReach, cleanWithoutLedger, mergePatch, questionBetween, type Json, type JsonObject } from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DocumentFieldModel } from '../src/db/document-models';
import { ProfileModel } from '../src/db/models';
import { chainFrom } from '../src/editions/repository';
import { candidatesFor, type Candidates } from '../src/features/candidates';
import { decide, type Decided } from '../src/features/decided';
import { indexSome, indexTexts } from '../src/features/repository';
import { houseLimits, rulesOfChain } from '../src/rules';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('features', 80);
const AS = { 'typikon-person': 'isa-wren' };
const database = (): Sequelize => DocumentFieldModel.sequelize!;
const select = <Row extends object>(sql: string, replacements: unknown[] = []): Promise<Row[]> =>
  database().query<Row>(sql, { replacements, type: QueryTypes.SELECT });
const count = async (table: string): Promise<number> => Number((await select<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))[0]!.n);

/** Rules of a profile as it is stored, and with a patch of its own document. */
async function sidesOf(id: string, patch: Json) {
  const documents = new Map((await ProfileModel.findAll()).map((profile): [string, JsonObject] => [profile.id, profile.document]));
  const changed = mergePatch(documents.get(id), patch) as JsonObject;
  const house = await houseLimits();
  return (role: string) => ({
    from: rulesOfChain(
      chainFrom(id, (other) => documents.get(other)),
      role,
      house,
    ),
    to: rulesOfChain(
      chainFrom(id, (other) => (other === id ? changed : documents.get(other))),
      role,
      house,
    ),
  });
}

async function candidatesOf(id: string, patch: Json): Promise<Candidates> {
  const sides = await sidesOf(id, patch);
  return candidatesFor(database(), id, null, (role) => {
    const { from, to } = sides(role);
    return questionBetween(from, to);
  });
}

/** Those of the candidates of which what they hold does not tell that they come out the same. */
async function decided(id: string, patch: Json): Promise<Decided[]> {
  const [sides, { texts }] = [await sidesOf(id, patch), await candidatesOf(id, patch)];
  return decide(database(), texts, (role) => {
    const { from, to } = sides(role);
    return new CertainReach(from, to);
  });
}

/** Names of the texts of a profile that a patch touches, by cleaning all of them. */
async function touchedBy(id: string, patch: Json): Promise<string[]> {
  const sides = await sidesOf(id, patch);
  const touched: string[] = [];
  for (const { documentId, fieldKey, value, role } of await DocumentFieldModel.findAll({ where: { profileId: id } })) {
    const { from, to } = sides(role);
    if (cleanWithoutLedger(value, from) !== cleanWithoutLedger(value, to)) touched.push(`${documentId}/${fieldKey}`);
  }
  return touched.sort();
}

const namesOf = ({ texts }: Pick<Candidates, 'texts'>): string[] => texts.map(({ document, field }) => `${document}/${field}`);
const elements = (rules: JsonObject): JsonObject => ({ markup: { elements: rules } });

const CHANGES: readonly [string, string, JsonObject][] = [
  ['an element goes', 'notices-desk', elements({ table: { outcome: 'drop' } })],
  ['an element comes', 'notices-desk', elements({ figure: {} })],
  ['an attribute is narrowed', 'story-desk', elements({ a: { attributes: { href: { test: 'url', hosts: ['www.saltmarrow.example'] } } } })],
  ['a class goes', 'story-desk', elements({ p: { attributes: { class: { test: 'tokens', values: ['lead'] } } } })],
  ['an element is renamed', 'notices-desk', elements({ h2: { outcome: 'rename', to: 'h3' } })],
  ['headings move', 'story-desk', { markup: { headings: { others: 'shift', top: 3 } } }],
  ['a limit', 'diary', { markup: { limits: { letters: 100 } } }],
  ['hard spaces', 'notices-desk', { markup: { text: { hardSpaces: 'plain' } } }],
  ['how characters are written', 'story-desk', { markup: { output: { characters: 'numeric' } } }],
  ['what has no rule', 'story-desk', { markup: { unlisted: 'drop' } }],
  ['pictures need words', 'story-desk', elements({ img: { required: { alt: { otherwise: 'drop' } } } })],
  ['white space', 'diary', { markup: { output: { layout: 'indented' } } }],
  ['paragraphs go', 'diary', elements({ p: { outcome: 'unwrap' } })],
  ['nothing of the markup', 'story-desk', { purpose: 'Else' }],
];

test('before a text is indexed it is among those that any change can touch', async () => {
  expect(await count('text_index')).toBe(0);
  const candidates = await candidatesOf('notices-desk', { purpose: 'Else' });
  expect(candidates.unknown).toBe(await DocumentFieldModel.count({ where: { profileId: 'notices-desk' } }));
  expect(candidates.texts).toHaveLength(candidates.unknown);
});

test('what stood there before is indexed in the background, some at a time, until all is', async () => {
  const rich = (await select<{ n: number }>('SELECT COUNT(*) AS n FROM document_fields WHERE profile_id IS NOT NULL'))[0]!.n;
  let done = 0;
  for (let some = await indexSome(database(), 30); some > 0; some = await indexSome(database(), 30)) done += some;
  expect(done).toBe(Number(rich));
  expect(await count('text_index')).toBe(done);
  // Each thing is kept once, whoever holds it.
  const [doubled] = await select<{ n: number }>(
    'SELECT COUNT(*) AS n FROM (SELECT 1 FROM features GROUP BY element, attribute, value HAVING COUNT(*) > 1) AS twice',
  );
  expect(Number(doubled!.n)).toBe(0);
});

test.each(CHANGES)('%s: nobody whom it touches is left out, and what is told by what texts hold is so', async (_name, id, patch) => {
  const [candidates, touched, texts] = [await candidatesOf(id, patch), await touchedBy(id, patch), await decided(id, patch)];
  expect(candidates.unknown).toBe(0);
  expect(touched.filter((name) => !namesOf(candidates).includes(name))).toEqual([]);
  expect(touched.filter((name) => !namesOf({ texts }).includes(name))).toEqual([]);
  expect(namesOf({ texts: texts.filter(({ isSure }) => isSure) }).filter((name) => !touched.includes(name))).toEqual([]);
});

test('it is told of most texts that an element goes from them, and of some that nothing does that could go anywhere', async () => {
  let [all, certain] = [0, 0];
  for (const id of ['notices-desk', 'story-desk', 'diary'])
    for (const element of ['table', 'ul', 'figure', 'img', 'blockquote', 'p']) {
      const texts = await decided(id, elements({ [element]: { outcome: 'drop' } }));
      all += texts.length;
      certain += texts.filter(({ isSure }) => isSure).length;
    }
  expect(all).toBeGreaterThan(200);
  expect(certain / all).toBeGreaterThan(0.6);
  const anywhere = { markup: { unlisted: 'drop' } };
  expect((await decided('diary', anywhere)).length).toBeLessThan((await candidatesOf('diary', anywhere)).texts.length);
});

test('most changes ask for few texts, and those that nothing can decide say so', async () => {
  const all = async (id: string): Promise<number> => DocumentFieldModel.count({ where: { profileId: id } });
  expect((await candidatesOf('story-desk', { purpose: 'Else' })).texts).toEqual([]);
  expect(namesOf(await candidatesOf('notices-desk', elements({ table: { outcome: 'drop' } })))).toEqual(
    await touchedBy('notices-desk', elements({ table: { outcome: 'drop' } })),
  );
  const layout = await candidatesOf('diary', { markup: { output: { layout: 'indented' } } });
  expect([layout.undecided, layout.texts.length]).toEqual([['white space between blocks'], await all('diary')]);
});

test('the reach that is told is the same with the index as without it', async () => {
  for (const [, id, patch] of CHANGES) {
    const document = mergePatch((await ProfileModel.findByPk(id))!.document, patch);
    const { status, body } = await ask<{
      candidates: number;
      looked: number;
      undecided: string[];
      touched: { document: string; field: string }[];
    }>('POST', `/profiles/${id}/reach`, { document }, AS);
    expect(status).toBe(200);
    expect(body.looked).toBe(body.candidates);
    expect(body.touched.map(({ document: of, field }) => `${of}/${field}`).sort()).toEqual(await touchedBy(id, patch));
  }
});

test('a text that is stored is indexed with it; what it no longer holds is not found any more', async () => {
  const text = (await DocumentFieldModel.findOne({ where: { profileId: 'story-desk' }, order: ['documentId'] }))!;
  const name = `${text.documentId}/${text.fieldKey}`;
  const write = async (value: string): Promise<void> => {
    const { etag } = await ask('GET', `/documents/${text.documentId}`);
    const saved = await ask(
      'PUT',
      `/documents/${text.documentId}`,
      { fields: { [text.fieldKey]: { value } } },
      { ...AS, 'if-match': etag },
    );
    expect(saved.status).toBe(200);
  };
  const abbr = elements({ abbr: { outcome: 'drop' } });
  await write('<p>An <abbr title="North Basin Authority">NBA</abbr> notice</p>');
  expect(namesOf(await candidatesOf('story-desk', abbr))).toContain(name);
  await write('<p>A notice</p>');
  const candidates = await candidatesOf('story-desk', abbr);
  expect([candidates.unknown, namesOf(candidates).includes(name)]).toEqual([0, false]);
  const [held] = await select<{ n: number }>(
    `SELECT COUNT(*) AS n FROM text_features AS h JOIN text_index AS t ON t.id = h.text_id JOIN features AS x ON x.id = h.feature_id
     WHERE t.document_id = ? AND t.field_key = ? AND x.element = 'abbr'`,
    [text.documentId, text.fieldKey],
  );
  expect(Number(held!.n)).toBe(0);
});

test('an index of an earlier state, or of another kind, counts for nothing', async () => {
  const text = (await DocumentFieldModel.findOne({ where: { profileId: 'diary' }, order: ['documentId'] }))!;
  const where = 'WHERE document_id = ? AND field_key = ?';
  const set = (what: string): Promise<unknown> =>
    database().query(`UPDATE text_index SET ${what} ${where}`, { replacements: [text.documentId, text.fieldKey] });
  for (const what of ['revision = revision + 1', 'version = version + 1']) {
    await set(what);
    expect((await candidatesOf('diary', { purpose: 'Else' })).unknown).toBe(1);
    expect(await indexSome(database(), 10)).toBe(1);
    expect((await candidatesOf('diary', { purpose: 'Else' })).unknown).toBe(0);
  }
});

test('names and values that are too long to be kept whole are asked for whatever they are', async () => {
  const text = (await DocumentFieldModel.findOne({ where: { profileId: 'diary' }, order: ['documentId'] }))!;
  const { documentId, fieldKey, revision } = text;
  const long = (html: string): Promise<void> =>
    database().transaction((transaction) => indexTexts(database(), [{ documentId, fieldKey, revision, html }], transaction));
  const isAsked = async (patch: Json): Promise<boolean> =>
    namesOf(await candidatesOf('diary', patch)).includes(`${documentId}/${fieldKey}`);
  await long(`<p><a href="https://a.example/${'x'.repeat(3000)}">y</a></p>`);
  expect(await isAsked(elements({ a: { attributes: { href: { test: 'url', hosts: ['a.example'] } } } }))).toBe(true);
  expect(await isAsked(elements({ blockquote: { outcome: 'drop' } }))).toBe(false);
  await long(`<x-${'y'.repeat(300)}>z</x-${'y'.repeat(300)}>`);
  expect(await isAsked(elements({ blockquote: { outcome: 'drop' } }))).toBe(true);
  await long(text.value);
});

test('of many that are stored at once with things that nobody had before, all are indexed', async () => {
  const texts = await DocumentFieldModel.findAll({ where: { profileId: 'notices-desk' }, order: ['documentId'], limit: 8 });
  const answers = await Promise.all(
    texts.map(async ({ documentId, fieldKey }, at) => {
      const { etag } = await ask('GET', `/documents/${documentId}`);
      const value = `<p class="note">New <a href="https://new.example/">x</a> <a href="https://new.example/${at % 3}">y</a></p>`;
      return ask('PUT', `/documents/${documentId}`, { fields: { [fieldKey]: { value } } }, { ...AS, 'if-match': etag });
    }),
  );
  expect(answers.map(({ status }) => status)).toEqual(texts.map(() => 200));
  const narrowed = elements({ a: { attributes: { href: { test: 'url', hosts: ['old.example'] } } } });
  const names = namesOf(await candidatesOf('notices-desk', narrowed));
  for (const { documentId, fieldKey } of texts) expect(names).toContain(`${documentId}/${fieldKey}`);
});

test('a document that goes takes its place in the index along', async () => {
  const { documentId } = (await DocumentFieldModel.findOne({ where: { profileId: 'diary' }, order: ['documentId'] }))!;
  const indexed = async (): Promise<number> =>
    Number((await select<{ n: number }>('SELECT COUNT(*) AS n FROM text_index WHERE document_id = ?', [documentId]))[0]!.n);
  expect(await indexed()).toBeGreaterThan(0);
  await database().query('DELETE FROM documents WHERE id = ?', { replacements: [documentId] });
  expect(await indexed()).toBe(0);
});
