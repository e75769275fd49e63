import fc from 'fast-check';
import { clean, compileRules, fitTo, isWhole, mergePatch, resolveProfile, type HouseLimits, type JsonObject } from '../src/index';
import type { Problem } from '../src/reach/closure';
import { choicesOf, smallestFor } from '../src/reach/smallest';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { randomRules } from './random-rules';
import { rulesOf } from './support';
import { wholeContent } from './whole-content';

describe('the lightest choice of items', () => {
  /** Every choice there is: what it weighs and what it covers. */
  function everyChoice({ weights, groups }: Problem): { weight: number; covered: number }[] {
    return Array.from({ length: 2 ** weights.length }, (_, bits) => {
      const has = (item: number): boolean => (bits & (1 << item)) !== 0;
      return {
        weight: weights.reduce((sum, weight, item) => sum + (has(item) ? weight : 0), 0),
        covered: groups.reduce((sum, { items, count }) => sum + (items.every(has) ? count : 0), 0),
      };
    });
  }
  const problems: fc.Arbitrary<Problem> = fc.integer({ min: 1, max: 9 }).chain((size) =>
    fc.record({
      weights: fc.array(fc.integer({ min: 1, max: 6 }), { minLength: size, maxLength: size }),
      groups: fc.array(
        fc.record({
          items: fc.uniqueArray(fc.nat({ max: size - 1 }), { maxLength: size }),
          count: fc.oneof(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 100_000 })),
        }),
        { maxLength: 14 },
      ),
    }),
  );

  test('is never lighter than its bound says and never heavier than what is found; what is said to be least is least', () => {
    fc.assert(
      fc.property(problems, fc.double({ min: 0, max: 1, noNaN: true }), (problem, share) => {
        const every = everyChoice(problem);
        const leastFor = (covered: number): number =>
          Math.min(...every.filter((choice) => choice.covered >= covered).map(({ weight }) => weight));
        const choices = choicesOf(problem);
        const most = choices.at(-1)!.covered;
        expect(most).toBe(Math.max(...every.map(({ covered }) => covered)));
        for (const { weight, covered, isLeast } of choices) {
          if (isLeast) expect(weight).toBe(leastFor(covered));
          else expect(weight).toBeGreaterThanOrEqual(leastFor(covered));
        }
        const wanted = Math.ceil(most * share);
        const found = smallestFor(problem, choices, wanted);
        const least = leastFor(wanted);
        expect(found.covered).toBeGreaterThanOrEqual(wanted);
        expect(found.bound).toBeLessThanOrEqual(least);
        expect(found.weight).toBeGreaterThanOrEqual(least);
        if (found.isLeast) expect(found.weight).toBe(least);
      }),
      { numRuns: runs(2000) },
    );
  });

  test('goes from nothing to everything, each step with all that the steps before have and more documents', () => {
    fc.assert(
      fc.property(problems, (problem) => {
        const choices = choicesOf(problem);
        choices.slice(1).forEach(({ items, covered, weight }, at) => {
          const before = choices[at]!;
          expect([...before.items].filter((item) => !items.has(item))).toEqual([]);
          expect(covered).toBeGreaterThan(before.covered);
          expect(weight).toBeGreaterThan(before.weight);
          expect(weight).toBe([...items].reduce((sum, item) => sum + problem.weights[item]!, 0));
        });
        expect(choices[0]!.items.size).toBe(0);
      }),
      { numRuns: runs(500) },
    );
  });

  test('is found at the corners of the curve by what many documents share', () => {
    // Two cheap items serve many, a dear one serves few.
    const problem = {
      weights: [1, 1, 5],
      groups: [
        { items: [0], count: 10 },
        { items: [0, 1], count: 50 },
        { items: [2], count: 3 },
      ],
    };
    expect(choicesOf(problem).map(({ weight, covered, isLeast }) => [weight, covered, isLeast])).toEqual([
      [0, 0, true],
      [2, 60, true],
      [7, 63, true],
    ]);
    expect(smallestFor(problem, choicesOf(problem), 5)).toMatchObject({ weight: 1, covered: 10, bound: 1, isLeast: true });
  });
});

describe('a document', () => {
  const rules = rulesOf({ elements: { p: {}, a: { attributes: { href: { test: 'url' } } } }, ids: { prefix: 'c-' } });
  test.each([
    ['<p>One <a href="https://a.example/">two</a></p>', true],
    ['<P>One</p>', true],
    ['<p>One<!-- nobody sees this --></p>', true],
    ['<p onclick="x()">One</p><script>1</script>', true],
    ['<p>One</b></p>', true],
    ['<p class="">One</p>', true],
    ['<p class="note">One</p>', false],
    ['<p lang="en">One</p>', false],
    ['<p>One <em>two</em></p>', false],
    ['<p>One <a href="ftp://a.example/">two</a></p>', false],
    ['<p>One <a href="javascript:x">two</a></p>', false],
    ['<p>One <object>two</object></p>', false],
  ])('%s is whole: %s', (html, is) => expect(isWhole(html, rules)).toBe(is));
});

