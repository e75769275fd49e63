import {
  comparePasses,
  compareRules,
  compileRules,
  holdingOf,
  resolveProfile,
  type ComparedSide,
  type ComparisonLine,
  type HouseLimits,
  type JsonObject,
} from '@typikon/core';
import type { Sequelize } from 'sequelize';
import { DocumentModel } from '../db/document-models';
import { DraftHistoryModel, ProfileModel } from '../db/models';
import { houseDraft, stateOfDrafts } from '../rules';
import { textsBehind } from './repository';

/** A profile as it holds, or as it was once saved. */
export interface Compared {
  id: string;
  revision?: number | undefined;
}

/** What became of counting. */
export type Counting =
  | { is: 'counted'; lines: Line[]; counted: number; documents: number; next: string | null }
  | { is: 'missing'; detail: string }
  | { is: 'mistaken'; detail: string };

type Line = Pick<ComparisonLine, 'subject' | 'kept'> & { documents: number | null };
type Made =
  { is: 'made'; lines: ComparisonLine[]; from: ComparedSide; to: ComparedSide } | Extract<Counting, { is: 'missing' | 'mistaken' }>;

/** The last comparison, which the next page of documents is counted by. */
let kept: { key: string; made: Made } | null = null;

/** Counts in stored documents what two profiles treat differently. */
export class ComparisonService {
  constructor(private readonly sequelize: Sequelize) {}

  /**
   * Counts some documents.
   *
   * @param after the id of the last document that was counted before
   */
  async count(from: Compared, to: Compared, after: string, limit: number): Promise<Counting> {
    const key = JSON.stringify([from, to, await stateOfDrafts()]);
    if (kept?.key !== key) kept = { key, made: await this.make(from, to) };
    const { made } = kept;
    if (made.is !== 'made') return made;
    const holds = holdingOf(made.lines, made.from, made.to);
    const counts = made.lines.map(({ subject }): number | null => (subject.kind === 'pass' ? null : 0));
    const { documents, hasMore } = await textsBehind(this.sequelize, after, limit);
    for (const { texts } of documents) {
      const held = texts.map((html) => holds(html));
      counts.forEach((count, at) => {
        if (count !== null && held.some((text) => text[at] === true)) counts[at] = count + 1;
      });
    }
    const lines = made.lines.map(({ subject, kept: keeper }, at) => ({ subject, kept: keeper, documents: counts[at]! }));
    const next = hasMore ? (documents[documents.length - 1]?.id ?? null) : null;
    return { is: 'counted', lines, counted: documents.length, documents: await DocumentModel.count(), next };
  }

  private async make(from: Compared, to: Compared): Promise<Made> {
    const stored = new Map((await ProfileModel.findAll()).map((profile) => [profile.id, profile.document]));
    const house = await houseDraft();
    const sides: ComparedSide[] = [];
    for (const compared of [from, to]) {
      const document = await documentOf(compared, stored);
      const state = compared.revision === undefined ? '' : ` as of revision ${compared.revision}`;
      if (document === null) return { is: 'missing', detail: `There is no profile "${compared.id}"${state}.` };
      const side = sideOf(compared.id, document, stored, house);
      if (side === null) return { is: 'mistaken', detail: `The profile "${compared.id}"${state} has mistakes, so it cannot be compared.` };
      sides.push(side);
    }
    const [one, other] = sides as [ComparedSide, ComparedSide];
    return { is: 'made', lines: [...compareRules(one, other, house), ...comparePasses(one, other)], from: one, to: other };
  }
}

async function documentOf({ id, revision }: Compared, stored: ReadonlyMap<string, JsonObject>): Promise<JsonObject | null> {
  if (revision === undefined) return stored.get(id) ?? null;
  return (await DraftHistoryModel.findOne({ where: { profileId: id, revision } }))?.document ?? null;
}

function sideOf(
  id: string,
  document: JsonObject,
  stored: ReadonlyMap<string, JsonObject>,
  house: HouseLimits | undefined,
): ComparedSide | null {
  const resolution = resolveProfile(id, (other) => (other === id ? document : stored.get(other)));
  if (!resolution.ok) return null;
  const { profile } = resolution.resolved;
  return { profile, rules: compileRules(resolution.resolved, house && { house }), name: profile.name };
}
