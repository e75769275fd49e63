import { type CdkDragDrop, DragDropModule, moveItemInArray } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import { RouterLink } from '@angular/router';
import type { Statement } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { SiteFindings } from '../../state/site-findings';
import { TitleLine } from '../../ui/title-line';
import { SiteOpening } from '../../shared/site/site-opening';
import { SiteState } from '../../shared/site/site-state';
import { AssignmentGrid } from './assignment-grid';
import { AssignmentProbe, type Asked } from './assignment-probe';
import { StatementForm } from './statement-form';

/** Who writes where with which profile: the statements in order, the same as a grid, and a probe that answers for anybody. */
@Component({
  selector: 'ty-assignments-page',
  imports: [
    AssignmentGrid,
    AssignmentProbe,
    DragDropModule,
    MatButtonModule,
    MatFormFieldModule,
    MatSelectModule,
    RouterLink,
    SiteState,
    StatementForm,
    TitleLine,
    SiteOpening,
  ],
  templateUrl: './assignments-page.html',
  styleUrl: './assignments-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AssignmentsPage {
  /** What the probe is asked, from the address. */
  readonly who = input<string>();
  readonly document = input<string>();
  readonly type = input<string>();
  readonly field = input<string>();
  protected readonly asked = computed((): Asked | null => {
    const [who, document, type, field] = [this.who(), this.document(), this.type(), this.field()].map((value) => value ?? '');
    return who === '' && document === '' && type === '' ? null : { who: who!, document: document!, type: type!, field: field! };
  });
  protected readonly site = inject(SiteStore);
  protected readonly findings = inject(SiteFindings);
  private readonly store = inject(Store);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  /** The place of the statement that is open; null for none. */
  protected readonly open = signal<number | null>(null);
  protected readonly moved = signal('');
  /** Statements that are pointed at from the grid or the probe. */
  protected readonly marked = signal<{ won: number | null; beaten: readonly number[] }>({ won: null, beaten: [] });

  protected readonly rows = computed(() => {
    const names = this.names();
    const roles = new Map(this.site.roles().map(({ id, label }) => [id, label]));
    const types = new Map(this.site.types().map(({ id, label }) => [id, label]));
    const titles = new Map(this.site.types().flatMap(({ fields }) => fields.map(({ key, title }) => [key, title] as const)));
    const faults = this.findings.all();
    const listed = (all: '*' | readonly string[], words: ReadonlyMap<string, string>, everything: string): string =>
      all === '*' ? everything : all.map((id) => words.get(id) ?? id).join(', ');
    return this.site.statements().map((statement, at) => ({
      at,
      statement,
      who: listed(statement.roles, roles, 'Everybody'),
      types: listed(statement.types, types, 'every content type'),
      fields: listed(statement.fields, titles, 'every field'),
      which: statement.profiles.map((id) => names.get(id) ?? id),
      faults: faults.filter((finding) => finding.statement === at).map(({ sentence }) => sentence),
    }));
  });
  protected readonly fallback = computed(() => this.site.draft()?.fallback ?? []);
  protected readonly others = computed(() =>
    this.findings.all().filter(({ statement, check }) => statement === undefined && check === 'field-of-nobody'),
  );

  protected toggle(at: number): void {
    this.open.update((open) => (open === at ? null : at));
  }

  protected add(): void {
    const profile = this.profiles()[0]?.id;
    if (profile === undefined) return;
    const at = this.site.statements().length;
    this.site.change('', (site) => ({
      ...site,
      assignments: [...site.assignments, { roles: '*', types: '*', fields: '*', profiles: [profile] }],
    }));
    this.open.set(at);
  }

  protected remove(at: number): void {
    this.site.change('', (site) => ({ ...site, assignments: site.assignments.toSpliced(at, 1) }));
    this.open.set(null);
  }

  protected change(at: number, statement: Statement): void {
    this.site.change(`statement ${at}`, (site) => ({ ...site, assignments: site.assignments.with(at, statement) }));
  }

  protected changeFallback(fallback: string[]): void {
    this.site.change('', (site) => ({ ...site, fallback }));
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.move(previousIndex, currentIndex);
  }

  /** By the keys: Alt and an arrow move the statement that has the focus. */
  protected arrow(event: KeyboardEvent, at: number): void {
    if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    const to = at + (event.key === 'ArrowUp' ? -1 : 1);
    if (to < 0 || to >= this.site.statements().length) return;
    this.move(at, to);
    this.moved.set(`It is now statement ${to + 1} of ${this.site.statements().length}.`);
    const list = (event.currentTarget as HTMLElement).closest('ol');
    requestAnimationFrame(() => list?.querySelectorAll<HTMLElement>('.say')[to]?.focus());
  }

  private move(from: number, to: number): void {
    this.open.set(null);
    this.site.change('', (site) => {
      const assignments = [...site.assignments];
      moveItemInArray(assignments, from, to);
      return { ...site, assignments };
    });
  }
}
