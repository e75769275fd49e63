import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { AttributeTest, FormField, Json } from '@typikon/core';
import { Store } from '@ngrx/store';
import type { SpecialEditor } from '../../shared/form/settings-source';
import { benchFeature } from '../../state/bench';
import { AttributeRules } from './attribute-rules';

/** The attributes that every element may have. */
@Component({
  selector: 'ty-attributes-of-all',
  imports: [AttributeRules],
  template: `<ty-attribute-rules [element]="null" [tests]="tests()" [counts]="counts()" />`,
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
  private readonly proof = inject(Store).selectSignal(benchFeature.selectProof);
  protected readonly tests = computed(() => (this.value() ?? {}) as Record<string, AttributeTest>);
  /** How often each attribute occurs on the bench, on whatever element. */
  protected readonly counts = computed(() => {
    const sums: Record<string, number> = {};
    for (const counts of Object.values(this.proof()?.census.attributes ?? {}))
      for (const [name, count] of Object.entries(counts)) sums[name] = (sums[name] ?? 0) + count;
    return sums;
  });
}
