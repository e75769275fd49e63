import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { fieldSchema, type ContentType, type Field } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { Equipment } from '../../shared/writing/equipment';
import { SettingsForm } from '../../shared/form/settings-form';
import { SettingsSource, SPECIAL_EDITORS } from '../../shared/form/settings-source';
import { FieldSettings } from './field-settings';
import { FolderField } from './folder-field';
import { PlacePicture } from './place-picture';

/** The settings of one field. */
@Component({
  selector: 'ty-field-form',
  imports: [PlacePicture, RouterLink, SettingsForm],
  providers: [
    FieldSettings,
    { provide: SettingsSource, useExisting: FieldSettings },
    { provide: SPECIAL_EDITORS, useValue: { folder: FolderField } },
  ],
  templateUrl: './field-form.html',
  styleUrl: './field-form.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FieldForm {
  readonly type = input.required<ContentType>();
  readonly field = input.required<Field>();
  private readonly site = inject(SiteStore);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  protected readonly schema = fieldSchema;
  private readonly settings = inject(FieldSettings);
  private readonly equipment = inject(Equipment);
  /** Who writes here with what, each answer once. */
  protected readonly writers = computed(() => {
    const [assignments, names] = [this.site.assignments(), this.names()];
    const answers = new Map<string, { profile: string; roles: string[]; statement: number | null }>();
    for (const { id, label } of this.site.roles()) {
      const { profile, statement } = assignments.why({ roles: [id], type: this.type().id, field: this.field().key });
      if (profile === null) continue;
      const key = `${profile} ${statement}`;
      const answer = answers.get(key);
      if (answer === undefined) answers.set(key, { profile: names.get(profile) ?? profile, roles: [label], statement });
      else answer.roles.push(label);
    }
    return [...answers.values()];
  });

  protected readonly places = computed(() => this.equipment.places(this.type(), this.field().key));

  constructor() {
    effect(() => this.settings.show(this.type(), this.field()));
  }
}
