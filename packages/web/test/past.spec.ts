import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { takenLines, clean, compileRules, readHouseLimits, resolveProfile } from '@typikon/core';
import { of } from 'rxjs';
import { VersionsPage } from '../src/features/past/versions-page';
import type { ToldVersion, Version } from '../src/features/past/versions-store';
import { WherePage } from '../src/features/past/where-page';
import type { Taken } from '../src/features/past/where-store';
import { demoLibrary, Screen } from './support';

const DOCUMENT = {
  id: 'note-1',
  title: 'A note',
  type: 'notice',
  pageKind: 'notice',
  createdAt: '2026-09-01T09:00:00.000Z',
  changedAt: '2026-09-03T09:00:00.000Z',
  changedBy: 'ned-orr',
  revision: 3,
  fields: [],
};
const field = (value: string, isChanged: boolean, profile: string | null = 'notices-desk') => ({
  key: profile === null ? 'ferry' : 'body',
  profile,
  edition: profile === null ? null : 2,
  isChanged,
  bytes: value.length,
});
const version = (revision: number, more: Partial<ToldVersion> = {}): ToldVersion => ({
  revision,
  title: 'A note',
  how: 'written',
  savedAt: `2026-09-0${revision}T09:00:00.000Z`,
  savedBy: 'ned-orr',
  fields: [field('', true)],
  ...more,
});
const whole = (revision: number, fields: Version['fields']): Version => ({
  revision,
  title: 'A note',
  how: 'written',
  savedAt: '',
  savedBy: '',
  fields,
});
const body = (value: string, profile = 'notices-desk'): Version['fields'][number] => ({ key: 'body', value, profile, edition: 1 });
const wait = () => new Promise((done) => setTimeout(done));

