import { make, newId, push } from './make';

export interface Dialog {
  dom: HTMLDialogElement;
  body: HTMLElement;
  /** Says what is wrong, or nothing. */
  complain(message: string, control?: HTMLElement): void;
  close(): void;
}

export interface DialogOptions {
  /** Where the dialog is put: an element of the page around the editor. */
  root: HTMLElement;
  title: string;
  /** Wide enough for markup or many pictures. */
  isWide?: boolean;
  /** The label of the button that takes what was entered; without it there is only Close. */
  go?: string;
  /** Takes what was entered; false keeps the dialog open. */
  take?: () => boolean | Promise<boolean>;
  closed: () => void;
}

/** A dialog that holds the focus and gives it back (HTML, section 4.11.4 "The dialog element"). */
export function openDialog({ root, title, isWide = false, go, take, closed }: DialogOptions): Dialog {
  const host = root.ownerDocument;
  const titleId = newId('title');
  const messageId = newId('message');
  const dom = make(host, 'dialog', { class: isWide ? 'te-dialog te-wide' : 'te-dialog', 'aria-labelledby': titleId });
  const form = make(host, 'form', { method: 'dialog', novalidate: true });
  const body = make(host, 'div', { class: 'te-body' });
  const message = make(host, 'p', { class: 'te-complaint', id: messageId, role: 'alert' });
  const foot = make(host, 'div', { class: 'te-foot' });
  let isClosed = false;
  const close = (): void => {
    if (isClosed) return;
    isClosed = true;
    dom.close();
    dom.remove();
    closed();
  };
  const dialog: Dialog = {
    dom,
    body,
    complain(text, control) {
      message.textContent = text;
      for (const other of dom.querySelectorAll('[aria-invalid]')) other.removeAttribute('aria-invalid');
      if (control === undefined) return;
      control.setAttribute('aria-invalid', 'true');
      control.setAttribute('aria-errormessage', messageId);
      control.focus();
    },
    close,
  };
  form.addEventListener('submit', (event) => {
    event.preventDefault();
    if (take === undefined) close();
    else void Promise.resolve(take()).then((isDone) => isDone && close());
  });
  dom.addEventListener('cancel', (event) => {
    event.preventDefault();
    close();
  });
  // Keys of the editor and of the page around it must not act while somebody types here.
  dom.addEventListener('keydown', (event) => event.stopPropagation());
  if (go !== undefined) foot.append(make(host, 'button', { type: 'submit', class: 'te-go', text: go }));
  foot.append(push(host, go === undefined ? 'Close' : 'Cancel', close));
  form.append(make(host, 'h2', { id: titleId, text: title }), body, message, foot);
  dom.append(form);
  root.append(dom);
  dom.showModal();
  // What is asked first comes first, not the button that ends it.
  queueMicrotask(() => {
    const first = body.querySelector<HTMLElement>('input, select, textarea, button, [contenteditable]');
    // What only tells something can still be scrolled by the keyboard.
    if (first === null) body.tabIndex = 0;
    if (foot.contains(host.activeElement) || host.activeElement === dom) (first ?? body).focus();
  });
  return dialog;
}
