import { NodeSelection } from 'prosemirror-state';
import { openMenu } from '../src/panels/menu';
import { stylesheetsOf } from '../src/surface';
import { PROFILE } from './everything';
import { completePage, openPage, settled, type EditorPage } from './page';

completePage();

/** Gives an element its box on the page; nothing has one here by itself. */
function box(element: Element, x: number, y: number, width: number, height: number): void {
  Object.defineProperties(element, {
    getBoundingClientRect: { configurable: true, value: () => new DOMRect(x, y, width, height) },
    offsetWidth: { configurable: true, value: width },
    offsetHeight: { configurable: true, value: height },
  });
}

describe('a menu stands below its button, inside the editor', () => {
  const widthOf = jest.spyOn(HTMLElement.prototype, 'offsetWidth', 'get').mockReturnValue(200);
  afterAll(() => widthOf.mockRestore());

  test.each([
    ['below its left edge', [150, 40, 30, 24], ['46px', '50px', '692px']],
    ['within the right edge', [650, 40, 30, 24], ['46px', '396px', '692px']],
    ['not left of the left edge', [90, 40, 30, 24], ['46px', '4px', '692px']],
    ['as high as the window has room', [150, 600, 30, 24], ['606px', '50px', '132px']],
    ['but never less than a few entries', [150, 700, 30, 24], ['706px', '50px', '120px']],
  ] as const)('%s', (_what, [x, y, width, height], placed) => {
    const root = document.createElement('div');
    root.className = 'te-root';
    const anchor = document.createElement('button');
    root.append(anchor);
    document.body.replaceChildren(root);
    box(root, 100, 20, 600, 500);
    box(anchor, x, y, width, height);
    const close = openMenu(anchor, 'Menu', [{ label: 'One', press: () => undefined }], () => undefined);
    const { style } = root.querySelector<HTMLElement>('.te-menu')!;
    expect([style.top, style.left, style.maxHeight]).toEqual(placed);
    expect(anchor.getAttribute('aria-expanded')).toBe('true');
    close();
    expect([root.querySelector('.te-menu'), anchor.getAttribute('aria-expanded')]).toEqual([null, 'false']);
  });

  test('it closes when the text changes below it', async () => {
    const page = await openPage('<p>a|</p>', { profile: PROFILE });
    page.press('block-kind');
    expect(page.menu().length).toBeGreaterThan(1);
    page.view.dispatch(page.view.state.tr.setMeta('nothing', true));
    expect(page.menu().length).toBeGreaterThan(1);
    page.view.dispatch(page.view.state.tr.insertText('b'));
    expect(page.menu()).toEqual([]);
  });
});

describe('the keys of a menu', () => {
  const shown = (columns: number): { press: (key: string) => [label: string | null, isTaken: boolean]; closed: jest.Mock } => {
    const root = document.createElement('div');
    const anchor = document.createElement('button');
    root.append(anchor);
    document.body.replaceChildren(root);
    const closed = jest.fn();
    const entries = ['One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven'].map((label) => ({ label, press: () => undefined }));
    openMenu(anchor, 'Menu', entries, closed, columns);
    return {
      closed,
      press(key) {
        const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
        (root.querySelector('.te-menu')?.contains(document.activeElement) ? document.activeElement! : root).dispatchEvent(event);
        return [root.querySelector('.te-menu') === null ? null : document.activeElement!.textContent, event.defaultPrevented];
      },
    };
  };

  test.each([
    [1, 'ArrowDown ArrowDown ArrowUp', 'Two'],
    [1, 'ArrowUp', 'Seven'],
    [1, 'ArrowRight ArrowRight ArrowLeft', 'Two'],
    [1, 'End', 'Seven'],
    [1, 'End ArrowDown', 'One'],
    [1, 'End Home', 'One'],
    [1, 't', 'Two'],
    [1, 't T', 'Three'],
    [1, 't t t', 'Two'],
    [1, 'x', 'One'],
    [3, 'ArrowDown', 'Four'],
    [3, 'ArrowDown ArrowRight', 'Five'],
    [3, 'ArrowDown ArrowDown ArrowDown', 'Seven'],
    [3, 'ArrowRight ArrowUp', 'One'],
    [3, 'ArrowDown ArrowUp', 'One'],
  ])('in %i columns %s leads to %s', (columns, keys, label) => {
    const menu = shown(columns);
    expect(keys.split(' ').map(menu.press).pop()![0]).toBe(label);
    const { className, style } = document.querySelector<HTMLElement>('.te-menu')!;
    expect([className, style.gridTemplateColumns]).toEqual(columns === 1 ? ['te-menu', ''] : ['te-menu te-grid', 'repeat(3, 1fr)']);
  });

  test.each([
    ['Escape', null, true],
    ['Tab', null, true],
    ['Enter', 'One', false],
    ['F5', 'One', false],
    ['ArrowDown', 'Two', true],
    ['o', 'One', true],
  ])('%s is taken or left to the page', (key, label, isTaken) => {
    const menu = shown(1);
    expect(menu.press(key)).toEqual([label, isTaken]);
    expect(menu.closed).toHaveBeenCalledTimes(label === null ? 1 : 0);
  });
});

