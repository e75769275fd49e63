import { createHash } from 'node:crypto';
import {
  cleanWithoutLedger,
  DESK,
  LikenessCounter,
  pageKindSchema,
  resolveProfile,
  settingsFor,
  TooMuch,
  type LikenessInput,
  type PageKind,
} from '@typikon/core';
import { DocumentFieldModel } from '../db/document-models';
import { LikenessCountModel, PageKindModel, ProfileModel, StylesheetModel } from '../db/models';
import { houseLimits, rulesOf } from '../rules';

/** Texts of a profile that show first on a kind of page. */
export interface Pair {
  profileId: string;
  pageKindId: string;
}

/** A text that is to be compared, and the digest of what it is compared by. */
export interface CountTask extends Pair {
  documentId: string;
  fieldKey: string;
  inputs: string;
}

const digest = (value: unknown): string => createHash('sha256').update(JSON.stringify(value)).digest('hex');

/** These run in a worker thread, which has one pair after another; the counter of the last one is kept. */
let kept: { inputs: string; counter: LikenessCounter; uses: number } | null = null;
/** What a counter has learnt of styles grows with the documents it has seen; then a fresh one begins. */
const MOST_USES = 50;

/** What a pair is compared by; null where its profile does not resolve or the kind of page is not there. */
async function settingsOf({ profileId, pageKindId }: Pair): Promise<{ inputs: string; settings: LikenessInput } | null> {
  const profiles = new Map((await ProfileModel.findAll()).map(({ id, document }) => [id, document]));
  const resolution = resolveProfile(profileId, (id) => profiles.get(id));
  const kindOf = async (id: string): Promise<PageKind | null> => {
    const kind = await PageKindModel.findByPk(id);
    return kind === null ? null : pageKindSchema.parse(kind.definition);
  };
  const page = await kindOf(pageKindId);
  if (!resolution.ok || page === null) return null;
  const { surface } = resolution.resolved.profile;
  const surfaceKind = (await kindOf(surface.pageKind)) ?? page;
  const ids = [...new Set([...page.stylesheets, ...surfaceKind.stylesheets])];
  const sheets = new Map((await StylesheetModel.findAll({ where: { id: ids } })).map((sheet) => [sheet.id, sheet]));
  const settings = settingsFor(surface, surfaceKind, page, (id) => sheets.get(id), DESK);
  const house = await houseLimits();
  return { inputs: digest([settings, resolution.resolved.profile, house ?? null]), settings };
}

/** The digest of all that a pair's figures follow from, but for the texts. */
export async function likenessInputs(pair: Pair): Promise<string | null> {
  return (await settingsOf(pair))?.inputs ?? null;
}

/**
 * Compares one text and stores what it came to; one that cannot be compared is stored with the reason.
 *
 * @returns whether it could be compared, or need not be any more
 */
export async function countLikeness({ documentId, fieldKey, profileId, pageKindId, inputs }: CountTask): Promise<boolean> {
  if (kept?.inputs !== inputs || kept.uses >= MOST_USES) {
    const found = await settingsOf({ profileId, pageKindId });
    // What changed meanwhile has asked for the job again.
    if (found?.inputs !== inputs) return true;
    kept = { inputs, counter: new LikenessCounter(found.settings), uses: 0 };
  }
  kept.uses++;
  const text = await DocumentFieldModel.findOne({
    where: { documentId, fieldKey },
    attributes: ['value', 'role', 'revision'],
    raw: true,
  });
  if (text === null) return true;
  const row = { documentId, fieldKey, profileId, pageKindId, revision: text.revision, inputs };
  try {
    const { elements, alike, causes } = kept.counter.count(cleanWithoutLedger(text.value, await rulesOf(profileId, text.role)));
    const short = causes.map((cause) => digest(cause).slice(0, 16));
    await LikenessCountModel.upsert({ ...row, elements, alike, causes: short, failure: '' });
    return true;
  } catch (error) {
    if (!(error instanceof TooMuch)) throw error;
    await LikenessCountModel.upsert({ ...row, elements: 0, alike: 0, causes: [], failure: error.message.slice(0, 300) });
    return false;
  }
}
