import {
  detectSource,
  dropFromNowOn,
  keepFromNowOn,
  markupOf,
  overtakenPasses,
  patched,
  pictureAddress,
  pictureInAddress,
  picturesInRtf,
  pictureTypeOf,
  plainPayload,
  replacementSchema,
  runPaste,
  takeInventory,
  textOfRtf,
  parseFragment,
  visibleLetters,
  compileSearch,
  type JsonObject,
  type Thing,
} from '../src/index';
import { typedMarker, readMarker } from '../src/paste/markers';
import { looseDeclarations } from '../src/paste/declarations';
import { changesIn } from '../src/paste/passes/typography';
import { demoHouse, demoProfile, resolved } from './support';
import { longDocument } from './long-payloads';
import { demoSpecimens } from './specimens';

const house = demoHouse();
const desk = demoProfile('notices-desk');
const specimen = (id: string) => demoSpecimens().find((one) => one.id === id)!.payload;
const PNG = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAgAAAAICAIAAABLbSncAAAAEklEQVR4nGNQTo3Ciph1FhYAN5cKeQzB1RkAAAAASUVORK5CYII=', 'base64');

describe('what is left', () => {
  const html =
    '<p>5&nbsp;km <strong>a</strong><strong>b</strong></p><p></p><p class="note lead" style="color: red; text-align: center" lang="fr"><a href="https://x.example/a">x</a></p>';
  const things = takeInventory(html);

  test('is counted by kind, with values and places', () => {
    expect(things.map(({ kind, name, count, values }) => [kind, name, count, values[0] ?? ''])).toEqual([
      ['element', 'strong', 2, ''],
      ['element', 'a', 1, ''],
      ['class', 'lead', 1, ''],
      ['class', 'note', 1, ''],
      ['style', 'color', 1, 'red'],
      ['style', 'text-align', 1, 'center'],
      ['attribute', 'lang', 1, 'fr'],
      ['link', 'x.example', 1, 'https://x.example/a'],
      ['hard-space', '', 1, ''],
      ['empty-paragraph', '', 1, ''],
    ]);
  });
  test('its places are those of the source', () => {
    const at = ({ places }: Thing): string => html.slice(places[0]!.start, places[0]!.end);
    const shown = Object.fromEntries(things.map((thing) => [`${thing.kind} ${thing.name}`.trim(), at(thing)]));
    expect(shown).toMatchObject({
      'element strong': '<strong>',
      'class note': 'class="note lead"',
      'hard-space': '&nbsp;',
      'empty-paragraph': '<p></p>',
      'link x.example': 'href="https://x.example/a"',
    });
  });

  test.each<[kind: Thing['kind'], name: string]>([
    ['element', 'em'],
    ['element', 'h2'],
    ['attribute', 'start'],
    ['class', 'note'],
    ['hard-space', ''],
    ['link', 'saltmarrow.example'],
  ])('%s %s is taken away by the right pass', (kind, name) => {
    const payload = {
      types: {
        'text/html':
          '<p class="note">5&nbsp;km <i>a</i> <a href="https://www.saltmarrow.example/x">b</a></p><h1>t</h1><ol start="4"><li>x</li></ol>',
      },
    };
    const count = (profile: typeof desk): number =>
      takeInventory(runPaste(payload, profile, { house }).html)
        .filter((thing) => thing.kind === kind && (thing.name === name || thing.name.endsWith(`.${name}`)))
        .reduce((sum, thing) => sum + thing.count, 0);
    expect(count(desk)).toBe(1);
    const change = dropFromNowOn({ kind, name }, desk)!;
    expect(change.passes).toHaveLength(1);
    expect(count(patched(desk, change.patch)!)).toBe(0);
  });

  test('what a pass and the rules take is kept by both', () => {
    const open = resolved('open', () => ({ format: 'typikon-profile/1', name: 'Open', markup: { elements: { p: {} } } }));
    const payload = { types: { 'text/html': '<p style="text-align:center">a</p><p><u>b</u></p><p class="c1">c</p>' } };
    for (const [kind, name, expected] of [
      ['style', 'text-align', /style="text-align: center"/],
      ['element', 'u', /<u>b<\/u>/],
      ['class', 'c1', /class="c1"/],
    ] as const) {
      const change = keepFromNowOn({ kind, name }, payload, open)!;
      expect(change.changesRules).toBe(true);
      expect(runPaste(payload, patched(open, change.patch)!).html).toMatch(expected);
    }
  });
  test('what the house limits take, no profile keeps', () => {
    const payload = { types: { 'text/html': '<p style="font-family:serif">a</p>' } };
    expect(keepFromNowOn({ kind: 'style', name: 'font-family' }, payload, desk, { house })).toBeNull();
  });
});

