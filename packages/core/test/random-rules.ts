import fc from 'fast-check';
import {
  compileRules,
  readHouseLimits,
  resolveProfile,
  type CompiledRules,
  type HouseLimits,
  type JsonObject,
  type ResolvedProfile,
} from '../src/index';

const NAMES =
  'p div span a b i em strong h1 h2 h3 h4 ul ol li table tbody tr td th pre blockquote img br iframe details summary font center form'.split(
    ' ',
  );
const ATTRIBUTES = 'class href src id title style lang align name for rel target width height sandbox alt aria-labelledby'.split(' ');

const sometimes = <T>(arbitrary: fc.Arbitrary<T>): fc.Arbitrary<T | undefined> => fc.option(arbitrary, { nil: undefined, freq: 3 });

const styleTest: fc.Arbitrary<JsonObject> = fc.oneof(
  fc.constant<JsonObject>({ test: 'any' }),
  fc.constant<JsonObject>({ test: 'colour', values: ['red', '#1e2430'] }),
  fc.constant<JsonObject>({ test: 'length', ranges: { px: { min: 0, max: 40 }, '%': {} } }),
  fc.constant<JsonObject>({ test: 'list', values: ['left', 'center'] }),
);

const test: fc.Arbitrary<JsonObject> = fc.oneof(
  fc.constant<JsonObject>({ test: 'text' }),
  fc.constant<JsonObject>({ test: 'text', maxLength: 4 }),
  fc.constant<JsonObject>({ test: 'list', values: ['a', 'note', 'left'] }),
  fc.constant<JsonObject>({ test: 'pattern', pattern: '[a-z-]+' }),
  fc.constant<JsonObject>({ test: 'tokens', values: ['note', 'a'], prefixes: ['is-'] }),
  fc.constant<JsonObject>({ test: 'integer', min: 1, max: 600 }),
  fc.constant<JsonObject>({ test: 'length', ranges: { none: { max: 500 }, '%': { max: 100 } } }),
  fc.constant<JsonObject>({ test: 'url' }),
  fc.constant<JsonObject>({ test: 'url', hosts: ['a.example', '*.b.example/x/'] }),
  fc.constant<JsonObject>({ test: 'language' }),
  fc
    .dictionary(fc.constantFrom('color', 'text-align', 'width', 'font-weight'), styleTest, { maxKeys: 3 })
    .map((properties) => ({ test: 'style', properties })),
);

const attributes = fc.dictionary(fc.constantFrom(...ATTRIBUTES), test, { maxKeys: 5 });

const rule: fc.Arbitrary<JsonObject> = fc
  .record(
    {
      outcome: fc.oneof(
        { weight: 8, arbitrary: fc.constant('keep') },
        { weight: 3, arbitrary: fc.constantFrom('unwrap', 'drop', 'text', 'rename') },
      ),
      to: fc.constantFrom(...NAMES),
      attributes,
      required: fc.dictionary(
        fc.constantFrom(...ATTRIBUTES),
        fc.record({ otherwise: fc.constantFrom('drop', 'unwrap', 'add'), value: fc.constantFrom('a', 'note', '3') }),
        { maxKeys: 1 },
      ),
      forced: fc.dictionary(
        fc.constantFrom('class', 'rel', 'title', 'id', 'loading', 'target'),
        fc.record({
          value: fc.constantFrom('a', 'note left', '_blank', 'lazy'),
          when: fc.constantFrom('always', 'absent', 'new-window', 'with-address'),
        }),
        { maxKeys: 2 },
      ),
      anyOf: fc.record({
        attributes: fc.constantFrom<string[]>(['id', 'name'], ['href', 'id'], ['src', 'title']),
        otherwise: fc.constantFrom('drop', 'unwrap'),
      }),
      schemes: fc.constantFrom<JsonObject>({ href: ['https', 'mailto', 'javascript'] }, { src: [] }, { src: ['https', 'data'] }),
      withoutSource: fc.constantFrom('drop', 'alternative-text'),
      empty: fc.constantFrom('keep', 'remove', 'pad'),
      parents: fc.subarray(NAMES, { minLength: 1, maxLength: 12 }),
      depth: fc.constantFrom(1, 2),
      ratio: fc.constant({ min: 1, max: 2 }),
    },
    { requiredKeys: [] },
  )
  .filter((made) => made.outcome !== 'rename' || made.to !== undefined);

