import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import {
  isAttributeForbidden,
  riskOfAttribute,
  URL_ATTRIBUTES,
  type AttributeTest,
  type Json,
  type JsonObject,
} from '@typikon/core/settings';
import { SettingsSource } from '../form/settings-source';
import { TestForm } from './test-form';

/** The attributes of one element, or of every element: what each value must be, how often it occurs, who set it. */
@Component({
  selector: 'ty-attribute-rules',
  imports: [MatTableModule, MatInputModule, MatFormFieldModule, MatButtonModule, TestForm],
  templateUrl: './attribute-rules.html',
  styleUrl: './attribute-rules.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AttributeRules {
  protected readonly same = (_: number, row: { name: string }): string => row.name;
  /** The element; null for the attributes that every element may have. */
  readonly element = input.required<string | null>();
  readonly tests = input.required<Readonly<Record<string, AttributeTest>>>();

  private readonly source = inject(SettingsSource);
  /** How often each attribute occurs on the bench; null where there is none. */
  private readonly counts = computed(() => this.source.attributeCounts(this.element()));
  protected readonly columns = computed(() => ['name', 'test', ...(this.counts() === null ? [] : ['count']), 'from', 'more']);
  protected readonly newName = signal('');
  protected readonly failure = signal('');
  protected readonly fieldId = computed(() => `add-${this.element() ?? 'any'}`);

  protected readonly rows = computed(() => {
    const counts = this.counts() ?? {};
    return Object.entries(this.tests()).map(([name, test]) => ({
      name,
      test,
      count: counts[name] ?? 0,
      risk: riskOfAttribute(name).why,
      ...this.source.origin(this.keysOf(name)),
    }));
  });
  /** Attributes on the bench that no rule keeps. */
  protected readonly unruled = computed(() => {
    const general = this.source.section(['markup'])?.['attributes'] ?? {};
    const ruled = new Set([...Object.keys(this.tests()), ...Object.keys(general)]);
    return Object.entries(this.counts() ?? {})
      .filter(([name]) => !ruled.has(name) && !isAttributeForbidden(name, this.element() ?? '') && /^[a-z][a-z0-9_:.-]*$/.test(name))
      .map(([name, count]) => ({ name, count }));
  });

  private keysOf(name: string): string[] {
    const element = this.element();
    return ['markup', ...(element === null ? ['attributes'] : ['elements', element, 'attributes']), name];
  }

  protected setTest(name: string, test: JsonObject): void {
    this.set(this.keysOf(name), test, `${name} on ${this.subject()}`);
  }

  protected add(name: string): void {
    const attribute = name.trim().toLowerCase();
    if (!/^[a-z][a-z0-9_:.-]*$/.test(attribute)) this.failure.set(`“${name}” cannot be the name of an attribute.`);
    else if (isAttributeForbidden(attribute, this.element() ?? ''))
      this.failure.set(`The safety floor takes ${attribute} away whatever a profile says.`);
    else {
      const test: JsonObject = URL_ATTRIBUTES.has(attribute)
        ? { test: 'url' }
        : attribute === 'style'
          ? { test: 'style', properties: {} }
          : attribute === 'lang'
            ? { test: 'language' }
            : { test: 'text' };
      this.set(this.keysOf(attribute), test, `Allowing ${attribute} on ${this.subject()}`);
      this.newName.set('');
    }
  }

  protected remove(name: string): void {
    this.set(this.keysOf(name), undefined, `Removing ${name} from ${this.subject()}`);
  }

  protected reset(name: string): void {
    this.source.reset(this.keysOf(name), `${name} on ${this.subject()}`);
  }

  private subject(): string {
    const element = this.element();
    return element === null ? 'every element' : `<${element}>`;
  }

  private set(keys: string[], value: Json | undefined, label: string): void {
    this.failure.set('');
    this.source.set(keys, value, label);
  }
}
