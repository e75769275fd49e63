import { groupEntries, type EntryGroup } from '../ledger/groups';
import type { Severity } from '../ledger/entry';
import { sentenceOf } from '../ledger/words';
import type { DocumentReach, ThingsLost } from './document';

/** How much a group takes from readers, from what hurts most to what hurts nobody. */
export type Harm = 'words' | 'things' | 'look' | 'none';

/** Documents to which a change of rules does the same, by the same rule. */
export interface ReachGroup {
  /** Stable for as long as the rules are. */
  key: string;
  /** `taken`: done by the rules after and not by those before; `kept`: the other way round; `written`: the same markup, written otherwise. */
  kind: 'taken' | 'kept' | 'written';
  harm: Harm;
  /** What is done, of all its places; what is kept is told as it was done before. */
  sentence: string;
  /** Who decides, as in the ledger; empty for `written`. */
  layer: string;
  rule: string;
  reason: string;
  severity: Severity;
  element: string;
  attribute: string;
  property: string;
  /** The documents by their numbers: in the order in which they were added, from 0. */
  documents: number[];
  /** In how many places of them. */
  places: number;
  /** Letters that go with it, as the ledger counts them. */
  textLost: number;
}

/** What a change of rules does to many documents. */
export interface ReachOfAll {
  documents: number;
  touched: number;
  /** Documents of which readers see words less, and how many words those are in all. */
  losing: { documents: number; words: number };
  /** Documents of which readers see words that they did not. */
  gaining: { documents: number; words: number };
  lost: ThingsLost;
  gained: ThingsLost;
  /** By rule and by what goes, what hurts most first. */
  groups: ReachGroup[];
}

/** A group of entries that is told without its places: how many they are. */
export type GroupInBrief = Omit<EntryGroup, 'places'> & { places: number };

/** What a change of rules does to one document, without its texts and its entries: as much as sums need. */
export interface ReachInBrief extends Pick<DocumentReach, 'textLost' | 'textGained' | 'lost' | 'gained'> {
  /** How many words are lost and gained. */
  wordsLost: number;
  wordsGained: number;
  taken: GroupInBrief[];
  kept: GroupInBrief[];
}

/** Takes from what a change does to a document what sums need. */
export function reachInBrief({
  textLost,
  textGained,
  wordsLost,
  wordsGained,
  lost,
  gained,
  entries,
  settled,
}: DocumentReach): ReachInBrief {
  return {
    textLost,
    textGained,
    wordsLost: wordsLost.length,
    wordsGained: wordsGained.length,
    lost,
    gained,
    taken: groupEntries(entries).map(inBrief),
    kept: groupEntries(settled).map(inBrief),
  };
}

/** What a group says, in a sentence without a full stop. */
export const sentenceOfBrief = ({ places, origin, ...group }: Omit<GroupInBrief, 'origin'> & { origin?: string | undefined }): string =>
  // A sentence asks how many places there are, and not which.
  sentenceOf({ ...group, origin, places: new Array<number>(places) });

const inBrief = ({ places, ...group }: EntryGroup): GroupInBrief => ({ ...group, places: places.length });

interface Gathered {
  kind: ReachGroup['kind'];
  group: GroupInBrief | null;
  documents: number[];
  places: number;
  textLost: number;
  /** Whether readers lost words in any document where this alone was done. */
  harm: Harm;
}

/** Adds up what a change of rules does to documents, one after the other. */
export class ReachSum {
  private documents = 0;
  private touched = 0;
  private readonly losing = { documents: 0, words: 0 };
  private readonly gaining = { documents: 0, words: 0 };
  private readonly lost: ThingsLost = { pictures: 0, links: 0, frames: 0 };
  private readonly gained: ThingsLost = { pictures: 0, links: 0, frames: 0 };
  private readonly groups = new Map<string, Gathered>();

