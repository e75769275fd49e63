import { PROFILE } from './everything';
import { completePage, openPage, settled, type EditorPage, type PageOptions } from './page';
import { NodeSelection, TextSelection } from 'prosemirror-state';
import { misspeltAt, wordsIn } from '../src/plugins/spelling';
import { readDocument } from '../src/index';

completePage();

const open = (marked: string, options: Partial<PageOptions> = {}): Promise<EditorPage> =>
  openPage(marked, { profile: PROFILE, ...options });
const text = (element: Element | null | undefined): string => element?.textContent ?? '';
const all = (page: EditorPage, selector: string): string[] => [...page.host.querySelectorAll(selector)].map(text);
const inText = (page: EditorPage, selector: string): string[] => [...page.view.dom.querySelectorAll(selector)].map(text);

describe('find and replace', () => {
  const strip = (page: EditorPage): HTMLElement => page.host.querySelector<HTMLElement>('.te-find')!;
  const count = (page: EditorPage): string => text(strip(page).querySelector('.te-count'));
  const field = (page: EditorPage, label: string): HTMLInputElement => strip(page).querySelector(`[aria-label="${label}"]`)!;
  const write = (page: EditorPage, label: string, value: string): void => {
    field(page, label).value = value;
    field(page, label).dispatchEvent(new Event('input'));
  };
  const key = (page: EditorPage, label: string, name: string, shiftKey = false): boolean =>
    !field(page, label).dispatchEvent(new KeyboardEvent('keydown', { key: name, shiftKey, bubbles: true, cancelable: true }));

  test('walks through the places around the ends, and says which it is', async () => {
    const page = await open('<p>|tide and Tide</p><p>tides</p>');
    page.press('find-replace');
    expect(document.activeElement).toBe(field(page, 'Find'));
    write(page, 'Find', 'tide');
    expect(count(page)).toBe('3 places');
    expect(inText(page, '.te-found')).toEqual(['tide', 'Tide', 'tide']);
    for (const [button, place, marked] of [
      ['Next', '1 of 3', '<p>[tide] and Tide</p>\n<p>tides</p>'],
      ['Next', '2 of 3', '<p>tide and [Tide]</p>\n<p>tides</p>'],
      ['Next', '3 of 3', '<p>tide and Tide</p>\n<p>[tide]s</p>'],
      ['Next', '1 of 3', '<p>[tide] and Tide</p>\n<p>tides</p>'],
      ['Before', '3 of 3', '<p>tide and Tide</p>\n<p>[tide]s</p>'],
      ['Before', '2 of 3', '<p>tide and [Tide]</p>\n<p>tides</p>'],
    ] as const) {
      page.push(button);
      expect([count(page), page.marked]).toEqual([place, marked]);
    }
    expect(inText(page, '.te-here')).toEqual(['Tide']);
    write(page, 'Find', 'nothing');
    expect(count(page)).toBe('nowhere');
    page.push('Next');
    write(page, 'Find', '');
    expect(count(page)).toBe('');
  });

  test('capitals count where they are to', async () => {
    const page = await open('<p>|tide Tide</p>');
    page.press('find-replace');
    write(page, 'Find', 'Tide');
    expect(count(page)).toBe('2 places');
    field(page, 'Capitals count').click();
    expect(count(page)).toBe('1 place');
  });

  test('what is looked for is selected, so that it can be written over', async () => {
    const page = await open('<p>[tide] b</p>');
    page.press('find-replace');
    const { value, selectionStart, selectionEnd } = field(page, 'Find');
    expect([value, selectionStart, selectionEnd]).toEqual(['tide', 0, 4]);
  });

  test('keys go on, back, replace and close', async () => {
    const page = await open('<p>|a b a</p>');
    page.press('find-replace');
    write(page, 'Find', 'a');
    expect(key(page, 'Find', 'Enter')).toBe(true);
    expect(page.marked).toBe('<p>[a] b a</p>');
    key(page, 'Find', 'Enter', true);
    expect(page.marked).toBe('<p>a b [a]</p>');
    write(page, 'Replace with', 'c');
    key(page, 'Replace with', 'Enter');
    expect(page.marked).toBe('<p>[a] b c</p>');
    expect(key(page, 'Find', 'x')).toBe(false);
    key(page, 'Find', 'Escape');
    expect(strip(page).hidden).toBe(true);
    expect(inText(page, '.te-found')).toEqual([]);
    expect(page.host.querySelector('[data-button=find-replace]')!.getAttribute('aria-pressed')).toBe('false');
  });

  test('replaces one, then all, and each is one step', async () => {
    const page = await open('<p>|<strong>ebb</strong> ebb ebb</p>');
    page.press('find-replace');
    write(page, 'Find', 'ebb');
    write(page, 'Replace with', 'flood');
    page.push('Replace');
    expect(page.editor.html).toBe('<p><strong>ebb</strong> ebb ebb</p>');
    page.push('Replace');
    expect(page.editor.html).toBe('<p><strong>flood</strong> ebb ebb</p>');
    page.push('All');
    expect(count(page)).toBe('2 replaced');
    expect(page.editor.html).toBe('<p><strong>flood</strong> flood flood</p>');
    page.push('Close');
    expect(strip(page).hidden).toBe(true);
  });

  test('nothing in place of something takes it away', async () => {
    const page = await open('<p>|a b</p>');
    page.press('find-replace');
    write(page, 'Find', ' b');
    page.push('All');
    expect(page.editor.html).toBe('<p>a</p>');
  });

  test('begins with what is selected in one block', async () => {
    for (const [before, found] of [
      ['<p>a [low water] b</p>', 'low water'],
      ['<p>a [b</p><p>c] d</p>', ''],
      [`<p>[${'long '.repeat(20)}]</p>`, ''],
    ] as const) {
      const page = await open(before);
      page.press('find-replace');
      expect(field(page, 'Find').value).toBe(found);
      page.press('find-replace');
      expect(strip(page).hidden).toBe(true);
    }
  });

  test('places move with the text', async () => {
    const page = await open('<p>|tide</p>');
    page.press('find-replace');
    write(page, 'Find', 'tide');
    page.select(1);
    page.type('tide ');
    expect(count(page)).toBe('2 places');
  });
});

