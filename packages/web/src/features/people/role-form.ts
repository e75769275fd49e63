import { ChangeDetectionStrategy, Component, effect, inject, Injectable, input, output, signal } from '@angular/core';
import { siteRoleSchema, valueAt, withValue, type Json, type JsonObject, type SiteRole } from '@typikon/core';
import { SettingsForm } from '../../shared/form/settings-form';
import { refusalOf, SettingsSource } from '../../shared/form/settings-source';

/** The settings of one role: whoever shows them takes what changes. */
@Injectable()
export class RoleSettings extends SettingsSource {
  readonly role = signal<SiteRole | null>(null);
  take: (role: SiteRole) => void = () => undefined;

  override section(at: readonly string[]): JsonObject | null {
    const role = this.role();
    return role === null ? null : (valueAt(role, at) as JsonObject);
  }

  override origin(): null {
    return null;
  }

  override set(keys: readonly string[], value: Json | undefined): string {
    const changed = siteRoleSchema.safeParse(withValue(this.role() as unknown as JsonObject, keys, value));
    if (!changed.success) return refusalOf(changed.error.issues);
    this.role.set(changed.data);
    this.take(changed.data);
    return '';
  }

  override reset(keys: readonly string[]): void {
    this.set(keys, undefined);
  }
}

/** What a role is called, and what it lets somebody do. */
@Component({
  selector: 'ty-role-form',
  imports: [SettingsForm],
  template: `<ty-settings-form layout="labels" [prefix]="'role-' + role().id + '-'" [isLive]="true" [schema]="schema" [at]="[]" />`,
  providers: [RoleSettings, { provide: SettingsSource, useExisting: RoleSettings }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RoleForm {
  readonly role = input.required<SiteRole>();
  readonly changed = output<SiteRole>();
  protected readonly schema = siteRoleSchema;

  constructor() {
    const settings = inject(RoleSettings);
    settings.take = (role) => this.changed.emit(role);
    effect(() => settings.role.set(this.role()));
  }
}
