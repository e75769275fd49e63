import type { Site } from '@typikon/core';
import { DocumentFieldModel } from '../src/db/document-models';
import { DraftHistoryModel, SpecimenModel } from '../src/db/models';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('removal', 60);
interface Use {
  extendedBy: string[];
  statements: number;
  isFallback: boolean;
  documents: number;
  specimens: number;
}
const use = async (id: string) => (await ask<Use>('GET', `/profiles/${id}/use`)).body;
const remove = (id: string, revision: number | null, as = 'isa-wren') =>
  ask<object>('DELETE', `/profiles/${id}`, undefined, {
    'typikon-person': as,
    ...(revision === null ? {} : { 'if-match': `"${revision}"` }),
  });
const isThere = async (id: string) => (await ask('GET', `/profiles/${id}`)).status === 200;
const make = (id: string, more: object = {}) =>
  ask('POST', '/profiles', { id, document: { format: 'typikon-profile/1', name: id, ...more } }, { 'typikon-person': 'isa-wren' });

test('what would miss a profile is counted', async () => {
  const house = await use('house');
  expect(house.extendedBy).toContain('story-desk');
  const site = (await ask<Site>('GET', '/site')).body;
  for (const id of ['house', 'story-desk', 'notices-desk']) {
    const counted = await use(id);
    expect(counted.statements).toBe(site.assignments.filter(({ profiles }) => profiles.includes(id)).length);
    expect(counted.isFallback).toBe(site.fallback.includes(id));
    expect(counted.specimens).toBe(await SpecimenModel.count({ where: { profileId: id } }));
    const fields = await DocumentFieldModel.findAll({ where: { profileId: id }, attributes: ['documentId'] });
    expect(counted.documents).toBe(new Set(fields.map(({ documentId }) => documentId)).size);
  }
  expect((await ask('GET', '/profiles/nothing/use')).status).toBe(404);
});

test('one that nobody extends and nobody is given goes, with its history; its key can be used again', async () => {
  expect((await make('spare', { extends: 'house' })).status).toBe(201);
  expect(await use('spare')).toEqual({ extendedBy: [], statements: 0, isFallback: false, documents: 0, specimens: 0 });
  expect((await remove('spare', 1)).status).toBe(204);
  expect(await isThere('spare')).toBe(false);
  expect(await DraftHistoryModel.count({ where: { profileId: 'spare' } })).toBe(0);
  expect((await remove('spare', 1)).status).toBe(404);
  expect((await make('spare')).status).toBe(201);
});

test.each([
  ['house', 'extend it'],
  ['story-desk', 'that somebody writes with it'],
])('%s stays, and who uses it is said', async (id, words) => {
  const { revision } = (await ask<{ revision: number }>('GET', `/profiles/${id}`)).body;
  const answer = await remove(id, revision);
  expect([answer.status, answer.body.detail]).toEqual([409, expect.stringContaining(words)]);
  expect(await isThere(id)).toBe(true);
});

test('it has to be the one that was seen, and asked for by somebody who may', async () => {
  expect((await make('seen')).status).toBe(201);
  expect((await remove('seen', null)).status).toBe(428);
  expect((await remove('seen', 7)).status).toBe(412);
  expect((await remove('seen', 1, 'tom-hallow')).status).toBe(403);
  expect(await isThere('seen')).toBe(true);
});

test('whoever extends it while it is taken away is refused, or it stays: never is a parent missing', async () => {
  for (let round = 0; round < 12; round++) {
    expect((await make(`parent-${round}`)).status).toBe(201);
    const [removed, made] = await Promise.all([remove(`parent-${round}`, 1), make(`child-${round}`, { extends: `parent-${round}` })]);
    expect([
      [204, 422],
      [409, 201],
    ]).toContainEqual([removed.status, made.status]);
    expect(await isThere(`parent-${round}`)).toBe(made.status === 201);
  }
});
