import fc from 'fast-check';
import {
  clean,
  compileRules,
  detectSource,
  parseFragment,
  PASS_IDS,
  PASTE_SOURCES,
  passOrder,
  PASSES,
  runPaste,
  visibleLetters,
  type JsonObject,
} from '../src/index';
import { DEMO_MARKUP, demoProfile, resolved } from './support';
import { isWord } from './specimens';
import { tangledMarkup } from './tangled-markup';
import { runs } from './fixed-seed';

/** Keeps everything that a pass could leave, so that what goes went by a pass. */
const OPEN: JsonObject = {
  elements: Object.fromEntries(
    'p div span font b i u s strong em sup sub a h1 h2 h3 ul ol li table thead tbody tr td th img br hr blockquote section del ins code'
      .split(' ')
      .map((name) => [name, { attributes: { class: { test: 'text' }, style: { test: 'text' } } }]),
  ),
  attributes: {
    href: { test: 'url' },
    lang: { test: 'language' },
    id: { test: 'text' },
    name: { test: 'text' },
    type: { test: 'text' },
    start: { test: 'text' },
    src: { test: 'url' },
    width: { test: 'text' },
    height: { test: 'text' },
    border: { test: 'text' },
    scope: { test: 'text' },
    colspan: { test: 'text' },
    valign: { test: 'text' },
  },
  urls: { schemes: { href: ['https', 'http', 'mailto'] } },
};

const profile = (passes: JsonObject = {}, order: string[] = []) =>
  resolved('desk', () => ({ format: 'typikon-profile/1', name: 'Desk', markup: OPEN, paste: { order, passes } }));
/** Only one pass works, with some settings. */
const only = (id: string, settings: JsonObject = {}): JsonObject =>
  Object.fromEntries(PASS_IDS.map((other) => [other, other === id ? { on: true, ...settings } : { on: false }]));
const paste = (html: string, passes: JsonObject = {}): string =>
  runPaste({ types: { 'text/html': html } }, profile(passes), { source: 'web-page', isWord }).html;

const WORD_LIST = (levels: [level: number, marker: string, text: string][], list = 0): string =>
  levels
    .map(
      ([level, marker, text]) =>
        `<p class=MsoListParagraph style='margin-left:${36 * level}.0pt;text-indent:-18.0pt;mso-list:l${list} level${level} lfo1'><![if !supportLists]><span style='font-family:Symbol;mso-list:Ignore'>${marker}<span style='font:7.0pt "Times New Roman"'>&nbsp;&nbsp;&nbsp; </span></span><![endif]>${text}<o:p></o:p></p>`,
    )
    .join('\n');

describe('where a paste comes from', () => {
  test.each([
    ['word-processor', { 'text/html': '<html xmlns:w="urn:schemas-microsoft-com:office:word"><p class=MsoNormal>x</p>' }],
    ['word-processor', { 'text/html': '<b style="font-weight:normal" id="docs-internal-guid-1"><p>x</p></b>' }],
    [
      'spreadsheet',
      { 'text/html': '<html xmlns:x="urn:schemas-microsoft-com:office:excel"><table><tr><td class=xl65>1</td></tr></table>' },
    ],
    ['spreadsheet', { 'text/html': '<meta name="generator" content="Sheet Calc"><table><td sdnum="1">1</td></table>' }],
    ['web-mail', { 'text/html': '<div>Hi</div><blockquote type="cite">old</blockquote>' }],
    ['this-editor', { 'text/html': '<p data-pm-slice="1 1 []">x</p>' }],
    ['web-page', { 'text/html': '<div><p>x</p></div>' }],
    ['plain-text', { 'text/plain': 'Just words.' }],
    ['markdown', { 'text/plain': '# Title\n\n- one\n- two\n\n**bold** and [a link](https://a.example/)' }],
    [
      'pdf-viewer',
      {
        'text/plain': Array.from({ length: 8 }, (_, i) => `the water stands so high at number ${i} that boats must wait for the`).join(
          '\n',
        ),
      },
    ],
  ])('%s', (source, types) => {
    const found = detectSource({ types: types });
    expect(found.source).toBe(source);
    expect(found.evidence.length).toBeGreaterThan(0);
  });
});

