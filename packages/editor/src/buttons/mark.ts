import type { ButtonId } from '@typikon/core';
import { Bold, Italic, Underline, type IconNode } from 'lucide';
import { toggleMark } from 'prosemirror-commands';
import { markNameOf } from '../schema/compile';
import { hasMark } from '../selection';
import type { Button } from './button';

const mark = (id: ButtonId, element: string, icon: IconNode): Button => {
  const name = markNameOf(element);
  return {
    id,
    icon,
    command: ({ marks }) => (marks[name] === undefined ? null : toggleMark(marks[name])),
    isActive: (state) => hasMark(state, name),
  };
};

export const bold = mark('bold', 'strong', Bold);
export const italic = mark('italic', 'em', Italic);
export const underline = mark('underline', 'u', Underline);
