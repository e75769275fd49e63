import { TextQuote } from 'lucide';
import { lift, wrapIn } from 'prosemirror-commands';
import { nodeNameOf } from '../schema/compile';
import { isInside } from '../selection';
import type { Button } from './button';

const name = nodeNameOf('blockquote');

/** Sets paragraphs apart as a quotation, or takes them out of it again. */
export const blockQuote: Button = {
  id: 'block-quote',
  icon: TextQuote,
  command: ({ nodes }) => {
    const type = nodes[name];
    if (type === undefined) return null;
    const wrap = wrapIn(type);
    return (state, dispatch, view) => (isInside(state, name) ? lift(state, dispatch, view) : wrap(state, dispatch, view));
  },
  isActive: (state) => isInside(state, name),
};
