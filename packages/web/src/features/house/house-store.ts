import { computed, effect, inject, untracked } from '@angular/core';
import {
  isSameJson,
  makePatch,
  mergePatch,
  readHouseLimits,
  withValue,
  type HouseLimits,
  type Json,
  type JsonObject,
  type Problem,
} from '@typikon/core/settings';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, type ApiFailure } from '../../state/api';
import { libraryFeature, LibraryActions } from '../../state/library';

interface Step {
  document: JsonObject;
  label: string;
}

interface HouseState {
  /** The house limits as they are worked on. */
  draft: JsonObject;
  /** The draft as it is saved. */
  saved: JsonObject;
  past: readonly Step[];
  future: readonly Step[];
  isSaving: boolean;
  failure: string;
  notice: string;
}

const initialState: HouseState = { draft: {}, saved: {}, past: [], future: [], isSaving: false, failure: '', notice: '' };

/** The house limits while they are changed: a draft with undo; what is saved holds once it is released. */
export const HouseStore = signalStore(
  withState(initialState),
  withComputed(({ draft, saved }) => {
    const read = computed(() => readHouseLimits(draft()));
    return {
      problems: computed((): readonly Problem[] => {
        const result = read();
        return result.ok ? [] : result.problems;
      }),
      /** With every default filled in; null while there are mistakes. */
      house: computed((): HouseLimits | null => {
        const result = read();
        return result.ok ? result.house : null;
      }),
      isChanged: computed(() => !isSameJson(draft(), saved())),
    };
  }),
  withMethods((store, api = inject(Api), global = inject(Store)) => {
    const revision = global.selectSignal(libraryFeature.selectHouseRevision);
    const replace = (document: JsonObject, label: string): void => {
      if (isSameJson(document, store.draft())) return;
      patchState(store, {
        draft: document,
        past: [...store.past(), { document: store.draft(), label }],
        future: [],
        failure: '',
        notice: '',
      });
    };
    /** Puts the changes that were made here on what somebody else saved meanwhile: nobody's work is lost. */
    const standOnTheirs = async (): Promise<string> => {
      try {
        const stored = await firstValueFrom(api.houseLimits());
        const theirs = stored.house as unknown as JsonObject;
        const own = makePatch(store.saved(), store.draft());
        const draft = own === undefined ? theirs : (mergePatch(theirs, own) as JsonObject);
        patchState(store, {
          saved: theirs,
          draft,
          past: [...store.past(), { document: store.draft(), label: 'What somebody else saved' }],
          future: [],
        });
        global.dispatch(LibraryActions.houseChanged(stored));
        return 'Somebody else saved the house limits meanwhile. Your changes stand on theirs now: look at what would change, and save again.';
      } catch (failure) {
        return `Somebody else saved the house limits meanwhile, and what they saved cannot be read. ${(failure as ApiFailure).message}`;
      }
    };
    return {
      replace,
      set(keys: readonly string[], value: Json | undefined, label: string): void {
        replace(withValue(store.draft(), keys, value), label);
      },
      /** Takes or gives back the exception of a role from one rule of the house limits. */
      except(role: string, pointer: string, isExcepted: boolean, label: string): void {
        const before = store.house()?.trustedRoles[role]?.except ?? [];
        const except = isExcepted ? [...before, pointer] : before.filter((other) => other !== pointer);
        replace(withValue(store.draft(), ['trustedRoles', role], except.length === 0 ? undefined : { except }), label);
      },
      undo(): void {
        const step = store.past().at(-1);
        if (step === undefined) return;
        patchState(store, {
          draft: step.document,
          past: store.past().slice(0, -1),
          future: [{ document: store.draft(), label: step.label }, ...store.future()],
        });
      },
      redo(): void {
        const [step, ...future] = store.future();
        if (step === undefined) return;
        patchState(store, { draft: step.document, past: [...store.past(), { document: store.draft(), label: step.label }], future });
      },
      putBack(): void {
        replace(store.saved(), 'Putting back what is saved');
      },
      /** Another state came from the server. What was changed here stays; what was not follows. */
      arrived(document: JsonObject): void {
        const wasChanged = store.isChanged();
        patchState(store, { saved: document, ...(wasChanged ? {} : { draft: document, past: [], future: [] }) });
      },
      /** @returns whether all that was changed is saved now */
      async save(): Promise<boolean> {
        if (store.isSaving() || store.problems().length > 0) return false;
        if (!store.isChanged()) return true;
        const sent = store.draft();
        patchState(store, { isSaving: true, failure: '', notice: '' });
        try {
          const stored = await firstValueFrom(api.saveHouseLimits(sent, revision()));
          const saved = stored.house as unknown as JsonObject;
          // What was changed while it was on its way is still to be saved.
          const isWhole = isSameJson(store.draft(), sent);
          patchState(store, {
            isSaving: false,
            saved,
            notice: 'Saved. The house limits hold as they stand here once they are released.',
            ...(isWhole ? { draft: saved, past: [], future: [] } : {}),
          });
          global.dispatch(LibraryActions.houseChanged(stored));
          return isWhole;
        } catch (failure) {
          const { status, message } = failure as ApiFailure;
          patchState(store, { isSaving: false, failure: status === 412 ? await standOnTheirs() : message });
          return false;
        }
      },
    };
  }),
  withHooks({
    onInit(store) {
      const document = inject(Store).selectSignal(libraryFeature.selectHouseDocument);
      effect(() => {
        const arrived = document();
        if (arrived !== null) untracked(() => store.arrived(arrived));
      });
    },
  }),
);
