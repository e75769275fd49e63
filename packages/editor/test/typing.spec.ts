import type { JsonObject } from '@typikon/core';
import { PROFILE } from './everything';
import { completePage, openPage } from './page';

completePage();

const under = (surface: JsonObject, markup = PROFILE['markup'] as JsonObject): JsonObject => ({ ...PROFILE, surface, markup });
const elements = (...names: string[]): JsonObject => ({ elements: Object.fromEntries(names.map((name) => [name, {}])) });

/** What keys and letters make of a text. Letters are typed one by one; what stands in `<>` is a key. */
async function typed(before: string, keys: string, profile: JsonObject = PROFILE): Promise<string> {
  const page = await openPage(before, { profile });
  for (const part of keys.match(/<[^>]+>|[^<]/g) ?? []) {
    if (part.startsWith('<') && part.length > 1) page.key(part.slice(1, -1));
    else page.type(part);
  }
  page.view.state.doc.check();
  return page.marked;
}

test('spaces at the end of preformatted lines stay', async () => {
  expect(await typed('<pre>a|</pre>', '  ')).toBe('<pre>a  |</pre>');
  expect((await openPage('<pre> a  \n b </pre>', { profile: PROFILE })).marked.replace('|', '')).toBe('<pre> a  \n b </pre>');
});

describe('where nothing else is left to type in', () => {
  const whole = '<hr>\n<ul><li>[a</li><li>b]</li></ul>\n<hr>';
  const left = '<hr>\n<p>|</p>\n<hr>';
  test.each([
    ['Enter', whole, '<Enter>', left],
    ['Shift and Enter', whole, '<Shift-Enter>', left],
    ['Backspace', whole, '<Backspace>', left],
    ['Delete', '<hr><ul><li>[a</li><li>b]</li></ul>', '<Delete>', '<hr>\n<p>|</p>'],
    ['a letter typed next', whole, '<Backspace>c', '<hr>\n<p>c|</p>\n<hr>'],
    ['a thing that is selected goes alone', '<p>a</p><hr>', '<Mod-a><Backspace>', '<p>|</p>'],
  ])('%s', async (_what, before, keys, after) => expect(await typed(before, keys)).toBe(after));
});

