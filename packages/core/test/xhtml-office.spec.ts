import { detectSource, runPaste } from '../src/index';
import { demoProfile } from './support';

const desk = demoProfile('notices-desk');

/** What an office suite that writes XHTML puts out: paragraph styles as classes, labels in boxes, annotations as words. */
const XHTML = `<?xml version="1.0" encoding="UTF-8"?>
<!--This file was converted to xhtml by an office suite-->
<html xmlns="http://www.w3.org/1999/xhtml"><head><style>
@page { } .P1 { font-size:12pt } .annotation_style_by_filter { background-color:#fff000 }
</style></head><body>
<p class="Header">Saltmarrow Harbours, page 3</p>
<p class="Title">Slip works</p>
<p class="Heading_20_2">What is done</p>
<p class="Text_20_body">The slip is closed<span class="annotation_style_by_filter">[A. Reed: "since when?"]</span> until May.</p>
<ul><li><p class="P1"><span class="Bullet_20_Symbols" style="display:block;float:left;min-width:0.6cm;">•</span>Rails<span class="odfLiEnd"></span></p></li>
<li><p class="P1"><span class="Bullet_20_Symbols" style="display:block;float:left;min-width:0.6cm;">•</span>Planks<span class="odfLiEnd"></span></p></li></ul>
<ul><li><p class="P2"><span class="Numbering_20_Symbols" style="display:block;float:left;min-width:0.6cm;">1.</span>First</p></li>
<li><p class="P2"><span class="Numbering_20_Symbols" style="display:block;float:left;min-width:0.6cm;">2.</span>Second</p></li></ul>
<p class="Footer">3</p>
</body></html>`;

describe('a paste from an office suite that writes XHTML', () => {
  const pasted = runPaste({ types: { 'text/html': XHTML } }, desk);
  test('is told by its marks', () => {
    const { source, evidence } = detectSource({ types: { 'text/html': XHTML } });
    expect(source).toBe('word-processor');
    expect(evidence.map(({ mark }) => mark)).toContain('a note of an office suite that it was converted to XHTML');
    expect(detectSource({ types: { 'text/html': '<p class="text:p">x</p>' } }).source).toBe('word-processor');
  });
  test('has headings, lists and words, and nothing of the paper', () => {
    expect(pasted.html.replace(/\s*\n\s*/g, '')).toBe(
      '<h2>Slip works</h2><h2>What is done</h2><p>The slip is closed until May.</p><ul><li>Rails</li><li>Planks</li></ul><ol><li>First</li><li>Second</li></ol>',
    );
  });
  test('says what it left out, and why', () => {
    const removed = pasted.ledger.filter(({ action, reason }) => action === 'removed' && reason === 'paste-office');
    expect(removed.map(({ before, detail }) => [before.replace(/<[^>]*>/g, ''), detail])).toEqual(
      expect.arrayContaining([
        ['Saltmarrow Harbours, page 3', 'a header or footer of the page'],
        ['3', 'a header or footer of the page'],
        ['[A. Reed: "since when?"]', undefined],
      ]),
    );
    expect(pasted.ledger.filter(({ detail }) => detail?.startsWith('the label'))).toHaveLength(1);
  });
});

describe('page furniture', () => {
  test.each([
    ['<div style="mso-element:header"><p>Page 1</p></div><p>Words</p>', 'word-processor', '<p>Words</p>'],
    ['<p class=MsoFooter>Page 1</p><p>Words</p>', 'web-mail', '<p>Words</p>'],
    ['<p class="Header">Page 1</p><p>Words</p>', 'web-page', '<p>Page 1</p><p>Words</p>'],
  ] as const)('%s from %s', (html, source, result) => {
    expect(runPaste({ types: { 'text/html': html } }, desk, { source }).html.replace(/\n/g, '')).toBe(result);
  });
});

describe('a table of figures that holds another table', () => {
  const rows = (cells: string[][]): string => cells.map((row) => `<tr>${row.map((cell) => `<td>${cell}</td>`).join('')}</tr>`).join('');
  const inner = `<table><tr><td>a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr></table>`;
  const tablesIn = (html: string): number =>
    runPaste({ types: { 'text/html': html } }, desk, { source: 'web-page' }).html.split('<table').length - 1;
  test('stays a table', () => {
    expect(
      tablesIn(
        `<table>${rows([
          ['Berth', 'Depth', 'Fee'],
          ['1', '2.4 m', inner],
          ['2', '3.1 m', '£12'],
        ])}</table>`,
      ),
    ).toBe(2);
  });
  test('while one that places things is flattened', () => {
    const long = 'The harbour office closes the north slip for the season. '.repeat(3);
    expect(tablesIn(`<table>${rows([[`<p>${long}</p><p>${long}</p>`, inner]])}</table>`)).toBe(1);
  });
});
