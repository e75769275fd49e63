import {
  CertainReach,
  questionBetween,
  reachInBrief,
  reachOf,
  type CompiledRules,
  type CompileOptions,
  type DocumentReach,
  type HouseLimits,
  type JsonObject,
  type ReachInBrief,
  type ReachQuestion,
  type ResolvedProfile,
} from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DocumentFieldModel } from '../db/document-models';
import { ProfileModel } from '../db/models';
import { byName, candidatesFor, type TextName } from '../features/candidates';
import { decide } from '../features/decided';
import { limitsIn, rulesOfChain } from '../rules';
import { allowFor, type Allowed } from './allow';
import { editionAt, lastEdition, resolveChain, type Chain } from './repository';
import { chainToRelease } from './service';
import { draftOf, mistakesIn, type Part } from './parts';
import { lastShared } from './shared';

/** Drafts as they would be released. */
export interface Change {
  /** The profile; null where none is meant but what the whole site has once. */
  id: string | null;
  /** Its draft; the one that is stored where it is not given. */
  document?: JsonObject | undefined;
  /** Profiles whose drafts would be released with it. */
  together: readonly string[];
  /** What the whole site has once whose drafts would be released. */
  shared: readonly Part[];
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
      /** How many of them can come out differently: the others come out the same. */
      candidates: number;
      /** How many of those are known to come out differently, before they are looked at. */
      sure: number;
      /** Why what texts hold alone cannot tell whom the change can touch; empty where it can. */
      undecided: readonly string[];
      looked: number;
      touched: Touched[];
      next: string | null;
    }
  | NotLooked;

/** Why nothing was looked at. */
export type NotLooked = { is: 'missing'; detail: string } | { is: 'mistaken'; detail: string };

/** One text that was looked at; without a reach where nothing happens to it. */
export interface LookedAtText {
  is: 'looked';
  pageKind: string;
  value: string;
  reach: DocumentReach | null;
}

type Row = Omit<Touched, 'reach'> & { value: string; role: string; profile: string; kept: number | null };

/** One answer is given after so long, whatever is left to look at. */
const LONGEST_MS = 1500;

type Rules = Record<'from' | 'to', CompiledRules>;

/** Texts that are treated alike, as they are now and as they would be. */
interface Side {
  profile: string;
  /** The earlier edition by which they are shown; null for those that follow. */
  kept: number | null;
  rulesFor: (role: string) => Rules;
}

/** What a change comes to. */
interface Sides {
  /** The profile's own draft with all that it inherits; null where no profile is meant. */
  draft: ResolvedProfile | null;
  house: HouseLimits | undefined;
  /** All that the rules of both follow from. */
  key: unknown;
  all: readonly Side[];
}

/** Whom a change can touch, as it was when the first answer was given: the next ones go on with it. */
interface Begun {
  /** In the order of their names. */
  candidates: readonly TextName[];
  sure: number;
  undecided: readonly string[];
  texts: number;
  at: number;
}
const begun = new Map<string, Begun>();
/** So many of them are kept, for so long, in milliseconds. */
const MOST_BEGUN = 4;
const LONGEST_BEGUN_MS = 600_000;
/** So few candidates are cleaned sooner than what they hold is looked up. */
const FEW = 300;

/** What releasing drafts would do to what is stored. */
export class ReachService {
  constructor(private readonly sequelize: Sequelize) {}