describe('Enter', () => {
  test.each([
    ['begins a paragraph', '<p>a|b</p>', '<Enter>', '<p>a</p>\n<p>|b</p>'],
    ['in a quote as well', '<blockquote><p>a|</p></blockquote>', '<Enter>b', '<blockquote><p>a</p><p>b|</p></blockquote>'],
    [
      'in place of what is selected',
      '<blockquote><p>[a</p><p>b]</p></blockquote>',
      '<Enter>c',
      '<blockquote><p></p><p>c|</p></blockquote>',
    ],
    [
      'before what stands behind the cursor',
      '<blockquote><h2>|a</h2></blockquote>',
      '<Enter>',
      '<blockquote><p></p><h2>|a</h2></blockquote>',
    ],
    ['in an item of two paragraphs', '<ul><li><p>[a</p><p>b]</p></li></ul>', '<Enter>c', '<ul><li><p></p><p>c|</p></li></ul>'],
    ['of words without a paragraph makes two', '<blockquote>a|</blockquote>', '<Enter>b', '<blockquote><p>a</p><p>b|</p></blockquote>'],
    [
      'beside a thing',
      '<blockquote><p>a</p><hr><p>|</p></blockquote>',
      '<Backspace><Enter>b',
      '<blockquote><p>a</p><hr><p>b|</p></blockquote>',
    ],
    ['behind a heading begins a paragraph', '<h2>a|</h2>', '<Enter>', '<h2>a</h2>\n<p>|</p>'],
    ['in an item begins an item', '<ul><li>a|b</li></ul>', '<Enter>', '<ul><li>a</li><li>|b</li></ul>'],
    [
      'in an item of paragraphs begins one of its kind',
      '<ul><li><p class="note">a|</p></li></ul>',
      '<Enter>',
      '<ul><li><p class="note">a</p></li><li><p class="note">|</p></li></ul>',
    ],
    [
      'behind a heading in an item begins an item of words',
      '<ul><li><h2>a|</h2></li></ul>',
      '<Enter>b',
      '<ul><li><h2>a</h2></li><li>b|</li></ul>',
    ],
    ['in an empty item ends the list', '<ul><li>a</li><li>|</li></ul>', '<Enter>', '<ul><li>a</li></ul>\n<p>|</p>'],
    ['in a term goes to its explanation', '<dl><dt>a|b</dt></dl>', '<Enter>', '<dl><dt>a</dt><dd>|b</dd></dl>'],
    ['in an explanation goes to the next term', '<dl><dt>a</dt><dd>b|</dd></dl>', '<Enter>c', '<dl><dt>a</dt><dd>b</dd><dt>c|</dt></dl>'],
    [
      'in an empty last term ends the list',
      '<dl><dt>a</dt><dd>b</dd><dt>|</dt></dl>',
      '<Enter>',
      '<dl><dt>a</dt><dd>b</dd></dl>\n<p>|</p>',
    ],
    [
      'in a summary goes into the details',
      '<details><summary>a|</summary></details>',
      '<Enter>',
      '<details><summary>a</summary><p>|</p></details>',
    ],
    [
      'in a summary goes to what is there',
      '<details><summary>a|</summary><p>b</p></details>',
      '<Enter>',
      '<details><summary>a</summary><p>|b</p></details>',
    ],
    [
      'in a caption goes on behind the figure',
      '<figure><p>x</p><figcaption>a|</figcaption></figure>',
      '<Enter>',
      '<figure><p>x</p><figcaption>a</figcaption></figure>\n<p>|</p>',
    ],
    ['in preformatted text begins a line', '<pre>a|b</pre>', '<Enter>', '<pre>a\n|b</pre>'],
  ])('%s', async (_what, before, keys, after) => expect(await typed(before, keys)).toBe(after));

  test.each([
    ['break', 'paragraph', '<p>a|b</p>', '<Enter>', '<p>a<br>|b</p>'],
    ['break', 'paragraph', '<p>a|b</p>', '<Shift-Enter>', '<p>a</p>\n<p>|b</p>'],
    ['block', 'nothing', '<p>a|b</p>', '<Enter>', '<p>a</p>\n<div>|b</div>'],
    ['block', 'nothing', '<div class="note">a|b</div>', '<Enter>', '<div class="note">a</div>\n<div>|b</div>'],
    ['block', 'nothing', '<div><p>a|b</p><p>c</p></div>', '<Enter>x', '<div><p>a</p><div>x|b</div><p>c</p></div>'],
    ['block', 'nothing', '<h2>a[b</h2><p>c]d</p>', '<Enter>', '<h2>a</h2>\n<div>|d</div>'],
    ['block', 'nothing', '<ul><li>a|</li></ul>', '<Enter>', '<ul><li>a</li><li>|</li></ul>'],
    ['block', 'nothing', '<pre>a|</pre>', '<Enter>', '<pre>a\n|</pre>'],
    ['block', 'nothing', '<p>a|b</p>', '<Shift-Enter>', '<p>a|b</p>'],
    ['paragraph', 'break', '<p>a|b</p>', '<Shift-Enter>', '<p>a<br>|b</p>'],
    ['paragraph', 'break', '<pre>a|</pre>', '<Shift-Enter>', '<pre>a</pre>\n<p>|</p>'],
    ['break', 'paragraph', '<pre>a|</pre>', '<Shift-Enter>', '<pre>a</pre>\n<p>|</p>'],
  ])('begins a %s, with Shift a %s: %s', async (enter, shiftEnter, before, keys, after) =>
    expect(await typed(before, keys, under({ enter, shiftEnter }))).toBe(after),
  );

  test('begins a paragraph where the rules keep no line break', async () => {
    expect(await typed('<p>a|b</p>', '<Enter>', under({ enter: 'break' }, elements('p')))).toBe('<p>a</p>\n<p>|b</p>');
    expect(await typed('<p>a|b</p>', '<Enter>', under({ enter: 'block' }, elements('p')))).toBe('<p>a</p>\n<p>|b</p>');
  });
});

const TABLE = '<table><tbody><tr><td>a|</td><td>b</td></tr></tbody></table>';
describe('Tab', () => {
  test.each([
    ['leave', TABLE, '<Tab>', '<table><tbody><tr><td>a</td><td>|b</td></tr></tbody></table>'],
    [
      'leave',
      '<table><tbody><tr><td>a</td><td>b|</td></tr></tbody></table>',
      '<Shift-Tab>',
      '<table><tbody><tr><td>|a</td><td>b</td></tr></tbody></table>',
    ],
    ['leave', '<ul><li>a</li><li>b|</li></ul>', '<Tab>', '<ul><li>a</li><li>b|</li></ul>'],
    ['indent', '<ul><li>a</li><li>b|</li></ul>', '<Tab>', '<ul><li>a<ul><li>b|</li></ul></li></ul>'],
    ['indent', '<ul><li>a<ul><li>b|</li></ul></li></ul>', '<Shift-Tab>', '<ul><li>a</li><li>b|</li></ul>'],
    ['indent', '<p>a|</p>', '<Tab>', '<p class="indent-1">a|</p>'],
    ['indent', '<p class="indent-2">a|</p>', '<Tab>', '<p class="indent-3">a|</p>'],
    ['indent', '<p class="indent-1">a|</p>', '<Shift-Tab>', '<p>a|</p>'],
    ['indent', '<pre>a|</pre>', '<Tab>', '<pre>a  |</pre>'],
    ['spaces', '<p>a|</p>', '<Tab>b', '<p>a&nbsp;&nbsp; b|</p>'],
    ['spaces', '<ul><li>a</li><li>b|</li></ul>', '<Tab>', '<ul><li>a<ul><li>b|</li></ul></li></ul>'],
    ['spaces', '<p>a|</p>', '<Shift-Tab>', '<p>a|</p>'],
  ])('that is to %s, in %s', async (tab, before, keys, after) => expect(await typed(before, keys, under({ tab }))).toBe(after));

  test('that leaves the editor is left to the page', async () => {
    for (const [tab, isTaken] of [
      ['leave', false],
      ['indent', true],
    ] as const) {
      const page = await openPage('<p>a|</p>', { profile: under({ tab }) });
      expect(page.key('Tab')).toBe(isTaken);
    }
  });
});

