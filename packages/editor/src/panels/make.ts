type Properties = Readonly<Record<string, string | number | boolean | null | undefined>>;
type Child = Node | string | null;

/** Makes an element of a page; true and false switch attributes, null leaves them out, `text` and `class` are what they say. */
export function make<Tag extends keyof HTMLElementTagNameMap>(
  host: Document,
  tag: Tag,
  properties: Properties = {},
  ...children: readonly Child[]
): HTMLElementTagNameMap[Tag] {
  const element = host.createElement(tag);
  for (const [name, value] of Object.entries(properties)) {
    if (value === null || value === undefined || value === false) continue;
    if (name === 'text') element.textContent = String(value);
    else element.setAttribute(name, value === true ? '' : String(value));
  }
  for (const child of children) if (child !== null) element.append(child);
  return element;
}

let counter = 0;

/** An id that no other element of the page has. */
export const newId = (name: string): string => `te-${name}-${++counter}`;

/** A control with its label above and perhaps a hint below. */
export function field(host: Document, label: string, control: HTMLElement, hint = ''): HTMLElement {
  control.id = control.id || newId('field');
  const wrap = make(host, 'div', { class: 'te-field' }, make(host, 'label', { for: control.id, text: label }), control);
  if (hint !== '') {
    const id = `${control.id}-hint`;
    control.setAttribute('aria-describedby', id);
    wrap.append(make(host, 'p', { class: 'te-hint', id, text: hint }));
  }
  return wrap;
}

/** A box to tick, with its words behind it. */
export function tick(host: Document, label: string, isOn: boolean): { dom: HTMLElement; input: HTMLInputElement } {
  const input = make(host, 'input', { type: 'checkbox', checked: isOn });
  input.checked = isOn;
  return { dom: make(host, 'label', { class: 'te-tick' }, input, label), input };
}

/** A list to choose from. */
export function choice(host: Document, options: readonly { value: string; label: string }[], value: string): HTMLSelectElement {
  const select = make(host, 'select');
  for (const option of options)
    select.append(make(host, 'option', { value: option.value, text: option.label, selected: option.value === value }));
  select.value = value;
  return select;
}

/** A button with words on it. */
export function push(host: Document, label: string, press: () => void, className = ''): HTMLButtonElement {
  const button = make(host, 'button', { type: 'button', class: className === '' ? null : className, text: label });
  button.addEventListener('click', press);
  return button;
}
