import { specimenSchema, type SpecimenDocument } from '@typikon/core';
import { strToU8, zipSync } from 'fflate';
import { readFolder, readSpecimenFiles } from '../src/features/specimens/specimen-files';
import { folderOf, specimensIn, unzipped, zipped } from '../src/features/specimens/specimen-folder';
import { demoLibrary } from './support';

const specimen = (id: string, types: Record<string, string>): SpecimenDocument & { id: string } => ({
  ...specimenSchema.parse({
    format: 'typikon-specimen/1',
    name: `The ${id}`,
    profile: 'story-desk',
    payload: { types },
    expectations: [{ expect: 'no-office' }],
  }),
  id,
});

/** What holds content that a file could spoil. */
const ODD = [
  specimen('letter', { 'text/html': '<p>Größe \u{1f6a2}\r\n\0</p>', 'text/plain': '', 'text/rtf': '{\\rtf1 x}', 'application/x-odd': '1' }),
  specimen('empty', {}),
];

test('a folder of specimens is read back as what it was written of, by way of a ZIP file too', async () => {
  const demo = demoLibrary().specimens.map(({ id, profileId, revision: _revision, ...rest }) => ({
    ...specimenSchema.parse({ ...rest, format: 'typikon-specimen/1', profile: profileId }),
    id,
  }));
  const all = [...demo, ...ODD];
  const folder = folderOf(all);
  expect([...folder.keys()].filter((name) => name.startsWith('letter.'))).toEqual([
    'letter.specimen.json',
    'letter.html',
    'letter.txt',
    'letter.rtf',
    'letter.4.txt',
  ]);
  expect(specimensIn(folder)).toEqual(all);
  expect(specimensIn(await unzipped(await zipped(folder)))).toEqual(all);
});

const file = (name: string, content: string | Uint8Array<ArrayBuffer>, path = ''): File => {
  const made = new File([content], name);
  if (path !== '') Object.defineProperty(made, 'webkitRelativePath', { value: path });
  // jsdom has neither.
  Object.assign(made, {
    text: () => Promise.resolve(typeof content === 'string' ? content : ''),
    arrayBuffer: () => Promise.resolve((typeof content === 'string' ? new TextEncoder().encode(content) : content).buffer),
  });
  return made;
};
const named = (name: string): string => JSON.stringify({ ...specimen('letter', {}), payload: { types: { 'text/html': { file: name } } } });

test('files that are taken together are one folder, wherever in it a specimen stands', async () => {
  const read = await readFolder([
    file('letter.specimen.json', named('parts/letter.html'), 'tests/deep/letter.specimen.json'),
    file('letter.html', '<p>words</p>', 'tests/deep/parts/letter.html'),
    file('order.json', '["letter"]', 'tests/order.json'),
    file('readme.md', '# Tests', 'tests/readme.md'),
  ]);
  expect(read.map(({ name, payload, specimen: whole }) => [name, payload.types, whole?.id])).toEqual([
    ['The letter', { 'text/html': '<p>words</p>' }, 'letter'],
  ]);
});

test('a ZIP file is taken as a folder, and a single specimen by itself', async () => {
  const zip = zipSync({ 'a/': new Uint8Array(), 'a/letter.json': strToU8(named('letter.html')), 'a/letter.html': strToU8('<p>x</p>') });
  const [fromZip] = await readSpecimenFiles(file('tests.zip', zip));
  expect(fromZip?.payload.types).toEqual({ 'text/html': '<p>x</p>' });
  const [alone] = await readSpecimenFiles(file('one.json', JSON.stringify(ODD)));
  expect([alone?.name, alone?.specimen?.id]).toEqual(['The letter', 'letter']);
});

test.each<[string, () => Promise<unknown>, RegExp]>([
  [
    'content that is missing',
    () => readFolder([file('a.json', named('b.html')), file('c.html', '')]),
    /a\.json: the file "b\.html" is not there/,
  ],
  ['a way out of the folder', () => readSpecimenFiles(file('a.json', named('../b.html'))), /must stand beside the specimen/],
  ['a mistake', () => readSpecimenFiles(file('a.json', '{"format": "typikon-specimen/1"}')), /a\.json has a mistake at \/name/],
  ['what is no JSON', () => readSpecimenFiles(file('a.json', '{')), /a\.json is not JSON/],
  ['a folder without any', () => readFolder([file('a.json', '{}'), file('b.html', '')]), /There is no specimen in it/],
  ['what is no ZIP file', () => readSpecimenFiles(file('a.zip', new Uint8Array([1, 2, 3]))), /a\.zip cannot be read/],
  [
    'more than a folder of specimens is',
    () => readSpecimenFiles(file('a.zip', zipSync(Object.fromEntries(Array.from({ length: 5001 }, (_, i) => [`${i}`, new Uint8Array()]))))),
    /holds more than a folder of specimens does/,
  ],
])('says what is wrong with %s', async (_what, read, message) => {
  await expect(read()).rejects.toThrow(message);
});
