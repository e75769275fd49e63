import fc from 'fast-check';
import {
  Assignments,
  changesOfSite,
  changesOfWriting,
  isSameJson,
  leftBehind,
  siteSchema,
  type Json,
  type Site,
  type SiteChange,
} from '../src/index';
import { runs } from './fixed-seed';

const KEYS = ['body', 'headline', 'teaser', 'when'];
const IDS = ['story', 'notice', 'tender', 'diary'];

const some = (of: readonly string[]) =>
  fc.oneof(fc.constant('*' as const), fc.uniqueArray(fc.constantFrom(...of), { minLength: 1, maxLength: 3 }));

const field = fc.record({
  key: fc.constantFrom(...KEYS),
  title: fc.constantFrom('Body', 'Headline', 'What happened'),
  needed: fc.boolean(),
  help: fc.record({ short: fc.constantFrom('', 'What is it about?'), long: fc.constantFrom('', '<p>Long.</p>') }),
  letters: fc.constantFrom({}, { from: 10 }, { to: 300 }, { from: 10, to: 300 }),
  picturesFrom: fc.constantFrom('', '/harbour/'),
});
const type = fc.record({
  id: fc.constantFrom(...IDS),
  label: fc.constantFrom('News story', 'Notice'),
  pageKind: fc.constantFrom('article', 'card'),
  alsoOn: fc.subarray(['card', 'front']),
  fields: fc.uniqueArray(field, { selector: ({ key }) => key, maxLength: 4 }),
});
const role = fc.record({ id: fc.constantFrom('writer', 'editor', 'clerk'), label: fc.constantFrom('Writers', 'Editors') });

/** Any small site whose statements name what it has. */
const anySite: fc.Arbitrary<Site> = fc
  .record({
    types: fc.uniqueArray(type, { selector: ({ id }) => id, maxLength: 4 }),
    roles: fc.uniqueArray(role, { selector: ({ id }) => id, maxLength: 3 }),
    people: fc.uniqueArray(fc.record({ id: fc.constantFrom('una', 'tom'), label: fc.constantFrom('Una', 'Tom') }), {
      selector: ({ id }) => id,
    }),
    statements: fc.array(
      fc.record({ roles: some(['writer', 'editor', 'clerk']), types: some(IDS), fields: some(KEYS), profiles: fc.constant(['notes']) }),
      { maxLength: 5 },
    ),
    fallback: fc.subarray(['notes', 'diary']),
  })
  .map(({ statements, ...site }) => {
    const held = (names: '*' | string[], all: readonly string[]) => (names === '*' ? names : names.filter((name) => all.includes(name)));
    const assignments = statements.map((one) => ({
      ...one,
      roles: held(
        one.roles,
        site.roles.map(({ id }) => id),
      ),
      types: held(
        one.types,
        site.types.map(({ id }) => id),
      ),
      fields: held(
        one.fields,
        site.types.flatMap(({ fields }) => fields.map(({ key }) => key)),
      ),
    }));
    return siteSchema.parse({
      format: 'typikon-site/1',
      ...site,
      assignments: assignments.filter((one) => [one.roles, one.types, one.fields].every((names) => names.length > 0)),
    });
  });

const at = (site: Site, pointer: string): unknown =>
  pointer
    .split('/')
    .slice(1)
    .reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], site);

const sentences = (changes: readonly SiteChange[]): string[] => changes.map(({ sentence }) => sentence);

