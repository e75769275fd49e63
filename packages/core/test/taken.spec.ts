import fc from 'fast-check';
import {
  clean,
  parseFragment,
  phrasesGone,
  renderedText,
  renderedWords,
  sentenceOfBrief,
  takenLines,
  takenLinesSchema,
  textChanges,
  type TakenLine,
} from '../src/index';
import { missing } from '../src/reach/missing';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { randomRuleSets } from './random-rules';
import { rulesOf } from './support';

const wordsOf = (html: string): string[] => renderedWords(parseFragment(html).root);
const linesOf = (html: string, rules: Parameters<typeof clean>[1]): TakenLine[] => takenLines(html, clean(html, rules).ledger);

/** The words of generated content, each of which is there once: others may stand right beside them. */
const marksIn = (texts: readonly string[]): string[] => texts.flatMap((text) => text.match(/w\d+\./g) ?? []);

describe('what a step took of a text', () => {
  const rules = rulesOf({
    elements: { p: {}, aside: { outcome: 'drop' }, iframe: { attributes: { src: { test: 'url' } }, outcome: 'drop' } },
  });

  test('is told by rule, with the words that went and the source that stood there', () => {
    const html = '<p class="x">One</p><aside>Two <b>three</b></aside><p>Four</p><aside>Five</aside>';
    const lines = linesOf(html, rules);
    expect(lines[0]).toMatchObject({
      rule: '/markup/elements/aside',
      severity: 'loss',
      places: 2,
      textLost: 12,
      words: 'Two three\nFive',
      sample: '<aside>Two <b>three</b></aside>',
    });
    expect(sentenceOfBrief(lines[0]!)).toBe('2 <aside> went, with their content, and 12 letters of text with them');
    expect(lines.find(({ attribute }) => attribute === 'class')).toMatchObject({ words: '', severity: 'change' });
  });

  test('is nothing where nothing was done', () => {
    expect(linesOf('<p>One</p>', rules)).toEqual([]);
  });

  test('words in words are told once', () => {
    const nested = rulesOf({ elements: { p: {} }, unlisted: 'drop' });
    const lines = linesOf('<section>Out <section>in</section></section>', nested);
    expect(
      lines
        .map(({ words }) => words)
        .join(' ')
        .split(' ')
        .sort(),
    ).toEqual(['Out', 'in']);
  });

  test('however much it was, it can be sent and kept: names, words and sources are cut, never within a character', () => {
    const long = 'n'.repeat(5000);
    const words = `${'\u{1f30a}'.repeat(10_001)} end`;
    const html = `<${long} ${long}="1">One</${long}><aside>${words}</aside>${Array.from({ length: 500 }, (_, at) => `<x-${at}>a</x-${at}>`).join('')}`;
    const lines = linesOf(html, rules);
    expect(lines).toHaveLength(200);
    expect(lines[0]!.words).toMatch(/^(?:\u{1f30a})+…$/u);
    expect(takenLinesSchema.safeParse(lines)).toMatchObject({ success: true });
    expect(takenLinesSchema.parse(JSON.parse(JSON.stringify(lines)))).toEqual(JSON.parse(JSON.stringify(lines)));
  });

  test('a limit of letters tells what is behind it', () => {
    const limited = rulesOf({ elements: { p: {} }, limits: { letters: 5 } });
    expect(
      linesOf('<p>One two</p><p>Three</p>', limited)
        .map(({ words }) => words)
        .join('|'),
    ).toBe('Three|o');
  });

  test('law: every word that readers see no more is among the words of a line', () => {
    // A limit of letters may cut a word in two.
    const sets = randomRuleSets(30, 20).filter(({ rules: { letters } }) => letters === null);
    fc.assert(
      fc.property(randomContent, fc.constantFrom(...sets), (html, { rules: some }) => {
        const { html: after, ledger } = clean(html, some);
        const told = takenLines(html, ledger).map(({ words }) => words);
        expect(missing(marksIn(wordsOf(html)), [...marksIn(wordsOf(after)), ...marksIn(told)])).toEqual([]);
      }),
      { numRuns: runs(3000) },
    );
  });
});

