import type { Attribute } from '../html/node';
import type { Action, Reason } from '../ledger/entry';
import type { Authority } from '../ledger/ledger';
import { hostOf } from './address';
import { isAddressSafe } from './attribute-test';
import { isAttributeForbidden } from './floor';
import type { CompiledAttribute, CompiledElement, Demands } from './compiled';
import { SAFETY_FLOOR, URL_ATTRIBUTES } from './floor';
import { isId as isPrefixed, prefixed, unprefixed, type IdNames } from './ids';

const FLOOR_ATTRIBUTES: Authority = { layer: 'safety-floor', rule: '/attributes' };
const FLOOR_SCHEMES: Authority = { layer: 'safety-floor', rule: '/schemes' };
const FLOOR_NAMES: Authority = { layer: 'safety-floor', rule: '/clobberingNames' };
const FLOOR_OWN_FRAME: Authority = { layer: 'safety-floor', rule: '/ownFrame' };
const CLOBBERING: ReadonlySet<string> = new Set(SAFETY_FLOOR.clobberingNames);

/** What happened to one attribute, or to a piece of its value. */
export interface AttributeChange {
  name: string;
  by: Authority;
  action: Extract<Action, 'removed' | 'changed'>;
  reason: Reason;
  /** What stands there now. */
  after: string;
  /** The value that stood there, of the attribute or of the property. */
  value?: string;
  /** The host that the value names, where it is an address. */
  host?: string | null;
  /** The property of inline style, where one is meant. */
  property?: string;
  /** UTF-16 offsets into the value, where only a piece of it is meant. */
  piece?: { start: number; end: number };
  /** True for an attribute that was not there before. */
  isAdded: boolean;
}

export interface JudgedAttributes {
  attributes: Attribute[];
  changes: AttributeChange[];
  /** Where the element cannot stay: who says so, and what becomes of it. */
  refused: { by: Authority; reason: Reason; outcome: 'drop' | 'unwrap'; name: string; value?: string } | null;
}

/**
 * Judges all attributes of an element that its rule keeps: those that go, those that change, those that must be there.
 *
 * @param attributes as they were read; not changed
 * @param rule what the element is kept by, under its new name
 * @param nothingWithout the attribute without which the element shows nothing at all, if there is one
 * @param ids the prefix for ids and the names in use, where there is one
 * @returns null where everything stays as it is
 */
export function judgeAttributes(
  attributes: readonly Attribute[],
  rule: CompiledElement,
  nothingWithout: string | null,
  ids: IdNames | null,
): JudgedAttributes | null {
  let judged: JudgedAttributes | null = null;
  for (let i = 0; i < attributes.length; i++) {
    const attribute = attributes[i]!;
    const { name, value } = attribute;
    const judgement = judge(rule, name, value, ids);
    if (judgement === null) {
      judged?.attributes.push(attribute);
      continue;
    }
    judged ??= { attributes: attributes.slice(0, i), changes: [], refused: null };
    const { keep, by, reason } = judgement;
    if (keep !== undefined) judged.attributes.push({ name, value: keep });
    else if (name === nothingWithout) judged.refused = { by, reason, outcome: 'drop', name, value };
    if (judgement.pieces === undefined) {
      const after = keep === undefined ? '' : `${name}="${keep}"`;
      const host = URL_ATTRIBUTES.has(name) ? hostOf(value) : null;
      judged.changes.push({ name, value, host, by, action: keep === undefined ? 'removed' : 'changed', reason, after, isAdded: false });
    } else for (const piece of judgement.pieces) judged.changes.push({ name, isAdded: false, ...piece });
    if (judged.refused !== null) return judged;
  }
  if (rule.demands === null) return judged;
  const demanding = new Demanding(judged ?? { attributes: attributes.slice(), changes: [], refused: null }, rule.name, ids);
  demanding.apply(rule.demands);
  return demanding.judged.changes.length > 0 || demanding.judged.refused !== null ? demanding.judged : null;
}

/** What happens to an attribute that does not stay as it is. */
interface Judgement {
  /** The value to keep; undefined where the attribute goes. */
  keep: string | undefined;
  by: Authority;
  reason: Reason;
  /** Where parts of the value have reasons of their own. */
  pieces?: Omit<AttributeChange, 'name' | 'isAdded'>[];
}

