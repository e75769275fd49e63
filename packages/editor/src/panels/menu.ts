import { make } from './make';

export interface MenuEntry {
  label: string;
  /** How it looks, beside its label: a class or style of the sample. */
  sample?: (element: HTMLElement) => void;
  isOn?: boolean;
  /** What it is for, told with it. */
  hint?: string;
  /** Why it cannot be pressed; empty where it can. */
  whyNot?: string;
  press: () => void;
}

/**
 * A menu below a button (ARIA Authoring Practices, "Menu Button"): arrows, Home, End, the first letter, Escape.
 * It closes when the focus leaves it.
 *
 * @returns closes it
 */
export function openMenu(anchor: HTMLElement, label: string, entries: readonly MenuEntry[], closed: () => void, columns = 1): () => void {
  const host = anchor.ownerDocument;
  const menu = make(host, 'div', { class: columns > 1 ? 'te-menu te-grid' : 'te-menu', role: 'menu', 'aria-label': label, tabindex: -1 });
  if (columns > 1) menu.style.gridTemplateColumns = `repeat(${columns}, 1fr)`;
  let isOpen = true;
  const close = (withFocus: boolean): void => {
    if (!isOpen) return;
    isOpen = false;
    anchor.setAttribute('aria-expanded', 'false');
    menu.remove();
    if (withFocus) closed();
  };
  const items = entries.map(({ label: text, sample, hint, isOn, whyNot = '', press }) => {
    const item = make(host, 'button', {
      type: 'button',
      role: isOn === undefined ? 'menuitem' : 'menuitemradio',
      'aria-checked': isOn === undefined ? null : String(isOn),
      'aria-disabled': whyNot === '' ? null : 'true',
      title: whyNot === '' ? (hint ?? null) : whyNot,
      tabindex: -1,
    });
    const words = make(host, 'span', { text });
    item.append(words);
    sample?.(item);
    item.addEventListener('mousedown', (event) => event.preventDefault());
    item.addEventListener('click', () => {
      if (whyNot !== '') return;
      close(true);
      press();
    });
    return item;
  });
  menu.append(...items);
  const focus = (index: number): void => items[(index + items.length) % items.length]?.focus();
  menu.addEventListener('keydown', (event) => {
    const at = items.indexOf(host.activeElement as HTMLButtonElement);
    event.stopPropagation();
    const step = { ArrowDown: columns, ArrowUp: -columns, ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (step !== undefined) focus(columns === 1 ? at + Math.sign(step) : Math.max(0, Math.min(items.length - 1, at + step)));
    else if (event.key === 'Home') focus(0);
    else if (event.key === 'End') focus(items.length - 1);
    else if (event.key === 'Escape' || event.key === 'Tab') close(true);
    else if (event.key.length === 1) {
      const next = [...items.slice(at + 1), ...items].find((item) =>
        (item.textContent ?? '').trim().toLowerCase().startsWith(event.key.toLowerCase()),
      );
      if (next === undefined) return;
      next.focus();
    } else return;
    if (event.key !== 'Enter' && event.key !== ' ') event.preventDefault();
  });
  menu.addEventListener('focusout', (event) => {
    if (menu.contains(event.relatedTarget as Node | null)) return;
    host.defaultView!.setTimeout(() => close(false), 0);
  });
  anchor.setAttribute('aria-expanded', 'true');
  const root = anchor.closest<HTMLElement>('.te-root') ?? anchor.parentElement!;
  root.append(menu);
  place(menu, anchor, root);
  const on = entries.findIndex(({ isOn }) => isOn === true);
  focus(Math.max(0, on));
  return () => close(menu.contains(host.activeElement));
}

/** Puts a panel below its button, inside the editor. */
function place(menu: HTMLElement, anchor: HTMLElement, root: HTMLElement): void {
  const [inside, button] = [root.getBoundingClientRect(), anchor.getBoundingClientRect()];
  menu.style.top = `${button.bottom - inside.top + 2}px`;
  menu.style.left = `${Math.max(4, Math.min(button.left - inside.left, inside.width - menu.offsetWidth - 4))}px`;
  menu.style.maxHeight = `${Math.max(120, (root.ownerDocument.defaultView?.innerHeight ?? 800) - button.bottom - 12)}px`;
}
