import fc from 'fast-check';
import { firstDifference, isHidden, parseFragment, renderedWords, serialize, visibleText } from '../src/index';
import { elementsOf, transform, type Transformation } from '../src/html/transform';
import { fromRoman, readMarker, typedMarker } from '../src/paste/markers';
import { tangledMarkup } from './tangled-markup';
import { runs } from './fixed-seed';

const changed = (html: string, transformation: Transformation): string => {
  const { root } = parseFragment(html);
  transform(root, transformation);
  return serialize(root);
};

describe('changing a tree in one walk', () => {
  test.each<[string, Transformation, string]>([
    ['<p>a<b>b</b></p>', { element: ({ name }) => (name === 'b' ? 'unwrap' : 'keep') }, '<p>ab</p>'],
    ['<p>a<b>b</b></p>', { element: ({ name }) => (name === 'b' ? 'drop' : 'keep') }, '<p>a</p>'],
    ['<p>a<!-- c --></p>', { comment: () => 'drop' }, '<p>a</p>'],
    ['<p>a</p>', { text: (text) => ((text.value = text.value.toUpperCase()), 'keep') }, '<p>A</p>'],
    ['<p>a</p><p></p>', { done: ({ children }) => children.length > 0 }, '<p>a</p>'],
    [
      '<ul><li>a</li></ul>',
      { element: (element) => (element.name === 'li' ? [element, parseFragment('<li>b</li>').root.children[0]!] : 'keep') },
      '<ul><li>a</li><li>b</li></ul>',
    ],
  ])('%s', (html, transformation, result) => expect(changed(html, transformation)).toBe(result));

  test('that keeps everything changes nothing; one that unwraps everything leaves the text', () => {
    fc.assert(
      fc.property(tangledMarkup, (html) => {
        const { root } = parseFragment(html);
        transform(root, {});
        expect(firstDifference(root, parseFragment(html).root)).toBeNull();
        const text = visibleText(root);
        const words = renderedWords(root);
        const count = elementsOf(root).length;
        let seen = 0;
        transform(root, {
          element: (element) => (seen++, isHidden(element) ? 'drop' : 'unwrap'),
        });
        expect(visibleText(root).replace(/\s/g, '')).toBe(text.replace(/\s/g, ''));
        expect(renderedWords(root)).toEqual(words);
        expect(seen).toBeLessThanOrEqual(count);
      }),
      { numRuns: runs(400) },
    );
  });

  test('of any depth', () => {
    const deep = `${'<div>'.repeat(50_000)}x${'</div>'.repeat(50_000)}`;
    expect(changed(deep, { element: () => 'unwrap' })).toBe('x');
  });
});

describe('markers of list items', () => {
  test.each<[string, object | null]>([
    ['·', { ordered: false, type: '', value: 0 }],
    ['o', { ordered: false, type: '', value: 0 }],
    ['1.', { ordered: true, type: '1', value: 1 }],
    ['(12)', { ordered: true, type: '1', value: 12 }],
    ['2.3.', { ordered: true, type: '1', value: 3 }],
    ['b)', { ordered: true, type: 'a', value: 2 }],
    ['C.', { ordered: true, type: 'A', value: 3 }],
    ['iv.', { ordered: true, type: 'i', value: 4 }],
    ['I.', { ordered: true, type: 'I', value: 1 }],
    ['word', null],
    ['a', null],
    ['', null],
  ])('%j', (text, marker) => expect(readMarker(text)).toEqual(marker));

  test.each([
    ['ix', 9],
    ['xlii', 42],
    ['mcmxc', 1990],
    ['iiii', null],
    ['', null],
  ])('the Roman number %j', (text, value) => expect(fromRoman(text)).toBe(value));

  test.each([
    ['- one', 2],
    ['\u00a0•\u00a0\u00a0one', 4],
    ['12) one', 4],
    ['-one', null],
    ['one', null],
    ['2026 was', null],
  ])('typed: %j', (text, length) => expect(typedMarker(text)?.length ?? null).toBe(length));

  test('a letter that is a Roman digit, too, goes on from the one before', () => {
    expect(typedMarker('v) five', { ordered: true, type: 'i', value: 4 })?.marker).toEqual({ ordered: true, type: 'i', value: 5 });
    expect(typedMarker('v) five', { ordered: true, type: 'a', value: 21 })?.marker).toEqual({ ordered: true, type: 'a', value: 22 });
  });
});
