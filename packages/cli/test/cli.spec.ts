import { spawnSync } from 'node:child_process';
import { createRequire } from 'node:module';
import type { JsonObject } from '@typikon/core';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { COMMANDS } from '../src/commands/index';
import { BIN, DEMO, file, folder, HOUSE, started, STORY, typikon } from './calls';

const head = { format: 'typikon-profile/1', name: 'A profile' };

jest.setTimeout(60_000);

describe('typikon clean', () => {
  test('reads standard input and writes what may be stored', () => {
    expect(started(['clean', '--profile', STORY], '<p onclick="x()">Hi <b>there</b></p>')).toEqual({
      status: 0,
      out: '<p>Hi <strong>there</strong></p>',
      error: '',
    });
    expect(started(['clean', '--profile', STORY, '-'], '<p>x').out).toBe('<p>x</p>');
  });
  test('reads a file', () => {
    expect(started(['clean', '--profile', STORY, file('in.html', '<p>from a file</p>')]).out).toBe('<p>from a file</p>');
  });
  test('--json adds the ledger and the measures', () => {
    const { html, ledger, measures } = JSON.parse(typikon(['clean', '--profile', STORY, '--json'], '<p>a<font>b</font></p>').out) as {
      html: string;
      ledger: object[];
      measures: object;
    };
    expect(html).toBe('<p>ab</p>');
    expect(ledger).toMatchObject([
      {
        stage: 'markup',
        layer: 'parent-profile',
        origin: 'house',
        rule: '/markup/unlisted',
        start: 4,
        end: 18,
        before: '<font>',
        reason: 'element-not-allowed',
      },
    ]);
    expect(measures).toMatchObject({ changes: 1, losses: 0 });
  });
  test('--jsonl writes a line for each line', () => {
    const out = typikon(['clean', '--profile', STORY, '--jsonl'], '{"id":1,"html":"<i>a</i>"}\n\n{"id":"b","html":"<p>b"}\n').out;
    expect(
      out
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as object),
    ).toMatchObject([
      { id: 1, html: '<em>a</em>' },
      { id: 'b', html: '<p>b</p>', ledger: [] },
    ]);
  });
  test('house limits bind, and a trusted role is excepted', () => {
    const profile = file('frames.json', {
      ...head,
      markup: { elements: { iframe: { attributes: { src: { test: 'url', hosts: ['cams.orrenstrand.example'] } } } } },
    });
    const frame = '<iframe src="https://cams.orrenstrand.example/slip"></iframe>';
    expect(typikon(['clean', '--profile', profile, '--house', HOUSE], frame).out).toBe('');
    expect(typikon(['clean', '--profile', profile, '--house', HOUSE, '--role', 'web-team'], frame).out).toContain(
      '<iframe src="https://cams.orrenstrand.example/slip"',
    );
  });
  test('a large result is written whole', () => {
    const { out } = started(['clean', '--profile', STORY], '<p>0123456789</p>'.repeat(200_000));
    expect(out).toHaveLength(17 * 200_000);
  });
});

describe('typikon paste', () => {
  const list = '<p class=MsoNormal>- one</p><p>- <span style="font-weight:700">two</span></p>';
  test('takes HTML or a clipboard payload through the passes and the rules', () => {
    const wanted = '<ul><li>one</li><li><strong>two</strong></li></ul>';
    expect(typikon(['paste', '--profile', STORY, file('paste.html', list)]).out).toBe(wanted);
    expect(typikon(['paste', '--profile', STORY, file('payload.json', { types: { 'text/html': list }, files: [] })]).out).toBe(wanted);
    expect(typikon(['paste', '--profile', STORY, '-'], '{"types": {"text/plain": "a\\n\\nb"}}').out).toBe('<p>a</p>\n<p>b</p>');
  });
  test('--json adds the source, the ledger and what every pass did', () => {
    const { source, trace, ledger } = JSON.parse(typikon(['paste', '--profile', STORY, '--json', file('paste.html', list)]).out) as {
      source: { source: string; evidence: object[] };
      trace: { pass: string; ran: boolean; changes: number; bytes: number; html: string }[];
      ledger: { stage: string; rule: string }[];
    };
    expect(source.source).toBe('word-processor');
    expect(trace.find(({ pass }) => pass === 'lists')).toMatchObject({ ran: true, changes: 2 });
    expect(trace.at(-1)!.html).toContain('<strong>two</strong>');
    expect(ledger[0]).toMatchObject({ stage: 'paste', rule: '/paste/passes/lists' });
  });
  test('what is no payload is refused with the reason', () => {
    expect(typikon(['paste', '--profile', STORY, file('bad.json', { kinds: {} })])).toMatchObject({
      status: 2,
      error: expect.stringMatching(/bad\.json: a clipboard payload needs "types"/) as string,
    });
  });
});

