import type { JsonObject } from '@typikon/core';
import { PROFILE, tokens } from './everything';
import { completePage, openPage, settled, type EditorPage, type PageOptions } from './page';

completePage();

const open = (marked: string, options: Partial<PageOptions> = {}): Promise<EditorPage> =>
  openPage(marked, { profile: PROFILE, ...options });

/** The profile with some of it changed; what is null goes. */
function changed(path: string, value: unknown): JsonObject {
  const copy = JSON.parse(JSON.stringify(PROFILE)) as JsonObject;
  const keys = path.split('/');
  const last = keys.pop()!;
  const parent = keys.reduce((at, key) => at[key] as JsonObject, copy);
  if (value === null) delete parent[last];
  else parent[last] = value as never;
  return copy;
}

/** A profile with styles for pictures. */
const WIDE: JsonObject = {
  ...changed('markup/elements/img/attributes/class', tokens('wide')),
  styles: {
    wide: { label: 'Wide', selector: 'img.wide' },
    'in-quotes': { label: 'In quotes', selector: 'img.wide', within: ['blockquote'] },
  },
};

/** What the markup is after a button was pressed and its dialog or menu answered. */
type Row = [did: string, button: string, before: string, answer: (page: EditorPage) => unknown, after: string, profile?: JsonObject];

const send =
  (fields: Readonly<Record<string, string>>, ...ticks: string[]) =>
  async (page: EditorPage) => {
    for (const [label, value] of Object.entries(fields)) page.fill(label, value);
    for (const label of ticks) page.tick(label);
    await page.send();
    expect(page.isDialogOpen() ? page.complaint() : '').toBe('');
    expect(page.isDialogOpen()).toBe(false);
  };
const choose = (label: string) => (page: EditorPage) => page.choose(label);

