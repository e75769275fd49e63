import { PERSON_HEADER, RIGHT } from '@typikon/api';
import type { Person, Right, Site } from '@typikon/core';
import type { Context } from 'hono';
import { problem } from '../problem';

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

/** A route of the contract, as far as rights are concerned. */
interface Guarded {
  [RIGHT]: Right;
}

const WORDS: Readonly<Record<Right, string>> = {
  read: 'look at this',
  write: 'write content',
  design: 'change how content is written',
  administer: 'say what there is to write and who writes it',
};

/**
 * Refuses a request whose person may not make it.
 *
 * @returns the refusal; null where the request may go on
 */
export function refusalOf(context: Context, { [RIGHT]: right }: Guarded, site: Site): Response | null {
  const named = context.req.header(PERSON_HEADER);
  const acting = actingPerson(site, named);
  if (acting === undefined) return problem(context, 403, `There is nobody called "${named}" here. Choose who acts, and try again.`);
  if (acting === null || acting.rights.has(right)) return null;
  return problem(context, 403, `${acting.label} may not ${WORDS[right]}: none of their roles has the right "${right}".`);
}
