import { toPointer } from '../profile/pointer';
import { keptRules, type Check } from './check';

/** What each of these must stand in (HTML, "Contexts in which this element can be used"). */
const CONTEXTS: Readonly<Record<string, readonly string[]>> = {
  li: ['ul', 'ol', 'menu'],
  dt: ['dl'],
  dd: ['dl'],
  figcaption: ['figure'],
  caption: ['table'],
  colgroup: ['table'],
  col: ['table'],
  thead: ['table'],
  tbody: ['table'],
  tfoot: ['table'],
  tr: ['table'],
  td: ['tr'],
  th: ['tr'],
  summary: ['details'],
  legend: ['fieldset'],
  option: ['select', 'datalist'],
  optgroup: ['select'],
  source: ['picture', 'audio', 'video'],
  track: ['audio', 'video'],
  rt: ['ruby'],
  rp: ['ruby'],
};

/** Markup that is allowed and yet can never come to be: no button, style or paste can make it, for want of what it stands in. */
export const impossibleMarkup: Check = {
  id: 'impossible-markup',
  purpose: 'Finds allowed elements that no button, style or paste can produce, because what they must stand in is not allowed.',
  run(context) {
    const kept = new Set(keptRules(context).map(([name]) => name));
    return keptRules(context).flatMap(([name, { parents }]) => {
      const needed = CONTEXTS[name];
      const isLost = needed !== undefined && !needed.some((parent) => kept.has(parent));
      const isShutOut = parents !== undefined && !parents.some((parent) => kept.has(parent));
      if (!isLost && !isShutOut) return [];
      const where = isShutOut ? parents : needed!;
      return [
        {
          check: 'impossible-markup',
          severity: 'warning',
          sentence: `${name} is allowed, but not ${list(where)}, in which it must stand: no button, style or paste can make one that stays.`,
          pointer: toPointer(['markup', 'elements', name, ...(isShutOut ? ['parents'] : [])]),
          ...(isLost && !isShutOut
            ? { fix: { label: `Allow ${where[0]!}`, patch: { markup: { elements: { [where[0]!]: { outcome: 'keep', to: null } } } } } }
            : {}),
        },
      ];
    });
  },
};

function list(names: readonly string[]): string {
  return names.length === 1 ? names[0]! : `${names.slice(0, -1).join(', ')} or ${names.at(-1)!}`;
}
