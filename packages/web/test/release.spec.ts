import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialog, MatDialogRef } from '@angular/material/dialog';
import { compileRules, reachInBrief, readHouseLimits, reachOf, resolveProfile, type JsonObject } from '@typikon/core';
import { of } from 'rxjs';
import { AllowDialog, type AllowQuestion } from '../src/features/release/allow-dialog';
import { EditionList } from '../src/features/release/edition-list';
import { ReleaseDialog, type ReleaseQuestion } from '../src/features/release/release-dialog';
import { ReleasePage } from '../src/features/release/release-page';
import { TakeBackDialog } from '../src/features/release/take-back-dialog';
import { LibraryActions } from '../src/state/library';
import { LikenessRunner } from '../src/state/likeness-runner';
import { PROOF_WORKER } from '../src/state/proof-runner';
import { SiteWorker } from '../src/state/site-worker';
import { type Target, type ToldEdition } from '../src/state/releases';
import type { StoredProfile } from '../src/state/types';
import { ScheduledStrip } from '../src/features/release/scheduled-strip';
import { Acting } from '../src/state/acting';
import type { ScheduledRelease } from '../src/state/releases';
import { ScheduledStore } from '../src/state/scheduled';
import { InPageWorker } from './in-page-worker';
import { demoLibrary, Screen } from './support';

jest.setTimeout(60_000);

const ID = 'notices-desk';
const TARGET: Target = { kind: 'profile', id: ID };
const library = demoLibrary();
const stored = library.profiles.find(({ id }) => id === ID)!;
const rulesOf = (document: JsonObject) => {
  const resolution = resolveProfile(ID, (id) => (id === ID ? document : library.profiles.find((one) => one.id === id)!.document));
  if (!resolution.ok) throw new Error('mistakes');
  const read = readHouseLimits(library.house);
  if (!read.ok) throw new Error('mistakes');
  return compileRules(resolution.resolved, { house: read.house });
};
const withElements = (elements: JsonObject): StoredProfile => {
  const markup = stored.document['markup'] as { elements: JsonObject };
  return { ...stored, revision: 2, document: { ...stored.document, markup: { ...markup, elements: { ...markup.elements, ...elements } } } };
};
const edition = (number: number, more: Partial<ToldEdition> = {}): ToldEdition => ({
  number,
  releasedAt: '2026-09-01T08:00:00.000Z',
  releasedBy: '',
  note: '',
  fromRevision: number,
  backTo: null,
  reach: null,
  accepted: [],
  ...more,
});
const touchedBy = (profile: StoredProfile, texts: readonly string[]) =>
  texts.flatMap((html, at) => {
    const reach = reachOf(html, rulesOf(stored.document), rulesOf(profile.document));
    return reach === null
      ? []
      : [{ document: `text-${at}`, field: 'body', title: `Text ${at}`, changedBy: 'ned-orr', reach: reachInBrief(reach) }];
  });

const worker = {
  compare: jest.fn(() => Promise.resolve([{ subject: { kind: 'element' }, kept: 'from', sentence: '<table>: less than before.' }])),
  checkProfile: jest.fn((_id: string, documents: Record<string, JsonObject>) =>
    Promise.resolve(
      JSON.stringify(documents[ID]) === JSON.stringify(stored.document)
        ? [{ check: 'old', severity: 'note', sentence: 'It was there.', pointer: '' }]
        : [
            { check: 'new', severity: 'warning', sentence: 'It is new.', pointer: '' },
            { check: 'small', severity: 'note', sentence: 'A remark.', pointer: '' },
          ],
    ),
  ),
};

beforeEach(() => {
  TestBed.configureTestingModule({ providers: [{ provide: PROOF_WORKER, useValue: () => new InPageWorker() }] });
  TestBed.overrideProvider(SiteWorker, { useValue: worker });
  TestBed.overrideProvider(LikenessRunner, { useValue: { ask: () => Promise.reject(new Error('Nothing is to be compared.')) } });
});

