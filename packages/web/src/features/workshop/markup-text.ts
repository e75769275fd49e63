import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
// Patterns in the text are read, too.
import '@typikon/core/pattern-engine';
import { resolveProfile, type JsonObject } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { ProfileEdit } from '../../shared/profile/edit';
import type { JsonProblem } from '../../shared/profile/json-editor';
import { JsonText } from '../../shared/profile/json-text';
import { workshopFeature } from '../../state/workshop';

/** The markup section of the profile's own document as text. */
@Component({
  selector: 'ty-markup-text',
  imports: [JsonText],
  template: `
    <ty-json-text
      heading="Markup rules as text"
      label="Markup rules as JSON"
      [document]="markup()"
      [check]="problemsIn"
      (taken)="apply($event)"
      (closed)="closed.emit()"
    >
      What this profile itself says; what it inherits is not repeated. A key set to null takes out what is inherited.
    </ty-json-text>
  `,
  styles: `
    :host {
      display: flex;
      flex: 1;
      min-height: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MarkupText {
  readonly closed = output();
  private readonly edit = inject(ProfileEdit);
  private readonly store = inject(Store);
  private readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  private readonly profileId = this.store.selectSignal(workshopFeature.selectProfileId);
  private readonly documents = this.store.selectSignal(workshopFeature.selectDocuments);
  protected readonly markup = computed(() => (this.draft()['markup'] ?? {}) as JsonObject);

  protected readonly problemsIn = (markup: JsonObject): JsonProblem[] => {
    const id = this.profileId();
    if (id === null) return [];
    const documents = { ...this.documents(), [id]: { ...this.draft(), markup } };
    const resolution = resolveProfile(id, (other) => documents[other]);
    return resolution.ok ? [] : resolution.problems.map(({ pointer, message }) => ({ pointer: pointer.replace(/^\/markup/, ''), message }));
  };

  protected apply(markup: JsonObject): void {
    const { markup: _old, ...rest } = this.draft();
    this.edit.replace(Object.keys(markup).length === 0 ? rest : { ...rest, markup }, 'Editing the markup rules as text');
  }
}
