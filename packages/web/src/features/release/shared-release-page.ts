import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { RouterLink } from '@angular/router';
import { leftBehind } from '@typikon/core';
import { isObject, isSameJson, type Json, type JsonObject } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { chainToRelease, type Chain } from '../../state/editions';
import { selectHouse, selectReleasedHouse } from '../../state/house';
import { LibraryActions, libraryFeature } from '../../state/library';
import { LikenessRunner } from '../../state/likeness-runner';
import { pagesIn, selectPagesDraft, type Shown } from '../../state/pages';
import { documentOf, type Target, type ToldEdition } from '../../state/releases';
import { ScheduledStore } from '../../state/scheduled';
import { SiteStore } from '../../state/site';
import type { Part } from '../../state/types';
import { TitleLine } from '../../ui/title-line';
import { EditionChangesDialog, type EditionChanges } from './edition-changes-dialog';
import { askRelease, askToReset } from './asking';
import { EditionList } from './edition-list';
import { LikenessChangeList } from './likeness-change';
import { LikenessChangeStore, type LikenessPair } from './likeness-change-store';
import { LooksStore } from './looks-store';
import { LooksView } from './looks-view';
import { PagesChanges } from './pages-changes';
import { ReachStore } from './reach-store';
import { ReachView } from './reach-view';
import { amissOf } from './reach-words';
import type { Amiss, ReleaseQuestion } from './release-dialog';
import { ReleaseStore, resolved, type Sides } from './release-store';
import { ScheduledStrip } from './scheduled-strip';
import { sharedParts } from './shared-parts';
import { chosenOf, othersAhead } from './together';
import { SiteChanges } from './site-changes';
import { TogetherList } from './together-list';
import { WhatChanges } from './what-changes';
import { WritingView } from './writing-view';

