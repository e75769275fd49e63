import { laneOf } from '../src/app';
import { HEAVY_BYTES } from '../src/lanes/forward';

test.each([
  // What cleans or reads every text there is may take seconds, and must keep nobody waiting.
  ['POST', '/profiles/story-desk/reach', 'heavy'],
  ['POST', '/profiles/story-desk/reach/allow', 'heavy'],
  ['POST', '/profiles/story-desk/conversions/try', 'heavy'],
  ['POST', '/shared/house-limits/reach', 'heavy'],
  ['GET', '/texts/census', 'heavy'],
  ['GET', '/fit', 'heavy'],
  ['POST', '/types/story/give-documents', 'heavy'],
  ['POST', '/assets', 'heavy'],
  // One text, or what may be long to read, is short work, but not for whoever answers small requests.
  ['POST', '/profiles/story-desk/reach/ferry-times/body', 'quick'],
  ['POST', '/shared/house-limits/reach/ferry-times/body', 'quick'],
  ['GET', '/profiles', 'quick'],
  ['GET', '/editions', 'quick'],
  ['GET', '/shared', 'quick'],
  ['GET', '/shared/pages/editions/3', 'quick'],
  ['GET', '/documents/ferry-times', 'quick'],
  ['PUT', '/house-limits', 'quick'],
  ['GET', '/health', 'here'],
  ['GET', '/documents', 'here'],
  ['POST', '/site-dictionary/words', 'here'],
] as const)('%s %s is answered: %s', (method, path, lane) => {
  expect(laneOf({ method, path: `/api/v1${path}`, bytes: 100 })).toBe(lane);
});

test('a long body is no short work, whatever it is for', () => {
  expect(laneOf({ method: 'PUT', path: '/api/v1/documents/ferry-times', bytes: HEAVY_BYTES + 1 })).toBe('heavy');
});
