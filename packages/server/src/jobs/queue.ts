import { randomUUID } from 'node:crypto';
import { Op, QueryTypes, type Sequelize } from 'sequelize';
import { JobModel } from '../db/models';
import { inTransaction } from '../db/transaction';

/** A claimed job: nobody else works on it until its lease ends. */
export interface ClaimedJob {
  id: number;
  kind: string;
  subject: string;
  attempts: number;
  /** How often it had been asked for when it was claimed. */
  asked: number;
  lease: string;
}

/** Kinds of jobs. */
export type Kinds = { these: readonly string[] } | { except: readonly string[] };

/** So long a job is held without a sign of life, in seconds; then another process may take it. */
const LEASE_S = 60;
/** So often a job that fails is tried; then it waits until it is asked for again. */
export const MOST_ATTEMPTS = 5;
/** The first wait after a failure, in seconds; it doubles each time. */
const FIRST_WAIT_S = 2;

/**
 * Work to be done in the background, queued in the database, so that it outlives a process and several processes share it.
 * The same job asked for twice is done once; asked for while it is done, it is done once more.
 */
export class JobQueue {
  constructor(private readonly sequelize: Sequelize) {}

  /** @param delayMs so long it may wait for more of the same, in milliseconds */
  async ask(kind: string, subject: string, delayMs = 0): Promise<void> {
    await this.sequelize.query(
      `INSERT INTO jobs (kind, subject, due_at) VALUES (?, ?, NOW(3) + INTERVAL ? MICROSECOND)
       ON DUPLICATE KEY UPDATE asked = asked + 1, attempts = 0, failure = '', due_at = LEAST(due_at, VALUES(due_at))`,
      { replacements: [kind, subject, delayMs * 1000], type: QueryTypes.INSERT },
    );
  }

  /**
   * Takes the job that has been due longest; null where there is none.
   *
   * @param only of these kinds, or of all but these
   */
  async claim(only: Kinds = { except: [] }): Promise<ClaimedJob | null> {
    const [kinds, isThese] = 'these' in only ? [only.these, 1] : [only.except, 0];
    return inTransaction(this.sequelize, async (transaction) => {
      const [job] = await this.sequelize.query<Omit<ClaimedJob, 'lease'>>(
        `SELECT id, kind, subject, attempts, asked FROM jobs
         WHERE due_at <= NOW(3) AND attempts < ? AND (kind IN (?)) = ? AND (leased_until IS NULL OR leased_until < NOW(3))
         ORDER BY due_at LIMIT 1 FOR UPDATE SKIP LOCKED`,
        { replacements: [MOST_ATTEMPTS, kinds.length === 0 ? [''] : kinds, isThese], type: QueryTypes.SELECT, transaction },
      );
      if (job === undefined) return null;
      const lease = randomUUID();
      // An attempt counts when it begins: work that ends its process is not tried for ever.
      await this.sequelize.query(
        'UPDATE jobs SET lease = ?, leased_until = NOW(3) + INTERVAL ? SECOND, attempts = attempts + 1 WHERE id = ?',
        { replacements: [lease, LEASE_S, job.id], type: QueryTypes.UPDATE, transaction },
      );
      return { ...job, attempts: job.attempts + 1, lease };
    });
  }

  /** Says that a job is still being worked on; false where it was given to somebody else. */
  async extend({ id, lease }: ClaimedJob): Promise<boolean> {
    await this.sequelize.query('UPDATE jobs SET leased_until = NOW(3) + INTERVAL ? SECOND WHERE id = ? AND lease = ?', {
      replacements: [LEASE_S, id, lease],
      type: QueryTypes.UPDATE,
    });
    // How many rows changed does not tell it: within a millisecond of the last sign of life none does.
    return (await JobModel.count({ where: { id, lease } })) > 0;
  }

  /** A job is done; where it was asked for meanwhile it is due again. */
  async done({ id, lease, asked }: ClaimedJob): Promise<void> {
    await JobModel.destroy({ where: { id, lease, asked } });
    await JobModel.update({ lease: '', leasedUntil: null, attempts: 0 }, { where: { id, lease } });
  }

  /** A job could not be done: it is tried again later, a few times. */
  async failed({ id, lease, attempts }: ClaimedJob, failure: string): Promise<void> {
    await this.sequelize.query(
      "UPDATE jobs SET lease = '', leased_until = NULL, failure = ?, due_at = NOW(3) + INTERVAL ? SECOND WHERE id = ? AND lease = ?",
      { replacements: [failure.slice(0, 1000), FIRST_WAIT_S * 2 ** (attempts - 1), id, lease], type: QueryTypes.UPDATE },
    );
  }

  /** A job is given back as it was, for somebody who has the time. */
  async giveBack({ id, lease }: ClaimedJob): Promise<void> {
    await this.sequelize.query(
      "UPDATE jobs SET lease = '', leased_until = NULL, attempts = GREATEST(attempts, 1) - 1 WHERE id = ? AND lease = ?",
      { replacements: [id, lease], type: QueryTypes.UPDATE },
    );
  }

  /** How many jobs wait or are under way; those that were given up are not among them. */
  async waiting(): Promise<number> {
    return JobModel.count({ where: { attempts: { [Op.lt]: MOST_ATTEMPTS } } });
  }
}
