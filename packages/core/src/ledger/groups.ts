import type { Action, Layer, LedgerEntry, Severity } from './entry';
import { reasonRow, type Reason } from './reasons';
import type { Subject, SubjectKind } from './subject';

/** Entries that say the same of different places: one rule did the same to the same kind of thing. */
export interface EntryGroup {
  /** Stable for as long as the rules are: what, by whom, why. */
  key: string;
  layer: Layer;
  rule: string;
  origin: string | undefined;
  action: Action;
  reason: Reason;
  severity: Severity;
  kind: SubjectKind;
  /** The element concerned, or the one that had the attribute; empty where it is not the same everywhere, or there is none. */
  element: string;
  /** The attribute concerned; empty where the element itself is. */
  attribute: string;
  /** The style property concerned; empty where a whole attribute or element is. */
  property: string;
  textLost: number;
  /** What stands there now, where that is the same at every place. */
  after: string;
  /** The hosts of the addresses concerned, where there are any. */
  hosts: string[];
  /** What the things are called, once each: characters by name. */
  names: string[];
  /** What guesses rest on, once each. */
  details: string[];
  /** Indices into the ledger. */
  places: number[];
}

/** So many different names, details and hosts are told of one group. */
const MOST_DETAILS = 5;
const MOST_HOSTS = 3;

const RANK: Readonly<Record<Severity, number>> = { loss: 0, change: 1, tidy: 2 };

/** Whether a rule speaks of one element: its entries are told apart by elements, those of others are not. */
function isOfOneElement({ kind, attribute }: Subject, { layer, rule }: LedgerEntry): boolean {
  if (kind === 'element' && attribute === undefined) return true;
  return (
    (kind === 'element' || kind === 'attribute' || kind === 'property') && layer !== 'safety-floor' && rule.startsWith('/markup/elements/')
  );
}

/** Groups a ledger by rule, the losses first, then what has the most places. */
export function groupEntries(ledger: readonly LedgerEntry[]): EntryGroup[] {
  const groups = new Map<string, EntryGroup>();
  ledger.forEach((entry, index) => {
    const { layer, rule, origin, action, reason, severity, textLost, after, subject, detail } = entry;
    const { isOneThing = false, isByResult = false } = reasonRow(reason);
    const { kind, element } = subject;
    const [attribute, property] = isOneThing ? ['', ''] : [subject.attribute ?? '', subject.property ?? ''];
    const named = isOneThing || isByResult ? '' : `${kind}|${isOfOneElement(subject, entry) ? element : ''}|${attribute}|${property}`;
    const key = [layer, rule, reason, action, named, isByResult ? after : '', severity].join('|');
    let group = groups.get(key);
    if (group === undefined)
      groups.set(
        key,
        (group = {
          key,
          layer,
          rule,
          origin,
          action,
          reason,
          severity,
          kind,
          element,
          attribute,
          property,
          textLost: 0,
          after,
          hosts: [],
          names: [],
          details: [],
          places: [],
        }),
      );
    else {
      if (group.element !== element) group.element = '';
      if (group.attribute !== attribute) group.attribute = '';
      if (group.property !== property) group.property = '';
      if (group.after !== after) group.after = '';
    }
    group.textLost += textLost;
    addOnce(group.hosts, subject.host, MOST_HOSTS);
    addOnce(group.names, subject.name, MOST_DETAILS);
    addOnce(group.details, detail, MOST_DETAILS);
    group.places.push(index);
  });
  return [...groups.values()].sort(
    (a, b) => RANK[a.severity] - RANK[b.severity] || b.textLost - a.textLost || b.places.length - a.places.length,
  );
}

function addOnce(all: string[], one: string | undefined, most: number): void {
  if (one !== undefined && one !== '' && all.length < most && !all.includes(one)) all.push(one);
}
