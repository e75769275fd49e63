import fc from 'fast-check';
import { clean, measure, parseFragment, serialize, type CompiledRules } from '../src/index';
import { FragmentNode, type ChildNode, type ParentNode } from '../src/html/node';
import { parseByStandard } from '../src/html/parse';
import { isReadAsItStands, WellFormedReader } from '../src/html/well-formed';
import { runs } from './fixed-seed';
import { HOSTILE_MARKUP } from './hostile-markup';
import { randomContent } from './random-content';
import { DEMO_MARKUP, demoRules } from './support';
import { tangledMarkup } from './tangled-markup';

/** A tree with every place, line by line, without recursion. */
function drawn(root: ParentNode): string[] {
  const lines: string[] = [];
  const stack: { node: ChildNode; depth: number }[] = [...root.children].reverse().map((node) => ({ node, depth: 0 }));
  for (let top = stack.pop(); top !== undefined; top = stack.pop()) {
    const { node, depth } = top;
    const place = `${'  '.repeat(Math.min(depth, 20))}${node.start}-${node.end}`;
    if (node.type === 'text') lines.push(`${place} ${JSON.stringify(node.value)} ${JSON.stringify(node.stretches)}`);
    else if (node.type === 'comment') lines.push(`${place} <!--${node.data}-->`);
    else {
      const { name, namespace, attributes, startTagEnd, endTagStart, isCopy, content } = node;
      lines.push(
        `${place} ${startTagEnd} ${endTagStart} ${namespace} <${name} ${JSON.stringify(attributes)}> ${isCopy} ${content !== null}`,
      );
      for (const child of [...node.children].reverse()) {
        if (child.parent !== node) lines.push('a child that does not know its parent');
        stack.push({ node: child, depth: depth + 1 });
      }
    }
  }
  return lines;
}

/** Whether the quick reader reads all of some markup. */
function isWellFormed(input: string): boolean {
  return isReadAsItStands(input) && new WellFormedReader(input, new FragmentNode(), []).read(0) === input.length;
}

/** Parses by both readers in turns, and by the standard's algorithm alone, with the same outcome; gives whether the quick one read all. */
function isAnswered(html: string): boolean {
  const input = html.toWellFormed();
  const parsed = parseFragment(input);
  const standard = parseByStandard(input);
  // Only where they differ: a comparison by Jest takes far longer than both readers.
  const [one, other] = [parsed, standard].map(({ root, ignored }) => [...drawn(root), JSON.stringify(ignored)].join('\n'));
  if (one !== other || parsed.root.children.some((child) => child.parent !== parsed.root)) {
    expect(one).toBe(other);
    throw new Error('A node does not know its parent.');
  }
  return isWellFormed(input);
}

const RULES: readonly CompiledRules[] = ['story-desk', 'reply', 'house'].map((id) => demoRules(id));

