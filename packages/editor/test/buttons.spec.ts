import type { JsonObject } from '@typikon/core';
import { PROFILE, tokens } from './everything';
import { completePage, openPage, settled, type EditorPage } from './page';

completePage();

const open = (marked: string, profile = PROFILE): Promise<EditorPage> => openPage(marked, { profile });
const withElements = (elements: JsonObject): JsonObject => {
  const markup = PROFILE['markup'] as JsonObject;
  return { ...PROFILE, markup: { ...markup, elements: { ...(markup['elements'] as JsonObject), ...elements } } };
};
const table = (...rows: string[]): string => `<table><tbody>${rows.map((row) => `<tr>${row}</tr>`).join('')}</tbody></table>`;
const td = (...words: string[]): string => words.map((word) => `<td>${word}</td>`).join('');

/** What a button does, and where the cursor is then. */
test.each([
  ['move-up', '<p>a</p><p>b|c</p>', '<p>b|c</p>\n<p>a</p>'],
  ['move-down', '<p>[ab]c</p><p>d</p><p>e</p>', '<p>d</p>\n<p>[ab]c</p>\n<p>e</p>'],
  ['move-down', '<ul><li>a|</li><li>b</li><li>c</li></ul>', '<ul><li>b</li><li>a|</li><li>c</li></ul>'],
  ['move-down', '<p>[a</p><p>b]</p><p>c</p>', '<p>c</p>\n<p>[a</p>\n<p>b]</p>'],
  ['move-up', '<ul><li>a</li><li>[b</li><li>c]</li></ul>', '<ul><li>[b</li><li>c]</li><li>a</li></ul>'],
  ['move-up', '<dl><dt>a</dt><dd>|b</dd></dl>', '<dl><dd>|b</dd><dt>a</dt></dl>'],
  ['move-up', `<p>x</p>${table(td('a'), td('b|'))}`, `<p>x</p>\n${table(td('b|'), td('a'))}`],
  ['move-down', '<blockquote><p>a|</p></blockquote><p>b</p>', '<p>b</p>\n<blockquote><p>a|</p></blockquote>'],
  ['bulleted-list', '<p>a|b</p>', '<ul><li>a|b</li></ul>'],
  ['bulleted-list', '<ol><li>a</li><li>b|</li></ol>', '<ul><li>a</li><li>b|</li></ul>'],
  ['bulleted-list', '<ul><li>a</li><li>b|</li><li>c</li></ul>', '<ul><li>a</li></ul>\n<p>b|</p>\n<ul><li>c</li></ul>'],
  ['numbered-list', '<ul><li>a<ul><li>b|</li></ul></li></ul>', '<ul><li>a<ol><li>b|</li></ol></li></ul>'],
  ['definition-list', '<p>a[b</p><p>c]</p>', '<dl><dt>|ab</dt><dd></dd><dt>c</dt><dd></dd></dl>'],
  ['details', '<p>[a</p><p>b]</p><p>c</p>', '<details><summary>|</summary><p>a</p><p>b</p></details>\n<p>c</p>'],
  ['details', '<details><summary>s</summary><p>a|</p></details>', '<p>|s</p>\n<p>a</p>'],
  ['rule', '<p>a|b</p>', '<p>ab</p>\n<hr>\n<p>|</p>'],
  ['rule', '<p>|</p><p>b</p>', '<hr>\n<p>|b</p>'],
  ['summary-break', '<p>a|</p><p>b</p>', '<p>a</p>\n<hr class="summary-end">\n<p>|b</p>'],
  ['summary-break', '<p>a|</p><p>b</p><hr class="summary-end"><p>c</p>', '<p>a</p>\n<hr class="summary-end">\n<p>|b</p>\n<p>c</p>'],
  ['hard-space', '<p>5[ ]km</p>', '<p>5&nbsp;|km</p>'],
  ['align-right', '<p>a[b</p><h2>c</h2><p>d]</p>', '<p class="align-right">a[b</p>\n<h2>c</h2>\n<p class="align-right">d]</p>'],
  ['align-right', '<p class="align-right">a[b</p><p>c]</p>', '<p class="align-right">a[b</p>\n<p class="align-right">c]</p>'],
  ['align-left', '<ul><li>a|</li></ul>', '<ul><li><p class="align-left">a|</p></li></ul>'],
  ['text-direction', '<p dir="rtl">[a</p><p>b]</p>', '<p dir="rtl">[a</p>\n<p dir="rtl">b]</p>'],
  ['clear-formatting', '<p class="note">a|</p>', '<p>a|</p>'],
  [
    'clear-formatting',
    '<p class="note" dir="rtl">[<strong>a</strong> <a href="/t"><em>b</em></a> <abbr title="x">c</abbr>] <em>d</em></p>',
    '<p dir="rtl">[a <a href="/t">b</a> <abbr title="x">c]</abbr> <em>d</em></p>',
  ],
  ['clear-formatting', '<h2>[<strong>a</strong>]</h2>', '<h2>[a]</h2>'],
  ['unlink', '<p>a<a href="/x">b|c</a>d<a href="/x">e</a></p>', '<p>ab|cd<a href="/x">e</a></p>'],
  ['unlink', '<p><a href="/x">a[b]c</a></p>', '<p><a href="/x">a</a>[b]<a href="/x">c</a></p>'],
  ['indent', '<p>[a</p><p class="indent-1">b]</p>', '<p class="indent-1">[a</p>\n<p class="indent-2">b]</p>'],
  ['outdent', '<p class="indent-1">[a</p><p class="indent-3">b]</p>', '<p>[a</p>\n<p class="indent-2">b]</p>'],
  ['block-quote', '<blockquote><p>a|</p><p>b</p></blockquote>', '<p>a|</p>\n<blockquote><p>b</p></blockquote>'],
])('%s in %s', async (button, before, after) => {
  const page = await open(before);
  page.press(button);
  if (page.isDialogOpen()) await page.send();
  page.view.state.doc.check();
  expect(page.marked).toBe(after);
  page.key('Mod-z');
  expect(page.editor.html).toBe((await open(before)).editor.html);
});

