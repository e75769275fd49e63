import { computed, inject, signal, type Signal, type WritableSignal } from '@angular/core';
import { Store } from '@ngrx/store';
import { Api, type ApiFailure } from '../../state/api';
import { LibraryActions, libraryFeature } from '../../state/library';
import type { StoredProfile } from '../../state/types';

/** A profile that a dialog is about: always as it is stored last, as far as is known here. */
export interface ProfileInQuestion {
  profile: Signal<StoredProfile>;
  /** Why what was asked was refused; empty where nothing was. */
  failure: WritableSignal<string>;
  /**
   * Says why it was refused. Where somebody else had saved the profile, that is asked for, so that who asks again does so knowing
   * what they saved.
   */
  refuse(failure: Pick<ApiFailure, 'status' | 'message'>): void;
}

/** Asked for where things are injected. */
export function profileInQuestion(given: StoredProfile): ProfileInQuestion {
  const [store, api] = [inject(Store), inject(Api)];
  const profiles = store.selectSignal(libraryFeature.selectProfiles);
  const failure = signal('');
  return {
    profile: computed(() => profiles().find(({ id }) => id === given.id) ?? given),
    failure,
    refuse: ({ status, message }) => {
      failure.set(message);
      if (status !== 412) return;
      api.profile(given.id).subscribe({
        next: (profile) => {
          store.dispatch(LibraryActions.profileStored({ profile }));
          failure.set(`${message} You see it now as they saved it.`);
        },
        error: () => undefined,
      });
    },
  };
}
