import type { Reason } from '../ledger/entry';
import type { AttributeTest } from '../profile/schema';
import { dataTypeOf, hostOf, schemeOf } from './address';
import { SAFETY_FLOOR } from './floor';

/** What a test says of a value: it stays, it stays in part, or it goes and why. */
export type Verdict = { keep: string } | { refuse: Reason };

export interface UrlRules {
  schemes: ReadonlySet<string>;
  relative: boolean;
}

export type CompiledTest = (value: string) => Verdict;

const INTEGER = /^[+-]?\d{1,15}$/;
const LANGUAGE = /^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/;
const BLANK = /[\t\n\f\r ]+/;

/**
 * Makes the function that judges one attribute's values.
 *
 * @param test the rule as it stands in the profile
 * @param urls for addresses: which schemes the attribute may have, and whether relative ones pass
 */
export function compileTest(test: AttributeTest, urls: UrlRules): CompiledTest {
  switch (test.test) {
    case 'text': {
      const { maxLength = Infinity } = test;
      return (value) => (value.length <= maxLength ? { keep: value } : { refuse: 'value-not-allowed' });
    }
    case 'list': {
      const values = new Set(test.values);
      return (value) => (values.has(value) ? { keep: value } : { refuse: 'value-not-allowed' });
    }
    case 'tokens': {
      const values = new Set(test.values);
      return (value) => {
        const tokens = value.split(BLANK).filter((token) => token !== '');
        const kept = tokens.filter((token) => values.has(token));
        if (kept.length === 0) return { refuse: 'value-not-allowed' };
        return { keep: kept.length === tokens.length ? value : kept.join(' ') };
      };
    }
    case 'integer': {
      const { min = -Infinity, max = Infinity } = test;
      return (value) => {
        const trimmed = value.trim();
        const number = Number(trimmed);
        return INTEGER.test(trimmed) && number >= min && number <= max ? { keep: value } : { refuse: 'value-not-allowed' };
      };
    }
    case 'language':
      return (value) => (LANGUAGE.test(value) ? { keep: value } : { refuse: 'value-not-allowed' });
    case 'url': {
      const hosts = test.hosts === undefined ? null : new Set(test.hosts);
      return (value) => {
        // An address that begins with two slashes takes the page's own scheme, which on a public site is https.
        const scheme = schemeOf(value) ?? (hostOf(value) === null ? null : 'https');
        if (scheme !== null && !urls.schemes.has(scheme)) return { refuse: 'scheme-not-allowed' };
        if (scheme === null && !urls.relative) return { refuse: 'relative-address-not-allowed' };
        if (hosts !== null && !hosts.has(hostOf(value) ?? '')) return { refuse: 'host-not-allowed' };
        return { keep: value };
      };
    }
  }
}

const FLOOR_SCHEMES: ReadonlySet<string> = new Set(SAFETY_FLOOR.schemes);
const DATA_PICTURES: ReadonlySet<string> = new Set(SAFETY_FLOOR.dataPictures);

/** Whether an address may stand in an attribute at all, by the safety floor. */
export function isAddressSafe(element: string, attribute: string, value: string): boolean {
  const scheme = schemeOf(value);
  if (scheme === null || !FLOOR_SCHEMES.has(scheme)) return true;
  return scheme === 'data' && element === 'img' && attribute === 'src' && DATA_PICTURES.has(dataTypeOf(value));
}
