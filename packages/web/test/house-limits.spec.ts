import { HouseLimitsPage } from '../src/features/house/house-limits';
import { withField, ATTRIBUTE_TEST_FORMS, STYLE_TEST_FORMS } from '../src/shared/rules/test-fields';
import { LibraryActions } from '../src/state/library';
import { seeOnly } from './in-view';
import { demoLibrary, Screen } from './support';

describe('the house limits', () => {
  // The rows of the first screen are drawn all the same.
  beforeEach(() => seeOnly(() => false));
  const open = () => Screen.of(HouseLimitsPage);
  const openWhole = () => {
    seeOnly(() => true);
    return open();
  };
  const row = (name: string) => `[data-element="${name}"]`;
  const house = (screen: Screen<HouseLimitsPage>) => screen.fixture.componentInstance.unsaved();
  const saved = (screen: Screen<HouseLimitsPage>) => screen.http.expectOne('/api/v1/house-limits');
  type Sent = { markup: { elements: Record<string, unknown>; limits: unknown }; trustedRoles: Record<string, { except: string[] }> };

  test('say what they hold, for which role, and which profiles use it', async () => {
    const screen = await openWhole();
    expect(screen.texts('.bar > span')[0]).toMatch(/^45 of \d+ may stay, \d+ that no profile uses$/);
    expect(screen.texts('thead th')).toEqual(expect.arrayContaining(['Element', 'Web team', 'Duty office', 'Used by']));
    expect(screen.find<HTMLInputElement>(`${row('iframe')} [aria-label="Web team is not bound for iframe"]`).checked).toBe(true);
    expect(screen.find<HTMLInputElement>(`${row('iframe')} [aria-label="Duty office is not bound for iframe"]`).checked).toBe(false);
    // What everybody may keep needs no exception; what the floor takes can have none.
    expect(screen.has(`${row('p')} .role input`)).toBe(false);
    expect(screen.has(`${row('script')} .role input`)).toBe(false);
    expect(screen.texts(`${row('p')} .users`)[0]).toMatch(/profiles/);
    expect(screen.texts('.exceptions li > span')).toEqual(['is not bound by /elements/iframe']);
    expect(screen.has('.save[disabled]')).toBe(true);
  });

  test('show what no profile uses alone, and nothing is lost where that goes', async () => {
    const screen = await open();
    await screen.click('.bar button[aria-pressed]');
    const rows = screen.texts('[data-element] .users');
    expect(rows.length).toBeGreaterThan(0);
    for (const users of rows) expect(users).toMatch(/no profile|none with/);
    await screen.set('[type=search]', 'nothing like it', 'input');
    expect(screen.texts('.none')).toContain('Nothing fits “nothing like it”.');
  });

  test('an element is taken out and let in again; each is a step that can be undone', async () => {
    const screen = await open();
    await screen.click(`${row('mark')} mat-checkbox input`);
    expect(house(screen)).toMatchObject({ count: 1, title: 'The house limits are not saved' });
    expect(screen.texts('.state')).toEqual(['One change, not saved yet']);
    expect(screen.texts('ty-changes-table tbody tr td')[0]).toBe('/markup/elements/mark');
    await screen.click('[aria-label=Undo]');
    expect(house(screen)).toBeNull();
    await screen.click('[aria-label=Redo]');
    await screen.click(`${row('mark')} mat-checkbox input`);
    expect(house(screen)).toBeNull();
  });

  test('somebody else than who changed a draft has to release it, where that is ticked', async () => {
    const screen = await open();
    await screen.click('.bar mat-checkbox input');
    expect(screen.texts('ty-changes-table tbody tr td')[0]).toMatch(/^\/release/);
    await screen.click('.save');
    const request = saved(screen);
    expect(request.request.body).toMatchObject({ release: { secondPerson: true } });
    request.flush(request.request.body as object, { headers: { ETag: '"2"' } });
    await screen.settle();
    await screen.click('.bar mat-checkbox input');
    expect(house(screen)).toMatchObject({ count: 1 });
  });

  test('a role is excepted and bound again, and what is saved goes under its entity tag', async () => {
    const screen = await openWhole();
    await screen.click('[aria-label="Web team is not bound for iframe"]');
    await screen.click('[aria-label="Duty office is not bound for section"]');
    await screen.click('.save');
    const request = saved(screen);
    expect(request.request.method).toBe('PUT');
    expect(request.request.headers.get('If-Match')).toBe('"1"');
    expect((request.request.body as Sent).trustedRoles).toEqual({ 'duty-office': { except: ['/elements/section'] } });
    request.flush(request.request.body as object, { headers: { ETag: '"2"' } });
    await screen.settle();
    await screen.settle();
    expect(screen.texts('.ty-notice')).toEqual(['Saved. The house limits hold as they stand here once they are released.']);
    expect(house(screen)).toBeNull();
    expect(screen.has('[aria-label=Undo][disabled]')).toBe(true);
  });

  test('an exception from a part of a rule is told in its column and withdrawn from the list', async () => {
    const screen = await openWhole();
    const document = {
      ...demoLibrary().house,
      trustedRoles: { 'web-team': { except: ['/elements/iframe/attributes/src', '/limits/nesting'] } },
    };
    screen.store.dispatch(LibraryActions.houseChanged({ house: document, houseRevision: 2 }));
    await screen.settle();
    expect(screen.find<HTMLInputElement>('[aria-label="Web team is not bound for iframe"]').indeterminate).toBe(true);
    await screen.click('[aria-label="Withdraw /elements/iframe/attributes/src from Web team"]');
    expect(screen.texts('.exceptions li > span')).toEqual(['is not bound by /limits/nesting']);
    await screen.click('[aria-label="Withdraw /limits/nesting from Web team"]');
    expect(screen.texts('.exceptions .ty-soft')).toContain('No role is excepted from anything.');
  });

  test('rules and settings have the same editors as those of a profile', async () => {
    const screen = await openWhole();
    await screen.click(`${row('img')} .name`);
    await screen.set('[aria-label="Most of width"]', '800');
    await screen.set('#limits-nesting', '40');
    await screen.set('#limits-elements', 'many');
    expect(screen.texts('[data-setting=limits-elements] .mistake')[0]).toMatch(/must be a whole number from 1 to/);
    await screen.click('.save');
    const { body } = saved(screen).request;
    expect((body as Sent).markup.elements['img']).toMatchObject({ attributes: { width: { test: 'integer', min: 1, max: 800 } } });
    expect((body as Sent).markup.limits).toEqual({ nesting: 40 });
  });

  test('a refused change is said, and nothing of it is lost', async () => {
    const screen = await open();
    await screen.click(`${row('mark')} mat-checkbox input`);
    await screen.click('.save');
    saved(screen).flush({ detail: 'The server is full.' }, { status: 503, statusText: 'x' });
    await settled(screen);
    expect(screen.texts('.ty-notice.bad p')).toEqual(['Not saved. The server is full.']);
    expect(house(screen)).toMatchObject({ count: 1 });
    expect(await saveAgain(screen)).toBe(true);
  });

  test('two people at once: what was changed here stands on what the other saved, and both are stored', async () => {
    const screen = await open();
    await screen.click(`${row('mark')} mat-checkbox input`);
    await screen.click('.save');
    saved(screen).flush({ detail: 'It was changed.' }, { status: 412, statusText: 'x' });
    await settled(screen);
    const { house: before } = demoLibrary();
    const theirs = { ...before, markup: { ...before.markup, comments: 'keep' } };
    saved(screen).flush(theirs, { headers: { ETag: '"7"' } });
    await settled(screen);
    expect(screen.texts('.ty-notice.bad p')[0]).toMatch(/Somebody else saved .* save again\.$/);
    // Only what was changed here would change theirs.
    expect(screen.texts('ty-changes-table tbody tr td:first-child')).toEqual(['/markup/elements/mark']);
    await screen.click('.save');
    const { request } = saved(screen);
    expect(request.headers.get('If-Match')).toBe('"7"');
    const body = request.body as Sent & { markup: { comments: string } };
    expect([body.markup.comments, 'mark' in body.markup.elements]).toEqual(['keep', false]);
  });

  const settled = async (screen: Screen<HouseLimitsPage>): Promise<void> => {
    await new Promise((done) => setTimeout(done));
    await screen.settle();
  };

  /** Saves as the question at the door does. */
  async function saveAgain(screen: Screen<HouseLimitsPage>): Promise<boolean> {
    const isSaved = screen.fixture.componentInstance.save();
    const request = saved(screen);
    request.flush(request.request.body as object, { headers: { ETag: '"2"' } });
    await screen.settle();
    return isSaved;
  }
});

