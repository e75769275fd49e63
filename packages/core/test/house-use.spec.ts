import fc from 'fast-check';
import { compileRules, houseLimitsSchema, houseUse, markupSchema, resolveProfile, type JsonObject, type Markup } from '../src';

const markup = (elements: JsonObject, attributes: JsonObject = {}): Markup => markupSchema.parse({ elements, attributes });

test('an element is used by the profiles that keep it, an attribute by those that keep it there', () => {
  const house = markup({ p: { attributes: { id: { test: 'text' }, lang: { test: 'language' } } }, b: { outcome: 'drop' }, i: {} });
  const use = houseUse(house, [
    { id: 'one', markup: markup({ p: { attributes: { id: { test: 'text' } } }, i: { outcome: 'rename', to: 'p' } }) },
    { id: 'two', markup: markup({ p: {} }, { lang: { test: 'language' } }) },
    { id: 'none', markup: markup({}) },
  ]);
  expect([...use]).toEqual([
    ['p', { profiles: ['one', 'two'], attributes: { id: ['one'], lang: ['two'] } }],
    ['i', { profiles: [], attributes: {} }],
  ]);
});

test('what stands on every object is no rule', () => {
  const house = houseLimitsSchema.parse({ format: 'typikon-house/1', markup: { elements: { constructor: {} } } }).markup;
  expect(houseUse(house, [{ id: 'one', markup: markup({}) }]).get('constructor')?.profiles).toEqual([]);
});

test('law: a profile uses an element just when its own rules, without the house, keep it under its name', () => {
  const names = ['p', 'em', 'section', 'aside', 'td'];
  const rule = fc.option(
    fc.constantFrom<JsonObject>({}, { outcome: 'keep' }, { outcome: 'drop' }, { outcome: 'unwrap' }, { outcome: 'rename', to: 'p' }),
    {
      nil: null,
    },
  );
  const elements = fc
    .tuple(...names.map(() => rule))
    .map((rules): JsonObject => Object.fromEntries(rules.flatMap((one, at) => (one === null ? [] : [[names[at]!, one]]))));
  fc.assert(
    fc.property(elements, elements, (houseElements, own) => {
      const resolution = resolveProfile('it', () => ({ format: 'typikon-profile/1', name: 'It', markup: { elements: own } }));
      if (!resolution.ok) throw new Error('unexpected');
      const rules = compileRules(resolution.resolved);
      const use = houseUse(markup(houseElements), [{ id: 'it', markup: resolution.resolved.profile.markup }]);
      for (const [name, { profiles }] of use) {
        const compiled = rules.element(name);
        expect([name, profiles.length === 1]).toEqual([name, compiled.outcome === 'keep' && compiled.name === name]);
      }
    }),
  );
});
