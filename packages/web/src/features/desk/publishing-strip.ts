import { Clipboard } from '@angular/cdk/clipboard';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { Acting } from '../../state/acting';
import { PublishingStore, type Publishing, type PublishingStep } from './publishing-store';

/** What was done, in words. */
const DONE: Readonly<Record<PublishingStep, string>> = {
  asked: 'asked for approval of',
  approved: 'approved',
  'sent-back': 'sent back',
  withdrawn: 'withdrew',
  remarked: 'remarked on',
  hidden: 'took',
};

/** What is written and not public: which version readers see instead, and who can do what about it. Nothing where they see the last. */
@Component({
  selector: 'ty-publishing-strip',
  imports: [DatePipe, MatButtonModule, MatFormFieldModule, MatInputModule, RouterLink],
  providers: [PublishingStore],
  templateUrl: './publishing-strip.html',
  styleUrl: './publishing-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PublishingStrip {
  /** The document, by its id. */
  readonly document = input.required<string>();
  /** Counts its saves: after each it stands otherwise. */
  readonly revision = input.required<number>();
  /** Whether something is written that is not saved: it is no part of what is asked about. */
  readonly isChanged = input(false);
  protected readonly store = inject(PublishingStore);
  private readonly acting = inject(Acting);
  private readonly clipboard = inject(Clipboard);
  protected readonly isCopied = signal(false);
  protected readonly state = computed((): Publishing | null => {
    const state = this.store.publishing();
    return state === null || (state.publicRevision === state.revision && state.askedRevision === null) ? null : state;
  });
  /** The version that is spoken of: the one that waits, or the last. */
  protected readonly about = computed(() => this.state()?.askedRevision ?? this.state()?.revision ?? 0);
  protected readonly sentence = computed(() => {
    const state = this.state();
    if (state === null) return '';
    const { publicRevision, askedRevision, revision } = state;
    const isGone = state.steps.find(({ step }) => step === 'hidden' || step === 'approved')?.step === 'hidden';
    const nothing = isGone ? 'Readers see nothing any more.' : 'Readers see nothing yet.';
    const seen = publicRevision === null ? nothing : `Readers see version ${publicRevision}.`;
    const newer = askedRevision !== null && askedRevision !== revision ? ` Version ${revision} was written since.` : '';
    return askedRevision === null
      ? `Version ${revision} is not public. ${seen}`
      : `Version ${askedRevision} waits for approval. ${seen}${newer}`;
  });
  /** What was done last, which says why it stands so. */
  protected readonly steps = computed(() =>
    (this.state()?.steps ?? []).slice(0, 4).map(({ step, by, note, at, revision }) => ({
      words: `${this.nameOf(by)} ${DONE[step]} version ${revision}${step === 'hidden' ? ' from readers' : ''}`,
      note,
      at,
    })),
  );
  /** The version that readers see and that whoever acts may take from them; 0 for none. */
  protected readonly hideable = computed(() => {
    const state = this.store.publishing();
    return state?.mayHide === true ? (state.publicRevision ?? 0) : 0;
  });
  /** Whether it is being asked why. */
  protected readonly isHiding = signal(false);
  protected readonly mayDecide = computed(() => {
    const state = this.state();
    return state?.mayApprove === true && state.askedRevision !== null;
  });
  /** Whether whoever acts asked for it, and may take that back. */
  protected readonly mayWithdraw = computed(() => {
    const asked = this.state()?.steps.find(({ step }) => step === 'asked');
    const person = this.acting.person()?.id ?? '';
    return this.state()?.askedRevision !== null && (person === '' || asked?.by === person);
  });

  constructor() {
    effect(() => {
      const id = this.document();
      this.revision();
      this.acting.person();
      untracked(() => {
        this.isCopied.set(false);
        this.isHiding.set(false);
        void this.store.load(id);
      });
    });
  }

  private nameOf(person: string): string {
    return this.acting.people().find(({ id }) => id === person)?.label ?? 'Somebody';
  }

  protected move(step: PublishingStep, field: HTMLInputElement | null): void {
    void this.store.move(this.document(), step, this.about(), field?.value ?? '').then((isDone) => {
      if (isDone && field !== null) field.value = '';
    });
  }

  /** Takes the document from readers, for a reason. */
  protected async hide(why: string): Promise<void> {
    if (await this.store.move(this.document(), 'hidden', this.hideable(), why)) this.isHiding.set(false);
  }

  protected preview(): void {
    this.isCopied.set(false);
    void this.store.show(this.document(), this.about());
  }

  protected copy(address: string): void {
    this.isCopied.set(this.clipboard.copy(address));
  }
}
