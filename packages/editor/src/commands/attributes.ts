import type { CompiledRules } from '@typikon/core/editing';
import type { Node } from 'prosemirror-model';
import type { Command, EditorState, Transaction } from 'prosemirror-state';
import type { HtmlAttributes } from '../schema/dom';
import { nodeNameOf } from '../schema/compile';
import { selectedTextBlocks } from '../selection';

export const attributesOf = (node: Node): HtmlAttributes => (node.attrs['attributes'] as HtmlAttributes | undefined) ?? {};
export const elementOf = (node: Node): string => (node.type.spec['element'] as string | undefined) ?? '';
export const classesOf = (node: Node): string[] => (attributesOf(node)['class'] ?? '').split(/\s+/).filter((name) => name !== '');

/** Whether the rules let an element have an attribute at all. */
export function isAttributeKept(rules: CompiledRules, element: string, attribute: string): boolean {
  return rules.element(element).outcome === 'keep' && rules.element(element).attributes.has(attribute);
}

/** Attributes with one of them set; an empty or null value takes it away. */
export function withAttribute(attributes: HtmlAttributes, name: string, value: string | null): HtmlAttributes {
  const { [name]: _old, ...rest } = attributes;
  return value === null || value === '' ? rest : { ...rest, [name]: value };
}

/** Attributes with a class put in place of others that exclude it; null takes them all away. */
export function withClass(attributes: HtmlAttributes, value: string | null, instead: readonly string[]): HtmlAttributes {
  const rest = (attributes['class'] ?? '').split(/\s+/).filter((name) => name !== '' && name !== value && !instead.includes(name));
  return withAttribute(attributes, 'class', [...rest, ...(value === null ? [] : [value])].join(' '));
}

/** Gives a node of the document other attributes. */
export function setAttributes(tr: Transaction, at: number, attributes: HtmlAttributes): Transaction {
  return tr.setNodeMarkup(at, null, { attributes });
}

/**
 * A command that changes the attributes of each text block that is selected. A line has none and becomes a paragraph first.
 * It is possible where at least one block may have what is asked.
 */
export function changeTextBlocks(may: (element: string) => boolean, change: (node: Node) => HtmlAttributes): Command {
  return (state, dispatch) => {
    const paragraph = state.schema.nodes[nodeNameOf('p')];
    const blocks = selectedTextBlocks(state).filter(({ node, at }) =>
      node.type.name === 'line' ? may('p') && paragraph !== undefined && canBe(state, at, nodeNameOf('p')) : may(elementOf(node)),
    );
    if (blocks.length === 0) return false;
    if (dispatch !== undefined) {
      const { tr } = state;
      for (const { node, at } of blocks) tr.setNodeMarkup(at, node.type.name === 'line' ? paragraph : null, { attributes: change(node) });
      dispatch(tr.scrollIntoView());
    }
    return true;
  };
}

function canBe(state: EditorState, at: number, type: string): boolean {
  const $at = state.doc.resolve(at);
  return $at.parent.canReplaceWith($at.index(), $at.index() + 1, state.schema.nodes[type]!);
}