describe('the least rules', () => {
  const compiled = (profile: JsonObject, house?: HouseLimits) => {
    const resolution = resolveProfile('least', () => profile);
    if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
    return compileRules(resolution.resolved, house === undefined ? {} : { house });
  };

  test('allow what most documents need, and name for each step what it is', () => {
    const documents = [
      '<p>One</p>',
      '<p>Two</p>',
      '<p>Three <a href="https://a.example/">x</a></p>',
      '<p>Four <a href="/b">x</a></p>',
      '<iframe src="https://cams.example/1" sandbox=""></iframe>',
      '<p class="note wide">Five</p>',
    ];
    const fit = fitTo(() => documents, { keep: 0.8 });
    expect(fit).toMatchObject({ documents: 6, whole: 5, most: 6 });
    expect(fit.kept).toBeCloseTo(5 / 6);
    expect(fit.profile).toMatchObject({
      markup: {
        elements: {
          p: { attributes: { class: { test: 'tokens', values: ['note', 'wide'] } } },
          a: { attributes: { href: { test: 'url' } }, schemes: { href: ['https'] } },
        },
        urls: { relative: true },
      },
    });
    expect(fit.curve.map(({ allows }) => allows)).toEqual([
      [],
      ['<p>'],
      ['<a>', 'href on <a>', 'https in href on <a>'],
      ['addresses without a scheme'],
      ['class note on <p>', 'class wide on <p>'],
      ['<iframe>', 'src on <iframe>', 'https in src on <iframe>', '<iframe> from cams.example', 'sandbox on <iframe>'],
    ]);
    expect(fitTo(() => documents, { keep: 1 }).profile).toMatchObject({
      markup: { elements: { iframe: { attributes: { src: { test: 'url', hosts: ['cams.example'] } } } } },
    });
  });

  test('of no documents allow nothing, and those that need nothing cost nothing', () => {
    expect(fitTo(() => [], { keep: 1 })).toMatchObject({ documents: 0, whole: 0, kept: 1, rules: 0, risk: 0, bound: 0 });
    expect(fitTo(() => ['One', 'Two<!-- x -->'], { keep: 1 })).toMatchObject({ whole: 2, kept: 1, rules: 0 });
  });

  test('say how many can be whole where limits above allow no more', () => {
    const house = { elements: { p: {} } };
    const fit = fitTo(() => ['<p>One</p>', '<p>Two</p>', '<h2>Three</h2>', '<p lang=en>Four</p>'], {
      keep: 1,
      house: { format: 'typikon-house/1', name: 'House', markup: compiledHouse(house), trustedRoles: {} },
    });
    expect(fit).toMatchObject({ whole: 2, most: 2, kept: 0.5 });
  });

  test('hold nothing that could be spared: without any one of them fewer documents are whole', () => {
    const corpora = fc.array(fc.oneof(randomContent, wholeContent), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(corpora, fc.constantFrom(0.4, 1), (documents, keep) => {
        const { profile, whole } = fitTo(() => documents, { keep });
        const wholeWith = (changed: JsonObject): number => documents.filter((html) => isWhole(html, compiled(changed))).length;
        const { elements } = (profile as { markup: { elements: Record<string, { attributes?: JsonObject }> } }).markup;
        for (const [name, rule] of Object.entries(elements)) {
          const without = (own: JsonObject | null): JsonObject =>
            mergePatch(profile, { markup: { elements: { [name]: own } } }) as JsonObject;
          expect(wholeWith(without(null))).toBeLessThan(whole);
          for (const attribute of Object.keys(rule.attributes ?? {}))
            expect(wholeWith(without({ attributes: { [attribute]: null } }))).toBeLessThan(whole);
        }
      }),
      { numRuns: runs(200) },
    );
  });

  test('keep as many documents whole as they say, whatever those hold and whatever stands above', () => {
    const corpora = fc.array(fc.oneof(randomContent, wholeContent), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(corpora, randomRules, fc.constantFrom(0, 0.3, 0.6, 1), fc.boolean(), (documents, { house }, keep, isBelowHouse) => {
        const above = isBelowHouse && house !== undefined ? { house } : {};
        const fit = fitTo(() => documents, { keep, ...above });
        const rules = compiled(fit.profile, above.house);
        expect(fit.whole).toBe(documents.filter((html) => isWhole(html, rules)).length);
        // What was reckoned from the needs is what cleaning counts: the first step of the curve that is enough is not fewer.
        const wanted = Math.min(fit.most, Math.ceil(keep * documents.length - 1e-9));
        expect(fit.whole).toBeGreaterThanOrEqual(wanted);
        expect(fit.whole).toBeLessThanOrEqual(fit.most);
        expect(fit.bound).toBeLessThanOrEqual(fit.risk);
        // Every word of a document that is whole is there.
        for (const html of documents.filter((one) => isWhole(one, rules)))
          expect(clean(html, rules).ledger.reduce((sum, { textLost, stage }) => sum + (stage === 'read' ? 0 : textLost), 0)).toBe(0);
      }),
      { numRuns: runs(600) },
    );
  });
});

/** House limits with every default filled in. */
function compiledHouse(markup: JsonObject): HouseLimits['markup'] {
  const resolution = resolveProfile('house', () => ({ format: 'typikon-profile/1', name: 'House', markup }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return resolution.resolved.profile.markup;
}