test.each<Row>([
  [
    'links words to an address that is completed',
    'link',
    '<p>See [the tides] now</p>',
    send({ Address: 'harbour.example/t' }),
    '<p>See <a href="https://harbour.example/t">[the tides]</a> now</p>',
  ],
  ['links the word at the cursor', 'link', '<p>See ti|des now</p>', send({ Address: '/t' }), '<p>See <a href="/t">ti|des</a> now</p>'],
  [
    'writes the words of a link anew',
    'link',
    '<p>See <em>[here]</em></p>',
    send({ Address: '/t', Words: 'the tides' }),
    '<p>See <a href="/t"><em>[the tides]</em></a></p>',
  ],
  [
    'changes a link that is there, and its words stay',
    'link',
    '<p><a href="/a">o|ne</a> two</p>',
    send({ Address: '/b' }),
    '<p><a href="/b">o|ne</a> two</p>',
  ],
  [
    'keeps what else a link has',
    'link',
    '<p><a id="x" href="/a">o|ne</a></p>',
    send({ Address: '/b' }),
    '<p><a id="x" href="/b">o|ne</a></p>',
  ],
  [
    'opens a window of its own',
    'link',
    '<p>[a]</p>',
    send({ Address: '/t' }, 'opens a window of its own'),
    '<p><a href="/t" target="_blank">[a]</a></p>',
  ],
  [
    'and takes that back',
    'link',
    '<p><a href="/t" target="_blank">[a]</a></p>',
    send({}, 'opens a window of its own'),
    '<p><a href="/t">[a]</a></p>',
  ],
  [
    'links words of two blocks, which stay as they are',
    'link',
    '<p>o[ne</p><p>tw]o</p>',
    send({ Address: '/t' }),
    '<p>o<a href="/t">[ne</a></p>\n<p><a href="/t">tw]</a>o</p>',
  ],
  [
    'links a mailbox',
    'link',
    '<p>[duty]</p>',
    send({ 'Leads to': 'mail', 'Mail address': ' duty@harbour.example ' }),
    '<p><a href="mailto:duty@harbour.example">[duty]</a></p>',
  ],
  [
    'links a telephone',
    'link',
    '<p>[duty]</p>',
    send({ 'Leads to': 'telephone', 'Telephone number': '+44 (1632) 960-001' }),
    '<p><a href="tel:+441632960001">[duty]</a></p>',
  ],
  [
    'links a heading, which gets an id',
    'link',
    '<h2>Low water</h2><p>[see]</p>',
    send({ 'Leads to': 'heading', 'Headings and anchors': 'at:0' }),
    '<h2 id="low-water">Low water</h2>\n<p><a href="#low-water">[see]</a></p>',
  ],
  [
    'links a heading that has an id',
    'link',
    '<h2 id="x">Low</h2><p>[see]</p>',
    send({ 'Leads to': 'heading', 'Headings and anchors': '#x' }),
    '<h2 id="x">Low</h2>\n<p><a href="#x">[see]</a></p>',
  ],
  [
    'links a place that a link names',
    'link',
    '<p><a id="x" href="/t">a</a> [see]</p>',
    send({ 'Leads to': 'heading', 'Headings and anchors': '#x' }),
    '<p><a id="x" href="/t">a</a> <a href="#x">[see]</a></p>',
  ],
  [
    'knows a mailbox',
    'link',
    '<p><a href="mailto:a@b.example">[a]</a></p>',
    send({ 'Mail address': 'c@b.example' }),
    '<p><a href="mailto:c@b.example">[a]</a></p>',
  ],
  [
    'knows a telephone',
    'link',
    '<p><a href="TEL:+441">[a]</a></p>',
    send({ 'Telephone number': '+442' }),
    '<p><a href="tel:+442">[a]</a></p>',
  ],
  [
    'knows a place in the text',
    'link',
    '<h2 id="x">X</h2><h2 id="y">Y</h2><p><a href="#x">[a]</a></p>',
    send({ 'Headings and anchors': '#y' }),
    '<h2 id="x">X</h2>\n<h2 id="y">Y</h2>\n<p><a href="#y">[a]</a></p>',
  ],
  [
    'takes off one colour, and the other stays',
    'text-colour',
    '<p><span style="color: #a6301f; background-color: #ffffff">[a]</span></p>',
    choose('No colour'),
    '<p><span style="background-color: #ffffff">[a]</span></p>',
  ],
  [
    'takes off the colour, and what else the words have stays',
    'text-colour',
    '<p><span lang="cy" style="color: #a6301f">[a]</span></p>',
    choose('No colour'),
    '<p><span lang="cy">[a]</span></p>',
  ],
  [
    'gives a picture a style',
    'styles',
    '<p>[<img src="https://a.example/x.png" alt="x">]</p>',
    choose('Wide'),
    '<p>[<img src="https://a.example/x.png" alt="x" class="wide">]</p>',
    WIDE,
  ],
  [
    'and takes it off',
    'styles',
    '<p>[<img src="https://a.example/x.png" alt="x" class="wide">]</p>',
    choose('Wide'),
    '<p>[<img src="https://a.example/x.png" alt="x">]</p>',
    WIDE,
  ],
  ['names a heading', 'anchor', '<h2>Low| water</h2>', send({}), '<h2 id="low-water">Low| water</h2>'],
  ['names a heading anew', 'anchor', '<h2 id="old">Low|</h2>', send({ Name: 'new' }), '<h2 id="new">Low|</h2>'],
  ['names a place between words', 'anchor', '<p>Low |water</p>', send({ Name: 'w' }), '<p>Low <a id="w"></a>|water</p>'],
  [
    'quotes with a source',
    'block-quote',
    '<p>|a</p>',
    send({ 'Address of the source': 'harbour.example' }),
    '<blockquote cite="https://harbour.example"><p>|a</p></blockquote>',
  ],
  ['quotes without one', 'block-quote', '<p>|a</p>', send({}), '<blockquote><p>|a</p></blockquote>'],
  ['takes words out of a quotation at once', 'block-quote', '<blockquote><p>|a</p></blockquote>', () => {}, '<p>|a</p>'],
  [
    'quotes at once where no source is asked for',
    'block-quote',
    '<p>|a</p>',
    () => {},
    '<blockquote><p>|a</p></blockquote>',
    changed('toolbar/options/block-quote', {}),
  ],
  [
    'counts a list otherwise',
    'list-numbers',
    '<ol><li>|a</li></ol>',
    send({ Counts: 'a', 'Begins with': '4' }),
    '<ol type="a" start="4"><li>|a</li></ol>',
  ],
  [
    'counts it as usual again',
    'list-numbers',
    '<ol type="i" start="4"><li>|a</li></ol>',
    send({ Counts: '1', 'Begins with': '1' }),
    '<ol><li>|a</li></ol>',
  ],
  [
    'says what an abbreviation stands for',
    'abbreviation',
    '<p>the MH|W now</p>',
    send({ 'Stands for': 'mean high water' }),
    '<p>the <abbr title="mean high water">MH|W</abbr> now</p>',
  ],
  [
    'says so anew',
    'abbreviation',
    '<p><abbr title="x">MH|W</abbr></p>',
    send({ 'Stands for': 'mean' }),
    '<p><abbr title="mean">MH|W</abbr></p>',
  ],
  ['takes it off', 'abbreviation', '<p><abbr title="x">MH|W</abbr></p>', send({ 'Stands for': ' ' }), '<p>MH|W</p>'],
  [
    'puts in a date in words',
    'date',
    '<p>on |</p>',
    send({ Day: '2026-03-03' }),
    '<p>on <time datetime="2026-03-03">3 March 2026</time>|</p>',
  ],
  [
    'puts in a date in figures, in place of what is selected',
    'date',
    '<p>on [x]</p>',
    send({ Day: '2026-03-03', Written: 'short' }),
    '<p>on <time datetime="2026-03-03">2026-03-03</time>|</p>',
  ],
  ['says the language of a passage', 'language', '<p>a [bore da] b</p>', choose('Welsh'), '<p>a <span lang="cy">[bore da]</span> b</p>'],
  [
    'another in its place',
    'language',
    '<p><span lang="cy">[a]</span></p>',
    choose('Norwegian Bokmål'),
    '<p><span lang="nb">[a]</span></p>',
  ],
  ['none any more', 'language', '<p><span lang="cy">a|b</span></p>', choose('As the rest of the text'), '<p>a|b</p>'],
  ['colours words', 'text-colour', '<p>a [b] c</p>', choose('Red'), '<p>a <span style="color: #a6301f">[b]</span> c</p>'],
  [
    'colours their ground too',
    'background-colour',
    '<p><span style="color: #a6301f">[b]</span></p>',
    choose('White'),
    '<p><span style="color: #a6301f"><span style="background-color: #ffffff">[b]</span></span></p>',
  ],
  [
    'takes the colour off and leaves the ground',
    'text-colour',
    '<p><span style="color: #a6301f; background-color: #ffffff">[b]</span></p>',
    choose('No colour'),
    '<p><span style="background-color: #ffffff">[b]</span></p>',
  ],
  [
    'takes the ground off and leaves the colour',
    'background-colour',
    '<p><span style="color: #a6301f; background-color: #ffffff">[b]</span></p>',
    choose('No colour'),
    '<p><span style="color: #a6301f">[b]</span></p>',
  ],
  ['takes the only colour off', 'text-colour', '<p><span style="color: #a6301f">[b]</span></p>', choose('No colour'), '<p>[b]</p>'],
  ['makes a heading of a paragraph', 'block-kind', '<p>|a</p>', choose('Heading 3'), '<h3>|a</h3>'],
  ['makes a paragraph of a heading', 'block-kind', '<h3>|a</h3>', choose('Paragraph'), '<p>|a</p>'],
  ['applies a style', 'styles', '<p>|a</p>', choose('Note'), '<p class="note">|a</p>'],
  ['takes it off', 'styles', '<p class="note">|a</p>', choose('Note'), '<p>|a</p>'],
  [
    'puts in a table',
    'table',
    '<p>a|</p>',
    send({ Rows: '2', Columns: '2' }, 'The first row holds headers'),
    '<p>a</p>\n<table><tbody><tr><td>|</td><td></td></tr><tr><td></td><td></td></tr></tbody></table>',
  ],
  [
    'with headers and a caption',
    'table',
    '<p>|</p>',
    send({ Rows: '2', Columns: '1', Caption: 'Tides' }),
    '<table><caption>|Tides</caption><thead><tr><th scope="col"></th></tr></thead><tbody><tr><td></td></tr></tbody></table>',
  ],
  [
    'adds a row',
    'table',
    '<table><tbody><tr><td>|a</td></tr></tbody></table>',
    choose('Row below'),
    '<table><tbody><tr><td>a</td></tr><tr><td>|</td></tr></tbody></table>',
  ],
  [
    'adds a column',
    'table',
    '<table><tbody><tr><td>|a</td></tr></tbody></table>',
    choose('Column before'),
    '<table><tbody><tr><td>|</td><td>a</td></tr></tbody></table>',
  ],
  ['deletes the table', 'table', '<p>b</p><table><tbody><tr><td>|a</td></tr></tbody></table>', choose('Delete the table'), '<p>b|</p>'],
  [
    'embeds a page',
    'embed',
    '<p>|</p>',
    send({ Address: 'cams.example/slip', Title: 'The slip' }),
    '<p><iframe src="https://cams.example/slip" title="The slip" sandbox="allow-scripts allow-popups"></iframe>|</p>',
  ],
  [
    'embeds what its site gives',
    'embed',
    '<p>|</p>',
    send({ Address: '<iframe width=4 src="//cams.example/q"></iframe>', Title: 'The quay' }),
    '<p><iframe src="https://cams.example/q" title="The quay" sandbox="allow-scripts allow-popups"></iframe>|</p>',
  ],
  [
    'changes a frame',
    'embed',
    '<p>[<iframe src="https://cams.example/a" title="A"></iframe>]</p>',
    send({ Title: 'B' }),
    '<p>[<iframe src="https://cams.example/a" title="B" sandbox="allow-scripts allow-popups"></iframe>]</p>',
  ],
])('%s (%s)', async (_did, button, before, answer, after, profile = PROFILE) => {
  const page = await open(before, { profile });
  page.press(button);
  await answer(page);
  page.view.state.doc.check();
  expect(page.marked).toBe(after);
  expect(page.isDialogOpen()).toBe(false);
  expect(page.host.ownerDocument.activeElement).toBe(page.host.querySelector('iframe'));
});

