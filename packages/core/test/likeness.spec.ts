import {
  applyRepair,
  causeSentence,
  causeTitle,
  compareLikeness,
  contestFor,
  DESK,
  Likeness,
  proposeRepairs,
  repairSentence,
  settingsFor,
  share,
  specificityText,
  takenOut,
  trialSentence,
  tryRepair,
  type Cause,
  type LikenessInput,
  type Repair,
} from '../src/index';

/** Sheets by name; `a: …` pairs are written as an object in their order. */
type Sheets = Record<string, string>;

function input(editor: Sheets, page: Sheets, { editing = [] as string[], widths = [1280, 1280] } = {}): LikenessInput {
  const setting = (sheets: Sheets, widthPx: number) => ({
    sheets: Object.entries(sheets).map(([name, css]) => ({ name, css })),
    media: { ...DESK, widthPx },
    wrapper: [
      { element: 'main', className: 'page' },
      { element: 'article', className: 'body' },
    ],
    title: '',
    columnPx: null,
  });
  return { editor: setting(editor, widths[0]!), page: setting(page, widths[1]!), editingSheets: editing };
}

const causesOf = (of: LikenessInput, html: string): Cause[] => compareLikeness(of, [{ id: 'd', html }]).causes;

describe('causes', () => {
  test.each<[string, LikenessInput, string, Partial<Record<keyof Cause, unknown>>, RegExp]>([
    [
      'a file that is not loaded',
      input({ 'a.css': '', 'boxes.css': '.fare { color: red; padding: 3px }' }, { 'a.css': '' }),
      '<p class="fare">x</p>',
      {
        kind: 'no-rule',
        side: 'page',
        lack: 'file',
        properties: ['color', 'padding-bottom', 'padding-left', 'padding-right', 'padding-top'],
      },
      /boxes\.css, line 1 has it, and boxes\.css is not loaded on the page/,
    ],
    [
      'a rule that only the page has',
      input({ 'a.css': '' }, { 'a.css': '', 'fonts.css': '.body h2 { letter-spacing: 2px }' }),
      '<h2>x</h2>',
      { kind: 'no-rule', side: 'editor', lack: 'file' },
      /not loaded on the editing surface/,
    ],
    [
      'a file that has another text',
      input({ 'a.css': '.fare { color: red }' }, { 'a.css': '.other { margin: 0 }' }),
      '<p class="fare">x</p>',
      { kind: 'no-rule', side: 'page', lack: 'rule' },
      /on the page that file has no such rule/,
    ],
    [
      'outweighed by specificity',
      input(
        { 'f.css': 'figure.rounded img { border-radius: 14px }' },
        { 'f.css': 'figure.rounded img { border-radius: 14px }', 'general.css': '.page .body figure img { border-radius: 0 }' },
      ),
      '<figure class="rounded"><img src="a.png" alt=""></figure>',
      { kind: 'outweighed', side: 'page', reason: 'specificity' },
      /loses border-radius to \.page \.body figure img \(general\.css, line 1\), since its selector weighs more: 0-2-2 against 0-1-2/,
    ],
    [
      'outweighed by order',
      input({ 'f.css': '.fare { color: red }' }, { 'f.css': '.fare { color: red }', 'g.css': '.fare { color: blue }' }),
      '<p class="fare">x</p>',
      { kind: 'outweighed', reason: 'order' },
      /since it comes later/,
    ],
    [
      'outweighed by importance, and a copy in another file',
      input({ 'editing.css': '.fare { color: red }' }, { 'f.css': '.fare { color: red }', 'g.css': 'p { color: blue !important }' }),
      '<p class="fare">x</p>',
      { kind: 'outweighed', reason: 'importance', rule: expect.objectContaining({ sheet: 'f.css' }) },
      /since it is !important/,
    ],
    [
      'outweighed by a layer',
      input(
        { 'f.css': '@layer a { .fare { color: red } }' },
        { 'f.css': '@layer a { .fare { color: red } }', 'g.css': 'p { color: blue }' },
      ),
      '<p class="fare">x</p>',
      { kind: 'outweighed', reason: 'layer' },
      /its layer is stronger/,
    ],
    [
      'only from a width on',
      input(
        { 'f.css': '@media (min-width: 700px) { .fare { color: red } }' },
        { 'f.css': '@media (min-width: 700px) { .fare { color: red } }' },
        { widths: [1280, 400] },
      ),
      '<p class="fare">x</p>',
      { kind: 'condition', side: 'page', condition: '@media (min-width:700px)' },
      /only under @media \(min-width:700px\), which does not hold there/,
    ],
    [
      'only in a wide container',
      input(
        {
          'f.css': '.body { container: text / inline-size; max-width: 800px } @container text (min-width: 700px) { .fare { color: red } }',
        },
        {
          'f.css': '.body { container: text / inline-size; max-width: 600px } @container text (min-width: 700px) { .fare { color: red } }',
        },
      ),
      '<p class="fare">x</p>',
      { kind: 'condition', side: 'page', condition: expect.stringContaining('@container text') as unknown },
      /only under @container text ?\(min-width:700px\)/,
    ],
    [
      'inherited from the frame',
      input({ 'a.css': 'body { color: #111 }' }, { 'a.css': 'body { color: #111 }', 'n.css': 'body { color: #222 }' }),
      '<p>x</p><p>y</p>',
      { kind: 'inherited', because: 'outweighed', from: 'html > body:nth-child(2)' },
      /body \(a\.css, line 1\) is on the page and loses color/,
    ],
    [
      'only in the editor',
      input({ 'a.css': 'h2 { color: red }', editing: 'h2 { color: blue }' }, { 'a.css': 'h2 { color: red }' }, { editing: ['editing'] }),
      '<h2>x</h2>',
      { kind: 'only-in-editor' },
      /is never part of the page\. h2 \(a\.css, line 1\) is in force instead/,
    ],
    [
      'a variable that nobody sets',
      input(
        { 'a.css': '.fare { background: var(--tide) }', 'v.css': ':root { --tide: #eef }' },
        { 'a.css': '.fare { background: var(--tide) }' },
      ),
      '<p class="fare">x</p>',
      { kind: 'no-rule', variables: ['--tide'], rule: expect.objectContaining({ sheet: 'v.css' }) },
      /--tide has another value on the page: v\.css, line 1 sets it, and v\.css is not loaded/,
    ],
    [
      'what a style sheet draws before an element',
      input({ 'f.css': 'p.fare::before { content: "Fares: " }' }, {}),
      '<p class="fare">x</p>',
      {
        kind: 'no-rule',
        places: [
          expect.objectContaining({ pseudo: '::before', differences: [{ property: 'content', editor: '"Fares: "', page: 'normal' }] }),
        ],
      },
      /not loaded/,
    ],
    [
      'a picture wider than its column',
      input({}, { 'a.css': '.page { max-width: 700px }' }),
      '<p><img src="a.png" alt="" width="900"></p>',
      { kind: 'does-not-fit', side: 'page', places: [expect.objectContaining({ fit: { neededPx: 900, columnPx: 700, side: 'page' } })] },
      /less room/,
    ],
  ])('%s', (_name, of, html, expected, words) => {
    const cause = causesOf(of, html).find(({ kind }) => kind === expected.kind)!;
    expect(cause).toMatchObject(expected);
    expect(causeSentence(cause)).toMatch(words);
    expect(causeTitle(cause)).not.toBe('');
  });

  test('surroundings that only one of the two has', () => {
    const of = input({ 'a.css': '.surface p { color: red }' }, { 'a.css': '.surface p { color: red }' });
    const [cause] = causesOf({ ...of, editor: { ...of.editor, wrapper: [{ element: 'div', className: 'surface' }] } }, '<p>x</p>');
    expect(cause).toMatchObject({ kind: 'no-rule', lack: 'surroundings' });
  });

  test.each<[string, string, string, string]>([
    [
      'colours that are written differently',
      'p { color: #f00; background: white }',
      'p { color: rgb(255 0 0); background: #ffffff }',
      '<p>x</p>',
    ],
    ['lengths in other units', 'p { margin: 12pt 0; text-indent: 1em }', 'p { margin: 16px 0; text-indent: 16px }', '<p>x</p>'],
    ['what is usual anyway', '', 'div { margin: 0; padding: 0 } p { letter-spacing: normal }', '<div><p>x</p></div>'],
    ['the colour of a line that is not there', 'p { border-color: red }', '', '<p>x</p>'],
    ['what nobody sees', 'p { cursor: help; transition: color 1s }', '', '<p>x</p>'],
    [
      'properties of text where there is none',
      'div { font-size: 20px } p { font-size: 16px }',
      'p { font-size: 16px }',
      '<div><p>x</p></div>',
    ],
    ['quotes in names of typefaces', 'p { font-family: "Georgia", serif }', 'p { font-family: georgia,serif }', '<p>x</p>'],
    ['fallbacks of variables', 'p { color: var(--no, red) }', 'p { color: red }', '<p>x</p>'],
  ])('%s are no difference', (_name, one, other, html) => expect(causesOf(input({ 'a.css': one }, { 'b.css': other }), html)).toEqual([]));

  test('an element counts once, whatever differs; the share is of elements', () => {
    const report = compareLikeness(input({ 'a.css': '.x { color: red; margin: 0 }' }, {}), [
      { id: 'one', html: '<p class="x">a</p><p>b</p>' },
      { id: 'two', html: '<p>c</p><p>d</p>' },
    ]);
    expect([report.elements, report.alike, report.documents, report.documentsUnlike]).toEqual([4, 3, 2, 1]);
    expect(share(report)).toBe(0.75);
  });
  test('places are told by line and offset in the content', () => {
    const [cause] = causesOf(input({ 'a.css': '.x { color: red }' }, {}), '<p>a</p>\n<p>b</p>\n<p class="x">c</p>');
    expect(cause!.places[0]).toMatchObject({ line: 3, start: 18, end: 31, index: 2, element: 'p.x' });
  });
  test('units that follow another difference are one cause with it', () => {
    const causes = causesOf(
      input({ 'a.css': '.x { font-size: 20px; padding: 1em }' }, { 'a.css': '.x { font-size: 10px; padding: 1em }' }),
      '<p class="x">c</p>',
    );
    expect(causes).toHaveLength(1);
    expect(causes[0]!.properties).toEqual(expect.arrayContaining(['font-size', 'padding-top', 'margin-top']));
  });
});