describe('typikon check', () => {
  test('exit code 0 without findings, 1 with some', () => {
    expect(typikon(['check', '--profile', STORY, '--house', HOUSE])).toMatchObject({ status: 0, out: '' });
    const profile = file('button.json', { ...head, toolbar: { order: ['g'], groups: { g: { label: 'G', buttons: ['underline'] } } } });
    const { status, out } = typikon(['check', '--profile', profile, '--json']);
    expect(status).toBe(1);
    expect(JSON.parse(out)).toMatchObject([{ check: 'button-without-markup' }, { check: 'empty-purpose' }]);
  });
  test('what stands around a profile is checked where it is given', () => {
    const profile = file('around.json', {
      ...head,
      purpose: 'Tests.',
      markup: { elements: { p: { attributes: { class: { test: 'tokens', values: ['ghost'] } } } }, limits: { nesting: 2 } },
    });
    const css = file('sheet.css', '.note { color: red }');
    const { out } = typikon(['check', '--profile', profile, '--css', css, '--documents', join(DEMO, 'documents')]);
    expect(out).toMatch(
      /^warning: class on p may be ghost, but no stylesheet.*\nwarning: The limit is 2 levels deep, but a stored document has/,
    );
  });
});

describe('typikon check with what stands around a profile', () => {
  const all = (profile: string, ...more: string[]) =>
    typikon(['check', '--profile', join(DEMO, 'profiles', `${profile}.json`), '--house', HOUSE, ...more]);
  const kinds = join(DEMO, 'page-kinds.json');
  const list = join(DEMO, 'documents.json');

  test('pages, what is stored and the site each add what only they tell', () => {
    expect(all('story-desk').out).toBe('');
    expect(all('story-desk', '--page-kinds', kinds).out).toMatch(/^warning: The style “Fare note” shows nothing on “News page”/);
    expect(all('story-desk', '--page-kinds', kinds, '--stored', list).out).toMatch(/^note: Stored documents use rounded \(2 places\)/m);
    const { out, status } = all('story-desk', '--site', join(DEMO, 'site.json'), '--json');
    expect(status).toBe(1);
    expect((JSON.parse(out) as { check: string }[]).map(({ check }) => check)).toContain('statement-never-reached');
  });

  test.each<[string, string[], RegExp]>([
    [
      'two ways to say what is stored',
      ['--stored', list, '--documents', join(DEMO, 'documents')],
      /either --documents, a folder, or --stored/,
    ],
    ['kinds of page that are none', ['--page-kinds', file('kinds.json', [{ id: 'a' }])], /kinds\.json at \/0\/name: /],
    ['a list that is none', ['--page-kinds', file('no-list.json', {})], /no-list\.json: must be a list/],
    [
      'a stylesheet that is not there',
      [
        '--page-kinds',
        file('alone.json', [
          { id: 'a', name: 'A', wrapper: [{ element: 'main' }], stylesheets: ['gone'], contentWidthPx: 720, widthsPx: [1280] },
        ]),
      ],
      /gone\.css: cannot be read, there is no such file/,
    ],
    [
      'a text that is not there',
      ['--stored', file('texts.json', [{ file: 'gone.html', profile: 'story-desk' }])],
      /gone\.html: cannot be read/,
    ],
    ['a site with a mistake', ['--site', file('bad-site.json', { format: 'typikon-site/1', types: 1 })], /bad-site\.json at \/types: /],
  ])('says what is wrong with %s', (_what, more, message) => {
    const { status, out, error } = all('story-desk', ...more);
    expect([status, out]).toEqual([2, '']);
    expect(error).toMatch(message);
  });
});

