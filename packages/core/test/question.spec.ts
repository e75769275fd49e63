import fc from 'fast-check';
import {
  cleanWithoutLedger,
  featuresOf,
  mayTouch,
  parseFragment,
  questionBetween,
  type CompiledRules,
  type JsonObject,
} from '../src/index';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { randomChanges } from './random-rules';
import { rulesOf } from './support';
import { tangledMarkup, wellFormedMarkup } from './tangled-markup';
import { wholeContent } from './whole-content';

const features = (html: string) => featuresOf(parseFragment(html).root, html);
const touches = (from: CompiledRules, to: CompiledRules, html: string): boolean => mayTouch(questionBetween(from, to), features(html));

describe('the features of a document', () => {
  test('are its elements, its attributes with their values, and what holds for it as a whole', () => {
    const html =
      '<p class="a">n\u00e9<!-- x --><b class="a">1</b><b class="a">2</b></p><script src="x"><i></script><svg><path d="1"/></svg>';
    const { elements, attributes, ...whole } = features(html);
    expect([...elements]).toEqual(['p', 'script', 'svg', 'b']);
    expect(attributes).toEqual([
      { element: 'p', attribute: 'class', value: 'a' },
      { element: 'b', attribute: 'class', value: 'a' },
    ]);
    expect(whole).toEqual({
      structure: [],
      nodes: 11,
      depth: 2,
      length: html.length,
      hasComments: true,
      hasHardSpaces: false,
      hasBlanks: false,
      isBeyondAscii: true,
    });
  });

  test.each([
    ['<p>a&nbsp;b</p>', true],
    ['<p title="a&nbsp;b"></p>', true],
    ['<p>a b</p>', false],
  ])('%s has hard spaces: %s', (html, has) => expect(features(html).hasHardSpaces).toBe(has));
});

describe('a change of rules as a question', () => {
  const base = {
    p: {},
    a: { attributes: { href: { test: 'url' } } },
    table: {},
    tbody: {},
    tr: {},
    td: {},
    ul: {},
    li: {},
    b: { outcome: 'rename', to: 'strong' },
    strong: {},
  };
  const from = rulesOf({ elements: base });

  test.each<[string, Record<string, unknown>, string[], string[]]>([
    ['an element that goes', { elements: { ...base, li: undefined } }, ['<ul><li>x</li></ul>'], ['<p>x</p>', '<table><tr><td>x</table>']],
    ['a part of tables', { elements: { ...base, tr: { outcome: 'drop' } } }, ['<table><tr><td>x</table>', '<table></table>'], ['<p>x</p>']],
    [
      'hosts of links',
      { elements: { ...base, a: { attributes: { href: { test: 'url', hosts: ['a.example'] } } } } },
      ['<a href="https://b.example/">x</a>'],
      ['<a href="https://a.example/1">x</a>', '<a>x</a>', '<p>x</p>'],
    ],
    [
      'the target of a renaming',
      { elements: { ...base, strong: { attributes: { title: { test: 'text' } } } } },
      ['<b title="x">y</b>', '<strong title="x">y</strong>'],
      ['<b>y</b>', '<p title="x">y</p>'],
    ],
    ['the list that an item gets', { elements: { ...base, ul: { empty: 'remove' } } }, ['<li>x</li>', '<ul></ul>'], ['<p>x</p>']],
    ['comments', { elements: base, comments: 'keep' }, ['<p>x<!-- y --></p>'], ['<p>x</p>']],
    [
      'how characters are written',
      { elements: base, output: { characters: 'named' } },
      ['<p>n\u00e9</p>', '<p>&eacute;</p>'],
      ['<p>n</p>'],
    ],
    ['how long a text is', { elements: base, limits: { letters: 20 } }, ['<p>As long as the limit or more</p>'], ['<p>Short</p>']],
    [
      'the prefix of ids',
      { elements: { ...base, p: { attributes: { id: { test: 'text' } } } }, ids: { prefix: 'c-' } },
      ['<p id="x">y</p>', '<a href="#x">y</a>'],
      ['<p>y</p>', '<a href="/x">y</a>'],
    ],
    ['who may not be asked for', { elements: base }, [], ['<p>x</p>', '<b>x</b><table></table>']],
  ])('asks for those who hold it: %s', (_name, changed, asked, left) => {
    const to = rulesOf(JSON.parse(JSON.stringify(changed)) as JsonObject);
    for (const html of asked) expect([html, touches(from, to, html)]).toEqual([html, true]);
    for (const html of left) expect([html, touches(from, to, html)]).toEqual([html, false]);
  });

  test('says what cannot be told by what documents hold', () => {
    expect(questionBetween(from, rulesOf({ elements: base, output: { layout: 'compact' } })).undecided).toEqual([
      'white space between blocks',
    ]);
    expect(questionBetween(from, rulesOf({ elements: { ...base, p: { outcome: 'unwrap' } } })).undecided).toEqual([
      'whether <p> can be made where words would run together',
    ]);
    expect(questionBetween(from, from).undecided).toEqual([]);
  });

  const changes = randomChanges(Math.max(60, runs(1200)), 11);
  const change = fc.constantFrom(...changes);

  test.each([
    ['trees of every element', randomContent, 3000],
    ['whole content', wholeContent, 3000],
    ['tangled markup', tangledMarkup, 2000],
    ['well-formed markup', wellFormedMarkup, 2000],
  ])('leaves out nobody whom the change touches: %s', (_name, contents, count) => {
    fc.assert(
      fc.property(contents, change, (html, { from: before, to: after, written }) => {
        if (touches(before, after, html)) return;
        const [one, other] = [cleanWithoutLedger(html, before), cleanWithoutLedger(html, after)];
        if (one !== other) throw new Error(`${JSON.stringify(html)}\n${written}\n${one}\n${other}`);
      }),
      { numRuns: runs(count) },
    );
  });

  test('leaves out many: most changes are asked of few documents', () => {
    const documents = fc.sample(wholeContent, { numRuns: 40, seed: 5 }).map((html) => features(html));
    const shares = changes.slice(0, 60).map(({ from: before, to: after }) => {
      const question = questionBetween(before, after);
      return documents.filter((one) => mayTouch(question, one)).length / documents.length;
    });
    expect(shares.filter((share) => share < 0.5).length).toBeGreaterThan(shares.length / 2);
  });
});
