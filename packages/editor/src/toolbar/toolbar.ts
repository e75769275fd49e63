import { arrangeToolbar, buttonOf, missingMarkup, needInWords, type ArrangedGroup, type ButtonId } from '@typikon/core/editing';
import { createElement, Ellipsis, type IconNode } from 'lucide';
import type { EditorState } from 'prosemirror-state';
import { EDITOR_BUTTONS } from '../buttons/index';
import type { ButtonContext, Mode } from '../context';
import { make } from '../panels/make';
import { keyLabel } from './key-label';

export interface Toolbar {
  dom: HTMLElement;
  /** Shows which buttons are pressed, which can be used, and why the others cannot. */
  update(state: EditorState, isOn: (mode: Mode) => boolean): void;
  /** Puts the focus on the toolbar, as Alt+F10 does. */
  focus(): void;
  /** The button on the bar, or the one under which it is found. */
  button(id: ButtonId): HTMLButtonElement | undefined;
  /** Puts what finds no room under “More”, where the profile says so. */
  fit(): void;
  destroy(): void;
}

/** Why a button is of no use with these rules; empty where it is of use. */
export function blockedBy(id: ButtonId, { rules, options }: Pick<ButtonContext, 'rules' | 'options'>): string {
  const declaration = buttonOf(id);
  const missing = missingMarkup(declaration, rules, options);
  const counted =
    EDITOR_BUTTONS.get(id)?.isTolerant === true
      ? missing.filter(({ element, attribute }) => element === declaration.makes && attribute === undefined)
      : missing;
  return counted.length === 0 ? '' : `the markup rules remove what it makes (${counted.map(needInWords).join(', ')})`;
}

function icon(node: IconNode): SVGElement {
  const svg = createElement(node);
  svg.setAttribute('aria-hidden', 'true');
  svg.setAttribute('width', '17');
  svg.setAttribute('height', '17');
  return svg;
}

/**
 * Builds the toolbar of a profile: its rows and groups in order, one tab stop, arrow keys between buttons
 * (ARIA Authoring Practices, "Toolbar"), and “More” for the groups that belong there and for what finds no room.
 */