describe('typikon export', () => {
  test('writes a configuration of the HTML Sanitizer API, and beside it what that cannot say', () => {
    const { status, out, error } = typikon(['export', '--profile', STORY, '--house', HOUSE, '--as', 'sanitizer']);
    expect(status).toBe(0);
    expect((JSON.parse(out) as { elements: { name: string }[] }).elements.map(({ name }) => name)).toContain('blockquote');
    expect(error).toMatch(/Values are not tested/);
    expect(typikon(['export', '--profile', STORY, '--as', 'x']).error).toMatch(/"sanitizer", not "x"/);
  });
});

describe('a bad call', () => {
  test.each<[string, string[], RegExp]>([
    [
      'a wrong key',
      ['clean', '--profile', file('key.json', { ...head, markup: { elemnts: {} } })],
      /key\.json at \/markup\/elemnts: The key "elemnts" is not known here\./,
    ],
    [
      'a wrong key in a parent',
      ['clean', '--profile', (file('up.json', { ...head, surfce: {} }), file('down.json', { ...head, extends: 'up' }))],
      /up\.json at \/surfce: The key "surfce" is not known here\./,
    ],
    [
      'a missing parent',
      ['clean', '--profile', file('orphan.json', { ...head, extends: 'nobody' })],
      /orphan\.json at \/extends: Its parent "nobody" is missing\./,
    ],
    [
      'a profile that is not there',
      ['clean', '--profile', join(folder, 'none.json')],
      /none\.json: cannot be read, there is no such file\./,
    ],
    [
      'an input that is not there',
      ['clean', '--profile', STORY, join(folder, 'none.html')],
      /none\.html: cannot be read, there is no such file\./,
    ],
    ['a folder as input', ['clean', '--profile', STORY, folder], /it is a folder/],
    ['broken JSON', ['clean', '--profile', file('broken.json', '{\n  "format": oops\n}')], /broken\.json(:2:\d+)?: is not JSON/],
    ['no profile', ['clean'], /--profile is missing/],
    ['an unknown option', ['clean', '--profil', STORY], /Unknown option '--profil'.*Usage:/],
    ['an unknown command', ['polish'], /There is no command "polish"/],
    ['two files', ['clean', '--profile', STORY, 'a', 'b'], /Only one file/],
    [
      'house limits with a wrong key',
      ['clean', '--profile', STORY, '--house', file('house.json', { format: 'typikon-house/1', markup: {}, roles: {} })],
      /house\.json at \/roles/,
    ],
  ])('%s: one line that says what and where, exit code 2', (_what, args, message) => {
    const { status, out, error } = typikon(args);
    expect(status).toBe(2);
    expect(out).toBe('');
    expect(error.trim().split('\n')).toHaveLength(1);
    expect(error).toMatch(message);
  });
  test('a line that is not JSON is named by its number', () => {
    const { status, error } = typikon(['clean', '--profile', STORY, '--jsonl'], '{"id":1,"html":"a"}\nnonsense\n');
    expect(status).toBe(2);
    expect(error).toMatch(/standard input:2: is not JSON/);
  });
  test('the help lists every command', () => {
    for (const args of [[], ['help'], ['--help'], ['-h']]) {
      const { status, out, error } = typikon(args);
      expect([status, error]).toEqual([0, '']);
      expect(out).toMatch(/typikon clean[\s\S]*typikon paste[\s\S]*typikon check/);
    }
  });
  test('the version is that of every part of Typikon', () => {
    const root = join(__dirname, '..', '..', '..');
    const of = (path: string) => (JSON.parse(readFileSync(join(root, path, 'package.json'), 'utf8')) as { version: string }).version;
    expect(typikon(['--version'])).toEqual({ status: 0, out: `${of('.')}\n`, error: '' });
    for (const part of ['core', 'editor', 'api', 'server', 'web', 'cli']) expect([part, of(`packages/${part}`)]).toEqual([part, of('.')]);
  });
  test.each([
    ['claen', 'Did you mean "clean"?'],
    ['Compare', 'Did you mean "compare"?'],
    ['likness', 'Did you mean "likeness"?'],
    ['frobnicate', 'There is no command "frobnicate". The commands are'],
  ])('a mistyped command: %s', (name, sentence) => {
    const { status, error } = typikon([name]);
    expect(status).toBe(2);
    expect(error).toContain(sentence);
  });
  test('a mistyped option gets the one that was meant', () => {
    const { status, error } = typikon(['clean', '--profil', STORY]);
    expect([status, error.trim().split('\n').length]).toEqual([2, 1]);
    expect(error).toContain('Did you mean --profile? Usage: typikon clean --profile');
  });
});

