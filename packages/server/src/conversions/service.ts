import { clean, convert, groupEntries, phrasesGone, sentenceOf, type Conversion } from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DocumentFieldModel } from '../db/document-models';
import { ProfileModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import type { TextName } from '../features/candidates';
import { CONVERT } from '../jobs/conversions';
import { JobQueue } from '../jobs/queue';
import { rulesOf, tooManyTags } from '../rules';
import { findConversions, moveOn, storeConversion, textsIn, type ConvertedState, type StoredConversion } from './repository';

/** What a conversion would make of a text. */
export interface Tried extends TextName {
  title: string;
  places: number;
  before: string;
  after: string;
  /** What the rules that authors write by take of what it makes, in sentences. */
  besides: string[];
  /** Words that readers would miss, because the rules that authors write by do not let them stay. */
  lost: string[];
}

export type Asked =
  | { is: 'asked'; conversion: StoredConversion }
  | { is: 'missing'; detail: string }
  | { is: 'mistaken'; detail: string }
  | { is: 'otherwise'; detail: string };

/** So much text is tried at once, in letters, or one text where that alone is longer. */
const MOST_TRIED_BYTES = 1_000_000;

/** Prepared replacements over stored texts: tried, run in the background, stopped, undone. */
export class ConversionService {
  private readonly queue: JobQueue;

  constructor(
    private readonly sequelize: Sequelize,
    private readonly committing: () => void,
  ) {
    this.queue = new JobQueue(sequelize);
  }

  /** What it would make of some texts of a profile; those that are not there are left out. */
  async try(profile: string, conversion: Conversion, texts: readonly TextName[]): Promise<Tried[]> {
    const tried: Tried[] = [];
    let bytes = 0;
    for (const row of await this.read(profile, texts)) {
      // The rest of what is long is not shown beforehand.
      if (tried.length > 0 && (bytes += row.value.length) > MOST_TRIED_BYTES) break;
      const { html, places } = convert(row.value, conversion);
      const isDone = places > 0 && tooManyTags(html) === null;
      const cleaned = isDone ? clean(html, await rulesOf(profile, row.role)) : { html: row.value, ledger: [] };
      const besides = groupEntries(cleaned.ledger).map(sentenceOf);
      const after = cleaned.html;
      const { document, field, title, value: before } = row;
      tried.push({ document, field, title, places: isDone ? places : 0, before, after, besides, lost: phrasesGone(before, after) });
    }
    return tried;
  }

  private async read(profile: string, texts: readonly TextName[]) {
    if (texts.length === 0) return [];
    return this.sequelize.query<TextName & { title: string; value: string; role: string }>(
      `SELECT f.document_id AS document, f.field_key AS field, d.title, f.value, f.role
       FROM document_fields AS f JOIN documents AS d ON d.id = f.document_id
       WHERE f.profile_id = ? AND (f.document_id, f.field_key) IN (?) ORDER BY f.document_id, f.field_key`,
      { replacements: [profile, texts.map(({ document, field }) => [document, field])], type: QueryTypes.SELECT },
    );
  }

  /**
   * Asks for a conversion; it runs in the background.
   *
   * @param texts null for all of the profile
   */
  async ask(profile: string, conversion: Conversion, note: string, texts: readonly TextName[] | null, askedBy: string): Promise<Asked> {
    if ((await ProfileModel.count({ where: { id: profile } })) === 0) return { is: 'missing', detail: `There is no profile "${profile}".` };
    const names = texts ?? (await this.textsOf(profile));
    if (names.length === 0) return { is: 'mistaken', detail: 'No text is named, so that there is nothing to convert.' };
    const id = await inTransaction(
      this.sequelize,
      (transaction) => storeConversion(this.sequelize, { profile, conversion, note, askedBy }, names, transaction),
      { committing: this.committing },
    );
    await this.queue.ask(CONVERT, String(id));
    return this.told(id);
  }

  private async textsOf(profileId: string): Promise<TextName[]> {
    const rows = await DocumentFieldModel.findAll({ where: { profileId }, attributes: ['documentId', 'fieldKey'], raw: true });
    return rows.map(({ documentId, fieldKey }) => ({ document: documentId, field: fieldKey }));
  }

  find(profile: string, limit: number, before?: number): Promise<StoredConversion[]> {
    return findConversions(this.sequelize, { profile, limit, before });
  }

  async told(id: number): Promise<Asked> {
    const [conversion] = await findConversions(this.sequelize, { id });
    return conversion === undefined ? { is: 'missing', detail: `There is no conversion ${id}.` } : { is: 'asked', conversion };
  }

  texts(id: number, state: ConvertedState | undefined, limit: number, after: TextName | null): ReturnType<typeof textsIn> {
    return textsIn(this.sequelize, id, { state, limit, after });
  }

  /** Stops it where it is; what was converted stays. */
  async stop(id: number): Promise<Asked> {
    return (await moveOn(this.sequelize, id, ['running'], 'stopped')) ? this.told(id) : this.not(id, 'is not running');
  }

  /** Goes on with one that was stopped. */
  async goOn(id: number): Promise<Asked> {
    if (!(await moveOn(this.sequelize, id, ['stopped'], 'running'))) return this.not(id, 'was not stopped');
    await this.queue.ask(CONVERT, String(id));
    return this.told(id);
  }

  /** Puts all texts back as they were that nobody has changed since. */
  async undo(id: number): Promise<Asked> {
    if (!(await moveOn(this.sequelize, id, ['done', 'stopped'], 'undoing')))
      return this.not(id, 'is not done, so that it cannot be undone');
    await this.queue.ask(CONVERT, String(id));
    return this.told(id);
  }

  private async not(id: number, why: string): Promise<Asked> {
    const told = await this.told(id);
    return told.is === 'asked' ? { is: 'otherwise', detail: `Conversion ${id} ${why}: it is ${told.conversion.state}.` } : told;
  }
}
