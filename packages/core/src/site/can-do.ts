import type { CompiledRules } from '../markup/compiled';
import { runPaste } from '../paste/run';
import type { CanDoPart } from '../profile/help-schema';
import type { ResolvedProfile } from '../profile/resolve';
import type { AttributeTest } from '../profile/schema';

/** A sentence or two about what an author can do, and which settings it follows from. */
export interface CanDo {
  part: CanDoPart;
  sentence: string;
  /** JSON Pointers into the profile. */
  pointers: readonly string[];
}

/** What is kept under one of several names, as an author calls it. */
const WORDS: readonly (readonly [names: string, word: string])[] = [
  ['strong b', 'bold'],
  ['em i', 'italic'],
  ['u', 'underlined'],
  ['s del strike', 'struck through'],
  ['mark', 'highlighted'],
  ['sub', 'lowered'],
  ['sup', 'raised'],
  ['small', 'small print'],
  ['code kbd samp', 'code'],
  ['q cite', 'quoted words'],
  ['abbr dfn', 'explained abbreviations'],
];
const BLOCKS: readonly (readonly [names: string, word: string])[] = [
  ['ul', 'bulleted lists'],
  ['ol', 'numbered lists'],
  ['dl', 'lists of terms'],
  ['table', 'tables'],
  ['blockquote', 'quotations'],
  ['pre', 'text as typed'],
  ['hr', 'rules between parts'],
];
const SCHEMES: Readonly<Record<string, string | undefined>> = {
  mailto: 'mail addresses',
  tel: 'telephone numbers',
  ftp: 'files on servers',
};

/** A part as authors read it: what the rules say, and what the profile says in its place. */
export interface ToldPart extends CanDo {
  /** Whether authors read it. */
  isShown: boolean;
  /** The profile's own words in the place of the sentence; empty for the sentence itself. */
  words: string;
}

/**
 * What a profile tells its authors: what the rules say of themselves, part by part, shown, hidden or in its own words.
 *
 * @param letters how long the text is expected to be, where a field says so
 */
export function toldParts(
  resolved: ResolvedProfile,
  rules: CompiledRules,
  letters: { from?: number | undefined; to?: number | undefined } = {},
): ToldPart[] {
  const { parts } = resolved.profile.help;
  return whatAuthorsCanDo(resolved, rules, letters).map((one) => ({
    ...one,
    isShown: parts[one.part]?.shown ?? true,
    words: parts[one.part]?.words.trim() ?? '',
  }));
}

/** The same as one text, as it stands beside a field. */
export function toldSentences(parts: readonly ToldPart[]): string {
  return parts.flatMap(({ isShown, words, sentence }) => (isShown ? [words === '' ? sentence : words] : [])).join(' ');
}

/**
 * Says in plain sentences what an author can do with a profile: from its compiled rules, its passes and its limits, so that it
 * changes when they do.
 *
 * @param letters how long the text is expected to be, where a field says so
 */
export function whatAuthorsCanDo(
  resolved: ResolvedProfile,
  rules: CompiledRules,
  letters: { from?: number | undefined; to?: number | undefined } = {},
): CanDo[] {
  const said: CanDo[] = [];
  const say = (part: CanDoPart, sentence: string, ...pointers: string[]): void => void said.push({ part, sentence, pointers });
  const isKept = (names: string): boolean => names.split(' ').some((name) => rules.element(name).outcome === 'keep');
  const levels = [1, 2, 3, 4, 5, 6].filter((level) => rules.kept.has(`h${level}`));
  if (levels.length > 0)
    say(
      'headings',
      `Headings of ${levels.length === 1 ? 'level' : 'levels'} ${listed(levels.map(String))}.`,
      '/markup/elements/h2',
      '/markup/headings',
    );
  const words = WORDS.flatMap(([names, word]) => (isKept(names) ? [word] : []));
  say('words', words.length === 0 ? 'Words alone, without bold or italic.' : `${capital(listed(words))}.`, '/markup/elements');
  const blocks = BLOCKS.flatMap(([names, word]) => (isKept(names) ? [word] : []));
  const missing = [
    ...(levels.length === 0 ? ['headings'] : []),
    ...(isKept('ul ol') ? [] : ['lists']),
    ...(isKept('table') ? [] : ['tables']),
    ...(isKept('img') ? [] : ['pictures']),
    ...(isKept('a') ? [] : ['links']),
  ];
  const none = missing.length === 0 ? '' : `No ${listed(missing, 'or')}.`;
  if (blocks.length > 0 || none !== '')
    say(
      'lists',
      [blocks.length === 0 ? '' : `${capital(listed(blocks))}.`, none].filter((text) => text !== '').join(' '),
      '/markup/elements',
    );
  if (isKept('img')) say('pictures', picturesSentence(resolved), '/markup/elements/img');
  if (isKept('a')) say('links', linksSentence(resolved, rules), '/markup/elements/a', '/markup/links');
  if (isKept('iframe')) {
    const hosts = hostsOf(resolved, 'iframe', 'src');
    say('frames', hosts.length === 0 ? 'Frames with pages of other sites.' : `Frames from ${listed(hosts)}.`, '/markup/elements/iframe');
  }
  const styles = Object.values(resolved.profile.styles).map(({ label }) => label);
  if (styles.length > 0) say('styles', `${styles.length === 1 ? 'The style' : 'The styles'} ${listed(styles)}.`, '/styles');
  say('paste', pasteSentence(resolved, rules), '/paste');
  const most = Math.min(rules.letters?.limit ?? Infinity, letters.to ?? Infinity);
  const least = letters.from ?? 0;
  if (most < Infinity || least > 0)
    say(
      'length',
      most === Infinity ? `At least ${least} letters.` : least > 0 ? `From ${least} to ${most} letters.` : `At most ${most} letters.`,
      '/markup/limits/letters',
    );
  return said;
}

