import type { ButtonId, ToolbarOptions } from '@typikon/core/editing';
import { Bold, CodeXml, Highlighter, ALargeSmall, Italic, Strikethrough, Subscript, Superscript, Underline, type IconNode } from 'lucide';
import { isElementOn, toggleElement } from '../commands/marks';
import type { Button } from './button';

const mark = (id: ButtonId, icon: IconNode, element: string | ((options: ToolbarOptions) => string)): Button => {
  const of = (options: ToolbarOptions): string => (typeof element === 'string' ? element : element(options));
  return {
    id,
    icon,
    command: ({ options }) => toggleElement(of(options)),
    isActive: (state, { options }) => isElementOn(of(options))(state),
    whyNot: 'There are no words here to mark.',
  };
};

export const bold = mark('bold', Bold, ({ bold: { element } }) => element);
export const italic = mark('italic', Italic, ({ italic: { element } }) => element);
export const underline = mark('underline', Underline, 'u');
export const strike = mark('strike', Strikethrough, ({ strike: { element } }) => element);
export const subscript = mark('subscript', Subscript, 'sub');
export const superscript = mark('superscript', Superscript, 'sup');
export const small = mark('small', ALargeSmall, 'small');
export const highlight = mark('highlight', Highlighter, 'mark');
export const code = mark('code', CodeXml, 'code');
