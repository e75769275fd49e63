import { parseFragment } from '../html/parse';
import type { LedgerEntry } from '../ledger/entry';
import { isObject, mergePatch, type Json, type JsonObject } from '../profile/merge-patch';
import { fromPointer, valueAt } from '../profile/pointer';
import { resolveProfile, type ResolvedProfile } from '../profile/resolve';
import { hostOf, schemeOf } from './address';
import { compileRules, type CompileOptions } from './compile';
import { URL_ATTRIBUTES } from './floor';

/** The smallest change of a profile that keeps what was changed or removed. */
export interface Keeping {
  /** What will be allowed, in words that follow "Allow". */
  label: string;
  /** A merge patch (RFC 7396) for the profile's own document. */
  patch: JsonObject;
}

/** A list of at most so many values is named one by one; more become a test of another kind. */
const MOST_VALUES = 12;
const LONGEST_VALUE = 60;

/** So many entries are tried again under the change. */
const MOST_TRIED = 20;

/**
 * Works out the smallest rules that keep what some ledger entries report: exact values and ranges, never "anything".
 *
 * @param entries entries that one rule made for one reason, as the ledger groups them
 * @param resolved the profile that made them
 * @param options the house limits above the profile, and the role they bind
 * @returns the change, or null where no change of this profile can keep it (the safety floor, the house limits and the HTML
 *   standard decide that, and how deep things may be nested is a matter of its own)
 */
export function patchToKeep(entries: readonly LedgerEntry[], resolved: ResolvedProfile, options: CompileOptions = {}): Keeping | null {
  const keeping = smallestChange(entries, resolved);
  return keeping !== null && entries.slice(0, MOST_TRIED).every((entry) => isKeptBy(keeping, entry, resolved, options)) ? keeping : null;
}

/** Whether a change helps: the house limits may take what the profile does not take any more. */
function isKeptBy({ patch }: Keeping, entry: LedgerEntry, resolved: ResolvedProfile, options: CompileOptions): boolean {
  const [own, ...parents] = resolved.chain;
  const documents = new Map([
    [own!.id, mergePatch(own!.document, patch)],
    ...parents.map(({ id, document }): [string, Json] => [id, document]),
  ]);
  const changed = resolveProfile(resolved.id, (id) => documents.get(id));
  if (!changed.ok) return false;
  const rules = compileRules(changed.resolved, options);
  if (entry.reason === 'comment-not-allowed') return rules.comments.keep;
  if (entry.reason.startsWith('element-')) {
    const rule = rules.element(nameIn(entry));
    return rule.outcome === 'keep' && rule.name === nameIn(entry);
  }
  const keys = fromPointer(entry.rule);
  const element = rules.element(keys[1] === 'elements' ? keys[2]! : nameIn(entry));
  const read = entry.before.startsWith('<')
    ? addressesOf([entry]).map((value) => ({ name: keys[keys.length - 1]!, value }))
    : attributesOf([entry]);
  return read.every(({ name, value }) => {
    const tests = element.attributes.get(name)?.tests ?? [];
    return (
      tests.length > 0 &&
      tests.every(({ judge }) => {
        const verdict = judge(value);
        return 'keep' in verdict && verdict.keep === value;
      })
    );
  });
}

function smallestChange(entries: readonly LedgerEntry[], resolved: ResolvedProfile): Keeping | null {
  const [first] = entries;
  if (first === undefined || (first.layer !== 'profile' && first.layer !== 'parent-profile')) return null;
  const keys = fromPointer(first.rule);
  switch (first.reason) {
    case 'element-not-allowed':
    case 'element-dropped':
    case 'element-shown-as-text':
    case 'element-renamed':
      return keepElement(nameIn(first));
    case 'attribute-not-allowed':
      return keepAttribute(entries, keys);
    case 'value-not-allowed':
      return keepValues(entries, keys, resolved);
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
      const before = resolved.profile.markup.urls.schemes[attribute] ?? ['https', 'http'];
      if (schemes.length === 0) return null;
      return {
        label: `${list(schemes)} in ${attribute}`,
        patch: { markup: { urls: { schemes: { [attribute]: unique([...before, ...schemes]) } } } },
      };
    }
    case 'relative-address-not-allowed':
      return { label: 'addresses without a scheme', patch: { markup: { urls: { relative: true } } } };
    case 'comment-not-allowed':
      return { label: 'comments', patch: { markup: { comments: 'keep' } } };
    default:
      return null;
  }
}

