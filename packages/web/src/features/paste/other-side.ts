import { Injectable, computed, inject, signal } from '@angular/core';
import { resolveProfile, type ResolvedProfile } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';

/** What a draft is set beside: the profile as it was saved last, or another profile. */
@Injectable()
export class OtherSide {
  private readonly store = inject(Store);
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly state = this.store.selectSignal(workshopFeature.selectWorkshopState);
  private readonly changes = this.store.selectSignal(workshopFeature.selectChanges);
  /** The id of a profile; the draft's own for what was saved last. */
  readonly chosen = signal<string | null>(null);

  /** What can be chosen: what was saved last where that differs, and every other profile. */
  readonly options = computed(() => {
    const { profileId } = this.state();
    return [
      ...(this.changes() > 0 && profileId !== null ? [{ id: profileId, name: 'as it was saved last' }] : []),
      ...this.profiles()
        .filter(({ id }) => id !== profileId)
        .map(({ id }) => ({ id, name: this.names().get(id) ?? id })),
    ];
  });
  readonly id = computed(() => this.chosen() ?? this.options()[0]?.id ?? '');
  readonly name = computed(() => this.options().find(({ id }) => id === this.id())?.name ?? '');

  readonly resolved = computed((): ResolvedProfile | null => {
    const { profileId, saved } = this.state();
    const documents = new Map(this.profiles().map(({ id, document }) => [id, id === profileId ? saved : document]));
    const resolution = resolveProfile(this.id(), (id) => documents.get(id));
    return resolution.ok ? resolution.resolved : null;
  });
}
