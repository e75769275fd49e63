import fc from 'fast-check';
import {
  cleanWithoutLedger,
  conversionSchema,
  conversionWords,
  convert,
  ELEMENT_CATALOGUE,
  parseFragment,
  renderedText,
  type Conversion,
} from '../src/index';
import { isBridged, neighbours } from './content-laws';
import { runs } from './fixed-seed';
import { mostPermissive } from './most-permissive';
import { randomContent } from './random-content';

const asked = (conversion: unknown): Conversion => conversionSchema.parse(conversion);
const done = (html: string, conversion: unknown) => convert(html, asked(conversion));
const lettersOf = (html: string): string => renderedText(parseFragment(html).root).replace(/\s+/g, '');

describe('a prepared replacement', () => {
  test('renames elements, all or those of a class', () => {
    expect(done('<p>a <b>c</b> <b class="x">d</b></p>', { do: 'rename-element', element: 'b', to: 'strong' })).toEqual({
      html: '<p>a <strong>c</strong> <strong class="x">d</strong></p>',
      places: 2,
    });
    expect(done('<p>a</p><p class="lead x">b</p>', { do: 'rename-element', element: 'p', class: 'lead', to: 'h2' })).toEqual({
      html: '<p>a</p><h2 class="lead x">b</h2>',
      places: 1,
    });
  });

  test('renames classes; one that is there already is not there twice', () => {
    expect(
      done('<p class="warn note">a</p><div class="warn">b</div>', { do: 'rename-class', element: 'p', class: 'warn', to: 'note' }),
    ).toEqual({
      html: '<p class="note">a</p><div class="warn">b</div>',
      places: 1,
    });
  });

  test('moves a property of inline style to a class, by its value as CSS means it', () => {
    const conversion = { do: 'style-to-class', property: 'text-align', value: 'CENTER', to: 'middle' };
    expect(done('<p style="color: red; text-align:center">a</p><p style="text-align:right">b</p>', conversion)).toEqual({
      html: '<p style="color: red" class="middle">a</p><p style="text-align:right">b</p>',
      places: 1,
    });
    expect(done('<p class="x" style="TEXT-ALIGN: /* so */ center">a</p>', conversion).html).toBe('<p class="x middle">a</p>');
    expect(done('<p style="text-align:center">a</p>', { ...conversion, value: undefined, element: 'div' }).places).toBe(0);
  });

  test('wraps, once however often it is done', () => {
    const conversion = { do: 'wrap', element: 'table', to: 'div', toClass: 'wide' };
    const once = done('<table><tbody><tr><td>a</td></tr></tbody></table>', conversion);
    expect(once).toEqual({ html: '<div class="wide"><table><tbody><tr><td>a</td></tr></tbody></table></div>', places: 1 });
    expect(done(once.html, conversion)).toEqual({ html: once.html, places: 0 });
  });

  test('unwraps; words that were apart stay apart', () => {
    expect(done('<div>One</div><div class="x">Two</div>', { do: 'unwrap', element: 'div', class: 'x' }).html).toMatch(
      /<div>One<\/div>\s*(?:<p>)?Two/,
    );
  });

  test('a table that is no table any more takes its rows and cells with it, and their words stay apart', () => {
    const table = '<table><thead><tr><th>Ferry</th><th>From</th></tr></thead><tbody><tr><td>Marram</td><td>Quay</td></tr></tbody></table>';
    for (const conversion of [
      { do: 'rename-element', element: 'table', to: 'div' },
      { do: 'unwrap', element: 'table' },
    ]) {
      const words = renderedText(parseFragment(done(table, conversion).html).root).split(/\s+/);
      expect(words.filter((word) => word !== '')).toEqual(['Ferry', 'From', 'Marram', 'Quay']);
    }
    expect(done(table, { do: 'rename-element', element: 'th', to: 'td' }).html).toBe(
      table.replaceAll('<th>', '<td>').replaceAll('</th>', '</td>'),
    );
  });

  test('what readers do not see does not turn up', () => {
    for (const html of ['<audio>fallback</audio>', '<div hidden>draft</div>', '<div style="display:none">draft</div>'])
      for (const element of ['audio', 'div']) expect(done(html, { do: 'unwrap', element })).toEqual({ html, places: 0 });
    expect(done('<audio>fallback</audio>', { do: 'rename-element', element: 'audio', to: 'b' }).places).toBe(0);
    expect(done('<div hidden>draft</div>', { do: 'rename-element', element: 'div', to: 'section' }).html).toBe(
      '<section hidden="">draft</section>',
    );
  });

  test('leaves a text to the letter where nothing fits', () => {
    const html = '<P CLASS=x>One<br/>two &amp; three';
    expect(done(html, { do: 'rename-element', element: 'b', to: 'strong' })).toEqual({ html, places: 0 });
  });

  test('is refused where it could not be', () => {
    for (const conversion of [
      { do: 'rename-element', element: 'b', to: 'br' },
      { do: 'rename-element', element: 'b', to: 'script' },
      { do: 'rename-element', element: 'b', to: 'b' },
      { do: 'rename-element', element: 'B>', to: 'p' },
      { do: 'rename-element', element: 'b', to: 'x-own' },
      { do: 'rename-class', class: 'a b', to: 'c' },
      { do: 'rename-class', class: 'a', to: 'a' },
      { do: 'style-to-class', property: 'a:b', to: 'c' },
      { do: 'wrap', element: 'p', to: 'textarea' },
      { do: 'wrap', element: 'td', to: 'div' },
      { do: 'unwrap', element: 'tr' },
      { do: 'unwrap', element: 'td' },
      { do: 'rename-element', element: 'td', to: 'p' },
      { do: 'rename-element', element: 'p', to: 'td' },
      { do: 'rename-element', element: 'div', to: 'table' },
      { do: 'rename-element', element: 'div', to: 'span' },
      { do: 'drop', element: 'p' },
    ])
      expect([conversion, conversionSchema.safeParse(conversion).success]).toEqual([conversion, false]);
  });

  test('says what it does', () => {
    expect(
      [
        { do: 'rename-element', element: 'b', to: 'strong' },
        { do: 'rename-element', element: 'p', class: 'lead', to: 'h2' },
        { do: 'rename-class', class: 'warn', to: 'note' },
        { do: 'style-to-class', property: 'text-align', value: 'center', element: 'p', to: 'middle' },
        { do: 'wrap', element: 'table', to: 'div', toClass: 'wide' },
        { do: 'unwrap', element: 'font' },
      ].map((conversion) => conversionWords(asked(conversion))),
    ).toEqual([
      '<b> becomes <strong>',
      '<p> with the class lead becomes <h2>',
      'The class warn becomes note',
      'The style text-align: center of <p> becomes the class middle',
      '<table> comes into <div> with the class wide',
      '<font> goes, what it holds stays',
    ]);
  });

  test('law: no letter that readers see is lost, and what was apart stays apart, whatever the text and the replacement', () => {
    const names = ELEMENT_CATALOGUE.flatMap(({ elements }) => elements.map(({ name }) => name));
    const name = fc.constantFrom(...names);
    const conversion = fc
      .oneof(
        fc.record({ do: fc.constant('rename-element'), element: name, to: name }),
        fc.record({ do: fc.constant('wrap'), element: name, to: name }),
        fc.record({ do: fc.constant('unwrap'), element: name }),
        fc.record({ do: fc.constant('rename-class'), class: fc.constant('note'), to: fc.constant('x') }),
        fc.record({ do: fc.constant('style-to-class'), property: fc.constantFrom('color', 'text-align'), to: fc.constant('x') }),
      )
      .filter((candidate) => conversionSchema.safeParse(candidate).success);
    const rules = mostPermissive();
    fc.assert(
      fc.property(randomContent, conversion, (content, candidate) => {
        // What is stored was cleaned before.
        const html = cleanWithoutLedger(content, rules);
        const { html: after, places } = convert(html, asked(candidate));
        if (places === 0) expect(after).toBe(html);
        const [was, now] = [html, cleanWithoutLedger(after, rules)].map((text) => neighbours(parseFragment(text).root)) as [
          Set<string>,
          Set<string>,
        ];
        expect([...now].filter((pair) => !was.has(pair) && !isBridged(pair, was))).toEqual([]);
        const marks = (text: string) => text.match(/w\d+\./g)?.sort() ?? [];
        expect(marks(lettersOf(cleanWithoutLedger(after, rules)))).toEqual(expect.arrayContaining(marks(lettersOf(html))));
      }),
      { numRuns: runs(5000) },
    );
  });
});
