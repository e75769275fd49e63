import {
  compileSelectors,
  ElementNode,
  HTML_NAMESPACE,
  isValueKept,
  readStyle,
  type CompiledRules,
  type StyleAct,
  type StyleDefinition,
} from '@typikon/core/editing';
import { wrapIn } from 'prosemirror-commands';
import type { Node } from 'prosemirror-model';
import { NodeSelection, type Command, type EditorState } from 'prosemirror-state';
import type { ButtonContext } from '../context';
import { blockBefore, remember } from '../plugins/style-memory';
import { markNameOf, nodeNameOf } from '../schema/compile';
import type { HtmlAttributes } from '../schema/dom';
import { selectedTextBlocks } from '../selection';
import { attributesOf, elementOf, withAttribute } from './attributes';
import { marksIn, setElement, wordsToMark } from './marks';

/** What a style does at a selection, and whether it is on there; or why it cannot be applied. */
export type StyleHere = { isOn: boolean; command: Command } | { whyNot: string };

/** What a style gives, and what it takes away: the styles of its group exclude each other. */
interface Given {
  act: StyleAct;
  others: readonly StyleAct[];
}

const wordsOf = (attributes: HtmlAttributes): string[] => (attributes['class'] ?? '').split(/\s+/).filter((name) => name !== '');

/** Whether attributes carry all that a style gives. */
const carries = (attributes: HtmlAttributes, { classes, attributes: wanted }: StyleAct): boolean =>
  classes.every((name) => wordsOf(attributes).includes(name)) && wanted.every(({ name, value }) => attributes[name] === value);

function without(attributes: HtmlAttributes, { classes, attributes: given }: StyleAct): HtmlAttributes {
  let rest = withAttribute(
    attributes,
    'class',
    wordsOf(attributes)
      .filter((name) => !classes.includes(name))
      .join(' '),
  );
  for (const { name } of given) rest = withAttribute(rest, name, null);
  return rest;
}

function given(attributes: HtmlAttributes, { act, others }: Given): HtmlAttributes {
  let result = attributes;
  for (const other of others)
    if (other.classes.length + other.attributes.length > 0 && carries(result, other)) result = without(result, other);
  result = withAttribute(result, 'class', [...wordsOf(result).filter((name) => !act.classes.includes(name)), ...act.classes].join(' '));
  for (const { name, value } of act.attributes) result = { ...result, [name]: value };
  return result;
}

/** The nodes around a place as elements, to ask a selector about them. */
function elementsAround(state: EditorState, depth: number): ElementNode | null {
  const { $from } = state.selection;
  let parent: ElementNode | null = null;
  for (let level = 1; level <= depth; level++) {
    const node = $from.node(level);
    const name = elementOf(node);
    if (name === '') continue;
    const element = new ElementNode(
      name,
      HTML_NAMESPACE,
      Object.entries(attributesOf(node)).map(([attribute, value]) => ({ name: attribute, value })),
    );
    if (parent !== null) {
      element.parent = parent;
      parent.children.push(element);
    }
    parent = element;
  }
  return parent;
}

/** Whether what stands around a place is what the style asks for. */
function isPlace(state: EditorState, depth: number, selector: string, act: StyleAct, within: readonly string[] | undefined): boolean {
  const around = elementsAround(state, depth);
  const subject = new ElementNode(act.element, HTML_NAMESPACE, [
    ...(act.classes.length === 0 ? [] : [{ name: 'class', value: act.classes.join(' ') }]),
    ...act.attributes,
  ]);
  subject.parent = around;
  around?.children.push(subject);
  if (act.around !== '' && !compileSelectors(selector).some(({ matches }) => matches(subject))) return false;
  if (within === undefined) return true;
  for (let at: ElementNode | null = subject; at !== null; at = at.parent?.type === 'element' ? at.parent : null)
    if (within.includes(at.name)) return true;
  return false;
}

/**
 * What a style does at a selection.
 *
 * @param others the other styles of its group
 */
export function styleHere(
  state: EditorState,
  context: ButtonContext,
  { selector, within }: StyleDefinition,
  others: readonly StyleDefinition[] = [],
): StyleHere {
  const read = readStyle(selector);
  if (!read.ok) return { whyNot: 'Its selector cannot be applied.' };
  const { act } = read;
  const group: Given = {
    act,
    others: others.flatMap((other) => {
      const one = readStyle(other.selector);
      return one.ok ? [one.act] : [];
    }),
  };
  const { rules, schema } = context;
  if (!isKept(rules, act)) return { whyNot: 'The rules do not keep it.' };
  const { $from } = state.selection;
  const elsewhere = {
    whyNot:
      `It cannot be applied here. It goes ${act.around === '' ? '' : `within ${act.around.replace(/>$/, '')}`}${within === undefined ? '' : ` within ${within.join(', ')}`}.`.replace(
        '  ',
        ' ',
      ),
  };
  switch (act.kind) {
    case 'thing': {
      const node = state.selection instanceof NodeSelection ? state.selection.node : null;
      if (node === null || elementOf(node) !== act.element) return { whyNot: `Choose a ${act.element} first.` };
      if (!isPlace(state, $from.depth, selector, act, within)) return elsewhere;
      return onNode(state.selection.from, node, group);
    }
    case 'holder': {
      for (let depth = $from.depth; depth > 0; depth--) {
        const node = $from.node(depth);
        if (elementOf(node) !== act.element || node.type.spec['isMark'] === true) continue;
        if (!isPlace(state, depth - 1, selector, act, within)) return elsewhere;
        if (act.classes.length + act.attributes.length > 0) return onNode($from.before(depth), node, group);
        return { isOn: true, command: unwrap($from.before(depth)) };
      }
      const type = schema.nodes[nodeNameOf(act.element)];
      if (act.classes.length + act.attributes.length > 0 || type === undefined)
        return { whyNot: `It cannot be applied here. It goes on ${act.element}.` };
      return wrapIn(type)(state) ? { isOn: false, command: wrapIn(type) } : { whyNot: 'It cannot be applied here.' };
    }
    case 'block':
      return isPlace(state, $from.depth - 1, selector, act, within) ? onBlocks(state, context, group) : elsewhere;
    default: {
      if (!isPlace(state, $from.depth, selector, act, within)) return elsewhere;
      const range = wordsToMark(state, act.element);
      if (schema.marks[markNameOf(act.element)] === undefined) return { whyNot: 'It cannot be applied here.' };
      if (range.from >= range.to) return { whyNot: 'Select words first.' };
      const isOn = marksIn(state, act.element, range).some((mark) => carries(mark.attrs['attributes'] as HtmlAttributes, act));
      return { isOn, command: onWords(range, isOn, group) };
    }
  }
}

