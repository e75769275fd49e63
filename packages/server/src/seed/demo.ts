import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  Assignments,
  firstPlace,
  idSchema,
  pageKindSchema,
  parseFragment,
  readHouseLimits,
  resolveProfile,
  siteSchema,
  contentFiles,
  specimenSchema,
  stylesheetSchema,
  takeCensus,
  type Json,
  type JsonObject,
  type PageKind,
  type Site,
  withContent,
  type SpecimenDocument,
} from '@typikon/core';
import type { CreationAttributes, Sequelize, Transaction } from 'sequelize';
import * as z from 'zod';
import { DocumentFieldModel, DocumentModel } from '../db/document-models';
import {
  AssetModel,
  DraftHistoryModel,
  PageKindModel,
  ProfileModel,
  SettingHistoryModel,
  SettingModel,
  SpecimenModel,
  StylesheetHistoryModel,
  StylesheetModel,
} from '../db/models';
import { profilesOf, wordsOf } from '../documents/repository';
import { chainFrom, storeFirst } from '../editions/repository';
import { storeSite } from '../site/repository';
import { compose, USUAL_COUNT } from './compose';
import { historyFile, storeHistory } from './history';
import { intoFields, usualProfile } from './into-fields';
import { DEMO_PICTURES, drawPicture } from './pictures';

const PROFILES = ['house', 'story-desk', 'notices-desk', 'ferry-note', 'tender-desk', 'diary', 'reply'];

/** Who writes which type of content in the demo. */
const WRITERS: Readonly<Record<string, readonly string[] | undefined>> = {
  story: ['tom-hallow', 'bea-lund'],
  'harbour-page': ['ivo-stead', 'tom-hallow'],
  notice: ['ned-orr', 'may-carrow'],
  'ferry-note': ['may-carrow', 'tom-hallow'],
  tender: ['una-pell'],
  'diary-entry': ['kit-marsh', 'bea-lund'],
};
const COMPOSED_FROM = Date.UTC(2026, 8, 1, 9);

/** A document of the demo, not yet in fields. */
interface Written {
  id: string;
  title: string;
  type: string;
  profile: string;
  pageKind: string;
  html: string;
  changedAt: Date;
  changedBy: string;
}

/** So many documents are stored with one question. */
const AT_ONCE = 200;

const censusOf = (html: string) => takeCensus(parseFragment(html).root);

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
    for (const [at, page] of compose(composed).entries()) {
      const writers = WRITERS[page.type] ?? [];
      // One a day and some hours, back from the first of September 2026.
      const changedAt = new Date(COMPOSED_FROM - at * 29.3 * 3_600_000);
      written.push({ ...page, changedAt, changedBy: writers[at % writers.length] ?? '' });
    }
    await storeDocuments(written, site, new Map(pageKinds.map((kind) => [kind.id, kind])), transaction);
    await storeHistory(sequelize, histories, { profiles: documents, house: limits.house, specimens }, transaction);
  });
  return true;
}

async function storeDocuments(
  written: readonly Written[],
  site: Site,
  kinds: ReadonlyMap<string, PageKind>,
  transaction: Transaction,
): Promise<void> {
  const assignments = new Assignments(site);
  const rows: CreationAttributes<DocumentModel>[] = [];
  const fields: CreationAttributes<DocumentFieldModel>[] = [];
  for (const { id, title, type: typeId, profile, pageKind, html, changedAt, changedBy } of written) {
    const type = site.types.find((one) => one.id === typeId);
    if (type === undefined) throw new Error(`demo: the document ${id} is of the type ${typeId}, which is not there.`);
    const filled = intoFields(
      type,
      { title, html, profile },
      usualProfile(site, (question) => assignments.why(question), typeId),
    );
    rows.push({
      id,
      title,
      typeId,
      pageKindId: pageKind,
      createdAt: changedAt,
      changedAt,
      changedBy,
      words: wordsOf(title, filled),
      profiles: profilesOf(filled),
    });
    for (const { key, value, profile: by } of filled)
      fields.push({
        documentId: id,
        fieldKey: key,
        profileId: by,
        pageKindId: firstPlace({ ...type, pageKind }, key, kinds),
        value,
        census: by === null ? null : censusOf(value),
        edition: by === null ? null : 1,
      });
  }
  for (let at = 0; at < rows.length; at += AT_ONCE) await DocumentModel.bulkCreate(rows.slice(at, at + AT_ONCE), { transaction });
  for (let at = 0; at < fields.length; at += AT_ONCE) await DocumentFieldModel.bulkCreate(fields.slice(at, at + AT_ONCE), { transaction });
}