/** What a dialog says of what cannot be taken, and that nothing was done. */
test.each<[button: string, before: string, fields: Readonly<Record<string, string>>, complaint: string, profile?: JsonObject]>([
  ['link', '<p>[a]</p>', { Address: '' }, 'Type an address first.'],
  ['link', '<p>[a]</p>', { Address: 'javascript:alert(1)' }, 'Links of the kind “javascript:” are not allowed here.'],
  ['link', '<p>[a]</p>', { Address: '/t', Words: ' ' }, 'Write the words that are to be the link.'],
  [
    'link',
    '<p>[a]</p>',
    { 'Leads to': 'mail', 'Mail address': 'nobody' },
    'This is no mail address: it has a name, an @ and a host, such as duty@harbour.example.',
  ],
  ['link', '<p>[a]</p>', { 'Leads to': 'telephone', 'Telephone number': ' ' }, 'Type an address first.'],
  ['link', '<p>[a]</p>', { 'Leads to': 'heading' }, 'This text has no headings and no anchors yet.'],
  ['link', '<h2>a</h2><p>[a]</p>', { 'Leads to': 'heading' }, 'Choose one of the list.'],
  [
    'link',
    '<h4>a</h4><p>[a]</p>',
    { 'Leads to': 'heading', 'Headings and anchors': 'at:0' },
    'The rules let headings of this level have no id, so no link can lead there. Put an anchor before it.',
  ],
  ['anchor', '<p>a|</p>', { Name: '1st' }, 'A name begins with a letter and holds letters, figures, - and _.'],
  ['anchor', '<h2 id="x">a</h2><p>a|</p>', { Name: 'x' }, 'This text has a place of the name “x” already.'],
  [
    'anchor',
    '<h2 id="p-x">a</h2><p>a|</p>',
    { Name: 'x' },
    'This text has a place of the name “x” already.',
    changed('markup/ids', { prefix: 'p-' }),
  ],
  ['block-quote', '<p>|a</p>', { 'Address of the source': 'javascript:1' }, 'Links of the kind “javascript:” are not allowed here.'],
  ['list-numbers', '<ol><li>|a</li></ol>', { 'Begins with': '' }, 'The number to begin with must be a whole number, such as 4.'],
  ['list-numbers', '<ol><li>|a</li></ol>', { 'Begins with': '51' }, 'The rules let no list begin with 51.'],
  ['date', '<p>|a</p>', { Day: '' }, 'Choose a day.'],
  ['table', '<p>|a</p>', { Rows: '6' }, 'A table here can have 1 to 5 rows.'],
  ['table', '<p>|a</p>', { Rows: '0' }, 'A table here can have 1 to 5 rows.'],
  ['table', '<p>|a</p>', { Rows: '5', Columns: '5' }, 'A table here can have 1 to 4 columns.'],
  [
    'embed',
    '<p>|a</p>',
    { Address: 'elsewhere.example' },
    'Pages of elsewhere.example may not be embedded here. Allowed here: cams.example.',
  ],
  ['embed', '<p>|a</p>', { Address: 'cams.example', Title: ' ' }, 'Say what the frame shows: people who do not see it hear this title.'],
])('%s of %s with %j is refused', async (button, before, fields, complaint, profile = PROFILE) => {
  const page = await open(before, { profile });
  const { html } = page.editor;
  page.press(button);
  for (const [label, value] of Object.entries(fields)) page.fill(label, value);
  await page.send();
  expect(page.complaint()).toBe(complaint);
  expect(page.editor.html).toBe(html);
  const invalid = page.dialog().querySelector('[aria-invalid]')!;
  expect(document.activeElement).toBe(invalid);
  expect(page.dialog().querySelector(`#${invalid.getAttribute('aria-errormessage')}`)!.textContent).toBe(complaint);
  page.push('Cancel');
  expect(page.isDialogOpen()).toBe(false);
  expect(page.editor.html).toBe(html);
});

