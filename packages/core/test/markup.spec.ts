import { clean, cleanWithoutLedger, compileRules, measure, readHouseLimits, type HouseLimits, type JsonObject } from '../src/index';
import { demoHouse, demoRules, profileOf, resolved, rulesOf } from './support';

const BASIC: JsonObject = {
  elements: {
    p: { attributes: { class: { test: 'tokens', values: ['note', 'lead'] } } },
    h2: {},
    strong: {},
    em: {},
    ul: {},
    ol: { attributes: { start: { test: 'integer', min: 1, max: 99 }, type: { test: 'list', values: ['1', 'a'] } } },
    li: {},
    a: { attributes: { href: { test: 'url' }, title: { test: 'text', maxLength: 20 } } },
    img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } } },
    b: { outcome: 'rename', to: 'strong' },
    h1: { outcome: 'rename', to: 'h2' },
    form: { outcome: 'drop' },
    kbd: { outcome: 'text' },
  },
  attributes: { lang: { test: 'language' } },
  urls: { schemes: { href: ['https', 'mailto'], src: ['https'] } },
};

describe('what stays and what goes', () => {
  test.each([
    ['allowed markup', '<p class="note">A <strong>b</strong></p>', '<p class="note">A <strong>b</strong></p>'],
    ['an element without a rule', '<p><font color="red">words</font></p>', '<p>words</p>'],
    ['a renamed element', '<h1>T</h1><p><b>x</b></p>', '<h2>T</h2><p><strong>x</strong></p>'],
    ['a dropped element', '<p>a</p><form>gone <b>too</b></form>', '<p>a</p>'],
    ['an element shown as text', '<p><kbd class="k">F1</kbd></p>', '<p>&lt;kbd class="k"&gt;F1&lt;/kbd&gt;</p>'],
    ['a comment', '<p>a<!-- b -->c</p>', '<p>ac</p>'],
    ['an attribute without a rule', '<p align="center">x</p>', '<p>x</p>'],
    ['words of a class', '<p class="note Mso lead">x</p>', '<p class="note lead">x</p>'],
    ['no word of a class', '<p class="Mso">x</p>', '<p>x</p>'],
    ['a number in range', '<ol start="5"><li>x</li></ol>', '<ol start="5"><li>x</li></ol>'],
    ['a number out of range', '<ol start="500"><li>x</li></ol>', '<ol><li>x</li></ol>'],
    ['a value not on the list', '<ol type="I"><li>x</li></ol>', '<ol><li>x</li></ol>'],
    ['a language', '<p lang="en-GB">x</p><p lang="not a language">y</p>', '<p lang="en-GB">x</p><p>y</p>'],
    ['a text too long', '<a href="https://a.example/" title="123456789012345678901">x</a>', '<a href="https://a.example/">x</a>'],
    ['a relative address', '<a href="/page#part">x</a>', '<a href="/page#part">x</a>'],
    ['an address with two slashes', '<a href="//a.example/">x</a>', '<a href="//a.example/">x</a>'],
    ['a scheme that is not allowed', '<a href="ftp://a.example/">x</a>', '<a>x</a>'],
    ['a picture whose source is refused', '<p><img src="ftp://a.example/x.png" alt="x"></p>', '<p></p>'],
    ['text at the edge of unwrapped elements', 'a<span>b</span>c', 'abc'],
    ['a paragraph in a paragraph', '<p>a<button><p>b</p></button></p>', '<p>a</p><p>b</p><p></p>'],
    ['a link in a link', '<a href="/1">a<table><tr><td><a href="/2">b</a></td></tr></table></a>', '<a href="/1">a </a><a href="/2">b</a>'],
  ])('%s', (_what, input, output) => {
    const rules = rulesOf(BASIC);
    expect(clean(input, rules).html).toBe(output);
    expect(cleanWithoutLedger(input, rules)).toBe(output);
  });

  test('a renaming in a circle or to nothing keeps the content', () => {
    const rules = rulesOf({
      elements: { b: { outcome: 'rename', to: 'i' }, i: { outcome: 'rename', to: 'b' }, u: { outcome: 'rename', to: 'x-gone' } },
    });
    expect(clean('<b>a</b><i>b</i><u>c</u>', rules).html).toBe('abc');
  });

  test('elements that the parser adds around table rows stay with them', () => {
    expect(clean('<table><tr><td>x</td></tr></table>', rulesOf({ elements: { table: {}, tr: {}, td: {} } })).html).toBe(
      '<table><tbody><tr><td>x</td></tr></tbody></table>',
    );
  });

  test('what is nested deeper than the limit is unwrapped, its text stays', () => {
    const { html, ledger } = clean(
      '<ul><li><ul><li><ul><li>deep</li></ul></li></ul></li></ul>',
      rulesOf({ elements: { ul: {}, li: {} }, limits: { nesting: 4 } }),
    );
    expect(html).toBe('<ul><li><ul><li>deep</li></ul></li></ul>');
    expect(ledger.map(({ reason, rule }) => `${reason} ${rule}`)).toEqual([
      'nesting-limit /markup/limits/nesting',
      'nesting-limit /markup/limits/nesting',
    ]);
  });
});

