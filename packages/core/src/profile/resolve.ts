import * as z from 'zod';
import { isObject, mergePatch, type Json, type JsonObject } from './merge-patch';
import { fromPointer, toPointer } from './pointer';
import {
  ATTRIBUTE_TESTS,
  houseLimitsSchema,
  idSchema,
  PROFILE_FORMAT,
  profileSchema,
  styleTestSchema,
  type HouseLimits,
  type Profile,
} from './schema';

/** Something wrong with a profile: where, and what to do about it. */
export interface Problem {
  /** The profile that has the problem. */
  profile: string;
  /** JSON Pointer into that profile's own document. */
  pointer: string;
  message: string;
}

/** One profile of a chain of parents, as it is written. */
export interface ProfileSource {
  id: string;
  document: JsonObject;
}

export interface ResolvedProfile {
  id: string;
  profile: Profile;
  /** The profile itself first, then its parent, and so on. */
  chain: ProfileSource[];
}

export type Resolution = { ok: true; resolved: ResolvedProfile } | { ok: false; problems: Problem[] };

/** What every profile has for itself and does not inherit. */
const OWN_KEYS = ['format', 'name', 'purpose', 'extends'];

/**
 * Works out a profile with all it inherits: the parents' documents merged (RFC 7396) from the root down, validated, defaults filled in.
 *
 * @param id the profile to resolve
 * @param documentOf gives the document of a profile as it is written, or undefined where there is none
 * @returns the resolved profile, or every problem found, each with its place
 */
export function resolveProfile(id: string, documentOf: (id: string) => Json | undefined): Resolution {
  const chain: ProfileSource[] = [];
  for (let next: string | undefined = id; next !== undefined;) {
    const child: ProfileSource | undefined = chain[chain.length - 1];
    if (chain.some((source) => source.id === next))
      return failure(
        child!.id,
        '/extends',
        `The profiles extend each other in a circle: ${[...chain.map((s) => s.id), next].join(' → ')}.`,
      );
    const document = documentOf(next);
    if (document === undefined)
      return child === undefined
        ? failure(next, '', `There is no profile "${next}".`)
        : failure(child.id, '/extends', `Its parent "${next}" is missing.`);
    if (!isObject(document)) return failure(next, '', 'A profile is a JSON object.');
    if (document['format'] !== PROFILE_FORMAT) return failure(next, '/format', `The format must be "${PROFILE_FORMAT}".`);
    const parent = document['extends'];
    if (parent !== undefined && !idSchema.safeParse(parent).success)
      return failure(next, '/extends', 'It must be the id of another profile.');
    chain.push({ id: next, document });
    next = parent as string | undefined;
  }
  const unknown = chain.flatMap((source) => unknownRemovals(source));
  if (unknown.length > 0) return { ok: false, problems: unknown };
  const parsed = profileSchema.safeParse(mergeChain(chain));
  if (parsed.success) return { ok: true, resolved: { id, profile: parsed.data, chain } };
  return { ok: false, problems: parsed.error.issues.flatMap((issue) => problemsOf(issue, chain)) };
}

/** The documents of a chain merged from the root down; what a profile has for itself comes from the first alone. */
export function mergeChain(chain: readonly ProfileSource[]): JsonObject {
  let merged: JsonObject = {};
  for (let i = chain.length - 1; i >= 0; i--) {
    const inherited = { ...merged };
    for (const key of OWN_KEYS) delete inherited[key];
    merged = mergePatch(inherited, chain[i]!.document) as JsonObject;
  }
  return merged;
}

/**
 * Validates house limits.
 *
 * @param document the document as it is written
 * @param name what to call it in a problem
 */
export function readHouseLimits(
  document: Json,
  name = 'house-limits',
): { ok: true; house: HouseLimits } | { ok: false; problems: Problem[] } {
  const parsed = houseLimitsSchema.safeParse(document);
  if (parsed.success) return { ok: true, house: parsed.data };
  return {
    ok: false,
    problems: parsed.error.issues.flatMap((issue) => problemsOf(issue, [{ id: name, document: isObject(document) ? document : {} }])),
  };
}

/**
 * Which profile of a chain a setting comes from: the nearest whose own document says anything at the pointer, above it or below it.
 *
 * @returns the profile's id, or undefined where the setting is a default that no profile mentions
 */
export function originOf(chain: readonly ProfileSource[], pointer: string): string | undefined {
  const keys = fromPointer(pointer);
  return chain.find(({ document }) => mentions(document, keys))?.id;
}

function mentions(document: Json, keys: string[]): boolean {
  let value: Json | undefined = document;
  for (const key of keys) {
    if (!isObject(value)) return true;
    if (!Object.hasOwn(value, key)) return false;
    value = value[key];
  }
  return true;
}

function failure(profile: string, pointer: string, message: string): Resolution {
  return { ok: false, problems: [{ profile, pointer, message }] };
}

/** Says a validation issue at the document that holds the value, one problem for each unknown key. */
function problemsOf(issue: z.core.$ZodIssue, chain: ProfileSource[]): Problem[] {
  const path = issue.path.map(String);
  const at = (keys: string[], message: string): Problem => {
    const owner = chain.find(({ document }) => mentions(document, keys)) ?? chain[0]!;
    return { profile: owner.id, pointer: toPointer(keys), message };
  };
  if (issue.code === 'unrecognized_keys') return issue.keys.map((key) => at([...path, key], `The key "${key}" is not known here.`));
  if (issue.code === 'invalid_union' && path[path.length - 1] === 'test')
    return [at(path, `The test must be one of ${testsAt(path).join(', ')}.`)];
  if (issue.code === 'invalid_key') return [at(path, issue.issues.map(({ message }) => sentence(message)).join(' '))];
  return [at(path, sentence(issue.message))];
}

/** The tests that may stand at a path that ends in "test". */
function testsAt(path: readonly string[]): readonly string[] {
  const isOfStyle = path[path.length - 3] === 'properties';
  return isOfStyle ? styleTestSchema.options.map((option) => option.shape.test.value) : ATTRIBUTE_TESTS;
}

function sentence(message: string): string {
  const text = message.charAt(0).toUpperCase() + message.slice(1);
  return text.endsWith('.') ? text : `${text}.`;
}

/** A key that a profile sets to null vanishes when it is merged, so a misspelled one would never be seen by validation. */
function unknownRemovals({ id, document }: ProfileSource): Problem[] {
  const problems: Problem[] = [];
  const visit = (value: JsonObject, schema: unknown, keys: string[]): void => {
    for (const key of Object.keys(value)) {
      const child = value[key]!;
      const inner = childSchema(schema, key);
      if (inner === 'unknown') {
        if (child === null)
          problems.push({ profile: id, pointer: toPointer([...keys, key]), message: `The key "${key}" is not known here.` });
      } else if (isObject(child)) visit(child, inner, [...keys, key]);
    }
  };
  visit(document, profileSchema, []);
  return problems;
}

/** The schema of a key's value; 'unknown' where an object schema has no such key; undefined where anything may stand. */
function childSchema(schema: unknown, key: string): unknown {
  let inner = schema;
  while (inner instanceof z.ZodDefault || inner instanceof z.ZodOptional || inner instanceof z.ZodPrefault) inner = inner.unwrap();
  if (inner instanceof z.ZodObject) {
    const shape = inner.shape as Record<string, unknown>;
    return Object.hasOwn(shape, key) ? shape[key] : 'unknown';
  }
  if (inner instanceof z.ZodRecord) return inner.valueType;
  return undefined;
}