describe('where the second reader answers, its answer is that of the standard’s algorithm', () => {
  test('for whatever is stored, which it always reads', () => {
    for (const { html } of DEMO_MARKUP)
      for (const rules of RULES) {
        const stored = clean(html, rules).html;
        expect([isAnswered(stored), stored.slice(0, 200)]).toEqual([true, stored.slice(0, 200)]);
      }
  });

  test('for content of every element, as it is written', () => {
    let answered = 0;
    let all = 0;
    fc.assert(
      fc.property(randomContent, (html) => {
        all++;
        if (isAnswered(serialize(parseByStandard(html).root))) answered++;
        isAnswered(html);
      }),
      { numRuns: runs(10_000) },
    );
    expect(answered / all).toBeGreaterThan(0.2);
  });

  test('for tangled and hostile markup', () => {
    for (const html of HOSTILE_MARKUP) isAnswered(html);
    fc.assert(
      fc.property(tangledMarkup, (html) => {
        isAnswered(html);
      }),
      { numRuns: runs(10_000) },
    );
  });

  // Pieces that mean something to the algorithm, put anywhere into content that the reader knows.
  const pieces = fc.constantFrom(
    ...'<p> </p> <div> </div> <b> </b> <i> </i> <a> </a> <li> </li> <ul> </ul> <table> </table> <tr> <td> </td> <br> <hr> <h2> </h2> <h3> </h3>'.split(
      ' ',
    ),
    ...'<dl> <dt> <dd> </dl> <ruby> <rt> </ruby> <pre> </pre> <iframe> </iframe> <button> <select> <option> <svg> <math> <template> <form>'.split(
      ' ',
    ),
    ...'<caption> </caption> <colgroup> <col> <tbody> </tbody> <nobr> <object> <textarea> <title> <script> <style> <image> <body> <html>'.split(
      ' ',
    ),
    '<!-- a -->',
    '<!--a--b-->',
    '<!-->',
    '<!doctype html>',
    '<?x?>',
    '</',
    '<',
    '>',
    '&',
    '&amp;',
    '&nbsp;',
    '&nbsp',
    '&copy;',
    '&#160;',
    '&#128;',
    '&#x41;',
    '&lt',
    '"',
    "'",
    '=',
    '/',
    ' ',
    '\n',
    '\t',
    '\f',
    '\r',
    '\0',
    '\ufeff',
    '\u00a0',
    '\ud83d\ude00',
    ' class="x"',
    ' class=x',
    ' hidden',
    ' a="1" a="2"',
    ' A="1"',
    " b='1'",
    ' c=a/b',
    ' d=&eacute;x',
    ' ="x"',
    '<html a=b>',
    '</html>',
    '<head>',
    '</head>',
    '<BODY>',
    '</body>',
    '<style>a&b</style>',
    '<script>a<b</script>',
    '<script><!--x--></script>',
    '<title>x</title>',
    '</style >',
    '</script x>',
    '<!DOCTYPE html PUBLIC "-//x>" "y">',
    '</table>',
    '</tr></table>',
    '<O:p>',
    '</o:P>',
    '<x-y>',
    '</x-y>',
    '<![if !x]>',
    '<?xml:a b?>',
    '<![CDATA[x]]>',
    '<meta a=b>',
    '&eacute;',
    '&#xe9;',
    '&#0;',
    '&amp;amp;',
    '<!-- <!- -->',
    '<!-- a --! -->',
    '<!--[if gte mso 9]><xml><![endif]-->',
    ' title="a&amp;b"',
    '<P>',
    '<br/>',
    '<p/>',
    'words',
  );

  test('for known content with anything put into it, or left out of it', () => {
    const known = fc.constantFrom<string[]>(
      '<p>One <b>two</b> &amp; three</p><ul><li>a</li><li><p>b</p></li></ul>',
      '<h2 id="x">a</h2><table><caption>c</caption><colgroup><col><col></colgroup><thead><tr><th scope="col">h</th></tr></thead><tbody><tr><td><p>x</p></td></tr></tbody></table>',
      '<blockquote><p><a href="https://a.example/?a=1&amp;b=2">l</a></p></blockquote><dl><dt>t</dt><dd>d</dd></dl><pre>a\n b</pre>',
      '<figure><img src="/a.png" alt="&quot;"><figcaption>f</figcaption></figure><!-- n --><p><ruby>a<rp>(</rp><rt>b</rt></ruby><br>c</p>',
      "<P CLASS=Mso style='a:b'><o:p>x</o:p><!--[if gte mso 9]><xml><![endif]--></P><Table border=0 cellspacing=0><tbody><tr><td width=64>&eacute;</td></tr></tbody></Table>",
      '<html xmlns:o="x"><head><meta a=b><style>\n<!-- p {a:b} -->\n</style><title>t</title></head>\n<body lang=EN>a<table><tr><td>x</td></tr>\n<tr><td><p>y</p></td></tr></table>b</body></html>\n',
      '<details><summary>s</summary><div><span lang="de">x</span></div></details><iframe src="https://a.example/"></iframe>',
    );
    const edit = fc.record({ at: fc.nat(400), drop: fc.nat(6), piece: pieces });
    let answered = 0;
    fc.assert(
      fc.property(known, fc.array(edit, { maxLength: 4 }), (html, edits) => {
        const mutated = edits.reduce((text, { at, drop, piece }) => {
          const place = at % (text.length + 1);
          return text.slice(0, place) + piece + text.slice(place + drop);
        }, html);
        if (isAnswered(mutated)) answered++;
      }),
      { numRuns: runs(25_000) },
    );
    expect(answered).toBeGreaterThan(runs(25_000) / 20);
  });

  test('for known content between and behind what is left to the standard’s algorithm', () => {
    const block = fc.constantFrom(
      ...Array.from(
        { length: 8 },
        (_, i) => `<h2>Part ${i}</h2>\n<p>${'words and '.repeat(60 * (i % 3))}<b>more</b> &amp; more</p><ul><li>a</li></ul>`,
      ),
    );
    const odd = fc
      .array(fc.oneof({ arbitrary: pieces, weight: 3 }, { arbitrary: block, weight: 1 }), { maxLength: 8 })
      .map((parts) => parts.join(''));
    fc.assert(
      fc.property(fc.array(fc.oneof({ arbitrary: block, weight: 4 }, { arbitrary: odd, weight: 1 }), { maxLength: 14 }), (parts) => {
        isAnswered(parts.join(''));
      }),
      { numRuns: runs(10_000) },
    );
    DEMO_MARKUP.forEach(({ html }, at) => isAnswered(`${html}${DEMO_MARKUP[(at * 7) % DEMO_MARKUP.length]!.html}`));
    isAnswered(DEMO_MARKUP.map(({ html }) => html).join('\n'));
  });

  test('for pieces in any order', () => {
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 24 }), (parts) => {
        isAnswered(parts.join(''));
      }),
      { numRuns: runs(25_000) },
    );
  });
});

