import fc from 'fast-check';
import {
  byItself,
  compiledFit,
  everyFeature,
  featuresOf,
  FitCorpus,
  fitTo,
  grantsOf,
  isWhole,
  keyOfNeed,
  needsOf,
  needsOfFeature,
  needWords,
  parseFragment,
  Wholeness,
  type NeedWithValue,
} from '../src/index';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { randomRuleSets, randomRules } from './random-rules';
import { resolved, rulesOf } from './support';
import { tangledMarkup, wellFormedMarkup } from './tangled-markup';
import { wholeContent } from './whole-content';

const features = (html: string) => featuresOf(parseFragment(html).root, html);

/** Contents as they are stored: the parser has read them once. */
const contents = fc.oneof(randomContent, wholeContent, tangledMarkup, wellFormedMarkup);

/** Whether a document is whole, by what it holds. */
const wholeness = (html: string, judge: Wholeness): 'whole' | 'not' | 'open' => {
  const own = byItself(html);
  if (!own.isWhole) return 'not';
  const held = features(html);
  const verdicts = [...everyFeature(held)].map((feature) => judge.ofFeature(feature));
  if (verdicts.includes('takes')) return 'not';
  return own.isSame && !judge.isOpen(held) && !verdicts.includes('open') ? 'whole' : 'open';
};

describe('what a document needs', () => {
  const told = (needs: Iterable<NeedWithValue>): string[] =>
    [...new Set([...needs].map(({ need, value }) => JSON.stringify([keyOfNeed(need), value])))].sort();

  test.each([
    '<table><tbody class="a"><tr><td>x</table>',
    '<table><tbody></tbody></table>',
    '<table><colgroup><col></colgroup></table>',
    '<li>x</li><div><dd>y</dd></div><dl><div><dd>z</div></dl>',
    '<nobr><li>x</li></nobr><ul><nobr><li>y</ul>',
    '<svg><a href="/x">1</a></svg><object><p class=a></object>',
    '<p class="a b" onclick="x()" style="color:red;width:1px" id="">x</p><iframe src="//a.example/"></iframe>',
    '<custom-thing lang=en>x</custom-thing>',
  ])('follows from what it holds: %s', (html) => {
    const { root } = parseFragment(html);
    expect(told([...everyFeature(featuresOf(root, html))].flatMap((feature) => [...needsOfFeature(feature)]))).toEqual(told(needsOf(root)));
  });

  test('follows from what it holds, whatever that is', () => {
    fc.assert(
      fc.property(contents, (html) => {
        const { root } = parseFragment(html);
        const held = [...everyFeature(featuresOf(root, html))];
        expect(told(held.flatMap((feature) => [...needsOfFeature(feature)]))).toEqual(told(needsOf(root)));
      }),
      { numRuns: runs(6000) },
    );
  });
});

describe('what holds for a document as a whole', () => {
  test.each([
    ['<p>x</p>', 1, false],
    ['<p></p>', 1, true],
    ['<div><p>&nbsp;</p></div>', 2, true],
    ['<h2><b><i>x</i></b></h2>', 3, false],
    ['<h2><b><i> </i></b></h2>', 3, true],
    ['<div></div>', 1, false],
    ['<nobr><p>x</p></nobr>', 2, false],
  ])('%s is %d deep, has blanks: %s', (html, depth, hasBlanks) => expect(features(html)).toMatchObject({ depth, hasBlanks }));

  test('is told of a hundred thousand headings in each other', () => {
    const html = `${'<h1><div>'.repeat(50_000)}x${'</div></h1>'.repeat(50_000)}`;
    expect(features(html)).toMatchObject({ depth: 100_000, hasBlanks: false, nodes: 100_001 });
  });
});