describe('repairs', () => {
  const html = '<figure class="rounded"><img src="a.png" alt=""></figure><figure><img src="b.png" alt=""></figure>';
  const documents = [
    { id: 'one', html },
    { id: 'two', html: `${html}<p>x</p>` },
  ];
  const repairsOf = (of: LikenessInput): { cause: Cause; repair: Repair }[] => {
    const report = compareLikeness(of, documents);
    const contents = new Map(documents.map((document) => [document.id, document.html]));
    return report.causes.flatMap((cause) => proposeRepairs(cause, of, contents).map((repair) => ({ cause, repair })));
  };
  const rounded = 'figure.rounded img { border-radius: 14px }';

  test('a rule with the least weight that wins', () => {
    const of = input({ 'f.css': rounded }, { 'f.css': rounded, 'general.css': '.page .body figure img { border-radius: 0 }' });
    const [{ repair, cause } = { repair: null, cause: null }] = repairsOf(of);
    expect(repair).toMatchObject({ kind: 'add-rule', side: 'page' });
    if (repair?.kind !== 'add-rule') throw new Error();
    expect(specificityText(repair.specificity)).toBe('0-2-2');
    expect(repair.rule).toMatch(/^\.(page|body) figure\.rounded img \{\n {2}border-radius: 14px;\n\}$/);
    expect(repair.css).toContain('/* As in f.css, line 1, which loses to general.css, line 1. */');
    const trial = tryRepair(repair, cause!, of, documents);
    expect(trial).toMatchObject({ places: 2, documents: 2, moved: [], after: 1 });
    expect(trialSentence(trial)).toBe('Settles 2 places in 2 documents, changes nothing else.');
  });
  test('against what is important, and what stands in a style attribute', () => {
    for (const [page, markup] of [
      ['.fare { color: red } p { color: blue !important }', '<p class="fare">x</p>'],
      ['.fare { color: red }', '<p class="fare">x</p>'],
    ] as const) {
      const of = input({ 'f.css': '.fare { color: red !important }' }, { 'f.css': page });
      const all = [{ id: 'd', html: markup.replace('>', page.includes('!') ? '>' : ' style="color: blue">') }];
      const report = compareLikeness(of, all);
      const repair = proposeRepairs(report.causes[0]!, of, new Map([['d', all[0]!.html]])).find(({ kind }) => kind === 'add-rule')!;
      expect(repair).toMatchObject({ css: expect.stringContaining('color: red !important') as string });
      expect(tryRepair(repair, report.causes[0]!, of, all)).toMatchObject({ places: 1, moved: [], after: 1 });
    }
  });
  test('a file is loaded where it is missing, in its place', () => {
    const of = input({ 'a.css': '', 'f.css': rounded }, { 'a.css': '', 'z.css': '' });
    const [{ repair, cause } = { repair: null, cause: null }] = repairsOf(of);
    expect(repair).toEqual({ kind: 'load-file', side: 'page', sheet: 'f.css', after: 'a.css' });
    expect(applyRepair(of, repair!).page.sheets.map(({ name }) => name)).toEqual(['a.css', 'f.css', 'z.css']);
    expect(repairSentence(repair!)).toBe('Load f.css on the page, behind a.css.');
    expect(tryRepair(repair!, cause!, of, documents)).toMatchObject({ places: 2, after: 1 });
  });
  test('a file moves where only the order decides', () => {
    const of = input({ 'f.css': rounded }, { 'f.css': rounded, 'g.css': 'figure.rounded img { border-radius: 1px }' });
    const repairs = repairsOf(of).map(({ repair }) => repair);
    const [cause] = compareLikeness(of, documents).causes;
    expect(repairs[0]).toEqual({ kind: 'move-file', side: 'page', sheet: 'f.css', after: 'g.css' });
    expect(tryRepair(repairs[0]!, cause!, of, documents)).toMatchObject({ after: 1, moved: [] });
  });
  test('what only the editor has is taken out of the editing stylesheet', () => {
    const of = input(
      { editing: 'p { margin: 0 }\nfigure { margin: 3px }\nimg { opacity: 1 }' },
      { 'a.css': 'figure { margin: 9px }' },
      { editing: ['editing'] },
    );
    const repair = repairsOf(of)
      .map(({ repair: one }) => one)
      .find((one) => one.kind === 'take-out' && one.selector === 'figure')!;
    expect(applyRepair(of, repair).editor.sheets[0]!.css).toBe('p { margin: 0 }\nimg { opacity: 1 }');
    expect(takenOut('a { b: c }', 'p', 1)).toBe('a { b: c }');
  });
  test('a file that would not help here, though it does elsewhere, is told as that', () => {
    const of = input({ 'f.css': `${rounded} figure { margin: 0 }` }, { 'general.css': '.page figure.rounded img { border-radius: 0 }' });
    const report = compareLikeness(of, documents);
    const cause = report.causes.find(({ properties }) => properties.includes('border-top-left-radius'))!;
    const [load, add] = proposeRepairs(cause, of, new Map(documents.map((document) => [document.id, document.html])));
    expect(trialSentence(tryRepair(load!, cause, of, documents, report))).toBe(
      'Settles 4 places in 2 documents, but none of the 2 places here, changes nothing else.',
    );
    expect(tryRepair(add!, cause, of, documents, report).own).toEqual({ settled: 2, of: 2 });
  });
  test('what else would move is told', () => {
    const of = input({ 'f.css': rounded, 'h.css': 'figure { margin: 0 }' }, { 'f.css': 'figure img { border-radius: 0 }' });
    const cause = compareLikeness(of, documents).causes.find(({ properties }) => properties.includes('margin-left'))!;
    const [load] = proposeRepairs(cause, of, new Map(documents.map((document) => [document.id, document.html])));
    expect(load).toMatchObject({ kind: 'load-file', sheet: 'h.css' });
    const wide: Repair = {
      kind: 'add-rule',
      side: 'page',
      selector: 'figure, p',
      rule: '',
      specificity: [0, 0, 1],
      css: 'figure, p { margin: 0 }',
    };
    const trial = tryRepair(wide, cause, of, documents);
    expect(trial.moved).toEqual([
      expect.objectContaining({
        document: 'two',
        properties: expect.arrayContaining([expect.objectContaining({ property: 'margin-top', after: '0' })]) as unknown,
      }),
    ]);
    expect(trialSentence(trial)).toMatch(/and moves 1 other place/);
  });
  test('what differed before and differs otherwise now has moved as well, from what readers saw', () => {
    const of = input({ 'f.css': rounded }, { 'f.css': 'figure img { border-radius: 0 }' });
    const [cause] = compareLikeness(of, documents).causes;
    const css = 'figure img { border-radius: 7px }';
    const trial = tryRepair(
      { kind: 'add-rule', side: 'page', selector: 'figure img', rule: css, specificity: [0, 0, 2], css },
      cause!,
      of,
      documents,
    );
    expect(trial).toMatchObject({ places: 0, resolved: 0 });
    const seen = trial.moved.map(({ document, properties }) => [
      document,
      properties.find(({ property }) => property === 'border-top-left-radius'),
    ]);
    const change = { property: 'border-top-left-radius', before: '0', after: '7px' };
    expect(seen).toEqual([
      ['one', change],
      ['one', change],
      ['two', change],
      ['two', change],
    ]);
  });
  test('a picture that is too wide gets the width of its column', () => {
    const of = input({}, { 'a.css': '.page { max-width: 700px }' });
    const all = [{ id: 'd', html: '<p><img src="a.png" alt="" width="900"></p>' }];
    const report = compareLikeness(of, all);
    const cause = report.causes.find(({ kind, side }) => kind === 'does-not-fit' && side === 'page')!;
    const [repair] = proposeRepairs(cause, of, new Map([['d', all[0]!.html]]));
    expect(repair).toMatchObject({ kind: 'add-rule', rule: 'img {\n  max-width: 100%;\n  height: auto;\n}' });
    expect(compareLikeness(applyRepair(of, repair!), all).causes.filter(({ kind }) => kind === 'does-not-fit')).toEqual([]);
  });
});