describe('addresses in disguise', () => {
  const rules = rulesOf({
    elements: { a: { attributes: { href: { test: 'text' } } }, img: { attributes: { src: { test: 'text' } } } },
    urls: { schemes: { href: ['https', 'javascript', 'data'], src: ['https', 'data'] } },
  });
  test.each([
    'javascript:alert(1)',
    'JaVaScRiPt:alert(1)',
    ' javascript:alert(1)',
    '&#1;javascript:alert(1)',
    'java&#9;script:alert(1)',
    'java&#10;script:alert(1)',
    'java\nscript:alert(1)',
    'javascript&colon;alert(1)',
    '&#x6A;avascript:alert(1)',
    'vbscript:msgbox(1)',
    'data:text/html,x',
    'data:image/svg+xml,x',
    'blob:https://a/1',
    'view-source:x',
    'filesystem:x',
  ])('%s', (address) => {
    expect(clean(`<a href="${address}">x</a>`, rules).html).toBe('<a>x</a>');
  });
  test('a picture in a data address stays where the rules allow the scheme', () => {
    expect(clean('<img src="data:image/png;base64,AA">', rules).html).toBe('<img src="data:image/png;base64,AA">');
    expect(clean('<img src="data:image/svg+xml;base64,AA">', rules).html).toBe('');
  });
});

describe('the ledger', () => {
  const entriesOf = (html: string, markup: JsonObject = BASIC) => clean(html, rulesOf(markup)).ledger;

  test('names the stage, the rule, the place, what stood there and what stands there now', () => {
    expect(entriesOf('<p>one\n <b class="x">two</b></p>')).toEqual([
      {
        stage: 'markup',
        layer: 'profile',
        rule: '/markup/elements/strong',
        origin: 'test',
        action: 'removed',
        subject: { kind: 'attribute', element: 'b', attribute: 'class', value: 'x' },
        start: 11,
        end: 20,
        line: 2,
        column: 5,
        path: 'p > b',
        before: 'class="x"',
        after: '',
        textLost: 0,
        severity: 'change',
        reason: 'attribute-not-allowed',
      },
      {
        stage: 'markup',
        layer: 'profile',
        rule: '/markup/elements/b',
        origin: 'test',
        action: 'renamed',
        subject: { kind: 'element', element: 'b' },
        start: 8,
        end: 28,
        line: 2,
        column: 2,
        path: 'p > b',
        before: '<b class="x">',
        after: '<strong>',
        textLost: 0,
        severity: 'change',
        reason: 'element-renamed',
      },
    ]);
  });

  test('counts the text that goes with an element', () => {
    expect(entriesOf('<form>two words</form>')).toMatchObject([
      { action: 'removed', textLost: 8, severity: 'loss', reason: 'element-dropped' },
    ]);
  });

  test('points at each of several children', () => {
    expect(entriesOf('<p><u>a</u><em>b</em><u>c</u></p>').map(({ path }) => path)).toEqual(['p > u:nth-child(1)', 'p > u:nth-child(3)']);
  });

  test('says what the standard itself leaves out', () => {
    expect(entriesOf('<body>x')).toMatchObject([
      { stage: 'read', layer: 'html-standard', reason: 'tag-ignored-by-parser', before: '<body>' },
    ]);
    expect(entriesOf('a\ud83d b\udca9 \u{1f4a9}')).toMatchObject([
      { reason: 'half-character', action: 'changed', start: 1, end: 2, after: '\ufffd' },
      { reason: 'half-character', action: 'changed', start: 4, end: 5, after: '\ufffd' },
    ]);
    expect(entriesOf('x <a href="never closed')).toMatchObject([{ reason: 'tag-unfinished', severity: 'change' }]);
  });

  test('says that of an attribute given twice the first counts', () => {
    expect(entriesOf('<a href="https://a.example/" title=x HREF="javascript:x()">y</a>')).toMatchObject([
      { stage: 'read', layer: 'html-standard', reason: 'attribute-repeated', before: 'HREF="javascript:x()"', path: 'a' },
    ]);
  });

  test('says once that one tag went, though the parser made several elements of it', () => {
    expect(entriesOf('<p><font>a<p>b<p>c')).toHaveLength(1);
  });

  test('says that nesting was put in order, at its place in the input', () => {
    const entries = entriesOf('<p>intro</p><p>a<button><p>b</p></button></p>');
    expect(entries).toContainEqual(expect.objectContaining({ stage: 'settle', reason: 'nesting-impossible', start: 24 }));
  });

  test('cuts long sources short', () => {
    const [entry] = entriesOf(`<p title="${'x'.repeat(2000)}">y</p>`);
    expect(entry!.before).toHaveLength(501);
    expect(entry!.end - entry!.start).toBe(2008);
  });
});

