import { parseFragment, renderPage, utf8Length } from '../src/index';

const kind = {
  id: 'article',
  name: 'Article',
  wrapper: [{ element: 'main' as const, className: 'page' }, { element: 'article' as const }],
  stylesheets: ['site'],
  contentWidthPx: 720,
};

test('a page has the wrapper, the title and the stylesheets of its kind', () => {
  const page = renderPage(kind, {
    title: 'Fog & <b>tide</b>',
    html: '<p>Text</p>',
    stylesheets: [{ address: '/a.css' }, { address: '/b.css?x="1"', media: 'print' }],
  });
  expect(page).toContain('<title>Fog &amp; &lt;b&gt;tide&lt;/b&gt;</title>');
  expect(page).toContain('<main class="page"><article><h1>Fog &amp; &lt;b&gt;tide&lt;/b&gt;</h1>\n<p>Text</p>\n</article></main>');
  expect(page).toContain('<link rel="stylesheet" href="/a.css">\n<link rel="stylesheet" href="/b.css?x=&quot;1&quot;" media="print">');
  expect(parseFragment(page).ignored.map(({ name }) => name)).not.toContain('b');
});

test.each(['', 'abc', 'é', '€', '😀', 'a\u00a0b'])('the UTF-8 length of %j', (text) =>
  expect(utf8Length(text)).toBe(Buffer.byteLength(text)),
);
