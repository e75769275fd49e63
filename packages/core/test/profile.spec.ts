import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  countChanges,
  fromPointer,
  houseLimitsJsonSchema,
  makePatch,
  mergePatch,
  originOf,
  profileJsonSchema,
  readHouseLimits,
  resetInProfile,
  resolveProfile,
  setInProfile,
  toPointer,
  valueAt,
  type Json,
  type JsonObject,
} from '../src/index';
import { DEMO_PROFILES, demoProfile, resolved } from './support';

const head = { format: 'typikon-profile/1', name: 'A profile' };
const family: Record<string, JsonObject> = {
  house: {
    ...head,
    name: 'House',
    purpose: 'For everybody',
    toolbar: { order: ['words'], groups: { words: { label: 'Words', buttons: ['bold'] } } },
    markup: { elements: { p: {}, strong: {}, a: { attributes: { href: { test: 'url' }, title: { test: 'text' } } }, hr: {} } },
  },
  desk: { ...head, name: 'Desk', extends: 'house', markup: { elements: { hr: null, u: {}, a: { attributes: { title: null } } } } },
};
const desk = (changes: JsonObject = {}) => resolved('desk', (id) => (id === 'desk' ? { ...family['desk']!, ...changes } : family[id]));

describe('merge patch', () => {
  // The examples of RFC 7396, appendix A.
  test.each<[Json, Json, Json]>([
    [{ a: 'b' }, { a: 'c' }, { a: 'c' }],
    [{ a: 'b' }, { b: 'c' }, { a: 'b', b: 'c' }],
    [{ a: 'b' }, { a: null }, {}],
    [{ a: 'b', b: 'c' }, { a: null }, { b: 'c' }],
    [{ a: ['b'] }, { a: 'c' }, { a: 'c' }],
    [{ a: 'c' }, { a: ['b'] }, { a: ['b'] }],
    [{ a: { b: 'c' } }, { a: { b: 'd', c: null } }, { a: { b: 'd' } }],
    [{ a: [{ b: 'c' }] }, { a: [1] }, { a: [1] }],
    [
      ['a', 'b'],
      ['c', 'd'],
      ['c', 'd'],
    ],
    [{ a: 'b' }, ['c'], ['c']],
    [{ a: 'foo' }, null, null],
    [{ a: 'foo' }, 'bar', 'bar'],
    [{ e: null }, { a: 1 }, { e: null, a: 1 }],
    [[1, 2], { a: 'b', c: null }, { a: 'b' }],
    [{}, { a: { bb: { ccc: null } } }, { a: { bb: {} } }],
  ])('%j patched with %j', (target, patch, result) => {
    expect(mergePatch(target, patch)).toEqual(result);
  });

  test('a name that objects have anyway is a key like any other', () => {
    const merged = mergePatch({}, JSON.parse('{"__proto__": {"polluted": true}}') as Json);
    expect(({} as JsonObject)['polluted']).toBeUndefined();
    expect(Object.keys(merged as JsonObject)).toEqual(['__proto__']);
  });

  test.each<[Json | undefined, Json | undefined]>([
    [{ a: 1 }, { a: 2 }],
    [{ a: { b: 1, c: 2 } }, { a: { b: 1 } }],
    [undefined, { a: {} }],
    [{ a: [1] }, { a: [1, 2] }],
  ])('the patch from %j to %j leads there', (from, to) => {
    expect(mergePatch(from, makePatch(from, to)!)).toEqual(to);
    expect(makePatch(to, to)).toBeUndefined();
  });
});

describe('pointers', () => {
  test('are made and taken apart (RFC 6901)', () => {
    expect(toPointer(['a/b', 'c~d', 0])).toBe('/a~1b/c~0d/0');
    expect(fromPointer('/a~1b/c~0d/0')).toEqual(['a/b', 'c~d', '0']);
    expect(fromPointer('')).toEqual([]);
    expect(valueAt({ a: [{ b: 1 }] }, ['a', '0', 'b'])).toBe(1);
    expect(valueAt({}, ['toString'])).toBeUndefined();
  });
});

