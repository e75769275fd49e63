import fc from 'fast-check';

const NAMES =
  'p p div span a b i em strong h1 h2 ul ol li table tr td th tbody caption colgroup col dl dt dd pre blockquote form button select option input textarea iframe svg math mtext mglyph style script title noscript template object img br font nobr center xmp plaintext listing foreignObject desc annotation-xml frameset body html head details summary ruby rt o:p x-card'.split(
    ' ',
  );
const ATTRIBUTES = [
  'class="note"',
  'href="https://a.example/"',
  'href=javascript:alert(1)',
  'onclick="x()"',
  'style="color:red"',
  'style="color:#F00;width:20px;background:url(x)"',
  'style="position:fixed;text-align:center!important"',
  'class="note is-wide x"',
  'width=300',
  'height=900',
  'target=_blank',
  'href="#a"',
  'id=location',
  'name=a',
  'src=x',
  'id=a',
  'title="</p><b>"',
  "title='--><img src=x>'",
  'lang=en',
  'x',
];

/** Markup as bad as it comes: tags opened and closed anywhere, cut off, with comments, references and raw text between. */
export const tangledMarkup = fc
  .array(
    fc.oneof(
      {
        weight: 6,
        arbitrary: fc
          .tuple(fc.constantFrom(...NAMES), fc.subarray(ATTRIBUTES, { maxLength: 3 }))
          .map(([name, attributes]) => `<${[name, ...attributes].join(' ')}>`),
      },
      { weight: 5, arbitrary: fc.constantFrom(...NAMES).map((name) => `</${name}>`) },
      {
        weight: 4,
        arbitrary: fc.constantFrom(
          'text',
          ' ',
          '\n',
          '&amp;',
          '&lt;b&gt;',
          '&nbsp;',
          '5&nbsp;km',
          'é😀',
          '\ud800',
          '\r',
          '\0',
          '&#13;',
          ']]>',
        ),
      },
      {
        weight: 1,
        arbitrary: fc.constantFrom(
          '<!-- c -->',
          '<!--',
          '-->',
          '<![CDATA[x]]>',
          '<!doctype html>',
          '<',
          '</',
          '<p title="',
          '<?x?>',
          '--!>',
        ),
      },
    ),
    { maxLength: 40 },
  )
  .map((parts) => parts.join(''));

const BLOCKS = ['p', 'h1', 'h2', 'h4', 'blockquote', 'center', 'section'];
const WORDS = ['b', 'i', 'em', 'font', 'span', 'u', 'a'];

/** Markup as a careful author writes it: every tag closed, nothing where it cannot stand. */
export const wellFormedMarkup: fc.Arbitrary<string> = fc.letrec<{ inline: string; block: string }>((tie) => {
  const tag = (names: readonly string[], content: fc.Arbitrary<string>): fc.Arbitrary<string> =>
    fc
      .tuple(fc.constantFrom(...names), fc.subarray(ATTRIBUTES.slice(0, 3), { maxLength: 2 }), content)
      .map(([name, attributes, inner]) => `<${[name, ...attributes].join(' ')}>${inner}</${name}>`);
  const text = fc.constantFrom('words ', 'more', '5&nbsp;km', 'a&nbsp;b', 'x &amp; y');
  return {
    inline: fc.oneof(
      { maxDepth: 3 },
      text,
      tag(
        WORDS.slice(0, 6),
        fc.array(tie('inline'), { maxLength: 3 }).map((parts) => parts.join('')),
      ),
    ),
    block: fc.oneof(
      { maxDepth: 3 },
      tag(
        ['p', 'h1', 'h2', 'h4'],
        fc.array(tie('inline'), { maxLength: 4 }).map((parts) => parts.join('')),
      ),
      tag(
        BLOCKS.slice(4),
        fc.array(tie('block'), { maxLength: 3 }).map((parts) => parts.join('\n')),
      ),
      fc.constant('<ul><li>one</li><li class="x">two</li></ul>'),
      fc.constant('<p><img src="/a.png" width="9000"></p>'),
      fc.constant('<!-- note -->'),
    ),
  };
}).block;
