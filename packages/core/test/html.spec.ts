import fc from 'fast-check';
import {
  clean,
  cleanParsed,
  cloneFragment,
  attributeRanges,
  firstDifference,
  Lines,
  parseFragment,
  serialize,
  sumCensuses,
  takeCensus,
  visibleLetters,
  visibleText,
  type ElementNode,
} from '../src/index';
import { rulesOf } from './support';
import { tangledMarkup } from './tangled-markup';
import { runs } from './fixed-seed';

const elementsOf = (html: string): ElementNode[] => {
  const found: ElementNode[] = [];
  const visit = (nodes: readonly { type: string }[]): void => {
    for (const node of nodes) {
      if (node.type !== 'element') continue;
      found.push(node as ElementNode);
      visit((node as ElementNode).children);
    }
  };
  visit(parseFragment(html).root.children);
  return found;
};

describe('parse and serialize', () => {
  test.each([
    ['<p>Low water</p>', '<p>Low water</p>'],
    ['<p>One<p>Two', '<p>One</p><p>Two</p>'],
    ['<b><i>x</b>y</i>', '<b><i>x</i></b><i>y</i>'],
    ['<table><tr><td>x', '<table><tbody><tr><td>x</td></tr></tbody></table>'],
    ['<img src=a.png alt="A &amp; B">', '<img src="a.png" alt="A &amp; B">'],
    ['<p title="<b>">x</p>', '<p title="&lt;b&gt;">x</p>'],
    ['a &lt; b &nbsp; c', 'a &lt; b &nbsp; c'],
    ['<br><hr>', '<br><hr>'],
    ['<pre>\n\nfirst</pre>', '<pre>\n\nfirst</pre>'],
    ['a&#13;b', 'a&#13;b'],
    ['<script>if (a < b) c()</script>', '<script>if (a < b) c()</script>'],
    ['<!-- note -->', '<!-- note -->'],
    ['', ''],
  ])('%j is written as %j', (input, output) => {
    expect(serialize(parseFragment(input).root)).toBe(output);
  });

  test('100 000 nested elements neither overflow the stack nor lose the text', () => {
    const depth = 100_000;
    const { root } = parseFragment(`${'<div>'.repeat(depth)}deep${'</div>'.repeat(depth)}`);
    expect(serialize(root)).toHaveLength(depth * 11 + 4);
    expect(visibleText(root)).toBe('deep');
  });

  test('formatting left open in every paragraph does not multiply without bound', () => {
    const { root, ignored } = parseFragment(Array.from({ length: 20_000 }, (_, i) => `<p><i class=${i}>x</p>`).join(''));
    expect(ignored.some(({ kind }) => kind === 'formatting-limit')).toBe(true);
    expect(takeCensus(root).elements['i']).toBeLessThan(500_000);
    expect(visibleLetters(root)).toBe(20_000);
  });
});

describe('places', () => {
  test('an element knows its start tag, its end tag and its whole', () => {
    const html = 'Before <p class="a">One <b>two</b></p> after';
    const [p, b] = elementsOf(html);
    expect(html.slice(p!.start, p!.startTagEnd)).toBe('<p class="a">');
    expect(html.slice(p!.start, p!.end)).toBe('<p class="a">One <b>two</b></p>');
    expect(html.slice(b!.endTagStart, b!.end)).toBe('</b>');
  });

  test.each([
    ['an element closed by the next one', '<p>One<p>Two', '<p>One'],
    ['an element open at the end', '<p>One <b>two', '<p>One <b>two'],
    ['an element behind a carriage return and an emoji', '\r\n😀<p>x</p>', '<p>x</p>'],
    ['an element behind a character reference', 'a &amp; b<p>x</p>', '<p>x</p>'],
  ])('%s', (_what, html, whole) => {
    const [first] = elementsOf(html);
    expect(html.slice(first!.start, first!.end)).toBe(whole);
  });

  test('places stay right behind more than the parser keeps in memory', () => {
    const html = `${'<p>padding</p>'.repeat(20_000)}<h2 id="x">End</h2>`;
    const last = elementsOf(html).at(-1)!;
    expect(html.slice(last.start, last.end)).toBe('<h2 id="x">End</h2>');
  });

  test.each([
    [`<a href="x" title='y z' data-n=1 hidden>`, { href: 'href="x"', title: `title='y z'`, 'data-n': 'data-n=1', hidden: 'hidden' }],
    ['<a HREF = "x"/>', { href: 'HREF = "x"' }],
    ['<a x=1 x=2>', { x: 'x=1' }],
    ['<img/src="a>b"/alt>', { src: 'src="a>b"', alt: 'alt' }],
  ])('attributes of %s', (tag, expected) => {
    const input = `..${tag}`;
    const ranges = attributeRanges(input, 2, input.length);
    expect(Object.fromEntries([...ranges].map(([name, { start, end }]) => [name, input.slice(start, end)]))).toEqual(expected);
  });

  test('lines and columns count from one; a carriage return with its newline is one break', () => {
    const lines = new Lines('a\nbc\r\nd\re');
    expect([0, 2, 3, 6, 8, 99].map((offset) => lines.at(offset))).toEqual([
      { line: 1, column: 1 },
      { line: 2, column: 1 },
      { line: 2, column: 2 },
      { line: 3, column: 1 },
      { line: 4, column: 1 },
      { line: 4, column: 2 },
    ]);
  });
});

