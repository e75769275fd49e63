import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { conversionSchema, conversionWords, textChanges, type Conversion, type TextChange } from '@typikon/core';
import { debounceTime, firstValueFrom, startWith } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { FIELDS, type ConversionForm, type NamedText, type ToldConversion, type Tried } from '../../state/conversions';
import { staysWhile } from '../../ui/stays-while';
import { TextChanges } from '../../ui/text-changes';

export interface ConvertQuestion {
  profile: string;
  name: string;
  /** What the group is about: fills the form in. */
  element: string;
  attribute: string;
  property: string;
  texts: readonly (NamedText & { title: string })[];
}

const KINDS: readonly { value: Conversion['do']; label: string }[] = [
  { value: 'rename-element', label: 'Rename an element' },
  { value: 'unwrap', label: 'Take the tags off, keep what is inside' },
  { value: 'wrap', label: 'Put it into another element' },
  { value: 'rename-class', label: 'Rename a class' },
  { value: 'style-to-class', label: 'Turn an inline style into a class' },
];
const LABELS: Readonly<Record<keyof ConversionForm, string>> = {
  do: 'What is done',
  element: 'Element',
  class: 'With the class',
  property: 'Property',
  value: 'With the value',
  to: 'Becomes',
  toClass: 'With the class there',
};
/** Texts that it is tried on before it runs. */
const EXAMPLES = 3;
const PAUSE_MS = 250;
/** So much of what is the same is shown around what is not. */
const AROUND = 50;

/** Prepares a replacement in the texts of a group: shown on some of them, and run over all. */
@Component({
  selector: 'ty-convert',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, MatSelectModule, ReactiveFormsModule, TextChanges],
  templateUrl: './convert-dialog.html',
  styleUrl: './convert-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConvertDialog {
  protected readonly question = inject<ConvertQuestion>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<ConvertDialog, ToldConversion>>(MatDialogRef);
  private readonly client = inject(ContractClient);
  protected readonly kinds = KINDS;
  protected readonly labels = LABELS;
  protected readonly mostTold = 3;
  protected readonly form = inject(NonNullableFormBuilder).group(begin(this.question));
  private readonly typed = toSignal(this.form.valueChanges.pipe(startWith(null)), { initialValue: null });
  protected readonly note = signal('');
  /** The fields that the chosen kind has. */
  protected readonly fields = computed(() => {
    this.typed();
    return FIELDS[this.form.controls.do.value as Conversion['do']].map((key) => ({
      key,
      label: key === 'to' && this.form.controls.do.value === 'wrap' ? 'Into' : LABELS[key],
      isNeeded:
        key === 'to' ||
        key === 'property' ||
        (key === 'element' && isOfElement(this.form.controls.do.value)) ||
        (key === 'class' && this.form.controls.do.value === 'rename-class'),
    }));
  });
  protected readonly read = computed(() => {
    this.typed();
    return conversionSchema.safeParse(given(this.form.getRawValue()));
  });
  protected readonly sentence = computed(() => {
    const read = this.read();
    return read.success ? conversionWords(read.data) : '';
  });
  /** Why it cannot be done as it stands; empty where it can, or where something is not filled in yet. */
  protected readonly mistake = computed(() => {
    const read = this.read();
    if (read.success) return '';
    const [issue] = read.error.issues;
    const key = String(issue?.path[0] ?? '') as keyof ConversionForm;
    const value = key in LABELS ? this.form.getRawValue()[key] : '';
    return value === '' ? '' : `“${LABELS[key]}” ${issue!.message}.`;
  });
  protected readonly tried = signal<readonly (Tried & { changes: TextChange[] | null })[] | null>(null);
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);
  private tries = 0;

  constructor() {
    staysWhile(this.isBusy);
    this.form.valueChanges
      .pipe(startWith(null), debounceTime(PAUSE_MS), takeUntilDestroyed(inject(DestroyRef)))
      .subscribe(() => void this.try());
  }

  private async try(): Promise<void> {
    const read = this.read();
    const number = ++this.tries;
    this.tried.set(null);
    this.failure.set('');
    if (!read.success) return;
    const texts = this.question.texts.slice(0, EXAMPLES).map(named);
    try {
      const { body } = await firstValueFrom(
        this.client.post('/profiles/{id}/conversions/try', { conversion: read.data, texts }, null, { id: this.question.profile }),
      );
      if (number !== this.tries) return;
      this.tried.set(body.map((one) => ({ ...one, changes: around(textChanges(one.before, one.after, 'source')) })));
    } catch (error) {
      if (number === this.tries) this.failure.set(`It cannot be tried. ${(error as Error).message}`);
    }
  }

  protected async run(): Promise<void> {
    const read = this.read();
    if (!read.success || this.isBusy()) return;
    this.isBusy.set(true);
    this.failure.set('');
    const { profile, texts } = this.question;
    try {
      const { body } = await firstValueFrom(
        this.client.post('/profiles/{id}/conversions', { conversion: read.data, note: this.note().trim(), texts: texts.map(named) }, null, {
          id: profile,
        }),
      );
      this.dialog.close(body);
    } catch (error) {
      this.failure.set(`Nothing was converted. ${(error as Error).message}`);
    }
    this.isBusy.set(false);
  }
}

const named = ({ document, field }: NamedText): NamedText => ({ document, field });
const isOfElement = (kind: string): boolean => kind === 'rename-element' || kind === 'wrap' || kind === 'unwrap';

/** The form as it begins: by what the group is about. */
function begin({ element, attribute, property }: ConvertQuestion): ConversionForm {
  const kind: Conversion['do'] = property !== '' ? 'style-to-class' : attribute === 'class' ? 'rename-class' : 'rename-element';
  return { do: kind, element, class: '', property, value: '', to: '', toClass: '' };
}

function given(form: ConversionForm): Record<string, string> {
  const kind = form.do as Conversion['do'];
  const filled = FIELDS[kind].map((key): [string, string] => [key, form[key].trim()]).filter(([, value]) => value !== '');
  return { do: kind, ...Object.fromEntries(filled) };
}

/** Of what is the same only the ends beside what is not. */
function around(changes: readonly TextChange[] | null): TextChange[] | null {
  if (changes === null) return null;
  return changes.map(({ kind, text }, at) => {
    if (kind !== 'same' || text.length <= 2 * AROUND) return { kind, text };
    const [begin, end] = [at === 0 ? '' : text.slice(0, AROUND), at === changes.length - 1 ? '' : text.slice(-AROUND)];
    return { kind, text: `${begin} … ${end}` };
  });
}
