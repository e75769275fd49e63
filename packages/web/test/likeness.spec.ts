import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { DESK, OVERRIDES, type Repair } from '@typikon/core';
import { provideStore, Store } from '@ngrx/store';
import { contentElements, frameHtml } from '../src/shared/page/frame-html';
import { LikenessDesk } from '../src/shared/page/likeness-desk';
import { LIKENESS_WORKER, LikenessRunner } from '../src/state/likeness-runner';
import { figureLines } from '../src/features/profiles/likeness-figures';
import { StyleDrafts } from '../src/features/style-files/style-drafts';
import { readWrapper, wrapperText } from '../src/features/style-files/wrapper-text';
import { LibraryActions, libraryFeature } from '../src/state/library';
import { cssOf, sheetsOf } from '../src/state/style-files';
import type { StyleChanges } from '../src/state/types';
import { demoLibrary } from './support';

describe('a frame for content', () => {
  const wrapper = [{ element: 'main', className: 'page' }, { element: 'article' }];
  test('has the stylesheets in order, the elements around, and no way for scripts', () => {
    const html = frameHtml(
      {
        sheets: [
          { name: 'a.css', css: 'p { color: red }' },
          { name: 'p.css', css: 'a::after { content: "</style>" }', media: 'print' },
        ],
        wrapper,
        columnPx: null,
      },
      '<p>x</p>',
      'Fog & <tide>',
      'http://localhost:4711',
    );
    expect(html).toContain('<style>p { color: red }</style><style media="print">a::after { content: "<\\/style>" }</style>');
    expect(html).toContain('<main class="page"><article data-mount><h1 data-title>Fog &amp; &lt;tide></h1><p>x</p></article></main>');
    expect(html).toContain(`content="script-src 'none'"`);
    const page = new DOMParser().parseFromString(html, 'text/html');
    expect(contentElements(page).map(({ localName }) => localName)).toEqual(['p']);
  });
  test('the surface has no title and the width of its column', () => {
    const html = frameHtml({ sheets: [], wrapper, columnPx: 640 }, '<p>x</p>', null, '');
    expect(html).toContain('<article data-mount style="max-width: 640px"><p>x</p>');
    expect(html).not.toContain('<h1');
  });
});

test.each([
  [
    'main.page > article.body',
    [
      { element: 'main', className: 'page' },
      { element: 'article', className: 'body' },
    ],
  ],
  ['div.a.b', [{ element: 'div', className: 'a b' }]],
  ['main>section', [{ element: 'main' }, { element: 'section' }]],
])('what stands around content is written %s', (text, wrapper) => {
  expect(readWrapper(text)).toEqual(wrapper);
  expect(readWrapper(wrapperText(wrapper))).toEqual(wrapper);
});
test.each(['', 'script', 'main > iframe', 'main..x', 'main > ', 'main page', '<main>', 'main#x'])(
  '%j is not read as what stands around content',
  (text) => expect(readWrapper(text)).toBeNull(),
);

test('figures over time become one line for each page kind', () => {
  const figure = (profileId: string, pageKindId: string, alike: number) => ({
    profileId,
    pageKindId,
    alike,
    elements: 1000,
    causes: 0,
    takenAt: '',
  });
  const lines = figureLines(
    [figure('a', 'x', 900), figure('b', 'x', 1), figure('a', 'x', 994), figure('a', 'y', 1000), figure('a', 'x', 994), figure('a', 'z', 0)],
    'a',
    new Map([
      ['x', 'News'],
      ['y', 'Guide'],
    ]),
  );
  expect(lines).toEqual([
    { pageKindId: 'x', name: 'News', now: '99.4 %', was: '', isWhole: false },
    { pageKindId: 'y', name: 'Guide', now: '100 %', was: '', isWhole: true },
  ]);
});

