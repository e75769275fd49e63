import { NOTHING_WITHOUT_SOURCE } from '../html/elements';
import type { LedgerEntry } from '../ledger/entry';
import { wholeValue } from '../ledger/subject';
import { isObject, mergePatch, type Json, type JsonObject } from '../profile/merge-patch';
import { fromPointer, valueAt } from '../profile/pointer';
import { resolveProfile, type ResolvedProfile } from '../profile/resolve';
import { hostOf, schemeOf } from './address';
import { clean } from './clean';
import { compileRules } from './compile';
import type { CompileOptions } from './compiled';
import { listed, narrowestStyleTest, narrowestTest, unique } from './narrow';

/** The smallest change of a profile that keeps what was changed or removed. */
export interface Keeping {
  /** What will be allowed, in words that follow "Allow". */
  label: string;
  /** A merge patch (RFC 7396) for the profile's own document. */
  patch: JsonObject;
}

/**
 * Works out the smallest rules that keep what some ledger entries report: exact values and ranges, never "anything".
 *
 * @param entries entries that one rule made for one reason, as the ledger groups them
 * @param resolved the profile that made them
 * @param input the markup that was cleaned: the change is tried on it
 * @param options the house limits above the profile, and the role they bind
 * @returns the change, or null where no change of this profile can keep it (the safety floor, the house limits and the HTML
 *   standard decide that, and how deep things may be nested is a matter of its own)
 */
export function patchToKeep(
  entries: readonly LedgerEntry[],
  resolved: ResolvedProfile,
  input: string,
  options: CompileOptions = {},
): Keeping | null {
  const [first] = entries;
  if (first === undefined || (first.layer !== 'profile' && first.layer !== 'parent-profile')) return null;
  const keeping = smallestChange(entries, first, resolved);
  return keeping !== null && helps(keeping, entries, resolved, input, options) ? keeping : null;
}

/** The profile with a merge patch applied to its own document; null where that makes it invalid. */
export function patched(resolved: ResolvedProfile, patch: JsonObject): ResolvedProfile | null {
  const [own, ...parents] = resolved.chain;
  const documents = new Map<string, Json>([
    [own!.id, mergePatch(own!.document, patch)],
    ...parents.map(({ id, document }): [string, Json] => [id, document]),
  ]);
  const resolution = resolveProfile(resolved.id, (id) => documents.get(id));
  return resolution.ok ? resolution.resolved : null;
}

/**
 * Whether a change helps: what the profile took for this reason it takes no more, and nothing above it takes it instead.
 * Another rule of the profile may still object; that is a change of its own.
 */
function helps(
  { patch }: Keeping,
  entries: readonly LedgerEntry[],
  resolved: ResolvedProfile,
  input: string,
  options: CompileOptions,
): boolean {
  const changed = patched(resolved, patch);
  if (changed === null) return false;
  const still = new Map<string, LedgerEntry[]>();
  for (const entry of clean(input, compileRules(changed, options)).ledger) {
    const place = `${entry.start} ${entry.end}`;
    still.set(place, [...(still.get(place) ?? []), entry]);
  }
  return entries.every(({ start, end, reason, action }) =>
    (still.get(`${start} ${end}`) ?? []).every((entry) => {
      if (entry.reason === reason) return false;
      const isTaken = entry.action === 'removed' || entry.action === 'unwrapped';
      return !isTaken || action === 'changed' || entry.layer === 'profile' || entry.layer === 'parent-profile';
    }),
  );
}

