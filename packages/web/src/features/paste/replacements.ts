import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import {
  compileSearch,
  parseFragment,
  patternMistake,
  replacementSchema,
  takeInventory,
  visibleText,
  type FormField,
  type Json,
  type Replacement,
} from '@typikon/core';
import { Store } from '@ngrx/store';
import type { SpecialEditor } from '../../shared/form/settings-source';
import { benchFeature } from '../../state/bench';

const NEW: Replacement = { find: '', as: 'text', in: 'text', replace: '', matchCase: true };

/** Replacements of words, attribute values and elements, with their hits on the bench and a box to try them in. */
@Component({
  selector: 'ty-replacements',
  imports: [MatSelectModule, MatCheckboxModule, MatInputModule, MatFormFieldModule, MatButtonModule],
  templateUrl: './replacements.html',
  styleUrl: './replacements.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReplacementsField implements SpecialEditor {
  readonly field = input.required<FormField>();
  readonly keys = input.required<readonly string[]>();
  readonly value = input.required<Json | undefined>();
  readonly take = input.required<(value: Json | undefined) => string>();
  private readonly rules = computed(() => (this.value() ?? []) as unknown as readonly Replacement[]);
  private readonly source = inject(Store).selectSignal(benchFeature.selectInput);
  /** The rules as they are typed: one that is not finished is kept here and takes no effect yet. */
  protected readonly typed = linkedSignal<readonly Replacement[], Replacement[]>({
    source: this.rules,
    computation: (rules, previous) => {
      const unfinished = previous?.value.filter((rule) => mistakeOf(rule) !== '') ?? [];
      return [...rules, ...unfinished];
    },
  });
  protected readonly trial = signal('');

  private readonly texts = computed(() => {
    const html = this.source() ?? '';
    const { root } = parseFragment(html);
    return {
      text: visibleText(root),
      attributes: takeInventory(html)
        .filter(({ kind }) => kind === 'link' || kind === 'attribute')
        .flatMap(({ values }) => values),
    };
  });
  protected readonly rows = computed(() =>
    this.typed().map((rule) => {
      const mistake = mistakeOf(rule);
      return { rule, mistake, hits: mistake === '' ? this.hitsOf(rule) : '' };
    }),
  );
  /** What becomes of the words in the trial box. */
  protected readonly outcome = computed(() => {
    const trial = this.trial();
    if (trial === '') return null;
    let hits = 0;
    let text = trial;
    for (const rule of this.typed()) {
      const search = rule.in === 'text' && mistakeOf(rule) === '' ? compileSearch(rule) : null;
      if (search === null) continue;
      const found = search(text);
      hits += found.length;
      text = found.reduceRight((before, { start, end, text: instead }) => before.slice(0, start) + instead + before.slice(end), text);
    }
    return { hits, text };
  });

  /** Where it is looked for, by the value of the choice. */
  protected look(index: number, where: string): void {
    const read = replacementSchema.shape.in.safeParse(where);
    if (read.success) this.change(index, { in: read.data });
  }

  protected change(index: number, part: Partial<Replacement>): void {
    this.put(this.typed().with(index, { ...this.typed()[index]!, ...part }));
  }

  protected name(index: number, typed: string): void {
    const { name: _name, ...rest } = this.typed()[index]!;
    this.put(this.typed().with(index, typed.trim() === '' ? rest : { ...rest, name: typed.trim().toLowerCase() }));
  }

  protected add(): void {
    this.typed.update((rules) => [...rules, NEW]);
  }

  protected remove(index: number): void {
    this.put(this.typed().filter((_, i) => i !== index));
  }

  private put(rules: Replacement[]): void {
    this.typed.set(rules);
    const finished = rules.filter((rule) => mistakeOf(rule) === '');
    if (JSON.stringify(finished) !== JSON.stringify(this.rules())) this.take()(finished);
  }

  private hitsOf(rule: Replacement): string {
    const search = compileSearch(rule);
    if (search === null) return '';
    const { text, attributes } = this.texts();
    if (rule.in === 'elements') return '';
    const hits = rule.in === 'text' ? search(text).length : attributes.reduce((sum, value) => sum + search(value).length, 0);
    return hits === 0 ? 'no hit here' : hits === 1 ? '1 hit here' : `${hits} hits here`;
  }
}

/** What is wrong with a rule, in a sentence; empty where it can be used. */
function mistakeOf({ find, as, name }: Replacement): string {
  if (find === '') return 'Type what is looked for.';
  if (name !== undefined && !/^[a-z][a-z0-9-]*$/.test(name)) return `“${name}” is no name of an element or attribute.`;
  return as === 'pattern' ? (patternMistake(find) ?? '') : '';
}
