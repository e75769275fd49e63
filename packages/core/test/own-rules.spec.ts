import { ownRules } from '../src/index';

test('what a profile sets itself is counted by chapter; what says who it is does not count', () => {
  expect(
    ownRules({
      format: 'typikon-profile/1',
      name: 'Diary',
      purpose: 'Days',
      extends: 'house',
      markup: { elements: { p: { attributes: { class: { kind: 'any' } } }, u: null }, comments: 'drop' },
      toolbar: { groups: [{ id: 'text' }, { id: 'lists' }] },
      paste: {},
    }),
  ).toEqual([
    { chapter: 'markup', count: 3 },
    { chapter: 'toolbar', count: 1 },
  ]);
});

test('a document that says nothing sets nothing, however deep its objects are', () => {
  let deep: Record<string, never> | { in: unknown } = {};
  for (let n = 0; n < 50_000; n++) deep = { in: deep };
  expect(ownRules({ markup: deep as never })).toEqual([]);
});
