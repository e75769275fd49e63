import { clean, compileRules, measure, readHouseLimits, type JsonObject } from '../src/index';
import { profileOf, rulesOf } from './support';

/** What comes out, and what the ledger says of it: the reason and the place's source. */
function proof(html: string, markup: JsonObject): { html: string; ledger: string[] } {
  const { html: out, ledger } = clean(html, rulesOf(markup));
  return { html: out, ledger: ledger.map(({ reason, before, after }) => `${reason}: ${before} → ${after}`) };
}

type Row = [what: string, markup: JsonObject, input: string, output: string, ledger: string[]];
const all = (rows: Row[]): void => {
  test.each(rows)('%s', (_what, markup, input, output, ledger) => expect(proof(input, markup)).toEqual({ html: output, ledger }));
};
const on = (element: string, rule: JsonObject): JsonObject => ({ elements: { [element]: rule } });
const attribute = (element: string, name: string, test: JsonObject): JsonObject => on(element, { attributes: { [name]: test } });

describe('tests of values', () => {
  const width = attribute('td', 'width', { test: 'length', ranges: { none: { min: 0, max: 400 }, '%': { max: 100 } } });
  const cell = (value: string): string => `<table><tbody><tr><td width="${value}">x</td></tr></tbody></table>`;
  const table: JsonObject = { table: {}, tbody: {}, tr: {} };
  test.each([
    ['300', true],
    ['40%', true],
    ['0', true],
    ['500', false],
    ['120%', false],
    ['3em', false],
    ['-1', false],
    ['calc(1px)', false],
  ])('a length: %s', (value, stays) => {
    const rules = { elements: { ...table, ...(width['elements'] as JsonObject) } };
    expect(clean(cell(value), rulesOf(rules)).html.includes('width')).toBe(stays);
  });
  all([
    [
      'a pattern must match the whole value',
      attribute('p', 'id', { test: 'pattern', pattern: '[a-z]+' }),
      '<p id="abc">x</p><p id="abc1">y</p>',
      '<p id="abc">x</p><p>y</p>',
      ['value-not-allowed: id="abc1" → '],
    ],
    [
      'words that begin like a prefix',
      attribute('p', 'class', { test: 'tokens', prefixes: ['is-'] }),
      '<p class="is-wide MsoNormal">x</p>',
      '<p class="is-wide">x</p>',
      ['value-not-allowed: class="is-wide MsoNormal" → class="is-wide"'],
    ],
    [
      'features of a frame',
      {
        elements: {
          iframe: { attributes: { src: { test: 'url', hosts: ['cams.example'] }, allow: { test: 'features', values: ['fullscreen'] } } },
        },
      },
      '<iframe src="https://cams.example/1" allow="fullscreen; camera *" sandbox=""></iframe>',
      '<iframe src="https://cams.example/1" allow="fullscreen" sandbox=""></iframe>',
      ['value-not-allowed: allow="fullscreen; camera *" → allow="fullscreen"'],
    ],
  ]);
  test('the classes of the styles', () => {
    const resolved = profileOf(attribute('p', 'class', { test: 'tokens', ofStyles: true }));
    resolved.profile.styles = { note: { label: 'Note', selector: 'p.note' }, broken: { label: 'Broken', selector: 'p..' } };
    expect(clean('<p class="note other">x</p>', compileRules(resolved)).html).toBe('<p class="note">x</p>');
  });
});

