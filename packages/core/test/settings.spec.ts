import fc from 'fast-check';
import { isAttributeRefused, markupAtHand, markupOf, summarizeRules, type CompiledRules } from '../src/index';
import type * as patterns from '../src/profile/pattern';
import { runs } from './fixed-seed';
import { DEMO_PROFILES, demoHouse, demoRules } from './support';

describe('a summary of rules', () => {
  const NAMES = ['p', 'h1', 'h4', 'img', 'iframe', 'script', 'svg', 'constructor', '__proto__', 'x-tide', 'FONT', 'td'];
  const ruled: [string, CompiledRules][] = DEMO_PROFILES.flatMap((id): [string, CompiledRules][] => [
    [id, demoRules(id)],
    [`${id} under the house limits`, demoRules(id, { house: demoHouse() })],
    [`${id} for the web team`, demoRules(id, { house: demoHouse(), role: 'web-team' })],
  ]);

  test.each(ruled)('says of every element what the rules of %s say', (_id, rules) => {
    const summary = summarizeRules(rules, NAMES);
    for (const name of new Set([...Object.keys(summary.elements), ...NAMES])) {
      const told = Object.getOwnPropertyDescriptor(summary.elements, name)?.value as (typeof summary.elements)[string] | undefined;
      const { outcome, name: target, by, attributes } = rules.element(name);
      expect([name, told?.outcome, told?.name, told?.by]).toEqual([name, outcome, target, by]);
      for (const attribute of ['href', 'src', 'class', 'onclick', 'style', 'constructor'])
        expect(isAttributeRefused(summary, name, attribute)).toBe(outcome === 'keep' && target === name && !attributes.has(attribute));
    }
  });

  test('can be sent as it is: it comes out of a copy the same', () => {
    for (const [, rules] of ruled) {
      const summary = summarizeRules(rules, NAMES);
      expect(structuredClone(summary)).toEqual(summary);
    }
  });

  test('names the settings in whose place the house limits hold', () => {
    const { capped } = summarizeRules(
      demoRules('story-desk', { house: { ...demoHouse(), markup: { ...demoHouse().markup, comments: 'drop' } } }),
    );
    expect(summarizeRules(demoRules('story-desk')).capped).toEqual([]);
    for (const pointer of capped) expect(pointer).toMatch(/^\/markup\//);
  });
});

describe('markup at hand', () => {
  const text = fc.oneof(
    fc.constantFrom('', ' ', '\n', '<p>a</p>', 'Version:1.0\r\nStartHTML:1\r\n<p>a</p>', 'a < b', '# a', '\u00a0'),
    fc.string(),
  );
  const types = fc.record({ 'text/html': text, 'text/plain': text, 'text/rtf': text }, { requiredKeys: [] });

  test('is the markup of a payload, and nothing where it has to be made of its text', () => {
    fc.assert(
      fc.property(types, fc.boolean(), (given, isMarkdown) => {
        const atHand = markupAtHand({ types: given });
        const { html, type } = markupOf({ types: given }, isMarkdown);
        expect(atHand === null).toBe((given['text/html'] ?? '').trim() === '');
        if (atHand !== null) expect([html, type]).toEqual([atHand, 'text/html']);
      }),
      { numRuns: runs(2000) },
    );
  });
});

describe('patterns', () => {
  test('without an engine are taken as they are, and never used; with one they are read', () => {
    jest.isolateModules(() => {
      const pattern = jest.requireActual<typeof patterns>('../src/profile/pattern');
      expect(pattern.canReadPatterns()).toBe(false);
      expect(pattern.patternMistake('(')).toBeNull();
      expect(() => pattern.compilePattern('a')).toThrow('Patterns cannot be read here');
      jest.requireActual('../src/profile/pattern-engine');
      expect(pattern.canReadPatterns()).toBe(true);
      expect(pattern.patternMistake('(')).toMatch(/^The pattern cannot be used: /);
      expect(['ab', 'a', ''].map(pattern.compilePattern('a?b'))).toEqual([true, false, false]);
    });
  });
});
