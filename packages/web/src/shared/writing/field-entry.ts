import { ChangeDetectionStrategy, Component, computed, CUSTOM_ELEMENTS_SCHEMA, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { cleanHelp, isEmptyValue, parseFragment, renderedText, valueLetters, valueProblem, type Field } from '@typikon/core';
import { defineTypikonEditor, type EditorConfiguration } from '@typikon/editor';
import { Configured } from './configured';

/** One field as its author has it: title, help, the control to write with, what can be done there, and what is wrong. */
@Component({
  selector: 'ty-field-entry',
  imports: [MatButtonModule, Configured, MatFormFieldModule, MatInputModule, MatSelectModule],
  schemas: [CUSTOM_ELEMENTS_SCHEMA],
  templateUrl: './field-entry.html',
  styleUrl: './field-entry.scss',
  host: { role: 'group', '[attr.data-field]': 'field().key', '[attr.aria-labelledby]': '"entry-" + field().key' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FieldEntry {
  readonly field = input.required<Field>();
  /** What stands there at first; a change of it puts that there. */
  readonly value = input('');
  /** What rich text is written with; null where it cannot be written. */
  readonly configuration = input<EditorConfiguration | null>(null);
  /** Changes whenever the editor has to be made anew: another profile, another text. */
  readonly edition = input('');
  /** Names the document in the editor. */
  readonly of = input('');
  /** Why nothing can be written here; empty where it can. */
  readonly refusal = input('');
  /** What the rules say of themselves. */
  readonly canDo = input('');
  /** The help that comes along with the profile, clean markup; the field's own stands before it. */
  readonly profileHelp = input('');
  /** Where the field shows. */
  readonly where = input('');
  /** Whether what is wrong is told although nobody was here yet. */
  readonly isTold = input(false);
  /** The level of its heading on the page where it stands. */
  readonly level = input(3);
  readonly typed = output<string>();
  readonly left = output();

  protected readonly isOpen = signal(false);
  private readonly wasLeft = signal(false);
  private readonly written = signal<{ edition: string; value: string } | null>(null);
  private readonly now = computed(() => {
    const written = this.written();
    return written?.edition === this.edition() ? written.value : this.value();
  });
  protected readonly longHelp = computed(() => cleanHelp(this.field().help.long));
  protected readonly hasMore = computed(() => {
    const { example, link } = this.field().help;
    return this.longHelp() !== '' || this.profileHelp() !== '' || example !== '' || link !== '';
  });
  /** What stands there, for those who cannot write it. */
  protected readonly plainText = computed(() =>
    this.field().kind === 'rich' ? renderedText(parseFragment(this.value()).root).trim() : this.value(),
  );
  protected readonly letters = computed(() => valueLetters(this.field().kind, this.now()));
  /** What is wrong with what stands there; empty for nothing. */
  protected readonly mistake = computed(() => {
    const [field, value, letters] = [this.field(), this.now(), this.letters()];
    const isTold = this.wasLeft() || this.isTold();
    if (field.needed && isEmptyValue(field.kind, value)) return isTold ? 'This is needed, and it is empty.' : '';
    const problem = valueProblem(field, value);
    if (problem !== null) return isTold ? problem : '';
    const { from = 0, to = Infinity } = field.letters;
    if (letters > to) return `This is ${letters - to} ${letters - to === 1 ? 'letter' : 'letters'} too long.`;
    return letters > 0 && letters < from && isTold ? `This is shorter than ${from} letters.` : '';
  });

  constructor() {
    defineTypikonEditor();
  }

  protected type(value: string): void {
    this.written.set({ edition: this.edition(), value });
    this.typed.emit(value);
  }

  protected leave(): void {
    this.wasLeft.set(true);
    this.left.emit();
  }
}
