import fc from 'fast-check';
import { clean, compileRules, parseFragment, renderedText, renderedWords, type CompiledRules, type JsonObject, type ParsedFragment } from '../src/index';
import { wholesOf } from '../src/markup/parts';
import { elementsOf } from '../src/html/transform';
import { CATALOGUE_NAMES, randomContent } from './random-content';
import { randomRules } from './random-rules';
import { rulesOf } from './support';
import { mostPermissive } from './most-permissive';

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
    ['cells by a space, rows by paragraphs', { p: {} }, '<table><tr><td>a</td><td>b</td></tr><tr><td>c</td></tr></table>', '<p>a b</p><p>c</p>'],
    ['in a word of the line', { b: {} }, '<b>a<div>b</div></b>c', '<b>a b</b> c'],
    ['white space stays outside of paragraphs', { p: {} }, '<div> a </div>\n<div>b</div>', ' <p>a</p> \n<p>b</p>'],
    ['a block that becomes a word', { span: {}, div: { outcome: 'rename', to: 'span' } }, '<div>a</div><div>b</div>', '<span>a</span> <span>b</span>'],
    ['a word that was a block by its style', { span: {} }, '<span style="display:block">a</span>b', '<span>a</span> b'],
    ['an empty block that goes', { div: { empty: 'remove' }, p: {} }, 'a<div></div>b', '<p>a</p><p>b</p>'],
    ['controls', {}, '<button>a</button><button>b</button>', 'a b'],
    ['readings, where nothing else parts them', {}, '<ruby>a<rt>b</rt></ruby>', 'a b'],
    ['readings with brackets', {}, '<ruby>a<rp>(</rp><rt>b</rt><rp>)</rp></ruby>', 'a(b)'],
    ['blocks that go with their content', { p: {}, table: { outcome: 'drop' } }, 'a<table><tr><td>x</table>b', '<p>a</p><p>b</p>'],
    ['but no space where words were one', {}, '<b>a</b>b<span>c</span>', 'abc'],
    ['a word that goes with the spaces in it', { span: { outcome: 'drop' } }, 'a<span> x </span>b', 'a b'],
    ['nor beside what was hidden', {}, 'a<div hidden>x</div>b', 'ab'],
    ['words shown as text', { div: { outcome: 'text' }, p: {} }, '<div>a</div><div>b</div>', '<p>&lt;div&gt;a&lt;/div&gt;</p><p>&lt;div&gt;b&lt;/div&gt;</p>'],
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
  });

  /** For each word the one that goes on from it without anything between, as a reader sees it. */
  const neighbours = (root: ParsedFragment['root']): Set<string> => {
    const pairs = new Set<string>();
    for (const word of renderedWords(root)) {
      const parts = word.match(/w\d+\./g) ?? [];
      for (let i = 1; i < parts.length; i++) pairs.add(parts[i - 1]! + parts[i]!);
    }
    return pairs;
  };
  const holds = (html: string, rules: CompiledRules): void => {
    const before = neighbours(parseFragment(html).root);
    const [first, second] = [...neighbours(clean(html, rules).root)].filter((pair) => !before.has(pair) && !isBridged(pair, before));
    expect([html, first, second]).toEqual([html, undefined, undefined]);
  };
  /** Whether what stood between two words without any space went: they were one word before. */
  const isBridged = (pair: string, before: ReadonlySet<string>): boolean => {
    const [from, to] = pair.match(/\d+/g)!.map(Number) as [number, number];
    for (let i = from; i < to; i++) if (!before.has(`w${i}.w${i + 1}.`)) return false;
    return true;
  };
  test('by any rules, for any content', () => {
    fc.assert(
      fc.property(randomRules, randomContent, ({ resolved, house, written }, html) => {
        fc.pre(!/"outcome":"text"|"unlisted":"text"|"letters":/.test(JSON.stringify(written)));
        holds(html, compileRules(resolved, house === undefined ? {} : { house }));
      }),
      { numRuns: 3000 },
    );
  });
  test('with one element of the catalogue gone from the most permissive rules', () => {
    fc.assert(
      fc.property(fc.subarray([...CATALOGUE_NAMES], { minLength: 1, maxLength: 8 }), randomContent, (gone, html) => {
        const all = CATALOGUE_NAMES.filter((name) => !gone.includes(name));
        holds(html, rulesOf({ elements: Object.fromEntries(all.map((name) => [name, {}])) }));
      }),
      { numRuns: 1500 },
    );
  });
});

