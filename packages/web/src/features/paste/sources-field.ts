import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { type FormField, type Json, PASTE_SOURCES, type PasteSource, sourceName } from '@typikon/core/settings';
import type { SpecialEditor } from '../../shared/form/settings-source';

/** The kinds of source that a pass works on. */
@Component({
  selector: 'ty-sources-field',
  imports: [MatButtonModule, MatCheckboxModule],
  template: `
    <button
      mat-button
      type="button"
      class="ty-quiet"
      [attr.aria-expanded]="isOpen()"
      aria-controls="pass-sources"
      (click)="isOpen.set(!isOpen())"
    >
      {{ field().title }}: {{ isForAll() ? 'every source' : 'some sources' }} {{ isOpen() ? '▴' : '▾' }}
    </button>
    <div id="pass-sources" class="sources" role="group" [attr.aria-label]="field().title" [hidden]="!isOpen()">
      @for (source of sources(); track source.id) {
        <mat-checkbox [checked]="source.isChosen" (change)="choose(source.id, $event.checked)">{{ source.name }}</mat-checkbox>
      }
    </div>
    <p class="mistake" role="alert">{{ mistake() }}</p>
  `,
  styles: `
    .sources:not([hidden]) {
      display: flex;
      flex-wrap: wrap;
      gap: 3px 14px;
      padding-top: 4px;
    }
    .mistake {
      color: var(--ty-rubric);
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SourcesField implements SpecialEditor {
  readonly field = input.required<FormField>();
  readonly keys = input.required<readonly string[]>();
  readonly value = input.required<Json | undefined>();
  readonly take = input.required<(value: Json | undefined) => string>();
  protected readonly isOpen = signal(false);
  protected readonly mistake = signal('');
  protected readonly sources = computed(() => {
    const chosen = this.value() as PasteSource[] | undefined;
    return PASTE_SOURCES.map((id) => ({ id, name: sourceName(id), isChosen: chosen?.includes(id) ?? true }));
  });
  protected readonly isForAll = computed(() => this.sources().every(({ isChosen }) => isChosen));

  protected choose(id: PasteSource, isChosen: boolean): void {
    const chosen = this.sources().filter((source) => (source.id === id ? isChosen : source.isChosen));
    if (chosen.length === 0) {
      this.mistake.set('A pass works on one kind of source at least; switch it off instead.');
      return;
    }
    const all = chosen.length === PASTE_SOURCES.length && this.field().isOptional;
    this.mistake.set(this.take()(all ? undefined : chosen.map((source) => source.id)));
  }
}
