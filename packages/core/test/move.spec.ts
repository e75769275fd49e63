import fc from 'fast-check';
import {
  clean,
  cleanWithoutLedger,
  fieldSchema,
  fitText,
  isEmptyValue,
  libraryPictures,
  lostWords,
  moveText,
  parseFragment,
  renderedWords,
  strayLinks,
  valueLetters,
  valueProblem,
  type Field,
} from '../src/index';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { randomRuleSets } from './random-rules';
import { rulesOf } from './support';

const P = { p: {} };
const wordsOf = (html: string): string[] => renderedWords(parseFragment(html).root);

describe('a move to another profile', () => {
  const wide = rulesOf({ elements: { ...P, aside: {}, table: {}, tbody: {}, tr: {}, td: {}, strong: {} } });
  const narrow = rulesOf({ elements: { ...P, aside: { outcome: 'drop' } } });

  test('tells what it takes before anything happens, and what would stay if words are kept', () => {
    const html = '<p onclick="x">One <strong>two</strong></p><aside>Three four</aside>';
    const move = moveText(html, wide, narrow);
    expect(move.before).toBe('<p>One <strong>two</strong></p><aside>Three four</aside>');
    expect(move.after).toBe('<p>One two</p>');
    expect(move.wordsLost).toEqual(['Three', 'four']);
    expect(wordsOf(move.fitting)).toEqual(['One', 'two', 'Three', 'four']);
    expect(move.wordsLostFitting).toEqual([]);
    expect(move.ledger.map(({ action }) => action)).toEqual(['unwrapped', 'removed']);
  });

  test('what both treat alike costs nothing', () => {
    const move = moveText('<p>One</p>', wide, narrow);
    expect(move).toMatchObject({ before: '<p>One</p>', after: '<p>One</p>', fitting: '<p>One</p>', ledger: [], wordsLost: [] });
  });

  test('a word that stands twice and is lost once is told once', () => {
    expect(lostWords('<p>a b a</p>', '<p>a</p>')).toEqual(['b', 'a']);
    expect(lostWords('<p>a</p>', '<p>a b</p>')).toEqual([]);
  });

  test('any text by any rules: what fits is clean, loses no more words than what is taken, and nothing where nothing is lost', () => {
    const sets = randomRuleSets(24, 20_262).map(({ rules }) => rules);
    fc.assert(
      fc.property(randomContent, fc.nat(sets.length - 1), fc.nat(sets.length - 1), (html, one, other) => {
        const [from, to] = [sets[one]!, sets[other]!];
        const move = moveText(html, from, to);
        expect(move.before).toBe(cleanWithoutLedger(html, from));
        expect(move.after).toBe(clean(move.before, to).html);
        expect(clean(move.fitting, to).html).toBe(move.fitting);
        expect(move.wordsLostFitting.length).toBeLessThanOrEqual(move.wordsLost.length);
        if (move.ledger.length === 0) expect(move.after).toBe(move.before);
      }),
      { numRuns: runs(250) },
    );
  });

  test('fitting changes nothing of what fits already', () => {
    const sets = randomRuleSets(12, 77).map(({ rules }) => rules);
    fc.assert(
      fc.property(randomContent, fc.nat(sets.length - 1), (html, at) => {
        const fits = cleanWithoutLedger(html, sets[at]!);
        expect(fitText(fits, sets[at]!)).toBe(fits);
      }),
      { numRuns: runs(150) },
    );
  });
});

describe('what stands in a field', () => {
  const field = (rest: object): Field => fieldSchema.parse({ key: 'x', title: 'X', ...rest });

  test.each<[object, string, string | null]>([
    [{ needed: true }, '', '“X” is needed, and it is empty.'],
    [{ needed: true }, '<p>&nbsp;</p><p><br></p>', '“X” is needed, and it is empty.'],
    [{ needed: true }, '<p><img src="/a.png"></p>', null],
    [{ needed: true, kind: 'line' }, ' \t', '“X” is needed, and it is empty.'],
    [{ kind: 'line' }, 'a\r\nb', '“X” is one line, and this has several.'],
    [{ kind: 'line' }, 'x'.repeat(1001), '“X” can have 1000 letters at most.'],
    [{ kind: 'date' }, '2026-13-01', '“X” must be a date, such as 2026-05-03.'],
    [{ kind: 'date' }, '2024-02-29', null],
    [{ kind: 'date' }, '', null],
    [{ kind: 'choice', choices: ['A', 'B'] }, 'C', '“X” must be one of A, B.'],
    [{ kind: 'choice', choices: ['A', 'B'] }, 'B', null],
    [{ kind: 'picture' }, 'javascript:alert(1)', '“X” must be the address of a picture, such as /assets/pier.jpg.'],
    [{ kind: 'picture' }, '//other.example/a.png', '“X” must be the address of a picture, such as /assets/pier.jpg.'],
    [{ kind: 'picture' }, '/a" onerror="x', '“X” must be the address of a picture, such as /assets/pier.jpg.'],
    [{ kind: 'picture' }, '/assets/pier.jpg', null],
    [{ kind: 'picture' }, 'https://pictures.example/a.png', null],
  ])('%j with %j', (rest, value, sentence) => expect(valueProblem(field(rest), value)).toBe(sentence));

  test('is measured as a reader sees it', () => {
    expect(valueLetters('rich', '<p>One <b>two</b></p>')).toBe(7);
    expect(valueLetters('line', 'a😀')).toBe(2);
    expect(isEmptyValue('rich', '<p></p><hr>')).toBe(false);
  });

  test('links that leave the folder of the field are told, each once', () => {
    const html =
      '<p><a href="/times/a">1</a> <a href="/other/b#x">2</a> <a href="/other/b?y">3</a> <a href="https://e.example/">4</a> <a href="//e.example/x">5</a> <a href="mailto:a@b.example">6</a></p>';
    expect(strayLinks(field({ linksWithin: '/times/' }), html)).toEqual(['/other/b']);
    expect(strayLinks(field({ linksWithin: 'times' }), html)).toEqual(['/other/b']);
    expect(strayLinks(field({}), html)).toEqual([]);
  });

  test('pictures of the library are known by name', () =>
    expect(libraryPictures('<img src="/assets/a.png"><img src="/assets/a.png?x"><img src="/images/b.svg"><p>x</p>')).toEqual(['a.png']));
});