/** What releasing something that the whole site has once would do to every text, and the editions that were released. */
@Component({
  selector: 'ty-shared-release-page',
  imports: [
    EditionList,
    LikenessChangeList,
    LooksView,
    MatButtonModule,
    PagesChanges,
    ReachView,
    RouterLink,
    ScheduledStrip,
    SiteChanges,
    TitleLine,
    TogetherList,
    WhatChanges,
    WritingView,
  ],
  providers: [ReleaseStore, ReachStore, LooksStore, LikenessChangeStore, LikenessRunner, ScheduledStore],
  templateUrl: './shared-release-page.html',
  styleUrl: './release-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SharedReleasePage {
  /** What it is, from the route. */
  readonly part = input.required<Part>();
  protected readonly release = inject(ReleaseStore);
  protected readonly reach = inject(ReachStore);
  protected readonly looks = inject(LooksStore);
  private readonly likeness = inject(LikenessChangeStore);
  private readonly scheduled = inject(ScheduledStore);
  private readonly store = inject(Store);
  private readonly client = inject(ContractClient);
  private readonly dialogs = inject(MatDialog);
  private readonly messages = inject(MatSnackBar);
  private readonly parts = sharedParts();
  protected readonly facts = computed(() => this.parts[this.part()]);
  protected readonly target = computed((): Target => ({ kind: 'shared', part: this.part() }));
  protected readonly path = computed(() => [...this.facts().path, { text: 'Release' }]);
  protected readonly back = computed(() => this.facts().path.at(-1)!.link);
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  private readonly editions = this.store.selectSignal(libraryFeature.selectEditions);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly texts = this.store.selectSignal(libraryFeature.selectTexts);
  private readonly siteOrigin = this.store.selectSignal(libraryFeature.selectSiteOrigin);
  private readonly houses = {
    before: this.store.selectSignal(selectReleasedHouse),
    after: this.store.selectSignal(selectHouse),
  };
  private readonly draftOfPages = this.store.selectSignal(selectPagesDraft);
  protected readonly isAhead = computed(() => this.facts().isAhead());
  protected readonly number = computed(() => this.facts().last()?.number ?? 0);
  /** What house limits say beside markup, as it holds and as it would. */
  protected readonly settings = computed(() => ({
    before: besideMarkup(this.facts().last()?.document),
    after: besideMarkup(this.facts().draft()),
  }));
  /** Pages as readers see them, and as they would. */
  protected readonly pages = computed(
    (): Record<'before' | 'after', Shown> => ({
      before: { ...pagesIn(this.parts.pages.last()), siteOrigin: this.siteOrigin() },
      after: { ...this.draftOfPages(), siteOrigin: this.siteOrigin() },
    }),
    { equal: isSameJson as (one: unknown, other: unknown) => boolean },
  );
  protected readonly others = computed(() => othersAhead(this.target(), this.profiles(), this.editions(), this.parts));
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
  /** The site as it holds, and as it would. */
  protected readonly site = inject(SiteStore);
  /** Whether everything was looked at, so that a release is no leap in the dark. */
  protected readonly isReady = computed(() => {
    if (!this.isAhead()) return false;
    if (this.part() === 'pages') return this.looks.isLooked();
    if (this.part() === 'site') return true;
    const { lines, findings, proved, proofFailure } = this.release;
    return this.reach.isLooked() && lines() !== null && findings() !== null && (proved() !== null || proofFailure() !== '');
  });

  constructor() {
    effect(() => {
      const target = this.target();
      untracked(() => void this.scheduled.load(target));
    });
    effect(() => {
      const [isAhead, draft, part] = [this.isAhead(), this.facts().draft(), this.part()];
      if (draft === null) return;
      if (!isAhead || part !== 'house-limits') {
        untracked(() => {
          this.release.giveUp();
          this.reach.giveUp();
          void this.release.readEditions(this.target());
        });
        return;
      }
      const [sides, { together }] = [this.sides(), this.with()];
      untracked(() => {
        const rules = { before: asProfile(this.facts().last()?.document ?? {}), after: asProfile(draft), house: null };
        this.release.begin({ target: this.target(), edition: this.number(), rules, profiles: sides });
        this.reach.begin({ of: this.target(), together: together.map(({ id }) => id) });
      });
    });
    effect(() => {
      if (this.part() !== 'pages') return;
      const [isAhead, { before, after }] = [this.isAhead(), this.pages()];
      untracked(() => {
        if (!isAhead) this.looks.giveUp();
        else {
          this.looks.begin(before, after, countsByKind(this.texts()));
          this.likeness.begin(this.pairs(before, after), this.names());
        }
      });
    });
  }

  /** Every profile on the kinds of page on which its texts show, as authors write with it. */
  private pairs(before: Shown, after: Shown): LikenessPair[] {
    const pairs = new Map<string, LikenessPair>();
    for (const { profileId, pageKindId, count } of this.texts()) {
      const key = `${profileId} ${pageKindId}`;
      const known = pairs.get(key);
      if (known !== undefined) known.texts += count;
      else {
        const surface = resolved(this.editions().get(profileId)?.chain ?? [])?.profile.surface;
        if (surface !== undefined)
          pairs.set(key, {
            profile: profileId,
            pageKind: pageKindId,
            texts: count,
            before: { surface, pages: before },
            after: { surface, pages: after },
          });
      }
    }
    return [...pairs.values()];
  }

  /** Asks why, and releases the draft. */
  protected async openRelease(): Promise<void> {
    const { name, effect, revision } = this.facts();
    const data: ReleaseQuestion = {
      target: this.target(),
      name,
      effect,
      number: this.number() + 1,
      revision: revision(),
      amiss: this.amiss(),
      with: this.with(),
      withNames: this.others().flatMap(({ key, name: other }) => (this.chosen().has(key) ? [other] : [])),
      reach: this.reached(),
      leave: [],
    };
    const answer = await askRelease(this.dialogs, data);
    void this.scheduled.load(this.target());
    if (answer !== 'released') return;
    this.messages.open(`Edition ${data.number} of ${name} is released.`, undefined, { duration: 6000 });
    this.chosen.set(new Set());
    this.store.dispatch(LibraryActions.sharedRequested());
    this.store.dispatch(LibraryActions.editionsRequested());
  }

  /** What is known to be amiss with the release. */
  private amiss(): Amiss[] {
    const [before, after] = [this.site.held(), this.site.saved()];
    switch (this.part()) {
      case 'house-limits':
        return amissOf(this.reach.sum().losing, this.release.proved(), this.release.findings());
      case 'pages':
        return [];
      case 'site': {
        if (before === null || after === null) return [];
        const known = new Set(leftBehind(before, this.texts()));
        const left = leftBehind(after, this.texts()).filter((one) => !known.has(one));
        const count = left.reduce((sum, one) => sum + one.count, 0);
        const words = `${count === 1 ? 'One text keeps' : `${count} texts keep`} a profile that nobody may choose there`;
        return count === 0 ? [] : [{ heading: words, things: [words] }];
      }
    }
  }

  /** What the release does to texts, as it is kept with it. */
  private reached(): ReleaseQuestion['reach'] {
    const { losing, touched } = this.reach.sum();
    switch (this.part()) {
      case 'house-limits':
        return { texts: this.reach.texts(), touched, losing: losing.documents, words: losing.words };
      case 'pages':
        return { texts: this.looks.texts(), touched: this.looks.sum().texts, losing: 0, words: 0 };
      case 'site':
        return null;
    }
  }

  /** Puts into the draft what was released last. */
  protected async takeBackDraft(): Promise<void> {
    const { name, last, revision, read } = this.facts();
    const edition = last();
    if (edition === null) return;
    if (!(await askToReset(this.dialogs, name, edition.number))) return;
    try {
      await firstValueFrom(this.client.post('/shared/{part}/draft/back', undefined, revision(), { part: this.part() }));
    } catch (error) {
      this.messages.open(`The draft stays as it is. ${(error as Error).message}`, 'Close');
    }
    read();
  }

  /** An earlier edition was released again: the draft may have followed. */
  protected wentBack(): void {
    this.store.dispatch(LibraryActions.sharedRequested());
    this.facts().read();
  }

  /** Shows where an edition and the draft differ. */
  protected async compare({ number }: ToldEdition): Promise<void> {
    const { name, draft } = this.facts();
    try {
      const one = await firstValueFrom(documentOf(this.client, this.target(), number));
      const data: EditionChanges = {
        title: `Edition ${number} of ${name}, and the draft`,
        one: byName(one),
        other: byName(draft() ?? {}),
        heads: [`Edition ${number}`, 'The draft'],
      };
      this.dialogs.open<EditionChangesDialog, EditionChanges>(EditionChangesDialog, { data, width: '760px', maxWidth: '94vw' });
    } catch (error) {
      this.messages.open(`Edition ${number} cannot be read. ${(error as Error).message}`, 'Close');
    }
  }
}

/** How many texts show on each kind of page. */
function countsByKind(counts: readonly { pageKindId: string; count: number }[]): Map<string, number> {
  const sums = new Map<string, number>();
  for (const { pageKindId, count } of counts) sums.set(pageKindId, (sums.get(pageKindId) ?? 0) + count);
  return sums;
}

/** A document whose lists of things with ids are told by these, so that two of them differ only where a thing does. */
function byName(document: JsonObject): JsonObject {
  const named = (value: Json): Json =>
    Array.isArray(value) && value.every((one) => isObject(one) && typeof one['id'] === 'string')
      ? Object.fromEntries((value as { id: string }[]).map((one) => [one.id, one as unknown as Json]))
      : value;
  return Object.fromEntries(Object.entries(document).map(([key, value]) => [key, named(value)]));
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
