import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { FormField } from '@typikon/core';

/** A word for each of a few names; an empty one is not there. */
@Component({
  selector: 'ty-pairs-field',
  imports: [MatFormFieldModule, MatInputModule],
  template: `
    <fieldset>
      <legend class="ty-unseen">{{ field().title }}</legend>
      @for (part of field().parts; track part[0]) {
        <label>
          <span>{{ part[1] }}</span>
          <mat-form-field appearance="outline" subscriptSizing="dynamic">
            <input
              matInput
              #typed
              spellcheck="false"
              autocomplete="off"
              [value]="value()[part[0]] ?? ''"
              (change)="$event.stopPropagation(); take(part[0], typed.value)"
          /></mat-form-field>
        </label>
      }
    </fieldset>
  `,
  styles: `
    fieldset {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      margin: 0;
      padding: 0;
      border: 0;
    }
    label {
      display: inline-flex;
      align-items: center;
      gap: 8px;
    }
    mat-form-field {
      width: 92px;
      font-family: var(--ty-mono);
    }
  `,
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: PairsField, multi: true }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PairsField implements ControlValueAccessor {
  readonly field = input.required<FormField>();
  readonly taken = output<void>();
  protected readonly value = signal<Readonly<Record<string, string>>>({});
  private tell: (value: unknown) => void = () => undefined;

  writeValue(value: Record<string, string> | null): void {
    this.value.set(value ?? {});
  }

  registerOnChange(tell: (value: unknown) => void): void {
    this.tell = tell;
  }

  registerOnTouched(): void {
    // Mistakes are told as they are typed.
  }

  protected take(name: string, typed: string): void {
    const { [name]: _gone, ...others } = this.value();
    this.value.set(typed.trim() === '' ? others : { ...others, [name]: typed.trim() });
    this.tell(this.value());
    this.taken.emit();
  }
}
