import fc from 'fast-check';
import {
  cleanWithoutLedger,
  parseFragment,
  reachInBrief,
  reachOf,
  ReachSum,
  renderedWords,
  visibleLetters,
  type CompiledRules,
} from '../src/index';
import { missing } from '../src/reach/missing';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { randomRuleSets } from './random-rules';
import { rulesOf } from './support';
import { wholeContent } from './whole-content';

const lettersOf = (html: string): number => visibleLetters(parseFragment(html).root);
const wordsOf = (html: string): string[] => renderedWords(parseFragment(html).root);

describe('what a change of rules does to a document', () => {
  const wide = rulesOf({
    elements: {
      p: { attributes: { class: { test: 'tokens', values: ['note'] } } },
      table: {},
      tbody: {},
      tr: {},
      td: {},
      img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } } },
      a: { attributes: { href: { test: 'url' } } },
      iframe: { attributes: { src: { test: 'url', hosts: ['cams.example'] } } },
    },
    urls: { schemes: { src: ['https'] } },
  });

  test('is nothing where it comes out the same, also where another rule does it', () => {
    expect(reachOf('<p>One <font>two</font></p>', wide, rulesOf({ elements: { p: {} } }))).toBeNull();
    expect(reachOf('<p>One <font>two</font></p>', wide, rulesOf({ elements: { p: {}, font: { outcome: 'unwrap' } } }))).toBeNull();
  });

  test('tells the words, pictures, links and frames that readers lose, and by which rule', () => {
    const narrow = rulesOf({ elements: { p: {}, table: { outcome: 'drop' }, td: { outcome: 'drop' } } });
    const reach = reachOf(
      '<p class="note">See <a href="https://a.example/">here</a> <img src="https://a.example/b.png" alt="Map"></p><table><tr><td>Two three</td></tr></table><iframe src="https://cams.example/1"></iframe>',
      wide,
      narrow,
    )!;
    expect(reach).toMatchObject({
      after: '<p>See here </p>',
      textLost: 8,
      textGained: 0,
      wordsLost: ['Two', 'three'],
      wordsGained: [],
      lost: { pictures: 1, links: 1, frames: 1 },
      gained: { pictures: 0, links: 0, frames: 0 },
      settled: [],
    });
    expect(reach.entries.map(({ subject, action }) => [subject.element, subject.attribute, action])).toEqual([
      ['p', 'class', 'removed'],
      ['a', undefined, 'unwrapped'],
      ['img', undefined, 'unwrapped'],
      ['table', undefined, 'removed'],
      ['iframe', undefined, 'removed'],
    ]);
  });

  test('does not count as kept what was done to a thing that is gone now, nor as taken what is done to one that was gone', () => {
    const html = '<p>One</p><aside class="x"><p lang="en">Two</p></aside><p><b class="y">Three</b></p>';
    const without = rulesOf({ elements: { p: {}, aside: { outcome: 'drop' } } });
    const within = rulesOf({ elements: { p: {}, aside: {}, b: {} } });
    const told = (entries: readonly { subject: { element: string; attribute?: string } }[]): string[] =>
      entries.map(({ subject: { element, attribute = '' } }) => `${element} ${attribute}`.trim());
    const reach = reachOf(html, within, without)!;
    expect([told(reach.entries), told(reach.settled)]).toEqual([['aside', 'b'], []]);
    const back = reachOf(html, without, within)!;
    expect([told(back.entries), told(back.settled)]).toEqual([[], ['aside', 'b']]);
  });

  test('tells what newly passes, and what is only written in another way', () => {
    const [before, after] = [rulesOf({ elements: { p: { outcome: 'drop' } } }), rulesOf({ elements: { p: {} } })];
    expect(reachOf('<p>One two</p>', before, after)).toMatchObject({
      textLost: 0,
      textGained: 6,
      wordsGained: ['One', 'two'],
      entries: [],
      settled: [{ action: 'removed', textLost: 6 }],
    });
    const numeric = rulesOf({ elements: { p: {} }, output: { characters: 'numeric' } });
    expect(reachOf('<p>né</p>', after, numeric)).toMatchObject({
      textLost: 0,
      textGained: 0,
      entries: [],
      settled: [],
      after: '<p>n&#233;</p>',
    });
  });

  test('is told for exactly those that come out differently, and its figures are those of the two results', () => {
    const sets = randomRuleSets(24, 3);
    const set = fc.constantFrom(...sets);
    fc.assert(
      fc.property(fc.oneof(randomContent, wholeContent), set, set, (html, { rules: from }, { rules: to }) => {
        const [before, after] = [cleanWithoutLedger(html, from), cleanWithoutLedger(html, to)];
        const reach = reachOf(html, from, to);
        expect(reach === null).toBe(before === after);
        if (reach === null) return;
        expect([reach.before, reach.after]).toEqual([before, after]);
        expect(reach.textGained - reach.textLost).toBe(lettersOf(after) - lettersOf(before));
        expect(Math.min(reach.textGained, reach.textLost)).toBe(0);
        expect(wordsOf(before).length - reach.wordsLost.length).toBe(wordsOf(after).length - reach.wordsGained.length);
        // The other way round it is the same, with both sides changed.
        expect(reachOf(html, to, from)).toMatchObject({
          textLost: reach.textGained,
          wordsLost: reach.wordsGained,
          lost: reach.gained,
          entries: reach.settled,
          settled: reach.entries,
        });
      }),
      { numRuns: runs(1500) },
    );
  });
});

