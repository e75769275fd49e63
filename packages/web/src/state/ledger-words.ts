import {
  fromPointer,
  PASS_WORDS,
  reasonRow,
  remarkOf,
  sentenceOf,
  subjectWords,
  type EntryGroup,
  type PassId,
} from '@typikon/core/settings';
import { citePass } from './paste-words';

/** What a group of entries says, in words: what happened to the author's content, and who decided. */
export interface GroupWords {
  sentence: string;
  /** The layer, as a person calls it: "House limits", "Notices desk". */
  layer: string;
  /** The rule as a citation: "§2 Markup, font". */
  citation: string;
  /** What follows the citation, where it needs an explanation. */
  remark: string;
}

/** The words for a group; `nameOf` gives the name of a profile by its id. */
export function wordsOf(group: EntryGroup, nameOf: (id: string) => string): GroupWords {
  return { sentence: sentenceOf(group), layer: layerOf(group, nameOf), citation: citationOf(group), remark: remarkOf(group) };
}

/** The layer that decided, as a person calls it. */
export function layerOf({ layer, origin }: EntryGroup, nameOf: (id: string) => string): string {
  switch (layer) {
    case 'html-standard':
      return 'The HTML standard';
    case 'safety-floor':
      return 'Safety floor';
    case 'house-limits':
      return 'House limits';
    default:
      return nameOf(origin ?? '');
  }
}

/** The rule as a citation; empty for the HTML standard. */
export function citationOf(group: EntryGroup): string {
  const pass = passOf(group);
  if (group.layer === 'html-standard') return '';
  if (group.layer === 'safety-floor') return `§0 Safety, ${subjectWords(group) || 'nesting'}`;
  if (pass !== null) return citePass(pass);
  const about = subjectWords(group);
  return about === '' ? '§2 Markup' : `§2 Markup, ${about}`;
}

/** The pass that made a group; null where the markup rules did. */
export function passOf({ rule, reason }: EntryGroup): PassId | null {
  if (reasonRow(reason).chapter !== 'paste') return null;
  const id = fromPointer(rule)[2];
  return id !== undefined && Object.hasOwn(PASS_WORDS, id) ? (id as PassId) : null;
}
