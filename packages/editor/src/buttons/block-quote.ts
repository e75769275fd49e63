import { TextQuote } from 'lucide';
import { lift, wrapIn } from 'prosemirror-commands';
import type { Command } from 'prosemirror-state';
import { checkAddress } from '../address';
import { attributesOf, isAttributeKept, withAttribute } from '../commands/attributes';
import { nodeNameOf } from '../schema/compile';
import { field, make } from '../panels/make';
import { ancestor, isInside } from '../selection';
import type { Button } from './button';

const name = nodeNameOf('blockquote');

const toggle: Command = (state, dispatch, view) => {
  const type = state.schema.nodes[name];
  if (type === undefined) return false;
  return isInside(state, name) ? lift(state, dispatch, view) : wrapIn(type)(state, dispatch, view);
};

/** Sets paragraphs apart as a quotation, or takes them out of it again; where the profile says so, the source is asked for. */
export const blockQuote: Button = {
  id: 'block-quote',
  icon: TextQuote,
  isTolerant: true,
  command: () => toggle,
  isActive: (state) => isInside(state, name),
  whyNot: 'A quotation cannot stand here.',
  open: (context) => {
    const { options, rules, host, view } = context;
    if (!options['block-quote'].askSource || !isAttributeKept(rules, 'blockquote', 'cite') || isInside(view.state, name)) {
      context.run(toggle);
      return;
    }
    const source = make(host, 'input', { type: 'text', inputmode: 'url', autocomplete: 'off' });
    const dialog = context.dialog({
      title: 'Block quote',
      go: 'Quote',
      take: () => {
        const answer = source.value.trim() === '' ? { address: '' } : checkAddress(source.value, rules, 'blockquote', 'cite');
        if ('refusal' in answer) {
          dialog.complain(answer.refusal, source);
          return false;
        }
        context.run(toggle);
        const quote = ancestor(view.state, (node) => node.type.name === name);
        if (quote !== null && answer.address !== '')
          view.dispatch(
            view.state.tr.setNodeMarkup(quote.at, null, { attributes: withAttribute(attributesOf(quote.node), 'cite', answer.address) }),
          );
        return true;
      },
    });
    dialog.body.append(field(host, 'Address of the source', source, 'It may stay empty.'));
  },
};
