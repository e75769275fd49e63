import { MarkupChapter } from '../src/features/workshop/markup-chapter';
import { seeOnly } from './in-view';
import { Screen } from './support';

const open = (html = '<p class="x">a</p><u>b</u><u>c</u><script>d()</script>') => Screen.of(MarkupChapter, { profile: 'story-desk', html });
const row = (element: string) => `tr[data-element="${element}"]`;
/** Opens a rule, or closes it: found by its name first, since a table draws the rows that are seen. */
async function choose(screen: Screen<MarkupChapter>, element: string): Promise<void> {
  // Nearly every element has an “a” in its name, its meaning or its attributes.
  await screen.set('input[type=search]', element === 'a' ? 'href' : element, 'input');
  await screen.click(`${row(element)} .name`);
}

test('shows each element with its attributes, its count on the bench and who decides', async () => {
  const screen = await open();
  const cells = (element: string) => screen.texts(`${row(element)} td`).slice(1);
  expect(cells('p')).toEqual(['class', '1', '7', 'House']);
  expect(cells('u')).toEqual(['goes, its content stays', '2', '3', 'no rule']);
  expect(cells('h1')).toEqual(['becomes h2', '0', '2', 'House']);
  expect(cells('q')).toEqual(['cite', '0', '0', 'here']);
  expect(cells('iframe')).toEqual(['goes with its content', '0', '1', 'House limits']);
  expect(cells('script')).toEqual(['always goes with its content', '1', '0', 'Safety floor']);
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
  await screen.click('.bar [mat-stroked-button]');
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
  expect(screen.texts(`${row('iframe')} td`).slice(1)).toEqual(['allowed here, but the house limits remove it', '0', '1', 'House limits']);
});

describe('the details of an element', () => {
  // The rows of the first screen, and those around the one that is open, are drawn all the same.
  beforeAll(() => seeOnly(() => false));

  test('say what it is and what happens to it here', async () => {
    const screen = await open();
    await choose(screen, 'u');
    expect(screen.texts('.meaning')).toEqual([
      'underlined words, which readers may take for a link. Mind: reads as a link. The 4 stored documents have 3. It goes, its content stays in 2 places here.',
    ]);
    await choose(screen, 'u');
    expect(screen.has('.meaning')).toBe(false);
  });

  test('change what becomes of it', async () => {
    const screen = await open();
    await choose(screen, 'u');
    await screen.click('.outcome mat-radio-button:nth-of-type(3) input');
    expect(screen.profile.markup.elements['u']).toEqual({ outcome: 'drop' });
    await screen.click('.outcome mat-radio-button:nth-of-type(5) input');
    expect(screen.profile.markup.elements['u']?.outcome).toBe('rename');
    await screen.set('.outcome mat-select', 'em');
    expect(screen.profile.markup.elements['u']).toEqual({ outcome: 'rename', to: 'em' });
    await screen.click('.outcome mat-radio-button:nth-of-type(1) input');
    expect(screen.profile.markup.elements['u']).toEqual({});
  });

  test('allow an attribute, change its test, take it away', async () => {
    const screen = await open('<p align="center">x</p>');
    await choose(screen, 'p');
    expect(screen.texts('ty-element-details .add .ty-quiet')).toEqual(['align (1 here)']);
    await screen.click('ty-element-details .add .ty-quiet');
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toEqual({ test: 'text' });
    await screen.set('[aria-label="Test for align"]', 'list');
    await screen.set('[aria-label="Values of align"]', 'left, center');
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toEqual({ test: 'list', values: ['left', 'center'] });
    await screen.set('[aria-label="Test for align"]', 'integer');
    await screen.set('[aria-label="Most of align"]', '9');
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toEqual({ test: 'integer', min: 1, max: 9 });
    await screen.click('[aria-label="Remove the attribute align"]');
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toBeUndefined();
  });

  test.each([
    ['onclick', 'The safety floor takes onclick away whatever a profile says.'],
    ['two words', '“two words” cannot be the name of an attribute.'],
  ])('refuse the attribute %s with the reason', async (name, reason) => {
    const screen = await open();
    await choose(screen, 'p');
    await screen.set('.add input', name, 'input');
    await screen.click('.add button[type=submit]');
    expect(screen.texts('ty-element-details ty-attribute-rules > .failure')).toEqual([reason]);
  });

  test('refuse a number that is none, and keep what was there', async () => {
    const screen = await open();
    await choose(screen, 'img');
    await screen.set('[aria-label="Most of width"]', 'wide');
    expect(screen.texts('ty-element-details ty-test-form .failure').join('')).toBe('Most: it must be a whole number, or nothing.');
    expect(screen.profile.markup.elements['img']?.attributes?.['width']).toEqual({ test: 'integer', min: 1, max: 720 });
  });

  test('follow the parent again', async () => {
    const screen = await open();
    await choose(screen, 'q');
    await screen.click('.meaning .ty-quiet');
    expect(screen.profile.markup.elements['q']).toBeUndefined();
  });
});

