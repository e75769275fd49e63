import { aheadOf, chainToRelease } from '../src/state/editions';
import { LibraryActions, libraryFeature } from '../src/state/library';
import { Equipment } from '../src/shared/writing/equipment';
import { ProfileList } from '../src/features/profiles/profile-list';
import { TestBed } from '@angular/core/testing';
import { demoLibrary, Screen } from './support';
import { SPELLING_WORKER } from '../src/state/spelling';
import type { Edition } from '../src/state/types';

const library = demoLibrary();
const profileOf = (id: string) => library.profiles.find((one) => one.id === id)!;
const editions = (...changed: Edition[]): Map<string, Edition> =>
  new Map([...library.editions, ...changed].map((edition) => [edition.profile, edition]));
const editionOf = (id: string): Edition => library.editions.find(({ profile }) => profile === id)!;

describe('a draft', () => {
  test('that says what was released is not ahead', () => {
    for (const profile of library.profiles) expect([profile.id, aheadOf(profile, editions())]).toEqual([profile.id, null]);
  });

  test('is ahead once it says something else, and no more once that is released', () => {
    const story = profileOf('story-desk');
    const changed = { ...story, document: { ...story.document, purpose: 'Else' } };
    expect(aheadOf(changed, editions())).toBe('draft');
    const released = { ...editionOf('story-desk'), number: 2, chain: chainToRelease(changed, editions()) };
    expect(aheadOf(changed, editions(released))).toBe(null);
  });

  test('is ahead of its edition where what it extends was released since, and not where that has a draft alone', () => {
    const house = profileOf('house');
    const changed = { ...house, document: { ...house.document, purpose: 'Else' } };
    expect(aheadOf(profileOf('story-desk'), editions())).toBe(null);
    const released = { ...editionOf('house'), number: 2, chain: chainToRelease(changed, editions()) };
    expect(aheadOf(profileOf('story-desk'), editions(released))).toBe('parent');
    expect(chainToRelease(profileOf('story-desk'), editions(released)).map(({ document }) => document['purpose'])).toEqual([
      profileOf('story-desk').document['purpose'],
      'Else',
    ]);
  });
});

beforeEach(() => TestBed.configureTestingModule({ providers: [{ provide: SPELLING_WORKER, useValue: () => new EventTarget() }] }));

test('authors are equipped with what was released, whatever the draft says', async () => {
  const screen = await Screen.of(ProfileList);
  const equipment = TestBed.inject(Equipment);
  const story = profileOf('story-desk');
  screen.store.dispatch(LibraryActions.profileStored({ profile: { ...story, document: { ...story.document, name: 'Changed' } } }));
  expect(equipment.profiles().get('story-desk')!.profile.name).toBe(story.document['name']);
  const documents = new Map(equipment.documents().map(({ id, document }) => [id, document]));
  expect(documents.get('story-desk')).toMatchObject({ name: story.document['name'] });
  expect(documents.get('story-desk')).not.toHaveProperty('extends');
});

test('a profile that was just made brings its first edition along; one that was stored again does not ask for it', async () => {
  const screen = await Screen.of(ProfileList);
  const isAsked = () =>
    screen.http.match('/api/v1/editions').length + screen.http.match(({ url }) => url.startsWith('/api/v1/editions')).length;
  screen.store.dispatch(LibraryActions.profileStored({ profile: profileOf('diary') }));
  expect(isAsked()).toBe(0);
  const profile = { ...profileOf('diary'), id: 'fresh' };
  screen.store.dispatch(LibraryActions.profileStored({ profile }));
  const fresh = { ...editionOf('diary'), profile: 'fresh', chain: [{ id: 'fresh', document: profile.document }] };
  screen.http.expectOne(({ url }) => url.startsWith('/api/v1/editions')).flush([...library.editions, fresh]);
  expect(screen.store.selectSignal(libraryFeature.selectEditions)().get('fresh')).toEqual(fresh);
});

test('a row of the list stays the same, with its menu, while more of it comes in', async () => {
  const screen = await Screen.of(ProfileList);
  const rowOf = () =>
    [...(screen.fixture.nativeElement as HTMLElement).querySelectorAll('tbody tr')].find((row) => row.querySelector('a[href$="/diary"]'));
  const row = rowOf();
  expect(row).toBeDefined();
  const released = { ...editionOf('diary'), number: 7 };
  screen.store.dispatch(
    LibraryActions.editionsRead({ editions: [...library.editions.filter(({ profile }) => profile !== 'diary'), released] }),
  );
  await screen.settle();
  expect(rowOf()).toBe(row);
  expect(row!.textContent).toContain('7');
});
