import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { RouterLink } from '@angular/router';
import { isSameJson, type Json, type JsonObject } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, type ApiFailure } from '../../state/api';
import { ContractClient } from '../../state/contract-client';
import { chainToRelease, type Chain } from '../../state/editions';
import { selectHouse, selectIsHouseAhead, selectReleasedHouse } from '../../state/house';
import { LibraryActions, libraryFeature } from '../../state/library';
import { documentOf, type Target, type ToldEdition } from '../../state/releases';
import { Confirm, type Question } from '../../ui/confirm';
import { TitleLine } from '../../ui/title-line';
import { EditionChangesDialog, type EditionChanges } from './edition-changes-dialog';
import { EditionList } from './edition-list';
import { ReachStore } from './reach-store';
import { ReachView } from './reach-view';
import { amissOf } from './reach-words';
import { ReleaseDialog, type ReleaseAnswer, type ReleaseQuestion } from './release-dialog';
import { ReleaseStore, type Sides } from './release-store';
import { chosenOf, othersAhead } from './together';
import { TogetherList } from './together-list';
import { WhatChanges } from './what-changes';

/** What releasing the draft of the house limits would do to every profile and every text, and the editions that were released. */
@Component({
  selector: 'ty-shared-release-page',
  imports: [EditionList, MatButtonModule, ReachView, RouterLink, TitleLine, TogetherList, WhatChanges],
  providers: [ReleaseStore, ReachStore],
  templateUrl: './shared-release-page.html',
  styleUrl: './release-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SharedReleasePage {
  protected readonly release = inject(ReleaseStore);
  protected readonly reach = inject(ReachStore);
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly client = inject(ContractClient);
  private readonly dialogs = inject(MatDialog);
  private readonly messages = inject(MatSnackBar);
  protected readonly target: Target = { kind: 'shared', part: 'house-limits' };
  protected readonly path = [{ text: 'Profiles', link: '/profiles' }, { text: 'House limits', link: '/house-limits' }, { text: 'Release' }];
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  private readonly editions = this.store.selectSignal(libraryFeature.selectEditions);
  private readonly draft = this.store.selectSignal(libraryFeature.selectHouseDocument);
  private readonly revision = this.store.selectSignal(libraryFeature.selectHouseRevision);
  private readonly houses = {
    before: this.store.selectSignal(selectReleasedHouse),
    after: this.store.selectSignal(selectHouse),
  };
  protected readonly last = this.store.selectSignal(libraryFeature.selectHouseEdition);
  protected readonly isAhead = this.store.selectSignal(selectIsHouseAhead);
  protected readonly number = computed(() => this.last()?.number ?? 0);
  /** What they say beside markup, as it holds and as it would. */
  protected readonly settings = computed(() => ({ before: besideMarkup(this.last()?.document), after: besideMarkup(this.draft()) }));
  protected readonly others = computed(() =>
    othersAhead(this.target, this.profiles(), this.editions(), { isAhead: this.isAhead(), revision: this.revision() }),
  );
  protected readonly chosen = signal<ReadonlySet<string>>(new Set());
  private readonly with = computed(() => chosenOf(this.others(), this.chosen()), { equal: isSameJson });
  /** Every profile as authors write with it, and as it would be. */
  private readonly sides = computed(
    (): Sides[] => {
      const drafts = new Map(this.profiles().map(({ id, document }) => [id, document]));
      const together = new Map(this.with().together.map(({ id }) => [id, drafts.get(id)!]));
      const houses = { before: this.houses.before(), after: this.houses.after() };
      return [...this.editions().values()].map(({ profile: id, chain }) => {
        const document = together.get(id);
        return {
          before: chain,
          after: document === undefined ? chain : chainToRelease({ id, document }, this.editions(), together),
          houses,
        };
      });
    },
    { equal: isSameJson as (one: unknown, other: unknown) => boolean },
  );
  /** Whether everything was looked at, so that a release is no leap in the dark. */
  protected readonly isReady = computed(
    () =>
      this.isAhead() &&
      this.reach.isLooked() &&
      this.release.lines() !== null &&
      this.release.findings() !== null &&
      (this.release.proved() !== null || this.release.proofFailure() !== ''),
  );

  constructor() {
    effect(() => {
      const [isAhead, draft, sides, { together }] = [this.isAhead(), this.draft(), this.sides(), this.with()];
      if (draft === null) return;
      untracked(() => {
        if (!isAhead) {
          this.release.giveUp();
          this.reach.giveUp();
          void this.release.readEditions(this.target);
          return;
        }
        const rules = { before: asProfile(this.last()?.document ?? {}), after: asProfile(draft), house: null };
        this.release.begin({ target: this.target, edition: this.number(), rules, profiles: sides });
        this.reach.begin({ of: this.target, together: together.map(({ id }) => id) });
      });
    });
  }

  /** Asks why, and releases the draft. */
  protected async openRelease(): Promise<void> {
    const { losing, touched } = this.reach.sum();
    const data: ReleaseQuestion = {
      target: this.target,
      name: 'the house limits',
      number: this.number() + 1,
      revision: this.revision(),
      amiss: amissOf(losing, this.release.proved(), this.release.findings()),
      with: this.with(),
      withNames: this.others().flatMap(({ key, name }) => (this.chosen().has(key) ? [name] : [])),
      reach: { texts: this.reach.texts(), touched, losing: losing.documents, words: losing.words },
      leave: [],
    };
    const answer = await firstValueFrom(
      this.dialogs
        .open<ReleaseDialog, ReleaseQuestion, ReleaseAnswer>(ReleaseDialog, { data, width: '560px', maxWidth: '94vw' })
        .afterClosed(),
    );
    if (answer !== 'released') return;
    this.messages.open(`Edition ${data.number} of the house limits is released: they hold for every profile.`, undefined, {
      duration: 6000,
    });
    this.chosen.set(new Set());
    this.store.dispatch(LibraryActions.sharedRequested());
    this.store.dispatch(LibraryActions.editionsRequested());
  }

  /** Puts into the draft what was released last. */
  protected async takeBackDraft(): Promise<void> {
    const last = this.last();
    if (last === null) return;
    const data: Question = {
      title: `Take the draft of the house limits back to edition ${last.number}?`,
      text: 'What was changed since goes from the draft. Every saved state of it stays in its history.',
      answers: [
        { value: 'stay', label: 'Leave it' },
        { value: 'back', label: 'Take it back', isMain: true },
      ],
    };
    if ((await firstValueFrom(this.dialogs.open<Confirm, Question, string>(Confirm, { data, width: '480px' }).afterClosed())) !== 'back')
      return;
    this.api.saveHouseLimits(last.document, this.revision()).subscribe({
      next: (stored) => this.store.dispatch(LibraryActions.houseChanged(stored)),
      error: ({ message }: ApiFailure) => this.messages.open(`The draft stays as it is. ${message}`, 'Close'),
    });
  }

  /** An earlier edition was released again: the draft may have followed. */
  protected wentBack(): void {
    this.store.dispatch(LibraryActions.sharedRequested());
    this.api.houseLimits().subscribe({
      next: (current) => this.store.dispatch(LibraryActions.houseChanged(current)),
      error: () => undefined,
    });
  }

  /** Shows where an edition and the draft differ. */
  protected async compare({ number }: ToldEdition): Promise<void> {
    try {
      const one = await firstValueFrom(documentOf(this.client, this.target, number));
      const data: EditionChanges = {
        title: `Edition ${number} of the house limits, and the draft`,
        one,
        other: this.draft() ?? {},
        heads: [`Edition ${number}`, 'The draft'],
      };
      this.dialogs.open<EditionChangesDialog, EditionChanges>(EditionChangesDialog, { data, width: '760px', maxWidth: '94vw' });
    } catch (error) {
      this.messages.open(`Edition ${number} cannot be read. ${(error as Error).message}`, 'Close');
    }
  }
}

/** What house limits say beside their markup rules. */
function besideMarkup(limits: JsonObject | null | undefined): Json {
  const { markup: _markup, ...others } = limits ?? {};
  return others;
}

/** House limits as a profile that allows all they do, so that two of them can be told apart as two profiles are. */
function asProfile({ markup }: JsonObject): Chain {
  return [{ id: 'limits', document: { format: 'typikon-profile/1', name: 'House limits', ...(markup === undefined ? {} : { markup }) } }];
}
