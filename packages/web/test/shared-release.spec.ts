import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialog, MatDialogRef } from '@angular/material/dialog';
import {
  compileRules,
  LikenessCounter,
  Looks,
  reachInBrief,
  readHouseLimits,
  reachOf,
  resolveProfile,
  siteSchema,
  type HouseLimits,
  type JsonObject,
} from '@typikon/core';
import { of } from 'rxjs';
import { EditionChangesDialog } from '../src/features/release/edition-changes-dialog';
import { ReleaseDialog, type ReleaseQuestion } from '../src/features/release/release-dialog';
import { SharedReleasePage } from '../src/features/release/shared-release-page';
import { TakeBackDialog } from '../src/features/release/take-back-dialog';
import { Equipment } from '../src/shared/writing/equipment';
import { LibraryActions } from '../src/state/library';
import { LikenessRunner } from '../src/state/likeness-runner';
import type { CountedLikeness, LikenessTask, ToldLook } from '../src/state/likeness-tasks';
import { PROOF_WORKER } from '../src/state/proof-runner';
import { selectAsReaders } from '../src/state/pages';
import type { Target } from '../src/state/releases';
import type { SharedEdition, StyleFiles } from '../src/state/types';
import { SiteWorker } from '../src/state/site-worker';
import { SPELLING_WORKER } from '../src/state/spelling';
import { InPageWorker } from './in-page-worker';
import { demoLibrary, houseEdition, pagesEdition, Screen } from './support';

jest.setTimeout(60_000);

const library = demoLibrary();
const house = library.house as unknown as JsonObject;
const TARGET: Target = { kind: 'shared', part: 'house-limits' };
const markup = house['markup'] as { elements: JsonObject };
const { table: _table, ...elements } = markup.elements;
const STRICTER = { ...house, markup: { ...markup, elements } } as unknown as HouseLimits;
const EDITIONS = '/api/v1/shared/house-limits/editions';
const PLANNED = '/api/v1/shared/house-limits/scheduled';
const REACH = '/api/v1/shared/house-limits/reach';
const TEXTS = ['<p>One</p>', '<table><tbody><tr><td>Two three</td></tr></table>'];
const { document: _document, ...told } = houseEdition(house);
const looks = {
  ask: jest.fn((task: LikenessTask): Promise<unknown> => Promise.resolve(task.kind === 'looks' ? looksOf(task) : countOf(task))),
};
function countOf(task: LikenessTask): CountedLikeness {
  if (task.kind !== 'count') throw new Error(`asked for ${task.kind}`);
  const counter = new LikenessCounter(task.input);
  const counts = task.texts.filter((html) => !html.includes('TOO MUCH')).map((html) => counter.count(html));
  const sum = (of: 'elements' | 'alike') => counts.reduce((all, count) => all + count[of], 0);
  return { elements: sum('elements'), alike: sum('alike'), compared: counts.length };
}
function looksOf({ before, after, texts }: Extract<LikenessTask, { kind: 'looks' }>): ToldLook[] {
  const comparing = new Looks(before, after);
  return texts.map((html) => (html.includes('TOO MUCH') ? { failure: 'It is nested too deep.' } : comparing.look(html)));
}

const worker = {
  compare: jest.fn((_asked: { profiles: { id: string; document: JsonObject }[] }) =>
    Promise.resolve([{ subject: { kind: 'element' }, kept: 'from', sentence: '<table>: less than before.' }]),
  ),
  checkProfile: jest.fn((id: string, _documents: object, { house: limits }: { house: HouseLimits | null }) =>
    Promise.resolve(
      limits?.markup.elements['table'] === undefined && id === 'notices-desk'
        ? [{ check: 'above-house', severity: 'warning', sentence: 'table is allowed here, but not above.', pointer: '' }]
        : [],
    ),
  ),
};

beforeEach(() => {
  worker.compare.mockClear();
  TestBed.configureTestingModule({
    providers: [
      { provide: PROOF_WORKER, useValue: () => new InPageWorker() },
      { provide: SPELLING_WORKER, useValue: () => new EventTarget() },
    ],
  });
  TestBed.overrideProvider(SiteWorker, { useValue: worker });
  TestBed.overrideProvider(LikenessRunner, { useValue: looks });
});

