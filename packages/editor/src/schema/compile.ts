import type { CompiledRules } from '@typikon/core';
import { Schema, type AttributeSpec, type MarkSpec, type NodeSpec, type TagParseRule } from 'prosemirror-model';
import { BLOCK_LEAVES, CONTAINERS, FLOW, INLINE_LEAVES, MARKS, PARTS, TEXT_BLOCKS } from './elements';

/** The attributes of an element as they stand in the markup: every one that the rules let through. */
export type HtmlAttributes = Readonly<Record<string, string>>;

const attributesSpec: Record<string, AttributeSpec> = { attributes: { default: {} } };

function attributesOf(dom: HTMLElement): { attributes: HtmlAttributes } {
  const attributes: Record<string, string> = {};
  for (const { name, value } of dom.attributes) attributes[name] = value;
  return { attributes };
}

const parse = (tag: string): TagParseRule => ({ tag, getAttrs: attributesOf });

/** The name of the node that holds an element. Paragraphs need a name that ProseMirror's commands can be given. */
export const nodeNameOf = (element: string): string => `el_${element}`;
export const markNameOf = (element: string): string => `mark_${element}`;

/**
 * Compiles the editor's schema from the markup rules: whatever the rules keep, the editor can hold, also markup that no
 * button makes; what they remove cannot exist in it.
 */
export function compileSchema(rules: CompiledRules): Schema {
  const isKept = (element: string): boolean => {
    const rule = rules.element(element);
    return rule.outcome === 'keep' && rule.name === element;
  };
  const nodes: Record<string, NodeSpec> = {
    doc: { content: 'block+' },
    // A profile without paragraphs still needs something to type in; it is written without a tag.
    ...(isKept('p') ? { [nodeNameOf('p')]: textBlock('p') } : {}),
  };
  for (const element of TEXT_BLOCKS) if (element !== 'p' && isKept(element)) nodes[nodeNameOf(element)] = textBlock(element);
  for (const [element, content] of Object.entries(CONTAINERS)) {
    if (!isKept(element)) continue;
    const parts = content === 'flow' ? null : content.filter(isKept);
    if (parts !== null && parts.length === 0) continue;
    nodes[nodeNameOf(element)] = {
      content:
        parts === null
          ? contentOf(element, isKept)
          : parts.length === 1
            ? `${nodeNameOf(parts[0]!)}+`
            : `(${parts.map(nodeNameOf).join(' | ')})+`,
      ...(PARTS.has(element) ? {} : { group: 'block' }),
      attrs: attributesSpec,
      defining: true,
      isolating: ['td', 'th', 'figure', 'details'].includes(element),
      parseDOM: [parse(element)],
      toDOM: (node) => [element, node.attrs['attributes'] as HtmlAttributes, 0],
    };
  }
  for (const element of BLOCK_LEAVES)
    if (isKept(element))
      nodes[nodeNameOf(element)] = {
        ...(element === 'col' ? {} : { group: 'block' }),
        attrs: attributesSpec,
        parseDOM: [parse(element)],
        toDOM: (node) => [element, node.attrs['attributes'] as HtmlAttributes],
      };
  for (const element of INLINE_LEAVES)
    if (isKept(element))
      nodes[nodeNameOf(element)] = {
        inline: true,
        group: 'inline',
        attrs: attributesSpec,
        selectable: element !== 'br',
        draggable: element === 'img',
        parseDOM: [parse(element)],
        toDOM: (node) => [element, node.attrs['attributes'] as HtmlAttributes],
        ...(element === 'br' ? { linebreakReplacement: true } : {}),
      };
  nodes['line'] = { content: 'inline*', ...(isKept('p') ? {} : { group: 'block' }), toDOM: () => ['div', { 'data-line': '' }, 0] };
  nodes['text'] = { group: 'inline' };

  const marks: Record<string, MarkSpec> = {};
  for (const element of MARKS)
    if (isKept(element))
      marks[markNameOf(element)] = {
        attrs: attributesSpec,
        inclusive: element !== 'a',
        parseDOM: [parse(element)],
        toDOM: (mark) => [element, mark.attrs['attributes'] as HtmlAttributes, 0],
      };
  return new Schema({ nodes: withoutEmptyReferences(nodes), marks });
}

function textBlock(element: string): NodeSpec {
  const isPreformatted = element === 'pre';
  return {
    content: 'inline*',
    ...(PARTS.has(element) || ['figcaption', 'summary', 'legend'].includes(element) ? {} : { group: 'block' }),
    attrs: attributesSpec,
    defining: element !== 'p',
    ...(isPreformatted ? { code: true, whitespace: 'pre' as const } : {}),
    parseDOM: [{ ...parse(element), ...(isPreformatted ? { preserveWhitespace: 'full' as const } : {}) }],
    toDOM: (node) => [element, node.attrs['attributes'] as HtmlAttributes, 0],
  };
}

/** A figure may hold a caption, details a summary: parts that stand nowhere else. */
function contentOf(element: string, isKept: (element: string) => boolean): string {
  const part = element === 'figure' ? 'figcaption' : element === 'details' ? 'summary' : element === 'fieldset' ? 'legend' : null;
  return part !== null && isKept(part) ? `(line | block | ${nodeNameOf(part)})+` : FLOW;
}

/** Drops containers whose parts were dropped in turn, until every content expression names nodes that exist. */
function withoutEmptyReferences(nodes: Record<string, NodeSpec>): Record<string, NodeSpec> {
  for (;;) {
    const broken = Object.keys(nodes).find((name) => (nodes[name]!.content?.match(/el_[a-z0-9]+/g) ?? []).some((part) => !(part in nodes)));
    if (broken === undefined) return nodes;
    delete nodes[broken];
  }
}
