import { compileRules, fitTo, isWhole, resolveProfile, type CompiledRules, type HouseLimits, type JsonObject } from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DocumentFieldModel, DocumentModel } from '../src/db/document-models';
import { SettingModel } from '../src/db/models';
import { indexSome } from '../src/features/repository';
import { houseLimits, rulesOf } from '../src/rules';
import { growDemo } from '../src/seed/grow';
import { composedDocuments } from '../src/seed/store';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('fit', 60);
const AS = { 'typikon-person': 'isa-wren' };
const database = (): Sequelize => DocumentFieldModel.sequelize!;

interface Step {
  allows: string[];
  rules: number;
  risk: number;
  whole: number;
  isLeast: boolean;
  samples: { document: string; field: string; title: string }[];
}
interface Fit {
  texts: number;
  most: number;
  steps: Step[];
  present: { profile: string; edition: number; rules: number; whole: number; kept: number; estimate: object | null } | null;
}
const fitOf = async (query: string): Promise<Fit> => {
  const { status, body } = await ask<Fit>('GET', `/fit?${query}`, undefined, AS);
  expect(status).toBe(200);
  return body;
};
const plain = (steps: readonly Omit<Step, 'samples'>[]) =>
  steps.map(({ allows, rules, risk, whole, isLeast }) => ({ allows: [...allows].sort(), rules, risk, whole, isLeast }));

/** What cleaning every text says. */
async function expected(where: { profileId: string }) {
  const texts = (await DocumentFieldModel.findAll({ where })).map(({ value }) => value);
  const house = (await houseLimits()) as HouseLimits;
  return { texts, house, fit: fitTo(() => texts, { keep: 1, house }) };
}

function compiled(document: JsonObject, house: HouseLimits): CompiledRules {
  const resolution = resolveProfile('made', () => document);
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return compileRules(resolution.resolved, { house });
}

test('texts that are not indexed yet are read, and the way is the same', async () => {
  const { fit } = await expected({ profileId: 'notices-desk' });
  const found = await fitOf('profile=notices-desk');
  expect(plain(found.steps)).toEqual(plain(fit.curve));
  while ((await indexSome(database(), 100)) > 0);
});

test.each(['story-desk', 'notices-desk', 'tender-desk', 'diary'])(
  'the way for the texts of %s is the one that cleaning every text finds, and the profile beside it is counted',
  async (profile) => {
    const { texts, fit } = await expected({ profileId: profile });
    const found = await fitOf(`profile=${profile}`);
    expect(found).toMatchObject({ texts: texts.length, most: fit.most });
    expect(plain(found.steps)).toEqual(plain(fit.curve));
    const rules = await rulesOf(profile, '');
    expect(found.present).toMatchObject({
      profile,
      edition: 1,
      whole: texts.filter((html) => isWhole(html, rules)).length,
      estimate: null,
    });
    expect(found.present!.rules).toBeGreaterThan(5);
  },
);

test('a step opens as the profile that keeps so many texts whole, and names texts that it is for', async () => {
  const { texts, house } = await expected({ profileId: 'story-desk' });
  const { steps } = await fitOf('profile=story-desk');
  for (const at of [0, Math.floor(steps.length / 2), steps.length - 1]) {
    const { body } = await ask<{ document: JsonObject; whole: number; texts: number }>(
      'GET',
      `/fit/profile?profile=story-desk&step=${at}&name=Least`,
      undefined,
      AS,
    );
    const rules = compiled(body.document, house);
    expect(body).toMatchObject({ whole: steps[at]!.whole, texts: texts.length, document: { name: 'Least' } });
    expect(texts.filter((html) => isWhole(html, rules)).length).toBe(steps[at]!.whole);
    for (const { document, field, title } of steps[at]!.samples) {
      const text = (await DocumentFieldModel.findOne({ where: { documentId: document, fieldKey: field } }))!;
      expect(isWhole(text.value, rules)).toBe(true);
      expect(title).toBe((await DocumentModel.findByPk(document))!.title);
    }
  }
  expect((await ask('GET', '/fit/profile?profile=story-desk&step=999&name=x', undefined, AS)).status).toBe(404);
  expect((await ask('GET', '/fit?profile=nobody', undefined, AS)).status).toBe(404);
  expect((await ask('GET', '/fit', undefined, { 'typikon-person': 'tom-hallow' })).status).toBe(403);
});

