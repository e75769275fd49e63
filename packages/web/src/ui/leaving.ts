import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';
import { Confirm, type Question } from './confirm';

/** A view with work that is not saved. */
export interface Unsaved {
  /** What is not saved, as a heading, and what that means; null where all is. */
  unsaved(): { title: string; text: string; count: number } | null;
  abandon(): void;
  /** @returns whether it was saved; what went wrong is told in the view */
  save(): Promise<boolean>;
}

/** Asks before work that is not saved is left: the same question everywhere. */
@Injectable({ providedIn: 'root' })
export class Leaving {
  private readonly dialog = inject(MatDialog);

  /** Whether the view may be left: at once where all is saved, else as the person answers. */
  async mayLeave(work: Unsaved): Promise<boolean> {
    const unsaved = work.unsaved();
    if (unsaved === null) return true;
    const data: Question = {
      title: unsaved.title,
      text: unsaved.text,
      answers: [
        { value: 'stay', label: 'Stay here' },
        { value: 'abandon', label: unsaved.count === 1 ? 'Throw it away' : 'Throw them away' },
        { value: 'save', label: 'Save and leave', isMain: true },
      ],
    };
    const answer = await firstValueFrom(this.dialog.open<Confirm, Question, string>(Confirm, { data, width: '460px' }).afterClosed());
    if (answer === 'abandon') work.abandon();
    return answer === 'abandon' || (answer === 'save' && (await work.save()));
  }
}