describe('what the parser leaves out', () => {
  test.each([
    ['<html><body>x</body></html>', ['start-tag html', 'start-tag body', 'end-tag body', 'end-tag html']],
    ['<tr><td>x', ['start-tag tr', 'start-tag td']],
    ['<!doctype html>x', ['doctype ']],
    ['x <a href="y', ['unfinished-tag a']],
    ['x</b>', ['end-tag b']],
    ['<table><tr></thead><td>x</table>', ['end-tag thead']],
    ['a\ud83d b', ['half-character ']],
  ])('%j', (html, expected) => {
    expect(parseFragment(html).ignored.map(({ kind, name }) => `${kind} ${name}`)).toEqual(expected);
  });

  test('the end of a section that is not open ends no row', () => {
    for (const [html, tree] of [
      ['<table><tr></thead><td>x</table>', '<table><tbody><tr><td>x</td></tr></tbody></table>'],
      ['<table><tr><td>x</tfoot>y<td>z</table>', '<table><tbody><tr><td>xy</td><td>z</td></tr></tbody></table>'],
      ['<table><tr></tbody><td>x</table>', '<table><tbody><tr></tr></tbody><tbody><tr><td>x</td></tr></tbody></table>'],
    ] as const)
      expect(serialize(parseFragment(html).root)).toBe(tree);
  });

  test('a left-out tag has its place', () => {
    const html = 'one <td class="x">two';
    const { start, end } = parseFragment(html).ignored[0]!;
    expect(html.slice(start, end)).toBe('<td class="x">');
  });
});

test('one reading can be cleaned again and again, by copies', () => {
  const rules = rulesOf({ elements: { p: {}, u: {} }, headings: { others: 'paragraph' }, text: { hardSpaces: 'plain' } });
  fc.assert(
    fc.property(tangledMarkup, (html) => {
      const fragment = parseFragment(html);
      const whole = serialize(fragment.root);
      const { html: once, ledger } = cleanParsed(cloneFragment(fragment), rules);
      expect(serialize(fragment.root)).toBe(whole);
      expect({ html: once, ledger }).toEqual((({ root: _root, ...rest }) => rest)(clean(html, rules)));
    }),
    { numRuns: runs(500) },
  );
});

describe('comparing and measuring', () => {
  test('the first difference is the node that differs', () => {
    const one = parseFragment('<p>a</p><p>b</p>').root;
    expect(firstDifference(one, parseFragment('<p>a</p><p>b</p>').root)).toBeNull();
    expect(firstDifference(one, parseFragment('<p>a</p><p>c</p>').root)).toMatchObject({ type: 'text', value: 'b' });
    expect(firstDifference(one, parseFragment('<p>a</p>').root)).toMatchObject({ type: 'element', name: 'p' });
    expect(firstDifference(one, parseFragment('<p>a</p><p title="">b</p>').root)).toMatchObject({ name: 'p' });
  });

  test('letters are what a reader sees, without white space', () => {
    expect(visibleLetters(parseFragment('<p>Two&nbsp;  words</p><script>x()</script><style>p{}</style><!-- c -->').root)).toBe(8);
  });

  test('the census counts elements and their attributes', () => {
    expect(takeCensus(parseFragment('<p class=a>x</p><p class=b id=c>y</p><br>').root)).toEqual({
      elements: { p: 2, br: 1 },
      classes: { a: 1, b: 1 },
      attributes: { p: { class: 2, id: 1 }, br: {} },
      nesting: 1,
      letters: 2,
    });
    const both = ['<p>ab</p>', '<ul><li>c</li></ul><p>d</p>'].map((html) => takeCensus(parseFragment(html).root));
    expect(sumCensuses(both)).toEqual({
      documents: 2,
      elements: { p: 2, ul: 1, li: 1 },
      attributes: { p: {}, ul: {}, li: {} },
      classes: {},
      most: { nesting: 2, elements: 3, letters: 2 },
    });
  });
});
