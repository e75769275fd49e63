import { ChangeDetectionStrategy, Component, ElementRef, computed, effect, inject, signal, viewChild } from '@angular/core';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { inheritedValue, isObject, type Json, type JsonObject } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { benchFeature } from '../../state/bench';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';
import { ProfileEdit } from '../../shared/profile/edit';
import { ElementDetails } from '../../shared/rules/element-details';
import { LEARN_DIALOG } from './learn-look';
import { MarkupText } from './markup-text';
import { markupGroups, type MarkupRow } from './markup-rows';
import { RestOfMarkup } from './rest-of-markup';
import { ProfileSettings } from '../../shared/form/profile-settings';
import { SettingsSource } from '../../shared/form/settings-source';
import { RuleTable } from '../../shared/rules/rule-table';
import { Dialogs } from '../../ui/dialogs';
import { inAddress } from '../../ui/in-address';

/** §2 Markup: what may be stored, element by element, with what each rule does to the markup on the bench. */
@Component({
  selector: 'ty-markup-chapter',
  imports: [MatInputModule, MatFormFieldModule, MatButtonModule, ElementDetails, MarkupText, RestOfMarkup, RuleTable],
  templateUrl: './markup-chapter.html',
  styleUrl: './markup-chapter.scss',
  providers: [{ provide: SettingsSource, useExisting: ProfileSettings }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MarkupChapter {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly summary = this.store.selectSignal(workshopFeature.selectSummary);
  private readonly summarized = this.store.selectSignal(workshopFeature.selectSummarized);
  private readonly proof = this.store.selectSignal(benchFeature.selectProof);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly dialogs = inject(Dialogs);
  /** What is looked for below the table, by a finding or the finder. */
  protected readonly sought = this.store.selectSignal(workshopFeature.selectSought);
  private readonly census = this.store.selectSignal(libraryFeature.selectCensus);
  private readonly countFailure = this.store.selectSignal(libraryFeature.selectCensusFailure);
  protected readonly isText = signal(false);
  protected readonly chosen = this.store.selectSignal(workshopFeature.selectElement);
  protected readonly filter = inAddress('words');
  private readonly only = inAddress('only');
  protected readonly onlyHere = computed(() => this.only() === 'here');
  private readonly table = viewChild<RuleTable<MarkupRow>>(RuleTable);

  private readonly all = computed(() => {
    const resolved = this.resolved();
    const summary = this.summary();
    const summarized = this.summarized();
    return resolved === null || summary === null || summarized === null
      ? []
      : markupGroups(resolved, summary, summarized, this.proof(), this.names(), this.census());
  });

  protected readonly groups = computed(() => {
    const wanted = this.filter().trim().toLowerCase();
    const onlyHere = this.onlyHere();
    return this.all()
      .map((group) => ({
        ...group,
        rows: group.rows.filter(
          (row) =>
            (!onlyHere || row.count > 0) &&
            (wanted === '' ||
              row.name === wanted ||
              `${row.name} ${row.meaning} ${group.name} ${row.attributes.join(' ')}`.toLowerCase().includes(wanted)),
        ),
      }))
      .filter(({ rows }) => rows.length > 0);
  });

  protected readonly kept = computed(() =>
    this.all().reduce((sum, { rows }) => sum + rows.filter(({ outcome }) => outcome === 'kept').length, 0),
  );
  protected readonly total = computed(() => this.all().reduce((sum, { rows }) => sum + rows.length, 0));

  constructor() {
    // A rule that was chosen from the ledger comes into view.
    effect(() => {
      const name = this.chosen();
      if (name === null) return;
      this.isText.set(false);
      setTimeout(() => this.bringIntoView(name));
    });
  }

  /** Scrolls the table alone, and only where the row is out of sight. */
  private bringIntoView(name: string): void {
    const scroller = this.host.querySelector('.scroll');
    const row = this.table()?.rowOf(name);
    if (scroller === null || row === undefined) return;
    const view = scroller.getBoundingClientRect();
    const { top, bottom } = row.getBoundingClientRect();
    if (top > view.top + 40 && bottom < view.top + view.height / 2) return;
    scroller.scrollTop += top - view.top - view.height / 4;
  }

  protected showOnlyHere(isOn: boolean): void {
    this.only.set(isOn ? 'here' : '');
  }

  protected async learn(): Promise<void> {
    await this.dialogs.open(async () => (await import('./learn-dialog')).LearnDialog, LEARN_DIALOG);
  }

  protected storedWords(row: MarkupRow): string {
    const documents = this.census()?.documents;
    if (documents === undefined) return this.countFailure() ?? 'The stored documents are being counted …';
    if (row.stored === 0) return `None of the ${documents} stored documents has one.`;
    return `The ${documents} stored documents have ${row.stored === 1 ? 'one' : row.stored}.`;
  }

  protected choose(row: MarkupRow): void {
    this.store.dispatch(WorkshopActions.elementChosen({ element: this.chosen() === row.name ? null : row.name }));
  }

  protected toggle(row: MarkupRow, isAllowed: boolean): void {
    const keys = ['markup', 'elements', row.name];
    const resolved = this.resolved();
    if (resolved === null) return;
    if (!isAllowed) {
      this.edit.set(keys, undefined, `Removing <${row.name}>`);
      return;
    }
    // What the parent says of it comes back where it keeps it; else it is kept with the attributes of a rule it had.
    const inherited = inheritedValue(resolved.chain, keys);
    const isKeptThere = isObject(inherited) && (inherited['outcome'] ?? 'keep') === 'keep';
    this.edit.set(keys, isKeptThere ? inherited : withoutOutcome(row.rule), `Allowing <${row.name}>`);
  }

  protected effectOf(row: MarkupRow): string {
    if (row.outcome === 'floor' || row.count === 0) return '';
    const places = row.count === 1 ? 'one place' : `${row.count} places`;
    if (row.outcome !== 'kept') return `${row.summary} in ${places} here`;
    return row.changes === 0
      ? `stays in ${places} here`
      : `stays in ${places} here, ${row.changes === 1 ? 'one thing is' : `${row.changes} things are`} taken off it`;
  }

  protected reset(row: MarkupRow): void {
    this.edit.reset(['markup', 'elements', row.name], `Following the parent for <${row.name}>`);
  }
}

function withoutOutcome(rule: JsonObject | undefined): Json {
  if (rule === undefined) return {};
  const { outcome: _outcome, to: _to, ...rest } = rule;
  return rest;
}
