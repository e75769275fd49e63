import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { provideStore, Store as GlobalStore } from '@ngrx/store';
import { siteSchema, type Site } from '@typikon/core';
import { LibraryActions, libraryFeature } from './library';
import { SiteStore } from './site';
import type { Library, SharedEdition } from './types';

const SITE: Site = siteSchema.parse({
  format: 'typikon-site/1',
  roles: [{ id: 'desk', label: 'Desk' }],
  types: [{ id: 'note', label: 'Note', pageKind: 'article', fields: [{ key: 'text', title: 'Text' }] }],
  assignments: [{ roles: '*', types: '*', fields: '*', profiles: ['house'] }],
});

let server: HttpTestingController;
type Store = InstanceType<typeof SiteStore>;

const settle = () => new Promise((done) => setTimeout(done));
async function opened(site: Site = SITE, revision = 3): Promise<Store> {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [provideHttpClient(), provideHttpClientTesting(), provideStore({ library: libraryFeature.reducer })],
  });
  server = TestBed.inject(HttpTestingController);
  const store = TestBed.inject(SiteStore);
  server.expectOne('/api/v1/site/draft').flush(site, { headers: { ETag: `"${revision}"` } });
  await settle();
  return store;
}
const rename = (store: Store, label: string, step = 'name') => store.changeType(step, 'note', (type) => ({ ...type, label }));

beforeEach(() => localStorage.clear());

