import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { RouterLink } from '@angular/router';
import { isSameJson, type Json, type ReachGroup } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Acting } from '../../state/acting';
import { Api, type ApiFailure } from '../../state/api';
import { DraftBackup } from '../../state/draft-backup';
import { aheadOf, chainToRelease, type Chain } from '../../state/editions';
import { selectHouse, selectReleasedHouse } from '../../state/house';
import { LibraryActions, libraryFeature } from '../../state/library';
import { LikenessRunner } from '../../state/likeness-runner';
import { selectPagesDraft, selectReleasedPages } from '../../state/pages';
import { nameOf } from '../../state/profile-name';
import type { Target } from '../../state/releases';
import { TitleLine } from '../../ui/title-line';
import { ConversionsStore, goesOn, type ToldConversion } from '../../state/conversions';
import { LeftStore, type LeftText } from '../../state/left';
import { QuestionsStore } from '../../state/questions';
import { ScheduledStore } from '../../state/scheduled';
import { AllowDialog, type AllowQuestion } from './allow-dialog';
import { AskDialog, type AskQuestion, type Asked } from './ask-dialog';
import { AskedList } from './asked-list';
import { ConversionStrip } from './conversion-strip';
import { ConvertDialog, type ConvertQuestion } from './convert-dialog';
import { askRelease, askToReset } from './asking';
import { EditionList } from './edition-list';
import { LeftList } from './left-list';
import type { ReleaseQuestion } from './release-dialog';
import { ScheduledStrip } from './scheduled-strip';
import { LikenessChangeList } from './likeness-change';
import { LikenessChangeStore, type LikenessPair } from './likeness-change-store';
import { ReachStore } from './reach-store';
import { ReachView } from './reach-view';
import { amissOf, whatGoes, writersOf } from './reach-words';
import { ReleaseStore, resolved } from './release-store';
import { sharedParts } from './shared-parts';
import { chosenOf, othersAhead } from './together';
import { TogetherList } from './together-list';
import { WhatChanges } from './what-changes';

/** So many texts are asked about at once. */
const MOST_ASKED = 200;
/** Chapters whose rules are told in sentences, and not as settings that differ. */
const TOLD = ['markup', 'extends'];