describe('each pass', () => {
  test.each<[id: string, settings: JsonObject, input: string, output: string]>([
    ['office-leftovers', {}, '<!--[if gte mso 9]><xml>x</xml><![endif]--><p>a<o:p></o:p></p>', '<p>a</p>'],
    ['office-leftovers', {}, '<p style="mso-line-height-rule:exactly;color:red">a</p>', '<p style="color:red">a</p>'],
    ['office-leftovers', {}, '<p>a<a name="_Toc1"></a><ins>new</ins><del>old</del></p>', '<p>anew</p>'],
    ['office-leftovers', { deletions: 'keep' }, '<p><del>old</del></p>', '<p><del>old</del></p>'],
    ['office-leftovers', {}, '<b style="font-weight:normal" id="docs-internal-guid-7"><p>a</p></b>', '<p>a</p>'],
    [
      'lists',
      {},
      WORD_LIST([
        [1, '·', 'one'],
        [1, '·', 'two'],
      ]).replace(/<o:p><\/o:p>/g, ''),
      '<ul><li>one</li><li>two</li></ul>',
    ],
    [
      'lists',
      {},
      WORD_LIST([
        [1, '1.', 'one'],
        [2, 'a)', 'inner'],
        [2, 'b)', 'more'],
        [1, '2.', 'two'],
      ]).replace(/<o:p><\/o:p>/g, ''),
      '<ol><li>one<ol type="a"><li>inner</li><li>more</li></ol></li><li>two</li></ol>',
    ],
    [
      'lists',
      {},
      `${WORD_LIST([[1, '1.', 'one']])}<p>between</p>${WORD_LIST([[1, '2.', 'two']])}`.replace(/<o:p><\/o:p>/g, ''),
      '<ol><li>one</li></ol><p>between</p><ol start="2"><li>two</li></ol>',
    ],
    ['lists', {}, '<p>- one</p><p>- two</p><p>three</p>', '<ul><li>one</li><li>two</li></ul><p>three</p>'],
    [
      'lists',
      {},
      '<p>1. one</p>\n<p>2. two</p><p>1. again</p><p>2. more</p>',
      '<ol><li>one</li><li>two</li></ol><ol><li>again</li><li>more</li></ol>',
    ],
    ['lists', {}, '<p>iv) four</p><p>v) five</p>', '<ol type="i" start="4"><li>four</li><li>five</li></ol>'],
    ['lists', {}, '<p>1. only one</p><p>- and this</p>', '<p>1. only one</p><p>- and this</p>'],
    ['lists', {}, '<p>- <b>one</b></p><p>- two</p>', '<ul><li><b>one</b></li><li>two</li></ul>'],
    ['lists', {}, '<p>- one<br>- two</p>', '<ul><li>one</li><li>two</li></ul>'],
    [
      'lists',
      {},
      '<p>Bring:<br>boots<br>- one<br>- two<br>and<br>more</p>',
      '<p>Bring:<br>boots</p><ul><li>one</li><li>two</li></ul><p>and<br>more</p>',
    ],
    ['lists', {}, '<p>- one<br>more<br>- two</p>', '<p>- one<br>more<br>- two</p>'],
    ['lists', { typed: false }, '<p>- one</p><p>- two</p>', '<p>- one</p><p>- two</p>'],
    ['lists', {}, '<ul><li>a</li><ul><li>b</li></ul></ul>', '<ul><li>a<ul><li>b</li></ul></li></ul>'],
    [
      'notes',
      {},
      '<p>Agreed<a href="#_ftn1" name="_ftnref1">[1]</a>.</p><div id="ftn1"><p><a href="#_ftnref1" name="_ftn1">[1]</a> In March.</p></div>',
      '<p>Agreed<sup><a href="#note-1" id="noteref-1">1</a></sup>.</p><ol><li id="note-1">In March. <a href="#noteref-1">↩</a></li></ol>',
    ],
    [
      'notes',
      {},
      '<p>a<a href="#_ftn1" name="_ftnref1">[1]</a> b<a href="#_ftn1">[1]</a></p><div id="ftn1"><p><a href="#_ftnref1" name="_ftn1">[1]</a> See<a href="#_ftn2" name="_ftnref2">[2]</a>.</p></div><div id="ftn2"><p><a href="#_ftnref2" name="_ftn2">[2]</a> More.</p></div>',
      '<p>a<sup><a href="#note-1" id="noteref-1">1</a></sup> b<sup><a href="#note-1">1</a></sup></p><ol><li id="note-1">See<sup><a href="#note-2" id="noteref-2">2</a></sup>. <a href="#noteref-1">↩</a></li><li id="note-2">More. <a href="#noteref-2">↩</a></li></ol>',
    ],
    [
      'notes',
      { become: 'bracketed' },
      '<p>Agreed<a href="#s1" name="a1">1</a>.</p><div id="sdfootnote1"><p><a href="#a1" name="s1">1</a>In March.</p></div>',
      '<p>Agreed [In March.].</p>',
    ],
    [
      'notes',
      { become: 'drop' },
      '<p>Agreed<a href="#s1" name="a1">1</a>.</p><div id="sdfootnote1"><p><a href="#a1" name="s1">1</a>In March.</p></div>',
      '<p>Agreed.</p>',
    ],
    ['inline-style', {}, '<p style="color:red"><span style="font-weight:700">a</span></p>', '<p><span><strong>a</strong></span></p>'],
    [
      'inline-style',
      {},
      '<p><span style="font-style:italic;text-decoration:line-through">a</span></p>',
      '<p><span><s><em>a</em></s></span></p>',
    ],
    ['inline-style', {}, '<p>x<span style="vertical-align:super">2</span></p>', '<p>x<span><sup>2</sup></span></p>'],
    ['inline-style', {}, '<h2 style="font-weight:bold">a</h2>', '<h2>a</h2>'],
    ['inline-style', { asMarkup: false }, '<p><span style="font-weight:700">a</span></p>', '<p><span>a</span></p>'],
    ['inline-style', { keep: ['text-align'] }, '<p style="text-align:center;color:red">a</p>', '<p style="text-align: center">a</p>'],
    ['inline-style', { drop: ['color'] }, '<p style="text-align:center;color:red">a</p>', '<p style="text-align: center">a</p>'],
    ['inline-style', { alignmentClasses: { center: 'centred' } }, '<p style="text-align:center">a</p>', '<p class="centred">a</p>'],
    ['inline-style', {}, '<p><b style="font-weight:normal">a</b></p>', '<p>a</p>'],
    ['classes', {}, '<p class="MsoNormal note">a</p>', '<p class="note">a</p>'],
    ['classes', { become: 'drop-all' }, '<p class="note">a</p>', '<p>a</p>'],
    ['classes', { become: 'keep-named', keep: ['is-*'] }, '<p class="note is-wide">a</p>', '<p class="is-wide">a</p>'],
    ['wrappers', {}, '<p><span>a</span><span class="x">b</span><font>c</font></p>', '<p>a<span class="x">b</span>c</p>'],
    ['wrappers', { which: 'all' }, '<p><span class="x">b</span></p>', '<p>b</p>'],
    ['elements', { unwrap: ['u'], drop: ['hr'], attributes: ['class'] }, '<p class="x"><u>a</u></p><hr>', '<p>a</p>'],
    [
      'headings',
      { boldOnly: true },
      '<p><b>Charges</b></p><p><b>Not a heading.</b></p><p><b>Half</b> bold</p>',
      '<h2>Charges</h2><p><b>Not a heading.</b></p><p><b>Half</b> bold</p>',
    ],
    ['links', {}, '<a href="https://a.example/x?utm_source=n&id=3#p">a</a>', '<a href="https://a.example/x?id=3#p">a</a>'],
    ['links', {}, '<a href="file:///C:/x.doc">a</a> <a href="C:\\x.doc">b</a>', 'a b'],
    [
      'links',
      { redirects: [{ host: 'safe.mail.example', parameter: 'url' }] },
      '<a href="https://eu.safe.mail.example/?url=https%3A%2F%2Fa.example%2Fx&amp;data=1">a</a>',
      '<a href="https://a.example/x">a</a>',
    ],
    [
      'links',
      { redirects: [{ host: 'safe.mail.example', parameter: 'url' }] },
      '<a href="https://safe.mail.example/?url=javascript%3Ax()">a</a>',
      '<a href="https://safe.mail.example/?url=javascript%3Ax()">a</a>',
    ],
    ['links', {}, '<a href="#here">go</a><a name="here">a</a><a name="unused">b</a>', '<a href="#here">go</a><a id="here">a</a>b'],
    ['links', {}, '<p><a href="#here">go</a></p><h2><a name="here">a</a></h2>', '<p><a href="#here">go</a></p><h2 id="here">a</h2>'],
    ['links', {}, '<h2 id="h.x1">a</h2><p id="t">b</p><p><a href="#t">c</a></p>', '<h2>a</h2><p id="t">b</p><p><a href="#t">c</a></p>'],
    ['links', { bookmarks: 'keep' }, '<h2 id="h.x1">a</h2>', '<h2 id="h.x1">a</h2>'],
    [
      'links',
      { unwrapHosts: ['b.example'] },
      '<a href="https://x.b.example/">a</a> <a href="https://c.example/">b</a>',
      'a <a href="https://c.example/">b</a>',
    ],
    ['links', {}, '<a href="/C:/x.doc">a</a><a href=" java script:x()">b</a>', 'ab'],
    [
      'tables',
      {},
      '<table border="0" width="300"><tbody><tr><td width="10">a</td><td>b</td></tr></tbody></table>',
      '<table><tbody><tr><td>a</td><td>b</td></tr></tbody></table>',
    ],
    [
      'tables',
      {},
      '<table><tbody><tr><td><b>Day</b></td><td><b>High</b></td></tr><tr><td colspan="2">1</td></tr></tbody></table>',
      '<table><tbody><tr><th scope="col">Day</th><th scope="col">High</th></tr><tr><td colspan="2">1</td></tr></tbody></table>',
    ],
    ['tables', {}, '<table><tbody><tr><td><p>all of it</p></td></tr></tbody></table>', '<p>all of it</p>'],
    [
      'tables',
      {},
      '<table role="presentation"><tbody><tr><td>left</td><td><h2>right</h2></td></tr></tbody></table>',
      '<p>left</p><h2>right</h2>',
    ],
    [
      'tables',
      { headerRow: 'never', cellParagraphs: 'keep', sizes: 'keep' },
      '<table border="1"><tbody><tr><td><p><b>a</b></p></td></tr><tr><td width="9">b</td></tr></tbody></table>',
      '<table border="1"><tbody><tr><td><p><b>a</b></p></td></tr><tr><td width="9">b</td></tr></tbody></table>',
    ],
    [
      'tables',
      {},
      '<table><colgroup><col width="8"></colgroup><tbody><tr><td><p>a</p></td><td>b</td></tr></tbody></table>',
      '<table><tbody><tr><td>a</td><td>b</td></tr></tbody></table>',
    ],
    ['pictures', {}, '<p><img src="file:///C:/x.png" alt="The slip"></p>', '<p>[Picture to upload: The slip]</p>'],
    ['pictures', { local: 'drop' }, '<p>a<img src="cid:part1" alt="x"></p>', '<p>a</p>'],
    ['pictures', { remote: 'stand-in' }, '<p><img src="https://a.example/x.png"></p>', '<p>[Picture to upload]</p>'],
    [
      'pictures',
      { widestPx: 100 },
      '<p><img src="https://a.example/x.png" width="400" height="200"></p>',
      '<p><img src="https://a.example/x.png" width="100" height="50"></p>',
    ],
    ['pictures', {}, '<p>a<img src="https://a.example/x.gif" width="1" height="1"></p>', '<p>a</p>'],
    ['pictures', { embedded: 'stand-in' }, '<p><img src="data:image/svg+xml;base64,PHN2Zz4="></p>', '<p>[Picture to upload]</p>'],
    ['find-replace', { rules: [{ find: 'Harbor', replace: 'Harbour' }] }, '<p>Harbor <b>Har</b>bor</p>', '<p>Harbour <b>Harbour</b></p>'],
    [
      'find-replace',
      { rules: [{ find: '(\\d+)\\s*hrs', as: 'pattern', replace: '$1 hours', matchCase: false }] },
      '<p>after 5 HRS</p>',
      '<p>after 5 hours</p>',
    ],
    [
      'find-replace',
      { rules: [{ find: 'http://', in: 'attributes', name: 'href', replace: 'https://' }] },
      '<p><a href="http://a.example/">http://</a></p>',
      '<p><a href="https://a.example/">http://</a></p>',
    ],
    [
      'find-replace',
      { rules: [{ find: 'Sent from my .*', as: 'pattern', in: 'elements', name: 'p' }] },
      '<p>Words.</p><p>Sent from my <b>phone</b></p>',
      '<p>Words.</p>',
    ],
    ['find-replace', { rules: [{ find: 'old', in: 'elements', replace: 'new' }] }, '<p><b>old</b> hat</p>', '<p>new hat</p>'],
    ['typography', {}, '<p>"It\'s late..." she said - twice, 9-11 May.</p>', '<p>‘It’s late…’ she said – twice, 9-11 May.</p>'],
    ['typography', { quotes: 'curly-double', dashes: 'em', ellipsis: 'dots' }, '<p>"So" – she… \'no\'</p>', '<p>“So”—she... ‘no’</p>'],
    [
      'typography',
      { quotes: 'straight', dashes: 'keep' },
      '<p>“So” – she said ‘no’</p><code>“x”</code>',
      '<p>"So" – she said \'no\'</p><code>“x”</code>',
    ],
    [
      'joined-lines',
      { sources: ['web-page'] },
      '<p>The survey of the outer bar was carried out on two<br>days. The least depth found in the chan-<br>nel was some metres west of the lead-<br>ing line.</p><p>The channel is well-<br>kept.</p>',
      '<p>The survey of the outer bar was carried out on two days. The least depth found in the channel was some metres west of the leading line.</p><p>The channel is well-kept.</p>',
    ],
    [
      'joined-lines',
      { sources: ['web-page'], hyphens: 'keep' },
      '<div>The survey of the outer bar was carried out on two</div><div>days. The least depth found in the chan-</div><div>nel was 2.4 metres.</div>',
      '<div>The survey of the outer bar was carried out on two days. The least depth found in the chan-nel was 2.4 metres.</div>',
    ],
    [
      'headings',
      {},
      '<p class="MsoTitle">Bar</p><p style="mso-outline-level:3">Mark</p><div role="heading" aria-level="2">Sea</div>',
      '<h1 class="MsoTitle">Bar</h1><h3>Mark</h3><h2>Sea</h2>',
    ],
    [
      'elements',
      { only: ['p', 'strong'], onlyAttributes: ['class'] },
      '<p class="x" title="t"><u>a</u><strong>b</strong></p>',
      '<p class="x">a<strong>b</strong></p>',
    ],
    [
      'elements',
      { only: ['p', 'strong'] },
      '<ul><li>High<ul><li><b>low</b></li></ul></li></ul><h2>Fees</h2>',
      '<p>High</p><p><b>low</b></p><p>Fees</p>',
    ],
    ['elements', { unwrap: ['h2', 'p'] }, '<h2>a</h2><p>b</p>', 'a<br>b'],
    ['classes', { drop: ['lead'] }, '<p class="lead note">a</p>', '<p class="note">a</p>'],
    ['inline-style', { vendor: 'keep' }, '<p style="-webkit-line-clamp: 2; color: red">a</p>', '<p style="-webkit-line-clamp: 2">a</p>'],
    [
      'inline-style',
      {},
      '<style>.c1 { font-weight: 700 }</style><p><span class="c1">a</span></p>',
      '<p><span class="c1"><strong>a</strong></span></p>',
    ],
    [
      'inline-style',
      {},
      '<div style="font-weight:bold"><p>a</p><p>b</p></div>',
      '<div><p><strong>a</strong></p><p><strong>b</strong></p></div>',
    ],
    ['wrappers', {}, '<p><strong>a</strong> <strong>b</strong><em>c</em></p>', '<p><strong>a b</strong><em>c</em></p>'],
    ['wrappers', {}, '<p><font color="red" face="Arial">a</font><span lang="fr">b</span></p>', '<p>a<span lang="fr">b</span></p>'],
    ['spaces', {}, '<p>5&nbsp;km&nbsp;off</p><p>&nbsp;</p>', '<p>5&nbsp;km off</p>'],
    ['spaces', {}, '<p> a\n b </p>\n\n<br>\n<p>c<br></p>', '<p>a b</p>\n<p>c</p>'],
    ['spaces', {}, '<div>a</div><div class="box"><p>b</p></div>', '<p>a</p><div class="box"><p>b</p></div>'],
    ['spaces', { emptyParagraphs: 'breaks' }, '<p>a</p><p>&nbsp;</p><p>b</p>', '<p>a</p><br><p>b</p>'],
    ['spaces', { lines: 'keep', whiteSpace: 'keep' }, '<div> a  b </div>', '<div> a  b </div>'],
    ['spaces', {}, '<p>a\u200bb\u00adc</p>', '<p>abc</p>'],
    ['spaces', {}, '<p>one<br><br>two<br>three</p>', '<p>one</p><p>two<br>three</p>'],
    [
      'spaces',
      { hardSpaces: 'all', breaks: 'keep', emptyParagraphs: 'keep' },
      '<p>5&nbsp;km<br><br>x</p><p></p>',
      '<p>5 km<br><br>x</p><p></p>',
    ],
  ])('%s %j: %s', (id, settings, input, output) => {
    expect(paste(input, only(id, settings))).toBe(output);
    // Its own result is left alone.
    expect(paste(output, only(id, settings))).toBe(output);
  });

  test('has an example above', () => expect(Object.keys(PASSES).sort()).toEqual([...PASS_IDS].sort()));
});

