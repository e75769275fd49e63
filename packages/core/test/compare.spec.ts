import fc from 'fast-check';
import {
  clean,
  compareRules,
  compileRules,
  resolveProfile,
  type CompiledRules,
  type ComparedSide,
  type HouseLimits,
  type Json,
  type JsonObject,
} from '../src/index';
import { Contents, numbersFrom, written } from '../src/site/compare/content';
import { samplesOf } from '../src/site/compare/pattern-sample';
import { Vocabulary } from '../src/site/compare/vocabulary';
import { compilePattern } from '../src/profile/pattern';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { randomRules } from './random-rules';
import { DEMO_PROFILES, demoHouse, demoProfile } from './support';

jest.setTimeout(120_000);

function sideOf(name: string, markup: JsonObject, house?: HouseLimits): ComparedSide {
  const resolution = resolveProfile(name, () => ({ format: 'typikon-profile/1', name, markup }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return { profile: resolution.resolved.profile, rules: compileRules(resolution.resolved, house && { house }), name };
}
const compare = (from: JsonObject, to: JsonObject) => compareRules(sideOf('A', from), sideOf('B', to));
const differs = (html: string, from: CompiledRules, to: CompiledRules): boolean => clean(html, from).html !== clean(html, to).html;

describe('two profiles', () => {
  const P = { p: {} };
  test.each<[string, JsonObject, JsonObject, string[]]>([
    [
      'an element',
      { elements: { ...P, table: {} } },
      { elements: P },
      ['from <table>: A leaves it as it is; B takes the tag away, its content stays.'],
    ],
    [
      'an element that goes with its words',
      { elements: { ...P, aside: { outcome: 'drop' } } },
      { elements: P },
      ['to <aside>: A takes it away with its words; B takes the tag away, its content stays.'],
    ],
    [
      'an element that becomes another',
      { elements: { ...P, strong: {}, b: { outcome: 'rename', to: 'strong' } } },
      { elements: { ...P, strong: {}, b: {} } },
      ['to <b>: A makes it <strong>; B leaves it as it is.'],
    ],
    [
      'elements without a rule',
      { elements: P, unlisted: 'drop' },
      { elements: P },
      ['to Elements without a rule, such as <x-other>: A takes it away with its words; B takes the tag away, its content stays.'],
    ],
    [
      'an attribute',
      { elements: { p: { attributes: { title: { test: 'text' } } } } },
      { elements: P },
      ['from title on <p>: A leaves it as it is; B takes it away.'],
    ],
    [
      'an attribute of all elements',
      { elements: { ...P, h2: {} }, attributes: { lang: { test: 'language' } } },
      { elements: { ...P, h2: {} } },
      ['from lang on any element: A leaves it as it is; B takes it away.'],
    ],
    [
      'classes',
      { elements: { p: { attributes: { class: { test: 'tokens', values: ['lead', 'note'] } } } } },
      { elements: { p: { attributes: { class: { test: 'tokens', values: ['note', 'wide'] } } } } },
      [
        'from The class “lead” on <p>: A leaves it as it is; B takes it away.',
        'to The class “wide” on <p>: A takes it away; B leaves it as it is.',
      ],
    ],
    [
      'hosts',
      { elements: { iframe: { attributes: { src: { test: 'url', hosts: ['cams.example', '*.films.example'] } } } } },
      { elements: { iframe: { attributes: { src: { test: 'url', hosts: ['*.films.example'] } } } } },
      ['from src="https://cams.example/" on <iframe>: A leaves it as it is; B takes it away.'],
    ],
    [
      'a range',
      { elements: { td: { attributes: { colspan: { test: 'integer', min: 1, max: 6 } } }, tr: {}, tbody: {}, table: {} } },
      { elements: { td: { attributes: { colspan: { test: 'integer', min: 1, max: 8 } } }, tr: {}, tbody: {}, table: {} } },
      ['to colspan="7" on <td>: A takes it away; B leaves it as it is.', 'to colspan="8" on <td>: A takes it away; B leaves it as it is.'],
    ],
    [
      'style properties',
      { elements: { p: { attributes: { style: { test: 'style', properties: { 'text-align': { test: 'list', values: ['right'] } } } } } } },
      { elements: { p: { attributes: { style: { test: 'style', properties: { color: { test: 'any' } } } } } } },
      [
        'from text-align: right in the style of <p>: A leaves it as it is; B takes it away.',
        'to color: red in the style of <p>: A takes it away; B leaves it as it is.',
      ],
    ],
    [
      'what an element must have',
      { elements: { img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } }, required: { alt: { otherwise: 'drop' } } } } },
      { elements: { img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } } } } },
      ['to <img> without alt: A takes it away; B leaves it as it is.'],
    ],
    [
      'where an element may stand',
      { elements: { ...P, blockquote: {}, h2: { parents: ['section'] }, section: {} } },
      { elements: { ...P, blockquote: {}, h2: {}, section: {} } },
      [
        'to <h2>: A takes the tag away, its content stays; B leaves it as it is.',
        'to <h2> in <blockquote>: A takes the tag away, its content stays; B leaves it as it is.',
      ],
    ],
    ['comments', { elements: P, comments: 'keep' }, { elements: P }, ['from Comments: A leaves it as it is; B takes it away.']],
    [
      'a limit',
      { elements: { ...P, b: {} }, limits: { letters: 5 } },
      { elements: { ...P, b: {} } },
      ['to More than 5 letters: A takes it away with its words; B leaves it as it is.'],
    ],
  ])('%s', (_what, from, to, lines) => {
    const found = compare(from, to);
    expect(found.map(({ kept, sentence }) => `${kept} ${sentence}`).filter((line) => lines.includes(line))).toEqual(lines);
    expect(found.length).toBeLessThan(lines.length + 3);
  });

  test('are named as they are called, and nothing is said where they say the same', () => {
    expect(compare({ elements: P }, { elements: P })).toEqual([]);
    // Written differently, and the same all the same.
    expect(compare({ elements: { ...P, div: { outcome: 'unwrap' } } }, { elements: P })).toEqual([]);
  });

  test('what only shows where several things stand together is found and made small', () => {
    const [line, ...others] = compare(
      { elements: { p: {}, b: { depth: 3 } }, limits: { nesting: 100 } },
      { elements: { p: {}, b: { depth: 4 } }, limits: { nesting: 100 } },
    );
    expect(others).toHaveLength(1);
    expect(line).toMatchObject({ kept: 'to', subject: { kind: 'place', element: 'b', name: '4 deep' } });
  });
});