describe('the outline', () => {
  const entries = (page: EditorPage): string[] => all(page, '.te-outline li');
  test('shows the headings with what is wrong, follows the text, and leads there', async () => {
    const page = await open('<h2>One</h2><p>|a</p><h4>Three</h4>');
    page.press('outline');
    expect(entries(page)).toEqual(['2One', '4ThreeLevel 2 is followed by level 4: level 3 is left out.']);
    expect(all(page, '.te-outline .te-fault')).toHaveLength(1);
    expect([...page.host.querySelectorAll<HTMLElement>('.te-outline li')].map(({ style }) => style.paddingLeft)).toEqual(['0px', '24px']);
    page.push('Three');
    expect(page.marked).toBe('<h2>One</h2>\n<p>a</p>\n<h4>|Three</h4>');
    page.press('heading-3');
    expect(entries(page)).toEqual(['2One', '3Three']);
    page.press('outline');
    expect(page.host.querySelector<HTMLElement>('.te-outline')!.hidden).toBe(true);
  });

  test('says that there is none', async () => {
    const page = await open('<p>|a</p>');
    page.press('outline');
    expect(entries(page)).toEqual(['No headings yet.']);
  });
});

describe('the line below the text', () => {
  const count = (page: EditorPage): HTMLElement => page.host.querySelector<HTMLElement>('.te-line [role=status]')!;
  test('counts words and characters, and says what is too many', async () => {
    const page = await open('<p>One word|</p>');
    expect(count(page).hidden).toBe(true);
    page.press('word-count');
    expect(text(count(page))).toBe('2 words, 8 characters');
    page.type('s and many more');
    expect(text(count(page))).toBe('5 words, 23 characters, 3 more than 20');
    expect(count(page).classList.contains('te-fault')).toBe(true);
    page.press('word-count');
    expect(count(page).hidden).toBe(true);
  });

  test('offers the widths that are narrower than the page’s', async () => {
    const page = await open('<p>a</p>');
    const select = page.host.querySelector<HTMLSelectElement>('.te-line select')!;
    expect([...select.options].map(text)).toEqual(['Page, 720 px', '320 px', '480 px']);
    const mount = page.view.dom;
    expect(mount.style.maxWidth).toBe('720px');
    for (const [value, width] of [
      ['320', '320px'],
      ['', '720px'],
    ] as const) {
      select.value = value;
      select.dispatchEvent(new Event('change'));
      expect(mount.style.maxWidth).toBe(width);
    }
  });

  test('is not there where it has nothing to say', async () => {
    const page = await open('<p>a</p>', { profile: { ...PROFILE, surface: {} } });
    const line = page.host.querySelector<HTMLElement>('.te-line')!;
    expect(line.hidden).toBe(true);
    page.press('word-count');
    expect([line.hidden, text(line)]).toEqual([false, '1 word, 1 characters']);
  });
});

