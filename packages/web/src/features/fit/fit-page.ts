import { DecimalPipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSelectModule } from '@angular/material/select';
import { MatTableModule } from '@angular/material/table';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { FitChart, type FitPoint } from '../../shared/chart/fit-chart';
import { TitleLine } from '../../ui/title-line';
import { FitDraftDialog, type FitDraftQuestion } from './fit-draft-dialog';
import { FitStore, type FitStep } from './fit-store';

const percent = new Intl.NumberFormat('en-GB', { style: 'percent', minimumFractionDigits: 1, maximumFractionDigits: 1 });
const whole = new Intl.NumberFormat('en-GB');
const counted = (count: number, one: string, many: string): string => `${whole.format(count)} ${count === 1 ? one : many}`;

/** The least rules that keep stored texts whole, beside what a profile allows now. */
@Component({
  selector: 'ty-fit-page',
  imports: [
    DecimalPipe,
    FitChart,
    MatButtonModule,
    MatFormFieldModule,
    MatProgressBarModule,
    MatSelectModule,
    MatTableModule,
    RouterLink,
    TitleLine,
  ],
  providers: [FitStore],
  templateUrl: './fit-page.html',
  styleUrl: './fit-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FitPage {
  /** All from the address: the profile that stands beside the way, whose texts are meant, and the step that is open. */
  readonly id = input.required<string>();
  readonly of = input<string>();
  readonly type = input<string>();
  readonly field = input<string>();
  readonly role = input<string>();
  readonly step = input<string>();
  protected readonly store = inject(FitStore);
  private readonly site = inject(SiteStore);
  private readonly router = inject(Router);
  private readonly dialogs = inject(MatDialog);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  protected readonly name = computed(() => this.names().get(this.id()) ?? this.id());
  protected readonly path = computed(() => [
    { text: 'Profiles', link: '/profiles' },
    { text: this.name(), link: `/profiles/${this.id()}` },
    { text: 'Fit' },
  ]);
  private readonly types = computed(() => this.site.held()?.types ?? []);
  private readonly roles = computed(() => this.site.held()?.roles ?? []);
  /** Rich text fields of the type that is chosen, or of all, each key once. */
  private readonly fields = computed(() => {
    const types = this.types().filter(({ id }) => this.type() === undefined || id === this.type());
    const rich = types.flatMap(({ fields }) => fields.filter(({ kind }) => kind === 'rich'));
    return [...new Map(rich.map(({ key, title }) => [key, title]))].map(([id, label]) => ({ id, label }));
  });
  /** What narrows down whose texts are meant. */
  protected readonly filters = computed(() => [
    { key: 'type', label: 'Content type', all: 'All types', value: this.type() ?? '', choices: this.types() },
    { key: 'field', label: 'Field', all: 'All fields', value: this.field() ?? '', choices: this.fields() },
    { key: 'role', label: 'Role of whoever wrote it', all: 'All roles', value: this.role() ?? '', choices: this.roles() },
  ]);
  protected readonly isOfAll = computed(() => this.of() === 'all');
  private readonly whose = computed(() => ({
    ...(this.isOfAll() ? { beside: this.id() } : { profile: this.id() }),
    ...(this.type() === undefined ? {} : { type: this.type()! }),
    ...(this.field() === undefined ? {} : { field: this.field()! }),
    ...(this.role() === undefined ? {} : { role: this.role()! }),
  }));
  protected readonly steps = computed(() => this.store.fit()?.steps ?? []);
  protected readonly present = computed(() => this.store.fit()?.present ?? null);
  /** The first step that keeps at least as many texts whole as the profile does. */
  protected readonly equal = computed(() => {
    const present = this.present();
    const at = present === null ? -1 : this.steps().findIndex((step) => step.whole >= present.whole);
    return at === -1 ? null : at;
  });
  protected readonly chosen = computed(() => {
    const steps = this.steps();
    const named = Number(this.step());
    if (this.step() !== undefined && Number.isInteger(named) && named >= 0 && named < steps.length) return named;
    return this.equal() ?? Math.max(0, steps.length - 1);
  });
  protected readonly open = computed((): FitStep | null => this.steps()[this.chosen()] ?? null);
  protected readonly points = computed((): FitPoint[] =>
    this.steps().map((step, at) => ({
      risk: step.risk,
      kept: step.kept,
      told: [
        `Step ${at}: ${this.share(step.kept)}`,
        `${counted(step.rules, 'rule', 'rules')}, risk ${step.risk}`,
        ...step.allows.slice(0, 6),
      ],
    })),
  );
  protected readonly presentPoint = computed((): FitPoint | null => {
    const present = this.present();
    if (present === null) return null;
    return {
      risk: present.risk,
      kept: present.kept,
      told: [this.name(), this.presentWords(), `${counted(present.rules, 'rule', 'rules')}, risk ${present.risk}`],
    };
  });
  protected readonly presentWords = computed(() => {
    const present = this.present();
    if (present === null) return '';
    return `keeps ${present.estimate === null ? '' : 'about '}${this.share(present.kept)} whole`;
  });
  /** What could be spared of the profile. */
  protected readonly spared = computed(() => {
    const [present, at] = [this.present(), this.equal()];
    if (present === null || at === null) return null;
    const step = this.steps()[at]!;
    return { at, rules: present.rules - step.rules, risk: present.risk - step.risk, words: this.sparedWords(present.rules - step.rules) };
  });
  protected readonly columns = ['step', 'allows', 'rules', 'risk', 'texts', 'kept'];

  constructor() {
    effect(() => {
      const whose = this.whose();
      untracked(() => void this.store.look(whose));
    });
    if (this.site.status() === 'idle') void this.site.load();
  }

  private sparedWords(rules: number): string {
    if (rules > 0) return `The same is possible with ${counted(rules, 'rule', 'rules')} fewer.`;
    return rules === 0 ? 'No fewer rules keep as many.' : `As many need ${counted(-rules, 'rule', 'rules')} more, told one by one.`;
  }

  protected readonly share = (kept: number): string => percent.format(kept);

  protected readonly texts = computed(() => counted(this.store.fit()?.texts ?? 0, 'text', 'texts'));

  protected choose(step: number): void {
    this.go({ step: String(step) });
  }

  /** A field of another type may not be one of this. */
  protected filter(key: string, value: string): void {
    this.go({ ...(key === 'type' ? { field: null } : {}), [key]: value || null, step: null });
  }

  protected go(change: Record<string, string | null>): void {
    void this.router.navigate([], { queryParams: change, queryParamsHandling: 'merge', replaceUrl: true });
  }

  /** Makes a profile of a step. */
  protected openDraft(step: FitStep): void {
    const data: FitDraftQuestion = {
      name: `Least rules of ${this.name()}`,
      words: `${this.share(step.kept)} of ${this.texts()} whole, ${counted(step.rules, 'rule', 'rules')}`,
      document: (name) => this.store.profileAt(this.chosen(), name),
    };
    this.dialogs.open<FitDraftDialog, FitDraftQuestion>(FitDraftDialog, { data, width: '480px', maxWidth: '94vw' });
  }
}
