import { clean, compileRules, mergePatch, patchToKeep, type JsonObject, type LedgerEntry } from '../src/index';
import { demoHouse, resolved } from './support';

const document: JsonObject = {
  format: 'typikon-profile/1',
  name: 'Desk',
  markup: {
    elements: {
      p: { attributes: { class: { test: 'tokens', values: ['note'] } } },
      a: { attributes: { href: { test: 'url' }, title: { test: 'text', maxLength: 5 } } },
      ol: { attributes: { start: { test: 'integer', min: 1, max: 9 }, type: { test: 'list', values: ['1'] } } },
      li: {},
      img: { attributes: { src: { test: 'url', hosts: ['a.example'] } } },
      strong: {},
      b: { outcome: 'rename', to: 'strong' },
      form: { outcome: 'drop' },
      kbd: { outcome: 'text' },
    },
    urls: { schemes: { href: ['https'], src: ['https'] }, relative: false },
  },
};

const profileOf = (own: JsonObject) => resolved('desk', () => own);
const ledgerOf = (html: string, own: JsonObject): LedgerEntry[] => clean(html, compileRules(profileOf(own))).ledger;

describe('the smallest rules that keep what was taken', () => {
  test.each<[string, string, JsonObject]>([
    ['<p><u>x</u></p>', '<u>', { markup: { elements: { u: { outcome: 'keep', to: null } } } }],
    ['<form>x</form>', '<form>', { markup: { elements: { form: { outcome: 'keep', to: null } } } }],
    ['<kbd>x</kbd>', '<kbd>', { markup: { elements: { kbd: { outcome: 'keep', to: null } } } }],
    ['<b>x</b>', '<b>', { markup: { elements: { b: { outcome: 'keep', to: null } } } }],
    [
      '<p align=center>x</p>',
      'align on <p>: center',
      { markup: { elements: { p: { attributes: { align: { test: 'list', values: ['center'] } } } } } },
    ],
    [
      '<strong class="a b">x</strong><strong class="b c">y</strong>',
      'class on <strong>: a, b, c',
      { markup: { elements: { strong: { attributes: { class: { test: 'tokens', values: ['a', 'b', 'c'] } } } } } },
    ],
    [
      '<img src="https://a.example/1" width="3"><img src="https://a.example/2" width=40>',
      'width on <img>: 3 to 40',
      { markup: { elements: { img: { attributes: { width: { test: 'integer', min: 3, max: 40 } } } } } },
    ],
    ['<p lang="en-GB">x</p>', 'lang on <p>', { markup: { elements: { p: { attributes: { lang: { test: 'language' } } } } } }],
    ['<p cite="https://a.example/">x</p>', 'cite on <p>', { markup: { elements: { p: { attributes: { cite: { test: 'url' } } } } } }],
    [
      `<p title="${'x'.repeat(70)}">x</p>`,
      'title on <p>: up to 70 characters',
      { markup: { elements: { p: { attributes: { title: { test: 'text', maxLength: 70 } } } } } },
    ],
    [
      '<p class="note wide">x</p>',
      'class on <p>: wide',
      { markup: { elements: { p: { attributes: { class: { values: ['note', 'wide'] } } } } } },
    ],
    [
      '<ol start=12><li>x</li></ol>',
      'start on <ol>: 1 to 12',
      { markup: { elements: { ol: { attributes: { start: { min: 1, max: 12 } } } } } },
    ],
    ['<ol type=a><li>x</li></ol>', 'type on <ol>: a', { markup: { elements: { ol: { attributes: { type: { values: ['1', 'a'] } } } } } }],
    [
      '<a href="https://a.example/" title="1234567">x</a>',
      'title on <a>: up to 7 characters',
      { markup: { elements: { a: { attributes: { title: { maxLength: 7 } } } } } },
    ],
    ['<a href="mailto:a@a.example">x</a>', 'mailto in href', { markup: { urls: { schemes: { href: ['https', 'mailto'] } } } }],
    ['<a href="/page">x</a>', 'addresses without a scheme', { markup: { urls: { relative: true } } }],
    [
      '<img src="https://b.example/1.png">',
      'src on <img>: b.example',
      { markup: { elements: { img: { attributes: { src: { hosts: ['a.example', 'b.example'] } } } } } },
    ],
    ['x<!-- c -->', 'comments', { markup: { comments: 'keep' } }],
  ])('%s', (html, label, patch) => {
    const entries = ledgerOf(html, document);
    const keeping = patchToKeep(entries, profileOf(document), html);
    expect(keeping).toEqual({ label, patch });
    expect(ledgerOf(html, mergePatch(document, keeping!.patch) as JsonObject)).toEqual([]);
  });

  test('what was kept is no more than what stood there', () => {
    const entries = ledgerOf('<p align=center>x</p>', document);
    const widened = mergePatch(document, patchToKeep(entries, profileOf(document), '<p align=center>x</p>')!.patch) as JsonObject;
    expect(ledgerOf('<p align=right>x</p>', widened)).toHaveLength(1);
  });
});

