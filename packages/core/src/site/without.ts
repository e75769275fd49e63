import type { Right, Site } from './schema';

/** A site without a content type, and without what statements say of it alone. */
export function withoutType(site: Site, id: string): Site {
  return { ...site, types: site.types.filter((type) => type.id !== id), assignments: lessOf(site.assignments, 'types', id) };
}

/** A site without a role: nobody has it any more, it approves nothing, and what statements say of it alone goes. */
export function withoutRole(site: Site, id: string): Site {
  return {
    ...site,
    roles: site.roles.filter((role) => role.id !== id),
    types: site.types.map((type) => ({ ...type, approvers: type.approvers.filter((role) => role !== id) })),
    people: site.people.map((person) => ({ ...person, roles: person.roles.filter((role) => role !== id) })),
    assignments: lessOf(site.assignments, 'roles', id),
  };
}

/** Whether nobody could change a site any more once it is saved. As long as nobody is known, whoever comes may. */
export const isLockedOut = ({ people, roles }: Site): boolean => {
  const administering = new Set(roles.filter(({ rights }) => rights.includes('administer' satisfies Right)).map(({ id }) => id));
  return people.length > 0 && !people.some((person) => person.roles.some((role) => administering.has(role)));
};

/** Statements that no longer name something; one that named nothing else goes. */
function lessOf(statements: Site['assignments'], of: 'types' | 'roles', id: string): Site['assignments'] {
  return statements.flatMap((statement) => {
    const named = statement[of];
    if (named === '*' || !named.includes(id)) return [statement];
    const left = named.filter((name) => name !== id);
    return left.length === 0 ? [] : [{ ...statement, [of]: left }];
  });
}