/** What releasing the draft of a profile would do, and the editions that were released. */
@Component({
  selector: 'ty-release-page',
  imports: [
    AskedList,
    ConversionStrip,
    EditionList,
    LeftList,
    LikenessChangeList,
    MatButtonModule,
    ReachView,
    RouterLink,
    ScheduledStrip,
    TitleLine,
    TogetherList,
    WhatChanges,
  ],
  providers: [ReleaseStore, ReachStore, LikenessChangeStore, LikenessRunner, ConversionsStore, LeftStore, QuestionsStore, ScheduledStore],
  templateUrl: './release-page.html',
  styleUrl: './release-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReleasePage {
  /** The profile's id, from the address. */
  readonly id = input.required<string>();
  protected readonly target = computed((): Target => ({ kind: 'profile', id: this.id() }));
  protected readonly release = inject(ReleaseStore);
  protected readonly reach = inject(ReachStore);
  private readonly likeness = inject(LikenessChangeStore);
  protected readonly conversions = inject(ConversionsStore);
  protected readonly questions = inject(QuestionsStore);
  protected readonly left = inject(LeftStore);
  private readonly scheduled = inject(ScheduledStore);
  /** Texts that are to be left as they are, by document and field. */
  protected readonly leaving = signal<ReadonlySet<string>>(new Set());
  protected readonly isConverting = computed(() => {
    const latest = this.conversions.latest();
    return latest !== null && goesOn(latest);
  });
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly acting = inject(Acting);
  private readonly backups = inject(DraftBackup);
  private readonly dialogs = inject(MatDialog);
  private readonly messages = inject(MatSnackBar);
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  private readonly editions = this.store.selectSignal(libraryFeature.selectEditions);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly texts = this.store.selectSignal(libraryFeature.selectTexts);
  private readonly releasedPages = this.store.selectSignal(selectReleasedPages);
  private readonly draftPages = this.store.selectSignal(selectPagesDraft);
  private readonly house = this.store.selectSignal(selectReleasedHouse);
  private readonly houseDraft = this.store.selectSignal(selectHouse);
  private readonly parts = sharedParts();
  protected readonly profile = computed(() => this.profiles().find(({ id }) => id === this.id()) ?? null);
  protected readonly name = computed(() => {
    const profile = this.profile();
    return profile === null ? '' : nameOf(profile);
  });
  protected readonly path = computed(() => [
    { text: 'Profiles', link: '/profiles' },
    { text: this.name(), link: `/profiles/${this.id()}` },
    { text: 'Release' },
  ]);
  protected readonly last = computed(() => this.editions().get(this.id()) ?? null);
  private readonly next = computed(
    (): Chain | null => {
      const [profile, drafts] = [this.profile(), new Map(this.profiles().map(({ id, document }) => [id, document]))];
      const together = new Map(this.with().together.map(({ id }) => [id, drafts.get(id)!]));
      return profile === null ? null : chainToRelease(profile, this.editions(), together);
    },
    // What is around it may be read anew and say the same.
    { equal: isSameJson as (one: unknown, other: unknown) => boolean },
  );
  protected readonly ahead = computed(() => {
    const profile = this.profile();
    return profile === null ? null : aheadOf(profile, this.editions());
  });
  protected readonly isUnsaved = computed(() => this.backups.read(this.id()) !== null);
  private readonly sides = computed(() => {
    const [last, next] = [this.last(), this.next()];
    return last === null || next === null ? null : { before: resolved(last.chain), after: resolved(next) };
  });
  /** Whether the draft, on top of what it extends, has mistakes. */
  protected readonly isMistaken = computed(() => this.sides()?.after === null);
  /** Settings beside the markup rules, of the edition and of the draft. */
  protected readonly settings = computed(() => {
    const sides = this.sides();
    if (sides?.before == null || sides.after === null) return { before: {}, after: {} };
    return { before: besideMarkup(sides.before.profile), after: besideMarkup(sides.after.profile) };
  });
  /** Other drafts that are ahead, and those of them that are to be released with this one, by key. */
  protected readonly others = computed(() => othersAhead(this.target(), this.profiles(), this.editions(), this.parts));
  protected readonly chosen = signal<ReadonlySet<string>>(new Set());
  private readonly with = computed(() => chosenOf(this.others(), this.chosen()), { equal: isSameJson });
  /** Whether everything was looked at, so that a release is no leap in the dark. */
  protected readonly isReady = computed(
    () =>
      this.ahead() !== null &&
      !this.isMistaken() &&
      this.reach.isLooked() &&
      this.release.lines() !== null &&
      this.release.findings() !== null &&
      (this.release.proved() !== null || this.release.proofFailure() !== ''),
  );

  /** The kinds of page on which its texts show, with what they are edited in before and after. */
  private readonly pairs = computed((): LikenessPair[] => {
    const [sides, pages, drafts] = [this.sides(), this.releasedPages(), this.draftPages()];
    if (sides?.before == null || sides.after === null) return [];
    const after = this.with().shared.some(({ part }) => part === 'pages') ? drafts : pages;
    const [from, to] = [sides.before.profile.surface, sides.after.profile.surface];
    const kinds = new Map<string, number>();
    for (const { profileId, pageKindId, count } of this.texts())
      if (profileId === this.id()) kinds.set(pageKindId, (kinds.get(pageKindId) ?? 0) + count);
    return [...kinds].map(([pageKind, texts]) => ({
      profile: this.id(),
      pageKind,
      texts,
      before: { surface: from, pages },
      after: { surface: to, pages: after },
    }));
  });

  constructor() {
    effect(() => {
      const [last, next, ahead] = [this.last(), this.next(), this.ahead()];
      const { together, shared } = this.with();
      const houses = { before: this.house(), after: shared.some(({ part }) => part === 'house-limits') ? this.houseDraft() : this.house() };
      if (last === null || next === null) return;
      untracked(() => {
        const target = this.target();
        if (ahead === null || this.isMistaken()) {
          this.release.giveUp();
          this.reach.giveUp();
          this.likeness.giveUp();
          void this.release.readEditions(target);
          return;
        }
        const rules = { before: last.chain, after: next, house: houses.after };
        this.release.begin({ target, edition: last.number, rules, profiles: [{ before: last.chain, after: next, houses }] });
        this.likeness.begin(this.pairs(), this.names());
        this.reach.begin({ of: target, together: together.map(({ id }) => id), shared: shared.map(({ part }) => part) });
      });
    });
    effect(() => {
      const id = this.id();
      untracked(() => {
        void this.conversions.load(id);
        void this.questions.load({ profile: id });
        void this.left.load(id);
        void this.scheduled.load({ kind: 'profile', id });
        this.leaving.set(new Set());
        this.chosen.set(new Set());
      });
    });
    // What was converted comes out otherwise.
    effect(() => {
      if (this.conversions.ended() > 0) untracked(() => this.reach.again());
    });
  }

  /** Prepares a replacement for the texts of a group, and follows it as it runs. */
  protected async convert(group: ReachGroup): Promise<void> {
    const touched = this.reach.touched();
    const data: ConvertQuestion = {
      profile: this.id(),
      name: this.name(),
      element: group.element,
      attribute: group.attribute,
      property: group.property,
      texts: group.documents.map((at) => touched[at]!),
    };
    const asked = await firstValueFrom(
      this.dialogs
        .open<ConvertDialog, ConvertQuestion, ToldConversion>(ConvertDialog, { data, width: '680px', maxWidth: '94vw' })
        .afterClosed(),
    );
    if (asked !== undefined) this.conversions.show(asked);
  }

  private namesIn({ documents }: ReachGroup): string[] {
    const touched = this.reach.touched();
    return documents.map((at) => `${touched[at]!.document}/${touched[at]!.field}`);
  }

  /** Whether all texts of a group are to be left as they are. */
  protected isLeft(group: ReachGroup): boolean {
    return this.namesIn(group).every((name) => this.leaving().has(name));
  }

  /** Leaves all texts of a group as they are, or lets them follow. */
  protected leave(group: ReachGroup): void {
    const [names, isLeft] = [this.namesIn(group), this.isLeft(group)];
    this.leaving.update((all) => new Set(isLeft ? [...all].filter((name) => !names.includes(name)) : [...all, ...names]));
  }

  protected async follow(text: LeftText): Promise<void> {
    if (await this.left.follow(this.id(), text)) this.reach.again();
  }

  /** Whether a group is what the draft takes by a rule of its own or of what it extends. */
  protected readonly isAllowable = ({ kind, layer }: ReachGroup): boolean =>
    kind === 'taken' && (layer === 'profile' || layer === 'parent-profile');

  /** Shows what the draft would have to allow so that the texts of a group keep what it takes. */
  protected allow(group: ReachGroup): void {
    const [touched, profile] = [this.reach.touched(), this.profile()];
    if (profile === null) return;
    const data: AllowQuestion = {
      profile: profile.id,
      revision: profile.revision,
      // The reach tells apart what is taken and what is kept.
      key: group.key.slice('taken|'.length),
      sentence: whatGoes(group),
      texts: group.documents.map((at) => touched[at]!),
    };
    this.dialogs.open<AllowDialog, AllowQuestion, boolean>(AllowDialog, { data, width: '520px', maxWidth: '94vw' });
  }

  /** Asks whoever wrote the texts of a group what the draft may do to them. */
  protected async ask(group: ReachGroup): Promise<void> {
    const touched = this.reach.touched();
    const texts = group.documents.map((at) => touched[at]!).slice(0, MOST_ASKED);
    const data: AskQuestion = { profile: this.id(), writers: writersOf(group, touched, this.acting.people()), texts };
    const asked = await firstValueFrom(
      this.dialogs.open<AskDialog, AskQuestion, Asked>(AskDialog, { data, width: '520px', maxWidth: '94vw' }).afterClosed(),
    );
    if (asked === undefined) return;
    const of = asked.asked === 1 ? 'One text is asked about.' : `${asked.asked} texts are asked about.`;
    this.messages.open(asked.untouched === 0 ? of : `${of} ${asked.untouched} come out as before.`, undefined, { duration: 6000 });
    void this.questions.load({ profile: this.id() });
  }

  /** Asks why, and releases the draft. */
  protected async openRelease(): Promise<void> {
    const [profile, last] = [this.profile(), this.last()];
    if (profile === null || last === null) return;
    const { losing, touched } = this.reach.sum();
    const data: ReleaseQuestion = {
      target: this.target(),
      name: `“${this.name()}”`,
      effect: 'Authors write with it from then on.',
      number: last.number + 1,
      revision: profile.revision,
      amiss: amissOf(losing, this.release.proved(), this.release.findings()),
      with: this.with(),
      withNames: this.others().flatMap(({ key, name }) => (this.chosen().has(key) ? [name] : [])),
      reach: { texts: this.reach.texts(), touched, losing: losing.documents, words: losing.words },
      leave: [...this.leaving()].map((name) => ({
        document: name.slice(0, name.lastIndexOf('/')),
        field: name.slice(name.lastIndexOf('/') + 1),
      })),
    };
    const answer = await askRelease(this.dialogs, data);
    void this.scheduled.load({ kind: 'profile', id: profile.id });
    if (answer !== 'released') return;
    this.messages.open(`Edition ${data.number} of ${data.name} is released: authors write with it.`, undefined, { duration: 6000 });
    this.store.dispatch(LibraryActions.editionsRequested());
    this.store.dispatch(LibraryActions.sharedRequested());
    this.leaving.set(new Set());
    void this.left.load(profile.id);
  }

  /** Puts into the draft what was released last. */
  protected async takeBackDraft(): Promise<void> {
    const [profile, last] = [this.profile(), this.last()];
    if (profile === null || last === null) return;
    if (!(await askToReset(this.dialogs, `“${this.name()}”`, last.number))) return;
    this.api.saveDraft(profile.id, last.chain[0]!.document, profile.revision).subscribe({
      next: (stored) => this.store.dispatch(LibraryActions.profileStored({ profile: stored })),
      error: ({ message }: ApiFailure) => this.messages.open(`The draft stays as it is. ${message}`, 'Close'),
    });
  }

  /** An earlier edition was released again: the draft may have followed. */
  protected wentBack(): void {
    this.store.dispatch(LibraryActions.editionsRequested());
    this.api.profile(this.id()).subscribe({
      next: (profile) => this.store.dispatch(LibraryActions.profileStored({ profile })),
      error: () => undefined,
    });
  }
}

/** What a profile says beside its markup rules. */
function besideMarkup(profile: object): Json {
  return Object.fromEntries(Object.entries(profile as Record<string, Json>).filter(([chapter]) => !TOLD.includes(chapter)));
}
