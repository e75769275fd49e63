import { Assignments, firstPlace, parseFragment, takeCensus, type PageKind, type Site } from '@typikon/core';
import type { CreationAttributes, Transaction } from 'sequelize';
import { DocumentFieldModel, DocumentModel } from '../db/document-models';
import { profilesOf, wordsOf } from '../documents/repository';
import { compose } from './compose';
import { intoFields, usualProfile } from './into-fields';

/** The setting that says how many composed documents the demo has. */
export const COMPOSED = 'demo-composed';

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
const HOUR_MS = 3_600_000;
/** So long the site has been there: however many documents it has, they are spread over this time. */
const HOURS = 120_000;

/** A document of the demo, not yet in fields. */
export interface Written {
  id: string;
  title: string;
  type: string;
  profile: string;
  pageKind: string;
  html: string;
  changedAt: Date;
  changedBy: string;
}

/** A text of the demo as it was stored. */
export interface StoredText {
  documentId: string;
  fieldKey: string;
  revision: number;
  html: string;
}

/** So many documents are stored with one statement. */
const AT_ONCE = 200;

/** Composed documents of the demo from one number to another, both among them. */
export function composedDocuments(from: number, to: number): Written[] {
  return compose(from, to).map((page, at) => {
    const number = from - 1 + at;
    const writers = WRITERS[page.type] ?? [];
    // One a day and some hours, back from the first of September 2026.
    const changedAt = new Date(COMPOSED_FROM - ((number * 29.3) % HOURS) * HOUR_MS);
    return { ...page, changedAt, changedBy: writers[number % writers.length] ?? '' };
  });
}

/**
 * Stores documents of the demo, each in the fields of its type.
 *
 * @returns the rich texts among what was stored
 */
export async function storeDocuments(
  written: readonly Written[],
  site: Site,
  kinds: ReadonlyMap<string, PageKind>,
  transaction: Transaction,
): Promise<StoredText[]> {
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
      publicRevision: 1,
    });
    for (const { key, value, profile: by } of filled)
      fields.push({
        documentId: id,
        fieldKey: key,
        profileId: by,
        pageKindId: firstPlace({ ...type, pageKind }, key, kinds),
        value,
        census: by === null ? null : takeCensus(parseFragment(value).root),
        edition: by === null ? null : 1,
      });
  }
  for (let at = 0; at < rows.length; at += AT_ONCE) await DocumentModel.bulkCreate(rows.slice(at, at + AT_ONCE), { transaction });
  for (let at = 0; at < fields.length; at += AT_ONCE) await DocumentFieldModel.bulkCreate(fields.slice(at, at + AT_ONCE), { transaction });
  return fields.flatMap(({ documentId, fieldKey, profileId, value }) =>
    profileId === null ? [] : [{ documentId, fieldKey, revision: 1, html: value }],
  );
}
