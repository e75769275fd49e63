import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatRadioModule } from '@angular/material/radio';
import { MatSelectModule } from '@angular/material/select';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import type { ElementRule, Json, Markup } from '@typikon/core';
import { SettingsSource } from '../form/settings-source';
import { AttributeRules } from './attribute-rules';
import { ElementDemands } from './element-demands';

const OUTCOMES = [
  { outcome: 'keep', label: 'stays' },
  { outcome: 'unwrap', label: 'goes, its content stays' },
  { outcome: 'drop', label: 'goes with its content' },
  { outcome: 'text', label: 'its tags are shown as text' },
  { outcome: 'rename', label: 'becomes' },
] as const;

/** What becomes of one element, the test that each of its attributes must pass, and what it must have. */
@Component({
  selector: 'ty-element-details',
  imports: [MatRadioModule, MatSelectModule, MatFormFieldModule, MatButtonModule, AttributeRules, ElementDemands],
  templateUrl: './element-details.html',
  styleUrl: './element-details.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ElementDetails {
  readonly element = input.required<string>();

  private readonly source = inject(SettingsSource);
  private readonly markup = computed(() => this.source.section(['markup']) as unknown as Markup | null);
  protected readonly outcomes = OUTCOMES;
  protected readonly isDemanding = signal(false);

  protected readonly rule = computed<ElementRule | undefined>(() => {
    const elements = this.markup()?.elements ?? {};
    return Object.hasOwn(elements, this.element()) ? elements[this.element()] : undefined;
  });
  protected readonly outcome = computed(
    () => this.rule()?.outcome ?? (this.rule() === undefined ? (this.markup()?.unlisted ?? 'unwrap') : 'keep'),
  );
  protected readonly to = computed(() => this.rule()?.to ?? '');
  protected readonly targets = computed(() =>
    Object.entries(this.markup()?.elements ?? {})
      .filter(([name, rule]) => name !== this.element() && (rule.outcome ?? 'keep') === 'keep')
      .map(([name]) => name)
      .sort(),
  );
  protected readonly attributes = computed(() => this.rule()?.attributes ?? {});
  protected readonly demands = computed(() => {
    const rule = this.rule() ?? {};
    return ['required', 'anyOf', 'forced', 'schemes', 'withoutSource', 'empty', 'parents', 'depth', 'ratio'].filter(
      (key) => key in rule && rule[key as keyof ElementRule] !== undefined,
    );
  });

  protected setOutcome(outcome: string): void {
    const { attributes, outcome: _outcome, to: _to, ...demands } = this.rule() ?? {};
    const kept = { ...(attributes === undefined ? {} : { attributes }), ...demands };
    const rule =
      outcome === 'keep'
        ? kept
        : outcome === 'rename'
          ? { outcome, to: this.to() || this.targets()[0] || 'p', ...(demands.forced === undefined ? {} : { forced: demands.forced }) }
          : { outcome };
    this.set([], rule, `<${this.element()}>: ${OUTCOMES.find((known) => known.outcome === outcome)!.label}`);
  }

  protected setTarget(to: string): void {
    this.set(['to'], to, `<${this.element()}> becomes <${to}>`);
  }

  private set(keys: string[], value: Json | undefined, label: string): void {
    this.source.set(['markup', 'elements', this.element(), ...keys], value, label);
  }
}