describe('views of the text', () => {
  test('the structure names every block, and follows', async () => {
    const page = await open('<p class="note">|a</p><ul><li>b</li></ul>');
    const names = (): (string | null)[] =>
      [...page.view.dom.querySelectorAll('[data-te-block]')].map((block) => block.getAttribute('data-te-block'));
    expect(names()).toEqual([]);
    page.press('structure');
    expect(names()).toEqual(['p.note', 'ul', 'li']);
    page.press('heading-2');
    expect(names()).toEqual(['h2', 'ul', 'li']);
    page.press('structure');
    expect(names()).toEqual([]);
  });

  test('the full window is a class of the editor', async () => {
    const page = await open('<p>a</p>');
    const root = page.host.querySelector('.te-root')!;
    page.press('full-window');
    expect(root.classList.contains('te-full')).toBe(true);
    expect(page.host.querySelector('[data-button=full-window]')!.getAttribute('aria-pressed')).toBe('true');
    page.press('full-window');
    expect(root.classList.contains('te-full')).toBe(false);
  });

  test('links that lead nowhere in the text are marked, until they lead somewhere', async () => {
    const page = await open(
      '<h2>|Tides</h2><p><a href="#tides">see</a> <a href="#">top</a> <a href="#caf%C3%A9">c</a> <a href="#%E0">d</a></p>',
    );
    expect(inText(page, '.te-broken')).toEqual(['see', 'c', 'd']);
    expect(page.view.dom.querySelectorAll<HTMLElement>('.te-broken')[1]!.title).toBe('Nothing in this text is named “café”.');
    page.press('anchor');
    await page.send();
    await settled(300);
    expect(inText(page, '.te-broken')).toEqual(['c', 'd']);
  });

  test('cells that are selected together are outlined', async () => {
    const page = await open('<table><tbody><tr><td>a[b</td><td>c]d</td><td>e</td></tr></tbody></table>');
    expect(inText(page, '.te-cell-selected')).toEqual(['ab', 'cd']);
    page.select(5);
    expect(inText(page, '.te-cell-selected')).toEqual([]);
  });

  test('what cannot be edited is shown as it looks, and named', async () => {
    const page = await open('<p>a <a id="low"></a>b</p>');
    expect(inText(page, '.te-anchor')).toEqual(['⚓ low']);
  });
});

