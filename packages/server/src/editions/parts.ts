import { readHouseLimits, type JsonObject } from '@typikon/core';
import { Op, type Transaction } from 'sequelize';
import { SettingHistoryModel, SettingModel } from '../db/models';
import { pagesDraft, putPagesBack } from '../pages/draft';
import { applySite, putSiteBack, SITE_DRAFT, siteDraft } from '../site/draft';

/** What the whole site has once, and releases as it releases profiles. */
export type Part = 'house-limits' | 'pages' | 'site';
export const PARTS: readonly Part[] = ['house-limits', 'pages', 'site'];

/** What is worked on. */
export interface SharedDraft {
  document: JsonObject;
  /** Counts the saves. */
  revision: number;
}

/** How the draft of a part is kept. */
interface Keeper {
  /** What it is called within a sentence, in the plural. */
  name: string;
  /** The setting whose history says who saved it. */
  setting: string;
  /** @returns null where nothing was ever saved */
  draft: (transaction: Transaction | undefined, isLocked: boolean) => Promise<SharedDraft | null>;
  /** Why a draft cannot be released; empty where it can. */
  mistakesIn: (document: JsonObject) => string;
  /**
   * Puts an earlier state into the draft.
   *
   * @returns the draft's state then, or why it cannot stand there
   */
  putBack: (document: JsonObject, note: string, savedBy: string, transaction: Transaction) => Promise<number | string>;
  /**
   * Makes what is released hold, where it does not by being the last edition.
   *
   * @returns why it cannot; empty where it does
   */
  apply?: (document: JsonObject, transaction: Transaction) => Promise<string>;
}

const KEEPERS: Readonly<Record<Part, Keeper>> = {
  'house-limits': {
    name: 'the house limits',
    setting: 'house-limits',
    async draft(transaction, isLocked) {
      const setting = await SettingModel.findByPk('house-limits', {
        ...by(transaction),
        ...(transaction === undefined || !isLocked ? {} : { lock: transaction.LOCK.UPDATE }),
      });
      return setting === null ? null : { document: setting.value as JsonObject, revision: setting.revision };
    },
    mistakesIn(document) {
      const read = readHouseLimits(document);
      return read.ok ? '' : read.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join(' ');
    },
    async putBack(document, _note, savedBy, transaction) {
      const revision = ((await this.draft(transaction, true))?.revision ?? 0) + 1;
      await saveHouse({ document, revision }, savedBy, transaction);
      return revision;
    },
  },
  pages: {
    name: 'the page kinds and stylesheets',
    setting: 'pages',
    draft: pagesDraft,
    mistakesIn: () => '',
    putBack: putPagesBack,
  },
  site: {
    name: 'the content types and who writes with what',
    setting: SITE_DRAFT,
    draft: siteDraft,
    mistakesIn: () => '',
    putBack: putSiteBack,
    apply: applySite,
  },
};

const by = (transaction: Transaction | undefined) => (transaction === undefined ? {} : { transaction });

export const partName = (part: Part): string => KEEPERS[part].name;
export const mistakesIn = (part: Part, document: JsonObject): string => KEEPERS[part].mistakesIn(document);
export const putBack = (part: Part, document: JsonObject, note: string, savedBy: string, transaction: Transaction) =>
  KEEPERS[part].putBack(document, note, savedBy, transaction);

/** Makes what is released of a part hold; says why it cannot. */
export const apply = (part: Part, document: JsonObject, transaction: Transaction): Promise<string> =>
  KEEPERS[part].apply?.(document, transaction) ?? Promise.resolve('');

/** The draft of a part; null where nothing was ever saved. */
export const draftOf = (part: Part, transaction?: Transaction, isLocked = false): Promise<SharedDraft | null> =>
  KEEPERS[part].draft(transaction, isLocked);

/** Saves the draft of the house limits over the one that is there. */
export async function saveHouse({ document, revision }: SharedDraft, savedBy: string, transaction: Transaction): Promise<void> {
  await SettingModel.upsert({ name: 'house-limits', value: document, revision }, { transaction });
  await SettingHistoryModel.create({ name: 'house-limits', revision, value: document, savedBy }, { transaction });
}

/** How often somebody saved a draft since a state of it. */
export function savesBy(part: Part, since: number, savedBy: string, transaction?: Transaction): Promise<number> {
  return SettingHistoryModel.count({ where: { name: KEEPERS[part].setting, savedBy, revision: { [Op.gt]: since } }, ...by(transaction) });
}
