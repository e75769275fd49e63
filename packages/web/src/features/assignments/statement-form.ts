import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import type { ContentType, SiteRole, Statement } from '@typikon/core';
import type { StoredProfile } from '../../state/types';

const EVERY = '*';

/** What one statement says: who, where, and with which profiles. */
@Component({
  selector: 'ty-statement-form',
  imports: [MatFormFieldModule, MatSelectModule],
  template: `
    <span id="statement-who">Who</span>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <mat-select multiple aria-labelledby="statement-who" [value]="chosen(statement().roles)" (valueChange)="set('roles', $event)">
        <mat-option value="*">Everybody</mat-option>
        @for (role of roles(); track role.id) {
          <mat-option [value]="role.id">{{ role.label }}</mat-option>
        }
      </mat-select>
    </mat-form-field>
    <span id="statement-where">Content types</span>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <mat-select multiple aria-labelledby="statement-where" [value]="chosen(statement().types)" (valueChange)="set('types', $event)">
        <mat-option value="*">Every content type</mat-option>
        @for (type of types(); track type.id) {
          <mat-option [value]="type.id">{{ type.label }}</mat-option>
        }
      </mat-select>
    </mat-form-field>
    <span id="statement-fields">Fields</span>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <mat-select multiple aria-labelledby="statement-fields" [value]="chosen(statement().fields)" (valueChange)="set('fields', $event)">
        <mat-option value="*">Every field</mat-option>
        @for (field of fields(); track field.key) {
          <mat-option [value]="field.key">{{ field.title }}</mat-option>
        }
      </mat-select>
    </mat-form-field>
    <span id="statement-first">With</span>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <mat-select aria-labelledby="statement-first" [value]="statement().profiles[0]" (valueChange)="first($event)">
        @for (profile of profiles(); track profile.id) {
          <mat-option [value]="profile.id">{{ profile.document['name'] }}</mat-option>
        }
      </mat-select>
    </mat-form-field>
    <span id="statement-others">or, if they choose</span>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <mat-select
        multiple
        aria-labelledby="statement-others"
        placeholder="no other"
        [value]="statement().profiles.slice(1)"
        (valueChange)="others($event)"
      >
        @for (profile of profiles(); track profile.id) {
          @if (profile.id !== statement().profiles[0]) {
            <mat-option [value]="profile.id">{{ profile.document['name'] }}</mat-option>
          }
        }
      </mat-select>
    </mat-form-field>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 108px minmax(0, 1fr);
      align-items: center;
      gap: 6px 8px;
      padding: 2px 16px 8px 36px;
      font-size: 12.5px;
      color: var(--ty-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StatementForm {
  readonly statement = input.required<Statement>();
  readonly roles = input.required<readonly SiteRole[]>();
  readonly types = input.required<readonly ContentType[]>();
  readonly profiles = input.required<readonly StoredProfile[]>();
  readonly changed = output<Statement>();
  /** The fields of the types that the statement speaks of, each key once. */
  protected readonly fields = computed(() => {
    const { types, fields } = this.statement();
    const all = this.types().filter(({ id }) => types === EVERY || types.includes(id));
    const titles = new Map<string, string>();
    for (const field of all.flatMap((type) => type.fields)) if (!titles.has(field.key)) titles.set(field.key, field.title);
    // One that is named stays in the list, whatever types there are.
    if (fields !== EVERY) for (const key of fields) if (!titles.has(key)) titles.set(key, key);
    return [...titles].map(([key, title]) => ({ key, title }));
  });

  protected chosen(names: '*' | readonly string[]): string[] {
    return names === EVERY ? [EVERY] : [...names];
  }

  /** Everybody and single names exclude each other: the newer choice holds. */
  protected set(part: 'roles' | 'types' | 'fields', chosen: readonly string[]): void {
    const statement = this.statement();
    const wasEvery = statement[part] === EVERY;
    const names = chosen.filter((name) => name !== EVERY);
    const isEvery = names.length === 0 || (chosen.includes(EVERY) && !wasEvery);
    this.changed.emit({ ...statement, [part]: isEvery ? EVERY : names });
  }

  protected first(profile: string): void {
    const statement = this.statement();
    this.changed.emit({ ...statement, profiles: [profile, ...statement.profiles.slice(1).filter((other) => other !== profile)] });
  }

  protected others(profiles: readonly string[]): void {
    const statement = this.statement();
    this.changed.emit({ ...statement, profiles: [statement.profiles[0]!, ...profiles] });
  }
}
