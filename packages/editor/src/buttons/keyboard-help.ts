import { arrangeToolbar, buttonOf, SHORTCUTS } from '@typikon/core/editing';
import { Keyboard } from 'lucide';
import { make } from '../panels/make';
import { keyLabel } from '../toolbar/key-label';
import type { Button } from './button';

/** Lists the keys and typed marks that work with this profile. */
export const keyboardHelp: Button = {
  id: 'keyboard-help',
  icon: Keyboard,
  open: (context) => {
    const { host, profile, rules } = context;
    const table = (title: string, rows: readonly (readonly [string, string])[]): HTMLElement[] => {
      if (rows.length === 0) return [];
      const body = make(host, 'tbody');
      for (const [keys, words] of rows)
        body.append(
          make(host, 'tr', {}, make(host, 'th', { scope: 'row' }, make(host, 'kbd', { text: keys })), make(host, 'td', { text: words })),
        );
      return [make(host, 'h3', { text: title }), make(host, 'table', { class: 'te-keys' }, body)];
    };
    const { enter, shiftEnter, tab } = profile.surface;
    const buttons = arrangeToolbar(profile.toolbar)
      .flatMap(({ buttons: ids }) => ids)
      .map(buttonOf)
      .filter(({ id, key }) => key !== null && context.blockedBy(id) === '');
    const has = (element: string): boolean => rules.element(element).outcome === 'keep';
    const typed = SHORTCUTS.filter(
      ({ id, elements }) => profile.toolbar.shortcuts[id] === true && (elements.length === 0 || elements.some(has)),
    );
    const dialog = context.dialog({ title: 'Keys and typed marks' });
    dialog.body.append(
      ...table('Keys', [
        ['Alt+F10', 'To the buttons; Escape leads back to the text'],
        ...buttons.map(({ key, label }): [string, string] => [keyLabel(key!), label]),
        ['Enter', enter === 'break' && has('br') ? 'A line break' : enter === 'block' && has('div') ? 'A new block' : 'A new paragraph'],
        ...(shiftEnter === 'break' && has('br') ? [['Shift+Enter', 'A line break'] as const] : []),
        ...(shiftEnter === 'paragraph' && has('p') ? [['Shift+Enter', 'A new paragraph'] as const] : []),
        [
          'Tab',
          tab === 'leave' ? 'In tables the next cell; elsewhere it leaves the text' : 'In tables the next cell; in lists one step in',
        ],
      ]),
      ...table(
        'Marks while typing',
        typed.map(({ typed: signs, makes }): [string, string] => [signs, `makes ${makes}`]),
      ),
    );
  },
};
