import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  idSchema,
  pageKindSchema,
  readHouseLimits,
  resolveProfile,
  siteSchema,
  contentFiles,
  specimenSchema,
  stylesheetSchema,
  type Json,
  type JsonObject,
  withContent,
  type SpecimenDocument,
} from '@typikon/core';
import type { Sequelize } from 'sequelize';
import * as z from 'zod';
import {
  AssetModel,
  DraftHistoryModel,
  PageKindModel,
  ProfileModel,
  SettingModel,
  SpecimenModel,
  StylesheetHistoryModel,
  StylesheetModel,
} from '../db/models';
import { saveHouse } from '../editions/parts';
import { firstEdition } from '../editions/shared';
import { chainFrom, storeFirst } from '../editions/repository';
import { saveSiteDraft, writingOf } from '../site/draft';
import { storeSite } from '../site/repository';
import { USUAL_COUNT } from './compose';
import { historyFile, storeHistory } from './history';
import { DEMO_PICTURES, drawPicture } from './pictures';
import { COMPOSED, composedDocuments, storeDocuments, type Written } from './store';

const PROFILES = ['house', 'story-desk', 'notices-desk', 'ferry-note', 'tender-desk', 'diary', 'reply'];

/** Names that no dictionary has. */
const SITE_WORDS = ['Brackwater', 'Dunlin', 'Marram', 'Orrenstrand', 'Saltmarrow', 'Sallow', 'Tansy', 'Thornholm'];

/** Stylesheets as they are listed: each text stands in a file of its own. */
const sheetFile = z.array(stylesheetSchema.omit({ css: true }));
const documentFile = z.array(
  z.strictObject({
    id: idSchema,
    title: z.string(),
    type: idSchema,
    profile: idSchema,
    pageKind: idSchema,
    file: z.string(),
    changedBy: idSchema,
    changedAt: z.iso.datetime(),
  }),
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
  const specimens: SpecimenDocument[] = [];
  for (const id of z.array(idSchema).parse(await json('specimens', 'order.json'))) {
    const document = (await json('specimens', `${id}.specimen.json`)) as JsonObject;
    const files = new Map<string, string>();
    for (const name of contentFiles(document)) files.set(name, await text('specimens', name));
    specimens.push(specimenSchema.parse(withContent(document, (name) => files.get(name)!)));
  }
  const pages = documentFile.parse(await json('documents.json'));
  const histories = historyFile.parse(await json('history.json'));

  const pictures = await Promise.all(DEMO_PICTURES.map(async (picture) => ({ ...picture, ...(await drawPicture(picture)) })));

  await sequelize.transaction(async (transaction) => {
    const options = { transaction };
    for (const [id, document] of documents) {
      await ProfileModel.create({ id, document }, options);
      await DraftHistoryModel.create({ profileId: id, revision: 1, document }, options);
    }
    await saveHouse({ document: house, revision: 1 }, '', transaction);
    await firstEdition('house-limits', '', transaction);
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
    await SettingModel.create({ name: 'pages', value: {}, revision: 1 }, options);
    await firstEdition('pages', '', transaction);
    await saveSiteDraft(writingOf(site), '', transaction);
    await firstEdition('site', '', transaction);
    for (const { id = '', profile, name, kind, notes, arrives, payload, expectations } of specimens)
      await SpecimenModel.create({ id, name, kind, notes, profileId: profile, arrives, payload, expectations }, options);
    for (const id of documents.keys())
      await storeFirst(
        id,
        chainFrom(id, (other) => documents.get(other)),
        '',
        transaction,
      );
    const written: Written[] = [];
    for (const { file, changedAt, ...page } of pages)
      written.push({ ...page, changedAt: new Date(changedAt), html: await text('documents', file) });
    written.push(...composedDocuments(1, composed));
    await storeDocuments(written, site, new Map(pageKinds.map((kind) => [kind.id, kind])), transaction);
    await SettingModel.create({ name: COMPOSED, value: composed }, options);
    await storeHistory(sequelize, histories, { profiles: documents, house: limits.house, specimens }, transaction);
  });
  return true;
}
