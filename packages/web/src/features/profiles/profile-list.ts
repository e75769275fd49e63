import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatTableModule } from '@angular/material/table';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { ownRules } from '@typikon/core/light';
import { TitleLine } from '../../ui/title-line';
import { aheadOf } from '../../state/editions';
import { DraftBackup } from '../../state/draft-backup';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { FirstSteps } from './first-steps';
import { Api } from '../../state/api';
import type { LikenessFigure, StoredProfile } from '../../state/types';
import { inFamilyOrder } from '../../shared/profile/family';
import { ProfileActions } from './profile-actions';
import { figureLines } from './likeness-figures';
import { inAddress } from '../../ui/in-address';

/** How much a profile sets itself, and in which chapters. */
function ownWords(document: StoredProfile['document']): { count: number; where: string } {
  const own = ownRules(document);
  return {
    count: own.reduce((sum, { count }) => sum + count, 0),
    where: own.map(({ chapter, count }) => `${chapter} ${count}`).join(', '),
  };
}

/** The profiles: what each is for, which extends which, and how its draft stands. */
@Component({
  selector: 'ty-profile-list',
  imports: [
    DatePipe,
    FirstSteps,
    MatButtonModule,
    MatFormFieldModule,
    MatInputModule,
    MatMenuModule,
    MatTableModule,
    RouterLink,
    TitleLine,
  ],
  templateUrl: './profile-list.html',
  styleUrl: './profile-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProfileList {
  private readonly store = inject(Store);
  private readonly backups = inject(DraftBackup);
  protected readonly actions = inject(ProfileActions);
  protected readonly filter = inAddress('words');
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  private readonly editions = this.store.selectSignal(libraryFeature.selectEditions);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly pageKinds = this.store.selectSignal(libraryFeature.selectPageKinds);
  private readonly figures = signal<readonly LikenessFigure[]>([]);
  /** What stands where a profile has no figures. */
  protected readonly withoutFigures = signal('…');
  private readonly site = inject(SiteStore);
  protected readonly columns = ['name', 'purpose', 'likeness', 'parent', 'edition', 'draft', 'more'];
  protected readonly total = computed(() => this.profiles().length);
  /** Whether something is still missing before anybody can write; before the site is read, nothing is missing of it. */
  protected readonly isBeginning = computed(
    () =>
      this.total() === 0 ||
      (this.site.draft() !== null &&
        (this.pageKinds().length === 0 || this.site.types().length === 0 || this.site.statements().length === 0)),
  );

  /** A row stays the same, with a menu that is open on it, while figures and editions come in. */
  protected readonly same = (_: number, row: { id: string }): string => row.id;
  protected readonly rows = computed(() => {
    const profiles = this.profiles();
    const names = this.names();
    const editions = this.editions();
    const figures = this.figures();
    const kinds = new Map(this.pageKinds().map((kind) => [kind.id, kind.name]));
    const wanted = this.filter().trim().toLowerCase();
    return inFamilyOrder(profiles)
      .map(({ profile, depth }) => {
        const { id, document, revision, updatedAt } = profile;
        const parent = typeof document['extends'] === 'string' ? document['extends'] : null;
        return {
          id,
          profile,
          depth,
          own: ownWords(document),
          name: names.get(id)!,
          purpose: typeof document['purpose'] === 'string' ? document['purpose'] : '',
          parent: parent === null ? null : { id: parent, name: names.get(parent) ?? parent },
          children: profiles.filter((other) => other.document['extends'] === id).length,
          edition: editions.get(id)?.number ?? null,
          ahead: aheadOf(profile, editions),
          draft: this.backups.read(id) !== null ? 'unsaved' : revision === 1 ? 'untouched' : 'changed',
          saves: revision - 1,
          updatedAt,
          likeness: figureLines(figures, id, kinds),
        };
      })
      .filter(({ name, purpose }) => `${name} ${purpose}`.toLowerCase().includes(wanted));
  });

  constructor() {
    // The list stands without them.
    inject(Api)
      .likenessFigures()
      .pipe(takeUntilDestroyed())
      .subscribe({
        next: (figures) => {
          this.figures.set(figures);
          this.withoutFigures.set('no documents');
        },
        error: () => this.withoutFigures.set('cannot be read now'),
      });
  }
}