describe('what no change of the profile can keep', () => {
  test.each(['<script>x</script>', '<p onclick="x()">x</p>', '<a href="javascript:x()">x</a>', '<tr>x', '<o:p>x</o:p>'])('%s', (html) => {
    expect(patchToKeep(ledgerOf(html, document).slice(0, 1), profileOf(document), html)).toBeNull();
  });
  test('what the house limits take', () => {
    const profile = profileOf({ ...document, markup: { elements: { iframe: {} } } });
    const { ledger } = clean('<iframe></iframe>', compileRules(profile, { house: demoHouse() }));
    expect(patchToKeep(ledger, profile, '<iframe></iframe>')).toBeNull();
  });
  test('what the house limits would take in its place', () => {
    const house = demoHouse();
    const ledgerUnder = (html: string) => clean(html, compileRules(profileOf(document), { house })).ledger;
    expect(patchToKeep(ledgerUnder('<u>x</u>'), profileOf(document), '<u>x</u>', { house })).toMatchObject({ label: '<u>' });
    const form: JsonObject = { ...document, markup: { elements: { center: { outcome: 'drop' } } } };
    const taken = clean('<center>x</center>', compileRules(profileOf(form), { house })).ledger;
    expect(taken).toMatchObject([{ layer: 'profile', reason: 'element-dropped' }]);
    expect(patchToKeep(taken, profileOf(form), '<center>x</center>')).not.toBeNull();
    expect(patchToKeep(taken, profileOf(form), '<center>x</center>', { house })).toBeNull();
  });
  test('nothing', () => expect(patchToKeep([], profileOf(document), '')).toBeNull());
});

describe('the smallest change of every kind of rule', () => {
  const with_ = (markup: JsonObject): JsonObject => ({ format: 'typikon-profile/1', name: 'Desk', markup });
  const style = (properties: JsonObject): JsonObject => ({ elements: { p: { attributes: { style: { test: 'style', properties } } } } });
  test.each<[string, JsonObject, string, JsonObject]>([
    [
      '<p style="color: #A00; margin-left: 12px">x</p><p style="margin-left:40px">y</p>',
      { elements: { p: {} } },
      'style on <p>: color, margin-left',
      {
        elements: {
          p: {
            attributes: {
              style: {
                test: 'style',
                properties: {
                  color: { test: 'colour', values: ['#a00'] },
                  'margin-left': { test: 'length', ranges: { px: { min: 12, max: 40 } } },
                },
              },
            },
          },
        },
      },
    ],
    [
      '<p style="text-align:center">x</p><p style="text-align:right">y</p>',
      style({ color: { test: 'any' } }),
      'text-align: center, right',
      style({ 'text-align': { test: 'list', values: ['center', 'right'] } }),
    ],
    [
      '<p style="color:red">x</p>',
      style({ color: { test: 'colour', values: ['#000'] } }),
      'color: red',
      style({ color: { test: 'colour', values: ['#000', 'red'] } }),
    ],
    [
      '<p style="margin-left:50px">x</p>',
      style({ 'margin-left': { test: 'length', ranges: { px: { min: 0, max: 40 } } } }),
      'margin-left: 50 px',
      style({ 'margin-left': { ranges: { px: { min: 0, max: 50 } } } }),
    ],
    [
      '<table width="80%"></table>',
      { elements: { table: { attributes: { width: { test: 'length', ranges: { none: { max: 700 } } } } } } },
      'width on <table>: 80 %',
      { elements: { table: { attributes: { width: { ranges: { '%': { min: 80, max: 80 } } } } } } },
    ],
    [
      '<img src="/a.png">',
      { elements: { img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } }, required: { alt: { otherwise: 'drop' } } } } },
      'img without alt',
      { elements: { img: { required: { alt: null } } } },
    ],
    ['<h1>x</h1>', { elements: { h2: {} }, headings: { others: 'clamp' } }, '<h1>', { elements: { h1: { outcome: 'keep', to: null } } }],
    ['a&nbsp;b', { text: { hardSpaces: 'plain' } }, 'hard spaces', { text: { hardSpaces: 'keep' } }],
    ['<p></p>', { elements: { p: {} }, text: { emptyParagraphs: 'remove' } }, 'empty paragraphs', { text: { emptyParagraphs: 'keep' } }],
    ['<em></em>', { elements: { em: { empty: 'remove' } } }, 'empty <em>', { elements: { em: { empty: 'keep' } } }],
    [
      '<div><em>x</em></div>',
      { elements: { div: {}, em: { parents: ['p'] } } },
      'em in p, div',
      { elements: { em: { parents: ['p', 'div'] } } },
    ],
    ['abcdef', { limits: { letters: 4 } }, '6 letters', { limits: { letters: 6 } }],
    ['<b>x</b><b>y</b>', { elements: { b: {} }, limits: { elements: 1 } }, '2 elements', { limits: { elements: 2 } }],
    [
      '<a href="/x" target="_blank">x</a>',
      { elements: { a: { attributes: { href: { test: 'url' }, target: { test: 'text' } } } }, links: { newWindow: 'never' } },
      'links as they were written',
      { links: { newWindow: 'as-written' } },
    ],
  ])('%s', (html, markup, label, change) => {
    const own = with_(markup);
    const keeping = patchToKeep(ledgerOf(html, own), profileOf(own), html);
    expect(keeping?.label).toBe(label);
    expect(mergePatch(own, keeping!.patch)).toEqual(mergePatch(own, { markup: change }));
    expect(ledgerOf(html, mergePatch(own, keeping!.patch) as JsonObject)).toEqual([]);
  });
});
