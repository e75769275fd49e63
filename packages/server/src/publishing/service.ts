import type { Assignments, ContentType } from '@typikon/core';
import type { Sequelize, Transaction } from 'sequelize';
import type { Acting } from '../auth/acting';
import { DocumentModel, DocumentVersionModel } from '../db/document-models';
import { inTransaction } from '../db/transaction';
import type { StoredDocument } from '../documents/document';
import { loadDocument } from '../documents/repository';
import { versionAt } from '../documents/versions';
import type { SiteService } from '../site/service';
import { previewPath } from './preview';
import { keepStep, stepsOf, writerOf, type DoneStep, type PublishingStep } from './repository';

type Actor = Acting | null;

/** How a document stands on its way to readers, for somebody who acts. */
export interface PublishingState {
  revision: number;
  publicRevision: number | null;
  askedRevision: number | null;
  publishing: ContentType['publishing'];
  mayAsk: boolean;
  mayApprove: boolean;
  /** Whether they may take it from readers. */
  mayHide: boolean;
  steps: DoneStep[];
}

export type Moved = { is: 'moved' } | { is: 'missing' | 'forbidden' | 'nothing' | 'outdated' | 'unexplained'; detail: string };

/** What is said where a step has to be explained and is not. */
const UNEXPLAINED: Readonly<Partial<Record<PublishingStep, string>>> = {
  'sent-back': 'Say why it is sent back.',
  remarked: 'Say what you remark.',
  hidden: 'Say why it is taken from readers.',
};

const HOUR_MS = 3_600_000;