describe('passes that work in vain', () => {
  const profile = (passes: JsonObject, markup: JsonObject = {}) =>
    resolved('desk', () => ({
      format: 'typikon-profile/1',
      name: 'Desk',
      markup: { elements: { p: {}, em: {}, strong: {} }, ...markup },
      paste: { passes },
    }));
  const payload = { types: { 'text/html': '<p><span style="font-style:italic">a</span></p>' } };
  test('a later pass takes back what one did', () => {
    expect(overtakenPasses(payload, profile({ elements: { on: true, unwrap: ['em'] } }))).toContainEqual({
      pass: 'inline-style',
      by: 'elements',
      how: 'undone',
    });
  });
  test('the rules would do the same anyway', () => {
    expect(overtakenPasses(payload, profile({}))).toContainEqual({ pass: 'wrappers', by: 'markup', how: 'anyway' });
  });
  test('what makes a difference is none of them', () => {
    expect(overtakenPasses(payload, profile({})).map(({ pass }) => pass)).not.toContain('inline-style');
  });
});

describe('the trace', () => {
  test('counts changes and bytes of each pass, and what one that is off would do', () => {
    const { trace, rulesTrace, input } = runPaste(specimen('committee-minutes'), desk, { house, trace: 'sizes', whatIf: true });
    const of = (pass: string) => trace.find((step) => step.pass === pass)!;
    expect(trace[0]!.bytesBefore).toBeGreaterThan(input.length / 2);
    for (const [i, step] of trace.entries()) if (i > 0) expect(step.bytesBefore).toBe(trace[i - 1]!.bytesAfter);
    expect(of('lists')).toMatchObject({ ran: true, changes: 3 });
    expect(of('joined-lines')).toMatchObject({ ran: false, rests: 'source' });
    expect(of('elements')).toMatchObject({ ran: false, rests: 'off' });
    expect(rulesTrace.bytesBefore).toBe(trace[trace.length - 1]!.bytesAfter);
  });
  test('tells what a pass that is off would find', () => {
    const { trace } = runPaste({ types: { 'text/html': '<p>"So..."</p><p><b>Fees</b></p>' } }, desk, { trace: 'sizes', whatIf: true });
    expect(trace.find(({ pass }) => pass === 'typography')).toMatchObject({ rests: 'off', changes: 3 });
    expect(trace.find(({ pass }) => pass === 'headings')).toMatchObject({ ran: true, offers: 1 });
  });
  test('tells how far it is', () => {
    const seen: [number, number][] = [];
    runPaste(specimen('committee-minutes'), desk, { onProgress: (done, steps) => seen.push([done, steps]) });
    expect(seen).toHaveLength(16);
    expect(seen.at(-1)).toEqual([15, 16]);
  });
});

describe('pictures', () => {
  test('are told by their bytes, not by what is claimed', () => {
    expect(pictureTypeOf(PNG)).toBe('image/png');
    expect(pictureInAddress(`data:image/jpeg;base64,${PNG.toString('base64')}`)?.type).toBe('image/png');
    expect(pictureInAddress('data:image/png;base64,PHN2Zz48L3N2Zz4=')).toBeNull();
    expect(pictureInAddress('data:image/png;base64,%%%%')).toBeNull();
    expect(pictureInAddress('https://a.example/x.png')).toBeNull();
  });
  test('the same picture has the same address', () => {
    expect(pictureAddress({ type: 'image/png', bytes: PNG })).toMatch(/^\/assets\/[0-9a-f]{32}\.png$/);
    expect(pictureAddress({ type: 'image/png', bytes: PNG })).toBe(pictureAddress({ type: 'image/png', bytes: new Uint8Array(PNG) }));
  });
  test('are taken from the rich text beside the markup where that has as many', () => {
    const payload = specimen('slip-pictures');
    expect(picturesInRtf(payload.types['text/rtf']!).map(({ type }) => type)).toEqual(['image/png', 'image/png']);
    const { pictures, picturesToUpload } = runPaste(payload, demoProfile('story-desk'), { house });
    expect(pictures.map(({ alt }) => alt)).toEqual(['The slip in March', 'The slip in May', 'Mark']);
    expect(picturesToUpload).toBe(0);
    const alone = runPaste({ types: { 'text/html': payload.types['text/html']! } }, demoProfile('story-desk'), { house });
    expect(alone.picturesToUpload).toBe(2);
  });
});