  /** @param reach what it does to the next document; null where it does nothing */
  add(reach: ReachInBrief | null): void {
    const number = this.documents++;
    if (reach === null) return;
    this.touched++;
    count(this.losing, reach.wordsLost);
    count(this.gaining, reach.wordsGained);
    addTo(this.lost, reach.lost);
    addTo(this.gained, reach.gained);
    for (const group of reach.taken) this.put(`taken|${group.key}`, 'taken', group, number, harmOf(group, reach));
    for (const group of reach.kept) this.put(`kept|${group.key}`, 'kept', group, number, 'none');
    if (reach.taken.length + reach.kept.length === 0) this.put('written', 'written', null, number, 'none');
  }

  sum(): ReachOfAll {
    const { documents, touched, losing, gaining, lost, gained } = this;
    const groups = [...this.groups].map(([key, gathered]) => groupOf(key, gathered));
    groups.sort(
      (one, other) =>
        HARMS.indexOf(one.harm) - HARMS.indexOf(other.harm) ||
        other.textLost - one.textLost ||
        other.documents.length - one.documents.length ||
        (one.key < other.key ? -1 : 1),
    );
    return { documents, touched, losing, gaining, lost, gained, groups };
  }

  private put(key: string, kind: ReachGroup['kind'], group: GroupInBrief | null, number: number, harm: Harm): void {
    const { places, textLost } = group ?? { places: 1, textLost: 0 };
    const known = this.groups.get(key);
    if (known === undefined) {
      this.groups.set(key, { kind, group, documents: [number], places, textLost, harm });
      return;
    }
    known.documents.push(number);
    known.places += places;
    known.textLost += textLost;
    if (HARMS.indexOf(harm) < HARMS.indexOf(known.harm)) known.harm = harm;
    if (known.group !== null && group !== null) known.group = joined(known.group, group);
  }
}

const HARMS: readonly Harm[] = ['words', 'things', 'look', 'none'];

/** What hurts readers of what one group does: letters that go with it where words are missed, or things that are. */
function harmOf({ textLost, severity, element }: GroupInBrief, { wordsLost, lost }: ReachInBrief): Harm {
  if (textLost > 0 && wordsLost > 0) return 'words';
  const isThing =
    (element === 'img' && lost.pictures > 0) || (element === 'a' && lost.links > 0) || (element === 'iframe' && lost.frames > 0);
  if (isThing || severity === 'loss') return 'things';
  return severity === 'change' ? 'look' : 'none';
}

/** Two groups of different documents as one. */
function joined(one: GroupInBrief, other: GroupInBrief): GroupInBrief {
  const same = (name: 'element' | 'attribute' | 'property' | 'after'): string => (one[name] === other[name] ? one[name] : '');
  return {
    ...one,
    element: same('element'),
    attribute: same('attribute'),
    property: same('property'),
    after: same('after'),
    hosts: firstOf(one.hosts, other.hosts, 3),
    names: firstOf(one.names, other.names, 5),
    details: firstOf(one.details, other.details, 5),
  };
}

const firstOf = (one: readonly string[], other: readonly string[], most: number): string[] =>
  one.length >= most ? [...one] : [...new Set([...one, ...other])].slice(0, most);

function groupOf(key: string, { kind, group, documents, places, textLost, harm }: Gathered): ReachGroup {
  if (group === null)
    return {
      key,
      kind,
      harm,
      sentence: 'The same markup is written in another way',
      layer: '',
      rule: '',
      reason: '',
      severity: 'tidy',
      element: '',
      attribute: '',
      property: '',
      documents,
      places,
      textLost,
    };
  const { layer, rule, reason, severity, element, attribute, property } = group;
  const sentence = sentenceOfBrief({ ...group, places, textLost });
  return { key, kind, harm, sentence, layer, rule, reason, severity, element, attribute, property, documents, places, textLost };
}

function count(sum: { documents: number; words: number }, words: number): void {
  if (words === 0) return;
  sum.documents++;
  sum.words += words;
}

function addTo(sum: ThingsLost, more: ThingsLost): void {
  sum.pictures += more.pictures;
  sum.links += more.links;
  sum.frames += more.frames;
}
