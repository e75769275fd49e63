import {
  clean,
  parseFragment,
  renderedWords,
  runPaste,
  visibleLetters,
  type CompiledRules,
  type ParsedFragment,
  type PasteSource,
  type ResolvedProfile,
} from '../src/index';
import { elementsOf } from '../src/html/transform';
import { wholesOf } from '../src/markup/parts';

/*
 * Laws over any content, each a function that says what is wrong, or null. The unit tests try them with a seed that stays,
 * the fuzz run with a fresh one for as long as asked.
 */

type Root = ParsedFragment['root'];

/** For each word the one that goes on from it without anything between, as a reader sees it; brackets of readings part them. */
export function neighbours(root: Root): Set<string> {
  const pairs = new Set<string>();
  for (const word of renderedWords(root).flatMap((one) => one.split(/[()]/))) {
    const parts = word.match(/w\d+\./g) ?? [];
    for (let i = 1; i < parts.length; i++) pairs.add(parts[i - 1]! + parts[i]!);
  }
  return pairs;
}

/** Whether what stood between two words without any space went: they were one word before. */
export function isBridged(pair: string, before: ReadonlySet<string>): boolean {
  const next = new Map([...before].map((one) => one.match(/w\d+\./g) as [string, string]));
  const [from, to] = pair.match(/w\d+\./g) as [string, string];
  for (let at = next.get(from); at !== undefined; at = next.get(at)) if (at === to) return true;
  return false;
}

/** Words `w1.`, `w2.` … that a browser shows apart are apart in the result. For rules that show no tags as text and cut nothing off. */
export function wordsStayApart(html: string, rules: CompiledRules): string | null {
  const before = neighbours(parseFragment(html).root);
  const joined = [...neighbours(clean(html, rules).root)].find((pair) => !before.has(pair) && !isBridged(pair, before));
  return joined === undefined ? null : `${joined} run together`;
}

const wordsIn = (root: Root): string[] => renderedWords(root).flatMap((word) => word.match(/w\d+/g) ?? []);

/** Words that no reader saw are not in the result. For rules that show no tags as text. */
export function hiddenStaysHidden(html: string, rules: CompiledRules): string | null {
  const seen = new Set(wordsIn(parseFragment(html).root));
  const shown = wordsIn(clean(html, rules).root).find((word) => !seen.has(word));
  return shown === undefined ? null : `${shown} was hidden and is shown`;
}

/** No part of clean markup stands without its whole. */
export function partsHaveWholes(html: string, rules: CompiledRules): string | null {
  const out = clean(html, rules).html;
  for (const { name, parent } of elementsOf(parseFragment(out).root)) {
    const wholes = wholesOf(name);
    if (wholes === null) continue;
    const holder = parent?.type === 'element' ? parent.name : '';
    if (!wholes.has(holder) && !(wholes.has('dl') && holder === 'div')) return `<${name}> stands alone in ${out}`;
  }
  return null;
}

/** Cleaning twice is cleaning once, and the ledger accounts for every letter. */
export function cleansOnce(html: string, rules: CompiledRules): string | null {
  const once = clean(html, rules);
  const twice = clean(once.html, rules);
  if (twice.html !== once.html) return `cleaned twice it is ${twice.html} instead of ${once.html}`;
  if (once.ledger.some(({ action }) => action === 'shown-as-text')) return null;
  const lost = once.ledger.reduce((sum, { textLost }) => sum + textLost, 0);
  const [before, after] = [visibleLetters(parseFragment(html).root), visibleLetters(once.root)];
  return after + lost === before ? null : `${before} letters became ${after}, and the ledger tells of ${lost}`;
}

/** After a paste text stands in blocks where Enter makes paragraphs, every entry has its place, and pasted again it stays as it is. */
export function pasteStands(html: string, profile: ResolvedProfile, rules: CompiledRules, source: PasteSource): string | null {
  const paste = (markup: string, from: PasteSource) => runPaste({ types: { 'text/html': markup } }, profile, { rules, source: from });
  const { html: out, root, ledger, input } = paste(html, source);
  if (profile.profile.surface.enter === 'paragraph' && root.children.some((child) => child.type === 'text' && child.value.trim() !== ''))
    return `bare text at the top of ${out}`;
  const placeless = input.trim() === '' ? undefined : ledger.find(({ start, end }) => end <= start);
  if (placeless !== undefined) return `an entry without a place: ${placeless.reason}`;
  const again = paste(out, 'web-page').html;
  return again === out ? null : `pasted again it is ${again} instead of ${out}`;
}
