import { demoLibrary } from './support';
import { findPlaces, placesOf } from '../src/features/finder/places';

const places = placesOf(demoLibrary(), 'notices-desk');
const found = (question: string, recent: readonly string[] = []) => findPlaces(places, question, recent, 8).map(({ id }) => id);

describe('a place is found', () => {
  test.each([
    ['notices', 'profile:notices-desk'],
    ['likeness', 'view:likeness'],
    ['img', 'element:img'],
    ['office', 'pass:office-leftovers'],
    ['addresses without scheme', 'setting:markup-urls-relative'],
    ['§3', 'chapter:paste'],
    ['COMMITTEE minutes', 'specimen:committee-minutes'],
    ['rights', 'view:people'],
    ['shortcuts', 'view:keys'],
  ])('by %j', (question, id) => expect(found(question)[0]).toBe(id));

  test('by words in any order, and never by a word it does not have', () => {
    expect(found('desk notices')).toContain('profile:notices-desk');
    expect(found('notices quetzalcoatlus')).toEqual([]);
  });

  test('that was gone to last before another that fits as well', () => {
    expect(found('', ['element:u', 'view:site'])).toEqual(['element:u', 'view:site', ...found('').slice(0, 6)]);
    const [first, second] = found('heading');
    expect(found('heading', [second!])[0] === second || found('heading')[0] === first).toBe(true);
    const twins = found('h').filter((id) => id.startsWith('element:h'));
    expect(found('h', [twins.at(-1)!]).indexOf(twins.at(-1)!)).toBeLessThan(found('h').indexOf(twins.at(-1)!));
  });
});

test('every place has an id of its own', () => {
  expect(new Set(places.map(({ id }) => id)).size).toBe(places.length);
});

test('without a profile there are no parts of one', () => {
  expect(placesOf(demoLibrary(), null).some(({ id }) => /^(chapter|element|pass|setting|style):/.test(id))).toBe(false);
});

test('what the checks found is found by its words, and leads to its rule', () => {
  const findings = [
    {
      check: 'above-house',
      severity: 'error',
      sentence: 'section is allowed here, but not by the house limits.',
      pointer: '/markup/elements/section',
    },
  ] as const;
  const all = placesOf(demoLibrary(), 'notices-desk', findings);
  const [first] = findPlaces(all, 'allowed section', [], 8);
  expect([first?.where, first?.link, first?.query]).toEqual([
    expect.stringMatching(/^finding in /),
    ['/profiles', 'notices-desk'],
    { at: '/markup/elements/section' },
  ]);
  expect(placesOf(demoLibrary(), null, findings).some(({ id }) => id.startsWith('finding:'))).toBe(false);
});
