import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { FormField, Json } from '@typikon/core';
import { SettingsSource, type SpecialEditor } from '../../shared/form/settings-source';
import { IconSet } from '../../ui/icon-set';
import { TypeIcon } from '../../ui/type-icon';

/** So many icons are offered at once. */
const MOST_ICONS = 60;

const textOf = (value: Json | undefined): string => (typeof value === 'string' ? value : '');

/** An icon of the set, found by its words, in the colour that its content type has. */
@Component({
  selector: 'ty-icon-field',
  imports: [MatAutocompleteModule, MatFormFieldModule, MatInputModule, TypeIcon],
  template: `
    <label for="type-icon">{{ field().title }}</label>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <ty-type-icon matPrefix [name]="words() || 'file'" [colour]="colour()" />
      <input
        matInput
        #written
        id="type-icon"
        autocomplete="off"
        placeholder="a word, such as ship"
        [value]="words()"
        [matAutocomplete]="icons"
        (input)="change(written.value)"
      />
    </mat-form-field>
    <mat-autocomplete #icons="matAutocomplete" (optionSelected)="change($event.option.value)">
      @for (icon of offered(); track icon) {
        <mat-option [value]="icon"><ty-type-icon [name]="icon" [colour]="colour()" /> {{ icon }}</mat-option>
      }
    </mat-autocomplete>
    <p class="mistake" role="alert">{{ mistake() }}</p>
  `,
  styleUrl: '../../shared/form/special-field.scss',
  styles: `
    ty-type-icon {
      margin-left: 8px;
    }
    mat-option ty-type-icon {
      margin-left: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class IconField implements SpecialEditor {
  readonly field = input.required<FormField>();
  readonly keys = input.required<readonly string[]>();
  readonly value = input.required<Json | undefined>();
  readonly take = input.required<(value: Json | undefined) => string>();
  private readonly source = inject(SettingsSource);
  private readonly all = signal<readonly string[]>([]);
  protected readonly words = linkedSignal(() => textOf(this.value()));
  protected readonly mistake = signal('');
  protected readonly colour = computed(() => textOf(this.source.section([])?.['colour']) || 'ink');
  protected readonly offered = computed(() => {
    const words = this.words()
      .toLowerCase()
      .split(/[\s-]+/)
      .filter((word) => word !== '');
    const fitting = this.all().filter((name) => words.every((word) => name.includes(word)));
    return (fitting.length === 1 && fitting[0] === this.words() ? this.all() : fitting).slice(0, MOST_ICONS);
  });

  constructor() {
    void inject(IconSet)
      .all()
      .then((set) => this.all.set([...set.keys()]));
  }

  protected change(words: string): void {
    this.words.set(words);
    this.mistake.set(this.take()(words));
  }
}
