import fc from 'fast-check';
import { Cascade, cssMistakes, DESK, elementsIn, parseDocument, readSheets, TooMuch, withinBudget } from '../src/index';
import { runs } from './fixed-seed';

const SEED = 20261129;

/** How many steps it takes to work out everything that a stylesheet decides on a page. */
function stepsOf(css: string, html: string): number {
  const cascade = new Cascade([{ name: 'a.css', css }]);
  const elements = [...elementsIn(parseDocument(html))];
  return withinBudget(Infinity, 'They', () => elements.forEach((element) => cascade.contests(element))).steps;
}

/** What wins on every element, as one text. */
function winnersOf(css: string, html: string): string {
  const cascade = new Cascade([{ name: 'a.css', css }]);
  return [...elementsIn(parseDocument(html))]
    .map((element) =>
      cascade
        .contests(element)
        .map(({ property, winner }) => `${property}:${winner.value}`)
        .join(';'),
    )
    .join('\n');
}

describe('nesting is matched, not written out', () => {
  test.each([12, 24, 60])('%i levels of two selectors with four signs each are read and matched at once', (levels) => {
    const css = `.a,.b{${'& &,& &{'.repeat(levels)}color:red${'}'.repeat(levels + 1)}`;
    const html = `${'<div class="a b">'.repeat(70)}x${'</div>'.repeat(70)}`;
    expect(readSheets([{ name: 'a', css }], DESK).rules).toHaveLength(1);
    // The innermost rule asks for as many elements around as there are levels.
    const cascade = new Cascade([{ name: 'a', css }]);
    const divs = [...elementsIn(parseDocument(html))].filter(({ name }) => name === 'div');
    expect(divs.map((div) => cascade.contests(div).length)).toEqual(divs.map((_div, at) => (at >= levels ? 1 : 0)));
    expect(stepsOf(css, html)).toBeLessThan(levels * 70 * 12);
  });

  test('a nested sheet decides as it does with its nesting written out as :is()', () => {
    const simple = fc.constantFrom('.a', '.b', 'p', 'em', '#i', ':first-child', ':not(.a)', '*');
    const selector = fc
      .tuple(simple, fc.constantFrom(' ', ' > ', ' + ', ' ~ '), simple)
      .chain(([one, combinator, other]) => fc.constantFrom(one, `${one}${combinator}${other}`));
    const inner = fc.oneof(
      selector,
      selector.map((one) => `> ${one}`),
      selector.map((one) => `& ${one}`),
      selector.map((one) => `${one} &`),
      fc.constantFrom('&', '&.a', '&:hover, &.b', '&:has(em)', '& + &', ':is(&, .b) em', '.a:not(&)'),
    );
    const list = (one: fc.Arbitrary<string>) => fc.array(one, { minLength: 1, maxLength: 2 }).map((all) => all.join(', '));
    interface Nested {
      selector: string;
      value: number;
      inside: Nested[];
    }
    const rule = (depth: number): fc.Arbitrary<Nested> =>
      fc.record({
        selector: list(depth === 0 ? selector : inner),
        value: fc.nat(99),
        inside: depth === 2 ? fc.constant([]) : fc.array(rule(depth + 1), { maxLength: 2 }),
      });
    const nested = ({ selector: text, value, inside }: Nested): string => `${text}{order:${value};${inside.map(nested).join('')}}`;
    const part = (text: string, around: string): string =>
      /^[>+~]/.test(text)
        ? `:is(${around}) ${text}`
        : text.includes('&')
          ? text.replaceAll('&', `:is(${around})`)
          : `:is(${around}) ${text}`;
    const flat = ({ selector: text, value, inside }: Nested, around: string | null): string => {
      const all =
        around === null
          ? text
          : splitList(text)
              .map((one) => part(one, around))
              .join(',');
      return `${all}{order:${value}}${inside.map((one) => flat(one, all)).join('')}`;
    };
    const html = fc.constantFrom(
      '<div class="a"><p class="b" id="i">x<em>y</em></p><p>z</p><em class="a b">q</em></div>',
      '<p class="a">1</p><p class="b">2<em>3</em></p><div id="i" class="b"><div class="a"><em>4</em><p>5</p></div></div>',
    );
    fc.assert(
      fc.property(fc.array(rule(0), { minLength: 1, maxLength: 3 }), html, (rules, content) => {
        expect(winnersOf(rules.map(nested).join(''), content)).toBe(winnersOf(rules.map((one) => flat(one, null)).join(''), content));
      }),
      { seed: SEED, numRuns: runs(400) },
    );
  });

  test('declarations, rules and at-rules within a rule each count where they stand', () => {
    const css = `p { color: red; em { content: "{;}"; color: blue }
      --box: { a: b };
      @media screen { order: 3; strong { order: 4 } }
      order: 2; /* } */ }`;
    const { rules } = readSheets([{ name: 'a', css }], DESK);
    expect(
      rules.map(({ selectorText, line, declarations }) => [
        selectorText,
        line,
        declarations.map((one) => `${one.line} ${one.property}: ${one.value}`),
      ]),
    ).toEqual([
      ['p', 1, ['1 color: red']],
      ['em', 1, ['1 content: "{;}"', '1 color: blue']],
      ['p', 1, ['2 --box: { a: b }']],
      ['p', 1, ['3 order: 3']],
      ['strong', 3, ['3 order: 4']],
      ['p', 1, ['4 order: 2']],
    ]);
  });
});