async function open(profile: StoredProfile): Promise<Screen<ReleasePage>> {
  const screen = await Screen.of(ReleasePage, { inputs: { id: ID } });
  for (const waiting of screen.http.match(() => true)) waiting.flush(waiting.request.url.endsWith('/editions') ? [edition(1)] : []);
  screen.store.dispatch(LibraryActions.profileStored({ profile }));
  await screen.settle();
  screen.http.expectOne(`/api/v1/profiles/${ID}/editions`).flush([edition(1)]);
  await InPageWorker.rest();
  await screen.settle();
  return screen;
}

const TEXTS = [
  '<p>One</p>',
  '<table><tbody><tr><td>Two three</td></tr></table>',
  '<p>Four</p><h2>Five</h2>',
  '<table><tbody><tr><td>Six</td></tr></table>',
];
const STRICTER = withElements({ table: { outcome: 'drop' } });

/** Answers what is asked of the stored texts: some in the first answer, the rest in another. */
async function answerReach(screen: Screen<ReleasePage>, profile: StoredProfile): Promise<void> {
  const touched = touchedBy(profile, TEXTS);
  screen.http
    .expectOne(`/api/v1/profiles/${ID}/reach`)
    .flush(
      { texts: 6, candidates: 4, sure: 0, undecided: [], looked: 3, touched: touched.slice(0, 1) },
      { headers: { Link: `</api/v1/profiles/${ID}/reach?after=text-2%2Fbody>; rel="next"` } },
    );
  await screen.settle();
  expect(screen.texts('.state')[0]).toBe('3 of 4 textslooked at');
  expect(screen.texts('.strip dt')[1]).toBe('come out differently, as far as it is known');
  expect(screen.texts('.strip dd')[1]).toMatch(/^\d to \d$/);
  expect(screen.find<HTMLButtonElement>('.go').disabled).toBe(true);
  screen.http
    .expectOne(`/api/v1/profiles/${ID}/reach?after=text-2%2Fbody`)
    .flush({ texts: 6, candidates: 4, sure: 0, undecided: ['white space'], looked: 1, touched: touched.slice(1) });
  await InPageWorker.rest();
  await screen.settle();
}

