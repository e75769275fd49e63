import { TypikonEditor, defineTypikonEditor, type EditorConfiguration } from '../src/index';
import { PROFILE } from './everything';
import { completePage, openPage, settled, type EditorPage } from './page';

/** Whether the server answers when a part of the editor is asked for, and what is there already. */
let isReachable = true;
let arrived: object | null = null;
let readsPatterns = true;
jest.mock('../src/paste/later', () => ({
  pastingIfThere: () => arrived,
  pasting: () =>
    isReachable
      ? Promise.resolve((arrived = jest.requireActual<object>('@typikon/core/pasting')))
      : Promise.reject(new TypeError('Failed to fetch')),
}));
jest.mock('@typikon/core/editing', () => ({
  ...jest.requireActual<object>('@typikon/core/editing'),
  canReadPatterns: () => readsPatterns,
}));

completePage();
defineTypikonEditor();
TypikonEditor.prototype.attachInternals = () => ({ form: null, setValidity: () => undefined }) as unknown as ElementInternals;

async function paste(page: EditorPage, html: string): Promise<void> {
  const event = new Event('paste', { bubbles: true, cancelable: true });
  const clipboardData = { types: ['text/html'], files: [], getData: (type: string) => (type === 'text/html' ? html : '') };
  Object.defineProperty(event, 'clipboardData', { value: clipboardData });
  page.view.dom.dispatchEvent(event);
  expect(event.defaultPrevented).toBe(true);
  await settled();
}
const said = (page: EditorPage): string => page.host.querySelector('.te-paste p')!.textContent;

describe('a paste before what takes it in has come', () => {
  beforeEach(() => {
    arrived = null;
    isReachable = true;
  });

  test('waits for it', async () => {
    const page = await openPage('<p>a |b</p>', { profile: PROFILE });
    await paste(page, '<p>one <b>two</b></p>');
    expect(page.editor.html).toContain('one <b>two</b>');
    expect(said(page)).toBe('Pasted as it came.');
  });

  test('says so where it does not come, and is tried again with all that was pasted', async () => {
    isReachable = false;
    const page = await openPage('<p>a |b</p>', { profile: PROFILE });
    await paste(page, '<p>one</p>');
    expect(said(page)).toMatch(/^Not pasted: a part of the editor could not be loaded/);
    expect(page.editor.html).toBe('<p>a b</p>');
    isReachable = true;
    page.push('Try again');
    await settled();
    expect(page.editor.html).toContain('one');
  });
});

describe('a profile with patterns before what reads them has come', () => {
  const note = {
    format: 'typikon-profile/1',
    name: 'Note',
    markup: { elements: { p: { attributes: { id: { test: 'pattern', pattern: 'x[0-9]+' } } } } },
  };
  const configuration: EditorConfiguration = {
    profile: { id: 'note', documents: { note } },
    surface: {
      pageKind: { name: 'Page', stylesheets: [], wrapper: [], contentWidthPx: 700 },
      css: [],
      baseAddress: 'https://harbour.example/',
      language: 'en',
    } as unknown as EditorConfiguration['surface'],
  };

  test('has its text all the while, and is ready once it can be written', async () => {
    readsPatterns = false;
    const one = document.createElement('typikon-editor') as TypikonEditor;
    one.value = '<p id="x1">a</p><p id="y">b</p>';
    one.configuration = configuration;
    document.body.replaceChildren(one);
    expect(one.textContent).toBe('The editor is being loaded …');
    expect(one.value).toBe('<p id="x1">a</p><p id="y">b</p>');
    one.value = '<p id="x2">c</p><p id="z">d</p>';
    readsPatterns = true;
    await one.ready;
    expect(one.value).toBe('<p id="x2">c</p><p>d</p>');
    expect(one.querySelector('iframe')).not.toBeNull();
  });

  test('one without patterns does not wait', async () => {
    readsPatterns = false;
    const one = document.createElement('typikon-editor') as TypikonEditor;
    one.value = '<p id="x1">a</p>';
    one.configuration = {
      ...configuration,
      profile: { id: 'note', documents: { note: { ...note, markup: { elements: { p: {} } } } } },
    };
    document.body.replaceChildren(one);
    expect(one.querySelector('iframe')).not.toBeNull();
    await one.ready;
    expect(one.value).toBe('<p>a</p>');
  });
});
