import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { Acting } from '../../state/acting';
import type { Target, ToldEdition } from '../../state/releases';
import { TakeBackDialog, type TakeBackQuestion } from './take-back-dialog';

/** The editions of a profile, or of what the whole site has once, the last first: when, by whom and why; each can be compared with what holds, and taken back to. */
@Component({
  selector: 'ty-edition-list',
  imports: [DatePipe, MatButtonModule, RouterLink],
  template: `
    <header>
      <h2 id="editions-heading">Editions</h2>
      <span class="ty-soft">{{ holds() }}</span>
    </header>
    @if (failure(); as failure) {
      <div class="ty-notice bad" role="alert">
        <p>They cannot be read. {{ failure }}</p>
        <button mat-stroked-button type="button" (click)="again.emit()">Try again</button>
      </div>
    } @else {
      <ol>
        @for (row of rows(); track row.edition.number) {
          <li [class.last]="$first">
            <p class="head">
              <b class="ty-num">{{ row.edition.number }}</b>
              <span class="ty-num">{{ row.edition.releasedAt | date: 'd MMM y, HH:mm' }}</span>
              <span class="ty-soft">{{ row.by }}</span>
            </p>
            <p [class.ty-soft]="row.why === ''">{{ row.why || 'Nobody wrote down why.' }}</p>
            @if (row.reached) {
              <p class="ty-soft ty-num">{{ row.reached }}</p>
            }
            @for (one of row.accepted; track one.why) {
              <p class="accepted">
                <span class="ty-soft">{{ one.things.length === 1 ? 'Accepted:' : one.things.length + ' things accepted:' }}</span>
                {{ one.things.join('; ') }}. <em>Because: {{ one.why }}</em>
              </p>
            }
            @if (!$first) {
              <p class="acts">
                @if (profile(); as id) {
                  <a class="ty-quiet" routerLink="/compare" [queryParams]="{ from: id, fromRevision: row.edition.fromRevision, to: id }"
                    >Compare with the draft</a
                  >
                } @else {
                  <button mat-button type="button" class="ty-quiet" (click)="compared.emit(row.edition)">
                    Compare with the draft<span class="ty-unseen"> (edition {{ row.edition.number }})</span>
                  </button>
                }
                <button mat-button type="button" class="ty-quiet" (click)="takeBack(row.edition)">
                  Take back to it…<span class="ty-unseen"> (edition {{ row.edition.number }})</span>
                </button>
              </p>
            }
          </li>
        } @empty {
          <li class="ty-soft"><span role="status">Reading them …</span></li>
        }
      </ol>
    }
  `,
  styleUrl: './edition-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EditionList {
  readonly target = input.required<Target>();
  /** What it is called in a sentence. */
  readonly name = input.required<string>();
  /** What the last of them does. */
  readonly holds = input('authors write with the last');
  readonly editions = input.required<readonly ToldEdition[] | null>();
  readonly failure = input('');
  readonly wentBack = output();
  readonly compared = output<ToldEdition>();
  readonly again = output();
  private readonly acting = inject(Acting);
  private readonly dialogs = inject(MatDialog);
  /** The id of the profile; empty for what the whole site has once. */
  protected readonly profile = computed(() => {
    const target = this.target();
    return target.kind === 'profile' ? target.id : '';
  });
  protected readonly rows = computed(() => {
    const people = new Map(this.acting.people().map(({ id, label }) => [id, label]));
    return (this.editions() ?? []).map((edition) => ({
      edition,
      by: people.get(edition.releasedBy) ?? '',
      why: whyWords(edition),
      reached: reachedWords(edition),
      accepted: byReason(edition),
    }));
  });

  protected async takeBack({ number }: ToldEdition): Promise<void> {
    const last = this.editions()?.[0];
    if (last === undefined) return;
    const data: TakeBackQuestion = { target: this.target(), name: this.name(), number, last: last.number };
    const isDone = await firstValueFrom(
      this.dialogs
        .open<TakeBackDialog, TakeBackQuestion, boolean>(TakeBackDialog, { data, width: '520px', maxWidth: '94vw' })
        .afterClosed(),
    );
    if (isDone === true) this.wentBack.emit();
  }
}

/** What was accepted, by the reason that was given for it. */
function byReason({ accepted }: ToldEdition): { why: string; things: string[] }[] {
  const reasons = new Map<string, string[]>();
  for (const { what, why } of accepted) reasons.set(why, [...(reasons.get(why) ?? []), what.replace(/\.$/, '')]);
  return [...reasons].map(([why, things]) => ({ why, things }));
}

function whyWords({ note, backTo, number }: ToldEdition): string {
  if (backTo !== null) return `Back to edition ${backTo}${note === '' ? '.' : `: ${note}`}`;
  return note === '' && number === 1 ? 'As first set up.' : note;
}

function reachedWords({ reach }: ToldEdition): string {
  if (reach === null) return '';
  const touched = reach.touched === 0 ? 'changed none' : `changed ${reach.touched}`;
  const losing = reach.losing === 0 ? 'no words lost' : `${reach.words} words lost in ${reach.losing}`;
  return `Of ${reach.texts} texts it ${touched}, ${losing}.`;
}
