import type { LedgerEntry } from '../ledger/entry';
import { wholeValue } from '../ledger/subject';
import { isObject, type Json, type JsonObject } from '../profile/merge-patch';
import { valueAt } from '../profile/pointer';
import type { ResolvedProfile } from '../profile/resolve';
import { listed, narrowestStyleTest, narrowestTest, unique } from './narrow';

/** The smallest change of a profile that keeps what was changed or removed. */
export interface Keeping {
  /** What will be allowed, in words that follow "Allow". */
  label: string;
  /** A merge patch (RFC 7396) for the profile's own document. */
  patch: JsonObject;
}

/** Allows an attribute with the values it has. */
export function keepAttribute(entries: readonly LedgerEntry[], keys: string[]): Keeping | null {
  const element = keys[2];
  const read = attributesOf(entries);
  const name = read[0]?.name;
  if (element === undefined || name === undefined || !/^[a-z][a-z0-9_:.-]*$/.test(name)) return null;
  const { test, words } = narrowestTest(
    name,
    read.map(({ value }) => value),
  );
  return { label: `${name} on <${element}>${words}`, patch: { markup: { elements: { [element]: { attributes: { [name]: test } } } } } };
}

/** Widens the test that refused values just so far that they pass. */
export function keepValues(entries: readonly LedgerEntry[], keys: string[], resolved: ResolvedProfile): Keeping | null {
  const test = valueAt(resolved.profile, keys);
  const values = attributesOf(entries).map(({ value }) => value);
  if (!isObject(test) || values.length === 0) return null;
  switch (test['test']) {
    case 'list':
      return addToTest(keys, resolved, 'values', values);
    case 'tokens':
      return addToTest(
        keys,
        resolved,
        'values',
        values.flatMap((value) => value.split(/\s+/)).filter((token) => token !== ''),
      );
    case 'features':
      return addToTest(
        keys,
        resolved,
        'values',
        values.flatMap((value) => value.split(';')).flatMap((directive) => directive.trim().split(/\s+/)[0] || []),
      );
    case 'integer': {
      const numbers = values.map((value) => Number(value.trim())).filter((value) => Number.isSafeInteger(value));
      if (numbers.length < values.length) return null;
      const min = typeof test['min'] === 'number' ? Math.min(test['min'], ...numbers) : undefined;
      const max = typeof test['max'] === 'number' ? Math.max(test['max'], ...numbers) : undefined;
      const patch: JsonObject = { ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) };
      return { label: `${subject(keys)}: ${min ?? 'any'} to ${max ?? 'any'}`, patch: nested(keys, patch) };
    }
    case 'text': {
      const maxLength = Math.max(...values.map(({ length }) => length));
      return { label: `${subject(keys)}: up to ${maxLength} characters`, patch: nested(keys, { maxLength }) };
    }
    case 'length':
    case 'language':
    case 'pattern': {
      const narrow = narrowestTest(keys.at(-1)!, values);
      if (test['test'] !== 'length' || narrow.test['test'] !== 'length') return null;
      return {
        label: `${subject(keys)}${narrow.words}`,
        patch: nested([...keys, 'ranges'], widened(test['ranges'], narrow.test['ranges'])),
      };
    }
    default:
      return null;
  }
}

/** Ranges that hold what both do. */
function widened(one: Json | undefined, other: Json | undefined): JsonObject {
  const [a, b] = [isObject(one) ? one : {}, isObject(other) ? other : {}];
  return Object.fromEntries(
    Object.entries(b).map(([unit, range]) => {
      const known = a[unit];
      if (!isObject(known) || !isObject(range)) return [unit, range];
      const bound = (key: 'min' | 'max', pick: (...numbers: number[]) => number): JsonObject =>
        typeof known[key] === 'number' ? { [key]: pick(known[key], range[key] as number) } : {};
      return [unit, { ...bound('min', Math.min), ...bound('max', Math.max) }];
    }),
  );
}

/** Allows style properties with the values they have, below the rule of a `style` attribute. */
export function keepProperties(entries: readonly LedgerEntry[], keys: string[]): Keeping | null {
  const values = new Map<string, string[]>();
  for (const { property, value } of declarationsOf(entries)) values.set(property, [...(values.get(property) ?? []), value]);
  if (values.size === 0) return null;
  const tests = [...values].map(([property, found]) => [property, narrowestStyleTest(found)] as const);
  return {
    label: tests.map(([property, { words }]) => `${property}: ${words}`).join('; '),
    patch: nested(keys, Object.fromEntries(tests.map(([property, { test }]) => [property, test]))),
  };
}

/** Widens the test of a style property just so far that the values it has pass. */
export function keepStyleValues(entries: readonly LedgerEntry[], keys: string[], resolved: ResolvedProfile): Keeping | null {
  const test = valueAt(resolved.profile, keys);
  const property = keys.at(-1)!;
  const values = declarationsOf(entries)
    .filter((declared) => declared.property === property)
    .map(({ value }) => value);
  if (!isObject(test) || values.length === 0) return null;
  const narrow = narrowestStyleTest(values);
  const label = `${property}: ${narrow.words}`;
  if (Array.isArray(test['values']))
    return { label, patch: nested([...keys, 'values'], unique([...(test['values'] as string[]), ...values])) };
  if (test['test'] === 'length' && narrow.test['test'] === 'length')
    return { label, patch: nested([...keys, 'ranges'], widened(test['ranges'], narrow.test['ranges'])) };
  if (test['test'] === 'number' && narrow.test['test'] === 'number')
    return { label, patch: nested(keys, widened({ n: test }, { n: narrow.test })['n']!) };
  return null;
}

function declarationsOf(entries: readonly LedgerEntry[]): { property: string; value: string }[] {
  return entries.flatMap(({ subject }) => {
    const [property = '', value] = [subject.property, wholeValue(subject)];
    return property === '' || value === undefined ? [] : [{ property, value }];
  });
}

/** Adds to what a test lists. */
export function addToTest(
  keys: string[],
  resolved: ResolvedProfile,
  key: 'values' | 'hosts',
  additions: readonly string[],
): Keeping | null {
  const before = valueAt(resolved.profile, [...keys, key]) ?? [];
  if (!Array.isArray(before)) return null;
  const added = unique(additions).filter((value) => !before.includes(value));
  return added.length === 0 ? null : { label: `${subject(keys)}: ${listed(added)}`, patch: nested(keys, { [key]: [...before, ...added] }) };
}

/** "class on <p>", from the pointer of an attribute's test. */
function subject(keys: readonly string[]): string {
  const attribute = keys[keys.length - 1]!;
  return keys[1] === 'elements' ? `${attribute} on <${keys[2]}>` : attribute;
}

/** A merge patch that sets one thing. */
export function nested(keys: readonly string[], value: Json): JsonObject {
  return keys.reduceRight<Json>((inner, key) => ({ [key]: inner }), value) as JsonObject;
}

/** The attribute that each entry is about and the value it had; values that were cut short are left out. */
function attributesOf(entries: readonly LedgerEntry[]): { name: string; value: string }[] {
  return entries.flatMap(({ subject }) => {
    const [name, value] = [subject.attribute, wholeValue(subject)];
    return name === undefined || value === undefined ? [] : [{ name, value }];
  });
}

/** The addresses that entries are about: of an attribute, or of the source of an element that went with it. */
export function addressesOf(entries: readonly LedgerEntry[]): string[] {
  return attributesOf(entries).map(({ value }) => value);
}
