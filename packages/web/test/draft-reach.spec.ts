import type { Json } from '@typikon/core';
import { DraftReach, reachWords } from '../src/features/bench/draft-reach';
import type { ReachSoFar, TouchedText } from '../src/state/reach';
import { Screen } from './support';

const touched = (document: string, wordsLost: number): TouchedText => ({
  document,
  field: 'body',
  title: document,
  changedBy: '',
  reach: {
    textLost: wordsLost * 4,
    textGained: 0,
    wordsLost,
    wordsGained: 0,
    lost: { pictures: 0, links: 0, frames: 0 },
    gained: { pictures: 0, links: 0, frames: 0 },
    taken: [],
    kept: [],
  },
});
const soFar = (more: Partial<ReachSoFar>): ReachSoFar => ({
  texts: 212,
  candidates: 40,
  sure: 0,
  undecided: [],
  looked: 40,
  touched: [],
  isDone: true,
  ...more,
});

test.each<[Partial<ReachSoFar>, string]>([
  [{}, 'Touches none of 212 texts'],
  [{ touched: [touched('a', 0)] }, 'Touches 1 of 212 texts'],
  [{ touched: [touched('a', 0), touched('b', 3)] }, 'Touches 2 of 212 texts, one loses words'],
  [{ touched: [touched('a', 1), touched('b', 3)], texts: 100_000 }, 'Touches 2 of 100,000 texts, 2 lose words'],
  [{ touched: [touched('a', 1)], looked: 10, isDone: false }, 'Touches 1 to 31 of 212 texts; 10 looked at, one loses words so far'],
  [{ looked: 10, isDone: false }, 'Touches at most 30 of 212 texts; 10 looked at'],
  [
    { sure: 40, looked: 10, touched: [touched('a', 1)].concat(Array.from({ length: 9 }, () => touched('b', 0))), isDone: false },
    'Touches 40 of 212 texts; 10 looked at, one loses words so far',
  ],
  [{ sure: 38, looked: 0, isDone: false }, 'Touches 38 to 40 of 212 texts; 0 looked at'],
  [{ candidates: 0, looked: 0, isDone: false }, 'Touches none of 212 texts; 0 looked at'],
  [{ texts: 1, candidates: 1 }, 'Touches none of the one text'],
  [{ texts: 0, candidates: 0, looked: 0 }, 'No text is stored with it'],
])('%j is told as “%s”', (more, words) => {
  const { touched: one, losing } = reachWords(soFar(more));
  expect(`${one}${losing}`).toBe(words);
});

describe('at the foot of the bench', () => {
  const PATH = '/api/v1/profiles/story-desk/reach';
  const patience = () => new Promise((done) => setTimeout(done, 400));
  const said = (screen: Screen<DraftReach>): string => screen.texts('[role=status]')[0]!;
  async function edited(value: Json): Promise<Screen<DraftReach>> {
    const screen = await Screen.of(DraftReach, { profile: 'story-desk' });
    screen.edit(['markup', 'elements', 'table'], value);
    await screen.settle();
    await patience();
    await screen.settle();
    return screen;
  }

  test('nothing is asked or said while authors write with what the draft says', async () => {
    const screen = await Screen.of(DraftReach, { profile: 'story-desk' });
    await patience();
    await screen.settle();
    screen.http.expectNone(PATH);
    expect(said(screen)).toBe('');
  });

  test('a change is looked up with the draft as it stands, answer by answer', async () => {
    const screen = await edited({ outcome: 'drop' });
    expect(said(screen)).toBe('Looking at what is stored …');
    const first = screen.http.expectOne(PATH);
    expect((first.request.body as { document: object }).document).toEqual(screen.draft);
    first.flush(
      { texts: 5, candidates: 3, sure: 0, undecided: [], looked: 2, touched: [touched('a', 2)] },
      { headers: { Link: `<${PATH}?after=a%2Fbody>; rel="next"` } },
    );
    await screen.settle();
    expect(said(screen)).toBe('Touches 1 to 2 of 5 texts; 2 looked at, one loses words so far');
    screen.http
      .expectOne(`${PATH}?after=a%2Fbody`)
      .flush({ texts: 5, candidates: 3, sure: 0, undecided: [], looked: 1, touched: [touched('b', 0)] });
    await screen.settle();
    expect(said(screen)).toBe('Touches 2 of 5 texts, one loses words');
    expect(screen.find<HTMLAnchorElement>('a').getAttribute('href')).toBe('/profiles/story-desk/release');
  });

  test('what is asked about a draft that was changed again is given up', async () => {
    const screen = await edited({ outcome: 'drop' });
    const before = screen.http.expectOne(PATH);
    screen.edit(['markup', 'elements', 'table'], { outcome: 'unwrap' });
    await screen.settle();
    await patience();
    await screen.settle();
    expect(before.cancelled).toBe(true);
    screen.http.expectOne(PATH).flush({ texts: 5, candidates: 0, sure: 0, undecided: [], looked: 0, touched: [] });
    await screen.settle();
    expect(said(screen)).toBe('Touches none of 5 texts');
  });

  test('that it could not be asked is said, and the next change asks again', async () => {
    const screen = await edited({ outcome: 'drop' });
    screen.http.expectOne(PATH).flush({ detail: 'No.' }, { status: 503, statusText: 'No' });
    await screen.settle();
    expect(said(screen)).toBe('What is stored could not be looked at');
    screen.edit(['markup', 'elements', 'table'], { outcome: 'unwrap' });
    await screen.settle();
    await patience();
    await screen.settle();
    screen.http.expectOne(PATH);
  });
});
