import { reachInBrief, reachOf, type CompiledRules, type DocumentReach, type JsonObject, type ReachInBrief } from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DocumentFieldModel } from '../db/document-models';
import { ProfileModel } from '../db/models';
import { rulesOfChain } from '../rules';
import { lastEdition, resolveChain } from './repository';
import { chainToRelease } from './service';

/** A draft as it would be released. */
export interface Change {
  id: string;
  /** The draft; the one that is stored where it is not given. */
  document?: JsonObject | undefined;
  /** Profiles whose drafts would be released with it. */
  together: readonly string[];
}

/** A stored text that would come out differently. */
export interface Touched {
  document: string;
  field: string;
  title: string;
  changedBy: string;
  reach: ReachInBrief;
}

export type Looking =
  | { is: 'looked'; texts: number; looked: number; touched: Touched[]; next: string | null }
  | { is: 'missing'; detail: string }
  | { is: 'mistaken'; detail: string };

type Row = Omit<Touched, 'reach'> & { value: string; role: string };

/** One answer is given after so long, whatever is left to look at. */
const LONGEST_MS = 1500;

/** What releasing drafts would do to what is stored. */
export class ReachService {
  constructor(private readonly sequelize: Sequelize) {}

  /**
   * Cleans some texts of a profile by its last edition and by a draft.
   *
   * @param after names the last text that was looked at before; empty for the first
   */
  async look(change: Change, after: string, limit: number): Promise<Looking> {
    const sides = await this.sidesOf(change);
    if ('is' in sides) return sides;
    const [document = '', field = ''] = after.split('/');
    const rows = await this.sequelize.query<Row>(
      `SELECT f.document_id AS document, f.field_key AS field, d.title, d.changed_by AS changedBy, f.value, f.role
       FROM document_fields AS f JOIN documents AS d ON d.id = f.document_id
       WHERE f.profile_id = :id AND (f.document_id > :document OR (f.document_id = :document AND f.field_key > :field))
       ORDER BY f.document_id, f.field_key LIMIT :most`,
      { replacements: { id: change.id, document, field, most: limit + 1 }, type: QueryTypes.SELECT },
    );
    const touched: Touched[] = [];
    const begin = performance.now();
    let looked = 0;
    for (const { value, role, ...text } of rows.slice(0, limit)) {
      if (looked > 0 && performance.now() - begin > LONGEST_MS) break;
      const { from, to } = await sides.rulesFor(role);
      const reach = reachOf(value, from, to);
      if (reach !== null) touched.push({ ...text, reach: reachInBrief(reach) });
      looked++;
    }
    const last = rows[looked - 1];
    const next = looked < rows.length && last !== undefined ? `${last.document}/${last.field}` : null;
    return { is: 'looked', texts: await DocumentFieldModel.count({ where: { profileId: change.id } }), looked, touched, next };
  }

  /** What it would do to one text; null where the text is not there. */
  async lookAt(
    change: Change,
    documentId: string,
    fieldKey: string,
  ): Promise<{ is: 'looked'; pageKind: string; value: string; reach: DocumentReach | null } | Exclude<Looking, { is: 'looked' }>> {
    const sides = await this.sidesOf(change);
    if ('is' in sides) return sides;
    const text = await DocumentFieldModel.findOne({ where: { documentId, fieldKey, profileId: change.id } });
    if (text === null)
      return { is: 'missing', detail: `There is no text "${documentId}/${fieldKey}" that was stored with "${change.id}".` };
    const { from, to } = await sides.rulesFor(text.role);
    return { is: 'looked', pageKind: text.pageKindId, value: text.value, reach: reachOf(text.value, from, to) };
  }

  private async sidesOf({
    id,
    document,
    together,
  }: Change): Promise<
    { rulesFor(role: string): Promise<{ from: CompiledRules; to: CompiledRules }> } | Exclude<Looking, { is: 'looked' }>
  > {
    const stored = new Map(
      (await ProfileModel.findAll({ where: { id: [id, ...together] } })).map((profile): [string, JsonObject] => [
        profile.id,
        profile.document,
      ]),
    );
    const missing = [id, ...together].find((one) => !stored.has(one));
    if (missing !== undefined) return { is: 'missing', detail: `There is no profile "${missing}".` };
    if (document !== undefined) stored.set(id, document);
    const [before, after] = [(await lastEdition(id))?.chain ?? [], await chainToRelease(id, (other) => stored.get(other))];
    const resolution = resolveChain(after);
    if (!resolution.ok)
      return {
        is: 'mistaken',
        detail: resolution.problems.map(({ profile, pointer, message }) => `${profile}${pointer}: ${message}`).join(' '),
      };
    const byRole = new Map<string, { from: CompiledRules; to: CompiledRules }>();
    return {
      rulesFor: async (role) => {
        let rules = byRole.get(role);
        if (rules === undefined)
          byRole.set(role, (rules = { from: await rulesOfChain(before, role), to: await rulesOfChain(after, role) }));
        return rules;
      },
    };
  }
}