const markup: fc.Arbitrary<JsonObject> = fc
  .record({
    elements: fc.dictionary(fc.constantFrom(...NAMES), rule, { minKeys: 4, maxKeys: 28 }),
    attributes: fc.dictionary(fc.constantFrom('id', 'lang', 'class', 'style', 'title'), test, { maxKeys: 3 }),
    urls: sometimes(
      fc.record({ schemes: fc.constant({ href: ['https', 'mailto', 'javascript'], src: ['https', 'data'] }), relative: fc.boolean() }),
    ),
    ids: sometimes(fc.record({ prefix: fc.constantFrom('', 'c-') })),
    links: sometimes(fc.record({ newWindow: fc.constantFrom('as-written', 'never', 'other-sites'), ownHosts: fc.constant(['a.example']) })),
    headings: sometimes(fc.record({ others: fc.constantFrom('by-element', 'shift', 'clamp', 'paragraph'), top: fc.constantFrom(1, 2, 3) })),
    text: sometimes(
      fc.record({ hardSpaces: fc.constantFrom('keep', 'meaningful', 'plain'), emptyParagraphs: fc.constantFrom('keep', 'one', 'remove') }),
    ),
    unlisted: fc.constantFrom('unwrap', 'unwrap', 'drop', 'text'),
    comments: fc.constantFrom('keep', 'drop'),
    limits: sometimes(fc.record({ nesting: fc.constantFrom(3, 20), elements: fc.constantFrom(3, 50), letters: fc.constantFrom(5, 200) })),
    output: sometimes(
      fc.record({ characters: fc.constantFrom('raw', 'named', 'numeric'), layout: fc.constantFrom('as-is', 'compact', 'indented') }),
    ),
  })
  .map((made) => JSON.parse(JSON.stringify(made)) as JsonObject);

/** A profile with markup rules of every kind, and house limits above it or none. */
export const randomRules: fc.Arbitrary<{ resolved: ResolvedProfile; house: HouseLimits | undefined; written: JsonObject }> = fc
  .record({ profile: markup, house: sometimes(markup) })
  .map(({ profile, house }) => {
    const resolution = resolveProfile('random', () => ({ format: 'typikon-profile/1', name: 'Random', markup: profile }));
    if (!resolution.ok) throw new Error(JSON.stringify([profile, resolution.problems]));
    const read = house === undefined ? undefined : readHouseLimits({ format: 'typikon-house/1', markup: house });
    if (read?.ok === false) throw new Error(JSON.stringify([house, read.problems]));
    return { resolved: resolution.resolved, house: read?.house, written: { profile, ...(house === undefined ? {} : { house }) } };
  });

/** Many rules, compiled once: to make them takes longer than to clean by them. The seed is another in each fuzz run. */
export function randomRuleSets(count: number, seed: number): { rules: CompiledRules; written: string }[] {
  return fc.sample(randomRules, { numRuns: count, seed }).map(({ resolved, house, written }) => ({
    rules: compileRules(resolved, house === undefined ? {} : { house }),
    written: JSON.stringify(written),
  }));
}

/** A profile with its limits, and the same profile with one thing of its rules otherwise. */
export const randomChange: fc.Arbitrary<{ from: CompiledRules; to: CompiledRules; written: string }> = fc
  .record({ before: markup, other: markup, house: sometimes(markup), at: fc.nat(), within: fc.nat(), isGone: fc.boolean() })
  .map(({ before, other, house, at, within, isGone }) => {
    const after = structuredClone(before);
    const elements = Object.entries(other['elements'] as JsonObject);
    const own = Object.keys(before['elements'] as JsonObject);
    const settings = Object.keys(other).filter((key) => key !== 'elements');
    switch (at % 4) {
      case 0: {
        const name = own[within % own.length]!;
        if (isGone) delete (after['elements'] as JsonObject)[name];
        else (after['elements'] as JsonObject)[name] = elements[within % elements.length]![1];
        break;
      }
      case 1: {
        // One attribute of one element.
        const rule = (after['elements'] as JsonObject)[own[within % own.length]!] as JsonObject;
        const tests = elements.flatMap(([, one]) => Object.entries(((one as JsonObject)['attributes'] ?? {}) as JsonObject));
        const [name, test] = tests[within % Math.max(1, tests.length)] ?? ['title', { test: 'text' }];
        rule['attributes'] = { ...(rule['attributes'] as JsonObject | undefined), [name]: test };
        break;
      }
      case 2: {
        const [name, rule] = elements[within % elements.length]!;
        (after['elements'] as JsonObject)[name] = rule;
        break;
      }
      default: {
        const name = settings[within % Math.max(1, settings.length)] ?? 'comments';
        if (isGone || other[name] === undefined) delete after[name];
        else after[name] = other[name];
      }
    }
    const limits = house === undefined ? undefined : readHouseLimits({ format: 'typikon-house/1', markup: house });
    const options = limits?.ok === true ? { house: limits.house } : {};
    const compiled = (rules: JsonObject): CompiledRules => {
      const resolution = resolveProfile('random', () => ({ format: 'typikon-profile/1', name: 'Random', markup: rules }));
      if (!resolution.ok) throw new Error(JSON.stringify([rules, resolution.problems]));
      return compileRules(resolution.resolved, options);
    };
    return { from: compiled(before), to: compiled(after), written: JSON.stringify({ before, after, house }) };
  });

/** Many changes, compiled once. */
export const randomChanges = (count: number, seed: number): { from: CompiledRules; to: CompiledRules; written: string }[] =>
  fc.sample(randomChange, { numRuns: count, seed });
