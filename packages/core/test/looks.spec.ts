import fc from 'fast-check';
import { Comparer, DESK, lineChanges, Looks, LookSum, Scene, TooMuch, type Setting } from '../src/index';
import { runs } from './fixed-seed';

const setting = (css: string): Setting => ({
  sheets: [{ name: 'a.css', css }],
  media: DESK,
  wrapper: [{ element: 'main', className: 'page' }],
  title: '',
  columnPx: null,
});
const lookOf = (before: string, after: string, html: string) => new Looks(setting(before), setting(after)).look(html);

describe('a text on a page whose stylesheets change', () => {
  test('looks the same where only what it does not hold, or what loses, changes', () => {
    const html = '<p>x <em>y</em></p>';
    expect(lookOf('h2{color:red}', 'h2{color:blue}', html)).toEqual({ elements: 2, differing: 0, changes: [] });
    expect(lookOf('p{color:red}.page p{color:blue}', 'p{color:lime}.page p{color:blue}', html).differing).toBe(0);
    expect(lookOf('p{color:red}', 'p { color: #f00 }', html).differing).toBe(0);
  });

  test('tells the declaration, and counts what has it from an element around', () => {
    const look = lookOf('ul{color:red}', 'ul{color:blue}', '<ul><li>x</li><li>y <em>z</em></li></ul><p>w</p>');
    expect(look).toMatchObject({ elements: 5, differing: 3 });
    expect(look.changes).toHaveLength(1);
    expect(look.changes[0]).toMatchObject({ properties: [{ property: 'color' }], element: 'ul', elements: 3 });
    expect(look.changes[0]!.was).toMatchObject({ sheet: 'a.css', selector: 'ul', line: 1, value: 'red' });
    expect(look.changes[0]!.rule).toMatchObject({ selector: 'ul', value: 'blue' });
  });

  test('names no rule where the browser decides', () => {
    const [change] = lookOf('em{font-style:normal}', '', '<p><em>x</em></p>').changes;
    expect(change).toMatchObject({
      properties: [{ property: 'font-style', before: 'normal', after: 'italic' }],
      rule: null,
      was: { selector: 'em' },
    });
  });

  test('tells a declaration once, however many properties it sets', () => {
    const { changes } = lookOf('', 'p{border:2px solid red; margin-top: 3em}', '<p>x</p><p>y</p>');
    expect(changes.map(({ properties, elements }) => [properties.length, elements])).toEqual([
      [1, 2],
      [8, 2],
    ]);
  });

  test('that is too much is refused with a sentence', () => {
    expect(() => lookOf('p{color:red}', 'p{color:blue}', '<div>'.repeat(2000))).toThrow(TooMuch);
  });
});

const sheet = fc
  .array(
    fc.tuple(
      fc.constantFrom('p', 'h2', 'em', 'li', 'ul', '.page', '.page p', 'p em', 'p::before', '.note', 'table', 'td'),
      fc.constantFrom(
        'color:red',
        'color:blue',
        'margin:1em',
        'font-size:2em',
        'font-weight:700',
        'content:"x"',
        'border:1px solid',
        'display:none',
      ),
    ),
    { maxLength: 6 },
  )
  .map((rules) => rules.map(([selector, declaration]) => `${selector}{${declaration}}`).join('\n'));
const html = fc
  .array(
    fc.constantFrom(
      '<h2>x</h2>',
      '<p>x <em>y</em></p>',
      '<p class="note">n</p>',
      '<ul><li>x</li><li><p>y</p></li></ul>',
      '<table><tbody><tr><td>x</td></tr></tbody></table>',
      '<div hidden><p>x</p></div>',
    ),
    { maxLength: 6 },
  )
  .map((blocks) => blocks.join('\n'));

describe('whatever the stylesheets and the text', () => {
  test('what looks different is what the comparison finds, each in some change; the same sheets change nothing', () => {
    fc.assert(
      fc.property(sheet, sheet, html, (before, after, text) => {
        const comparer = new Comparer(new Scene(setting(before)), new Scene(setting(after)));
        const expected = new Set([...comparer.differences(comparer.place(text))].map(({ index }) => index));
        const look = lookOf(before, after, text);
        expect(look.differing).toBe(expected.size);
        expect(look.changes.length === 0).toBe(expected.size === 0);
        for (const { elements } of look.changes) expect(elements).toBeGreaterThan(0);
        expect(look.changes.reduce((sum, { elements }) => sum + elements, 0)).toBeGreaterThanOrEqual(look.differing);
        expect(lookOf(before, before, text).differing).toBe(0);
      }),
      { seed: 11, numRuns: runs(300) },
    );
  });

  test('texts one after another come to the same as each alone, and there and back changes as many elements', () => {
    fc.assert(
      fc.property(sheet, sheet, fc.array(html, { minLength: 1, maxLength: 4 }), (before, after, texts) => {
        const looks = new Looks(setting(before), setting(after));
        const sum = new LookSum();
        for (const text of texts) {
          const look = looks.look(text);
          expect(look).toEqual(lookOf(before, after, text));
          expect(lookOf(after, before, text).differing).toBe(look.differing);
          sum.add(look);
        }
        const groups = sum.sum();
        expect(new Set(groups.map(({ key }) => key)).size).toBe(groups.length);
        expect(sum.differing).toBe(new Set(groups.flatMap((group) => group.texts)).size);
        for (const { texts: seen } of groups) expect(seen).toEqual([...new Set(seen)].sort((a, b) => a - b));
      }),
      { seed: 12, numRuns: runs(150) },
    );
  });
});

describe('lines of a stylesheet', () => {
  const lines = fc.array(fc.constantFrom('a {}', 'b {}', 'c {}', ''), { maxLength: 20 });

  test('that are more and fewer account for how many there are, and none where nothing changed', () => {
    fc.assert(
      fc.property(lines, lines, (before, after) => {
        const [then, now] = [before.join('\n'), after.join('\n')];
        const { more, fewer } = lineChanges(then, now);
        expect(now.split('\n').length - then.split('\n').length).toBe(more - fewer);
        expect(more + fewer === 0).toBe(then === now);
        expect(lineChanges(now, then)).toEqual({ more: fewer, fewer: more });
      }),
      { seed: 13, numRuns: runs(200) },
    );
  });

  test('are counted where there are very many', () => {
    const text = (from: number) => Array.from({ length: 5000 }, (_unused, at) => `.x${from + at} {}`).join('\n');
    expect(lineChanges(text(0), text(2500))).toEqual({ more: 2500, fewer: 2500 });
    expect(lineChanges(text(0), text(10_000))).toEqual({ more: 5000, fewer: 5000 });
  });
});
