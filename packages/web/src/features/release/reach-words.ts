import type { ReachGroup } from '@typikon/core/settings';
import type { TouchedText } from '../../state/reach';
import type { Amiss } from './release-dialog';
import type { ComparedFindings, Proved } from './release-store';

/** What happens to texts by one rule, as a sentence. */
export const whatGoes = ({ kind, sentence }: ReachGroup): string => (kind === 'kept' ? `No more: ${sentence}` : sentence);

/** The rule as a citation. */
export function citation({ layer, rule, element, attribute }: ReachGroup): string {
  if (rule === '') return '§2 Markup, how it is written';
  const about = [attribute, element].filter((name) => name !== '').join(' on ');
  const where = layer === 'house-limits' ? 'House limits' : layer === 'safety-floor' ? 'Safety floor' : '§2 Markup';
  return about === '' ? where : `${where}, ${about}`;
}

/** Who changed the texts of a group last, in a few words. */
export function writersOf(
  { documents }: ReachGroup,
  touched: readonly TouchedText[],
  people: readonly { id: string; label: string }[],
): string {
  const names = new Map(people.map(({ id, label }) => [id, label]));
  const writers = documents.map((at) => names.get(touched[at]!.changedBy) ?? 'somebody');
  const [first, second, ...others] = [...new Set(writers)].sort();
  if (first === undefined) return '';
  if (others.length > 0) return `${first}, ${second} and ${others.length === 1 ? 'one more' : `${others.length} more`}`;
  return second === undefined ? first : `${first} and ${second}`;
}

/** Specimens of which the draft meets less than the edition did. */
export const unmetOf = (proved: readonly Proved[] | null): Proved[] =>
  (proved ?? []).filter(({ before, after }) => after.expectationsMet < before.expectationsMet);

/** What is known to be amiss with a release, by kind: each has to be accepted with a reason. */
export function amissOf(
  losing: { documents: number; words: number },
  proved: readonly Proved[] | null,
  findings: ComparedFindings | null,
): Amiss[] {
  const [unmet, found] = [unmetOf(proved), findings?.fresh.filter(({ severity }) => severity !== 'note') ?? []];
  const words = `${losing.documents === 1 ? 'One text loses' : `${losing.documents} texts lose`} words, ${losing.words} in all`;
  return [
    { heading: words, things: losing.documents === 0 ? [] : [words] },
    {
      heading:
        unmet.length === 1
          ? `“${unmet[0]!.specimen.name}” no longer comes out as expected`
          : `${unmet.length} specimens no longer come out as expected`,
      things: unmet.map(({ specimen }) => `“${specimen.name}” no longer comes out as expected`),
    },
    {
      heading: found.length === 1 ? found[0]!.sentence : `The checks find ${found.length} things that were not there`,
      things: found.map(({ sentence }) => sentence),
    },
  ].filter(({ things }) => things.length > 0);
}
