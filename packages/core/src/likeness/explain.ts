import type { Contender, Reason } from '../css/cascade';
import type { Style } from '../css/computed';
import type { ElementNode } from '../html/node';
import type { CauseKind, Side } from './cause';
import { sameText, type Origin } from './compare';
import type { Scene } from './context';

/** Why the declarations of an element differ. */
export interface Explanation {
  kind: Exclude<CauseKind, 'inherited' | 'does-not-fit'>;
  side: Side;
  rule: Contender | null;
  instead: Contender | null;
  reason: Reason | null;
  lack: 'file' | 'rule' | 'surroundings' | null;
  condition: string;
}

export interface Scenes {
  editor: Scene;
  page: Scene;
  /** Whether a sheet is only for editing: it restyles what the page has, and is never part of the page. */
  isEditing(sheet: string): boolean;
}

/**
 * Explains a difference at its origin: which rule is not there, loses, or waits for a condition.
 *
 * @param elements the origin's element in both settings
 */
export function explain({ one, other, property }: Origin, elements: readonly [ElementNode, ElementNode], scenes: Scenes): Explanation {
  const a = authorOf(one, property);
  const b = authorOf(other, property);
  const base = { reason: null, lack: null, condition: '' } as const;

  // The rule that decides in the editor is on the page too, and loses.
  const losesOnPage = a === null || b === null ? null : counterpart(a, other, property, b);
  if (a !== null && b !== null && losesOnPage !== null)
    return {
      ...base,
      kind: 'outweighed',
      side: 'page',
      rule: losesOnPage,
      instead: b,
      reason: scenes.page.styles.cascade.decide(b, losesOnPage).reason,
    };
  for (const [side, wanted, instead, place] of [
    ['page', a, b, 1],
    ['editor', b, a, 0],
  ] as const) {
    if (wanted === null) continue;
    const scene = scenes[side];
    const waiting = scene.styles.cascade.wouldDeclare(elements[place]).find((dormant) => isSameRule(dormant, wanted));
    if (waiting !== undefined) return { ...base, kind: 'condition', side, rule: waiting, instead, condition: waiting.off };
  }
  // The page's rule is in the editor too, and loses there to one that the page does not have.
  const losesInEditor = a === null || b === null ? null : counterpart(b, one, property, a);
  if (a !== null && b !== null && (losesInEditor !== null || scenes.isEditing(a.sheet)) && isOnlyForEditing(a, scenes))
    return {
      ...base,
      kind: 'only-in-editor',
      side: 'page',
      rule: a,
      instead: b,
      reason: losesInEditor === null ? null : scenes.editor.styles.cascade.decide(a, losesInEditor).reason,
    };
  if (a !== null && scenes.isEditing(a.sheet)) return { ...base, kind: 'only-in-editor', side: 'page', rule: a, instead: b };
  if (a !== null && b !== null && losesInEditor !== null && hasSheet(scenes.page, a.sheet))
    return {
      ...base,
      kind: 'outweighed',
      side: 'editor',
      rule: losesInEditor,
      instead: a,
      reason: scenes.editor.styles.cascade.decide(a, losesInEditor).reason,
    };
  const [side, rule, instead]: [Side, Contender | null, Contender | null] = a !== null ? ['page', a, b] : ['editor', b, a];
  return { ...base, kind: 'no-rule', side, rule, instead, lack: rule === null ? null : lackOf(rule, scenes[side]) };
}

function lackOf(rule: Contender, scene: Scene): Explanation['lack'] {
  if (scene.styles.cascade.has(rule)) return 'surroundings';
  return hasSheet(scene, rule.sheet) ? 'rule' : 'file';
}

const hasSheet = ({ setting }: Scene, sheet: string): boolean => setting.sheets.some(({ name }) => name === sheet);

/** A sheet that the page does not load, whose rule restyles what the page styles, by the element's name alone. */
function isOnlyForEditing(rule: Contender, scenes: Scenes): boolean {
  if (scenes.isEditing(rule.sheet)) return true;
  return !hasSheet(scenes.page, rule.sheet) && !/[.#[]/.test(rule.selector);
}

/** What an author's rule, the style attribute or an old attribute says; null where only the browser decides. */
function authorOf(style: Style, property: string): Contender | null {
  const { contender, isBrowser } = style.source(property);
  return isBrowser ? null : contender;
}

export const isSameRule = (one: Contender, other: Contender): boolean =>
  one.sheet === other.sheet && one.selector === other.selector && one.line === other.line;

/** The same declaration among those that lose in another setting: the very rule, its copy in another file, or its like. */
function counterpart(wanted: Contender, style: Style, property: string, winner: Contender): Contender | null {
  const losers = style.contests.get(property)?.losers.filter((loser) => !isSameRule(loser, winner)) ?? [];
  return (
    losers.find((loser) => isSameRule(loser, wanted)) ??
    losers.find((loser) => sameText(loser.selector, wanted.selector) && sameText(loser.value, wanted.value)) ??
    (wanted.selector === '' ? undefined : losers.find((loser) => sameText(loser.selector, wanted.selector))) ??
    losers.find((loser) => sameText(loser.value, wanted.value) && loser.selector !== '') ??
    null
  );
}