describe('laws', () => {
  const ofDemo = DEMO_PROFILES.map((id) => {
    const resolved = demoProfile(id);
    const house = demoHouse();
    return { profile: resolved.profile, rules: compileRules(resolved, { house }), name: id };
  });

  test('a profile compared with itself has no lines', () => {
    for (const side of ofDemo) expect(compareRules(side, side, demoHouse())).toEqual([]);
    fc.assert(
      fc.property(randomRules, ({ resolved, house }) => {
        const side = { profile: resolved.profile, rules: compileRules(resolved, house && { house }), name: 'A' };
        expect(compareRules(side, { ...side, profile: structuredClone(side.profile) }, house)).toEqual([]);
      }),
      { numRuns: 10 },
    );
  });

  test('every line has a witness that proves it, and the other way round the same things are told', () => {
    for (const from of ofDemo)
      for (const to of ofDemo) {
        const lines = compareRules(from, to, demoHouse());
        for (const { witness, results } of lines) {
          expect(clean(witness, from.rules).html).toBe(results.from);
          expect(clean(witness, to.rules).html).toBe(results.to);
          expect(results.from).not.toBe(results.to);
        }
        expect(compareRules(to, from, demoHouse()).length > 0).toBe(lines.length > 0);
      }
  });

  test('every line of random rules has a witness that proves it', () =>
    fc.assert(
      fc.property(randomRules, randomRules, (one, other) => {
        const sides = [one, other].map(({ resolved }, at) => ({
          profile: resolved.profile,
          rules: compileRules(resolved, one.house && { house: one.house }),
          name: 'AB'[at]!,
        })) as [ComparedSide, ComparedSide];
        for (const { witness } of compareRules(...sides, one.house)) expect(differs(witness, sides[0].rules, sides[1].rules)).toBe(true);
      }),
      { numRuns: 8 },
    ));

  /** A change of one setting, somewhere in the rules. */
  function changed(markup: JsonObject, other: JsonObject, at: number): JsonObject {
    const places: { holder: JsonObject; key: string; others: Json | undefined }[] = [];
    const visit = (value: JsonObject, beside: Json | undefined): void => {
      for (const key of Object.keys(value)) {
        const inner = value[key];
        const others = typeof beside === 'object' && beside !== null && !Array.isArray(beside) ? beside[key] : undefined;
        places.push({ holder: value, key, others });
        if (typeof inner === 'object' && inner !== null && !Array.isArray(inner)) visit(inner, others);
      }
    };
    const copy = structuredClone(markup);
    visit(copy, other);
    const { holder, key, others } = places[at % places.length]!;
    if (others === undefined || JSON.stringify(others) === JSON.stringify(holder[key])) delete holder[key];
    else holder[key] = others;
    return copy;
  }

  test('where there are no lines, both clean everything alike', () => {
    let empty = 0;
    fc.assert(
      fc.property(
        randomRules,
        randomRules,
        fc.nat(999),
        fc.array(randomContent, { minLength: 6, maxLength: 6 }),
        (one, other, at, contents) => {
          const { profile } = one.written as { profile: JsonObject };
          const next = changed(profile, (other.written as { profile: JsonObject }).profile, at);
          let to: ComparedSide;
          try {
            to = sideOf('B', next, one.house);
          } catch {
            // The rest of a rule may not stand by itself.
            return;
          }
          const from = sideOf('A', profile, one.house);
          if (compareRules(from, to, one.house).length > 0) return;
          empty++;
          const more = new Contents(new Vocabulary(from.profile, to.profile, one.house), numbersFrom(at));
          for (const html of [...contents, ...Array.from({ length: 40 }, () => written(more.write()))])
            if (differs(html, from.rules, to.rules))
              throw new Error(
                `${html}\n${clean(html, from.rules).html}\n${clean(html, to.rules).html}\n${JSON.stringify(profile)}\n${JSON.stringify(next)}`,
              );
        },
      ),
      { numRuns: runs(40) },
    );
    expect(empty).toBeGreaterThan(runs(40) / 4);
  });
});

describe('samples of patterns', () => {
  test.each([
    ['[a-z-]+'],
    ['(left|right)-[0-9]{2,3}'],
    ['\\d{4}-\\d{2}-\\d{2}'],
    ['#[0-9a-f]{6}'],
    ['[^ ]+@[^ ]+\\.[a-z]{2,}'],
    ['(?:a|b)?c*'],
    ['\\p{L}+'],
    ['(?i)note(s)?'],
    ['\\w+\\s\\w+'],
    ['.{3}'],
  ])('%s', (pattern) => {
    const matches = compilePattern(pattern);
    const samples = samplesOf(pattern);
    expect(samples.length).toBeGreaterThan(0);
    for (const sample of samples) expect([sample, matches(sample)]).toEqual([sample, true]);
  });
  test.each(['(', '[a-', 'a{2000}', '\\x{41}', '(((((a+)+)+)+)+)+', '[[:alpha:]]+'])(
    'what cannot be sampled gives none, or one that is only tried: %s',
    (pattern) => expect(samplesOf(pattern).every((sample) => sample.length <= 300)).toBe(true),
  );
});
