import type { JsonObject } from '@typikon/core';
import type { LibraryPicture, PictureLibrary } from '../src/index';
import { PROFILE } from './everything';
import { completePage, openPage, settled, type EditorPage } from './page';

completePage();

const picture = (name: string, rest: Partial<LibraryPicture> = {}): LibraryPicture => ({
  address: `https://harbour.example/${name}.png`,
  title: name,
  alt: `The ${name}`,
  folder: 'Harbour',
  widthPx: 1000,
  heightPx: 500,
  ...rest,
});
const SHELF = [picture('slip'), picture('quay', { widthPx: 200, heightPx: 100, alt: '' }), picture('map', { folder: 'Maps' })];

function library(rest: { list?: PictureLibrary['list'] } = {}) {
  return {
    list: jest.fn((query: string, folder: string) =>
      Promise.resolve(SHELF.filter((one) => one.title.includes(query) && (folder === '' || one.folder === folder))),
    ),
    folders: jest.fn(() => Promise.resolve(['Harbour', 'Maps'])),
    store: jest.fn<ReturnType<PictureLibrary['store']>, Parameters<PictureLibrary['store']>>((file) =>
      Promise.resolve({ picture: picture(file.name.replace('.png', ''), { alt: '' }) }),
    ),
    ...rest,
  };
}

function withOptions(options: JsonObject, elements: JsonObject = {}): JsonObject {
  const copy = JSON.parse(JSON.stringify(PROFILE)) as JsonObject;
  Object.assign(((copy['toolbar'] as JsonObject)['options'] as JsonObject)['picture'] as JsonObject, options);
  const all = (copy['markup'] as JsonObject)['elements'] as JsonObject;
  for (const [name, rule] of Object.entries(elements))
    if (rule === null) delete all[name];
    else all[name] = rule;
  return copy;
}

async function ask(before: string, pictures: PictureLibrary | undefined = library(), profile = PROFILE): Promise<EditorPage> {
  const page = await openPage(before, { profile, services: pictures === undefined ? {} : { pictures } });
  page.press('picture');
  await settled();
  return page;
}

const text = (element: Element | null): string => element?.textContent ?? '';
const titles = (page: EditorPage): string[] => [...page.dialog().querySelectorAll('.te-pictures button, .te-pictures p')].map(text);
const take = (page: EditorPage, title: string): void =>
  [...page.dialog().querySelectorAll<HTMLElement>('.te-pictures button')].find((one) => text(one) === title)!.click();
const place = (page: EditorPage, value: string): void => page.dialog().querySelector<HTMLElement>(`input[value=${value}]`)!.click();
const value = (page: EditorPage, label: string): string => {
  const found = [...page.dialog().querySelectorAll('label')].find((one) => text(one) === label)!;
  return page.dialog().querySelector<HTMLInputElement>(`#${found.htmlFor}`)!.value;
};
const bring = async (page: EditorPage, file: File): Promise<void> => {
  const drop = new Event('drop', { cancelable: true });
  Object.defineProperty(drop, 'dataTransfer', { value: { files: [file] } });
  page.dialog().querySelector('.te-picker')!.dispatchEvent(drop);
  expect(drop.defaultPrevented).toBe(true);
  await settled();
};

const SLIP = '<img src="https://harbour.example/slip.png" alt="The slip" width="720" height="360">';

test('a picture of the library is put in among words, as wide as the column', async () => {
  const page = await ask('<p>a |b</p>');
  expect(titles(page)).toEqual(['slip', 'quay', 'map']);
  take(page, 'slip');
  expect([value(page, 'What it shows'), value(page, 'Width in pixels')]).toEqual(['The slip', '720']);
  expect(text(page.dialog().querySelector('.te-preview figcaption'))).toBe('slip, 1000 × 500');
  await page.send();
  expect(page.marked).toBe(`<p>a ${SLIP}|b</p>`);
});

test('with a caption or a place it stands in a figure of its own', async () => {
  const page = await ask('<p>a|</p>');
  take(page, 'slip');
  place(page, 'right');
  page.fill('Caption', 'Low water');
  await page.send();
  expect(page.marked).toBe(`<p>a</p>\n<figure class="right">${SLIP}<figcaption>Low water</figcaption></figure>\n<p>|</p>`);
});