describe('the release page', () => {
  test('says that there is nothing to release where authors write with what the draft says', async () => {
    const screen = await Screen.of(ReleasePage, { inputs: { id: ID } });
    screen.http.expectOne(`/api/v1/profiles/${ID}/editions`).flush([edition(1)]);
    await screen.settle();
    expect(screen.texts('h1')).toEqual(['Notices desk, edition 1']);
    expect(screen.texts('.note')).toEqual(['There is nothing to release: authors write with what the draft says.']);
    expect(screen.texts('.go')).toEqual([]);
    screen.http.expectNone(({ url }) => url.endsWith('/reach'));
  });

  test('shows what changed, what the checks and specimens say, and what happens to every stored text', async () => {
    const screen = await open(STRICTER);
    await answerReach(screen, STRICTER);
    expect(screen.texts('h1')).toEqual(['What edition 2 would do']);
    expect(screen.texts('.state')).toEqual(['2 texts lose wordsif it is released']);
    expect(screen.texts('.strip dd')).toEqual(['6', '2', '2', '0']);
    expect(screen.texts('.strip dt')[0]).toBe('texts; 4 could change');
    expect(screen.texts('ty-reach-view > .note')[0]).toMatch(/does not decide whom this touches \(white space\)\.$/);
    expect(screen.texts('.changes')[0]).toContain('<table>: less than before.');
    const proof = screen.texts('.changes')[1]!;
    expect(proof).toMatch(/\d+ of \d+ specimens come out as expected/);
    expect(proof).toContain('Tide table, from a spreadsheet');
    expect(proof).toContain('New finding: It is new.');
    expect(proof).toContain('Settled: It was there.');
    expect(screen.texts('ty-likeness-change li')).toEqual(['What authors see is set up as before.']);
    const rows = screen.texts('tbody tr');
    expect(rows[0]).toMatch(/^2 tables went, with their content, and 11 letters of text with them ?§2 Markup, table ?2 ?11 ?somebody/);
    // The text that loses most stands first, and is shown by both.
    expect(screen.texts('.texts li')).toEqual(['Text 1 −2', 'Text 3 −1']);
    screen.http
      .expectOne(`/api/v1/profiles/${ID}/reach/text-1/body`)
      .flush({ before: TEXTS[1], after: '', pageKind: 'notice-page', wordsLost: ['Two', 'three'], wordsGained: [], entries: [] });
    await screen.settle();
    expect(screen.texts('ty-text-by-both header p')).toEqual(['Text 1loses 2 words: Two three']);
    const [before, after] = [...screen.fixture.nativeElement.querySelectorAll('iframe')] as HTMLIFrameElement[];
    expect([before!.getAttribute('sandbox'), after!.getAttribute('sandbox')]).toEqual(['', '']);
    expect(before!.srcdoc).toContain('<td>Two three</td>');
    expect(after!.srcdoc).not.toContain('Two three');
    // The comparison is made of what is released and of the draft, each with what it extends.
    const asked = worker.compare.mock.calls.at(-1) as unknown as [
      { from: string; to: string; profiles: { id: string; document: JsonObject }[] },
    ];
    const { profiles } = asked[0];
    expect(profiles.map(({ id, document }) => [id, document['extends'], document['name']])).toEqual([
      ['a0', 'a1', 'edition 1'],
      ['a1', undefined, library.profiles.find(({ id }) => id === 'house')!.document['name']],
      ['b0', 'b1', 'the draft'],
      ['b1', undefined, library.profiles.find(({ id }) => id === 'house')!.document['name']],
    ]);
  });

  test('asks why before it releases, and only once all was looked at', async () => {
    const screen = await open(STRICTER);
    await answerReach(screen, STRICTER);
    const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of('released') } as never);
    expect(screen.find<HTMLButtonElement>('.go').disabled).toBe(false);
    await screen.click('.go');
    const { data } = opened.mock.calls[0]![1] as { data: ReleaseQuestion };
    expect(data).toMatchObject({ target: TARGET, number: 2, revision: 2, reach: { texts: 6, touched: 2, losing: 2, words: 3 } });
    expect(data.amiss.map(({ heading }) => heading)).toEqual([
      '2 texts lose words, 3 in all',
      expect.stringMatching(/no longer come(s)? out as expected$/),
      'It is new.',
    ]);
    await screen.settle();
    const released = { ...library.editions.find(({ profile }) => profile === ID)!, number: 2 };
    const chain = [{ id: ID, document: STRICTER.document }, ...released.chain.slice(1)];
    screen.http
      .expectOne(({ url }) => url.endsWith('/api/v1/editions'))
      .flush([...library.editions.filter(({ profile }) => profile !== ID), { ...released, chain }]);
    await screen.settle();
    expect(screen.texts('h1')).toEqual(['Notices desk, edition 2']);
  });

  test('goes on where looking at the texts broke off, and says what is left', async () => {
    const screen = await open(STRICTER);
    screen.http.expectOne(`/api/v1/profiles/${ID}/reach`).flush({ detail: 'The database is away.' }, { status: 503, statusText: 'No' });
    await screen.settle();
    expect(screen.texts('.right [role=alert] p')).toEqual(['Not all texts were looked at. The database is away.']);
    expect(screen.find<HTMLButtonElement>('.go').disabled).toBe(true);
    await screen.click('.right [role=alert] button');
    await answerReach(screen, STRICTER);
    expect(screen.texts('.right [role=alert]')).toEqual([]);
  });

  test('says that nothing stored changes where that is so, and names a text that gains words as one', async () => {
    const purpose = { ...stored, revision: 2, document: { ...stored.document, purpose: 'Else' } };
    const screen = await open(purpose);
    await answerReach(screen, purpose);
    expect(screen.texts('.groups .note')).toEqual(['Every stored text comes out as before, to the letter.']);
    expect(screen.texts('.state')).toEqual(['No text losesa word']);
    expect(screen.texts('mat-panel-title')).toEqual(['One other setting']);
  });

  test('of a draft that has mistakes does not compare it, and says where they are', async () => {
    const broken = { ...stored, revision: 2, document: { ...stored.document, markup: { elements: { p: { outcome: 'eat' } } } } };
    const screen = await Screen.of(ReleasePage, { inputs: { id: ID } });
    screen.store.dispatch(LibraryActions.profileStored({ profile: broken }));
    await screen.settle();
    expect(screen.texts('[role=alert] p')[0]).toMatch(/has mistakes .* cannot be released/);
    expect(screen.find<HTMLButtonElement>('.go').disabled).toBe(true);
    screen.http.expectNone(({ url }) => url.endsWith('/reach'));
  });

  test('texts of a group are left as they are, listed once they are, and follow again', async () => {
    const screen = await open(STRICTER);
    await answerReach(screen, STRICTER);
    await screen.click('.acts button[aria-pressed]');
    expect(screen.texts('.texts li em').length).toBeGreaterThan(0);
    expect(screen.texts('.texts li em').every((words) => words === 'left as it is')).toBe(true);
    const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of('released') } as never);
    await screen.click('.go');
    const { data } = opened.mock.calls[0]![1] as { data: ReleaseQuestion };
    expect(data.leave[0]).toEqual({ document: 'text-1', field: 'body' });
    await new Promise((done) => setTimeout(done));
    const left = { document: 'text-1', field: 'body', title: 'Text 1', edition: 1 };
    screen.http.expectOne(`/api/v1/profiles/${ID}/left`).flush([left]);
    await new Promise((done) => setTimeout(done));
    await screen.settle();
    expect(screen.texts('ty-left-list li')[0]).toMatch(/Text 1\s*edition 1/);
    await screen.click('ty-left-list button');
    const follow = screen.http.expectOne(`/api/v1/profiles/${ID}/follow`);
    expect(follow.request.body).toEqual({ texts: [{ document: 'text-1', field: 'body' }] });
    follow.flush({ following: 1, others: 0 });
    await new Promise((done) => setTimeout(done));
    screen.http.expectOne(`/api/v1/profiles/${ID}/left`).flush([]);
    await new Promise((done) => setTimeout(done));
    await screen.settle();
    expect(screen.has('ty-left-list')).toBe(false);
  });

  test('other drafts that are ahead can be released with it: the house limits and what it extends', async () => {
    const screen = await open(STRICTER);
    await answerReach(screen, STRICTER);
    expect(screen.has('ty-together-list')).toBe(false);
    const house = library.profiles.find(({ id }) => id === 'house')!;
    const parent = { ...house, revision: 8, document: { ...house.document, purpose: 'Else' } };
    screen.store.dispatch(LibraryActions.profileStored({ profile: parent }));
    const limits = { ...library.house, release: { secondPerson: true } };
    screen.store.dispatch(LibraryActions.houseChanged({ house: limits, houseRevision: 4 }));
    await screen.settle();
    // What is chosen beside is no part of what is looked at until it is chosen.
    screen.http.expectNone(`/api/v1/profiles/${ID}/reach`);
    expect(screen.texts('ty-together-list label')).toEqual(['House limits', house.document['name']]);
    for (const at of [1, 2]) {
      await screen.click(`ty-together-list li:nth-child(${at}) input`);
      await screen.settle();
    }
    const asked = screen.http.match(`/api/v1/profiles/${ID}/reach`).filter(({ cancelled }) => !cancelled);
    expect(asked.map(({ request }) => request.body)).toEqual([{ together: ['house'], shared: ['house-limits'] }]);
    asked[0]!.flush({ texts: 1, candidates: 0, sure: 0, undecided: [], looked: 0, touched: [] });
    await InPageWorker.rest();
    await screen.settle();
    // The draft stands on the draft of what it extends.
    const [{ profiles }] = worker.compare.mock.calls.at(-1) as unknown as [{ profiles: { id: string; document: JsonObject }[] }];
    expect(profiles.find(({ id }) => id === 'b1')!.document['purpose']).toBe('Else');
    const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of(undefined) } as never);
    await screen.click('.go');
    expect(opened.mock.calls[0]![1]).toMatchObject({
      data: {
        with: { together: [{ id: 'house', revision: 8 }], shared: [{ part: 'house-limits', revision: 4 }] },
        withNames: ['House limits', house.document['name']],
      },
    });
  });

  test('of no profile says so', async () => {
    const screen = await Screen.of(ReleasePage, { inputs: { id: 'nobody' } });
    expect(screen.texts('h1')).toEqual(['No such profile']);
  });
});

