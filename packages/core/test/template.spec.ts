import fc from 'fast-check';
import {
  fieldPlaces,
  firstPlace,
  mainField,
  pageKindSchema,
  parseFragment,
  PLAIN_TEMPLATE,
  printTemplate,
  readTemplate,
  renderPage,
  renderedText,
  siteSchema,
  slotContents,
  slotNameOf,
  TEMPLATE_ELEMENTS,
  textFrame,
  titleField,
  unfilledSlots,
  type ContentType,
  type PageKind,
} from '../src/index';
import { runs } from './fixed-seed';

const kindOf = (template?: string, id = 'page'): PageKind =>
  pageKindSchema.parse({
    id,
    name: `The ${id}`,
    wrapper: [{ element: 'main', className: 'page wide' }],
    stylesheets: [],
    contentWidthPx: 700,
    ...(template === undefined ? {} : { template }),
  });
const typeOf = (fields: object[], rest: object = {}): ContentType =>
  siteSchema.parse({
    format: 'typikon-site/1',
    types: [{ id: 'story', label: 'Story', pageKind: 'page', fields, ...rest }],
  }).types[0]!;

const STORY = typeOf([
  { key: 'headline', title: 'Headline', kind: 'line' },
  { key: 'teaser', title: 'Teaser' },
  { key: 'body', title: 'Body', needed: true },
  { key: 'picture', title: 'Picture', kind: 'picture' },
  { key: 'from', title: 'From', kind: 'date' },
]);

describe('a template', () => {
  test.each<[string, string[]]>([
    ['<h1><slot name="title"></slot></h1><slot></slot>', []],
    ['<div class="a" lang="en"><p><slot name="x-y">none</slot></p></div>', []],
    ['<p>Nothing</p>', ['it has no <slot>, so nothing of a document would show']],
    ['<script>alert(1)</script><slot></slot>', ['<script> has no place here']],
    [
      '<slot></slot><img src=x onerror=alert(1)>',
      ['<img> has no place here', 'the attribute src of <img> has no place here', 'the attribute onerror of <img> has no place here'],
    ],
    [
      '<div style="color:red" id="a" onclick="x"><slot></slot></div>',
      [
        'the attribute style of <div> has no place here',
        'the attribute id of <div> has no place here',
        'the attribute onclick of <div> has no place here',
      ],
    ],
    ['<slot name="A b"></slot>', ['“A b” cannot be the name of a slot']],
    ['<slot><slot name="x"></slot></slot>', ['a slot cannot stand in a slot']],
    ['<!-- x --><slot></slot>', ['comments have no place here']],
    ['<svg><slot></slot></svg>', ['<svg> has no place here']],
  ])('%s', (text, problems) => {
    expect(readTemplate(text).problems).toEqual(problems);
    expect(pageKindSchema.safeParse({ ...kindOf(), template: text }).success).toBe(problems.length === 0);
  });

  test('nested deeper than pages are is told, at any depth', () => {
    for (const depth of [32, 4000])
      expect(readTemplate(`${'<div>'.repeat(depth)}<slot></slot>`).problems).toContain('its elements are nested deeper than 32 levels');
    expect(readTemplate(`${'<div>'.repeat(31)}<slot></slot>`).problems).toEqual([]);
  });

  test('tells what stands around each slot, and whether blocks can stand there', () => {
    const { slots } = readTemplate('<article class=" body  x "><h2><slot name="a"></slot></h2><slot></slot></article>');
    expect(slots).toEqual([
      { name: 'a', around: [{ element: 'article', className: 'body  x' }, { element: 'h2' }], isForWords: true },
      { name: '', around: [{ element: 'article', className: 'body  x' }], isForWords: false },
    ]);
  });

  test('prints what its slots hold; an element whose slots are all empty is not printed, with its labels', () => {
    const template =
      '<h1><slot name="title"></slot></h1><section><h2>More</h2><slot name="a"></slot><slot name="b"></slot></section><p>By <slot name="c">nobody</slot></p><hr>';
    const print = (values: Record<string, string>) => printTemplate(template, new Map(Object.entries(values)));
    expect(print({})).toBe('<p>By nobody</p><hr>');
    expect(print({ title: 'T', b: '<p>B</p>', c: 'Wren' })).toBe('<h1>T</h1><section><h2>More</h2><p>B</p></section><p>By Wren</p><hr>');
    expect(printTemplate('<slot name="a"></slot>', new Map([['a', 'x']]), (name, html) => `[${name}:${html}]`)).toBe('[a:x]');
  });

  test('whatever is read without problems prints back as it stands, around whatever is put in', () => {
    const element = fc.constantFrom(
      ...[...TEMPLATE_ELEMENTS].filter((name) => !['slot', 'hr', 'br', 'p', 'li', 'dt', 'dd'].includes(name)),
    );
    const slot = fc.constantFrom('<slot></slot>', '<slot name="body"></slot>', '<slot name="title">none</slot>');
    const template = fc.letrec<{ node: string }>((tie) => ({
      node: fc.oneof(
        { maxDepth: 4 },
        slot,
        fc.constantFrom('words &amp; more', '<hr>'),
        fc
          .tuple(element, fc.array(tie('node'), { maxLength: 3 }))
          .map(([name, inside]) => `<${name} class="c">${inside.join('')}</${name}>`),
      ),
    })).node;
    fc.assert(
      fc.property(template, (text) => {
        if (readTemplate(text).problems.length > 0) return;
        const full = new Map([
          ['', 'REST'],
          ['body', 'BODY'],
          ['title', 'TITLE'],
        ]);
        const printed = printTemplate(text, full);
        const expected = text
          .replaceAll('<slot></slot>', 'REST')
          .replaceAll('<slot name="body"></slot>', 'BODY')
          .replaceAll('<slot name="title">none</slot>', 'TITLE');
        expect(parseFragment(printed).root.children.length).toBe(parseFragment(expected).root.children.length);
        expect(renderedText(parseFragment(printed).root)).toBe(renderedText(parseFragment(expected).root));
      }),
      { numRuns: runs(300) },
    );
  });
});

