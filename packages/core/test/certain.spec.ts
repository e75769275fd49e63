import fc from 'fast-check';
import {
  byItself,
  CertainReach,
  cleanWithoutLedger,
  everyFeature,
  featuresOf,
  parseFragment,
  type Certainty,
  type JsonObject,
} from '../src/index';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { randomChanges, randomRuleSets } from './random-rules';
import { rulesOf } from './support';
import { tangledMarkup, wellFormedMarkup } from './tangled-markup';
import { wholeContent } from './whole-content';

/** What a change does to a document, by what it holds. */
function told(html: string, reach: CertainReach): Certainty {
  if (!byItself(html).isSame) return 'open';
  const held = featuresOf(parseFragment(html).root, html);
  let effects = 0;
  for (const feature of everyFeature(held)) effects |= reach.ofFeature(feature);
  return reach.of(effects, held);
}

/** Whether it comes out differently. */
const isTouched = (html: string, { from, to }: Pick<ReturnType<typeof randomChanges>[number], 'from' | 'to'>): boolean =>
  cleanWithoutLedger(html, from) !== cleanWithoutLedger(html, to);

describe('what a change does to documents, by what they hold', () => {
  const base = {
    p: { attributes: { class: { test: 'tokens', values: ['note'] } } },
    a: { attributes: { href: { test: 'url' } }, forced: { rel: { value: 'nofollow' } } },
    img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } }, required: { alt: { otherwise: 'add', value: '' } } },
    figure: { attributes: { title: { test: 'text' } }, required: { title: { otherwise: 'drop' } } },
    table: {},
    tr: {},
    td: {},
    em: {},
    i: { outcome: 'rename', to: 'em' },
    h2: {},
  };
  const from = rulesOf({ elements: base });

  test.each<[string, JsonObject, string, Certainty]>([
    ['an element goes', { elements: { ...base, em: { outcome: 'drop' } } }, '<p>a <em>b</em></p>', 'touched'],
    [
      'an element goes that gets what it lacks',
      { elements: { ...base, img: { outcome: 'drop' } } },
      '<p><img src="/a" alt=""></p>',
      'touched',
    ],
    ['an element goes, and is not there', { elements: { ...base, em: { outcome: 'drop' } } }, '<p>a</p>', 'same'],
    [
      'an element goes from within one that may go',
      { elements: { ...base, em: { outcome: 'drop' } } },
      '<figure><em>b</em></figure>',
      'open',
    ],
    ['an element goes as which another comes', { elements: { ...base, em: { outcome: 'unwrap' } } }, '<p><i>a</i><em>b</em></p>', 'open'],
    ['a class goes', { elements: { ...base, p: {} } }, '<p class="note">x</p>', 'touched'],
    ['a class goes, and is not there', { elements: { ...base, p: {} } }, '<p>x</p>', 'same'],
    [
      'a class comes',
      { elements: { ...base, td: { attributes: { class: { test: 'text' } } } } },
      '<table><tr><td class="x">1</td></tr></table>',
      'open',
    ],
    ['an element comes', { elements: { ...base, mark: {} } }, '<p><mark>x</mark></p>', 'touched'],
    [
      'an element comes beside one that goes',
      { elements: { ...base, mark: {}, em: { outcome: 'drop' } } },
      '<p><mark>x</mark><em>y</em></p>',
      'open',
    ],
    [
      'what is added to links is another',
      { elements: { ...base, a: { ...base.a, forced: { rel: { value: 'nofollow noopener' } } } } },
      '<p><a href="https://b.example/">x</a></p>',
      'open',
    ],
    ['it is written otherwise', { elements: base, output: { characters: 'named' } }, '<p>x</p>', 'open'],
    [
      'levels are set right',
      { elements: { ...base, em: { outcome: 'drop' } }, headings: { others: 'shift', top: 3 } },
      '<h2>x</h2>',
      'open',
    ],
  ])('%s', (_name, changed, html, certainty) => {
    const to = rulesOf(JSON.parse(JSON.stringify(changed)) as JsonObject);
    expect(told(html, new CertainReach(from, to))).toBe(certainty);
    if (certainty !== 'open') expect(isTouched(html, { from, to })).toBe(certainty === 'touched');
  });

  const nested = 20_000;
  test.each<[string, string, Certainty]>([
    ['an empty text', '', 'same'],
    ['words alone', 'x', 'same'],
    ['another script', '<p>\u0645\u0631\u062d\u0628\u0627 <em>\u0628</em></p>'.repeat(200), 'touched'],
    ['an item without its list', '<li>x</li>', 'open'],
    ['a cell without its table', '<td>x</td>', 'open'],
    ['half a character', '<p>\ud83d<em>x</em></p>', 'open'],
    ['what is nested deeper than browsers nest it', `${'<div>'.repeat(nested)}<em>x</em>${'</div>'.repeat(nested)}`, 'open'],
  ])('%s', (_name, html, certainty) => {
    const [one, other] = [
      rulesOf({ elements: { p: {}, div: {}, em: {}, li: {}, ul: {} } }),
      rulesOf({ elements: { p: {}, div: {}, em: { outcome: 'drop' }, li: { outcome: 'unwrap' }, ul: {} } }),
    ];
    expect(told(html, new CertainReach(one, other))).toBe(certainty);
    if (certainty !== 'open') expect(isTouched(html, { from: one, to: other })).toBe(certainty === 'touched');
  });

  const changes = randomChanges(Math.max(60, runs(600)), 13);
  const sets = randomRuleSets(Math.max(60, runs(600)), 17);
  const apart = sets
    .slice(1)
    .map(({ rules, written }, at) => ({ from: sets[at]!.rules, to: rules, written: `${sets[at]!.written}\n${written}` }));

  describe.each([
    ['a change of one set of rules', changes],
    ['two sets of rules', apart],
  ])('law: what is told of %s is what cleaning by both says', (_name, between) => {
    const judged = between.map((one) => ({ ...one, reach: new CertainReach(one.from, one.to) }));
    test.each([
      ['whole content', wholeContent, 6000],
      ['trees of every element', randomContent, 2000],
      ['tangled markup', tangledMarkup, 2000],
      ['well-formed markup', wellFormedMarkup, 2000],
    ])('%s', (_contents, contents, count) => {
      fc.assert(
        fc.property(contents, fc.constantFrom(...judged), (html, { reach, ...rules }) => {
          const certainty = told(html, reach);
          if (certainty === 'open' || (certainty === 'touched') === isTouched(html, rules)) return;
          const { from: one, to: other } = rules;
          throw new Error(`${certainty}: ${html}\n${rules.written}\n${cleanWithoutLedger(html, one)}\n${cleanWithoutLedger(html, other)}`);
        }),
        { numRuns: runs(count) },
      );
    });
  });

  test('can be told of most documents that come out the same by the rules before', () => {
    const documents = fc.sample(wholeContent, { numRuns: 120, seed: 5 });
    let [asked, answered] = [0, 0];
    for (const { from: one, to: other } of changes.slice(0, 40)) {
      const reach = new CertainReach(one, other);
      for (const html of documents) {
        if (cleanWithoutLedger(html, one) !== html) continue;
        asked++;
        if (told(html, reach) !== 'open') answered++;
      }
    }
    expect(asked).toBeGreaterThan(60);
    expect(answered / asked).toBeGreaterThan(0.6);
  });
});
