import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO, file, folder, HOUSE, STORY, typikon } from './calls';

jest.setTimeout(60_000);

describe('typikon reach and typikon fit', () => {
  const documents = join(folder, 'documents');
  mkdirSync(join(documents, 'older'), { recursive: true });
  const kept = '<p>One</p>';
  writeFileSync(join(documents, 'a.html'), kept);
  writeFileSync(join(documents, 'b.html'), '<p>Two <b>three</b></p><aside>Four five</aside>');
  writeFileSync(join(documents, 'notes.txt'), '<aside>no document</aside>');
  writeFileSync(join(documents, 'older', 'c.HTM'), '<aside>Six</aside>');
  const profileWith = (name: string, elements: object): string =>
    file(`${name}.json`, { format: 'typikon-profile/1', name, markup: { elements } });
  const wide = profileWith('wide', { p: {}, b: {}, aside: {} });
  const narrow = profileWith('narrow', { p: {}, aside: { outcome: 'drop' } });

  test('tell which documents come out differently, what goes and by which rule', () => {
    const { status, out } = typikon(['reach', '--from', wide, '--to', narrow, '--json', documents]);
    expect(status).toBe(0);
    expect(JSON.parse(out)).toMatchObject({
      documents: 3,
      touched: 2,
      losing: { documents: 2, words: 3 },
      groups: [
        { kind: 'taken', harm: 'words', element: 'aside', documents: 2, files: ['b.html', 'older/c.HTM'] },
        { kind: 'taken', harm: 'look', element: 'b', documents: 1, files: ['b.html'] },
      ],
      files: [
        {
          file: 'b.html',
          textLost: 8,
          wordsLost: ['Four', 'five'],
          entries: [{ action: 'unwrapped' }, { action: 'removed', textLost: 8 }],
        },
        { file: 'older/c.HTM', textLost: 3, wordsLost: ['Six'] },
      ],
    });
    expect(typikon(['reach', '--from', wide, '--to', narrow, documents]).out).toMatch(
      /^3 documents looked at, 2 come out differently\.\n2 lose words, 3 in all\.\n\n2 <aside> .*\(\/markup\/elements\/aside\): words are lost\n {4}2 documents, 2 places: b\.html, older\/c\.HTM\n/,
    );
    expect(typikon(['reach', '--from', narrow, '--to', wide, documents]).out).toMatch(
      /2 keep words that went before, 3 in all\.\n\nNo more: /,
    );
  });

  test('of the demo agree with cleaning every document by both', () => {
    const notices = join(DEMO, 'profiles', 'notices-desk.json');
    const { files, touched } = JSON.parse(
      typikon(['reach', '--from', STORY, '--to', notices, '--house', HOUSE, '--json', join(DEMO, 'documents')]).out,
    ) as { files: { file: string }[]; touched: number };
    const cleanedBy = (profile: string, name: string): string =>
      typikon(['clean', '--profile', profile, '--house', HOUSE, join(DEMO, 'documents', name)]).out;
    const differing = readdirSync(join(DEMO, 'documents')).filter((name) => cleanedBy(STORY, name) !== cleanedBy(notices, name));
    expect(files.map(({ file: name }) => name)).toEqual(differing.sort());
    expect(touched).toBe(differing.length);
    expect(touched).toBeGreaterThan(0);
  });

  test('find the least rules for a share of the documents, and say where the limits allow no more', () => {
    const { status, out } = typikon(['fit', '--keep', '0.5', '--json', documents]);
    expect(status).toBe(0);
    expect(JSON.parse(out)).toMatchObject({
      documents: 3,
      whole: 2,
      rules: 2,
      profile: { markup: { elements: { p: {}, aside: {} } } },
      curve: [{ allows: [], kept: 0 }, { allows: ['<p>'], risk: 1 }, { allows: ['<aside>'] }, { allows: ['<b>'], kept: 1 }],
    });
    const house = file('fit-house.json', { format: 'typikon-house/1', markup: { elements: { p: {}, b: {} } } });
    const limited = typikon(['fit', '--house', house, '--keep', '1', documents]);
    expect(limited.status).toBe(1);
    expect(limited.out).toMatch(
      /No profile under these limits keeps more than 1 document of 3 whole\.\n1 of 3 documents whole \(33\.3 %\) with 1 rule of risk 1/,
    );
  });

  test.each([
    [['reach', '--from', wide, '--to', narrow], /Give one folder of documents/],
    [['reach', '--from', wide, '--to', narrow, documents, documents], /Give one folder of documents/],
    [['reach', '--from', wide, documents], /The option --to is missing/],
    [['reach', '--from', wide, '--to', narrow, '--role', 'x', documents], /--role only matters with --house/],
    [['reach', '--from', wide, '--to', narrow, join(documents, 'none')], /none: cannot be read as a folder of documents/],
    [['fit', join(documents, 'a.html')], /cannot be read as a folder/],
    [['fit', '--keep', '95', documents], /--keep must be a share from 0 to 1, such as 0\.95, not "95"/],
    [['fit', '--keep', '1.5', documents], /--keep must be a share/],
  ])('%j says what is wrong', (args, said) => {
    const { status, error, out } = typikon(args);
    expect([status, out]).toEqual([2, '']);
    expect(error).toMatch(said);
    expect(error.trimEnd()).not.toContain('\n');
  });

  test('a folder without documents is said to be one', () => {
    const empty = join(folder, 'empty');
    mkdirSync(empty);
    expect(typikon(['fit', empty]).error).toMatch(/empty: holds no document, a file whose name ends with \.html or \.htm\./);
  });
});