export function buildToolbar(
  context: Omit<ButtonContext, 'schema'>,
  host: Document,
  press: (id: ButtonId) => void,
  leave: () => void,
): Toolbar {
  const { profile } = context;
  const dom = make(host, 'div', { class: 'te-toolbar', role: 'toolbar', 'aria-label': 'Formatting' });
  const buttons = new Map<ButtonId, HTMLButtonElement>();
  const blocked = new Map<ButtonId, string>();
  const fold = profile.toolbar.narrow === 'more';
  if (fold) dom.classList.add('te-one-row');
  const more = make(
    host,
    'button',
    {
      type: 'button',
      class: 'te-button te-more',
      'aria-label': 'More',
      'aria-haspopup': 'true',
      'aria-expanded': 'false',
      tabindex: -1,
      title: 'More',
    },
    icon(Ellipsis),
  );
  const panel = make(host, 'div', { class: 'te-more-panel', role: 'group', 'aria-label': 'More', hidden: true });
  const groups: { dom: HTMLElement; isAlwaysInMore: boolean; row: HTMLElement | null }[] = [];

  const groupDom = ({ label, buttons: ids, newRow, inMore }: ArrangedGroup): void => {
    const known = ids.filter((id) => EDITOR_BUTTONS.has(id) && !buttons.has(id));
    if (known.length === 0) return;
    const row = newRow && !inMore ? make(host, 'span', { class: 'te-row', 'aria-hidden': 'true' }) : null;
    const group = make(host, 'div', { class: 'te-group', role: 'group', 'aria-label': label });
    for (const id of known) {
      const behaviour = EDITOR_BUTTONS.get(id)!;
      const { label: name, key } = buttonOf(id);
      blocked.set(id, blockedBy(id, context));
      const opens = behaviour.open !== undefined && behaviour.command === undefined;
      const button = make(host, 'button', {
        type: 'button',
        class: 'te-button',
        'data-button': id,
        tabindex: -1,
        'aria-label': name,
        'aria-haspopup': opens ? 'dialog' : null,
        title: key === null ? name : `${name} (${keyLabel(key)})`,
      });
      if (id === 'block-kind' || id === 'styles')
        button.append(make(host, 'span', { class: 'te-word', text: id === 'styles' ? 'Styles' : 'Paragraph' }));
      else button.append(icon(behaviour.icon));
      // The selection in the editor must stay where it is while the button is pressed.
      button.addEventListener('mousedown', (event) => event.preventDefault());
      button.addEventListener('click', () => {
        if (panel.contains(button) && behaviour.open === undefined) showMore(false);
        press(id);
      });
      group.append(button);
      buttons.set(id, button);
    }
    groups.push({ dom: group, isAlwaysInMore: inMore, row });
  };
  arrangeToolbar(profile.toolbar).forEach(groupDom);
  dom.append(more, panel);

  const showMore = (isOpen: boolean): void => {
    panel.hidden = !isOpen;
    more.setAttribute('aria-expanded', String(isOpen));
  };
  more.addEventListener('mousedown', (event) => event.preventDefault());
  more.addEventListener('click', () => {
    showMore(panel.hidden);
    if (!panel.hidden) panel.querySelector('button')?.focus();
  });
  host.addEventListener('mousedown', onOutside);
  function onOutside(event: Event): void {
    if (!panel.hidden && !dom.contains(event.target as globalThis.Node)) showMore(false);
  }

  const order = (): HTMLButtonElement[] => {
    const onBar = groups
      .filter(({ dom: group }) => group.parentElement === dom)
      .flatMap(({ dom: group }) => [...group.querySelectorAll('button')]);
    const inPanel = panel.hidden ? [] : [...panel.querySelectorAll('button')];
    return [...onBar, ...(more.hidden ? [] : [more]), ...inPanel];
  };
  let current: HTMLButtonElement | undefined;
  const moveTo = (button: HTMLButtonElement | undefined, withFocus = true): void => {
    current?.setAttribute('tabindex', '-1');
    current = button ?? current;
    current?.setAttribute('tabindex', '0');
    if (withFocus) current?.focus();
  };
  dom.addEventListener('keydown', (event) => {
    const all = order();
    const at = all.indexOf(event.target as HTMLButtonElement);
    if (all.length === 0 || at < 0) return;
    if (event.key === 'ArrowRight') moveTo(all[(at + 1) % all.length]);
    else if (event.key === 'ArrowLeft') moveTo(all[(at - 1 + all.length) % all.length]);
    else if (event.key === 'Home') moveTo(all[0]);
    else if (event.key === 'End') moveTo(all[all.length - 1]);
    else if (event.key === 'Escape') {
      if (panel.hidden) leave();
      else {
        showMore(false);
        moveTo(more);
      }
    } else return;
    event.preventDefault();
    event.stopPropagation();
  });
  dom.addEventListener('focusin', (event) => {
    if (order().includes(event.target as HTMLButtonElement)) moveTo(event.target as HTMLButtonElement, false);
  });

  const fit = (): void => {
    // All that may stand on the bar is put there, then what sticks out goes under “More”, the last group first.
    const inMore = groups.filter(({ isAlwaysInMore }) => isAlwaysInMore).map(({ dom: group }) => group);
    const free = groups.filter(({ isAlwaysInMore }) => !isAlwaysInMore);
    for (const { dom: group, row } of free) for (const part of row === null ? [group] : [row, group]) dom.insertBefore(part, more);
    more.hidden = inMore.length === 0;
    const folded: HTMLElement[] = [];
    while (fold && dom.clientWidth > 0 && dom.scrollWidth > dom.clientWidth + 1 && free.length > 1) {
      more.hidden = false;
      const last = free.pop()!;
      folded.unshift(last.dom);
      last.row?.remove();
      panel.append(last.dom);
    }
    panel.replaceChildren(...folded, ...inMore);
    if (more.hidden) showMore(false);
    if (current === undefined || !order().includes(current)) moveTo(order()[0], false);
  };
  const watcher = typeof ResizeObserver === 'undefined' ? null : new ResizeObserver(fit);
  watcher?.observe(dom);
  fit();

  return {
    dom,
    update(state, isOn) {
      const whole: ButtonContext = { ...context, schema: state.schema };
      for (const [id, button] of buttons) {
        const behaviour = EDITOR_BUTTONS.get(id)!;
        const { label, key } = buttonOf(id);
        const rule = blocked.get(id) ?? '';
        const isPossible =
          behaviour.command !== undefined ? behaviour.command(whole)(state) : (behaviour.isPossible?.(state, whole) ?? true);
        const why = rule !== '' ? rule : isPossible ? '' : (behaviour.whyNot ?? 'not possible here');
        button.setAttribute('aria-disabled', String(why !== ''));
        if (behaviour.mode !== undefined) button.setAttribute('aria-pressed', String(isOn(behaviour.mode)));
        else if (behaviour.isActive !== undefined)
          button.setAttribute('aria-pressed', String(why === '' && behaviour.isActive(state, whole)));
        button.title = `${label}${key === null ? '' : ` (${keyLabel(key)})`}${why === '' ? '' : `: ${why}`}`;
        if (id === 'block-kind') button.firstElementChild!.textContent = kindInWords(state);
      }
    },
    focus: () => moveTo(current ?? order()[0]),
    button: (id) => {
      const button = buttons.get(id);
      return button !== undefined && panel.contains(button) && panel.hidden ? more : button;
    },
    fit,
    destroy() {
      watcher?.disconnect();
      host.removeEventListener('mousedown', onOutside);
    },
  };
}

function kindInWords({ selection }: EditorState): string {
  const element = selection.$from.parent.type.spec['element'] as string | undefined;
  if (element !== undefined && /^h[1-6]$/.test(element)) return `Heading ${element.slice(1)}`;
  return element === 'pre' ? 'Preformatted' : 'Paragraph';
}
