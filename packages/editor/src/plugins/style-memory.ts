import { Plugin, PluginKey, type EditorState, type Transaction } from 'prosemirror-state';
import type { HtmlAttributes } from '../schema/dom';

/** What a block was before a style made another of it. */
export interface BlockBefore {
  type: string;
  attributes: HtmlAttributes;
}

interface Remembered extends BlockBefore {
  at: number;
}

const key = new PluginKey<readonly Remembered[]>('style-memory');

/** Remembers what blocks were before a style was applied, so that taking it off restores them. */
export function styleMemory(): Plugin {
  return new Plugin<readonly Remembered[]>({
    key,
    state: {
      init: () => [],
      apply(tr, old) {
        const added = tr.getMeta(key) as readonly Remembered[] | undefined;
        const moved = !tr.docChanged
          ? old
          : old.flatMap((one) => {
              const { pos, deleted } = tr.mapping.mapResult(one.at, 1);
              return deleted && added === undefined ? [] : [{ ...one, at: pos }];
            });
        return added === undefined ? moved : [...moved.filter(({ at }) => !added.some((one) => one.at === at)), ...added];
      },
    },
  });
}

/** Notes what blocks are, on the transaction that changes them. */
export function remember(tr: Transaction, blocks: readonly (BlockBefore & { at: number })[]): Transaction {
  return tr.setMeta(key, blocks);
}

/** What the block at a place was before its style; null where nobody knows. */
export const blockBefore = (state: EditorState, at: number): BlockBefore | null =>
  key.getState(state)?.find((one) => one.at === at) ?? null;
