import { ChangeDetectionStrategy, Component, computed, effect, ElementRef, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSelectModule, type MatSelectChange } from '@angular/material/select';
import { RouterLink } from '@angular/router';
import {
  isEmptyValue,
  mainField,
  takenLines,
  takenOf,
  titleField,
  valueProblem,
  type Assignment,
  type ContentType,
  type Field,
  type Pasted,
} from '@typikon/core';
import { draftsInBrowser, type EditorConfiguration, type TypikonEditor } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Acting, type ActingPerson } from '../../state/acting';
import { selectReleasedHouse } from '../../state/house';
import { LibraryActions } from '../../state/library';
import { SiteStore } from '../../state/site';
import { SiteWorker } from '../../state/site-worker';
import { TitleLine } from '../../ui/title-line';
import { TypeIcon } from '../../ui/type-icon';
import { Equipment } from '../../shared/writing/equipment';
import { FieldEntry } from '../../shared/writing/field-entry';
import { QuestionsStore } from '../../state/questions';
import { DeskStore } from './desk-store';
import { PublishingStrip } from './publishing-strip';
import { QuestionNotice } from './question-notice';
import { MoveDialog, type MoveAnswer, type MoveQuestion } from './move-dialog';

/** A field of the document as it stands on the desk. */
interface DeskField {
  field: Field;
  edition: string;
  value: string;
  /** The profile that its text is written with now; null for what is no rich text. */
  profile: string | null;
  /** All that may be chosen, the one it has among them. */
  choices: { id: string; name: string; note: string }[];
  /** What is said where the text has another profile than is assigned now; empty where it has not. */
  moved: string;
  configuration: EditorConfiguration | null;
  refusal: string;
  canDo: string;
  profileHelp: string;
  where: string;
  of: string;
  notes: string[];
}

