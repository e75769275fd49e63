import { isSameJson, siteSchema, type JsonObject, type Site } from '@typikon/core';
import { ForeignKeyConstraintError, type Transaction } from 'sequelize';
import { SettingHistoryModel, SettingModel } from '../db/models';
import { placeFields } from '../documents/repository';
import { heldTypes, unknownNames } from './checks';
import { loadSite, storeSite } from './repository';

/** The setting that holds the draft, counts its saves, and whose history says who made them. */
export const SITE_DRAFT = 'site-draft';

/** What of the site has editions: what there is to write, and who writes it with what. Who has which right holds at once. */
export const writingOf = ({ types, assignments, fallback }: Site): JsonObject =>
  JSON.parse(JSON.stringify({ types, assignments, fallback })) as JsonObject;

/** What of the site is worked on; null where there is no site yet. */
export async function siteDraft(
  transaction: Transaction | undefined,
  isLocked: boolean,
): Promise<{ document: JsonObject; revision: number } | null> {
  const setting = await SettingModel.findByPk(SITE_DRAFT, {
    ...(transaction === undefined ? {} : { transaction }),
    ...(transaction === undefined || !isLocked ? {} : { lock: transaction.LOCK.UPDATE }),
  });
  if (setting !== null) return { document: setting.value as JsonObject, revision: setting.revision };
  const { site, revision } = await loadSite(transaction);
  return revision === 0 ? null : { document: writingOf(site), revision: 0 };
}

/** @returns the state of the draft then */
export async function saveSiteDraft(document: JsonObject, savedBy: string, transaction: Transaction): Promise<number> {
  const revision = ((await siteDraft(transaction, true))?.revision ?? 0) + 1;
  await SettingModel.upsert({ name: SITE_DRAFT, value: document, revision }, { transaction });
  await SettingHistoryModel.create({ name: SITE_DRAFT, revision, value: document, savedBy }, { transaction });
  return revision;
}

/** Puts an earlier state into the draft; what it names and is not there any more is said. */
export async function putSiteBack(
  document: JsonObject,
  _note: string,
  savedBy: string,
  transaction: Transaction,
): Promise<number | string> {
  const read = await wholeSite(document, transaction);
  return typeof read === 'string' ? read : saveSiteDraft(writingOf(read), savedBy, transaction);
}

/**
 * Makes what is released of the site hold.
 *
 * @returns why it cannot; empty where it does
 */
export async function applySite(document: JsonObject, transaction: Transaction): Promise<string> {
  const site = await wholeSite(document, transaction);
  if (typeof site === 'string') return site;
  const problems = await unknownNames(site, transaction);
  if (problems.length > 0) return problems.map(({ pointer, message }) => `${pointer}: ${message}.`).join(' ');
  const held = await heldTypes(site, transaction);
  if (held !== '') return held;
  const { site: live, revision } = await loadSite(transaction);
  if (isSameJson(writingOf(live), writingOf(site))) return '';
  try {
    await storeSite(site, revision + 1, transaction);
  } catch (error) {
    if (error instanceof ForeignKeyConstraintError)
      return 'Something that would go is still in use, or something that is named is not there any more.';
    throw error;
  }
  await placeFields(site, transaction);
  return '';
}

/** The site with roles and people as they are, and what is written as a document says it; or why the two do not fit. */
async function wholeSite(document: JsonObject, transaction: Transaction): Promise<Site | string> {
  const { site } = await loadSite(transaction);
  const read = siteSchema.safeParse({ ...site, ...document });
  return read.success ? read.data : read.error.issues.map(({ path, message }) => `/${path.join('/')}: ${message}.`).join(' ');
}
