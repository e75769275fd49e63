import fc from 'fast-check';

const some = (of: fc.Arbitrary<string>, most: number, least = 0, between: fc.Arbitrary<string> = fc.constant('')): fc.Arbitrary<string> =>
  fc.tuple(fc.array(of, { minLength: least, maxLength: most }), between).map(([parts, gap]) => parts.map((part) => gap + part).join(''));

const space = fc.constantFrom('', '', '\n', '\n  ', ' ');
const attributes = fc.constantFrom('', '', '', ' class=note', ' id=a', " title='x > y'", ' lang="en"', ' hidden', ' style="color:red"');

/** An element whose end tag is there, left out, or written otherwise than usual. */
const element = (name: string, content: fc.Arbitrary<string>, ends: readonly string[] = [`</${name}>`]): fc.Arbitrary<string> =>
  fc.tuple(attributes, content, fc.constantFrom(...ends)).map(([inTag, inner, end]) => `<${name}${inTag}>${inner}${end}`);

/** The same for elements whose end tag may be left out, which half of them do. */
const openEnded = (name: string, content: fc.Arbitrary<string>): fc.Arbitrary<string> =>
  element(name, content, [`</${name}>`, '', `</${name.toUpperCase()}\n>`, '']);

/** What also loses its start tag at times. */
const implied = (name: string, content: fc.Arbitrary<string>): fc.Arbitrary<string> => fc.oneof(openEnded(name, content), content);

/**
 * Wholes with their parts in the order that the standard has them, with every tag that may be left out left out at random
 * (HTML, section 13.1.2.4 "Optional tags"), and white space, comments and references between. `#` stands for a word.
 */
export const wholeContent: fc.Arbitrary<string> = fc.letrec<{ words: string; block: string; flow: string }>((tie) => {
  const { words, block, flow } = { words: tie('words'), block: tie('block'), flow: tie('flow') };
  const row = openEnded('tr', some(fc.oneof(openEnded('td', flow), openEnded('th', words)), 3, 1, space));
  const bareRow = fc.oneof({ weight: 4, arbitrary: row }, { weight: 1, arbitrary: openEnded('td', words) });
  const head = fc.oneof(fc.constant(''), openEnded('thead', some(row, 1, 1)));
  const columns = fc.oneof(fc.constant(''), implied('colgroup', some(fc.constantFrom('<col>', '<col span=2>', '<col/>'), 2, 1, space)));
  const caption = fc.oneof(fc.constant(''), openEnded('caption', words));
  const body = fc.oneof(openEnded('tbody', some(row, 2, 1, space)), some(bareRow, 2, 1, space));
  const foot = fc.oneof(fc.constant(''), openEnded('tfoot', some(row, 1, 1)));
  const pair = some(fc.oneof(openEnded('dt', words), openEnded('dd', flow)), 3, 1, space);
  const options = some(fc.oneof(openEnded('option', fc.constant('#')), openEnded('optgroup', openEnded('option', fc.constant('#')))), 2, 1);
  const item = openEnded('li', fc.oneof(words, flow));
  return {
    words: some(
      fc.oneof(
        { maxDepth: 2 },
        { weight: 9, arbitrary: fc.constantFrom('#', '#', '# ', ' #', '#&amp;', '\n#', '#&nbsp;#') },
        { weight: 1, arbitrary: fc.constantFrom('<br>', '<br />', '<img src=a.png alt=b>', '<!-- # -->', '<wbr>', '<input value=b>') },
        ...['b', 'a', 'code', 'span', 'ins', 'label', 'button', 'x-card'].map((name) => element(name, words)),
        element(
          'ruby',
          fc.tuple(openEnded('rt', fc.constant('#')), openEnded('rp', fc.constant('('))).map(([rt, rp]) => `#${rp}${rt}`),
        ),
        element('select', options),
      ),
      3,
    ),
    flow: some(fc.oneof(words, block, block), 2, 0, space),
    block: fc.oneof(
      { maxDepth: 3 },
      { weight: 4, arbitrary: openEnded('p', words) },
      { weight: 2, arbitrary: fc.constantFrom('h2', 'h3', 'pre', 'address').chain((name) => element(name, words)) },
      fc.constant('<hr>'),
      fc.constantFrom('div', 'section', 'blockquote', 'figure', 'ins', 'fieldset').chain((name) => element(name, flow)),
      fc.constantFrom('ul', 'ol', 'menu').chain((name) => element(name, some(item, 3, 1, space))),
      element('dl', fc.oneof(pair, element('div', pair))),
      {
        weight: 2,
        arbitrary: element(
          'table',
          fc.tuple(caption, columns, head, body, foot, space).map((parts) => parts.join('')),
        ),
      },
      element(
        'details',
        fc.tuple(element('summary', words), flow).map((parts) => parts.join('')),
      ),
      element(
        'figure',
        fc.tuple(flow, element('figcaption', words)).map((parts) => parts.join('')),
      ),
    ),
  };
}).flow;