describe('whether a document is whole, by what it holds', () => {
  const rules = rulesOf({
    elements: {
      p: { attributes: { class: { test: 'tokens', values: ['note'] }, align: { test: 'list', values: ['left'] } } },
      table: {},
      tr: {},
      td: {},
      img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } }, required: { alt: { otherwise: 'drop' } } },
      b: { outcome: 'rename', to: 'strong' },
      strong: {},
      ul: {},
      li: {},
    },
    text: { emptyParagraphs: 'remove' },
    urls: { schemes: { src: ['https'] } },
    limits: { letters: 60 },
  });

  test.each([
    ['<p class="note">x</p>', 'whole'],
    ['<p class="other">x</p>', 'not'],
    ['<p class="note other">x</p>', 'open'],
    ['<p align="LEFT">x</p>', 'not'],
    ['<p onclick="x()">x</p>', 'open'],
    ['<p></p>', 'open'],
    ['<table><tbody><tr><td>x</td></tr></tbody></table>', 'whole'],
    ['<img src="https://a.example/">', 'open'],
    ['<b>x</b>', 'not'],
    ['<h2>x</h2>', 'not'],
    ['<p>This is longer than the letters that there may be in one text.</p>', 'open'],
    ['<script>x</script><p>x</p>', 'open'],
    ['<li>x</li>', 'open'],
  ])('%s: %s', (html, is) => expect(wholeness(html, new Wholeness(rules))).toBe(is));

  const many = randomRuleSets(Math.max(60, runs(800)), 7).map(({ rules: compiled, written }) => ({
    compiled,
    written,
    judge: new Wholeness(compiled),
  }));

  test('is what cleaning says, wherever it can be told', () => {
    fc.assert(
      fc.property(contents, fc.constantFrom(...many), (html, { compiled, written, judge }) => {
        const told = wholeness(html, judge);
        if (told === 'open') return;
        if ((told === 'whole') !== isWhole(html, compiled)) throw new Error(`${told}: ${JSON.stringify(html)}\n${written}`);
      }),
      { numRuns: runs(12_000) },
    );
  });

  test('can be told of most documents by rules that demand nothing', () => {
    const all = fc.sample(wholeContent, { numRuns: 300, seed: 3 });
    const corpus = new FitCorpus();
    for (const html of all) corpus.add(needsOf(parseFragment(html).root));
    const everything = new Wholeness(compiledFit(corpus.everything('All'), {}));
    const open = all.filter((html) => byItself(html).isSame && wholeness(html, everything) === 'open');
    expect(open).toEqual([]);
  });
});

describe('a fit by what documents hold', () => {
  test('is the fit that cleaning every one finds', () => {
    const corpora = fc.array(fc.oneof(randomContent, wholeContent), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(corpora, randomRules, fc.constantFrom(0.3, 0.6, 1), (documents, { house }, keep) => {
        const above = house === undefined ? {} : { house };
        const corpus = new FitCorpus();
        for (const html of documents) corpus.add([...everyFeature(features(html))].flatMap((feature) => [...needsOfFeature(feature)]));
        const rules = compiledFit(corpus.everything('Least rules'), above);
        const judge = new Wholeness(rules);
        documents.forEach((html, at) => {
          const told = wholeness(html, judge);
          corpus.settle(at, told === 'open' ? isWhole(html, rules) : told === 'whole');
        });
        const way = corpus.way();
        const expected = fitTo(() => documents, { keep, ...above });
        expect(way.steps.map(({ allows, ...step }) => ({ ...step, allows: [...allows].sort() }))).toEqual(
          expected.curve.map(({ allows, ...step }) => ({ ...step, allows: [...allows].sort() })),
        );
        expect(way.keeping(keep, 'Least rules').whole).toBe(expected.whole);
        // A step names documents that are whole by it and not by the one before.
        way.samples(2).forEach((samples, step) => {
          const [now, before] = [step, step - 1].map((one) => (one < 0 ? null : compiledFit(way.at(one, 'x'), above)));
          for (const at of samples) {
            expect(isWhole(documents[at]!, now!)).toBe(true);
            if (before != null) expect(isWhole(documents[at]!, before)).toBe(false);
          }
          expect(samples.length > 0).toBe(way.steps[step]!.whole > (way.steps[step - 1]?.whole ?? 0));
        });
      }),
      { numRuns: runs(400) },
    );
  });
});

describe('what a profile allows', () => {
  test('is told thing by thing, as documents need it', () => {
    const markup = {
      elements: {
        p: { attributes: { class: { test: 'tokens', values: ['note'], prefixes: ['is-'] } } },
        a: { attributes: { href: { test: 'url' }, title: { test: 'text' } }, schemes: { href: ['https', 'mailto'] } },
        iframe: { attributes: { src: { test: 'url', hosts: ['cams.example'] } } },
        span: { attributes: { style: { test: 'style', properties: { color: { test: 'any' } } } } },
        b: { outcome: 'rename', to: 'strong' },
      },
      attributes: { lang: { test: 'language' } },
      urls: { schemes: { src: ['https'] }, relative: false },
    };
    const profile = resolved('allowing', () => ({ format: 'typikon-profile/1', name: 'Allowing', markup }));
    expect(grantsOf(profile).map(needWords)).toEqual([
      '<p>',
      'class note on <p>',
      'class is-* on <p>',
      '<a>',
      'href on <a>',
      'https in href on <a>',
      'mailto in href on <a>',
      'title on <a>',
      '<iframe>',
      'src on <iframe>',
      'https in src on <iframe>',
      '<iframe> from cams.example',
      '<span>',
      'color in style on <span>',
      'lang on <*>',
    ]);
  });
});