describe('two pastes that meet', () => {
  test('have ids of their own', () => {
    const payload = specimen('works-report');
    const ids = ['', 'p1-'].flatMap((idPrefix) => [
      ...runPaste(payload, desk, { house, idPrefix }).html.matchAll(/id="(c-[^"]*note[^"]*)"/g),
    ]);
    expect(new Set(ids.map(([, id]) => id)).size).toBe(ids.length);
    expect(ids).toHaveLength(12);
  });
});

describe('reading a payload', () => {
  test('a header of the operating system is no text', () => {
    const { html } = markupOf({
      types: { 'text/html': 'Version:0.9\r\nStartHTML:00000097\r\nEndHTML:00000170\r\n<html><body><p>a</p></body></html>' },
    });
    expect(html).toBe('<html><body><p>a</p></body></html>');
  });
  test.each<[types: Record<string, string>, html: string]>([
    [{ 'text/plain': 'a\r\nb\r\n\r\nc' }, '<p>a<br>b</p>\n<p>c</p>'],
    [{ 'text/plain': '   ' }, ''],
    [{ 'text/rtf': '{\\rtf1{\\fonttbl{\\f0 X;}}a\\par b \\{c\\}}' }, '<p>a</p>\n<p>b {c}</p>'],
  ])('%j', (types, html) => expect(markupOf({ types }).html).toBe(html));
  test('words alone', () => {
    expect(plainPayload({ types: { 'text/html': '<p>a <b>b</b></p><p>c</p>' } })).toEqual({ types: { 'text/plain': 'a b\n\nc' } });
    expect(plainPayload({ types: { 'text/html': '<p>a</p>', 'text/plain': 'b' } })).toEqual({ types: { 'text/plain': 'b' } });
  });
  test.each([
    ['{\\rtf1\\uc1 caf\\u233 ?}', 'café'],
    ["{\\rtf1 caf\\'e9 \\bullet\\tab x}", 'café •\tx'],
    ['{\\rtf1{\\*\\generator g;}{\\info{\\title t}}a{\\pict\\pngblip 89504e}b}', 'ab'],
    ['{\\rtf1 a\\line b\\par\\par\\par c', 'a\nb\n\nc'],
  ])('%s', (rtf, text) => expect(textOfRtf(rtf)).toBe(text));
});

describe('markers', () => {
  test.each([
    ['1.', { ordered: true, type: '1', value: 1 }],
    ['2.1.3', { ordered: true, type: '1', value: 3 }],
    ['(b)', { ordered: true, type: 'a', value: 2 }],
    ['C)', { ordered: true, type: 'A', value: 3 }],
    ['xiv.', { ordered: true, type: 'i', value: 14 }],
    ['IX.', { ordered: true, type: 'I', value: 9 }],
    ['aa)', { ordered: true, type: 'a', value: 27 }],
    ['•', { ordered: false, type: '', value: 0 }],
    ['\uf0b7', { ordered: false, type: '', value: 0 }],
    ['word', null],
    ['', null],
  ])('%s', (text, marker) => expect(readMarker(text)).toEqual(marker));
  test('what may be a letter or a digit goes on from what came before', () => {
    expect(readMarker('i.', null, { ordered: true, type: 'a', value: 8 })).toEqual({ ordered: true, type: 'a', value: 9 });
    expect(readMarker('v.', null, { ordered: true, type: 'i', value: 4 })).toEqual({ ordered: true, type: 'i', value: 5 });
    expect(readMarker('v.', false)).toEqual({ ordered: true, type: 'a', value: 22 });
  });
  test.each([
    ['- a', 2],
    ['•a', 1],
    ['  12) a', 6],
    ['1.1 a', 4],
    ['o\u00a0\u00a0a', 3],
    ['on time', 0],
    ['1998. A year', 0],
    ['-5 degrees', 0],
  ])('typed: %s', (text, length) => expect(typedMarker(text)?.length ?? 0).toBe(length));
});

