import type { Type } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Subject } from 'rxjs';
import { ProfileName } from '../src/features/profiles/profile-name-dialog';
import { ProfileParent } from '../src/features/profiles/profile-parent-dialog';
import { ProfileRemoval } from '../src/features/profiles/profile-removal-dialog';
import { LibraryActions, libraryFeature } from '../src/state/library';
import type { StoredProfile } from '../src/state/types';
import { demoLibrary, Screen } from './support';

const profileOf = (id: string): StoredProfile => demoLibrary().profiles.find((one) => one.id === id)!;
const close = jest.fn();
const dialog = { close, disableClose: false };

async function open<T>(component: Type<T>, data: unknown): Promise<{ screen: Screen<T>; ids: () => string[] }> {
  close.mockReset();
  TestBed.overrideProvider(MatDialogRef, { useValue: dialog });
  TestBed.overrideProvider(MAT_DIALOG_DATA, { useValue: data });
  const screen = await Screen.of(component);
  return {
    screen,
    ids: () =>
      screen.store
        .selectSignal(libraryFeature.selectProfiles)()
        .map(({ id }) => id),
  };
}
const answered = (profile: StoredProfile, document: StoredProfile['document']): StoredProfile => ({
  ...profile,
  document,
  revision: profile.revision + 1,
});

describe('a name', () => {
  test('is changed, and the key stays', async () => {
    const profile = profileOf('diary');
    const { screen } = await open(ProfileName, { profile, way: 'rename' });
    await screen.set('#profile-name', 'Harbour diary', 'input');
    await screen.set('#profile-purpose', '', 'input');
    await screen.click('button[type=submit]');
    const request = screen.http.expectOne('/api/v1/profiles/diary/draft');
    const { purpose: _, ...rest } = profile.document;
    expect(request.request.body).toEqual({ ...rest, name: 'Harbour diary' });
    expect(request.request.headers.get('If-Match')).toBe('"1"');
    request.flush(answered(profile, request.request.body as StoredProfile['document']));
    await screen.settle();
    expect(close).toHaveBeenCalled();
    expect(screen.store.selectSignal(libraryFeature.selectNames)().get('diary')).toBe('Harbour diary');
  });

  test('of a copy makes another profile, which says the same', async () => {
    const profile = profileOf('notices-desk');
    const { screen, ids } = await open(ProfileName, { profile, way: 'copy' });
    expect(screen.find<HTMLInputElement>('#profile-name').value).toBe('Copy of Notices desk');
    await screen.set('#profile-name', 'Story desk', 'input');
    await screen.click('button[type=submit]');
    expect(screen.texts('[role=alert]')[0]).toMatch(/already a profile that would be called “story-desk”/);
    await screen.set('#profile-name', 'Ferry desk', 'input');
    await screen.click('button[type=submit]');
    const request = screen.http.expectOne('/api/v1/profiles');
    expect(request.request.body).toEqual({ id: 'ferry-desk', document: { ...profile.document, name: 'Ferry desk' } });
    request.flush({ ...profile, id: 'ferry-desk' });
    await screen.settle();
    expect(ids()).toContain('ferry-desk');
  });

  test('that somebody changed meanwhile is not written over, and that is said', async () => {
    const { screen } = await open(ProfileName, { profile: profileOf('diary'), way: 'rename' });
    await screen.click('button[type=submit]');
    screen.http
      .expectOne('/api/v1/profiles/diary/draft')
      .flush({ detail: 'Somebody else has saved this profile.' }, { status: 412, statusText: 'Precondition Failed' });
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['Somebody else has saved this profile.']);
    expect(close).not.toHaveBeenCalled();
    const theirs = { ...profileOf('diary'), document: { ...profileOf('diary').document, help: { show: 'never' } }, revision: 7 };
    screen.http.expectOne('/api/v1/profiles/diary').flush(theirs);
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['Somebody else has saved this profile. You see it now as they saved it.']);
    await screen.set('#profile-name', 'Mine', 'input');
    await screen.click('button[type=submit]');
    const again = screen.http.expectOne('/api/v1/profiles/diary/draft').request;
    expect(again.headers.get('If-Match')).toBe('"7"');
    expect(again.body).toEqual({ ...theirs.document, name: 'Mine' });
  });

  test('is neither escaped from nor pressed away while the server is asked', async () => {
    const profile = profileOf('diary');
    const { screen } = await open(ProfileName, { profile, way: 'rename' });
    expect(dialog.disableClose).toBe(false);
    await screen.click('button[type=submit]');
    expect(dialog.disableClose).toBe(true);
    screen.http.expectOne('/api/v1/profiles/diary/draft').flush({ detail: 'No.' }, { status: 500, statusText: 'No' });
    await screen.settle();
    expect(dialog.disableClose).toBe(false);
  });
});

