import type { MatDialog } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';
import { Confirm, type Question } from '../../ui/confirm';
import { ReleaseDialog, type ReleaseAnswer, type ReleaseQuestion } from './release-dialog';

/** Asks why something is released, and releases it; undefined where it was not. */
export function askRelease(dialogs: MatDialog, data: ReleaseQuestion): Promise<ReleaseAnswer | undefined> {
  return firstValueFrom(
    dialogs.open<ReleaseDialog, ReleaseQuestion, ReleaseAnswer>(ReleaseDialog, { data, width: '560px', maxWidth: '94vw' }).afterClosed(),
  );
}

/**
 * Asks whether a draft is to say again what was released last.
 *
 * @param name of what it is the draft, as it stands in a sentence
 */
export async function askToReset(dialogs: MatDialog, name: string, edition: number): Promise<boolean> {
  const data: Question = {
    title: `Take the draft of ${name} back to edition ${edition}?`,
    text: 'What was changed since goes from the draft. Every saved state of it stays in its history.',
    answers: [
      { value: 'stay', label: 'Leave it' },
      { value: 'back', label: 'Take it back', isMain: true },
    ],
  };
  return (await firstValueFrom(dialogs.open<Confirm, Question, string>(Confirm, { data, width: '480px' }).afterClosed())) === 'back';
}