function picturesSentence({ profile }: ResolvedProfile): string {
  const rule = profile.markup.elements['img'];
  const width = rule?.attributes?.['width'];
  const hosts = hostsIn(rule?.attributes?.['src']);
  const widest =
    width?.test === 'integer' ? width.max : width?.test === 'length' ? (width.ranges['none'] ?? width.ranges['px'])?.max : undefined;
  const needs = rule?.required?.['alt'] !== undefined;
  return `Pictures${widest === undefined ? '' : ` up to ${widest} px wide`}${hosts.length === 0 ? '' : `, from ${listed(hosts)}`}${needs ? ', each with a description' : ''}.`;
}

function linksSentence(resolved: ResolvedProfile, rules: CompiledRules): string {
  const { markup } = resolved.profile;
  const passes = (address: string): boolean => {
    const found = rules.element('a').attributes.get('href');
    return found !== undefined && found.tests.every(({ judge }) => 'keep' in judge(address));
  };
  const hosts = hostsOf(resolved, 'a', 'href');
  const isAnywhere = passes('https://elsewhere.example/');
  const targets = [
    ...(passes('/a') && !isAnywhere ? ['pages of this site'] : []),
    ...(isAnywhere ? ['any page'] : hosts.length > 0 ? [`pages of ${listed(hosts)}`] : []),
    ...Object.entries(SCHEMES).flatMap(([scheme, word]) => (passes(`${scheme}:a@b.example`) ? [word!] : [])),
  ];
  if (targets.length === 0) return 'Places to link to, but no links.';
  const windows = markup.links.newWindow === 'other-sites' ? ' Those to other sites open a new window.' : '';
  return `Links to ${listed(targets)}.${windows}`;
}

/** What of a paste stays is tried, not read from settings: passes and rules take it together. */
function pasteSentence(resolved: ResolvedProfile, rules: CompiledRules): string {
  const html =
    '<p style="color:#c00000;font-family:Georgia;font-size:20pt">Red</p><ul><li>one</li><li>two</li></ul><table><tbody><tr><td>a</td><td>b</td></tr></tbody></table><p><b>bold</b> <a href="https://elsewhere.example/">there</a></p>';
  const pasted = runPaste({ types: { 'text/html': html } }, resolved, { rules }).html;
  const loses: string[] = [];
  if (!/#c00000|rgb\(192|color:/i.test(pasted)) loses.push('colours');
  if (!/georgia|font-size|<font/i.test(pasted)) loses.push('fonts');
  const stays = [
    ...(pasted.includes('<ul') ? ['lists'] : []),
    ...(pasted.includes('<table') ? ['tables'] : []),
    ...(pasted.includes('<a ') ? ['links'] : []),
    ...(/<(strong|b)\b/.test(pasted) ? ['bold'] : []),
  ];
  const lost = loses.length === 0 ? 'keeps its colours and fonts' : `loses its ${listed(loses)}`;
  if (stays.length === 0) return 'What you paste loses everything but its words.';
  return `What you paste ${lost}; ${listed(stays)} ${stays.length === 1 && stays[0] === 'bold' ? 'stays' : 'stay'}.`;
}

const hostsIn = (test: AttributeTest | undefined): readonly string[] => (test?.test === 'url' ? (test.hosts ?? []) : []);
const hostsOf = ({ profile }: ResolvedProfile, element: string, attribute: string): readonly string[] =>
  hostsIn(profile.markup.elements[element]?.attributes?.[attribute]);

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Words in a row, the last joined by a word. */
function listed(words: readonly string[], by = 'and'): string {
  return words.length <= 1 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} ${by} ${words[words.length - 1]}`;
}
