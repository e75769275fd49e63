import type { EditorServices, LibraryPicture } from '@typikon/editor';
import { confined } from '../src/shared/writing/confined';

const ALL = { linksWithin: '', picturesFrom: '', picturesInto: '' };
const picture = (title: string, folder: string): LibraryPicture => ({
  address: `/assets/${title}`,
  title,
  alt: '',
  folder,
  widthPx: 100,
  heightPx: 50,
});
const LIBRARY = [picture('slip', 'Harbours'), picture('quay', 'Harbours'), picture('crew', 'News'), picture('plan', 'Offices')];

let stored: string[];
const services: EditorServices = {
  pages: {
    find: (query) =>
      Promise.resolve(
        ['/timetables/ferry', '/documents/quay']
          .filter((address) => address.includes(query))
          .map((address) => ({ title: address, address, kind: 'Page' })),
      ),
  },
  pictures: {
    folders: () => Promise.resolve(['Harbours', 'News', 'Offices']),
    list: (query, folder) =>
      Promise.resolve(LIBRARY.filter((one) => one.title.includes(query) && (folder === '' || one.folder === folder))),
    store: (file, { folder }) => {
      stored.push(`${folder}/${file.name}`);
      return Promise.resolve({ picture: picture(file.name, folder) });
    },
  },
};

const titles = async (field: typeof ALL, query = '', folder = ''): Promise<string[]> =>
  (await confined(services, field).pictures!.list(query, folder)).map(({ title }) => title);
const keep = async (field: typeof ALL): Promise<string[]> => {
  await confined(services, field).pictures!.store(new File([], 'new.png'), { alt: '', folder: 'News', widestPx: 100, sameName: 'ask' });
  return stored;
};

beforeEach(() => (stored = []));

test('a field that names no folder offers everything, and pictures go where the author says', async () => {
  expect(await titles(ALL)).toEqual(['slip', 'quay', 'crew', 'plan']);
  expect(await confined(services, ALL).pictures!.folders()).toEqual(['Harbours', 'News', 'Offices']);
  expect(await confined(services, ALL).pages!.find('')).toHaveLength(2);
  expect(await keep(ALL)).toEqual(['News/new.png']);
});

test('pictures are offered from the field’s folders alone', async () => {
  const field = { ...ALL, picturesFrom: 'Harbours', picturesInto: 'News' };
  expect(await titles(field)).toEqual(['slip', 'quay', 'crew']);
  expect(await titles(field, 'qu')).toEqual(['quay']);
  expect(await titles(field, '', 'News')).toEqual(['crew']);
  expect(await titles(field, '', 'Offices')).toEqual([]);
  expect(await confined(services, field).pictures!.folders()).toEqual(['Harbours', 'News']);
});

test('an author’s own pictures go into the folder that is for them', async () =>
  expect(await keep({ ...ALL, picturesInto: 'Harbours' })).toEqual(['Harbours/new.png']));

test.each(['/timetables/', 'timetables/'])('pages are offered from %s alone', async (linksWithin) =>
  expect((await confined(services, { ...ALL, linksWithin }).pages!.find('')).map(({ address }) => address)).toEqual(['/timetables/ferry']),
);

test('an editor without pictures and pages gets none', () => expect(confined({}, { ...ALL, picturesFrom: 'News' })).toEqual({}));