const isKept = (rules: CompiledRules, { element, classes, attributes }: StyleAct): boolean =>
  rules.element(element).outcome === 'keep' &&
  classes.every((name) => isValueKept(rules, element, 'class', name)) &&
  attributes.every(({ name, value }) => isValueKept(rules, element, name, value));

/** Gives a node what the style gives, or takes it off. */
function onNode(at: number, node: Node, group: Given): StyleHere {
  const isOn = carries(attributesOf(node), group.act);
  const attributes = isOn ? without(attributesOf(node), group.act) : given(attributesOf(node), group);
  return {
    isOn,
    command: (state, dispatch) => {
      const tr = state.tr.setNodeMarkup(at, null, { attributes });
      // What is selected whole stays so.
      if (state.selection instanceof NodeSelection) tr.setSelection(NodeSelection.create(tr.doc, at));
      dispatch?.(tr.scrollIntoView());
      return true;
    },
  };
}

function unwrap(at: number): Command {
  return (state, dispatch) => {
    const node = state.doc.nodeAt(at);
    if (node === null) return false;
    dispatch?.(state.tr.replaceWith(at, at + node.nodeSize, node.content).scrollIntoView());
    return true;
  };
}

/** Makes blocks of the selected ones, or restores what they were. */
function onBlocks(state: EditorState, { schema }: ButtonContext, group: Given): StyleHere {
  const { act } = group;
  const type = schema.nodes[nodeNameOf(act.element)];
  const paragraph = schema.nodes[nodeNameOf('p')];
  const blocks = selectedTextBlocks(state);
  if (type === undefined || blocks.length === 0) return { whyNot: 'It cannot be applied here.' };
  const isOnAt = (node: Node): boolean => node.type === type && carries(attributesOf(node), act);
  const isOn = blocks.every(({ node }) => isOnAt(node));
  const fits = ({ at }: { at: number }, into: NonNullable<typeof type>): boolean => {
    const $at = state.doc.resolve(at);
    return $at.parent.canReplaceWith($at.index(), $at.index() + 1, into);
  };
  if (!isOn && !blocks.some((block) => block.node.type === type || fits(block, type))) return { whyNot: 'It cannot be applied here.' };
  return {
    isOn,
    command: (now, dispatch) => {
      if (dispatch === undefined) return true;
      const { tr } = now;
      const notes: { at: number; type: string; attributes: HtmlAttributes }[] = [];
      for (const { node, at } of blocks) {
        if (isOn) {
          const before = blockBefore(now, at);
          const attributes = without(attributesOf(node), act);
          const known = before === null ? undefined : schema.nodes[before.type];
          // What the style only gave to the block goes; a block that it made becomes again what it was.
          if (known !== undefined && known !== type && fits({ at }, known)) tr.setNodeMarkup(at, known, { attributes: before!.attributes });
          else if (
            act.classes.length + act.attributes.length === 0 &&
            paragraph !== undefined &&
            act.element !== 'p' &&
            fits({ at }, paragraph)
          )
            tr.setNodeMarkup(at, paragraph, { attributes });
          else tr.setNodeMarkup(at, null, { attributes });
        } else if (!isOnAt(node) && (node.type === type || fits({ at }, type))) {
          notes.push({ at, type: node.type.name, attributes: attributesOf(node) });
          tr.setNodeMarkup(at, type, { attributes: given(attributesOf(node), group) });
        }
      }
      dispatch((notes.length > 0 ? remember(tr, notes) : tr).scrollIntoView());
      return true;
    },
  };
}

function onWords(range: { from: number; to: number }, isOn: boolean, { act, others }: Given): Command {
  const has = (one: StyleAct) => (attributes: HtmlAttributes) => carries(attributes, one);
  if (isOn) return setElement(act.element, range, null, has(act));
  const attributes: HtmlAttributes = {
    ...(act.classes.length === 0 ? {} : { class: act.classes.join(' ') }),
    ...Object.fromEntries(act.attributes.map(({ name, value }) => [name, value])),
  };
  const replaces = (old: HtmlAttributes): boolean => others.some((other) => other.element === act.element && carries(old, other));
  return setElement(act.element, range, attributes, (old) => has(act)(old) || replaces(old));
}
