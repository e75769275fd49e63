import { PERSON_HEADER } from '@typikon/api';
import type { Person, Right, Site } from '@typikon/core';
import type { Context } from 'hono';

/** Somebody in whose name a request is made. */
export interface Acting extends Person {
  rights: ReadonlySet<Right>;
}

/** A person with all that their roles let them do. */
export function actingAs(site: Site, person: Person): Acting {
  const rights = new Set(site.roles.filter(({ id }) => person.roles.includes(id)).flatMap((role) => role.rights));
  return { ...person, rights };
}

/**
 * Who acts. Until people sign in, a request says it; one that does not is made by the first who administers the site.
 *
 * @returns null where nobody is known yet, so that a new site can be set up; undefined where the one who is named is not there
 */
export function actingPerson(site: Site, named: string | undefined): Acting | null | undefined {
  if (site.people.length === 0) return null;
  const everybody = site.people.map((person) => actingAs(site, person));
  return named === undefined
    ? (everybody.find(({ rights }) => rights.has('administer')) ?? everybody[0])
    : everybody.find(({ id }) => id === named);
}

/** Who acts in a request, by id; empty for nobody known. */
export const idOfActing = (site: Site, context: Context): string => actingPerson(site, context.req.header(PERSON_HEADER))?.id ?? '';