/** What a button that cannot be used says. */
test.each([
  ['link', '<pre>|a</pre>', 'There are no words here to link.'],
  ['unlink', '<p>|a</p>', 'This is no link.'],
  ['list-numbers', '<ul><li>|a</li></ul>', 'This is no numbered list.'],
  ['abbreviation', '<p>a  |</p>', 'Select the abbreviation first.'],
  ['language', '<p>|</p>', 'Select the passage first.'],
  ['text-colour', '<p>|</p>', 'Select words first.'],
])('%s in %s is not possible', async (button, before, words) => {
  const page = await open(before);
  const { html } = page.editor;
  page.press(button);
  expect(page.isDialogOpen()).toBe(false);
  expect(page.menu()).toEqual([]);
  expect(page.said()).toContain(words);
  expect(page.editor.html).toBe(html);
});

test.each([
  ['block-kind', '<h3>|a</h3>', ['Paragraph', 'Heading 2', 'Heading 3*', 'Heading 4']],
  ['language', '<p><span lang="cy">a|b</span></p>', ['Norwegian Bokmål', 'Welsh*', 'As the rest of the text']],
  ['styles', '<p>[<img src="https://a.example/x.png" alt="x">]</p>', ['Wide', '(In quotes)'], WIDE],
  ['styles', '<p>|a</p>', ['(Wide)', '(In quotes)'], WIDE],
  ['styles', '<p class="note">|a</p>', ['Note*', '(Warning)', '(Total)']],
  ['styles', '<table><tbody><tr><td>|a</td></tr></tbody></table>', ['Note', '(Warning)', 'Total']],
  [
    'table',
    '<table><tbody><tr><td>|a</td></tr></tbody></table>',
    [
      'Row above',
      'Row below',
      'Column before',
      'Column after',
      '(Join the selected cells)',
      '(Split the cell)',
      'Header row, or not',
      'Header column, or not',
      'Caption, or none',
      'Delete the row',
      'Delete the column',
      'Delete the table',
    ],
  ],
] as [string, string, string[], JsonObject?][])('the menu %s of %s', async (button, before, entries, profile = PROFILE) => {
  const page = await open(before, { profile });
  page.press(button);
  expect(page.menu()).toEqual(entries);
});

