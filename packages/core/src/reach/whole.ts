import type { LedgerEntry, Reason } from '../ledger/entry';
import { wholeValue, type Subject } from '../ledger/subject';
import { clean, cleanWithoutLedger } from '../markup/clean';
import type { CompiledRules } from '../markup/compiled';

/** Attributes that say nothing where nothing stands in them. */
const NOTHING_WHEN_BLANK: ReadonlySet<string> = new Set(['class', 'style', 'id', 'rel', 'target', 'width', 'height', 'align']);

/** What adds something or renames what nobody reads: references follow their ids. */
const NOTHING_TAKEN: ReadonlySet<Reason> = new Set(['id-prefixed', 'attribute-forced']);

/**
 * Whether cleaning changes nothing of a document that a reader could get: every element, every attribute and every word stays. Comments
 * are seen by nobody; what the parser itself leaves out (HTML, section 13.2) and what the safety floor takes from everybody without
 * a trace on the page, such as scripts, no rule could give to readers; attributes with nothing in them
 * give nothing, and what is added takes nothing.
 *
 * @param html the document as it is stored
 */
export function isWhole(html: string, rules: CompiledRules): boolean {
  if (cleanWithoutLedger(html, rules) === html) return true;
  return clean(html, rules).ledger.every(isNothing);
}

function isNothing({ stage, layer, severity, textLost, subject, reason }: LedgerEntry): boolean {
  if (stage === 'read' || subject.kind === 'comment' || isBlank(subject) || NOTHING_TAKEN.has(reason)) return true;
  return (layer === 'html-standard' || layer === 'safety-floor') && severity === 'tidy' && textLost <= 0;
}

function isBlank(subject: Subject): boolean {
  const { kind, attribute } = subject;
  return kind === 'attribute' && attribute !== undefined && isBlankAttribute(attribute, wholeValue(subject) ?? 'cut');
}

/** Whether an attribute with a value says nothing at all. */
export const isBlankAttribute = (name: string, value: string): boolean => NOTHING_WHEN_BLANK.has(name) && value.trim() === '';
