import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  idSchema,
  pageKindSchema,
  parseFragment,
  readHouseLimits,
  resolveProfile,
  siteSchema,
  specimenSchema,
  stylesheetSchema,
  takeCensus,
  type Json,
  type JsonObject,
} from '@typikon/core';
import type { CreationAttributes, Sequelize } from 'sequelize';
import * as z from 'zod';
import {
  AssetModel,
  DocumentModel,
  DraftHistoryModel,
  PageKindModel,
  ProfileModel,
  SettingHistoryModel,
  SettingModel,
  SpecimenModel,
  StylesheetHistoryModel,
  StylesheetModel,
} from '../db/models';
import { storeSite } from '../site/repository';
import { compose, USUAL_COUNT } from './compose';
import { DEMO_PICTURES, drawPicture } from './pictures';

const PROFILES = ['house', 'story-desk', 'notices-desk', 'ferry-note', 'tender-desk', 'diary', 'reply'];

/** So many documents are stored with one question. */
const AT_ONCE = 200;

const censusOf = (html: string) => takeCensus(parseFragment(html).root);

/** Names that no dictionary has. */
const SITE_WORDS = ['Brackwater', 'Dunlin', 'Marram', 'Orrenstrand', 'Saltmarrow', 'Sallow', 'Tansy', 'Thornholm'];

/** Specimens as they are listed: the text of each clipboard type stands in a file of its own. */
const specimenFile = z.array(
  specimenSchema.omit({ format: true, payload: true }).extend({ id: idSchema, types: z.record(z.string(), z.string().regex(/^[\w.-]+$/)) }),
);
/** Stylesheets as they are listed: each text stands in a file of its own. */
const sheetFile = z.array(stylesheetSchema.omit({ css: true }));
const documentFile = z.array(
  z.strictObject({ id: idSchema, title: z.string(), contentType: z.string(), profile: idSchema, pageKind: idSchema, file: z.string() }),
);

/**
 * Reads the demo scenario into an empty database, all of it or nothing.
 *
 * @param folder the demo folder
 * @param composed how many documents there are beside those that stand in the folder
 * @returns whether anything was done; a database that has profiles is left as it is
 */
export async function seedDemo(sequelize: Sequelize, folder: string, composed = USUAL_COUNT): Promise<boolean> {
  if ((await ProfileModel.count()) > 0) return false;
  const text = (...path: string[]) => readFile(join(folder, ...path), 'utf8');
  const json = async (...path: string[]) => JSON.parse(await text(...path)) as Json;

  const documents = new Map<string, JsonObject>();
  for (const id of PROFILES) documents.set(id, (await json('profiles', `${id}.json`)) as JsonObject);
  for (const id of PROFILES) {
    const resolution = resolveProfile(id, (other) => documents.get(other));
    if (!resolution.ok)
      throw new Error(`demo/profiles/${id}.json: ${resolution.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join(' ')}`);
  }
  const house = (await json('house-limits.json')) as JsonObject;
  const limits = readHouseLimits(house);
  if (!limits.ok)
    throw new Error(`demo/house-limits.json: ${limits.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join(' ')}`);
  const site = siteSchema.parse(await json('site.json'));
  const pageKinds = z.array(pageKindSchema).parse(await json('page-kinds.json'));
  const sheets = sheetFile.parse(await json('stylesheets.json'));
  const specimens = specimenFile.parse(await json('specimens.json'));
  const pages = documentFile.parse(await json('documents.json'));

  const pictures = await Promise.all(DEMO_PICTURES.map(async (picture) => ({ ...picture, ...(await drawPicture(picture)) })));

  const rows: CreationAttributes<DocumentModel>[] = [];
  await sequelize.transaction(async (transaction) => {
    const options = { transaction };
    for (const [id, document] of documents) {
      await ProfileModel.create({ id, document }, options);
      await DraftHistoryModel.create({ profileId: id, revision: 1, document }, options);
    }
    await SettingModel.create({ name: 'house-limits', value: house }, options);
    await SettingHistoryModel.create({ name: 'house-limits', revision: 1, value: house }, options);
    await SettingModel.create({ name: 'site-dictionary', value: SITE_WORDS }, options);
    for (const { title, folder, alt, widthPx, heightPx, type, bytes } of pictures)
      await AssetModel.create({ name: title, title, folder, alt, widthPx, heightPx, type, bytes }, options);
    for (const definition of pageKinds) await PageKindModel.create({ id: definition.id, definition }, options);
    await storeSite(site, 1, transaction);
    for (const sheet of sheets) {
      const css = await text('stylesheets', `${sheet.id}.css`);
      await StylesheetModel.create({ ...sheet, css }, options);
      await StylesheetHistoryModel.create({ stylesheetId: sheet.id, revision: 1, css }, options);
    }
    for (const { id, profile, types, name, kind, notes, arrives, expectations } of specimens) {
      const texts: Record<string, string> = {};
      for (const [type, file] of Object.entries(types)) texts[type] = await text('specimens', file);
      const payload = { types: texts };
      await SpecimenModel.create({ id, name, kind, notes, profileId: profile, arrives, payload, expectations }, options);
    }
    for (const { id, title, contentType, profile, pageKind, file } of pages) {
      const html = await text('documents', file);
      rows.push({ id, title, contentType, profileId: profile, pageKindId: pageKind, html, census: censusOf(html) });
    }
    for (const { profile, pageKind, ...rest } of compose(composed))
      rows.push({ ...rest, profileId: profile, pageKindId: pageKind, census: censusOf(rest.html) });
    for (let at = 0; at < rows.length; at += AT_ONCE) await DocumentModel.bulkCreate(rows.slice(at, at + AT_ONCE), options);
  });
  return true;
}