test('what it shows must be said, or that it only decorates', async () => {
  const page = await ask('<p>|</p>');
  await page.send();
  expect(page.complaint()).toBe('Choose a picture first.');
  take(page, 'quay');
  await page.send();
  expect(page.complaint()).toContain('Say what the picture shows');
  page.tick('It only decorates: readers who do not see it miss nothing');
  expect(page.dialog().querySelector('textarea')!.disabled).toBe(true);
  await page.send();
  expect(page.marked).toBe('<p><img src="https://harbour.example/quay.png" alt="" width="200" height="100">|</p>');
});

test('words that were written stay when another picture is taken', async () => {
  const page = await ask('<p>|</p>');
  page.fill('What it shows', 'My own words');
  take(page, 'slip');
  expect(value(page, 'What it shows')).toBe('My own words');
});

test('a width is a whole number of pixels, whatever the rules say', async () => {
  const any = { test: 'integer' };
  const img = { attributes: { src: { test: 'url' }, alt: { test: 'text' }, width: any, height: any } };
  const page = await ask('<p>|</p>', library(), withOptions({}, { img }));
  take(page, 'slip');
  for (const width of ['0', '-5']) {
    page.fill('Width in pixels', width);
    await page.send();
    expect(page.complaint()).toContain(width);
  }
  page.fill('Width in pixels', '1');
  await page.send();
  expect(page.marked).toContain('width="1" height="1"');
});

test('widths that the rules refuse or the column has no room for are told', async () => {
  const page = await ask('<p>|</p>');
  take(page, 'slip');
  const hint = (): string => text(page.dialog().querySelector('.te-details > [role=status]'));
  expect(hint()).toBe('It has 1000 pixels; the column has 720.');
  page.fill('Width in pixels', '800');
  expect(hint()).toBe('Wider than the column: 720 pixels fit.');
  for (const width of ['800', '0', '1.5']) {
    page.fill('Width in pixels', width);
    await page.send();
    expect(page.complaint()).toBe(`The rules let no picture be ${width} wide.`);
  }
  page.fill('Width in pixels', '');
  await page.send();
  expect(page.marked).toBe('<p><img src="https://harbour.example/slip.png" alt="The slip">|</p>');
});

describe('a picture that is there', () => {
  const FIGURE = `<figure class="note left"><p>[${SLIP}]</p><figcaption>Low <em>water</em></figcaption></figure>`;
  test.each<[string, (page: EditorPage) => void, string]>([
    ['another place', (page) => place(page, 'right'), FIGURE.replace('left', 'right')],
    ['no place', (page) => place(page, 'none'), FIGURE.replace(' left', '')],
    ['other words', (page) => page.fill('What it shows', 'A slip'), FIGURE.replace('The slip', 'A slip')],
    ['another caption', (page) => page.fill('Caption', 'High'), FIGURE.replace('Low <em>water</em>', 'High')],
    ['no caption', (page) => page.fill('Caption', ''), FIGURE.replace(/<figcaption>.*<\/figcaption>/, '')],
    ['nothing new', () => {}, FIGURE],
    ['another width', (page) => page.fill('Width in pixels', '100'), FIGURE.replace('width="720" height="360"', 'width="100" height="50"')],
  ])('in a figure gets %s', async (_what, change, after) => {
    const page = await ask(FIGURE);
    expect(text(page.dialog().querySelector('h2'))).toBe('Change the picture');
    expect(page.dialog().querySelector<HTMLInputElement>('.te-places input:checked')!.value).toBe('left');
    change(page);
    await page.send();
    expect(page.complaint()).toBe('');
    expect(page.marked).toBe(after);
  });

  test('in a line gets other words, and its link stays', async () => {
    const page = await ask(`<p><a href="/t">[${SLIP}]</a></p>`);
    page.fill('What it shows', 'A slip');
    await page.send();
    expect(page.marked).toBe(`<p><a href="/t">[${SLIP.replace('The slip', 'A slip')}]</a></p>`);
  });

  test('in a line gets a figure with its caption', async () => {
    const page = await ask(`<p>a [${SLIP}] b</p>`);
    page.fill('Caption', 'Low');
    await page.send();
    expect(page.editor.html).toBe(`<p>a b</p>\n<figure>${SLIP}<figcaption>Low</figcaption></figure>\n<p></p>`);
  });

  test('that only decorates is known as such', async () => {
    const page = await ask('<p>[<img src="https://harbour.example/a.png" alt="">]</p>');
    expect(page.dialog().querySelector<HTMLInputElement>('.te-tick input')!.checked).toBe(true);
  });
});

