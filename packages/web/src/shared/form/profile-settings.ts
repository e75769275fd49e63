import { computed, inject, Injectable } from '@angular/core';
import { isAttributeRefused, originOf, toPointer, valueAt, type Json, type JsonObject } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { benchFeature } from '../../state/bench';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from '../profile/edit';
import { settingOrigin } from '../profile/origin';
import { SettingsSource, type SettingOrigin } from './settings-source';

/** The settings of the profile in the workshop. */
@Injectable({ providedIn: 'root' })
export class ProfileSettings extends SettingsSource {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly summary = this.store.selectSignal(workshopFeature.selectSummary);
  private readonly proof = this.store.selectSignal(benchFeature.selectProof);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly effects = computed(() => {
    const effects = new Map<string, number>();
    for (const { rule } of this.proof()?.ledger ?? []) effects.set(rule, (effects.get(rule) ?? 0) + 1);
    return effects;
  });
  /** The settings in whose place something of the house limits holds. */
  private readonly capped = computed(() => new Set(this.summary()?.capped));

  override section(at: readonly string[]): JsonObject | null {
    const resolved = this.resolved();
    return resolved === null ? null : (valueAt(resolved.profile, at) as JsonObject);
  }

  override origin(keys: readonly string[]): SettingOrigin {
    const resolved = this.resolved();
    if (resolved === null) return { setBy: '', isHere: false, canReset: false };
    const origin = settingOrigin(resolved, keys, this.names());
    const isCapped = this.capped().has(toPointer(keys)) || this.isAttributeRefused(keys);
    // A rule that only stands here has nothing to go back to; a setting has its default.
    const canReset =
      origin.isHere &&
      (!keys.includes('attributes') || resolved.chain.slice(1).some((source) => originOf([source], toPointer(keys)) !== undefined));
    return { ...origin, isCapped, canReset, ...(isCapped ? { setBy: 'House limits' } : {}) };
  }

  /** Whether the house limits refuse the attribute of an element that stays, whatever the profile says. */
  private isAttributeRefused([section, kind, element, part, attribute]: readonly string[]): boolean {
    const summary = this.summary();
    if (section !== 'markup' || kind !== 'elements' || part !== 'attributes' || attribute === undefined || summary === null) return false;
    return isAttributeRefused(summary, element!, attribute);
  }

  override set(keys: readonly string[], value: Json | undefined, label: string): void {
    this.edit.set(keys, value, label);
  }

  override reset(keys: readonly string[], label: string): void {
    this.edit.reset(keys, `Following the parent: ${label}`);
  }

  override effect(keys: readonly string[]): string {
    const count = this.effects().get(toPointer(keys)) ?? 0;
    return count === 0 ? '' : count === 1 ? 'one place here' : `${count} places here`;
  }

  override attributeCounts(element: string | null): Readonly<Record<string, number>> {
    const counts = this.proof()?.census.attributes ?? {};
    if (element !== null) return counts[element] ?? {};
    const sums: Record<string, number> = {};
    for (const some of Object.values(counts)) for (const [name, count] of Object.entries(some)) sums[name] = (sums[name] ?? 0) + count;
    return sums;
  }
}