describe('spelling', () => {
  const spelling = (known: string[]) => ({
    wrong: jest.fn((words: readonly string[]) => Promise.resolve(words.filter((word) => !known.includes(word)))),
    suggest: jest.fn((word: string) => Promise.resolve([`${word}x`, `${word}y`])),
    add: jest.fn((word: string) => (word === 'zz' ? Promise.reject(new Error('No room.')) : Promise.resolve())),
  });
  const marked = (page: EditorPage): string[] => inText(page, '.te-misspelt');

  test('asks for what is not known yet, marks what is wrong, and offers others', async () => {
    const dictionary = spelling(['the', 'tide', 'is']);
    const page = await open('<p>the tyde| is</p>', { services: { spelling: dictionary } });
    await settled(300);
    expect(marked(page)).toEqual([]);
    page.press('spelling');
    await settled(300);
    expect(marked(page)).toEqual(['tyde']);
    expect(dictionary.wrong.mock.calls).toEqual([[['the', 'tyde', 'is']]]);
    page.press('spelling');
    await settled();
    expect(page.menu()).toEqual(['tydex', 'tydey', 'Add “tyde” to the site’s dictionary', 'Hide the marks']);
    page.choose('tydex');
    expect(page.marked).toBe('<p>the tydex| is</p>');
    expect(marked(page)).toEqual([]);
    await settled(300);
    expect(dictionary.wrong.mock.calls[1]).toEqual([['tydex']]);
  });

  test('the menu of a marked word is offered where it was asked for', async () => {
    const page = await open('<p>the tyde is|</p>', { services: { spelling: spelling(['the', 'is']) } });
    const ask = (pos: number | null): boolean => {
      page.view.posAtCoords = () => (pos === null ? null : { pos, inside: 0 });
      return !page.view.dom.dispatchEvent(new MouseEvent('contextmenu', { bubbles: true, cancelable: true }));
    };
    expect(ask(6)).toBe(false);
    page.press('spelling');
    await settled(300);
    expect([ask(null), ask(2), page.menu()]).toEqual([false, false, []]);
    expect(ask(6)).toBe(true);
    await settled();
    expect(page.menu()).toContain('Add “tyde” to the site’s dictionary');
    expect(page.view.state.doc.textBetween(page.view.state.selection.from, page.view.state.selection.to)).toBe('tyde');
  });

  test('a word that is added is asked for anew', async () => {
    const known = ['a'];
    const page = await open('<p>a brigg|</p>', { services: { spelling: spelling(known) } });
    page.press('spelling');
    await settled(300);
    known.push('brigg');
    page.press('spelling');
    await settled();
    page.choose('Add “brigg” to the site’s dictionary');
    await settled(600);
    expect(marked(page)).toEqual([]);
  });

  test('what cannot be added is told', async () => {
    const page = await open('<p>zz|</p>', { services: { spelling: spelling([]) } });
    page.press('spelling');
    await settled(300);
    page.press('spelling');
    await settled();
    page.choose('Add “zz” to the site’s dictionary');
    await settled();
    expect(page.said()).toBe('No room.');
    page.press('spelling');
    await settled();
    page.choose('Hide the marks');
    expect(marked(page)).toEqual([]);
  });

  test('marks move with the text, and go from a word that changes', async () => {
    const page = await open('<p>|xx yy</p>', {
      services: { spelling: spelling([]) },
      profile: { ...PROFILE, surface: { spelling: { atOnce: true } } },
    });
    await settled(300);
    expect(marked(page)).toEqual(['xx', 'yy']);
    page.select(2);
    page.type('z');
    expect(marked(page)).toEqual(['yy']);
    await settled(300);
    expect(marked(page)).toEqual(['xzx', 'yy']);
    expect(misspeltAt(page.view.state, 1)).toEqual({ word: 'xzx', from: 1, to: 4 });
    expect(misspeltAt(page.view.state, 0)).toBeNull();
  });

  test('says that there is no dictionary', async () => {
    const page = await open('<p>a|</p>');
    page.press('spelling');
    expect(page.said()).toBe('There is no dictionary here.');
  });

  test.each([
    ['<p>the tide’s ‘low’ and don’t</p>', ['the', 'tide', 'low', 'and', "don't"]],
    ['<p>a b2 2b c@d e/f g_h Zürich ok</p>', ['Zürich', 'ok']],
    ['<p><code>xx</code> <span lang="cy">bore</span> <span lang="en-GB">day</span></p><pre>yy</pre>', ['day']],
  ])('the words of %s that are looked up', async (html, words) => {
    const page = await open('<p>a</p>');
    expect(wordsIn(readDocument(html, page.view.state.schema).doc).map(({ word }) => word)).toEqual(words);
  });
});

