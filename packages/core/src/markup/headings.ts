import { FragmentNode, type ParentNode } from '../html/node';
import { visibleLetters } from '../html/text';
import { nearestLevel } from './compile';
import type { CompiledElement, CompiledRules } from './compiled';

const HEADING = /^h([1-6])$/;

/**
 * What becomes of each heading under the profile's policy for headings; an element that the policy does not touch is not in it.
 * Rules that say of a level that it goes with its content or is shown as text stand.
 *
 * @param root the tree whose highest heading decides how far all are shifted
 */
export function headingRules(root: ParentNode, rules: CompiledRules): ReadonlyMap<string, CompiledElement> {
  const { headings } = rules;
  const found = new Map<string, CompiledElement>();
  if (headings === null) return found;
  const shift = headings.others === 'shift' ? shiftOf(root, rules) : 0;
  for (let level = 1; level <= 6; level++) {
    const name = `h${level}`;
    const own = rules.element(name);
    if (own.outcome === 'drop' || own.outcome === 'text') continue;
    const moved = Math.min(6, Math.max(1, level + shift));
    const isKept = headings.levels.includes(moved);
    const target = headings.others === 'paragraph' ? (isKept ? name : 'p') : `h${isKept ? moved : nearestLevel(headings.levels, moved)}`;
    if (target !== name) found.set(name, { ...rules.element(target), by: headings.by, reason: 'heading-level' });
    else if (own.name !== name) found.set(name, { ...rules.element(target), by: headings.by });
  }
  return found;
}

/** By how many levels all headings move so that the highest stands at the top that the policy names. */
export function shiftOf(root: ParentNode, rules: CompiledRules): number {
  const { headings } = rules;
  if (headings === null || headings.others !== 'shift') return 0;
  const dropsEmpty = rules.element(`h${headings.top}`).demands?.empty?.outcome === 'remove';
  let highest = 7;
  const stack: ParentNode[] = [root];
  for (let node = stack.pop(); node !== undefined && highest > 1; node = stack.pop())
    for (const child of node.children) {
      if (child.type !== 'element') continue;
      const { outcome } = rules.element(child.name);
      if (outcome === 'drop') continue;
      const level = HEADING.exec(child.name);
      // An empty heading that is about to go does not count.
      if (level !== null && outcome !== 'text' && !(dropsEmpty && visibleLetters(child) === 0))
        highest = Math.min(highest, Number(level[1]));
      if (child.children.length > 0) stack.push(child);
    }
  return highest === 7 ? 0 : headings.top - highest;
}

/** What the policy makes of a heading where that is the same in every document; null where it does nothing, or depends on the others. */
export function headingTarget(name: string, rules: CompiledRules): string | null {
  if (rules.headings === null || rules.headings.others === 'shift') return null;
  const target = headingRules(new FragmentNode(), rules).get(name)?.name;
  return target === undefined || target === name ? null : target;
}
