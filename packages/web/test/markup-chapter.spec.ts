import { MarkupChapter } from '../src/features/workshop/markup-chapter';
import { Screen } from './support';

const open = (html = '<p class="x">a</p><u>b</u><u>c</u><script>d()</script>') => Screen.of(MarkupChapter, { profile: 'story-desk', html });
const row = (element: string) => `tr[data-element="${element}"]`;

test('shows each element with its attributes, its count on the bench and who decides', async () => {
  const screen = await open();
  const cells = (element: string) => screen.texts(`${row(element)} td`).slice(1);
  expect(cells('p')).toEqual(['class', '1', 'House']);
  expect(cells('u')).toEqual(['goes, its content stays', '2', 'no rule']);
  expect(cells('h1')).toEqual(['becomes h2', '0', 'House']);
  expect(cells('q')).toEqual(['cite', '0', 'here']);
  expect(cells('iframe')).toEqual(['goes, its content stays', '0', 'House limits']);
  expect(cells('script')).toEqual(['always goes with its content', '1', 'Safety floor']);
});

test('what the safety floor takes cannot be switched on', async () => {
  const screen = await open();
  expect(screen.find<HTMLInputElement>(`${row('script')} input`).disabled).toBe(true);
});

test('finds elements by name, by meaning and by attribute', async () => {
  const screen = await open();
  const names = () => screen.texts('.name');
  await screen.set('input[type=search]', 'footnote-like nonsense', 'input');
  expect(screen.texts('.none')).toEqual(['Nothing fits “footnote-like nonsense”.']);
  await screen.set('input[type=search]', 'caption', 'input');
  expect(names()).toEqual(['caption', 'figure', 'figcaption']);
  await screen.set('input[type=search]', 'href', 'input');
  expect(names()).toEqual(['a']);
});

test('shows only what occurs on the bench', async () => {
  const screen = await open();
  await screen.click('.bar .ty-button');
  expect(screen.texts('.name')).toEqual(['p', 'u', 'script']);
});

test('switching an element on and off edits the draft; what the parent says is not repeated', async () => {
  const screen = await open();
  const before = screen.draft;
  await screen.click(`${row('u')} input`);
  expect(screen.profile.markup.elements['u']).toEqual({});
  await screen.click(`${row('u')} input`);
  expect(screen.draft).toEqual(before);
  await screen.click(`${row('a')} input`);
  expect(screen.profile.markup.elements['a']).toBeUndefined();
  await screen.click(`${row('a')} input`);
  expect(screen.draft).toEqual(before);
});

test('an element that the house limits take says so when it is allowed here', async () => {
  const screen = await open();
  await screen.click(`${row('iframe')} input`);
  expect(screen.texts(`${row('iframe')} td`).slice(1)).toEqual(['allowed here, but the house limits remove it', '0', 'House limits']);
});

describe('the details of an element', () => {
  test('say what it is and what happens to it here', async () => {
    const screen = await open();
    await screen.click(`${row('u')} .name`);
    expect(screen.texts('.meaning')).toEqual([
      'underlined words, which readers may take for a link. It goes, its content stays in 2 places here.',
    ]);
    await screen.click(`${row('u')} .name`);
    expect(screen.has('.meaning')).toBe(false);
  });

  test('change what becomes of it', async () => {
    const screen = await open();
    await screen.click(`${row('u')} .name`);
    await screen.click('.outcome label:nth-of-type(3) input');
    expect(screen.profile.markup.elements['u']).toEqual({ outcome: 'drop' });
    await screen.click('.outcome label:nth-of-type(5) input');
    expect(screen.profile.markup.elements['u']?.outcome).toBe('rename');
    await screen.set('.outcome select', 'em');
    expect(screen.profile.markup.elements['u']).toEqual({ outcome: 'rename', to: 'em' });
    await screen.click('.outcome label:nth-of-type(1) input');
    expect(screen.profile.markup.elements['u']).toEqual({});
  });

  test('allow an attribute, change its test, take it away', async () => {
    const screen = await open('<p align="center">x</p>');
    await screen.click(`${row('p')} .name`);
    expect(screen.texts('.add .ty-quiet')).toEqual(['align (1 here)']);
    await screen.click('.add .ty-quiet');
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toEqual({ test: 'text' });
    await screen.set('[aria-label="Test for align"]', 'list');
    await screen.set('[aria-label="Values of align"]', 'left, center');
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toEqual({ test: 'list', values: ['left', 'center'] });
    await screen.set('[aria-label="Test for align"]', 'integer');
    await screen.set('[aria-label="Most align"]', '9');
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toEqual({ test: 'integer', min: 1, max: 9 });
    await screen.click('[aria-label="Remove the attribute align"]');
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toBeUndefined();
  });

  test.each([
    ['onclick', 'The safety floor takes onclick away whatever a profile says.'],
    ['two words', '“two words” cannot be the name of an attribute.'],
  ])('refuse the attribute %s with the reason', async (name, reason) => {
    const screen = await open();
    await screen.click(`${row('p')} .name`);
    await screen.set('.add input', name, 'input');
    await screen.click('.add button[type=submit]');
    expect(screen.texts('ty-element-details .failure')).toEqual([reason]);
  });

  test('refuse a number that is none, and keep what was there', async () => {
    const screen = await open();
    await screen.click(`${row('img')} .name`);
    await screen.set('[aria-label="Most width"]', 'wide');
    expect(screen.texts('ty-element-details .failure')).toEqual(['width needs a whole number, not “wide”.']);
    expect(screen.profile.markup.elements['img']?.attributes?.['width']).toEqual({ test: 'integer', min: 1, max: 720 });
  });

  test('follow the parent again', async () => {
    const screen = await open();
    await screen.click(`${row('q')} .name`);
    await screen.click('.meaning .ty-quiet');
    expect(screen.profile.markup.elements['q']).toBeUndefined();
  });
});

describe('the rest of the rules', () => {
  test('schemes are read leniently and checked', async () => {
    const screen = await open();
    await screen.set('#schemes-href', 'HTTPS:// mailto:, tel');
    expect(screen.profile.markup.urls.schemes['href']).toEqual(['https', 'mailto', 'tel']);
    await screen.set('#schemes-href', 'not/a/scheme');
    expect(screen.texts('ty-rest-of-markup .failure')[0]).toMatch(/“not\/a\/scheme” cannot be a scheme/);
  });
  test('relative addresses, elements without a rule, comments', async () => {
    const screen = await open();
    await screen.set('#relative', 'go');
    await screen.set('#unlisted', 'drop');
    await screen.set('#comments', 'keep');
    expect(screen.profile.markup).toMatchObject({ urls: { relative: false }, unlisted: 'drop', comments: 'keep' });
  });
  test('nesting stays below what browsers keep', async () => {
    const screen = await open();
    await screen.set('#nesting', '40');
    expect(screen.profile.markup.limits.nesting).toBe(40);
    await screen.set('#nesting', '600');
    expect(screen.texts('ty-rest-of-markup .failure')[0]).toMatch(/from 1 to 500/);
    expect(screen.profile.markup.limits.nesting).toBe(40);
  });
});
