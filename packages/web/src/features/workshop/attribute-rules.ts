import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import {
  isAttributeForbidden,
  originOf,
  riskOfAttribute,
  toPointer,
  URL_ATTRIBUTES,
  type AttributeTest,
  type Json,
  type JsonObject,
} from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from '../../shared/profile/edit';
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
  protected readonly columns = ['name', 'test', 'count', 'from', 'more'];
  protected readonly same = (_: number, row: { name: string }): string => row.name;
  /** The element; null for the attributes that every element may have. */
  readonly element = input.required<string | null>();
  readonly tests = input.required<Readonly<Record<string, AttributeTest>>>();
  /** How often each attribute occurs on the bench. */
  readonly counts = input<Readonly<Record<string, number>>>({});

  private readonly edit = inject(ProfileEdit);
  private readonly resolved = inject(Store).selectSignal(workshopFeature.selectResolved);
  private readonly rules = inject(Store).selectSignal(workshopFeature.selectRules);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  protected readonly newName = signal('');
  protected readonly failure = signal('');
  protected readonly fieldId = computed(() => `add-${this.element() ?? 'any'}`);

  protected readonly rows = computed(() => {
    const counts = this.counts();
    return Object.entries(this.tests()).map(([name, test]) => ({
      name,
      test,
      count: counts[name] ?? 0,
      risk: riskOfAttribute(name).why,
      ...this.setBy(name),
    }));
  });
  /** Attributes on the bench that no rule keeps. */
  protected readonly unruled = computed(() => {
    const general = this.resolved()?.profile.markup.attributes ?? {};
    const ruled = new Set([...Object.keys(this.tests()), ...Object.keys(general)]);
    return Object.entries(this.counts())
      .filter(([name]) => !ruled.has(name) && !isAttributeForbidden(name, this.element() ?? '') && /^[a-z][a-z0-9_:.-]*$/.test(name))
      .map(([name, count]) => ({ name, count }));
  });

  private keysOf(name: string): string[] {
    const element = this.element();
    return ['markup', ...(element === null ? ['attributes'] : ['elements', element, 'attributes']), name];
  }

  private setBy(name: string): { from: string; isHere: boolean; isCapped: boolean; canReset: boolean } {
    const resolved = this.resolved();
    if (resolved === null) return { from: '', isHere: false, isCapped: false, canReset: false };
    const pointer = toPointer(this.keysOf(name));
    const origin = originOf(resolved.chain, pointer);
    const isHere = origin === resolved.id;
    const isInherited = resolved.chain.slice(1).some((source) => originOf([source], pointer) !== undefined);
    const isCapped = this.isCapped(name);
    const from = isCapped ? 'House limits' : isHere ? 'here' : (this.names().get(origin ?? '') ?? origin ?? '');
    return { from, isHere: isHere && !isCapped, isCapped, canReset: isHere && isInherited };
  }

  /** Whether the house limits refuse the attribute, whatever stands here. */
  private isCapped(name: string): boolean {
    const element = this.element();
    const rules = this.rules();
    if (element === null || rules === null) return false;
    const rule = rules.element(element);
    return rule.outcome === 'keep' && rule.name === element && !rule.attributes.has(name);
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
    this.edit.reset(this.keysOf(name), `Following the parent for ${name} on ${this.subject()}`);
  }

  private subject(): string {
    const element = this.element();
    return element === null ? 'every element' : `<${element}>`;
  }

  private set(keys: string[], value: Json | undefined, label: string): void {
    this.failure.set('');
    this.edit.set(keys, value, label);
  }
}
