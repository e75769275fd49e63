import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { attributeTestSchema, isAttributeForbidden, URL_ATTRIBUTES, type AttributeTest, type ElementRule, type Json } from '@typikon/core';
import { Store } from '@ngrx/store';
import { benchFeature } from '../../state/bench';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from './edit';

const TESTS: readonly { test: AttributeTest['test']; label: string }[] = [
  { test: 'text', label: 'any text' },
  { test: 'list', label: 'one of these' },
  { test: 'tokens', label: 'words of these' },
  { test: 'integer', label: 'a whole number' },
  { test: 'url', label: 'an address' },
  { test: 'language', label: 'a language' },
];

const OUTCOMES = [
  { outcome: 'keep', label: 'stays' },
  { outcome: 'unwrap', label: 'goes, its content stays' },
  { outcome: 'drop', label: 'goes with its content' },
  { outcome: 'text', label: 'its tags are shown as text' },
  { outcome: 'rename', label: 'becomes' },
] as const;

/** What becomes of one element, and the test that each of its attributes must pass. */
@Component({
  selector: 'ty-element-details',
  templateUrl: './element-details.html',
  styleUrl: './element-details.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ElementDetails {
  readonly element = input.required<string>();

  private readonly edit = inject(ProfileEdit);
  private readonly resolved = inject(Store).selectSignal(workshopFeature.selectResolved);
  private readonly proof = inject(Store).selectSignal(benchFeature.selectProof);
  protected readonly tests = TESTS;
  protected readonly outcomes = OUTCOMES;
  protected readonly newName = signal('');
  protected readonly failure = signal('');

  private readonly rule = computed<ElementRule | undefined>(() => {
    const elements = this.resolved()?.profile.markup.elements ?? {};
    return Object.hasOwn(elements, this.element()) ? elements[this.element()] : undefined;
  });
  protected readonly outcome = computed(
    () => this.rule()?.outcome ?? (this.rule() === undefined ? (this.resolved()?.profile.markup.unlisted ?? 'unwrap') : 'keep'),
  );
  protected readonly to = computed(() => this.rule()?.to ?? '');
  protected readonly targets = computed(() =>
    Object.entries(this.resolved()?.profile.markup.elements ?? {})
      .filter(([name, rule]) => name !== this.element() && (rule.outcome ?? 'keep') === 'keep')
      .map(([name]) => name)
      .sort(),
  );
  protected readonly rows = computed(() => {
    const counts = this.proof()?.census.attributes[this.element()] ?? {};
    return Object.entries(this.rule()?.attributes ?? {}).map(([name, test]) => ({
      name,
      test,
      count: counts[name] ?? 0,
      values: 'values' in test ? test.values.join(' ') : '',
    }));
  });
  /** Attributes of this element on the bench that no rule keeps. */
  protected readonly unruled = computed(() => {
    const { attributes = {} } = this.resolved()?.profile.markup ?? {};
    const ruled = new Set([...Object.keys(this.rule()?.attributes ?? {}), ...Object.keys(attributes)]);
    return Object.entries(this.proof()?.census.attributes[this.element()] ?? {})
      .filter(([name]) => !ruled.has(name) && !isAttributeForbidden(name) && /^[a-z][a-z0-9_:.-]*$/.test(name))
      .map(([name, count]) => ({ name, count }));
  });

  protected setOutcome(outcome: string): void {
    const { attributes } = this.rule() ?? {};
    const kept = attributes === undefined ? {} : { attributes };
    const rule =
      outcome === 'keep'
        ? kept
        : outcome === 'rename'
          ? { outcome, to: this.to() || this.targets()[0] || 'p', ...kept }
          : { outcome, ...kept };
    this.set([], rule as Json, `<${this.element()}>: ${OUTCOMES.find((known) => known.outcome === outcome)!.label}`);
  }

  protected setTarget(to: string): void {
    this.set(['to'], to, `<${this.element()}> becomes <${to}>`);
  }

  protected setTest(name: string, test: string): void {
    const before = this.rule()?.attributes?.[name];
    const values = before !== undefined && 'values' in before ? before.values : ['value'];
    const made: AttributeTest =
      test === 'list' || test === 'tokens'
        ? { test, values: [...values] }
        : test === 'integer'
          ? { test, min: 1 }
          : { test: test as 'text' | 'url' | 'language' };
    this.set(['attributes', name], made, `${name} on <${this.element()}>`);
  }

  protected setParameter(name: string, test: AttributeTest, key: 'values' | 'min' | 'max' | 'hosts', text: string): void {
    const words = text.split(/[\s,]+/).filter((word) => word !== '');
    const value = key === 'values' || key === 'hosts' ? words : text.trim() === '' ? undefined : Number(text);
    const { [key as never]: _old, ...rest } = test as Record<string, Json>;
    const made = value === undefined || (Array.isArray(value) && value.length === 0 && key === 'hosts') ? rest : { ...rest, [key]: value };
    const checked = attributeTestSchema.safeParse(made);
    if (!checked.success) {
      this.failure.set(
        key === 'values'
          ? `${name} needs at least one value.`
          : key === 'hosts'
            ? 'A host is written like cams.example, without https://.'
            : `${name} needs a whole number, not “${text}”.`,
      );
      return;
    }
    this.set(['attributes', name], made, `${name} on <${this.element()}>`);
  }

  protected add(name: string): void {
    const attribute = name.trim().toLowerCase();
    if (!/^[a-z][a-z0-9_:.-]*$/.test(attribute)) this.failure.set(`“${name}” cannot be the name of an attribute.`);
    else if (isAttributeForbidden(attribute)) this.failure.set(`The safety floor takes ${attribute} away whatever a profile says.`);
    else {
      this.set(
        ['attributes', attribute],
        { test: URL_ATTRIBUTES.has(attribute) ? 'url' : 'text' },
        `Allowing ${attribute} on <${this.element()}>`,
      );
      this.newName.set('');
    }
  }

  protected remove(name: string): void {
    this.set(['attributes', name], undefined, `Removing ${name} from <${this.element()}>`);
  }

  private set(keys: string[], value: Json | undefined, label: string): void {
    this.failure.set('');
    this.edit.set(['markup', 'elements', this.element(), ...keys], value, label);
  }
}
