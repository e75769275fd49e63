import { compilePattern } from '../profile/pattern';
import type { AttributeTest } from '../profile/schema';
import { dataTypeOf, hostOf, isAtHost, schemeOf } from './address';
import { SAFETY_FLOOR } from './floor';
import { compileStyleTest } from './inline-style';
import { isLengthWithin } from './length';
import type { CompiledTest, Verdict } from './verdict';

export interface UrlRules {
  schemes: ReadonlySet<string>;
  relative: boolean;
}

/** What tests need to know of the profile besides their own rule. */
export interface TestContext {
  /** For addresses: which schemes the attribute may have, and whether relative ones pass. */
  urls: UrlRules;
  /** For class: the classes that the profile's styles use. */
  styleClasses: ReadonlySet<string>;
}

const INTEGER = /^[+-]?\d{1,15}$/;
const LANGUAGE = /^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/;
const BLANK = /[\t\n\f\r ]+/;
const REFUSED: Verdict = { refuse: 'value-not-allowed' };

const keptIf = (isAllowed: (value: string) => boolean): CompiledTest => {
  return (value) => (isAllowed(value) ? { keep: value } : REFUSED);
};

/**
 * Makes the function that judges one attribute's values.
 *
 * @param test the rule as it stands in the profile
 * @param context what the rule leans on
 */
export function compileTest(test: AttributeTest, context: TestContext): CompiledTest {
  switch (test.test) {
    case 'text': {
      const { maxLength = Infinity } = test;
      return keptIf(({ length }) => length <= maxLength);
    }
    case 'list': {
      const values = new Set(test.values);
      return keptIf((value) => values.has(value));
    }
    case 'pattern':
      return keptIf(compilePattern(test.pattern));
    case 'tokens': {
      const values = new Set(test.values ?? []);
      const { prefixes = [], ofStyles = false } = test;
      return keptWords(
        (token) =>
          values.has(token) || prefixes.some((prefix) => token.startsWith(prefix)) || (ofStyles && context.styleClasses.has(token)),
      );
    }
    case 'integer': {
      const { min = -Infinity, max = Infinity } = test;
      return keptIf((value) => {
        const trimmed = value.trim();
        const number = Number(trimmed);
        return INTEGER.test(trimmed) && number >= min && number <= max;
      });
    }
    case 'length':
      return keptIf((value) => isLengthWithin(value, test.ranges));
    case 'language':
      return keptIf((value) => LANGUAGE.test(value));
    case 'features':
      return keptFeatures(new Set(test.values));
    case 'style':
      return compileStyleTest(test.properties);
    case 'url': {
      const { hosts } = test;
      const { urls } = context;
      return (value) => {
        // An address that begins with two slashes takes the page's own scheme, which on a public site is https.
        const scheme = schemeOf(value) ?? (hostOf(value) === null ? null : 'https');
        if (scheme !== null && !urls.schemes.has(scheme)) return { refuse: 'scheme-not-allowed' };
        if (scheme === null && !urls.relative) return { refuse: 'relative-address-not-allowed' };
        if (hosts !== undefined && !hosts.some((host) => isAtHost(value, host))) return { refuse: 'host-not-allowed' };
        return { keep: value };
      };
    }
  }
}

/** Keeps the allowed ones of words that white space separates. */
function keptWords(isAllowed: (word: string) => boolean): CompiledTest {
  return (value) => {
    const words = value.split(BLANK).filter((word) => word !== '');
    const kept = words.filter(isAllowed);
    if (kept.length === 0) return REFUSED;
    return { keep: kept.length === words.length ? value : kept.join(' ') };
  };
}

/** Keeps the allowed ones of a permissions policy's directives (Permissions Policy, section 5.2), which semicolons separate. */
function keptFeatures(values: ReadonlySet<string>): CompiledTest {
  return (value) => {
    const directives = value
      .split(';')
      .map((directive) => directive.trim())
      .filter((directive) => directive !== '');
    const kept = directives.filter((directive) => values.has(directive.split(BLANK)[0]!));
    if (kept.length === 0) return REFUSED;
    return { keep: kept.length === directives.length ? value : kept.join('; ') };
  };
}

const FLOOR_SCHEMES: ReadonlySet<string> = new Set(SAFETY_FLOOR.schemes);
const DATA_PICTURES: ReadonlySet<string> = new Set(SAFETY_FLOOR.dataPictures);

/** Whether an address may stand in an attribute at all, by the safety floor. */
export function isAddressSafe(element: string, attribute: string, value: string): boolean {
  const scheme = schemeOf(value);
  if (isDisguised(value)) return false;
  if (scheme === null || !FLOOR_SCHEMES.has(scheme)) return true;
  return scheme === 'data' && element === 'img' && attribute === 'src' && DATA_PICTURES.has(dataTypeOf(value));
}

/** Characters that no reader sees; a browser takes some of them out of an address, and whoever handles it may take others. */
// eslint-disable-next-line no-control-regex -- these are the characters meant
const UNSEEN = /[\u0000-\u0020\u007f-\u00a0\u00ad\u200b-\u200f\u2028-\u202e\u2060\ufeff]/g;

/** Whether an address would have a scheme that runs code, were it not for characters that nobody sees in it. */
function isDisguised(value: string): boolean {
  const colon = value.indexOf(':');
  if (colon === -1 || /[/?#]/.test(value.slice(0, colon))) return false;
  const bare = value.slice(0, colon).replace(UNSEEN, '');
  return bare.length !== value.slice(0, colon).trim().length && FLOOR_SCHEMES.has(bare.toLowerCase());
}
