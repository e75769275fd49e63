import { Plugin, PluginKey, Selection, type Transaction } from 'prosemirror-state';
import type { Node } from 'prosemirror-model';
import { nodeNameOf } from '../schema/compile';

/**
 * Keeps two lines from standing side by side, where they would be read as one: both become paragraphs, or are joined by a
 * line break where there are none. Words that come to the top of the text become paragraphs as well.
 */
export function lines(): Plugin<{ mayStandAtTop: boolean }> {
  const key = new PluginKey<{ mayStandAtTop: boolean }>('lines');
  return new Plugin({
    key,
    state: {
      // Where the text came with words outside paragraphs, they may stay so.
      init: (_config, { doc }) => ({ mayStandAtTop: hasLine(doc) }),
      apply: (_tr, before) => before,
    },
    appendTransaction(transactions, before, state) {
      if (!transactions.some(({ docChanged }) => docChanged)) return null;
      const { tr, schema } = state;
      const paragraph = schema.nodes[nodeNameOf('p')];
      const lineBreak = schema.nodes[nodeNameOf('br')];
      if (paragraph === undefined && lineBreak === undefined) return null;
      const changed = changedRange(before.doc, state.doc);
      if (changed === null) return null;
      const pairs: { at: number; second: number }[] = [];
      const look = (parent: Node, start: number): void => {
        let at = start;
        parent.forEach((node, _offset, index) => {
          const next = parent.maybeChild(index + 1);
          if (node.type.name === 'line' && next?.type.name === 'line') pairs.push({ at, second: at + node.nodeSize });
          at += node.nodeSize;
        });
      };
      // What is as it was before was looked at then.
      look(state.doc, 0);
      state.doc.nodesBetween(changed.from, changed.to, (node, at) => {
        if (node.isTextblock || node.isLeaf) return false;
        look(node, at + 1);
        return true;
      });
      // What leaves a list or a cell becomes a paragraph.
      if (paragraph !== undefined && !key.getState(before)!.mayStandAtTop)
        state.doc.forEach((node, at) => void (node.type.name === 'line' && tr.setNodeMarkup(at, paragraph)));
      if (pairs.length === 0) return tr.docChanged ? tr : null;
      for (const { at, second } of pairs.reverse()) {
        if (paragraph !== undefined) {
          for (const place of [second, at]) if (tr.doc.nodeAt(place)?.type.name === 'line') tr.setNodeMarkup(place, paragraph);
        } else join(tr, second, lineBreak!.create());
      }
      return tr.docChanged ? tr : null;
    },
  });
}

/** Where one document differs from another: a range of the newer one, a little wider on both sides; null where it does not. */
function changedRange(before: Node, after: Node): { from: number; to: number } | null {
  const start = before.content.findDiffStart(after.content);
  if (start === null) return null;
  const end = before.content.findDiffEnd(after.content)!;
  return { from: Math.max(0, Math.min(start, end.b) - 1), to: Math.min(after.content.size, Math.max(start, end.b) + 1) };
}

function hasLine(doc: Node): boolean {
  let isThere = false;
  doc.forEach((node) => void (isThere ||= node.type.name === 'line'));
  return isThere;
}

function join(tr: Transaction, at: number, lineBreak: Node): void {
  const before = tr.doc.resolve(at).nodeBefore;
  tr.insert(at + 1, lineBreak);
  if (before !== null) tr.join(at);
}

/** Leaves out a space typed beside another: the page shows one, so the editor holds one. */
export function singleSpaces(): Plugin {
  return new Plugin({
    props: {
      handleTextInput(view, from, to, text) {
        const $from = view.state.doc.resolve(from);
        const $to = view.state.doc.resolve(to);
        if (text !== ' ' || $from.parent.type.spec.code === true) return false;
        const before = $from.parent.textBetween(Math.max(0, $from.parentOffset - 1), $from.parentOffset, undefined, '\ufffc');
        const after = $to.parent.textBetween(
          $to.parentOffset,
          Math.min($to.parent.content.size, $to.parentOffset + 1),
          undefined,
          '\ufffc',
        );
        if (before === ' ' || $from.parentOffset === 0) {
          if (from !== to) view.dispatch(view.state.tr.delete(from, to));
          return true;
        }
        if (after !== ' ') return false;
        // The cursor goes past the space that is there.
        const tr = from === to ? view.state.tr : view.state.tr.delete(from, to);
        view.dispatch(tr.setSelection(Selection.near(tr.doc.resolve(from + 1), 1)));
        return true;
      },
    },
  });
}
