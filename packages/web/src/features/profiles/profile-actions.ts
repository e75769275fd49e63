import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { StoredProfile } from '../../state/types';

/** What can be done with a whole profile. Each dialog is loaded once it is asked for. */
@Injectable({ providedIn: 'root' })
export class ProfileActions {
  private readonly dialog = inject(MatDialog);

  async make(): Promise<void> {
    const { NewProfile } = await import('./new-profile');
    this.dialog.open(NewProfile, { width: '460px' });
  }

  /** Changes its name and what it is for; or makes another one of a new name that says the same. */
  async name(profile: StoredProfile, way: 'rename' | 'copy'): Promise<void> {
    const { ProfileName } = await import('./profile-name-dialog');
    this.dialog.open(ProfileName, { width: '460px', data: { profile, way } });
  }

  /** Lets it extend another profile. */
  async adopt(profile: StoredProfile): Promise<void> {
    const { ProfileParent } = await import('./profile-parent-dialog');
    this.dialog.open(ProfileParent, { width: '720px', data: profile });
  }

  async remove(profile: StoredProfile): Promise<void> {
    const { ProfileRemoval } = await import('./profile-removal-dialog');
    this.dialog.open(ProfileRemoval, { width: '480px', data: profile });
  }

  /** Shows how alike the editor and one kind of page were over time. */
  async past(of: { profileId: string; pageKindId: string }): Promise<void> {
    const { LikenessPastDialog } = await import('../../shared/likeness/likeness-past-dialog');
    this.dialog.open(LikenessPastDialog, { width: '760px', maxWidth: '94vw', data: of });
  }
}
