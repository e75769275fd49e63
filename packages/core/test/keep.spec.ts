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
    const keeping = patchToKeep(entries, profileOf(document));
    expect(keeping).toEqual({ label, patch });
    expect(ledgerOf(html, mergePatch(document, keeping!.patch) as JsonObject)).toEqual([]);
  });

  test('what was kept is no more than what stood there', () => {
    const entries = ledgerOf('<p align=center>x</p>', document);
    const widened = mergePatch(document, patchToKeep(entries, profileOf(document))!.patch) as JsonObject;
    expect(ledgerOf('<p align=right>x</p>', widened)).toHaveLength(1);
  });
});

describe('what no change of the profile can keep', () => {
  test.each(['<script>x</script>', '<p onclick="x()">x</p>', '<a href="javascript:x()">x</a>', '<tr>x', '<o:p>x</o:p>'])('%s', (html) => {
    expect(patchToKeep(ledgerOf(html, document).slice(0, 1), profileOf(document))).toBeNull();
  });
  test('what the house limits take', () => {
    const profile = profileOf({ ...document, markup: { elements: { iframe: {} } } });
    const { ledger } = clean('<iframe></iframe>', compileRules(profile, { house: demoHouse() }));
    expect(patchToKeep(ledger, profile)).toBeNull();
  });
  test('what the house limits would take in its place', () => {
    const house = demoHouse();
    const ledgerUnder = (html: string) => clean(html, compileRules(profileOf(document), { house })).ledger;
    expect(patchToKeep(ledgerUnder('<u>x</u>'), profileOf(document), { house })).toMatchObject({ label: '<u>' });
    const form: JsonObject = { ...document, markup: { elements: { center: { outcome: 'drop' } } } };
    const taken = clean('<center>x</center>', compileRules(profileOf(form), { house })).ledger;
    expect(taken).toMatchObject([{ layer: 'profile', reason: 'element-dropped' }]);
    expect(patchToKeep(taken, profileOf(form))).not.toBeNull();
    expect(patchToKeep(taken, profileOf(form), { house })).toBeNull();
  });
  test('nothing', () => expect(patchToKeep([], profileOf(document))).toBeNull());
});
