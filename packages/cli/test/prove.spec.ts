import { mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO, file, folder, HOUSE, STORY, typikon } from './calls';

const SPECIMENS = join(DEMO, 'specimens');
const profileFile = (id: string): string => join(DEMO, 'profiles', `${id}.json`);

/** The profiles that specimens of the demo are meant for. */
const meant = new Set(
  readdirSync(SPECIMENS)
    .filter((name) => name.endsWith('.specimen.json'))
    .map((name) => (JSON.parse(readFileSync(join(SPECIMENS, name), 'utf8')) as { profile: string }).profile),
);

const specimen = (more: object = {}) => ({
  format: 'typikon-specimen/1',
  id: 'letter',
  name: 'A letter',
  profile: 'open',
  payload: { types: { 'text/html': '<p style="color: red">Low water <font>at four</font></p><form>gone</form>' } },
  expectations: [{ expect: 'no-inline-style' }, { expect: 'text-has', text: 'Low water at four' }],
  ...more,
});

const OPEN = file('open.json', { format: 'typikon-profile/1', name: 'Open', markup: { elements: { p: {}, form: { outcome: 'drop' } } } });

describe('typikon prove', () => {
  test.each([...meant])('the specimens meant for %s meet what is expected of them', (id) => {
    const { status, out } = typikon(['prove', '--profile', profileFile(id), '--house', HOUSE, '--own', SPECIMENS]);
    expect(out).toMatch(/^(met {3}[a-z-]+: .* expectations met; [\d.]+ % of the letters kept, \d+ changes\n)+$/);
    expect(status).toBe(0);
  });

  test('one that is not met is told with what did it, and where', () => {
    const path = file('letter.json', specimen({ expectations: [{ expect: 'text-has', text: 'gone' }, { expect: 'no-inline-style' }] }));
    const { status, out } = typikon(['prove', '--profile', OPEN, path]);
    expect(status).toBe(1);
    expect(out.split('\n')).toEqual([
      'UNMET letter: 1 of 2 expectations met; 77.8 % of the letters kept, 3 changes',
      '      The text has “gone”: found not there',
      '        A form went, with its content, and 4 letters of text with it (open /markup/elements/form, line 1, column 57)',
      '',
    ]);
  });

  test('tells everything as JSON, with the entries that explain', () => {
    const path = file('letter.json', specimen({ expectations: [{ expect: 'count', of: 'form', is: 1 }] }));
    const { status, out } = typikon(['prove', '--profile', OPEN, '--json', path]);
    expect(status).toBe(1);
    expect(JSON.parse(out)).toMatchObject({
      profile: 'open',
      specimens: [
        {
          file: path,
          id: 'letter',
          html: '<p>Low water at four</p>',
          verdicts: [
            { isMet: false, found: 'none', explanation: [{ reason: 'element-dropped', subject: { kind: 'element', element: 'form' } }] },
          ],
        },
      ],
    });
  });

  test('writes JUnit XML that holds whatever a specimen is called', () => {
    const junit = join(folder, 'results.xml');
    const odd = specimen({
      name: 'A "<odd>" & \u0007 name',
      id: undefined,
      expectations: [{ expect: 'text-has', text: '<b> & "c"' }, { expect: 'no-office' }],
    });
    expect(typikon(['prove', '--profile', OPEN, '--junit', junit, file('odd.json', odd)]).status).toBe(1);
    const xml = readFileSync(junit, 'utf8');
    expect(xml).toMatch(
      /^<\?xml version="1\.0" encoding="UTF-8"\?>\n<testsuites name="typikon prove open" tests="2" failures="1" time="[\d.]+">\n/,
    );
    expect(xml).toContain('<testsuite name="A &quot;&lt;odd&gt;&quot; &amp; \ufffd name" file="');
    expect(xml).toContain('<testcase name="The text has “&lt;b&gt; &amp; &quot;c&quot;”"');
    expect(xml).toContain('<failure message="found not there" type="expectation">');
    expect(xml.match(/<testcase /g)).toHaveLength(2);
    // Every tag is closed, in its order.
    const open: string[] = [];
    for (const [, close, name, , self] of xml.matchAll(/<(\/?)([a-z]+)((?: [a-z]+="[^"<]*")*)(\/?)>/g))
      if (close === '/') expect(open.pop()).toBe(name);
      else if (self !== '/') open.push(name!);
    expect(open).toEqual([]);
  });

  test('writes what now comes out, and nothing else of the file changes', () => {
    const at = join(folder, 'update');
    mkdirSync(at, { recursive: true });
    writeFileSync(join(at, 'letter.html'), '<p>One</p><ul><li>two</li></ul><b>three</b>');
    const document = specimen({
      payload: { types: { 'text/html': { file: 'letter.html' } } },
      expectations: [{ expect: 'count', of: 'li', is: 4 }, { expect: 'text-has', text: 'four' }, { expect: 'no-office' }],
    });
    const path = join(at, 'letter.json');
    writeFileSync(path, JSON.stringify(document));
    const run = (...more: string[]) => typikon(['prove', '--profile', OPEN, ...more, at]);
    expect(run().status).toBe(1);
    expect(run('--update')).toMatchObject({
      status: 0,
      out: 'updated   letter\n  - There are 4 <li>\n  - The text has “four”\n  + There are 0 <li>\n',
    });
    expect(JSON.parse(readFileSync(path, 'utf8'))).toEqual({
      ...document,
      expectations: [{ expect: 'count', of: 'li', is: 0 }, { expect: 'no-office' }],
    });
    expect(run('--update')).toMatchObject({ status: 0, out: 'as it was letter\n' });
    expect(run().status).toBe(0);
  });

  test('makes expectations for a specimen that has none, which it then meets', () => {
    const path = file('bare.json', [specimen({ expectations: [] }), specimen({ id: 'other', expectations: [{ expect: 'no-office' }] })]);
    const { out } = typikon(['prove', '--profile', OPEN, '--update', path]);
    expect(out).toMatch(/^updated {3}letter\n( {2}\+ .*\n){4,}as it was other\n$/);
    const [one, other] = JSON.parse(readFileSync(path, 'utf8')) as { expectations: unknown[] }[];
    expect(one!.expectations).toContainEqual({ expect: 'text-is', text: 'Low water at four' });
    expect(other!.expectations).toHaveLength(1);
    expect(typikon(['prove', '--profile', OPEN, path]).status).toBe(0);
  });

  test.each([
    ['nothing to run', [], /Give specimens, or a folder of them/],
    ['a folder without any', [join(DEMO, 'documents')], /holds no specimen/],
    ['a file that is not there', [join(folder, 'none.json')], /there is no such file/],
    ['what is no specimen', [file('no.json', { format: 'typikon-specimen/1', name: 'x' })], /no\.json at \/profile: /],
    [
      'content outside the folder',
      [file('out.json', specimen({ payload: { types: { 'text/html': { file: '../secret.html' } } } }))],
      /the file "\.\.\/secret\.html" must stand beside the specimen/,
    ],
    [
      'content that is not there',
      [file('gone.json', specimen({ payload: { types: { 'text/html': { file: 'gone.html' } } } }))],
      /gone\.html: cannot be read/,
    ],
    [
      'none for this profile',
      ['--own', file('other.json', specimen({ profile: 'story-desk' }))],
      /None of the specimens is meant for the profile "open"/,
    ],
  ])('says what is wrong with %s', (_what, args, message) => {
    const { status, out, error } = typikon(['prove', '--profile', OPEN, ...args]);
    expect([status, out]).toEqual([2, '']);
    expect(error).toMatch(message);
    expect(error.trim().split('\n')).toHaveLength(1);
  });

  test('a file that cannot be written is told', () =>
    expect(
      typikon(['prove', '--profile', STORY, '--junit', join(folder, 'no', 'such', 'folder.xml'), file('letter.json', specimen())]),
    ).toMatchObject({
      status: 2,
      error: expect.stringMatching(/cannot be written, ENOENT/) as string,
    }));
});
