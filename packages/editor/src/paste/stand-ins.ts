import { Plugin } from 'prosemirror-state';
import { Decoration, DecorationSet } from 'prosemirror-view';
import type { Node } from 'prosemirror-model';
import { ReplaceStep } from 'prosemirror-transform';
import { STAND_INS } from './payload';

/** Shows the words that stand for pictures to upload as boxes. */
export function standInBoxes(): Plugin {
  return new Plugin<DecorationSet>({
    state: {
      init: (_config, { doc }) => boxesIn(doc),
      apply(transaction, before) {
        if (!transaction.docChanged) return before;
        // Only what brings a bracket can bring or break such words.
        const mayMatter =
          before.find().length > 0 ||
          transaction.steps.some(
            (step) => step instanceof ReplaceStep && step.slice.content.textBetween(0, step.slice.content.size).includes(']'),
          );
        return mayMatter ? boxesIn(transaction.doc) : before;
      },
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
