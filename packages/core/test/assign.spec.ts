import fc from 'fast-check';
import { Assignments, neverWinning, siteSchema, type Assigning, type Statement } from '../src/index';
import { runs } from './fixed-seed';

const ROLES = ['web', 'desk', 'crew', 'clerk'];
const TYPES = ['story', 'notice', 'tender'];
const FIELDS = ['body', 'teaser', 'caption', 'conditions'];
const PROFILES = ['house', 'story-desk', 'reply'];

const some = (names: string[]): fc.Arbitrary<'*' | string[]> =>
  fc.oneof(fc.constant('*' as const), fc.subarray(names, { minLength: 1, maxLength: 3 }));
const statement = fc.record({
  roles: some(ROLES),
  types: some(TYPES),
  fields: some(FIELDS),
  profiles: fc.subarray(PROFILES, { minLength: 1 }),
});
const assigning = fc.record({ assignments: fc.array(statement, { maxLength: 80 }), fallback: fc.subarray(PROFILES) });
const question = fc.record({
  roles: fc.subarray(ROLES),
  type: fc.constantFrom(...TYPES, 'unknown'),
  field: fc.constantFrom(...FIELDS, 'unknown'),
});

/** The rule as it is said: read from the top, the first that fits. */
function fitting({ assignments }: Assigning, { roles, type, field }: { roles: string[]; type: string; field: string }): number[] {
  const holds = (names: '*' | readonly string[], asked: readonly string[]): boolean =>
    names === '*' || names.some((name) => asked.includes(name));
  return assignments.flatMap((one, at) => (holds(one.roles, roles) && holds(one.types, [type]) && holds(one.fields, [field]) ? [at] : []));
}

describe('who writes with what', () => {
  const all: Pick<Statement, 'roles' | 'types' | 'fields' | 'profiles'>[] = [
    { roles: ['desk'], types: ['story'], fields: ['teaser'], profiles: ['ferry-note'] },
    { roles: ['desk', 'web'], types: ['story'], fields: '*', profiles: ['story-desk', 'diary'] },
    { roles: '*', types: ['story', 'notice'], fields: ['teaser', 'body'], profiles: ['reply'] },
  ];
  const assignments = new Assignments({ assignments: all, fallback: ['house'] });

  test.each<[string, string[], string, string, object]>([
    [
      'the first that fits wins, and those behind it are named',
      ['desk'],
      'story',
      'teaser',
      { profile: 'ferry-note', choices: ['ferry-note'], statement: 0, beaten: [1, 2] },
    ],
    [
      'several may be chosen from',
      ['desk'],
      'story',
      'caption',
      { profile: 'story-desk', choices: ['story-desk', 'diary'], statement: 1, beaten: [] },
    ],
    [
      'somebody with several roles gets the first that fits any of them',
      ['crew', 'web'],
      'story',
      'body',
      { profile: 'story-desk', statement: 1, beaten: [2] },
    ],
    ['somebody without a role is met by what is for everybody', [], 'notice', 'body', { profile: 'reply', statement: 2 }],
    [
      'where none fits, the fallback holds',
      ['crew'],
      'tender',
      'body',
      { profile: 'house', choices: ['house'], statement: null, beaten: [] },
    ],
  ])('%s', (_what, roles, type, field, answer) => expect(assignments.why({ roles, type, field })).toMatchObject(answer));

  test('without a fallback, nobody writes where none fits', () =>
    expect(new Assignments({ assignments: [] }).why({ roles: ['web'], type: 'story', field: 'body' })).toEqual({
      profile: null,
      choices: [],
      statement: null,
      beaten: [],
    }));

  test('law: every question has one answer, and it is the first that fits', () =>
    fc.assert(
      fc.property(assigning, fc.array(question, { minLength: 1, maxLength: 20 }), (site, questions) => {
        const index = new Assignments(site);
        for (const one of questions) {
          const [statement = null, ...beaten] = fitting(site, one);
          const choices = statement === null ? site.fallback : site.assignments[statement]!.profiles;
          expect(index.why(one)).toEqual({ profile: choices[0] ?? null, choices, statement, beaten });
          expect(index.first(one)).toBe(statement);
        }
      }),
      { numRuns: runs(200) },
    ));

  test('law: a statement that never wins can be taken out, and no answer changes; any other cannot', () =>
    fc.assert(
      fc.property(assigning, (site) => {
        const places = TYPES.flatMap((type) => FIELDS.map((field) => ({ type, field })));
        const never = new Map(neverWinning(site, ROLES, places).map(({ statement: at, behind }) => [at, behind]));
        const winners = new Set<number>();
        // Everybody, with every set of roles.
        for (let set = 0; set < 2 ** ROLES.length; set++)
          for (const place of places) {
            const [winner, ...beaten] = fitting(site, { roles: ROLES.filter((_role, at) => (set >> at) & 1), ...place });
            if (winner !== undefined) winners.add(winner);
            for (const loser of beaten) if (never.has(loser)) expect(winner).not.toBe(loser);
          }
        for (let at = 0; at < site.assignments.length; at++) expect(never.has(at)).toBe(!winners.has(at));
        // Those that win instead stand before it.
        for (const [at, behind] of never) for (const winner of behind) expect(winner).toBeLessThan(at);
      }),
      { numRuns: runs(60) },
    ));
});