describe('without figures', () => {
  const bare = withOptions(
    {},
    {
      figure: null,
      img: { attributes: { src: { test: 'url' }, alt: { test: 'text' }, class: { test: 'tokens', values: ['left', 'right'] } } },
    },
  );
  test('the picture itself has the place, and no caption is asked for', async () => {
    const page = await ask('<p>|</p>', library(), bare);
    expect([...page.dialog().querySelectorAll('.te-places input')].map((one) => (one as HTMLInputElement).value)).toEqual([
      'none',
      'left',
      'right',
    ]);
    expect(text(page.dialog())).not.toContain('Caption');
    expect(text(page.dialog())).not.toContain('Width in pixels');
    take(page, 'slip');
    place(page, 'left');
    await page.send();
    expect(page.marked).toBe('<p><img src="https://harbour.example/slip.png" alt="The slip" class="left">|</p>');
    page.select(1, 2);
  });
});

describe('the library', () => {
  test('is searched by words and folder', async () => {
    const page = await ask('<p>|</p>');
    page.fill('Folder', 'Maps');
    await settled();
    expect(titles(page)).toEqual(['map']);
    page.fill('Find a picture', 'slip');
    await settled();
    expect(titles(page)).toEqual(['There is no such picture.']);
  });

  test('shows only the folders that the profile permits', async () => {
    const page = await ask('<p>|</p>', library(), withOptions({ folders: ['Maps'] }));
    expect(titles(page)).toEqual(['map']);
    expect([...page.dialog().querySelectorAll('select option')].map(text)).toEqual(['All folders', 'Maps']);
  });

  test('of two questions the later one counts', async () => {
    const answers: ((found: LibraryPicture[]) => void)[] = [];
    const page = await ask('<p>|</p>', library({ list: () => new Promise((resolve) => answers.push(resolve)) }));
    page.fill('Find a picture', 's');
    const [first, ...later] = answers;
    for (const answer of later) answer([SHELF[0]!]);
    first!(SHELF);
    await settled();
    expect(titles(page)).toEqual(['slip']);
  });

  test.each([
    [new Error('The library is closed.'), 'The library is closed.'],
    [{ not: 'an error' }, 'The library does not answer.'],
  ])('that fails is told: %p', async (error, words) => {
    const page = await ask('<p>|</p>', library({ list: jest.fn().mockRejectedValue(error) }));
    expect(page.complaint()).toBe(words);
  });

  test('that is not there is said', async () => {
    const page = await openPage('<p>|</p>', { profile: PROFILE });
    page.press('picture');
    expect(text(page.dialog())).toContain('There is no library of pictures here.');
  });
});

describe('a picture from this computer', () => {
  const file = (name: string, size = 5): File => new File([new Uint8Array(size)], name, { type: 'image/png' });

  test('is taken into the library and chosen', async () => {
    const shelf = library();
    const page = await ask('<p>|</p>', shelf);
    page.fill('Folder', 'Maps');
    await bring(page, file('new.png'));
    expect(shelf.store.mock.calls[0]![1]).toEqual({ alt: '', folder: 'Maps', widestPx: 1440, sameName: 'ask' });
    expect(page.dialog().querySelector('.te-pictures button[aria-pressed=true]')!.textContent).toBe('new');
    page.fill('What it shows', 'New');
    await page.send();
    expect(page.marked).toContain('src="https://harbour.example/new.png" alt="New"');
  });

  test('of a name that is taken: the author says what is to be done', async () => {
    for (const [label, sameName] of [
      ['Keep both', 'keep-both'],
      ['Replace it', 'replace'],
    ] as const) {
      const shelf = library();
      shelf.store.mockResolvedValueOnce({ existing: SHELF[0]! });
      const page = await ask('<p>|</p>', shelf);
      await bring(page, file('slip.png'));
      expect(text(page.dialog().querySelector('.te-asked'))).toContain('The library has a picture named slip already.');
      page.push(label);
      await settled();
      expect(shelf.store.mock.calls[1]![1].sameName).toBe(sameName);
      expect(text(page.dialog().querySelector('.te-asked'))).toBe('');
    }
  });

  test('of a name that is taken: the one that is there is used', async () => {
    const shelf = library();
    shelf.store.mockResolvedValueOnce({ existing: SHELF[0]! });
    const page = await ask('<p>|</p>', shelf);
    await bring(page, file('slip.png'));
    page.push('Use the one that is there');
    await page.send();
    expect(page.marked).toBe(`<p>${SLIP}|</p>`);
  });

  test('that is too large is not sent', async () => {
    const shelf = library();
    const page = await ask('<p>|</p>', shelf);
    await bring(page, file('big.png', 10 * 1024 + 1));
    expect(page.complaint()).toBe('big.png has 11 kB; 10 kB are allowed. Make it smaller and try again.');
    expect(shelf.store).not.toHaveBeenCalled();
    await bring(page, file('fits.png', 10 * 1024));
    expect(page.complaint()).toBe('');
    expect(shelf.store).toHaveBeenCalledTimes(1);
  });

  test('that the library refuses is told', async () => {
    const shelf = library();
    shelf.store.mockRejectedValueOnce(new Error('This is no picture.'));
    const page = await ask('<p>|</p>', shelf);
    await bring(page, file('x.png'));
    expect(page.complaint()).toBe('This is no picture.');
  });

  test('is not asked for where the profile takes none', async () => {
    const page = await ask('<p>|</p>', library(), withOptions({ upload: false }));
    expect(page.dialog().querySelector('input[type=file]')).toBeNull();
  });
});

