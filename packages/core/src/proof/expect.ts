import { countOf, outlineOf, textInLines } from './outline';
import { lettersKept, verdictsOf, type Proof } from './prove';
import type { Expectation } from './specimen';

/** Elements of which it is worth saying how many there are: what a text is made of. */
const COUNTED = 'ul ol li table tr th blockquote figure img a sup sub'.split(' ');

/** What is said of every proof of which it is true. */
const CLEAN: readonly Expectation[] = [
  { expect: 'no-inline-style' },
  { expect: 'no-office' },
  { expect: 'no-hard-space' },
  { expect: 'no-empty-paragraph' },
  { expect: 'links-lead-somewhere' },
];

/** A text may be so long that is expected to the letter. */
const LONGEST_TEXT = 200;

/**
 * What a proof came to, as expectations: for a specimen that has none yet, or to be looked through after a change.
 *
 * @param proof what came out
 * @returns expectations that this proof meets, all of them
 */
export function expectationsOf(proof: Proof): Expectation[] {
  const { root, paste, source } = proof;
  const text = textInLines(root);
  const all: Expectation[] = [
    ...CLEAN,
    ...(paste === null ? [] : [{ expect: 'source', is: source.source } as const]),
    ...COUNTED.flatMap((of): Expectation[] => {
      const is = countOf(root, of);
      return is === 0 ? [] : [{ expect: 'count', of, is }];
    }),
    ...(outlineOf(root).length === 0 ? [] : [{ expect: 'outline', is: outlineOf(root) } as const]),
    ...(text !== '' && text.length <= LONGEST_TEXT ? [{ expect: 'text-is', text } as const] : []),
    { expect: 'text-kept', percent: keptPercent(proof) },
    ...((paste?.picturesToUpload ?? 0) > 0 ? [{ expect: 'pictures-to-upload', is: paste!.picturesToUpload } as const] : []),
  ];
  const verdicts = verdictsOf(all, proof);
  return all.filter((_one, at) => verdicts[at]!.isMet);
}

/**
 * Expectations brought up to what comes out now: those that name a figure or a text get the present one, those that
 * cannot be brought up go. All that were met stay as they are.
 */
export function updatedExpectations(expectations: readonly Expectation[], proof: Proof): Expectation[] {
  if (expectations.length === 0) return expectationsOf(proof);
  const verdicts = verdictsOf(expectations, proof);
  return expectations.flatMap((expectation, at) => (verdicts[at]!.isMet ? [expectation] : broughtUp(expectation, proof)));
}

function broughtUp(expectation: Expectation, proof: Proof): Expectation[] {
  const { root, paste, source } = proof;
  switch (expectation.expect) {
    case 'text-kept':
      return [{ ...expectation, percent: keptPercent(proof) }];
    case 'count':
      return [{ ...expectation, is: countOf(root, expectation.of) }];
    case 'text-is':
      return [{ ...expectation, text: textInLines(root) }];
    case 'outline':
      return [{ ...expectation, is: outlineOf(root) }];
    case 'source':
      return [{ ...expectation, is: source.source }];
    case 'pictures-to-upload':
      return [{ ...expectation, is: paste?.picturesToUpload ?? 0 }];
    default:
      return [];
  }
}

/** The letters that are kept, in tenths of a percent and never more than there are. */
function keptPercent({ measures }: Proof): number {
  return Math.floor(lettersKept(measures) * 10) / 10;
}
