import { Assignments, isLockedOut, readSite, type Assignment, type Json, type Problem, type Question, type Site } from '@typikon/core';
import { fn, ForeignKeyConstraintError, Transaction, type Sequelize } from 'sequelize';
import { DocumentModel } from '../db/document-models';
import { PageKindModel, ProfileModel } from '../db/models';
import { ContentTypeModel } from '../db/site-models';
import { placeFields } from '../documents/repository';
import { isLimited } from '../documents/retention';
import { OLD_VERSIONS } from '../jobs/old-versions';
import { JobQueue } from '../jobs/queue';
import { inTransaction } from '../db/transaction';
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
   * Stores a site in the place of the one that is there.
   *
   * @param isOf whether the change was begun from a revision
   */
  async save(document: Json, isOf: (revision: number) => boolean): Promise<SiteSave> {
    const read = readSite(document);
    if (!read.ok) return { is: 'mistaken', problems: read.problems };
    const { site } = read;
    if (isLockedOut(site)) return { is: 'mistaken', problems: [LOCKED_OUT] };
    try {
      const saved = await inTransaction(
        this.sequelize,
        async (transaction): Promise<SiteSave> => {
          const revision = await lockSite(transaction);
          if (!isOf(revision)) return { is: 'outdated', current: await loadSite(transaction) };
          const problems = await unknownNames(site, transaction);
          if (problems.length > 0) return { is: 'mistaken', problems };
          const held = await heldTypes(site, transaction);
          if (held !== '') return { is: 'in-use', detail: held };
          await storeSite(site, revision + 1, transaction);
          await placeFields(site, transaction);
          return { is: 'saved', stored: { site, revision: revision + 1 } };
        },
        { committing: this.committing },
      );
      // What is no longer kept is deleted in the background.
      if (saved.is === 'saved' && site.types.some(({ versions }) => isLimited(versions)))
        await new JobQueue(this.sequelize).ask(OLD_VERSIONS, 'all');
      return saved;
    } catch (error) {
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

/** Why a content type that would go has to stay; empty where none does. */
async function heldTypes({ types }: Site, transaction: Transaction): Promise<string> {
  const used = await DocumentModel.findAll({ attributes: ['typeId', [fn('COUNT', '*'), 'n']], group: ['typeId'], raw: true, transaction });
  for (const { typeId, n } of used as unknown as { typeId: string; n: number }[]) {
    if (types.some(({ id }) => id === typeId)) continue;
    const label = (await ContentTypeModel.findByPk(typeId, { attributes: ['label'], raw: true, transaction }))?.label ?? typeId;
    return `${n === 1 ? 'One document is' : `${n} documents are`} of the content type “${label}”, so it cannot go.`;
  }
  return '';
}

/** Profiles and kinds of page that a site names and that are not there. */
async function unknownNames(site: Site, transaction: Transaction): Promise<Problem[]> {
  const ids = async (model: typeof ProfileModel | typeof PageKindModel): Promise<Set<string>> =>
    new Set((await (model as typeof ProfileModel).findAll({ attributes: ['id'], raw: true, transaction })).map(({ id }) => id));
  const [profiles, kinds] = [await ids(ProfileModel), await ids(PageKindModel)];
  const problems: Problem[] = [];
  const tell = (pointer: string, message: string): void => void problems.push({ profile: 'site', pointer, message });
  site.types.forEach(({ pageKind }, at) => kinds.has(pageKind) || tell(`/types/${at}/pageKind`, `there is no kind of page "${pageKind}"`));
  site.types.forEach(({ alsoOn }, at) =>
    alsoOn.forEach((id, place) => kinds.has(id) || tell(`/types/${at}/alsoOn/${place}`, `there is no kind of page "${id}"`)),
  );
  site.assignments.forEach(({ profiles: named }, at) =>
    named.forEach((id, place) => profiles.has(id) || tell(`/assignments/${at}/profiles/${place}`, `there is no profile "${id}"`)),
  );
  site.fallback.forEach((id, at) => profiles.has(id) || tell(`/fallback/${at}`, `there is no profile "${id}"`));
  return problems;
}
