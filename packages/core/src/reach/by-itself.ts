import { parseFragment } from '../html/parse';
import { cleanWithoutLedger } from '../markup/clean';
import { compiledFit, FitCorpus } from './fit';
import { needsOf } from './needs';
import { isWhole } from './whole';

/** What becomes of a document by rules that allow what it needs, whatever anybody else's rules say. */
export interface ByItself {
  /** Whether it is whole; where it is not, no rules keep it so. */
  isWhole: boolean;
  /** Whether it comes out to the letter as it went in. */
  isSame: boolean;
}

/**
 * Cleans a document by the rules that allow just what it needs.
 *
 * @param html the document as it is stored; never trusted
 */
export function byItself(html: string): ByItself {
  const corpus = new FitCorpus();
  corpus.add(needsOf(parseFragment(html).root));
  const rules = compiledFit(corpus.everything('What it needs'), {});
  const isSame = cleanWithoutLedger(html, rules) === html;
  return { isWhole: corpus.isPossible(0) && (isSame || isWhole(html, rules)), isSame };
}
