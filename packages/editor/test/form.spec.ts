import { readHouseLimits } from '@typikon/core';
import { defineTypikonEditor, draftsInBrowser, TypikonEditor, type EditorConfiguration } from '../src/index';
import { completePage, resolvedOf, settled } from './page';

completePage();
defineTypikonEditor();
defineTypikonEditor();

const SURFACE = {
  pageKind: { name: 'Page', stylesheets: [], wrapper: [], contentWidthPx: 700 },
  css: [],
  baseAddress: 'https://harbour.example/',
  language: 'en',
} as unknown as EditorConfiguration['surface'];
const note = { format: 'typikon-profile/1', name: 'Note', markup: { elements: { p: {}, strong: {} } } };
const CONFIGURATION: EditorConfiguration = { profile: { id: 'note', documents: { note } }, surface: SURFACE };

// jsdom knows no validity of elements of one's own; it is kept here as a browser keeps it.
const validity = new WeakMap<HTMLElement, { flags: ValidityStateFlags; message: string; anchor: HTMLElement | undefined }>();
TypikonEditor.prototype.attachInternals = function (this: HTMLElement) {
  return {
    form: null,
    setValidity: (flags: ValidityStateFlags, message = '', anchor?: HTMLElement) => validity.set(this, { flags, message, anchor }),
    checkValidity: () => validity.get(this)?.flags.valueMissing !== true,
    reportValidity: () => validity.get(this)?.flags.valueMissing !== true,
    get validationMessage() {
      return '';
    },
    validity: {},
  } as unknown as ElementInternals;
};

async function element(
  html: string,
  attributes: Readonly<Record<string, string>> = {},
  configuration: EditorConfiguration | null = CONFIGURATION,
) {
  const one = document.createElement('typikon-editor') as TypikonEditor;
  for (const [name, value] of Object.entries(attributes)) one.setAttribute(name, value);
  one.value = html;
  one.configuration = configuration;
  document.body.replaceChildren(one);
  await one.ready;
  return one;
}

/** Types at the end of the text, as a person would. */
function type(one: TypikonEditor, words: string): void {
  const view = one['editor']!['view']!;
  view.dispatch(view.state.tr.insertText(words, view.state.doc.content.size - 1));
}

const strip = (one: TypikonEditor): HTMLElement | null => one.querySelector('.te-draft');
const press = (one: TypikonEditor, label: string): void =>
  [...one.querySelectorAll('button')].find(({ textContent }) => textContent === label)!.click();

describe('the element', () => {
  test('cleans what is set by the rules, and gives it back when it is asked', async () => {
    const one = await element('<p onclick="x()">a</p>');
    expect(one.value).toBe('<p>a</p>');
    one.value = '<h2>b</h2><p><b>c</b></p>';
    await one.ready;
    expect(one.value).not.toMatch(/h2|<b>/);
    expect(one.value).toContain('b');
    type(one, '!');
    expect(one.value).toContain('!');
  });

  test('keeps its value without a configuration, and out of the page', async () => {
    const one = await element('<p onclick="x()">a</p>', {}, null);
    expect(one.value).toBe('<p onclick="x()">a</p>');
    expect(one.configuration).toBeNull();
    one.configuration = CONFIGURATION;
    await one.ready;
    expect(one.value).toBe('<p>a</p>');
    type(one, 'b');
    one.remove();
    expect(one.value).toBe('<p>ab</p>');
    document.body.append(one);
    await one.ready;
    expect(one.value).toBe('<p>ab</p>');
  });

  test('takes a profile that is resolved already, and says what is wrong with one that is not there', async () => {
    const profile = resolvedOf({ markup: { elements: { p: {} } } });
    const one = await element('<p><strong>a</strong></p>', {}, { ...CONFIGURATION, profile });
    expect(one.value).toBe('<p>a</p>');
    expect(() => (one.configuration = { ...CONFIGURATION, profile: { id: 'gone', documents: { note } } })).toThrow(/gone/);
  });

  test('is narrowed by the limits of the house, but for the roles that they except', async () => {
    const limits = {
      format: 'typikon-house/1',
      markup: { elements: { p: {} } },
      trustedRoles: { press: { except: ['/elements/strong'] } },
    };
    const read = readHouseLimits(limits);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const { house } = read;
    const html = '<p><strong>a</strong></p>';
    expect((await element(html, {}, { ...CONFIGURATION, house })).value).toBe('<p>a</p>');
    expect((await element(html, {}, { ...CONFIGURATION, house, role: 'press' })).value).toBe(html);
    expect((await element(html, {}, { ...CONFIGURATION, house, role: '' })).value).toBe('<p>a</p>');
    expect((await element(html, {}, { ...CONFIGURATION, house: null })).value).toBe(html);
  });

  test('tells of each change, and of leaving it after one', async () => {
    const one = await element('<p>a</p>');
    const heard: string[] = [];
    for (const name of ['input', 'change']) one.addEventListener(name, () => heard.push(name));
    const blur = (): boolean => one['editor']!['view']!.dom.dispatchEvent(new FocusEvent('blur'));
    blur();
    expect(heard).toEqual([]);
    type(one, 'b');
    type(one, 'c');
    blur();
    blur();
    expect(heard).toEqual(['input', 'input', 'change']);
  });

  test('is a field of its form', async () => {
    const one = await element('<p>a</p>', { name: 'body' });
    const form = document.createElement('form');
    one.formAssociatedCallback(form);
    const send = (): string | undefined => {
      const event = Object.assign(new Event('formdata'), { formData: new Map<string, string>() });
      form.dispatchEvent(event);
      return event.formData.get('body');
    };
    expect(one.name).toBe('body');
    type(one, 'b');
    expect(send()).toBe('<p>ab</p>');
    one.removeAttribute('name');
    expect(send()).toBeUndefined();
    one.setAttribute('name', 'body');
    one.formAssociatedCallback(null);
    expect(send()).toBeUndefined();
  });

  test('goes back to where it began when the form is reset', async () => {
    const one = await element('<p>a</p>', { value: '<p>first</p>' });
    one.formResetCallback();
    await one.ready;
    expect(one.value).toBe('<p>first</p>');
    one.removeAttribute('value');
    one.formResetCallback();
    await one.ready;
    expect(one.value).toBe('');
  });

  test('that is required must not be empty', async () => {
    const one = await element('<p></p>', { required: '' });
    expect(one.checkValidity()).toBe(false);
    expect(validity.get(one)).toEqual({ flags: { valueMissing: true }, message: 'Please write something here.', anchor: one });
    type(one, 'a');
    expect(one.reportValidity()).toBe(true);
    one.value = '<p> </p>';
    expect(one.checkValidity()).toBe(false);
    one.removeAttribute('required');
    expect(one.checkValidity()).toBe(true);
  });

  test('can have the focus, and is named for those who do not see it', async () => {
    const one = await element('<p>a</p>', { label: 'Your notice', name: 'body' });
    expect(one.tabIndex).toBe(-1);
    expect(one.querySelector('iframe')!.title).toBe('Your notice');
    expect(one['editor']!['view']!.dom.getAttribute('aria-label')).toBe('Your notice');
    one.focus();
    expect(document.activeElement).toBe(one.querySelector('iframe'));
    expect((await element('<p>a</p>', { name: 'body' })).querySelector('iframe')!.title).toBe('body');
    expect((await element('<p>a</p>', { tabindex: '3' })).tabIndex).toBe(3);
  });
});