/** Judges one attribute; null says that it stays as it is. */
function judge(rule: CompiledElement, name: string, value: string, ids: IdNames | null): Judgement | null {
  if (URL_ATTRIBUTES.has(name) && !isAddressSafe(rule.name, name, value))
    return { keep: undefined, by: FLOOR_SCHEMES, reason: 'address-runs-code' };
  const attribute = rule.attributes.get(name);
  // Compiled rules never hold an attribute that the floor forbids.
  if (attribute === undefined && isAttributeForbidden(name, rule.name))
    return { keep: undefined, by: FLOOR_ATTRIBUTES, reason: 'attribute-forbidden' };
  if (attribute === undefined) return { keep: undefined, by: rule.otherAttributes(name), reason: 'attribute-not-allowed' };
  if ((name === 'id' || name === 'name') && CLOBBERING.has(value.trim().toLowerCase()) && (ids === null || !isPrefixed(rule.name, name)))
    return { keep: undefined, by: FLOOR_NAMES, reason: 'name-clobbers' };
  const own = judgeTests(attribute, value);
  if (ids === null) return own;
  const bare = unprefixed(rule.name, name, value, ids);
  const judgement = own?.keep === undefined && own !== null && bare !== value ? judgeTests(attribute, bare) : own;
  const kept = judgement === null ? (own === null ? value : bare) : judgement.keep;
  if (kept === undefined) return judgement;
  const written = prefixed(rule.name, name, kept, ids);
  if (written === value) return null;
  return judgement === null ? { keep: written, by: ids.by, reason: 'id-prefixed' } : { ...judgement, keep: written };
}

function judgeTests(attribute: CompiledAttribute, value: string): Judgement | null {
  let kept = value;
  let by: Authority | null = null;
  let pieces: Judgement['pieces'];
  for (const test of attribute.tests) {
    const verdict = test.judge(kept);
    // Places in a value that an earlier test wrote anew are none in the source.
    if (verdict.pieces !== undefined && verdict.pieces.length > 0)
      pieces = [
        ...(pieces ?? []),
        ...verdict.pieces.map(({ start, end, property, value: declared, reason, keys, after }) => ({
          by: { ...test.by, rule: `${test.by.rule}${keys.map((key) => `/${key}`).join('')}` },
          action: after === '' ? ('removed' as const) : ('changed' as const),
          property,
          value: declared,
          reason,
          after,
          ...(kept === value ? { piece: { start, end } } : {}),
        })),
      ];
    if ('refuse' in verdict) return { keep: undefined, by: test.by, reason: verdict.refuse, ...(pieces === undefined ? {} : { pieces }) };
    if (verdict.keep !== kept) by = test.by;
    kept = verdict.keep;
  }
  return by === null ? null : { keep: kept, by, reason: 'value-not-allowed', ...(pieces === undefined ? {} : { pieces }) };
}

const OPENS_NO_WINDOW: ReadonlySet<string> = new Set(['', '_self', '_parent', '_top']);

/** Applies what a rule demands of the attributes, on a copy. */
class Demanding {
  constructor(
    readonly judged: JudgedAttributes,
    private readonly element: string,
    private readonly ids: IdNames | null,
  ) {}