test('declarations are read whatever is in them', () => {
  expect(looseDeclarations('font:7.0pt "A;B";mso-x:y; background:url(a;b);;broken;COLOR : red')).toEqual([
    { property: 'font', value: '7.0pt "A;B"' },
    { property: 'mso-x', value: 'y' },
    { property: 'background', value: 'url(a;b)' },
    { property: 'color', value: 'red' },
  ]);
});

test('replacements are checked, and the pattern’s error has its place', () => {
  const read = replacementSchema.safeParse({ find: '(a', as: 'pattern' });
  expect(read.success).toBe(false);
  expect(read.error?.issues[0]).toMatchObject({ path: ['find'], message: expect.stringContaining('missing closing )') });
  expect(compileSearch({ find: '(', as: 'pattern', replace: '', matchCase: true })).toBeNull();
  expect(compileSearch({ find: '(\\w)(\\w)', as: 'pattern', replace: '$2$1$3$$', matchCase: true })!('ab')).toEqual([
    { start: 0, end: 2, text: 'ba$3$' },
  ]);
});

test.each([
  ["rock 'n' roll", 'curly-single', 'rock ‘n’ roll'],
  ['He said "go".', 'curly-single', 'He said ‘go’.'],
  ["the boats' oars", 'curly-double', 'the boats’ oars'],
  ['(“so”)', 'straight', '("so")'],
  ['a -- b', 'keep', 'a – b'],
] as const)('typography: %s, %s', (text: string, quotes, expected) => {
  const changes = changesIn(text, { quotes, dashes: 'spaced-en', ellipsis: 'character' });
  expect(changes.reduceRight((all, { start, end, text: instead }) => all.slice(0, start) + instead + all.slice(end), text)).toBe(expected);
});

describe('what is hostile to time', () => {
  // Each would take many minutes if anything took time by its square, and so would be stopped by whoever runs the tests.
  test.each<[string, string]>([
    ['metadata that never ends', '<meta name=generator content=x '.repeat(15_000)],
    ['quotes and semicolons', `<p style="${"a:'b;".repeat(60_000)}">x</p>`],
    ['brackets', `<p style="${'a:(;'.repeat(60_000)}">x</p>`],
    ['breaks', `<p>${'a<br><br>'.repeat(15_000)}</p>`],
    ['typed items', '<p>- a</p>'.repeat(12_000)],
    ['spans in spans', `${'<span style="font-weight:bold">'.repeat(5_000)}x`],
    ['tables in tables', '<table><tr><td>'.repeat(2_000)],
    ['neighbours', `<p>${'<b>a</b> '.repeat(20_000)}</p>`],
    ['anchors', '<a name="n" href="#m">x</a><p><a name="m" href="#n">y</a></p>'.repeat(4_000)],
  ])('%s', (_name, html) => {
    const { root, ledger, input } = runPaste({ types: { 'text/html': html } }, desk, { house });
    const lost = ledger.reduce((sum, { textLost }) => sum + textLost, 0);
    expect(visibleLetters(root) + lost).toBe(visibleLetters(parseFragment(input).root));
  });
  test('text that looks like Markdown links', () => {
    expect(detectSource({ types: { 'text/plain': '['.repeat(200_000) } }).source).toBe('plain-text');
  });
  test('two megabytes end', () => {
    const once = longDocument(60);
    const times = Math.ceil(2_000_000 / once.length);
    const { html } = runPaste({ types: { 'text/html': once.repeat(times) } }, desk, { house });
    expect(html).not.toMatch(/mso-/);
  }, 120_000);
});
