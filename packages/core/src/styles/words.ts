import { ELEMENT_CATALOGUE } from '../markup/catalogue';
import { tagOf, type StyleAct, type StyleRefusal } from './act';

const meanings = new Map(ELEMENT_CATALOGUE.flatMap(({ elements }) => elements.map(({ name, meaning }) => [name, meaning] as const)));

/** What applying a style does, in a sentence for the administrator. */
export function actSentence(act: StyleAct): string {
  const { kind, element, isNamed, classes, attributes, around } = act;
  const gets = [
    ...(classes.length === 0 ? [] : [`the class ${classes.join(' and ')}`]),
    ...attributes.map(({ name, value }) => (value === '' ? `the attribute ${name}` : `${name}="${value}"`)),
  ].join(' and ');
  const place = around === '' ? '' : ` Only within ${around.replace(/>$/, '')}${around.endsWith('>') ? ' itself, not deeper' : ''}.`;
  switch (kind) {
    case 'block':
      return gets === ''
        ? `Turns the block in which the cursor stands into ${element}, ${meanings.get(element) ?? 'a block'}.${place}`
        : `Turns the block in which the cursor stands into ${element}, and gives it ${gets}.${place}`;
    case 'holder':
      return gets === ''
        ? `Puts ${element} around the block in which the cursor stands.${place}`
        : `Gives the ${element} in which the cursor stands ${gets}. It makes none where there is none.${place}`;
    case 'thing':
      return `Gives the chosen ${element} ${gets}.${place}`;
    default:
      return isNamed
        ? `Wraps the selected words in ${element}${gets === '' ? '' : ` with ${gets}`}.${place}`
        : `Wraps the selected words in ${tagOf(act)}: only words, never the block as a whole.${place}`;
  }
}

const REFUSALS: Readonly<Record<StyleRefusal['reason'], (what: string) => string>> = {
  unreadable: () => 'This cannot be read as a selector. Write an element, a class, or both, such as p.note.',
  list: (what) => `A style is one selector; ${what} would be a second one. Make two styles of it.`,
  state: (what) => `${what} is a state that a reader brings about. An author cannot put it into content.`,
  'pseudo-element': (what) => `${what} is drawn by the stylesheet and is no part of the content. Leave it out: it comes with the style.`,
  id: (what) => `${what} may stand once on a page, so it is no style. Use a class.`,
  anything: (what) =>
    what === '*'
      ? '* is every element: there is nothing to apply.'
      : `${what} alone changes nothing where it stands. Add a class, such as ${what}.plain.`,
  sibling: (what) => `With ${what} the style would depend on what stands before it, which changes as the author writes.`,
  attribute: (what) => `${what} fits many values; a style needs one to set. Write [name="value"].`,
  'not-content': (what) => `${what} does not stand in content.`,
  structure: (what) => `${what} depends on where the element stands, so it cannot be applied or taken off.`,
};

/** Why a selector cannot be applied, and what to do. */
export const refusalSentence = ({ reason, what }: StyleRefusal): string => REFUSALS[reason](what);