describe('hosts', () => {
  const src = (hosts: string[]): JsonObject => attribute('img', 'src', { test: 'url', hosts });
  test.each([
    [['a.example'], 'https://a.example/x', true],
    [['a.example'], 'https://A.EXAMPLE:443/x', true],
    [['a.example'], 'https://a.example:8443/x', false],
    [['a.example:8443'], 'https://a.example:8443/x', true],
    [['a.example'], 'https://b.a.example/x', false],
    [['*.a.example'], 'https://b.a.example/x', true],
    [['*.a.example'], 'https://a.example/x', false],
    [['*.a.example'], 'https://nota.example/x', false],
    [['a.example/pub/'], 'https://a.example/pub/x.png', true],
    [['a.example/pub'], 'https://a.example/public/x.png', false],
    [['a.example/pub/'], 'https://a.example/pub/../private/x', false],
    [['a.example/pub/'], 'https://a.example/pub/%2e%2E/private/x', false],
    [['a.example/pub/'], 'https://a.example\\pub\\x', true],
    [['a.example'], 'https://evil.example@a.example/', true],
    [['a.example'], 'https://a.example@evil.example/', false],
    [['a.example'], 'https://a.example\\@evil.example/', true],
    [['a.example'], '//a.example/x', true],
    [['a.example'], '/x.png', false],
  ])('%s and %s', (hosts, address, stays) => {
    expect(clean(`<img src="${address}">`, rulesOf(src(hosts))).html !== '').toBe(stays);
  });
});

