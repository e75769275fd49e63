import {
  Assignments,
  isLockedOut,
  isSameJson,
  readSite,
  siteSchema,
  type Assignment,
  type Json,
  type Problem,
  type Question,
  type Site,
} from '@typikon/core';
import { ForeignKeyConstraintError, Transaction, type Sequelize } from 'sequelize';
import { placeFields } from '../documents/repository';
import { isLimited } from '../documents/retention';
import { OLD_VERSIONS } from '../jobs/old-versions';
import { JobQueue } from '../jobs/queue';
import { inTransaction } from '../db/transaction';
import { firstEdition, lastShared, nextEdition } from '../editions/shared';
import { heldTypes, unknownNames } from './checks';
import { applySite, saveSiteDraft, siteDraft, writingOf } from './draft';
import { loadSite, lockSite, siteRevision, storeSite, type StoredSite } from './repository';

/** What became of a save of the site. */
export type SiteSave =
  | { is: 'saved'; stored: StoredSite }
  | { is: 'mistaken'; problems: Problem[] }
  | { is: 'outdated'; current: StoredSite }
  | { is: 'in-use'; detail: string };

/** What is said of a site that nobody could change any more. */
const LOCKED_OUT: Problem = {
  profile: 'site',
  pointer: '/people',
  message: 'must hold somebody with a role that has the right "administer"; nobody could change this again',
};

const asJson = (value: unknown): Json => value as Json;

/** Carries what is said of a site out of a transaction, so that nothing of it stays. */
class Unsaved extends Error {
  constructor(readonly save: SiteSave) {
    super(save.is);
  }
}

/** The site as its draft says it. */
async function draftAsSite(transaction: Transaction): Promise<StoredSite> {
  const [{ site }, draft] = [await loadSite(transaction), await siteDraft(transaction, false)];
  return { site: siteSchema.parse({ ...site, ...draft?.document }), revision: draft?.revision ?? 0 };
}

/** What is no longer kept is deleted in the background. */
export async function deleteOutdated(sequelize: Sequelize, { types }: Pick<Site, 'types'>): Promise<void> {
  if (types.some(({ versions }) => isLimited(versions))) await new JobQueue(sequelize).ask(OLD_VERSIONS, 'all');
}

/** The site: what there is to write, by whom, and with what. */
export class SiteService {
  /** Questions are answered from an index, as long as the site stays as it is. */
  private kept: { revision: number; assignments: Assignments; site: Site } | null = null;

  constructor(
    private readonly sequelize: Sequelize,
    private readonly committing: () => void,
  ) {}

