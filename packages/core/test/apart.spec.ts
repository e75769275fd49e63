import fc from 'fast-check';
import { clean, parseFragment, renderedText, type CompiledRules, type JsonObject } from '../src/index';
import { cleansOnce, hiddenStaysHidden, partsHaveWholes, wordsStayApart } from './content-laws';
import { CATALOGUE_NAMES, randomContent } from './random-content';
import { randomRuleSets } from './random-rules';
import { rulesOf } from './support';
import { mostPermissive } from './most-permissive';
import { runs } from './fixed-seed';

const RULE_SETS = randomRuleSets(80, 14);
/** Those that show no tags as text and cut no text off: both make words that were not there. */
const WITHOUT_TEXT = RULE_SETS.filter(({ written }) => !/"outcome":"text"|"unlisted":"text"|"letters":/.test(written));

describe('rendered text', () => {
  test.each<[string, string]>([
    ['<p>One</p><p>Two</p>', 'One\n\nTwo'],
    ['<div>One</div>Two', 'One\nTwo'],
    ['One<br>Two', 'One\nTwo'],
    ['<ul><li>One</li><li>Two</li></ul>', 'One\nTwo'],
    ['<table><tr><td>a</td><td>b</td></tr><tr><td>c</td></tr></table>', 'a\tb\nc'],
    ['<table><tr><td></td><td>b</td></tr></table>', '\tb'],
    ['  a \n b<b> c</b>', 'a b c'],
    ['a <b> b</b>', 'a b'],
    ['<pre>a\n  b</pre>', 'a\n  b'],
    ['<b>One</b>Two', 'OneTwo'],
    ['<button>One</button><button>Two</button>', 'One Two'],
    ['<select><option>a</option><option>b</option></select>', 'a\nb'],
    ['a<span hidden>b</span>c', 'ac'],
    ['<p style="display:none">a</p><video>b</video><dialog>c</dialog><dialog open>d</dialog>', 'd'],
    ['<span style="display:block">a</span>b', 'a\nb'],
    ['<div style="display:inline">a</div>b', 'ab'],
    ['<ruby>a<rp>(</rp><rt>b</rt><rp>)</rp></ruby>', 'a b'],
    ['', ''],
  ])('%s', (html, text) => expect(renderedText(parseFragment(html).root)).toBe(text));
});