/** The change itself, not yet tried: what of the rules would have to be otherwise. */
export function smallestChange(entries: readonly LedgerEntry[], first: LedgerEntry, resolved: ResolvedProfile): Keeping | null {
  const keys = fromPointer(first.rule);
  const { element } = first.subject;
  const { markup } = resolved.profile;
  switch (first.reason) {
    case 'element-not-allowed':
    case 'element-dropped':
    case 'element-shown-as-text':
    case 'element-renamed':
      return keepElement(element, entries);
    case 'heading-level':
      return keepHeading(element, resolved);
    case 'attribute-not-allowed':
      return keepAttribute(entries, keys);
    case 'value-not-allowed':
      return keepValues(entries, keys, resolved);
    case 'style-property-not-allowed':
      return keepProperties(entries, keys);
    case 'style-value-not-allowed':
      return keepStyleValues(entries, keys, resolved);
    case 'host-not-allowed':
      return addToTest(
        keys,
        resolved,
        'hosts',
        addressesOf(entries).flatMap((address) => hostOf(address) ?? []),
      );
    case 'scheme-not-allowed': {
      const attribute = keys[keys.length - 1]!;
      const schemes = unique(addressesOf(entries).flatMap((address) => schemeOf(address) ?? []));
      const before = markup.urls.schemes[attribute] ?? ['https', 'http'];
      if (schemes.length === 0) return null;
      return {
        label: `${listed(schemes)} in ${attribute}`,
        patch: { markup: { urls: { schemes: { [attribute]: unique([...before, ...schemes]) } } } },
      };
    }
    case 'relative-address-not-allowed':
      return { label: 'addresses without a scheme', patch: { markup: { urls: { relative: true } } } };
    case 'comment-not-allowed':
      return { label: 'comments', patch: { markup: { comments: 'keep' } } };
    case 'required-missing':
      return { label: `${element} without ${keys.at(-1)!}`, patch: nested(keys, null) };
    case 'parent-not-allowed': {
      const parents = unique([
        ...(markup.elements[element]?.parents ?? []),
        ...entries.flatMap(({ subject }) => subject.name ?? []).filter((parent) => parent !== ''),
      ]);
      return { label: `${element} in ${listed(parents)}`, patch: nested(keys, parents) };
    }
    case 'depth-limit':
      return { label: `${element} in itself at any depth`, patch: nested(keys, null) };
    case 'ratio-not-allowed':
      return { label: `${element} of any proportion`, patch: nested(keys, null) };
    case 'element-limit':
      return {
        label: `${markup.limits.elements! + entries.length} elements`,
        patch: nested(keys, markup.limits.elements! + entries.length),
      };
    case 'letter-limit': {
      const letters = entries.reduce((sum, { textLost }) => sum + textLost, markup.limits.letters!);
      return { label: `${letters} letters`, patch: nested(keys, letters) };
    }
    case 'hard-space':
      return { label: 'hard spaces', patch: { markup: { text: { hardSpaces: 'keep' } } } };
    case 'empty-paragraph':
      return { label: 'empty paragraphs', patch: { markup: { text: { emptyParagraphs: 'keep' } } } };
    case 'empty-element':
      return { label: `empty <${element}>`, patch: { markup: { elements: { [element]: { empty: 'keep' } } } } };
    case 'new-window':
      return {
        label: 'links as they were written',
        patch: {
          markup: {
            links: { newWindow: 'as-written' },
            ...(markup.elements['a']?.attributes?.['target'] !== undefined
              ? {}
              : { elements: { a: { attributes: { target: { test: 'list', values: ['_blank'] } } } } }),
          },
        },
      };
    default:
      return null;
  }
}

function keepElement(name: string, entries: readonly LedgerEntry[] = []): Keeping | null {
  if (!/^[a-z][a-z0-9-]*$/.test(name)) return null;
  // An element that the profile has no rule for gets one; one that it drops or renames just stays.
  const rule: JsonObject = { outcome: 'keep', to: null };
  if (!NOTHING_WITHOUT_SOURCE.has(name)) return { label: `<${name}>`, patch: { markup: { elements: { [name]: rule } } } };
  // It shows nothing without its source, so both are allowed together.
  const { test, words } = narrowestTest('src', sourcesIn(entries));
  return { label: `<${name}>${words}`, patch: { markup: { elements: { [name]: { ...rule, attributes: { src: test } } } } } };
}

/** The `src` of elements that went whole. */
function sourcesIn(entries: readonly LedgerEntry[]): string[] {
  return entries.flatMap(({ subject }) => wholeValue(subject) ?? []);
}

function keepHeading(name: string, { profile }: ResolvedProfile): Keeping | null {
  const rule = profile.markup.elements[name];
  if (rule !== undefined && (rule.outcome ?? 'keep') === 'keep')
    return { label: 'headings at the level they have', patch: { markup: { headings: { others: 'clamp' } } } };
  return keepElement(name);
}

function keepAttribute(entries: readonly LedgerEntry[], keys: string[]): Keeping | null {
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
function keepValues(entries: readonly LedgerEntry[], keys: string[], resolved: ResolvedProfile): Keeping | null {
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
function keepProperties(entries: readonly LedgerEntry[], keys: string[]): Keeping | null {
  const values = new Map<string, string[]>();
  for (const { property, value } of declarationsOf(entries)) values.set(property, [...(values.get(property) ?? []), value]);
  if (values.size === 0) return null;
  const tests = [...values].map(([property, found]) => [property, narrowestStyleTest(found)] as const);
  return {
    label: tests.map(([property, { words }]) => `${property}: ${words}`).join('; '),
    patch: nested(keys, Object.fromEntries(tests.map(([property, { test }]) => [property, test]))),
  };
}

function keepStyleValues(entries: readonly LedgerEntry[], keys: string[], resolved: ResolvedProfile): Keeping | null {
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

function addToTest(keys: string[], resolved: ResolvedProfile, key: 'values' | 'hosts', additions: readonly string[]): Keeping | null {
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

function nested(keys: readonly string[], value: Json): JsonObject {
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
function addressesOf(entries: readonly LedgerEntry[]): string[] {
  return attributesOf(entries).map(({ value }) => value);
}
