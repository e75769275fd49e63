import { clean, convert, takenLines, type ContentType } from '@typikon/core';
import type { Sequelize, Transaction } from 'sequelize';
import { inTransaction } from '../db/transaction';
import type { StoredDocument, StoredField } from '../documents/document';
import { loadDocument, storeDocument } from '../documents/repository';
import type { TakenStep } from '../documents/taken';
import { versionAt, type How } from '../documents/versions';
import { lastEdition } from '../editions/repository';
import { rulesOf, tooManyTags } from '../rules';
import { loadSite } from '../site/repository';
import { claimText, findConversions, markText, moveOn, type ConvertedState, type ConvertedText, type StoredConversion } from './repository';

/**
 * Goes on with a conversion, or with undoing it: text by text, each of them whole or not at all, with its mark, so that whoever goes on
 * begins where it was left, and several can work on it.
 *
 * @param most so many texts are done
 * @returns how many were; fewer than that where none are left
 */
export async function convertSome(sequelize: Sequelize, id: number, most: number): Promise<number> {
  const { site } = await sequelize.transaction((transaction) => loadSite(transaction));
  const types = new Map(site.types.map((type) => [type.id, type]));
  for (let done = 0; done < most; done++) {
    const isDone = await inTransaction(sequelize, async (transaction) => {
      // Whether it still goes on is asked each time: it can be stopped between any two texts.
      const [conversion] = await findConversions(sequelize, { id }, transaction);
      if (conversion === undefined || (conversion.state !== 'running' && conversion.state !== 'undoing')) return false;
      const isUndoing = conversion.state === 'undoing';
      const text = await claimText(sequelize, id, isUndoing ? 'done' : 'waiting', transaction);
      if (text === null) {
        // Others may be at the last ones still.
        const left = conversion.texts[isUndoing ? 'done' : 'waiting'] ?? 0;
        if (left === 0) await moveOn(sequelize, id, [conversion.state], isUndoing ? 'undone' : 'done', transaction);
        return false;
      }
      const became = isUndoing
        ? await takeBack(sequelize, text, conversion, types, transaction)
        : await change(text, conversion, types, transaction);
      await markText(sequelize, id, { ...text, ...became }, transaction);
      return true;
    });
    if (!isDone) return done;
  }
  return most;
}

type Became = { state: ConvertedState } & Partial<Pick<ConvertedText, 'beforeRevision' | 'afterRevision'>>;
type Types = ReadonlyMap<string, ContentType>;

async function change(name: ConvertedText, conversion: StoredConversion, types: Types, transaction: Transaction): Promise<Became> {
  const found = await textOf(name, conversion, types, transaction);
  if (found === null) return { state: 'gone' };
  const { document, field, type } = found;
  const { html, places } = convert(field.value, conversion.conversion);
  if (places === 0) return { state: 'same' };
  if (tooManyTags(html) !== null) return { state: 'refused' };
  const { html: after, ledger } = clean(html, await rulesOf(conversion.profile, field.role));
  if (after === field.value) return { state: 'same' };
  const edition = (await lastEdition(conversion.profile, transaction))?.number ?? null;
  const of = { field: field.key, profile: conversion.profile, edition };
  const steps: TakenStep[] = ledger.length === 0 ? [] : [{ ...of, step: 'converted', lines: takenLines(html, ledger) }];
  const next = { ...field, value: after, edition };
  return store(document, type, next, { how: 'converted', steps, by: conversion.askedBy }, transaction, 'done');
}

/** Puts a text back to the letter as it was before, where nobody has changed it since. */
async function takeBack(
  sequelize: Sequelize,
  name: ConvertedText,
  conversion: StoredConversion,
  types: Types,
  transaction: Transaction,
): Promise<Became> {
  const found = await textOf(name, conversion, types, transaction);
  if (found === null) return { state: 'gone' };
  const { document, field, type } = found;
  const [before, after] = await Promise.all(
    [name.beforeRevision, name.afterRevision].map((revision) => versionAt(sequelize, name.document, revision ?? 0, transaction)),
  );
  const [was, made] = [before, after].map((version) => version?.fields.find(({ key }) => key === name.field));
  if (was === undefined || made?.value !== field.value) return { state: 'kept' };
  const next = { ...field, value: was.value, role: was.role, edition: was.edition };
  return store(document, type, next, { how: 'restored', steps: [], by: conversion.askedBy }, transaction, 'undone');
}

async function textOf(
  { document: id, field: key }: ConvertedText,
  { profile }: StoredConversion,
  types: Types,
  transaction: Transaction,
): Promise<{ document: StoredDocument; field: StoredField; type: ContentType } | null> {
  const document = await loadDocument(id, transaction, true);
  const field = document?.fields.find((one) => one.key === key);
  const type = types.get(document?.type ?? '');
  return document === null || field?.profile !== profile || type === undefined ? null : { document, field, type };
}

async function store(
  document: StoredDocument,
  type: ContentType,
  next: StoredField,
  { how, steps, by }: { how: How; steps: readonly TakenStep[]; by: string },
  transaction: Transaction,
  state: ConvertedState,
): Promise<Became> {
  const revision = document.revision + 1;
  const fields = document.fields.map((field) => (field.key === next.key ? { ...next, revision: field.revision + 1 } : field));
  // Who wrote it stays: they are asked about it.
  await storeDocument({ ...document, fields, revision }, document, type, { how, steps, savedBy: by }, transaction);
  return state === 'done' ? { state, beforeRevision: document.revision, afterRevision: revision } : { state };
}
