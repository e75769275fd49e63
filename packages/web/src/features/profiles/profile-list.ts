import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { TitleLine } from '../../ui/title-line';
import { DraftBackup } from '../../state/draft-backup';
import { libraryFeature } from '../../state/library';
import { NewProfile } from './new-profile';
import { inFamilyOrder } from './family';

/** The profiles: what each is for, which extends which, and how its draft stands. */
@Component({
  selector: 'ty-profile-list',
  imports: [DatePipe, RouterLink, TitleLine],
  templateUrl: './profile-list.html',
  styleUrl: './profile-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProfileList {
  private readonly store = inject(Store);
  private readonly backups = inject(DraftBackup);
  private readonly dialog = inject(MatDialog);
  protected readonly filter = signal('');
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly total = computed(() => this.profiles().length);

  protected readonly rows = computed(() => {
    const profiles = this.profiles();
    const names = this.names();
    const wanted = this.filter().trim().toLowerCase();
    return inFamilyOrder(profiles)
      .map(({ profile, depth }) => {
        const { id, document, revision, updatedAt } = profile;
        const parent = typeof document['extends'] === 'string' ? document['extends'] : null;
        return {
          id,
          depth,
          name: names.get(id)!,
          purpose: typeof document['purpose'] === 'string' ? document['purpose'] : '',
          parent: parent === null ? null : { id: parent, name: names.get(parent) ?? parent },
          children: profiles.filter((other) => other.document['extends'] === id).length,
          draft: this.backups.read(id) !== null ? 'unsaved' : revision === 1 ? 'untouched' : 'changed',
          saves: revision - 1,
          updatedAt,
        };
      })
      .filter(({ name, purpose }) => `${name} ${purpose}`.toLowerCase().includes(wanted));
  });

  protected openNew(): void {
    this.dialog.open(NewProfile, { width: '460px' });
  }
}
