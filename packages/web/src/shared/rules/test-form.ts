import { ChangeDetectionStrategy, Component, computed, effect, forwardRef, input, output, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import type { StyleTest } from '@typikon/core';
import { styleTestSchema, type AttributeTest, type FormField, type JsonObject } from '@typikon/core/settings';
import { ATTRIBUTE_TEST_FORMS, fieldText, STYLE_TEST_FORMS, withField, type TestOffer } from './test-fields';

/** The test of one attribute or of one style property, as form controls. */
@Component({
  selector: 'ty-test-form',
  imports: [MatSelectModule, MatCheckboxModule, MatInputModule, MatFormFieldModule, MatButtonModule, forwardRef(() => TestForm)],
  template: `
    <div class="test">
      <mat-form-field appearance="outline" subscriptSizing="dynamic"
        ><mat-select [aria-label]="'Test for ' + name()" [value]="test().test" (valueChange)="setTest($event)">
          @for (option of options(); track option.test) {
            <mat-option [value]="option.test">{{ option.label }}</mat-option>
          }
        </mat-select></mat-form-field
      >
      @for (field of fields(); track field.title) {
        @if (field.kind === 'flag') {
          <mat-checkbox class="flag" [checked]="textOf(field) === 'true'" (change)="set(field, $event.checked ? 'true' : '')">{{
            field.title
          }}</mat-checkbox>
        } @else {
          <mat-form-field
            appearance="outline"
            subscriptSizing="dynamic"
            [class.wide]="field.kind !== 'number'"
            [class.small]="field.kind === 'number'"
          >
            <input
              matInput
              #field1
              [attr.inputmode]="field.kind === 'number' ? 'decimal' : null"
              [attr.aria-label]="field.title + ' of ' + name()"
              [placeholder]="field.placeholder"
              [value]="textOf(field)"
              (change)="set(field, field1.value)"
          /></mat-form-field>
        }
      }
    </div>
    @if (test().test === 'style') {
      <ul>
        @for (property of properties(); track property.name) {
          <li>
            <code>{{ property.name }}</code>
            <ty-test-form kind="style" [name]="property.name" [test]="property.test" (changed)="setProperty(property.name, $event)" />
            <button
              mat-button
              type="button"
              class="ty-quiet"
              [attr.aria-label]="'Remove ' + property.name"
              (click)="setProperty(property.name, null)"
            >
              Remove
            </button>
          </li>
        }
        <li>
          <mat-form-field appearance="outline" subscriptSizing="dynamic" class="small">
            <input
              matInput
              #added
              placeholder="property"
              [attr.aria-label]="'Allow a style property in ' + name()"
              (keydown.enter)="addProperty(added.value); added.value = ''"
          /></mat-form-field>
          <button mat-button type="button" class="ty-quiet" (click)="addProperty(added.value); added.value = ''">Allow the property</button>
        </li>
      </ul>
    }
    <p class="failure" role="alert">{{ failure() }}</p>
  `,
  styles: `
    :host {
      display: block;
    }
    .test {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 6px;
    }
    mat-form-field {
      --mat-form-field-container-height: 28px;
      --mat-form-field-container-vertical-padding: 3px;
      --mat-form-field-container-text-size: 12.5px;
      --mat-select-trigger-text-size: 12.5px;

      width: 120px;
    }
    .wide {
      width: 142px;
    }
    .small {
      width: 62px;
    }
    .flag {
      display: inline-flex;
      align-items: center;
      gap: 5px;
    }
    ul {
      margin: 4px 0 0;
      padding: 0 0 0 10px;
      border-left: 2px solid var(--ty-line);
      list-style: none;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 8px;
      padding: 2px 0;
    }
    .failure:not(:empty) {
      padding-top: 4px;
      color: var(--ty-rubric);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TestForm {
  readonly kind = input<'attribute' | 'style'>('attribute');
  /** The attribute's or property's name, for the labels. */
  readonly name = input.required<string>();
  readonly test = input.required<AttributeTest | StyleTest>();
  /** The whole test, changed. */
  readonly changed = output<JsonObject>();
  protected readonly failure = signal('');

  constructor() {
    // What reads patterns comes with the first pattern; without it the server would tell of a mistake.
    effect(() => {
      if (this.test().test === 'pattern') void import('@typikon/core/pattern-engine').catch(() => undefined);
    });
  }

  protected readonly options = computed(() =>
    Object.entries(this.forms())
      .filter(([test]) => (test !== 'style' || this.name() === 'style') && (test !== 'features' || this.name() === 'allow'))
      .map(([test, { label }]) => ({ test, label })),
  );
  protected readonly fields = computed((): readonly FormField[] => this.forms()[this.test().test]?.fields ?? []);
  protected readonly properties = computed(() => {
    const test = this.test();
    return test.test === 'style' ? Object.entries(test.properties).map(([name, own]) => ({ name, test: own })) : [];
  });

  private forms(): Readonly<Record<string, TestOffer>> {
    return this.kind() === 'attribute' ? ATTRIBUTE_TEST_FORMS : STYLE_TEST_FORMS;
  }

  protected textOf(field: FormField): string {
    return fieldText(this.test(), field);
  }

  /** Another test begins with something that passes as little as possible. */
  protected setTest(test: string): void {
    const before = this.test();
    const values = 'values' in before && before.values !== undefined && before.values.length > 0 ? [...before.values] : ['value'];
    const begin: Record<string, JsonObject> = {
      list: { test, values },
      tokens: { test, values: values.flatMap((value) => value.split(/\s+/)) },
      colour: { test, values: ['#000000'] },
      features: { test, values: ['fullscreen'] },
      pattern: { test, pattern: '[a-z0-9-]+' },
      integer: { test, min: 1 },
      number: { test, min: 0 },
      length: { test, ranges: { px: { min: 0, max: 100 } } },
      style: { test, properties: {} },
    };
    this.failure.set('');
    this.changed.emit(begin[test] ?? { test });
  }

  protected set(field: FormField, text: string): void {
    const made = withField(this.kind(), this.test(), field, text);
    this.failure.set(made.ok ? '' : made.message);
    if (made.ok) this.changed.emit(made.test);
  }

  protected setProperty(name: string, test: JsonObject | null): void {
    const before = this.test();
    if (before.test !== 'style') return;
    const { [name]: _old, ...rest } = before.properties;
    const properties = test === null ? rest : { ...before.properties, [name]: test };
    this.failure.set('');
    this.changed.emit({ test: 'style', properties: properties });
  }

  protected addProperty(name: string): void {
    const property = name.trim().toLowerCase();
    if (property === '') return;
    if (!/^-?[a-z][a-z-]*$/.test(property)) this.failure.set(`“${name}” cannot be a style property.`);
    else
      this.setProperty(
        property,
        /color$/.test(property) ? { test: 'colour', values: ['#000000'] } : styleTestSchema.parse({ test: 'any' }),
      );
  }
}
