import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { buttonOf, missingMarkup, needInWords, PURPOSES, toolbarOptionsSchema, valueAt, type Json, type JsonObject } from '@typikon/core';
import { EDITOR_BUTTONS, keyLabel } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { Icon } from '../../ui/icon';
import { ProfileEdit } from '../../shared/profile/edit';
import { settingOrigin } from '../../shared/profile/origin';
import { OPTION_FIELDS, type OptionField } from './option-fields';
import { ToolbarDesign } from './toolbar-design';

/** All about one button: what it does, what it needs of the rules, where it stands, and what can be chosen of it. */
@Component({
  selector: 'ty-button-details',
  imports: [MatSelectModule, MatCheckboxModule, MatInputModule, MatFormFieldModule, MatButtonModule, Icon],
  templateUrl: './button-details.html',
  styleUrl: './button-details.scss',
  host: { role: 'region', '[attr.aria-label]': "'About ' + button().label" },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ButtonDetails {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  protected readonly design = inject(ToolbarDesign);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(workshopFeature.selectRules);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly failure = signal('');

  protected readonly button = computed(() => {
    const declaration = buttonOf(this.design.chosen());
    return {
      ...declaration,
      icon: EDITOR_BUTTONS.get(declaration.id)!.icon,
      keyLabel: declaration.key === null ? '' : keyLabel(declaration.key),
      purposeLabel: PURPOSES[declaration.purpose],
      group: this.design.groupOf(declaration.id) ?? null,
      descent: this.design.descentOf(declaration.id),
    };
  });
  protected readonly needs = computed(() => {
    const [options, rules] = [this.design.options(), this.rules()];
    const declaration = buttonOf(this.design.chosen());
    if (options === null || rules === null) return [];
    const missing = missingMarkup(declaration, rules, options);
    return declaration.needs(options).map((need) => {
      const lacking = missing.find(({ element, attribute }) => element === need.element && attribute === need.attribute);
      return { words: needInWords(lacking ?? need), isKept: lacking === undefined };
    });
  });
  protected readonly lacks = computed(() => this.design.lacks().get(this.design.chosen()) ?? '');
  protected readonly isCapped = computed(() => this.design.capped().has(this.design.chosen()));
  protected readonly onlyFor = computed(() => this.design.onlyFor(this.design.chosen()));
  protected readonly fields = computed(() => {
    const part = buttonOf(this.design.chosen()).options;
    const resolved = this.resolved();
    if (part === undefined || resolved === null) return [];
    const document = JSON.parse(JSON.stringify(resolved.profile.toolbar.options)) as JsonObject;
    return OPTION_FIELDS[part].map((field) => {
      const keys = ['toolbar', 'options', part, ...field.keys];
      return {
        ...field,
        part,
        id: `option-${part}-${field.keys.join('-')}`,
        value: shown(valueAt(document, [part, ...field.keys]), field),
        ...settingOrigin(resolved, keys, this.names()),
      };
    });
  });

  protected take(field: OptionField & { part: string }, typed: string | boolean): void {
    const value = read(typed, field);
    const probe = [field.part, ...field.keys].reduceRight<Json>((inner, key) => ({ [key]: inner }), value ?? null);
    const checked = value === undefined ? null : toolbarOptionsSchema.safeParse(probe);
    if (value === null || (checked !== null && !checked.success)) {
      this.failure.set(`${field.label}: it must be ${field.hint ?? 'something else'}.`);
      return;
    }
    this.failure.set('');
    this.edit.set(['toolbar', 'options', field.part, ...field.keys], value, field.label);
  }

  protected follow(field: OptionField & { part: string }): void {
    this.failure.set('');
    this.edit.reset(['toolbar', 'options', field.part, ...field.keys], `Following the parent: ${field.label}`);
  }
}

/** A value as its field shows it. */
function shown(value: Json | undefined, { kind }: OptionField): string {
  if (kind === 'colours') return (value as { name: string; value: string }[]).map((colour) => `${colour.name}: ${colour.value}`).join('\n');
  if (value === undefined || value === null) return '';
  return (Array.isArray(value) ? value : [value]).map((one) => String(one as string | number | boolean)).join(' ');
}

/** What was typed as a value; undefined for nothing, null for what cannot be read. */
function read(typed: string | boolean, { kind }: OptionField): Json | undefined {
  if (typeof typed === 'boolean') return typed;
  const words = typed.split(/[\s,]+/).filter((word) => word !== '');
  switch (kind) {
    case 'number':
      return typed.trim() === '' ? undefined : Number.isNaN(Number(typed)) ? null : Number(typed);
    case 'numbers':
      return words.map(Number).some(Number.isNaN) ? null : words.map(Number);
    case 'words':
      return words;
    case 'colours': {
      const lines = typed
        .split('\n')
        .filter((line) => line.trim() !== '')
        .map((line) => /^\s*(.+?)\s*[:=]\s*(\S.*?)\s*$/.exec(line));
      return lines.some((line) => line === null) ? null : lines.map((line) => ({ name: line![1]!, value: line![2]! }));
    }
    default:
      return typed.trim();
  }
}
