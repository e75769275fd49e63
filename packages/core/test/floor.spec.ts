import { clean, SAFETY_FLOOR, type JsonObject } from '../src/index';
import { mostPermissive } from './most-permissive';
import { rulesOf } from './support';

const text = { test: 'text' };
const all = mostPermissive();

describe('the floor holds under every setting', () => {
  test.each<[string, string, string]>([
    ['a box over the page', '<p style="position:fixed;color:red">x</p>', '<p style="color: red">x</p>'],
    ['a box that is placed', '<p style="position:absolute;color:red">x</p>', '<p style="color: red">x</p>'],
    ['a box that is moved', '<p style="position:relative;color:red">x</p>', '<p style="color: red">x</p>'],
    ['by a transform', '<p style="transform:translateY(-90px);translate:9px;color:red">x</p>', '<p style="color: red">x</p>'],
    ['where nothing moves', '<p style="position:static">x</p>', '<p style="position:static">x</p>'],
    ['a way back into our page', '<a href="/" rel="opener nofollow">x</a>', '<a href="/" rel="nofollow">x</a>'],
    ['that alone', '<a href="/" rel="OPENER">x</a>', '<a href="/">x</a>'],
    ['a control of another form', '<input form="f"><button formaction="/x" form="f">x</button>', '<input><button>x</button>'],
    ['a scheme in disguise', '<a href="java&#1;script:x">x</a>', '<a>x</a>'],
    ['by characters that nobody sees', '<a href="java&#x200b;script:x">x</a>', '<a>x</a>'],
    ['and by hard spaces', '<a href="java&nbsp;script:x">x</a>', '<a>x</a>'],
    ['but no address with a colon behind', '<a href="a b/c:d">x</a>', '<a href="a b/c:d">x</a>'],
    ['nor one with a space before', '<a href=" https://a.example/">x</a>', '<a href=" https://a.example/">x</a>'],
  ])('%s', (_what, input, output) => expect(clean(input, all).html).toBe(output));

  const frame: JsonObject = {
    elements: { iframe: { attributes: { src: { test: 'url' }, sandbox: text } } },
    links: { ownHosts: ['own.example'] },
  };
  test.each([
    ['/page', 'allow-scripts'],
    ['https://own.example/x', 'allow-scripts'],
    ['https://other.example/x', 'allow-scripts allow-same-origin'],
  ])('a frame of %s', (src, sandbox) => {
    const { html } = clean(`<iframe src="${src}" sandbox="allow-scripts allow-same-origin"></iframe>`, rulesOf(frame));
    expect(html).toBe(`<iframe src="${src}" sandbox="${sandbox}"></iframe>`);
  });
  test('a frame of our own without scripts counts as ours', () => {
    const html = '<iframe src="/page" sandbox="allow-same-origin"></iframe>';
    expect(clean(html, rulesOf(frame)).html).toBe(html);
  });

  const named: JsonObject = { elements: { input: { attributes: { name: text, id: text } }, h2: { attributes: { id: text } } } };
  test.each([
    ['<input name="submit">', '', '<input>'],
    ['<input name="submit">', 'c-', '<input>'],
    ['<input name="SUBMIT">', 'c-', '<input>'],
    ['<input name="colour">', 'c-', '<input name="colour">'],
    ['<h2 id="location">x</h2>', '', '<h2>x</h2>'],
    ['<h2 id="location">x</h2>', 'c-', '<h2 id="c-location">x</h2>'],
  ])('%s with the prefix %j', (input, prefix, output) => expect(clean(input, rulesOf({ ...named, ids: { prefix } })).html).toBe(output));

  test('knows the names that forms, documents and windows answer to', () => {
    for (const name of ['submit', 'elements', 'requestsubmit', 'cookie', 'getelementbyid', 'location', 'localstorage', 'valueof'])
      expect(SAFETY_FLOOR.clobberingNames).toContain(name);
  });
});

describe('what else rules can say', () => {
  test.each<[string, JsonObject, string, string]>([
    [
      'one of several attributes',
      { a: { attributes: { href: { test: 'url' }, id: text }, anyOf: { attributes: ['href', 'id'], otherwise: 'unwrap' } } },
      '<a>x</a><a id="y">y</a><a href="">z</a>',
      'x<a id="y">y</a>z',
    ],
    [
      'or it goes',
      { a: { attributes: { href: { test: 'url' }, id: text }, anyOf: { attributes: ['href', 'id'], otherwise: 'drop' } } },
      '<a href="ftp://a.example">x</a>y',
      'y',
    ],
    [
      'of which one is never let through',
      { a: { attributes: { href: { test: 'url' } }, anyOf: { attributes: ['href', 'id'], otherwise: 'unwrap' } } },
      '<a id="x">x</a>',
      'x',
    ],
    [
      'schemes of one element',
      { a: { attributes: { href: { test: 'url' } }, schemes: { href: ['mailto'] } }, area: { attributes: { href: { test: 'url' } } } },
      '<a href="https://a.example/">x</a><a href="mailto:a@a.example">y</a><area href="https://a.example/">',
      '<a>x</a><a href="mailto:a@a.example">y</a><area href="https://a.example/">',
    ],
    [
      'forced where the address stayed',
      { a: { attributes: { href: { test: 'url' } }, forced: { rel: { value: 'nofollow', when: 'with-address' } } } },
      '<a href="https://a.example/">x</a><a href="ftp://a.example">y</a>',
      '<a href="https://a.example/" rel="nofollow">x</a><a>y</a>',
    ],
    [
      'a picture as its words',
      { img: { attributes: { src: { test: 'url' }, alt: text }, withoutSource: 'alternative-text' } },
      'a<img src="ftp://a.example/x" alt="A slip">b<img src="ftp://a.example/y">',
      'a A slip b',
    ],
  ])('%s', (_what, elements, input, output) => {
    const rules = rulesOf({ elements });
    expect(clean(input, rules).html).toBe(output);
    expect(clean(output, rules).html).toBe(output);
  });
  test('the words of a picture are told', () => {
    const { ledger } = clean(
      '<img src="ftp://a.example/x" alt="A slip">',
      rulesOf({ elements: { img: { attributes: { src: { test: 'url' }, alt: text }, withoutSource: 'alternative-text' } } }),
    );
    expect(ledger).toMatchObject([
      { reason: 'source-refused', rule: '/markup/elements/img/withoutSource', after: 'A slip', textLost: -5, severity: 'loss' },
    ]);
  });
});
