import { Omega } from 'lucide';
import { findCharacters, nameOfCharacter } from '../document/characters';
import { make, push } from '../panels/make';
import type { Button } from './button';

const RECENT_KEY = 'typikon-recent-characters';

/** Finds signs by their names; the profile's own come first, then those used last. */
export const specialCharacters: Button = {
  id: 'special-characters',
  icon: Omega,
  isPossible: (state) => state.selection.$from.parent.inlineContent,
  whyNot: 'There are no words here.',
  open: (context) => {
    const { host, options, view } = context;
    const storage = host.defaultView?.localStorage;
    const recent = (): string[] => (storage?.getItem(RECENT_KEY) ?? '').split(' ').filter((one) => one !== '');
    const query = make(host, 'input', {
      type: 'search',
      'aria-label': 'Find by name',
      placeholder: 'Find by name, such as “half” or “degree”',
      autocomplete: 'off',
    });
    const results = make(host, 'div', { class: 'te-characters' });
    const named = make(host, 'p', { class: 'te-hint', role: 'status' });
    const take = (character: string): void => {
      storage?.setItem(RECENT_KEY, [character, ...recent().filter((one) => one !== character)].slice(0, 12).join(' '));
      dialog.close();
      view.dispatch(view.state.tr.insertText(character).scrollIntoView());
      view.focus();
    };
    const block = (title: string, characters: readonly string[]): void => {
      if (characters.length === 0) return;
      const grid = make(host, 'div', { class: 'te-signs', role: 'group', 'aria-label': title });
      for (const character of characters) {
        const name = nameOfCharacter(character);
        const button = push(host, character, () => take(character));
        button.setAttribute('aria-label', name);
        button.title = name;
        const tell = (): void => void (named.textContent = name);
        button.addEventListener('focus', tell);
        button.addEventListener('mouseenter', tell);
        grid.append(button);
      }
      results.append(make(host, 'h3', { text: title }), grid);
    };
    const show = (): void => {
      results.replaceChildren();
      named.textContent = '';
      const asked = query.value.trim();
      if (asked !== '') {
        const found = findCharacters(asked);
        block('Found', found);
        if (found.length === 0) results.append(make(host, 'p', { class: 'te-hint', text: 'No sign has this in its name.' }));
        return;
      }
      block('Here', options['special-characters'].characters);
      block('Used last', recent());
      block('All', findCharacters(''));
    };
    const dialog = context.dialog({ title: 'Special characters' });
    query.addEventListener('input', show);
    dialog.body.append(query, results, named);
    show();
    query.focus();
  },
};