describe('words that were apart stay apart', () => {
  const LIST = '<ul><li>One</li><li>Two</li></ul>';
  test.each<[string, JsonObject, string, string]>([
    ['in paragraphs where there are any', { p: {}, br: {} }, LIST, '<p>One</p><p>Two</p>'],
    ['else by a break', { br: {} }, LIST, 'One<br>Two'],
    ['else by a space', {}, LIST, 'One Two'],
    ['not in a paragraph that would have to be otherwise', { p: { forced: { class: { value: 'x' } } }, br: {} }, LIST, 'One<br>Two'],
    ['a lone block stays without a paragraph', { p: {} }, '<div>One</div>', 'One'],
    ['a block beside a paragraph becomes one', { p: {} }, '<div>One</div><p>Two</p>', '<p>One</p><p>Two</p>'],
    ['a line break', { p: {} }, '<p>One<br>Two</p>', '<p>One Two</p>'],
    ['a rule', { p: {} }, 'One<hr>Two', '<p>One</p><p>Two</p>'],
    [
      'cells by a space, rows by paragraphs',
      { p: {} },
      '<table><tr><td>a</td><td>b</td></tr><tr><td>c</td></tr></table>',
      '<p>a b</p><p>c</p>',
    ],
    ['in a word of the line', { b: {} }, '<b>a<div>b</div></b>c', '<b>a b</b> c'],
    ['white space stays outside of paragraphs', { p: {} }, '<div> a </div>\n<div>b</div>', ' <p>a</p> \n<p>b</p>'],
    [
      'a block that becomes a word',
      { span: {}, div: { outcome: 'rename', to: 'span' } },
      '<div>a</div><div>b</div>',
      '<span>a</span> <span>b</span>',
    ],
    ['a block that goes from a word of the line with nothing else in it', { b: {}, br: {} }, 'a<b><h6></h6></b>c', 'a<b></b><br>c'],
    ['and however deep', { b: {}, i: {}, p: {} }, 'a<b><i><div></div></i></b>c', '<p>a</p><b><i></i></b><p>c</p>'],
    ['a control at the edges of a word of the line', { b: {} }, 'a<b><button>x</button></b>c', 'a <b>x</b> c'],
    ['a control that goes from it', { b: {} }, 'a<b><input></b>c', 'a<b></b> c'],
    ['lines that stood as they were written', { p: {} }, '<pre>a\n\nb</pre>c', '<p>a</p>\n\n<p>b</p><p>c</p>'],
    ['also in words of the line', { b: {}, br: {} }, '<pre>a<b>b\nc</b></pre>', 'a<b>b\n<br>c</b>'],
    ['and under another name', { div: {}, br: {}, pre: { outcome: 'rename', to: 'div' } }, '<pre>a\nb</pre>', '<div>a\n<br>b</div>'],
    ['else by what stands there', {}, '<textarea>a\nb</textarea>', 'a\nb'],
    ['but where they are kept as they are', { pre: {}, p: {} }, '<pre>a\nb</pre>', '<pre>a\nb</pre>'],
    ['or where one around them keeps them', { pre: {}, br: {} }, '<pre>a\nb<listing>c\nd</listing></pre>', '<pre>a\nb<br>c\nd</pre>'],
    ['or were never lines', { p: {} }, '<p>a\nb</p>', '<p>a\nb</p>'],
    ['a word that was a block by its style', { span: {} }, '<span style="display:block">a</span>b', '<span>a</span> b'],
    ['an empty block that goes', { div: { empty: 'remove' }, p: {} }, 'a<div></div>b', '<p>a</p><p>b</p>'],
    ['controls', {}, '<button>a</button><button>b</button>', 'a b'],
    [
      'what is chosen from, where no break can stand',
      { select: {}, br: {} },
      '<select><option>a</option><option>b</option></select>',
      '<select>a b</select>',
    ],
    ['readings, where nothing else parts them', {}, '<ruby>a<rt>b</rt></ruby>', 'a b'],
    ['readings with brackets', {}, '<ruby>a<rp>(</rp><rt>b</rt><rp>)</rp></ruby>', 'a(b)'],
    ['of any kind', {}, '「<button>a</button>」', '「a」'],
    ['but not with hidden ones', {}, '<ruby>a<rp hidden>(</rp><rt>b</rt><rp>)</rp></ruby>', 'a b)'],
    ['nor with empty ones', {}, '<ruby>a<rp></rp><rt>b</rt><rp></rp></ruby>c', 'a b c'],
    ['nor with those that go', { rp: { outcome: 'drop' } }, '<ruby>a<rp>(</rp><rt>b</rt><rp>)</rp></ruby>', 'a b'],
    [
      'nor with those that stay',
      { ruby: {}, rp: {} },
      '<ruby>a<rp>(</rp><rt>b</rt><rp>)</rp></ruby>',
      '<ruby>a<rp>(</rp> b <rp>)</rp></ruby>',
    ],
    ['blocks that go with their content', { p: {}, table: { outcome: 'drop' } }, 'a<table><tr><td>x</table>b', '<p>a</p><p>b</p>'],
    ['but no space where words were one', {}, '<b>a</b>b<span>c</span>', 'abc'],
    ['a word that goes with the spaces in it', { span: { outcome: 'drop' } }, 'a<span> x </span>b', 'a b'],
    ['nor beside what was hidden', {}, 'a<div hidden>x</div>b', 'ab'],
    [
      'words shown as text',
      { div: { outcome: 'text' }, p: {} },
      '<div>a</div><div>b</div>',
      '<p>&lt;div&gt;a&lt;/div&gt;</p><p>&lt;div&gt;b&lt;/div&gt;</p>',
    ],
  ])('%s', (_what, elements, input, output) => {
    const rules = rulesOf({ elements });
    expect(clean(input, rules).html).toBe(output);
    expect(clean(output, rules).html).toBe(output);
  });

  test('each paragraph, break and space is told, with the words that it parts', () => {
    const { ledger } = clean('<ul><li>One</li><li>Two</li></ul>', rulesOf({ elements: { p: {} } }));
    expect(ledger.filter(({ reason }) => reason === 'words-apart').map(({ before, after }) => [before, after])).toEqual([
      ['One', '<p>'],
      ['Two', '<p>'],
    ]);
    const lines = clean('<pre>a&amp;b\r\nc&lt;\nd</pre>', rulesOf({ elements: { p: {} } })).ledger;
    expect(lines.filter(({ reason }) => reason === 'words-apart').map(({ before }) => before)).toEqual(['a&amp;b', 'c&lt;', 'd']);
  });

  const holds = (html: string, rules: CompiledRules): void => expect([html, wordsStayApart(html, rules)]).toEqual([html, null]);
  test('by any rules, for any content', () => {
    fc.assert(
      fc.property(fc.constantFrom(...WITHOUT_TEXT), randomContent, ({ rules }, html) => holds(html, rules)),
      { numRuns: runs(1500) },
    );
  });
  test('whatever goes from words of the line that stay', () => {
    const { parts } = fc.letrec<{ part: string; parts: string }>((tie) => ({
      part: fc.oneof(
        { maxDepth: 4 },
        fc.constantFrom('W', 'W', ' ', '<input>', '<br>', '<hr>', '<div></div>', '<button></button>', '<img>', '<meta>'),
        fc
          .tuple(fc.constantFrom('b', 'i', 'b', 'i', 'h6', 'div', 'button', 'select', 'span'), tie('parts'))
          .map(([name, inner]) => `<${name}>${inner}</${name}>`),
      ),
      parts: fc.array(tie('part'), { maxLength: 4 }).map((all) => all.join('')),
    }));
    const MORE: JsonObject[] = [{}, { p: {} }, { br: {} }, { p: {}, br: {} }];
    const sets = MORE.map((more) => rulesOf({ elements: { b: {}, i: {}, ...more } }));
    fc.assert(
      fc.property(fc.constantFrom(...sets), parts, parts, (rules, before, after) => {
        let nth = 0;
        holds(
          `W${before}<b>${after}</b>W`.replace(/W/g, () => `w${++nth}.`),
          rules,
        );
      }),
      { numRuns: runs(1500) },
    );
  });
  test('with one element of the catalogue gone from the most permissive rules', () => {
    fc.assert(
      fc.property(fc.subarray([...CATALOGUE_NAMES], { minLength: 1, maxLength: 8 }), randomContent, (gone, html) => {
        const all = CATALOGUE_NAMES.filter((name) => !gone.includes(name));
        holds(html, rulesOf({ elements: Object.fromEntries(all.map((name) => [name, {}])) }));
      }),
      { numRuns: runs(300) },
    );
  });
});

