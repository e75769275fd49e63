import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { FormControl, FormRecord, ReactiveFormsModule, type ValidationErrors } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { ErrorStateMatcher } from '@angular/material/core';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { MatTooltipModule } from '@angular/material/tooltip';
import {
  formOf,
  isFieldShown,
  isSameJson,
  readTyped,
  shownValue,
  valueAt,
  type FormField,
  type FormGroup,
  type FormSchema,
  type Json,
  type JsonObject,
} from '@typikon/core/settings';
import { PairsField } from './pairs-field';
import { RowsField } from './rows-field';
import { SettingsSource, SPECIAL_EDITORS } from './settings-source';
import { TOOLTIPS } from '../../ui/tooltips';

/** The form of a schema does not change. */
const forms = new WeakMap<FormSchema, FormGroup[]>();

function cachedForm(schema: FormSchema): FormGroup[] {
  const form = forms.get(schema) ?? formOf(schema);
  forms.set(schema, form);
  return form;
}

/** What its control holds: words of text, or the value itself where the control edits more than text. */
const controlValue = (field: FormField, value: Json | undefined): Json =>
  field.kind === 'flag'
    ? value === true
    : field.kind === 'several'
      ? (value ?? [])
      : field.kind === 'pairs' || field.kind === 'rows'
        ? (value ?? null)
        : shownValue(field, value);

