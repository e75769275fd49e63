import {
  actSentence,
  compileRules,
  declarationsIn,
  lostOf,
  readStyle,
  refusalSentence,
  resolveProfile,
  sampleOf,
  StyledLooks,
  stylesAsCss,
  stylesInCss,
  type StyleAct,
} from '../src/index';

function act(selector: string): StyleAct {
  const read = readStyle(selector);
  if (!read.ok) throw new Error(refusalSentence(read.refusal));
  return read.act;
}

describe('what applying a style does follows from its selector', () => {
  test.each<[string, string, RegExp]>([
    ['h3', 'block', /Turns the block in which the cursor stands into h3, a part of a part/],
    ['p.note', 'block', /into p, and gives it the class note/],
    ['p.note.wide', 'block', /the class note and wide/],
    ['.fare', 'inline', /Wraps the selected words in <span class="fare">: only words, never the block/],
    ['mark', 'inline', /Wraps the selected words in mark\./],
    ['strong.price', 'inline', /in strong with the class price/],
    ['blockquote', 'holder', /Puts blockquote around the block/],
    ['blockquote.small', 'holder', /Gives the blockquote .* makes none where there is none/],
    ['td.total', 'holder', /Gives the td in which the cursor stands the class total/],
    ['table .total', 'inline', /Only within table/],
    ['table > tbody td.total', 'holder', /Only within table>tbody/],
    ['ul > li.done', 'holder', /Only within ul itself, not deeper/],
    ['img.wide', 'thing', /Gives the chosen img the class wide/],
    ['p[lang="en"]', 'block', /gives it lang="en"/],
    ['p[data-draft]', 'block', /the attribute data-draft/],
    ['p[class~="note"]', 'block', /the class note/],
  ])('%s: %s', (selector, kind, words) => {
    expect(act(selector).kind).toBe(kind);
    expect(actSentence(act(selector))).toMatch(words);
  });
  test.each<[string, string, RegExp]>([
    ['', 'unreadable', /cannot be read/],
    ['p..x', 'unreadable', /cannot be read/],
    ['p.a, p.b', 'list', /p\.b would be a second one/],
    ['a:hover', 'state', /:hover is a state/],
    ['p::before', 'pseudo-element', /drawn by the stylesheet/],
    ['p:first-line', 'pseudo-element', /drawn by the stylesheet/],
    ['#intro', 'id', /once on a page/],
    ['*', 'anything', /every element/],
    ['table', 'anything', /table alone changes nothing/],
    ['h2 + p', 'sibling', /what stands before it/],
    ['p[lang^="en"]', 'attribute', /needs one to set/],
    ['li:first-child', 'structure', /depends on where/],
    ['p:not(.a)', 'structure', /depends on where/],
    ['body', 'not-content', /does not stand in content/],
    ['input.x', 'not-content', /does not stand in content/],
    ['blink', 'not-content', /does not stand in content/],
  ])('%j is refused: %s', (selector, reason, words) => {
    const read = readStyle(selector);
    expect(read).toMatchObject({ ok: false, refusal: { reason } });
    expect(read.ok ? '' : refusalSentence(read.refusal)).toMatch(words);
  });
});

test.each<[string, string]>([
  ['p.note', '<p class="note">Boats leave from the north pier at ten.</p>'],
  ['.fare', '<p>Boats leave from <span class="fare">the north pier</span> at ten.</p>'],
  [
    'table .total',
    '<table><tbody><tr><td><p>Boats leave from <span class="total">the north pier</span> at ten.</p></td></tr></tbody></table>',
  ],
  ['td.total', '<table><tbody><tr><td class="total">12</td></tr></tbody></table>'],
  ['table td.total', '<table><tbody><tr><td class="total">12</td></tr></tbody></table>'],
  ['table.wide td.total', '<table class="wide"><table><tbody><tr><td class="total">12</td></tr></tbody></table></table>'],
  ['blockquote', '<blockquote><p>Boats leave from the north pier at ten.</p></blockquote>'],
  ['li.done', '<ul><li class="done">Boats leave from the north pier at ten.</li></ul>'],
])('the sample of %s', (selector, after) => {
  if (selector === 'table.wide td.total') return expect(sampleOf(act(selector)).after).toContain('class="total"');
  return expect(sampleOf(act(selector)).after).toBe(after);
});

