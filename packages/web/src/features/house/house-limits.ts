import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatTooltipModule } from '@angular/material/tooltip';
import { RouterLink } from '@angular/router';
import { markupSchema, readHouseLimits, resolveProfile, toPointer, valueAt, type JsonObject, type Markup } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { Redo2, Undo2 } from 'lucide';
import { SchemesField } from '../../shared/form/schemes-field';
import { SettingsForm } from '../../shared/form/settings-form';
import { SettingsSource, SPECIAL_EDITORS } from '../../shared/form/settings-source';
import { ChangesTable, differencesOf } from '../../shared/profile/changes-table';
import type { JsonProblem } from '../../shared/profile/json-editor';
import { JsonText } from '../../shared/profile/json-text';
import { AttributesOfAll } from '../../shared/rules/attributes-of-all';
import { ElementDetails } from '../../shared/rules/element-details';
import { RuleTable } from '../../shared/rules/rule-table';
import { selectIsHouseAhead } from '../../state/house';
import { libraryFeature } from '../../state/library';
import { nameOf } from '../../state/profile-name';
import { Icon } from '../../ui/icon';
import type { Unsaved } from '../../ui/leaving';
import { TitleLine } from '../../ui/title-line';
import { TOOLTIPS } from '../../ui/tooltips';
import { houseGroups, type HouseRow } from './house-rows';
import { HouseSettings } from './house-settings';
import { HouseStore } from './house-store';
import { inAddress } from '../../ui/in-address';