describe('what another site document changes', () => {
  test('is nothing exactly where both are the same', () =>
    fc.assert(
      fc.property(anySite, anySite, (one, other) => {
        expect(changesOfSite(one, one)).toEqual([]);
        expect(changesOfSite(one, other).length === 0).toBe(isSameJson(one as Json, other as Json));
      }),
    ));

  test('every line points at something that is there', () =>
    fc.assert(
      fc.property(anySite, anySite, (one, other) => {
        for (const { what, pointer, sentence } of changesOfSite(one, other)) {
          expect(at(what === 'gone' ? one : other, pointer)).toBeDefined();
          expect(sentence).toMatch(/^\S.*\.$/u);
          expect(sentence).not.toMatch(/undefined|\[object/);
        }
      }),
    ));

  test('what is new one way is gone the other way', () =>
    fc.assert(
      fc.property(anySite, anySite, (one, other) => {
        const places = (changes: readonly SiteChange[], kind: SiteChange['what']): string[] =>
          changes
            .filter(({ what, pointer }) => what === kind && !pointer.startsWith('/assignments'))
            .map(({ pointer }) => pointer)
            .sort();
        expect(places(changesOfSite(one, other), 'new')).toEqual(places(changesOfSite(other, one), 'gone'));
      }),
    ));

  const site = (rest: object): Site => siteSchema.parse({ format: 'typikon-site/1', ...rest });
  const story = { id: 'story', label: 'News story', pageKind: 'article' };
  const body = { key: 'body', title: 'Body' };

  test('is told by what things are called', () => {
    const before = site({
      types: [
        { ...story, fields: [body, { key: 'teaser', title: 'Teaser' }] },
        { ...story, id: 'tender', label: 'Tender' },
      ],
      roles: [{ id: 'writer', label: 'Writers' }],
      assignments: [{ roles: ['writer'], types: ['story'], fields: '*', profiles: ['notes'] }],
    });
    const after = site({
      types: [
        { ...story, label: 'Story', fields: [{ ...body, needed: true, letters: { to: 300 }, help: { short: 'What is it about?' } }] },
        { ...story, id: 'notice', label: 'Notice', fields: [body] },
      ],
      roles: [{ id: 'writer', label: 'Writers' }],
      assignments: [{ roles: '*', types: ['notice'], fields: ['body'], profiles: ['notes', 'diary'] }],
      fallback: ['notes'],
    });
    expect(sentences(changesOfSite(before, after))).toEqual([
      'The content type “Tender” (no field) goes.',
      '“Story”: its name, “News story” before, becomes “Story”.',
      'The field “Teaser” of “Story” goes.',
      '“Body” of “Story”: its short help, nothing before, becomes “What is it about?”.',
      '“Body” of “Story”: whether it is needed, no before, becomes yes.',
      '“Body” of “Story”: its most letters, nothing before, becomes 300.',
      'The content type “Notice” (Body) is new.',
      'Statement 1 goes: Writers in every field of News story with notes.',
      'Statement 1 is new: everybody in “Body” of Notice with notes and diary.',
      'Where no statement fits: nothing becomes notes.',
    ]);
  });

  test('a statement that moves is told as moved, and those beside it stay', () => {
    const one = { roles: '*', types: '*', fields: '*', profiles: ['one'] };
    const all = ['one', 'two', 'three', 'four'].map((profile) => ({ ...one, profiles: [profile] }));
    const moved = [all[3], all[0], all[1], all[2]];
    expect(changesOfSite(site({ assignments: all }), site({ assignments: moved }))).toEqual([
      {
        what: 'moved',
        pointer: '/assignments/0',
        sentence: 'Statement 4 becomes statement 1: everybody in every field of every content type with four.',
      },
    ]);
  });

  test('order is told once', () => {
    const types = [story, { ...story, id: 'notice', label: 'Notice' }, { ...story, id: 'diary', label: 'Diary' }];
    expect(sentences(changesOfSite(site({ types }), site({ types: [types[2], types[0], types[1]] })))).toEqual([
      'Content types stand in another order.',
    ]);
  });

  test('ten thousand statements, every one otherwise, take no more room than they have', () => {
    const all = (name: string) =>
      Array.from({ length: 5000 }, (_, n) => ({ roles: '*', types: '*', fields: '*', profiles: [`${name}-${n}`] }));
    const changes = changesOfSite(site({ assignments: all('a') }), site({ assignments: all('b') }));
    expect(changes).toHaveLength(10_000);
  });
});

describe('who writes with what in another site', () => {
  const withRoles = (site: Site): Site => ({ ...site, fallback: site.fallback.length === 0 ? ['diary'] : site.fallback });
  const answers = (site: Site, role: string, typeId: string, key: string) => {
    const isThere =
      site.roles.some(({ id }) => id === role) &&
      site.types.some(({ id, fields }) => id === typeId && fields.some((one) => one.key === key));
    const { profile, choices } = new Assignments(site).why({ roles: [role], type: typeId, field: key });
    return isThere ? [profile, [...choices]] : [null, []];
  };

  test('is told for every role and field of which the answer is another, once, and for no other', () => {
    fc.assert(
      fc.property(anySite, anySite.map(withRoles), (from, to) => {
        const changes = changesOfWriting(from, to);
        for (const role of ['writer', 'editor', 'clerk'])
          for (const typeId of IDS)
            for (const key of KEYS) {
              const [before, after] = [answers(from, role, typeId, key), answers(to, role, typeId, key)];
              const told = changes.filter((change) => change.type === typeId && change.field === key && change.roles.includes(role));
              expect(told.length).toBe(isSameJson(before as Json, after as Json) ? 0 : 1);
              for (const one of told) {
                expect([one.before.profile, [...one.before.choices]]).toEqual(before);
                expect([one.after.profile, [...one.after.choices]]).toEqual(after);
              }
            }
        expect(changesOfWriting(to, to)).toEqual([]);
      }),
      { seed: 21, numRuns: runs(150) },
    );
  });

  test('leaves those texts behind whose profile no role may choose', () => {
    fc.assert(
      fc.property(anySite, (site) => {
        const counts = IDS.flatMap((typeId) =>
          KEYS.flatMap((key) => ['notes', 'diary'].map((profileId) => ({ type: typeId, field: key, profileId, count: 2 }))),
        );
        const left = leftBehind(site, [...counts, { type: 'story', field: 'body', profileId: 'gone', count: 0 }]);
        for (const one of counts) {
          const isOffered = site.roles.some(({ id }) =>
            new Assignments(site).why({ roles: [id], type: one.type, field: one.field }).choices.includes(one.profileId),
          );
          expect(left.includes(one)).toBe(!isOffered);
        }
      }),
      { seed: 22, numRuns: runs(100) },
    );
  });
});
