import { MatDialogRef } from '@angular/material/dialog';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { NewProfile } from '../src/features/profiles/new-profile';
import { ProfileList } from '../src/features/profiles/profile-list';
import { ConflictNotice } from '../src/features/workshop/conflict-notice';
import { Split } from '../src/ui/split';
import { Tabs } from '../src/ui/tabs';
import { workshopFeature } from '../src/state/workshop';
import { WorkshopActions } from '../src/state/workshop.actions';
import { demoLibrary, Screen } from './support';

describe('the list of profiles', () => {
  test('shows each below the one it extends, with its purpose and its draft', async () => {
    const screen = await Screen.of(ProfileList);
    expect(screen.texts('td.mat-column-name')).toEqual([
      'House',
      'Diary',
      'Notices desk',
      'Ferry note',
      'Story desk',
      'Tender desk',
      'Reply',
    ]);
    const [parent, edition, draft] = screen.texts('tbody tr:nth-child(4) td').slice(3);
    expect([parent, edition]).toEqual(['Notices deskchanges 18 rules', 'Edition 1 of Ferry noteas the draft']);
    expect(draft).toMatch(/^As first set up ?2 Jan 2026/);
    expect(screen.texts('tbody tr:nth-child(1) td:nth-child(4) .children')).toEqual(['sets 88 rules', '4 extend it']);
  });
  test('tells how alike the editor and the pages are, now and before', async () => {
    const screen = await Screen.of(ProfileList);
    const figure = (alike: number, pageKindId = 'news') => ({
      profileId: 'diary',
      pageKindId,
      elements: 100,
      alike,
      causes: 1,
      takenAt: '',
    });
    screen.http.expectOne('/api/v1/likeness/figures').flush([figure(90), figure(93), figure(100, 'article'), figure(50, 'gone')]);
    await screen.settle();
    expect(screen.texts('.likeness a').map((text) => text.replace(/\s+/g, ' '))).toEqual([
      '93.0 % News page was 90.0 %',
      '100 % Article page',
    ]);
    expect(screen.texts('.likeness').filter((text) => text.includes('no documents'))).toHaveLength(6);
  });
  test('filters by name and purpose, and says when nothing fits', async () => {
    const screen = await Screen.of(ProfileList);
    await screen.set('input', 'sailings', 'input');
    expect(screen.texts('td.mat-column-name')).toEqual(['Ferry note']);
    await screen.set('input', 'submarine', 'input');
    expect(screen.texts('.empty')[0]).toMatch(/No profile has “submarine”/);
    await screen.click('.empty button');
    expect(screen.texts('td.mat-column-name')).toHaveLength(7);
  });
});

describe('a new profile', () => {
  const open = async () => {
    TestBed.overrideProvider(MatDialogRef, { useValue: { close: jest.fn() } });
    const screen = await Screen.of(NewProfile);
    const navigate = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    return { screen, navigate };
  };
  test('is made on the server and opened', async () => {
    const { screen, navigate } = await open();
    await screen.set('#new-name', 'Picture desk', 'input');
    await screen.set('#new-purpose', 'Pictures', 'input');
    await screen.click('button[type=submit]');
    const request = screen.http.expectOne('/api/v1/profiles');
    expect(request.request.body).toEqual({
      id: 'picture-desk',
      document: { format: 'typikon-profile/1', name: 'Picture desk', purpose: 'Pictures', extends: 'house' },
    });
    request.flush({ id: 'picture-desk', document: {}, revision: 1, createdAt: '', updatedAt: '' });
    await screen.settle();
    expect(navigate).toHaveBeenCalledWith(['/profiles', 'picture-desk'], { queryParams: {} });
  });
  test.each([
    ['', /Give the profile a name/],
    ['Story desk', /already a profile that would be called “story-desk”/],
  ])('refuses the name %j before asking the server', async (name, reason) => {
    const { screen } = await open();
    await screen.set('#new-name', name, 'input');
    await screen.click('button[type=submit]');
    expect(screen.texts('.failure')[0]).toMatch(reason);
    screen.http.expectNone('/api/v1/profiles');
  });
  test('says why the server refused', async () => {
    const { screen } = await open();
    await screen.set('#new-name', 'Picture desk', 'input');
    await screen.click('button[type=submit]');
    screen.http
      .expectOne('/api/v1/profiles')
      .flush({ detail: 'There is already a profile "picture-desk".' }, { status: 409, statusText: 'Conflict' });
    await screen.settle();
    expect(screen.texts('.failure')).toEqual(['There is already a profile "picture-desk".']);
  });
});