describe('another parent', () => {
  test('is chosen among those that do not extend it, and shows first what changes', async () => {
    const { screen } = await open(ProfileParent, profileOf('notices-desk'));
    expect(screen.optionsOf('mat-select')).toEqual(['', 'diary', 'house', 'reply', 'story-desk', 'tender-desk']);
    expect(screen.find<HTMLButtonElement>('[mat-flat-button]').disabled).toBe(true);
    await screen.set('mat-select', 'reply');
    expect(screen.texts('h3')[0]).toMatch(/^\d+ rules of it change\. So do those of the profile that extends it\.$/);
    const changed = Number(/\d+/.exec(screen.texts('h3')[0]!)![0]);
    expect(screen.texts('ty-changes-table tbody tr')).toHaveLength(changed);
    await screen.click('[mat-flat-button]');
    const request = screen.http.expectOne('/api/v1/profiles/notices-desk/draft');
    expect(request.request.body).toEqual({ ...profileOf('notices-desk').document, extends: 'reply' });
  });

  test('can be none', async () => {
    const { screen } = await open(ProfileParent, profileOf('story-desk'));
    await screen.set('mat-select', '');
    await screen.click('[mat-flat-button]');
    const { body } = screen.http.expectOne('/api/v1/profiles/story-desk/draft').request;
    expect(Object.keys(body as object)).not.toContain('extends');
  });

  test('without which it has mistakes is not offered, and they are said', async () => {
    const { screen } = await open(ProfileParent, profileOf('diary'));
    await screen.set('mat-select', '');
    expect(screen.texts('[role=alert]')[0]).toMatch(/^\/toolbar\/groups\/tools\/label: /);
    expect(screen.find<HTMLButtonElement>('[mat-flat-button]').disabled).toBe(true);
  });
});

describe('taking away', () => {
  const use = { extendedBy: [] as string[], statements: 0, isFallback: false, documents: 0, specimens: 0 };
  test('is not offered while others need it, and they are named', async () => {
    const { screen } = await open(ProfileRemoval, profileOf('house'));
    screen.http
      .expectOne('/api/v1/profiles/house/use')
      .flush({ ...use, extendedBy: ['story-desk'], statements: 2, isFallback: true, documents: 3, specimens: 1 });
    await screen.settle();
    expect(screen.texts('li')).toEqual([
      '“Story desk” extends it.',
      '2 statements say that somebody writes with it.',
      'It is for whatever no statement fits.',
    ]);
    expect(screen.texts('p').join(' ')).toMatch(/3 documents have texts .* One specimen is meant/);
    expect(screen.find<HTMLButtonElement>('[mat-flat-button]').disabled).toBe(true);
  });

  test('can be taken back', async () => {
    const acted = new Subject<void>();
    const { screen, ids } = await open(ProfileRemoval, profileOf('tender-desk'));
    const shown = jest.spyOn(TestBed.inject(MatSnackBar), 'open').mockReturnValue({ onAction: () => acted } as never);
    screen.http.expectOne('/api/v1/profiles/tender-desk/use').flush(use);
    await screen.settle();
    await screen.click('[mat-flat-button]');
    const request = screen.http.expectOne({ method: 'DELETE', url: '/api/v1/profiles/tender-desk' });
    expect(request.request.headers.get('If-Match')).toBe('"1"');
    request.flush(null, { status: 204, statusText: 'No Content' });
    await screen.settle();
    expect(ids()).not.toContain('tender-desk');
    expect(shown).toHaveBeenCalledWith('“Tender desk” is gone.', 'Bring it back', expect.anything());
    acted.next();
    const again = screen.http.expectOne({ method: 'POST', url: '/api/v1/profiles' });
    expect(again.request.body).toEqual({ id: 'tender-desk', document: profileOf('tender-desk').document });
    again.flush(profileOf('tender-desk'));
    expect(ids()).toContain('tender-desk');
  });

  test('that the server refuses says why, and takes nothing', async () => {
    const { screen, ids } = await open(ProfileRemoval, profileOf('tender-desk'));
    screen.http.expectOne('/api/v1/profiles/tender-desk/use').flush(use);
    await screen.settle();
    await screen.click('[mat-flat-button]');
    screen.http.expectOne('/api/v1/profiles/tender-desk').flush({ detail: 'It is still in use.' }, { status: 409, statusText: 'Conflict' });
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['It is still in use.']);
    expect(ids()).toContain('tender-desk');
  });

  test('is of the profile as it is stored by then, and not as a list showed it', async () => {
    const shown = profileOf('tender-desk');
    const { screen } = await open(ProfileRemoval, shown);
    screen.http.expectOne('/api/v1/profiles/tender-desk/use').flush(use);
    screen.store.dispatch(LibraryActions.profileStored({ profile: answered(shown, { ...shown.document, name: 'Boat desk' }) }));
    await screen.settle();
    expect(screen.texts('h2')).toEqual(['Take “Boat desk” away?']);
    expect(screen.texts('p').join(' ')).toMatch(/its 2 saved states/);
    await screen.click('[mat-flat-button]');
    const { request } = screen.http.expectOne({ method: 'DELETE', url: '/api/v1/profiles/tender-desk' });
    expect(request.headers.get('If-Match')).toBe('"2"');
  });
});
