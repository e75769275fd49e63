import { Link, Unlink } from 'lucide';
import { NodeSelection } from 'prosemirror-state';
import { checkAddress } from '../address';
import { attributesOf, isAttributeKept, setAttributes, withAttribute } from '../commands/attributes';
import { marksIn } from '../commands/marks';
import type { EditorContext } from '../context';
import { idFor, idsIn, outlineOf } from '../document/outline';
import { choice, field, make, tick } from '../panels/make';
import { markNameOf } from '../schema/compile';
import type { HtmlAttributes } from '../schema/dom';
import { hasMark, markRange, wordAround } from '../selection';
import type { Button } from './button';

const name = markNameOf('a');

const KINDS = {
  page: 'A page of this site',
  heading: 'A place in this text',
  address: 'An address',
  mail: 'A mailbox',
  telephone: 'A telephone',
} as const;
type Kind = keyof typeof KINDS;

function kindOf(href: string): Kind {
  if (href.startsWith('#')) return 'heading';
  if (/^mailto:/i.test(href)) return 'mail';
  if (/^tel:/i.test(href)) return 'telephone';
  return href === '' || /^[a-z][a-z0-9+.-]*:/i.test(href) ? 'address' : 'page';
}

/** The words or picture that are to be linked. */
function rangeOf({ view: { state } }: EditorContext): { from: number; to: number } {
  const { selection } = state;
  if (!selection.empty) return selection;
  const type = state.schema.marks[name];
  const stretch = type === undefined ? selection : markRange(state, type);
  return stretch.from < stretch.to ? stretch : wordAround(state);
}

