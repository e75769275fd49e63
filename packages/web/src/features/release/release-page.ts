import { ChangeDetectionStrategy, Component, computed, effect, inject, input, linkedSignal, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatExpansionModule } from '@angular/material/expansion';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSnackBar } from '@angular/material/snack-bar';
import { MatTableModule } from '@angular/material/table';
import { RouterLink } from '@angular/router';
import type { Json, ReachGroup } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Acting } from '../../state/acting';
import { Api, type ApiFailure } from '../../state/api';
import { DraftBackup } from '../../state/draft-backup';
import { aheadOf, chainToRelease } from '../../state/editions';
import { selectHouse } from '../../state/house';
import { LibraryActions, libraryFeature } from '../../state/library';
import { nameOf } from '../../state/profile-name';
import type { TouchedText } from '../../state/reach';
import { ChangesTable, differencesOf } from '../../shared/profile/changes-table';
import { Confirm, type Question } from '../../ui/confirm';
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
import { EditionList } from './edition-list';
import { LeftList } from './left-list';
import { ReleaseDialog, type Amiss, type ReleaseAnswer, type ReleaseQuestion } from './release-dialog';
import { ScheduledStrip } from './scheduled-strip';
import { ReleaseStore, resolved } from './release-store';
import { TextByBoth } from './text-by-both';

/** So many texts are asked about at once. */
const MOST_ASKED = 200;
/** So many texts of a group are listed at once. */
const MOST_LISTED = 100;

/** Chapters whose rules are told in sentences, and not as settings that differ. */
const TOLD = ['markup', 'extends'];