describe('what readers see of one text and not of another', () => {
  test('is told in phrases, as it stood', () => {
    expect(
      phrasesGone('<p>The ferry leaves at noon. Dogs stay on deck.</p><p>Fares rise.</p>', '<p>The ferry leaves at noon.</p>'),
    ).toEqual(['Dogs stay on deck. Fares rise.']);
    expect(phrasesGone('<p>The ferry leaves at noon.</p><p>The harbour is open.</p>', '<p>The ferry leaves at ten.</p>')).toEqual([
      'noon. The harbour is open.',
    ]);
    expect(phrasesGone('<p>Dogs stay here. Fares rise.</p><p>The end</p>', '<p>Fares rise.</p>')).toEqual(['Dogs stay here.', 'The end']);
  });

  test('is nothing where words are only moved, or marked up otherwise', () => {
    expect(phrasesGone('<p>One</p><p>Two three</p>', '<h2>Two <em>three</em></h2><p>One</p>')).toEqual([]);
    expect(phrasesGone('', '<p>One</p>')).toEqual([]);
  });

  test('leaves out words of which it is known how they went', () => {
    expect(phrasesGone('<p>One two</p><p>Three</p>', '', ['One', 'two'])).toEqual(['Three']);
  });

  test('law: each word as often as it is missing, however much differs', () => {
    const text = fc.array(fc.constantFrom('a', 'b', 'c', 'd e', '<p>f</p>'), { maxLength: 30 }).map((parts) => parts.join(' '));
    fc.assert(
      fc.property(text, text, fc.array(fc.constantFrom('a', 'f'), { maxLength: 3 }), (before, after, explained) => {
        const told = phrasesGone(before, after, explained).flatMap((phrase) => phrase.split(' '));
        expect([...told].sort()).toEqual([...missing(missing(wordsOf(before), wordsOf(after)), explained)].sort());
      }),
      { numRuns: runs(2000) },
    );
    const [many, others] = ['x', 'y'].map((letter) => Array.from({ length: 5000 }, (_, at) => `${letter}${at}`).join(' '));
    expect(phrasesGone(many!, others!)).toEqual([many]);
  });
});

describe('two texts told as one', () => {
  test('by words as readers see them, and by markup', () => {
    expect(textChanges('<p>One <b>two</b></p>', '<p>One three</p>', 'words')).toEqual([
      { kind: 'same', text: 'One ' },
      { kind: 'gone', text: 'two' },
      { kind: 'new', text: 'three' },
    ]);
    expect(textChanges('<p>One <b>two</b></p>', '<p>One two</p>', 'source')).toEqual([
      { kind: 'same', text: '<p>One ' },
      { kind: 'gone', text: '<b>' },
      { kind: 'same', text: 'two' },
      { kind: 'gone', text: '</b>' },
      { kind: 'same', text: '</p>' },
    ]);
  });

  test('what is changed stands together, however small words it shares by chance', () => {
    expect(textChanges('<p>The boat at five runs on days. End</p>', '<p>The slip at noon is on land. End</p>', 'words')).toEqual([
      { kind: 'same', text: 'The ' },
      { kind: 'gone', text: 'boat at five runs on days. ' },
      { kind: 'new', text: 'slip at noon is on land. ' },
      { kind: 'same', text: 'End' },
    ]);
  });

  test('texts that share nothing are not told as one where they are long', () => {
    const [many, others] = ['x', 'y'].map((letter) => Array.from({ length: 5000 }, (_, at) => `${letter}${at}`).join(' '));
    expect(textChanges(many!, others!, 'words')).toBeNull();
  });

  test('law: what is shared and went is the one before, what is shared and came the one after', () => {
    fc.assert(
      fc.property(randomContent, randomContent, fc.constantFrom('words' as const, 'source' as const), (before, after, way) => {
        const changes = textChanges(before, after, way)!;
        const side = (kind: 'gone' | 'new') =>
          changes
            .filter((change) => change.kind === 'same' || change.kind === kind)
            .map(({ text }) => text)
            .join('');
        const shown = (html: string) => (way === 'source' ? html : renderedText(parseFragment(html).root));
        expect([side('gone'), side('new')]).toEqual([shown(before), shown(after)]);
      }),
      { numRuns: runs(1000) },
    );
  });
});