describe('two versions of one draft', () => {
  test('are compared place by place, and either can be taken', async () => {
    const theirs = { ...demoLibrary().profiles.find(({ id }) => id === 'reply')!, revision: 4 };
    const current = { ...theirs, document: { ...theirs.document, purpose: 'Theirs', surface: null } };
    const screen = await Screen.of(ConflictNotice, { profile: 'reply', inputs: { theirs: current } });
    screen.store.dispatch(WorkshopActions.conflictFound({ current }));
    await screen.settle();
    expect(screen.texts('.ty-notice p')[0]).toMatch(/The two differ in 2 places\./);
    await screen.click('.ty-notice [mat-stroked-button]');
    expect(screen.texts('tbody tr')[0]).toMatch(/^\/purpose.*"Theirs"$/);
    expect(screen.texts('tbody tr')[1]).toMatch(/^\/surface.*takes it out$/);
    await screen.click('.ty-notice [mat-stroked-button]:nth-of-type(2)');
    expect(screen.draft['purpose']).toBe('Theirs');
    expect(screen.store.selectSignal(workshopFeature.selectRevision)()).toBe(4);
  });
});

describe('tabs', () => {
  test('are one stop, walked by the arrow keys', async () => {
    const screen = await Screen.of(Tabs, {
      inputs: {
        tabs: [
          { id: 'a', label: 'A' },
          { id: 'b', label: 'B', mark: { text: '2', meaning: 'two findings' } },
        ],
        current: 'a',
        label: 'Views',
        prefix: 'it',
      },
    });
    const chosen: string[] = [];
    screen.fixture.componentInstance.chosen.subscribe((id) => chosen.push(id));
    expect(screen.texts('[role=tab]')).toEqual(['A', 'B 2, two findings']);
    expect([...screen.fixture.nativeElement.querySelectorAll('[role=tab]')].map((tab: HTMLElement) => tab.tabIndex)).toEqual([0, -1]);
    for (const key of ['ArrowRight', 'ArrowLeft', 'End', 'Home', 'x'])
      screen.find('[role=tab]').dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    expect(chosen).toEqual(['b', 'b', 'b', 'a']);
  });
});

describe('a split', () => {
  test('is moved by the arrow keys within its bounds, and remembered', async () => {
    const screen = await Screen.of(Split, { inputs: { label: 'Width', name: 'test', initial: 78 } });
    const press = async (key: string) => {
      screen.find('.grip').dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
      await screen.settle();
      return screen.find('.grip').getAttribute('aria-valuenow');
    };
    expect(await press('End')).toBe('90');
    expect(await press('ArrowRight')).toBe('90');
    expect(await press('ArrowLeft')).toBe('88');
    expect(await press('Home')).toBe('20');
    expect(localStorage.getItem('typikon.split.test')).toBe('20.0');
  });

  test('remembers a share for each name, and gives all the room to the first pane for a while', async () => {
    const screen = await Screen.of(Split, { inputs: { label: 'Height', name: 'one', initial: 60 } });
    const set = async (name: string, value: unknown) => {
      screen.fixture.componentRef.setInput(name, value);
      await screen.settle();
    };
    const share = () => screen.find('.first').style.flexBasis;
    screen.find('.grip').dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
    await screen.settle();
    expect(share()).toBe('62%');
    await set('name', 'other');
    expect(share()).toBe('60%');
    await set('name', 'one');
    expect(share()).toBe('62%');
    await set('isWhole', true);
    expect([share(), screen.find('.second').hidden, screen.find('.grip').hidden]).toEqual(['100%', true, true]);
    await set('isWhole', false);
    expect([share(), screen.find('.second').hidden]).toEqual(['62%', false]);
  });
});
