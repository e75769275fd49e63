import { isValueKept, type ButtonId } from '@typikon/core/editing';
import { TextAlignCenter, TextAlignEnd, TextAlignJustify, TextAlignStart, type IconNode } from 'lucide';
import { attributesOf, changeTextBlocks, classesOf, withClass } from '../commands/attributes';
import { selectedTextBlocks } from '../selection';
import type { Button } from './button';

type Side = 'left' | 'centre' | 'right' | 'justify';

/** Sets blocks to a side by the class that the profile names; pressed again, the class goes. */
const align = (side: Side, icon: IconNode): Button => ({
  id: `align-${side}` satisfies ButtonId,
  icon,
  command:
    ({ options: { align: classes }, rules }) =>
    (state, dispatch) => {
      const name = classes[side];
      const isOn = selectedTextBlocks(state).every(({ node }) => classesOf(node).includes(name));
      return changeTextBlocks(
        (element) => isValueKept(rules, element, 'class', name),
        (node) => withClass(attributesOf(node), isOn ? null : name, Object.values(classes)),
      )(state, dispatch);
    },
  isActive: (state, { options }) => selectedTextBlocks(state).every(({ node }) => classesOf(node).includes(options.align[side])),
  whyNot: 'The rules let no block here have the class that aligns it.',
});

export const alignLeft = align('left', TextAlignStart);
export const alignCentre = align('centre', TextAlignCenter);
export const alignRight = align('right', TextAlignEnd);
export const alignJustify = align('justify', TextAlignJustify);
