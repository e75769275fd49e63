import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { contentTypeSchema, type ContentType, type FormField } from '@typikon/core';
import { Store } from '@ngrx/store';
import { ContractClient } from '../../state/contract-client';
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
  private readonly client = inject(ContractClient);
  private readonly versions = computed(() => this.settings.type()?.versions ?? null, { equal: isSameKeeping });
  /** What the versions that are kept mean for those that are there; empty where nothing. */
  protected readonly deleted = signal('');

  constructor() {
    effect((onCleanup) => {
      const [versions, type] = [this.versions(), this.question.changed?.id];
      this.deleted.set('');
      if (type === undefined || versions === null || (versions.last === undefined && versions.days === undefined)) return;
      const { last, days, public: isPublicKept } = versions;
      const query = { last, days, public: isPublicKept ? ('true' as const) : ('false' as const) };
      const asked = this.client.get('/types/{type}/outdated-versions', query, { type }).subscribe({
        next: ({ body }) => this.deleted.set(deletedWords(body.versions, body.documents)),
        error: ({ message }: Error) => this.deleted.set(`Nobody knows how many versions that would delete. ${message}`),
      });
      onCleanup(() => asked.unsubscribe());
    });
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

type Keeping = ContentType['versions'];

const isSameKeeping = (one: Keeping | null, other: Keeping | null): boolean =>
  one?.last === other?.last && one?.days === other?.days && one?.public === other?.public;

function deletedWords(versions: number, documents: number): string {
  if (versions === 0) return 'Nothing is deleted by that now.';
  const of = documents === 1 ? 'one document' : `${documents.toLocaleString('en')} documents`;
  const what = versions === 1 ? 'One earlier version' : `${versions.toLocaleString('en')} earlier versions`;
  return `${what} of ${of} ${versions === 1 ? 'is' : 'are'} deleted for good once the site is saved.`;
}
