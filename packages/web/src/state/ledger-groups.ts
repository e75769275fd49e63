import type { Action, Layer, LedgerEntry, Reason, Severity } from '@typikon/core';

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
  /** The element concerned, or the one that had the attribute; empty for a comment and the like. */
  element: string;
  /** The attribute concerned; empty where the element itself is. */
  attribute: string;
  textLost: number;
  /** What stands there now, where that is the same at every place. */
  after: string;
  /** The hosts of the addresses concerned, where there are any. */
  hosts: string[];
  /** Indices into the ledger. */
  places: number[];
}

const ATTRIBUTE_REASONS: ReadonlySet<Reason> = new Set([
  'attribute-forbidden',
  'attribute-not-allowed',
  'attribute-forced',
  'value-not-allowed',
  'address-runs-code',
  'scheme-not-allowed',
  'relative-address-not-allowed',
  'host-not-allowed',
]);

const RANK: Readonly<Record<Severity, number>> = { loss: 0, change: 1, tidy: 2 };

/** The element at the end of an entry's path. */
export function elementOf({ path }: LedgerEntry): string {
  const last = path.slice(path.lastIndexOf(' ') + 1).replace(/:nth-child\(\d+\)$/, '');
  return last.startsWith('#') ? '' : last;
}

/** The attribute that an entry is about; empty where it is about the element. */
export function attributeOf(entry: LedgerEntry): string {
  if (!ATTRIBUTE_REASONS.has(entry.reason)) return '';
  if (entry.before.startsWith('<'))
    return /^<[^\s>]*\s/.test(entry.before) && entry.action !== 'changed' ? 'src' : (/^[^=\s]+/.exec(entry.after)?.[0] ?? '');
  return /^[^=\s]+/.exec(entry.before)?.[0]?.toLowerCase() ?? '';
}

/** Groups a ledger by rule, the losses first, then what has the most places. */
export function groupEntries(ledger: readonly LedgerEntry[]): EntryGroup[] {
  const groups = new Map<string, EntryGroup>();
  ledger.forEach((entry, index) => {
    const { layer, rule, origin, action, reason, severity, textLost, after } = entry;
    const element = elementOf(entry);
    const attribute = attributeOf(entry);
    // The safety floor's rules are the same on every element; a profile's are of one element.
    const isOfAnyElement = attribute !== '' && layer === 'safety-floor';
    const key = [layer, rule, reason, action, isOfAnyElement ? '' : element, attribute, severity].join('|');
    let group = groups.get(key);
    if (group !== undefined && group.element !== element) group.element = '';
    if (group === undefined)
      groups.set(
        key,
        (group = { key, layer, rule, origin, action, reason, severity, element, attribute, textLost: 0, after, hosts: [], places: [] }),
      );
    group.textLost += textLost;
    if (group.after !== after) group.after = '';
    const host = /(?:src|href)\s*=\s*["']?(?:https?:)?\/\/([^/"'\s>?#]+)/i.exec(entry.before)?.[1];
    if (host !== undefined && group.hosts.length < 3 && !group.hosts.includes(host)) group.hosts.push(host);
    group.places.push(index);
  });
  return [...groups.values()].sort(
    (a, b) => RANK[a.severity] - RANK[b.severity] || b.textLost - a.textLost || b.places.length - a.places.length,
  );
}
