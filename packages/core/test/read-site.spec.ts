import fc from 'fast-check';
import { readSite } from '../src/index';

const mistakes = (document: unknown): string[] => {
  const read = readSite(document);
  return read.ok ? [] : read.problems.map(({ pointer, message }) => `${pointer} ${message}`);
};
const site = (rest: object): object => ({ format: 'typikon-site/1', ...rest });
const type = { id: 'note', label: 'Note', pageKind: 'article' };

describe('a site document', () => {
  test.each<[unknown, string[]]>([
    [site({}), []],
    [null, [' must be an object']],
    [[], [' must be an object']],
    [{}, ['/format must be "typikon-site/1"']],
    [
      site({ types: [{ id: 'a b', label: '' }] }),
      [
        '/types/0/id must be lower-case words joined by hyphens, such as "story-desk"',
        '/types/0/label must not be empty',
        '/types/0/pageKind is missing',
      ],
    ],
    [
      site({ types: [{ ...type, fields: [{ key: 'a', title: 'A', kind: 'video', needed: 1, helpText: 'x' }] }] }),
      [
        '/types/0/fields/0/kind must be one of "rich", "line", "picture", "date", "choice"',
        '/types/0/fields/0/needed must be true or false',
        '/types/0/fields/0/helpText is not known here',
      ],
    ],
    [site({ types: 'note' }), ['/types must be a list']],
    [site({ types: [{ ...type, label: 'x'.repeat(121) }] }), ['/types/0/label must have at most 120 letters']],
    [
      site({ assignments: [{ roles: 'all', types: '*', fields: '*', profiles: ['a'] }] }),
      ['/assignments/0/roles must be "*" or a list of at least one name'],
    ],
    [site({ types: [type, type] }), ['/types/1/id "note" is there twice']],
    [site({ people: [{ id: 'una', label: 'Una', roles: ['clerk'] }] }), ['/people/0/roles/0 there is no role "clerk"']],
  ])('%j', (document, expected) => expect(mistakes(document)).toEqual(expected));

  test('of any kind is read or told, and never in words of a library', () =>
    fc.assert(
      fc.property(
        fc.oneof(
          fc.jsonValue(),
          fc.record(
            {
              format: fc.constant('typikon-site/1'),
              types: fc.array(fc.jsonValue()),
              roles: fc.jsonValue(),
              assignments: fc.array(fc.jsonValue()),
            },
            { requiredKeys: ['format'] },
          ),
        ),
        (document) => {
          for (const mistake of mistakes(document)) expect(mistake).not.toMatch(/Invalid|expected|received|undefined/);
        },
      ),
    ));
});
