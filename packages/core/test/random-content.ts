import fc from 'fast-check';
import { ELEMENT_CATALOGUE } from '../src/index';
import { wholeContent } from './whole-content';

/** Every element of the catalogue, so that no list of ours can leave one out. */
export const CATALOGUE_NAMES: readonly string[] = ELEMENT_CATALOGUE.flatMap(({ elements }) => elements.map(({ name }) => name));

const NAMES = [...CATALOGUE_NAMES, 'nobr', 'listing', 'o:p', 'x-card', 'dir', 'canvas'].filter(
  // Their text is text to the parser, whatever stands in them.
  (name) => !['script', 'style', 'template', 'noscript', 'svg', 'math', 'iframe', 'textarea', 'title', 'rp'].includes(name),
);
const VOID = new Set('area base br col embed hr img input link meta source track wbr'.split(' '));
const STYLES = [
  'display:none',
  'display:block',
  'visibility:hidden',
  'color:red',
  'DISPLAY:NONE !important',
  'float:left',
  'display:list-item;color:red',
];

/** A tree of elements of every kind, with words that are all different: wherever one is afterwards, it is known. */
interface Made {
  name: string;
  attributes: string;
  children: (Made | string)[];
}

const attributes: fc.Arbitrary<string> = fc.oneof(
  { weight: 12, arbitrary: fc.constant('') },
  { weight: 2, arbitrary: fc.constantFrom(...STYLES).map((style) => ` style="${style}"`) },
  { weight: 1, arbitrary: fc.constantFrom(' hidden', ' open', ' id="a"', ' class="note"', ' href="https://a.example/"', ' type=hidden') },
);

const tree: fc.Arbitrary<Made> = fc.letrec<{ node: Made }>((tie) => ({
  node: fc.record({
    name: fc.constantFrom(...NAMES),
    attributes,
    children: fc.array(
      fc.oneof(
        { depthSize: 'small', maxDepth: 5 },
        { weight: 3, arbitrary: fc.constantFrom('#', '#', ' ', '\n', ' # ') },
        { weight: 3, arbitrary: tie('node') },
      ),
      { maxLength: 4 },
    ),
  }),
})).node;

function written(parts: readonly (Made | string)[]): string {
  return parts
    .map((part) =>
      typeof part === 'string'
        ? part
        : VOID.has(part.name)
          ? `<${part.name}${part.attributes}>`
          : `<${part.name}${part.attributes}>${written(part.children)}</${part.name}>`,
    )
    .join('');
}

/**
 * Markup with elements of every kind in each other, whether they may stand there or not, or with wholes whose parts are in
 * order; words are `w1.`, `w2.` … in order.
 */
export const randomContent: fc.Arbitrary<string> = fc
  .oneof(
    {
      weight: 3,
      arbitrary: fc
        .array(fc.oneof({ weight: 1, arbitrary: fc.constantFrom('#', ' ') }, { weight: 3, arbitrary: tree }), {
          minLength: 1,
          maxLength: 4,
        })
        .map(written),
    },
    { weight: 2, arbitrary: wholeContent },
  )
  .map((markup) => {
    let count = 0;
    return markup.replace(/#/g, () => `w${(count += 1)}.`);
  });
