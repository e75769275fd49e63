import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { catchError, concat, debounceTime, distinctUntilChanged, map, of, switchMap, type Observable } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { aheadOf } from '../../state/editions';
import { libraryFeature } from '../../state/library';
import { lookAtTexts, touchedOf, type ReachSoFar } from '../../state/reach';
import { workshopFeature } from '../../state/workshop';

/** So long a draft has to stand before stored texts are asked about, in milliseconds. */
const PATIENCE_MS = 300;

type Told = { is: 'same' } | { is: 'asked' } | { is: 'told'; reach: ReachSoFar } | { is: 'failed' };

/** What the draft would do to the stored texts, told while it is edited: how many it touches, and how many lose words. */
@Component({
  selector: 'ty-draft-reach',
  imports: [RouterLink],
  template: `
    <span role="status">
      @if (words(); as words) {
        <a [routerLink]="['/profiles', id(), 'release']"
          >{{ words.touched }}<b>{{ words.losing }}</b></a
        >
      }
    </span>
  `,
  styles: `
    :host {
      align-self: center;
      margin-left: auto;
      padding-right: 10px;
      font-size: 12px;
      line-height: 18px;
    }
    a {
      color: var(--ty-soft);
    }
    b {
      color: var(--ty-rubric);
      font-weight: 500;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DraftReach {
  private readonly client = inject(ContractClient);
  private readonly store = inject(Store);
  private readonly editions = this.store.selectSignal(libraryFeature.selectEditions);
  private readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  private readonly resolution = this.store.selectSignal(workshopFeature.selectResolution);
  protected readonly id = this.store.selectSignal(workshopFeature.selectProfileId);
  /** The draft as far as it could touch anything; null where authors write with it already, or where it has mistakes. */
  private readonly asked = computed(() => {
    const [id, document] = [this.id(), this.draft()];
    if (id === null || this.resolution()?.ok !== true || aheadOf({ id, document }, this.editions()) === null) return null;
    return { id, document };
  });
  private readonly told = toSignal(
    toObservable(this.asked).pipe(
      debounceTime(PATIENCE_MS),
      // What is around the draft may be read anew and say the same.
      distinctUntilChanged((one, other) => one?.id === other?.id && one?.document === other?.document),
      switchMap((asked): Observable<Told> => {
        if (asked === null) return of({ is: 'same' });
        const told = lookAtTexts(this.client, { of: { kind: 'profile', id: asked.id }, document: asked.document }).pipe(
          map((reach): Told => ({ is: 'told', reach })),
          catchError(() => of<Told>({ is: 'failed' })),
        );
        return concat(of<Told>({ is: 'asked' }), told);
      }),
    ),
    { initialValue: { is: 'same' } },
  );
  protected readonly words = computed(() => {
    const told = this.told();
    switch (told.is) {
      case 'same':
        return null;
      case 'asked':
        return { touched: 'Looking at what is stored …', losing: '' };
      case 'failed':
        return { touched: 'What is stored could not be looked at', losing: '' };
      case 'told':
        return reachWords(told.reach);
    }
  });
}

/** How many texts are touched and how many lose words, in words. */
export function reachWords(reach: ReachSoFar): { touched: string; losing: string } {
  const { texts, looked, touched, isDone } = reach;
  const { least, most } = touchedOf(reach);
  const losing = touched.filter(({ reach: { wordsLost } }) => wordsLost > 0).length;
  const number = (count: number): string => count.toLocaleString('en');
  const all = texts === 1 ? 'the one text' : `${number(texts)} texts`;
  const count = least === most ? number(most) : least === 0 ? `at most ${number(most)}` : `${number(least)} to ${number(most)}`;
  const words = texts === 0 ? 'No text is stored with it' : most === 0 ? `Touches none of ${all}` : `Touches ${count} of ${all}`;
  return {
    touched: isDone ? words : `${words}; ${number(looked)} looked at`,
    losing: losing === 0 ? '' : `, ${losing === 1 ? 'one loses words' : `${number(losing)} lose words`}${isDone ? '' : ' so far'}`,
  };
}
