import { type CdkDragDrop, DragDropModule, moveItemInArray } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import { FIELD_KIND_WORDS, fieldSchema, idFrom, type ContentType, type Field, type Statement } from '@typikon/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { SiteFindings } from '../../state/site-findings';
import { Confirm, type Question } from '../../ui/confirm';
import { TitleLine } from '../../ui/title-line';
import { TypeIcon } from '../../ui/type-icon';
import { Equipment } from '../../shared/writing/equipment';
import { AuthorSight } from './author-sight';
import { FieldForm } from './field-form';
import { SiteOpening } from '../../shared/site/site-opening';
import { SiteState } from '../../shared/site/site-state';
import { TypeDialog, type TypeQuestion } from './type-dialog';

/** One content type: its fields in order, the settings of one of them, and all of it as its author sees it. */
@Component({
  selector: 'ty-type-page',
  imports: [AuthorSight, DragDropModule, FieldForm, MatButtonModule, RouterLink, SiteState, TitleLine, TypeIcon, SiteOpening],
  templateUrl: './type-page.html',
  styleUrl: './type-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TypePage {
  /** The id of the type, from the address. */
  readonly type = input.required<string>();
  /** The key of the field, from the address. */
  readonly field = input<string>();
  protected readonly site = inject(SiteStore);
  private readonly findings = inject(SiteFindings);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly client = inject(ContractClient);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  protected readonly equipment = inject(Equipment);
  protected readonly kindWords = FIELD_KIND_WORDS;
  protected readonly moved = signal('');
  protected readonly content = computed((): ContentType | null => this.site.types().find(({ id }) => id === this.type()) ?? null);
  protected readonly chosen = computed((): Field | null => {
    const fields = this.content()?.fields ?? [];
    return fields.find(({ key }) => key === this.field()) ?? fields[0] ?? null;
  });
  protected readonly heading = computed(() => {
    const type = this.content();
    if (type === null) return this.site.status() === 'ready' ? 'No such content type' : '';
    const { length } = type.fields;
    return `${type.label}, ${length === 0 ? 'no field yet' : length === 1 ? 'one field' : `${length} fields`}`;
  });
  /** What the checks find of this type, by field. */
  protected readonly faults = computed((): ReadonlyMap<string, readonly string[]> => {
    const faults = new Map<string, string[]>();
    for (const { type, field, sentence, check } of this.findings.all())
      // That nothing explains it is said where the help would stand.
      if (type === this.type() && field !== undefined && check !== 'field-without-help')
        faults.set(field, [...(faults.get(field) ?? []), sentence]);
    return faults;
  });
  /** The statements that speak of this type, with their places. */
  protected readonly statements = computed(() => {
    const names = this.names();
    const roles = new Map(this.site.roles().map(({ id, label }) => [id, label]));
    const titles = new Map(this.content()?.fields.map(({ key, title }) => [key, title]));
    return this.site
      .statements()
      .map((statement, at) => ({ statement, at }))
      .filter(
        ({ statement: { types, fields } }) => speaksOf(types, this.type()) && (fields === '*' || fields.some((key) => titles.has(key))),
      )
      .map(({ statement, at }) => ({
        at,
        who: statement.roles === '*' ? 'Everybody' : statement.roles.map((id) => roles.get(id) ?? id).join(', '),
        where: statement.fields === '*' ? '' : statement.fields.flatMap((key) => titles.get(key) ?? []).join(', '),
        which: statement.profiles.map((id) => names.get(id) ?? id).join(', or '),
      }));
  });

  constructor() {
    // An address without a field is that of the first.
    effect(() => {
      const [asked, chosen] = [this.field(), this.chosen()];
      if (asked !== undefined && chosen !== null && asked !== chosen.key && this.site.status() === 'ready') this.go(chosen.key, true);
    });
  }

  protected go(key: string, replaceUrl = false): void {
    void this.router.navigate(['/types', this.type(), key], { replaceUrl });
  }

  protected add(): void {
    const fields = this.content()?.fields ?? [];
    let title = 'New field';
    for (let n = 2; fields.some((field) => field.key === idFrom(title)); n++) title = `New field ${n}`;
    const field = fieldSchema.parse({ key: idFrom(title), title });
    this.site.changeType('', this.type(), (type) => ({ ...type, fields: [...type.fields, field] }));
    this.go(field.key);
  }

  /** What is told of the documents in which something stands in a field; empty where there is none, or nobody knows. */
  private async heldIn(key: string): Promise<string> {
    try {
      const { body } = await firstValueFrom(this.client.get('/types/{type}/use', {}, { type: this.type() }));
      const held = body.fields.find((field) => field.key === key)?.documents ?? 0;
      if (held === 0) return '';
      return `Something stands in it in ${held === 1 ? 'one document' : `${held} documents`}: it stays stored, shows nowhere, and is back with a field that has the key “${key}”. `;
    } catch {
      return '';
    }
  }

  protected async remove({ key, title }: Field): Promise<void> {
    const data: Question = {
      title: `Take the field “${title}” away?`,
      text: `Authors will not find it any more. ${await this.heldIn(key)}Nothing changes before you save, and the step can be taken back.`,
      answers: [
        { value: 'no', label: 'Leave it' },
        { value: 'yes', label: 'Take it away', isMain: true },
      ],
    };
    const answer = await firstValueFrom(this.dialog.open<Confirm, Question, string>(Confirm, { data, width: '440px' }).afterClosed());
    if (answer !== 'yes') return;
    const isElsewhere = this.site.types().some((type) => type.id !== this.type() && type.fields.some((field) => field.key === key));
    this.site.change('', (site) => ({
      ...site,
      types: site.types.map((type) =>
        type.id === this.type() ? { ...type, fields: type.fields.filter((field) => field.key !== key) } : type,
      ),
      // A statement may not speak of a field that no type has.
      assignments: isElsewhere ? site.assignments : withoutField(site.assignments, key),
    }));
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.move(previousIndex, currentIndex);
  }

  /** By the keys: Alt and an arrow move the field that has the focus. */
  protected arrow(event: KeyboardEvent, at: number): void {
    if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    const to = at + (event.key === 'ArrowUp' ? -1 : 1);
    const fields = this.content()?.fields ?? [];
    const field = fields[at];
    if (to < 0 || to >= fields.length || field === undefined) return;
    this.move(at, to);
    this.moved.set(`${field.title} is now number ${to + 1} of ${fields.length}.`);
    const list = (event.currentTarget as HTMLElement).closest('ol');
    requestAnimationFrame(() => list?.querySelectorAll<HTMLElement>('a.field')[to]?.focus());
  }

  private move(from: number, to: number): void {
    this.site.changeType('', this.type(), (type) => {
      const fields = [...type.fields];
      moveItemInArray(fields, from, to);
      return { ...type, fields };
    });
  }

  protected async settings(changed: ContentType): Promise<void> {
    const data: TypeQuestion = { from: null, changed };
    const made = await firstValueFrom(
      this.dialog.open<TypeDialog, TypeQuestion, ContentType>(TypeDialog, { data, width: '480px' }).afterClosed(),
    );
    if (made !== undefined) this.site.changeType('', changed.id, ({ fields }) => ({ ...made, fields }));
  }
}

const speaksOf = (names: '*' | readonly string[], name: string): boolean => names === '*' || names.includes(name);

function withoutField(statements: readonly Statement[], key: string): Statement[] {
  return statements.flatMap((statement) => {
    const fields = statement.fields === '*' ? ('*' as const) : statement.fields.filter((field) => field !== key);
    return fields.length === 0 ? [] : [{ ...statement, fields }];
  });
}