function openLink(context: EditorContext): void {
  const { host, view, rules, services, schema, options, profile } = context;
  const range = rangeOf(context);
  const old = (marksIn(view.state, 'a', range)[0]?.attrs['attributes'] as HtmlAttributes | undefined) ?? {};
  const href = old['href'] ?? '';
  // Of a picture, or of words in several blocks, only where they lead is asked.
  const isFixed =
    view.state.selection instanceof NodeSelection || !view.state.doc.resolve(range.from).sameParent(view.state.doc.resolve(range.to));
  const words = view.state.doc.textBetween(range.from, range.to, ' ');
  const kinds = options.link.kinds.filter((kind) => kind !== 'page' || services.pages !== undefined);
  const hasPlaces = outlineOf(view.state.doc).length > 0 || idsIn(view.state.doc).size > 0;
  // What has nothing to choose from yet is not what is asked first.
  const first = kinds.find((one) => one !== 'heading' || hasPlaces) ?? kinds[0] ?? 'address';
  // Where pages are not offered, a page of the site is an address as others are.
  const now = kindOf(href) === 'page' && !kinds.includes('page') ? 'address' : kindOf(href);
  let kind: Kind = kinds.includes(now) && href !== '' ? now : first;

  const picker = choice(
    host,
    kinds.map((value) => ({ value, label: KINDS[value] })),
    kind,
  );
  const shown = make(host, 'input', { type: 'text', autocomplete: 'off', value: words });
  const part = make(host, 'div', { class: 'te-part' });
  const note = make(host, 'p', { class: 'te-hint', role: 'status' });
  const newWindow = tick(host, 'opens a window of its own', old['target'] === '_blank');
  const mayTarget = profile.markup.links.newWindow === 'as-written' && isAttributeKept(rules, 'a', 'target');
  /** The address that the chosen part stands for, or why there is none. */
  let answer: () => { address: string } | { refusal: string; control?: HTMLElement } = () => ({ refusal: '' });
  /** What must be done to the text so that the address leads somewhere. */
  let prepare: () => void = () => {};

  const typed = (label: string, value: string, hint: string, whole: (text: string) => string): HTMLInputElement => {
    const input = make(host, 'input', { type: 'text', inputmode: 'url', autocomplete: 'off', value });
    input.spellcheck = false;
    const check = (): ReturnType<typeof checkAddress> => checkAddress(whole(input.value), rules);
    input.addEventListener('change', () => {
      const checked = check();
      note.textContent = 'refusal' in checked ? '' : (checked.note ?? '');
    });
    answer = () => {
      const checked = check();
      return 'refusal' in checked ? { refusal: checked.refusal, control: input } : { address: checked.address };
    };
    part.append(field(host, label, input, hint));
    return input;
  };
  const listed = (
    label: string,
    entries: readonly { value: string; label: string; note?: string }[],
    value: string,
    empty: string,
  ): HTMLSelectElement => {
    const list = make(host, 'select', { size: 7, class: 'te-list' });
    for (const entry of entries)
      list.append(
        make(host, 'option', { value: entry.value, text: entry.note === undefined ? entry.label : `${entry.label}  (${entry.note})` }),
      );
    list.value = value;
    part.append(field(host, label, list));
    answer = () => (list.value === '' ? { refusal: empty, control: list } : { address: list.value });
    return list;
  };

  const show = (): void => {
    part.replaceChildren();
    note.textContent = '';
    prepare = () => {};
    if (kind === 'address')
      typed(
        'Address',
        kindOf(href) === 'address' || !kinds.includes('page') ? href : '',
        'Such as https://harbour.example/tides. Without https:// it is completed.',
        (text) => text,
      );
    else if (kind === 'mail')
      typed('Mail address', href.replace(/^mailto:/i, ''), '', (text) =>
        text.trim() === '' ? '' : `mailto:${text.trim().replace(/^mailto:/i, '')}`,
      );
    else if (kind === 'telephone')
      typed('Telephone number', href.replace(/^tel:/i, ''), 'With the code of the country, such as +44 1632 960 001.', (text) =>
        text.trim() === '' ? '' : `tel:${text.replace(/^tel:/i, '').replace(/[\s().-]/g, '')}`,
      );
    else if (kind === 'page') pages();
    else places();
  };

  const pages = (): void => {
    const query = make(host, 'input', { type: 'search', autocomplete: 'off', placeholder: 'Part of the title' });
    part.append(field(host, 'Find a page', query));
    const list = listed('Pages', [], '', 'Choose a page.');
    let turn = 0;
    const find = (): void => {
      const mine = ++turn;
      services.pages!.find(query.value).then(
        (found) => {
          if (mine !== turn) return;
          list.replaceChildren(
            ...found.map((page) => make(host, 'option', { value: page.address, text: `${page.title}  (${page.kind})` })),
          );
          list.value = found.some(({ address }) => address === href) ? href : query.value.trim() === '' ? '' : (found[0]?.address ?? '');
          note.textContent = found.length === 0 ? 'No page has this in its title.' : '';
        },
        (error: unknown) => (note.textContent = error instanceof Error ? error.message : 'The pages cannot be read.'),
      );
    };
    query.addEventListener('input', find);
    query.addEventListener('keydown', (event) => {
      if (event.key !== 'ArrowDown') return;
      event.preventDefault();
      list.focus();
    });
    find();
  };

  const places = (): void => {
    const { doc } = view.state;
    const ids = idsIn(doc);
    const headings = outlineOf(doc);
    const anchors = [...ids].filter(([, at]) => !headings.some((heading) => heading.at === at)).map(([id]) => id);
    const entries = [
      ...headings.map(({ at, level, text, id }) => ({
        value: id === '' ? `at:${at}` : `#${id}`,
        label: `${'   '.repeat(Math.max(0, level - 2))}${text}`,
      })),
      ...anchors.map((id) => ({ value: `#${id}`, label: id, note: 'anchor' })),
    ];
    const list = listed('Headings and anchors', entries, href, 'This text has no headings and no anchors yet.');
    const { prefix } = profile.markup.ids;
    answer = () => {
      if (list.value === '')
        return {
          refusal: entries.length === 0 ? 'This text has no headings and no anchors yet.' : 'Choose one of the list.',
          control: list,
        };
      if (!list.value.startsWith('at:')) return { address: list.value };
      const at = Number(list.value.slice(3));
      const heading = doc.nodeAt(at)!;
      if (!isAttributeKept(rules, heading.type.spec['element'] as string, 'id'))
        return {
          refusal: 'The rules let headings of this level have no id, so no link can lead there. Put an anchor before it.',
          control: list,
        };
      const id = idFor(heading.textContent, ids, prefix);
      prepare = () => view.dispatch(setAttributes(view.state.tr, at, withAttribute(attributesOf(heading), 'id', id)));
      return { address: `#${id}` };
    };
  };

  const dialog = context.dialog({
    title: href === '' ? 'Link' : 'Change the link',
    go: href === '' ? 'Link' : 'Change',
    take: () => {
      const given = answer();
      if ('refusal' in given) {
        dialog.complain(given.refusal, given.control);
        return false;
      }
      const text = shown.value.trim();
      if (!isFixed && text === '') {
        dialog.complain('Write the words that are to be the link.', shown);
        return false;
      }
      prepare();
      let attributes = withAttribute(old, 'href', given.address);
      if (mayTarget) attributes = withAttribute(attributes, 'target', newWindow.input.checked ? '_blank' : null);
      const type = schema.marks[name]!;
      const { tr } = view.state;
      const mark = type.create({ attributes });
      if (!isFixed && text !== words) {
        const marks = (view.state.doc.nodeAt(range.from)?.marks ?? []).filter((other) => other.type !== type);
        tr.replaceWith(range.from, range.to, schema.text(text, mark.addToSet(marks)));
      } else tr.removeMark(range.from, range.to, type).addMark(range.from, range.to, mark);
      view.dispatch(tr.removeStoredMark(type).scrollIntoView());
      view.focus();
      return true;
    },
  });
  picker.addEventListener('change', () => {
    kind = picker.value as Kind;
    dialog.complain('');
    show();
  });
  if (kinds.length > 1) dialog.body.append(field(host, 'Leads to', picker));
  dialog.body.append(part, note);
  if (!isFixed) dialog.body.append(field(host, 'Words', shown));
  if (mayTarget) dialog.body.append(newWindow.dom);
  show();
  dialog.body.querySelector<HTMLElement>('.te-part input, .te-part select')?.focus();
}

/** Asks where the selected words or the selected picture are to lead. */
export const link: Button = {
  id: 'link',
  icon: Link,
  open: openLink,
  isActive: (state) => hasMark(state, name),
  isPossible: ({ selection }) =>
    !selection.empty || (selection.$from.parent.inlineContent && selection.$from.parent.type.spec.code !== true),
  whyNot: 'There are no words here to link.',
};

/** Takes a link away and keeps its words. */
export const unlink: Button = {
  id: 'unlink',
  icon: Unlink,
  command: ({ schema }) => {
    const type = schema.marks[name];
    return (state, dispatch) => {
      if (type === undefined || !hasMark(state, name)) return false;
      const { from, to } = state.selection.empty ? markRange(state, type) : state.selection;
      dispatch?.(state.tr.removeMark(from, to, type).scrollIntoView());
      return true;
    };
  },
  whyNot: 'This is no link.',
};
