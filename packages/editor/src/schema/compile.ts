import { clean, type CompiledRules } from '@typikon/core/editing';
import { Schema, type AttributeSpec, type DOMOutputSpec, type MarkSpec, type NodeSpec, type TagParseRule } from 'prosemirror-model';
import { shownAttributes, type HtmlAttributes } from './dom';
import { BLOCK_LEAVES, CONTAINERS, FLOW, INLINE_LEAVES, MARKS, PARTS, PART_OF, TEXT_BLOCKS } from './elements';

const attributesSpec: Record<string, AttributeSpec> = { attributes: { default: {} } };

/** The name of the node that holds an element. Paragraphs need a name that ProseMirror's commands can be given. */
export const nodeNameOf = (element: string): string => `el_${element}`;
/** The name of the node that holds an element which stands around blocks although it usually marks words. */
export const wrapperNameOf = (element: string): string => `wrap_${element}`;
export const markNameOf = (element: string): string => `mark_${element}`;

/** Stands for markup that the rules allow and the schema cannot take apart: shown, selected, moved and deleted as one. */
export const OPAQUE_BLOCK = 'opaque';
export const OPAQUE_INLINE = 'opaque_inline';
const OPAQUE_TAG = 'typikon-opaque';
/** Where the copied DOM of an opaque node carries its markup. */
const OPAQUE_SOURCE = 'data-markup';

/** The attributes of an empty block that is no markup: it is there so that something can be typed. Told by identity. */
export const PLACE_TO_TYPE: HtmlAttributes = Object.freeze({});

/** What the rules do to the attributes of an element that comes from the page and not from clean markup. */
function attributesReader(rules: CompiledRules): (dom: HTMLElement) => { attributes: HtmlAttributes } {
  return (dom) => {
    const { attributes: allowed } = rules.element(dom.localName);
    const attributes: Record<string, string> = {};
    for (const { name, value } of dom.attributes) {
      let kept: string | null = value;
      const compiled = allowed.get(name);
      if (compiled === undefined) continue;
      for (const { judge } of compiled.tests) {
        if (kept === null) break;
        const verdict = judge(kept);
        kept = 'keep' in verdict ? verdict.keep : null;
      }
      if (kept !== null) attributes[name] = kept;
    }
    return { attributes };
  };
}

/**
 * Compiles the editor's schema from the markup rules: whatever the rules keep, the editor can hold, also markup that no
 * button makes; what they remove cannot exist in it.
 */