  /**
   * Cleans some texts by what was released and by drafts: those that hold what the change asks for.
   *
   * @param after names the last text that was looked at before; empty for the first
   */
  async look(change: Change, after: string, limit: number): Promise<Looking> {
    const sides = await this.sidesOf(change);
    if ('is' in sides) return sides;
    const { candidates, sure, undecided, texts } = await this.begin(change, sides, after === '');
    const [document = '', field = ''] = after.split('/');
    const from = after === '' ? 0 : candidates.findIndex((text) => byName(text, { document, field }) > 0);
    const names = from === -1 ? [] : candidates.slice(from, from + limit);
    const rows = await this.read(names);
    const touched: Touched[] = [];
    const begin = performance.now();
    let looked = 0;
    for (const name of names) {
      if (looked > 0 && performance.now() - begin > LONGEST_MS) break;
      looked++;
      const row = rows.get(`${name.document}/${name.field}`);
      // One that was taken away meanwhile is none, nor one that is shown by other rules now.
      const side = row && sideOf(sides, row);
      if (row === undefined || side === undefined) continue;
      const { value, role, profile: _profile, kept: _kept, ...text } = row;
      const rules = side.rulesFor(role);
      const reach = reachOf(value, rules.from, rules.to);
      if (reach !== null) touched.push({ ...text, reach: reachInBrief(reach) });
    }
    const last = names[looked - 1];
    const isMore = last !== undefined && from + looked < candidates.length;
    return {
      is: 'looked',
      texts,
      candidates: candidates.length,
      sure,
      undecided,
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
    const candidates: TextName[] = [];
    const undecided = new Set<string>();
    let [sure, texts] = [0, 0];
    for (const { profile, kept, rulesFor } of sides.all) {
      const found = await candidatesFor(this.sequelize, profile, kept, (role): ReachQuestion => {
        const { from, to } = rulesFor(role);
        return questionBetween(from, to);
      });
      const reachFor = (role: string): CertainReach => {
        const { from, to } = rulesFor(role);
        return new CertainReach(from, to);
      };
      if (found.texts.length <= FEW) for (const text of found.texts) candidates.push(text);
      else
        for (const { document, field, isSure } of await decide(this.sequelize, found.texts, reachFor)) {
          candidates.push({ document, field });
          if (isSure) sure++;
        }
      for (const reason of found.undecided) undecided.add(reason);
      texts += await DocumentFieldModel.count({ where: { profileId: profile, keptEdition: kept } });
    }
    const now: Begun = { candidates: candidates.sort(byName), sure, undecided: [...undecided], texts, at: Date.now() };
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
      `SELECT f.document_id AS document, f.field_key AS field, d.title, d.changed_by AS changedBy, f.value, f.role,
         f.profile_id AS profile, f.kept_edition AS kept
       FROM document_fields AS f JOIN documents AS d ON d.id = f.document_id
       WHERE (f.document_id, f.field_key) IN (?) AND f.profile_id IS NOT NULL`,
      { replacements: [names.map(({ document, field }) => [document, field])], type: QueryTypes.SELECT },
    );
    for (const row of found) rows.set(`${row.document}/${row.field}`, row);
    return rows;
  }

  /** What it would do to one text. */
  async lookAt(change: Change, documentId: string, fieldKey: string): Promise<LookedAtText | NotLooked> {
    const sides = await this.sidesOf(change);
    if ('is' in sides) return sides;
    const text = await DocumentFieldModel.findOne({ where: { documentId, fieldKey } });
    const profile = text?.profileId ?? null;
    if (text === null || profile === null || !sides.all.some((side) => side.profile === profile))
      return { is: 'missing', detail: `There is no text "${documentId}/${fieldKey}" that this change could touch.` };
    const rules = sideOf(sides, { profile, kept: text.keptEdition })?.rulesFor(text.role);
    const reach = rules === undefined ? null : reachOf(text.value, rules.from, rules.to);
    return { is: 'looked', pageKind: text.pageKindId, value: text.value, reach };
  }

  /** The smallest rules by which a draft takes no more of some texts what it takes for one reason. */
  async allow(
    change: Change & { id: string },
    key: string,
    names: readonly TextName[],
  ): Promise<{ is: 'allowed'; allowed: Allowed } | NotLooked> {
    const sides = await this.sidesOf(change);
    if ('is' in sides) return sides;
    const rows = await this.read(names);
    const texts = names.flatMap(({ document, field }) => {
      const row = rows.get(`${document}/${field}`);
      return row?.profile === change.id && row.kept === null ? [row] : [];
    });
    const { house } = sides;
    const above = (role: string): CompileOptions => ({ ...(house === undefined ? {} : { house }), ...(role === '' ? {} : { role }) });
    const side = sideOf(sides, { profile: change.id, kept: null })!;
    return { is: 'allowed', allowed: allowFor(texts, key, sides.draft!, (role) => side.rulesFor(role).from, above) };
  }