const rulesBy = (document: object) => {
  const resolution = resolveProfile('notices-desk', (id) => library.profiles.find((one) => one.id === id)!.document);
  const read = readHouseLimits(document as JsonObject);
  if (!resolution.ok || !read.ok) throw new Error('mistakes');
  return compileRules(resolution.resolved, { house: read.house });
};
const touched = TEXTS.flatMap((html, at) => {
  const reach = reachOf(html, rulesBy(house), rulesBy(STRICTER));
  return reach === null
    ? []
    : [{ document: `text-${at}`, field: 'body', title: `Text ${at}`, changedBy: 'ned-orr', reach: reachInBrief(reach) }];
});

const HOUSE = { inputs: { part: 'house-limits' } };

async function open(): Promise<Screen<SharedReleasePage>> {
  const screen = await Screen.of(SharedReleasePage, HOUSE);
  screen.http.expectOne(EDITIONS).flush([told]);
  screen.store.dispatch(LibraryActions.houseChanged({ house: STRICTER, houseRevision: 3 }));
  await screen.settle();
  screen.http.expectOne(EDITIONS).flush([told]);
  return screen;
}
async function answerReach(screen: Screen<SharedReleasePage>, together: string[] = []): Promise<void> {
  const asked = screen.http.match(REACH).filter(({ cancelled }) => !cancelled);
  expect(asked.map(({ request }) => request.body)).toEqual([{ together }]);
  asked[0]!.flush({ texts: 5, candidates: 2, sure: 0, undecided: [], looked: 2, touched });
  await InPageWorker.rest();
  await screen.settle();
}

