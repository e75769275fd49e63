import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Site, SiteFinding } from '@typikon/core';
import { demoLibrary } from './support';
import { findPlaces, placesOf, placesOfSite } from '../src/features/finder/places';

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

describe('the site', () => {
  const site = JSON.parse(readFileSync(join(__dirname, '..', '..', '..', 'demo', 'site.json'), 'utf8')) as Site;
  const FINDINGS: SiteFinding[] = [
    {
      check: 'field-without-help',
      severity: 'note',
      sentence: 'Nobody explains the lead.',
      pointer: '/types/0/fields/1',
      type: 'story',
      field: 'lead',
    },
    { check: 'silent-statement', severity: 'amiss', sentence: 'The statement never wins.', pointer: '/assignments/2', statement: 2 },
    {
      check: 'field-of-nobody',
      severity: 'note',
      sentence: 'Nobody writes the aside.',
      pointer: '/types/0/fields/2',
      type: 'story',
      field: 'aside',
    },
  ];
  const all = placesOfSite(site, FINDINGS);
  const first = (question: string) => findPlaces(all, question, [], 8)[0];

  test('each type and each field is a place of its own', () => {
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
    for (const { id, label, fields } of site.types) {
      expect(first(label)).toMatchObject({ label, link: ['/types', id] });
      for (const { key } of fields) expect(all).toContainEqual(expect.objectContaining({ link: ['/types', id, key] }));
    }
  });
  test.each([
    ['explains lead', ['/types', 'story', 'lead']],
    ['never wins', ['/writing']],
    ['aside', ['/writing']],
  ])('what was found is found by %j and leads to what it is about', (question, link) => expect(first(question)?.link).toEqual(link));
});
