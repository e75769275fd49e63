import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { DomSanitizer } from '@angular/platform-browser';
import { groupEntries, settingsFor, surfaceSchema, DESK, type Move } from '@typikon/core';
import { Store } from '@ngrx/store';
import { wordsOf } from '../../state/ledger-words';
import { selectAsReaders } from '../../state/pages';
import { SeverityMark } from '../../ui/severity-mark';
import { frameHtml } from '../../shared/page/frame-html';
import { Equipment } from '../../shared/writing/equipment';

export interface MoveQuestion {
  /** The title of the field. */
  title: string;
  /** The names of the profiles. */
  from: string;
  to: string;
  move: Move;
  pageKind: string;
}

/** take: what the profile takes goes. fit: its words stay. stay: nothing happens. */
export type MoveAnswer = 'take' | 'fit' | 'stay';

/** So many lost words are told one by one. */
const MOST_WORDS = 60;

/** Tells what a move of a text to another profile would take, before anything happens. */
@Component({
  selector: 'ty-move-dialog',
  imports: [MatButtonModule, MatDialogModule, SeverityMark],
  templateUrl: './move-dialog.html',
  styleUrl: './move-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MoveDialog {
  protected readonly question = inject<MoveQuestion>(MAT_DIALOG_DATA);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly store = inject(Store);
  private readonly library = this.store.selectSignal(selectAsReaders);
  private readonly names = inject(Equipment).names;
  protected readonly groups = computed(() =>
    groupEntries(this.question.move.ledger).map((group) => ({ group, words: wordsOf(group, (id) => this.names().get(id) ?? id) })),
  );
  protected readonly lost = lostSentence(this.question.move.wordsLost);
  protected readonly fits = this.question.move.wordsLost.length > this.question.move.wordsLostFitting.length;
  protected readonly lostFitting = lostSentence(this.question.move.wordsLostFitting);
  protected readonly before = this.framed(this.question.move.before);
  protected readonly after = this.framed(this.question.move.after);
  protected readonly fitting = this.framed(this.question.move.fitting);

  /** Clean markup as its page shows it; the frame is sandboxed and runs nothing. */
  private framed(html: string) {
    const library = this.library();
    const kind = library?.pageKinds.find(({ id }) => id === this.question.pageKind) ?? library?.pageKinds[0];
    if (library === null || kind === undefined) return null;
    const surface = surfaceSchema.parse({ pageKind: kind.id });
    const { page } = settingsFor(surface, kind, kind, (id) => library.stylesheets.find((sheet) => sheet.id === id), DESK);
    return this.sanitizer.bypassSecurityTrustHtml(frameHtml(page, html, null, library.siteOrigin));
  }
}

function lostSentence(words: readonly string[]): string {
  if (words.length === 0) return '';
  const told = words.slice(0, MOST_WORDS).join(' ');
  return words.length > MOST_WORDS ? `${told} … and ${words.length - MOST_WORDS} more` : told;
}
