import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { type AbstractControl, NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { RouterLink } from '@angular/router';
import { contentTypeSchema, idFrom, TYPE_COLOURS, type ContentType } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { IconSet } from '../../ui/icon-set';
import { TypeIcon } from '../../ui/type-icon';

export interface TypeQuestion {
  /** The type that the new one is a copy of; null for one from nothing. */
  from: ContentType | null;
  /** The type that is changed instead of one being made. */
  changed?: ContentType;
}

/** So many icons are offered at once. */
const MOST_ICONS = 60;

/** Makes a content type, or changes what it is called, where it is published and how it is marked. */
@Component({
  selector: 'ty-type-dialog',
  imports: [
    MatAutocompleteModule,
    MatButtonModule,
    MatDialogModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    ReactiveFormsModule,
    RouterLink,
    TypeIcon,
  ],
  templateUrl: './type-dialog.html',
  styleUrl: './type-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TypeDialog {
  private readonly site = inject(SiteStore);
  private readonly dialog = inject<MatDialogRef<TypeDialog, ContentType>>(MatDialogRef);
  protected readonly question = inject<TypeQuestion>(MAT_DIALOG_DATA);
  protected readonly kinds = inject(Store).selectSignal(libraryFeature.selectPageKinds);
  protected readonly colours = TYPE_COLOURS;
  private readonly icons = signal<readonly string[]>([]);
  private readonly begun = this.question.changed ?? this.question.from;
  protected readonly form = inject(NonNullableFormBuilder).group({
    label: [
      this.question.changed?.label ?? (this.question.from === null ? '' : `${this.question.from.label}, a copy`),
      [(control: AbstractControl) => Validators.required(control), Validators.maxLength(120)],
    ],
    description: [this.begun?.description ?? '', Validators.maxLength(1000)],
    pageKind: [this.begun?.pageKind ?? this.kinds()[0]?.id ?? '', (control: AbstractControl) => Validators.required(control)],
    alsoOn: [this.begun?.alsoOn ?? []],
    icon: [this.begun?.icon ?? 'file'],
    colour: [this.begun?.colour ?? TYPE_COLOURS[0]],
  });
  protected readonly value = toSignal(this.form.valueChanges, { initialValue: this.form.value });
  protected readonly id = computed(() => this.question.changed?.id ?? idFrom(this.value().label ?? ''));
  protected readonly failure = signal('');
  protected readonly offered = computed(() => {
    const words = (this.value().icon ?? '')
      .toLowerCase()
      .split(/[\s-]+/)
      .filter((word) => word !== '');
    const fitting = this.icons().filter((name) => words.every((word) => name.includes(word)));
    return (fitting.length === 1 && fitting[0] === this.value().icon ? this.icons() : fitting).slice(0, MOST_ICONS);
  });

  constructor() {
    void inject(IconSet)
      .all()
      .then((set) => this.icons.set([...set.keys()]));
  }

  protected answer(): void {
    this.form.markAllAsTouched();
    if (!this.form.valid) return;
    const id = this.id();
    const { changed, from } = this.question;
    if (id === '') return this.failure.set('Give it a name with letters in it, such as “News story”.');
    if (changed === undefined && this.site.types().some((type) => type.id === id))
      return this.failure.set(`There is already a content type that would be called “${id}”. Choose another name.`);
    const made = contentTypeSchema.safeParse({ ...this.form.getRawValue(), id, fields: (changed ?? from)?.fields ?? [] });
    if (made.success) this.dialog.close(made.data);
    else this.failure.set(made.error.issues.map(({ path, message }) => `${path.join('/')}: ${message}`).join('; '));
  }
}