describe('the places of fields', () => {
  const kinds = new Map(
    [
      kindOf('<h1><slot name="title"></slot></h1><div class="col"><slot name="body"></slot></div>'),
      kindOf('<h3><slot name="title"></slot></h3><p><slot name="teaser"></slot></p>', 'card'),
    ].map((kind) => [kind.id, kind]),
  );
  const type = { ...STORY, alsoOn: ['card', 'gone'] };

  test('follow from the templates of all kinds of page that print the type', () => {
    const places = fieldPlaces(type, kinds);
    expect(places.get('headline')!.map(({ pageKind }) => pageKind)).toEqual(['page', 'card']);
    expect(places.get('teaser')).toEqual([
      { pageKind: 'card', name: 'The card', isOwnPage: false, path: 'main.page.wide > p', isForWords: true },
    ]);
    expect(places.get('body')).toEqual([
      { pageKind: 'page', name: 'The page', isOwnPage: true, path: 'main.page.wide > div.col', isForWords: false },
    ]);
    expect(places.get('from')).toEqual([]);
    expect(['body', 'teaser', 'from'].map((key) => firstPlace(type, key, kinds))).toEqual(['page', 'card', 'page']);
    expect(slotNameOf('headline', type, kinds.get('page')!)).toBe('title');
    expect(slotNameOf('from', type, kinds.get('page')!)).toBeNull();
    expect(slotNameOf('from', type, kindOf())).toBe('');
  });

  test('without a template every field is printed, in order, below the title', () => {
    const places = fieldPlaces(STORY, new Map([['page', kindOf()]]));
    expect([...places.values()].every((all) => all.length === 1)).toBe(true);
    const html = slotContents(
      STORY,
      kindOf(),
      {
        title: 'Fog & tide',
        fields: { headline: 'Fog & tide', teaser: '<p>Short.</p>', body: '<p>Long.</p>', picture: '/assets/a"b.png', from: '2026-05-03' },
      },
      (address) => `alt of ${address}`,
    );
    expect(printTemplate(PLAIN_TEMPLATE, html)).toBe(
      '<h1>Fog &amp; tide</h1>\n<p>Short.</p>\n<p>Long.</p>\n<p><img src="/assets/a&quot;b.png" alt="alt of /assets/a&quot;b.png"></p>\n<p><time datetime="2026-05-03">3 May 2026</time></p>',
    );
  });

  test('slots that no field fills are told', () => {
    const kind = kindOf('<slot name="title"></slot><slot name="body"></slot><slot name="contact"></slot><slot></slot>');
    expect(unfilledSlots(kind, [STORY])).toEqual(['contact']);
    expect(unfilledSlots(kind, [])).toEqual([]);
  });

  test('the title is the first line, the main text the first that is needed', () => {
    expect(titleField(STORY)?.key).toBe('headline');
    expect(mainField(STORY)?.key).toBe('body');
    expect(mainField({ fields: STORY.fields.filter(({ key }) => key !== 'body') })?.key).toBe('teaser');
    expect([titleField({ fields: [] }), mainField({ fields: [] })]).toEqual([null, null]);
  });
});

test('what stands around the text of a page is what stylesheets see of its template', () => {
  const page = (template?: string) => textFrame(kindOf(template));
  expect(page()).toEqual({ wrapper: [{ element: 'main', className: 'page wide' }], hasTitle: true });
  expect(page('<h2><slot name="title"></slot></h2><slot></slot>').hasTitle).toBe(false);
  expect(page('<article class="a"><h1><slot name="title"></slot></h1><slot name="body"></slot></article>')).toEqual({
    wrapper: [
      { element: 'main', className: 'page wide' },
      { element: 'article', className: 'a' },
    ],
    hasTitle: true,
  });
  expect(page('<header><h1><slot name="title"></slot></h1></header><slot name="body"></slot>').hasTitle).toBe(false);
});

test('a single text stands where the template has room for one', () => {
  const html = renderPage(kindOf('<h1><slot name="title"></slot></h1><div><slot name="body"></slot></div>'), {
    title: 'T',
    html: '<p>x</p>',
    stylesheets: [],
  });
  expect(html).toContain('<main class="page wide"><h1>T</h1><div><p>x</p></div>\n</main>');
});
