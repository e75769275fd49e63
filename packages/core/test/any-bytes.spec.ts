import fc from 'fast-check';
import { clean, cssMistakes, runPaste, type ClipboardPayload } from '../src/index';
import { DEEPEST_CSS, withoutDepths } from '../src/css/parse';
import { DESK } from '../src/css/media';
import { readSheets } from '../src/css/stylesheet';
import { mostPermissive } from './most-permissive';
import { randomContent } from './random-content';
import { demoProfile, demoRules, rulesOf } from './support';
import { runs, someOf } from './fixed-seed';

const desk = demoProfile('notices-desk');
const rules = demoRules('notices-desk');
const paste = (payload: ClipboardPayload['types']): string => runPaste({ types: payload }, desk, { rules }).html;

/** Characters that mean something to one reader or another. */
const loaded = fc
  .array(
    fc.oneof(
      fc.constantFrom(...'<>&"\'`*_[](){}#!-+|\\/:;=,.~^$%@?\n\r\t\0 \u00a0\u200b\ufeff\u2028\ud83d\ude00'.split('')),
      fc.constantFrom('a', 'Word', '1.', '\\par', '\\u8364?', "\\'e9", '{\\*', '<p>', '</p>', '<!--', 'style="', 'calc(', 'url(', '@media'),
      fc.string({ unit: 'binary', maxLength: 4 }),
    ),
    { maxLength: 60 },
  )
  .map((parts) => parts.join(''));

describe('any bytes have an answer', () => {
  test.each(['text/html', 'text/plain', 'text/rtf'])('as %s', (type) => {
    fc.assert(
      fc.property(loaded, (text) => {
        const out = paste({ [type]: text });
        expect(clean(out, rules).html).toBe(out);
        // No half of a character is left, which no file could hold.
        expect(out).not.toMatch(/[\ud800-\udfff]/u);
      }),
      { numRuns: runs(200) },
    );
  });
  test('as CSS', () => {
    fc.assert(
      fc.property(loaded, (text) => {
        expect(Array.isArray(cssMistakes(text))).toBe(true);
        readSheets([{ name: 'a', css: text }], DESK);
        clean(`<p style="${text.replaceAll('"', '&quot;')}">x</p>`, mostPermissive());
      }),
      { numRuns: runs(200) },
    );
  });
});

describe('however deep', () => {
  const DEEP = 3000;
  test.each(['> ', '>', '* ', '- - ', '[', '![](', '_a', '**a ', '`', '1. ', '<div>', '<b>', '|', '\\', '&'])('Markdown of %j', (piece) => {
    expect(typeof paste({ 'text/plain': `# a\n**b**\n${piece.repeat(DEEP)}x` })).toBe('string');
  });
  test('Markdown keeps what it does not take apart', () => {
    expect(paste({ 'text/plain': `# Head\n**b**\n\n${'> '.repeat(500)}words` })).toContain('words');
  });
  test.each(['{', '{\\b', '\\', '{\\*\\x'])('rich text of %j', (piece) => {
    expect(typeof paste({ 'text/rtf': `{\\rtf1 ${piece.repeat(DEEP)}x` })).toBe('string');
  });
  test.each(['calc(', '(', '[', '{', 'calc(1px + ', '-webkit-calc(', '"', "'", '/*', '\\'])('a style of %j', (piece) => {
    const errors = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const warnings = jest.spyOn(console, 'warn').mockImplementation(() => undefined);
    const all = rulesOf({ elements: { p: { attributes: { style: { test: 'style', properties: { width: { test: 'any' } } } } } } });
    expect(clean(`<p style='width: ${piece.replace(/'/g, '&#39;').repeat(DEEP)}1px'>x</p>`, all).html).toBe('<p>x</p>');
    expect(errors).not.toHaveBeenCalled();
    expect(warnings).not.toHaveBeenCalled();
    jest.restoreAllMocks();
  });
  test.each(['p{&', '@media all{', ':not(', '(', '[', '{', 'p{color:calc('])('a stylesheet of %j', (piece) => {
    const css = piece.repeat(DEEP);
    readSheets([{ name: 'a', css }], DESK);
    const [first] = cssMistakes(css);
    expect(first?.message).toMatch(/levels|Browsers pass over/);
  });
  test('what is nested as deep as anybody writes stays', () => {
    const css = `a{width:${'calc('.repeat(20)}1px${')'.repeat(20)}}`;
    expect(withoutDepths(css)).toEqual({ css, depths: [] });
    const deep = `a{b:${'('.repeat(DEEPEST_CSS + 5)}x${')'.repeat(DEEPEST_CSS + 5)}} b{c:d}`;
    const { css: flat, depths } = withoutDepths(deep);
    expect(flat).toHaveLength(deep.length);
    expect(depths).toHaveLength(1);
    expect(flat.endsWith('b{c:d}')).toBe(true);
    expect(withoutDepths('"((((" /* (((( */ \\(').depths).toEqual([]);
  });
});

test('a style with a value of any length', () => {
  const all = rulesOf({ elements: { p: { attributes: { style: { test: 'style', properties: { 'font-family': { test: 'any' } } } } } } });
  const errors = jest.spyOn(console, 'warn').mockImplementation(() => undefined);
  expect(clean(`<p style="font-family:${'a,'.repeat(5000)}b">x</p>`, all).html).toBe('<p>x</p>');
  expect(errors).not.toHaveBeenCalled();
  jest.restoreAllMocks();
});

test('pasting any content gives clean markup', () => {
  fc.assert(
    fc.property(randomContent, (html) => {
      const out = paste({ 'text/html': html });
      expect(clean(out, rules).ledger).toEqual([]);
    }),
    { numRuns: runs(200) },
  );
});

const BESIDE_EACH_OTHER = [
  ...['<td>x', '<tr>', '<li>x', '<p>x', '<li></li>', '<br>', '<col>', '<option>x', 'x<!--c-->', '<rt>x'].map(
    (piece) => [piece, ''] as const,
  ),
  ...['<td>x', '<tr>', '<col>'].map((piece) => [piece, 'table'] as const),
  ...['<p>x', '<b>x</b><div>y</div>', '<rt>x'].map((piece) => [piece, 'span'] as const),
];
// Each takes a second or two: like the laws, some of them, others with another seed.
test.each(someOf(BESIDE_EACH_OTHER))('more of %j beside each other in <%s> than a call has arguments', (piece, around) => {
  const all = piece.repeat(130_000);
  expect(typeof clean(around === '' ? all : `<${around}>${all}</${around}>`, rules).html).toBe('string');
});

const PASTED_BESIDE_EACH_OTHER = [
  ['<p>x</p>', '<div style="font-weight: bold">', '</div>'],
  ['<b>x</b> ', '<ul><li><p>', '</p></li></ul>'],
  ['<!--c-->', '<p>1. x</p>', '<p>2. x</p>'],
  ['color: red;', '<p style="', '">x</p>'],
  ['<td>x</td>', '<table><tr>', '</tr></table>'],
] as const;
test.each(someOf(PASTED_BESIDE_EACH_OTHER))('more of %j pasted between %s and %s than a call has arguments', (piece, before, after) =>
  expect(paste({ 'text/html': `${before}${piece.repeat(130_000)}${after}` })).toContain('x'),
);