describe('a part without its whole', () => {
  test.each<[string, JsonObject, string, string]>([
    ['items get a list', { li: {}, ul: {} }, 'a<li>b</li>\n<li>c</li>d', 'a<ul><li>b</li>\n<li>c</li></ul>d'],
    ['where lists may stand; else they become blocks', { li: {}, ol: {}, p: {} }, '<li>b<li>c', '<p>b</p><p>c</p>'],
    ['terms and explanations', { dl: {}, dt: {}, dd: {} }, '<dt>t<dd>d', '<dl><dt>t</dt><dd>d</dd></dl>'],
    [
      'groups of a description list are at home',
      { dl: {}, dt: {}, dd: {}, div: {} },
      '<dl><div><dt>t</dt></div></dl>',
      '<dl><div><dt>t</dt></div></dl>',
    ],
    ['a caption without its figure', { figcaption: {}, p: {} }, '<figcaption>a</figcaption>b', '<p>a</p><p>b</p>'],
    ['cells whose table went', { td: {}, p: {} }, '<table><tr><td>a</td><td>b</td></tr></table>', 'a b'],
    ['a list that has nothing left', { li: { empty: 'remove' }, ul: {}, p: {} }, '<li></li>a', 'a'],
  ])('%s', (_what, elements, input, output) => {
    const rules = rulesOf({ elements });
    const once = clean(input, rules);
    expect(once.html).toBe(output);
    expect(clean(output, rules).html).toBe(output);
  });

  test('clean markup never holds one', () => {
    const rules = [...RULE_SETS.map((set) => set.rules), mostPermissive()];
    fc.assert(
      fc.property(fc.constantFrom(...rules), randomContent, (set, html) => {
        expect([html, partsHaveWholes(html, set)]).toEqual([html, null]);
      }),
      { numRuns: runs(1000) },
    );
  });
});

describe('what was hidden stays hidden', () => {
  test.each<[string, JsonObject, string, string, string[]]>([
    ['by an attribute', { p: {} }, '<p hidden>a</p>b', 'b', ['hidden-content: <p hidden>a</p>']],
    ['by a style', {}, '<div style="display: none">a</div>b', 'b', ['hidden-content: <div style="display: none">a</div>']],
    [
      'by what it is',
      {},
      '<video>a</video><canvas>b</canvas>',
      '',
      ['hidden-content: <video>a</video>', 'hidden-content: <canvas>b</canvas>'],
    ],
    ['a dialog that is not open', { dialog: {} }, '<dialog>a</dialog>', '<dialog>a</dialog>', []],
    ['a deletion that was tracked', {}, 'a<del>b</del>', 'a', ['deleted-content: <del>b</del>']],
    ['unless it is kept', { del: {} }, 'a<del>b</del>', 'a<del>b</del>', []],
    ['hidden and allowed to be', { p: { attributes: { hidden: { test: 'text' } } } }, '<p hidden>a</p>', '<p hidden="">a</p>', []],
    [
      'renamed to what would show it',
      { p: {}, canvas: { outcome: 'rename', to: 'p' } },
      '<canvas>a</canvas>',
      '<p>a</p>',
      ['element-renamed: <canvas>'],
    ],
  ])('%s', (_what, elements, input, output, ledger) => {
    const result = clean(input, rulesOf({ elements }));
    expect({ html: result.html, ledger: result.ledger.map(({ reason, before }) => `${reason}: ${before}`) }).toEqual({
      html: output,
      ledger,
    });
  });

  test('words that no reader saw are not in any result', () => {
    fc.assert(
      fc.property(fc.constantFrom(...WITHOUT_TEXT), randomContent, ({ rules }, html) => {
        expect([html, hiddenStaysHidden(html, rules)]).toEqual([html, null]);
      }),
      { numRuns: runs(1000) },
    );
  });
});

test('cleaning any content twice is cleaning it once, and every letter is accounted for', () => {
  fc.assert(
    fc.property(fc.constantFrom(...RULE_SETS), randomContent, ({ rules }, html) => {
      expect([html, cleansOnce(html, rules)]).toEqual([html, null]);
    }),
    { numRuns: runs(800) },
  );
});
