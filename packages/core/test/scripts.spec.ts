import fc from 'fast-check';
import { parseFragment, renderedText, runPaste, type PasteSource } from '../src/index';
import { changesIn } from '../src/paste/passes/typography';
import { readMarker, typedMarker } from '../src/paste/markers';
import { columnsOf, isWesternAt, joinsWithoutSpace, nameOfInvisible, withAsciiDigits, worksBetween } from '../src/paste/scripts';
import { demoProfile } from './support';
import { runs } from './fixed-seed';

const desk = demoProfile('notices-desk');
const typographic = (() => {
  const profile = structuredClone(desk.profile);
  profile.paste.passes.typography = { on: true, quotes: 'curly-double', dashes: 'spaced-en', ellipsis: 'character' };
  return { ...desk, profile };
})();
const paste = (html: string, source: PasteSource = 'web-page', profile = desk) =>
  runPaste({ types: { 'text/html': html } }, profile, { source });

const [ZWNJ, ZWJ, ZWSP, WJ, SHY] = ['\u200c', '\u200d', '\u200b', '\u2060', '\u00ad'] as const;

/** Plain texts in which every character means something. */
const TEXTS: Readonly<Record<string, string>> = {
  Arabic: 'السلام عليكم، هذا نص عربي «مقتبس»؟ عدد ١٢٣.',
  Persian: `می${ZWNJ}خواهم کتاب${ZWNJ}ها را ببینم؛ سال ۱۴۰۳ ه${ZWJ}.ق`,
  Hebrew: 'צה"ל וארה"ב - "ציטוט"...',
  Hindi: `क्${ZWNJ}ष क्${ZWJ}ष श्रीमान् हिन्दी।`,
  Bengali: `র্${ZWJ}যাব বাংলা`,
  Sinhala: `ශ්${ZWJ}රී ලංකා`,
  Malayalam: `ന്${ZWJ} മലയാളം`,
  Thai: `ภาษา${ZWSP}ไทย ไม่มีช่องว่าง`,
  Khmer: `ភាសា${ZWSP}ខ្មែរ`,
  Chinese: '他说：“你好……”——然后走了。',
  Japanese: '「引用」と"これ"...——そして「終わり」。',
  Korean: '한국어 "인용" - 문장...',
  Vietnamese: 'Tiếng Việt: đường phố, người ơ\u031b\u0309 đây',
  emoji: `👨${ZWJ}👩${ZWJ}👧${ZWJ}👦 👩🏽${ZWJ}🚀 🏳️${ZWJ}🌈 🇻🇳 1️⃣ ❤️`,
};

describe('letters of all scripts survive', () => {
  test.each(Object.entries(TEXTS))('%s', (_script, text) => {
    for (const source of ['web-page', 'word-processor', 'web-mail', 'chat'] as const) {
      expect(renderedText(paste(`<p>${text}</p>`, source).root)).toBe(text);
      expect(
        renderedText(paste(`<p>${text}</p>`, source, /Latin|Vietnamese|emoji|Persian|Hindi/.test(_script) ? desk : typographic).root),
      ).toBe(text);
    }
  });

  test('no letter is lost in any text', () => {
    const letters = fc.array(fc.constantFrom(...Object.values(TEXTS).flatMap((text) => [...text.replace(/[\s\u200b-\u200d]/g, '')])), {
      maxLength: 20,
    });
    fc.assert(
      fc.property(letters, (characters) => {
        const text = characters.join('');
        const out = renderedText(paste(`<p>x ${text}</p>`).root);
        expect(out.replace(/\s/g, '')).toBe(`x${text}`.replace(/\s/g, ''));
      }),
      { numRuns: runs(150) },
    );
  });
});

describe('characters that nobody sees', () => {
  test.each<[string, string, string, string, boolean]>([
    ['a non-joiner between Latin letters', ZWNJ, 'a', 'b', false],
    ['a non-joiner between Persian letters', ZWNJ, 'ی', 'خ', true],
    ['a non-joiner at the end of a Persian word', ZWNJ, 'ی', ' ', false],
    ['a joiner at the end of a Persian word', ZWJ, 'ه', '.', true],
    ['a joiner at the begin of one', ZWJ, ' ', 'ه', true],
    ['a non-joiner behind a virama', ZWNJ, '्', ' ', true],
    ['a joiner in an emoji', ZWJ, '👩', '🚀', true],
    ['a joiner behind a skin tone', ZWJ, '🏽', '🚀', true],
    ['a joiner behind an emoji', ZWJ, '👩', 'a', false],
    ['a joiner between Chinese letters', ZWJ, '中', '文', false],
    ['a break in Thai', ZWSP, 'า', 'ไ', true],
    ['a break in English', ZWSP, 'a', 'b', false],
    ['a word joiner', WJ, 'a', 'b', false],
    ['at both ends', ZWJ, '', '', false],
  ])('%s', (_what, character, before, after, works) => expect(worksBetween(character, before, after)).toBe(works));

  test('go where they do nothing, told by name and place', () => {
    const { html, ledger } = paste(`<p>on${ZWSP}e t${SHY}wo &zwnj;three${ZWJ}${ZWJ} \u0007four</p>`);
    expect(html).toBe('<p>one two three four</p>');
    expect(ledger.filter(({ reason }) => reason === 'paste-invisible').map(({ before, subject }) => [before, subject.name])).toEqual([
      [ZWSP, 'zero width space'],
      [SHY, 'soft hyphen'],
      ['&zwnj;', 'zero width non-joiner'],
      [ZWJ + ZWJ, 'zero width joiner'],
      ['\u0007', 'control character 0007'],
    ]);
  });
  test('of several at once one stays', () => {
    expect(paste(`<p>می${ZWNJ}${ZWNJ}خ</p>`).html).toBe(`<p>می${ZWNJ}خ</p>`);
  });
  test('have names', () =>
    expect([ZWNJ, WJ, '\ufeff', '\u007f'].map(nameOfInvisible)).toEqual([
      'zero width non-joiner',
      'word joiner',
      'zero width no-break space',
      'control character 007F',
    ]));
});

