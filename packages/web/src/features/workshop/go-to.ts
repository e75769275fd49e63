import type { Action } from '@ngrx/store';
import { fromPointer, PASS_WORDS, type PassId } from '@typikon/core/settings';
import { BenchActions } from '../../state/bench';
import { WorkshopActions, type Chapter } from '../../state/workshop.actions';

/** A chapter may have to be fetched first. */
const MOST_FRAMES = 600;

const CHAPTERS: ReadonlySet<string> = new Set<Chapter>(['toolbar', 'markup', 'paste', 'styles', 'surface', 'help', 'findings']);

/**
 * Opens the place in the workshop where something is set.
 *
 * @param pointer into the profile's document (RFC 6901), such as `/markup/elements/img`; what it does not know opens the chapter
 */
export function goTo(store: { dispatch(action: Action): void }, pointer: string): void {
  const [chapter = '', kind, name] = fromPointer(pointer);
  if (chapter === 'markup' && kind === 'elements' && name !== undefined)
    return store.dispatch(WorkshopActions.elementChosen({ element: name }));
  if (!CHAPTERS.has(chapter)) return store.dispatch(WorkshopActions.chapterChosen({ chapter: 'markup' }));
  store.dispatch(WorkshopActions.chapterChosen({ chapter: chapter as Chapter }));
  if (chapter === 'paste' && kind === 'passes' && name !== undefined && name in PASS_WORDS)
    store.dispatch(BenchActions.passChosen({ pass: name as PassId }));
  if (kind === undefined) return;
  // A setting is a line of its chapter, which is drawn by the next frames.
  const [, ...keys] = fromPointer(pointer);
  const setting =
    chapter === 'markup'
      ? keys.join('-')
      : chapter === 'surface'
        ? `surface-${keys.join('-')}`
        : chapter === 'paste' && kind === 'passes' && keys.length > 2
          ? `pass-${keys.slice(2).join('-')}`
          : null;
  if (setting === null) return;
  store.dispatch(WorkshopActions.settingSought({ setting }));
  showSetting(setting, MOST_FRAMES);
}

function showSetting(id: string, tries: number): void {
  const line = document.querySelector<HTMLElement>(`[data-setting=${CSS.escape(id)}]`);
  if (line !== null) {
    line.scrollIntoView({ block: 'center' });
    line.querySelector<HTMLElement>('input, mat-select')?.focus();
  } else if (tries > 0) requestAnimationFrame(() => showSetting(id, tries - 1));
}
