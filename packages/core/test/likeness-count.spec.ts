import fc from 'fast-check';
import { compareLikeness, DESK, Likeness, LikenessCounter, TooMuch, type LikenessInput, type Setting } from '../src/index';
import { runs } from './fixed-seed';

const setting = (css: string): Setting => ({
  sheets: [{ name: 'a.css', css }],
  media: DESK,
  wrapper: [{ element: 'main', className: 'page' }],
  title: '',
  columnPx: 600,
});
const input = (editor: string, page: string): LikenessInput => ({ editor: setting(editor), page: setting(page) });

const UNLIKE = input(
  'h2{color:red} .page p{margin:1em} p::before{content:"x"} table{width:900px}',
  'h2{color:blue} p{margin:2em} .page em{font-weight:700} table{width:100%}',
);

describe('counting', () => {
  const block = fc.constantFrom(
    '<h2>x</h2>',
    '<p>x <em>y</em></p>',
    '<p></p>',
    '<table><tbody><tr><td>x</td></tr></tbody></table>',
    '<ul><li>x</li><li><p>y</p></li></ul>',
    '<div hidden><p>x</p></div>',
  );
  const content = fc.array(block, { maxLength: 8 }).map((blocks) => blocks.join('\n'));

  test('comes to the same as the report with all its places', () => {
    fc.assert(
      fc.property(fc.array(content, { minLength: 1, maxLength: 4 }), (documents) => {
        const report = compareLikeness(
          UNLIKE,
          documents.map((html, at) => ({ id: `d${at}`, html })),
        );
        const counter = new LikenessCounter(UNLIKE);
        const counts = documents.map((html) => counter.count(html));
        const sum = (of: 'elements' | 'alike'): number => counts.reduce((all, count) => all + count[of], 0);
        expect([sum('elements'), sum('alike')]).toEqual([report.elements, report.alike]);
        expect(new Set(counts.flatMap(({ causes }) => causes))).toEqual(new Set(report.causes.map(({ id }) => id)));
      }),
      { seed: 7, numRuns: runs(60) },
    );
  });

  test('content deeper than browsers nest it is refused with a sentence', () => {
    const deep = '<div>'.repeat(2000);
    expect(() => new LikenessCounter(UNLIKE).count(deep)).toThrow(TooMuch);
    expect(() => new LikenessCounter(UNLIKE).count(deep)).toThrow('nested 2,003 levels deep; browsers show 512');
  });
});

describe('a document that is too much', () => {
  test('is left out whole, and the others are told as if it had not been there', () => {
    const nots = Array.from({ length: 4000 }, (_unused, i) => `:not(.x${i}){color:red}`).join('');
    const heavy = input(`${nots} h2{color:red}`, 'h2{color:blue}');
    const small = { id: 'small', html: '<h2>x</h2><p>y</p>' };
    const likeness = new Likeness(heavy);
    likeness.add(small);
    expect(() => likeness.add({ id: 'large', html: '<p>x</p>'.repeat(3000) })).toThrow(/“large” need more than 20,000,000 steps/);
    const alone = new Likeness(heavy);
    alone.add(small);
    expect(likeness.report()).toEqual(alone.report());
  });
});

describe('places', () => {
  test('of ten thousand headings are told with their lines and paths, each looked up once', () => {
    const html = '<h2>x</h2>\n'.repeat(10_000);
    const report = compareLikeness(input('h2{color:red}', 'h2{color:blue}'), [{ id: 'd', html }]);
    const [cause] = report.causes;
    expect(cause!.places).toHaveLength(10_000);
    expect(cause!.places.at(-1)).toMatchObject({ line: 10_000, path: 'html > body:nth-child(2) > main > h2:nth-child(10000)' });
  });
});
