import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { makePatch, toPointer, isObject, type Json } from '@typikon/core';
import { Store } from '@ngrx/store';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';
import type { StoredProfile } from '../../state/types';

/** Somebody else saved the same profile: shows where the two versions differ and lets the person choose. Nothing is lost either way. */
@Component({
  selector: 'ty-conflict-notice',
  imports: [DatePipe],
  template: `
    <div class="ty-notice bad" role="alert">
      <p>
        <strong>Somebody else saved this profile at {{ theirs().updatedAt | date: 'HH:mm:ss' }}.</strong>
        Nothing of yours was saved, and nothing of theirs was changed. The two differ in
        {{ differences().length === 1 ? 'one place' : differences().length + ' places' }}.
      </p>
      <button type="button" class="ty-button" (click)="isOpen.set(!isOpen())" [attr.aria-expanded]="isOpen()">
        {{ isOpen() ? 'Hide' : 'Compare' }}
      </button>
      <button type="button" class="ty-button" (click)="takeTheirs()">Take theirs</button>
      <button type="button" class="ty-button" (click)="keepOwn()">Save mine over theirs</button>
    </div>
    @if (isOpen()) {
      <div class="compare">
        <table>
          <caption class="ty-unseen">
            Where the two versions differ
          </caption>
          <thead>
            <tr>
              <th scope="col">Place</th>
              <th scope="col">Yours</th>
              <th scope="col">Theirs</th>
            </tr>
          </thead>
          <tbody>
            @for (difference of differences(); track difference.pointer) {
              <tr>
                <th scope="row">
                  <code>{{ difference.pointer }}</code>
                </th>
                <td>
                  <code>{{ wordsOf(difference.mine) }}</code>
                </td>
                <td>
                  <code>{{ wordsOf(difference.theirs) }}</code>
                </td>
              </tr>
            }
          </tbody>
        </table>
      </div>
    }
  `,
  styles: `
    .compare {
      max-height: 220px;
      overflow: auto;
      border-bottom: 1px solid var(--ty-line);
      background: var(--ty-sheet);
    }
    table {
      width: 100%;
      border-collapse: collapse;
      font-size: 12.5px;
    }
    th,
    td {
      padding: 6px 20px;
      border-bottom: 1px solid var(--ty-hair);
      text-align: left;
      vertical-align: top;
      font-weight: 400;
    }
    thead th {
      color: var(--ty-soft);
      font-size: 11.5px;
    }
    td code {
      white-space: pre-wrap;
      word-break: break-word;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConflictNotice {
  readonly theirs = input.required<StoredProfile>();
  private readonly store = inject(Store);
  private readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  protected readonly isOpen = signal(false);
  protected readonly differences = computed(() => differencesOf(this.draft(), this.theirs().document));

  /** What a version says at a place: nothing, that it is taken out, or a value. */
  protected wordsOf(value: Json | undefined): string {
    return value === undefined ? 'says nothing' : value === null ? 'takes it out' : JSON.stringify(value, null, 2);
  }

  protected takeTheirs(): void {
    this.store.dispatch(WorkshopActions.theirVersionTaken());
  }

  protected keepOwn(): void {
    this.store.dispatch(WorkshopActions.ownVersionKept());
  }
}

interface Difference {
  pointer: string;
  mine: Json | undefined;
  theirs: Json | undefined;
}

/** The places where two documents differ, as deep down as they can be told apart. */
export function differencesOf(mine: Json | undefined, theirs: Json | undefined, keys: string[] = []): Difference[] {
  if (mine !== undefined && theirs !== undefined && makePatch(mine, theirs) === undefined) return [];
  if (!isObject(mine) || !isObject(theirs)) return [{ pointer: toPointer(keys), mine, theirs }];
  return [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].flatMap((key) =>
    differencesOf(mine[key], theirs[key], [...keys, key]),
  );
}