describe('a menu', () => {
  const focused = (): string => document.activeElement!.textContent ?? '';
  const key = (name: string): void =>
    void document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true }));

  test('begins at what is on, is walked by keys, and gives the focus back', async () => {
    const page = await open('<h3>|a</h3>');
    page.press('block-kind');
    expect(focused()).toBe('Heading 3');
    for (const [name, label] of [
      ['ArrowDown', 'Heading 4'],
      ['ArrowDown', 'Paragraph'],
      ['ArrowUp', 'Heading 4'],
      ['Home', 'Paragraph'],
      ['End', 'Heading 4'],
      ['h', 'Heading 2'],
      ['h', 'Heading 3'],
      ['p', 'Paragraph'],
      ['x', 'Paragraph'],
    ] as const) {
      key(name);
      expect(focused()).toBe(label);
    }
    const anchor = page.host.querySelector('[data-button=block-kind]')!;
    expect(anchor.getAttribute('aria-expanded')).toBe('true');
    key('Escape');
    expect(page.menu()).toEqual([]);
    expect(anchor.getAttribute('aria-expanded')).toBe('false');
    expect(document.activeElement).toBe(page.host.querySelector('iframe'));
  });

  test('an entry that cannot be pressed says why and does nothing', async () => {
    const page = await open('<p>|a</p>');
    page.press('styles');
    const entry = [...page.host.querySelectorAll<HTMLElement>('.te-menu > button')].find(({ textContent }) => textContent === 'Total')!;
    expect(entry.title).toBe('It cannot be applied here. It goes on td.');
    entry.click();
    expect(page.menu()).not.toEqual([]);
    expect(page.editor.html).toBe('<p>a</p>');
  });

  test('closes when the focus goes elsewhere', async () => {
    const page = await open('<p>|a</p>');
    page.press('block-kind');
    (document.activeElement as HTMLElement).blur();
    await settled(5);
    expect(page.menu()).toEqual([]);
  });

  test('what a style is for stands at its entry', async () => {
    const page = await open('<p>|a</p>');
    page.press('styles');
    expect(page.host.querySelector<HTMLElement>('.te-menu > button')!.title).toBe('Sets a paragraph apart.');
  });
});

