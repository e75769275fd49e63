import { expectationWords, sourceName } from '@typikon/core/settings';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { expectationSchema, PASTE_SOURCES, type Expectation, type ExpectationKind } from '@typikon/core';

/** A kind of expectation: its words, the field it needs, and one to begin with. */
interface Form {
  words: string;
  field: 'none' | 'number' | 'text' | 'count' | 'lines' | 'source';
  key: string;
  first: Expectation;
}

const FORMS: Readonly<Record<ExpectationKind, Form>> = {
  'no-inline-style': { words: 'no inline style', field: 'none', key: '', first: { expect: 'no-inline-style' } },
  'no-hard-space': { words: 'no hard space', field: 'none', key: '', first: { expect: 'no-hard-space' } },
  'no-office': { words: 'nothing of an office program', field: 'none', key: '', first: { expect: 'no-office' } },
  'no-empty-paragraph': { words: 'no empty paragraph', field: 'none', key: '', first: { expect: 'no-empty-paragraph' } },
  'links-lead-somewhere': {
    words: 'links within the text lead somewhere',
    field: 'none',
    key: '',
    first: { expect: 'links-lead-somewhere' },
  },
  'text-kept': { words: 'percent of the letters kept', field: 'number', key: 'percent', first: { expect: 'text-kept', percent: 100 } },
  count: { words: 'how many of', field: 'count', key: 'is', first: { expect: 'count', of: 'li', is: 3 } },
  'text-is': { words: 'the text is', field: 'text', key: 'text', first: { expect: 'text-is', text: '' } },
  'text-has': { words: 'the text has', field: 'text', key: 'text', first: { expect: 'text-has', text: 'words' } },
  'text-lacks': { words: 'the text has no', field: 'text', key: 'text', first: { expect: 'text-lacks', text: 'words' } },
  'markup-has': { words: 'the markup has', field: 'text', key: 'html', first: { expect: 'markup-has', html: '<strong>' } },
  'markup-lacks': { words: 'the markup has no', field: 'text', key: 'html', first: { expect: 'markup-lacks', html: '<font' } },
  outline: { words: 'the headings are', field: 'lines', key: 'is', first: { expect: 'outline', is: ['2 Title'] } },
  source: { words: 'it is told as', field: 'source', key: 'is', first: { expect: 'source', is: 'word-processor' } },
  'pictures-to-upload': { words: 'pictures to upload', field: 'number', key: 'is', first: { expect: 'pictures-to-upload', is: 1 } },
};

/** What must come out of a specimen, one line for each expectation. */
@Component({
  selector: 'ty-expectations-editor',
  imports: [MatSelectModule, MatInputModule, MatFormFieldModule, MatButtonModule],
  templateUrl: './expectations-editor.html',
  styleUrl: './expectations-editor.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ExpectationsEditor {
  readonly expectations = input.required<readonly Expectation[]>();
  readonly changed = output<Expectation[]>();
  protected readonly kinds = Object.entries(FORMS).map(([id, { words }]) => ({ id: id as ExpectationKind, words }));
  protected readonly sources = PASTE_SOURCES.map((id) => ({ id, name: sourceName(id) }));
  protected readonly mistake = signal<{ index: number; sentence: string } | null>(null);
  protected readonly rows = computed(() =>
    this.expectations().map((expectation) => ({ expectation, form: FORMS[expectation.expect], words: expectationWords(expectation) })),
  );

  protected valueOf(expectation: Expectation, key: string): string {
    const value = (expectation as unknown as Record<string, unknown>)[key];
    return Array.isArray(value) ? value.join('\n') : typeof value === 'string' || typeof value === 'number' ? String(value) : '';
  }

  protected chooseKind(index: number, kind: string): void {
    this.put(index, FORMS[kind as ExpectationKind].first);
  }

  protected set(index: number, key: string, value: string | number | string[]): void {
    const read = expectationSchema.safeParse({ ...this.expectations()[index], [key]: value });
    if (read.success) this.put(index, read.data);
    else this.mistake.set({ index, sentence: read.error.issues[0]?.message ?? 'That cannot be expected.' });
  }

  protected setLines(index: number, key: string, typed: string): void {
    this.set(
      index,
      key,
      typed.split('\n').flatMap((line) => (line.trim() === '' ? [] : [line.trim()])),
    );
  }

  protected add(): void {
    this.changed.emit([...this.expectations(), FORMS['no-inline-style'].first]);
  }

  protected remove(index: number): void {
    this.mistake.set(null);
    this.changed.emit(this.expectations().filter((_, i) => i !== index));
  }

  protected number(value: string): number {
    return Number(value);
  }

  private put(index: number, expectation: Expectation): void {
    this.mistake.set(null);
    this.changed.emit(this.expectations().with(index, expectation));
  }
}
