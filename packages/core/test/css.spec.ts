import fc from 'fast-check';
import {
  Cascade,
  compileSelectors,
  DESK,
  elementsIn,
  expandDeclaration,
  makeDictionary,
  mediaHolds,
  parseDocument,
  pathOf,
  readSheets,
  SelectorMistake,
  type MediaContext,
} from '../src/index';
import { presentationalHints } from '../src/css/hints';
import { runs } from './fixed-seed';

const PAGE = `<html lang="en-GB"><body><main class="page wide"><h1 id="top">T</h1><p class="note">a <a href="/x">b</a> <em>c</em></p><p>d</p>
<ul><li>1</li><li class="on">2</li><li>3</li><li>4</li></ul><div data-kind="Big Box"><p></p><span>x</span></div><p lang="cy">w</p></main></body></html>`;
const root = parseDocument(PAGE);
const all = [...elementsIn(root)];
/** The elements that a selector matches, by what they are or hold. */
const matched = (selector: string): string[] =>
  all
    .filter((element) => compileSelectors(selector).some(({ matches }) => matches(element)))
    .map((element) => {
      const text = element.children[0];
      return text?.type === 'text' && text.value.trim() !== '' ? `${element.name} ${text.value.trim()}` : element.name;
    });

describe('selectors', () => {
  test.each<[string, string[]]>([
    ['main > p', ['p a', 'p d', 'p w']],
    ['MAIN P.note', ['p a']],
    ['h1 + p', ['p a']],
    ['h1 ~ p', ['p a', 'p d', 'p w']],
    ['.page.wide > h1#top', ['h1 T']],
    ['li:first-child, li:last-child', ['li 1', 'li 4']],
    ['li:nth-child(odd)', ['li 1', 'li 3']],
    ['li:nth-child(-n+2)', ['li 1', 'li 2']],
    ['li:nth-last-child(2)', ['li 3']],
    ['li:nth-child(2 of :not(.on))', ['li 3']],
    ['p:nth-of-type(2)', ['p d']],
    ['p:first-of-type', ['p a', 'p']],
    ['li:not(.on, :first-child)', ['li 3', 'li 4']],
    [':is(h1, em, :unknown)', ['h1 T', 'em c']],
    ['p:has(> a)', ['p a']],
    ['li:has(+ .on)', ['li 1']],
    ['p:has(em, strong) a', ['a b']],
    ['p:empty', ['p']],
    ['[data-kind]', ['div']],
    ['[data-kind="big box" i]', ['div']],
    ['[data-kind="big box"]', []],
    ['[data-kind^="Big"][data-kind$="Box"][data-kind*="g B"]', ['div']],
    ['[data-kind~="Box"]', ['div']],
    ['[lang|=en]', ['html']],
    ['p:lang(cy)', ['p w']],
    ['p:lang(en)', ['p a', 'p d', 'p']],
    [':any-link', ['a b']],
    ['a:hover', []],
    [':root', ['html']],
    ['main *:only-child', []],
    ['.caf\\e9 , #top', ['h1 T']],
  ])('%s', (selector, found) => expect(matched(selector)).toEqual(found));

  test.each<[string, [number, number, number]]>([
    ['#a .b c', [1, 1, 1]],
    ['*', [0, 0, 0]],
    [':is(#a, p) em', [1, 0, 1]],
    [':where(#a) em', [0, 0, 1]],
    [':not(.a, #b)', [1, 0, 0]],
    ['p:nth-child(2 of .a, #b)', [1, 1, 1]],
    ['a[href]:hover', [0, 2, 1]],
    ['p::before', [0, 0, 2]],
    [':has(.a) b', [0, 1, 1]],
  ])('the specificity of %s', (selector, specificity) => expect(compileSelectors(selector)[0]!.specificity).toEqual(specificity));

  test.each(['p:unknown', 'p >', '', ':not(:unknown)'])('%j makes a browser drop the rule', (selector) => {
    expect(() => compileSelectors(selector)).toThrow(SelectorMistake);
  });
});

describe('media queries', () => {
  const narrow: MediaContext = { ...DESK, widthPx: 390, heightPx: 800 };
  test.each<[string, boolean, boolean]>([
    ['', true, true],
    ['screen', true, true],
    ['print', false, false],
    ['not print', true, true],
    ['(min-width: 40em)', true, false],
    ['screen and (max-width: 600px)', false, true],
    ['(width >= 600px)', true, false],
    ['(300px < width <= 390px)', false, true],
    ['(orientation: portrait)', false, true],
    ['(min-width: 600px) and (hover)', true, false],
    ['(max-width: 400px) or (min-width: 1000px)', true, true],
    ['not (min-width: 600px)', false, true],
    ['print, (max-width: 400px)', false, true],
    ['(prefers-color-scheme: dark)', false, false],
    ['(nonsense: 1)', false, false],
    ['not (nonsense: 1)', false, false],
  ])('%j', (query, wide, small) => expect([mediaHolds(query, DESK), mediaHolds(query, narrow)]).toEqual([wide, small]));
});

