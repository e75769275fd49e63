import { ELEMENT_CATALOGUE, houseUse, riskOfElement, SAFETY_FLOOR, toPointer, type HouseLimits, type Markup } from '@typikon/core';
import type { RuleGroup, RuleRow } from '../../shared/rules/rule-table';
import type { Role } from '../../state/types';

const FLOOR: ReadonlySet<string> = new Set([...SAFETY_FLOOR.elements.drop, ...SAFETY_FLOOR.elements.unwrap]);

/** How a role stands to an element: bound like everybody, excepted from its rule, from a part of it, or by a wider exception. */
export type Standing = 'bound' | 'excepted' | 'partly' | 'widely' | 'everybody';

export interface HouseRow extends RuleRow {
  /** The names of the profiles that keep it. */
  users: readonly string[];
  /** The attributes that the house limits allow on it and no profile keeps; empty for an element that no profile keeps. */
  unusedAttributes: readonly string[];
  isUnused: boolean;
  roles: readonly { id: string; name: string; standing: Standing }[];
}

/** The rows of the house limits, by meaning, with what each role and each profile makes of them. */
export function houseGroups(
  house: HouseLimits,
  profiles: readonly { id: string; name: string; markup: Markup }[],
  roles: readonly Role[],
): RuleGroup<HouseRow>[] {
  const { elements } = house.markup;
  const use = houseUse(house.markup, profiles);
  const names = new Map(profiles.map(({ id, name }) => [id, name]));
  const known = new Set(ELEMENT_CATALOGUE.flatMap((group) => group.elements.map(({ name }) => name)));
  const row = ({ name, meaning }: { name: string; meaning: string }): HouseRow => {
    const rule = Object.hasOwn(elements, name) ? elements[name] : undefined;
    const isFixed = FLOOR.has(name);
    const isAllowed = !isFixed && rule !== undefined && (rule.outcome ?? 'keep') === 'keep';
    const users = (use.get(name)?.profiles ?? []).map((id) => names.get(id) ?? id);
    const attributes = isAllowed ? Object.keys(rule.attributes ?? {}) : [];
    return {
      name,
      meaning,
      isAllowed,
      isFixed,
      risk: riskOfElement(name),
      attributes,
      summary: isFixed
        ? 'always goes: the safety floor'
        : isAllowed
          ? attributes.length === 0
            ? 'without attributes of its own'
            : ''
          : 'goes',
      users,
      isUnused: isAllowed && users.length === 0,
      unusedAttributes: users.length === 0 ? [] : attributes.filter((attribute) => use.get(name)?.attributes[attribute]?.length === 0),
      roles: roles.map(({ id, name: label }) => ({
        id,
        name: label,
        standing: isAllowed ? 'everybody' : standingOf(toPointer(['elements', name]), house.trustedRoles[id]?.except ?? []),
      })),
    };
  };
  const others = Object.keys(elements)
    .filter((name) => !known.has(name))
    .sort();
  return [
    ...ELEMENT_CATALOGUE.map(({ id, name, gloss, elements: of }) => ({ id, name, gloss, rows: of.map(row) })),
    ...(others.length === 0
      ? []
      : [
          {
            id: 'others',
            name: 'Other names',
            gloss: 'not elements of HTML',
            rows: others.map((name) => row({ name, meaning: 'not an element of HTML' })),
          },
        ]),
  ];
}

function standingOf(pointer: string, exceptions: readonly string[]): Standing {
  if (exceptions.includes(pointer)) return 'excepted';
  if (exceptions.some((exception) => pointer.startsWith(`${exception}/`))) return 'widely';
  return exceptions.some((exception) => exception.startsWith(`${pointer}/`)) ? 'partly' : 'bound';
}
