import type { JsonObject } from '@typikon/core';
import { Selection } from 'prosemirror-state';
import { PROFILE } from './everything';
import { completePage, openPage, settled, type EditorPage, type PageOptions } from './page';

completePage();

const open = (marked: string, paste: JsonObject = {}, options: Partial<PageOptions> = {}): Promise<EditorPage> =>
  openPage(marked, { profile: { ...PROFILE, paste }, ...options });

interface Brought {
  types?: Readonly<Record<string, string>>;
  files?: readonly File[];
}

function transferOf({ types = {}, files = [] }: Brought): unknown {
  return { types: [...Object.keys(types), ...(files.length > 0 ? ['Files'] : [])], files, getData: (type: string) => types[type] ?? '' };
}

/** Pastes what a clipboard holds; whether the editor took it. */
async function paste(page: EditorPage, brought: Brought): Promise<boolean> {
  const event = new Event('paste', { bubbles: true, cancelable: true });
  Object.defineProperty(event, 'clipboardData', { value: transferOf(brought) });
  page.view.dom.dispatchEvent(event);
  await settled();
  return event.defaultPrevented;
}

async function drop(page: EditorPage, brought: Brought): Promise<boolean> {
  const event = new MouseEvent('drop', { bubbles: true, cancelable: true });
  Object.defineProperty(event, 'dataTransfer', { value: transferOf(brought) });
  page.view.dom.dispatchEvent(event);
  await settled();
  return event.defaultPrevented;
}

const html = (markup: string, text = ''): Brought => ({ types: { 'text/html': markup, ...(text === '' ? {} : { 'text/plain': text }) } });
const strip = (page: EditorPage): HTMLElement => page.host.querySelector<HTMLElement>('.te-paste')!;
const said = (page: EditorPage): string => strip(page).querySelector('p')!.textContent;
const offers = (page: EditorPage): string[] =>
  strip(page).hidden ? [] : [...strip(page).querySelectorAll('button')].map(({ textContent }) => textContent);

const PICTURE = 'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==';

describe('a paste', () => {
  test('goes through the passes and rules, and the strip says what was done', async () => {
    const page = await open('<p>a |b</p>');
    expect(await paste(page, html('<p style="color:red" onclick="x()">one <b>two</b></p>', 'one two'))).toBe(true);
    expect(page.editor.html).toContain('one <b>two</b>');
    expect(page.editor.html).not.toMatch(/style|onclick/);
    expect(said(page)).toMatch(/^Tidied: \d+ changes\.$/);
    expect(offers(page)).toEqual(['Text only', 'Undo']);
  });

  test('that needed nothing says so', async () => {
    const page = await open('<p>|</p>');
    await paste(page, html('<p>one</p>'));
    expect(said(page)).toBe('Pasted as it came.');
  });

  test('is one step, which the strip takes back', async () => {
    const page = await open('<p>a|</p>');
    page.type('b');
    await paste(page, html('<p>one</p><p>two</p>'));
    expect(page.editor.html).toBe('<p>abone</p>\n<p>two</p>');
    page.push('Undo');
    expect(page.editor.html).toBe('<p>ab</p>');
    expect(strip(page).hidden).toBe(true);
  });

  test('can be had as its words alone afterwards', async () => {
    const page = await open('<p>|</p>');
    await paste(page, html('<h2>one</h2><p><em>two</em></p>', 'one\n\ntwo'));
    expect(page.editor.html).toBe('<h2>one</h2>\n<p><em>two</em></p>');
    page.push('Text only');
    expect(page.editor.html).toBe('<p>one</p>\n<p>two</p>');
    expect(offers(page)).not.toContain('Text only');
  });

  test('is told to whoever listens, and what was done can be seen', async () => {
    const [onPaste, onSeeChanges] = [jest.fn(), jest.fn()];
    const page = await open('<p>|</p>', {}, { onPaste, onSeeChanges });
    await paste(page, html('<p>one</p>'));
    expect(offers(page)).not.toContain('See');
    await paste(page, html('<p onclick="x()">one</p>'));
    expect(onPaste.mock.calls.map(([payload, { html: result }]) => [payload.types['text/html'], result])).toEqual([
      ['<p>one</p>', '<p>one</p>'],
      ['<p onclick="x()">one</p>', '<p>one</p>'],
    ]);
    page.push('See');
    expect(onSeeChanges).toHaveBeenCalledTimes(1);
  });

  test('what the strip says goes with the next change', async () => {
    const page = await open('<p>|</p>');
    await paste(page, html('<p>one</p>'));
    page.type('x');
    expect(strip(page).hidden).toBe(true);
  });

  test('of words alone stays words alone', async () => {
    const page = await open('<p>|</p>');
    await paste(page, { types: { 'text/plain': 'a < b' } });
    expect(page.editor.html).toBe('<p>a &lt; b</p>');
    expect(offers(page)).toEqual(['Undo']);
  });

  test.each([
    ['pasted', paste],
    ['dropped', drop],
  ])('a file that is no picture is not put in when %s, and not opened in place of the text', async (_how, bring) => {
    const page = await open('<p>a|</p>');
    const report = { files: [new File(['%PDF'], 'report.pdf', { type: 'application/pdf' })] };
    expect([await bring(page, report), said(page), page.editor.html]).toEqual([true, 'Of files, only pictures can be put in.', '<p>a</p>']);
    expect(await bring(page, {})).toBe(false);
  });

  test('no file is opened in place of computer text', async () => {
    const page = await open('<pre>a|</pre>');
    expect(await drop(page, { files: [new File(['x'], 'x.png', { type: 'image/png' })] })).toBe(true);
    expect(page.editor.html).toBe('<pre>a</pre>');
  });

  test('that brings nothing is left alone, as is one into computer text', async () => {
    const empty = await open('<p>|</p>');
    await paste(empty, { types: { 'text/plain': '  ' } });
    expect(strip(empty).hidden).toBe(true);
    const page = await open('<pre>|</pre>');
    await paste(page, html('<p onclick="x()">one</p>', 'one'));
    expect(strip(page).hidden).toBe(true);
  });

  test('of what was copied from an editor is left to the editor', async () => {
    const page = await open('<p>|</p>');
    await paste(page, html('<p data-pm-slice="1 1 []" onclick="x()">one</p>'));
    expect(strip(page).hidden).toBe(true);
    expect(page.editor.html).not.toContain('onclick');
  });

  test('keeps the ids of two pastes apart', async () => {
    const page = await open(
      '<p>|</p>',
      {},
      {
        profile: {
          ...PROFILE,
          markup: {
            ...(PROFILE['markup'] as JsonObject),
            elements: { ...((PROFILE['markup'] as JsonObject)['elements'] as JsonObject), li: { attributes: { id: { test: 'text' } } } },
          },
        },
      },
    );
    const note = html(
      '<p>one<a href="#_ftn1" name="_ftnref1"><span class=MsoFootnoteReference>[1]</span></a></p><div id=ftn1><p class=MsoFootnoteText><a href="#_ftnref1" name="_ftn1">[1]</a> Note</p></div><p style="mso-list:none" class=MsoNormal></p>',
    );
    await paste(page, note);
    page.view.dispatch(page.view.state.tr.setSelection(Selection.atEnd(page.view.state.doc)));
    await paste(page, note);
    const ids = [...page.editor.html.matchAll(/\sid="([^"]*)"/g)].map(([, id]) => id);
    expect(new Set(ids).size).toBe(ids.length);
  });
});

