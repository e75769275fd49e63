import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { FormField, Json } from '@typikon/core';
import type { SpecialEditor } from '../../shared/form/settings-source';

interface Colour {
  name: string;
  value: string;
}

/** Named colours, a line for each. */
@Component({
  selector: 'ty-colours-field',
  imports: [MatFormFieldModule, MatInputModule],
  template: `
    <label [for]="id()">{{ field().title }}</label>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <textarea matInput #typed rows="4" [id]="id()" [value]="text()" placeholder="Sea: #17475c" (change)="set(typed.value)"></textarea>
    </mat-form-field>
    <p class="mistake" role="alert">{{ mistake() }}</p>
  `,
  styles: `
    mat-form-field {
      width: 100%;
      font-family: var(--ty-mono);
    }
    .mistake {
      color: var(--ty-rubric);
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColoursField implements SpecialEditor {
  readonly field = input.required<FormField>();
  readonly keys = input.required<readonly string[]>();
  readonly value = input.required<Json | undefined>();
  readonly take = input.required<(value: Json | undefined) => string>();
  protected readonly mistake = signal('');
  protected readonly id = computed(() => this.keys().join('-'));
  protected readonly text = computed(() =>
    ((this.value() ?? []) as unknown as Colour[]).map(({ name, value }) => `${name}: ${value}`).join('\n'),
  );

  protected set(typed: string): void {
    const lines = typed
      .split('\n')
      .filter((line) => line.trim() !== '')
      .map((line) => /^\s*(.+?)\s*[:=]\s*(\S.*?)\s*$/.exec(line));
    const { title, hint } = this.field();
    this.mistake.set(
      lines.some((line) => line === null)
        ? `${title}: it must be ${hint}.`
        : this.take()(lines.map((line) => ({ name: line![1]!, value: line![2]! }))),
    );
  }
}
