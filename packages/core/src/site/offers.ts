import type { LedgerEntry, Reason } from '../ledger/entry';
import { isElementAsSuch } from '../ledger/subject';

/** Something that authors know by a word, and that rules keep or take. */
export interface Offer {
  /** What it is called in sentences. */
  name: string;
  /** What help calls it. */
  words: RegExp;
  /** The elements of which one must be kept for it. */
  elements: readonly string[];
  /** What the ledger calls it where it is no element. */
  reasons?: readonly Reason[];
}

export const OFFERS: readonly Offer[] = [
  { name: 'tables', words: /\btables?\b/i, elements: ['table'] },
  { name: 'headings', words: /\bsub-?heads?\b|\b(sub-?)?headings?\b/i, elements: ['h1', 'h2', 'h3', 'h4', 'h5', 'h6'] },
  { name: 'lists', words: /\b(bulleted|numbered)? ?lists?\b|\bbullets?\b/i, elements: ['ul', 'ol'] },
  { name: 'pictures', words: /\bpictures?\b|\bimages?\b|\bphotographs?\b/i, elements: ['img'] },
  { name: 'links', words: /\blinks?\b/i, elements: ['a'] },
  { name: 'bold', words: /\bbold\b/i, elements: ['strong', 'b'] },
  { name: 'italic', words: /\bitalics?\b/i, elements: ['em', 'i'] },
  { name: 'underlining', words: /\bunderlin(e|ed|ing)\b/i, elements: ['u'] },
  { name: 'quotations', words: /\bquotations?\b|\bblock quotes?\b/i, elements: ['blockquote', 'q'] },
  { name: 'raised letters', words: /\bfoot ?notes?\b|\bsuperscripts?\b|\braised\b/i, elements: ['sup'] },
  { name: 'frames', words: /\b(i?frames?|embed(s|ded)?|videos?|maps?|cameras?)\b/i, elements: ['iframe', 'video', 'embed', 'object'] },
  {
    name: 'length',
    words: /\bletters?\b|\bcharacters?\b|\blong(er)?\b|\bshort(er)?\b|\blength\b/i,
    elements: [],
    reasons: ['letter-limit'],
  },
  {
    name: 'addresses',
    words: /\b(address(es)?|sites?|pages?|hosts?)\b/i,
    elements: [],
    reasons: ['host-not-allowed', 'scheme-not-allowed', 'relative-address-not-allowed', 'source-refused'],
  },
];

/** The names of all that can be offered. */
export const OFFER_NAMES: readonly string[] = OFFERS.map(({ name }) => name);

/** What the rules or the passes took of a text, by the names of what is offered: each once, in their order. */
export function takenOf(ledger: readonly LedgerEntry[]): string[] {
  const taken = new Set<string>();
  for (const { action, layer, reason, subject } of ledger) {
    if (layer === 'html-standard') continue;
    const isTaken = action === 'removed' || action === 'unwrapped' || action === 'shown-as-text';
    const element = isTaken && isElementAsSuch(subject) ? subject.element : '';
    for (const { name, elements, reasons = [] } of OFFERS) if (elements.includes(element) || reasons.includes(reason)) taken.add(name);
  }
  return OFFER_NAMES.filter((name) => taken.has(name));
}
