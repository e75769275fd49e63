import { Type } from 'lucide';
import { isBlockActive, toggleBlock } from '../commands/blocks';
import { setBlockType } from 'prosemirror-commands';
import { nodeNameOf } from '../schema/compile';
import type { Button } from './button';

/** A menu of the paragraph and the heading levels that the profile offers. */
export const blockKind: Button = {
  id: 'block-kind',
  icon: Type,
  isTolerant: true,
  open: (context) => {
    const { options, schema, view } = context;
    const kinds = ['p', ...[...options['block-kind'].levels].sort().map((level) => `h${level}`)];
    context.menu(
      'Kind of block',
      kinds.map((element) => {
        const type = schema.nodes[nodeNameOf(element)];
        return {
          label: element === 'p' ? 'Paragraph' : `Heading ${element.slice(1)}`,
          sample: (item) => item.classList.add(`te-kind-${element}`),
          isOn: isBlockActive(element)(view.state),
          whyNot: type === undefined ? 'The markup rules remove it.' : '',
          press: () => context.run(type === undefined ? toggleBlock(element) : setBlockType(type)),
        };
      }),
    );
  },
};
