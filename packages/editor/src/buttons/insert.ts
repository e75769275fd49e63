import { isValueKept } from '@typikon/core/editing';
import { CornerDownLeft, ListCollapse, Minus, Scissors, SeparatorHorizontal, Space } from 'lucide';
import type { Command } from 'prosemirror-state';
import { insertBlock, unwrapBlock, wrapBlocks } from '../commands/blocks';

import { lineBreak as breakLine } from '../plugins/keys';
import { nodeNameOf } from '../schema/compile';
import { isInside } from '../selection';
import type { Button } from './button';

/** Draws a line between two parts. */
export const rule: Button = {
  id: 'rule',
  icon: Minus,
  command: () => insertBlock((schema) => schema.nodes[nodeNameOf('hr')]?.create() ?? null),
  whyNot: 'No rule can stand here.',
};

/** Marks where the teaser ends; there is one at most, so a second press moves it. */
export const summaryBreak: Button = {
  id: 'summary-break',
  icon: SeparatorHorizontal,
  command:
    ({ options, rules }) =>
    (state, dispatch, view) => {
      const name = options['summary-break'].class;
      if (!isValueKept(rules, 'hr', 'class', name)) return false;
      const type = state.schema.nodes[nodeNameOf('hr')];
      const insert = insertBlock(() => type?.create({ attributes: { class: name } }) ?? null);
      return insert(
        state,
        dispatch === undefined
          ? undefined
          : (tr) => {
              const others: number[] = [];
              tr.doc.descendants((node, at) => {
                if (node.type === type && (node.attrs['attributes'] as Record<string, string>)['class'] === name) others.push(at);
              });
              const added =
                others.find((at) => state.doc.resolve(Math.min(at, state.doc.content.size)).nodeAfter !== tr.doc.nodeAt(at)) ?? -1;
              for (const at of others.reverse()) if (at !== added) tr.delete(at, at + 1);
              dispatch(tr);
            },
        view,
      );
    },
  whyNot: 'The teaser cannot end here.',
};

const details = nodeNameOf('details');

/** Folds blocks away under a line to be written, or takes them out again. */
export const foldedDetails: Button = {
  id: 'details',
  icon: ListCollapse,
  command:
    ({ schema }) =>
    (state, dispatch, view) =>
      isInside(state, details)
        ? unwrapBlock((node) => node.type.name === details)(state, dispatch, view)
        : wrapBlocks(schema.nodes[details], (of) => of.nodes[nodeNameOf('summary')]?.create(null, of.nodes['line']!.create()) ?? null)(
            state,
            dispatch,
            view,
          ),
  isActive: (state) => isInside(state, details),
  whyNot: 'Details cannot stand here.',
};

export const lineBreak: Button = { id: 'line-break', icon: CornerDownLeft, command: () => breakLine, whyNot: 'There are no words here.' };

const text =
  (character: string): Command =>
  (state, dispatch) => {
    if (!state.selection.$from.parent.inlineContent) return false;
    dispatch?.(state.tr.insertText(character).scrollIntoView());
    return true;
  };

export const hardSpace: Button = { id: 'hard-space', icon: Space, command: () => text('\u00a0'), whyNot: 'There are no words here.' };
export const softHyphen: Button = { id: 'soft-hyphen', icon: Scissors, command: () => text('\u00ad'), whyNot: 'There are no words here.' };