test('the contest for a property names winner, losers, and what waits for a condition', () => {
  const likeness = new Likeness(
    input({}, { 'a.css': 'body { color: #111 }', 'b.css': '.x { color: red }\np { color: blue }\n@media print { p { color: black } }' }),
  );
  const placed = likeness.page.place('<p class="x">a <em>b</em></p>');
  const table = contestFor(likeness.page, placed.elements[0]!, 'color');
  expect(table).toMatchObject({ value: '#ff0000', levels: 0 });
  expect(table.rows.map(({ selector, line, outcome }) => [selector, line, outcome])).toEqual([
    ['.x', 1, 'wins'],
    ['p', 2, 'specificity'],
    ['p', 3, 'condition'],
  ]);
  expect(contestFor(likeness.page, placed.elements[1]!, 'color')).toMatchObject({ value: '#ff0000', levels: 1 });
  expect(contestFor(likeness.page, placed.elements[1]!, 'margin-left')).toMatchObject({ value: '0', levels: 0, rows: [] });
});

test('the settings of a profile on a page kind', () => {
  const kind = (id: string, stylesheets: string[]) => ({
    id,
    name: id,
    wrapper: [{ element: 'main' as const, className: id }],
    stylesheets,
    contentWidthPx: 700,
    widthsPx: [1280],
  });
  const surface = { pageKind: 'article', stylesheets: 'both', editingCss: 'p { color: red }' } as never;
  const settings = settingsFor(
    surface,
    kind('article', ['a', 'b']),
    kind('news', ['b', 'none']),
    (id) => (id === 'none' ? undefined : { css: `.${id} {}`, media: id === 'b' ? 'print' : '' }),
    DESK,
  );
  expect(settings.editor.sheets.map(({ name, media }) => [name, media])).toEqual([
    ['a.css', ''],
    ['b.css', 'print'],
    ['editing stylesheet', undefined],
  ]);
  expect(settings.page.sheets.map(({ name }) => name)).toEqual(['b.css']);
  expect(settings).toMatchObject({ overrides: 'overrides-news.css', editingSheets: ['editing stylesheet'], editor: { columnPx: 700 } });
});