describe('deleting', () => {
  test.each([
    ['takes a letter', '<p>a[b]c</p>', '<Backspace>', '<p>a|c</p>'],
    ['joins paragraphs', '<p>a</p><p>|b</p>', '<Backspace>', '<p>a|b</p>'],
    ['takes an item out of its list', '<ul><li>|a</li></ul>', '<Backspace>', '<p>|a</p>'],
    ['joins what follows', '<p>a|</p><p>b</p>', '<Delete>', '<p>a|b</p>'],
    [
      'empties cells and leaves the table',
      '<table><tbody><tr><td>a[b</td><td>c]d</td></tr></tbody></table>',
      '<Delete>',
      '<table><tbody><tr><td>|</td><td></td></tr></tbody></table>',
    ],
  ])('%s', async (_what, before, keys, after) => expect(await typed(before, keys)).toBe(after));
});

describe('keys of buttons', () => {
  test.each([
    ['<p>[ab]</p>', '<Mod-b>', '<p><strong>[ab]</strong></p>'],
    ['<p>[ab]</p>', '<Mod-b><Mod-i>', '<p><strong><em>[ab]</em></strong></p>'],
    ['<p>|</p>', '<Mod-b>ab<Mod-b>c', '<p><strong>ab</strong>c|</p>'],
    ['<p>[ab]</p>', '<Mod-b><Mod-z>', '<p>[ab]</p>'],
    ['<p>[ab]</p>', '<Mod-b><Mod-z><Mod-y>', '<p><strong>[ab]</strong></p>'],
    ['<ul><li>a</li><li>b|</li></ul>', '<Mod-]>', '<ul><li>a<ul><li>b|</li></ul></li></ul>'],
  ])('%s %s', async (before, keys, after) => expect(await typed(before, keys)).toBe(after));

  test('work only for buttons that the profile shows, but for undo and redo', async () => {
    const bare = { ...PROFILE, toolbar: { order: [], groups: {} } };
    expect(await typed('<p>[ab]</p>', '<Mod-b>', bare)).toBe('<p>[ab]</p>');
    expect(await typed('<p>a|</p>', 'b<Mod-z>', bare)).toBe('<p>a|</p>');
  });

  test('Alt and F10 lead to the buttons, Escape back to the text', async () => {
    const page = await openPage('<p>a|</p>', { profile: PROFILE });
    page.key('Alt-F10');
    const button = document.activeElement as HTMLElement;
    expect(button.closest('[role=toolbar]')).not.toBeNull();
    button.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true, cancelable: true }));
    expect(document.activeElement).toBe(page.host.querySelector('iframe'));
  });

  test('keys that are not the editor’s are the page’s', async () => {
    const page = await openPage('<p>a|</p>', { profile: PROFILE });
    const heard: string[] = [];
    page.host.addEventListener('keydown', (event) => {
      heard.push(`${event.ctrlKey ? 'Ctrl+' : ''}${event.key}`);
      event.preventDefault();
    });
    expect(page.key('Mod-s')).toBe(true);
    page.key('Mod-b');
    page.key('x');
    expect(heard).toEqual(['Ctrl+s']);
  });
});