describe('the release of house limits', () => {
  test('is none where what the draft says holds', async () => {
    const screen = await Screen.of(SharedReleasePage, HOUSE);
    screen.http.expectOne(EDITIONS).flush([told]);
    await screen.settle();
    expect(screen.texts('h1')).toEqual(['House limits, edition 1']);
    expect(screen.texts('.note')).toEqual(['There is nothing to release: what the draft says is released.']);
    expect(screen.has('.go')).toBe(false);
    screen.http.expectNone(REACH);
  });

  test('shows what changes, what every profile, its checks and specimens make of it, and what happens to every text', async () => {
    const screen = await open();
    await answerReach(screen);
    expect(screen.texts('h1')).toEqual(['What edition 2 would do']);
    expect(screen.texts('.strip dd')).toEqual(['5', '1', '0', '0']);
    // Limits are told apart as profiles that allow all they do.
    const { profiles } = worker.compare.mock.calls.at(-1)![0];
    expect(profiles.map(({ document }) => 'table' in (document['markup'] as { elements: JsonObject }).elements)).toEqual([true, false]);
    const [changed, proof] = screen.texts('.changes');
    expect(changed).toContain('<table>: less than before.');
    expect(proof).toMatch(/\d+ of \d+ specimens come out as expected/);
    // Whose finding it is stands before it; all profiles are asked.
    expect(proof).toContain('Notices desk: table is allowed here, but not above.');
    expect(new Set(worker.checkProfile.mock.calls.map(([id]) => id)).size).toBe(library.profiles.length);
    screen.http
      .expectOne(`${REACH}/text-1/body`)
      .flush({ before: TEXTS[1], after: '<p>Two three</p>', pageKind: 'notice-page', wordsLost: [], wordsGained: [], entries: [] });
    await screen.settle();
    expect(screen.texts('ty-text-by-both h3')).toEqual(['As edition 1 has it', 'By the draft']);
    const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of('released') } as never);
    await screen.click('.go');
    const { data } = opened.mock.calls[0]![1] as { data: ReleaseQuestion };
    expect(data).toMatchObject({ target: TARGET, number: 2, revision: 3, reach: { texts: 5, touched: 1, losing: 0, words: 0 } });
    expect(data.amiss.map(({ heading }) => heading)).toContain('Notices desk: table is allowed here, but not above.');
    await screen.settle();
    screen.http.expectOne('/api/v1/shared').flush([houseEdition(STRICTER, 2)]);
    await screen.settle();
    expect(screen.texts('h1')).toEqual(['House limits, edition 2']);
  });

  test('drafts of profiles can be released with them', async () => {
    const screen = await open();
    await answerReach(screen);
    const story = library.profiles.find(({ id }) => id === 'story-desk')!;
    screen.store.dispatch(
      LibraryActions.profileStored({ profile: { ...story, revision: 6, document: { ...story.document, purpose: 'Else' } } }),
    );
    await screen.settle();
    expect(screen.texts('ty-together-list label')).toEqual([story.document['name']]);
    screen.find<HTMLInputElement>('ty-together-list input').click();
    await screen.settle();
    await answerReach(screen, ['story-desk']);
    const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of(undefined) } as never);
    await screen.click('.go');
    expect(opened.mock.calls[0]![1]).toMatchObject({ data: { with: { together: [{ id: 'story-desk', revision: 6 }], shared: [] } } });
  });

  test('the draft is taken back, and earlier editions compared with it', async () => {
    const screen = await open();
    await answerReach(screen);
    const { document: _first, ...second } = houseEdition(house, 2);
    const editions = screen.http.match(EDITIONS);
    expect(editions).toEqual([]);
    const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of('back') } as never);
    await screen.click('[mat-stroked-button]:not([href])');
    await screen.settle();
    const back = screen.http.expectOne('/api/v1/shared/house-limits/draft/back');
    expect([back.request.method, back.request.headers.get('If-Match')]).toEqual(['POST', '"3"']);
    back.flush({ revision: 4 });
    await new Promise((done) => setTimeout(done));
    screen.http.expectOne('/api/v1/house-limits').flush(house, { headers: { ETag: '"4"' } });
    await screen.settle();
    expect(screen.has('.go')).toBe(false);
    screen.http.expectOne(EDITIONS).flush([second, told]);
    await screen.settle();
    opened.mockClear();
    await screen.click('ty-edition-list li button');
    screen.http.expectOne(`${EDITIONS}/1`).flush(houseEdition(STRICTER));
    await new Promise((done) => setTimeout(done));
    expect(opened.mock.calls[0]![1]).toMatchObject({ data: { one: STRICTER, other: house, heads: ['Edition 1', 'The draft'] } });
  });

  test('are asked for and taken back under their own addresses', async () => {
    const close = jest.fn();
    TestBed.overrideProvider(MatDialogRef, { useValue: { close, disableClose: false } });
    const question: ReleaseQuestion = {
      target: TARGET,
      name: 'the house limits',
      effect: 'They hold.',
      number: 2,
      revision: 5,
      amiss: [],
      with: { together: [{ id: 'diary', revision: 2 }], shared: [] },
      withNames: ['Diary'],
      reach: { texts: 4, touched: 2, losing: 0, words: 0 },
      leave: [],
    };
    TestBed.overrideProvider(MAT_DIALOG_DATA, { useValue: { ...question, last: 3 } });
    const asking = await Screen.of(ReleaseDialog);
    await asking.click('button[type=submit]');
    const sent = asking.http.expectOne(EDITIONS);
    expect(sent.request.body).toEqual({ note: '', accepted: [], reach: question.reach, ...question.with });
    expect(sent.request.headers.get('If-Match')).toBe('"5"');
    sent.flush({ detail: 'Not now.' }, { status: 412, statusText: 'No' });
    await asking.settle();
    await asking.click('input[type=radio][value=later]');
    await asking.set('#release-at', '2031-04-01T09:30', 'input');
    await asking.click('button[type=submit]');
    const planned = asking.http.expectOne(PLANNED).request;
    const at = new Date('2031-04-01T09:30').toISOString();
    expect(planned.body).toEqual({ note: '', accepted: [], reach: question.reach, ...question.with, at });
    expect(planned.headers.get('If-Match')).toBe('"5"');
    TestBed.resetTestingModule();
    TestBed.overrideProvider(MatDialogRef, { useValue: { close, disableClose: false } });
    TestBed.overrideProvider(MAT_DIALOG_DATA, { useValue: { target: TARGET, name: 'the house limits', number: 1, last: 3 } });
    const back = await Screen.of(TakeBackDialog);
    await back.click('button[type=submit]');
    expect(back.http.expectOne(`${EDITIONS}/1/again`).request.headers.get('If-Match')).toBe('"3"');
  });

  test('what is planned is told with who planned it, and called off', async () => {
    const screen = await Screen.of(SharedReleasePage, HOUSE);
    const planned = {
      id: 7,
      profile: '',
      part: 'house-limits',
      at: '2031-04-01T09:30:00.000Z',
      revision: 1,
      note: 'After Easter',
      askedAt: '2026-11-01T09:00:00.000Z',
      askedBy: 'isa-wren',
      state: 'waiting',
      detail: '',
      edition: null,
    };
    screen.http.expectOne(PLANNED).flush([planned]);
    await screen.settle();
    expect(screen.texts('ty-scheduled-strip p')[0]).toMatch(
      /^The draft as it was saved last is released on 1 April 2031, .*: After Easter/,
    );
    await screen.click('ty-scheduled-strip button');
    screen.http.expectOne('/api/v1/scheduled/7/off').flush({ ...planned, state: 'off' });
    await screen.settle();
    expect(screen.has('ty-scheduled-strip .ty-notice')).toBe(false);
  });

  test('where two states differ is shown place by place', async () => {
    TestBed.overrideProvider(MAT_DIALOG_DATA, {
      useValue: { title: 'Edition 1, and the draft', one: house, other: STRICTER, heads: ['Edition 1', 'The draft'] },
    });
    const screen = await Screen.of(EditionChangesDialog);
    expect(screen.texts('tbody tr td')[0]).toBe('/markup/elements/table');
  });
});

