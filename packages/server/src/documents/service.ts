import {
  type Assignments,
  type CompiledRules,
  clean,
  idFrom,
  libraryPictures,
  OFFER_NAMES,
  phrasesGone,
  strayLinks,
  takenLines,
  takenOf,
  valueProblem,
  type ContentType,
  type Field,
  type Problem,
  type Site,
  type TakenLine,
} from '@typikon/core';
import type { Sequelize, Transaction } from 'sequelize';
import type { Acting } from '../auth/acting';
import { AssetModel, ProfileModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import { lastEdition } from '../editions/repository';
import { houseLimits, rulesOf, tooManyTags } from '../rules';
import type { SiteService } from '../site/service';
import type { StoredDocument, StoredField } from './document';
import { findDocuments, idsLike, loadDocument, storeDocument, titleKey, type DocumentQuery } from './repository';
import { findTaken, readTaken, type Taken, type TakenQuery, type TakenStep } from './taken';
import { toldNow, versionAt, versionNow, versionsOf, type How, type ToldVersion, type Version } from './versions';

/** What is written in a document. */
export interface Written {
  title?: string | undefined;
  fields: Readonly<Record<string, WrittenField | undefined>>;
}

/** What is written in one field. */
export interface WrittenField {
  value: string;
  profile?: string | undefined;
  /** What the rules took of it in the editor, by what it is called. */
  taken?: readonly string[] | undefined;
  /** What the passes and the rules took of what was pasted into it since it was stored last, paste by paste. */
  pasted?: readonly (readonly TakenLine[])[] | undefined;
}

/** What is told of a field, and was stored all the same. */
export interface Note {
  field: string;
  sentence: string;
}

/** What a page does not show of a text that is stored. */
export interface LeftOut {
  field: string;
  profile: string;
  /** The edition that holds now. */
  edition: number | null;
  line: TakenLine;
}

/** What became of a save of a document. */
export type DocumentSave =
  | { is: 'saved'; stored: StoredDocument; changes: Record<string, number>; notes: Note[] }
  | { is: 'missing'; detail: string }
  | { is: 'forbidden'; detail: string }
  | { is: 'outdated'; current: StoredDocument }
  | { is: 'mistaken'; problems: Problem[] };

/** Somebody who acts; null where nobody is known yet, so that everything may be set up. */
type Actor = Acting | null;

/** Stored documents: found, read, written field by field, and taken back. What comes is cleaned before it is stored. */
export class DocumentService {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly site: SiteService,
    private readonly committing: () => void,
  ) {}

  find(query: DocumentQuery): ReturnType<typeof findDocuments> {
    return findDocuments(this.sequelize, query);
  }

  read(id: string): Promise<StoredDocument | null> {
    return loadDocument(id);
  }

  /** The versions of a document, the latest first. */
  async versions(id: string, limit: number, before?: number): Promise<ToldVersion[]> {
    const kept = await versionsOf(this.sequelize, id, limit, before);
    if (before !== undefined) return kept;
    const now = await loadDocument(id);
    return now === null || kept[0]?.revision === now.revision ? kept : [toldNow(now), ...kept].slice(0, limit);
  }

  /** A version of a document; null where there is none. */
  async versionAt(id: string, revision: number): Promise<Version | null> {
    const kept = await versionAt(this.sequelize, id, revision);
    if (kept !== null) return kept;
    const now = await loadDocument(id);
    return now?.revision === revision ? versionNow(now) : null;
  }

  /** What the site leaves out of a document, by the rules that hold now; null where there is no such document. */
  async leftOut(id: string): Promise<LeftOut[] | null> {
    const document = await loadDocument(id);
    if (document === null) return null;
    const left: LeftOut[] = [];
    for (const { key, value, profile, role, keptEdition } of document.fields) {
      if (profile === null) continue;
      const { ledger } = clean(value, await rulesOf(profile, role, {}, keptEdition));
      if (ledger.length === 0) continue;
      const edition = keptEdition ?? (await lastEdition(profile))?.number ?? null;
      for (const line of takenLines(value, ledger)) left.push({ field: key, profile, edition, line });
    }
    return left;
  }

  /** What was ever taken of texts, by its numbers, the latest first. */
  taken(query: TakenQuery): ReturnType<typeof findTaken> {
    return findTaken(this.sequelize, query);
  }

  readTaken(ids: readonly number[]): Promise<Taken[]> {
    return readTaken(this.sequelize, ids);
  }

  /** Makes a document of a type. */
  async make(typeId: string, title: string, actor: Actor): Promise<DocumentSave> {
    const { site, assignments } = await this.site.current();
    const type = site.types.find(({ id }) => id === typeId);
    if (type === undefined) return { is: 'missing', detail: `There is no content type "${typeId}".` };
    if (actor !== null && !type.fields.some(({ key }) => allowedIn(assignments, actor, typeId, key).length > 0))
      return { is: 'forbidden', detail: `${actor.label} writes in no field of ${type.label}.` };
    return inTransaction(
      this.sequelize,
      async (transaction): Promise<DocumentSave> => {
        const wanted = (idFrom(title) || typeId).slice(0, 56).replace(/-+$/, '');
        const taken = await idsLike(wanted, transaction);
        let id = wanted;
        for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
        const key = titleKey(type);
        const fields = key === null ? [] : [{ key, value: title, profile: null, role: '', revision: 1 }];
        const document = { id, title, type: typeId, pageKind: type.pageKind, changedBy: actor?.id ?? '', revision: 1, fields };
        await storeDocument(document, null, type, { how: 'made' }, transaction);
        return { is: 'saved', stored: (await loadDocument(id, transaction))!, changes: {}, notes: [] };
      },
      { committing: this.committing },
    );
  }

  /**
   * Stores what is written in some fields; the others stay as they are.
   *
   * @param isOf whether the change was begun from a revision
   */
  async save(id: string, written: Written, actor: Actor, isOf: (revision: number) => boolean): Promise<DocumentSave> {
    const { site, assignments } = await this.site.current();
    const known = await loadDocument(id);
    const type = site.types.find((one) => one.id === known?.type);
    if (known === null || type === undefined) return { is: 'missing', detail: `There is no document "${id}".` };
    const problems = await this.mistakes(type, written);
    if (problems.length > 0) return { is: 'mistaken', problems };
    // Cleaning takes its time; nobody is kept from the row meanwhile.
    const cleaned = new Map<string, StoredField>();
    const changes: Record<string, number> = {};
    const steps: TakenStep[] = [];
    for (const field of type.fields) {
      const sent = written.fields[field.key];
      if (sent === undefined) continue;
      const was = known.fields.find(({ key }) => key === field.key);
      const allowed = actor === null ? null : allowedIn(assignments, actor, type.id, field.key);
      const profile =
        field.kind === 'rich' ? (sent.profile ?? was?.profile ?? allowed?.[0] ?? this.first(site, assignments, type, field)) : null;
      if (was === undefined && sent.value === '') continue;
      if (was !== undefined && was.value === sent.value && was.profile === profile) continue;
      if (allowed !== null) {
        const refusal = refusalIn(field, type, actor!, allowed, profile, was?.profile ?? null);
        if (refusal !== null) return { is: 'forbidden', detail: refusal };
      }
      const role = await this.roleOf(actor);
      if (profile === null) cleaned.set(field.key, { key: field.key, value: sent.value, profile, role: '', revision: 0 });
      else {
        const rules = await rulesOf(profile, role);
        const { html, ledger } = clean(sent.value, rules);
        changes[field.key] = ledger.length;
        const edition = (await lastEdition(profile))?.number ?? null;
        const by = { field: field.key, profile, edition };
        for (const lines of sent.pasted ?? []) steps.push({ ...by, step: 'paste', lines });
        if (was?.profile != null && was.profile !== profile)
          steps.push({ ...by, step: 'move', lines: takenByMove(was.value, html, rules) });
        if (ledger.length > 0) steps.push({ ...by, step: 'save', lines: takenLines(sent.value, ledger) });
        const lost = new Set([...(was?.taken ?? []), ...(sent.taken ?? []), ...takenOf(ledger)]);
        const taken = OFFER_NAMES.filter((name) => lost.has(name));
        cleaned.set(field.key, { key: field.key, value: html, profile, role, revision: 0, taken, edition });
      }
    }
    return this.store(id, type, actor, isOf, { how: 'written', changes, steps }, (before) => {
      const key = titleKey(type);
      const fields = before.fields.filter((field) => !cleaned.has(field.key));
      for (const field of cleaned.values())
        if (field.value !== '')
          fields.push({ ...field, revision: (before.fields.find((one) => one.key === field.key)?.revision ?? 0) + 1 });
      const title = (key === null ? undefined : written.fields[key]?.value.trim()) || written.title || before.title;
      return { title: title.slice(0, 200), fields };
    });
  }

  /** Stores an earlier version again, as a new one. */
  async restore(id: string, revision: number, actor: Actor, isOf: (revision: number) => boolean): Promise<DocumentSave> {
    const { site, assignments } = await this.site.current();
    const known = await loadDocument(id);
    const type = site.types.find((one) => one.id === known?.type);
    if (known === null || type === undefined) return { is: 'missing', detail: `There is no document "${id}".` };
    const version = await this.versionAt(id, revision);
    if (version === null) return { is: 'missing', detail: `There is no version ${revision} of the document "${id}".` };
    const problems: Problem[] = [];
    const then: StoredField[] = [];
    const steps: TakenStep[] = [];
    for (const field of type.fields) {
      const kept = version.fields.find(({ key }) => key === field.key);
      const was = known.fields.find(({ key }) => key === field.key);
      if (kept?.value === was?.value && kept?.profile === was?.profile) {
        if (was !== undefined) then.push(was);
        continue;
      }
      if (actor !== null && allowedIn(assignments, actor, type.id, field.key).length === 0)
        return { is: 'forbidden', detail: `${actor.label} may not write in “${field.title}” of ${type.label}.` };
      if (kept === undefined) continue;
      const message = valueProblem(field, kept.value);
      if (message !== null) problems.push({ profile: 'document', pointer: `/fields/${field.key}`, message });
      // What was clean then may have to be less now.
      const next = { ...kept, revision: (was?.revision ?? 0) + 1 };
      if (kept.profile !== null) {
        const { html, ledger } = clean(kept.value, await rulesOf(kept.profile, kept.role));
        next.value = html;
        next.edition = (await lastEdition(kept.profile))?.number ?? null;
        const { profile, edition } = next;
        if (ledger.length > 0) steps.push({ field: field.key, step: 'save', profile, edition, lines: takenLines(kept.value, ledger) });
      }
      then.push(next);
    }
    if (problems.length > 0) return { is: 'mistaken', problems };
    return this.store(id, type, actor, isOf, { how: 'restored', changes: {}, steps }, () => ({ title: version.title, fields: then }));
  }

  private store(
    id: string,
    type: ContentType,
    actor: Actor,
    isOf: (revision: number) => boolean,
    { how, changes, steps }: { how: How; changes: Record<string, number>; steps: readonly TakenStep[] },
    next: (before: StoredDocument) => Pick<StoredDocument, 'title' | 'fields'>,
  ): Promise<DocumentSave> {
    return inTransaction(
      this.sequelize,
      async (transaction): Promise<DocumentSave> => {
        const before = await loadDocument(id, transaction, true);
        if (before === null) return { is: 'missing', detail: `There is no document "${id}".` };
        if (!isOf(before.revision)) return { is: 'outdated', current: before };
        const document = { ...before, ...next(before), changedBy: actor?.id ?? '', revision: before.revision + 1 };
        await storeDocument(document, before, type, { how, steps }, transaction);
        const stored = (await loadDocument(id, transaction))!;
        return { is: 'saved', stored, changes, notes: await notesOf(type, stored, transaction) };
      },
      { committing: this.committing },
    );
  }

  /** What cannot stand where it is sent to. */
  private async mistakes(type: ContentType, { fields }: Written): Promise<Problem[]> {
    const problems: Problem[] = [];
    const tell = (key: string, message: string): void => void problems.push({ profile: 'document', pointer: `/fields/${key}`, message });
    const profiles = new Set((await ProfileModel.findAll({ attributes: ['id'], raw: true })).map(({ id }) => id));
    for (const [key, sent] of Object.entries(fields)) {
      const field = type.fields.find((one) => one.key === key);
      if (field === undefined) {
        tell(key, `${type.label} has no field "${key}".`);
        continue;
      }
      if (sent === undefined) continue;
      const message = (field.kind === 'rich' ? tooManyTags(sent.value) : null) ?? valueProblem(field, sent.value);
      if (message !== null) tell(key, message);
      if (sent.profile !== undefined && !profiles.has(sent.profile)) tell(key, `There is no profile "${sent.profile}".`);
    }
    return problems;
  }

  /** By which profile rich text begins where nobody is known who could have one of their own. */
  private first(site: Site, assignments: Assignments, type: ContentType, { key }: Field): string | null {
    for (const { id } of site.roles) {
      const { profile } = assignments.why({ roles: [id], type: type.id, field: key });
      if (profile !== null) return profile;
    }
    return site.fallback[0] ?? null;
  }

  /** The role by which house limits judge what somebody writes: one that they except, or else the first. */
  private async roleOf(actor: Actor): Promise<string> {
    if (actor === null) return '';
    const trusted = new Set(Object.keys((await houseLimits())?.trustedRoles ?? {}));
    return actor.roles.find((role) => trusted.has(role)) ?? actor.roles[0] ?? '';
  }
}