describe('resolving', () => {
  test('a child has what its parent has, changed and without what it takes out', () => {
    const { profile } = desk();
    expect(Object.keys(profile.markup.elements).sort()).toEqual(['a', 'p', 'strong', 'u']);
    expect(profile.markup.elements['a']).toEqual({ attributes: { href: { test: 'url' } } });
    expect(profile.toolbar.groups['words']).toEqual({ label: 'Words', buttons: ['bold'] });
  });

  test('name and purpose are one’s own', () => {
    expect(desk().profile).toMatchObject({ name: 'Desk', purpose: '' });
  });

  test('defaults are filled in', () => {
    expect(desk().profile).toMatchObject({
      markup: { unlisted: 'unwrap', comments: 'drop', limits: { nesting: 200 }, urls: { relative: true } },
      surface: { heightPx: 420 },
    });
  });

  test.each<[string, JsonObject, string, string]>([
    ['an unknown key', { ...head, tolbar: {} }, '/tolbar', 'The key "tolbar" is not known here.'],
    [
      'an unknown key further down',
      { ...head, markup: { elements: { p: { attribtes: {} } } } },
      '/markup/elements/p/attribtes',
      'The key "attribtes" is not known here.',
    ],
    ['an unknown key set to null', { ...head, markup: { elemnts: null } }, '/markup/elemnts', 'The key "elemnts" is not known here.'],
    ['a wrong format', { ...head, format: 'other/2' }, '/format', 'The format must be "typikon-profile/1".'],
    ['a wrong type', { ...head, name: 7 }, '/name', 'Invalid input: expected string, received number.'],
    [
      'an unknown test',
      { ...head, markup: { elements: { p: { attributes: { id: { test: 'magic' } } } } } },
      '/markup/elements/p/attributes/id/test',
      'The test must be one of text, list, pattern, tokens, integer, length, url, language, features, style.',
    ],
    [
      'an unknown button',
      { ...head, toolbar: { groups: { words: { label: 'W', buttons: ['blink'] } } } },
      '/toolbar/groups/words/buttons/0',
      '',
    ],
    [
      'an element name in capitals',
      { ...head, markup: { elements: { P: {} } } },
      '/markup/elements/P',
      'Must be an element name in lower case.',
    ],
    [
      'a nesting above what browsers keep',
      { ...head, markup: { limits: { nesting: 600 } } },
      '/markup/limits/nesting',
      'Too big: expected number to be <=500.',
    ],
    ['a missing parent', { ...head, extends: 'nobody' }, '/extends', 'Its parent "nobody" is missing.'],
    ['itself as parent', { ...head, extends: 'it' }, '/extends', 'The profiles extend each other in a circle: it → it.'],
  ])('%s is a problem with its place', (_what, document, pointer, message) => {
    const resolution = resolveProfile('it', (id) => (id === 'it' ? document : undefined));
    expect(resolution).toMatchObject({ ok: false, problems: [{ profile: 'it', pointer }] });
    if (!resolution.ok && message !== '') expect(resolution.problems[0]!.message).toBe(message);
  });

  test('a problem in a parent is said to be the parent’s', () => {
    const resolution = resolveProfile('child', (id) =>
      id === 'child' ? { ...head, extends: 'parent' } : { ...head, surface: { hight: 1 } },
    );
    expect(resolution).toMatchObject({ ok: false, problems: [{ profile: 'parent', pointer: '/surface/hight' }] });
  });

  test('every demo profile resolves', () => {
    for (const id of DEMO_PROFILES) expect(demoProfile(id).profile.name).not.toBe('');
  });

  test('house limits with a wrong key are refused with its place', () => {
    expect(readHouseLimits({ format: 'typikon-house/1', markup: { elements: {} }, trustedRole: {} })).toMatchObject({
      ok: false,
      problems: [{ pointer: '/trustedRole' }],
    });
  });
});

describe('where a setting comes from', () => {
  const { chain } = desk();
  test.each([
    ['/markup/elements/p', 'house'],
    ['/markup/elements/u', 'desk'],
    ['/markup/elements/hr', 'desk'],
    ['/markup/elements/a/attributes/title', 'desk'],
    ['/markup/elements/a/attributes/href', 'house'],
    ['/markup/unlisted', undefined],
  ])('%s', (pointer, origin) => expect(originOf(chain, pointer)).toBe(origin));
});

describe('editing', () => {
  test('what equals the inherited value is not repeated', () => {
    const { chain } = desk();
    expect(setInProfile(chain, ['markup', 'elements', 'hr'], {})['markup']).toEqual({
      elements: { u: {}, a: { attributes: { title: null } } },
    });
  });
  test('what the parent has is taken out with null, what only this profile has just goes', () => {
    const { chain } = desk();
    expect(valueAt(setInProfile(chain, ['markup', 'elements', 'p'], undefined), ['markup', 'elements', 'p'])).toBeNull();
    expect(valueAt(setInProfile(chain, ['markup', 'elements', 'u'], undefined), ['markup', 'elements', 'u'])).toBeUndefined();
  });
  test('the resolved profile has the value that was set', () => {
    const rule = { attributes: { href: { test: 'text' }, rel: { test: 'text' } } };
    const document = setInProfile(desk().chain, ['markup', 'elements', 'a'], rule);
    expect(desk(document).profile.markup.elements['a']).toEqual(rule);
  });
  test('resetting follows the parent again', () => {
    const document = resetInProfile(desk().chain, ['markup', 'elements', 'a']);
    expect(desk(document).profile.markup.elements['a']).toEqual({ attributes: { href: { test: 'url' }, title: { test: 'text' } } });
  });
  test('changes are counted by setting', () => {
    expect(countChanges(family['desk'], setInProfile(desk().chain, ['markup', 'elements', 'p'], undefined))).toBe(1);
    expect(countChanges(family['desk'], family['desk'])).toBe(0);
  });
});

test.each([
  ['profile.schema.json', profileJsonSchema],
  ['house-limits.schema.json', houseLimitsJsonSchema],
])('docs/%s is the schema that is used (npm run docs writes it)', (file, schema) => {
  const written = JSON.parse(readFileSync(join(__dirname, '..', '..', '..', 'docs', file), 'utf8')) as object;
  expect(written).toEqual(JSON.parse(JSON.stringify(schema())));
});
