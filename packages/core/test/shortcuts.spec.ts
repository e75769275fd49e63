import fc from 'fast-check';
import { parseFragment, runPaste, serialize } from '../src/index';
import { attributeRange, attributeRanges, Tags } from '../src/html/positions';
import { transform } from '../src/html/transform';
import { PASSES } from '../src/paste/passes/index';
import { SIGNS } from '../src/paste/source';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { demoProfile, demoRules } from './support';

/* What is left out because it would find nothing must find nothing. */

describe('a pass that says that it finds nothing', () => {
  const gates = (Object.values(PASSES) as { finds?: unknown }[]).map((pass) => ({ pass, finds: Reflect.get(pass, 'finds') }));
  afterEach(() => gates.forEach(({ pass, finds }) => finds !== undefined && (pass.finds = finds)));

  test.each(['notices-desk', 'story-desk', 'reply'])('would change nothing, with %s', (id) => {
    const [desk, rules] = [demoProfile(id), demoRules(id)];
    const paste = (html: string) => {
      const { html: out, ledger } = runPaste({ types: { 'text/html': html } }, desk, { rules });
      return { out, ledger };
    };
    let left = 0;
    fc.assert(
      fc.property(randomContent, (html) => {
        const gated = paste(html);
        for (const { pass, finds } of gates) if (finds !== undefined) pass.finds = () => (left++, true);
        const all = paste(html);
        for (const { pass, finds } of gates) if (finds !== undefined) pass.finds = finds;
        expect(gated).toEqual(all);
      }),
      { numRuns: runs(400) },
    );
    expect(left).toBeGreaterThan(0);
  });
});

describe('a sign of a source', () => {
  test.each(SIGNS.map(({ mark, test: pattern, words }) => [mark, pattern, words] as const))(
    '%s, fits only what has one of its words',
    (_mark, pattern, words) => {
      // Boundaries of words cannot be generated; without them the pattern fits more.
      const fitting = fc.stringMatching(new RegExp(pattern.source.replaceAll('\\b', '')));
      fc.assert(
        fc.property(fitting, (text) => {
          const lower = text.toLowerCase();
          expect(words.some((word) => lower.includes(word))).toBe(true);
          expect(words.some((word) => text.toUpperCase().toLowerCase().includes(word))).toBe(true);
        }),
        { numRuns: runs(300) },
      );
    },
  );
});

describe('the place of an attribute', () => {
  const name = fc.constantFrom('a', 'A', 'style', 'STYLE', 'data-x', 'é', '\0', 'on:x', 'b', 'c', 'd', 'e', 'f', 'g');
  const value = fc.constantFrom('', '=x', '="a b"', "='>'", ' = "c"', '=', '="', '=a/b');
  const tag = fc
    .array(fc.tuple(fc.constantFrom(' ', '/', '\n\t', ' /'), name, value), { maxLength: 12 })
    .map((parts) => `x<p${parts.map((part) => part.join('')).join('')}>y`);

  test('is the same, asked by itself, with all others, and again and again', () => {
    fc.assert(
      fc.property(tag, fc.array(name, { maxLength: 15 }), (input, asked) => {
        const all = attributeRanges(input, 1, input.length);
        const tags = new Tags(input);
        for (const one of [
          ...asked.map((each) => each.replace(/[A-Z]/g, (letter) => letter.toLowerCase()).replace('\0', '\ufffd')),
          ...all.keys(),
        ]) {
          expect(attributeRange(input, 1, input.length, one)).toEqual(all.get(one));
          expect(tags.attribute(1, input.length, one)).toEqual(all.get(one));
        }
      }),
      { numRuns: runs(3000) },
    );
  });
});

test('a transformation that changes nothing moves nothing', () => {
  fc.assert(
    fc.property(randomContent, (html) => {
      const { root } = parseFragment(html);
      const written = serialize(root);
      const lists = new Map<object, readonly object[]>();
      transform(root, { element: (element) => (lists.set(element, element.children), 'keep'), text: () => 'keep' });
      expect(serialize(root)).toBe(written);
      for (const [element, children] of lists) expect((element as { children: unknown }).children).toBe(children);
    }),
    { numRuns: runs(300) },
  );
});
