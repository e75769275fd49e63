import { createHash } from 'node:crypto';
import { resolveProfile, type JsonObject } from '@typikon/core';
import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { ProfileEditionModel } from '../db/models';
import { pagesIn } from '../pages/draft';
import { lastShared } from './shared';

/** The documents that a profile's rules follow from: its own and those that it extends, from the nearest on. */
export type Chain = readonly { id: string; document: JsonObject }[];

const by = (transaction: Transaction | undefined) => (transaction === undefined ? {} : { transaction });

/**
 * Documents in a row from a profile to what it extends at last. It ends where one is missing or would come twice.
 *
 * @param documentOf undefined where there is none
 */
export function chainFrom(profile: string, documentOf: (id: string) => JsonObject | undefined): Chain {
  const chain: { id: string; document: JsonObject }[] = [];
  for (let at: unknown = profile; typeof at === 'string' && !chain.some(({ id }) => id === at);) {
    const document = documentOf(at);
    if (document === undefined) break;
    chain.push({ id: at, document });
    at = document['extends'];
  }
  return chain;
}

/** A profile with all that it inherits, as a chain says it. */
export const resolveChain = (chain: Chain): ReturnType<typeof resolveProfile> =>
  resolveProfile(chain[0]?.id ?? '', (id) => chain.find((link) => link.id === id)?.document);

/** Whether two chains say the same. */
export const isSameChain = (one: Chain, other: Chain): boolean => canonical(one) === canonical(other);

/** JSON whose keys are in order, so that the same says the same wherever it comes from. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_key, inner: unknown) =>
    typeof inner === 'object' && inner !== null && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([one], [other]) => (one < other ? -1 : 1)))
      : inner,
  );
}

/** The last edition of a profile; null where there is no such profile. */
export function lastEdition(profileId: string, transaction?: Transaction): Promise<ProfileEditionModel | null> {
  return ProfileEditionModel.findOne({ where: { profileId }, order: [['number', 'DESC']], ...by(transaction) });
}

/** An edition of a profile; null where there is none of this number. */
export function editionAt(profileId: string, number: number): Promise<ProfileEditionModel | null> {
  return ProfileEditionModel.findOne({ where: { profileId, number } });
}

/** The last edition of every profile behind one, by profile. */
export async function lastEditions(sequelize: Sequelize, after: string, limit: number): Promise<ProfileEditionModel[]> {
  const last = await sequelize.query<{ profileId: string; number: number }>(
    'SELECT profile_id AS profileId, MAX(number) AS number FROM profile_editions WHERE profile_id > ? GROUP BY profile_id ORDER BY profile_id LIMIT ?',
    { replacements: [after, limit], type: QueryTypes.SELECT },
  );
  if (last.length === 0) return [];
  return ProfileEditionModel.findAll({
    where: { [Op.or]: last.map(({ profileId, number }) => ({ profileId, number: Number(number) })) },
    order: [['profileId', 'ASC']],
  });
}

/** What all last editions are, in one text that changes when any profile is released, made or taken away. */
export async function stateOfEditions(): Promise<string> {
  const last = await ProfileEditionModel.findAll({
    attributes: ['profileId', [ProfileEditionModel.sequelize!.fn('MAX', ProfileEditionModel.sequelize!.col('number')), 'number']],
    group: ['profileId'],
    order: [['profileId', 'ASC']],
    raw: true,
  });
  return JSON.stringify(last.map(({ profileId, number }) => [profileId, number]));
}

const digest = (text: string): string => createHash('sha256').update(text).digest('hex');

/** Digests of all that an edition rests on: its resolved rules, the house limits and each stylesheet. */
export async function inputsOf(chain: Chain, transaction?: Transaction): Promise<Record<string, string>> {
  const resolution = resolveChain(chain);
  const house = await lastShared('house-limits', transaction);
  const { stylesheets: sheets } = pagesIn((await lastShared('pages', transaction))?.document ?? {});
  return {
    profile: digest(canonical(resolution.ok ? resolution.resolved.profile : chain)),
    'house-limits': digest(canonical(house?.document ?? null)),
    ...Object.fromEntries(sheets.map(({ id, css, media }) => [`stylesheets/${id}`, digest(`${media}\n${css}`)])),
  };
}

/** Makes the first edition of a profile that was just made: nobody has written with it yet. */
export async function storeFirst(profileId: string, chain: Chain, releasedBy: string, transaction: Transaction): Promise<void> {
  await ProfileEditionModel.create(
    {
      profileId,
      number: 1,
      chain: [...chain],
      fromRevision: 1,
      backTo: null,
      reach: null,
      inputs: await inputsOf(chain, transaction),
      releasedBy,
    },
    { transaction },
  );
}
