import { Injectable, signal } from '@angular/core';
import { idFrom, valueAt, withValue, type ContentType, type Json, type JsonObject } from '@typikon/core';
import { SettingsSource } from '../../shared/form/settings-source';

/** What a content type is to be called, where it is published and how it is marked, until the dialog is answered. */
@Injectable()
export class TypeSettings extends SettingsSource {
  readonly type = signal<ContentType | null>(null);
  /** Whether its key stays as it is, whatever it is called. */
  isKeyFixed = false;

  /** The key that it has, or would have. */
  key(): string {
    const type = this.type();
    return type === null ? '' : this.isKeyFixed ? type.id : idFrom(type.label);
  }

  override section(at: readonly string[]): JsonObject | null {
    const type = this.type();
    return type === null ? null : (valueAt(type, at) as JsonObject);
  }

  override origin(): null {
    return null;
  }

  override set(keys: readonly string[], value: Json | undefined): void {
    this.type.update((type) => withValue(type as unknown as JsonObject, keys, value) as unknown as ContentType);
  }

  override reset(keys: readonly string[]): void {
    this.set(keys, undefined);
  }

  override effect([key]: readonly string[]): string {
    return key === 'label' && this.key() !== '' ? `Its key: ${this.key()}` : '';
  }
}
