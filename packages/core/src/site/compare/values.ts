import type { AttributeTest, StyleTest } from '../../profile/schema';
import { samplesOf } from './pattern-sample';

/** Values that no list of a site's is likely to have. */
const OTHER_WORD = 'something-else';
const OTHER_HOST = 'elsewhere.example';
/** Longer texts are not written out to find where one is too long, in UTF-16 units. */
const LONGEST = 5000;

/** What an attribute's values may be made of, on either side. */
export interface ValueSources {
  /** Every test that either side has for the attribute, and the house limits. */
  tests: readonly AttributeTest[];
  /** Every scheme that either side allows there. */
  schemes: readonly string[];
  /** Every class of either side's styles. */
  styleClasses: readonly string[];
}

/**
 * Values at the edges of what tests let through: each that is named, the ends of ranges and what is just beyond, and something
 * that nobody names.
 */
export function valuesFor(name: string, { tests, schemes, styleClasses }: ValueSources): string[] {
  const values = new Set<string>();
  for (const test of tests) {
    switch (test.test) {
      case 'text':
        for (const length of [test.maxLength ?? 0, (test.maxLength ?? 0) + 1])
          if (length > 0 && length <= LONGEST) values.add('x'.repeat(length));
        break;
      case 'list':
        test.values.forEach((value) => values.add(value));
        break;
      case 'pattern':
        samplesOf(test.pattern).forEach((value) => values.add(value));
        break;
      case 'tokens':
        (test.values ?? []).forEach((value) => values.add(value));
        (test.prefixes ?? []).forEach((prefix) => values.add(`${prefix}x`));
        if (test.ofStyles === true) styleClasses.forEach((value) => values.add(value));
        break;
      case 'integer':
        edges(test).forEach((value) => values.add(String(Math.round(value))));
        break;
      case 'length':
        for (const value of lengths(test.ranges)) values.add(value);
        break;
      case 'url':
        for (const host of test.hosts ?? []) for (const scheme of urlSchemes(schemes)) values.add(`${scheme}${addressAt(host)}`);
        break;
      case 'language':
        values.add('de-CH');
        break;
      case 'features':
        test.values.forEach((value) => values.add(value));
        break;
      case 'style':
        for (const [property, of] of Object.entries(test.properties))
          for (const value of styleValues(property, of)) values.add(`${property}: ${value}`);
        break;
    }
  }
  if (name === 'style')
    for (const declaration of [...values]) {
      const property = declaration.slice(0, declaration.indexOf(':'));
      for (const value of ANY_VALUES) values.add(`${property}: ${value}`);
    }
  else if (tests.some(({ test }) => test === 'url') || schemes.length > 0) {
    for (const scheme of schemes) values.add(withScheme(scheme));
    values.add('/a/page');
    values.add(`https://${OTHER_HOST}/a`);
    values.add(`http://${OTHER_HOST}/a`);
  }
  const isAddress = name !== 'style' && tests.length > 0 && tests.every(({ test }) => test === 'url');
  for (const value of isAddress ? [''] : [OTHER_WORD, '1', '100', '50%', 'en', 'Some words', '']) values.add(value);
  if (name === 'style') values.add('color: red');
  return [...values];
}

const urlSchemes = (schemes: readonly string[]): string[] => [
  ...new Set(['https:', ...schemes.filter((scheme) => scheme === 'http' || scheme === 'https').map((scheme) => `${scheme}:`)]),
];

/** An address at a host as rules write it: "*." stands for any host below it. */
function addressAt(host: string): string {
  const below = host.replace(/^\*\./, 'www.');
  return `//${below}${below.includes('/') ? '' : '/'}`;
}

function withScheme(scheme: string): string {
  if (scheme === 'mailto') return 'mailto:office@harbour.example';
  if (scheme === 'tel') return 'tel:+441632960000';
  if (scheme === 'data') return 'data:image/png;base64,iVBORw0KGgo=';
  return `${scheme}://${OTHER_HOST}/a`;
}

/** The ends of a range, what is just beyond, and something within. */
function edges({ min, max }: { min?: number | undefined; max?: number | undefined }): number[] {
  const all = [min, max].flatMap((end) => (end === undefined ? [] : [end - 1, end, end + 1]));
  if (min !== undefined && max !== undefined) all.push((min + max) / 2);
  return all.length === 0
    ? [-1000, 1, 1_000_000]
    : [...all, ...(max === undefined ? [1_000_000] : []), ...(min === undefined ? [-1000] : [])];
}

function* lengths(ranges: Readonly<Record<string, { min?: number | undefined; max?: number | undefined }>>): Iterable<string> {
  for (const [unit, range] of Object.entries(ranges)) for (const value of edges(range)) yield `${value}${unit === 'none' ? '' : unit}`;
  for (const unit of ['', 'px', '%', 'em', 'cm']) yield `10${unit}`;
}

/** Values that one property or another has. */
export const ANY_VALUES =
  'inherit red #123456 10px 1em 50% 1 2 bold italic underline left center right block none small Georgia,serif solid baseline uppercase nowrap'.split(
    ' ',
  );

function styleValues(_property: string, test: StyleTest): string[] {
  switch (test.test) {
    case 'any':
      return [];
    case 'list':
    case 'colour':
      return test.values;
    case 'length':
      return [...lengths(test.ranges)];
    case 'number':
      return edges(test).map(String);
  }
}
