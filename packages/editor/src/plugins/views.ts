import { Plugin, PluginKey, type EditorState } from 'prosemirror-state';
import type { Node } from 'prosemirror-model';
import { Decoration, DecorationSet } from 'prosemirror-view';
import { elementOf } from '../commands/attributes';
import { idsIn } from '../document/outline';
import { tableAt } from '../commands/table';
import { markNameOf, OPAQUE_BLOCK } from '../schema/compile';

/** Outlines every block and names it, while that is switched on. */
export const structureKey = new PluginKey<{ isOn: boolean; set: DecorationSet }>('structure');

export function structureView(): Plugin {
  return new Plugin({
    key: structureKey,
    state: {
      init: () => ({ isOn: false, set: DecorationSet.empty }),
      apply(tr, before) {
        const asked = tr.getMeta(structureKey) as boolean | undefined;
        const isOn = asked ?? before.isOn;
        if (!isOn) return { isOn, set: DecorationSet.empty };
        return tr.docChanged || asked !== undefined ? { isOn, set: names(tr.doc) } : before;
      },
    },
    props: { decorations: (state) => structureKey.getState(state)?.set },
  });
}

function names(doc: Node): DecorationSet {
  const found: Decoration[] = [];
  doc.descendants((node, at) => {
    if (node.isInline) return false;
    const { class: classes } = (node.attrs['attributes'] ?? {}) as Record<string, string | undefined>;
    const element = node.type.name === OPAQUE_BLOCK ? 'markup' : elementOf(node);
    if (element !== '')
      found.push(
        Decoration.node(at, at + node.nodeSize, {
          'data-te-block': element + (classes === undefined ? '' : `.${classes.trim().split(/\s+/).join('.')}`),
        }),
      );
    return !node.isTextblock;
  });
  return DecorationSet.create(doc, found);
}

const FAULTS = new PluginKey<{ broken: DecorationSet }>('faults');
const PAUSE_MS = 250;

/** Marks links to places of this text that do not exist, a moment after the last change, and outlines the cells that are selected together. */
export function marksOfFault(): Plugin<{ broken: DecorationSet }> {
  return new Plugin({
    key: FAULTS,
    state: {
      init: (_config, { doc }) => ({ broken: brokenLinks(doc) }),
      apply(tr, before) {
        if (tr.getMeta(FAULTS) === true) return { broken: brokenLinks(tr.doc) };
        return tr.docChanged ? { broken: before.broken.map(tr.mapping, tr.doc) } : before;
      },
    },
    props: {
      decorations(state) {
        const { broken } = FAULTS.getState(state)!;
        const cells = selectedCells(state);
        return cells.length === 0 ? broken : broken.add(state.doc, cells);
      },
    },
    view(view) {
      let timer: ReturnType<typeof setTimeout> | undefined;
      return {
        update(_view, before) {
          if (view.state.doc === before.doc) return;
          clearTimeout(timer);
          timer = setTimeout(() => view.isDestroyed || view.dispatch(view.state.tr.setMeta(FAULTS, true)), PAUSE_MS);
        },
        destroy: () => clearTimeout(timer),
      };
    },
  });
}

function brokenLinks(doc: Node): DecorationSet {
  let ids: ReadonlyMap<string, number> | null = null;
  const found: Decoration[] = [];
  doc.descendants((node, at) => {
    for (const mark of node.marks) {
      if (mark.type.name !== markNameOf('a')) continue;
      const href = (mark.attrs['attributes'] as Record<string, string>)['href'] ?? '';
      if (!href.startsWith('#') || href === '#') continue;
      ids ??= idsIn(doc);
      if (!ids.has(decoded(href.slice(1))))
        found.push(
          Decoration.inline(at, at + node.nodeSize, {
            class: 'te-broken',
            title: `Nothing in this text is named “${decoded(href.slice(1))}”.`,
          }),
        );
    }
  });
  return DecorationSet.create(doc, found);
}

function decoded(fragment: string): string {
  try {
    return decodeURIComponent(fragment);
  } catch {
    return fragment;
  }
}

function selectedCells(state: EditorState): Decoration[] {
  if (state.selection.empty || state.selection.$anchor.sameParent(state.selection.$head)) return [];
  const found = tableAt(state);
  if (found === null) return [];
  const cells = found.table.cellsIn(found.rect);
  if (cells.length < 2) return [];
  return cells.map((cell) => {
    const start = found.at + found.table.places.get(cell)!;
    return Decoration.node(start, start + cell.node.nodeSize, { class: 'te-cell-selected' });
  });
}