describe('help of a command', () => {
  const names = [...typikon(['--help']).out.matchAll(/^ {2}typikon ([a-z]+) \[?-/gm)].map(([, name]) => name!);

  test.each(names)('%s says what it does, what each option is for, and how it is called', (name) => {
    const { status, out, error } = typikon([name, '--help']);
    expect([status, error]).toEqual([0, '']);
    const [usage = '', , purpose = ''] = out.split('\n');
    const options = [...new Set([...usage.matchAll(/--([a-z-]+)/g)].map(([, option]) => option!))];
    expect(purpose).toMatch(/^[A-Z].*\.$/);
    for (const option of options) expect(out).toMatch(new RegExp(`^  --${option} +\\S`, 'm'));
    const examples = out.slice(out.indexOf('Examples:')).match(/^ {2}typikon .*/gm) ?? [];
    expect(examples.length).toBeGreaterThan(0);
    for (const example of examples) {
      expect(example).toContain(`typikon ${name} `);
      for (const [, option] of example.matchAll(/--([a-z-]+)/g)) expect(options).toContain(option);
      for (const [path] of example.matchAll(/demo\/[^ ,]+/g)) expect([path, existsSync(join(DEMO, '..', path))]).toEqual([path, true]);
    }
  });
  test('each has one', () => expect(names).toEqual(COMMANDS.map(({ name }) => name)));
  test('what stands behind -- is no option', () => expect(typikon(['clean', '--profile', STORY, '--', '--help']).status).toBe(2));
});

describe('typikon assign', () => {
  const site = {
    format: 'typikon-site/1',
    roles: [
      { id: 'desk', label: 'Communications' },
      { id: 'crew', label: 'Crew' },
    ],
    types: [
      { id: 'story', label: 'Story', icon: 'news', pageKind: 'article', fields: [{ key: 'body', title: 'Body', kind: 'rich' }] },
      { id: 'notice', label: 'Notice', fields: [{ key: 'text', title: 'Text' }] },
    ],
    assignments: [
      { roles: ['desk'], types: ['story'], fields: '*', profiles: ['story-desk', 'diary'] },
      { roles: '*', types: ['story'], fields: ['body'], profiles: ['reply'] },
    ],
    fragments: [],
  };
  const ask = (role: string, type: string, field: string, ...more: string[]) =>
    typikon(['assign', '--site', file('site.json', site), '--role', role, '--type', type, '--field', field, ...more]);

  test('names the statement that won, and those it beat', () => {
    const { status, out } = ask('desk', 'story', 'body', '--json');
    expect(JSON.parse(out)).toEqual({ profile: 'story-desk', choices: ['story-desk', 'diary'], statement: 0, beaten: [1] });
    expect(status).toBe(0);
    expect(JSON.parse(ask('crew,desk', 'story', 'body', '--json').out)).toMatchObject({ statement: 0 });
    expect(ask('crew', 'story', 'body').out).toBe('reply. By statement 1.\n');
    expect(ask('desk', 'story', 'body').out).toBe(
      'story-desk. By statement 0. It comes before 1, which fit as well. Also allowed: diary.\n',
    );
  });
  test('exit code 1 where nobody may write; the fallback where there is one', () => {
    const { status, out } = ask('desk', 'notice', 'text', '--json');
    expect({ status, answer: JSON.parse(out) }).toEqual({ status: 1, answer: { profile: null, choices: [], statement: null, beaten: [] } });
    const path = file('fallback.json', { ...site, fallback: ['house'] });
    expect(typikon(['assign', '--site', path, '--role', 'desk', '--type', 'notice', '--field', 'text']).out).toBe(
      'house. No statement fits, so the fallback holds.\n',
    );
  });
  test.each<[string, unknown, string[], RegExp]>([
    ['a role that is not there', site, ['cook', 'story', 'body'], /there is no role "cook"/],
    ['a type that is not there', site, ['desk', 'tender', 'body'], /there is no content type "tender"/],
    ['a field that the type has not', site, ['desk', 'notice', 'body'], /the content type "notice" has no field "body"/],
    ['another format', { format: 'x' }, ['desk', 'story', 'body'], /at \/format: must be "typikon-site\/1"/],
    ['a statement that is none', { ...site, assignments: [3] }, ['desk', 'story', 'body'], /at \/assignments\/0: must be an object/],
    [
      'profiles that are no list',
      { ...site, assignments: [{ ...site.assignments[0], profiles: 'x' }] },
      ['desk', 'story', 'body'],
      /at \/assignments\/0\/profiles: must be a list/,
    ],
  ])('%s: one line, and exit code 2', (_what, document, [role, type, field], sentence) => {
    const path = file('bad-site.json', document);
    const { status, error } = typikon(['assign', '--site', path, '--role', role!, '--type', type!, '--field', field!]);
    expect(error.trimEnd()).toMatch(sentence);
    expect(error.trimEnd()).not.toContain('\n');
    expect(status).toBe(2);
  });
});

describe('typikon compare', () => {
  const profile = (name: string) => join(DEMO, 'profiles', `${name}.json`);
  test('each line has a witness that both clean differently; exit code 1 where there are lines', () => {
    const { status, out } = typikon([
      'compare',
      '--from',
      profile('story-desk'),
      '--to',
      profile('notices-desk'),
      '--house',
      HOUSE,
      '--json',
    ]);
    expect(status).toBe(1);
    const { lines } = JSON.parse(out) as { lines: { subject: object; kept: string; sentence: string; witness: string }[] };
    expect(lines).toContainEqual({
      subject: { kind: 'element', element: 'figure' },
      kept: 'from',
      sentence: expect.stringMatching(/^<figure>: Story desk leaves it as it is; Notices desk /) as string,
      witness: expect.stringContaining('<figure>') as string,
    });
    const cleanedBy = (name: string): string[] =>
      typikon(
        ['clean', '--profile', profile(name), '--house', HOUSE, '--jsonl'],
        lines.map(({ witness }, id) => JSON.stringify({ id, html: witness })).join('\n'),
      )
        .out.trim()
        .split('\n')
        .map((line) => (JSON.parse(line) as { html: string }).html);
    const [from, to] = [cleanedBy('story-desk'), cleanedBy('notices-desk')];
    expect(from).toHaveLength(lines.length);
    from.forEach((html, at) => expect(html).not.toBe(to[at]));
  });
  test('exit code 0 and no lines for a profile beside itself; in words, each line is followed by its witness', () => {
    expect(typikon(['compare', '--from', STORY, '--to', STORY, '--json'])).toMatchObject({ status: 0, out: '{"lines":[],"passes":[]}\n' });
    expect(typikon(['compare', '--from', STORY, '--to', profile('notices-desk'), '--house', HOUSE]).out).toMatch(
      /<table>: Story desk takes the tag away, its content stays; Notices desk leaves it as it is\.\n {4}<table>/,
    );
    expect(typikon(['compare', '--from', STORY])).toMatchObject({ status: 2 });
  });
});

describe('typikon cascade', () => {
  const sheet = file(
    'a.css',
    'p { color: red; margin: 1px 2px }\n.note { color: blue }\n@media (max-width: 500px) { p.note { color: green } }',
  );
  const other = file('b.css', '@layer x { #i { color: black } }\np:nonsense { color: white }');
  const page = file('page.html', '<main><p class="note" id="i">a</p><p>b</p></main>');
  const lines = (out: string): { path: string; property: string; winner: { value: string } | null; losers: { value: string }[] }[] =>
    out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as never);

  test('tells for every element and property who wins and who loses, with sheet, selector and line', () => {
    const { status, out, error } = typikon(['cascade', '--sheets', `${sheet},${other}`, '--jsonl', page]);
    expect(status).toBe(0);
    expect(lines(out).filter(({ property }) => property === 'color')).toEqual([
      {
        path: 'html > body:nth-child(2) > main > p:nth-child(1)',
        property: 'color',
        winner: { sheet: 'a.css', selector: '.note', value: 'blue', important: false, line: 2 },
        losers: [
          { sheet: 'a.css', selector: 'p', value: 'red', important: false, line: 1 },
          { sheet: 'b.css', selector: '#i', value: 'black', important: false, line: 1 },
        ],
      },
      {
        path: 'html > body:nth-child(2) > main > p:nth-child(2)',
        property: 'color',
        winner: { sheet: 'a.css', selector: 'p', value: 'red', important: false, line: 1 },
        losers: [],
      },
    ]);
    expect(error).toBe('b.css:2: left out, p:nonsense (selector)\n');
  });
  test('answers for the properties that are asked for, also where nobody declares them, at a width', () => {
    const { out } = typikon(['cascade', '--sheets', sheet, '--width', '400', '--properties', 'color,margin-left,float', '--jsonl', page]);
    const first = lines(out).filter(({ path }) => path.endsWith('p:nth-child(1)'));
    expect(first.map(({ property, winner }) => [property, winner?.value ?? null])).toEqual([
      ['color', 'green'],
      ['margin-left', '2px'],
      ['float', null],
    ]);
    expect(lines(out)).toHaveLength(6 * 3);
  });
  test.each([
    [['--sheets', sheet], /Exactly one page must be given/],
    [[page], /--sheets is missing/],
    [['--sheets', sheet, '--width', 'wide', page], /--width is a whole number of pixels/],
    [['--sheets', 'gone.css', page], /gone\.css: cannot be read, there is no such file/],
  ])('%j is a bad call', (args, message) => {
    const { status, error } = typikon(['cascade', ...args]);
    expect(status).toBe(2);
    expect(error).toMatch(message);
    expect(error.trim().split('\n')).toHaveLength(1);
  });
});

