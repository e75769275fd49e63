import { compileRules, resolveProfile, type ButtonId, type JsonObject } from '@typikon/core';
import { EditorState, TextSelection } from 'prosemirror-state';
import { buildAddressStrip } from '../src/address-strip';
import { compileSchema, readHtml } from '../src/index';
import { markRange } from '../src/selection';
import { buildToolbar } from '../src/toolbar';

const source: JsonObject = {
  format: 'typikon-profile/1',
  name: 'It',
  toolbar: {
    order: ['words', 'links', 'empty'],
    groups: {
      words: { label: 'Words', buttons: ['bold', 'underline'] },
      links: { label: 'Links', buttons: ['link', 'undo'] },
      empty: { label: 'Empty', buttons: [] },
      hidden: { label: 'Hidden', buttons: ['redo'] },
    },
  },
  markup: { elements: { p: {}, strong: {}, a: { attributes: { href: { test: 'url' } } } } },
};

function resolved() {
  const resolution = resolveProfile('it', () => source);
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return resolution.resolved;
}

const { profile } = resolved();
const schema = compileSchema(compileRules(resolved()));

function stateOf(html: string, from: number, to: number): EditorState {
  const state = EditorState.create({ doc: readHtml(html, schema, document) });
  return state.apply(state.tr.setSelection(TextSelection.create(state.doc, from, to)));
}

describe('the toolbar', () => {
  const pressed: ButtonId[] = [];
  let left = 0;
  const toolbar = buildToolbar(
    profile,
    document,
    (id) => pressed.push(id),
    () => left++,
  );
  document.body.append(toolbar.dom);
  const focused = () => (document.activeElement as HTMLElement).dataset['button'];
  const key = (name: string) => document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true }));

  test('has the groups of the profile in order, without empty and unnamed ones', () => {
    expect([...toolbar.dom.querySelectorAll('[role=group]')].map((group) => group.getAttribute('aria-label'))).toEqual(['Words', 'Links']);
    expect([...toolbar.dom.querySelectorAll('button')].map((button) => button.getAttribute('aria-label'))).toEqual([
      'Bold',
      'Underline',
      'Link',
      'Undo',
    ]);
  });

  test('is one tab stop, walked by the arrow keys in a circle', () => {
    expect([...toolbar.dom.querySelectorAll('button')].map(({ tabIndex }) => tabIndex)).toEqual([0, -1, -1, -1]);
    toolbar.focus();
    expect(focused()).toBe('bold');
    key('ArrowLeft');
    expect(focused()).toBe('undo');
    key('ArrowRight');
    key('ArrowRight');
    expect(focused()).toBe('underline');
    key('End');
    expect(focused()).toBe('undo');
    key('Home');
    expect(focused()).toBe('bold');
    key('Escape');
    expect(left).toBe(1);
  });

  test('shows what is pressed, what is possible, and why not', () => {
    toolbar.update(stateOf('<p><strong>abc</strong> d</p>', 1, 3));
    const attributes = (id: ButtonId) => ['aria-pressed', 'aria-disabled', 'title'].map((name) => toolbar.button(id)!.getAttribute(name));
    expect(attributes('bold')).toEqual(['true', 'false', 'Bold (Ctrl+B)']);
    expect(attributes('underline')).toEqual(['false', 'true', 'Underline: the markup rules remove what it makes']);
    toolbar.update(stateOf('<p>abc</p>', 1, 1));
    expect(attributes('bold').slice(0, 2)).toEqual(['false', 'false']);
    expect(attributes('link').slice(0, 2)).toEqual(['false', 'true']);
  });

  test('a press is told by the button’s id, and does not take the focus away', () => {
    const down = new MouseEvent('mousedown', { bubbles: true, cancelable: true });
    toolbar.button('bold')!.dispatchEvent(down);
    expect(down.defaultPrevented).toBe(true);
    toolbar.button('link')!.click();
    expect(pressed).toEqual(['link']);
  });
});

describe('the strip that asks for an address', () => {
  const open = () => {
    const chosen: string[] = [];
    let closed = 0;
    const strip = buildAddressStrip(
      document,
      (typed) => (typed.startsWith('https:') ? { address: typed } : { refusal: `“${typed}” will not do.` }),
      () => closed++,
    );
    document.body.append(strip.dom);
    strip.open('https://old.example/', (address) => chosen.push(address));
    const input = strip.dom.querySelector('input')!;
    const submit = (text: string): void => {
      input.value = text;
      strip.dom.dispatchEvent(new Event('submit', { cancelable: true }));
    };
    return { strip, input, submit, chosen, closed: () => closed };
  };

  test('begins with the address that is there', () => {
    const { strip, input } = open();
    expect(strip.dom.hidden).toBe(false);
    expect(input.value).toBe('https://old.example/');
    expect(document.activeElement).toBe(input);
  });
  test('says why an address will not do, and stays open', () => {
    const { strip, input, submit, chosen } = open();
    submit('nonsense');
    expect(strip.dom.querySelector('p')!.textContent).toBe('“nonsense” will not do.');
    expect(input.getAttribute('aria-invalid')).toBe('true');
    expect(chosen).toEqual([]);
    submit('https://new.example/');
    expect(chosen).toEqual(['https://new.example/']);
    expect(strip.dom.hidden).toBe(true);
  });
  test('Escape and Cancel close it without a choice', () => {
    const first = open();
    first.input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    const second = open();
    [...second.strip.dom.querySelectorAll('button')].at(-1)!.click();
    for (const { strip, chosen, closed } of [first, second]) expect([strip.dom.hidden, chosen, closed()]).toEqual([true, [], 1]);
  });
});

describe('the stretch of a link around the cursor', () => {
  const link = schema.marks['mark_a']!;
  test.each([
    ['<p>a<a href="/x">bcd</a>e</p>', 3, { from: 2, to: 5 }],
    ['<p><a href="/x">a<strong>b</strong>c</a></p>', 2, { from: 1, to: 4 }],
    ['<p><a href="/x">ab</a>c<a href="/x">de</a></p>', 5, { from: 4, to: 6 }],
    ['<p>abc</p>', 2, { from: 2, to: 2 }],
  ])('%s at %i', (html, at, range) => expect(markRange(stateOf(html, at, at), link)).toEqual(range));
});
