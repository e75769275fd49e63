import { inject, Injectable } from '@angular/core';
import { valueAt, type Json, type JsonObject } from '@typikon/core/settings';
import { SettingsSource, type SettingOrigin } from '../../shared/form/settings-source';
import { HouseStore } from './house-store';

/** The settings of the house limits: nothing stands above them, so what they do not say is the default. */
@Injectable()
export class HouseSettings extends SettingsSource {
  private readonly store = inject(HouseStore);
  override readonly wayBack = { word: 'Default', sentence: 'Back to the default' };

  override section(at: readonly string[]): JsonObject | null {
    const house = this.store.house();
    return house === null ? null : (valueAt(house, at) as JsonObject);
  }

  override origin(keys: readonly string[]): SettingOrigin {
    const isHere = valueAt(this.store.draft(), keys) !== undefined;
    return { setBy: isHere ? 'here' : 'default', isHere, canReset: isHere && !keys.includes('attributes') };
  }

  override set(keys: readonly string[], value: Json | undefined, label: string): void {
    this.store.set(keys, value, label);
  }

  override reset(keys: readonly string[], label: string): void {
    this.store.set(keys, undefined, `The default again: ${label}`);
  }
}