describe('typikon likeness', () => {
  const site = file('l-site.css', 'p { margin: 0 0 1em }\nh2 { color: #17475c }\n');
  const figures = file('l-figures.css', '.rounded img { border-radius: 14px }\n.fare { background: #e3eef1; padding: 10px }\n');
  const general = file('l-general.css', '.page figure img { border-radius: 0 }\n');
  const editing = file('l-editing.css', 'h2 { color: black }\n');
  const page = file(
    'l-page.html',
    '<main class="page"><h2>x</h2><figure class="rounded"><img src="a.png" alt=""></figure>\n<p class="fare">y</p><p>z</p></main>',
  );
  interface Answer {
    elements: number;
    alike: number;
    share: number;
    causes: {
      kind: string;
      rule: { sheet: string; selector: string; line: number };
      instead: { sheet: string } | null;
      reason: string | null;
      lack: string | null;
      count: number;
      places: { line: number }[];
      repairs: { kind: string; css?: string; specificity?: string; tried: string; trial: { after: number } }[];
    }[];
    differences: { path: string; property: string; editor: string; page: string; cause: number; kind: string }[];
  }
  const answer = (...args: string[]): Answer => JSON.parse(typikon(['likeness', '--json', ...args, page]).out) as Answer;

  test('finds a file that is not loaded, and the place where it goes', () => {
    const { causes, differences, elements, alike } = answer('--editor', `${site},${figures}`, '--page', site);
    expect([elements, alike]).toEqual([8, 6]);
    expect(causes.map(({ kind, lack, rule }) => [kind, lack, rule.selector])).toEqual([
      ['no-rule', 'file', '.rounded img'],
      ['no-rule', 'file', '.fare'],
    ]);
    expect(causes[0]!.repairs[0]).toMatchObject({ kind: 'load-file', sheet: 'l-figures.css', after: 'l-site.css', trial: { after: 1 } });
    expect(differences).toContainEqual({
      document: page,
      path: 'html > body:nth-child(2) > main > p:nth-child(3)',
      property: 'background-color',
      editor: 'rgb(227, 238, 241)',
      page: 'rgba(0, 0, 0, 0)',
      cause: 2,
      kind: 'no-rule',
    });
  });
  test('finds a rule that is outweighed, by what, and the rule with the least weight that wins', () => {
    const { causes } = answer('--editor', `${site},${figures}`, '--page', `${site},${figures},${general}`);
    expect(causes).toHaveLength(1);
    expect(causes[0]).toMatchObject({
      kind: 'outweighed',
      reason: 'specificity',
      rule: { sheet: 'l-figures.css', line: 1, specificity: '0-1-1' },
      instead: { sheet: 'l-general.css', line: 1, specificity: '0-1-2' },
      count: 1,
      repairs: [
        {
          kind: 'add-rule',
          specificity: '0-1-2',
          tried: 'Settles 1 place in 1 document, changes nothing else.',
          trial: { after: 1, moved: [] },
        },
      ],
    });
    expect(causes[0]!.places[0]!.line).toBe(1);
  });
  test('knows a sheet that is only for editing', () => {
    expect(answer('--editor', site, '--editing', editing, '--page', site).causes).toMatchObject([
      {
        kind: 'only-in-editor',
        rule: { sheet: 'l-editing.css' },
        instead: { sheet: 'l-site.css' },
        repairs: [{ kind: 'take-out' }, { kind: 'add-rule' }],
      },
    ]);
  });
  test('says it in words too, with exit code 1 where something differs and 0 where nothing does', () => {
    const { status, out } = typikon(['likeness', '--editor', `${site},${figures}`, '--page', `${site},${figures},${general}`, page]);
    expect(status).toBe(1);
    expect(out).toMatch(/^7 of 8 elements look the same \(87\.5 %\)\.\n\n1\. Outweighed: \.rounded img\n/);
    expect(out).toMatch(/loses border-radius to \.page figure img \(l-general\.css, line 1\)/);
    expect(typikon(['likeness', '--editor', site, '--page', site, page])).toEqual({
      status: 0,
      out: '8 of 8 elements look the same (100.0 %).\n',
      error: '',
    });
  });
  test('compares at two widths', () => {
    const narrow = file('l-narrow.css', '@media (max-width: 600px) { h2 { font-size: 20px } }');
    const at = (width: string) => answer('--editor', narrow, '--page', narrow, '--page-width', width).causes.map(({ kind }) => kind);
    expect(at('500')).toEqual(['condition']);
    expect(at('700')).toEqual([]);
  });
  test.each([
    [['--page', site, page], /--editor is missing/],
    [['--editor', site, '--page', site], /At least one page must be given/],
    [['--editor', site, '--page', site, '--page-width', '0', page], /--page-width is a whole number of pixels/],
    [['--editor', 'gone.css', '--page', site, page], /gone\.css: cannot be read/],
  ])('%j is a bad call', (args, message) => {
    const { status, error } = typikon(['likeness', ...args]);
    expect(status).toBe(2);
    expect(error).toMatch(message);
  });
});