test('can be asked for one type, one field, one role, or for all, with a profile beside', async () => {
  const count = async (sql: string): Promise<number> =>
    Number((await database().query<{ n: number }>(`SELECT COUNT(*) AS n FROM ${sql}`, { type: QueryTypes.SELECT }))[0]!.n);
  const rich = 'document_fields AS f JOIN documents AS d ON d.id = f.document_id WHERE f.profile_id IS NOT NULL';
  const all = await fitOf('beside=diary');
  expect([all.texts, all.present!.profile]).toEqual([await count(rich), 'diary']);
  expect(all.present!.whole).toBeLessThan(all.texts);
  expect((await fitOf('type=tender')).texts).toBe(await count(`${rich} AND d.type_id = 'tender'`));
  expect((await fitOf('field=conditions')).texts).toBe(await count(`${rich} AND f.field_key = 'conditions'`));
  await DocumentFieldModel.update({ role: 'editor' }, { where: { profileId: 'diary' } });
  expect((await fitOf('role=editor')).texts).toBe(await count(`${rich} AND f.role = 'editor'`));
  expect(await fitOf('type=nothing')).toMatchObject({ texts: 0, most: 0, present: null });
});

test('a text that is stored after the way was found is told of with the next one', async () => {
  const before = await fitOf('profile=story-desk');
  const text = (await DocumentFieldModel.findOne({ where: { profileId: 'story-desk', fieldKey: 'body' } }))!;
  const { etag } = await ask('GET', `/documents/${text.documentId}`);
  const value = '<p>Said with <strong><em>both</em></strong> and a <a href="https://www.saltmarrow.example/n">link</a>.</p>';
  const saved = await ask('PUT', `/documents/${text.documentId}`, { fields: { body: { value } } }, { ...AS, 'if-match': etag });
  expect(saved.status).toBe(200);
  const { texts, fit } = await expected({ profileId: 'story-desk' });
  const after = await fitOf('profile=story-desk');
  expect(plain(after.steps)).toEqual(plain(fit.curve));
  expect([after.texts, before.texts]).toEqual([texts.length, texts.length]);
});

describe('a large demo', () => {
  test('is written some at a time, indexed with it, from where it was stopped', async () => {
    const composed = async (): Promise<unknown> => (await SettingModel.findByPk('demo-composed'))!.value;
    expect(await composed()).toBe(60);
    expect(await growDemo(database(), 100, 15)).toBe(75);
    const before = await DocumentModel.count();
    // Broken off within a part: nothing of it is there, and the next one begins with it.
    const create = jest.spyOn(SettingModel, 'upsert').mockRejectedValueOnce(new Error('Ended here.'));
    await expect(growDemo(database(), 100, 15)).rejects.toThrow('Ended here.');
    create.mockRestore();
    expect([await DocumentModel.count(), await composed()]).toEqual([before, 75]);
    for (let last = 0, now = 75; now > last; [last, now] = [now, await growDemo(database(), 100, 15)]);
    expect([await DocumentModel.count(), await composed()]).toEqual([before + 25, 100]);
    expect(await growDemo(database(), 100, 15)).toBe(100);
    expect(await indexSome(database(), 10)).toBe(0);
    for (const { id, title } of composedDocuments(61, 100)) expect((await DocumentModel.findByPk(id))!.title).toBe(title);
    const { texts, fit } = await expected({ profileId: 'notices-desk' });
    const found = await fitOf('profile=notices-desk');
    expect(found.texts).toBe(texts.length);
    expect(plain(found.steps)).toEqual(plain(fit.curve));
  });
});