describe('the editor’s own state', () => {
  test.each([
    ['<p> </p>', true],
    ['<p><br></p>', true],
    ['<p>a</p>', false],
    ['<hr>', false],
    ['<p><img src="/a.png" alt=""></p>', false],
  ])('%s is empty: %s', async (html, isEmpty) => expect((await open(html)).editor.isEmpty).toBe(isEmpty));

  test('other markup takes its place as one step, and what stays the same is not touched', async () => {
    const page = await open('<p>one|</p>\n\n<p>two</p>');
    page.editor.replaceAll('<p>one</p>\n\n<p>three</p>');
    expect(page.editor.html).toBe('<p>one</p>\n\n<p>three</p>');
    page.key('Mod-z');
    expect(page.editor.html).toBe('<p>one</p>\n\n<p>two</p>');
    page.editor.replaceAll('<p>one</p><p>two</p>');
    expect(page.editor.html).toBe('<p>one</p>\n\n<p>two</p>');
    page.editor.replaceAll('<p>two</p>');
    expect(page.editor.html).toBe('<p>two</p>');
  });

  test('each change is told, and leaving the text', async () => {
    const [onChange, onBlur] = [jest.fn(), jest.fn()];
    const page = await open('<p>a|</p>', { onChange, onBlur });
    onChange.mockClear();
    page.press('structure');
    expect(onChange).not.toHaveBeenCalled();
    page.type('b');
    page.select(1);
    expect(onChange).toHaveBeenCalledTimes(1);
    page.view.dom.dispatchEvent(new FocusEvent('blur'));
    expect(onBlur).toHaveBeenCalledTimes(1);
  });

  test.each([
    ['<p><img src="https://a.example/x.png" alt="x"></p>', 'Change the picture'],
    ['<p><iframe src="https://cams.example/1" title="x"></iframe></p>', 'Embed'],
    ['<p>a</p>', null],
  ])('a double click on a thing opens what changes it: %s', async (html, title) => {
    const page = await open(html);
    const node = page.view.state.doc.nodeAt(1)!;
    const selection = node.isText ? TextSelection.create(page.view.state.doc, 1) : NodeSelection.create(page.view.state.doc, 1);
    page.view.dispatch(page.view.state.tr.setSelection(selection));
    const isTaken = page.view.someProp('handleDoubleClickOn', (handle) => handle(page.view, 1, node, 1, new MouseEvent('dblclick'), true));
    expect([isTaken === true, page.isDialogOpen()]).toEqual([title !== null, title !== null]);
    if (title !== null) expect(text(page.dialog())).toContain(title);
  });

  test.each([
    ['Mod-s', true],
    ['Alt-s', true],
    ['s', false],
    ['Mod-b', false],
  ])('keys that are not its own reach the page: %s %s', async (name, reaches) => {
    const page = await open('<p>a|</p>');
    const heard = jest.fn((event: Event) => event.preventDefault());
    page.host.addEventListener('keydown', heard);
    const isTaken = page.key(name);
    expect([heard.mock.calls.length > 0, isTaken]).toEqual([reaches, name !== 's']);
  });

  test('a click on a link leads nowhere', async () => {
    const page = await open('<p><a href="/t">a</a></p>');
    const click = new MouseEvent('click', { bubbles: true, cancelable: true });
    page.view.dom.querySelector('a')!.dispatchEvent(click);
    expect(click.defaultPrevented).toBe(true);
  });

  test('taken out of the page, it leaves nothing behind', async () => {
    const page = await open('<p>a</p>');
    page.editor.destroy();
    expect(page.host.childElementCount).toBe(0);
    expect(page.editor.html).toBe('<p>a</p>');
    page.editor.press('bold');
    page.editor.replaceAll('<p>b</p>');
  });

  test.each([
    [{ bar: 'bottom' }, ['te-text', 'te-toolbar']],
    [{ bar: 'top' }, ['te-toolbar', 'te-text']],
  ])('the buttons stand where the profile says: %j', async (surface, order) => {
    const page = await open('<p>a</p>', { profile: { ...PROFILE, surface } });
    const names = [...page.host.querySelector('.te-root')!.children].map(({ className }) => className.split(' ')[0]!);
    expect(names.filter((name) => order.includes(name))).toEqual(order);
  });

  test.each([
    [{ height: 'fixed', heightPx: 300 }, '300px', '', ''],
    [{ height: 'growing', heightPx: 300 }, null, '300px', ''],
    [{ height: 'between', heightPx: 300, tallestPx: 500 }, null, '300px', '500px'],
    [{ height: 'between', heightPx: 600, tallestPx: 500 }, null, '600px', '600px'],
  ])('the text is as high as the profile says: %j', async (surface, height, least, most) => {
    const page = await open('<p>a</p>', { profile: { ...PROFILE, surface } });
    const { style } = page.host.querySelector<HTMLElement>('.te-text')!;
    expect([style.minHeight, style.maxHeight]).toEqual([least, most]);
    if (height !== null) expect(style.height).toBe(height);
  });
});

describe('the markup itself', () => {
  test('is shown, changed by hand, and taken over; what the rules take is told first', async () => {
    const page = await open('<p>a|</p>');
    page.press('source');
    await settled(300);
    const { EditorView } = await import('@codemirror/view');
    const code = (): InstanceType<typeof EditorView> => EditorView.findFromDOM(page.dialog().querySelector('.cm-editor')!)!;
    const set = (insert: string): void => code().dispatch({ changes: { from: 0, to: code().state.doc.length, insert } });
    expect(code().state.doc.toString().trim()).toBe('<p>a</p>');
    set('<p onclick="x()">b</p>');
    await page.send();
    expect(text(page.dialog().querySelector('.te-told'))).toContain('The rules change what you wrote.');
    expect(page.editor.html).toBe('<p>a</p>');
    page.push('Show it as it would be');
    expect(code().state.doc.toString().trim()).toBe('<p>b</p>');
    set('<p onclick="x()">c</p>');
    await page.send();
    await page.send();
    expect(page.isDialogOpen()).toBe(false);
    expect(page.editor.html).toBe('<p>c</p>');
  });

  test('that was not changed stays to the letter', async () => {
    const page = await open('<p>a|</p>\n\n\n<ul><li>b</li></ul>');
    page.press('source');
    await settled(300);
    await page.send();
    expect(page.editor.html).toBe('<p>a</p>\n\n\n<ul><li>b</li></ul>');
  });
});
