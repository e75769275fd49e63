import { compileRules, resolveProfile, type ButtonId, type JsonObject } from '@typikon/core';
import { EditorState, TextSelection } from 'prosemirror-state';
import { buildToolbar, compileSchema, readDocument } from '../src/index';
import { markRange } from '../src/selection';

const source: JsonObject = {
  format: 'typikon-profile/1',
  name: 'It',
  toolbar: {
    order: ['words', 'links', 'empty', 'rare'],
    groups: {
      words: { label: 'Words', buttons: ['bold', 'underline'] },
      links: { label: 'Links', buttons: ['link', 'undo'] },
      empty: { label: 'Empty', buttons: [] },
      rare: { label: 'Rare', buttons: ['structure'], inMore: true },
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
const rules = compileRules(resolved());
const schema = compileSchema(rules);

function stateOf(html: string, from: number, to: number): EditorState {
  const state = EditorState.create({ doc: readDocument(html, schema).doc });
  return state.apply(state.tr.setSelection(TextSelection.create(state.doc, from, to)));
}

describe('the toolbar', () => {
  const pressed: ButtonId[] = [];
  const leave = jest.fn();
  const toolbar = buildToolbar({ profile, rules, options: profile.toolbar.options }, document, (id) => pressed.push(id), leave);
  document.body.append(toolbar.dom);
  const buttons = (): HTMLButtonElement[] => [...toolbar.dom.querySelectorAll<HTMLButtonElement>('[data-button]')];
  const key = (name: string): void => {
    document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true }));
  };

  test('shows the groups in order, without those that are empty or not named', () => {
    expect([...toolbar.dom.querySelectorAll('.te-group')].map((group) => group.getAttribute('aria-label'))).toEqual([
      'Words',
      'Links',
      'Rare',
    ]);
    expect(buttons().map(({ dataset }) => dataset['button'])).toEqual(['bold', 'underline', 'link', 'undo', 'structure']);
  });

  test('has one tab stop, and arrow keys lead through it around the ends, with “More” at the last', () => {
    const stops = (): string[] =>
      [...toolbar.dom.querySelectorAll<HTMLButtonElement>('button')]
        .filter(({ tabIndex }) => tabIndex === 0)
        .map((one) => one.getAttribute('aria-label')!);
    expect(stops()).toEqual(['Bold']);
    toolbar.focus();
    key('ArrowLeft');
    expect(document.activeElement?.getAttribute('aria-label')).toBe('More');
    key('ArrowRight');
    expect(stops()).toEqual(['Bold']);
    key('End');
    expect(document.activeElement?.getAttribute('aria-label')).toBe('More');
    key('Home');
    expect((document.activeElement as HTMLElement).dataset['button']).toBe('bold');
    key('Escape');
    expect(leave).toHaveBeenCalledTimes(1);
  });

  test('“More” opens, closes by Escape, and its buttons do what they say', () => {
    const more = toolbar.dom.querySelector<HTMLButtonElement>('.te-more')!;
    more.click();
    expect(more.getAttribute('aria-expanded')).toBe('true');
    expect((document.activeElement as HTMLElement).dataset['button']).toBe('structure');
    (document.activeElement as HTMLElement).click();
    expect(pressed.splice(0)).toEqual(['structure']);
    expect(more.getAttribute('aria-expanded')).toBe('false');
    more.click();
    key('Escape');
    expect(document.activeElement).toBe(more);
    expect(more.getAttribute('aria-expanded')).toBe('false');
  });

  test('says what is on, what cannot be used, and why', () => {
    toolbar.update(stateOf('<p><strong>abc</strong></p>', 1, 3), () => false);
    const [bold, underline, link, undo] = buttons();
    expect(bold!.getAttribute('aria-pressed')).toBe('true');
    expect(bold!.title).toBe('Bold (Ctrl+B)');
    expect(underline!.getAttribute('aria-disabled')).toBe('true');
    expect(underline!.title).toBe('Underline (Ctrl+U): the markup rules remove what it makes (u)');
    expect(link!.getAttribute('aria-disabled')).toBe('false');
    expect(undo!.title).toBe('Undo (Ctrl+Z): There is nothing to take back.');
    toolbar.update(stateOf('<p>abc</p>', 1, 1), (mode) => mode === 'structure');
    expect(bold!.getAttribute('aria-pressed')).toBe('false');
    expect(buttons()[4]!.getAttribute('aria-pressed')).toBe('true');
  });

  test('does not take the selection away from the text', () => {
    const event = new MouseEvent('mousedown', { cancelable: true });
    buttons()[0]!.dispatchEvent(event);
    expect(event.defaultPrevented).toBe(true);
  });

  test('a press elsewhere closes “More”, one in it does not', () => {
    const more = toolbar.dom.querySelector<HTMLButtonElement>('.te-more')!;
    const panel = toolbar.dom.querySelector<HTMLElement>('.te-more-panel')!;
    more.click();
    panel.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }));
    expect(panel.hidden).toBe(false);
    expect(document.activeElement).toBe(panel.querySelector('button'));
    document.body.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }));
    expect([panel.hidden, more.getAttribute('aria-expanded')]).toEqual([true, 'false']);
  });

  test('leaves the keys that are not its own to the page', () => {
    buttons()[0]!.focus();
    const event = new KeyboardEvent('keydown', { key: 'a', bubbles: true, cancelable: true });
    buttons()[0]!.dispatchEvent(event);
    expect(event.defaultPrevented).toBe(false);
  });

  test('begins rows where the profile says so, which none under “More” does', () => {
    const groups = {
      words: { label: 'Words', buttons: ['bold'] },
      links: { label: 'Links', buttons: ['link'], newRow: true },
      rare: { label: 'Rare', buttons: ['undo'], inMore: true, newRow: true },
    };
    const rows = buildToolbar(
      {
        profile: { ...profile, toolbar: { ...profile.toolbar, order: ['words', 'links', 'rare'], groups } } as never,
        rules,
        options: profile.toolbar.options,
      },
      document,
      () => {},
      () => {},
    );
    expect([...rows.dom.children].map(({ className }) => className)).toEqual([
      'te-group',
      'te-row',
      'te-group',
      'te-button te-more',
      'te-more-panel',
    ]);
    rows.destroy();
  });

  test('what finds no room goes under “More”, the last group first', () => {
    const folding = buildToolbar(
      { profile: { ...profile, toolbar: { ...profile.toolbar, narrow: 'more' } }, rules, options: profile.toolbar.options },
      document,
      () => {},
      () => {},
    );
    document.body.append(folding.dom);
    Object.defineProperty(folding.dom, 'clientWidth', { value: 70 });
    // Each group on the bar is 60 wide.
    Object.defineProperty(folding.dom, 'scrollWidth', { get: () => folding.dom.querySelectorAll(':scope > .te-group').length * 60 });
    folding.fit();
    expect([...folding.dom.querySelectorAll(':scope > .te-group')].map((group) => group.getAttribute('aria-label'))).toEqual(['Words']);
    expect([...folding.dom.querySelectorAll('.te-more-panel .te-group')].map((group) => group.getAttribute('aria-label'))).toEqual([
      'Links',
      'Rare',
    ]);
    expect(folding.button('link')).toBe(folding.dom.querySelector('.te-more'));
    folding.destroy();
  });
});

test('the stretch of a link is the one around the cursor, not another with the same address', () => {
  const state = stateOf('<p>a<a href="/x">bc</a>d<a href="/x">ef</a></p>', 3, 3);
  expect(markRange(state, schema.marks['mark_a']!)).toEqual({ from: 2, to: 4 });
  expect(markRange(stateOf('<p>abc</p>', 2, 2), schema.marks['mark_a']!)).toEqual({ from: 2, to: 2 });
});
