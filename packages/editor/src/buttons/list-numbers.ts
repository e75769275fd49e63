import { isValueKept } from '@typikon/core/editing';
import { ListStart } from 'lucide';
import { attributesOf, isAttributeKept } from '../commands/attributes';
import { setNumbers } from '../commands/lists';
import { choice, field, make } from '../panels/make';
import { ancestor } from '../selection';
import type { Button } from './button';

const KINDS = [
  { value: '1', label: '1, 2, 3' },
  { value: 'a', label: 'a, b, c' },
  { value: 'A', label: 'A, B, C' },
  { value: 'i', label: 'i, ii, iii' },
  { value: 'I', label: 'I, II, III' },
];

/** Asks how a numbered list counts and where it begins. */
export const listNumbers: Button = {
  id: 'list-numbers',
  icon: ListStart,
  isTolerant: true,
  isPossible: (state) => ancestor(state, (node) => node.type.spec['element'] === 'ol') !== null,
  whyNot: 'This is no numbered list.',
  open: (context) => {
    const { host, rules, view } = context;
    const list = ancestor(view.state, (node) => node.type.spec['element'] === 'ol')!;
    const attributes = attributesOf(list.node);
    const kinds = KINDS.filter(({ value }) => value === '1' || isValueKept(rules, 'ol', 'type', value));
    const kind = choice(host, kinds, attributes['type'] ?? '1');
    const start = make(host, 'input', { type: 'number', min: 1, max: 9999, value: attributes['start'] ?? '1' });
    const dialog = context.dialog({
      title: 'Numbers of the list',
      go: 'Set',
      take: () => {
        if (!/^\d+$/.test(start.value)) {
          dialog.complain('The number to begin with must be a whole number, such as 4.', start);
          return false;
        }
        if (start.value !== '1' && !isValueKept(rules, 'ol', 'start', start.value)) {
          dialog.complain(`The rules let no list begin with ${start.value}.`, start);
          return false;
        }
        return context.run(
          setNumbers({ ...(kind.value === '1' ? {} : { type: kind.value }), ...(start.value === '1' ? {} : { start: start.value }) }),
        );
      },
    });
    if (kinds.length > 1) dialog.body.append(field(host, 'Counts', kind));
    if (isAttributeKept(rules, 'ol', 'start')) dialog.body.append(field(host, 'Begins with', start));
  },
};