export function compileSchema(rules: CompiledRules): Schema {
  const isKept = (element: string): boolean => {
    const rule = rules.element(element);
    return rule.outcome === 'keep' && rule.name === element;
  };
  const read = attributesReader(rules);
  const parse = (tag: string): TagParseRule => ({ tag, getAttrs: read });
  const element = (name: string): Pick<NodeSpec, 'attrs' | 'parseDOM'> & { element: string } => ({
    element: name,
    attrs: attributesSpec,
    parseDOM: [parse(name)],
  });
  const nodes: Record<string, NodeSpec> = { doc: { content: '(block | line)+' } };
  for (const name of TEXT_BLOCKS) {
    if (!isKept(name)) continue;
    const isPreformatted = name === 'pre';
    nodes[nodeNameOf(name)] = {
      ...element(name),
      content: 'inline*',
      group: 'block',
      defining: name !== 'p',
      ...(isPreformatted
        ? { code: true, whitespace: 'pre' as const, parseDOM: [{ ...parse(name), preserveWhitespace: 'full' as const }] }
        : {}),
      toDOM: (node) => [name, shownAttributes(node.attrs['attributes'] as HtmlAttributes), 0],
    };
  }
  for (const [name, content] of Object.entries(CONTAINERS)) {
    if (!isKept(name)) continue;
    const parts = content === 'flow' ? null : content.filter(isKept);
    if (parts !== null && parts.length === 0) continue;
    const part = PART_OF[name];
    nodes[nodeNameOf(name)] = {
      ...element(name),
      content:
        parts !== null
          ? // A row may be without cells where those above it reach down into it.
            `(${parts.map(nodeNameOf).join(' | ')})${name === 'tr' ? '*' : '+'}`
          : part !== undefined && isKept(part)
            ? `(line | block | ${nodeNameOf(part)})+`
            : FLOW,
      ...(PARTS.has(name) ? {} : { group: 'block' }),
      defining: true,
      isolating: ['td', 'th', 'figure', 'figcaption', 'details', 'caption', 'summary'].includes(name),
      draggable: name === 'figure',
      toDOM: (node) => [name, shownAttributes(node.attrs['attributes'] as HtmlAttributes), 0],
    };
  }
  for (const name of MARKS)
    if (isKept(name))
      nodes[wrapperNameOf(name)] = {
        element: name,
        attrs: attributesSpec,
        content: FLOW,
        group: 'block',
        defining: true,
        // Only where it stands around blocks (HTML, section 3.2.5.3 "Transparent content models", and old pages); elsewhere it marks words.
        parseDOM: [{ tag: name, priority: 60, getAttrs: (dom) => (holdsBlocks(dom) ? read(dom) : false) }],
        toDOM: (node) => [name, shownAttributes(node.attrs['attributes'] as HtmlAttributes), 0],
      };
  for (const name of BLOCK_LEAVES)
    if (isKept(name))
      nodes[nodeNameOf(name)] = {
        ...element(name),
        ...(name === 'col' ? {} : { group: 'block' }),
        toDOM: (node) => [name, shownAttributes(node.attrs['attributes'] as HtmlAttributes)],
      };
  for (const name of INLINE_LEAVES)
    if (isKept(name))
      nodes[nodeNameOf(name)] = {
        ...element(name),
        inline: true,
        group: 'inline',
        selectable: name !== 'br' && name !== 'wbr',
        draggable: name === 'img',
        toDOM: (node) => [name, shownAttributes(node.attrs['attributes'] as HtmlAttributes)],
        ...(name === 'br' ? { linebreakReplacement: true } : {}),
      };
  for (const [name, isInline] of [
    [OPAQUE_BLOCK, false],
    [OPAQUE_INLINE, true],
  ] as const)
    nodes[name] = {
      atom: true,
      selectable: true,
      draggable: true,
      inline: isInline,
      group: isInline ? 'inline' : 'block',
      attrs: { markup: { default: '' } },
      parseDOM: [
        {
          tag: `${OPAQUE_TAG}[data-inline="${isInline}"]`,
          // It may come from anywhere, so it is cleaned as anything that is pasted.
          getAttrs: (dom) => ({ markup: clean(dom.getAttribute(OPAQUE_SOURCE) ?? '', rules).html }),
        },
      ],
      toDOM: (node): DOMOutputSpec => [OPAQUE_TAG, { [OPAQUE_SOURCE]: node.attrs['markup'] as string, 'data-inline': String(isInline) }],
    };
  nodes['line'] = {
    content: 'inline*',
    parseDOM: [{ tag: 'div[data-line]', priority: 60 }],
    toDOM: () => ['div', { 'data-line': '' }, 0],
  };
  nodes['text'] = { group: 'inline' };

  const marks: Record<string, MarkSpec> = {};
  for (const name of MARKS)
    if (isKept(name))
      marks[markNameOf(name)] = {
        element: name,
        attrs: attributesSpec,
        inclusive: !['a', 'abbr', 'dfn', 'time', 'code'].includes(name),
        // Elements of one name may stand in each other, but for links.
        ...(name === 'a' ? {} : { excludes: '' }),
        parseDOM: [parse(name)],
        toDOM: (mark) => [name, shownAttributes(mark.attrs['attributes'] as HtmlAttributes), 0],
      };
  return new Schema({ nodes: withoutEmptyReferences(nodes), marks });
}

function holdsBlocks(dom: HTMLElement): boolean {
  return dom.querySelector('p,div,ul,ol,dl,table,h1,h2,h3,h4,h5,h6,blockquote,figure,pre,hr,section,article,details') !== null;
}

/** Drops containers whose parts were dropped in turn, until every content expression names nodes that exist. */
function withoutEmptyReferences(nodes: Record<string, NodeSpec>): Record<string, NodeSpec> {
  for (;;) {
    const broken = Object.keys(nodes).find((name) => (nodes[name]!.content?.match(/el_[a-z0-9]+/g) ?? []).some((part) => !(part in nodes)));
    if (broken === undefined) return nodes;
    delete nodes[broken];
  }
}
