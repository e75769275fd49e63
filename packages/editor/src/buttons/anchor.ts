import { Bookmark } from 'lucide';
import { attributesOf, elementOf, isAttributeKept, setAttributes, withAttribute } from '../commands/attributes';
import { idFor, idsIn } from '../document/outline';
import { field, make } from '../panels/make';
import { OPAQUE_INLINE } from '../schema/compile';
import { wordAround } from '../selection';
import type { Button } from './button';

/** Names a place: a heading gets the name itself, elsewhere an empty link with a name is put in. */
export const anchor: Button = {
  id: 'anchor',
  icon: Bookmark,
  isPossible: (state) => state.selection.$from.parent.inlineContent,
  whyNot: 'There are no words here.',
  open: (context) => {
    const { host, view, rules, schema, profile } = context;
    const { $from } = view.state.selection;
    const heading = /^h[1-6]$/.test(elementOf($from.parent)) && isAttributeKept(rules, elementOf($from.parent), 'id') ? $from.parent : null;
    const { prefix } = profile.markup.ids;
    const taken = idsIn(view.state.doc);
    const old = heading === null ? '' : (attributesOf(heading)['id'] ?? '');
    taken.delete(old);
    const words = heading?.textContent ?? wordAround(view.state).text;
    const named = old === '' ? (words === '' ? '' : idFor(words, taken, '')) : old.startsWith(prefix) ? old.slice(prefix.length) : old;
    const input = make(host, 'input', { type: 'text', value: named, autocomplete: 'off' });
    const dialog = context.dialog({
      title: heading === null ? 'Anchor' : 'Anchor of this heading',
      go: 'Set',
      take: () => {
        const id = input.value.trim();
        if (!/^[A-Za-z][A-Za-z0-9_-]*$/.test(id)) {
          dialog.complain('A name begins with a letter and holds letters, figures, - and _.', input);
          return false;
        }
        const whole = id.startsWith(prefix) ? id : prefix + id;
        if (taken.has(whole)) {
          dialog.complain(`This text has a place of the name “${id}” already.`, input);
          return false;
        }
        const { tr } = view.state;
        if (heading !== null) setAttributes(tr, $from.before(), withAttribute(attributesOf(heading), 'id', whole));
        else tr.insert($from.pos, schema.nodes[OPAQUE_INLINE]!.create({ markup: `<a id="${whole}"></a>` }));
        view.dispatch(tr.scrollIntoView());
        view.focus();
        return true;
      },
    });
    dialog.body.append(field(host, 'Name', input, 'Links in this text and from other pages lead to it by this name.'));
  },
};
