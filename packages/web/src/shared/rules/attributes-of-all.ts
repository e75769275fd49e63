import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { AttributeTest, FormField, Json } from '@typikon/core';
import type { SpecialEditor } from '../form/settings-source';
import { AttributeRules } from './attribute-rules';

/** The attributes that every element may have. */
@Component({
  selector: 'ty-attributes-of-all',
  imports: [AttributeRules],
  template: `<ty-attribute-rules [element]="null" [tests]="tests()" />`,
  styles: `
    :host {
      display: block;
      padding: 4px 20px 10px;
      border-bottom: 1px solid var(--ty-hair);
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AttributesOfAll implements SpecialEditor {
  readonly field = input.required<FormField>();
  readonly keys = input.required<readonly string[]>();
  readonly value = input.required<Json | undefined>();
  readonly take = input.required<(value: Json | undefined) => string>();
  protected readonly tests = computed(() => (this.value() ?? {}) as Record<string, AttributeTest>);
}