describe('a dialog', () => {
  test('takes no keys of the page around it, and Escape ends it without a change', async () => {
    const page = await open('<p>[a]</p>');
    const heard = jest.fn();
    page.host.addEventListener('keydown', heard);
    page.press('link');
    page
      .dialog()
      .querySelector('input')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 's', ctrlKey: true, bubbles: true }));
    expect(heard).not.toHaveBeenCalled();
    page.dialog().dispatchEvent(new Event('cancel', { cancelable: true }));
    expect(page.isDialogOpen()).toBe(false);
    expect(page.editor.html).toBe('<p>a</p>');
  });

  test('is named by its title', async () => {
    const page = await open('<p><a href="/a">o|ne</a></p>');
    page.press('link');
    expect(document.getElementById(page.dialog().getAttribute('aria-labelledby')!)!.textContent).toBe('Change the link');
  });
});

test('signs are found by name, taken, and offered again as used last', async () => {
  localStorage.clear();
  const page = await open('<p>5 |</p>');
  const groups = (): string[] => [...page.dialog().querySelectorAll('h3')].map(({ textContent }) => textContent);
  page.press('special-characters');
  expect(groups()).toEqual(['Here', 'All']);
  page.fill('Find by name', 'one half');
  expect(groups()).toEqual(['Found']);
  const sign = page.dialog().querySelector<HTMLElement>('.te-signs button')!;
  sign.focus();
  expect(page.dialog().querySelector('[role=status]')!.textContent).toBe('one half');
  sign.click();
  expect(page.marked).toBe('<p>5 ½|</p>');
  page.press('special-characters');
  expect(groups()).toEqual(['Here', 'Used last', 'All']);
  page.fill('Find by name', 'no such sign');
  expect(page.dialog().textContent).toContain('No sign has this in its name.');
});

