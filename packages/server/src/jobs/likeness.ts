import { QueryTypes, type Sequelize } from 'sequelize';
import { LikenessCountModel, LikenessFigureModel } from '../db/models';
import { LaneFailure, type Lane } from '../lanes/lane';
import type { CountTask, Pair } from './likeness-count';
import type { JobQueue } from './queue';
import type { JobHandler } from './runner';

/** Looks which figures may have changed. */
export const ALL_FIGURES = 'likeness';
/** Takes the figure of one profile on one kind of page. */
export const ONE_FIGURE = 'likeness-figure';
/** So long nothing may change before figures are taken, in milliseconds. */
export const PAUSE_MS = 400;
/** After so many documents in a row that could not be compared, the longer ones are not tried. */
const MOST_IN_VAIN = 3;

/**
 * How alike the editor and the page are, as counts: taken in the background whenever something has changed on which they
 * depend, document by document, each in a worker thread with a deadline. A document that cannot be compared is left out of
 * the figure, with the reason, and harms no other.
 *
 * @param quiet waits until nobody waits for work that needs the machine more
 */
export function likenessJobs(
  sequelize: Sequelize,
  queue: JobQueue,
  lane: Pick<Lane, 'run'>,
  quiet: () => Promise<void> = async () => {},
): Record<string, JobHandler> {
  return {
    async [ALL_FIGURES]() {
      const pairs = await sequelize.query<Pair>('SELECT DISTINCT profile_id AS profileId, page_kind_id AS pageKindId FROM documents', {
        type: QueryTypes.SELECT,
      });
      for (const { profileId, pageKindId } of pairs) await queue.ask(ONE_FIGURE, `${profileId} ${pageKindId}`);
    },

    async [ONE_FIGURE](subject, goesOn) {
      const [profileId = '', pageKindId = ''] = subject.split(' ');
      const pair = { profileId, pageKindId };
      const inputs = await lane.run<string | null>('inputs', pair);
      if (inputs === null) return;
      for (let inVain = 0; inVain < MOST_IN_VAIN;) {
        const documentId = await nextOf(sequelize, pair, inputs);
        if (documentId === null) break;
        await quiet();
        inVain = (await countOne(sequelize, lane, { ...pair, documentId, inputs })) ? 0 : inVain + 1;
        if (inVain === MOST_IN_VAIN) await leaveTheRest(sequelize, pair, inputs);
        if (!(await goesOn())) return;
      }
      await addUp(sequelize, pair, inputs);
    },
  };
}

/** A document of a pair that was not compared by these inputs as it is now, the shortest first. */
async function nextOf(sequelize: Sequelize, { profileId, pageKindId }: Pair, inputs: string): Promise<string | null> {
  const [document] = await sequelize.query<{ id: string }>(
    `SELECT d.id FROM documents AS d LEFT JOIN likeness_counts AS c
       ON c.document_id = d.id AND c.inputs = ? AND c.revision = d.revision
     WHERE d.profile_id = ? AND d.page_kind_id = ? AND c.document_id IS NULL ORDER BY d.size, d.id LIMIT 1`,
    { replacements: [inputs, profileId, pageKindId], type: QueryTypes.SELECT },
  );
  return document?.id ?? null;
}

/** @returns whether it could be compared */
async function countOne(sequelize: Sequelize, lane: Pick<Lane, 'run'>, task: CountTask): Promise<boolean> {
  const [document] = await sequelize.query<{ revision: number }>('SELECT revision FROM documents WHERE id = ?', {
    replacements: [task.documentId],
    type: QueryTypes.SELECT,
  });
  if (document === undefined) return true;
  try {
    return await lane.run<boolean>('count', task);
  } catch (error) {
    if (!(error instanceof LaneFailure) || error.kind === 'full') throw error;
    await LikenessCountModel.upsert({
      ...task,
      revision: document.revision,
      elements: 0,
      alike: 0,
      causes: [],
      failure: error.message.slice(0, 300),
    });
    return false;
  }
}

/** Notes of all documents that are still to be compared that shorter ones could not be: the stylesheets ask too much of any. */
async function leaveTheRest(sequelize: Sequelize, { profileId, pageKindId }: Pair, inputs: string): Promise<void> {
  await sequelize.query(
    `REPLACE INTO likeness_counts (document_id, profile_id, page_kind_id, revision, inputs, elements, alike, causes, failure)
     SELECT d.id, d.profile_id, d.page_kind_id, d.revision, ?, 0, 0, '[]', ?
     FROM documents AS d LEFT JOIN likeness_counts AS c ON c.document_id = d.id AND c.inputs = ? AND c.revision = d.revision
     WHERE d.profile_id = ? AND d.page_kind_id = ? AND c.document_id IS NULL`,
    {
      replacements: [inputs, `Shorter documents could not be compared, ${MOST_IN_VAIN} in a row.`, inputs, profileId, pageKindId],
      type: QueryTypes.INSERT,
    },
  );
}

/** The figure of all documents of a pair; one that is as it was is not stored again. */
async function addUp(sequelize: Sequelize, { profileId, pageKindId }: Pair, inputs: string): Promise<void> {
  const [sums] = await sequelize.query<{ elements: string | null; alike: string | null }>(
    `SELECT SUM(c.elements) AS elements, SUM(c.alike) AS alike FROM likeness_counts AS c JOIN documents AS d ON d.id = c.document_id
     WHERE d.profile_id = ? AND d.page_kind_id = ? AND c.inputs = ?`,
    { replacements: [profileId, pageKindId, inputs], type: QueryTypes.SELECT },
  );
  const [different] = await sequelize.query<{ causes: number }>(
    `SELECT COUNT(DISTINCT cause.id) AS causes FROM likeness_counts AS c
     JOIN documents AS d ON d.id = c.document_id
     JOIN JSON_TABLE(c.causes, '$[*]' COLUMNS (id VARCHAR(16) PATH '$')) AS cause
     WHERE d.profile_id = ? AND d.page_kind_id = ? AND c.inputs = ?`,
    { replacements: [profileId, pageKindId, inputs], type: QueryTypes.SELECT },
  );
  const figure = { elements: Number(sums?.elements ?? 0), alike: Number(sums?.alike ?? 0), causes: Number(different?.causes ?? 0) };
  const last = await LikenessFigureModel.findOne({ where: { profileId, pageKindId }, order: [['id', 'DESC']] });
  if (last?.elements === figure.elements && last.alike === figure.alike && last.causes === figure.causes) return;
  await LikenessFigureModel.create({ profileId, pageKindId, ...figure });
}
