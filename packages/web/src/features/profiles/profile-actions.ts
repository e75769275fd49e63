import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import type { StoredProfile } from '../../state/types';
import { Dialogs } from '../../ui/dialogs';

/**
 * What can be done with a whole profile. Each dialog is loaded once it is asked for, and gets the profile as it is stored then: what
 * a list shows may be a moment older.
 */
@Injectable({ providedIn: 'root' })
export class ProfileActions {
  private readonly dialogs = inject(Dialogs);
  private readonly profiles = inject(Store).selectSignal(libraryFeature.selectProfiles);

  async make(): Promise<void> {
    await this.dialogs.open(async () => (await import('./new-profile')).NewProfile, { width: '460px' });
  }

  /** Changes its name and what it is for; or makes another one of a new name that says the same. */
  async name(profile: StoredProfile, way: 'rename' | 'copy'): Promise<void> {
    await this.dialogs.open(async () => (await import('./profile-name-dialog')).ProfileName, {
      width: '460px',
      data: { profile: this.asStored(profile), way },
    });
  }

  /** Lets it extend another profile. */
  async adopt(profile: StoredProfile): Promise<void> {
    await this.dialogs.open(async () => (await import('./profile-parent-dialog')).ProfileParent, {
      width: '720px',
      data: this.asStored(profile),
    });
  }

  async remove(profile: StoredProfile): Promise<void> {
    await this.dialogs.open(async () => (await import('./profile-removal-dialog')).ProfileRemoval, {
      width: '480px',
      data: this.asStored(profile),
    });
  }

  private asStored(profile: StoredProfile): StoredProfile {
    return this.profiles().find(({ id }) => id === profile.id) ?? profile;
  }

  /** Shows how alike the editor and one kind of page were over time. */
  async past(of: { profileId: string; pageKindId: string }): Promise<void> {
    await this.dialogs.open(async () => (await import('../../shared/likeness/likeness-past-dialog')).LikenessPastDialog, {
      width: '760px',
      maxWidth: '94vw',
      data: of,
    });
  }
}
