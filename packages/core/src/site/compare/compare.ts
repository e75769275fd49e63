import type { CompiledRules } from '../../markup/compiled';
import { clean, cleanWithoutLedger } from '../../markup/clean';
import type { HouseLimits, Profile } from '../../profile/schema';
import { Contents, numbersFrom, smallest, written } from './content';
import { shows } from './holding';
import { fateWords, harmOf, subjectWords, type ComparisonLine, type Fate } from './line';
import { attributeProbes, demandProbes, elementProbes, settingProbes, type Candidate, type ComparedSides } from './probes';
import type { ComparedSide } from './side';
import { Vocabulary } from './vocabulary';

/** So much is tried where the rules are written differently and no example of their own shows it, in UTF-16 units. */
const MOST_TRIED = 30_000;
const SEED = 20_261;

/**
 * What each of two profiles keeps of markup that the other takes or changes: computed from their rules, with an example for
 * every line that proves it. Two profiles whose markup rules say the same have no lines.
 *
 * @param house the limits under which both were compiled
 */
export function compareRules(from: ComparedSide, to: ComparedSide, house?: HouseLimits): ComparisonLine[] {
  const rulesOf = ({ markup, styles }: Profile): string => JSON.stringify([markup, styles]);
  if (rulesOf(from.profile) === rulesOf(to.profile)) return [];
  const vocabulary = new Vocabulary(from.profile, to.profile, house);
  const sides: ComparedSides = { from: from.rules, to: to.rules };
  const names = { from: from.name, to: to.name };
  const lines = new Map<string, ComparisonLine>();
  const unexplained: Candidate[] = [];
  for (const candidates of [elementProbes, attributeProbes, demandProbes, settingProbes])
    for (const candidate of candidates(vocabulary, sides)) {
      const { unless, isWhole = false, subject, probe } = candidate;
      if (unless !== undefined && [...lines.values()].some((line) => unless(line.subject))) continue;
      const line = lineOf(candidate, sides, names);
      if (line === null || !shows(subject, probe.html, sides)) continue;
      if (line === 'elsewhere') unexplained.push(candidate);
      else {
        const key = JSON.stringify(isWhole ? [subject] : [subject, line.kept]);
        if (!lines.has(key)) lines.set(key, line);
      }
    }
  if (lines.size > 0) return [...lines.values()];
  // Where no tag by itself is treated differently, several together may be.
  for (const { subject, probe } of unexplained) {
    const line = lineOf({ subject, probe, isWhole: true }, sides, names);
    if (line !== null && line !== 'elsewhere') return [line];
  }
  const found = together(vocabulary, sides, names);
  return found === null ? [] : [found];
}

/** The line that a candidate gives; null where both do the same with it, `elsewhere` where only something around it differs. */
function lineOf(
  { subject, probe, isWhole = false }: Candidate,
  sides: ComparedSides,
  names: { from: string; to: string },
): ComparisonLine | 'elsewhere' | null {
  const results = { from: cleanWithoutLedger(probe.html, sides.from), to: cleanWithoutLedger(probe.html, sides.to) };
  if (results.from === results.to) return null;
  const fates = { from: fateOf(subject, probe, sides.from, isWhole), to: fateOf(subject, probe, sides.to, isWhole) };
  if (JSON.stringify(fates.from) === JSON.stringify(fates.to) && !isWhole) return 'elsewhere';
  return asLine(subject, probe.html, results, fates, names);
}

function asLine(
  subject: ComparisonLine['subject'],
  witness: string,
  results: ComparisonLine['results'],
  fates: { from: Fate; to: Fate },
  names: { from: string; to: string },
): ComparisonLine {
  const harm = { from: harmOf(fates.from), to: harmOf(fates.to) };
  const isSame = harm.from === harm.to;
  const kept = isSame ? (results.to.length > results.from.length ? 'to' : 'from') : harm.from < harm.to ? 'from' : 'to';
  const sentence = `${subjectWords(subject)}: ${names.from} ${fateWords(fates.from, results.from)}; ${names.to} ${fateWords(fates.to, results.to)}.`;
  return { subject, kept, sentence, witness, results };
}

/** What is said of other attributes of the same tag. */
const ATTRIBUTES: ReadonlySet<ComparisonLine['subject']['kind']> = new Set(['attribute', 'value', 'class', 'property', 'address']);

function fateOf(
  { kind }: ComparisonLine['subject'],
  { html, start, end }: Candidate['probe'],
  rules: CompiledRules,
  isWhole: boolean,
): Fate {
  return clean(html, rules)
    .ledger.filter((entry) => isWhole || (entry.start >= start && entry.start < end))
    .filter(({ reason }) => reason !== 'attribute-forced' || !ATTRIBUTES.has(kind))
    .map(({ action, after, textLost }) => ({ action, after, textLost }));
}

/** Looks for a content of several things that comes out differently, and makes it as small as it can be. */
function together(vocabulary: Vocabulary, sides: ComparedSides, names: { from: string; to: string }): ComparisonLine | null {
  const favoured = vocabulary.elements.filter((element) => !vocabulary.hasSameRule(element));
  const contents = new Contents(vocabulary, numbersFrom(SEED), favoured);
  const differs = (html: string): boolean => cleanWithoutLedger(html, sides.from) !== cleanWithoutLedger(html, sides.to);
  for (let tried = 0; tried < MOST_TRIED;) {
    const content = contents.write();
    const all = written(content);
    tried += all.length;
    if (!differs(all)) continue;
    const html = written(smallest(content, differs));
    const probe = { html, start: 0, end: html.length };
    const line = lineOf({ subject: { kind: 'together', name: html }, probe, isWhole: true }, sides, names);
    if (line !== null && line !== 'elsewhere') return line;
  }
  return null;
}
