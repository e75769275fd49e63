/** What a strip offers to press, in order. */
export interface StripAction {
  label: string;
  press: () => void;
}

export interface PasteStrip {
  dom: HTMLElement;
  /** Says something, with what can be done about it. */
  say(message: string, actions?: readonly StripAction[]): void;
  close(): void;
}

/** A strip below the author's text that says in a sentence what became of a paste. */
export function buildPasteStrip(host: Document): PasteStrip {
  const dom = host.createElement('div');
  dom.className = 'te-paste';
  dom.hidden = true;
  const text = dom.appendChild(host.createElement('p'));
  text.setAttribute('role', 'status');
  const buttons = dom.appendChild(host.createElement('span'));
  return {
    dom,
    say(message, actions = []) {
      text.textContent = message;
      buttons.replaceChildren(
        ...actions.map(({ label, press }) => {
          const button = host.createElement('button');
          button.type = 'button';
          button.textContent = label;
          button.addEventListener('click', press);
          return button;
        }),
      );
      dom.hidden = false;
    },
    close() {
      dom.hidden = true;
      text.textContent = '';
      buttons.replaceChildren();
    },
  };
}

/** What was done to a paste, in a sentence. */
export function sentenceFor({ changes, toUpload, failure }: { changes: number; toUpload: number; failure: string }): string {
  const done = changes === 0 ? 'Pasted as it came' : `Tidied: ${changes === 1 ? 'one change' : `${changes} changes`}`;
  const upload = toUpload === 0 ? '' : `; ${toUpload === 1 ? 'one picture' : `${toUpload} pictures`} to upload`;
  return `${done}${upload}.${failure === '' ? '' : ` ${failure}`}`;
}