test.each([
  ['page', ['page.css']],
  ['editing', ['p { }']],
  ['both', ['page.css', 'p { }']],
] as const)('the surface stands on the stylesheets of: %s', (stylesheets, css) =>
  expect(stylesheetsOf({ stylesheets, editingCss: 'p { }' } as never, { css: ['page.css'] })).toEqual(css),
);

test.each([
  ['move-up', '<p>a</p><hr><p>b</p>', '<hr><p>a</p><p>b</p>'],
  ['move-down', '<p>a</p><hr><p>b</p>', '<p>a</p><p>b</p><hr>'],
])('%s takes a thing that is selected along', async (button, before, after) => {
  const page = await openPage(before, { profile: PROFILE });
  page.view.dispatch(page.view.state.tr.setSelection(NodeSelection.create(page.view.state.doc, 3)));
  page.press(button);
  expect(page.editor.html).toBe(after);
  expect((page.view.state.selection as NodeSelection).node.type.spec['element']).toBe('hr');
});

describe('the buttons beside what is selected', () => {
  /** The bar after a selection whose first line has that place in the frame. */
  async function bar(at: { left: number; top: number; bottom: number }, select: (page: EditorPage) => void): Promise<HTMLElement> {
    const page = await openPage('<p>a|b</p>', { profile: { ...PROFILE, surface: { bar: 'selection' } } });
    const dom = page.host.querySelector<HTMLElement>('.te-toolbar')!;
    box(dom, 0, 0, 300, 40);
    box(page.host.querySelector('.te-root')!, 50, 100, 800, 600);
    box(page.host.querySelector('iframe')!, 50, 130, 800, 500);
    page.view.coordsAtPos = () => ({ ...at, right: at.left });
    select(page);
    await settled(50);
    return dom;
  }
  const some = (page: EditorPage): void => page.select(1, 3);

  test.each([
    ['stand above it', { left: 60, top: 200, bottom: 220 }, ['182px', '60px']],
    ['below it where there is no room', { left: 60, top: 30, bottom: 50 }, ['88px', '60px']],
    ['just above it where there is just room', { left: 60, top: 48, bottom: 68 }, ['30px', '60px']],
    ['within the right edge', { left: 700, top: 200, bottom: 220 }, ['182px', '496px']],
    ['within the left edge', { left: -20, top: 200, bottom: 220 }, ['182px', '4px']],
  ])('%s', async (_what, at, placed) => {
    const { style } = await bar(at, some);
    expect([style.top, style.left]).toEqual(placed);
  });

  test('are out of the way where nothing is selected', async () => {
    const at = { left: 60, top: 200, bottom: 220 };
    expect((await bar(at, some)).classList.contains('te-idle')).toBe(false);
    expect((await bar(at, (page) => page.select(2))).classList.contains('te-idle')).toBe(true);
    const isIdleInUse = await bar(at, (page) => {
      page.host.querySelector<HTMLButtonElement>('[data-button=bold]')!.focus();
      page.select(2);
    });
    expect(isIdleInUse.classList.contains('te-idle')).toBe(false);
  });
});

describe('the frame', () => {
  const grown = async (surface: object, act: (page: EditorPage) => void): Promise<string> => {
    const page = await openPage('<p>a|</p>', { profile: { ...PROFILE, surface: { heightPx: 300, ...surface } } });
    box(page.view.dom, 0, 0, 700, 410.2);
    act(page);
    return page.host.querySelector<HTMLElement>('.te-text')!.style.height;
  };
  test('grows with its text as that changes', async () => {
    expect(await grown({ height: 'growing' }, (page) => page.type('b'))).toBe('435px');
    expect(await grown({ height: 'growing' }, () => undefined)).toBe('24px');
  });
  test('or stays as it is', async () => expect(await grown({ height: 'fixed' }, (page) => page.type('b'))).toBe('300px'));
});
