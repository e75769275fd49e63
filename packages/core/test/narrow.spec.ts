import { narrowestStyleTest, narrowestTest } from '../src/markup/narrow';

describe('the narrowest test that some values pass', () => {
  test.each<[name: string, values: string[], test: object, words: string]>([
    ['href', ['https://a.example/', '/x'], { test: 'url' }, ''],
    ['src', ['https://a.example/1', '//b.example/2'], { test: 'url', hosts: ['a.example', 'b.example'] }, ' from a.example, b.example'],
    ['src', ['https://a.example/1', '/2.png'], { test: 'url' }, ''],
    ['lang', ['en', 'de-AT'], { test: 'language' }, ''],
    ['colspan', ['2', '5', '3'], { test: 'integer', min: 2, max: 5 }, ': 2 to 5'],
    ['colspan', ['2', '2'], { test: 'integer', min: 2, max: 2 }, ': 2'],
    [
      'width',
      ['40%', '100%', '300px'],
      { test: 'length', ranges: { '%': { min: 40, max: 100 }, px: { min: 300, max: 300 } } },
      ': 40 to 100 %, 300 px',
    ],
    ['class', ['a b', 'b c'], { test: 'tokens', values: ['a', 'b', 'c'] }, ': a, b, c'],
    ['rel', ['nofollow noopener'], { test: 'tokens', values: ['nofollow', 'noopener'] }, ': nofollow, noopener'],
    ['allow', ['fullscreen; autoplay *'], { test: 'features', values: ['fullscreen', 'autoplay'] }, ': fullscreen, autoplay'],
    ['align', ['left', 'right', 'left'], { test: 'list', values: ['left', 'right'] }, ': left, right'],
    ['title', ['One', 'Three'], { test: 'text', maxLength: 5 }, ': up to 5 characters'],
    ['title', ['', ''], { test: 'list', values: [''] }, ': empty'],
    ['data-x', Array.from({ length: 20 }, (_, i) => `v${i}`), { test: 'text', maxLength: 3 }, ': up to 3 characters'],
    [
      'style',
      ['color: red; width: 10px', 'color:#f00; background:url(x)'],
      {
        test: 'style',
        properties: { color: { test: 'colour', values: ['#f00'] }, width: { test: 'length', ranges: { px: { min: 10, max: 10 } } } },
      },
      ': color, width',
    ],
  ])('%s %j', (name, values, test, words) => expect(narrowestTest(name, values)).toEqual({ test, words }));

  test.each<[values: string[], test: object]>([
    [['1.5', '2'], { test: 'number', min: 1.5, max: 2 }],
    [['4px 8px', '2px'], { test: 'length', ranges: { px: { min: 2, max: 8 } } }],
    [['center', 'LEFT'], { test: 'list', values: ['center', 'left'] }],
    [['rgb(255, 0, 0)', 'red', '#0f0'], { test: 'colour', values: ['red', '#0f0'] }],
  ])('of a style property: %j', (values, test) => expect(narrowestStyleTest(values).test).toEqual(test));
});