/** The way of versions to readers: at once, or once somebody else has approved them. */
export class PublishingService {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly site: SiteService,
    private readonly committing: () => void,
  ) {}

  /** @returns null where there is no such document */
  async read(id: string, actor: Actor): Promise<PublishingState | null> {
    const known = await this.known(id);
    if (known === null) return null;
    const { document, type, assignments } = known;
    const { revision, publicRevision, askedRevision } = document;
    const waiting = type.publishing === 'two-steps' ? askedRevision : revision;
    return {
      revision,
      publicRevision,
      askedRevision,
      publishing: type.publishing,
      mayAsk:
        publicRevision !== revision && askedRevision !== revision && type.publishing === 'two-steps' && mayWrite(actor, type, assignments),
      mayApprove:
        waiting !== null && waiting !== publicRevision && (await this.refusal(document, waiting, type, assignments, actor)) === null,
      mayHide: publicRevision !== null && mayDecide(actor, type, assignments),
      steps: await stepsOf(this.sequelize, id),
    };
  }

  /**
   * Does a step.
   *
   * @param looked the version that it is about, as it was seen
   */
  async move(id: string, step: PublishingStep, looked: number, note: string, actor: Actor): Promise<Moved> {
    const missing: Moved = { is: 'missing', detail: `There is no document "${id}".` };
    const unexplained = note === '' ? UNEXPLAINED[step] : undefined;
    if (unexplained !== undefined) return { is: 'unexplained', detail: unexplained };
    return inTransaction(
      this.sequelize,
      async (transaction): Promise<Moved> => {
        const known = await this.known(id, transaction);
        if (known === null) return missing;
        const { document, type, assignments } = known;
        const refused = await this.refused(step, looked, document, type, assignments, actor, transaction);
        if (refused !== null) return refused;
        if (step === 'asked') await DocumentModel.update({ askedRevision: looked }, { where: { id }, transaction });
        if (step === 'sent-back' || step === 'withdrawn')
          await DocumentModel.update({ askedRevision: null }, { where: { id }, transaction });
        if (step === 'hidden') await DocumentModel.update({ publicRevision: null }, { where: { id }, transaction });
        if (step === 'approved') {
          await DocumentModel.update({ publicRevision: looked, askedRevision: null }, { where: { id }, transaction });
          await DocumentVersionModel.update({ wasPublic: true }, { where: { documentId: id, revision: looked }, transaction });
        }
        await keepStep(this.sequelize, id, { step, revision: looked, note, by: actor?.id ?? '' }, transaction);
        return { is: 'moved' };
      },
      { committing: this.committing },
    );
  }

  private async refused(
    step: PublishingStep,
    looked: number,
    document: StoredDocument,
    type: ContentType,
    assignments: Assignments,
    actor: Actor,
    transaction: Transaction,
  ): Promise<Moved | null> {
    const { revision, publicRevision, askedRevision } = document;
    const forbidden = (detail: string): Moved => ({ is: 'forbidden', detail: `${detail} Nothing was done.` });
    const name = actor?.label ?? '';
    if (step === 'asked' || (step === 'approved' && type.publishing === 'at-once')) {
      if (looked !== revision)
        return { is: 'outdated', detail: `Version ${revision} is the last one by now. Look at it, and ask again. Nothing was done.` };
      if (publicRevision === revision) return { is: 'nothing', detail: `Readers see version ${revision} already.` };
      if (!mayWrite(actor, type, assignments)) return forbidden(`${name} may not write in ${type.label}.`);
      if (step === 'approved') return null;
      if (type.publishing === 'at-once')
        return { is: 'nothing', detail: `What is saved in ${type.label} is shown at once: nobody has to approve it.` };
      return askedRevision === revision ? { is: 'nothing', detail: `Version ${revision} waits for approval already.` } : null;
    }
    if (step === 'hidden') {
      if (publicRevision === null) return { is: 'nothing', detail: 'Readers do not see this document.' };
      if (looked !== publicRevision)
        return { is: 'outdated', detail: `Readers see version ${publicRevision} by now. Look at it first. Nothing was done.` };
      return mayDecide(actor, type, assignments) ? null : forbidden(`${name} may not say what readers see of ${type.label}.`);
    }
    if (step === 'remarked')
      return mayWrite(actor, type, assignments) || isApprover(actor, type) ? null : forbidden(`${name} may not remark on it.`);
    if (askedRevision === null) return { is: 'nothing', detail: 'No version of this document waits for approval.' };
    if (looked !== askedRevision)
      return {
        is: 'outdated',
        detail: `Version ${askedRevision} waits by now, and not version ${looked}. Look at it first. Nothing was done.`,
      };
    if (step === 'withdrawn') return mayWrite(actor, type, assignments) ? null : forbidden(`${name} may not write in ${type.label}.`);
    const refusal = await this.refusal(document, looked, type, assignments, actor, transaction);
    return refusal === null ? null : forbidden(refusal);
  }

  /** Why somebody may not decide about a version; null where they may. */
  private async refusal(
    { id, revision, changedBy }: StoredDocument,
    looked: number,
    type: ContentType,
    assignments: Assignments,
    actor: Actor,
    transaction?: Transaction,
  ): Promise<string | null> {
    if (actor === null) return null;
    if (type.publishing === 'at-once') return mayWrite(actor, type, assignments) ? null : `${actor.label} may not write in ${type.label}.`;
    if (!mayDecide(actor, type, assignments)) return `${actor.label} has none of the roles that approve ${type.label}.`;
    const writer = looked === revision ? changedBy : await writerOf(this.sequelize, id, looked, transaction);
    return writer === actor.id ? `${actor.label} wrote this version: somebody else has to approve it.` : null;
  }

  private async known(
    id: string,
    transaction?: Transaction,
  ): Promise<{ document: StoredDocument; type: ContentType; assignments: Assignments } | null> {
    const { site, assignments } = await this.site.current();
    const document = await loadDocument(id, transaction, transaction !== undefined);
    const type = site.types.find((one) => one.id === document?.type);
    return document === null || type === undefined ? null : { document, type, assignments };
  }

  /** @returns null where there is no such version */
  async preview(id: string, revision: number, hours: number): Promise<{ path: string; until: Date } | null> {
    const document = await loadDocument(id);
    if (document === null) return null;
    if (document.revision !== revision && (await versionAt(this.sequelize, id, revision)) === null) return null;
    const untilMs = Date.now() + hours * HOUR_MS;
    return { path: await previewPath(this.sequelize, { document: id, revision, untilMs }), until: new Date(untilMs) };
  }
}

/** Whether somebody writes in any field of a type. */
const mayWrite = (actor: Actor, { id, fields }: ContentType, assignments: Assignments): boolean =>
  actor === null || fields.some(({ key }) => assignments.why({ roles: actor.roles, type: id, field: key }).profile !== null);

/** Whether somebody says what readers see of a type: whoever approves it, or writes it where nobody has to. */
const mayDecide = (actor: Actor, type: ContentType, assignments: Assignments): boolean =>
  type.publishing === 'at-once' || type.approvers.length === 0 ? mayWrite(actor, type, assignments) : isApprover(actor, type);

const isApprover = (actor: Actor, { approvers }: ContentType): boolean =>
  actor === null || actor.roles.some((role) => approvers.includes(role));