describe('the question before a release', () => {
  const close = jest.fn();
  const question: ReleaseQuestion = {
    target: TARGET,
    name: '“Notices desk”',
    effect: 'Authors write with it from then on.',
    number: 2,
    revision: 5,
    with: { together: [{ id: 'house', revision: 3 }], shared: [{ part: 'house-limits', revision: 4 }] },
    withNames: ['House limits', 'House'],
    amiss: [
      { heading: 'Two texts lose words', things: ['Two texts lose words'] },
      { heading: '2 specimens', things: ['One', 'Other'] },
    ],
    reach: { texts: 4, touched: 2, losing: 2, words: 3 },
    leave: [{ document: 'note-1', field: 'body' }],
  };
  async function ask(data: ReleaseQuestion): Promise<Screen<ReleaseDialog>> {
    close.mockReset();
    TestBed.overrideProvider(MatDialogRef, { useValue: { close, disableClose: false } });
    TestBed.overrideProvider(MAT_DIALOG_DATA, { useValue: data });
    return Screen.of(ReleaseDialog);
  }

  test('wants a reason for each kind of thing that is amiss, and keeps it with each', async () => {
    const screen = await ask(question);
    await screen.click('button[type=submit]');
    expect(screen.texts('mat-error')).toHaveLength(2);
    screen.http.expectNone(() => true);
    await screen.set('#release-reason-0', 'They are old.', 'input');
    await screen.set('#release-reason-1', 'They are wrong.', 'input');
    await screen.set('#release-note', 'Shorter notices', 'input');
    await screen.click('button[type=submit]');
    const { request } = screen.http.expectOne(`/api/v1/profiles/${ID}/editions`);
    expect(request.headers.get('If-Match')).toBe('"5"');
    expect(request.body).toEqual({
      note: 'Shorter notices',
      accepted: [
        { what: 'Two texts lose words', why: 'They are old.' },
        { what: 'One', why: 'They are wrong.' },
        { what: 'Other', why: 'They are wrong.' },
      ],
      reach: question.reach,
      leave: question.leave,
      ...question.with,
    });
    expect(screen.texts('mat-dialog-content > p')[1]).toBe('With it, all or none: House limits, House.');
    expect(screen.texts('mat-dialog-content > p')[0]).toMatch(/by this edition, but for the text that is left as it is\.$/);
  });

  test('says why it was not released, keeps what was written, and can be asked again', async () => {
    const screen = await ask({ ...question, amiss: [] });
    await screen.set('#release-note', 'Why', 'input');
    await screen.click('button[type=submit]');
    screen.http
      .expectOne(`/api/v1/profiles/${ID}/editions`)
      .flush({ detail: 'Somebody else has saved.' }, { status: 412, statusText: 'No' });
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['Somebody else has saved.']);
    expect(close).not.toHaveBeenCalled();
    await screen.click('button[type=submit]');
    screen.http.expectOne(`/api/v1/profiles/${ID}/editions`).flush([edition(2)], { status: 201, statusText: 'Created' });
    await screen.settle();
    expect(close).toHaveBeenCalledWith('released');
  });

  test('can be planned for a time to come', async () => {
    const screen = await ask({ ...question, amiss: [] });
    expect(screen.has('#release-at')).toBe(false);
    await screen.click('input[type=radio][value=later]');
    await screen.settle();
    await screen.set('#release-at', '', 'input');
    await screen.click('button[type=submit]');
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['Say when it is to be released.']);
    screen.http.expectNone(() => true);
    await screen.set('#release-at', '2031-04-01T09:30', 'input');
    await screen.click('button[type=submit]');
    const asked = screen.http.expectOne(`/api/v1/profiles/${ID}/scheduled`);
    expect(asked.request.headers.get('If-Match')).toBe('"5"');
    expect(asked.request.body).toMatchObject({ at: new Date('2031-04-01T09:30').toISOString(), leave: question.leave, accepted: [] });
    asked.flush({}, { status: 201, statusText: 'Created' });
    await screen.settle();
    expect(close).toHaveBeenCalledWith('planned');
  });
});