describe('inline style', () => {
  const style = (properties: JsonObject): JsonObject => attribute('p', 'style', { test: 'style', properties });
  const palette = style({
    color: { test: 'colour', values: ['#a6301f', 'black'] },
    'text-align': { test: 'list', values: ['left', 'center'] },
    'margin-left': { test: 'length', ranges: { px: { min: 0, max: 80 }, em: { max: 4 } } },
    'line-height': { test: 'number', min: 1, max: 2 },
  });
  test.each([
    ['color: #A6301F', 'color: #A6301F'],
    ['color:rgb(166,48,31)', 'color:rgb(166,48,31)'],
    ['color:#000', 'color:#000'],
    ['color:red', ''],
    ['text-align:CENTER', 'text-align:CENTER'],
    ['text-align:right', ''],
    ['margin-left:40px', 'margin-left:40px'],
    ['margin-left:0', 'margin-left:0'],
    ['margin-left:90px', ''],
    ['line-height:1.5', 'line-height:1.5'],
    ['line-height:3', ''],
    ['font-family:Papyrus', ''],
    ['color:black;font-size:90px;text-align:left', 'color: black; text-align: left'],
    ['color:black !important', 'color: black'],
  ])('%s', (given, kept) => {
    expect(clean(`<p style="${given}">x</p>`, rulesOf(palette)).html).toBe(kept === '' ? '<p>x</p>' : `<p style="${kept}">x</p>`);
  });
  test('each declaration has an entry of its own, with its place and its rule', () => {
    const input = '<p style="color:red; font-size: 9px">x</p>';
    const { ledger } = clean(input, rulesOf(palette));
    expect(ledger.map(({ start, end, rule, reason }) => [input.slice(start, end), rule, reason])).toEqual([
      ['color:red', '/markup/elements/p/attributes/style/properties/color', 'style-value-not-allowed'],
      ['font-size: 9px', '/markup/elements/p/attributes/style/properties', 'style-property-not-allowed'],
    ]);
  });
  const anything = rulesOf(attribute('p', 'style', { test: 'text' }));
  test.each([
    'background:url(https://collect.example/)',
    'background:\\75rl(https://collect.example/)',
    'background:u/**/rl(x)',
    'width:expression(alert(1))',
    'width:exp/**/ression(alert(1))',
    'behavior:url(x.htc)',
    '-moz-binding:url(x)',
    'background-image:image-set(&quot;x&quot; 1x)',
    'color:var(--x)',
    '--x:1',
    'color:red}body{display:none',
    'color:red;}*{color:blue',
    'content:&quot;</style><script>&quot;',
    'position:fixed;inset:0',
    'color:"',
    'color:red\\',
    '@import url(x)',
    'list-style:url(x)',
    'cursor:url(x),auto',
    'color:unknown-word',
    'made-up:1',
    'filter:url(#x)',
    'mask:element(#x)',
  ])('nothing smuggles itself through: %s', (given) => {
    const { html } = clean(`<p style="${given}">x</p>`, anything);
    expect(html).not.toMatch(/url|expression|var\(|--|fixed|[{}\\@]|image-set|binding|unknown|made-up|element\(|<\/style/);
  });
});

describe('what an element must have', () => {
  const picture = (rule: JsonObject): JsonObject => on('img', { attributes: { src: { test: 'url' }, alt: { test: 'text' } }, ...rule });
  const link = (rule: JsonObject, rest: JsonObject = {}): JsonObject => ({
    ...on('a', { attributes: { href: { test: 'url' } }, ...rule }),
    ...rest,
  });
  all([
    [
      'a picture without a text alternative goes',
      picture({ required: { alt: { otherwise: 'drop' } } }),
      'a<img src="/x.png">b<img src="/y.png" alt="">',
      'ab<img src="/y.png" alt="">',
      ['required-missing: <img src="/x.png"> → '],
    ],
    [
      'or gets an empty one',
      picture({ required: { alt: { otherwise: 'add', value: '' } } }),
      '<img src="/x.png">',
      '<img src="/x.png" alt="">',
      ['required-missing: <img src="/x.png"> → alt=""'],
    ],
    [
      'a link without an address keeps its words',
      link({ required: { href: { otherwise: 'unwrap' } } }),
      '<a>x</a><a href=" ">y</a>',
      'xy',
      ['required-missing: <a> → ', 'required-missing: <a href=" "> → '],
    ],
    [
      'forced always, where absent, and on links that open a window',
      {
        elements: {
          a: {
            attributes: {
              href: { test: 'url' },
              target: { test: 'list', values: ['_blank'] },
              rel: { test: 'tokens', values: ['nofollow'] },
            },
            forced: { rel: { value: 'noopener noreferrer', when: 'new-window' } },
          },
          img: { attributes: { src: { test: 'url' } }, forced: { loading: { value: 'lazy', when: 'absent' } } },
        },
      },
      '<a href="/1" target="_blank" rel="nofollow">x</a><a href="/2">y</a><img src="/z.png">',
      '<a href="/1" target="_blank" rel="nofollow noopener noreferrer">x</a><a href="/2">y</a><img src="/z.png" loading="lazy">',
      ['attribute-forced: rel="nofollow" → rel="nofollow noopener noreferrer"', 'attribute-forced: <img src="/z.png"> → loading="lazy"'],
    ],
    [
      'no link opens a window',
      link({ attributes: { href: { test: 'url' }, target: { test: 'text' } } }, { links: { newWindow: 'never' } }),
      '<a href="https://b.example/" target="_blank">x</a>',
      '<a href="https://b.example/">x</a>',
      ['new-window: target="_blank" → '],
    ],
    [
      'links to other sites do, and others never',
      link({}, { links: { newWindow: 'other-sites', ownHosts: ['a.example'] } }),
      '<a href="https://b.example/">x</a><a href="https://a.example/">y</a><a href="/z">z</a>',
      '<a href="https://b.example/" target="_blank" rel="noopener">x</a><a href="https://a.example/">y</a><a href="/z">z</a>',
      ['new-window: <a href="https://b.example/"> → target="_blank"', 'new-window: <a href="https://b.example/"> → rel="noopener"'],
    ],
    [
      'a frame of a set proportion',
      on('iframe', {
        attributes: {
          src: { test: 'url', hosts: ['c.example'] },
          width: { test: 'integer', max: 640 },
          height: { test: 'integer' },
          title: { test: 'text' },
        },
        ratio: { min: 1.3, max: 1.8 },
        required: { title: { otherwise: 'drop' } },
      }),
      '<iframe src="https://c.example/1" title="Slip" width="640" height="2000" sandbox=""></iframe><iframe src="https://c.example/2"></iframe>',
      '<iframe src="https://c.example/1" title="Slip" width="640" height="492" sandbox=""></iframe>',
      ['ratio-not-allowed: height="2000" → height="492"', 'required-missing: <iframe src="https://c.example/2"></iframe> → '],
    ],
    [
      'only in these parents, and so deep',
      { elements: { p: {}, ul: { depth: 2 }, li: { parents: ['ul'] }, ol: {} } },
      '<ol><li>a</li></ol><ul><li>b<ul><li>c<ul><li>d</li></ul></li></ul></li></ul>',
      '<ol>a</ol><ul><li>b<ul><li><p>c</p><p>d</p></li></ul></li></ul>',
      [
        'parent-not-allowed: <li> → ',
        'depth-limit: <ul> → ',
        'parent-not-allowed: <li> → ',
        'words-apart: c → <p>',
        'words-apart: d → <p>',
      ],
    ],
    [
      'an empty one goes, or is padded',
      { elements: { p: { empty: 'pad' }, em: { empty: 'remove' }, br: {}, td: {} } },
      '<p>a<em> <em></em></em></p><p></p><p><br></p>',
      '<p>a</p><p><br></p><p><br></p>',
      ['empty-element: <em></em> → ', 'empty-element: <em> <em></em></em> → ', 'empty-element: <p> → <br>'],
    ],
    [
      'an element that becomes another with a class',
      {
        elements: {
          center: { outcome: 'rename', to: 'div', forced: { class: { value: 'centred' } } },
          div: { attributes: { class: { test: 'tokens', values: ['centred', 'wide'] } } },
        },
      },
      '<center class="wide">x</center>',
      '<div class="wide centred">x</div>',
      ['attribute-forced: class="wide" → class="wide centred"', 'element-renamed: <center class="wide"> → <div class="wide centred">'],
    ],
  ]);
});

describe('ids', () => {
  const ids = (prefix: string): JsonObject => ({
    elements: { p: {}, a: { attributes: { href: { test: 'url' }, name: { test: 'text' } } } },
    attributes: { id: { test: 'pattern', pattern: '[a-z]{1,8}' }, 'aria-labelledby': { test: 'text' } },
    ids: { prefix },
  });
  all([
    [
      'get a prefix, and what refers to them too',
      ids('c-'),
      '<p id="tides" aria-labelledby="tides other">x</p><a href="#tides">y</a><a href="#menu">z</a>',
      '<p id="c-tides" aria-labelledby="c-tides other">x</p><a href="#c-tides">y</a><a href="#menu">z</a>',
      [
        'id-prefixed: id="tides" → id="c-tides"',
        'id-prefixed: aria-labelledby="tides other" → aria-labelledby="c-tides other"',
        'id-prefixed: href="#tides" → href="#c-tides"',
      ],
    ],
    ['that have it already stay', ids('c-'), '<p id="c-tides">x</p>', '<p id="c-tides">x</p>', []],
    ['are tested without it', ids('c-'), '<p id="much-too-long">x</p>', '<p>x</p>', ['value-not-allowed: id="much-too-long" → ']],
    [
      'that hide a part of the page from its own code go, even without a prefix',
      ids(''),
      '<p id="location">x</p><a name="cookie">y</a>',
      '<p>x</p><a>y</a>',
      ['name-clobbers: id="location" → ', 'name-clobbers: name="cookie" → '],
    ],
  ]);
});

describe('headings', () => {
  const headings = (others: string, top = 2): JsonObject => ({
    elements: { p: {}, h2: {}, h3: { attributes: { id: { test: 'text' } } }, h1: { outcome: 'rename', to: 'h2' }, h6: { outcome: 'drop' } },
    headings: { others, top },
  });
  test.each([
    ['by-element', '<h1>a</h1><h3>b</h3><h4>c</h4>', '<h2>a</h2><h3>b</h3><p>c</p>'],
    ['shift', '<h1>a</h1><h2 id="x">b</h2><h3>c</h3>', '<h2>a</h2><h3 id="x">b</h3><h3>c</h3>'],
    ['shift', '<h4>a</h4><h5>b</h5><h4>c</h4>', '<h2>a</h2><h3>b</h3><h2>c</h2>'],
    ['shift', '<h2>a</h2><h3>b</h3>', '<h2>a</h2><h3>b</h3>'],
    ['clamp', '<h1>a</h1><h3>b</h3><h5>c</h5>', '<h2>a</h2><h3>b</h3><h3>c</h3>'],
    ['paragraph', '<h1>a</h1><h3>b</h3><h5>c</h5>', '<p>a</p><h3>b</h3><p>c</p>'],
    ['clamp', '<h6>gone</h6><h5>c</h5>', '<h3>c</h3>'],
  ])('%s: %s', (others, input, output) => {
    const { html, ledger } = clean(input, rulesOf(headings(others)));
    expect(html).toBe(output);
    for (const { reason, rule } of ledger) if (reason === 'heading-level') expect(rule).toBe('/markup/headings/others');
  });
  test('where the highest goes, the others move once more', () => {
    const rules = rulesOf({ elements: { h2: { empty: 'remove' }, h3: {} }, headings: { others: 'shift' } });
    expect(clean('<h1> </h1><h2>a</h2><h3>b</h3>', rules).html).toBe('<h2>a</h2><h3>b</h3>');
  });
});

describe('spaces and empty paragraphs', () => {
  const text = (hardSpaces: string, emptyParagraphs = 'keep'): JsonObject => ({
    elements: { p: {}, b: {}, br: {} },
    text: { hardSpaces, emptyParagraphs },
  });
  test.each([
    ['keep', 'a&nbsp;b', 'a&nbsp;b'],
    ['plain', 'a&nbsp;b 5&nbsp;km', 'a b 5 km'],
    ['meaningful', 'a&nbsp;b', 'a b'],
    ['meaningful', '5&nbsp;km', '5&nbsp;km'],
    ['meaningful', '12&nbsp;May', '12&nbsp;May'],
    ['meaningful', '10&nbsp;000', '10&nbsp;000'],
    ['meaningful', '2019&nbsp;the harbour', '2019 the harbour'],
    ['meaningful', '&sect;&nbsp;4', '§&nbsp;4'],
    ['meaningful', 'No.&nbsp;7', 'No.&nbsp;7'],
    ['meaningful', 'quoi&nbsp;?', 'quoi&nbsp;?'],
    ['meaningful', '«&nbsp;oui&nbsp;»', '«&nbsp;oui&nbsp;»'],
    ['meaningful', '5&nbsp;&nbsp;km', '5  km'],
    ['meaningful', '<b>5</b>&nbsp;km', '<b>5</b>&nbsp;km'],
    ['meaningful', '<p>5</p>&nbsp;km', '<p>5</p> km'],
  ])('hard spaces %s: %s', (kind, input, output) => expect(clean(input, rulesOf(text(kind))).html).toBe(output));
  test('each hard space has its place', () => {
    const input = '<p>a&nbsp;b 5&nbsp;km c&#160;d</p>';
    const { ledger } = clean(input, rulesOf(text('meaningful')));
    expect(ledger.map(({ start, end }) => input.slice(start - 1, end + 1))).toEqual(['a&nbsp;b', 'c&#160;d']);
  });
  test.each([
    ['keep', '<p>a</p><p>&nbsp;</p><p></p>', '<p>a</p><p>&nbsp;</p><p></p>'],
    ['one', '<p>a</p><p>&nbsp;</p> <p></p><p><br></p><p>b</p><p></p>', '<p>a</p><p>&nbsp;</p> <p>b</p><p></p>'],
    ['one', '<p></p><p></p><p>b</p>', '<p></p><p>b</p>'],
    ['one', '<p></p>x<p></p>', '<p></p>x<p></p>'],
    ['one', '<p></p><b>x</b><p></p>', '<p></p><b>x</b><p></p>'],
    ['remove', '<p>a</p><p>&nbsp;</p><p><b> </b></p><p>b</p>', '<p>a</p><p>b</p>'],
  ])('empty paragraphs %s: %s', (kind, input, output) => expect(clean(input, rulesOf(text('keep', kind))).html).toBe(output));
});

describe('limits and output', () => {
  test.each<[JsonObject, string, string, number]>([
    [{ limits: { letters: 5 } }, '<p>one <b>two</b> three</p><p>four</p>', '<p>one <b>tw</b></p>', 10],
    [{ limits: { letters: 3 } }, 'a😀b', 'a😀', 1],
    [{ limits: { letters: 2 } }, 'a😀b', 'a', 3],
    [{ limits: { elements: 2 } }, '<p>a<b>b</b><b>c</b></p><p>d</p>', '<p>a<b>b</b>c</p>d', 0],
    [{ limits: { nesting: 1 } }, '<p>a<b>b</b></p>', '<p>ab</p>', 0],
  ])('%j', (rest, input, output, lost) => {
    const { html, ledger } = clean(input, rulesOf({ elements: { p: {}, b: {} }, ...rest }));
    expect(html).toBe(output);
    expect(ledger.reduce((sum, { textLost }) => sum + textLost, 0)).toBe(lost);
  });
  test.each([
    ['raw', 'é – 😀 &amp;', 'é – 😀 &amp;'],
    ['named', 'é – 😀&nbsp;&amp;', '&eacute; &ndash; &#128512;&nbsp;&amp;'],
    ['numeric', 'é – 😀&nbsp;', '&#233; &#8211; &#128512;&#160;'],
  ])('characters %s', (characters, input, output) => expect(clean(input, rulesOf({ output: { characters } })).html).toBe(output));
  const blocks = { p: {}, ul: {}, li: {}, b: {}, pre: {} };
  const source = '<ul>\n\n<li>one <b>x</b> <ul><li>two</li></ul>\n</li> </ul> <p>a  <b>b</b></p>tail<pre>\n x\n</pre>';
  test('layout compact', () =>
    expect(clean(source, rulesOf({ elements: blocks, output: { layout: 'compact' } })).html).toBe(
      '<ul><li>one <b>x</b><ul><li>two</li></ul></li></ul><p>a  <b>b</b></p>tail<pre> x\n</pre>',
    ));
  test('layout indented', () =>
    expect(clean(source, rulesOf({ elements: blocks, output: { layout: 'indented' } })).html).toBe(
      `<ul>
  <li>
    one <b>x</b>
    <ul>
      <li>two</li>
    </ul>
  </li>
</ul>
<p>a  <b>b</b></p>
tail
<pre> x
</pre>`,
    ));
});

test('the house limits hold for every kind of rule', () => {
  const read = readHouseLimits({
    format: 'typikon-house/1',
    markup: {
      elements: {
        p: { attributes: { id: { test: 'text' } } },
        h2: {},
        img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } }, required: { alt: { otherwise: 'drop' } } },
      },
      ids: { prefix: 'c-' },
      headings: { others: 'clamp' },
      text: { hardSpaces: 'plain', emptyParagraphs: 'remove' },
      limits: { letters: 4 },
      links: { newWindow: 'never' },
    },
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const profile = profileOf({
    elements: {
      p: { attributes: { id: { test: 'text' } } },
      h1: {},
      h2: {},
      img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } } },
    },
  });
  const { html, ledger } = clean(
    '<h1>T</h1><p id="x">a&nbsp;b</p><p></p><img src="/x.png"><p>cd</p>',
    compileRules(profile, { house: read.house }),
  );
  expect(html).toBe('<h2>T</h2><p id="c-x">a b</p><p>c</p>');
  expect(ledger.every(({ layer }) => layer === 'house-limits')).toBe(true);
  expect(ledger.map(({ rule }) => rule)).toEqual([
    '/markup/headings/others',
    '/markup/ids/prefix',
    '/markup/text/emptyParagraphs',
    '/markup/elements/img/required/alt',
    '/markup/limits/letters',
    '/markup/text/hardSpaces',
  ]);
});

test('measures show the piled-up code of years as a figure', () => {
  const input = '<p style="color:red"><font face="x"><span>Two</span></font> words</p>';
  const { html, root, ledger } = clean(input, rulesOf(attribute('p', 'style', { test: 'style', properties: { color: { test: 'any' } } })));
  const { inlineStyles, markupPerTextBefore, markupPerTextAfter } = measure(input, html, root, ledger);
  expect(inlineStyles).toBe(1);
  expect(markupPerTextBefore).toBeCloseTo(58 / 8);
  expect(markupPerTextAfter).toBeCloseTo(24 / 8);
});
