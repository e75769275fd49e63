import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { ProfileModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import type { TextName } from '../features/candidates';
import { OLD_VERSIONS } from '../jobs/old-versions';
import { JobQueue } from '../jobs/queue';
import type { Part } from './parts';
import { refusalOf, type Reasons, type Refusal } from './release';
import { isSameChain, lastEdition } from './repository';
import { chainToRelease, EditionService } from './service';
import { lastShared } from './shared';
import { readyToRelease } from './shared-service';

/** Releases a draft when its time has come. */
export const RELEASE = 'release';
/** Nobody looks further ahead, in milliseconds. */
const FURTHEST_MS = 366 * 24 * 3_600_000;
/** So many are told of one thing. */
const MOST_TOLD = 10;

/** What a release is made with. */
export interface ReleaseBody extends Reasons {
  together: readonly { id: string; revision: number }[];
  /** None of them in what was planned before there were any. */
  shared?: readonly { part: Part; revision: number }[];
  leave: readonly TextName[];
}

/** What a release is about: a profile, or something that the whole site has once. */
export type Meant = { profile: string; part: null } | { profile: ''; part: Part };

/** A release that waits for its time, or did. */
export interface ScheduledRelease {
  id: number;
  /** Empty for one of something that the whole site has once. */
  profile: string;
  part: Part | null;
  revision: number;
  body: ReleaseBody;
  at: Date;
  askedAt: Date;
  askedBy: string;
  state: 'waiting' | 'done' | 'failed' | 'off';
  detail: string;
  edition: number | null;
}

export type Scheduling = { is: 'scheduled'; release: ScheduledRelease } | Refusal;

const COLUMNS = `id, profile_id AS profile, part, revision, body, due_at AS at, asked_at AS askedAt, asked_by AS askedBy, state, detail, edition`;

/** Releases at a time to come: kept in the database, done by whichever process is there then. */
export class ScheduledReleases {
  private readonly queue: JobQueue;

  constructor(
    private readonly sequelize: Sequelize,
    private readonly committing: () => void,
  ) {
    this.queue = new JobQueue(sequelize);
  }

  /** @param isOf whether the draft is as it was when it was looked at */
  async schedule(meant: Meant, at: Date, body: ReleaseBody, isOf: (revision: number) => boolean, by: string): Promise<Scheduling> {
    const now = Date.now();
    if (at.getTime() <= now) return { is: 'mistaken', detail: 'That time is over. Release it now, or choose a later time.' };
    if (at.getTime() > now + FURTHEST_MS) return { is: 'mistaken', detail: 'That is more than a year away. Choose an earlier time.' };
    const made = await inTransaction(
      this.sequelize,
      async (transaction): Promise<Scheduling> => {
        const draft = await draftToPlan(meant, isOf, by, transaction);
        if (typeof draft !== 'number') return draft;
        const { profile, part } = meant;
        await this.sequelize.query(
          "UPDATE scheduled_releases SET state = 'off' WHERE profile_id = ? AND part <=> ? AND state = 'waiting'",
          {
            replacements: [profile, part],
            type: QueryTypes.UPDATE,
            transaction,
          },
        );
        const [id] = await this.sequelize.query(
          `INSERT INTO scheduled_releases (profile_id, part, revision, body, due_at, asked_at, asked_by, state)
           VALUES (?, ?, ?, ?, ?, NOW(3), ?, 'waiting')`,
          { replacements: [profile, part, draft, JSON.stringify(body), at, by], type: QueryTypes.INSERT, transaction },
        );
        return { is: 'scheduled', release: (await this.read(id, transaction))! };
      },
      { committing: this.committing },
    );
    if (made.is === 'scheduled') await this.queue.ask(RELEASE, String(made.release.id), Math.max(0, at.getTime() - Date.now()));
    return made;
  }

  list({ profile, part }: Meant): Promise<ScheduledRelease[]> {
    return this.select(`WHERE profile_id = ? AND part <=> ? ORDER BY id DESC LIMIT ${MOST_TOLD}`, [profile, part]);
  }

  /** Numbers of those that wait, for a start after their job was lost. */
  async waiting(): Promise<{ id: number; at: Date }[]> {
    return this.select("WHERE state = 'waiting'", []);
  }

  async read(id: number, transaction?: Transaction): Promise<ScheduledRelease | null> {
    const [release] = await this.select(`WHERE id = ?${transaction === undefined ? '' : ' FOR UPDATE'}`, [id], transaction);
    return release ?? null;
  }

  /** @returns the release, which may not have waited any more */
  async callOff(id: number): Promise<{ release: ScheduledRelease; isOff: boolean } | null> {
    const [, changed] = await this.sequelize.query("UPDATE scheduled_releases SET state = 'off' WHERE id = ? AND state = 'waiting'", {
      replacements: [id],
      type: QueryTypes.UPDATE,
    });
    const release = await this.read(id);
    return release === null ? null : { release, isOff: Number(changed) > 0 };
  }

  /** Releases what was to be released by now; what waits no more, or whose time has not come, is left. */
  async release(id: number): Promise<void> {
    const scheduled = await this.read(id);
    if (scheduled?.state !== 'waiting' || scheduled.at.getTime() > Date.now()) return;
    const { profile, part, revision, body, askedBy } = scheduled;
    const { together, shared = [], leave, ...reasons } = body;
    const profiles = [...(part === null ? [{ id: profile, revision }] : []), ...together.filter(({ id: other }) => other !== profile)];
    const parts = [...(part === null ? [] : [{ part, revision }]), ...shared.filter((other) => other.part !== part)];
    const released = await new EditionService(this.sequelize, this.committing).release(
      {
        meant: part ?? profile,
        profiles: profiles.map((draft) => ({ id: draft.id, isOf: (now: number) => now === draft.revision })),
        shared: parts.map((draft) => ({ part: draft.part, isOf: (now: number) => now === draft.revision })),
      },
      reasons,
      askedBy,
      leave,
    );
    // Versions that a type keeps no longer go in the background.
    if (released.is === 'released' && parts.some((one) => one.part === 'site')) await this.queue.ask(OLD_VERSIONS, 'all');
    // Broken off behind the release and before this note, it is released already.
    const isDone = released.is === 'released' || released.is === 'same';
    const edition = isDone ? await (part === null ? lastEdition(profile) : lastShared(part)) : null;
    await this.sequelize.query('UPDATE scheduled_releases SET state = ?, detail = ?, edition = ? WHERE id = ?', {
      replacements: [isDone ? 'done' : 'failed', isDone ? '' : released.detail.slice(0, 1000), edition?.number ?? null, id],
      type: QueryTypes.UPDATE,
    });
  }

  private async select(where: string, replacements: unknown[], transaction?: Transaction): Promise<ScheduledRelease[]> {
    const rows = await this.sequelize.query<Omit<ScheduledRelease, 'body'> & { body: unknown }>(
      `SELECT ${COLUMNS} FROM scheduled_releases ${where}`,
      { replacements, type: QueryTypes.SELECT, ...(transaction === undefined ? {} : { transaction }) },
    );
    return rows.map(({ body, ...row }) => ({ ...row, body: (typeof body === 'string' ? JSON.parse(body) : body) as ReleaseBody }));
  }
}

/** The state of a draft that can be released as it is now; or why it cannot. */
async function draftToPlan(
  { profile, part }: Meant,
  isOf: (revision: number) => boolean,
  by: string,
  transaction: Transaction,
): Promise<number | Refusal> {
  if (part !== null) {
    const ready = await readyToRelease({ part, isOf }, by, transaction, 'Nothing was planned.');
    return ready.is === 'ready' ? ready.draft.revision : ready;
  }
  const draft = await ProfileModel.findByPk(profile, { transaction, lock: transaction.LOCK.UPDATE });
  if (draft === null) return { is: 'missing', detail: `There is no profile "${profile}".` };
  if (!isOf(draft.revision))
    return { is: 'outdated', detail: `Somebody else has saved the profile "${profile}" since you looked at it. Nothing was planned.` };
  const chain = await chainToRelease(profile, (id) => (id === profile ? draft.document : undefined), transaction);
  const last = await lastEdition(profile, transaction);
  if (last !== null && isSameChain(last.chain, chain))
    return { is: 'same', detail: `The draft of "${profile}" says what edition ${last.number} says. There is nothing to release.` };
  const refusal = await refusalOf(profile, last?.fromRevision ?? 0, by, transaction);
  return refusal === null ? draft.revision : { is: 'forbidden', detail: `${refusal} Nothing was planned.` };
}
