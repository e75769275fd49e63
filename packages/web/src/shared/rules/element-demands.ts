import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { elementRuleSchema, URL_ATTRIBUTES, type ElementRule, type Json, type JsonObject } from '@typikon/core/settings';
import { SettingsSource } from '../form/settings-source';

const OTHERWISE = [
  { value: 'drop', label: 'it goes with its content' },
  { value: 'unwrap', label: 'it goes, its content stays' },
  { value: 'add', label: 'it gets' },
] as const;
const WHEN = [
  { value: 'always', label: 'always' },
  { value: 'absent', label: 'where it has none' },
  { value: 'new-window', label: 'on links that open a window' },
  { value: 'with-address', label: 'where its address stayed' },
] as const;

/** What an element must have, what is put on it, where it may stand, and what becomes of an empty one. */
@Component({
  selector: 'ty-element-demands',
  imports: [MatSelectModule, MatInputModule, MatFormFieldModule, MatButtonModule],
  templateUrl: './element-demands.html',
  styleUrl: './element-demands.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ElementDemands {
  readonly element = input.required<string>();
  readonly rule = input.required<ElementRule>();

  private readonly source = inject(SettingsSource);
  protected readonly otherwise = OTHERWISE;
  protected readonly when = WHEN;
  protected readonly failure = signal('');
  protected readonly required = computed(() => Object.entries(this.rule().required ?? {}).map(([name, demand]) => ({ name, ...demand })));
  protected readonly forced = computed(() => Object.entries(this.rule().forced ?? {}).map(([name, demand]) => ({ name, ...demand })));
  /** Addresses that the element may have. */
  protected readonly addresses = computed(() => Object.keys(this.rule().attributes ?? {}).filter((name) => URL_ATTRIBUTES.has(name)));
  protected readonly unasked = computed(() =>
    Object.keys(this.rule().attributes ?? {}).filter((name) => this.rule().required?.[name] === undefined),
  );

  protected require(name: string, otherwise: string, value = ''): void {
    this.set(['required', name], { otherwise, ...(otherwise === 'add' ? { value } : {}) }, `Asking for ${name} on <${this.element()}>`);
  }

  protected force(name: string, value: string, when: string): void {
    const attribute = name.trim().toLowerCase();
    if (attribute === '') return;
    this.set(['forced', attribute], { value, ...(when === 'always' ? {} : { when }) }, `Putting ${attribute} on <${this.element()}>`);
  }

  protected drop(key: 'required' | 'forced', name: string): void {
    const { [name]: _gone, ...rest } = (this.rule()[key] ?? {}) as JsonObject;
    this.set([key], Object.keys(rest).length === 0 ? undefined : rest, `No longer ${key === 'forced' ? 'putting' : 'asking for'} ${name}`);
  }

  /** At least one of several attributes; fewer than two are no choice. */
  protected setAnyOf(text: string, otherwise: string): void {
    const attributes = wordsOf(text);
    this.set(
      ['anyOf'],
      attributes.length === 0 ? undefined : { attributes, otherwise },
      `Asking for one of several on <${this.element()}>`,
    );
  }

  /** Schemes for an address of this element alone; without any those of §2 Markup count. */
  protected setSchemes(attribute: string, text: string): void {
    const { [attribute]: _before, ...others } = this.rule().schemes ?? {};
    const words = wordsOf(text);
    const schemes = words.length === 0 ? others : { ...others, [attribute]: words };
    this.set(['schemes'], Object.keys(schemes).length === 0 ? undefined : schemes, `Schemes of ${attribute} on <${this.element()}>`);
  }

  protected setWithoutSource(value: string): void {
    this.set(['withoutSource'], value === 'drop' ? undefined : value, 'A picture whose source is refused');
  }

  protected setEmpty(value: string): void {
    this.set(['empty'], value === 'keep' ? undefined : value, `Empty <${this.element()}>`);
  }

  protected setParents(text: string): void {
    const names = wordsOf(text);
    this.set(['parents'], names.length === 0 ? undefined : names, `Where <${this.element()}> may stand`);
  }

  protected setDepth(text: string): void {
    this.set(['depth'], text.trim() === '' ? undefined : Number(text), `How deep <${this.element()}> may stand in itself`);
  }

  protected setRatio(min: string, max: string): void {
    const value = min.trim() === '' || max.trim() === '' ? undefined : { min: Number(min), max: Number(max) };
    this.set(['ratio'], value, `Proportions of <${this.element()}>`);
  }

  private set(keys: string[], value: Json | undefined, label: string): void {
    const [first, second] = keys;
    const probe: JsonObject = second === undefined ? { [first!]: value ?? null } : { [first!]: { [second]: value ?? null } };
    const checked = value === undefined ? null : elementRuleSchema.safeParse(probe);
    if (checked !== null && !checked.success) {
      const message = checked.error.issues[0]?.message ?? 'is not possible';
      this.failure.set(`${first}: ${message}.`);
      return;
    }
    this.failure.set('');
    this.source.set(['markup', 'elements', this.element(), ...keys], value, label);
  }
}

function wordsOf(text: string): string[] {
  return text
    .toLowerCase()
    .split(/[\s,]+/)
    .filter((word) => word !== '');
}
