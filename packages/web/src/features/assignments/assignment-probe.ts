import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked } from '@angular/core';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { ProbeDocument } from './probe-document';

/** What is typed in a row is asked once, in milliseconds. */
const PAUSE_MS = 200;

/** What is asked: all of it ids; empty where it is not said. */
export interface Asked {
  /** `role:` or `person:` with an id. */
  who: string;
  document: string;
  type: string;
  field: string;
}

/**
 * Answers why somebody gets a profile somewhere: the statement that won, and those that lost; of a stored document also the profile
 * with which its text was last saved.
 */
@Component({
  selector: 'ty-assignment-probe',
  imports: [MatAutocompleteModule, MatFormFieldModule, MatInputModule, MatSelectModule],
  providers: [ProbeDocument],
  template: `
    <h2>Why this one?</h2>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <mat-select aria-label="Who" placeholder="who" [value]="who()" (valueChange)="who.set($event)">
        <mat-optgroup label="Roles">
          @for (role of site.roles(); track role.id) {
            <mat-option [value]="'role:' + role.id">{{ role.label }}</mat-option>
          }
        </mat-optgroup>
        @if (site.people().length > 0) {
          <mat-optgroup label="People">
            @for (person of site.people(); track person.id) {
              <mat-option [value]="'person:' + person.id">{{ person.label }}</mat-option>
            }
          </mat-optgroup>
        }
      </mat-select>
    </mat-form-field>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <mat-select aria-label="Content type" placeholder="content type" [value]="type()" (valueChange)="chooseType($event)">
        @for (one of site.types(); track one.id) {
          <mat-option [value]="one.id">{{ one.label }}</mat-option>
        }
      </mat-select>
    </mat-form-field>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <mat-select aria-label="Field" placeholder="field" [value]="field()" (valueChange)="field.set($event)">
        @for (one of fields(); track one.key) {
          <mat-option [value]="one.key">{{ one.title }}</mat-option>
        }
      </mat-select>
    </mat-form-field>
    <span class="ty-soft">in a stored document</span>
    <mat-form-field appearance="outline" subscriptSizing="dynamic" class="document">
      <input
        matInput
        #find
        aria-label="A stored document, by its words"
        placeholder="any; find one by its words"
        [value]="document.opened()?.title ?? ''"
        [matAutocomplete]="documents"
        (input)="look(find.value)"
      />
      <mat-autocomplete #documents="matAutocomplete" (optionSelected)="document.open($event.option.value.id)" [displayWith]="titleOf">
        @for (one of document.offered(); track one.id) {
          <mat-option [value]="one">{{ one.title }}</mat-option>
        }
      </mat-autocomplete>
    </mat-form-field>
    <p role="status">
      {{ sentence() }}
      @if (stored(); as stored) {
        <span class="stored">{{ stored }}</span>
      }
    </p>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: auto 1fr 1fr 1fr;
      align-items: center;
      gap: 6px 10px;
      padding: 10px 16px;
      border-bottom: 1px solid var(--ty-line);
    }
    h2 {
      font: 600 15px/20px var(--ty-serif);
      white-space: nowrap;
    }
    .document {
      grid-column: 2 / -1;
    }
    p {
      grid-column: 1 / -1;
      min-height: 20px;
      font-size: 13px;
    }
    .stored {
      display: block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AssignmentProbe {
  /** What is asked from elsewhere. */
  readonly asked = input<Asked | null>(null);
  readonly answered = output<{ won: number | null; beaten: readonly number[] }>();
  protected readonly site = inject(SiteStore);
  protected readonly document = inject(ProbeDocument);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  protected readonly who = signal('');
  protected readonly type = signal('');
  protected readonly field = signal('');
  private timer: ReturnType<typeof setTimeout> | undefined;
  protected readonly fields = computed(() => this.site.types().find(({ id }) => id === this.type())?.fields ?? []);
  private readonly answer = computed(() => {
    const [kind, id = ''] = this.who().split(':');
    if (id === '' || !this.fields().some(({ key }) => key === this.field())) return null;
    const roles = kind === 'person' ? (this.site.people().find((person) => person.id === id)?.roles ?? []) : [id];
    return this.site.assignments().why({ roles, type: this.type(), field: this.field() });
  });
  protected readonly sentence = computed(() => {
    const answer = this.answer();
    if (answer === null) return 'Choose who, a content type and a field.';
    const { profile, choices, statement, beaten } = answer;
    if (profile === null) return 'They may not write there: no statement fits, and nothing is said for the rest.';
    const name = (id: string): string => this.names().get(id) ?? id;
    const why =
      statement === null ? 'No statement fits, so what is said for the rest holds' : `Statement ${statement + 1} is the first that fits`;
    const lost =
      beaten.length === 0
        ? ''
        : ` ${beaten.length === 1 ? 'Statement' : 'Statements'} ${beaten.map((at) => at + 1).join(', ')} would fit as well and ${beaten.length === 1 ? 'comes' : 'come'} later.`;
    const others = choices.length > 1 ? ` They may choose ${choices.slice(1).map(name).join(', ')} instead.` : '';
    return `${name(profile)}. ${why}.${lost}${others}`;
  });
  /** What is told of the text that is stored; empty where no document is chosen. */
  protected readonly stored = computed(() => {
    const [opened, answer] = [this.document.opened(), this.answer()];
    if (this.document.failure() !== '') return this.document.failure();
    if (opened === null || opened.type !== this.type() || answer === null) return '';
    const field = this.fields().find(({ key }) => key === this.field());
    if (field?.kind !== 'rich') return 'What stands there is no rich text and has no profile.';
    const had = this.document.savedWith().get(field.key);
    const about = `“${opened.title}”`;
    if (had === undefined) return `${about} has nothing there yet; what is written first gets this profile.`;
    const name = this.names().get(had) ?? `${had}, which is gone,`;
    if (had === answer.profile) return `The text of ${about} was last saved with ${name} as well.`;
    const isChoice = answer.choices.includes(had);
    return `The text of ${about} was last saved with ${name} and keeps it${isChoice ? ', which they may choose' : ''}, until somebody moves it.`;
  });

  constructor() {
    effect(() => {
      const answer = this.answer();
      if (answer !== null) untracked(() => this.answered.emit({ won: answer.statement, beaten: answer.beaten }));
    });
    effect(() => {
      const asked = this.asked();
      if (asked === null) return;
      untracked(() => {
        this.who.set(asked.who);
        this.type.set(asked.type);
        this.field.set(asked.field);
        void this.document.open(asked.document);
      });
    });
    // A document is of a type; the field stays where the type has it.
    effect(() => {
      const opened = this.document.opened();
      if (opened === null) return;
      untracked(() => {
        this.type.set(opened.type);
        if (!this.fields().some(({ key }) => key === this.field())) {
          const first = this.fields().find(({ kind }) => kind === 'rich') ?? this.fields()[0];
          this.field.set(first?.key ?? '');
        }
      });
    });
  }

  /** Another type is none of the document's. */
  protected chooseType(type: string): void {
    this.type.set(type);
    if (this.document.opened() !== null && this.document.opened()?.type !== type) void this.document.open('');
  }

  protected look(words: string): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void (words.trim() === '' ? this.document.open('') : this.document.find(words)), PAUSE_MS);
  }

  protected titleOf(this: void, found: { title: string } | string | null): string {
    return typeof found === 'string' ? found : (found?.title ?? '');
  }
}
