import fc from 'fast-check';
import { runPaste, type LedgerEntry, type PasteSource, type ResolvedProfile } from '../src/index';
import { randomContent } from './random-content';
import { tangledMarkup } from './tangled-markup';
import { DEMO_MARKUP, demoProfile, demoRules } from './support';

const IDS = ['notices-desk', 'ferry-note', 'reply', 'story-desk'];
const PROFILES = IDS.map((id): [string, ResolvedProfile, ReturnType<typeof demoRules>] => [id, demoProfile(id), demoRules(id)]);
const SOURCES: PasteSource[] = ['web-page', 'word-processor', 'web-mail'];
const DEMO = DEMO_MARKUP.filter(({ name }) => name.endsWith('.html'));

describe.each(PROFILES)('a paste under %s', (_id, profile, rules) => {
  const paste = (html: string, source: PasteSource) => runPaste({ types: { 'text/html': html } }, profile, { rules, source });

  const standsInBlocks = (html: string, source: PasteSource): void => {
    const { root, html: out } = paste(html, source);
    const bare = root.children.filter((child) => child.type === 'text' && child.value.trim() !== '');
    expect([html, out, bare.length]).toEqual([html, out, 0]);
  };
  const isStable = (html: string, source: PasteSource): void => {
    const once = paste(html, source).html;
    expect([html, paste(once, source).html]).toEqual([html, once]);
  };

  test('stands in blocks, and pasted again it stays as it is: the demo', () => {
    for (const { html } of DEMO)
      for (const source of SOURCES) {
        standsInBlocks(html, source);
        isStable(html, source);
      }
  });
  test('stands in blocks, and pasted again it stays as it is: any content', () => {
    fc.assert(
      fc.property(fc.oneof(randomContent, tangledMarkup), fc.constantFrom(...SOURCES), (html, source) => {
        standsInBlocks(html, source);
        isStable(html, source);
      }),
      { numRuns: 200 },
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
  const emptyPlaces = (input: string, ledger: readonly LedgerEntry[]): string[] =>
    ledger
      .filter(({ start, end }) => end <= start && input.trim() !== '')
      .map(({ reason, action, path, after }) => `${reason} ${action} ${path} ${after}`);
  test('in the demo', () => {
    for (const [, profile, rules] of PROFILES)
      for (const { name, html } of DEMO)
        for (const source of SOURCES) {
          const { ledger, input } = runPaste({ types: { 'text/html': html } }, profile, { rules, source });
          expect([name, emptyPlaces(input, ledger)]).toEqual([name, []]);
        }
  });
  test('in any content', () => {
    fc.assert(
      fc.property(fc.oneof(randomContent, tangledMarkup), fc.constantFrom(...PROFILES), (html, [, profile, rules]) => {
        const { ledger, input } = runPaste({ types: { 'text/html': html } }, profile, { rules, source: 'word-processor' });
        expect([html, emptyPlaces(input, ledger)]).toEqual([html, []]);
      }),
      { numRuns: 600 },
    );
  });

  const desk = demoProfile('notices-desk');
  const places = (html: string, reason: string): string[] =>
    runPaste({ types: { 'text/html': html } }, desk, { source: 'web-page' }).ledger.filter((entry) => entry.reason === reason).map(({ before }) => before);
  test.each<[string, string, string, string[]]>([
    ['a hard space', 'paste-space', '<p>a&nbsp;b&#160;c\u00a0d</p>', ['&nbsp;', '&#160;', '\u00a0']],
    ['characters that nobody sees', 'paste-invisible', '<p>one\u200btwo and &shy;three</p>', ['\u200b', '&shy;']],
    ['white space', 'paste-blank', '<p>one   two</p>', ['   ']],
    ['behind a reference and a tag that went', 'paste-space', '<p>&amp;x<b>y</b></x>z&nbsp;w</p>', ['&nbsp;']],
  ])('%s', (_what, reason, html, before) => expect(places(html, reason)).toEqual(before));
});
