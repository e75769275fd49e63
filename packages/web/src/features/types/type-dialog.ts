import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { contentTypeSchema, type ContentType, type FormField } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SettingsForm } from '../../shared/form/settings-form';
import { SettingsSource, SPECIAL_EDITORS } from '../../shared/form/settings-source';
import { SiteStore } from '../../state/site';
import { IconField } from './icon-field';
import { TypeSettings } from './type-settings';

export interface TypeQuestion {
  /** The type that the new one is a copy of; null for one from nothing. */
  from: ContentType | null;
  /** The type that is changed instead of one being made. */
  changed?: ContentType;
}

/** Makes a content type, or changes what it is called, where it is published and how it is marked. */
@Component({
  selector: 'ty-type-dialog',
  imports: [MatButtonModule, MatDialogModule, RouterLink, SettingsForm],
  providers: [
    TypeSettings,
    { provide: SettingsSource, useExisting: TypeSettings },
    { provide: SPECIAL_EDITORS, useValue: { icon: IconField } },
  ],
  templateUrl: './type-dialog.html',
  styleUrl: './type-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TypeDialog {
  private readonly site = inject(SiteStore);
  private readonly settings = inject(TypeSettings);
  private readonly dialog = inject<MatDialogRef<TypeDialog, ContentType>>(MatDialogRef);
  protected readonly question = inject<TypeQuestion>(MAT_DIALOG_DATA);
  protected readonly kinds = inject(Store).selectSignal(libraryFeature.selectPageKinds);
  protected readonly schema = contentTypeSchema;
  protected readonly choices = computed((): Record<string, FormField['options']> => {
    const kinds = this.kinds().map(({ id, name }) => [id, name] as const);
    const roles = this.site.roles().map(({ id, label }) => [id, label] as const);
    return { roles, 'page-kind': kinds, 'page-kinds': kinds.filter(([id]) => id !== this.settings.type()?.pageKind) };
  });
  protected readonly failure = signal('');

  constructor() {
    const { changed, from } = this.question;
    this.settings.isKeyFixed = changed !== undefined;
    this.settings.type.set(
      changed ?? {
        ...contentTypeSchema.parse({ ...from, id: 'new', label: 'new', pageKind: from?.pageKind ?? this.kinds()[0]?.id ?? 'none' }),
        label: from === null ? '' : `${from.label}, a copy`,
        pageKind: from?.pageKind ?? this.kinds()[0]?.id ?? '',
      },
    );
  }

  protected answer(event: Event): void {
    event.preventDefault();
    const [type, id] = [this.settings.type()!, this.settings.key()];
    if (id === '') return this.failure.set('Give it a name with letters in it, such as “News story”.');
    if (this.question.changed === undefined && this.site.types().some((other) => other.id === id))
      return this.failure.set(`There is already a content type that would be called “${id}”. Choose another name.`);
    const made = contentTypeSchema.safeParse({ ...type, id, alsoOn: type.alsoOn.filter((kind) => kind !== type.pageKind) });
    if (made.success) this.dialog.close(made.data);
    else this.failure.set(made.error.issues.map(({ path, message }) => `${path.join('/')}: ${message}`).join('; '));
  }
}
