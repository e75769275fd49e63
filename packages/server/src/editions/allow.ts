import {
  compileRules,
  groupEntries,
  patched,
  patchToKeep,
  reachOf,
  type CompiledRules,
  type CompileOptions,
  type JsonObject,
  type ResolvedProfile,
} from '@typikon/core';

/** A text that a change takes something of. */
export interface TakenText {
  value: string;
  role: string;
}

/** What a draft would have to allow beside, so that it takes less of texts. */
export interface Allowed {
  /** The draft's own document with it. */
  document: JsonObject;
  /** What it allows, in words that follow "Allow"; nothing where nothing would help. */
  allows: string[];
  /** How many texts keep by it what they had, and of how many no rule of this profile can keep it. */
  kept: number;
  left: number;
}

/** What so many changes did not keep in one text is not kept. */
const MOST_STEPS = 20;

/**
 * Finds the smallest rules by which a draft takes no more what it takes of texts for one reason: exact values and ranges, text by text.
 *
 * @param key of the group of entries, as a ledger is grouped
 * @param from the rules of the edition, by role
 * @param above what stands above the draft, by role
 */
export function allowFor(
  texts: readonly TakenText[],
  key: string,
  draft: ResolvedProfile,
  from: (role: string) => CompiledRules,
  above: (role: string) => CompileOptions,
): Allowed {
  let [current, kept, left] = [draft, 0, 0];
  const allows = new Set<string>();
  let rules = new Map<string, CompiledRules>();
  for (const { value, role } of texts) {
    for (let steps = 0; ; steps++) {
      let to = rules.get(role);
      if (to === undefined) rules.set(role, (to = compileRules(current, above(role))));
      const taken = (reachOf(value, from(role), to)?.entries ?? []).filter((entry) => groupEntries([entry])[0]?.key === key);
      if (taken.length === 0) {
        kept++;
        break;
      }
      const keeping = steps < MOST_STEPS ? patchToKeep(taken, current, value, above(role)) : null;
      const next = keeping === null ? null : patched(current, keeping.patch);
      if (keeping === null || next === null) {
        left++;
        break;
      }
      allows.add(keeping.label);
      current = next;
      rules = new Map();
    }
  }
  return { document: current.chain[0]!.document, allows: [...allows], kept, left };
}
