import { isValueKept } from '@typikon/core/editing';
import { PilcrowLeft } from 'lucide';
import { attributesOf, changeTextBlocks, withAttribute } from '../commands/attributes';
import { selectedTextBlocks } from '../selection';
import type { Button } from './button';

/** Sets blocks from right to left, or back. */
export const textDirection: Button = {
  id: 'text-direction',
  icon: PilcrowLeft,
  command:
    ({ rules }) =>
    (state, dispatch) => {
      const isOn = selectedTextBlocks(state).every(({ node }) => attributesOf(node)['dir'] === 'rtl');
      return changeTextBlocks(
        (element) => isValueKept(rules, element, 'dir', 'rtl'),
        (node) => withAttribute(attributesOf(node), 'dir', isOn ? null : 'rtl'),
      )(state, dispatch);
    },
  isActive: (state) => selectedTextBlocks(state).some(({ node }) => attributesOf(node)['dir'] === 'rtl'),
  whyNot: 'The rules let no block here have a direction.',
};
