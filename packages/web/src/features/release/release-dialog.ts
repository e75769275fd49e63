import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators, type AbstractControl } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatRadioModule } from '@angular/material/radio';
import { firstValueFrom } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { plan, release, type ReleaseBody, type Target } from '../../state/releases';
import { staysWhile } from '../../ui/stays-while';

/** Things of one kind that are known to be amiss with a release; they are accepted together. */
export interface Amiss {
  /** What they are, together. */
  heading: string;
  /** Each of them, as it is kept with the edition. */
  things: readonly string[];
}

export interface ReleaseQuestion {
  target: Target;
  /** What is released, as it stands in a sentence. */
  name: string;
  /** What it does from then on, as a sentence. */
  effect: string;
  /** The number that the edition gets. */
  number: number;
  /** The state of the draft that was looked at. */
  revision: number;
  amiss: readonly Amiss[];
  /** Null where that is not counted. */
  reach: { texts: number; touched: number; losing: number; words: number } | null;
  /** Other drafts that are released with it, as a release names them, and their names. */
  with: Pick<ReleaseBody, 'together' | 'shared'>;
  withNames: readonly string[];
  /** Texts that are left as they are. */
  leave: readonly { document: string; field: string }[];
}

/** What became of it. */
export type ReleaseAnswer = 'released' | 'planned';

/** So many things that are amiss are kept with an edition. */
const MOST_KEPT = 100;

/** Asks why a draft is released; what is known to be amiss is accepted with a reason that is kept. */
@Component({
  selector: 'ty-release-dialog',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, MatRadioModule, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>Release edition {{ question.number }} of {{ question.name }}</h2>
    <form [formGroup]="form" (ngSubmit)="release()">
      <mat-dialog-content>
        <p>{{ question.effect }} {{ shown }}</p>
        @if (question.withNames.length > 0) {
          <p>With it, all or none: {{ question.withNames.join(', ') }}.</p>
        }
        @if (question.amiss.length > 0) {
          <p class="ty-soft">Not everything is as it was. Why it is released all the same is kept with the edition.</p>
          <div formArrayName="reasons">
            @for (one of question.amiss; track $index) {
              <h3 [id]="'release-amiss-' + $index">{{ one.heading }}</h3>
              @if (one.things.length > 1) {
                <ul tabindex="0" [attr.aria-labelledby]="'release-amiss-' + $index">
                  @for (thing of one.things; track thing) {
                    <li>{{ thing }}</li>
                  }
                </ul>
              }
              <label [for]="'release-reason-' + $index">Released all the same, because</label>
              <mat-form-field appearance="outline" subscriptSizing="dynamic">
                <input
                  matInput
                  [id]="'release-reason-' + $index"
                  [attr.aria-describedby]="'release-amiss-' + $index"
                  [formControlName]="$index"
                  autocomplete="off"
                />
                <mat-error>Say why, or mend it first.</mat-error>
              </mat-form-field>
            }
          </div>
        }
        <label for="release-note">What it is for</label>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <textarea matInput id="release-note" formControlName="note" rows="3" cdkFocusInitial></textarea>
          <mat-hint>Whoever looks back at it reads this.</mat-hint>
        </mat-form-field>
        <mat-radio-group formControlName="when" aria-label="When it is released" class="when">
          <mat-radio-button value="now">Now</mat-radio-button>
          <mat-radio-button value="later">At a time to come, if the draft is not saved again before</mat-radio-button>
        </mat-radio-group>
        @if (form.controls.when.value === 'later') {
          <label for="release-at">When</label>
          <mat-form-field appearance="outline" subscriptSizing="dynamic" class="at">
            <input matInput type="datetime-local" id="release-at" formControlName="at" [min]="soonest" />
          </mat-form-field>
        }
        <p class="ty-failure" role="alert">{{ failure() }}</p>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Not yet</button>
        <button mat-flat-button type="submit" [disabled]="isBusy()">
          {{ form.controls.when.value === 'later' ? 'Plan it' : 'Release it' }}
        </button>
      </mat-dialog-actions>
    </form>
  `,
  styleUrl: './release-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReleaseDialog {
  protected readonly question = inject<ReleaseQuestion>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<ReleaseDialog, ReleaseAnswer>>(MatDialogRef);
  private readonly client = inject(ContractClient);
  private readonly make = inject(NonNullableFormBuilder);
  protected readonly form = this.make.group({
    note: ['', Validators.maxLength(1000)],
    when: this.make.control<'now' | 'later'>('now'),
    at: tomorrowMorning(),
    reasons: this.make.array(this.question.amiss.map(() => this.make.control('', [isThere, Validators.maxLength(300)]))),
  });
  protected readonly shown = this.question.target.kind === 'profile' ? shownWords(this.question.leave.length) : '';
  protected readonly soonest = asTyped(new Date());
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);

  constructor() {
    staysWhile(this.isBusy);
  }

  protected async release(): Promise<void> {
    this.form.markAllAsTouched();
    if (this.isBusy() || !this.form.valid) return;
    this.isBusy.set(true);
    this.failure.set('');
    const { target, revision, reach, amiss, leave, with: others } = this.question;
    const { note, reasons, when, at } = this.form.getRawValue();
    const due = new Date(at);
    if (when === 'later' && Number.isNaN(due.getTime())) {
      this.failure.set('Say when it is to be released.');
      this.isBusy.set(false);
      return;
    }
    const accepted = amiss
      .flatMap(({ things }, at) => things.map((thing) => ({ what: thing.slice(0, 300), why: reasons[at]! })))
      .slice(0, MOST_KEPT);
    try {
      const body = { note, accepted, reach, leave, ...others };
      await firstValueFrom(
        when === 'later' ? plan(this.client, target, body, due, revision) : release(this.client, target, body, revision),
      );
      this.dialog.close(when === 'now' ? 'released' : 'planned');
    } catch (error) {
      this.failure.set((error as Error).message);
    }
    this.isBusy.set(false);
  }
}

/** A time of this place, as a field for one has it. */
function asTyped(time: Date): string {
  const two = (number: number): string => String(number).padStart(2, '0');
  return `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())}T${two(time.getHours())}:${two(time.getMinutes())}`;
}

function tomorrowMorning(): string {
  const time = new Date();
  time.setDate(time.getDate() + 1);
  time.setHours(9, 0, 0, 0);
  return asTyped(time);
}

const isThere = ({ value }: AbstractControl<string>) => (value.trim() === '' ? { missing: true } : null);

/** How what is stored is shown from then on. */
function shownWords(left: number): string {
  const but =
    left === 0 ? '' : left === 1 ? ', but for the text that is left as it is' : `, but for the ${left} texts that are left as they are`;
  return `What is stored stays as it is until somebody saves it again; the site shows it by this edition${but}.`;
}