describe('the versions of a document', () => {
  async function open(versions: readonly ToldVersion[], next = ''): Promise<Screen<VersionsPage>> {
    const screen = await Screen.of(VersionsPage, { inputs: { id: 'note-1' } });
    screen.http.expectOne('/api/v1/documents/note-1').flush(DOCUMENT);
    const headers: Record<string, string> = next === '' ? {} : { Link: `</api/v1/documents/note-1/versions?after=${next}>; rel="next"` };
    screen.http.expectOne('/api/v1/documents/note-1/versions?limit=50').flush([...versions], { headers });
    await wait();
    await screen.settle();
    return screen;
  }
  async function read(screen: Screen<VersionsPage>, ...versions: Version[]): Promise<void> {
    for (const version of versions) screen.http.expectOne(`/api/v1/documents/note-1/versions/${version.revision}`).flush(version);
    await wait();
    await screen.settle();
  }

  test('are listed with how, by which edition; the last is held against the one before', async () => {
    const screen = await open([version(3), version(2, { how: 'restored', fields: [field('', false)] }), version(1, { how: 'made' })]);
    await read(
      screen,
      whole(3, [body('<p>One <b>two</b> three</p>'), { key: 'ferry', value: 'Dunlin', profile: null, edition: null }]),
      whole(2, [body('<p>One two four</p>'), { key: 'ferry', value: 'Dunlin', profile: null, edition: null }]),
    );
    expect(screen.texts('.versions .head b')).toEqual(['Version 3', 'Version 2', 'Version 1']);
    expect(screen.texts('.versions li')[0]).toMatch(/as it is now.*written: .*Notices desk, edition 2/s);
    expect(screen.texts('.versions .what')[1]).toBe('taken back to');
    expect(screen.texts('del')).toEqual(['four']);
    expect(screen.texts('ins')).toEqual(['three']);
    expect(screen.texts('.fields > .note')[0]).toMatch(/^Unchanged: /);
    // There is no way back to what is there.
    expect(screen.texts('.compared > header').join()).not.toContain('Take back');
  });

  test('by markup what the words do not show is told', async () => {
    const screen = await open([version(3), version(2)]);
    await read(screen, whole(3, [body('<p>One <b>two</b></p>')]), whole(2, [body('<p>One two</p>')]));
    expect(screen.has('del, ins')).toBe(false);
    (screen.fixture.componentInstance as unknown as { way: { set(way: string): void } }).way.set('source');
    await screen.settle();
    expect(screen.texts('ins')).toEqual(['<b>', '</b>']);
    (screen.fixture.componentInstance as unknown as { way: { set(way: string): void } }).way.set('page');
    await screen.settle();
    const frames = [...screen.fixture.nativeElement.querySelectorAll('iframe')] as HTMLIFrameElement[];
    expect(frames.map((frame) => [frame.title, frame.getAttribute('sandbox')])).toEqual([
      ['Before', ''],
      ['After', ''],
    ]);
  });

  test('a move to another profile is said; so is a field that came or went', async () => {
    const screen = await open([version(3), version(2)]);
    await read(
      screen,
      whole(3, [body('<p>One</p>', 'diary')]),
      whole(2, [body('<p>One</p>'), { key: 'ferry', value: 'Dunlin', profile: null, edition: null }]),
    );
    expect(screen.texts('section h2')).toEqual([
      expect.stringMatching(/Moved from Notices desk to .*iary\./),
      expect.stringMatching(/It held something before\./),
    ]);
    expect(screen.texts('del')).toEqual(['Dunlin']);
  });

  test('another is chosen, and taken back to after a question', async () => {
    const screen = await open([version(3), version(2), version(1)]);
    await read(screen, whole(3, [body('<p>Three</p>')]), whole(2, [body('<p>Two</p>')]));
    await screen.click('.versions li:nth-child(2) button');
    await read(screen, whole(1, [body('<p>One</p>')]));
    expect([screen.texts('del'), screen.texts('ins')]).toEqual([['One'], ['Two']]);
    const asked = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValueOnce({ afterClosed: () => of('stay') } as never);
    await screen.click('.compared > header > button');
    await wait();
    screen.http.expectNone('/api/v1/documents/note-1/restore');
    asked.mockReturnValueOnce({ afterClosed: () => of('back') } as never);
    await screen.click('.compared > header > button');
    await wait();
    const request = screen.http.expectOne('/api/v1/documents/note-1/restore');
    expect([request.request.body, request.request.headers.get('If-Match')]).toEqual([{ revision: 2 }, '"3"']);
    request.flush({ detail: 'Somebody else has changed it.' }, { status: 412, statusText: 'x' });
    await wait();
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['Not taken back. Somebody else has changed it.']);
  });

  test('earlier ones are read when they are asked for', async () => {
    const screen = await open([version(3), version(2)], '2');
    await read(screen, whole(3, [body('<p>Three</p>')]), whole(2, [body('<p>Two</p>')]));
    await screen.click('.more');
    screen.http.expectOne('/api/v1/documents/note-1/versions?limit=50&after=2').flush([version(1)]);
    await wait();
    await screen.settle();
    expect(screen.texts('.versions .head b')).toHaveLength(3);
    expect(screen.has('.more')).toBe(false);
  });

  test('a document that is not there, and a version that cannot be read, are told', async () => {
    const screen = await Screen.of(VersionsPage, { inputs: { id: 'gone' } });
    screen.http.expectOne('/api/v1/documents/gone').flush({ detail: 'There is no document "gone".' }, { status: 404, statusText: 'x' });
    screen.http.match('/api/v1/documents/gone/versions?limit=50');
    await wait();
    await screen.settle();
    expect(screen.texts('.note')).toEqual(['There is no document "gone".']);
    TestBed.resetTestingModule();
    const other = await open([version(3)]);
    other.http.expectOne('/api/v1/documents/note-1/versions/3').flush({ detail: 'Not now.' }, { status: 503, statusText: 'x' });
    await wait();
    await other.settle();
    expect(other.texts('.fields [role=alert]')).toEqual(['The version cannot be read. Not now.']);
  });
});

