import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { markupSchema, originOf, toPointer, valueAt, type Json, type JsonObject } from '@typikon/core';
import { Store } from '@ngrx/store';
import { benchFeature } from '../../state/bench';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { AttributeRules } from './attribute-rules';
import { ProfileEdit } from '../../shared/profile/edit';
import { SETTING_GROUPS, type Setting } from '../../shared/profile/settings';

/** The rules that are not about one element: attributes of every element, addresses, links, headings, spaces, limits, output. */
@Component({
  selector: 'ty-rest-of-markup',
  imports: [MatSelectModule, MatInputModule, MatFormFieldModule, MatButtonModule, AttributeRules],
  templateUrl: './rest-of-markup.html',
  styleUrl: './rest-of-markup.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RestOfMarkup {
  private readonly edit = inject(ProfileEdit);
  private readonly store = inject(Store);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(workshopFeature.selectRules);
  private readonly proof = this.store.selectSignal(benchFeature.selectProof);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly markup = computed(() => this.resolved()?.profile.markup ?? null);
  protected readonly failure = signal('');
  /** How often each attribute occurs on the bench, on whatever element. */
  protected readonly counts = computed(() => {
    const sums: Record<string, number> = {};
    for (const counts of Object.values(this.proof()?.census.attributes ?? {}))
      for (const [name, count] of Object.entries(counts)) sums[name] = (sums[name] ?? 0) + count;
    return sums;
  });
  protected readonly schemes = computed(() => {
    const schemes = this.markup()?.urls.schemes ?? {};
    const what: Record<string, string> = {
      href: 'Links may lead to',
      src: 'Pictures and frames may come from',
      cite: 'Quotations may name as source',
    };
    return [...new Set(['href', 'src', 'cite', ...Object.keys(schemes)])].map((attribute) => ({
      attribute,
      label: what[attribute] ?? `${attribute} may have`,
      text: (schemes[attribute] ?? ['https', 'http']).join(' '),
      ...this.origin(['urls', 'schemes', attribute]),
    }));
  });

  protected readonly groups = computed(() => {
    const resolved = this.resolved();
    const proof = this.proof();
    if (resolved === null) return [];
    const document = JSON.parse(JSON.stringify(resolved.profile.markup)) as JsonObject;
    const effects = new Map<string, number>();
    for (const { rule } of proof?.ledger ?? []) effects.set(rule, (effects.get(rule) ?? 0) + 1);
    return SETTING_GROUPS.map((group) => ({
      ...group,
      settings: group.settings.map((setting) => {
        const value = valueAt(document, setting.keys);
        const count = effects.get(toPointer(['markup', ...setting.keys])) ?? 0;
        return {
          ...setting,
          id: setting.keys.join('-'),
          value: textOf(value),
          effect: count === 0 ? '' : count === 1 ? 'one place here' : `${count} places here`,
          ...this.origin(setting.keys),
        };
      }),
    }));
  });

  /** Where a setting comes from; where the house limits are stricter, those hold. */
  private origin(keys: readonly string[]): { setBy: string; isHere: boolean; isCapped: boolean; canReset: boolean } {
    const resolved = this.resolved();
    if (resolved === null) return { setBy: '', isHere: false, isCapped: false, canReset: false };
    const pointer = toPointer(['markup', ...keys]);
    const origin = originOf(resolved.chain, pointer);
    const isHere = origin === resolved.id;
    const isCapped = this.cappedPointers().has(pointer);
    return {
      setBy: isCapped ? 'House limits' : origin === undefined ? 'default' : isHere ? 'here' : (this.names().get(origin) ?? origin),
      isHere,
      isCapped,
      canReset: isHere,
    };
  }

  private readonly cappedPointers = computed(() => {
    const rules = this.rules();
    if (rules === null) return new Set<string>();
    const authorities = [
      rules.comments,
      rules.nesting,
      rules.elements,
      rules.letters,
      rules.headings,
      rules.ids,
      rules.hardSpaces,
      rules.emptyParagraphs,
    ];
    return new Set(authorities.flatMap((setting) => (setting?.by.layer === 'house-limits' ? [setting.by.rule] : [])));
  });

  protected setSchemes(attribute: string, text: string): void {
    const schemes = text
      .toLowerCase()
      .split(/[\s,]+/)
      .map((scheme) => scheme.replace(/:(\/\/)?$/, ''))
      .filter((scheme) => scheme !== '');
    const wrong = schemes.find((scheme) => !/^[a-z][a-z0-9+.-]*$/.test(scheme));
    if (wrong !== undefined) {
      this.failure.set(`“${wrong}” cannot be a scheme. Write the part before the colon, such as https or mailto.`);
      return;
    }
    this.set(['urls', 'schemes', attribute], schemes, `Schemes of ${attribute}`);
  }

  protected setTyped(setting: Setting, text: string): void {
    const trimmed = text.trim();
    const value: Json | undefined =
      setting.kind === 'words'
        ? trimmed.split(/[\s,]+/).filter((word) => word !== '')
        : setting.kind === 'text'
          ? trimmed
          : trimmed === ''
            ? undefined
            : Number(trimmed);
    const probe = setting.keys.reduceRight<Json>((inner, key) => ({ [key]: inner }), value ?? null);
    const checked = value === undefined ? null : markupSchema.safeParse(probe);
    if (checked !== null && !checked.success) {
      this.failure.set(`${setting.label}: ${setting.hint ?? checked.error.issues[0]?.message ?? 'that cannot be used'}.`);
      return;
    }
    this.set(setting.keys, value, setting.label);
  }

  protected set(keys: readonly string[], value: Json | undefined, label: string): void {
    this.failure.set('');
    this.edit.set(['markup', ...keys], value, label);
  }

  protected setChoice(setting: Setting, value: string): void {
    this.set(setting.keys, value === 'true' ? true : value === 'false' ? false : value, setting.label);
  }

  protected reset(keys: readonly string[], label: string): void {
    this.edit.reset(['markup', ...keys], `Following the parent: ${label}`);
  }
}

/** A setting's value as its field shows it. */
function textOf(value: Json | undefined): string {
  if (Array.isArray(value)) return value.map(textOf).join(' ');
  return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? String(value) : '';
}
