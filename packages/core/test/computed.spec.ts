import { asBrowsersWrite, Cascade, DESK, elementsIn, parseDocument, Styles, type Style } from '../src/index';

/** The style of the first element of a name, in a page with a stylesheet. */
function styleOf(css: string, html: string, name: string, widthPx = 1280): Style {
  const media = { ...DESK, widthPx };
  const styles = new Styles(new Cascade([{ name: 'a.css', css }], media), media);
  const element = [...elementsIn(parseDocument(html))].find((one) => one.name === name);
  if (element === undefined) throw new Error(`There is no ${name}.`);
  return styles.of(element);
}

describe('computed values (CSS Cascading Level 5, section 4)', () => {
  test.each<[what: string, css: string, html: string, element: string, property: string, value: string]>([
    ['inherited from the parent', 'div { color: red }', '<div><p>x</p></div>', 'p', 'color', '#ff0000'],
    ['not inherited', 'div { padding: 3px }', '<div><p>x</p></div>', 'p', 'padding-top', '0'],
    ['inherited since it is asked for', 'div { padding: 3px } p { padding: inherit }', '<div><p>x</p></div>', 'p', 'padding-top', '3px'],
    ['initial', 'div { color: red } p { color: initial }', '<div><p>x</p></div>', 'p', 'color', '#000000'],
    ['unset, of an inherited property', 'div { color: red } p { color: unset }', '<div><p>x</p></div>', 'p', 'color', '#ff0000'],
    ['unset, of another', 'p { margin: unset }', '<p>x</p>', 'p', 'margin-top', '0'],
    ['revert: the browser’s own', 'p { margin: 0 } p { margin: revert }', '<p>x</p>', 'p', 'margin-top', '16px'],
    [
      'revert-layer: what stands before the layer',
      '@layer a { p { color: red } } @layer b { p { color: revert-layer } }',
      '<p>x</p>',
      'p',
      'color',
      '#ff0000',
    ],
    ['the browser’s own', '', '<h2>x</h2>', 'h2', 'font-size', '24px'],
    ['the browser’s own, from the size', '', '<h2>x</h2>', 'h2', 'margin-top', '19.92px'],
    ['em of the own size', 'p { font-size: 20px; padding: 2em }', '<p>x</p>', 'p', 'padding-left', '40px'],
    ['em of the parent’s size', 'div { font-size: 20px } p { font-size: 2em }', '<div><p>x</p></div>', 'p', 'font-size', '40px'],
    ['rem', 'html { font-size: 10px } p { margin: 3rem }', '<p>x</p>', 'p', 'margin-left', '30px'],
    ['per cent of the parent’s size', 'div { font-size: 20px } p { font-size: 50% }', '<div><p>x</p></div>', 'p', 'font-size', '10px'],
    ['smaller', '', '<p><small>x</small></p>', 'small', 'font-size', '13.33px'],
    ['points', 'p { font-size: 12pt }', '<p>x</p>', 'p', 'font-size', '16px'],
    ['a share of the window', 'p { width: 50vw }', '<p>x</p>', 'p', 'width', '640px'],
    ['line height as a number', 'p { line-height: 1.50 }', '<p>x</p>', 'p', 'line-height', '1.5'],
    ['line height in per cent', 'p { font-size: 20px; line-height: 150% }', '<p>x</p>', 'p', 'line-height', '30px'],
    ['bold', 'p { font-weight: bold }', '<p>x</p>', 'p', 'font-weight', '700'],
    ['bolder than bold', 'p { font-weight: 700 }', '<p><strong>x</strong></p>', 'strong', 'font-weight', '900'],
    ['lighter', 'p { font-weight: 700 } em { font-weight: lighter }', '<p><em>x</em></p>', 'em', 'font-weight', '400'],
    ['the colour of the text', 'p { color: #0f0; border: 1px solid }', '<p>x</p>', 'p', 'border-top-color', '#00ff00'],
    ['a colour with opacity', 'p { background: rgb(255 0 0 / 50%) }', '<p>x</p>', 'p', 'background-color', 'rgb(255 0 0 / 50%)'],
    ['a colour that shows nothing', 'p { background: rgb(255 0 0 / 0) }', '<p>x</p>', 'p', 'background-color', 'transparent'],
    ['no line, no width', 'p { border-top-width: 4px }', '<p>x</p>', 'p', 'border-top-width', '0'],
    ['a line’s width in whole pixels', 'p { border: 1.6px solid }', '<p>x</p>', 'p', 'border-top-width', '1px'],
    ['a thin line stays', 'p { border: 0.2px solid }', '<p>x</p>', 'p', 'border-top-width', '1px'],
    ['thick', 'p { border-left: thick solid }', '<p>x</p>', 'p', 'border-left-width', '5px'],
    ['a variable', ':root { --gap: 4px } p { padding: var(--gap) }', '<p>x</p>', 'p', 'padding-top', '4px'],
    [
      'a variable that is set nearer',
      ':root { --gap: 4px } div { --gap: 9px } p { padding: var(--gap) }',
      '<div><p>x</p></div>',
      'p',
      'padding-top',
      '9px',
    ],
    [
      'a variable within a shorthand',
      ':root { --c: red } p { border: 2px solid var(--c) }',
      '<p>x</p>',
      'p',
      'border-left-color',
      '#ff0000',
    ],
    ['the fallback of a variable', 'p { padding: var(--none, 6px) }', '<p>x</p>', 'p', 'padding-top', '6px'],
    ['a fallback within a fallback', 'p { padding: var(--none, var(--neither, 7px)) }', '<p>x</p>', 'p', 'padding-top', '7px'],
    ['no value and no fallback', 'p { margin: 3px; margin: var(--none) }', '<p>x</p>', 'p', 'margin-top', '0'],
    ['variables in a circle', ':root { --a: var(--b); --b: var(--a) } p { color: var(--a, red) }', '<p>x</p>', 'p', 'color', '#ff0000'],
    ['a variable of a variable', ':root { --a: var(--b); --b: 5px } p { padding: var(--a) }', '<p>x</p>', 'p', 'padding-top', '5px'],
    ['start is left', 'p { text-align: start }', '<p>x</p>', 'p', 'text-align', 'left'],
    ['headers of a table stand in the middle', '', '<table><tr><th>x</th></tr></table>', 'th', 'text-align', 'center'],
    [
      'but not where something around says otherwise',
      'table { text-align: right }',
      '<table><tr><th>x</th></tr></table>',
      'th',
      'text-align',
      'right',
    ],
    ['an item follows its list', 'ul { text-align: right }', '<ul><li>x</li></ul>', 'li', 'text-align', 'right'],
    ['no spacing', 'p { letter-spacing: normal }', '<p>x</p>', 'p', 'letter-spacing', '0'],
    ['typefaces', `p { font-family: 'Plex  Sans' , "Georgia",serif }`, '<p>x</p>', 'p', 'font-family', 'plex sans, georgia, serif'],
    ['numbers', 'p { opacity: .50 }', '<p>x</p>', 'p', 'opacity', '0.5'],
    ['addresses', `p { background: url("a b.png") no-repeat }`, '<p>x</p>', 'p', 'background-image', 'url(a b.png)'],
    ['old attributes', '', '<p align="right">x</p>', 'p', 'text-align', 'right'],
    ['old attributes yield', 'p { text-align: left }', '<p align="right">x</p>', 'p', 'text-align', 'left'],
    ['a table’s attributes for its cells', '', '<table border="1" cellpadding="4"><tr><td>x</td></tr></table>', 'td', 'padding-top', '4px'],
    ['and their lines', '', '<table border="1"><tr><td>x</td></tr></table>', 'td', 'border-top-style', 'inset'],
    ['the style attribute', 'p { color: red }', '<p style="color: blue">x</p>', 'p', 'color', '#0000ff'],
    ['a list in a list', '', '<ul><li><ul class="in"><li>x</li></ul></li></ul>', 'li', 'list-style-type', 'disc'],
  ])('%s', (_what, css, html, element, property, value) => expect(styleOf(css, html, element).value(property)).toBe(value));

  test('who decides is told, the browser too', () => {
    const style = styleOf('p { color: red }', '<p>x</p>', 'p');
    expect(style.source('color')).toMatchObject({ isBrowser: false, contender: { selector: 'p', value: 'red' } });
    expect(style.source('margin-top')).toMatchObject({ isBrowser: true });
    expect(style.source('opacity')).toEqual({ contender: null, isBrowser: false });
    expect(style.px('margin-top')).toBe(16);
    expect(style.px('width')).toBeNull();
  });
  test('elements that are styled alike share what is known of them', () => {
    const styles = new Styles(new Cascade([{ name: 'a', css: 'p { color: red }' }], DESK));
    const [one, other] = [...elementsIn(parseDocument('<p>a</p><p>b</p>'))].filter(({ name }) => name === 'p');
    expect(styles.of(one!)).toBe(styles.of(other!));
  });
  test('containers are asked for their width, by name and by nearness', () => {
    const css = (
      px: number,
    ) => `main { container: page / inline-size; width: ${px}px } @container page (min-width: 500px) { p { color: red } }
      @container other (min-width: 1px) { p { color: blue } } @container (width < 400px) { p { margin: 0 } }`;
    expect(styleOf(css(600), '<main><p>x</p></main>', 'p').value('color')).toBe('#ff0000');
    expect(styleOf(css(300), '<main><p>x</p></main>', 'p').value('color')).toBe('#000000');
    expect(styleOf(css(300), '<main><p>x</p></main>', 'p').value('margin-top')).toBe('0');
    expect(styleOf(css(600), '<div><p>x</p></div>', 'p').value('color')).toBe('#000000');
  });
});

test.each([
  ['color', '#ff0000', 'rgb(255, 0, 0)'],
  ['background-color', 'transparent', 'rgba(0, 0, 0, 0)'],
  ['background-color', 'rgb(255 0 0 / 50%)', 'rgba(255, 0, 0, 0.5)'],
  ['margin-top', '0', '0px'],
  ['letter-spacing', '0', 'normal'],
  ['opacity', '0', '0'],
  ['box-shadow', '0 1px 2px #000000', '0 1px 2px rgb(0, 0, 0)'],
])('%s: %s is written %s by browsers', (property, value, written) => expect(asBrowsersWrite(property, value)).toBe(written));