/** What an entry of the menu of a table does, and where the cursor is then. */
test.each([
  ['Row above', table(td('a', 'b'), td('c', 'd|')), table(td('a', 'b'), td('', '|'), td('c', 'd'))],
  ['Row below', table(td('a', 'b|'), td('c', 'd')), table(td('a', 'b'), td('', '|'), td('c', 'd'))],
  ['Column before', table(td('a', 'b|')), table(td('a', '|', 'b'))],
  ['Column after', table(td('a|', 'b')), table(td('a', '|', 'b'))],
  ['Delete the row', table(td('a'), td('b|'), td('c')), table(td('a'), td('|c'))],
  ['Delete the row', table(td('a'), td('b|')), table(td('|a'))],
  ['Delete the column', table(td('a', 'b|', 'c')), table(td('a', '|c'))],
  ['Join the selected cells', table(td('a[b', 'c]'), td('d', 'e')), table('<td colspan="2"><p>|ab</p><p>c</p></td>', td('d', 'e'))],
  ['Join the selected cells', table(td('a[b', 'x'), td('c]', 'y')), table(`<td rowspan="2"><p>|ab</p><p>c</p></td>${td('x')}`, td('y'))],
  ['Split the cell', table('<td colspan="2" rowspan="2">a|</td>', ''), table(td('|a', ''), td('', ''))],
  ['Header row, or not', table(td('a|', 'b')), table('<th scope="col">|a</th><th scope="col">b</th>')],
  ['Header row, or not', table('<th scope="col">a|</th><td>b</td>'), table('<th scope="col">|a</th><th scope="col">b</th>')],
  [
    'Header column, or not',
    table(td('a', 'b'), td('c|', 'd')),
    table(`<th scope="row">a</th>${td('b')}`, `<th scope="row">|c</th>${td('d')}`),
  ],
  ['Caption, or none', table(td('a|')), `<table><caption>|</caption><tbody><tr><td>a</td></tr></tbody></table>`],
  [
    'Row below',
    '<table><thead><tr><th>a|</th></tr></thead><tbody><tr><td>b</td></tr></tbody></table>',
    '<table><thead><tr><th>a</th></tr><tr><th>|</th></tr></thead><tbody><tr><td>b</td></tr></tbody></table>',
  ],
  [
    'Row above',
    table('<td rowspan="2">a</td><td>b</td>', '<td>c|</td>'),
    table('<td rowspan="3">a</td><td>b</td>', '<td>|</td>', '<td>c</td>'),
  ],
])('%s in %s', async (entry, before, after) => {
  const page = await open(before);
  page.press('table');
  page.choose(entry);
  page.view.state.doc.check();
  expect(page.marked).toBe(after);
});

test.each([
  ['<table><colgroup><col></colgroup><tbody><tr><td>a|</td></tr></tbody></table>', 'Column after', '<colgroup><col><col></colgroup>'],
  [
    '<table><colgroup><col class="left"><col></colgroup><tbody><tr><td>a</td><td>b|</td></tr></tbody></table>',
    'Delete the column',
    '<colgroup><col class="left"></colgroup>',
  ],
  [
    '<table><colgroup><col span="2"></colgroup><tbody><tr><td>a</td><td>b|</td></tr></tbody></table>',
    'Delete the column',
    '<colgroup><col span="2"></colgroup>',
  ],
  [
    '<table><colgroup><col></colgroup><tbody><tr><td>a</td><td>b|</td></tr></tbody></table>',
    'Column after',
    '<colgroup><col><col></colgroup>',
  ],
])('the columns of %s after “%s”', async (before, entry, columns) => {
  const page = await open(
    before,
    withElements({ colgroup: {}, col: { attributes: { class: tokens('left'), span: { test: 'integer' } } } }),
  );
  page.press('table');
  page.choose(entry);
  expect(page.editor.html).toContain(columns);
});

