import { Injectable, inject } from '@angular/core';
import { mergePatch, resetInProfile, setInProfile, type Json, type JsonObject } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';

/** The edits that the chapters make: each is one step that can be undone. */
@Injectable({ providedIn: 'root' })
export class ProfileEdit {
  private readonly store = inject(Store);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly draft = this.store.selectSignal(workshopFeature.selectDraft);

  /** Gives the resolved profile a value at a path; undefined takes away what is there. `label` says what was done. */
  set(keys: readonly string[], value: Json | undefined, label: string): void {
    const resolved = this.resolved();
    if (resolved !== null) this.edited(setInProfile(resolved.chain, keys, value), label);
  }

  /** Lets the inherited value hold again. */
  reset(keys: readonly string[], label: string): void {
    const resolved = this.resolved();
    if (resolved !== null) this.edited(resetInProfile(resolved.chain, keys), label);
  }

  /** Applies the fix of a finding, a merge patch for the profile's own document. */
  patch(patch: JsonObject, label: string): void {
    this.edited(mergePatch(this.draft(), patch) as JsonObject, label);
  }

  /** Puts another document in place of the draft. */
  replace(document: JsonObject, label: string): void {
    this.edited(document, label);
  }

  private edited(document: JsonObject, label: string): void {
    this.store.dispatch(WorkshopActions.draftEdited({ document, label }));
  }
}
