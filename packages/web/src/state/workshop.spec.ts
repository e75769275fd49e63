import type { StoredProfile } from './types';
import { workshopFeature, type WorkshopState } from './workshop';
import { WorkshopActions } from './workshop.actions';

const profile = (name: string, revision = 1): StoredProfile => ({
  id: 'desk',
  document: { format: 'typikon-profile/1', name },
  revision,
  createdAt: '',
  updatedAt: '2026-01-01T10:00:00.000Z',
});
const document = (name: string) => profile(name).document;

const play = (...actions: Parameters<typeof workshopFeature.reducer>[1][]): WorkshopState =>
  actions.reduce((state, action) => workshopFeature.reducer(state, action), undefined as unknown as WorkshopState);

const opened = WorkshopActions.opened({ profile: profile('A'), backup: null });
const edit = (name: string) => WorkshopActions.draftEdited({ document: document(name), label: `Name ${name}` });

test('every edit can be undone and done again', () => {
  const state = play(
    opened,
    edit('B'),
    edit('C'),
    WorkshopActions.undoPressed(),
    WorkshopActions.undoPressed(),
    WorkshopActions.redoPressed(),
  );
  expect(state.draft['name']).toBe('B');
  expect(state.past.map(({ label }) => label)).toEqual(['Name B']);
  expect(state.future.map(({ label }) => label)).toEqual(['Name C']);
});

test('an edit that changes nothing is no step, and a new edit ends the way forward', () => {
  const state = play(opened, edit('A'), edit('B'), WorkshopActions.undoPressed(), edit('D'));
  expect(state.past).toHaveLength(1);
  expect(state.future).toEqual([]);
});

test('undo and redo at the ends do nothing', () => {
  expect(play(opened, WorkshopActions.undoPressed(), WorkshopActions.redoPressed()).draft['name']).toBe('A');
});

test('a failed save keeps the draft and says why', () => {
  const state = play(
    opened,
    edit('B'),
    WorkshopActions.savePressed(),
    WorkshopActions.saveFailed({ message: 'The server does not answer.', problems: [] }),
  );
  expect(state).toMatchObject({ draft: { name: 'B' }, saved: { name: 'A' }, isSaving: false, failure: 'The server does not answer.' });
});

test('a save that went through becomes what is saved, with its revision', () => {
  expect(play(opened, edit('B'), WorkshopActions.savePressed(), WorkshopActions.saved({ profile: profile('B', 2) }))).toMatchObject({
    revision: 2,
    saved: { name: 'B' },
    isSaving: false,
  });
});

describe('somebody else saved meanwhile', () => {
  const conflict = [
    opened,
    edit('Mine'),
    WorkshopActions.savePressed(),
    WorkshopActions.conflictFound({ current: profile('Theirs', 5) }),
  ] as const;

  test('both versions are kept', () => {
    expect(play(...conflict)).toMatchObject({ draft: { name: 'Mine' }, conflict: { document: { name: 'Theirs' } } });
  });
  test('keeping mine saves it over theirs', () => {
    expect(play(...conflict, WorkshopActions.ownVersionKept())).toMatchObject({
      draft: { name: 'Mine' },
      revision: 5,
      isSaving: true,
      conflict: null,
    });
  });
  test('taking theirs leaves mine one undo away', () => {
    const taken = play(...conflict, WorkshopActions.theirVersionTaken());
    expect(taken).toMatchObject({ draft: { name: 'Theirs' }, saved: { name: 'Theirs' }, revision: 5 });
    expect(workshopFeature.reducer(taken, WorkshopActions.undoPressed()).draft['name']).toBe('Mine');
  });
});

describe('unsaved changes found in the browser', () => {
  const backup = { document: document('Kept'), revision: 1, at: '2026-01-01T09:00:00.000Z' };

  test('are offered, and taken back as one step', () => {
    const state = play(WorkshopActions.opened({ profile: profile('A'), backup }));
    expect(state.backup).toEqual(backup);
    expect(state.draft['name']).toBe('A');
    expect(workshopFeature.reducer(state, WorkshopActions.backupRestored())).toMatchObject({
      draft: { name: 'Kept' },
      backup: null,
      past: [{ document: { name: 'A' } }],
    });
  });
  test('are not offered where they are what was saved', () => {
    expect(play(WorkshopActions.opened({ profile: profile('Kept'), backup })).backup).toBeNull();
  });
});