describe('where did it go', () => {
  const library = demoLibrary();
  const limits = readHouseLimits(library.house);
  const resolution = resolveProfile('notices-desk', (id) => library.profiles.find((one) => one.id === id)?.document);
  if (!limits.ok || !resolution.ok) throw new Error('mistakes');
  const html = '<p>One</p><form><p>Berths are booked at the office</p></form><iframe src="https://cam.example/"></iframe>';
  const lines = takenLines(html, clean(html, compileRules(resolution.resolved, { house: limits.house })).ledger);
  const taken = (id: number, more: Partial<Taken> = {}): Taken => {
    const { words, sample, ...line } = lines[0]!;
    return {
      id,
      document: 'note-1',
      title: 'A note',
      field: 'body',
      revision: 2,
      step: 'paste',
      profile: 'notices-desk',
      edition: 2,
      at: '2026-09-02T09:00:00.000Z',
      by: 'ned-orr',
      severity: line.severity,
      line: JSON.parse(JSON.stringify(line)) as Taken['line'],
      sentence: 'x',
      words,
      sample,
      ...more,
    };
  };
  const ask = (screen: Screen<WherePage>, query: string) => screen.http.expectOne(`/api/v1/taken?${query}`);

  test('tells what was taken, by which rule of which profile, at which step, and shows the words', async () => {
    const screen = await Screen.of(WherePage);
    ask(screen, 'severity=loss&limit=50').flush([
      taken(2),
      taken(1, {
        line: null,
        step: 'written',
        sentence: 'Words were taken out by hand',
        words: 'Gear\nlost',
        profile: null,
        edition: null,
      }),
    ]);
    await screen.settle();
    expect(screen.texts('.sentence')).toEqual([
      expect.stringContaining('A form went, with its content'),
      expect.stringContaining('Words were taken out by hand'),
    ]);
    expect(screen.texts('.gone del')).toEqual(['Berths are booked at the office', 'Gear … lost']);
    expect(screen.texts('.by')[0]).toMatch(
      /A note, .*, as it was pasted: version 2 · §2 Markup, form of House · with Notices desk, edition 2/,
    );
    const rule = screen.find<HTMLAnchorElement>('.by a[href*="at="]');
    expect(decodeURIComponent(rule.getAttribute('href')!)).toBe('/profiles/house?at=/markup/elements/form');
    expect(screen.texts('[role=status]')).toEqual(['2 found']);
  });

  test('what has no words shows its source; long words are shown whole when asked for', async () => {
    const screen = await Screen.of(WherePage);
    const { words: _none, sample, ...line } = lines.find(({ element }) => element === 'iframe')!;
    ask(screen, 'severity=loss&limit=50').flush([taken(2, { words: '', sample, line }), taken(1, { words: 'long '.repeat(200) })]);
    await screen.settle();
    expect(screen.texts('.gone.source')).toEqual(['<iframe src="https://cam.example/"></iframe>']);
    expect(screen.texts('.gone del')[0]!.length).toBeLessThan(500);
    await screen.click('.gone button');
    expect(screen.texts('.gone del')[0]!.length).toBeGreaterThan(900);
  });

  test('of one document also what its page leaves out now', async () => {
    const screen = await Screen.of(WherePage, { inputs: { document: 'note-1', words: 'berths' } });
    ask(screen, 'words=berths&document=note-1&limit=50').flush([]);
    screen.http.expectOne('/api/v1/documents/note-1').flush(DOCUMENT);
    const { words, sample, ...line } = lines[0]!;
    screen.http
      .expectOne('/api/v1/documents/note-1/left-out')
      .flush([{ field: 'body', profile: 'notices-desk', edition: 3, line, sentence: 'x', words, sample }]);
    await wait();
    await screen.settle();
    expect(screen.texts('h1')).toEqual(['Where did it go in “A note”?']);
    expect(screen.texts('section:first-of-type .sentence')[0]).toContain('A form went');
    expect(screen.texts('.none')).toEqual([expect.stringContaining('Nothing that was taken holds these words')]);
  });

  test('more is found when it is asked for; a failure is told', async () => {
    const screen = await Screen.of(WherePage, { inputs: { much: 'all' } });
    ask(screen, 'limit=50').flush([taken(9)], { headers: { Link: '</api/v1/taken?after=9>; rel="next"' } });
    await screen.settle();
    expect(screen.texts('[role=status]')).toEqual(['1 and more found']);
    await screen.click('.more');
    ask(screen, 'limit=50&after=9').flush([taken(8)]);
    await screen.settle();
    expect(screen.texts('.sentence')).toHaveLength(2);
    screen.fixture.componentRef.setInput('words', 'other');
    await screen.settle();
    ask(screen, 'words=other&limit=50').flush({ detail: 'The server is full.' }, { status: 503, statusText: 'x' });
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['The server is full.']);
  });
});