describe('layers', () => {
  const house = (markup: JsonObject, trustedRoles: JsonObject = {}): HouseLimits => {
    const read = readHouseLimits({ format: 'typikon-house/1', markup, trustedRoles });
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    return read.house;
  };
  const profile = profileOf({
    elements: {
      p: { attributes: { class: { test: 'text' } } },
      iframe: { attributes: { src: { test: 'url', hosts: ['cams.example'] }, width: { test: 'integer' } } },
    },
  });
  const frame = '<iframe src="https://cams.example/1" width="300"></iframe>';
  const limits = house(
    { elements: { p: { attributes: { class: { test: 'tokens', values: ['note'] } } } } },
    { 'web-team': { except: ['/elements/iframe'] } },
  );

  test('a profile never exceeds the house', () => {
    const { html, ledger } = clean(`<p class="note wild">x</p>${frame}`, compileRules(profile, { house: limits }));
    expect(html).toBe('<p class="note">x</p>');
    expect(ledger.map(({ layer, rule, reason }) => `${layer} ${rule} ${reason}`)).toEqual([
      'house-limits /markup/elements/p/attributes/class value-not-allowed',
      'house-limits /markup/unlisted element-not-allowed',
    ]);
  });

  test('a trusted role is excepted for what the house names, and a frame is always closed in', () => {
    expect(clean(frame, compileRules(profile, { house: limits, role: 'web-team' })).html).toBe(
      '<iframe src="https://cams.example/1" width="300" sandbox="allow-scripts allow-popups"></iframe>',
    );
    expect(clean(frame, compileRules(profile, { house: limits, role: 'crew' })).html).toBe('');
  });

  test('a frame of another host goes whole, and the ledger names the host in its source', () => {
    const { html, ledger } = clean('<iframe src="https://elsewhere.example/"></iframe>', compileRules(profile));
    expect(html).toBe('');
    expect(ledger).toMatchObject([
      {
        reason: 'host-not-allowed',
        severity: 'loss',
        before: '<iframe src="https://elsewhere.example/"></iframe>',
        rule: '/markup/elements/iframe/attributes/src',
      },
    ]);
  });

  test('a rule that a parent set is said to be the parent’s', () => {
    const documents: Record<string, JsonObject> = {
      parent: { format: 'typikon-profile/1', name: 'Parent', markup: { elements: { p: {}, b: { outcome: 'drop' } } } },
      child: { format: 'typikon-profile/1', name: 'Child', extends: 'parent', markup: { elements: { i: { outcome: 'drop' } } } },
    };
    const { ledger } = clean('<b>x</b><i>y</i>', compileRules(resolved('child', (id) => documents[id])));
    expect(ledger.map(({ layer, origin }) => `${layer} ${origin}`)).toEqual(['parent-profile parent', 'profile child']);
  });

  test('the floor stands above every rule', () => {
    const rules = rulesOf({ elements: { script: {}, p: { attributes: { onclick: { test: 'text' }, style: { test: 'text' } } } } });
    const { html, ledger } = clean('<p onclick="x()" style="color:red;background:url(x)">a</p><script>b()</script>', rules);
    expect(html).toBe('<p style="color: red">a</p>');
    expect(ledger.map(({ layer, before }) => `${layer} ${before}`)).toEqual([
      'safety-floor onclick="x()"',
      'safety-floor background:url(x)',
      'safety-floor <script>b()</script>',
    ]);
  });

  test('the demo: a camera in a frame is taken by the house', () => {
    const { ledger } = clean(
      '<p>x</p><iframe src="https://cams.orrenstrand.example/slip"></iframe>',
      demoRules('story-desk', { house: demoHouse() }),
    );
    expect(ledger).toMatchObject([{ layer: 'house-limits', reason: 'element-not-allowed', severity: 'loss' }]);
  });
});

test('measures compare what came in with what is stored', () => {
  const input = '<p><font color="red">Two words</font></p><form>lost</form><!-- é -->';
  const { html, root, ledger } = clean(input, rulesOf(BASIC));
  expect(measure(input, html, root, ledger)).toEqual({
    bytesBefore: 69,
    bytesAfter: 16,
    lettersAfter: 8,
    lettersBefore: 12,
    lettersMissed: 4,
    elements: 1,
    deepest: 1,
    inlineStyles: 0,
    markupPerTextBefore: 53 / 12,
    markupPerTextAfter: 7 / 8,
    changes: 3,
    losses: 1,
    rules: 3,
  });
});
