import fc from 'fast-check';
import { isLockedOut, RIGHTS, siteSchema, withoutRole, withoutType, type Site } from '../src/index';
import './fixed-seed';

const ROLES = ['a', 'b', 'c'];
const TYPES = ['story', 'notice'];
const some = (names: readonly string[]) => fc.oneof(fc.constant('*' as const), fc.uniqueArray(fc.constantFrom(...names), { minLength: 1 }));
const sites = fc
  .record({
    roles: fc.tuple(...ROLES.map(() => fc.uniqueArray(fc.constantFrom(...RIGHTS)))),
    people: fc.array(fc.uniqueArray(fc.constantFrom(...ROLES)), { maxLength: 4 }),
    assignments: fc.array(fc.record({ roles: some(ROLES), types: some(TYPES), fields: fc.constant('*' as const) }), { maxLength: 6 }),
  })
  .map(({ roles, people, assignments }): Site =>
    siteSchema.parse({
      format: 'typikon-site/1',
      roles: roles.map((rights, at) => ({ id: ROLES[at], label: ROLES[at], rights })),
      people: people.map((of, at) => ({ id: `person-${at}`, label: `Person ${at}`, roles: of })),
      types: TYPES.map((id) => ({ id, label: id, pageKind: 'page' })),
      assignments: assignments.map((statement) => ({ ...statement, profiles: ['house'] })),
    }),
  );

test('what is taken away is named nowhere any more, and the site stays one that can be read', () =>
  fc.assert(
    fc.property(sites, fc.constantFrom(...ROLES), fc.constantFrom(...TYPES), (site, role, type) => {
      const left = withoutType(withoutRole(site, role), type);
      expect(siteSchema.safeParse(left).success).toBe(true);
      expect(left.roles.map(({ id }) => id)).toEqual(ROLES.filter((id) => id !== role));
      expect(left.people.map(({ id }) => id)).toEqual(site.people.map(({ id }) => id));
      expect(left.people.some(({ roles }) => roles.includes(role))).toBe(false);
      expect(left.types.map(({ id }) => id)).toEqual(TYPES.filter((id) => id !== type));
    }),
  ));

test('statements that name others keep their order and say of those what they said', () =>
  fc.assert(
    fc.property(sites, fc.constantFrom(...ROLES), (site, role) => {
      const expected = site.assignments.filter(({ roles }) => roles === '*' || roles.some((id) => id !== role));
      const left = withoutRole(site, role).assignments;
      expect(left.map(({ types }) => types)).toEqual(expected.map(({ types }) => types));
      left.forEach(({ roles }, at) => {
        const before = expected[at]!.roles;
        expect(roles).toEqual(before === '*' ? '*' : before.filter((id) => id !== role));
      });
    }),
  ));

describe('nobody could change it again', () => {
  test('where there are people, and none of them administers', () =>
    fc.assert(
      fc.property(sites, (site) => {
        const rightsOf = (ids: readonly string[]): string[] =>
          site.roles.filter(({ id }) => ids.includes(id)).flatMap(({ rights }) => rights);
        const isOpen = site.people.length === 0 || site.people.some(({ roles }) => rightsOf(roles).includes('administer'));
        expect(isLockedOut(site)).toBe(!isOpen);
      }),
    ));
  test('a site without people is open to whoever sets it up', () =>
    expect(isLockedOut(siteSchema.parse({ format: 'typikon-site/1' }))).toBe(false));
});