describe('the release of page kinds and stylesheets', () => {
  const EDITIONS_OF_PAGES = '/api/v1/shared/pages/editions';
  const { document: _pages, ...toldPages } = pagesEdition();
  const site = library.stylesheets.find(({ id }) => id === 'site')!;
  const onSite = library.pageKinds.filter(({ stylesheets }) => stylesheets.includes('site')).map(({ id }) => id);
  const published = (id: string, pageKindId: string, html: string) => ({
    id,
    title: `Title of ${id}`,
    profileId: 'diary',
    pageKindId,
    html,
  });

  /** The page once stylesheets were changed; every kind of page has two texts, of which the first has a heading. */
  async function openPages(css: string, more: Partial<StyleFiles> = {}): Promise<Screen<SharedReleasePage>> {
    const screen = await Screen.of(SharedReleasePage, { inputs: { part: 'pages' } });
    screen.http.expectOne(EDITIONS_OF_PAGES).flush([toldPages]);
    const { stylesheets, pageKinds } = library;
    const changed = stylesheets.map((sheet) => (sheet.id === 'site' ? { ...sheet, css, revision: 2 } : sheet));
    screen.store.dispatch(LibraryActions.styleFilesChanged({ styleFiles: { revision: 5, stylesheets: changed, pageKinds, ...more } }));
    await screen.settle();
    return screen;
  }
  async function answer(screen: Screen<SharedReleasePage>): Promise<string[]> {
    const kinds: string[] = [];
    for (;;) {
      await new Promise((done) => setTimeout(done));
      const requests = screen.http.match(({ url, method }) => method === 'GET' && url.startsWith('/api/v1/texts/published'));
      if (requests.length === 0) break;
      for (const asked of requests) {
        const kind = new URL(asked.request.urlWithParams, 'http://x').searchParams.get('pageKind')!;
        if (!kinds.includes(kind)) kinds.push(kind);
        asked.flush([
          published(`${kind}-1/body`, kind, '<h2>One</h2><p>Two</p>'),
          published(`${kind}-2/body`, kind, '<p>Three</p>'),
          published(`${kind}-3/body`, kind, 'TOO MUCH'),
        ]);
      }
    }
    await screen.settle();
    return kinds;
  }

  test('shows which texts look different by which declaration, and only of page kinds that change', async () => {
    const screen = await openPages(`${site.css}\nh2 { color: #123456 !important }\n`);
    expect(screen.texts('.changes li')).toEqual([expect.stringMatching(/site\.css ?2 lines more/)]);
    expect(screen.find<HTMLButtonElement>('.go').disabled).toBe(true);
    expect((await answer(screen)).sort()).toEqual([...onSite].sort());
    expect(screen.texts('.strip dd').slice(1)).toEqual([String(onSite.length), String(onSite.length), expect.any(String)]);
    const rows = screen.texts('tbody tr');
    expect(rows[0]).toMatch(/^color of h2: .* becomes #123456 ?6 ?6 ?site\.css, line \d+, h2; before: /);
    expect(screen.texts('ty-looks-view [role=alert]')).toHaveLength(onSite.length);
    const [before, after] = [...screen.fixture.nativeElement.querySelectorAll('iframe')] as HTMLIFrameElement[];
    expect([before!.getAttribute('sandbox'), after!.getAttribute('sandbox')]).toEqual(['', '']);
    expect(before!.srcdoc).not.toContain('#123456');
    expect(after!.srcdoc).toContain('#123456');
    const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of(undefined) } as never);
    await screen.click('.go');
    expect(opened.mock.calls[0]![1]).toMatchObject({
      data: { target: { kind: 'shared', part: 'pages' }, revision: 5, number: 2, amiss: [], reach: { touched: onSite.length, losing: 0 } },
    });
  });

  test('shows how alike the editor and the page are before and after, of each profile there', async () => {
    const screen = await Screen.of(SharedReleasePage, { inputs: { part: 'pages' } });
    screen.http.expectOne(EDITIONS_OF_PAGES).flush([toldPages]);
    // Stories are written in what articles load; news load one more stylesheet, which changes.
    const texts = [{ type: 'story', field: 'body', profileId: 'story-desk', pageKindId: 'news', count: 3, taken: {} }];
    const stylesheets = library.stylesheets.map((sheet) =>
      sheet.id === 'general' ? { ...sheet, css: `${sheet.css}\n* { letter-spacing: 9px !important }\n` } : sheet,
    );
    screen.store.dispatch(LibraryActions.loaded({ library: { ...library, texts, stylesheets } }));
    await screen.settle();
    await answer(screen);
    const [told] = screen.texts('ty-likeness-change li');
    expect(told).toMatch(/ on .* ?\d+\.\d %, then \d+\.\d % ?all 3 texts$/);
    const [before, after] = [...told!.matchAll(/(\d+\.\d) %/g)].map(([, share]) => Number(share));
    expect(after).toBeLessThan(before!);
    // What changes on both sides alike is told in one line.
    const both = library.stylesheets.map((sheet) =>
      sheet.id === 'site' ? { ...sheet, css: `${sheet.css}\n* { word-spacing: 9px !important }\n` } : sheet,
    );
    screen.store.dispatch(LibraryActions.loaded({ library: { ...library, texts, stylesheets: both } }));
    await screen.settle();
    await answer(screen);
    expect(screen.texts('ty-likeness-change li')).toEqual(['As alike as before, of one profile on a page kind']);
  });

  test('says where nothing looks different, and which page kinds are others', async () => {
    const [kind, ...kinds] = library.pageKinds;
    const screen = await openPages(`${site.css}\n/* a remark */\n`, { pageKinds: [{ ...kind!, name: 'Other name' }, ...kinds] });
    await answer(screen);
    expect(screen.texts('.groups .note')).toEqual(['Every stored text looks as before.']);
    expect(screen.texts('.state')).toEqual(['No text looksdifferent']);
    expect(screen.texts('.changes li').join(' ')).toContain('Other name name');
    expect(screen.texts('mat-panel-title')).toEqual(['The page kind that changes']);
    expect(screen.find<HTMLButtonElement>('.go').disabled).toBe(false);
  });

  test('says why texts could not be read, and goes on when asked again', async () => {
    const screen = await openPages(`${site.css}\nh2 { color: #123456 !important }\n`);
    screen.http
      .expectOne(({ url }) => url.startsWith('/api/v1/texts/published'))
      .flush({ detail: 'The database is away.' }, { status: 503, statusText: 'No' });
    await new Promise((done) => setTimeout(done));
    await screen.settle();
    expect(screen.texts('ty-looks-view [role=alert] p')).toEqual(['Not all texts were looked at. The database is away.']);
    await screen.click('ty-looks-view [role=alert] button');
    expect(await answer(screen)).toHaveLength(onSite.length);
    expect(screen.find<HTMLButtonElement>('.go').disabled).toBe(false);
  });

  test('readers and authors see what was released until then', async () => {
    const screen = await openPages(`${site.css}\nh2 { color: #123456 !important }\n`);
    const shown = () => JSON.stringify(screen.store.selectSignal(selectAsReaders)()!.stylesheets);
    expect(shown()).not.toContain('#123456');
    const edition = pagesEdition(2);
    const document = JSON.parse(JSON.stringify(edition.document).replace(JSON.stringify(site.css), '"h2{color:#123456}"')) as JsonObject;
    screen.store.dispatch(LibraryActions.sharedRead({ shared: [{ ...edition, document }] }));
    expect(shown()).toContain('#123456');
    await answer(screen);
  });
});

