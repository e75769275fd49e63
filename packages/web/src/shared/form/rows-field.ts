import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { FormField } from '@typikon/core';

type Row = Readonly<Record<string, string>>;

/** Rows of a few words each. A row that was added counts once every word of it is there. */
@Component({
  selector: 'ty-rows-field',
  imports: [MatButtonModule, MatFormFieldModule, MatInputModule],
  template: `
    @for (row of rows(); track $index; let at = $index) {
      <div class="row">
        @for (part of field().parts; track part[0]) {
          <mat-form-field appearance="outline" subscriptSizing="dynamic">
            <input
              matInput
              #typed
              spellcheck="false"
              autocomplete="off"
              [attr.aria-label]="part[1]"
              [placeholder]="part[1]"
              [value]="row[part[0]] ?? ''"
              (change)="$event.stopPropagation(); take(at, part[0], typed.value)"
          /></mat-form-field>
        }
        <button mat-button type="button" class="ty-quiet" [attr.aria-label]="'Remove row ' + (at + 1)" (click)="remove(at)">Remove</button>
      </div>
    }
    <button mat-button type="button" class="ty-quiet" (click)="add()">Add one</button>
  `,
  styles: `
    :host {
      display: block;
      width: 100%;
    }
    .row {
      display: flex;
      gap: 8px;
    }
    mat-form-field {
      flex: 1;
      font-family: var(--ty-mono);
    }
  `,
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: RowsField, multi: true }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RowsField implements ControlValueAccessor {
  readonly field = input.required<FormField>();
  readonly taken = output<void>();
  protected readonly rows = signal<readonly Row[]>([]);
  private tell: (value: unknown) => void = () => undefined;

  writeValue(value: readonly Row[] | null): void {
    // A row that is not whole yet is known here alone.
    const unfinished = this.rows().filter((row) => !this.isWhole(row));
    this.rows.set([...(value ?? []), ...unfinished]);
  }

  registerOnChange(tell: (value: unknown) => void): void {
    this.tell = tell;
  }

  registerOnTouched(): void {
    // Mistakes are told as they are typed.
  }

  protected take(index: number, key: string, typed: string): void {
    this.set(this.rows().map((row, at) => (at === index ? { ...row, [key]: typed.trim() } : row)));
  }

  protected add(): void {
    this.rows.update((rows) => [...rows, {}]);
  }

  protected remove(index: number): void {
    this.set(this.rows().filter((_, at) => at !== index));
  }

  private set(rows: readonly Row[]): void {
    this.rows.set(rows);
    this.tell(rows.filter((row) => this.isWhole(row)));
    this.taken.emit();
  }

  private isWhole(row: Row): boolean {
    return this.field().parts.every(([key]) => (row[key] ?? '') !== '');
  }
}
