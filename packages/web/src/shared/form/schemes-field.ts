import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { FormField, Json } from '@typikon/core';
import { SettingsSource, type SpecialEditor } from './settings-source';

const USES: Readonly<Record<string, string>> = {
  href: 'Links may lead to',
  src: 'Pictures and frames may come from',
  cite: 'Quotations may name as source',
};
/** What holds for an attribute of which nothing is said. */
const USUAL = ['https', 'http'];

/** Which schemes an address may have, by the attribute that holds it. */
@Component({
  selector: 'ty-schemes-field',
  imports: [MatFormFieldModule, MatInputModule],
  template: `
    @for (row of rows(); track row.attribute) {
      <div class="line">
        <label [for]="'schemes-' + row.attribute"
          >{{ row.label }} <code>{{ row.attribute }}</code></label
        >
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <input
            matInput
            #typed
            autocomplete="off"
            [id]="'schemes-' + row.attribute"
            [value]="row.text"
            placeholder="none"
            (change)="set(row.attribute, typed.value)"
        /></mat-form-field>
        <span class="from" [class.here]="row.isHere">{{ row.setBy }}</span>
      </div>
    }
    <p class="failure" role="alert">{{ failure() }}</p>
  `,
  styles: `
    .line {
      display: grid;
      grid-template-columns: 1fr 268px 84px;
      align-items: center;
      gap: 12px;
      padding: 5px 16px 5px 20px;
      border-bottom: 1px solid var(--ty-hair);
    }
    .line code,
    .from {
      color: var(--ty-soft);
    }
    .from {
      font-size: 12px;
    }
    .from.here {
      color: var(--ty-ink);
      font-weight: 500;
    }
    mat-form-field {
      width: 100%;
    }
    .failure:not(:empty) {
      padding: 8px 20px;
      color: var(--ty-rubric);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SchemesField implements SpecialEditor {
  readonly field = input.required<FormField>();
  readonly keys = input.required<readonly string[]>();
  readonly value = input.required<Json | undefined>();
  readonly take = input.required<(value: Json | undefined) => string>();
  private readonly source = inject(SettingsSource);
  protected readonly failure = signal('');
  protected readonly rows = computed(() => {
    const schemes = (this.value() ?? {}) as Record<string, readonly string[]>;
    return [...new Set([...Object.keys(USES), ...Object.keys(schemes)])].map((attribute) => ({
      attribute,
      label: USES[attribute] ?? `${attribute} may have`,
      text: (schemes[attribute] ?? USUAL).join(' '),
      ...this.source.origin([...this.keys(), attribute]),
    }));
  });

  protected set(attribute: string, text: string): void {
    const schemes = text
      .toLowerCase()
      .split(/[\s,]+/)
      .map((scheme) => scheme.replace(/:(\/\/)?$/, ''))
      .filter((scheme) => scheme !== '');
    const wrong = schemes.find((scheme) => !/^[a-z][a-z0-9+.-]*$/.test(scheme));
    this.failure.set(wrong === undefined ? '' : `“${wrong}” cannot be a scheme. Write the part before the colon, such as https or mailto.`);
    if (wrong === undefined) this.source.set([...this.keys(), attribute], schemes, `Schemes of ${attribute}`);
  }
}