describe('lines know the script they are in', () => {
  const lines = (...all: string[]) => renderedText(paste(all.map((line) => `<p>${line}</p>`).join('\n'), 'pdf-viewer').root);
  test('Chinese lines are joined without a space', () => {
    const line = '港口办公室将在本季关闭北侧船台请各船只在周五之前离开';
    expect(lines(line, line, `${line}。`)).toBe(`${line}${line}${line}。`);
  });
  test('Korean and English lines with one', () => {
    const line = 'The harbour office closes the north slip for the season and';
    expect(lines(line, line, 'then it opens again.')).toBe(`${line} ${line} then it opens again.`);
    expect(joinsWithoutSpace('한', '국')).toBe(false);
    expect(joinsWithoutSpace('中', '文')).toBe(true);
    expect(joinsWithoutSpace('ไ', 'ท')).toBe(true);
    expect(joinsWithoutSpace('a', '文')).toBe(false);
    expect(joinsWithoutSpace('', '文')).toBe(false);
  });
  test('letters of East Asia take two columns', () => {
    expect(columnsOf('abc')).toBe(3);
    expect(columnsOf('中文ab한')).toBe(8);
  });
});

describe('typography', () => {
  const settings = { quotes: 'curly-double', dashes: 'spaced-en', ellipsis: 'character' } as const;
  const set = (text: string): string =>
    changesIn(text, settings).reduceRight((out, { start, end, text: by }) => out.slice(0, start) + by + out.slice(end), text);
  test.each([
    ['He said "yes"...', 'He said “yes”…'],
    ['Λέει "ναι"...', 'Λέει “ναι”…'],
    ['Он сказал "да"...', 'Он сказал “да”…'],
    ['これは"引用"です...', 'これは"引用"です...'],
    ['צה"ל...', 'צה"ל...'],
    ['"12" - "13"', '“12” – “13”'],
  ])('%s', (text, result) => expect(set(text)).toBe(result));
  test('is at home by the nearest letters', () => {
    expect(isWesternAt('a "b', 2, 3)).toBe(true);
    expect(isWesternAt('文 "b', 2, 3)).toBe(false);
    expect(isWesternAt('12 "', 3, 4)).toBe(true);
  });
});

describe('typed items', () => {
  test.each<[string, number | null, object | null]>([
    ['١. واحد', 3, { ordered: true, type: '1', value: 1 }],
    ['۲) دو', 3, { ordered: true, type: '1', value: 2 }],
    ['१. एक', 3, { ordered: true, type: '1', value: 1 }],
    ['１．項目', 2, { ordered: true, type: '1', value: 1 }],
    ['（2）項目', 3, { ordered: true, type: '1', value: 2 }],
    ['3、項目', 2, { ordered: true, type: '1', value: 3 }],
    ['・項目', 1, { ordered: false, type: '', value: 0 }],
    ['一、項目', null, null],
  ])('%s', (text, length, marker) => {
    const typed = typedMarker(text);
    expect([typed?.length ?? null, typed?.marker ?? null]).toEqual([length, marker]);
  });
  test('become lists in any script', () => {
    expect(paste('<p>・一つ</p><p>・二つ</p>').html.replace(/\n/g, '')).toBe('<ul><li>一つ</li><li>二つ</li></ul>');
    expect(paste('<p>١. واحد</p><p>٢. اثنان</p>').html.replace(/\n/g, '')).toBe('<ol><li>واحد</li><li>اثنان</li></ol>');
  });
  test('digits', () => {
    expect(withAsciiDigits('١۲३４a')).toBe('1234a');
    expect(readMarker('٣.')).toEqual({ ordered: true, type: '1', value: 3 });
    expect(parseFragment('x').root.children).toHaveLength(1);
  });
});

describe('a guess needs a reason', () => {
  const headings = (html: string, source: PasteSource) =>
    paste(html, source)
      .ledger.filter(({ reason }) => reason === 'paste-heading')
      .map(({ after, detail }) => [after.replace(/[\s>].*/, ''), detail]);
  test.each<[string, PasteSource, string[][]]>([
    ['<p class="title">Head</p>', 'web-page', []],
    ['<p class="title">Head</p>', 'web-mail', []],
    ['<p class="title">Head</p>', 'word-processor', [['<h1', 'class="title"']]],
    ['<p class="subtitle">Head</p>', 'word-processor', [['<h2', 'class="subtitle"']]],
    ['<p class="MsoTitle">Head</p>', 'web-mail', [['<h1', 'class="MsoTitle"']]],
    ['<p role="heading" aria-level="3">Head</p>', 'web-page', [['<h3', 'role="heading"']]],
    ['<p style="mso-outline-level:2">Head</p>', 'word-processor', [['<h2', 'mso-outline-level: 2']]],
  ])('%s from %s', (html, source, result) => expect(headings(html, source)).toEqual(result));
  test('lists and header rows say what they rest on', () => {
    const details = (html: string): (string | undefined)[] =>
      paste(html)
        .ledger.map(({ detail }) => detail)
        .filter((detail) => detail !== undefined);
    expect(details('<p>- one</p><p>- two</p>')).toEqual(['typed "-"', 'typed "-"']);
    expect(details('<table><tr><td><b>a</b></td></tr><tr><td>b</td></tr><tr><td>c</td></tr></table>')).toEqual([
      'all of the first row is bold, the second is not',
    ]);
  });
});
