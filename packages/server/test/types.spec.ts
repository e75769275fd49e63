import { type Site } from '@typikon/core';
import { DocumentFieldModel, DocumentModel, DocumentVersionModel } from '../src/db/document-models';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('types', 300);
const give = (type: string, to: string, places: object, as = 'isa-wren') =>
  ask<{ given: number; left: number }>('POST', `/types/${type}/give-documents`, { to, places }, { 'typikon-person': as });
const use = async (type: string) =>
  (await ask<{ documents: number; fields: { key: string; documents: number }[] }>('GET', `/types/${type}/use`)).body;
const places = { headline: 'headline', body: 'body' };

test('how a type is used is counted, by field', async () => {
  const stories = await DocumentModel.findAll({ where: { typeId: 'story' }, include: { model: DocumentFieldModel, as: 'fields' } });
  const counted = await use('story');
  expect(counted.documents).toBe(stories.length);
  for (const { key, documents } of counted.fields)
    expect(documents).toBe(stories.filter((one) => one.fields!.some(({ fieldKey }) => fieldKey === key)).length);
  expect(counted.fields.length).toBeGreaterThan(1);
  expect(await use('nothing')).toEqual({ documents: 0, fields: [] });
});

test.each([
  ['nothing', 'notice', places, 404, 'There is no content type "nothing".'],
  ['story', 'nothing', places, 404, 'There is no content type "nothing".'],
  ['story', 'story', places, 422, 'are of the content type “News story” already'],
  ['story', 'notice', { body: 'nowhere' }, 422, 'has no field "nowhere". Nothing was changed.'],
])('%s to %s by %j is refused', async (type, to, asked, status, sentence) => {
  const before = await use('story');
  const answer = await give(type, to, asked);
  expect([answer.status, answer.body.detail]).toEqual([status, expect.stringContaining(sentence)]);
  expect(await use('story')).toEqual(before);
});

test('only who administers may', async () => expect((await give('story', 'notice', places, 'tom-hallow')).status).toBe(403));

test('fifty at a time become another’s, each as a new version, until none is left; then the type can go', async () => {
  const before = await DocumentModel.findAll({ where: { typeId: 'notice' }, include: { model: DocumentFieldModel, as: 'fields' } });
  expect(before.length).toBeGreaterThan(50);
  const notice = (await ask<Site>('GET', '/site')).body.types.find(({ id }) => id === 'notice')!;
  const rich = notice.fields.find(({ kind }) => kind === 'rich')!.key;
  const into = { [rich]: 'body' };
  const first = await give('notice', 'story', into);
  expect([first.status, first.body]).toEqual([200, { given: 50, left: before.length - 50 }]);
  let left = first.body.left;
  while (left > 0) left = (await give('notice', 'story', into)).body.left;
  expect((await give('notice', 'story', into)).body).toEqual({ given: 0, left: 0 });
  const story = await DocumentModel.findOne({ where: { id: 'old-tansy-back' }, attributes: ['pageKindId'] });
  const body = await DocumentFieldModel.findOne({ where: { documentId: 'old-tansy-back', fieldKey: 'body' } });
  for (const was of before) {
    const now = (await DocumentModel.findByPk(was.id, { include: { model: DocumentFieldModel, as: 'fields' } }))!;
    expect([now.typeId, now.pageKindId, now.title, now.revision, now.changedBy]).toEqual([
      'story',
      story!.pageKindId,
      was.title,
      was.revision + 1,
      'isa-wren',
    ]);
    const [old, text] = [was.fields!.find(({ fieldKey }) => fieldKey === rich), now.fields!.find(({ fieldKey }) => fieldKey === 'body')];
    expect([text?.value, text?.profileId, text?.census]).toEqual([old?.value, old?.profileId, old?.census]);
    expect(text?.pageKindId).toBe(body!.pageKindId);
    // The title is in its field, where it stood in none before.
    expect(now.fields!.find(({ fieldKey }) => fieldKey === 'headline')?.value).toBe(was.title);
    expect(await DocumentVersionModel.count({ where: { documentId: was.id } })).toBe(now.revision);
  }
  const site = await ask<Site>('GET', '/site');
  const rest = {
    ...site.body,
    types: site.body.types.filter(({ id }) => id !== 'notice'),
    assignments: site.body.assignments.flatMap((one) => {
      const types = one.types === '*' ? one.types : one.types.filter((id) => id !== 'notice');
      return types.length === 0 ? [] : [{ ...one, types }];
    }),
  };
  expect((await ask('PUT', '/site', rest, { 'if-match': site.etag })).status).toBe(200);
});
