import { compileTest } from '../markup/attribute-test';
import { narrowestStyleTest, narrowestTest } from '../markup/narrow';
import type { Json, JsonObject } from '../profile/merge-patch';
import { attributeName, elementName, propertyName, scheme as schemeName } from '../profile/name-schema';
import { attributeTestSchema, PROFILE_FORMAT, type AttributeTest } from '../profile/schema';
import type { Need } from './needs';

/** What is needed: each thing once, with every value that it has to pass. */
export interface NeedWithValues {
  need: Need;
  values: readonly string[];
}

/** Whether a rule can be written for a need: names that no profile can hold are never kept. */
export function isAllowable(need: Need): boolean {
  const isName = (schema: typeof elementName, name: string): boolean => schema.safeParse(name).success;
  if (need.kind !== 'relative' && !isName(elementName, need.element)) return false;
  if ((need.kind === 'attribute' || need.kind === 'scheme') && !isName(attributeName, need.attribute)) return false;
  if (need.kind === 'scheme') return isName(schemeName, need.scheme);
  return need.kind !== 'property' || isName(propertyName, need.property);
}

/**
 * Writes the least profile that allows what is needed and nothing beside it: elements, attributes with the narrowest tests that their
 * values pass, words of `class`, properties of `style`, schemes, hosts of frames.
 *
 * @param needs each once; all of them can be allowed
 * @returns a profile document
 */
export function leastProfile(needs: readonly NeedWithValues[], name: string): JsonObject {
  const elements: Record<string, Parts> = {};
  const partsOf = (element: string): Parts =>
    (elements[element] ??= { attributes: new Map(), classes: [], properties: {}, schemes: {}, hosts: [] });
  let isRelative = false;
  for (const { need, values } of needs)
    switch (need.kind) {
      case 'element':
        partsOf(need.element);
        break;
      case 'attribute':
        partsOf(need.element).attributes.set(need.attribute, values);
        break;
      case 'class':
        partsOf(need.element).classes.push(need.word);
        break;
      case 'property':
        partsOf(need.element).properties[need.property] = narrowestStyleTest(values).test;
        break;
      case 'scheme':
        (partsOf(need.element).schemes[need.attribute] ??= []).push(need.scheme);
        break;
      case 'host':
        partsOf(need.element).hosts.push(need.host);
        break;
      case 'relative':
        isRelative = true;
    }
  const rules = Object.entries(elements).sort(([one], [other]) => (one < other ? -1 : 1));
  return {
    format: PROFILE_FORMAT,
    name,
    markup: {
      elements: Object.fromEntries(rules.map(([element, parts]) => [element, ruleOf(parts)])),
      urls: { relative: isRelative },
      limits: { nesting: DEEPEST },
    },
  };
}

/** Rules about depth are a matter of their own: a document that is deep is none that asks for more rights. */
export const DEEPEST = 500;

interface Parts {
  attributes: Map<string, readonly string[]>;
  classes: string[];
  properties: Record<string, Json>;
  schemes: Record<string, string[]>;
  hosts: string[];
}

function ruleOf({ attributes, classes, properties, schemes, hosts }: Parts): JsonObject {
  const tests: Record<string, Json> = {};
  for (const [name, values] of attributes) tests[name] = testOf(name, values, name === 'src' ? hosts : []);
  if (classes.length > 0) tests['class'] = { test: 'tokens', values: classes.sort() };
  if (Object.keys(properties).length > 0) tests['style'] = { test: 'style', properties };
  // An address that has no scheme in any document gets none.
  for (const name of attributes.keys())
    if (tests[name] !== undefined && isUrlTest(tests[name]) && schemes[name] === undefined) schemes[name] = [];
  return {
    ...(Object.keys(tests).length === 0 ? {} : { attributes: tests }),
    ...(Object.keys(schemes).length === 0
      ? {}
      : { schemes: Object.fromEntries(Object.entries(schemes).map(([name, all]) => [name, all.sort()])) }),
  };
}

const isUrlTest = (test: Json): boolean => (test as JsonObject)['test'] === 'url';

const ANY_ADDRESS = {
  urls: { schemes: { has: () => true } as unknown as ReadonlySet<string>, relative: true },
  styleClasses: new Set<string>(),
};

/** The narrowest test that every value passes as it is. */
function testOf(name: string, values: readonly string[], hosts: readonly string[]): JsonObject {
  const narrow = name === 'src' ? srcTest(hosts) : narrowestTest(name, values).test;
  const read = attributeTestSchema.safeParse(narrow);
  return read.success && passesAll(read.data, values) ? narrow : name === 'src' ? { test: 'url' } : { test: 'text' };
}

const srcTest = (hosts: readonly string[]): JsonObject =>
  hosts.length === 0 ? { test: 'url' } : { test: 'url', hosts: [...hosts].sort() };

function passesAll(test: AttributeTest, values: readonly string[]): boolean {
  const judge = compileTest(test, ANY_ADDRESS);
  return values.every((value) => {
    const verdict = judge(value);
    return 'keep' in verdict && verdict.keep === value;
  });
}