describe('one result everywhere', () => {
  const json = (path: string): JsonObject => JSON.parse(readFileSync(path, 'utf8')) as JsonObject;
  test('every part resolves the same version of each library of the core', () => {
    const root = join(__dirname, '..', '..', '..');
    const { dependencies } = json(join(root, 'packages', 'core', 'package.json')) as { dependencies: Record<string, string> };
    for (const [name, version] of Object.entries(dependencies))
      for (const part of ['core', 'editor', 'server', 'cli', 'web']) {
        const paths = createRequire(join(root, 'packages', part, 'package.json')).resolve.paths(name) ?? [];
        const found = paths.map((path) => join(path, name, 'package.json')).find((path) => existsSync(path));
        expect([part, name, found === undefined ? '' : (json(found)['version'] as string)]).toEqual([part, name, version]);
      }
  });
});

describe('whatever it is given', () => {
  const nots = Array.from({ length: 3000 }, (_unused, i) => `:not(.x${i}){color:red}`).join('');
  const nested = `.a,.b{${'& &,& &{'.repeat(24)}color:red${'}'.repeat(25)}`;
  const deep = '['.repeat(300_000);

  test.each<[string, () => string[], string, RegExp]>([
    [
      'deep JSON as a profile',
      () => ['clean', '--profile', file('deep.json', deep + ']'.repeat(300_000))],
      'x',
      /nested deeper than 100 levels/,
    ],
    ['JSON that breaks off', () => ['clean', '--profile', file('broken.json', deep)], 'x', /is not JSON/],
    [
      'deep JSON as house limits',
      () => ['clean', '--profile', STORY, '--house', file('deep-house.json', deep + ']'.repeat(300_000))],
      'x',
      /nested deeper/,
    ],
    ['null as a line to clean', () => ['clean', '--profile', STORY, '--jsonl'], 'null\n', /standard input:1: needs an object/],
    ['null as a line to paste', () => ['paste', '--profile', STORY, '--jsonl', '-'], 'null\n', /-:1: a clipboard payload needs "types"/],
    ['a list as a line to paste', () => ['paste', '--profile', STORY, '--jsonl', '-'], '[{"types":[]}]\n', /needs "types"/],
    ['a list of types', () => ['paste', '--profile', STORY, '-'], '{"types":[]}', /needs "types"/],
    ['a folder', () => ['clean', '--profile', STORY, folder], '', /it is a folder/],
    [
      'content deeper than browsers nest it',
      () => [
        'likeness',
        '--editor',
        file('a.css', 'p{color:red}'),
        '--page',
        file('b.css', 'p{color:blue}'),
        file('deep.html', '<div>'.repeat(50_000)),
      ],
      '',
      /50,002 levels deep; browsers show 512/,
    ],
    [
      'stylesheets that ask too much',
      () => [
        'likeness',
        '--editor',
        file('nots.css', nots),
        '--page',
        file('b.css', 'p{color:blue}'),
        file('many.html', '<p>x</p>'.repeat(20_000)),
      ],
      '',
      /need more than 20,000,000 steps/,
    ],
    ['a command that is none', () => ['nothing'], '', /There is no command "nothing"/],
  ])('%s: one line, and exit code 2', (_what, args, input, sentence) => {
    const { status, out, error } = started(args(), input);
    expect(error).toMatch(sentence);
    expect(error.trimEnd()).not.toContain('\n');
    expect(error).not.toMatch(/^\s+at /m);
    expect({ status, out }).toEqual({ status: 2, out: '' });
  });

  test('a stylesheet of three hundred bytes with 24 levels of nesting is read at once', () => {
    const { status, out } = started([
      'cascade',
      '--sheets',
      file('nested.css', nested),
      '--properties',
      'color',
      '--jsonl',
      file('small.html', '<p class="a">x</p>'),
    ]);
    expect(status).toBe(0);
    expect(out).toContain('"winner":null');
  });

  test('thousands of headings are compared', () => {
    const { status, out } = started([
      'likeness',
      '--editor',
      file('e.css', 'h2{color:red;margin:1em}'),
      '--page',
      file('p.css', '.x h2{color:blue} h2{font-size:20px}'),
      file('headings.html', '<h2>x</h2>'.repeat(5000)),
    ]);
    expect(status).toBe(1);
    expect(out).toContain('and 4995 more places');
  });

  test('a full disk is told, and a pipe that is closed ends it quietly', () => {
    const shell = (command: string) => spawnSync('bash', ['-c', command], { encoding: 'utf8', input: '<p>x</p>'.repeat(100_000) });
    const full = shell(`${process.execPath} ${BIN} clean --profile ${STORY} > /dev/full`);
    expect([full.status, full.stderr]).toEqual([2, 'typikon: The output cannot be written: the disk is full.\n']);
    const closed = shell(`${process.execPath} ${BIN} clean --profile ${STORY} | head -c 10; echo "[\${PIPESTATUS[0]}]"`);
    expect([closed.stdout, closed.stderr]).toEqual(['<p>x</p><p[0]\n', '']);
  });
});