describe('a part without its whole', () => {
  test.each<[string, JsonObject, string, string]>([
    ['items get a list', { li: {}, ul: {} }, 'a<li>b</li>\n<li>c</li>d', 'a<ul><li>b</li>\n<li>c</li></ul>d'],
    ['where lists may stand; else they become blocks', { li: {}, ol: {}, p: {} }, '<li>b<li>c', '<p>b</p><p>c</p>'],
    ['terms and explanations', { dl: {}, dt: {}, dd: {} }, '<dt>t<dd>d', '<dl><dt>t</dt><dd>d</dd></dl>'],
    ['groups of a description list are at home', { dl: {}, dt: {}, dd: {}, div: {} }, '<dl><div><dt>t</dt></div></dl>', '<dl><div><dt>t</dt></div></dl>'],
    ['a caption without its figure', { figcaption: {}, p: {} }, '<figcaption>a</figcaption>b', '<p>a</p><p>b</p>'],
    ['cells whose table went', { td: {}, p: {} }, '<table><tr><td>a</td><td>b</td></tr></table>', 'a b'],
    ['a list that has nothing left', { li: { empty: 'remove' }, ul: {}, p: {} }, '<li></li>a', 'a'],
  ])('%s', (_what, elements, input, output) => {
    const rules = rulesOf({ elements });
    const once = clean(input, rules);
    expect(once.html).toBe(output);
    expect(clean(output, rules).html).toBe(output);
  });

  const orphans = (html: string): string[] =>
    elementsOf(parseFragment(html).root).flatMap(({ name, parent }) => {
      const wholes = wholesOf(name);
      if (wholes === null || (parent?.type === 'element' && (wholes.has(parent.name) || (wholes.has('dl') && parent.name === 'div')))) return [];
      return [name];
    });
  test('clean markup never holds one', () => {
    fc.assert(
      fc.property(randomRules, randomContent, ({ resolved }, html) => {
        const out = clean(html, compileRules(resolved)).html;
        expect([out, orphans(out)]).toEqual([out, []]);
      }),
      { numRuns: 2000 },
    );
    fc.assert(
      fc.property(randomContent, (html) => {
        const out = clean(html, mostPermissive()).html;
        expect([out, orphans(out)]).toEqual([out, []]);
      }),
      { numRuns: 1000 },
    );
  });
});

describe('what was hidden stays hidden', () => {
  test.each<[string, JsonObject, string, string, string[]]>([
    ['by an attribute', { p: {} }, '<p hidden>a</p>b', 'b', ['hidden-content: <p hidden>a</p>']],
    ['by a style', {}, '<div style="display: none">a</div>b', 'b', ['hidden-content: <div style="display: none">a</div>']],
    ['by what it is', {}, '<video>a</video><canvas>b</canvas>', '', ['hidden-content: <video>a</video>', 'hidden-content: <canvas>b</canvas>']],
    ['a dialog that is not open', { dialog: {} }, '<dialog>a</dialog>', '<dialog>a</dialog>', []],
    ['a deletion that was tracked', {}, 'a<del>b</del>', 'a', ['deleted-content: <del>b</del>']],
    ['unless it is kept', { del: {} }, 'a<del>b</del>', 'a<del>b</del>', []],
    ['hidden and allowed to be', { p: { attributes: { hidden: { test: 'text' } } } }, '<p hidden>a</p>', '<p hidden="">a</p>', []],
    ['renamed to what would show it', { p: {}, canvas: { outcome: 'rename', to: 'p' } }, '<canvas>a</canvas>', '<p>a</p>', ['element-renamed: <canvas>']],
  ])('%s', (_what, elements, input, output, ledger) => {
    const result = clean(input, rulesOf({ elements }));
    expect({ html: result.html, ledger: result.ledger.map(({ reason, before }) => `${reason}: ${before}`) }).toEqual({ html: output, ledger });
  });

  test('words that no reader saw are not in any result', () => {
    fc.assert(
      fc.property(randomRules, randomContent, ({ resolved, written }, html) => {
        fc.pre(!/"outcome":"text"|"unlisted":"text"/.test(JSON.stringify(written)));
        const seen = new Set(renderedWords(parseFragment(html).root).flatMap((word) => word.match(/w\d+/g) ?? []));
        const shown = renderedWords(clean(html, compileRules(resolved)).root).flatMap((word) => word.match(/w\d+/g) ?? []);
        for (const word of shown) if (!seen.has(word)) expect([html, word]).toEqual([html, 'not shown']);
      }),
      { numRuns: 2000 },
    );
  });
});