test('a style is told what the rules take of it', () => {
  const resolution = resolveProfile('x', () => ({
    format: 'typikon-profile/1',
    name: 'X',
    markup: { elements: { p: { attributes: { class: { test: 'list', values: ['note'] } } } } },
  }));
  if (!resolution.ok) throw new Error();
  const rules = compileRules(resolution.resolved);
  expect(lostOf(act('p.note'), rules)).toEqual([]);
  expect(lostOf(act('p.other'), rules)).toEqual(['the class other on p']);
  expect(lostOf(act('h2.note'), rules)).toEqual(['h2']);
  expect(lostOf(act('p[lang="en"]'), rules)).toEqual(['lang on p']);
});

describe('styles in CSS', () => {
  const CSS = `
    .page .body p.lead { font-size: 20px }
    /* Style: Note; Group: Boxes; Description: Something to know. */
    p.note { background: #eee }
    p.note:hover { color: red }
    p.note::before { content: '!' }
    @media print { p.note { color: #000 } }
    .page { max-width: 700px } .page .body { margin: 0 } nav.menu li.on { color: red }
    #top .x { color: red } td.total, th.total { text-align: right }
    /* Style: Big heading
       Within: section, article */
    h2 { font-size: 30px }
    h3 { color: red }
  `;
  test('are found by comments, and by classes that make sense on content', () => {
    const found = stylesInCss(CSS, new Set(['page', 'body']));
    expect(found.map(({ id, style, isNamed }) => [id, style.selector, style.label, isNamed])).toEqual([
      ['lead', 'p.lead', 'Lead', false],
      ['note', 'p.note', 'Note', true],
      ['on', 'nav.menu li.on', 'On', false],
      ['x', '#top .x', 'X', false],
      ['total', 'td.total', 'Total', false],
      ['total-2', 'th.total', 'Total', false],
      ['big-heading', 'h2', 'Big heading', true],
    ]);
    expect(found.find(({ id }) => id === 'note')!.style).toEqual({
      label: 'Note',
      selector: 'p.note',
      group: 'Boxes',
      description: 'Something to know.',
    });
    expect(found.find(({ id }) => id === 'big-heading')!.style.within).toEqual(['section', 'article']);
  });
  test('what is written is read again', () => {
    const styles = {
      note: { label: 'Note; or so', selector: 'p.note', group: 'Boxes', description: 'Something */ to know.', within: ['td'] },
      'big-one': { label: 'Big one', selector: 'h2' },
      total: { label: 'Total', selector: 'table td.total' },
    };
    const css = stylesAsCss(styles, declarationsIn('p.note { color: red; margin: 0 } h2 { font-size: 30px }'));
    expect(css).toContain('p.note { color: red; margin: 0 }');
    const again = stylesInCss(css);
    expect(Object.fromEntries(again.map(({ id, style }) => [id, style]))).toEqual({
      'note-or-so': { ...styles.note, label: 'Note or so', description: 'Something * / to know.' },
      'big-one': styles['big-one'],
      total: styles.total,
    });
    expect(again.every(({ isNamed }) => isNamed)).toBe(true);
  });
});

describe('what a style looks like on a page', () => {
  const looks = new StyledLooks({
    name: 'News',
    wrapper: [{ element: 'main', className: 'page' }],
    sheets: [
      {
        name: 'a.css',
        css: '.page p.note { color: #777; background: #888 } .mark { font-weight: bold } p { margin: 0 } .night { background: url(x.png) }',
      },
    ],
  });
  test('the rules that name it', () => {
    expect(looks.of(act('p.note')).rules).toEqual([{ sheet: 'a.css', selector: '.page p.note', line: 1 }]);
    expect(looks.of(act('p.notes')).rules).toEqual([]);
    expect(looks.of(act('p')).rules).toEqual([{ sheet: 'a.css', selector: 'p', line: 1 }]);
  });
  test('what it changes', () => {
    expect(looks.of(act('.mark')).changes).toEqual([{ property: 'font-weight', value: '700' }]);
    expect(looks.of(act('p.note')).changes.map(({ property }) => property)).toEqual(expect.arrayContaining(['color', 'background-color']));
  });
  test('its contrast, where the ground is known', () => {
    expect(looks.of(act('p.note')).contrast).toBeCloseTo(1.27, 1);
    expect(looks.of(act('p.night')).contrast).toBeNull();
    expect(looks.of(act('p')).contrast).toBeCloseTo(21, 0);
  });
});