test('minutes from a word processor, by the default ladder and the rules of a desk', () => {
  const html = DEMO_MARKUP.find(({ name }) => name.endsWith('committee-minutes.html'))!.html;
  const { html: out, trace, source } = runPaste({ types: { 'text/html': html } }, demoProfile('notices-desk'));
  expect(source.source).toBe('word-processor');
  expect(out).not.toMatch(/mso|Mso|style=|<span|<font|o:p/);
  expect(out).toMatch(/<ul><li>Low water 05:12<\/li><li>High water 11:20<ul><li>the gate opens an hour before<\/li><\/ul><\/li><\/ul>/);
  expect(out).toMatch(/<sup><a href="#c-note-1" id="c-noteref-1">1<\/a><\/sup>/);
  expect(trace.filter(({ changes }) => changes > 0).map(({ pass }) => pass)).toEqual(
    expect.arrayContaining(['office-leftovers', 'lists', 'notes', 'inline-style']),
  );
});

describe('the order of passes', () => {
  test('is that of the profile, then the usual one', () => {
    expect(passOrder(profile({}, ['spaces', 'links'])).slice(0, 3)).toEqual(['spaces', 'links', 'joined-lines']);
    expect(passOrder(profile())).toEqual(PASS_IDS);
  });
  test('a pass works only on its sources', () => {
    const passes = only('wrappers', { sources: ['spreadsheet'] });
    expect(paste('<p><span>a</span></p>', passes)).toBe('<p><span>a</span></p>');
  });
});

