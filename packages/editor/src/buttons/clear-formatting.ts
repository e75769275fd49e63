import { RemoveFormatting } from 'lucide';
import { attributesOf, classesOf, elementOf } from '../commands/attributes';
import { markNameOf, nodeNameOf, OPAQUE_INLINE } from '../schema/compile';
import { selectedTextBlocks } from '../selection';
import type { Button } from './button';

/** Takes every mark but links off the selection, and the classes off its blocks. */
export const clearFormatting: Button = {
  id: 'clear-formatting',
  icon: RemoveFormatting,
  command:
    ({ schema: { marks } }) =>
    (state, dispatch) => {
      const { from, to, empty } = state.selection;
      const blocks = selectedTextBlocks(state).filter(({ node }) => elementOf(node) === 'p' && classesOf(node).length > 0);
      if (empty && blocks.length === 0) return false;
      const { tr } = state;
      if (!empty)
        for (const type of Object.values(marks)) {
          const isKept = type.name === markNameOf('a') || ['abbr', 'time'].some((element) => type.name === markNameOf(element));
          if (!isKept) tr.removeMark(from, to, type);
        }
      for (const { node, at } of blocks) {
        const { class: _class, ...rest } = attributesOf(node);
        tr.setNodeMarkup(at, state.schema.nodes[nodeNameOf('p')], { attributes: rest });
      }
      // What stands alone, such as an empty span with a class, is formatting too.
      if (!empty) {
        const empties: number[] = [];
        tr.doc.nodesBetween(from, to, (node, at) => {
          if (node.type.name === OPAQUE_INLINE && /^<span[^>]*>\s*<\/span>$/.test(node.attrs['markup'] as string)) empties.push(at);
        });
        for (const at of empties.reverse()) tr.delete(at, at + 1);
      }
      dispatch?.(tr.setStoredMarks([]).scrollIntoView());
      return true;
    },
  whyNot: 'Select the words first.',
};
