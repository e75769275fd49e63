import { inject, Injectable } from '@angular/core';
import type { StoredProfile } from '../../state/types';
import { Dialogs } from '../../ui/dialogs';

/** What can be done with a whole profile. Each dialog is loaded once it is asked for. */
@Injectable({ providedIn: 'root' })
export class ProfileActions {
  private readonly dialogs = inject(Dialogs);

  async make(): Promise<void> {
    await this.dialogs.open(async () => (await import('./new-profile')).NewProfile, { width: '460px' });
  }

  /** Changes its name and what it is for; or makes another one of a new name that says the same. */
  async name(profile: StoredProfile, way: 'rename' | 'copy'): Promise<void> {
    await this.dialogs.open(async () => (await import('./profile-name-dialog')).ProfileName, {
      width: '460px',
      data: { profile, way },
    });
  }

  /** Lets it extend another profile. */
  async adopt(profile: StoredProfile): Promise<void> {
    await this.dialogs.open(async () => (await import('./profile-parent-dialog')).ProfileParent, {
      width: '720px',
      data: profile,
    });
  }

  async remove(profile: StoredProfile): Promise<void> {
    await this.dialogs.open(async () => (await import('./profile-removal-dialog')).ProfileRemoval, {
      width: '480px',
      data: profile,
    });
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
