import type { LedgerEntry } from '../ledger/entry';
import { isElementAsSuch } from '../ledger/subject';
import { FragmentNode } from '../html/node';
import { compileRules } from '../markup/compile';
import { headingRules } from '../markup/headings';
import { patched, patchToKeep } from '../markup/keep';
import { mergePatch, type JsonObject } from '../profile/merge-patch';
import { PASS_IDS, type PassId } from '../profile/paste-schema';
import type { ResolvedProfile } from '../profile/resolve';
import { takeInventory, type Thing } from './inventory';
import type { ClipboardPayload } from './payload';
import { runPaste, type PasteOptions } from './run';

/** A change of a profile that keeps something of a paste, or takes it away, from now on. */
export interface FromNowOn {
  /** A merge patch (RFC 7396) for the profile's own document. */
  patch: JsonObject;
  /** The passes whose settings change. */
  passes: PassId[];
  /** Whether the markup rules change, too. */
  changesRules: boolean;
}

/**
 * Works out how a thing that is left of a paste is taken away from now on: the right setting of the right pass.
 *
 * @returns the change, or null where no pass takes such a thing
 */
export function dropFromNowOn({ kind, name }: Pick<Thing, 'kind' | 'name'>, resolved: ResolvedProfile): FromNowOn | null {
  const { passes } = resolved.profile.paste;
  switch (kind) {
    case 'element': {
      const names = namesOf(name, resolved);
      const { unwrap, only } = passes.elements;
      return change({
        elements: {
          on: true,
          unwrap: [...new Set([...unwrap, ...names])],
          ...(only === undefined ? {} : { only: only.filter((kept) => !names.includes(kept)) }),
        },
      });
    }
    case 'attribute':
      return change({
        elements: {
          on: true,
          attributes: added(passes.elements.attributes, name),
          ...without(passes.elements.onlyAttributes, 'onlyAttributes', name),
        },
      });
    case 'class':
      return change({
        classes: { on: true, drop: added(passes.classes.drop, name), keep: passes.classes.keep.filter((kept) => kept !== name) },
      });
    case 'style': {
      const { drop, keep } = passes['inline-style'];
      if (name.startsWith('-')) return change({ 'inline-style': { on: true, vendor: 'drop' } });
      return change({
        'inline-style': {
          on: true,
          keep: keep.filter((kept) => kept !== name),
          ...(drop === undefined ? {} : { drop: added(drop, name) }),
        },
      });
    }
    case 'hard-space':
      return change({ spaces: { on: true, hardSpaces: 'all' } });
    case 'empty-paragraph':
      return change({ spaces: { on: true, emptyParagraphs: 'remove' } });
    case 'link':
      return name === '' ? null : change({ links: { on: true, unwrapHosts: added(passes.links.unwrapHosts, name.toLowerCase()) } });
  }
}

/** An element, and those that the markup rules turn into it after the last pass. */
function namesOf(name: string, resolved: ResolvedProfile): string[] {
  const { elements } = resolved.profile.markup;
  const renamed = Object.entries(elements).flatMap(([from, rule]) => (rule.outcome === 'rename' && rule.to === name ? [from] : []));
  if (!/^h[1-6]$/.test(name)) return [name, ...renamed];
  const policy = headingRules(new FragmentNode(), compileRules(resolved));
  const levels = [1, 2, 3, 4, 5, 6].map((level) => `h${level}`).filter((level) => (policy.get(level)?.name ?? level) === name);
  return [...new Set([name, ...levels, ...renamed])];
}

/**
 * Works out how a thing that a paste loses is kept from now on, by the passes and by the markup rules after them. The change
 * is tried on the same paste: one that does not keep the thing is none.
 *
 * @returns the change, or null where no change of this profile keeps it
 */
export function keepFromNowOn(
  thing: Pick<Thing, 'kind' | 'name'>,
  payload: ClipboardPayload,
  resolved: ResolvedProfile,
  options: PasteOptions = {},
): FromNowOn | null {
  const own = passesThatKeep(thing, resolved);
  let patch: JsonObject = own === null ? {} : own.patch;
  let changesRules = false;
  const before = countOf(thing, runPaste(payload, resolved, options).html);
  // Each round lets one thing through that the rules hold back: the element, its attribute, the attribute's value.
  for (let round = 0; round < 4; round++) {
    const changed = patched(resolved, patch);
    if (changed === null) return null;
    const { html, ledger, input } = runPaste(payload, changed, { ...options, trace: 'counts' });
    if (countOf(thing, html) > before) return { patch, passes: own?.passes ?? [], changesRules };
    const held = ledger.filter((entry) => entry.stage !== 'paste' && isAbout(entry, thing));
    const first = held[0];
    if (first === undefined) return null;
    const keeping = patchToKeep(
      held.filter(({ rule, reason }) => rule === first.rule && reason === first.reason),
      changed,
      input,
      options,
    );
    if (keeping === null) return null;
    patch = mergePatch(patch, keeping.patch) as JsonObject;
    changesRules = true;
  }
  return null;
}