  apply({ anyOf, required, forced, ratio, newWindow, ownFrame }: Demands): void {
    if (newWindow !== null) this.openWindow(newWindow);
    // A policy for new windows has the last word on `target`.
    const isDecided = (name: string): boolean => newWindow !== null && name === 'target';
    for (const { name, otherwise, value, by } of required)
      if (otherwise === 'add' && !isDecided(name) && this.value(name) === undefined) this.put(name, value, by, 'required-missing');
    for (const { name, value, isWords, when, by } of forced) {
      if (isDecided(name)) continue;
      if (when === 'absent' && this.value(name) !== undefined) continue;
      if (when === 'with-address' && this.value('href') === undefined && this.value('src') === undefined) continue;
      if (when === 'new-window' && OPENS_NO_WINDOW.has((this.value('target') ?? '').trim().toLowerCase())) continue;
      if (isWords && when !== 'absent') this.addWords(name, value, by, 'attribute-forced');
      else this.put(name, value, by, 'attribute-forced');
    }
    for (const { name, otherwise, by } of required) {
      if (otherwise === 'add' || isDecided(name)) continue;
      const there = this.value(name);
      // An empty text says that a picture is decoration (HTML, section 4.8.4.4.4); an empty address says nothing.
      if (there !== undefined && (name === 'alt' || there.trim() !== '')) continue;
      this.judged.refused = { by, reason: 'required-missing', outcome: otherwise, name };
      return;
    }
    for (const { names, otherwise, by } of anyOf)
      if (!names.some((name) => (this.value(name) ?? '').trim() !== '')) {
        this.judged.refused = { by, reason: 'required-missing', outcome: otherwise, name: names[0]! };
        return;
      }
    if (ratio !== null) this.fit(ratio);
    if (ownFrame !== null) this.closeIn(ownFrame);
  }

  /** A frame of our own site that may run scripts does not count as ours: it could take its own sandbox off. */
  private closeIn({ ownHosts }: NonNullable<Demands['ownFrame']>): void {
    const words = (this.value('sandbox') ?? '').split(/[\t\n\f\r ]+/);
    const has = (word: string): boolean => words.some((other) => other.toLowerCase() === word);
    if (!has('allow-scripts') || !has('allow-same-origin')) return;
    const host = hostOf(this.value('src') ?? '');
    if (host !== null && !ownHosts.has(host)) return;
    const kept = words.filter((word) => word !== '' && word.toLowerCase() !== 'allow-same-origin').join(' ');
    this.put('sandbox', kept, FLOOR_OWN_FRAME, 'value-not-allowed');
  }

  private openWindow({ policy, ownHosts, by }: NonNullable<Demands['newWindow']>): void {
    const host = hostOf(this.value('href') ?? '');
    if (policy === 'other-sites' && host !== null && !ownHosts.has(host)) {
      this.put('target', '_blank', by, 'new-window');
      this.addWords('rel', 'noopener', by, 'new-window');
    } else this.take('target', by, 'new-window');
  }

  /** Changes the height so that the ratio of width to height is within its limits. */
  private fit({ min, max, by }: NonNullable<Demands['ratio']>): void {
    const width = Number(this.value('width'));
    const height = Number(this.value('height'));
    if (!(width > 0) || !(height > 0) || (width / height >= min && width / height <= max)) return;
    // Rounded to the side on which the ratio holds.
    const fitted = width / height < min ? Math.floor(width / min) : Math.ceil(width / max);
    if (fitted > 0 && width / fitted >= min && width / fitted <= max) this.put('height', String(fitted), by, 'ratio-not-allowed');
    else this.take('height', by, 'ratio-not-allowed');
  }

  private value(name: string): string | undefined {
    return this.judged.attributes.find((attribute) => attribute.name === name)?.value;
  }

  private addWords(name: string, words: string, by: Authority, reason: Reason): void {
    const there = (this.value(name) ?? '').split(/[\t\n\f\r ]+/).filter((word) => word !== '');
    const added = words.split(/\s+/).filter((word) => !there.includes(word));
    if (added.length > 0) this.put(name, [...there, ...added].join(' '), by, reason);
  }

  private put(name: string, given: string, by: Authority, reason: Reason): void {
    const { attributes, changes } = this.judged;
    const value = this.ids === null ? given : prefixed(this.element, name, given, this.ids);
    const place = attributes.findIndex((attribute) => attribute.name === name);
    if (place !== -1 && attributes[place]!.value === value) return;
    if (place === -1) attributes.push({ name, value });
    else attributes[place] = { name, value };
    changes.push({ name, by, action: 'changed', reason, after: `${name}="${value}"`, isAdded: place === -1 });
  }

  private take(name: string, by: Authority, reason: Reason): void {
    const { attributes, changes } = this.judged;
    const place = attributes.findIndex((attribute) => attribute.name === name);
    if (place === -1) return;
    const [{ value }] = attributes.splice(place, 1) as [Attribute];
    changes.push({ name, value, by, action: 'removed', reason, after: '', isAdded: false });
  }
}
