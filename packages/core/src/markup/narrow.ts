import { colourKey } from '../css/colour';
import type { JsonObject } from '../profile/merge-patch';
import { hostOf } from './address';
import { URL_ATTRIBUTES } from './floor';
import { isDeclarationSafe, readDeclarations } from './inline-style';
import { readLength, type Ranges } from './length';

/** A list of at most so many values is named one by one; more become a test of another kind. */
const MOST_VALUES = 12;
const LONGEST_VALUE = 60;

/** The narrowest test that some values pass, and words for what it allows. */
export interface NarrowTest {
  test: JsonObject;
  words: string;
}

/** Works out the narrowest test of an attribute that all given values pass: exact values and ranges, never "anything" where that can be helped. */
export function narrowestTest(name: string, values: readonly string[]): NarrowTest {
  if (name === 'src') {
    const hosts = values.map(hostOf);
    const distinct = unique(hosts.filter((host) => host !== null));
    if (values.length > 0 && hosts.every((host) => host !== null) && distinct.length <= MOST_VALUES)
      return { test: { test: 'url', hosts: distinct }, words: ` from ${listed(distinct)}` };
  }
  if (URL_ATTRIBUTES.has(name)) return { test: { test: 'url' }, words: '' };
  if (name === 'style') return narrowestStyle(values);
  if (name === 'lang' && values.every((value) => /^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/.test(value)))
    return { test: { test: 'language' }, words: '' };
  if (values.every((value) => /^[+-]?\d{1,9}$/.test(value.trim()))) {
    const [min, max] = extremes(values.map(Number));
    return { test: { test: 'integer', min, max }, words: `: ${rangeWords(min, max)}` };
  }
  const lengths = rangesOf(values);
  if (lengths !== null && (name === 'width' || name === 'height'))
    return { test: { test: 'length', ranges: lengths }, words: `: ${lengthWords(lengths)}` };
  const words = unique(values.flatMap((value) => value.split(/\s+/)).filter((token) => token !== ''));
  if ((name === 'class' || name === 'rel' || name === 'sandbox') && words.length > 0 && words.length <= MOST_VALUES)
    return { test: { test: 'tokens', values: words }, words: `: ${listed(words)}` };
  if (name === 'allow') {
    const features = unique(values.flatMap((value) => value.split(';')).map((directive) => directive.trim().split(/\s+/)[0]!)).filter(
      (feature) => /^[a-z][a-z-]*$/.test(feature),
    );
    if (features.length > 0) return { test: { test: 'features', values: features }, words: `: ${listed(features)}` };
  }
  const distinct = unique(values);
  if (distinct.length <= MOST_VALUES && distinct.every(({ length }) => length > 0 && length <= LONGEST_VALUE) && !isFreeText(name))
    return { test: { test: 'list', values: distinct }, words: `: ${listed(distinct)}` };
  if (distinct.every((value) => value === '')) return { test: { test: 'list', values: [''] }, words: ': empty' };
  const maxLength = Math.max(1, ...values.map(({ length }) => length));
  return { test: { test: 'text', maxLength }, words: `: up to ${maxLength} characters` };
}

/** The narrowest test of one style property that all given values pass. */
export function narrowestStyleTest(values: readonly string[]): NarrowTest {
  const distinct = unique(values.map((value) => value.trim().toLowerCase()));
  if (distinct.every((value) => colourKey(value) !== null))
    return {
      test: { test: 'colour', values: [...new Map(distinct.map((value) => [colourKey(value), value])).values()] },
      words: listed(distinct),
    };
  const numbers = distinct.map(Number);
  if (numbers.every((number, i) => distinct[i] !== '' && Number.isFinite(number))) {
    const [min, max] = extremes(numbers);
    return { test: { test: 'number', min, max }, words: rangeWords(min, max) };
  }
  const ranges = rangesOf(distinct.flatMap((value) => value.split(/\s+/)));
  if (ranges !== null) return { test: { test: 'length', ranges: ranges }, words: lengthWords(ranges) };
  return { test: { test: 'list', values: distinct }, words: listed(distinct) };
}

function narrowestStyle(styles: readonly string[]): NarrowTest {
  const values = new Map<string, string[]>();
  for (const style of styles)
    for (const declared of readDeclarations(style))
      if (isDeclarationSafe(declared)) values.set(declared.property, [...(values.get(declared.property) ?? []), declared.value]);
  const tests = [...values].map(([property, found]): [string, NarrowTest] => [property, narrowestStyleTest(found)]);
  return {
    test: { test: 'style', properties: Object.fromEntries(tests.map(([property, { test }]) => [property, test])) },
    words: `: ${listed(tests.map(([property]) => property))}`,
  };
}

/** Titles and alternative texts are different each time, so a list of those in a sample says nothing. */
function isFreeText(name: string): boolean {
  return (
    name === 'alt' ||
    name === 'title' ||
    name === 'id' ||
    name === 'name' ||
    name === 'summary' ||
    name === 'aria-label' ||
    name === 'datetime'
  );
}

function rangesOf(values: readonly string[]): Ranges | null {
  const ranges: Record<string, { min: number; max: number }> = {};
  for (const value of values) {
    const length = readLength(value);
    if (length === null) return null;
    const { number, unit } = length;
    const before = ranges[unit];
    ranges[unit] = { min: Math.min(before?.min ?? number, number), max: Math.max(before?.max ?? number, number) };
  }
  return values.length === 0 ? null : ranges;
}

function lengthWords(ranges: Ranges): string {
  return Object.entries(ranges)
    .map(([unit, { min, max }]) => `${rangeWords(min!, max!)}${unit === 'none' ? '' : ` ${unit}`}`)
    .join(', ');
}

function rangeWords(min: number, max: number): string {
  return min === max ? String(min) : `${min} to ${max}`;
}

function extremes(numbers: readonly number[]): [number, number] {
  return numbers.reduce<[number, number]>(([min, max], number) => [Math.min(min, number), Math.max(max, number)], [Infinity, -Infinity]);
}

export function unique(values: readonly string[]): string[] {
  return [...new Set(values)];
}

/** A few values in words; of many the first three. */
export function listed(values: readonly string[]): string {
  return values.length <= 4 ? values.join(', ') : `${values.slice(0, 3).join(', ')} and ${values.length - 3} more`;
}
