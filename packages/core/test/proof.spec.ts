import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import {
  expectationsOf,
  expectationWords,
  explanationOf,
  lettersKept,
  proveSpecimen,
  proveStored,
  provePaste,
  specimenJsonSchema,
  updatedExpectations,
  verdictsOf,
  withContent,
  contentFiles,
  type Expectation,
  type JsonObject,
} from '../src/index';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { demoHouse, demoProfile, DEMO_PROFILES, profileOf } from './support';
import { specimenPage } from './specimen-page';
import { demoSpecimens, isWord } from './specimens';

const house = demoHouse();

describe('expectations of what comes out', () => {
  test('are met by it, whatever the content and the profile, and so are those that were brought up to it', () => {
    const anyProfile = fc.constantFrom(...DEMO_PROFILES);
    fc.assert(
      fc.property(
        randomContent,
        anyProfile,
        anyProfile,
        fc.constantFrom('paste' as const, 'stored' as const),
        (html, one, other, arrives) => {
          const payload = { types: { 'text/html': html } };
          const before = proveSpecimen({ arrives, payload, expectations: [] }, demoProfile(one), { house });
          const expectations = expectationsOf(before);
          expect(expectations.length).toBeGreaterThan(0);
          expect(verdictsOf(expectations, before).filter(({ isMet }) => !isMet)).toEqual([]);
          const after = proveSpecimen({ arrives, payload, expectations }, demoProfile(other), { house });
          const updated = updatedExpectations(expectations, after);
          expect(verdictsOf(updated, after).filter(({ isMet }) => !isMet)).toEqual([]);
          // What was met needs no change.
          const met = after.verdicts.filter(({ isMet }) => isMet).map(({ expectation }) => expectation);
          expect(updated).toEqual(expect.arrayContaining(met));
        },
      ),
      { numRuns: runs(150) },
    );
  });

  test.each(demoSpecimens().map((specimen) => [specimen.id!, specimen] as const))(
    'of %s are those that it has, by the profile it is meant for',
    (_id, specimen) => {
      const proof = proveSpecimen(specimen, demoProfile(specimen.profile), { house, isWord });
      expect(proof.verdicts.filter(({ isMet }) => !isMet)).toEqual([]);
      expect(updatedExpectations(specimen.expectations, proof)).toEqual(specimen.expectations);
    },
  );

  test('each kind has a sentence', () => {
    for (const { expectations } of demoSpecimens()) for (const one of expectations) expect(expectationWords(one)).toMatch(/^\S.*[^.]$/s);
  });
});

describe('why an expectation is not met', () => {
  const profile = profileOf({ elements: { p: {}, h2: {}, form: { outcome: 'drop' }, b: { outcome: 'rename', to: 'strong' }, strong: {} } });
  const why = (html: string, expectation: Expectation) =>
    explanationOf(expectation, proveStored(html, profile)).map(
      ({ reason, subject }) => `${reason} ${subject.attribute ?? subject.element}`,
    );

  test.each<[string, Expectation, string[]]>([
    ['<form>lost <b>words</b></form>', { expect: 'text-has', text: 'lost words' }, ['element-dropped form']],
    ['<form>lost</form>', { expect: 'text-kept', percent: 100 }, ['element-dropped form']],
    ['<form>lost</form>', { expect: 'text-is', text: 'lost' }, ['element-dropped form']],
    ['<ul><li>a</li></ul>', { expect: 'count', of: 'li', is: 1 }, ['element-not-allowed li']],
    ['<p class="x">a</p>', { expect: 'count', of: '.x', is: 1 }, ['attribute-not-allowed class']],
    ['<p lang="en">a</p>', { expect: 'count', of: '@lang', is: 1 }, ['attribute-not-allowed lang']],
    ['<p><b>a</b></p>', { expect: 'count', of: 'strong', is: 0 }, ['element-renamed b']],
    ['<h3>a</h3>', { expect: 'outline', is: ['3 a'] }, ['element-not-allowed h3']],
    ['<p id="x">a</p>', { expect: 'links-lead-somewhere' }, ['attribute-not-allowed id']],
    ['<p><b>a</b></p>', { expect: 'markup-has', html: '<b>a' }, ['element-renamed b']],
    ['<p>a</p>', { expect: 'no-inline-style' }, []],
  ])('%s: %j', (html, expectation, reasons) => expect(why(html, expectation).slice(0, Math.max(1, reasons.length))).toEqual(reasons));

  test('a paste whose pictures have to be uploaded', () => {
    const proof = provePaste({ types: { 'text/html': '<p><img src="file:///a.png" alt="b"></p>' } }, demoProfile('story-desk'));
    expect(explanationOf({ expect: 'pictures-to-upload', is: 0 }, proof).map(({ reason }) => reason)).toEqual(['paste-picture-box']);
  });
});

test('letters that are kept are told in percent of those that were there', () => {
  const kept = (html: string): number =>
    lettersKept(proveStored(html, profileOf({ elements: { p: {}, form: { outcome: 'drop' } } })).measures);
  expect([kept('<p>abc</p><form>d</form>'), kept(''), kept('<form>gone</form>')]).toEqual([75, 100, 0]);
});

describe('a specimen whose content stands in files', () => {
  const document = (file: unknown): JsonObject => ({ payload: { types: { 'text/html': file as JsonObject, 'text/plain': 'here' } } });
  test('has it in its place', () => {
    const read = (name: string): string => `content of ${name}`;
    expect(contentFiles(document({ file: 'a/letter.html' }))).toEqual(['a/letter.html']);
    expect(withContent(document({ file: 'a/letter.html' }), read)).toEqual(document('content of a/letter.html'));
    expect(withContent({ name: 'no payload' }, read)).toEqual({ name: 'no payload' });
  });
  test.each(['../a', '/a', 'a/../b', 'C:\\a', '\\\\host\\a', '.', 'a//b'])('has no way out of its folder by %j', (file) =>
    expect(() => withContent(document({ file }), () => '')).toThrow(/must stand beside the specimen/),
  );
  test.each([{}, { file: 1 }, { file: 'a', more: 1 }])('says what content is where it is %j', (content) =>
    expect(() => withContent(document(content), () => '')).toThrow(/either text or/),
  );
});

test('docs/specimen-format.md and docs/specimen.schema.json are those of the schema (npm run docs writes them)', () => {
  const docs = join(__dirname, '..', '..', '..', 'docs');
  expect(readFileSync(join(docs, 'specimen-format.md'), 'utf8')).toBe(specimenPage());
  expect(JSON.parse(readFileSync(join(docs, 'specimen.schema.json'), 'utf8'))).toEqual(JSON.parse(JSON.stringify(specimenJsonSchema())));
});
