import { buttonOf, type ButtonId, type Profile } from '@typikon/core';
import { createElement } from 'lucide';
import type { EditorState } from 'prosemirror-state';
import { EDITOR_BUTTONS } from './buttons/index';

export interface Toolbar {
  dom: HTMLElement;
  /** Shows which buttons are pressed and which can be used. */
  update(state: EditorState): void;
  /** Puts the focus on the toolbar, as Alt+F10 does. */
  focus(): void;
  button(id: ButtonId): HTMLButtonElement | undefined;
}

/** A key as it is printed for the person at this keyboard. */
export function keyLabel(key: string, isMac = false): string {
  return key
    .split('-')
    .map((part) => (part === 'Mod' ? (isMac ? '⌘' : 'Ctrl') : part.length === 1 ? part.toUpperCase() : part))
    .join('+');
}

/**
 * Builds the toolbar of a profile: its groups in order, one tab stop, arrow keys between buttons
 * (ARIA Authoring Practices, "Toolbar").
 */
export function buildToolbar(profile: Profile, host: Document, press: (id: ButtonId) => void, leave: () => void): Toolbar {
  const dom = host.createElement('div');
  dom.className = 'te-toolbar';
  dom.setAttribute('role', 'toolbar');
  dom.setAttribute('aria-label', 'Formatting');
  const buttons = new Map<ButtonId, HTMLButtonElement>();
  for (const groupId of profile.toolbar.order) {
    const group = profile.toolbar.groups[groupId];
    if (group === undefined || group.buttons.length === 0) continue;
    const groupDom = dom.appendChild(host.createElement('div'));
    groupDom.className = 'te-group';
    groupDom.setAttribute('role', 'group');
    groupDom.setAttribute('aria-label', group.label);
    for (const id of group.buttons) {
      const behaviour = EDITOR_BUTTONS.get(id);
      if (behaviour === undefined || buttons.has(id)) continue;
      const { label, key } = buttonOf(id);
      const button = groupDom.appendChild(host.createElement('button'));
      button.type = 'button';
      button.className = 'te-button';
      button.dataset['button'] = id;
      button.tabIndex = -1;
      button.setAttribute('aria-label', label);
      button.title = key === null ? label : `${label} (${keyLabel(key)})`;
      const icon = createElement(behaviour.icon);
      icon.setAttribute('aria-hidden', 'true');
      icon.setAttribute('width', '17');
      icon.setAttribute('height', '17');
      button.append(icon);
      // The selection in the editor must stay where it is while the button is pressed.
      button.addEventListener('mousedown', (event) => event.preventDefault());
      button.addEventListener('click', () => press(id));
      buttons.set(id, button);
    }
  }
  const order = [...buttons.values()];
  let current = 0;
  const moveTo = (index: number, withFocus = true): void => {
    order[current]?.setAttribute('tabindex', '-1');
    current = (index + order.length) % order.length;
    order[current]?.setAttribute('tabindex', '0');
    if (withFocus) order[current]?.focus();
  };
  if (order.length > 0) moveTo(0, false);
  dom.addEventListener('keydown', (event) => {
    if (order.length === 0) return;
    if (event.key === 'ArrowRight') moveTo(current + 1);
    else if (event.key === 'ArrowLeft') moveTo(current - 1);
    else if (event.key === 'Home') moveTo(0);
    else if (event.key === 'End') moveTo(order.length - 1);
    else if (event.key === 'Escape') leave();
    else return;
    event.preventDefault();
  });
  dom.addEventListener('focusin', (event) => {
    const index = order.indexOf(event.target as HTMLButtonElement);
    if (index >= 0) moveTo(index, false);
  });
  return {
    dom,
    update(state) {
      for (const [id, button] of buttons) {
        const behaviour = EDITOR_BUTTONS.get(id)!;
        const command = behaviour.command(state.schema);
        const isPossible = command !== null && command(state);
        button.setAttribute('aria-disabled', String(!isPossible));
        if (behaviour.isActive !== undefined) button.setAttribute('aria-pressed', String(behaviour.isActive(state)));
        button.title =
          command === null
            ? `${buttonOf(id).label}: the markup rules remove what it makes`
            : button.title.replace(/: the markup rules.*$/, '');
      }
    },
    focus: () => moveTo(current),
    button: (id) => buttons.get(id),
  };
}
