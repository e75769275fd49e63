import { isValueKept } from '@typikon/core/editing';
import { ListIndentDecrease, ListIndentIncrease } from 'lucide';
import { chainCommands } from 'prosemirror-commands';

import { liftItem, sinkItem } from '../commands/lists';
import type { ButtonContext } from '../context';
import { indentBlocks } from '../plugins/keys';
import { isInside } from '../selection';
import { nodeNameOf } from '../schema/compile';
import type { Command } from 'prosemirror-state';
import type { Button } from './button';

const outsideLists =
  (command: Command): Command =>
  (state, dispatch) =>
    !isInside(state, nodeNameOf('li')) && command(state, dispatch);
const byClass = (by: 1 | -1, { options, rules }: ButtonContext): Command =>
  outsideLists(indentBlocks(by, options.indent.classes, (element, name) => isValueKept(rules, element, 'class', name)));

/** One step in: a list item below the one above it, another block by a class. */
export const indent: Button = {
  id: 'indent',
  icon: ListIndentIncrease,
  isTolerant: true,
  command: (context) => chainCommands(sinkItem, byClass(1, context)),
  whyNot: 'The first item of a list has none above it, and other blocks need a class that the rules keep.',
};

export const outdent: Button = {
  id: 'outdent',
  icon: ListIndentDecrease,
  isTolerant: true,
  command: (context) => chainCommands(liftItem, byClass(-1, context)),
  whyNot: 'This is not set in.',
};