describe('a planned release', () => {
  const planned: ScheduledRelease = {
    id: 7,
    profile: ID,
    part: null,
    at: '2031-04-01T09:30:00.000Z',
    revision: 5,
    note: 'Shorter notices',
    askedAt: '2026-11-01T09:00:00.000Z',
    askedBy: 'isa-wren',
    state: 'waiting',
    detail: '',
    edition: null,
  };
  async function show(release: ScheduledRelease, revision = 5): Promise<Screen<ScheduledStrip>> {
    TestBed.configureTestingModule({ providers: [ScheduledStore] });
    TestBed.overrideProvider(Acting, { useValue: { people: () => [{ id: 'isa-wren', label: 'Isa Wren' }] } });
    const screen = await Screen.of(ScheduledStrip, { inputs: { revision } });
    expect(screen.texts('.ty-notice, .ty-failure')).toEqual([]);
    const loading = TestBed.inject(ScheduledStore).load({ kind: 'profile', id: ID });
    screen.http.expectOne(`/api/v1/profiles/${ID}/scheduled`).flush([release]);
    await loading;
    await screen.settle();
    return screen;
  }
  const told = (screen: Screen<ScheduledStrip>): string => screen.texts('.ty-notice p').join(' ').replace(/\s+/g, ' ');

  test('says when, who and why, and can be called off', async () => {
    const screen = await show(planned);
    expect(told(screen)).toMatch(/^The draft as it was saved last is released on 1 April 2031, .*planned by Isa Wren: Shorter notices/);
    await screen.click('button');
    expect(screen.find<HTMLButtonElement>('button').disabled).toBe(true);
    screen.http.expectOne('/api/v1/scheduled/7/off').flush({ detail: 'It is over.' }, { status: 409, statusText: 'No' });
    await new Promise((done) => setTimeout(done));
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['It is not called off. It is over.']);
    await screen.click('button');
    screen.http.expectOne('/api/v1/scheduled/7/off').flush({ ...planned, state: 'off' });
    await new Promise((done) => setTimeout(done));
    await screen.settle();
    expect(screen.texts('.ty-notice, [role=alert]')).toEqual([]);
  });

  test('of another state of the draft says that nothing will be released', async () => {
    expect(told(await show(planned, 6))).toContain('It was saved again since, so that nothing will be released.');
  });

  test.each([
    ['failed', 6, /^It was to be released on .*, and was not\. Somebody saved\.$/],
    ['failed', 8, /^$/],
    ['done', 5, /^$/],
    ['off', 5, /^$/],
  ] as const)('that is %s at revision %d', async (state, revision, words) => {
    expect(told(await show({ ...planned, state, detail: 'Somebody saved.' }, revision))).toMatch(words);
  });
});

