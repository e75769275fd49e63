import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { FormField, Json } from '@typikon/core';
import { Api } from '../../state/api';
import type { SpecialEditor } from '../../shared/form/settings-source';

/** A folder of the asset library: those that there are are offered, and others may be written. */
@Component({
  selector: 'ty-folder-field',
  imports: [MatAutocompleteModule, MatFormFieldModule, MatInputModule],
  template: `
    <label [for]="id()">{{ field().title }}</label>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <input
        matInput
        #written
        autocomplete="off"
        [id]="id()"
        [value]="value() ?? ''"
        [placeholder]="field().placeholder"
        [attr.aria-description]="field().help"
        [matAutocomplete]="offered"
        (change)="change(written.value)"
      />
      @if (isEmpty()) {
        <mat-hint>The library has no picture there.</mat-hint>
      }
    </mat-form-field>
    <mat-autocomplete #offered="matAutocomplete" (optionSelected)="change($event.option.value)">
      @for (folder of folders() ?? []; track folder) {
        <mat-option [value]="folder">{{ folder }}</mat-option>
      }
    </mat-autocomplete>
    <p class="mistake" role="alert">{{ mistake() }}</p>
  `,
  styleUrl: '../../shared/form/special-field.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FolderField implements SpecialEditor {
  readonly field = input.required<FormField>();
  readonly keys = input.required<readonly string[]>();
  readonly value = input.required<Json | undefined>();
  readonly take = input.required<(value: Json | undefined) => string>();
  protected readonly id = computed(() => `folder-${this.keys().join('-')}`);
  /** The folders of the library; null before they are known. */
  protected readonly folders = signal<readonly string[] | null>(null);
  protected readonly mistake = signal('');
  protected readonly isEmpty = computed(() => {
    const [folders, value] = [this.folders(), this.value()];
    return folders !== null && typeof value === 'string' && value !== '' && !folders.includes(value);
  });

  constructor() {
    inject(Api)
      .pictureFolders()
      .pipe(takeUntilDestroyed())
      .subscribe({
        next: (folders) => this.folders.set(folders),
        // Any folder can be written without them.
        error: () => this.folders.set(null),
      });
  }

  protected change(written: string): void {
    this.mistake.set(this.take()(written.trim()));
  }
}
