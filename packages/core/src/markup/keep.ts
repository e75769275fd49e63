import { NOTHING_WITHOUT_SOURCE } from '../html/elements';
import type { LedgerEntry } from '../ledger/entry';
import { wholeValue } from '../ledger/subject';
import { mergePatch, type Json, type JsonObject } from '../profile/merge-patch';
import { fromPointer } from '../profile/pointer';
import { resolveProfile, type ResolvedProfile } from '../profile/resolve';
import { hostOf, schemeOf } from './address';
import { clean } from './clean';
import { compileRules } from './compile';
import type { CompileOptions } from './compiled';
import { addressesOf, addToTest, keepAttribute, keepProperties, keepStyleValues, keepValues, nested, type Keeping } from './keep-values';
import { listed, narrowestTest, unique } from './narrow';

export type { Keeping } from './keep-values';

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