  /** The whole site as of one moment. */
  read(): Promise<StoredSite> {
    return this.sequelize.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ }, (transaction) =>
      loadSite(transaction),
    );
  }

  /**
   * Stores a site in the place of the one that holds: it holds at once, as a new edition. A draft that says what held follows.
   *
   * @param isOf whether the change was begun from a revision
   * @param by the person, by id
   */
  save(document: Json, isOf: (revision: number) => boolean, by: string): Promise<SiteSave> {
    return this.store(document, { isOf, revision: lockSite, read: loadSite }, async (site, transaction): Promise<SiteSave> => {
      const { site: before, revision } = await loadSite(transaction);
      const draft = await siteDraft(transaction, true);
      await storeSite(site, revision + 1, transaction);
      await placeFields(site, transaction);
      const writing = writingOf(site);
      const follows = draft === null || isSameJson(draft.document, writingOf(before));
      const from = follows ? await saveSiteDraft(writing, by, transaction) : draft.revision;
      if (!isSameJson((await lastShared('site', transaction))?.document ?? null, writing))
        await nextEdition('site', { document: writing, fromRevision: from, releasedBy: by }, transaction);
      return { is: 'saved', stored: { site, revision: revision + 1 } };
    });
  }

  /** The site as it is worked on: roles and people as they are, and what is to be written as the draft says it. */
  readDraft(): Promise<StoredSite> {
    return this.sequelize.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ }, (transaction) =>
      draftAsSite(transaction),
    );
  }

  /**
   * Saves the draft of a site. Roles and people hold at once, the rest once it is released; what was never released is.
   *
   * @param isOf whether the change was begun from a state of the draft
   * @param by the person, by id
   */
  saveDraft(document: Json, isOf: (revision: number) => boolean, by: string): Promise<SiteSave> {
    const current = async (transaction: Transaction) => (await siteDraft(transaction, true))?.revision ?? 0;
    return this.store(document, { isOf, revision: current, read: draftAsSite }, async (site, transaction): Promise<SiteSave> => {
      const { site: live, revision } = await loadSite(transaction);
      const now = siteSchema.safeParse({ ...live, roles: site.roles, people: site.people });
      if (!now.success) return { is: 'in-use', detail: 'A role that would go is still named by what was released. Release that first.' };
      if (!isSameJson(asJson([live.roles, live.people]), asJson([site.roles, site.people])))
        await storeSite(now.data, revision + 1, transaction);
      const next = await saveSiteDraft(writingOf(site), by, transaction);
      const isWritten = site.types.length > 0 || site.assignments.length > 0;
      if (isWritten && (await lastShared('site', transaction)) === null) {
        const refusal = await applySite(writingOf(site), transaction);
        if (refusal !== '') return { is: 'in-use', detail: refusal };
        await firstEdition('site', by, transaction);
      }
      return { is: 'saved', stored: { site, revision: next } };
    });
  }

  /**
   * Reads a document and stores it, all of it or nothing, where it was begun from what is there and names what is there.
   *
   * @param begun how often what it was begun from was saved, and what stands there now
   */
  private async store(
    document: Json,
    begun: {
      isOf: (revision: number) => boolean;
      revision: (transaction: Transaction) => Promise<number>;
      read: (transaction: Transaction) => Promise<StoredSite>;
    },
    act: (site: Site, transaction: Transaction) => Promise<SiteSave>,
  ): Promise<SiteSave> {
    const read = readSite(document);
    if (!read.ok) return { is: 'mistaken', problems: read.problems };
    const { site } = read;
    if (isLockedOut(site)) return { is: 'mistaken', problems: [LOCKED_OUT] };
    try {
      const saved = await inTransaction(
        this.sequelize,
        async (transaction): Promise<SiteSave> => {
          // Who stores the same meanwhile waits here.
          await lockSite(transaction);
          if (!begun.isOf(await begun.revision(transaction))) return { is: 'outdated', current: await begun.read(transaction) };
          const problems = await unknownNames(site, transaction);
          if (problems.length > 0) return { is: 'mistaken', problems };
          const held = await heldTypes(site, transaction);
          if (held !== '') return { is: 'in-use', detail: held };
          const made = await act(site, transaction);
          if (made.is !== 'saved') throw new Unsaved(made);
          return made;
        },
        { committing: this.committing },
      );
      if (saved.is === 'saved') await deleteOutdated(this.sequelize, site);
      return saved;
    } catch (error) {
      if (error instanceof Unsaved) return error.save;
      if (!(error instanceof ForeignKeyConstraintError)) throw error;
      return { is: 'in-use', detail: 'Something that would go is still in use, or something that is named is not there any more.' };
    }
  }

  /** Who writes in a field with what; null where there is no such field. */
  async why(question: Question): Promise<Assignment | null> {
    const { site, assignments } = await this.current();
    const type = site.types.find(({ id }) => id === question.type);
    return type?.fields.some(({ key }) => key === question.field) === true ? assignments.why(question) : null;
  }

  /** The site as it is now, with an index of its statements; it is read anew only where it was saved since. */
  async current(): Promise<{ site: Site; assignments: Assignments }> {
    const revision = await siteRevision();
    if (this.kept === null || this.kept.revision !== revision) {
      const stored = await this.read();
      this.kept = { ...stored, assignments: new Assignments(stored.site) };
    }
    return this.kept;
  }
}
