import { clean, compileRules, type CompiledRules } from '@typikon/core';
import fc from 'fast-check';
import type { Schema } from 'prosemirror-model';
import { mostPermissive } from '../../core/test/most-permissive';
import { CATALOGUE_NAMES, randomContent } from '../../core/test/random-content';
import { randomRules } from '../../core/test/random-rules';
import { tangledMarkup } from '../../core/test/tangled-markup';
import { compileSchema } from '../src/schema/compile';
import { readDocument } from '../src/schema/read';
import { writeDocument } from '../src/schema/write';
import { DEMO_PROFILES, demoProfile, rulesOf, storedMarkup } from './demo';
import { lettersIn, opensWhole, undoGivesBack } from './open-law';
import { runs } from '../../core/test/fixed-seed';

const holdsLaws = (html: string, schema: Schema): void => expect([html, opensWhole(html, schema)]).toEqual([html, null]);

const everything = rulesOf({ elements: Object.fromEntries(CATALOGUE_NAMES.map((name) => [name, {}])), comments: 'keep' });
const SCHEMAS: [string, CompiledRules, Schema][] = [
  ...DEMO_PROFILES.map((id): [string, CompiledRules] => [id, demoProfile(id).rules]),
  ['every element', everything] as [string, CompiledRules],
  ['most permissive', mostPermissive()] as [string, CompiledRules],
].map(([name, rules]) => [name, rules, compileSchema(rules)]);

describe.each(SCHEMAS)('the editor under the rules of %s shows all that it will store', (_id, rules, schema) => {
  test.each([
    '<li>One</li>',
    '<li>One</li><li>Two</li>',
    '<dt>One</dt><dd>Two</dd>',
    '<figcaption>One</figcaption>',
    '<summary>One</summary>',
    '<legend>One</legend>',
    '<menu>One<li>Two</li></menu>',
    '<ins>One<p>Two</p></ins>',
    '<ul>One<li>Two</li>Three</ul>',
    '<p>One</p><li>Two</li>',
    '<option>One</option>',
    '',
    ' ',
    '<hr>',
    '<!-- note -->',
    '<div></div>',
    'One<br>Two',
  ])('%s', (html) => {
    holdsLaws(html, schema);
    holdsLaws(clean(html, rules).html, schema);
  });

  test('any content, clean or not', () => {
    fc.assert(
      fc.property(fc.oneof(randomContent, tangledMarkup), (html) => {
        fc.pre(!html.includes('\r') && !html.includes('\0'));
        holdsLaws(html, schema);
        holdsLaws(clean(html, rules).html, schema);
      }),
      { numRuns: runs(60) },
    );
  });
});

test('under any rules', () => {
  fc.assert(
    fc.property(randomRules, randomContent, ({ resolved }, html) => {
      const rules = compileRules(resolved);
      holdsLaws(clean(html, rules).html, compileSchema(rules));
    }),
    { numRuns: runs(150) },
  );
});

test('of any depth', () => {
  const html = `${'<div>'.repeat(20_000)}x${'</div>'.repeat(20_000)}`;
  const { doc, source } = readDocument(html, SCHEMAS[0]![2]);
  expect(lettersIn(doc)).toBe('x');
  expect(writeDocument(doc, source)).toBe(html);
});

describe.each(SCHEMAS)('undo to the start gives the same bytes: %s', (id, _rules, schema) => {
  const holds = (html: string, dice: readonly number[]): void => expect([html, undoGivesBack(html, schema, dice)]).toEqual([html, null]);
  const dice = fc.array(
    fc.nat(999).map((face) => face / 1000),
    { minLength: 3, maxLength: 18 },
  );

  test('for all that is stored', () => {
    if (DEMO_PROFILES.includes(id))
      for (const { html } of storedMarkup(id))
        fc.assert(
          fc.property(dice, (thrown) => holds(html, thrown)),
          { numRuns: 3 },
        );
  });

  test('for words in the same element twice', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('<p>\na <b hidden>b <b>c d</b></b>', '<ul>\n<li><span lang=en><span\nclass=x>a</span></span></ul>'),
        dice,
        holds,
      ),
    );
  });

  test('for any content', () => {
    fc.assert(fc.property(fc.oneof(randomContent, tangledMarkup), dice, holds), { numRuns: runs(60) });
  });
});