function passesThatKeep({ kind, name }: Pick<Thing, 'kind' | 'name'>, { profile }: ResolvedProfile): FromNowOn | null {
  const { passes } = profile.paste;
  const gone = (names: readonly string[]): string[] => names.filter((one) => one !== name);
  switch (kind) {
    case 'element': {
      const { unwrap, drop, only } = passes.elements;
      const isWrapper = passes.wrappers.elements.includes(name);
      return change({
        elements: { unwrap: gone(unwrap), drop: gone(drop), ...(only === undefined ? {} : { only: added(only, name) }) },
        ...(isWrapper ? { wrappers: { elements: gone(passes.wrappers.elements) } } : {}),
        ...(name === 'del' || name === 'ins' ? { 'office-leftovers': { deletions: 'keep' } } : {}),
      });
    }
    case 'attribute':
      return change({
        elements: {
          attributes: gone(passes.elements.attributes),
          ...(passes.elements.onlyAttributes === undefined ? {} : { onlyAttributes: added(passes.elements.onlyAttributes, name) }),
        },
        ...(/^(width|height|border|valign|align|bgcolor|cell\w+)$/.test(name) ? { tables: { sizes: 'keep' } } : {}),
        ...(name === 'lang' ? { 'office-leftovers': { languages: 'keep' } } : {}),
      });
    case 'class':
      return change({
        classes: {
          drop: gone(passes.classes.drop),
          keep: added(passes.classes.keep, name),
          ...(passes.classes.become === 'keep-styles' ? {} : { become: 'keep-named' }),
        },
      });
    case 'style': {
      const { drop, keep } = passes['inline-style'];
      if (name.startsWith('-')) return change({ 'inline-style': { vendor: 'keep' } });
      return change({ 'inline-style': drop === undefined ? { keep: added(keep, name) } : { drop: gone(drop) } });
    }
    case 'hard-space':
      return {
        ...change({ spaces: { hardSpaces: 'keep' } }),
        patch: { paste: { passes: { spaces: { hardSpaces: 'keep' } } }, markup: { text: { hardSpaces: 'keep' } } },
      };
    case 'empty-paragraph':
      return {
        ...change({ spaces: { emptyParagraphs: 'keep' } }),
        patch: { paste: { passes: { spaces: { emptyParagraphs: 'keep' } } }, markup: { text: { emptyParagraphs: 'keep' } } },
      };
    case 'link':
      return change({ links: { unwrapHosts: gone(passes.links.unwrapHosts) } });
  }
}

function change(settings: { [Id in PassId]?: JsonObject }): FromNowOn {
  return {
    patch: { paste: { passes: settings as JsonObject } },
    passes: PASS_IDS.filter((id) => settings[id] !== undefined),
    changesRules: false,
  };
}

function added(names: readonly string[], name: string): string[] {
  return names.includes(name) ? [...names] : [...names, name];
}

function without(names: readonly string[] | undefined, key: string, name: string): JsonObject {
  return names === undefined ? {} : { [key]: names.filter((kept) => kept !== name) };
}

function countOf({ kind, name }: Pick<Thing, 'kind' | 'name'>, html: string): number {
  return takeInventory(html).find((thing) => thing.kind === kind && thing.name === name)?.count ?? 0;
}

/** Whether the markup rules' entry is about the thing. */
function isAbout({ subject }: LedgerEntry, { kind, name }: Pick<Thing, 'kind' | 'name'>): boolean {
  switch (kind) {
    case 'element':
      return isElementAsSuch(subject) && subject.element === name;
    case 'attribute':
      return subject.attribute === name;
    case 'class':
      return subject.attribute === 'class' && subject.value?.split(/\s+/).includes(name) === true;
    case 'style':
      return subject.property === name || (subject.attribute === 'style' && subject.property === undefined);
    case 'link':
      return subject.attribute === 'href' || subject.element === 'a';
    default:
      return false;
  }
}
