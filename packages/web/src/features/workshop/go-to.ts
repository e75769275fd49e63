import type { Action } from '@ngrx/store';
import { fromPointer, PASSES, type PassId } from '@typikon/core';
import { BenchActions } from '../../state/bench';
import { WorkshopActions, type Chapter } from '../../state/workshop.actions';

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
  if (chapter === 'paste' && kind === 'passes' && name !== undefined && name in PASSES)
    store.dispatch(BenchActions.passChosen({ pass: name as PassId }));
  if (kind === undefined) return;
  // A setting is a line of its chapter, which is drawn by the next frames.
  const [, ...keys] = fromPointer(pointer);
  if (chapter === 'markup') showSetting(keys.join('-'), 60);
  else if (chapter === 'surface') showSetting(`surface-${keys.join('-')}`, 60);
  else if (chapter === 'paste' && kind === 'passes' && keys.length > 2) showSetting(`pass-${keys.slice(2).join('-')}`, 60);
}

function showSetting(id: string, tries: number): void {
  const line = document.querySelector<HTMLElement>(`[data-setting=${CSS.escape(id)}]`);
  if (line !== null) {
    line.scrollIntoView({ block: 'center' });
    line.querySelector<HTMLElement>('input, mat-select')?.focus();
  } else if (tries > 0) requestAnimationFrame(() => showSetting(id, tries - 1));
}