/** Which buttons are shown as pressed at a place, and which of some cannot be pressed there. */
test.each([
  ['<p>a|</p>', ['paragraph'], ['unlink', 'list-numbers', 'outdent', 'move-up', 'move-down', 'undo', 'redo']],
  ['<p><strong>a|</strong> <em>b</em></p>', ['paragraph', 'bold'], []],
  ['<p>[a <strong>b</strong>]</p>', ['paragraph', 'bold'], []],
  ['<p><a href="/x">a|b</a></p>', ['paragraph', 'link'], []],
  ['<h3>a|</h3>', ['heading-3'], ['align-left', 'text-direction']],
  ['<pre>a|</pre>', ['preformatted'], ['link', 'align-left']],
  ['<blockquote><p>a|</p></blockquote>', ['paragraph', 'block-quote'], []],
  ['<ul><li>a|</li></ul>', ['bulleted-list'], ['indent', 'list-numbers']],
  ['<ol><li>a</li><li>b|</li></ol>', ['numbered-list'], ['move-down']],
  ['<dl><dt>a|</dt><dd>b</dd></dl>', ['definition-list'], ['move-up']],
  ['<details><summary>s</summary><p>a|</p></details>', ['paragraph', 'details'], []],
  ['<p class="align-right" dir="rtl">a|</p>', ['paragraph', 'align-right', 'text-direction'], []],
  ['<p class="align-right">[a</p><p>b]</p>', ['paragraph'], []],
  ['<p><abbr title="x">a|b</abbr></p>', ['paragraph', 'abbreviation'], []],
  ['<p><span lang="cy">a|b</span></p>', ['paragraph', 'language'], []],
  ['<p><span style="color: #a6301f">a|b</span></p>', ['paragraph', 'text-colour'], []],
  ['<p><span style="background-color: #ffffff">a|b</span></p>', ['paragraph', 'background-colour'], []],
  ['<p><code>a|b</code></p>', ['paragraph', 'code'], []],
  [table(td('a|')), ['table'], []],
  ['<p>[<img src="https://a.example/a.png" alt="A">]</p>', ['paragraph', 'picture'], []],
  ['<p>[<iframe src="https://cams.example/a" title="A"></iframe>]</p>', ['paragraph', 'embed'], []],
])('the buttons at %s', async (before, pressed, impossible) => {
  const page = await open(before);
  await settled(30);
  const which = (selector: string): string[] =>
    [...page.host.querySelectorAll<HTMLElement>(`[data-button]${selector}`)].map(({ dataset }) => dataset['button']!);
  expect(which('[aria-pressed=true]').sort()).toEqual([...pressed].sort());
  expect(which('[aria-disabled=true]')).toEqual(expect.arrayContaining(impossible));
  expect(which('[aria-disabled=true]').filter((id) => pressed.includes(id))).toEqual([]);
});

test('the kind of block stands on its button', async () => {
  for (const [before, kind] of [
    ['<p>a|</p>', 'Paragraph'],
    ['<h4>a|</h4>', 'Heading 4'],
    ['<pre>a|</pre>', 'Preformatted'],
  ] as const) {
    const page = await open(before);
    await settled(30);
    expect(page.host.querySelector('[data-button=block-kind]')!.textContent).toBe(kind);
  }
});

describe('markup that is kept as it is', () => {
  const profile = withElements({ video: { attributes: { src: { test: 'url' } } }, ruby: {}, rt: {} });
  const shown = async (html: string): Promise<HTMLElement[]> => [
    ...(await open(html, profile)).view.dom.querySelectorAll<HTMLElement>('.te-opaque, .te-opaque-block, .te-anchor'),
  ];

  test('is shown as it looks', async () => {
    const [one] = await shown('<p>a <ruby>b<rt>c</rt></ruby></p>');
    expect([one!.className, one!.innerHTML, one!.dataset['shown'], one!.contentEditable]).toEqual([
      'te-opaque',
      '<ruby>b<rt>c</rt></ruby>',
      '<ruby>b<rt>c</rt></ruby>',
      'false',
    ]);
    expect(one!.title).toContain('kept as it is');
  });

  test('that nobody would see is named', async () => {
    const html = `<p>a <ruby><rt></rt></ruby><ruby><rt></rt>${' '.repeat(80)}</ruby></p>`;
    const [one, other] = await shown(html);
    expect([one!.childNodes.length, one!.dataset['shown']]).toEqual([0, '<ruby><rt></rt></ruby>']);
    expect(other!.dataset['shown']).toHaveLength(58);
  });

  test('that shows without words stays shown', async () => {
    const [one] = await shown('<p><video src="https://a.example/v.mp4"></video></p>');
    expect(one!.querySelector('video')).not.toBeNull();
  });

  test('a place with a name shows its name', async () => {
    const [one] = await shown('<p>a<a id="low"></a></p>');
    expect([one!.className, one!.textContent, one!.title]).toEqual(['te-anchor', '⚓ low', 'A place named “low”']);
  });
});