describe('the site as it is worked on', () => {
  test('is read once, and is as it is saved', async () => {
    const store = await opened();
    expect([store.status(), store.isChanged(), store.canUndo()]).toEqual(['ready', false, false]);
    expect(store.assignments().why({ roles: ['desk'], type: 'note', field: 'text' }).profile).toBe('house');
  });

  test('steps of the same are one, and every step can be taken back and made again', async () => {
    const store = await opened();
    for (const label of ['N', 'No', 'Notice']) rename(store, label);
    store.changeField('help', 'note', 'text', (field) => ({ ...field, needed: true }));
    expect([store.types()[0]!.label, store.types()[0]!.fields[0]!.needed, store.isChanged()]).toEqual(['Notice', true, true]);
    store.undo();
    expect([store.types()[0]!.label, store.types()[0]!.fields[0]!.needed]).toEqual(['Notice', false]);
    store.undo();
    expect([store.types()[0]!.label, store.isChanged(), store.canUndo()]).toEqual(['Note', false, false]);
    store.redo();
    expect(store.types()[0]!.label).toBe('Notice');
    // A new step forgets those that were taken back.
    rename(store, 'Other', '');
    expect([store.canRedo(), store.types()[0]!.label]).toEqual([false, 'Other']);
  });

  test('what changes nothing is no step', async () => {
    const store = await opened();
    rename(store, 'Note');
    expect(store.canUndo()).toBe(false);
  });

  test('what is not saved is found again after a reload, unless the site was saved since', async () => {
    rename(await opened(), 'Kept');
    const again = await opened();
    expect([again.types()[0]!.label, again.isChanged()]).toEqual(['Kept', true]);
    expect((await opened(SITE, 4)).types()[0]!.label).toBe('Note');
    expect(localStorage.length).toBe(0);
  });

  test('is saved as a whole from the revision it was begun from', async () => {
    const store = await opened();
    rename(store, 'Notice');
    const saving = store.save();
    const request = server.expectOne({ method: 'PUT', url: '/api/v1/site/draft' });
    expect(request.request.headers.get('If-Match')).toBe('"3"');
    request.flush(request.request.body as Site, { headers: { ETag: '"4"' } });
    expect(await saving).toBe(true);
    expect([store.revision(), store.isChanged(), localStorage.length]).toEqual([4, false, 0]);
  });

  test('what the server refuses is told, and nothing that was entered is lost', async () => {
    const store = await opened();
    rename(store, 'Notice');
    const saving = store.save();
    server
      .expectOne({ method: 'PUT', url: '/api/v1/site/draft' })
      .flush(
        { detail: '/types/0: no.', problems: [{ profile: 'site', pointer: '/types/0', message: 'no' }] },
        { status: 422, statusText: 'No' },
      );
    expect(await saving).toBe(false);
    expect([store.refusal(), store.problems().length, store.types()[0]!.label, store.isChanged()]).toEqual([
      '/types/0: no.',
      1,
      'Notice',
      true,
    ]);
  });

  test.each<['takeTheirs' | 'keepMine', string, boolean]>([
    ['takeTheirs', 'Theirs', false],
    ['keepMine', 'Mine', true],
  ])('where somebody else was quicker: %s', async (choice, label, isChanged) => {
    const store = await opened();
    rename(store, 'Mine');
    const saving = store.save();
    const theirs = { site: { ...SITE, types: [{ ...SITE.types[0]!, label: 'Theirs' }] }, revision: 4 };
    server
      .expectOne({ method: 'PUT', url: '/api/v1/site/draft' })
      .flush({ detail: 'Later.', current: theirs }, { status: 412, statusText: 'No' });
    await saving;
    expect(store.theirs()?.revision).toBe(4);
    store[choice]();
    expect([store.types()[0]!.label, store.revision(), store.isChanged(), store.theirs()]).toEqual([label, 4, isChanged, null]);
    if (choice === 'takeTheirs') {
      // One's own is only a step away.
      store.undo();
      expect(store.types()[0]!.label).toBe('Mine');
    }
  });

  test('a save of which nobody knows what became is looked up', async () => {
    const store = await opened();
    rename(store, 'Notice');
    const draft = store.draft()!;
    const saving = store.save();
    server
      .expectOne({ method: 'PUT', url: '/api/v1/site/draft' })
      .flush({ detail: 'Unknown.', outcome: 'unknown' }, { status: 503, statusText: 'No' });
    await settle();
    server.expectOne('/api/v1/site/draft').flush(draft, { headers: { ETag: '"4"' } });
    expect(await saving).toBe(true);
    expect([store.revision(), store.isChanged()]).toEqual([4, false]);
  });

  test('a server that does not answer is told', async () => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting(), provideStore({ library: libraryFeature.reducer })],
    });
    server = TestBed.inject(HttpTestingController);
    const store = TestBed.inject(SiteStore);
    server.expectOne('/api/v1/site/draft').error(new ProgressEvent('error'));
    await settle();
    expect([store.status(), store.message()]).toEqual(['failed', 'The server does not answer.']);
  });

  test('holds as it was released last, with roles and people as they are saved', async () => {
    const store = await opened();
    const global = TestBed.inject(GlobalStore);
    expect(store.held()).toBe(null);
    global.dispatch(LibraryActions.loaded({ library: { shared: [] } as unknown as Library }));
    // What was never released holds as it is saved.
    expect(store.held()).toEqual(SITE);
    const { types, assignments, fallback } = SITE;
    const edition = { part: 'site', number: 1, document: { types, assignments, fallback } } as unknown as SharedEdition;
    global.dispatch(LibraryActions.sharedRead({ shared: [edition] }));
    expect([store.held(), store.isAhead()]).toEqual([SITE, false]);
    rename(store, 'Notice');
    expect(store.isAhead()).toBe(false);
    store.change('', (site) => ({ ...site, roles: [...site.roles, { ...site.roles[0]!, id: 'other', label: 'Other' }] }));
    const saving = store.save();
    const request = server.expectOne({ method: 'PUT', url: '/api/v1/site/draft' });
    request.flush(request.request.body as Site, { headers: { ETag: '"4"' } });
    await saving;
    expect([store.isAhead(), store.held()!.types[0]!.label, store.held()!.roles.length]).toEqual([true, 'Note', 2]);
    expect(store.heldAssignments().why({ roles: ['other'], type: 'note', field: 'text' }).profile).toBe('house');
  });
});