describe('what an element must have', () => {
  const demanding = async (element: string) => {
    const screen = await open();
    await choose(screen, element);
    await screen.click('.more');
    return screen;
  };
  const rule = (screen: Awaited<ReturnType<typeof open>>, element: string) => screen.profile.markup.elements[element];

  test('is asked for, with what becomes of one without it', async () => {
    const screen = await demanding('a');
    await screen.click('ty-element-demands p .ty-quiet');
    expect(rule(screen, 'a')?.required).toEqual({ href: { otherwise: 'drop' } });
    await screen.set('[aria-label="Without href"]', 'unwrap');
    expect(rule(screen, 'a')?.required).toEqual({ href: { otherwise: 'unwrap' } });
    await screen.click('[aria-label="Remove the demand for href"]');
    expect(rule(screen, 'a')?.required).toBeUndefined();
  });
  test('is put there', async () => {
    const screen = await demanding('a');
    await screen.set('[aria-label="Attribute to put there"]', 'rel', 'input');
    await screen.set('[aria-label="Value to put there"]', 'noopener', 'input');
    await screen.click('mat-form-field:has([aria-label="Value to put there"]) + .ty-quiet');
    await screen.set('[aria-label="When rel is put there"]', 'new-window');
    expect(rule(screen, 'a')?.forced).toEqual({ rel: { value: 'noopener', when: 'new-window' } });
  });
  test('one of several attributes, schemes of its own, and the words of a picture', async () => {
    const screen = await demanding('img');
    await screen.set('[aria-label="At least one of these attributes"]', 'alt, title');
    await screen.set('[aria-label="Without any of them"]', 'unwrap');
    await screen.set('[aria-label="Schemes of src"]', 'https');
    await screen.set('[aria-label="A picture whose source is refused"]', 'alternative-text');
    expect(rule(screen, 'img')).toMatchObject({
      anyOf: { attributes: ['alt', 'title'], otherwise: 'unwrap' },
      schemes: { src: ['https'] },
      withoutSource: 'alternative-text',
    });
    await screen.set('[aria-label="Schemes of src"]', '');
    await screen.set('[aria-label="At least one of these attributes"]', '');
    expect(rule(screen, 'img')?.schemes).toBeUndefined();
    expect(rule(screen, 'img')?.anyOf).toBeUndefined();
    await screen.set('[aria-label="At least one of these attributes"]', 'alt');
    expect(screen.texts('ty-element-demands > .failure').join('')).toMatch(/anyOf/);
  });
  test('where it may stand, how deep, what becomes of an empty one, its proportions', async () => {
    const screen = await demanding('ul');
    await screen.set('ty-element-demands .wide input', 'li, blockquote');
    await screen.set('ty-element-demands label .small input', '3');
    await screen.set('[aria-label="What becomes of an empty one"]', 'remove');
    expect(rule(screen, 'ul')).toMatchObject({ parents: ['li', 'blockquote'], depth: 3, empty: 'remove' });
    await screen.set('ty-element-demands label .small input', '0');
    expect(screen.texts('ty-element-demands + .failure, ty-element-demands > .failure').join('')).toMatch(/depth/);
    expect(rule(screen, 'ul')?.depth).toBe(3);
  });
});

describe('the test of an attribute', () => {
  test.each<[string, [label: string, value: string][], object]>([
    ['pattern', [['Pattern of align', '[a-z]+']], { test: 'pattern', pattern: '[a-z]+' }],
    [
      'tokens',
      [
        ['Words of align', 'a b'],
        ['Beginnings of align', 'is-'],
      ],
      { test: 'tokens', values: ['a', 'b'], prefixes: ['is-'] },
    ],
    ['length', [['Ranges of align', '0..720px ..100%']], { test: 'length', ranges: { px: { min: 0, max: 720 }, '%': { max: 100 } } }],
    ['url', [['Hosts of align', 'https://a.example b.example/x/']], { test: 'url', hosts: ['a.example', 'b.example/x/'] }],
    ['text', [['Longest of align', '40']], { test: 'text', maxLength: 40 }],
  ])('%s has its own fields', async (test, fields, expected) => {
    const screen = await open('<p align="center">x</p>');
    await choose(screen, 'p');
    await screen.click('ty-element-details .add .ty-quiet');
    await screen.set('[aria-label="Test for align"]', test);
    for (const [label, value] of fields) await screen.set(`[aria-label="${label}"]`, value);
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toEqual(expected);
  });
  test('a mistake in a pattern is shown at its place, and nothing is changed', async () => {
    const screen = await open('<p align="center">x</p>');
    await choose(screen, 'p');
    await screen.click('ty-element-details .add .ty-quiet');
    await screen.set('[aria-label="Test for align"]', 'pattern');
    await screen.set('[aria-label="Pattern of align"]', '([a-z');
    expect(screen.texts('ty-element-details ty-test-form .failure').join('')).toMatch(/The pattern cannot be used/i);
    expect(screen.profile.markup.elements['p']?.attributes?.['align']).toEqual({ test: 'pattern', pattern: '[a-z0-9-]+' });
  });
  test('style is ruled property by property', async () => {
    const screen = await open('<p style="color:red">x</p>');
    await choose(screen, 'p');
    await screen.click('ty-element-details .add .ty-quiet');
    const label = '[aria-label="Allow a style property in style"]';
    await screen.set(label, 'color', 'input');
    await screen.click(`mat-form-field:has(${label}) + .ty-quiet`);
    await screen.set('[aria-label="Colours of color"]', '#a6301f, rgb(0, 0, 0)');
    expect(screen.profile.markup.elements['p']?.attributes?.['style']).toEqual({
      test: 'style',
      properties: { color: { test: 'colour', values: ['#a6301f', 'rgb(0, 0, 0)'] } },
    });
  });
});

