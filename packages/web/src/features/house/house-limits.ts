import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  inject,
  signal,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { isSameJson, readHouseLimits, type Json, type JsonObject } from '@typikon/core';
import { Store } from '@ngrx/store';
import { Api, type ApiFailure } from '../../state/api';
import { selectHouse } from '../../state/house';
import { libraryFeature, LibraryActions } from '../../state/library';
import { TitleLine } from '../../ui/title-line';
import { ChangesTable } from '../../shared/profile/changes-table';
import { JsonEditor, type JsonProblem } from '../../shared/profile/json-editor';

/** The house limits: what no profile exceeds, which roles are excepted from what, and the whole as text. */
@Component({
  selector: 'ty-house-limits',
  imports: [MatButtonModule, ChangesTable, TitleLine],
  templateUrl: './house-limits.html',
  styleUrl: './house-limits.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HouseLimitsPage implements OnDestroy {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly host = viewChild<ElementRef<HTMLElement>>('host');
  private readonly revision = this.store.selectSignal(libraryFeature.selectHouseRevision);
  private readonly house = this.store.selectSignal(selectHouse);
  private readonly roleNames = this.store.selectSignal(libraryFeature.selectRoles);
  protected readonly document = this.store.selectSignal(libraryFeature.selectHouseDocument);
  private readonly text = signal('');
  protected readonly isBusy = signal(false);
  protected readonly failure = signal('');
  protected readonly notice = signal('');
  private editor: JsonEditor | null = null;

  private readonly written = computed(() => `${JSON.stringify(this.document() ?? {}, null, 2)}\n`);
  protected readonly parsed = computed((): JsonObject | null => {
    try {
      return JSON.parse(this.text()) as JsonObject;
    } catch {
      return null;
    }
  });
  private readonly problems = computed(() => problemsIn(this.text()));
  protected readonly isChanged = computed(() => {
    const parsed = this.parsed();
    return parsed === null || !isSameJson(parsed, this.document() ?? {});
  });
  protected readonly canSave = computed(() => this.isChanged() && this.parsed() !== null && this.problems().length === 0 && !this.isBusy());
  protected readonly state = computed(() => {
    if (this.parsed() === null) return 'Not JSON yet';
    const { length } = this.problems();
    return length > 0 ? (length === 1 ? 'One mistake' : `${length} mistakes`) : this.isChanged() ? 'Changed, not saved' : 'As it holds now';
  });
  protected readonly roles = computed(() => {
    const names = new Map(this.roleNames().map(({ id, name }) => [id, name]));
    return Object.entries(this.house()?.trustedRoles ?? {})
      .filter(([, { except }]) => except.length > 0)
      .map(([id, { except }]) => ({ id, name: names.get(id) ?? id, except }));
  });
  protected readonly kept = computed(
    () => Object.values(this.house()?.markup.elements ?? {}).filter(({ outcome }) => (outcome ?? 'keep') === 'keep').length,
  );

  constructor() {
    effect(() => {
      const text = this.written();
      const host = this.host()?.nativeElement;
      if (host === undefined) return;
      if (this.editor === null) {
        this.text.set(text);
        this.editor = new JsonEditor(host, {
          label: 'House limits as JSON',
          text,
          check: problemsIn,
          onEdit: (typed) => this.text.set(typed),
        });
      } else this.editor.setText(text);
    });
  }

  ngOnDestroy(): void {
    this.editor?.destroy();
  }

  /** Takes an exception of a role back, at once. */
  protected withdraw(role: string, pointer: string): void {
    const document = JSON.parse(JSON.stringify(this.document() ?? {})) as JsonObject & {
      trustedRoles: Record<string, { except: string[] }>;
    };
    const entry = document.trustedRoles[role];
    if (entry === undefined) return;
    entry.except = entry.except.filter((other) => other !== pointer);
    this.send(document, 'The exception is withdrawn.');
  }

  protected save(): void {
    const parsed = this.parsed();
    if (parsed !== null && this.canSave()) this.send(parsed, 'Saved. The house limits hold as they stand here.');
  }

  protected putBack(): void {
    this.editor?.setText(this.written());
  }

  private send(document: JsonObject, notice: string): void {
    this.isBusy.set(true);
    this.failure.set('');
    this.notice.set('');
    this.api.saveHouseLimits(document, this.revision()).subscribe({
      next: (saved) => {
        this.store.dispatch(LibraryActions.houseChanged(saved));
        this.isBusy.set(false);
        this.notice.set(notice);
      },
      error: (failure: ApiFailure) => {
        this.isBusy.set(false);
        this.failure.set(failure.message);
      },
    });
  }
}

function problemsIn(text: string): JsonProblem[] {
  let document: Json;
  try {
    document = JSON.parse(text) as Json;
  } catch {
    return [];
  }
  const read = readHouseLimits(document);
  return read.ok ? [] : read.problems;
}
