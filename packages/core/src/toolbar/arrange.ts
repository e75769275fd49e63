import type { Toolbar } from '../profile/toolbar-schema';
import type { ButtonId } from '../profile/button-ids';

/** A group of the toolbar as authors see it. */
export interface ArrangedGroup {
  id: string;
  label: string;
  buttons: readonly ButtonId[];
  /** Whether it begins a row of its own. */
  newRow: boolean;
  /** Whether it is always under “More”. */
  inMore: boolean;
}

type Lists = Map<string, ButtonId[]>;
export type ToolbarChanges = Toolbar['changes'];

/**
 * Works out the toolbar: the groups in order, with the changes to single buttons worked in. A button that is to stand
 * behind one which is not there comes last in its group. No button is there twice; the first place counts.
 */
export function arrangeToolbar({ order, groups, changes }: Pick<Toolbar, 'order' | 'groups' | 'changes'>): ArrangedGroup[] {
  const known = order.filter((id, index) => Object.hasOwn(groups, id) && order.indexOf(id) === index);
  const seen = new Set<ButtonId>();
  const lists: Lists = new Map(
    known.map((id) => [
      id,
      groups[id]!.buttons.filter((button) => {
        const isFirst = !seen.has(button) && changes[button] === undefined;
        seen.add(button);
        return isFirst;
      }),
    ]),
  );
  let waiting = (Object.entries(changes) as [ButtonId, NonNullable<ToolbarChanges[ButtonId]>][]).filter(
    ([, { group, place }]) => place !== 'off' && group !== undefined && lists.has(group),
  );
  for (;;) {
    const next = waiting.filter(([button, { group, place }]) => !insert(lists.get(group!)!, button, place, waiting));
    if (next.length === waiting.length) break;
    waiting = next;
  }
  for (const [button, { group }] of waiting) lists.get(group!)!.push(button);
  return known.map((id) => ({
    id,
    label: groups[id]!.label,
    buttons: lists.get(id)!,
    newRow: groups[id]!.newRow ?? false,
    inMore: groups[id]!.inMore ?? false,
  }));
}

function insert(list: ButtonId[], button: ButtonId, place: string, waiting: readonly [ButtonId, unknown][]): boolean {
  if (place === 'first') list.unshift(button);
  else {
    const at = list.indexOf(place as ButtonId);
    if (at === -1) {
      // It may still come; where it never does, the button comes last.
      if (waiting.some(([other]) => other === place)) return false;
      list.push(button);
      return true;
    }
    list.splice(at + 1, 0, button);
  }
  return true;
}

/**
 * The smallest changes to single buttons that turn the groups' own lists into wanted ones. Buttons that keep their order
 * stay as they are and go on following the groups.
 *
 * @param toolbar the groups, whose own lists are the begin
 * @param wanted the buttons of each group that are to be shown
 */
export function changesToArrange(
  { order, groups }: Pick<Toolbar, 'order' | 'groups'>,
  wanted: ReadonlyMap<string, readonly ButtonId[]>,
): ToolbarChanges {
  const changes: ToolbarChanges = {};
  const kept = new Set<ButtonId>();
  const seen = new Set<ButtonId>();
  for (const id of order) {
    const own = (groups[id]?.buttons ?? []).filter((button) => !seen.has(button));
    for (const button of own) seen.add(button);
    for (const button of longestCommon(own, wanted.get(id) ?? [])) kept.add(button);
  }
  for (const [group, buttons] of wanted)
    buttons.forEach((button, index) => {
      if (!kept.has(button)) changes[button] = { group, place: index === 0 ? 'first' : buttons[index - 1]! };
    });
  const shown = new Set([...wanted.values()].flat());
  for (const button of seen) if (!shown.has(button)) changes[button] = { place: 'off' };
  return changes;
}

/** The longest list that stands in both in the same order. */
function longestCommon(one: readonly ButtonId[], other: readonly ButtonId[]): ButtonId[] {
  const lengths = Array.from({ length: one.length + 1 }, () => new Array<number>(other.length + 1).fill(0));
  for (let i = one.length - 1; i >= 0; i--)
    for (let j = other.length - 1; j >= 0; j--)
      lengths[i]![j] = one[i] === other[j] ? lengths[i + 1]![j + 1]! + 1 : Math.max(lengths[i + 1]![j]!, lengths[i]![j + 1]!);
  const common: ButtonId[] = [];
  for (let i = 0, j = 0; i < one.length && j < other.length;) {
    if (one[i] === other[j]) {
      common.push(one[i]!);
      i++;
      j++;
    } else if (lengths[i + 1]![j]! >= lengths[i]![j + 1]!) i++;
    else j++;
  }
  return common;
}