describe('what could be allowed', () => {
  const question: AllowQuestion = {
    profile: ID,
    revision: 5,
    key: 'profile|/markup/elements/table',
    sentence: '2 tables went',
    texts: [{ document: 'text-1', field: 'body' }],
  };
  const close = jest.fn();
  async function ask(): Promise<Screen<AllowDialog>> {
    close.mockReset();
    TestBed.overrideProvider(MatDialogRef, { useValue: { close, disableClose: false } });
    TestBed.overrideProvider(MAT_DIALOG_DATA, { useValue: question });
    return Screen.of(AllowDialog);
  }
  const answer = async (screen: Screen<AllowDialog>, found: object): Promise<void> => {
    const asked = screen.http.expectOne(`/api/v1/profiles/${ID}/reach/allow`);
    expect(asked.request.body).toEqual({ key: question.key, texts: [{ document: 'text-1', field: 'body' }] });
    asked.flush(found);
    await new Promise((done) => setTimeout(done));
    await screen.settle();
  };

  test('is shown before it is put into the draft', async () => {
    const screen = await ask();
    await answer(screen, { document: { name: 'Wider' }, allows: ['<table>'], kept: 3, left: 1 });
    expect(screen.texts('li')).toEqual(['<table>']);
    expect(screen.texts('.ty-soft').join(' ').replace(/\s+/g, ' ')).toBe(
      '3 texts keep it then. One does not: something above this profile takes it.',
    );
    await screen.click('button.mat-mdc-unelevated-button');
    const saved = screen.http.expectOne({ method: 'PUT', url: `/api/v1/profiles/${ID}/draft` });
    expect([saved.request.body, saved.request.headers.get('If-Match')]).toEqual([{ name: 'Wider' }, '"5"']);
    saved.flush({ detail: 'Somebody saved.' }, { status: 412, statusText: 'No' });
    await new Promise((done) => setTimeout(done));
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['Not allowed. Somebody saved.']);
    expect(close).not.toHaveBeenCalled();
  });

  test('is nothing where something above takes it', async () => {
    const screen = await ask();
    await answer(screen, { document: {}, allows: [], kept: 0, left: 1 });
    expect(screen.texts('p').join(' ').replace(/\s+/g, ' ')).toContain('the house limits or the safety floor take it from this text.');
    expect(
      (screen.fixture.nativeElement as HTMLElement).querySelector<HTMLButtonElement>('button.mat-mdc-unelevated-button')!.disabled,
    ).toBe(true);
  });
});