describe('shorthands', () => {
  const of = (property: string, value: string): Record<string, string> =>
    Object.fromEntries(expandDeclaration(property, value).map((one) => [one.property, one.value]));
  test('sides, pairs, borders', () => {
    expect(of('margin', '1px 2px 3px')).toEqual({
      'margin-top': '1px',
      'margin-right': '2px',
      'margin-bottom': '3px',
      'margin-left': '2px',
    });
    expect(of('margin-inline', 'auto')).toEqual({ 'margin-left': 'auto', 'margin-right': 'auto' });
    expect(of('border-left', 'solid red')).toEqual({
      'border-left-width': 'medium',
      'border-left-style': 'solid',
      'border-left-color': 'red',
    });
    expect(of('border', '0')).toMatchObject({ 'border-top-width': '0', 'border-top-style': 'none' });
    expect(of('padding', 'inherit')).toEqual({
      'padding-top': 'inherit',
      'padding-right': 'inherit',
      'padding-bottom': 'inherit',
      'padding-left': 'inherit',
    });
    expect(of('inset-inline-start', '2px')).toEqual({ left: '2px' });
  });
  test('font, background, flex, lists, decorations', () => {
    expect(of('font', 'italic 700 17px/1.6 Georgia, "Times New Roman", serif')).toMatchObject({
      'font-style': 'italic',
      'font-weight': '700',
      'font-size': '17px',
      'line-height': '1.6',
      'font-family': 'Georgia, "Times New Roman", serif',
    });
    expect(of('background', '#fff url(a.png) no-repeat')).toMatchObject({
      'background-color': '#fff',
      'background-image': 'url(a.png)',
      'background-repeat': 'no-repeat',
    });
    expect(of('background', 'none')).toMatchObject({ 'background-color': 'transparent' });
    expect(of('flex', '1')).toEqual({ 'flex-grow': '1', 'flex-shrink': '1', 'flex-basis': '0%' });
    expect(of('list-style', 'none')).toMatchObject({ 'list-style-image': 'none' });
    expect(of('text-decoration', 'underline dotted')).toMatchObject({
      'text-decoration-line': 'underline',
      'text-decoration-style': 'dotted',
    });
  });
  test('what holds a variable is not taken apart', () => {
    expect(of('margin', 'var(--gap) auto')).toMatchObject({ 'margin-left': 'var(--gap) auto' });
    expect(of('--Gap', '1px')).toEqual({ '--Gap': '1px' });
  });
});

describe('what is looked up first', () => {
  const NAMES = ['a', 'b', 'c'];
  const compound = fc.oneof(
    fc.constantFrom('*', 'p', 'em', 'div', '#i', '#j', ':not(.a)', ':is(.b, p)', '[title]'),
    fc.subarray(NAMES, { minLength: 1 }).map((names) => names.map((name) => `.${name}`).join('')),
  );
  const selector = fc
    .tuple(compound, fc.array(fc.tuple(fc.constantFrom(' ', ' > ', ' + ', ' ~ '), compound), { maxLength: 3 }))
    .map(([first, rest]) => first + rest.map(([sign, next]) => sign + next).join(''));
  const { element } = fc.letrec<{ element: string }>((tie) => ({
    element: fc
      .record({
        name: fc.constantFrom('div', 'em', 'section'),
        classes: fc.subarray(NAMES),
        id: fc.option(fc.constantFrom('i', 'j')),
        title: fc.boolean(),
        children: fc.oneof({ maxDepth: 4 }, fc.constant([]), fc.array(tie('element'), { maxLength: 3 })),
      })
      .map(
        ({ name, classes, id, title, children }) =>
          `<${name}${classes.length === 0 ? '' : ` class="${classes.join(' ')}"`}${id === null ? '' : ` id="${id}"`}${title ? ' title=""' : ''}>${children.join('')}</${name}>`,
      ),
  }));

  test('finds what a selector matches, and nothing else', () => {
    fc.assert(
      fc.property(
        fc.array(element, { minLength: 1, maxLength: 4 }),
        fc.array(selector, { minLength: 1, maxLength: 5 }),
        (trees, selectors) => {
          const css = selectors.map((one, nth) => `${one} { --x${nth}: 1 }`).join('\n');
          const cascade = new Cascade([{ name: 'a.css', css }]);
          for (const one of elementsIn(parseDocument(trees.join('')))) {
            const found = new Set(cascade.contests(one).map(({ property }) => property));
            selectors.forEach((text, nth) =>
              expect([text, found.has(`--x${nth}`)]).toEqual([text, compileSelectors(text).some(({ matches }) => matches(one))]),
            );
          }
        },
      ),
      { numRuns: runs(200) },
    );
  });
});