describe('the fields of a test', () => {
  const field = (test: keyof typeof ATTRIBUTE_TEST_FORMS, key: string) =>
    ATTRIBUTE_TEST_FORMS[test].fields.find((known) => known.keys[0] === key)!;
  const styleField = (test: keyof typeof STYLE_TEST_FORMS, key: string) =>
    STYLE_TEST_FORMS[test].fields.find((known) => known.keys[0] === key)!;

  test.each<[object, ReturnType<typeof field>, string, object]>([
    [{ test: 'list', values: ['a'] }, field('list', 'values'), 'left, far right', { test: 'list', values: ['left', 'far right'] }],
    [
      { test: 'tokens', values: ['a'] },
      field('tokens', 'prefixes'),
      'is- has-',
      { test: 'tokens', values: ['a'], prefixes: ['is-', 'has-'] },
    ],
    [{ test: 'tokens', values: ['a'] }, field('tokens', 'ofStyles'), 'true', { test: 'tokens', values: ['a'], ofStyles: true }],
    [{ test: 'integer', min: 1 }, field('integer', 'min'), '', { test: 'integer' }],
    [{ test: 'url' }, field('url', 'hosts'), 'https://a.example, *.b.example', { test: 'url', hosts: ['a.example', '*.b.example'] }],
    [{ test: 'url', hosts: ['a.example'] }, field('url', 'hosts'), ' ', { test: 'url' }],
  ])('%j becomes what was typed', (before, where, text, test) =>
    expect(withField('attribute', before, where, text)).toEqual({ ok: true, test }),
  );

  test.each<['attribute' | 'style', object, ReturnType<typeof field>, string, RegExp]>([
    ['attribute', { test: 'integer' }, field('integer', 'min'), 'many', /Least: it must be a whole number, or nothing/],
    ['attribute', { test: 'integer' }, field('integer', 'min'), '1.5', /Least/],
    ['attribute', { test: 'tokens', values: ['a'] }, field('tokens', 'values'), '', /must allow at least one/],
    ['attribute', { test: 'url' }, field('url', 'hosts'), 'no host!', /must be a host name/],
    ['attribute', { test: 'pattern', pattern: 'a' }, field('pattern', 'pattern'), '(?=x)', /cannot be used/],
    ['style', { test: 'colour', values: ['red'] }, styleField('colour', 'values'), 'not-a-colour', /must be a CSS colour/],
  ])('%s %j refuses what cannot be, with the reason', (kind, before, where, text, message) => {
    const made = withField(kind, before, where, text);
    expect(made.ok).toBe(false);
    expect(made.ok ? '' : made.message).toMatch(message);
  });
});
