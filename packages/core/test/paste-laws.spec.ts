import fc from 'fast-check';
import { runPaste, type PasteSource, type ResolvedProfile } from '../src/index';
import { pasteStands } from './content-laws';
import { randomContent } from './random-content';
import { tangledMarkup } from './tangled-markup';
import { DEMO_MARKUP, demoProfile, demoRules } from './support';
import { runs } from './fixed-seed';

const IDS = ['notices-desk', 'ferry-note', 'reply', 'story-desk'];
const PROFILES = IDS.map((id): [string, ResolvedProfile, ReturnType<typeof demoRules>] => [id, demoProfile(id), demoRules(id)]);
const SOURCES: PasteSource[] = ['web-page', 'word-processor', 'web-mail'];
const DEMO = DEMO_MARKUP.filter(({ name }) => name.endsWith('.html'));

describe.each(PROFILES)('a paste under %s', (_id, profile, rules) => {
  const stands = (html: string, source: PasteSource): void =>
    expect([html, pasteStands(html, profile, rules, source)]).toEqual([html, null]);
  test('stands in blocks, has its places, and pasted again it stays as it is: the demo', () => {
    for (const { html } of DEMO) for (const source of SOURCES) stands(html, source);
  });
  test('stands in blocks, has its places, and pasted again it stays as it is: any content', () => {
    fc.assert(
      fc.property(fc.oneof(randomContent, tangledMarkup), fc.constantFrom(...SOURCES), (html, source) => stands(html, source)),
      { numRuns: runs(100) },
    );
  });
});

describe('text stands in paragraphs', () => {
  const desk = demoProfile('notices-desk');
  test.each<[string, string, string]>([
    ['lines with breaks', 'One<br>Two', '<p>One<br>Two</p>'],
    ['an empty line between', 'One<br><br>Two', '<p>One</p><p>Two</p>'],
    ['beside blocks', 'One<h2>Two</h2>Three', '<p>One</p><h2>Two</h2><p>Three</p>'],
    ['what was in a block that goes', '<center>One</center>', '<p>One</p>'],
    ['what was in several', '<address>One</address><center>Two</center>', '<p>One</p><p>Two</p>'],
  ])('%s', (_what, input, output) =>
    expect(runPaste({ types: { 'text/html': input } }, desk, { source: 'web-page' }).html.replace(/\n/g, '')).toBe(output),
  );
});

describe('every entry has its place', () => {
  const desk = demoProfile('notices-desk');
  const places = (html: string, reason: string): string[] =>
    runPaste({ types: { 'text/html': html } }, desk, { source: 'web-page' })
      .ledger.filter((entry) => entry.reason === reason)
      .map(({ before }) => before);
  test.each<[string, string, string, string[]]>([
    ['a hard space', 'paste-space', '<p>a&nbsp;b&#160;c\u00a0d</p>', ['&nbsp;', '&#160;', '\u00a0']],
    ['characters that nobody sees', 'paste-invisible', '<p>one\u200btwo and &shy;three</p>', ['\u200b', '&shy;']],
    ['white space', 'paste-blank', '<p>one   two</p>', ['   ']],
    ['behind a reference and a tag that went', 'paste-space', '<p>&amp;x<b>y</b></x>z&nbsp;w</p>', ['&nbsp;']],
  ])('%s', (_what, reason, html, before) => expect(places(html, reason)).toEqual(before));
});
