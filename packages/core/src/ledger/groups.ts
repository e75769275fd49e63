import type { Action, Layer, LedgerEntry, Reason, Severity } from './entry';

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
  /** The style property concerned; empty where a whole attribute or element is. */
  property: string;
  textLost: number;
  /** What stands there now, where that is the same at every place. */
  after: string;
  /** The hosts of the addresses concerned, where there are any. */
  hosts: string[];
  /** What is said beside the reason, once each: names of characters, what guesses rest on. */
  details: string[];
  /** Indices into the ledger. */
  places: number[];
}

/** So many different details are told of one group. */
const MOST_DETAILS = 5;

const STYLE_REASONS: ReadonlySet<Reason> = new Set([
  'style-forbidden',
  'style-property-not-allowed',
  'style-value-not-allowed',
  'style-importance',
  'paste-style',
]);
const ATTRIBUTE_REASONS: ReadonlySet<Reason> = new Set<Reason>([
  ...STYLE_REASONS,
  'attribute-repeated',
  'attribute-forbidden',
  'attribute-not-allowed',
  'attribute-forced',
  'value-not-allowed',
  'address-runs-code',
  'scheme-not-allowed',
  'relative-address-not-allowed',
  'host-not-allowed',
  'id-prefixed',
  'name-clobbers',
  'new-window',
  'ratio-not-allowed',
]);

/** Reasons of passes that speak of an attribute where what stood there is one. */
const PASTE_ATTRIBUTE_REASONS: ReadonlySet<Reason> = new Set<Reason>([
  'paste-office',
  'paste-class',
  'paste-element',
  'paste-link',
  'paste-picture',
  'paste-table',
  'paste-replace',
]);
/** Reasons of passes that are about words and lines, whatever element those stand in. */
const TEXT_REASONS: ReadonlySet<Reason> = new Set<Reason>([
  'paste-join',
  'paste-typography',
  'paste-space',
  'paste-invisible',
  'paste-blank',
  'paste-meaning',
]);

const RANK: Readonly<Record<Severity, number>> = { loss: 0, change: 1, tidy: 2 };

/** The element at the end of an entry's path. */
export function elementOf({ path }: LedgerEntry): string {
  const last = path.slice(path.lastIndexOf(' ') + 1).replace(/:nth-child\(\d+\)$/, '');
  return last.startsWith('#') ? '' : last;
}

/** The attribute that an entry is about; empty where it is about the element. */
export function attributeOf(entry: LedgerEntry): string {
  const { reason, before, after, action, rule } = entry;
  if (PASTE_ATTRIBUTE_REASONS.has(reason)) return /^([\w:-]+)\s*(?:=|$)/.exec(before)?.[1]?.toLowerCase() ?? '';
  if (reason === 'required-missing') return rule.slice(rule.lastIndexOf('/') + 1);
  if (!ATTRIBUTE_REASONS.has(reason)) return '';
  if (STYLE_REASONS.has(reason)) return 'style';
  if (before.startsWith('<')) return /^<[^\s>]*\s/.test(before) && action !== 'changed' ? 'src' : (/^[^=\s]+/.exec(after)?.[0] ?? '');
  return /^[^=\s]+/.exec(before)?.[0]?.toLowerCase() ?? '';
}

/** The style property that an entry is about; empty where it is about none. */
export function propertyOf({ reason, before }: LedgerEntry): string {
  return STYLE_REASONS.has(reason) ? (/^\s*([-a-z]+)\s*:/i.exec(before)?.[1]?.toLowerCase() ?? '') : '';
}

/** Groups a ledger by rule, the losses first, then what has the most places. */
export function groupEntries(ledger: readonly LedgerEntry[]): EntryGroup[] {
  const groups = new Map<string, EntryGroup>();
  ledger.forEach((entry, index) => {
    const { layer, rule, origin, action, reason, severity, textLost, after, before } = entry;
    const element = TEXT_REASONS.has(reason) ? '' : elementOf(entry);
    // What only its own program reads is one thing, whatever it is called.
    const attribute = reason === 'paste-office' ? (before.startsWith('<') || before === '' ? '' : 'style') : attributeOf(entry);
    const property = propertyOf(entry);
    // Rules of the safety floor, and those that speak of all elements, are the same on every element; others are of one.
    const isOfAnyElement = attribute !== '' && (layer === 'safety-floor' || !rule.startsWith('/markup/elements/'));
    // A change is told by what it made; so are lines that became other elements.
    const made = reason === 'paste-meaning' || (reason === 'paste-picture' && action === 'changed') ? after.replace(/".*/, '') : '';
    const key = [layer, rule, reason, action, made, isOfAnyElement ? '' : element, attribute, property, severity].join('|');
    let group = groups.get(key);
    if (group !== undefined && group.element !== element) group.element = '';
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
          element,
          attribute,
          property,
          textLost: 0,
          after,
          hosts: [],
          details: [],
          places: [],
        }),
      );
    group.textLost += textLost;
    if (group.after !== after) group.after = '';
    const host = /(?:src|href)\s*=\s*["']?(?:https?:)?\/\/([^/"'\s>?#]+)/i.exec(entry.before)?.[1];
    if (host !== undefined && group.hosts.length < 3 && !group.hosts.includes(host)) group.hosts.push(host);
    const { detail } = entry;
    if (detail !== undefined && group.details.length < MOST_DETAILS && !group.details.includes(detail)) group.details.push(detail);
    group.places.push(index);
  });
  return [...groups.values()].sort(
    (a, b) => RANK[a.severity] - RANK[b.severity] || b.textLost - a.textLost || b.places.length - a.places.length,
  );
}