/** Splits a list of selectors at the commas that stand outside brackets. */
function splitList(text: string): string[] {
  const parts = [''];
  let depth = 0;
  for (const letter of text) {
    if (letter === '(') depth++;
    if (letter === ')') depth--;
    if (letter === ',' && depth === 0) parts.push('');
    else parts[parts.length - 1] += letter;
  }
  return parts.map((part) => part.trim());
}

describe('a selector costs a document its parts times the elements, whatever it asks', () => {
  const deep = (n: number) => '<div class="a"><div class="b">'.repeat(n / 2);
  const flat = (n: number) => '<p class="a">x</p><em class="b">y</em>'.repeat(n / 2);
  test.each<[string, string]>([
    ['descendants that all fit but the last', 'html .a .a .a .a .a .c .a'],
    ['descendants and children by turns', '.a > .b .a > .b .a > .b .a > .c .b'],
    ['following siblings', '.c ~ .a ~ .a ~ .a ~ .b ~ .a'],
    ['siblings and descendants', '.a ~ .a .b ~ .a .c ~ .a'],
    [':has() of what is nowhere below', ':has(.c)'],
    [':has() of a path', ':has(.a .b .a > .c)'],
    [':has() of what follows', ':has(~ .a ~ .c)'],
    [':has() in :not() in :is()', ':is(.a, :not(:has(.c))) .b'],
    ['of-type', 'i:first-of-type, p:last-of-type, em:only-of-type'],
    ['nth of a list', ':nth-child(2n+1 of .a), :nth-last-child(3 of .b)'],
    ['languages', ':lang(en) :lang(fr), :dir(rtl) .a'],
    ['& in each part of many levels', '.a,.b{& &{& &{& &{& & &{color:blue}}}}}'],
  ])('%s', (_name, selector) => {
    const css = selector.includes('{') ? selector : `${selector}{color:red}`;
    for (const content of [deep, flat]) {
      const [few, many] = [stepsOf(css, content(50)), stepsOf(css, content(400))];
      // Eight times the elements, and room for what stands around them.
      expect(many).toBeLessThan(few * 8 + 500);
      expect(many).toBeLessThan(400 * (css.length + 20));
    }
  });

  test('sixteen times the rules cost at most twenty times the steps', () => {
    const rules = (n: number) => Array.from({ length: n }, (_unused, i) => `:not(.x${i}) :not(.y){color:red}`).join('');
    const html = flat(60);
    expect(stepsOf(rules(160), html)).toBeLessThan(stepsOf(rules(10), html) * 20);
  });

  test('what would take too long is told with a number, and ended', () => {
    const css = Array.from({ length: 300 }, (_unused, i) => `:not(.x${i}){color:red}`).join('');
    const cascade = new Cascade([{ name: 'a.css', css }]);
    const elements = [...elementsIn(parseDocument(flat(300)))];
    const work = () => withinBudget(10_000, 'These stylesheets', () => elements.forEach((element) => cascade.contests(element)));
    expect(work).toThrow(TooMuch);
    expect(work).toThrow(/^These stylesheets need more than 10,000 steps/);
    // Nothing of it is left for the next one.
    expect(withinBudget(10, 'They', () => 1)).toEqual({ result: 1, steps: 0 });
  });
});

describe('stylesheets of any size are read, or told to be too much', () => {
  test.each<[string, string, number]>([
    ['rules that are never closed', 'p{&'.repeat(20_000), 0],
    ['conditions in conditions', `${'@media screen{'.repeat(20_000)}a{color:red}`, 0],
    ['nested rules without a semicolon', `p{${'a{}'.repeat(5000)}}`, 0],
    ['nested rules with states', `p{${'a:hover{color:red}'.repeat(3000)}}`, 3000],
    ['layers', Array.from({ length: 5000 }, (_unused, i) => `@layer l${i}{a{color:red}}`).join(''), 5000],
    ['a layer deep in others', `@layer ${Array.from({ length: 3000 }, (_unused, i) => `l${i}`).join('.')}{a{color:red}}`, 1],
    ['comments', `a{color:${'/**/'.repeat(20_000)}red}`, 1],
    ['a selector of thousands of parts', `${'a '.repeat(20_000)}{color:red}`, 0],
    ['strings that are never closed, with blocks between', 'a{content:"'.repeat(5000), 0],
    ['a sheet that imports itself', '@import "a";@import "a";a{color:red}', 101],
  ])('%s', (_name, css, rules) => {
    expect(readSheets([{ name: 'a', css }], DESK).rules).toHaveLength(rules);
    expect(() => cssMistakes(css)).not.toThrow();
  });

  test('what is left out is told with its line', () => {
    const css = `p{color:red}\n${Array.from({ length: 40_001 }, (_unused, i) => `.c${i}`).join(',\n')}{color:red}`;
    expect(readSheets([{ name: 'a', css }], DESK).leftOut).toMatchObject([{ sheet: 'a', line: 2, reason: 'too-many' }]);
    expect(cssMistakes(css)).toMatchObject([
      { line: 40_001, isLeftOut: true, message: expect.stringContaining('More than 40,000 selectors') },
    ]);
    expect(cssMistakes(`a{}\n${'p{'.repeat(70)}${'}'.repeat(70)}`)).toMatchObject([{ line: 2, isLeftOut: true }]);
    const many = cssMistakes('a{:}'.repeat(3000));
    expect(many.length).toBeLessThanOrEqual(1001);
    expect(many.at(-1)?.message).toBe('There are more mistakes than are listed here.');
  });
});