describe('the editions', () => {
  test('say when, why and what they did; all but the last can be taken back to', async () => {
    const screen = await Screen.of(EditionList, {
      inputs: {
        target: TARGET,
        name: '“Notices desk”',
        editions: [
          edition(3, { backTo: 1, note: 'Too strict' }),
          edition(2, {
            note: 'Shorter',
            reach: { texts: 32, touched: 29, losing: 21, words: 547 },
            accepted: [
              { what: 'One.', why: 'Old' },
              { what: 'Two.', why: 'Old' },
            ],
          }),
          edition(1),
        ],
      },
    });
    const [last, second, first] = screen.texts('li');
    expect(last).toMatch(/^31 Sept? 2026, .*Back to edition 1: Too strict$/);
    expect(second).toContain('Of 32 texts it changed 29, 547 words lost in 21.');
    expect(second).toContain('2 things accepted: One; Two. Because: Old');
    expect(first).toContain('As first set up.');
    expect(screen.texts('li button')).toHaveLength(2);
    const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of(undefined) } as never);
    await screen.click('li button');
    expect(opened.mock.calls[0]![1]).toMatchObject({ data: { target: TARGET, number: 2, last: 3 } });
  });

  test('are taken back to from the last one that was seen', async () => {
    const close = jest.fn();
    TestBed.overrideProvider(MatDialogRef, { useValue: { close, disableClose: false } });
    TestBed.overrideProvider(MAT_DIALOG_DATA, { useValue: { target: TARGET, name: '“Notices desk”', number: 1, last: 3 } });
    const screen = await Screen.of(TakeBackDialog);
    await screen.set('#take-back-why', 'Too strict', 'input');
    await screen.click('button[type=submit]');
    const again = screen.http.expectOne(`/api/v1/profiles/${ID}/editions/1/again`);
    expect([again.request.headers.get('If-Match'), again.request.body]).toEqual(['"3"', { note: 'Too strict' }]);
    again.flush({ detail: 'Edition 4 was released since you looked.' }, { status: 412, statusText: 'No' });
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['Edition 4 was released since you looked.']);
    await screen.click('button[type=submit]');
    screen.http.expectOne(`/api/v1/profiles/${ID}/editions/1/again`).flush(edition(4), { status: 201, statusText: 'Created' });
    await screen.settle();
    expect(close).toHaveBeenCalledWith(true);
  });
});