/** The house limits: what no profile exceeds, which roles are excepted from what, what profiles use of it; as a table and as text. */
@Component({
  selector: 'ty-house-limits',
  imports: [
    ChangesTable,
    ElementDetails,
    Icon,
    JsonText,
    MatButtonModule,
    MatCheckboxModule,
    MatFormFieldModule,
    MatInputModule,
    MatTooltipModule,
    RuleTable,
    SettingsForm,
    TitleLine,
    RouterLink,
  ],
  templateUrl: './house-limits.html',
  styleUrl: './house-limits.scss',
  providers: [
    TOOLTIPS,
    HouseStore,
    HouseSettings,
    { provide: SettingsSource, useExisting: HouseSettings },
    { provide: SPECIAL_EDITORS, useValue: { attributes: AttributesOfAll, schemes: SchemesField } },
  ],
  host: { '(window:keydown)': 'key($event)', '(window:beforeunload)': 'beforeUnload($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HouseLimitsPage implements Unsaved {
  private readonly store = inject(Store);
  protected readonly limits = inject(HouseStore);
  protected readonly icons = { undo: Undo2, redo: Redo2 };
  protected readonly schema = markupSchema;
  private readonly stored = this.store.selectSignal(libraryFeature.selectProfiles);
  protected readonly roles = this.store.selectSignal(libraryFeature.selectRoles);
  /** Whether what is saved says something else than what holds. */
  protected readonly isAhead = this.store.selectSignal(selectIsHouseAhead);
  protected readonly isText = signal(false);
  protected readonly filter = inAddress('words');
  private readonly only = inAddress('only');
  protected readonly onlyUnused = computed(() => this.only() === 'unused');
  protected readonly chosen = signal<string | null>(null);

  /** The profiles as they are stored, each with what it inherits; one with mistakes says nothing of what it uses. */
  private readonly profiles = computed(() => {
    const documents = new Map(this.stored().map(({ id, document }) => [id, document]));
    return this.stored().flatMap((profile): { id: string; name: string; markup: Markup }[] => {
      const resolution = resolveProfile(profile.id, (id) => documents.get(id));
      return resolution.ok ? [{ id: profile.id, name: nameOf(profile), markup: resolution.resolved.profile.markup }] : [];
    });
  });
  private readonly all = computed(() => {
    const house = this.limits.house();
    return house === null ? [] : houseGroups(house, this.profiles(), this.roles());
  });
  private readonly rows = computed(() => this.all().flatMap(({ rows }) => rows));
  protected readonly groups = computed(() => {
    const wanted = this.filter().trim().toLowerCase();
    const onlyUnused = this.onlyUnused();
    return this.all()
      .map((group) => ({
        ...group,
        rows: group.rows.filter(
          (row) =>
            (!onlyUnused || row.isUnused || row.unusedAttributes.length > 0) &&
            (wanted === '' ||
              row.name === wanted ||
              `${row.name} ${row.meaning} ${group.name} ${row.attributes.join(' ')} ${row.users.join(' ')}`.toLowerCase().includes(wanted)),
        ),
      }))
      .filter(({ rows }) => rows.length > 0);
  });
  protected readonly kept = computed(() => this.rows().filter(({ isAllowed }) => isAllowed).length);
  protected readonly unused = computed(() => this.rows().filter(({ isUnused }) => isUnused).length);
  protected readonly total = computed(() => this.rows().length);
  /** Exceptions that are not about a whole element stand in no column. */
  protected readonly exceptions = computed(() => {
    const names = new Map(this.roles().map(({ id, name }) => [id, name]));
    return Object.entries(this.limits.house()?.trustedRoles ?? {})
      .filter(([, { except }]) => except.length > 0)
      .map(([id, { except }]) => ({ id, name: names.get(id) ?? id, except }));
  });
  /** Whether somebody else than who changed a draft has to release it. */
  protected readonly hasSecondPerson = computed(() => valueAt(this.limits.draft(), ['release', 'secondPerson']) === true);
  protected askSecondPerson(isAsked: boolean): void {
    this.limits.set(['release'], isAsked ? { secondPerson: true } : undefined, 'Who releases what');
  }
  protected readonly changes = computed(() => differencesOf(this.limits.saved(), this.limits.draft()).length);
  protected readonly state = computed(() => {
    if (this.limits.isSaving()) return 'Saving …';
    const changes = this.changes();
    if (changes === 0) return this.isAhead() ? 'Saved, not released yet' : 'As they hold now';
    return changes === 1 ? 'One change, not saved yet' : `${changes} changes, not saved yet`;
  });
  protected readonly lastStep = computed(() => this.limits.past().at(-1)?.label ?? '');
  protected readonly nextStep = computed(() => this.limits.future()[0]?.label ?? '');

  protected readonly problemsIn = (document: JsonObject): readonly JsonProblem[] => {
    const read = readHouseLimits(document);
    return read.ok ? [] : read.problems;
  };

  protected showOnlyUnused(isOn: boolean): void {
    this.only.set(isOn ? 'unused' : '');
  }

  protected choose(row: HouseRow): void {
    this.chosen.update((chosen) => (chosen === row.name ? null : row.name));
  }

  protected allow(row: HouseRow, isAllowed: boolean): void {
    this.limits.set(['markup', 'elements', row.name], isAllowed ? {} : undefined, `${isAllowed ? 'Allowing' : 'Removing'} <${row.name}>`);
  }

  protected except(row: HouseRow, role: HouseRow['roles'][number], isExcepted: boolean): void {
    const label = isExcepted ? `<${row.name}> for ${role.name}` : `<${row.name}> no longer for ${role.name}`;
    this.limits.except(role.id, toPointer(['elements', row.name]), isExcepted, label);
  }

  protected withdraw(role: { id: string; name: string }, pointer: string): void {
    this.limits.except(role.id, pointer, false, `Withdrawing an exception of ${role.name}`);
  }

  unsaved() {
    const count = this.changes();
    if (count === 0) return null;
    return {
      title: 'The house limits are not saved',
      text: `${count === 1 ? 'One change does' : `${count} changes do`} not hold for any profile yet.`,
      count,
    };
  }

  abandon(): void {
    this.limits.putBack();
  }

  save(): Promise<boolean> {
    return this.limits.save();
  }

  protected key(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
    const key = event.key.toLowerCase();
    if (key === 's') void this.save();
    // In a text field the keys undo what was typed there.
    else if ((event.target as HTMLElement).closest?.('input:not([type=checkbox]), textarea, .cm-editor') != null) return;
    else if (key === 'z' && event.shiftKey) this.limits.redo();
    else if (key === 'z') this.limits.undo();
    else if (key === 'y') this.limits.redo();
    else return;
    event.preventDefault();
  }

  protected beforeUnload(event: BeforeUnloadEvent): void {
    if (this.changes() > 0) event.preventDefault();
  }
}
