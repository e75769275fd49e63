import fc from 'fast-check';
import { mergeTexts, parseFragment, serialize } from '../src/index';
import { runs } from './fixed-seed';
import { wholeContent } from './whole-content';

const text = (...words: string[]): string => words.map((word) => `<p>${word}</p>`).join('\n');

describe('two texts from one', () => {
  test.each([
    ['one changed nothing', text('a', 'b'), text('a', 'b'), text('a', 'c'), text('a', 'c')],
    ['both changed the same', text('a', 'b'), text('a', 'c'), text('a', 'c'), text('a', 'c')],
    ['each changed another block', text('a', 'b', 'c'), text('x', 'b', 'c'), text('a', 'b', 'z'), text('x', 'b', 'z')],
    ['blocks side by side', text('a', 'b'), text('x', 'b'), text('a', 'y'), text('x', 'y')],
    ['one took a block away, the other wrote one', text('a', 'b', 'c'), text('a', 'c'), text('a', 'b', 'c', 'd'), text('a', 'c', 'd')],
    ['one wrote before what the other changed', text('a', 'b'), text('a', 'new', 'b'), text('a', 'y'), text('a', 'new', 'y')],
    ['one of the changes is in both', text('a', 'b', 'c'), text('x', 'b', 'c'), text('x', 'b', 'z'), text('x', 'b', 'z')],
    ['all of it was taken away by one', text('a', 'b'), '', text('a', 'b'), ''],
  ])('are put together: %s', (_what, base, mine, theirs, merged) => {
    expect(mergeTexts(base, mine, theirs)).toBe(merged);
    expect(mergeTexts(base, theirs, mine)).toBe(merged);
  });

  test.each([
    ['both changed one block', text('a', 'b'), text('x', 'b'), text('y', 'b')],
    ['one changed what the other took away', text('a', 'b'), text('b'), text('x', 'b')],
    ['both wrote something new at the end', text('a'), text('a', 'x'), text('a', 'y')],
    [
      'the same words stand in a table that both changed',
      '<table><tr><td>a</table>',
      '<table><tr><td>b</table>',
      '<table><tr><td>c</table>',
    ],
  ])('are not: %s', (_what, base, mine, theirs) => {
    expect(mergeTexts(base, mine, theirs)).toBeNull();
    expect(mergeTexts(base, theirs, mine)).toBeNull();
  });

  /** A text of blocks that are all different, what two people make of it, and what that comes to. */
  const twoWays = fc
    .array(
      fc.record({ html: wholeContent, mine: fc.constantFrom('keep', 'take', 'change'), theirs: fc.constantFrom('keep', 'take', 'change') }),
      {
        minLength: 1,
        maxLength: 8,
      },
    )
    .map((blocks) =>
      blocks.map(({ html, mine, theirs }, at) => {
        const block = (word: string): string => `<div id="b${at}"><p>${word} ${at}</p>${serialize(parseFragment(html).root)}</div>`;
        const made = (way: string, whose: string): string => (way === 'take' ? '' : way === 'change' ? block(whose) : block('base'));
        return { base: block('base'), mine: made(mine, 'mine'), theirs: made(theirs, 'theirs') };
      }),
    );

  test('have every block as whoever changed it left it; where both did, nothing is put together', () => {
    fc.assert(
      fc.property(twoWays, (blocks) => {
        const whole = (key: 'base' | 'mine' | 'theirs'): string => blocks.map((block) => block[key]).join('');
        const merged = mergeTexts(whole('base'), whole('mine'), whole('theirs'));
        const clash = blocks.some(({ base, mine, theirs }) => mine !== base && theirs !== base && mine !== theirs);
        if (clash) {
          expect(merged).toBeNull();
          return;
        }
        if (merged === null) return;
        expect(merged).toBe(blocks.map(({ base, mine, theirs }) => (mine === base ? theirs : mine)).join(''));
      }),
      { numRuns: runs(3000) },
    );
  });

  test('are put together wherever the blocks that were changed have an unchanged one between them', () => {
    fc.assert(
      fc.property(twoWays, (blocks) => {
        const apart = blocks.flatMap((block, at) => [
          { ...block, ...(at % 2 === 0 ? { theirs: block.base } : { mine: block.base }) },
          { base: `<p>between ${at}</p>`, mine: `<p>between ${at}</p>`, theirs: `<p>between ${at}</p>` },
        ]);
        const whole = (key: 'base' | 'mine' | 'theirs'): string => apart.map((block) => block[key]).join('');
        expect(mergeTexts(whole('base'), whole('mine'), whole('theirs'))).toBe(
          apart.map(({ base, mine, theirs }) => (mine === base ? theirs : mine)).join(''),
        );
      }),
      { numRuns: runs(2000) },
    );
  });
});