describe('the rest of the rules', () => {
  beforeAll(() => seeOnly((element) => element.tagName !== 'TBODY'));

  test('headings, spaces, ids, output, each with its effect here and who set it', async () => {
    const screen = await open('<h1>T</h1><p>a&nbsp;b</p>');
    expect(screen.texts('[data-setting=text-hardSpaces] label')[0]).toMatch(/one place here/);
    expect(screen.texts('[data-setting=text-hardSpaces] .from')).toEqual(['House']);
    await screen.set('#text-hardSpaces', 'plain');
    await screen.set('#headings-others', 'shift');
    await screen.set('#headings-top', '3');
    await screen.set('#ids-prefix', 'c-story-');
    await screen.set('#output-layout', 'indented');
    await screen.set('#limits-letters', '9000');
    expect(screen.profile.markup).toMatchObject({
      text: { hardSpaces: 'plain' },
      headings: { others: 'shift', top: 3 },
      ids: { prefix: 'c-story-' },
      output: { layout: 'indented' },
      limits: { letters: 9000 },
    });
    expect(screen.texts('[data-setting=text-hardSpaces] .from')[0]).toMatch(/^here/);
    await screen.click('[data-setting=text-hardSpaces] .ty-quiet');
    expect(screen.profile.markup.text.hardSpaces).toBe('meaningful');
    await screen.set('#headings-top', '9');
    expect(screen.texts('[data-setting=headings-top] .mistake')[0]).toMatch(/from 1 to 6/);
  });
  test('an attribute for every element', async () => {
    const screen = await open('<p title="x">a</p>');
    await screen.set('#add-any', 'title', 'input');
    await screen.click('ty-rest-of-markup .add button[type=submit]');
    expect(screen.profile.markup.attributes['title']).toEqual({ test: 'text' });
  });
  test('schemes are read leniently and checked', async () => {
    const screen = await open();
    await screen.set('#schemes-href', 'HTTPS:// mailto:, tel');
    expect(screen.profile.markup.urls.schemes['href']).toEqual(['https', 'mailto', 'tel']);
    await screen.set('#schemes-href', 'not/a/scheme');
    expect(screen.texts('ty-schemes-field .failure')[0]).toMatch(/“not\/a\/scheme” cannot be a scheme/);
  });
  test('relative addresses, elements without a rule, comments', async () => {
    const screen = await open();
    await screen.set('#urls-relative', 'false');
    await screen.set('#unlisted', 'drop');
    await screen.set('#comments', 'keep');
    expect(screen.profile.markup).toMatchObject({ urls: { relative: false }, unlisted: 'drop', comments: 'keep' });
  });
  test('nesting stays below what browsers keep', async () => {
    const screen = await open();
    await screen.set('#limits-nesting', '40');
    expect(screen.profile.markup.limits.nesting).toBe(40);
    await screen.set('#limits-nesting', '600');
    expect(screen.texts('[data-setting=limits-nesting] .mistake')[0]).toMatch(/from 1 to 500/);
    expect(screen.profile.markup.limits.nesting).toBe(40);
  });
});

test('a rule that was just changed says nothing of what comes of it until that is known', async () => {
  const screen = await open();
  const said = () => screen.texts(`${row('h5')} td`).slice(1, 2);
  expect(said()).toEqual(['becomes h4']);
  screen.find(`${row('u')} input`).click();
  await screen.fixture.whenStable();
  expect(screen.texts(`${row('u')} td`).slice(1, 2)).toEqual(['…']);
  // Of another rule it is known.
  expect(said()).toEqual(['becomes h4']);
  await screen.settle();
  expect(screen.texts(`${row('u')} td`).slice(1, 2)).toEqual(['stays, without attributes of its own']);
});
