import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { PASS_WORDS, pastePassesSchema, valueAt, type PassId } from '@typikon/core';
import { Store } from '@ngrx/store';
import { ProfileSettings } from '../../shared/form/profile-settings';
import { SettingsForm } from '../../shared/form/settings-form';
import { SettingsSource, SPECIAL_EDITORS } from '../../shared/form/settings-source';
import { ProfileEdit } from '../../shared/profile/edit';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { ReplacementsField } from './replacements';
import { SourcesField } from './sources-field';

/** The settings of one pass, in place: every change is one step that can be undone. */
@Component({
  selector: 'ty-pass-settings',
  imports: [MatButtonModule, SettingsForm],
  template: `
    <ty-settings-form layout="stack" prefix="pass-" [schema]="schema()" [at]="['paste', 'passes', pass()]" [about]="label()" />
    @if (parent(); as parent) {
      <button mat-button type="button" class="ty-quiet" (click)="reset()">All as in {{ parent }}</button>
    }
  `,
  styles: `
    :host {
      display: block;
      padding-top: 6px;
    }
  `,
  providers: [
    { provide: SettingsSource, useExisting: ProfileSettings },
    { provide: SPECIAL_EDITORS, useValue: { replacements: ReplacementsField, sources: SourcesField } },
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PassSettings {
  readonly pass = input.required<PassId>();
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly schema = computed(() => pastePassesSchema.shape[this.pass()]);
  protected readonly label = computed(() => PASS_WORDS[this.pass()].label);
  /** Whose settings these are where the profile has some of its own; empty where it has none. */
  protected readonly parent = computed(() => {
    const [, parent] = this.resolved()?.chain ?? [];
    if (valueAt(this.draft(), ['paste', 'passes', this.pass()]) === undefined) return '';
    return parent === undefined ? 'the defaults' : (this.names().get(parent.id) ?? parent.id);
  });

  protected reset(): void {
    this.edit.reset(['paste', 'passes', this.pass()], `${this.label()} as in ${this.parent()}`);
  }
}