describe('what was not stored', () => {
  const withDrafts = (): EditorConfiguration => ({ ...CONFIGURATION, services: { drafts: draftsInBrowser('text', localStorage) } });
  const kept = (): unknown => JSON.parse(localStorage.getItem('typikon-text:text') ?? 'null');
  beforeEach(() => {
    // An editor that is taken away keeps what was written last.
    document.body.replaceChildren();
    localStorage.clear();
  });

  test('is kept in the browser a moment after the last change, and forgotten once it is stored', async () => {
    const one = await element('<p>a</p>', {}, withDrafts());
    type(one, 'b');
    expect(kept()).toBeNull();
    await settled(500);
    expect(kept()).toMatchObject({ html: '<p>ab</p>' });
    one.stored();
    expect(kept()).toBeNull();
  });

  test.each([
    ['the author leaves the page', () => window.dispatchEvent(new Event('pagehide'))],
    ['the editor is taken away', (one: TypikonEditor) => one.remove()],
  ])('is kept to the last letter where %s at once', async (_, leave) => {
    const one = await element('<p>a</p>', {}, withDrafts());
    type(one, 'b');
    leave(one);
    expect(kept()).toMatchObject({ html: '<p>ab</p>' });
  });

  test('is not kept again by leaving once it is stored', async () => {
    const one = await element('<p>a</p>', {}, withDrafts());
    type(one, 'b');
    one.stored();
    one.remove();
    window.dispatchEvent(new Event('pagehide'));
    expect(kept()).toBeNull();
  });

  test('is offered back, cleaned, and taken', async () => {
    localStorage.setItem('typikon-text:text', JSON.stringify({ html: '<p onclick="x()">b</p>', at: '2026-03-03T10:20:00Z' }));
    const takenBack = jest.fn();
    const one = await element(
      '<p>a</p>',
      {},
      { ...CONFIGURATION, services: { drafts: { ...draftsInBrowser('text', localStorage), takenBack } } },
    );
    expect(strip(one)!.textContent).toMatch(/^A text that was not stored is still in this browser \(3 Mar, \d\d:20\)\./);
    expect(takenBack).not.toHaveBeenCalled();
    press(one, 'Take it back');
    expect(one.value).toBe('<p>b</p>');
    expect(takenBack).toHaveBeenCalledTimes(1);
    expect(strip(one)).toBeNull();
  });

  test('is thrown away when it is not wanted', async () => {
    localStorage.setItem('typikon-text:text', JSON.stringify({ html: '<p>b</p>', at: 'some day' }));
    const one = await element('<p>a</p>', {}, withDrafts());
    expect(strip(one)!.textContent).toContain('still in this browser.');
    press(one, 'Throw it away');
    expect([one.value, kept(), strip(one)]).toEqual(['<p>a</p>', null, null]);
  });

  test('is not offered where it is what is there', async () => {
    localStorage.setItem('typikon-text:text', JSON.stringify({ html: '<p>a</p>', at: '2026-03-03T10:20:00Z' }));
    expect(strip(await element('<p>a</p>', {}, withDrafts()))).toBeNull();
  });

  test.each(['{', 'null', '{"html":1,"at":"x"}', '{"html":"<p>b</p>"}'])('that cannot be read is as none: %s', (broken) => {
    localStorage.setItem('typikon-text:text', broken);
    expect(draftsInBrowser('text', localStorage).read()).toBeNull();
  });

  test('does not keep anybody from writing where there is no room', () => {
    const full = {
      setItem: () => {
        throw new Error('full');
      },
    } as unknown as Storage;
    expect(() => draftsInBrowser('text', full).write('a')).not.toThrow();
  });
});
