import { KnownPages } from '../src/state/known-pages';

const THERE = ['quay', 'slip'];

test('pages are told by their documents; what was found is not looked for again', async () => {
  const asked: string[][] = [];
  const pages = new KnownPages((ids) => {
    asked.push([...ids]);
    return Promise.resolve(THERE.filter((id) => ids.includes(id)));
  });
  expect(await pages.among(['/', '/documents/quay', '/documents/gone', '/lost', '/documents/a/b'])).toEqual(['/', '/documents/quay']);
  expect(await pages.among(['/documents/slip', '/documents/gone', '/lost'])).toEqual(['/documents/slip']);
  expect(asked).toEqual([
    ['quay', 'gone'],
    ['slip', 'gone'],
  ]);
});

test('many are asked about in parts', async () => {
  const sizes: number[] = [];
  const pages = new KnownPages((ids) => {
    sizes.push(ids.length);
    return Promise.resolve(ids);
  });
  const paths = Array.from({ length: 450 }, (_, n) => `/documents/page-${n}`);
  expect(await pages.among(paths)).toEqual(paths);
  expect(sizes).toEqual([200, 200, 50]);
});

test('where nobody can be asked nothing is blamed, and it is asked again', async () => {
  let isDown = true;
  const pages = new KnownPages(() => (isDown ? Promise.reject(new Error('gone')) : Promise.resolve([])));
  expect(await pages.among(['/documents/quay'])).toEqual(['/documents/quay']);
  isDown = false;
  expect(await pages.among(['/documents/quay'])).toEqual([]);
});