describe('what a change of rules does to many documents', () => {
  const sumOf = (documents: readonly string[], from: CompiledRules, to: CompiledRules) => {
    const sum = new ReachSum();
    for (const html of documents) {
      const reach = reachOf(html, from, to);
      sum.add(reach === null ? null : reachInBrief(reach));
    }
    return sum.sum();
  };
  const from = rulesOf({ elements: { p: {}, b: {}, aside: {}, em: { outcome: 'drop' }, img: { attributes: { src: { test: 'url' } } } } });
  const to = rulesOf({ elements: { p: {}, aside: { outcome: 'drop' }, em: {} } });

  test('is grouped by rule and by what goes, what hurts most first', () => {
    const documents = [
      '<p>Nothing</p>',
      '<p><b>Bold</b></p>',
      '<p>One</p><aside>Two three</aside>',
      '<p><b>Bold</b> and <b>bold</b> <em>kept</em></p>',
      '<aside>Four</aside><img src="/a.png">',
    ];
    const all = sumOf(documents, from, to);
    expect(all).toMatchObject({
      documents: 5,
      touched: 4,
      losing: { documents: 2, words: 3 },
      gaining: { documents: 1, words: 1 },
      lost: { pictures: 1, links: 0, frames: 0 },
    });
    expect(
      all.groups.map(({ kind, harm, element, documents: numbers, places, textLost }) => [kind, harm, element, numbers, places, textLost]),
    ).toEqual([
      ['taken', 'words', 'aside', [2, 4], 2, 12],
      ['taken', 'things', 'img', [4], 1, 0],
      ['taken', 'look', 'b', [1, 3], 3, 0],
      ['kept', 'none', 'em', [3], 1, 4],
    ]);
    expect(all.groups[0]!.sentence).toMatch(/^2 <aside> went, with their content, and 12 letters of text with them/);
    expect(all.groups[2]).toMatchObject({ sentence: '3 <b> unwrapped, the words stay', rule: '/markup/unlisted', layer: 'profile' });
  });

  test('has a group of its own for what is only written in another way', () => {
    const [raw, named] = [rulesOf({ elements: { p: {} } }), rulesOf({ elements: { p: {} }, output: { characters: 'named' } })];
    expect(sumOf(['<p>né</p>', '<p>n</p>', '<p>é</p>'], raw, named)).toMatchObject({
      touched: 2,
      losing: { documents: 0 },
      groups: [{ kind: 'written', documents: [0, 2], places: 2, harm: 'none' }],
    });
  });

  test('names every touched document in some group, none that is not, and each once in a group', () => {
    const set = fc.constantFrom(...randomRuleSets(16, 4));
    fc.assert(
      fc.property(fc.array(randomContent, { maxLength: 8 }), set, set, (documents, { rules: one }, { rules: other }) => {
        const { groups, touched, losing } = sumOf(documents, one, other);
        const named = new Set(groups.flatMap(({ documents: numbers }) => numbers));
        const differing = documents.flatMap((html, at) => (cleanWithoutLedger(html, one) === cleanWithoutLedger(html, other) ? [] : [at]));
        expect([...named].sort((a, b) => a - b)).toEqual(differing);
        expect(touched).toBe(differing.length);
        expect(losing.documents).toBeLessThanOrEqual(touched);
        for (const { documents: numbers, sentence } of groups) {
          expect(numbers).toEqual([...new Set(numbers)].sort((a, b) => a - b));
          expect(sentence).toMatch(/^[^{}[\]]+$/);
        }
      }),
      { numRuns: runs(300) },
    );
  });
});

test('what is missing of a list is told as often as it is missing', () => {
  expect(missing(['a', 'b', 'a', 'c'], ['a', 'd'])).toEqual(['b', 'a', 'c']);
  expect(missing([{ n: 1 }, { n: 2 }], [{ n: 2 }], ({ n }) => String(n))).toEqual([{ n: 1 }]);
});
