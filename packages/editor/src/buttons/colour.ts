import type { ButtonId } from '@typikon/core/editing';
import { Baseline, PaintBucket, type IconNode } from 'lucide';
import { marksIn, setElement, wordsToMark } from '../commands/marks';
import type { HtmlAttributes } from '../schema/dom';
import { markNameOf } from '../schema/compile';
import type { Button } from './button';

/** Gives words one of the profile's colours, by a style property of a span. */
const colour = (id: Extract<ButtonId, 'text-colour' | 'background-colour'>, property: string, icon: IconNode): Button => {
  const declaration = new RegExp(`(^|;)\\s*${property}\\s*:[^;]*`, 'i');
  const without = (attributes: HtmlAttributes): HtmlAttributes | null => {
    const { style = '', ...rest } = attributes;
    const left = style
      .replace(declaration, '')
      .replace(/^\s*;\s*/, '')
      .trim();
    return left === '' && Object.keys(rest).length === 0 ? null : left === '' ? rest : { ...rest, style: left };
  };
  return {
    id,
    icon,
    isActive: (state) =>
      marksIn(state, 'span', state.selection.empty ? { from: state.selection.from, to: state.selection.from } : state.selection).some(
        (mark) => declaration.test((mark.attrs['attributes'] as HtmlAttributes)['style'] ?? ''),
      ),
    isPossible: (state) => {
      const { from, to } = wordsToMark(state, 'span');
      return from < to && state.schema.marks[markNameOf('span')] !== undefined;
    },
    whyNot: 'Select words first.',
    open: (context) => {
      const range = wordsToMark(context.view.state, 'span');
      const set = (value: string | null): void => {
        const old = marksIn(context.view.state, 'span', range).find((mark) =>
          declaration.test((mark.attrs['attributes'] as HtmlAttributes)['style'] ?? ''),
        );
        const rest = old === undefined ? null : without(old.attrs['attributes'] as HtmlAttributes);
        const attributes =
          value === null
            ? rest
            : { ...rest, style: [rest?.['style'], `${property}: ${value}`].filter((part) => part !== undefined && part !== '').join('; ') };
        context.run(setElement('span', range, attributes, ({ style = '' }) => declaration.test(style)));
      };
      context.menu(id === 'text-colour' ? 'Text colour' : 'Background colour', [
        ...context.options[id].colours.map(({ name, value }) => ({
          label: name,
          sample: (item: HTMLElement) => {
            const patch = item.ownerDocument.createElement('i');
            patch.className = 'te-patch';
            patch.style.background = value;
            item.prepend(patch);
          },
          press: () => set(value),
        })),
        { label: 'No colour', press: () => set(null) },
      ]);
    },
  };
};

export const textColour = colour('text-colour', 'color', Baseline);
export const backgroundColour = colour('background-colour', 'background-color', PaintBucket);