/** The profiles with which somebody may write in a field, the usual one first; none where they may not. */
function allowedIn(assignments: Assignments, actor: Acting, type: string, field: string): readonly string[] {
  const { profile, choices } = assignments.why({ roles: actor.roles, type, field });
  return profile === null ? [] : choices;
}

/** Why somebody may not store this there; null where they may. A text keeps the profile that it has, whatever is assigned since. */
function refusalIn(
  field: Field,
  type: ContentType,
  actor: Acting,
  allowed: readonly string[],
  profile: string | null,
  was: string | null,
): string | null {
  if (allowed.length === 0) return `${actor.label} may not write in “${field.title}” of ${type.label}: no statement fits their roles.`;
  if (field.kind !== 'rich' || profile === was || (profile !== null && allowed.includes(profile))) return null;
  return `${actor.label} may not write in “${field.title}” of ${type.label} with the profile "${profile}"; with ${allowed.map((id) => `"${id}"`).join(' or ')}.`;
}

/**
 * What the rules of another profile took of a text that was moved to it. Its writer may have kept more of it, so that of what readers
 * miss only what is gone is told.
 */
function takenByMove(was: string, now: string, rules: CompiledRules): TakenLine[] {
  const gone = new Set(phrasesGone(was, now).flatMap((phrase) => phrase.split(' ')));
  return takenLines(was, clean(was, rules).ledger).filter(({ words }) => words === '' || words.split(/\s+/).some((word) => gone.has(word)));
}

/** What is told of a document although it is stored: links and pictures from elsewhere than the field says. */
async function notesOf(type: ContentType, { fields }: StoredDocument, transaction: Transaction): Promise<Note[]> {
  const notes: Note[] = [];
  for (const field of type.fields) {
    const value = fields.find(({ key }) => key === field.key)?.value;
    if (value === undefined || field.kind !== 'rich') continue;
    for (const path of strayLinks(field, value))
      notes.push({ field: field.key, sentence: `“${field.title}” links to ${path}; its links stay within ${field.linksWithin}.` });
    if (field.picturesFrom === '') continue;
    const names = libraryPictures(value);
    const pictures = await AssetModel.findAll({ where: { name: names }, attributes: ['name', 'folder', 'title'], raw: true, transaction });
    for (const { name, folder, title } of pictures)
      if (folder !== field.picturesFrom && folder !== field.picturesInto)
        notes.push({
          field: field.key,
          sentence: `“${field.title}” shows ${title || name} from ${folder || 'no folder'}; its pictures come from ${field.picturesFrom}.`,
        });
  }
  return notes;
}
