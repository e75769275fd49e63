import { ELEMENT_CATALOGUE } from '../markup/catalogue';
import { SAFETY_FLOOR } from '../markup/floor';
import type { CompiledRules } from '../markup/compiled';
import type { AttributeTest, Markup } from '../profile/schema';
import type { ResolvedProfile } from '../profile/resolve';

/** A configuration of the HTML Sanitizer API (HTML standard, section "Sanitization", dictionary SanitizerConfig). */
export interface SanitizerConfig {
  elements: { name: string; attributes: string[] }[];
  replaceWithChildrenElements: string[];
  attributes: string[];
  comments: boolean;
  dataAttributes: boolean;
}

export interface SanitizerExport {
  config: SanitizerConfig;
  /** What the profile does that such a configuration cannot say, one sentence each. */
  limits: string[];
}

/** Every element that HTML knows of, so that those without a rule can be said to keep their content. */
const KNOWN: readonly string[] = [
  ...ELEMENT_CATALOGUE.flatMap(({ elements }) => elements.map(({ name }) => name)),
  ...SAFETY_FLOOR.elements.unwrap,
];

/** The Sanitizer API takes these away by itself and does not let a configuration name them. */
const NOT_REPLACEABLE: ReadonlySet<string> = new Set(['html', 'script', 'iframe', 'object', 'embed', 'frame']);

/**
 * Writes a profile's rules as a configuration for the browsers' own sanitizer.
 *
 * @param resolved the profile
 * @param rules its compiled rules, with the house limits worked in
 */
export function toSanitizerConfig({ profile }: ResolvedProfile, rules: CompiledRules): SanitizerExport {
  const { markup } = profile;
  const general = Object.keys(markup.attributes);
  const names = [...new Set([...KNOWN, ...Object.keys(markup.elements)])].sort();
  const isKept = (name: string): boolean => rules.element(name).outcome === 'keep' && rules.element(name).name === name;
  const config: SanitizerConfig = {
    elements: names.filter(isKept).map((name) => ({
      name,
      attributes: [...rules.element(name).attributes.keys()].filter((attribute) => !general.includes(attribute)).sort(),
    })),
    replaceWithChildrenElements: names.filter((name) => {
      const { outcome } = rules.element(name);
      return !isKept(name) && (outcome === 'unwrap' || outcome === 'keep') && !NOT_REPLACEABLE.has(name);
    }),
    attributes: general.filter((name) => names.some((element) => isKept(element) && rules.element(element).attributes.has(name))).sort(),
    comments: rules.comments.keep,
    dataAttributes: false,
  };
  return { config, limits: limitsOf(markup, rules) };
}

function limitsOf(markup: Markup, rules: CompiledRules): string[] {
  const limits: string[] = [];
  const kept = Object.entries(markup.elements).filter(([, { outcome }]) => (outcome ?? 'keep') === 'keep');
  const of = (names: string[]): string => names.join(', ');
  const tested = kept.flatMap(([name, { attributes = {} }]) =>
    Object.entries(attributes)
      .filter(([, test]) => isTest(test))
      .map(([attribute]) => `${attribute} on ${name}`),
  );
  if (tested.length > 0) limits.push(`Values are not tested, only names: ${of(tested)}.`);
  const renamed = Object.entries(markup.elements).filter(([, { outcome }]) => outcome === 'rename');
  if (renamed.length > 0)
    limits.push(
      `Elements are not renamed; these lose their tags instead: ${of(renamed.map(([name, { to }]) => `${name} to ${to ?? ''}`))}.`,
    );
  const shown = Object.entries(markup.elements).filter(([, { outcome }]) => outcome === 'text');
  if (shown.length > 0) limits.push(`Tags are not shown as text: ${of(shown.map(([name]) => name))}.`);
  const demanding = kept.filter(([, rule]) => rule.required !== undefined || rule.forced !== undefined || rule.ratio !== undefined);
  if (demanding.length > 0) limits.push(`Attributes are neither required nor put there: ${of(demanding.map(([name]) => name))}.`);
  const placed = kept.filter(([, rule]) => rule.parents !== undefined || rule.depth !== undefined || (rule.empty ?? 'keep') !== 'keep');
  if (placed.length > 0)
    limits.push(`Where elements may stand, how deep, and what becomes of empty ones is not said: ${of(placed.map(([name]) => name))}.`);
  if (Object.keys(markup.urls.schemes).length > 0 || !markup.urls.relative)
    limits.push('Schemes of addresses are not limited beyond what runs code.');
  if (markup.headings.others !== 'by-element') limits.push('Levels of headings are not changed.');
  if (rules.ids !== null) limits.push(`Ids get no prefix; they would here (${rules.ids.prefix}).`);
  if (markup.links.newWindow !== 'as-written') limits.push('Links that open new windows are not changed.');
  if (rules.hardSpaces !== null || rules.emptyParagraphs !== null) limits.push('Hard spaces and empty paragraphs stay as they are.');
  if (markup.output.characters !== 'raw' || markup.output.layout !== 'as-is')
    limits.push('How the result is written is up to the browser.');
  limits.push(
    `Nothing limits nesting${rules.elements === null ? '' : ', the number of elements'}${rules.letters === null ? '' : ', the length'}.`,
  );
  if (markup.unlisted !== 'drop')
    limits.push(
      'Elements that HTML does not know go with their content; here they would ' +
        (markup.unlisted === 'text' ? 'be shown as text.' : 'keep it.'),
    );
  limits.push('Nothing is reported.');
  return limits;
}

function isTest(test: AttributeTest): boolean {
  return test.test !== 'text' || test.maxLength !== undefined;
}