/** One document as its author writes it: its fields with their help, each with the profile that is for them. */
@Component({
  selector: 'ty-desk',
  imports: [
    FieldEntry,
    MatButtonModule,
    MatFormFieldModule,
    MatInputModule,
    MatProgressBarModule,
    MatSelectModule,
    PublishingStrip,
    QuestionNotice,
    RouterLink,
    TitleLine,
    TypeIcon,
  ],
  providers: [DeskStore, QuestionsStore],
  templateUrl: './desk.html',
  styleUrl: './desk.scss',
  host: { '(window:beforeunload)': 'beforeUnload($event)', '(window:keydown)': 'key($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Desk {
  /** The id of the document, from the address. */
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly questions = inject(QuestionsStore);
  private readonly site = inject(SiteStore);
  protected readonly acting = inject(Acting);
  private readonly store = inject(Store);
  private readonly worker = inject(SiteWorker);
  private readonly dialog = inject(MatDialog);
  private readonly equipment = inject(Equipment);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly house = this.store.selectSignal(selectReleasedHouse);
  /** What was in a field before it was moved to another profile, by key. */
  protected readonly undoable = signal<ReadonlyMap<string, { value: string; profile: string | null; name: string; was: MoveUndo }>>(
    new Map(),
  );

  /** A move of which it is being worked out what it would take. */
  protected readonly moving = signal<{ title: string; to: string } | null>(null);

  protected readonly type = computed((): ContentType | null => {
    const id = this.desk.document()?.type;
    return this.site.held()?.types.find((type) => type.id === id) ?? null;
  });
  protected readonly path = computed(() => [{ text: 'Documents', link: '/write' }, { text: this.type()?.label ?? '' }]);
  protected readonly hasTitleField = computed(() => {
    const type = this.type();
    return type !== null && titleField(type) !== null;
  });
  protected readonly title = computed(() => this.desk.title() ?? this.desk.document()?.title ?? '');
  protected readonly fields = computed((): DeskField[] => {
    const [document, type] = [this.desk.document(), this.type()];
    if (document === null || type === null || !this.acting.isKnown()) return [];
    const main = mainField(type)?.key;
    return type.fields.map((field) => this.fieldOf(field, type, document.pageKind, main));
  });
  protected readonly missing = computed(() =>
    this.fields().filter(({ field, refusal }) => field.needed && refusal === '' && isEmptyValue(field.kind, this.valueNow(field.key))),
  );
  protected readonly doneSentence = computed(() => {
    const changes = this.desk.changes();
    if (changes === null) return 'As it is saved';
    return changes === 0 ? 'Saved as it stands here.' : `Saved. The rules changed ${changes === 1 ? 'one thing' : `${changes} things`}.`;
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => {
        this.undoable.set(new Map());
        void this.desk.load(id);
        void this.questions.load({ document: id }, true);
      });
    });
    // Whoever acts decides what may be written; the desk waits until that is known.
    if (this.acting.person() === null) void this.acting.load();
  }

  /** What whoever acts is asked about this document, and has not answered. */
  protected readonly asked = computed(() => {
    const person = this.acting.person()?.id ?? '';
    return this.questions.questions().filter((one) => one.answer === '' && (one.person === '' || person === '' || one.person === person));
  });
  protected nameOf(person: string): string {
    return this.acting.people().find(({ id }) => id === person)?.label ?? '';
  }
  protected fieldTitle(key: string): string {
    return this.type()?.fields.find((field) => field.key === key)?.title ?? key;
  }
  protected profileName(id: string): string {
    return this.equipment.names().get(id) ?? id;
  }

  private valueNow(key: string): string {
    return this.desk.written()[key]?.value ?? this.desk.stored().get(key)?.value ?? '';
  }

  /** That readers see a text by an earlier edition, where a release left it as it was. */
  private shownBy(key: string): string[] {
    const stored = this.desk.stored().get(key);
    if (stored?.shownBy == null) return [];
    const name = this.equipment.names().get(stored.profile ?? '') ?? stored.profile;
    return [
      `Readers see this by edition ${stored.shownBy} of “${name}”, as a release left it. Once it is saved with a change, it follows the last edition.`,
    ];
  }

  private fieldOf(field: Field, type: ContentType, pageKind: string, main: string | undefined): DeskField {
    const { key } = field;
    const [stored, written, names] = [this.desk.stored().get(key), this.desk.written()[key], this.equipment.names()];
    const person = this.acting.person();
    // Where nobody is known yet, everything may be set up.
    const roles = person === null ? (this.site.held()?.roles.map(({ id }) => id) ?? []) : this.acting.roles();
    const why = this.site.heldAssignments().why({ roles: [...roles], type: type.id, field: key });
    const had = stored?.profile ?? null;
    const profile = field.kind === 'rich' ? (written?.profile ?? had ?? why.profile) : null;
    const mayWrite = person === null || (why.profile !== null && this.acting.may('write'));
    const role = this.equipment.roleOf(roles);
    // The text that is put into a new editor, not what is being typed.
    const edition = `${key} ${profile ?? ''} ${role} ${this.desk.document()?.id ?? ''} ${this.desk.editions()[key] ?? 0}`;
    const of = key === main ? this.id() : `${this.id()}:${key}`;
    const configuration =
      profile !== null && mayWrite
        ? this.kept(edition, (): EditorConfiguration | null => {
            // What was taken of a text that is offered back belongs to it alone.
            const drafts = { ...draftsInBrowser(of, localStorage), takenBack: () => this.desk.recall(key) };
            const made = this.equipment.configuration(profile, role, { ...type, pageKind }, field, { drafts });
            return made && { ...made, onPaste: (_payload, pasted) => this.pasted(key, pasted) };
          })
        : null;
    return {
      field,
      edition,
      value: this.kept(`value ${edition}`, () => this.valueNow(key)),
      profile,
      choices: choicesOf(why, profile, had, names),
      moved: movedSentence(why, had, profile, names),
      configuration,
      refusal: refusalOf(field, mayWrite, person?.label ?? '', profile, configuration, names),
      canDo: profile !== null && mayWrite ? this.equipment.canDo(profile, role, field) : '',
      profileHelp: profile !== null && mayWrite ? this.equipment.help(profile) : '',
      where: this.equipment.where(type, key),
      of,
      notes: [...this.shownBy(key), ...this.desk.notes().flatMap((note) => (note.field === key ? [note.sentence] : []))],
    };
  }

  /** What is taken of a paste is gone before anything is stored; what it was is told with the next save, and to who keeps the help. */
  private pasted(key: string, { input, ledger }: Pasted): void {
    this.desk.lose(key, takenOf(ledger));
    this.desk.losePasted(key, takenLines(input, ledger));
    this.keep();
  }

  /** What an edition of a field was made with stays as long as that is there. */
  private readonly made = new Map<string, unknown>();
  private kept<Value>(key: string, make: () => Value): Value {
    if (!this.made.has(key)) this.made.set(key, untracked(make));
    return this.made.get(key) as Value;
  }

  protected write(key: string, value: string): void {
    this.desk.write(key, value);
    this.keep();
  }

  protected writeTitle(value: string): void {
    this.desk.writeTitle(value);
    this.keep();
  }

  private keep(): void {
    const rich = new Set(this.type()?.fields.flatMap(({ key, kind }) => (kind === 'rich' ? [key] : [])));
    this.desk.keep((key) => !rich.has(key));
  }

  /** Chooses another profile for a field; what that would take is shown before anything happens. */
  protected async choose({ field, profile: from, choices }: DeskField, { source, value: to }: MatSelectChange<string>): Promise<void> {
    if (from === to || from === null) return;
    // The chooser shows what holds until something else does.
    source.value = from;
    const { key } = field;
    const html = this.valueNow(key);
    const [fromName, toName] = [from, to].map((id) => choices.find((choice) => choice.id === id)?.name ?? id) as [string, string];
    const by = { profiles: this.equipment.documents(), house: this.house() };
    const begun = { title: field.title, to: toName };
    this.moving.set(begun);
    const move = await this.worker.move({ html, from, to, role: this.equipment.roleOf(this.acting.roles()), ...by });
    if (this.moving() === begun) this.moving.set(null);
    // What was written meanwhile is not in it: the choice is made again.
    if (move === null || this.valueNow(key) !== html) return;
    let text = html;
    if (move.ledger.length > 0) {
      const data: MoveQuestion = { title: field.title, from: fromName, to: toName, move, pageKind: this.desk.document()!.pageKind };
      const answer = await firstValueFrom(
        this.dialog
          .open<MoveDialog, MoveQuestion, MoveAnswer>(MoveDialog, { data, width: '1080px', maxWidth: '94vw', autoFocus: 'dialog' })
          .afterClosed(),
      );
      if (answer === undefined || answer === 'stay') return;
      text = answer === 'fit' ? move.fitting : move.after;
    }
    const was = this.desk.written()[key] ?? null;
    this.undoable.update((all) => new Map(all).set(key, { value: html, profile: from, name: fromName, was: { written: was } }));
    this.desk.move(key, text, to);
  }

  protected stopMove(): void {
    this.worker.stopMoves();
    this.moving.set(null);
  }

  /** Puts back the text and the profile that a field had before its last move. */
  protected undoMove(key: string): void {
    const kept = this.undoable().get(key);
    if (kept === undefined) return;
    this.desk.moveBack(key, kept.was.written);
    this.undoable.update((all) => new Map([...all].filter(([other]) => other !== key)));
  }

  protected async save(over = false): Promise<void> {
    if (!this.desk.isChanged()) return;
    const wrong = this.fields().find(
      ({ field, refusal }) =>
        refusal === '' && this.desk.written()[field.key] !== undefined && valueProblem(field, this.valueNow(field.key)) !== null,
    );
    if (wrong !== undefined) {
      this.desk.tell();
      this.host.querySelector(`[data-field="${wrong.field.key}"]`)?.scrollIntoView({ block: 'center' });
      return;
    }
    const profiles = Object.values(this.desk.written()).some((one) => one?.profile !== undefined);
    if (!(await this.desk.save(over))) return;
    this.undoable.set(new Map());
    for (const editor of this.host.querySelectorAll<TypikonEditor>('typikon-editor')) {
      const key = editor.closest('[data-field]')?.getAttribute('data-field') ?? '';
      if (this.desk.written()[key] === undefined) editor.stored();
    }
    // Lists of texts tell by which profile each was stored.
    if (profiles) this.store.dispatch(LibraryActions.requested());
  }

  /** Asks who writes in a field of this document with what, and why. */
  protected whyQuery(field: string): Record<string, string> {
    const person = this.acting.person();
    return { ...(person === null ? {} : { who: `person:${person.id}` }), document: this.id(), type: this.type()?.id ?? '', field };
  }

  protected rolesOf({ roles }: ActingPerson): string {
    return roles.length === 0 ? 'nobody in particular' : roles.map(({ label }) => label).join(', ');
  }

  protected key(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 's') return;
    event.preventDefault();
    void this.save();
  }

  protected beforeUnload(event: BeforeUnloadEvent): void {
    if (this.desk.isChanged()) event.preventDefault();
  }
}

