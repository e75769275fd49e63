import { ChangeDetectionStrategy, Component, computed, effect, inject, output, signal, untracked } from '@angular/core';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';

/** Answers why somebody gets a profile somewhere: the statement that won, and those that lost. */
@Component({
  selector: 'ty-assignment-probe',
  imports: [MatFormFieldModule, MatSelectModule],
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
      <mat-select aria-label="Content type" placeholder="content type" [value]="type()" (valueChange)="type.set($event)">
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
    <p role="status">{{ sentence() }}</p>
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
    p {
      grid-column: 1 / -1;
      min-height: 20px;
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AssignmentProbe {
  readonly answered = output<{ won: number | null; beaten: readonly number[] }>();
  protected readonly site = inject(SiteStore);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  protected readonly who = signal('');
  protected readonly type = signal('');
  protected readonly field = signal('');
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

  constructor() {
    effect(() => {
      const answer = this.answer();
      if (answer !== null) untracked(() => this.answered.emit({ won: answer.statement, beaten: answer.beaten }));
    });
  }
}
