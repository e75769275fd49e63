import fc from 'fast-check';
import { append, FragmentNode, TextNode } from '../src/html/node';
import { partOfText, placeOfText, replaceText } from '../src/html/text-place';
import { parseFragment, runPaste } from '../src/index';
import { elementsOf } from '../src/html/transform';
import { randomContent } from './random-content';
import { demoProfile, demoRules } from './support';
import { tangledMarkup } from './tangled-markup';
import { runs } from './fixed-seed';

/** A text read piece by piece, in any order; a piece without a place was made by a stage. */
const pieces = fc.array(fc.record({ value: fc.string({ minLength: 1, maxLength: 4 }), start: fc.nat(40) }), { minLength: 1, maxLength: 6 });

function textOf(parts: readonly { value: string; start: number }[]): TextNode {
  const holder = new FragmentNode();
  for (const { value, start } of parts) append(holder, Object.assign(new TextNode(value), { start, end: start + value.length }));
  return holder.children[0] as TextNode;
}

test('the place of a part holds the places of all its characters', () => {
  fc.assert(
    fc.property(pieces, fc.nat(23), fc.nat(23), (parts, one, other) => {
      const text = textOf(parts);
      const [from, to] = [Math.min(one, other), Math.max(one, other)].map((at) => Math.min(at, text.value.length)) as [number, number];
      fc.pre(to > from);
      const read = parts.flatMap(({ value, start }) => Array.from(value, (_letter, index) => start + index)).slice(from, to);
      const place = { start: Math.min(...read), end: Math.max(...read) + 1 };
      expect(placeOfText(text, from, to)).toEqual(place);
      const part = partOfText(text, from, to);
      expect([part.value, placeOfText(part)]).toEqual([text.value.slice(from, to), place]);
      replaceText(text, to, text.value.length, '');
      replaceText(text, 0, from, '');
      expect([text.value, placeOfText(text)]).toEqual([part.value, place]);
    }),
    { numRuns: runs(500) },
  );
});

test('all that was read has a place, in any markup', () => {
  fc.assert(
    fc.property(fc.oneof(randomContent, tangledMarkup), (html) => {
      const { root } = parseFragment(html);
      for (const { children } of [root, ...elementsOf(root)])
        for (const child of children) if (child.type === 'text') expect(placeOfText(child)!.end).toBeGreaterThan(placeOfText(child)!.start);
    }),
    { numRuns: runs(300) },
  );
});

test('words that the parser put before the white space that stood before them have their place in the ledger', () => {
  const html = '<t><table><article><td></td> <a>&gt;<table><y><p>&gt;';
  const { ledger } = runPaste({ types: { 'text/html': html } }, demoProfile('reply'), { rules: demoRules('reply'), source: 'web-page' });
  expect(ledger.filter(({ start, end }) => end <= start)).toEqual([]);
});