function keepElement(name: string): Keeping | null {
  // An element that the profile has no rule for gets one; one that it drops or renames just stays.
  return /^[a-z][a-z0-9-]*$/.test(name)
    ? { label: `<${name}>`, patch: { markup: { elements: { [name]: { outcome: 'keep', to: null } } } } }
    : null;
}

function keepAttribute(entries: readonly LedgerEntry[], keys: string[]): Keeping | null {
  const element = keys[2];
  const read = attributesOf(entries);
  const name = read[0]?.name;
  if (element === undefined || name === undefined || !/^[a-z][a-z0-9_:.-]*$/.test(name)) return null;
  const { test, words } = testFor(
    name,
    read.map(({ value }) => value),
  );
  return { label: `${name} on <${element}>${words}`, patch: { markup: { elements: { [element]: { attributes: { [name]: test } } } } } };
}

/** The narrowest test that all values pass. */
function testFor(name: string, values: readonly string[]): { test: JsonObject; words: string } {
  if (URL_ATTRIBUTES.has(name)) return { test: { test: 'url' }, words: '' };
  if (name === 'lang' && values.every((value) => /^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/.test(value)))
    return { test: { test: 'language' }, words: '' };
  if (values.every((value) => /^[+-]?\d{1,9}$/.test(value.trim()))) {
    const numbers = values.map(Number);
    const [min, max] = [Math.min(...numbers), Math.max(...numbers)];
    return { test: { test: 'integer', min, max }, words: min === max ? `: ${min}` : `: ${min} to ${max}` };
  }
  const tokens = unique(values.flatMap((value) => value.split(/\s+/)).filter((token) => token !== ''));
  if (name === 'class' && tokens.length > 0 && tokens.length <= MOST_VALUES)
    return { test: { test: 'tokens', values: tokens }, words: `: ${list(tokens)}` };
  const distinct = unique(values);
  if (distinct.length <= MOST_VALUES && distinct.every(({ length }) => length > 0 && length <= LONGEST_VALUE))
    return { test: { test: 'list', values: distinct }, words: `: ${list(distinct)}` };
  const maxLength = Math.max(1, ...values.map(({ length }) => length));
  return { test: { test: 'text', maxLength }, words: `: up to ${maxLength} characters` };
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
    default:
      return null;
  }
}

function addToTest(keys: string[], resolved: ResolvedProfile, key: 'values' | 'hosts', additions: readonly string[]): Keeping | null {
  const before = valueAt(resolved.profile, [...keys, key]);
  if (!Array.isArray(before)) return null;
  const added = unique(additions).filter((value) => !before.includes(value));
  return added.length === 0 ? null : { label: `${subject(keys)}: ${list(added)}`, patch: nested(keys, { [key]: [...before, ...added] }) };
}

/** "class on <p>", from the pointer of an attribute's test. */
function subject(keys: readonly string[]): string {
  const attribute = keys[keys.length - 1]!;
  return keys[1] === 'elements' ? `${attribute} on <${keys[2]}>` : attribute;
}

function nested(keys: readonly string[], value: JsonObject): JsonObject {
  return keys.reduceRight<JsonObject>((inner, key) => ({ [key]: inner }), value);
}

/** The element at the end of an entry's path. */
function nameIn({ path }: LedgerEntry): string {
  return path.slice(path.lastIndexOf(' ') + 1).replace(/:nth-child\(\d+\)$/, '');
}

/** The attribute that each entry is about, its value read as the parser reads it; entries that were cut short are left out. */
function attributesOf(entries: readonly LedgerEntry[]): { name: string; value: string }[] {
  return entries.flatMap(({ before }) => {
    if (before.startsWith('<') || before.endsWith('…')) return [];
    const element = parseFragment(`<x ${before}>`).root.children[0];
    const attribute = element?.type === 'element' ? element.attributes[0] : undefined;
    return attribute === undefined ? [] : [attribute];
  });
}

/** The addresses that entries are about: of an attribute, or of the source of an element that went with it. */
function addressesOf(entries: readonly LedgerEntry[]): string[] {
  return entries.flatMap(({ before, rule }) => {
    const name = fromPointer(rule).at(-1);
    const element = parseFragment(before.startsWith('<') ? before : `<x ${before}>`).root.children[0];
    const value = element?.type === 'element' ? element.attributes.find((attribute) => attribute.name === name)?.value : undefined;
    return value === undefined ? [] : [value];
  });
}

function unique(values: readonly string[]): string[] {
  return [...new Set(values)];
}

function list(values: readonly string[]): string {
  return values.length <= 4 ? values.join(', ') : `${values.slice(0, 3).join(', ')} and ${values.length - 3} more`;
}