test('the stylesheets of a page kind, in order, with the media they are for', () => {
  const { stylesheets, pageKinds } = demoLibrary();
  const sheets = sheetsOf(
    pageKinds.find(({ id }) => id === 'news')!,
    stylesheets,
  );
  expect(sheets.map(({ name }) => name)).toEqual(['reset.css', 'site.css', 'fonts.css', 'general.css', 'print.css']);
  expect(cssOf(sheets.at(-1)!)).toMatch(/^@media print \{\nbody/);
  expect(cssOf(sheets[0]!)).toBe(sheets[0]!.css);
});

/** The services with the real store, filled with the demo. */
function services() {
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideHttpClient(),
      provideHttpClientTesting(),
      provideStore({ library: libraryFeature.reducer }),
    ],
  });
  const library = demoLibrary();
  TestBed.inject(Store).dispatch(LibraryActions.loaded({ library }));
  return { desk: TestBed.inject(LikenessDesk), drafts: TestBed.inject(StyleDrafts), http: TestBed.inject(HttpTestingController), library };
}

describe('taking a repair', () => {
  const rule: Repair = {
    kind: 'add-rule',
    side: 'page',
    selector: 'h2',
    rule: 'h2 {}',
    css: '/* As in a.css. */\nh2 { color: red }',
    specificity: [0, 0, 1],
  };
  const setup = () => {
    const all = services();
    const page = all.library.pageKinds.find(({ id }) => id === 'news')!;
    const resolved = all.desk.resolved('story-desk')!;
    const answer = (revisions: { kind: number; sheet: number }, css: string) => {
      const request = all.http.expectOne('/api/v1/style-files/changes');
      const body = request.request.body as StyleChanges;
      request.flush({
        stylesheets: [
          ...all.library.stylesheets,
          ...(css === '' ? [] : [{ id: 'overrides-news', purpose: '', media: '', css, revision: revisions.sheet }]),
        ],
        pageKinds: all.library.pageKinds.map((kind) =>
          kind.id === 'news' ? { ...kind, ...body.pageKinds?.[0], revision: revisions.kind } : kind,
        ),
      });
      return body;
    };
    return { ...all, page, resolved, answer };
  };

  test('a rule goes into a stylesheet of its own, which is loaded last; taken back, both are as they were', async () => {
    const { desk, page, resolved, answer } = setup();
    const taking = desk.take(rule, resolved, page, 'A label');
    const body = answer({ kind: 2, sheet: 1 }, rule.css);
    await taking;
    expect(body).toMatchObject({ note: 'A label', stylesheets: [{ id: 'overrides-news', css: `${rule.css}\n`, revision: null }] });
    expect(body.pageKinds![0]!.stylesheets).toEqual([...page.stylesheets, 'overrides-news']);
    expect(
      desk.settings(
        resolved,
        desk.pageKinds().find(({ id }) => id === 'news')!,
        DESK.widthPx,
      ).overrides,
    ).toBe('overrides-news.css');
    const undoing = desk.undo();
    const undone = answer({ kind: 3, sheet: 1 }, '');
    await undoing;
    expect(undone.removed).toEqual({ stylesheets: [{ id: 'overrides-news', revision: 1 }] });
    expect(undone.pageKinds![0]).toMatchObject({ stylesheets: page.stylesheets, revision: 2 });
    expect(desk.taken()).toEqual([]);
  });

  test('a file is loaded in its place', async () => {
    const { desk, page, resolved, answer } = setup();
    const taking = desk.take({ kind: 'load-file', side: 'page', sheet: 'figures.css', after: 'site.css' }, resolved, page, 'x');
    const body = answer({ kind: 2, sheet: 0 }, '');
    await taking;
    expect(body.pageKinds![0]!.stylesheets).toEqual(['reset', 'site', 'figures', 'fonts', 'general', 'print']);
    expect(body.stylesheets).toBeUndefined();
  });

  test('what the editor needs goes into the profile’s editing stylesheet', async () => {
    const { desk, page, resolved, http } = setup();
    const taking = desk.take({ ...rule, side: 'editor' }, resolved, page, 'x');
    const request = http.expectOne('/api/v1/profiles/story-desk/draft');
    expect(request.request.headers.get('If-Match')).toBe('"1"');
    expect((request.request.body as { surface: object }).surface).toEqual({ editingCss: `${rule.css}\n`, stylesheets: 'both' });
    request.flush({ id: 'story-desk', document: request.request.body as object, revision: 2, createdAt: '', updatedAt: '' });
    await taking;
    expect(desk.taken()).toHaveLength(1);
  });

  test('where somebody else was faster nothing is noted as taken', async () => {
    const { desk, page, resolved, http } = setup();
    const taking = desk.take(rule, resolved, page, 'x');
    http.expectOne('/api/v1/style-files/changes').flush({ detail: 'Somebody else has changed it.' }, { status: 412, statusText: 'x' });
    await expect(taking).rejects.toThrow('Somebody else has changed it.');
    expect(desk.taken()).toEqual([]);
    expect(OVERRIDES).toBe('overrides.css');
  });
});

