import { clean, groupEntries, parseFragment, layOut, sentenceOf, serialize } from '@typikon/core/editing';
import type { EditorContext } from '../context';
import { writeDocument } from '../schema/write';
import { make, push } from './make';
import type { CodeField } from './code-field';

/** Markup with each block on a line of its own, for reading. */
export function formatted(html: string): string {
  const { root } = parseFragment(html);
  layOut(root, 'indented');
  return serialize(root);
}

/** Shows the markup to be changed by hand. What the rules take is listed before anything is taken over. */
export function openSource(context: EditorContext): void {
  const { host, rules, view } = context;
  const before = formatted(writeDocument(view.state.doc));
  let field: CodeField | null = null;
  /** The markup whose changes were shown last and may now be taken. */
  let agreed: string | null = null;
  const told = make(host, 'div', { class: 'te-told', role: 'status' });
  const place = make(host, 'div', { class: 'te-code' });
  const dialog = context.dialog({
    title: 'Markup',
    isWide: true,
    go: 'Take over',
    take: () => {
      const typed = field?.value ?? before;
      if (typed === before) return true;
      const { html, ledger } = clean(typed, rules);
      if (ledger.length > 0 && agreed !== typed) {
        agreed = typed;
        const list = make(host, 'ul');
        for (const group of groupEntries(ledger)) list.append(make(host, 'li', { text: sentenceOf(group) }));
        told.replaceChildren(
          make(host, 'p', { text: 'The rules change what you wrote. Press “Take over” again to take it so, or go on writing.' }),
          list,
          push(host, 'Show it as it would be', () => field?.set(formatted(html))),
        );
        return false;
      }
      context.replaceAll(html);
      return true;
    },
  });
  dialog.body.append(place, told);
  place.append(make(host, 'p', { class: 'te-hint', text: 'Loading …' }));
  void import('./code-field').then(({ codeField }) => {
    place.replaceChildren();
    field = codeField(place, before, 'Markup of the text', () => {
      agreed = null;
      told.replaceChildren();
    });
    field.focus();
  });
}