test.each<[string, string, Record<string, string>]>([
  ['<p align="CENTER">', 'p', { 'text-align': 'center' }],
  ['<p align="middle">', 'p', {}],
  ['<span align="left">', 'span', {}],
  [
    '<img align="left" border="2" hspace="3" vspace="4" width="50%" height=" 20px">',
    'img',
    {
      float: 'left',
      'border-top-width': '2px',
      'border-right-width': '2px',
      'border-bottom-width': '2px',
      'border-left-width': '2px',
      'border-top-style': 'solid',
      'border-right-style': 'solid',
      'border-bottom-style': 'solid',
      'border-left-style': 'solid',
      'margin-left': '3px',
      'margin-right': '3px',
      'margin-top': '4px',
      'margin-bottom': '4px',
      width: '50%',
      height: '20px',
    },
  ],
  ['<img align="center" width="wide">', 'img', {}],
  [
    '<table align="center" cellspacing="5" bgcolor="#EEE">',
    'table',
    {
      'margin-left': 'auto',
      'margin-right': 'auto',
      'border-spacing': '5px',
      'background-color': '#eee',
    },
  ],
  ['<table align="right">', 'table', { float: 'right' }],
  [
    '<table border="1" cellpadding="2"><td valign="top" nowrap>',
    'td',
    {
      'vertical-align': 'top',
      'white-space-collapse': 'collapse',
      'text-wrap-mode': 'nowrap',
      'border-top-width': '1px',
      'border-right-width': '1px',
      'border-bottom-width': '1px',
      'border-left-width': '1px',
      'border-top-style': 'inset',
      'border-right-style': 'inset',
      'border-bottom-style': 'inset',
      'border-left-style': 'inset',
      'padding-top': '2px',
      'padding-right': '2px',
      'padding-bottom': '2px',
      'padding-left': '2px',
    },
  ],
  ['<table border="0"><td>', 'td', {}],
  [
    '<p valign="top" nowrap bgcolor="red" width="3" cellspacing="2" border="1" hspace="1" vspace="1" color="red" face="x" size="3" type="a">',
    'p',
    {},
  ],
  ['<hr width="30" height="4">', 'hr', { width: '30px' }],
  ['<font color="RED" face="Gill, x" size="+1">', 'font', { color: 'red', 'font-family': 'Gill, x', 'font-size': 'large' }],
  ['<font size="0">', 'font', { 'font-size': 'x-small' }],
  ['<font size="9">', 'font', { 'font-size': 'xxx-large' }],
  ['<font size="-2">', 'font', { 'font-size': 'x-small' }],
  ['<font size="big">', 'font', {}],
  ['<div hidden>', 'div', { display: 'none' }],
  ['<ol type="A">', 'ol', { 'list-style-type': 'upper-alpha' }],
  ['<ul type="Square">', 'ul', { 'list-style-type': 'square' }],
  ['<ul type="z">', 'ul', {}],
])('the old attributes of %s mean style', (html, name, style) => {
  const one = [...elementsIn(parseDocument(html))].find((found) => found.name === name)!;
  expect(Object.fromEntries(presentationalHints(one).map(({ property, value }) => [property, value]))).toEqual(style);
});

test('words of fewer than three letters are in no dictionary', () => {
  const knows = makeDictionary('SET UTF-8\n', '2\nof\nebb\n');
  expect(['of', 'ebb', 'flood'].map(knows)).toEqual([false, true, false]);
});

