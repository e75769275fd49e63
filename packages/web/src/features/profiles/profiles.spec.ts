import type { StoredProfile } from '../../state/types';
import { differencesOf } from '../../shared/profile/changes-table';
import { descendantsOf, inFamilyOrder } from '../../shared/profile/family';
import { idFrom } from '@typikon/core';

const profile = (id: string, parent?: string): StoredProfile => ({
  id,
  document: { name: id, ...(parent === undefined ? {} : { extends: parent }) },
  revision: 1,
  createdAt: '',
  updatedAt: '',
});

test('children stand below the profile they extend', () => {
  const rows = inFamilyOrder([
    profile('note', 'desk'),
    profile('desk', 'house'),
    profile('house'),
    profile('reply'),
    profile('lost', 'nobody'),
  ]);
  expect(rows.map(({ profile: { id }, depth }) => `${depth} ${id}`)).toEqual(['0 house', '1 desk', '2 note', '0 lost', '0 reply']);
});

test('profiles that extend each other in a circle are still listed', () => {
  expect(inFamilyOrder([profile('a', 'b'), profile('b', 'a')])).toHaveLength(2);
});

test('those that extend a profile are found through others, in a long row and in a circle', () => {
  const row = Array.from({ length: 3000 }, (_, n) => profile(`p${n}`, n === 0 ? undefined : `p${n - 1}`));
  expect(descendantsOf('p0', row).size).toBe(2999);
  expect(descendantsOf('p2999', row).size).toBe(0);
  expect([...descendantsOf('a', [profile('a', 'b'), profile('b', 'a')])].sort()).toEqual(['a', 'b']);
});

test.each([
  ['Picture desk', 'picture-desk'],
  ['  Crew & Café! ', 'crew-cafe'],
  ['2nd desk', 'nd-desk'],
  ['!!!', ''],
])('the id made from %j is %j', (name, id) => expect(idFrom(name)).toBe(id));

test('two versions differ where their settings do', () => {
  const mine = { name: 'A', markup: { elements: { p: {}, u: {} } }, toolbar: { order: ['a'] } };
  const theirs = { name: 'A', markup: { elements: { p: {} } }, toolbar: { order: ['b'] } };
  expect(differencesOf(mine, theirs)).toEqual([
    { pointer: '/markup/elements/u', one: {}, other: undefined },
    { pointer: '/toolbar/order', one: ['a'], other: ['b'] },
  ]);
});
