import { createHash } from 'node:crypto';
import { QueryTypes, type Sequelize } from 'sequelize';
import { LikenessCountModel, LikenessFigureModel, SettingModel } from '../db/models';
import { LaneFailure, type Lane } from '../lanes/lane';
import type { CountTask, Pair } from './likeness-count';
import type { JobQueue } from './queue';
import type { JobHandler } from './runner';

/** Looks which figures may have changed. */
export const ALL_FIGURES = 'likeness';
/** Takes the figure of one profile on one kind of page. */
export const ONE_FIGURE = 'likeness-figure';
/** The setting that says what took the figures. */
const ENGINE = 'likeness-engine';
/** After so many texts in a row that could not be compared, the longer ones are not tried. */
const MOST_IN_VAIN = 3;

/**
 * How alike the editor and the page are, as counts: taken in the background whenever something has changed on which they
 * depend, text by text, each in a worker thread with a deadline. One that cannot be compared is left out of
 * the figure, with the reason, and harms no other.
 *
 * @param options.quiet waits until nobody waits for work that needs the machine more
 * @param options.engine what takes the figures, noted once all of them were asked for
 */
export function likenessJobs(
  sequelize: Sequelize,
  queue: JobQueue,
  lane: Pick<Lane, 'run'>,
  { quiet = async () => {}, engine }: { quiet?: () => Promise<void>; engine?: string } = {},
): Record<string, JobHandler> {
  return {
    async [ALL_FIGURES]() {
      const pairs = await sequelize.query<Pair>(
        'SELECT DISTINCT profile_id AS profileId, page_kind_id AS pageKindId FROM document_fields WHERE profile_id IS NOT NULL',
        {
          type: QueryTypes.SELECT,
        },
      );
      for (const { profileId, pageKindId } of pairs) await queue.ask(ONE_FIGURE, `${profileId} ${pageKindId}`);
      if (engine !== undefined) await SettingModel.upsert({ name: ENGINE, value: engine, revision: 1 });
    },

    async [ONE_FIGURE](subject, goesOn) {
      const [profileId = '', pageKindId = ''] = subject.split(' ');
      const pair = { profileId, pageKindId };
      const inputs = await lane.run<string | null>('inputs', pair);
      if (inputs === null) return;
      let inVain = 0;
      for (let texts = await nextOf(sequelize, pair, inputs); texts.length > 0; texts = await nextOf(sequelize, pair, inputs))
        for (const text of texts) {
          await quiet();
          inVain = (await countOne(sequelize, lane, { ...pair, ...text, inputs })) ? 0 : inVain + 1;
          if (!(await goesOn())) return;
          if (inVain < MOST_IN_VAIN) continue;
          await leaveTheRest(sequelize, pair, inputs);
          break;
        }
      await addUp(sequelize, pair, inputs);
    },
  };
}

/** A name for what takes figures, from its code. */
export const engineOf = (code: Uint8Array): string => createHash('sha256').update(code).digest('hex').slice(0, 16);

/** Whether all figures were asked for since this engine has been there. */
export async function areFiguresBy(engine: string): Promise<boolean> {
  return (await SettingModel.findByPk(ENGINE, { raw: true }))?.value === engine;
}

/** So many texts that are still to be compared are looked up at once. */
const AT_ONCE = 100;

/** A text among all. */
interface TextName {
  documentId: string;
  fieldKey: string;
}

/** What joins texts with what they came to by the inputs that hold now. */
const COUNTED = `document_fields AS f LEFT JOIN likeness_counts AS c
       ON c.document_id = f.document_id AND c.field_key = f.field_key AND c.inputs = ? AND c.revision = f.revision`;

/** Some texts of a pair that were not compared by these inputs as they are now, the shortest first. */
async function nextOf(sequelize: Sequelize, { profileId, pageKindId }: Pair, inputs: string): Promise<TextName[]> {
  return sequelize.query<TextName>(
    `SELECT f.document_id AS documentId, f.field_key AS fieldKey FROM ${COUNTED}
     WHERE f.profile_id = ? AND f.page_kind_id = ? AND c.document_id IS NULL ORDER BY f.size, f.document_id, f.field_key LIMIT ?`,
    { replacements: [inputs, profileId, pageKindId, AT_ONCE], type: QueryTypes.SELECT },
  );
}

/** @returns whether it could be compared */
async function countOne(sequelize: Sequelize, lane: Pick<Lane, 'run'>, task: CountTask): Promise<boolean> {
  const [text] = await sequelize.query<{ revision: number }>(
    'SELECT revision FROM document_fields WHERE document_id = ? AND field_key = ?',
    { replacements: [task.documentId, task.fieldKey], type: QueryTypes.SELECT },
  );
  if (text === undefined) return true;
  try {
    return await lane.run<boolean>('count', task);
  } catch (error) {
    if (!(error instanceof LaneFailure) || error.kind === 'full') throw error;
    await LikenessCountModel.upsert({
      ...task,
      revision: text.revision,
      elements: 0,
      alike: 0,
      causes: [],
      failure: error.message.slice(0, 300),
    });
    return false;
  }
}

/** Notes of all texts that are still to be compared that shorter ones could not be: the stylesheets ask too much of any. */
async function leaveTheRest(sequelize: Sequelize, { profileId, pageKindId }: Pair, inputs: string): Promise<void> {
  await sequelize.query(
    `REPLACE INTO likeness_counts (document_id, field_key, profile_id, page_kind_id, revision, inputs, elements, alike, causes, failure)
     SELECT f.document_id, f.field_key, f.profile_id, f.page_kind_id, f.revision, ?, 0, 0, '[]', ? FROM ${COUNTED}
     WHERE f.profile_id = ? AND f.page_kind_id = ? AND c.document_id IS NULL`,
    {
      replacements: [inputs, `Shorter texts could not be compared, ${MOST_IN_VAIN} in a row.`, inputs, profileId, pageKindId],
      type: QueryTypes.INSERT,
    },
  );
}

/** The figure of all texts of a pair; one that is as it was is not stored again. */
async function addUp(sequelize: Sequelize, { profileId, pageKindId }: Pair, inputs: string): Promise<void> {
  const ofPair = `FROM likeness_counts AS c JOIN document_fields AS f ON f.document_id = c.document_id AND f.field_key = c.field_key`;
  const [sums] = await sequelize.query<{ elements: string | null; alike: string | null }>(
    `SELECT SUM(c.elements) AS elements, SUM(c.alike) AS alike ${ofPair}
     WHERE f.profile_id = ? AND f.page_kind_id = ? AND c.inputs = ?`,
    { replacements: [profileId, pageKindId, inputs], type: QueryTypes.SELECT },
  );
  const [different] = await sequelize.query<{ causes: number }>(
    `SELECT COUNT(DISTINCT cause.id) AS causes ${ofPair}
     JOIN JSON_TABLE(c.causes, '$[*]' COLUMNS (id VARCHAR(16) PATH '$')) AS cause
     WHERE f.profile_id = ? AND f.page_kind_id = ? AND c.inputs = ?`,
    { replacements: [profileId, pageKindId, inputs], type: QueryTypes.SELECT },
  );
  const figure = { elements: Number(sums?.elements ?? 0), alike: Number(sums?.alike ?? 0), causes: Number(different?.causes ?? 0) };
  const last = await LikenessFigureModel.findOne({ where: { profileId, pageKindId }, order: [['id', 'DESC']] });
  if (last?.elements === figure.elements && last.alike === figure.alike && last.causes === figure.causes) return;
  await LikenessFigureModel.create({ profileId, pageKindId, ...figure });
}