describe('laws', () => {
  const house = demoProfile('story-desk');
  const rules = compileRules(house);
  const holds = (html: string, order: string[]): void => {
    const desk = profile({}, order);
    const { html: out, root, ledger, input } = runPaste({ types: { 'text/html': html } }, desk);
    // Safe and stable: what comes out passes the rules unchanged, and pasting it again changes no word of it.
    expect(clean(out, compileRules(desk)).html).toBe(out);
    const lost = ledger.reduce((sum, { textLost }) => sum + textLost, 0);
    expect(visibleLetters(root) + lost).toBe(visibleLetters(parseFragment(input).root));
    for (const { start, end } of ledger) {
      expect(start).toBeGreaterThanOrEqual(0);
      expect(end).toBeLessThanOrEqual(input.length);
    }
  };
  test.each(DEMO_MARKUP.map(({ name, html }): [string, string] => [name, html]))('%s', (_name, html) => {
    const { html: out, root, ledger, input } = runPaste({ types: { 'text/html': html } }, house);
    expect(clean(out, rules).html).toBe(out);
    const lost = ledger.reduce((sum, { textLost }) => sum + textLost, 0);
    expect(visibleLetters(root) + lost).toBe(visibleLetters(parseFragment(input).root));
    holds(html, []);
  });
  test.each(PASS_IDS)('%s alone breaks no tree', (id) => {
    const desk = profile(only(id, { sources: [...PASTE_SOURCES] }));
    const deskRules = compileRules(desk);
    for (const { html } of DEMO_MARKUP) {
      const { html: out, root, ledger, input } = runPaste({ types: { 'text/html': html } }, desk, { rules: deskRules });
      expect(clean(out, deskRules).html).toBe(out);
      const lost = ledger.reduce((sum, { textLost }) => sum + textLost, 0);
      expect(visibleLetters(root) + lost).toBe(visibleLetters(parseFragment(input).root));
    }
  });
  test('any order of passes gives a safe result, and text is lost only with an entry that says so', () => {
    const noTyped = fc.shuffledSubarray([...PASS_IDS]);
    fc.assert(
      fc.property(tangledMarkup, noTyped, (html, order) => holds(html, order)),
      { numRuns: runs(600) },
    );
  });
});
