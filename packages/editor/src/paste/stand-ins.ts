import { Plugin } from 'prosemirror-state';
import { Decoration, DecorationSet } from 'prosemirror-view';
import type { Node } from 'prosemirror-model';
import { STAND_INS } from './payload';

/** Shows the words that stand for pictures to upload as boxes. */
export function standInBoxes(): Plugin {
  return new Plugin<DecorationSet>({
    state: {
      init: (_config, { doc }) => boxesIn(doc),
      apply: (transaction, before) => (transaction.docChanged ? boxesIn(transaction.doc) : before),
    },
    props: {
      decorations(state) {
        return this.getState(state);
      },
    },
  });
}

function boxesIn(doc: Node): DecorationSet {
  const boxes: Decoration[] = [];
  doc.descendants((node, at) => {
    if (!node.isText) return;
    for (const match of (node.text ?? '').matchAll(STAND_INS))
      boxes.push(Decoration.inline(at + match.index, at + match.index + match[0].length, { class: 'te-stand-in' }));
  });
  return DecorationSet.create(doc, boxes);
}
