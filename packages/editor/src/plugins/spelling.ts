import type { Node } from 'prosemirror-model';
import { Plugin, PluginKey, type EditorState } from 'prosemirror-state';
import { Decoration, DecorationSet, type EditorView } from 'prosemirror-view';
import { markNameOf } from '../schema/compile';
import type { Spelling } from '../services/index';

interface SpellingState {
  isOn: boolean;
  set: DecorationSet;
}

export const spellingKey = new PluginKey<SpellingState>('spelling');

const WORD = /\p{L}[\p{L}\p{M}'’]*/gu;
const PAUSE_MS = 250;

interface Place {
  word: string;
  from: number;
  to: number;
}

/** A word as a dictionary has it: with plain apostrophes, without those around it and without the one of possession. */
function bare(word: string): string {
  return word
    .replace(/’/g, "'")
    .replace(/^'+|'+$/g, '')
    .replace(/'s$/, '');
}

/** The words of a document that are to be looked up; computer text, and words with figures or of one letter, are not. */
export function wordsIn(doc: Node): Place[] {
  const places: Place[] = [];
  doc.descendants((node, at, parent) => {
    if (!node.isText || parent?.type.spec.code === true) return;
    const isQuiet = node.marks.some(
      ({ type, attrs }) =>
        ['code', 'kbd', 'samp', 'var'].some((element) => type.name === markNameOf(element)) ||
        ((attrs['attributes'] as Record<string, string> | undefined)?.['lang'] ?? 'en').slice(0, 2) !== 'en',
    );
    if (isQuiet) return;
    for (const match of node.text!.matchAll(WORD)) {
      const word = bare(match[0]);
      const beside = `${node.text![match.index - 1] ?? ''}${node.text![match.index + match[0].length] ?? ''}`;
      if (word.length < 2 || /[\d@/_]/.test(beside)) continue;
      places.push({ word, from: at + match.index, to: at + match.index + match[0].length });
    }
  });
  return places;
}

/** Marks words that no dictionary has, while that is switched on. The dictionary answers from elsewhere, so the marks come a moment later. */
export function spellingView(spelling: Spelling | undefined, isOnAtOnce: boolean): Plugin<SpellingState> {
  /** What is known of each word: whether it is wrong. */
  const known = new Map<string, boolean>();
  const marks = (doc: Node): DecorationSet =>
    DecorationSet.create(
      doc,
      wordsIn(doc)
        .filter(({ word }) => known.get(word) === true)
        .map(({ from, to }) => Decoration.inline(from, to, { class: 'te-misspelt' })),
    );
  return new Plugin<SpellingState>({
    key: spellingKey,
    state: {
      init: (_config, { doc }) => ({ isOn: isOnAtOnce && spelling !== undefined, set: DecorationSet.create(doc, []) }),
      apply(tr, before) {
        const asked = tr.getMeta(spellingKey) as { isOn?: boolean; forget?: string } | undefined;
        if (asked?.forget !== undefined) known.delete(asked.forget);
        const isOn = asked?.isOn ?? before.isOn;
        if (!isOn) return { isOn, set: DecorationSet.empty };
        if (asked !== undefined) return { isOn, set: marks(tr.doc) };
        // Marks move with the text at once; new words are looked up in a moment.
        if (!tr.docChanged) return before;
        const moved = before.set.map(tr.mapping, tr.doc);
        const stale = moved.find().filter(({ from, to }) => known.get(bare(tr.doc.textBetween(from, to))) !== true);
        return { isOn, set: moved.remove(stale) };
      },
    },
    props: { decorations: (state) => spellingKey.getState(state)?.set },
    view(view) {
      let timer: ReturnType<typeof setTimeout> | undefined;
      let isAlive = true;
      let seen: Node | null = null;
      const look = (): void => {
        if (!isAlive || spelling === undefined || spellingKey.getState(view.state)?.isOn !== true) return;
        const { doc } = view.state;
        seen = doc;
        const unknown = [...new Set(wordsIn(doc).map(({ word }) => word))].filter((word) => !known.has(word));
        const show = (): void => {
          if (isAlive && spellingKey.getState(view.state)?.isOn === true) view.dispatch(view.state.tr.setMeta(spellingKey, {}));
        };
        if (unknown.length === 0) {
          show();
          return;
        }
        spelling.wrong(unknown).then(
          (wrong) => {
            for (const word of unknown) known.set(word, wrong.includes(word));
            show();
          },
          () => {},
        );
      };
      const later = (): void => {
        clearTimeout(timer);
        timer = setTimeout(look, PAUSE_MS);
      };
      later();
      return {
        update(_view, before) {
          const wasOn = spellingKey.getState(before)?.isOn;
          if (view.state.doc !== seen || wasOn !== spellingKey.getState(view.state)?.isOn) {
            if (!view.state.doc.eq(before.doc) || wasOn !== spellingKey.getState(view.state)?.isOn) later();
          }
        },
        destroy() {
          isAlive = false;
          clearTimeout(timer);
        },
      };
    },
  });
}

/** The marked word that a position stands in. */
export function misspeltAt(state: EditorState, at: number): Place | null {
  const [mark] = spellingKey.getState(state)?.set.find(at, at) ?? [];
  if (mark === undefined) return null;
  return { word: bare(state.doc.textBetween(mark.from, mark.to)), from: mark.from, to: mark.to };
}

/** Puts another word in place of a marked one; capitals and marks stay. */
export function correct(view: EditorView, { from, to }: Place, word: string): void {
  view.dispatch(view.state.tr.insertText(word, from, to).scrollIntoView());
  view.focus();
}