describe('a site document', () => {
  const site = {
    format: 'typikon-site/1',
    roles: [{ id: 'desk', label: 'Communications' }],
    people: [{ id: 'ada', label: 'Ada Merrow', roles: ['desk'] }],
    types: [{ id: 'story', label: 'Story', pageKind: 'article', fields: [{ key: 'body', title: 'Body' }] }],
    assignments: [{ roles: ['desk'], types: '*', fields: '*', profiles: ['story-desk'] }],
  };
  const messages = (change: (copy: Record<string, unknown[]>) => void): string[] => {
    const copy = structuredClone(site) as unknown as Record<string, unknown[]>;
    change(copy);
    const read = siteSchema.safeParse(copy);
    return read.success ? [] : read.error.issues.map(({ path, message }) => `${path.join('/')}: ${message}`);
  };

  test('has every default filled in', () =>
    expect(siteSchema.parse(site).types[0]).toEqual({
      id: 'story',
      label: 'Story',
      icon: 'file',
      colour: 'ink',
      description: '',
      pageKind: 'article',
      alsoOn: [],
      publishing: 'at-once',
      approvers: [],
      versions: { public: true },
      fields: [
        {
          key: 'body',
          title: 'Body',
          kind: 'rich',
          help: { short: '', long: '', link: '', example: '' },
          titleHidden: false,
          needed: false,
          letters: {},
          choices: [],
          linksWithin: '',
          picturesFrom: '',
          picturesInto: '',
        },
      ],
    }));
  test.each<[string, (copy: Record<string, any[]>) => void, string[]]>([
    ['a role twice', (copy) => copy['roles']!.push(copy['roles']![0]), ['roles/1/id: "desk" is there twice']],
    [
      'a field twice',
      (copy) => copy['types']![0].fields.push({ key: 'body', title: 'More' }),
      ['types/0/fields/1/key: "body" is there twice'],
    ],
    ['a person’s role that is not there', (copy) => (copy['people']![0].roles = ['crew']), ['people/0/roles/0: there is no role "crew"']],
    [
      'a statement about what is not there',
      (copy) => copy['assignments']!.push({ roles: ['crew'], types: ['tender'], fields: ['lead'], profiles: ['x'] }),
      [
        'assignments/1/roles/0: there is no role "crew"',
        'assignments/1/types/0: there is no content type "tender"',
        'assignments/1/fields/0: there is no field "lead"',
      ],
    ],
    [
      'a statement without profiles',
      (copy) => (copy['assignments']![0].profiles = []),
      ['assignments/0/profiles: must name at least one profile'],
    ],
    [
      'a choice without choices',
      (copy) => (copy['types']![0].fields[0].kind = 'choice'),
      ['types/0/fields/0/choices: must name at least one choice'],
    ],
    [
      'lengths the wrong way round',
      (copy) => (copy['types']![0].fields[0].letters = { from: 20, to: 10 }),
      ['types/0/fields/0/letters: the shortest must not be above the longest'],
    ],
  ])('%s is told with its place', (_what, change, expected) => expect(messages(change)).toEqual(expected));
});