describe('the release of what there is to write, and who writes it', () => {
  const EDITIONS_OF_SITE = '/api/v1/shared/site/editions';
  const site = siteSchema.parse({
    format: 'typikon-site/1',
    roles: [
      { id: 'desk', label: 'Desk', rights: ['read', 'write', 'administer'] },
      { id: 'others', label: 'Others' },
    ],
    types: [{ id: 'note', label: 'Note', pageKind: 'article', fields: [{ key: 'text', title: 'Text' }] }],
    assignments: [{ roles: '*', types: '*', fields: '*', profiles: ['diary', 'reply'] }],
  });
  const edition: SharedEdition = {
    ...houseEdition({ types: site.types, assignments: site.assignments, fallback: [] }),
    part: 'site',
  };

  test('shows who writes with what instead, which texts are left behind, and asks to accept that', async () => {
    const screen = await Screen.of(SharedReleasePage, { inputs: { part: 'site' } });
    const changed = {
      ...site,
      types: [{ ...site.types[0]!, label: 'Short note' }],
      assignments: [{ roles: ['desk'], types: '*', fields: '*', profiles: ['diary'] }],
    };
    screen.http.expectOne('/api/v1/site/draft').flush(changed, { headers: { ETag: '"7"' } });
    await new Promise((done) => setTimeout(done));
    const texts = [
      { type: 'note', field: 'text', profileId: 'diary', pageKindId: 'article', count: 5, taken: {} },
      { type: 'note', field: 'text', profileId: 'reply', pageKindId: 'article', count: 2, taken: {} },
    ];
    const held = { ...library, texts, shared: [...library.shared, edition] };
    screen.store.dispatch(LibraryActions.loaded({ library: held }));
    await screen.settle();
    for (const asked of screen.http.match(EDITIONS_OF_SITE)) if (!asked.cancelled) asked.flush([]);
    await screen.settle();
    expect(screen.texts('h1')).toEqual(['What edition 2 would do']);
    expect(screen.texts('.changes li').join(' ')).toContain('Short note');
    expect(screen.texts('.strip dd')).toEqual(['1', '2', '2']);
    const [desk, others] = screen.texts('ty-writing-view tbody tr');
    expect(desk).toMatch(/^Text of Short note ?.*\(or .*\) becomes .* ?Desk ?7$/);
    expect(others).toMatch(/becomes nobody’s ?Others ?7$/);
    expect(screen.texts('ty-writing-view .left li')).toEqual([expect.stringMatching(/^2 texts ?Text of Short note, written with “/)]);
    const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of('released') } as never);
    await screen.click('.go');
    expect(opened.mock.calls[0]![1]).toMatchObject({
      data: {
        target: { kind: 'shared', part: 'site' },
        revision: 7,
        reach: null,
        amiss: [{ heading: '2 texts keep a profile that nobody may choose there' }],
      },
    });
    await new Promise((done) => setTimeout(done));
    const document = { types: changed.types, assignments: changed.assignments, fallback: [] } as unknown as JsonObject;
    screen.http.expectOne('/api/v1/shared').flush([...library.shared, { ...edition, number: 2, document }]);
    await screen.settle();
    expect(screen.texts('h1')).toEqual(['What is written, and with what, edition 2']);
  });
});

test('authors write under the house limits that were released, whatever their draft says', async () => {
  const screen = await Screen.of(SharedReleasePage, HOUSE);
  const limitsOf = () => {
    const equipment = TestBed.inject(Equipment) as unknown as { house: () => HouseLimits | null };
    return Object.keys(equipment.house()!.markup.elements);
  };
  expect(limitsOf()).toContain('table');
  screen.store.dispatch(LibraryActions.houseChanged({ house: STRICTER, houseRevision: 3 }));
  expect(limitsOf()).toContain('table');
  screen.store.dispatch(LibraryActions.sharedRead({ shared: [houseEdition(STRICTER as unknown as JsonObject, 2)] }));
  expect(limitsOf()).not.toContain('table');
});
