import type { Node } from 'prosemirror-model';
import { Plugin, PluginKey, TextSelection, type EditorState, type Transaction } from 'prosemirror-state';
import { Decoration, DecorationSet } from 'prosemirror-view';

export interface Found {
  from: number;
  to: number;
}
interface FindState {
  text: string;
  isCaseKept: boolean;
  found: readonly Found[];
}

export const findKey = new PluginKey<FindState>('find');

/** Every place of some words within one block each; hard spaces and plain ones are taken for the same. */
export function findIn(doc: Node, text: string, isCaseKept: boolean): Found[] {
  const found: Found[] = [];
  const plain = (value: string): string => {
    const even = value
      .replace(/[\u00a0\u202f]/g, ' ')
      .replace(/[‘’]/g, "'")
      .replace(/[“”]/g, '"');
    return isCaseKept ? even : even.toLowerCase();
  };
  const wanted = plain(text);
  if (wanted === '') return found;
  doc.descendants((node, at) => {
    if (!node.isTextblock) return true;
    const words = plain(node.textBetween(0, node.content.size, undefined, '\ufffc'));
    // Where lower case is of another length, places cannot be told from it.
    if (words.length !== node.content.size) return false;
    for (let place = words.indexOf(wanted); place !== -1; place = words.indexOf(wanted, place + wanted.length))
      found.push({ from: at + 1 + place, to: at + 1 + place + wanted.length });
    return false;
  });
  return found;
}

export function findView(): Plugin<FindState> {
  return new Plugin<FindState>({
    key: findKey,
    state: {
      init: () => ({ text: '', isCaseKept: false, found: [] }),
      apply(tr, before) {
        const asked = tr.getMeta(findKey) as Pick<FindState, 'text' | 'isCaseKept'> | undefined;
        const { text, isCaseKept } = asked ?? before;
        return asked !== undefined || (tr.docChanged && text !== '')
          ? { text, isCaseKept, found: findIn(tr.doc, text, isCaseKept) }
          : before;
      },
    },
    props: {
      decorations(state) {
        const { found } = findKey.getState(state)!;
        const { from, to } = state.selection;
        return DecorationSet.create(
          state.doc,
          found.map((one) =>
            Decoration.inline(one.from, one.to, { class: one.from === from && one.to === to ? 'te-found te-here' : 'te-found' }),
          ),
        );
      },
    },
  });
}

/** The next or previous place from the selection on, around the end. */
export function nextFound(state: EditorState, direction: 1 | -1): Found | null {
  const { found } = findKey.getState(state)!;
  const { from, to } = state.selection;
  const ahead =
    direction === 1
      ? found.find((one) => one.from >= to && !(one.from === from && one.to === to))
      : [...found].reverse().find((one) => one.to <= from);
  return ahead ?? (direction === 1 ? found[0] : found[found.length - 1]) ?? null;
}

export function select(state: EditorState, { from, to }: Found): Transaction {
  return state.tr.setSelection(TextSelection.create(state.doc, from, to)).scrollIntoView();
}

/** Puts other words in every place, as one step; marks of the words stay. */
export function replaceFound(state: EditorState, places: readonly Found[], words: string): Transaction {
  const { tr } = state;
  for (const { from, to } of [...places].reverse()) {
    if (words === '') tr.delete(from, to);
    else tr.replaceWith(from, to, state.schema.text(words, state.doc.resolve(from + 1).marks()));
  }
  return tr;
}
