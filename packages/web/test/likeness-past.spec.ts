import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA } from '@angular/material/dialog';
import { TimeChart } from '../src/shared/chart/time-chart';
import { likenessPast, percentOf } from '../src/shared/likeness/likeness-past';
import { LikenessPastDialog } from '../src/shared/likeness/likeness-past-dialog';
import { Screen } from './support';

const figure = (takenAt: string, alike: number, elements = 1000, causes = 3) => ({
  profileId: 'notices-desk',
  pageKindId: 'notice',
  alike,
  elements,
  causes,
  takenAt: `2026-03-${takenAt}.000Z`,
});
const save = (what: string, savedAt: string, note = '') => ({ what, savedAt: `2026-03-${savedAt}.000Z`, note });

describe('what changed between two counts', () => {
  test('is what was saved between them, each thing once with its notes', () => {
    const past = likenessPast(
      [figure('03T10:00:00', 990), figure('01T10:00:00', 900), figure('02T10:00:00', 950, 1010)],
      [
        save('House', '01T09:00:00', 'before all'),
        save('Notices desk', '01T12:00:00'),
        save('Notices desk', '01T13:00:00'),
        save('House', '01T14:00:00'),
        save('site.css', '02T10:00:00', 'Lead is larger'),
        save('site.css', '03T09:00:00', 'Lists'),
      ],
    );
    expect(past.map(({ share, changes }) => [percentOf(share), ...changes])).toEqual([
      ['90.0 %'],
      ['94.1 %', 'site.css was saved: Lead is larger.', 'Notices desk, House were saved.', 'The texts have 10 elements more.'],
      ['99.0 %', 'site.css was saved: Lists.', 'The texts have 10 elements fewer.'],
    ]);
  });
  test('a count of nothing is none', () => expect(likenessPast([figure('01T10:00:00', 0, 0)], [])).toEqual([]));
  test.each([
    [1, '100 %'],
    [0.9999, '99.9 %'],
    [0, '0.0 %'],
  ])('%d is written %s: what is not whole is not called whole', (share, written) => expect(percentOf(share)).toBe(written));
});

describe('the likeness over time', () => {
  beforeEach(() => {
    // Charts are laid out by a browser only.
    TestBed.overrideComponent(TimeChart, { set: { imports: [], providers: [], template: '<i></i>' } });
    TestBed.configureTestingModule({
      providers: [{ provide: MAT_DIALOG_DATA, useValue: { profileId: 'notices-desk', pageKindId: 'notice' } }],
    });
  });
  const open = async (figures: object[] | null) => {
    const screen = await Screen.of(LikenessPastDialog);
    const asked = screen.http.expectOne('/api/v1/likeness/figures');
    if (figures === null) asked.flush({ detail: 'It is closed.' }, { status: 503, statusText: 'x' });
    else asked.flush(figures);
    for (let round = 0; round < 4; round++) {
      // The answers go through a few promises.
      await new Promise((done) => setTimeout(done));
      await screen.settle();
      for (const request of screen.http.match(({ url }) => url.endsWith('/revisions')))
        request.flush(request.request.url.includes('notices-desk') ? [{ revision: 2, savedAt: '2026-03-01T12:00:00.000Z' }] : []);
      for (const request of screen.http.match(({ url }) => url.endsWith('/versions'))) request.flush([]);
    }
    return screen;
  };

  test('is told as a chart and as a table, of this pair alone, with what was saved between', async () => {
    const screen = await open([
      figure('01T10:00:00', 900),
      { ...figure('02T10:00:00', 1), profileId: 'reply' },
      figure('03T10:00:00', 950),
    ]);
    expect(screen.texts('h2')).toEqual(['Notices desk on Notice page, over time']);
    expect(screen.texts('tbody tr').map((text) => text.replace(/\s+/g, ' '))).toEqual([
      expect.stringMatching(/3 Mar 2026, \d\d:00 ?95.0 %, 950 of 1000 ?3 ?Notices desk was saved\./),
      expect.stringMatching(/1 Mar 2026, \d\d:00 ?90.0 %, 900 of 1000 ?3 ?the first count/),
    ]);
    expect(screen.has('ty-time-chart')).toBe(true);
  });
  test('where nothing was counted, that is said', async () => {
    const screen = await open([]);
    expect(screen.texts('[role=status]')[0]).toMatch(/^Nothing was counted yet/);
  });
  test('a failure is told with its reason', async () => {
    const screen = await open(null);
    expect(screen.texts('[role=alert]')[0]).toMatch(/cannot be read.*closed/);
  });
});
