const nest =
  (open: string, inner = 'x', close = '') =>
  (n: number): string =>
    open.repeat(n) + inner + close.repeat(n);
const times =
  (piece: string) =>
  (n: number): string =>
    piece.repeat(n);
const counted =
  (piece: (i: number) => string) =>
  (n: number): string =>
    Array.from({ length: n }, (_, i) => piece(i)).join('');

/** Markup that is as long as wanted, in every shape that one rule or another could take too long for. */
export const LONG_SHAPES: Readonly<Record<string, (n: number) => string>> = {
  'div in div': nest('<div>', 'x', '</div>'),
  'div in div, each with an item': nest('<div>1. x', 'x', '</div>'),
  'list in item': nest('<ul><li>', 'x', '</li></ul>'),
  'foreign in foreign': nest('<svg><foreignObject><p>x', 'x', '</p></foreignObject></svg>'),
  'group in group': (n) => `<svg>${'<g>'.repeat(n)}x${'</g>'.repeat(n)}</svg>`,
  'span in span': nest('<span>', 'x', '</span>'),
  'bold around blocks': nest('<b>x<div>', 'x', '</div></b>'),
  'span around blocks': nest('<span><div>x', 'x', '</div></span>'),
  'table in table': nest('<table><tr><td>', 'x', '</td></tr></table>'),
  'section in section': nest('<section>x', 'x', '</section>'),
  'deletion in deletion': nest('<del><div>x', 'x', '</div></del>'),
  'list properties in each other': nest('<div style="mso-list:l0 level1 lfo1"><span style="mso-list:ignore">1.</span>x'),
  'slides in each other': nest("<div><span style='mso-special-format:bullet'>•</span>x", '', '</div>'),
  'small paragraphs': times('<p>Some words here.</p>\n'),
  headings: times('<p role=heading>Short</p>'),
  'bold paragraphs': times('<p><b>Short</b></p>'),
  'typed items': times('<p>1. one</p>'),
  'typed items, ever deeper': counted((i) => `<p style="margin-left:${i * 3}pt">- one</p>`),
  'numbers that follow': counted((i) => `<p>${i}) one</p>`),
  'lines with breaks': times('line of words that is long enough to be one<br>'),
  'breaks alone': times('<br>'),
  'lines as written': (n) => `<pre>${'x &amp; y\n'.repeat(n)}</pre>`,
  'levels of lists': counted((i) => `<ul data-level="${i % 9}"><li>x</li></ul>`),
  notes: (n) =>
    counted((i) => `<p><a href="#n${i}" name="r${i}">${i}</a></p>`)(n) +
    counted((i) => `<div id="ftn${i}"><p><a href="#r${i}" name="n${i}">${i}</a> x</p></div>`)(n),
  slides: times("<div style='margin-left:1in'><span style='mso-special-format:bullet'>•</span>x</div>"),
  pictures: times('<img src="file:///x.png">'),
  'characters that nobody sees': times('a\u200b'),
  'hard spaces': times('a&nbsp;'),
  quotations: times('"a" '),
  comments: times('<!-- c -->x'),
  cells: (n) => `<table><tr>${'<td>x</td>'.repeat(n)}</tr></table>`,
  rows: (n) => `<table>${'<tr><td>x</td><td>y</td></tr>'.repeat(n)}</table>`,
  declarations: (n) => `<p style="${'color:red;'.repeat(n)}">x</p>`,
  misnested: times('<b><i>x</b></i>'),
  links: times('<a href="https://a.example/?utm_source=x">x</a> '),
  'lists beside items': (n) => `<ul>${'<ul><li>x</li></ul>'.repeat(n)}</ul>`,
  'hidden blocks': times('<div hidden>x</div>y'),
  'items without a list': times('<li>x</li>y'),
  'items in a row': times('<li>x</li>'),
  'items without a list, each in a block': times('<blockquote><li>x</li></blockquote>'),
  'empty lists that were made': times('<blockquote><li></li>y</blockquote>'),
  'cells without rows': (n) => `<table>${'<td>x'.repeat(n)}</table>`,
  'blocks in words': (n) => `<em>${'<div>x</div>'.repeat(n)}</em>`,
};

/** Those in which everything stands in everything else. */
export const NESTED_SHAPES: readonly string[] = Object.keys(LONG_SHAPES).filter((name) => / in | around /.test(name));
