import {
  questionBetween,
  reachInBrief,
  reachOf,
  type CompiledRules,
  type CompileOptions,
  type DocumentReach,
  type JsonObject,
  type ReachInBrief,
  type ReachQuestion,
  type ResolvedProfile,
} from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DocumentFieldModel } from '../db/document-models';
import { ProfileModel } from '../db/models';
import { byName, candidatesFor, type Candidates, type TextName } from '../features/candidates';
import { houseLimits, rulesOfChain, stateOfHouse } from '../rules';
import { allowFor, type Allowed } from './allow';
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
  | {
      is: 'looked';
      texts: number;
      /** How many of them hold what the change asks for: the others come out the same. */
      candidates: number;
      /** Why all of them had to be looked at; empty where what they hold could decide. */
      undecided: readonly string[];
      looked: number;
      touched: Touched[];
      next: string | null;
    }
  | { is: 'missing'; detail: string }
  | { is: 'mistaken'; detail: string };

type Row = Omit<Touched, 'reach'> & { value: string; role: string };

/** One answer is given after so long, whatever is left to look at. */
const LONGEST_MS = 1500;

/** A profile as it was released last and as it would be. */
interface Sides {
  draft: ResolvedProfile;
  /** All that the rules of both follow from. */
  key: unknown;
  rulesFor(role: string): Promise<{ from: CompiledRules; to: CompiledRules }>;
}

/** Whom a change can touch, as it was when the first answer was given: the next ones go on with it. */
interface Begun {
  candidates: Candidates;
  texts: number;
  at: number;
}
const begun = new Map<string, Begun>();
/** So many of them are kept, for so long, in milliseconds. */
const MOST_BEGUN = 4;
const LONGEST_BEGUN_MS = 600_000;

/** What releasing drafts would do to what is stored. */
export class ReachService {
  constructor(private readonly sequelize: Sequelize) {}

  /**
   * Cleans some texts of a profile by its last edition and by a draft: those that hold what the change asks for.
   *
   * @param after names the last text that was looked at before; empty for the first
   */
  async look(change: Change, after: string, limit: number): Promise<Looking> {
    const sides = await this.sidesOf(change);
    if ('is' in sides) return sides;
    const { candidates, texts } = await this.begin(change, sides, after === '');
    const [document = '', field = ''] = after.split('/');
    const from = after === '' ? 0 : candidates.texts.findIndex((text) => byName(text, { document, field }) > 0);
    const names = from === -1 ? [] : candidates.texts.slice(from, from + limit);
    const rows = await this.read(names);
    const touched: Touched[] = [];
    const begin = performance.now();
    let looked = 0;
    for (const name of names) {
      if (looked > 0 && performance.now() - begin > LONGEST_MS) break;
      looked++;
      const row = rows.get(`${name.document}/${name.field}`);
      // One that was taken away meanwhile is none, nor one that an earlier release left as it was.
      if (row === undefined) continue;
      const { value, role, ...text } = row;
      const { from: before, to: then } = await sides.rulesFor(role);
      const reach = reachOf(value, before, then);
      if (reach !== null) touched.push({ ...text, reach: reachInBrief(reach) });
    }
    const last = names[looked - 1];
    const isMore = last !== undefined && from + looked < candidates.texts.length;
    return {
      is: 'looked',
      texts,
      candidates: candidates.texts.length,
      undecided: candidates.undecided,
      looked,
      touched,
      next: isMore ? `${last.document}/${last.field}` : null,
    };
  }

  /** Whom the change can touch: those that can now for a first answer, and for the next ones those that could then. */
  private async begin(change: Change, sides: Sides, isFirst: boolean): Promise<Begun> {
    const key = JSON.stringify([change, sides.key]);
    const known = begun.get(key);
    if (!isFirst && known !== undefined && Date.now() - known.at < LONGEST_BEGUN_MS) return known;
    const questionFor = async (role: string): Promise<ReachQuestion> => {
      const { from, to } = await sides.rulesFor(role);
      return questionBetween(from, to);
    };
    const now = {
      candidates: await candidatesFor(this.sequelize, change.id, questionFor),
      texts: await DocumentFieldModel.count({ where: { profileId: change.id, keptEdition: null } }),
      at: Date.now(),
    };
    begun.delete(key);
    const [oldest] = begun.keys();
    if (begun.size >= MOST_BEGUN && oldest !== undefined) begun.delete(oldest);
    begun.set(key, now);
    return now;
  }

  private async read(names: readonly TextName[]): Promise<Map<string, Row>> {
    const rows = new Map<string, Row>();
    if (names.length === 0) return rows;
    const found = await this.sequelize.query<Row>(
      `SELECT f.document_id AS document, f.field_key AS field, d.title, d.changed_by AS changedBy, f.value, f.role
       FROM document_fields AS f JOIN documents AS d ON d.id = f.document_id WHERE (f.document_id, f.field_key) IN (?) AND f.kept_edition IS NULL`,
      { replacements: [names.map(({ document, field }) => [document, field])], type: QueryTypes.SELECT },
    );
    for (const row of found) rows.set(`${row.document}/${row.field}`, row);
    return rows;
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
    const reach = text.keptEdition === null ? reachOf(text.value, from, to) : null;
    return { is: 'looked', pageKind: text.pageKindId, value: text.value, reach };
  }

  /** The smallest rules by which a draft takes no more of some texts what it takes for one reason. */
  async allow(
    change: Change,
    key: string,
    names: readonly TextName[],
  ): Promise<{ is: 'allowed'; allowed: Allowed } | Exclude<Looking, { is: 'looked' }>> {
    const sides = await this.sidesOf(change);
    if ('is' in sides) return sides;
    const rows = await this.read(names);
    const texts = names.flatMap(({ document, field }) => rows.get(`${document}/${field}`) ?? []);
    const from = new Map<string, CompiledRules>();
    for (const { role } of texts) if (!from.has(role)) from.set(role, (await sides.rulesFor(role)).from);
    const house = await houseLimits();
    const above = (role: string): CompileOptions => ({ ...(house === undefined ? {} : { house }), ...(role === '' ? {} : { role }) });
    return { is: 'allowed', allowed: allowFor(texts, key, sides.draft, (role) => from.get(role)!, above) };
  }

  private async sidesOf({ id, document, together }: Change): Promise<Sides | Exclude<Looking, { is: 'looked' }>> {
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
      draft: resolution.resolved,
      key: [before, after, await stateOfHouse()],
      rulesFor: async (role) => {
        let rules = byRole.get(role);
        if (rules === undefined)
          byRole.set(role, (rules = { from: await rulesOfChain(before, role), to: await rulesOfChain(after, role) }));
        return rules;
      },
    };
  }
}