describe('how it is pasted', () => {
  test('is asked where the profile says so', async () => {
    for (const [answer, result] of [
      ['Tidied', '<p><em>one</em></p>'],
      ['Text only', '<p>one</p>'],
      ['Not at all', '<p></p>'],
    ] as const) {
      const page = await open('<p>|</p>', { choice: 'ask' });
      await paste(page, html('<p><em>one</em></p>', 'one'));
      expect(said(page)).toBe('How should it be pasted?');
      expect(page.editor.html).toBe('<p></p>');
      page.push(answer);
      expect(page.editor.html).toBe(result);
    }
  });

  test('as words alone where the profile says so', async () => {
    const page = await open('<p>|</p>', { choice: 'plain' });
    await paste(page, html('<p><em>one</em></p>', 'one'));
    expect(page.editor.html).toBe('<p>one</p>');
  });

  test('as words alone after the button, once', async () => {
    const page = await open('<p>|</p>');
    page.press('paste-text');
    expect(page.said()).toBe('The next paste brings the words alone.');
    await paste(page, html('<p data-pm-slice="1 1 []"><em>one</em></p>', 'one'));
    expect(page.editor.html).toBe('<p>one</p>');
    await paste(page, html('<p><em>two</em></p>', 'two'));
    expect(page.editor.html).toBe('<p>one<em>two</em></p>');
  });
});

describe('pictures', () => {
  const withPicture = html(`<p>a <img src="${PICTURE}" alt="A"></p>`);

  test('stand as boxes where the library takes none', async () => {
    const page = await open('<p>|</p>');
    await paste(page, withPicture);
    expect(page.editor.html).not.toContain('data:');
    expect(said(page)).toContain('one picture to upload');
    expect(page.view.dom.querySelectorAll('.te-stand-in')).toHaveLength(1);
    page.push('Undo');
    expect(page.view.dom.querySelectorAll('.te-stand-in')).toHaveLength(0);
  });

  test('go into the library first', async () => {
    let done = (): void => {};
    const uploadPictures = jest.fn(() => new Promise<void>((resolve) => (done = resolve)));
    const page = await open('<p>|</p>', { passes: { pictures: { embedded: 'library' } } }, { uploadPictures });
    await paste(page, withPicture);
    expect(said(page)).toBe('Taking a picture into the library …');
    expect(page.editor.html).toBe('<p></p>');
    done();
    await settled();
    expect(page.editor.html).toMatch(/<img src="[^"]+" alt="A"/);
    expect(uploadPictures.mock.calls).toHaveLength(1);
  });

  test.each([
    [new Error('The library is full.'), 'Not stored: The library is full.'],
    [{ not: 'an error' }, 'Not stored: the library does not answer.'],
  ])('that the library refuses stand as boxes, and it is told: %p', async (error, words) => {
    const page = await open(
      '<p>|</p>',
      { passes: { pictures: { embedded: 'library' } } },
      { uploadPictures: jest.fn().mockRejectedValue(error) },
    );
    await paste(page, withPicture);
    await settled();
    expect(said(page)).toContain(words);
    expect(page.view.dom.querySelectorAll('.te-stand-in')).toHaveLength(1);
  });

  test('that come as files alone are taken as well', async () => {
    const page = await open('<p>|</p>');
    expect(await paste(page, { files: [new File(['x'], 'a.png', { type: 'image/png' })] })).toBe(true);
    await settled(50);
    expect(page.view.dom.querySelectorAll('.te-stand-in')).toHaveLength(1);
  });
});

describe('a drop', () => {
  test('goes through the passes and rules as well, to where it was dropped', async () => {
    const page = await open('<p>a|</p>');
    expect(await drop(page, html('<p onclick="x()">one</p>'))).toBe(true);
    expect(page.editor.html).toBe('<p>onea</p>');
  });

  test('of what the editor itself holds is left to it', async () => {
    const page = await open('<p>a|</p>');
    await drop(page, html('<p data-pm-slice="1 1 []">one</p>'));
    expect(strip(page).hidden).toBe(true);
  });
});