describe('signs while typing', () => {
  test.each([
    ['<p>|</p>', '## Tides', '<h2>Tides|</h2>'],
    ['<p>|</p>', '###### Tides', '<h6>Tides|</h6>'],
    ['<p>|</p>', '# Tides', '<p># Tides|</p>'],
    ['<p>|</p>', '- one<Enter>two', '<ul><li>one</li><li>two|</li></ul>'],
    ['<p>|</p>', '* one', '<ul><li>one|</li></ul>'],
    ['<p class="note">|</p>', '- one', '<ul><li><p class="note">one|</p></li></ul>'],
    ['<p>|</p>', '1. one', '<ol><li>one|</li></ol>'],
    ['<p>|</p>', '7) one', '<ol start="7"><li>one|</li></ol>'],
    ['<p>see |</p>', '1. one', '<p>see 1. one|</p>'],
    ['<p>|</p>', '> said', '<blockquote><p>said|</p></blockquote>'],
    ['<p>|</p>', '---', '<hr>\n<p>|</p>'],
    ['<ul><li>|</li></ul>', '---', '<ul><li><hr>|</li></ul>'],
    ['<p>|</p>', '```code', '<pre>code|</pre>'],
    ['<p>|</p>', 'a **bold** b', '<p>a <strong>bold</strong> b|</p>'],
    ['<p>|</p>', '**bold**x', '<p><strong>bold</strong>x|</p>'],
    ['<p>|</p>', 'a *it is* b', '<p>a <em>it is</em> b|</p>'],
    ['<p>|</p>', '_it_x', '<p><em>it</em>x|</p>'],
    ['<p>|</p>', 'a_b_c', '<p>a_b_c|</p>'],
    ['<p>|</p>', '* a*', '<ul><li>a*|</li></ul>'],
    ['<p>|</p>', '2 * 3 * 4', '<p>2 * 3 * 4|</p>'],
    ['<p>|</p>', '~~gone~~x', '<p><s>gone</s>x|</p>'],
    ['<p>|</p>', '`a*b*`', '<p><code>a*b*</code>|</p>'],
    ['<pre>|</pre>', '**a**', '<pre>**a**|</pre>'],
    ['<p>|</p>', '3--4', '<p>3–4|</p>'],
    ['<p>|</p>', 'so...', '<p>so…|</p>'],
    ['<p>|</p>', 'he said "no"', '<p>he said “no”|</p>'],
  ])('in %s %s becomes %s', async (before, keys, after) => expect(await typed(before, keys)).toBe(after));

  test.each([
    ['## a', '<p>## a|</p>'],
    ['**a**', '<p>**a**|</p>'],
    ['---', '<p>–-|</p>'],
    ['- a', '<p>- a|</p>'],
    ['1. a', '<p>1. a|</p>'],
    ['> a', '<p>&gt; a|</p>'],
    ['```', '<p>```|</p>'],
    ['~~a~~ _a_ `a`', '<p>~~a~~ _a_ `a`|</p>'],
  ])('%s stays what it is where the rules keep nothing of the kind', async (keys, after) =>
    expect(await typed('<p>|</p>', keys, { ...PROFILE, markup: elements('p') })).toBe(after),
  );

  test('nothing is made of signs that the profile does not switch on', async () => {
    const { shortcuts: _none, ...toolbar } = PROFILE['toolbar'] as JsonObject;
    expect(await typed('<p>|</p>', '**a** -- "b"...', { ...PROFILE, toolbar })).toBe('<p>**a** -- "b"...|</p>');
  });

  test.each([
    ['**a**<Backspace>', '<p>**a**|</p>'],
    ['## <Backspace>', '<p>## |</p>'],
    ['- <Backspace>', '<p>- |</p>'],
    // A letter later, Backspace is the browser’s.
    ['**a**b<Backspace>', '<p><strong>a</strong>b|</p>'],
  ])('what signs made is taken back by Backspace: %s', async (keys, after) => expect(await typed('<p>|</p>', keys)).toBe(after));
});

describe('spaces', () => {
  test.each([
    ['stand one at a time', '<p>a|</p>', '  b', '<p>a b|</p>'],
    ['begin no block', '<p>|a</p>', ' ', '<p>|a</p>'],
    ['go past one that is there', '<p>a| b</p>', ' c', '<p>a c|b</p>'],
    ['take the place of what is selected', '<p>a[b]c</p>', ' ', '<p>a |c</p>'],
    ['take no place beside another', '<p>a [b]c</p>', ' ', '<p>a |c</p>'],
    ['count in preformatted text', '<pre>a|</pre>', '  b', '<pre>a  b|</pre>'],
  ])('%s', async (_what, before, keys, after) => expect(await typed(before, keys)).toBe(after));
});

describe('lines side by side', () => {
  test('become paragraphs where what held them apart goes', async () => {
    expect(await typed('<blockquote>a<hr>|b</blockquote>', '<Backspace><Backspace>', PROFILE)).toMatch(/a.*b/s);
  });

  test('are joined by a line break where the rules keep no paragraphs', async () => {
    const page = await openPage('<ul><li>a</li><li>b|</li></ul>', { profile: { ...PROFILE, markup: elements('ul', 'li', 'br') } });
    page.press('bulleted-list');
    page.view.state.doc.check();
    expect(page.marked).toBe('<ul><li>a</li></ul>\nb|');
    page.select(3);
    page.press('bulleted-list');
    expect(page.marked).toBe('|a<br>b');
  });
});