test.each([
  '<p>a<p>b</p></p>',
  '<p>a',
  'a</p>',
  '<b><i>a</b></i>',
  '<a>x<a>y</a></a>',
  '<h2><h3>a</h3></h2>',
  '<table>a</table>',
  '<table><tbody><tr>a</tr></tbody></table>',
  '<li><li>a</li></li>',
  '<pre>\na</pre>',
  '<iframe>a</iframe>',
  '<svg></svg>',
  '<p hidden hidden>a</p>',
  'a &copy b',
  'a & b',
  'a\rb',
  '\ufeffa',
  '<div/>a</div>',
  '<p title=>b</p>',
  '<p a="1"b="2">c</p>',
  '<p a ="1">c</p>',
  '<!---a-->',
  '<!-- a --! b -->',
  '<!-- a <!-- b -->',
  '<![CDATA[a]]>',
  'a &nosuch; b',
  '<script><!-- a</script>',
  '<title>a &amp; b</title>',
  '<style>a',
  '<!doctype>',
  '<nobr>a</nobr>',
])('%j is left to the standard’s algorithm', (html) => expect(isWellFormed(html)).toBe(false));

test('what is read either way is cleaned alike, with the same ledger and the same measures', () => {
  for (const { html } of DEMO_MARKUP)
    for (const rules of RULES) {
      const stored = clean(html, rules).html;
      // A comment that ends in this way is read by the standard's algorithm alone, and goes.
      const other = clean(`${stored}<!-- --! -->`, RULES[1]!);
      const one = clean(stored, RULES[1]!);
      expect(isWellFormed(`${stored}<!-- --! -->`)).toBe(false);
      expect(other.html).toBe(one.html);
      expect(other.ledger.filter(({ subject }) => subject.kind !== 'comment')).toEqual(one.ledger);
      expect(measure(stored, one.html, one.root, one.ledger).lettersAfter).toBe(
        measure(stored, other.html, other.root, one.ledger).lettersAfter,
      );
    }
});

test('parsing answers by either reader', () => {
  expect(drawn(parseFragment('<p>a</p>').root)).toEqual(drawn(parseByStandard('<p>a</p>').root));
  expect(parseFragment('<p>a').root.children).toHaveLength(1);
  expect(parseFragment('<p>\ud800</p>').ignored).toEqual([{ kind: 'half-character', name: '', start: 3, end: 4 }]);
});

describe('the quick reader searches nothing twice', () => {
  const block = `<p>${'words '.repeat(300)}</p>\n`;
  test.each<[string, string]>([
    ['what is left to the standard’s algorithm, again and again', `${block}<p>a<p>b</p>\n`],
    ['references far apart', `${block.repeat(20)}<p>&amp;</p><p>a<p>b</p>\n`],
    ['comments and quotation marks', `${block}<!-- a --><p title="b">c</p><p>a<p>b</p>\n`],
    ['nothing that it reads', '<p>a'],
    ['nothing that ends', '<div><p title="a">b</p>'],
  ])('%s', (_what, piece) => {
    const html = piece.repeat(Math.ceil(400_000 / piece.length));
    const { indexOf } = String.prototype;
    let searched = 0;
    const spy = jest.spyOn(String.prototype, 'indexOf').mockImplementation(function (this: string, text: string, from = 0) {
      const found = indexOf.call(this, text, from);
      searched += (found === -1 ? this.length : found) - Math.min(from, this.length);
      return found;
    });
    try {
      parseFragment(html);
    } finally {
      spy.mockRestore();
    }
    expect(searched / html.length).toBeLessThan(8);
  });
});
