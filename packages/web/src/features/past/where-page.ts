import { DatePipe, NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { Router, RouterLink } from '@angular/router';
import { sentenceOfBrief } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { Acting } from '../../state/acting';
import { citationOf, layerOf } from '../../state/ledger-words';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { SeverityMark } from '../../ui/severity-mark';
import { TitleLine } from '../../ui/title-line';
import { typedWords } from '../../ui/typed-words';
import { STEP } from './past-words';
import { WhereStore, type LeftOut, type Taken, type Wanted } from './where-store';

/** So many letters of words are shown before they are asked for. */
const FIRST_LETTERS = 420;

/** One thing that was taken, in words. */
interface Entry {
  key: string;
  severity: Taken['severity'];
  sentence: string;
  words: string;
  /** Whether there are more words than are shown. */
  isCut: boolean;
  sample: string;
  /** The rule, as a citation, and where it stands; null for what no rule did. */
  rule: { by: string; citation: string; link: readonly string[] | null; at: string } | null;
  field: string;
  edition: string;
}

/** Everything that was ever taken of texts: by which step, rule, person and edition; found by the words that are gone. */
@Component({
  selector: 'ty-where-page',
  imports: [
    DatePipe,
    MatButtonModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    NgTemplateOutlet,
    RouterLink,
    SeverityMark,
    TitleLine,
  ],
  providers: [WhereStore],
  templateUrl: './where-page.html',
  styleUrl: './where-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WherePage {
  /** From the address, all of them. */
  readonly words = input<string>();
  readonly document = input<string>();
  readonly much = input<string>();
  protected readonly where = inject(WhereStore);
  private readonly acting = inject(Acting);
  private readonly site = inject(SiteStore);
  private readonly router = inject(Router);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  protected readonly typed = typedWords(this.words, (words) => this.ask({ words }));
  /** Entries of which all words are shown. */
  private readonly opened = signal<ReadonlySet<string>>(new Set());
  private readonly people = computed(() => new Map(this.acting.people().map(({ id, label }) => [id, label])));
  protected readonly step = STEP;
  protected readonly severity = computed((): Wanted['severity'] => {
    // Whoever looks for words wants them however much they were noticed.
    const much = this.much() ?? ((this.words() ?? '') === '' ? 'loss' : '');
    return much === 'loss' || much === 'change' || much === 'tidy' ? much : '';
  });
  protected readonly rows = computed(() =>
    this.where.found().map((taken) => ({
      taken,
      by: this.people().get(taken.by) ?? taken.by,
      entry: this.entryOf(String(taken.id), taken, taken.document),
    })),
  );
  protected readonly left = computed(() =>
    (this.where.left() ?? []).map((left, at) =>
      this.entryOf(`left-${at}`, { ...left, severity: left.line.severity }, this.where.document()?.id ?? ''),
    ),
  );

  constructor() {
    if (!this.acting.isKnown()) void this.acting.load();
    effect(() => {
      const wanted = { words: this.words() ?? '', document: this.document() ?? '', severity: this.severity() };
      untracked(() => this.where.look(wanted));
    });
  }

  private entryOf(
    key: string,
    taken: Pick<Taken, 'line' | 'sentence' | 'words' | 'sample' | 'severity' | 'field' | 'profile' | 'edition'>,
    document: string,
  ): Entry {
    const { line, words, sample, severity, profile, edition } = taken;
    const isOpen = this.opened().has(key);
    const name = (id: string): string => this.names().get(id) ?? id;
    return {
      key,
      severity,
      sentence: line === null ? taken.sentence : sentenceOfBrief(line),
      words: (isOpen || words.length <= FIRST_LETTERS ? words : `${words.slice(0, FIRST_LETTERS)} …`).replaceAll('\n', ' … '),
      isCut: !isOpen && words.length > FIRST_LETTERS,
      sample: words === '' ? sample : '',
      rule: line === null ? null : this.ruleOf(line, profile ?? ''),
      field: this.fieldName(taken.field, document),
      edition: profile === null ? '' : `${name(profile)}${edition === null ? '' : `, edition ${edition}`}`,
    };
  }

  private ruleOf(line: LeftOut['line'], profile: string): Entry['rule'] {
    const group = { ...line, origin: line.origin, places: [] };
    const by = layerOf(group, (id) => this.names().get(id) ?? id);
    const link =
      line.layer === 'profile' || line.layer === 'parent-profile'
        ? ['/profiles', line.origin ?? profile]
        : line.layer === 'house-limits'
          ? ['/house-limits']
          : null;
    return { by, citation: citationOf(group), link, at: line.rule };
  }

  private fieldName(field: string, document: string): string {
    const type = this.where.document()?.id === document ? this.where.document()?.type : undefined;
    const types = this.site.held()?.types ?? [];
    const known = type === undefined ? types : types.filter(({ id }) => id === type);
    return known.flatMap(({ fields }) => fields).find(({ key }) => key === field)?.title ?? field;
  }

  protected open(key: string): void {
    this.opened.update((all) => new Set([...all, key]));
  }

  protected ask(change: Record<string, string | null>): void {
    const queryParams = Object.fromEntries(Object.entries(change).map(([name, value]) => [name, value || null]));
    void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
  }
}
