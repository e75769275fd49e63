import type { ElementRule, Markup } from '../profile/schema';

/** Which profiles use something that the house limits allow: by their ids, in the order given. */
export interface HouseUse {
  /** Those that keep the element. */
  profiles: readonly string[];
  /** For each attribute that the house limits allow on the element: those that keep it there. */
  attributes: Readonly<Record<string, readonly string[]>>;
}

const keeps = (rule: ElementRule | undefined): rule is ElementRule => rule !== undefined && (rule.outcome ?? 'keep') === 'keep';
const own = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined => (Object.hasOwn(record, key) ? record[key] : undefined);

/**
 * Tells, for every element that the house limits keep, which profiles keep it too, and with which of its attributes.
 *
 * @param house the markup rules of the house limits
 * @param profiles the markup rules of each profile, with those of its parents
 */
export function houseUse(house: Markup, profiles: readonly { id: string; markup: Markup }[]): ReadonlyMap<string, HouseUse> {
  const uses = new Map<string, HouseUse>();
  for (const [name, rule] of Object.entries(house.elements)) {
    if (!keeps(rule)) continue;
    const users = profiles.filter(({ markup }) => keeps(own(markup.elements, name)));
    const attributes: Record<string, string[]> = {};
    for (const attribute of Object.keys(rule.attributes ?? {}))
      attributes[attribute] = users
        .filter(
          ({ markup }) =>
            own(own(markup.elements, name)?.attributes ?? {}, attribute) !== undefined || own(markup.attributes, attribute) !== undefined,
        )
        .map(({ id }) => id);
    uses.set(name, { profiles: users.map(({ id }) => id), attributes });
  }
  return uses;
}