/** What was written in a field before a move; null for what was stored. */
interface MoveUndo {
  written: { value: string; profile?: string } | null;
}

function choicesOf(
  { choices }: Assignment,
  profile: string | null,
  had: string | null,
  names: ReadonlyMap<string, string>,
): DeskField['choices'] {
  if (profile === null) return [];
  const all = [...new Set([...choices, ...(had === null ? [] : [had]), profile])];
  return all.map((id, at) => ({
    id,
    name: names.get(id) ?? id,
    note: !choices.includes(id) ? 'as it is stored' : at === 0 ? 'usual here' : '',
  }));
}

/** What is said of a text that has another profile than would be given now. */
function movedSentence(
  { profile: usual, choices }: Assignment,
  had: string | null,
  now: string | null,
  names: ReadonlyMap<string, string>,
): string {
  const name = (id: string): string => names.get(id) ?? id;
  if (had === null || usual === null || now !== had || choices.includes(had)) return '';
  return `This text was stored with ${name(had)}, and keeps its buttons and rules. ${name(usual)} is what is given here now.`;
}

/** Why nothing can be written in a field; empty where it can. */
function refusalOf(
  field: Field,
  mayWrite: boolean,
  person: string,
  profile: string | null,
  configuration: EditorConfiguration | null,
  names: ReadonlyMap<string, string>,
): string {
  if (!mayWrite) return `${person} may not write here: no statement gives their roles a profile for it.`;
  if (field.kind !== 'rich' || configuration !== null) return '';
  return profile === null
    ? 'Nobody has a profile for this, so nothing can be written here.'
    : `The profile ${names.get(profile) ?? profile} has mistakes or is gone, so nothing can be written here.`;
}
