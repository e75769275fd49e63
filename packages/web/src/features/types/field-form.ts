import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder, ReactiveFormsModule } from '@angular/forms';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { RouterLink } from '@angular/router';
import { FIELD_KINDS, fieldSchema, type ContentType, type Field } from '@typikon/core';
import { Store } from '@ngrx/store';
import { Api } from '../../state/api';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { Equipment } from '../../shared/writing/equipment';
import { KIND_WORDS } from './kind-words';
import { PlacePicture } from './place-picture';

/** Help beside a field that is longer than this is not read, in letters. */
export const LONG_HELP = 140;

/** The settings of one field. */
@Component({
  selector: 'ty-field-form',
  imports: [
    MatAutocompleteModule,
    MatCheckboxModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    PlacePicture,
    ReactiveFormsModule,
    RouterLink,
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
  protected readonly kinds = FIELD_KINDS.map((kind) => ({ kind, words: KIND_WORDS[kind] }));
  protected readonly longHelp = LONG_HELP;
  private readonly equipment = inject(Equipment);
  private readonly build = inject(NonNullableFormBuilder);
  protected readonly form = this.build.group({
    title: '',
    kind: this.build.control<Field['kind']>('rich'),
    short: '',
    long: '',
    link: '',
    example: '',
    needed: false,
    titleHidden: false,
    from: this.build.control<number | null>(null),
    to: this.build.control<number | null>(null),
    choices: '',
    linksWithin: '',
    picturesFrom: '',
    picturesInto: '',
  });
  /** The folders of the library; null before they are known. */
  private readonly folders = signal<readonly string[] | null>(null);
  protected readonly known = computed(() => this.folders() ?? []);
  protected readonly isEmptyFolder = computed(() => {
    const [folders, { picturesFrom }] = [this.folders(), this.field()];
    return folders !== null && picturesFrom !== '' && !folders.includes(picturesFrom);
  });
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
    inject(Api)
      .pictureFolders()
      .pipe(takeUntilDestroyed())
      .subscribe({
        next: (folders) => this.folders.set(folders),
        // Any folder can be written without them.
        error: () => this.folders.set(null),
      });
    effect(() => {
      const field = this.field();
      untracked(() => this.show(field));
    });
    this.form.valueChanges.pipe(takeUntilDestroyed()).subscribe(() => this.take());
  }

  private show(field: Field): void {
    const { title, kind, help, needed, titleHidden, letters, choices, linksWithin, picturesFrom, picturesInto } = field;
    // What is being typed is not written over by what it came to.
    const written = this.written(field);
    if (written.success && JSON.stringify(written.data) === JSON.stringify(field)) return;
    const value = {
      ...help,
      title,
      kind,
      needed,
      titleHidden,
      from: letters.from ?? null,
      to: letters.to ?? null,
      choices: choices.join('\n'),
      linksWithin,
      picturesFrom,
      picturesInto,
    };
    this.form.patchValue(value, { emitEvent: false });
    this.form.controls.title.setErrors(null);
  }

  /** The field that the form comes to: a space that was just typed at the end of the title is not in it yet. */
  private written(field: Field): ReturnType<typeof fieldSchema.safeParse> {
    const value = this.form.getRawValue();
    const number = (of: number | null): number | undefined => (of === null || !Number.isInteger(of) || of < 0 ? undefined : of);
    const [from, to] = [number(value.from), number(value.to)];
    return fieldSchema.safeParse({
      ...field,
      title: value.title,
      kind: value.kind,
      help: { short: value.short, long: value.long, link: value.link, example: value.example },
      needed: value.needed,
      titleHidden: value.titleHidden,
      letters: { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) },
      choices: lines(value.choices),
      linksWithin: value.linksWithin,
      picturesFrom: value.picturesFrom,
      picturesInto: value.picturesInto,
    });
  }

  private take(): void {
    const field = this.field();
    const next = this.written(field);
    for (const control of Object.values(this.form.controls)) control.setErrors(null);
    if (next.success) {
      this.site.changeField(`field ${this.type().id} ${field.key}`, this.type().id, field.key, () => next.data);
      return;
    }
    for (const { path, message } of next.error.issues) {
      const name = (path[0] === 'help' ? path[1] : path[0] === 'letters' ? 'to' : path[0]) as keyof typeof this.form.controls;
      this.form.controls[name]?.setErrors({ said: message });
      this.form.controls[name]?.markAsTouched();
    }
  }

  protected said(name: keyof typeof this.form.controls): string {
    const { errors } = this.form.controls[name];
    return errors === null ? '' : `This ${String(errors['said'] ?? 'is not right')}.`;
  }
}

const lines = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
