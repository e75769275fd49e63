import type { AddressAnswer } from './address';

export interface AddressStrip {
  dom: HTMLElement;
  /** Opens the strip with an address to start from; calls back with the address that was chosen. */
  open(address: string, chosen: (address: string) => void): void;
  close(): void;
}

let counter = 0;

/** A strip below the toolbar that asks for the address of a link and says at once where it cannot be used. */
export function buildAddressStrip(host: Document, check: (typed: string) => AddressAnswer, closed: () => void): AddressStrip {
  const id = `te-address-${++counter}`;
  const dom = host.createElement('form');
  dom.className = 'te-strip';
  dom.hidden = true;
  const label = dom.appendChild(host.createElement('label'));
  label.htmlFor = id;
  label.textContent = 'Address';
  const input = dom.appendChild(host.createElement('input'));
  input.id = id;
  input.type = 'text';
  input.inputMode = 'url';
  input.autocomplete = 'off';
  input.spellcheck = false;
  input.setAttribute('aria-describedby', `${id}-message`);
  const button = (text: string, type: 'submit' | 'button'): HTMLButtonElement => {
    const made = dom.appendChild(host.createElement('button'));
    made.type = type;
    made.textContent = text;
    return made;
  };
  button('Link', 'submit').className = 'te-go';
  const cancel = button('Cancel', 'button');
  const message = dom.appendChild(host.createElement('p'));
  message.id = `${id}-message`;
  message.setAttribute('role', 'status');
  let answer: (address: string) => void = () => {};
  const close = (): void => {
    dom.hidden = true;
    message.textContent = '';
  };
  dom.addEventListener('submit', (event) => {
    event.preventDefault();
    const checked = check(input.value);
    if ('refusal' in checked) {
      message.textContent = checked.refusal;
      input.setAttribute('aria-invalid', 'true');
      input.focus();
      return;
    }
    close();
    answer(checked.address);
  });
  const giveUp = (): void => {
    close();
    closed();
  };
  cancel.addEventListener('click', giveUp);
  dom.addEventListener('keydown', (event) => {
    if (event.key !== 'Escape') return;
    event.preventDefault();
    giveUp();
  });
  return {
    dom,
    open(address, chosen) {
      answer = chosen;
      input.value = address;
      input.removeAttribute('aria-invalid');
      message.textContent = '';
      dom.hidden = false;
      input.focus();
      input.select();
    },
    close,
  };
}
