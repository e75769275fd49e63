import { inject, Injectable, signal } from '@angular/core';
import { fieldSchema, valueAt, withValue, type ContentType, type Field, type Json, type JsonObject } from '@typikon/core';
import { refusalOf, SettingsSource } from '../../shared/form/settings-source';
import { SiteStore } from '../../state/site';

/** The settings of one field of a content type, in the draft of the site. */
@Injectable()
export class FieldSettings extends SettingsSource {
  private readonly site = inject(SiteStore);
  private readonly chosen = signal<{ type: ContentType; field: Field } | null>(null);

  /** Says which field it is about. */
  show(type: ContentType, field: Field): void {
    this.chosen.set({ type, field });
  }

  override section(at: readonly string[]): JsonObject | null {
    const chosen = this.chosen();
    return chosen === null ? null : (valueAt(chosen.field, at) as JsonObject);
  }

  override origin(): null {
    return null;
  }

  override set(keys: readonly string[], value: Json | undefined): string {
    const chosen = this.chosen();
    if (chosen === null) return '';
    const { type, field } = chosen;
    // What was changed a moment ago may not have come back yet.
    const current =
      this.site
        .types()
        .find(({ id }) => id === type.id)
        ?.fields.find(({ key }) => key === field.key) ?? field;
    const changed = fieldSchema.safeParse(withValue(current, keys, value));
    if (!changed.success) return refusalOf(changed.error.issues);
    this.site.changeField(`field ${type.id} ${field.key}`, type.id, field.key, () => changed.data);
    return '';
  }

  override reset(keys: readonly string[]): void {
    this.set(keys, undefined);
  }

  override effect([key]: readonly string[]): string {
    return key === 'title' && this.chosen()?.field.titleHidden === true ? 'for screen readers alone' : '';
  }
}
