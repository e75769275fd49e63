import { Paintbrush } from 'lucide';
import { setBlockType } from 'prosemirror-commands';
import type { Command, EditorState } from 'prosemirror-state';
import { attributesOf, changeTextBlocks, classesOf, isValueKept, withAttribute } from '../commands/attributes';
import { marksIn, setElement, wordsToMark } from '../commands/marks';
import type { ButtonContext } from '../context';
import { markNameOf, nodeNameOf, type HtmlAttributes } from '../schema/compile';
import { ancestor, selectedTextBlocks } from '../selection';
import type { Button } from './button';

/** What a style's selector says: an element, classes, or both. */
interface Simple {
  element: string;
  classes: readonly string[];
}

/** Reads a selector of an element, classes or both; null for any other. */
export function readStyleSelector(selector: string): Simple | null {
  const match = /^([a-z][a-z0-9]*)?((?:\.[A-Za-z_][\w-]*)*)$/.exec(selector.trim());
  if (match === null || selector.trim() === '') return null;
  return { element: match[1] ?? '', classes: (match[2] ?? '').split('.').filter((name) => name !== '') };
}

const classAttribute = (old: HtmlAttributes, classes: readonly string[], isOn: boolean): HtmlAttributes => {
  const rest = (old['class'] ?? '').split(/\s+/).filter((name) => name !== '' && !classes.includes(name));
  return withAttribute(old, 'class', [...rest, ...(isOn ? classes : [])].join(' '));
};

/** What a style does at a selection, and whether it is on there; null where it cannot be applied. */
function styleAt(
  state: EditorState,
  { rules, schema }: ButtonContext,
  { element, classes }: Simple,
): { isOn: boolean; command: Command } | null {
  const isKept = (name: string): boolean => classes.every((one) => isValueKept(rules, name, 'class', one));
  const blockType = schema.nodes[nodeNameOf(element)];
  if (blockType?.isTextblock === true) {
    if (!isKept(element)) return null;
    const blocks = selectedTextBlocks(state);
    const isOn = blocks.every(({ node }) => node.type === blockType && classes.every((name) => classesOf(node).includes(name)));
    return {
      isOn,
      command: (now, dispatch, view) => {
        const change: Command = (after, go) =>
          changeTextBlocks(
            (name) => name === element,
            (node) => classAttribute(attributesOf(node), classes, !isOn),
          )(after, go);
        const paragraph = schema.nodes[nodeNameOf('p')];
        if (isOn && element !== 'p' && paragraph !== undefined) return setBlockType(paragraph)(now, dispatch, view);
        if (blocks.every(({ node }) => node.type === blockType)) return change(now, dispatch);
        if (dispatch === undefined) return setBlockType(blockType)(now);
        return setBlockType(blockType, { attributes: classes.length === 0 ? {} : { class: classes.join(' ') } })(now, dispatch, view);
      },
    };
  }
  if (blockType !== undefined && !blockType.isInline) {
    const around = ancestor(state, (node) => node.type === blockType);
    if (around === null || !isKept(element) || classes.length === 0) return null;
    const isOn = classes.every((name) => classesOf(around.node).includes(name));
    return {
      isOn,
      command: (now, dispatch) => {
        dispatch?.(
          now.tr.setNodeMarkup(around.at, null, { attributes: classAttribute(attributesOf(around.node), classes, !isOn) }).scrollIntoView(),
        );
        return true;
      },
    };
  }
  const inline = element === '' ? 'span' : element;
  const range = wordsToMark(state, inline);
  if (schema.marks[markNameOf(inline)] === undefined || !isKept(inline) || range.from >= range.to) return null;
  const hasAll = (attributes: HtmlAttributes): boolean => classes.every((name) => (attributes['class'] ?? '').split(/\s+/).includes(name));
  const isOn = marksIn(state, inline, range).some((mark) => hasAll(mark.attrs['attributes'] as HtmlAttributes));
  return { isOn, command: setElement(inline, range, isOn ? null : classes.length === 0 ? {} : { class: classes.join(' ') }, hasAll) };
}

/** A menu of the styles that the profile names. */
export const styles: Button = {
  id: 'styles',
  icon: Paintbrush,
  isPossible: (_state, { profile }) => Object.keys(profile.styles).length > 0,
  whyNot: 'This profile names no styles.',
  open: (context) => {
    const { state } = context.view;
    context.menu(
      'Styles',
      Object.values(context.profile.styles).map(({ label, selector }) => {
        const simple = readStyleSelector(selector);
        const style = simple === null ? null : styleAt(state, context, simple);
        const where =
          simple !== null && context.schema.nodes[nodeNameOf(simple.element)]?.isTextblock === false
            ? ` It goes on ${simple.element}.`
            : '';
        return {
          label,
          isOn: style?.isOn ?? false,
          whyNot: style !== null ? '' : `It cannot be applied here.${where}`,
          press: () => style !== null && context.run(style.command),
        };
      }),
    );
  },
};
