import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import {
  PASSES,
  PASTE_SOURCES,
  pastePassesSchema,
  valueAt,
  type Json,
  type PassId,
  type PasteSource,
  type Replacement,
} from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { PASS_FIELDS, sourceName, type SettingField } from '../../state/paste-words';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from '../../shared/profile/edit';
import { Replacements } from './replacements';

/** The settings of one pass, in place: every change is one step that can be undone. */
@Component({
  selector: 'ty-pass-settings',
  imports: [MatSelectModule, MatCheckboxModule, MatInputModule, MatFormFieldModule, MatButtonModule, Replacements],
  templateUrl: './pass-settings.html',
  styleUrl: './pass-settings.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PassSettings {
  readonly pass = input.required<PassId>();
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  /** What is wrong with what was typed, by setting. */
  protected readonly mistakes = signal<Readonly<Record<string, string>>>({});
  protected readonly fields = computed(() => PASS_FIELDS[this.pass()]);
  private readonly settings = computed(
    () => this.resolved()?.profile.paste.passes[this.pass()] as Readonly<Record<string, unknown>> | undefined,
  );
  protected readonly sources = computed(() => {
    const chosen = this.settings()?.['sources'] as PasteSource[] | undefined;
    return PASTE_SOURCES.map((id) => ({ id, name: sourceName(id), isChosen: chosen?.includes(id) ?? true }));
  });
  protected readonly isForAll = computed(() => this.sources().every(({ isChosen }) => isChosen));
  /** Whose settings these are where the profile has some of its own; empty where it has none. */
  protected readonly parent = computed(() => {
    const [, parent] = this.resolved()?.chain ?? [];
    if (valueAt(this.draft(), ['paste', 'passes', this.pass()]) === undefined) return '';
    return parent === undefined ? 'the defaults' : (this.names().get(parent.id) ?? parent.id);
  });

  protected value(key: string): unknown {
    return this.settings()?.[key];
  }

  protected wordsOf(field: SettingField): string {
    return ((this.value(field.key) as string[] | undefined) ?? []).join(', ');
  }

  protected pair(key: string, name: string): string {
    return (this.value(key) as Record<string, string> | undefined)?.[name] ?? '';
  }

  protected redirects(key: string): { host: string; parameter: string }[] {
    return (this.value(key) as { host: string; parameter: string }[] | undefined) ?? [];
  }

  protected replacements(key: string): Replacement[] {
    return (this.value(key) as Replacement[] | undefined) ?? [];
  }

  protected set(key: string, value: Json | undefined, label: string): void {
    const pass = this.pass();
    const mistake = value === undefined ? '' : mistakeIn(pass, key, value);
    this.mistakes.update((all) => ({ ...all, [key]: mistake }));
    if (mistake === '') this.edit.set(['paste', 'passes', pass, key], value, `${PASSES[pass].label}: ${label}`);
  }

  protected setWords(field: SettingField, typed: string): void {
    const list = typed
      .split(/[\s,]+/)
      .map((word) => word.trim())
      .filter((word) => word !== '');
    const isOptional = field.kind === 'words' && (field.isOptional === true || (field.key === 'drop' && this.pass() === 'inline-style'));
    this.set(field.key, list.length === 0 && isOptional ? undefined : list, field.label);
  }

  protected setNumber(field: SettingField, typed: string): void {
    this.set(
      field.key,
      typed.trim() === '' && field.kind === 'number' && field.isOptional === true ? undefined : Number(typed),
      field.label,
    );
  }

  protected setPair(key: string, name: string, typed: string): void {
    const before = (this.value(key) as Record<string, string> | undefined) ?? {};
    const { [name]: _gone, ...others } = before;
    this.set(key, typed.trim() === '' ? others : { ...others, [name]: typed.trim() }, name);
  }

  protected setRedirect(key: string, index: number, part: 'host' | 'parameter', typed: string): void {
    const all = this.redirects(key);
    this.set(key, all.with(index, { ...all[index]!, [part]: typed.trim() }), 'redirects');
  }

  protected addRedirect(key: string): void {
    this.set(key, [...this.redirects(key), { host: 'redirect.example', parameter: 'url' }], 'another redirect');
  }

  protected removeRedirect(key: string, index: number): void {
    this.set(
      key,
      this.redirects(key).filter((_, i) => i !== index),
      'a redirect less',
    );
  }

  protected setReplacements(key: string, rules: Replacement[]): void {
    this.set(key, rules, 'replacements');
  }

  protected chooseSource(id: PasteSource, isChosen: boolean): void {
    const chosen = this.sources().filter((source) => (source.id === id ? isChosen : source.isChosen));
    if (chosen.length === 0) {
      this.mistakes.update((all) => ({ ...all, sources: 'A pass works on one kind of source at least; switch it off instead.' }));
      return;
    }
    const all = chosen.length === PASTE_SOURCES.length && this.pass() !== 'joined-lines';
    this.set('sources', all ? undefined : chosen.map((source) => source.id), 'sources');
  }

  protected reset(): void {
    this.edit.reset(['paste', 'passes', this.pass()], `${PASSES[this.pass()].label} as in ${this.parent()}`);
  }
}

/** What is wrong with a value, in a sentence; empty where nothing is. */
function mistakeIn(pass: PassId, key: string, value: Json): string {
  const read = pastePassesSchema.safeParse({ [pass]: { [key]: value } });
  if (read.success) return '';
  const issue = read.error.issues.find(({ path }) => path[0] === pass);
  if (issue === undefined) return '';
  const at = issue.path[2];
  const culprit = Array.isArray(value) && typeof at === 'number' && typeof value[at] === 'string' ? `“${value[at]}” ` : '';
  return `${culprit}${issue.message}`;
}