describe('the handle of a picture', () => {
  const knob = (page: EditorPage): HTMLElement | null => page.view.dom.ownerDocument.querySelector('.te-knob');
  const pointer = (element: HTMLElement, type: string, clientX: number): void => {
    element.dispatchEvent(Object.assign(new MouseEvent(type, { bubbles: true, cancelable: true, clientX }), { pointerId: 1 }));
  };
  async function handled(before: string, end: string, to: number, profile = PROFILE): Promise<EditorPage> {
    const page = await openPage(before, { profile });
    const image = page.view.nodeDOM(page.view.state.selection.from) as HTMLElement;
    image.getBoundingClientRect = () => new DOMRect(0, 0, 400, 200);
    page.view.dispatch(page.view.state.tr.setSelection(page.view.state.selection));
    await settled(50);
    const handle = knob(page)!;
    handle.setPointerCapture = () => {};
    pointer(handle, 'pointerdown', 400);
    pointer(handle, 'pointermove', to);
    expect(page.view.dom.ownerDocument.querySelector('.te-size-note')!.textContent).toBe(`${Math.max(16, Math.min(720, to))} px`);
    pointer(handle, end, to);
    await settled(50);
    return page;
  }

  test.each([
    ['pointerup', 300, 'width="300" height="150"'],
    ['pointerup', 2000, 'width="720" height="360"'],
    ['pointerup', -600, 'width="16" height="8"'],
    ['pointercancel', 300, 'width="400"'],
  ])('%s at %i gives %s', async (end, to, size) => {
    const page = await handled('<p>[<img src="https://a.example/a.png" alt="A" width="400">]</p>', end, to);
    expect(page.editor.html).toBe(`<p><img src="https://a.example/a.png" alt="A" ${size}></p>`);
    expect(page.view.dom.querySelector('img')!.style.width).toBe('');
    expect(knob(page)).not.toBeNull();
  });

  test('goes as near as the rules allow', async () => {
    const limited = withOptions(
      {},
      { img: { attributes: { src: { test: 'url' }, alt: { test: 'text' }, width: { test: 'integer', min: 1, max: 250 } } } },
    );
    const page = await handled('<p>[<img src="https://a.example/a.png" alt="A" width="200">]</p>', 'pointerup', 300, limited);
    expect(page.editor.html).toContain('alt="A" width="250">');
  });

  test('is not there where nothing is selected, or widths are not kept', async () => {
    const page = await openPage('<p>a|<img src="https://a.example/a.png" alt="A"></p>', { profile: PROFILE });
    await settled(50);
    expect(knob(page)).toBeNull();
    const none = withOptions({}, { img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } } } });
    const other = await openPage('<p>[<img src="https://a.example/a.png" alt="A">]</p>', { profile: none });
    await settled(50);
    expect(knob(other)).toBeNull();
  });
});

test('what is wider than the column is noted', async () => {
  const page = await openPage(
    '<p><img src="https://a.example/a.png" alt="A" width="400"></p><table><tbody><tr><td>a</td></tr></tbody></table>',
    { profile: PROFILE },
  );
  const notes = (): string[] => [...page.view.dom.ownerDocument.querySelectorAll('.te-too-wide')].map(text);
  await settled(300);
  expect(notes()).toEqual([]);
  Object.defineProperty(page.view.dom.querySelector('table')!, 'scrollWidth', { value: 900 });
  page.view.dom.ownerDocument.defaultView!.dispatchEvent(new Event('resize'));
  await settled(300);
  expect(notes()).toEqual(['900 wide; 720 fit']);
});
