import { isValueKept } from '@typikon/core/editing';
import { MonitorPlay } from 'lucide';
import { NodeSelection } from 'prosemirror-state';
import { insertInline } from '../commands/blocks';
import { attributesOf, withAttribute } from '../commands/attributes';
import type { ButtonContext } from '../context';
import { field, make } from '../panels/make';
import { nodeNameOf } from '../schema/compile';
import type { HtmlAttributes } from '../schema/dom';
import { selectedElement } from '../selection';
import type { Button } from './button';

/** What an address of another site becomes, or why it is refused and what is allowed. */
export function checkEmbed(
  typed: string,
  { rules, profile }: Pick<ButtonContext, 'rules' | 'profile'>,
): { address: string } | { refusal: string } {
  const pasted = /<iframe[^>]*\ssrc\s*=\s*["']?([^"'\s>]+)/i.exec(typed)?.[1] ?? typed.trim();
  if (pasted === '') return { refusal: 'Type the address of the film, map or camera.' };
  const whole = pasted.startsWith('//')
    ? `https:${pasted}`
    : /^[a-z][a-z0-9+.-]*:/i.test(pasted) || pasted.startsWith('/')
      ? pasted
      : `https://${pasted}`;
  const test = profile.markup.elements['iframe']?.attributes?.['src'];
  const hosts = test?.test === 'url' ? (test.hosts ?? []) : [];
  const allowed = hosts.length === 0 ? '' : ` Allowed here: ${hosts.join(', ')}.`;
  if (!URL.canParse(whole)) return { refusal: `This is no address.${allowed}` };
  let address = whole;
  for (const { judge } of rules.element('iframe').attributes.get('src')?.tests ?? []) {
    const verdict = judge(address);
    if ('keep' in verdict) {
      address = verdict.keep;
      continue;
    }
    const { host, protocol } = new URL(whole);
    if (verdict.refuse === 'scheme-not-allowed' || verdict.refuse === 'address-runs-code')
      return { refusal: `Addresses of the kind “${protocol}” are not allowed here.${allowed}` };
    return { refusal: `Pages of ${host} may not be embedded here.${allowed}` };
  }
  return { address };
}

/** Shows a page of an allowed host in a frame that the rules describe, with a title. */
export const embed: Button = {
  id: 'embed',
  icon: MonitorPlay,
  isTolerant: true,
  isActive: (state) => selectedElement(state, 'iframe') !== null,
  isPossible: (state) => selectedElement(state, 'iframe') !== null || state.selection.$from.parent.inlineContent,
  whyNot: 'A frame cannot stand here.',
  open: (context) => {
    const { host, view, rules } = context;
    const selected = selectedElement(view.state, 'iframe');
    const old: HtmlAttributes = selected === null ? {} : attributesOf(selected.node);
    const source = make(host, 'input', { type: 'text', inputmode: 'url', autocomplete: 'off', value: old['src'] ?? '' });
    const title = make(host, 'input', { type: 'text', autocomplete: 'off', value: old['title'] ?? '' });
    const dialog = context.dialog({
      title: 'Embed',
      go: selected === null ? 'Put in' : 'Change',
      take: () => {
        const answer = checkEmbed(source.value, context);
        if ('refusal' in answer) {
          dialog.complain(answer.refusal, source);
          return false;
        }
        if (title.value.trim() === '') {
          dialog.complain('Say what the frame shows: people who do not see it hear this title.', title);
          return false;
        }
        let attributes = withAttribute(old, 'src', answer.address);
        if (isValueKept(rules, 'iframe', 'title', title.value.trim())) attributes = withAttribute(attributes, 'title', title.value.trim());
        for (const { name, value } of rules.element('iframe').demands?.forced ?? []) attributes = withAttribute(attributes, name, value);
        if (selected !== null) {
          const tr = view.state.tr.setNodeMarkup(selected.at, null, { attributes });
          view.dispatch(tr.setSelection(NodeSelection.create(tr.doc, selected.at)));
          view.focus();
          return true;
        }
        return context.run(insertInline((schema) => schema.nodes[nodeNameOf('iframe')]?.create({ attributes }) ?? null));
      },
    });
    dialog.body.append(
      field(host, 'Address', source, 'The address of the page, or the markup that its site gives for embedding.'),
      field(host, 'Title', title, 'What it shows, such as “The slip at Thornholm, live”.'),
    );
  },
};