/** The settings of one section of a document, drawn from its schema: each with its label, its control, who set it, and the way back. */
@Component({
  selector: 'ty-settings-form',
  imports: [
    MatButtonModule,
    MatCheckboxModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    MatTooltipModule,
    NgComponentOutlet,
    PairsField,
    ReactiveFormsModule,
    RowsField,
  ],
  templateUrl: './settings-form.html',
  styleUrl: './settings-form.scss',
  host: { '[class]': 'layout()' },
  providers: [
    TOOLTIPS,
    { provide: ErrorStateMatcher, useValue: { isErrorState: (control: FormControl | null) => control?.invalid && control.touched } },
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SettingsForm {
  readonly schema = input.required<FormSchema>();
  /** The keys of the section in the document. */
  readonly at = input.required<readonly string[]>();
  /** Goes before the ids of the fields, so that two forms of one page do not share them. */
  readonly prefix = input('');
  /** Lines with a column for who set them, one field below the other in a narrow place, or each below its label. */
  readonly layout = input<'lines' | 'stack' | 'labels'>('lines');
  /** Whether what is typed is taken with every letter that makes it right, and not only when it is left. */
  readonly isLive = input(false);
  /** The number of the chapter, where groups are numbered. */
  readonly chapter = input('');
  /** What comes before the label in the words of an undo. */
  readonly about = input('');
  /** What can be chosen for a control that its schema only names, each in words. */
  readonly choices = input<Readonly<Record<string, FormField['options']>>>({});

  protected readonly source = inject(SettingsSource);
  private readonly specials = inject(SPECIAL_EDITORS);
  private readonly section = computed(() => this.source.section(this.at()));
  private readonly formGroups = computed(() => {
    const choices = this.choices();
    return cachedForm(this.schema()).map((group) => ({
      ...group,
      fields: group.fields.map((field): FormField => {
        const options = choices[field.control];
        return options === undefined ? field : { ...field, kind: field.isList ? 'several' : 'choice', options };
      }),
    }));
  });
  private readonly fields = computed(() => this.formGroups().flatMap(({ fields }) => fields));
  /** What the controls are made for. Other choices for a field are no reason to make it anew: it may be typed in just now. */
  private readonly made = computed(
    () => ({
      schema: this.schema(),
      ids: this.fields()
        .filter(({ kind }) => kind !== 'special')
        .map((field) => this.idOf(field)),
    }),
    { equal: (one, other) => one.schema === other.schema && isSameJson(one.ids, other.ids) },
  );
  /** The controls, typed by what they hold; a new schema has new ones. */
  protected readonly form = computed(() => {
    const section = untracked(this.section) ?? {};
    const current = new Map(untracked(this.fields).map((field) => [this.idOf(field), field]));
    return new FormRecord<FormControl<Json>>(
      Object.fromEntries(
        this.made().ids.map((id) => {
          const field = current.get(id)!;
          return [
            id,
            new FormControl<Json>(controlValue(field, valueAt(section, field.keys)), {
              nonNullable: true,
              validators: ({ value }): ValidationErrors | null => {
                const read = readTyped(untracked(this.fields).find((one) => this.idOf(one) === id) ?? field, value as Json);
                return read.ok ? null : { setting: read.message };
              },
            }),
          ];
        }),
      ),
    );
  });
  /** What was wrong with what was typed when it was left; it holds until it is mended. */
  protected readonly mistakes = signal<Readonly<Record<string, string>>>({});
  protected readonly groups = computed(() => {
    const section = this.section();
    if (section === null) return [];
    return this.formGroups()
      .map((group, index) => ({
        ...group,
        number: this.chapter() === '' ? '' : `${this.chapter()}.${index + 1}`,
        fields: group.fields
          .filter((field) => isFieldShown(field, section))
          .map((field) => {
            const keys = [...this.at(), ...field.keys];
            const id = this.idOf(field);
            return {
              field,
              id,
              key: `${this.at().join('.')} ${id}`,
              keys,
              origin: this.source.origin(keys),
              effect: this.source.effect(keys),
            };
          }),
      }))
      .filter(({ fields }) => fields.length > 0);
  });

  constructor() {
    // What holds now stands in the controls; what is being typed stays until what holds changes.
    let known: { form: FormRecord<FormControl<Json>>; section: JsonObject } | null = null;
    effect(() => {
      const [section, form] = [this.section(), this.form()];
      if (section === null) return;
      const before = known?.form === form ? known.section : null;
      known = { form, section };
      for (const field of untracked(this.fields)) {
        const value = valueAt(section, field.keys);
        if (before !== null && isSameJson(valueAt(before, field.keys) ?? null, value ?? null)) continue;
        const control = form.controls[this.idOf(field)];
        // What is being typed is not written over by what it came to.
        const typed = before === null || control === undefined ? null : readTyped(field, control.value);
        if (typed?.ok === true && isSameJson(typed.value ?? null, value ?? null)) continue;
        control?.reset(controlValue(field, value));
      }
    });
  }

  protected idOf({ keys }: FormField): string {
    return `${this.prefix()}${keys.join('-')}`;
  }

  protected lengthOf(typed: Json): number {
    return typeof typed === 'string' ? typed.length : 0;
  }

  protected isChosen(id: string, value: string): boolean {
    const chosen = this.form().controls[id]!.value;
    return Array.isArray(chosen) && chosen.includes(value);
  }

  protected editorOf({ control }: FormField) {
    const editor = this.specials[control];
    if (editor === undefined) throw new Error(`There is no editor called "${control}".`);
    return editor;
  }

  protected inputsOf(field: FormField, keys: readonly string[]): Record<string, unknown> {
    return {
      field,
      keys,
      value: valueAt(this.section() ?? {}, field.keys),
      take: (value: Json | undefined) => this.takeSpecial(field, value),
    };
  }

  /** Takes what stands in a control, unless it cannot be used: then it stays there with the reason. */
  protected take(field: FormField): void {
    const control = this.form().controls[this.idOf(field)]!;
    const read = readTyped(field, control.value);
    if (!read.ok) {
      // Told once it was left: what is being typed is no mistake yet.
      control.markAsTouched();
      this.mistakes.update((all) => ({ ...all, [this.idOf(field)]: read.message }));
      return;
    }
    const refused = this.store(field, read.value);
    if (refused === '') control.reset(controlValue(field, read.value));
    else this.refuse(field, refused);
  }

  /** Takes what is being typed as far as it is right; whether it is wrong is told when it is left. */
  protected type(field: FormField): void {
    if (!this.isLive()) return;
    const control = this.form().controls[this.idOf(field)]!;
    const read = readTyped(field, control.value);
    if (!read.ok) return;
    const refused = this.store(field, read.value);
    if (refused !== '') this.refuse(field, refused);
  }

  /** Chooses one of several, or gives it up. */
  protected choose(field: FormField, value: string, isChosen: boolean): void {
    const control = this.form().controls[this.idOf(field)]!;
    const chosen = control.value as readonly string[];
    control.setValue(field.options.map(([one]) => one).filter((one) => (one === value ? isChosen : chosen.includes(one))));
    this.take(field);
  }

  private refuse(field: FormField, why: string): void {
    const id = this.idOf(field);
    const control = this.form().controls[id]!;
    control.setErrors({ setting: why });
    control.markAsTouched();
    this.mistakes.update((all) => ({ ...all, [id]: why }));
  }

  protected follow(field: FormField): void {
    const keys = [...this.at(), ...field.keys];
    this.form().controls[this.idOf(field)]?.reset(controlValue(field, valueAt(this.section() ?? {}, field.keys)));
    this.source.reset(keys, this.labelOf(field));
  }

  private takeSpecial(field: FormField, value: Json | undefined): string {
    const read = value === undefined ? ({ ok: true, value } as const) : readTyped(field, value);
    if (!read.ok) return read.message;
    return this.store(field, read.value);
  }

  /** @returns why it is not taken; empty where it is */
  private store(field: FormField, value: Json | undefined): string {
    const before = valueAt(this.section() ?? {}, field.keys);
    if (value === undefined ? before === undefined : before !== undefined && isSameJson(before, value)) return '';
    return this.source.set([...this.at(), ...field.keys], value, this.labelOf(field)) ?? '';
  }

  private labelOf({ title }: FormField): string {
    return this.about() === '' ? title : `${this.about()}: ${title}`;
  }
}