describe('the cascade', () => {
  const winner = (css: string | Record<string, string>, property: string, html = '<p class="a b" id="i">x</p>'): string => {
    const sheets = Object.entries(typeof css === 'string' ? { 'a.css': css } : css).map(([name, text]) => ({ name, css: text }));
    const cascade = new Cascade(sheets);
    const element = [...elementsIn(parseDocument(html))].find(({ name }) => name === 'p')!;
    const contest = cascade.contests(element).find((one) => one.property === property);
    return contest === undefined ? 'nothing' : `${contest.winner.value} of ${[contest.winner, ...contest.losers].length}`;
  };
  test.each<[string, string, string]>([
    ['later wins', 'p{color:red} p{color:blue}', 'blue of 2'],
    ['later in one rule wins', 'p{color:red;color:blue}', 'blue of 2'],
    ['specificity before order', '.a{color:red} p{color:blue}', 'red of 2'],
    ['id before classes', '#i{color:red} .a.b.a.b{color:blue}', 'red of 2'],
    ['important before specificity', 'p{color:red!important} #i{color:blue}', 'red of 2'],
    [':where counts nothing', 'p{color:red} :where(#i.a){color:blue}', 'red of 2'],
    ['no layer before any layer', '@layer x{#i{color:red}} p{color:blue}', 'blue of 2'],
    ['layers in the order named', '@layer b,a; @layer a{p{color:red}} @layer b{#i{color:blue}}', 'red of 2'],
    ['important turns layers round', '@layer b,a; @layer a{p{color:red!important}} @layer b{p{color:blue!important}}', 'blue of 2'],
    ['nested layers come before what stands in the layer itself', '@layer a{@layer in{p{color:red}} p{color:blue}}', 'blue of 2'],
    ['media that do not hold', '@media print{p{color:red}} p{color:blue}', 'blue of 1'],
    ['supports', '@supports (display:grid){p{color:red}} @supports (display:nonsense){p{color:blue}}', 'red of 1'],
    ['nesting', 'body{& p{color:red} .a{color:blue}}', 'blue of 2'],
    [
      'nesting without a sign, with states, and a declaration behind',
      'body{p:hover{color:red} > .a{color:green} .b{color:blue} color:black}',
      'blue of 2',
    ],
    ['a nested media query', 'p{color:red;@media screen{color:blue}}', 'blue of 2'],
    ['declarations behind a nested rule come after it', '.a{&{color:red} color:blue}', 'blue of 2'],
    ['a selector that is not known takes its rule with it', 'p, :unknown{color:red} p{color:blue}', 'blue of 1'],
    ['what no browser knows is passed over', 'p{color:red} p{color:nonsense}', 'red of 1'],
    ['a shorthand against a longhand', 'p{color:red} p{margin-left:1px}', 'red of 1'],
    ['rules for pseudo-elements are not the element’s', 'p{color:red} p::before{color:blue}', 'red of 1'],
  ])('%s', (_name, css, won) => expect(winner(css, 'color')).toBe(won));

  test('a later shorthand sets back what it does not name', () => {
    expect(winner('p{margin-left:3px} p{margin:1px 2px}', 'margin-left')).toBe('2px of 2');
    expect(winner('p{background-color:red} p{background:none}', 'background-color')).toBe('transparent of 2');
  });
  test('the style attribute before rules, important rules before it; old attributes before nothing', () => {
    expect(winner('#i{color:red}', 'color', '<p id="i" style="color:blue">')).toBe('blue of 2');
    expect(winner('p{color:red!important}', 'color', '<p style="color:blue">')).toBe('red of 2');
    expect(winner('*{text-align:left}', 'text-align', '<p align="right">')).toBe('left of 2');
    expect(winner('', 'text-align', '<p align="right">')).toBe('right of 1');
  });
  test('imports stand before the sheet that asks for them, in a layer where they say so', () => {
    const { rules } = readSheets(
      [
        { name: 'b.css', css: '@import "a.css" layer(x); p{color:red}' },
        { name: 'a.css', css: 'p{color:blue}' },
      ],
      DESK,
    );
    expect(rules.map(({ sheet, layer }) => `${sheet} ${layer}`)).toEqual(['a.css x', 'b.css ', 'a.css ']);
    expect(winner({ 'b.css': '@import "a.css" print; p{color:red}', 'a.css': '' }, 'color')).toBe('red of 1');
    expect(readSheets([{ name: 'b.css', css: '@import url("gone.css");' }], DESK).leftOut).toMatchObject([{ reason: 'import', line: 1 }]);
  });
  test('losers stand in order, and each is told by what it lost', () => {
    const cascade = new Cascade([
      { name: 'one.css', css: 'p{color:red}\n.a{color:green}' },
      { name: 'two.css', css: '@layer x{p{color:blue}}\n.b{color:black}' },
    ]);
    const element = [...elementsIn(parseDocument('<p class="a b">'))].find(({ name }) => name === 'p')!;
    const { winner: won, losers } = cascade.contests(element)[0]!;
    expect([won, ...losers].map(({ sheet, selector, line, value }) => `${sheet}:${line} ${selector} ${value}`)).toEqual([
      'two.css:2 .b black',
      'one.css:2 .a green',
      'one.css:1 p red',
      'two.css:1 p blue',
    ]);
    expect(losers.map((loser) => cascade.decide(won, loser).reason)).toEqual(['order', 'specificity', 'layer']);
  });
  test('paths name a place only where there are several', () => {
    expect([...elementsIn(parseDocument('<main><p>a<p>b <em>c</em>'))].map(pathOf)).toEqual([
      'html',
      'html > head:nth-child(1)',
      'html > body:nth-child(2)',
      'html > body:nth-child(2) > main',
      'html > body:nth-child(2) > main > p:nth-child(1)',
      'html > body:nth-child(2) > main > p:nth-child(2)',
      'html > body:nth-child(2) > main > p:nth-child(2) > em',
    ]);
  });
});
