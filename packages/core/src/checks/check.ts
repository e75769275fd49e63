import type { StyledPage } from '../likeness/styled';
import type { CompiledRules } from '../markup/compiled';
import type { JsonObject } from '../profile/merge-patch';
import type { ResolvedProfile } from '../profile/resolve';
import type { AttributeTest, ElementRule, HouseLimits } from '../profile/schema';

/** One result of a check: what is wrong, where, and a fix where one is safe. */
export interface Finding {
  check: string;
  severity: 'error' | 'warning' | 'note';
  /** What it means for the author's content, in a sentence. */
  sentence: string;
  /** JSON Pointer into the resolved profile. */
  pointer: string;
  fix?: {
    label: string;
    /** A merge patch (RFC 7396) for the profile's own document. */
    patch: JsonObject;
  };
}

/** What stands around a profile; a check that needs what is not given finds nothing. */
export interface Surroundings {
  house?: HouseLimits;
  /** The classes that the stylesheets of the profile's page kind name. */
  stylesheetClasses?: ReadonlySet<string>;
  /** What the stored documents hold. */
  documents?: DocumentNeeds;
  /** The kinds of page on which content of the profile is published. */
  pages?: readonly StyledPage[];
  /** How many elements of the profile's stored documents have each class. */
  storedClasses?: Readonly<Record<string, number>>;
}

/** The most that any stored document has of what rules can limit. */
export interface DocumentNeeds {
  nesting: number;
  elements: number;
  letters: number;
}

export interface CheckContext extends Surroundings {
  resolved: ResolvedProfile;
  rules: CompiledRules;
}

/** A test of a profile against itself and its surroundings. */
export interface Check {
  id: string;
  /** What it looks for, in a sentence. */
  purpose: string;
  run(context: CheckContext): Finding[];
}

/** The elements that the profile's rules keep under their own name, whatever stands above it. */
export function keptRules({ resolved }: CheckContext): [name: string, rule: ElementRule][] {
  return Object.entries(resolved.profile.markup.elements).filter(([, { outcome }]) => (outcome ?? 'keep') === 'keep');
}

/** Every attribute test of the elements that are kept, with the keys that lead to it; those for all elements come first, without an element. */
export function attributeTests(
  context: CheckContext,
): { element: string | null; attribute: string; test: AttributeTest; keys: string[] }[] {
  const general = Object.entries(context.resolved.profile.markup.attributes).map(([attribute, test]) => ({
    element: null,
    attribute,
    test,
    keys: ['markup', 'attributes', attribute],
  }));
  const own = keptRules(context).flatMap(([element, { attributes = {} }]) =>
    Object.entries(attributes).map(([attribute, test]) => ({
      element,
      attribute,
      test,
      keys: ['markup', 'elements', element, 'attributes', attribute],
    })),
  );
  return [...general, ...own];
}

/** "class on p", or "class on any element". */
export function attributeName(element: string | null, attribute: string): string {
  return `${attribute} on ${element ?? 'any element'}`;
}

/** A merge patch that has a value at a path. */
export function patchAt(keys: readonly string[], value: JsonObject[string]): JsonObject {
  return keys.reduceRight<JsonObject[string]>((inner, key) => ({ [key]: inner }), value) as JsonObject;
}
