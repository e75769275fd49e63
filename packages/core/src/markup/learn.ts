import { groupEntries, type EntryGroup } from '../ledger/groups';
import { reasonRow } from '../ledger/reasons';
import { mergePatch, type JsonObject } from '../profile/merge-patch';
import type { ResolvedProfile } from '../profile/resolve';
import { clean } from './clean';
import { compileRules } from './compile';
import type { CompileOptions } from './compiled';
import { patched, patchToKeep } from './keep';
import { riskOfAttribute, riskOfElement, type Risk } from './risk';

/** One thing of a sample that the rules remove or change, and the smallest rule that keeps it. */
export interface Lesson {
  /** Stable while other lessons are taken: what was taken, from what, why. */
  id: string;
  /** What would be allowed. */
  label: string;
  reason: EntryGroup['reason'];
  element: string;
  attribute: string;
  /** How often it occurs in the sample. */
  places: number;
  textLost: number;
  risk: Risk;
  /** The lesson without which this one cannot be taken: attributes need their element. */
  needs: string | null;
}

/** What no change of this profile can keep, so that nobody looks for a tick that is not there. */
export interface Unlearnable {
  label: string;
  places: number;
  layer: EntryGroup['layer'];
}

export interface Lessons {
  lessons: Lesson[];
  unlearnable: Unlearnable[];
}

/** Allowing an element shows what its attributes need, and those may show more; deeper chains do not occur. */
const MOST_ROUNDS = 5;

/**
 * Lists what a profile would take from a sample, with the smallest rule for each.
 *
 * @param input the sample; never trusted
 * @param resolved the profile that is to learn
 * @param options the house limits above it and the role they bind
 */
export function lessonsOf(input: string, resolved: ResolvedProfile, options: CompileOptions = {}): Lessons {
  const lessons = new Map<string, Lesson>();
  const unlearnable = new Map<string, Unlearnable>();
  let profile = resolved;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const before = lessons.size;
    const { ledger } = clean(input, compileRules(profile, options));
    let next = profile;
    for (const group of groupEntries(ledger)) {
      const id = lessonId(group);
      if (
        lessons.has(id) ||
        group.layer === 'html-standard' ||
        group.reason === 'attribute-forced' ||
        group.reason === 'words-apart' ||
        group.reason === 'id-prefixed'
      )
        continue;
      const entries = group.places.map((index) => ledger[index]!);
      const keeping = patchToKeep(entries, next, input, options) ?? patchToKeep(entries, profile, input, options);
      if (keeping === null) {
        if (round === 0 || group.layer !== 'profile')
          unlearnable.set(id, { label: nameOf(group), places: group.places.length, layer: layerOf(group, options) });
        continue;
      }
      next = patched(next, keeping.patch) ?? next;
      const element = group.element === '' ? entries[0]!.subject.element : group.element;
      const needs =
        round === 0 ? null : ([...lessons.values()].find((lesson) => lesson.element === element && lesson.attribute === '')?.id ?? null);
      lessons.set(id, {
        id,
        label: keeping.label,
        reason: group.reason,
        element,
        attribute: group.attribute,
        places: group.places.length,
        textLost: group.textLost,
        risk: group.attribute === '' ? riskOfElement(element) : riskOfAttribute(group.attribute),
        needs,
      });
    }
    if (lessons.size === before) break;
    profile = next;
  }
  for (const id of lessons.keys()) unlearnable.delete(id);
  return { lessons: [...lessons.values()], unlearnable: [...unlearnable.values()] };
}

/**
 * Works out the rules for the lessons that were chosen: one after the other, each on top of those before.
 *
 * @returns a merge patch for the profile's own document, empty where nothing was to be learnt
 */
export function patchToLearn(
  input: string,
  resolved: ResolvedProfile,
  chosen: ReadonlySet<string>,
  options: CompileOptions = {},
): JsonObject {
  let patch: JsonObject = {};
  let profile = resolved;
  const done = new Set<string>();
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const before = done.size;
    const { ledger } = clean(input, compileRules(profile, options));
    for (const group of groupEntries(ledger)) {
      const id = lessonId(group);
      if (!chosen.has(id) || done.has(id)) continue;
      const keeping = patchToKeep(
        group.places.map((index) => ledger[index]!),
        profile,
        input,
        options,
      );
      const changed = keeping === null ? null : patched(profile, keeping.patch);
      if (keeping === null || changed === null) continue;
      patch = joined(patch, keeping.patch);
      profile = changed;
      done.add(id);
    }
    if (done.size === before) break;
  }
  return patch;
}

/** Two patches, one after the other, as one: a removal by the second is kept as a removal. */
function joined(one: JsonObject, other: JsonObject): JsonObject {
  const merged = mergePatch(one, other) as JsonObject;
  const visit = (patch: JsonObject, into: JsonObject): void => {
    for (const [key, value] of Object.entries(patch))
      if (value === null) into[key] = null;
      else if (typeof value === 'object' && !Array.isArray(value) && typeof into[key] === 'object' && into[key] !== null)
        visit(value, into[key] as JsonObject);
  };
  visit(other, merged);
  return merged;
}

/** Who stands in the way: what a profile takes and cannot be told to keep, the house limits would take in its place. */
function layerOf({ layer }: EntryGroup, { house }: CompileOptions): EntryGroup['layer'] {
  return layer === 'safety-floor' || house === undefined ? layer : 'house-limits';
}

function lessonId({ reason, element, attribute, property }: EntryGroup): string {
  return [reason, element, attribute, property].join(' ');
}

function nameOf({ element, attribute, property, reason }: EntryGroup): string {
  const { setting } = reasonRow(reason);
  if (setting !== undefined) return setting;
  if (property !== '') return `${property} in style${element === '' ? '' : ` on <${element}>`}`;
  if (attribute !== '') return `${attribute}${element === '' ? '' : ` on <${element}>`}`;
  return element === '' ? 'the markup as it stands' : `<${element}>`;
}
