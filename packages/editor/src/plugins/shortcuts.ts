import type { ShortcutId, Toolbar } from '@typikon/core/editing';
import { ellipsis, InputRule, inputRules, smartQuotes, textblockTypeInputRule, wrappingInputRule } from 'prosemirror-inputrules';
import type { MarkType, NodeType, Schema } from 'prosemirror-model';
import { findWrapping } from 'prosemirror-transform';
import type { Plugin } from 'prosemirror-state';
import { itemsAsLines } from '../commands/lists';
import { markNameOf, nodeNameOf } from '../schema/compile';
import type { HtmlAttributes } from '../schema/dom';

type Maker = (schema: Schema) => readonly (InputRule | null)[];

/** A mark typed around words gives them an element: the signs go. */
function around(pattern: RegExp, type: MarkType | undefined): InputRule | null {
  if (type === undefined) return null;
  return new InputRule(
    pattern,
    (state, match, start, end) => {
      const [whole, before = '', words = ''] = match;
      if (state.doc.resolve(start).parent.type.spec.code === true) return null;
      const from = start + before.length;
      const sign = (whole.length - before.length - words.length) / 2;
      const { tr } = state;
      // The last sign has not been put in yet.
      tr.delete(from + sign + words.length, end);
      tr.delete(from, from + sign);
      tr.addMark(from, from + words.length, type.create());
      return tr.removeStoredMark(type);
    },
    { inCodeMark: false },
  );
}

/** Signs at the begin of a block make a list of it, with its words alone in the item. */
function list(pattern: RegExp, type: NodeType, attributes: (match: RegExpMatchArray) => HtmlAttributes): InputRule {
  return new InputRule(pattern, (state, match, start, end) => {
    const tr = state.tr.delete(start, end);
    const range = tr.doc.resolve(start).blockRange();
    const wrapping = range && findWrapping(range, type, { attributes: attributes(match) });
    return range === null || !wrapping ? null : itemsAsLines(tr.wrap(range, wrapping));
  });
}

const mark = (schema: Schema, ...elements: string[]): MarkType | undefined =>
  elements.map((element) => schema.marks[markNameOf(element)]).find((type) => type !== undefined);
const node = (schema: Schema, element: string) => schema.nodes[nodeNameOf(element)];

const MAKERS: Readonly<Record<ShortcutId, Maker>> = {
  heading: (schema) =>
    [1, 2, 3, 4, 5, 6].map((level) => {
      const type = node(schema, `h${level}`);
      return type === undefined ? null : textblockTypeInputRule(new RegExp(`^#{${level}}\\s$`), type);
    }),
  'bulleted-list': (schema) => {
    const type = node(schema, 'ul');
    return [type === undefined ? null : list(/^\s*[-*•]\s$/, type, () => ({}))];
  },
  'numbered-list': (schema) => {
    const type = node(schema, 'ol');
    return [
      type === undefined
        ? null
        : list(/^(\d{1,3})[.)]\s$/, type, (match): HtmlAttributes => (match[1] === '1' ? {} : { start: match[1]! })),
    ];
  },
  'block-quote': (schema) => {
    const type = node(schema, 'blockquote');
    return [type === undefined ? null : wrappingInputRule(/^>\s$/, type)];
  },
  rule: (schema) => {
    const type = node(schema, 'hr');
    if (type === undefined) return [null];
    return [
      new InputRule(/^(---|—-|–-)$/, (state, _match, start) => {
        const $start = state.doc.resolve(start);
        if (!$start.node(-1).canReplaceWith($start.index(-1), $start.index(-1), type)) return null;
        return state.tr.delete($start.start(), $start.end()).insert($start.before(), type.create());
      }),
    ];
  },
  preformatted: (schema) => {
    const type = node(schema, 'pre');
    return [type === undefined ? null : textblockTypeInputRule(/^```$/, type)];
  },
  bold: (schema) => [around(/(^|[\s(“"'])\*\*([^\s*](?:[^*]*[^\s*])?)\*\*$/, mark(schema, 'strong', 'b'))],
  italic: (schema) => [
    around(/(^|[\s(“"'])\*([^\s*](?:[^*]*[^\s*])?)\*$/, mark(schema, 'em', 'i')),
    around(/(^|[\s(“"'])_([^\s_](?:[^_]*[^\s_])?)_$/, mark(schema, 'em', 'i')),
  ],
  strike: (schema) => [around(/(^|[\s(“"'])~~([^\s~](?:[^~]*[^\s~])?)~~$/, mark(schema, 's', 'del'))],
  code: (schema) => [around(/(^|[\s(“"'])`([^`]+)`$/, mark(schema, 'code'))],
  dash: () => [new InputRule(/(^|[^-])--$/, (state, match, start, end) => state.tr.insertText(`${match[1] ?? ''}–`, start, end))],
  ellipsis: () => [ellipsis],
  quotes: () => smartQuotes,
};

/** The typed shortcuts that a profile switches on, as far as its rules keep what they make. */
export function typedShortcuts(shortcuts: Toolbar['shortcuts'], schema: Schema): Plugin {
  const rules = (Object.keys(MAKERS) as ShortcutId[])
    .filter((id) => shortcuts[id] === true)
    .flatMap((id) => MAKERS[id](schema))
    .filter((rule) => rule !== null);
  return inputRules({ rules });
}
