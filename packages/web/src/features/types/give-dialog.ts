import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSelectModule } from '@angular/material/select';
import { likelyPlaces, mayStandIn, misplaced, type ContentType } from '@typikon/core';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';
import { staysWhile } from '../../ui/stays-while';

export interface GiveQuestion {
  type: ContentType;
  /** The other types that are saved. */
  others: readonly ContentType[];
  use: AnswerOf<'get', '/types/{type}/use'>;
}

/** Asks what becomes of the documents of a content type that goes, and does it. Closes with whether none is left. */
@Component({
  selector: 'ty-give-dialog',
  imports: [MatTableModule, MatButtonModule, MatDialogModule, MatFormFieldModule, MatProgressBarModule, MatSelectModule],
  templateUrl: './give-dialog.html',
  styleUrl: './give-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GiveDialog {
  protected readonly columns = ['from', 'to'];
  protected readonly same = (_: number, row: { field: { key: string } }): string => row.field.key;
  protected readonly question = inject<GiveQuestion>(MAT_DIALOG_DATA);
  private readonly opened = inject<MatDialogRef<GiveDialog, boolean>>(MatDialogRef);
  private readonly client = inject(ContractClient);
  protected readonly to = signal<ContentType | null>(null);
  /** Into which field of the other type what stands in a field goes; empty where it goes into none. */
  protected readonly places = signal<Readonly<Record<string, string>>>({});
  protected readonly given = signal(0);
  protected readonly isBusy = signal(false);
  protected readonly failure = signal('');
  protected readonly documents = documentsWord(this.question.use.documents);
  protected readonly heading = `There ${this.question.use.documents === 1 ? 'is' : 'are'} ${this.documents} of “${this.question.type.label}”`;

  protected readonly rows = computed(() => {
    const [{ type, use }, to, places] = [this.question, this.to(), this.places()];
    if (to === null) return [];
    return type.fields.map((field) => ({
      field,
      documents: use.fields.find(({ key }) => key === field.key)?.documents ?? 0,
      place: places[field.key] ?? '',
      offered: to.fields.filter((other) => mayStandIn(field, other)),
    }));
  });
  /** What will be in earlier versions alone. */
  protected readonly left = computed(() => this.rows().filter(({ place, documents }) => place === '' && documents > 0));
  protected readonly mistake = computed(() => {
    const to = this.to();
    return to === null ? '' : misplaced(this.question.type, to, this.chosen());
  });

  private readonly chosen = computed(() => Object.fromEntries(Object.entries(this.places()).filter(([, place]) => place !== '')));

  constructor() {
    staysWhile(this.isBusy);
  }

  protected choose(to: ContentType): void {
    this.to.set(to);
    this.places.set(likelyPlaces(this.question.type, to));
  }

  protected place(key: string, place: string): void {
    this.places.update((all) => ({ ...all, [key]: place }));
  }

  protected words(documents: number): string {
    return documents === 0 ? 'empty everywhere' : `in ${documentsWord(documents)}`;
  }

  protected async give(): Promise<void> {
    const [to, type] = [this.to(), this.question.type.id];
    if (to === null || this.mistake() !== '' || this.isBusy()) return;
    this.isBusy.set(true);
    this.failure.set('');
    try {
      for (let left = 1; left > 0;) {
        const { body } = await firstValueFrom(
          this.client.post('/types/{type}/give-documents', { to: to.id, places: this.chosen() }, null, { type }),
        );
        ({ left } = body);
        this.given.update((given) => given + body.given);
      }
      this.opened.close(true);
    } catch (error) {
      const done = this.given();
      this.failure.set(
        `${(error as Error).message} ${done === 0 ? 'No document was changed.' : `${documentsWord(done)} changed, the others did not.`}`,
      );
    }
    this.isBusy.set(false);
  }
}

const documentsWord = (count: number): string => (count === 1 ? 'one document' : `${count} documents`);