describe('the keys and typed marks that are listed', () => {
  const rows = (page: EditorPage): string[] =>
    [...page.dialog().querySelectorAll('tr')].map((row) => [...row.children].map(({ textContent }) => textContent).join(': '));
  test('are those of the profile', async () => {
    const page = await open('<p>|a</p>');
    page.press('keyboard-help');
    expect(rows(page)).toEqual(
      expect.arrayContaining([
        'Ctrl+B: Bold',
        'Enter: A new paragraph',
        'Shift+Enter: A line break',
        'Tab: In tables the next cell; elsewhere it leaves the text',
        '**words**: makes bold words',
        '--: makes a dash (–)',
      ]),
    );
  });

  test.each([
    [{ enter: 'block' }, 'Enter: A new block'],
    [{ enter: 'paragraph' }, 'Enter: A new paragraph'],
    [{ shiftEnter: 'paragraph' }, 'Shift+Enter: A new paragraph'],
  ])('say what Enter does: %j', async (surface, row) => {
    const page = await open('<p>|a</p>', { profile: { ...PROFILE, surface } });
    page.press('keyboard-help');
    expect(rows(page)).toContain(row);
  });

  test('leave out what the rules or the profile do not have', async () => {
    const strict = changed('markup/elements', { p: {}, br: {} });
    const page = await open('<p>|a</p>', { profile: { ...strict, surface: { enter: 'break', shiftEnter: 'nothing', tab: 'indent' } } });
    page.press('keyboard-help');
    expect(rows(page)).toEqual(
      expect.arrayContaining(['Enter: A line break', 'Tab: In tables the next cell; in lists one step in', '...: makes an ellipsis (…)']),
    );
    expect(rows(page).join()).not.toMatch(/Shift\+Enter|Underline|Heading|bold words|a heading/);
  });
});

describe('pages of the site', () => {
  const found = [
    { title: 'Tides', address: '/tides', kind: 'table' },
    { title: 'Time', address: '/time', kind: 'article' },
  ];
  const options = (page: EditorPage): string[] =>
    [...page.dialog().querySelectorAll('.te-list option')].map(({ textContent }) => textContent);

  test('are found by their title and linked', async () => {
    const find = jest.fn((query: string) => Promise.resolve(found.filter(({ title }) => title.toLowerCase().includes(query))));
    const page = await open('<p>[a]</p>', { services: { pages: { find } } });
    page.press('link');
    await settled();
    expect(options(page)).toEqual(['Tides  (table)', 'Time  (article)']);
    await page.send();
    expect(page.complaint()).toBe('Choose a page.');
    page.fill('Find a page', 'tim');
    await settled();
    expect(options(page)).toEqual(['Time  (article)']);
    await page.send();
    expect(page.marked).toBe('<p><a href="/time">[a]</a></p>');
    page.press('link');
    await settled();
    expect(page.dialog().querySelector<HTMLSelectElement>('.te-list')!.value).toBe('/time');
  });

  test('of two questions the later one counts, whichever answer comes last', async () => {
    const answers: ((pages: typeof found) => void)[] = [];
    const page = await open('<p>[a]</p>', { services: { pages: { find: () => new Promise((resolve) => answers.push(resolve)) } } });
    page.press('link');
    page.fill('Find a page', 'tim');
    answers[1]!([found[1]!]);
    answers[0]!(found);
    await settled();
    expect(options(page)).toEqual(['Time  (article)']);
  });

  test('that cannot be read are told, as is that there are none', async () => {
    const find = jest.fn().mockResolvedValueOnce([]).mockRejectedValueOnce(new Error('The site is closed.')).mockRejectedValueOnce('');
    const page = await open('<p>[a]</p>', { services: { pages: { find } } });
    const status = (): string => page.dialog().querySelector('[role=status]')!.textContent;
    page.press('link');
    await settled();
    expect(status()).toBe('No page has this in its title.');
    page.fill('Find a page', 'x');
    await settled();
    expect(status()).toBe('The site is closed.');
    page.fill('Find a page', 'xy');
    await settled();
    expect(status()).toBe('The pages cannot be read.');
  });
});

test('the size of a table is chosen in the grid as well', async () => {
  const page = await open('<p>|</p>');
  page.press('table');
  const cells = [...page.dialog().querySelectorAll<HTMLElement>('.te-size i')];
  expect(cells).toHaveLength(20);
  cells[5]!.click();
  expect(cells.flatMap(({ className }, index) => (className === '' ? [] : [`${index} ${className}`]))).toEqual([
    '0 in head',
    '1 in head',
    '4 in',
    '5 in',
  ]);
  await page.send();
  expect(page.marked).toContain(
    '<thead><tr><th scope="col">|</th><th scope="col"></th></tr></thead><tbody><tr><td></td><td></td></tr></tbody>',
  );
});