/** What releasing the draft of a profile would do, and the editions that were released. */
@Component({
  selector: 'ty-release-page',
  imports: [
    AskedList,
    ChangesTable,
    ConversionStrip,
    EditionList,
    LeftList,
    MatButtonModule,
    MatExpansionModule,
    MatProgressBarModule,
    MatTableModule,
    RouterLink,
    ScheduledStrip,
    TextByBoth,
    TitleLine,
  ],
  providers: [ReleaseStore, ConversionsStore, LeftStore, QuestionsStore, ScheduledStore],
  templateUrl: './release-page.html',
  styleUrl: './release-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReleasePage {
  /** The profile's id, from the address. */
  readonly id = input.required<string>();
  protected readonly release = inject(ReleaseStore);
  protected readonly conversions = inject(ConversionsStore);
  protected readonly questions = inject(QuestionsStore);
  protected readonly left = inject(LeftStore);
  protected readonly scheduled = inject(ScheduledStore);
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
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly editions = this.store.selectSignal(libraryFeature.selectEditions);
  private readonly house = this.store.selectSignal(selectHouse);
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
  private readonly next = computed(() => {
    const profile = this.profile();
    return profile === null ? null : chainToRelease(profile, this.editions());
  });
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
  /** Settings beside the markup rules that differ, by chapter. */
  protected readonly settings = computed(() => {
    const sides = this.sides();
    if (sides?.before == null || sides.after === null) return { before: {}, after: {}, count: 0 };
    const [before, after] = [besideMarkup(sides.before.profile), besideMarkup(sides.after.profile)];
    return { before, after, count: differencesOf(before, after).length };
  });
  /** What the number of texts is the number of. */
  protected readonly counted = computed(() => {
    const [texts, candidates] = [this.release.texts(), this.release.candidates()];
    if (!this.release.isLooked()) return 'texts are stored';
    return candidates === texts
      ? 'texts, all looked at'
      : `texts; ${candidates === 0 ? 'none holds' : candidates === 1 ? 'one holds' : `${candidates} hold`} what changed`;
  });
  protected readonly groups = computed(() =>
    this.release.reach().groups.map((group) => ({ group, words: whatGoes(group), writers: this.writersOf(group), cite: citation(group) })),
  );
  protected readonly columns = ['what', 'texts', 'letters', 'who'];
  protected readonly same = (_: number, row: { group: ReachGroup }): string => row.group.key;
  /** The group that is open, by key. */
  private readonly chosen = signal('');
  protected readonly open = computed(() => {
    const groups = this.groups();
    return (groups.find(({ group }) => group.key === this.chosen()) ?? groups[0])?.group ?? null;
  });
  protected readonly listed = computed(() => {
    const [open, touched] = [this.open(), this.release.touched()];
    const texts = open?.documents.map((at) => touched[at]!) ?? [];
    // Those that lose most stand first.
    return [...texts]
      .sort((one, other) => other.reach.wordsLost - one.reach.wordsLost || one.title.localeCompare(other.title))
      .slice(0, MOST_LISTED);
  });
  protected readonly text = linkedSignal<readonly TouchedText[], TouchedText | null>({
    source: this.listed,
    computation: (listed, before) =>
      listed.find((one) => one.document === before?.value?.document && one.field === before.value.field) ?? listed[0] ?? null,
  });
  protected readonly more = computed(() => (this.open()?.documents.length ?? 0) - this.listed().length);
  /** Specimens of which the draft meets less than the edition did. */
  protected readonly unmet = computed(() =>
    (this.release.proved() ?? []).filter(({ before, after }) => after.expectationsMet < before.expectationsMet),
  );
  protected readonly met = computed(
    () => (this.release.proved() ?? []).filter(({ after }) => after.expectationsMet === after.expectations).length,
  );
  /** What is known to be amiss with the release, by kind: each has to be accepted with a reason. */
  protected readonly amiss = computed((): Amiss[] => {
    const { losing } = this.release.reach();
    const [unmet, found] = [this.unmet(), this.release.findings()?.fresh.filter(({ severity }) => severity !== 'note') ?? []];
    const words = `${losing.documents === 1 ? 'One text loses' : `${losing.documents} texts lose`} words, ${losing.words} in all`;
    return [
      { heading: words, things: losing.documents === 0 ? [] : [words] },
      {
        heading:
          unmet.length === 1
            ? `“${unmet[0]!.specimen.name}” no longer comes out as expected`
            : `${unmet.length} specimens no longer come out as expected`,
        things: unmet.map(({ specimen }) => `“${specimen.name}” no longer comes out as expected`),
      },
      {
        heading: found.length === 1 ? found[0]!.sentence : `The checks find ${found.length} things that were not there`,
        things: found.map(({ sentence }) => sentence),
      },
    ].filter(({ things }) => things.length > 0);
  });
  /** Whether everything was looked at, so that a release is no leap in the dark. */
  protected readonly isReady = computed(
    () =>
      this.ahead() !== null &&
      !this.isMistaken() &&
      this.release.isLooked() &&
      this.release.lines() !== null &&
      this.release.findings() !== null &&
      (this.release.proved() !== null || this.release.proofFailure() !== ''),
  );

  constructor() {
    effect(() => {
      const [last, next, ahead] = [this.last(), this.next(), this.ahead()];
      this.house();
      if (last === null || next === null) return;
      untracked(() => {
        if (ahead === null) {
          this.release.giveUp();
          void this.release.readEditions(this.id());
        } else if (!this.isMistaken()) this.release.begin(this.id(), last.number, last.chain, next);
        else void this.release.readEditions(this.id());
      });
    });
    effect(() => {
      const id = this.id();
      untracked(() => {
        void this.conversions.load(id);
        void this.questions.load({ profile: id });
        void this.left.load(id);
        void this.scheduled.load(id);
        this.leaving.set(new Set());
      });
    });
    // What was converted comes out otherwise.
    effect(() => {
      if (this.conversions.ended() > 0) untracked(() => this.release.lookAgain(this.id()));
    });
    effect(() => {
      const text = this.text();
      untracked(() => {
        if (text !== null) void this.release.show(this.id(), text);
      });
    });
  }

  /** Prepares a replacement for the texts of a group, and follows it as it runs. */
  protected async convert(group: ReachGroup): Promise<void> {
    const touched = this.release.touched();
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
    const touched = this.release.touched();
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
    if (await this.left.follow(this.id(), text)) this.release.lookAgain(this.id());
  }

  /** Whether a group is what the draft takes by a rule of its own or of what it extends. */
  protected readonly isAllowable = ({ kind, layer }: ReachGroup): boolean =>
    kind === 'taken' && (layer === 'profile' || layer === 'parent-profile');

  /** Shows what the draft would have to allow so that the texts of a group keep what it takes. */
  protected allow(group: ReachGroup): void {
    const [touched, profile] = [this.release.touched(), this.profile()];
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

  /** Who planned a release, by name. */
  protected personName(id: string): string {
    return this.acting.people().find((person) => person.id === id)?.label ?? '';
  }

  /** Asks whoever wrote the texts of a group what the draft may do to them. */
  protected async ask(group: ReachGroup): Promise<void> {
    const touched = this.release.touched();
    const texts = group.documents.map((at) => touched[at]!).slice(0, MOST_ASKED);
    const data: AskQuestion = { profile: this.id(), writers: this.writersOf(group), texts };
    const asked = await firstValueFrom(
      this.dialogs.open<AskDialog, AskQuestion, Asked>(AskDialog, { data, width: '520px', maxWidth: '94vw' }).afterClosed(),
    );
    if (asked === undefined) return;
    const of = asked.asked === 1 ? 'One text is asked about.' : `${asked.asked} texts are asked about.`;
    this.messages.open(asked.untouched === 0 ? of : `${of} ${asked.untouched} come out as before.`, undefined, { duration: 6000 });
    void this.questions.load({ profile: this.id() });
  }

  protected choose({ key }: ReachGroup): void {
    this.chosen.set(key);
  }

  private writersOf({ documents }: ReachGroup): string {
    const touched = this.release.touched();
    const people = new Map(this.acting.people().map(({ id, label }) => [id, label]));
    const writers = [...new Set(documents.map((at) => touched[at]!.changedBy))].map((id) => people.get(id) ?? 'somebody');
    const [first, second, ...others] = [...new Set(writers)].sort();
    if (first === undefined) return '';
    if (others.length > 0) return `${first}, ${second} and ${others.length === 1 ? 'one more' : `${others.length} more`}`;
    return second === undefined ? first : `${first} and ${second}`;
  }

  /** Asks why, and releases the draft. */
  protected async openRelease(): Promise<void> {
    const [profile, last] = [this.profile(), this.last()];
    if (profile === null || last === null) return;
    const { losing, touched } = this.release.reach();
    const data: ReleaseQuestion = {
      id: profile.id,
      name: this.name(),
      number: last.number + 1,
      revision: profile.revision,
      amiss: this.amiss(),
      reach: { texts: this.release.texts(), touched, losing: losing.documents, words: losing.words },
      leave: [...this.leaving()].map((name) => ({
        document: name.slice(0, name.lastIndexOf('/')),
        field: name.slice(name.lastIndexOf('/') + 1),
      })),
    };
    const answer = await firstValueFrom(
      this.dialogs
        .open<ReleaseDialog, ReleaseQuestion, ReleaseAnswer>(ReleaseDialog, { data, width: '560px', maxWidth: '94vw' })
        .afterClosed(),
    );
    void this.scheduled.load(profile.id);
    if (answer !== 'released') return;
    this.messages.open(`Edition ${data.number} of “${data.name}” is released: authors write with it.`, undefined, { duration: 6000 });
    this.store.dispatch(LibraryActions.editionsRequested());
    this.leaving.set(new Set());
    void this.left.load(profile.id);
  }

  /** Puts into the draft what was released last. */
  protected async takeBackDraft(): Promise<void> {
    const [profile, last] = [this.profile(), this.last()];
    if (profile === null || last === null) return;
    const data: Question = {
      title: `Take the draft of “${this.name()}” back to edition ${last.number}?`,
      text: 'What was changed since goes from the draft. Every saved state of it stays in its history.',
      answers: [
        { value: 'stay', label: 'Leave it' },
        { value: 'back', label: 'Take it back', isMain: true },
      ],
    };
    if ((await firstValueFrom(this.dialogs.open<Confirm, Question, string>(Confirm, { data, width: '480px' }).afterClosed())) !== 'back')
      return;
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

  protected nameOfProfile(id: string): string {
    return this.names().get(id) ?? id;
  }
}

/** What a profile says beside its markup rules. */
function besideMarkup(profile: object): Json {
  return Object.fromEntries(Object.entries(profile as Record<string, Json>).filter(([chapter]) => !TOLD.includes(chapter)));
}

const whatGoes = ({ kind, sentence }: ReachGroup): string => (kind === 'kept' ? `No more: ${sentence}` : sentence);

/** The rule as a citation. */
function citation({ layer, rule, element, attribute }: ReachGroup): string {
  if (rule === '') return '§2 Markup, how it is written';
  const about = [attribute, element].filter((name) => name !== '').join(' on ');
  const where = layer === 'house-limits' ? 'House limits' : layer === 'safety-floor' ? 'Safety floor' : '§2 Markup';
  return about === '' ? where : `${where}, ${about}`;
}