  private async sidesOf({ id, document, together, shared }: Change): Promise<Sides | NotLooked> {
    const released = [...new Set([...(id === null ? [] : [id]), ...together])];
    const stored = new Map(
      (await ProfileModel.findAll({ where: { id: released } })).map((profile): [string, JsonObject] => [profile.id, profile.document]),
    );
    const missing = released.find((one) => !stored.has(one));
    if (missing !== undefined) return { is: 'missing', detail: `There is no profile "${missing}".` };
    if (document !== undefined && id !== null) stored.set(id, document);
    const last = (await lastShared('house-limits'))?.document;
    const next = shared.includes('house-limits') ? (await draftOf('house-limits'))?.document : last;
    const mistakes = next === undefined ? '' : mistakesIn('house-limits', next);
    if (mistakes !== '') return { is: 'mistaken', detail: `The house limits have mistakes: ${mistakes}` };
    const house = { from: limitsIn(last), to: limitsIn(next) };
    const chains: unknown[] = [];
    const all: Side[] = [];
    let draft: ResolvedProfile | null = null;
    for (const { profile, kept } of await this.groupsOf(released, shared.includes('house-limits'))) {
      const before = (await (kept === null ? lastEdition(profile) : editionAt(profile, kept)))?.chain ?? [];
      const isReleased = kept === null && released.includes(profile);
      const after = isReleased ? await chainToRelease(profile, (other) => stored.get(other)) : before;
      if (isReleased) {
        const resolution = resolveChain(after);
        if (!resolution.ok)
          return {
            is: 'mistaken',
            detail: resolution.problems.map(({ profile: at, pointer, message }) => `${at}${pointer}: ${message}`).join(' '),
          };
        if (profile === id) draft = resolution.resolved;
      }
      chains.push([profile, kept, before, after]);
      all.push({ profile, kept, rulesFor: rulesBetween({ from: before, to: after }, house) });
    }
    return { draft, house: house.to, key: [chains, last, next], all };
  }

  /** Texts that a change could touch, as far as they are treated alike: those of profiles that are released, or all there are. */
  private async groupsOf(released: readonly string[], isForAll: boolean): Promise<{ profile: string; kept: number | null }[]> {
    const groups = released.map((profile): { profile: string; kept: number | null } => ({ profile, kept: null }));
    if (!isForAll) return groups;
    const stored = await this.sequelize.query<{ profile: string; kept: number | null }>(
      `SELECT DISTINCT profile_id AS profile, kept_edition AS kept FROM document_fields WHERE profile_id IS NOT NULL
       ORDER BY profile_id, kept_edition`,
      { type: QueryTypes.SELECT },
    );
    return [...groups, ...stored.filter(({ profile, kept }) => kept !== null || !released.includes(profile))];
  }
}

const sideOf = ({ all }: Sides, { profile, kept }: Pick<Row, 'profile' | 'kept'>): Side | undefined =>
  all.find((side) => side.profile === profile && side.kept === kept);

/** The rules of both, by role; each is compiled once. */
function rulesBetween(chains: Record<'from' | 'to', Chain>, house: Record<'from' | 'to', HouseLimits | undefined>) {
  const byRole = new Map<string, Rules>();
  return (role: string): Rules => {
    let rules = byRole.get(role);
    if (rules === undefined) {
      rules = { from: rulesOfChain(chains.from, role, house.from), to: rulesOfChain(chains.to, role, house.to) };
      byRole.set(role, rules);
    }
    return rules;
  };
}