describe('drafts of stylesheets and page kinds', () => {
  test('stay until they are stored or given up, and are told as changed', async () => {
    const { drafts, http, library } = services();
    expect(drafts.sheetRows().find(({ id }) => id === 'figures')).toMatchObject({ places: 4, isChanged: false, mistakes: 0 });
    drafts.editSheet('figures', { css: 'a { color }' });
    expect(drafts.sheetRows().find(({ id }) => id === 'figures')).toMatchObject({ isChanged: true, mistakes: 1 });
    drafts.editSheet('figures', { kinds: ['news'] });
    const storing = drafts.storeSheet('figures', 'A note');
    const request = http.expectOne('/api/v1/style-files/changes');
    const body = request.request.body as StyleChanges;
    expect(body.stylesheets).toEqual([expect.objectContaining({ id: 'figures', css: 'a { color }', revision: 1 })]);
    expect(body.pageKinds!.map(({ id, stylesheets }) => [id, stylesheets.includes('figures')])).toEqual([
      ['article', false],
      ['guide', false],
      ['news', true],
      ['tender', false],
      ['diary', false],
    ]);
    request.flush({ stylesheets: library.stylesheets, pageKinds: library.pageKinds });
    await storing;
    expect(drafts.isSheetChanged('figures')).toBe(false);
  });
  test('a new one is listed though it is not stored', () => {
    const { drafts } = services();
    drafts.begin('new', '/* */');
    expect(drafts.sheetRows().at(-1)).toMatchObject({ id: 'new', places: 0, isChanged: true });
    expect(drafts.rename('new', 'figures')).toBe(false);
    expect(drafts.rename('new', 'boats')).toBe(true);
    expect(drafts.sheet('boats')).toMatchObject({ id: 'boats', css: '/* */' });
    drafts.forgetSheet('boats');
    expect(drafts.sheet('new')).toBeNull();
    drafts.editKind('news', { name: 'Stories' });
    expect(drafts.kindRows().find(({ id }) => id === 'news')).toMatchObject({ name: 'Stories', isChanged: true, files: 5 });
  });
});

test('answers of the worker find their questions, failures too', async () => {
  const listeners: ((event: { data: unknown }) => void)[] = [];
  const asked: { id: number }[] = [];
  const worker = {
    addEventListener: (type: string, listener: (event: { data: unknown }) => void) => type === 'message' && listeners.push(listener),
    postMessage: (message: { id: number }) => asked.push(message),
    terminate: jest.fn(),
  };
  TestBed.configureTestingModule({
    providers: [provideZonelessChangeDetection(), LikenessRunner, { provide: LIKENESS_WORKER, useValue: () => worker }],
  });
  const runner = TestBed.inject(LikenessRunner);
  const [one, other] = [runner.ask<number>({ kind: 'repairs', cause: 'a' }), runner.ask<number>({ kind: 'repairs', cause: 'b' })];
  listeners[0]!({ data: { id: asked[1]!.id, failure: 'No.' } });
  listeners[0]!({ data: { id: asked[0]!.id, result: 7 } });
  await expect(one).resolves.toBe(7);
  await expect(other).rejects.toThrow('No.');
});
