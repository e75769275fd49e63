import { BUTTONS, buttonOf, resolveProfile, compileRules, type ButtonId, type JsonObject } from '@typikon/core';
import { EditorState, NodeSelection, TextSelection } from 'prosemirror-state';
import {
  checkAddress,
  compileSchema,
  EDITOR_BUTTONS,
  keyLabel,
  readDocument,
  writeDocument,
  blockedBy,
  type ButtonContext,
} from '../src/index';
import { checkEmbed } from '../src/buttons/embed';
import { styleHere } from '../src/commands/style';
import { styleMemory } from '../src/plugins/style-memory';
import { findCharacters, nameOfCharacter } from '../src/document/characters';
import { idFor, outlineOf } from '../src/document/outline';
import { countOf } from '../src/panels/foot';
import { findIn, replaceFound } from '../src/plugins/find';
import { ownMarkOf } from '../src/paste/payload';
import { formatted } from '../src/panels/source-dialog';
import { rulesOf } from './demo';
import { MARKUP, tokens } from './everything';

function contextOf(markup: JsonObject, rest: JsonObject = {}): ButtonContext {
  const resolution = resolveProfile('it', () => ({ format: 'typikon-profile/1', name: 'It', markup, ...rest }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  const rules = compileRules(resolution.resolved);
  const { profile } = resolution.resolved;
  return { schema: compileSchema(rules), rules, profile, options: profile.toolbar.options };
}

const context = contextOf(MARKUP);

/** The document of some markup; `[` and `]` in it say what is selected, `|` where the cursor is. */
function stateOf(html: string, { schema } = context): EditorState {
  const { doc } = readDocument(
    html.replace(/[[\]|]/g, (sign) => ({ '[': '\ue000', ']': '\ue001', '|': '\ue002' })[sign]!),
    schema,
  );
  const places: Record<string, number> = {};
  doc.descendants((node, at) => {
    for (const sign of ['\ue000', '\ue001', '\ue002']) {
      const index = node.text?.indexOf(sign) ?? -1;
      if (index >= 0) places[sign] = at + index;
    }
  });
  let state = EditorState.create({ doc });
  const [from, to] = places['\ue002'] === undefined ? [places['\ue000'] ?? 1, places['\ue001'] ?? 1] : [places['\ue002'], places['\ue002']];
  const tr = state.tr;
  for (const at of Object.values(places).sort((a, b) => b - a)) tr.delete(at, at + 1);
  state = state.apply(tr);
  const shift = places['\ue000'] !== undefined && places['\ue001'] !== undefined ? 1 : 0;
  return state.apply(state.tr.setSelection(TextSelection.between(state.doc.resolve(from), state.doc.resolve(to - shift))));
}

function press(html: string, id: ButtonId, of = context): string {
  let state = stateOf(html, of);
  const command = EDITOR_BUTTONS.get(id)!.command!(of);
  const before = state;
  const isPossible = command(state);
  const isDone = command(state, (tr) => (state = state.apply(tr)));
  expect(isDone).toBe(isPossible);
  state.doc.check();
  if (!isDone) {
    expect(state).toBe(before);
    return 'not possible';
  }
  return writeDocument(state.doc);
}

describe('buttons', () => {
  test.each<[ButtonId, string, string]>([
    ['bold', '<p>[ab]c</p>', '<p><strong>ab</strong>c</p>'],
    ['bold', '<p>[<strong>abc</strong>]</p>', '<p>abc</p>'],
    ['italic', '<p>a[b]c</p>', '<p>a<em>b</em>c</p>'],
    ['underline', '<p>[abc]</p>', '<p><u>abc</u></p>'],
    ['strike', '<p>[abc]</p>', '<p><s>abc</s></p>'],
    ['code', '<p>[abc]</p>', '<p><code>abc</code></p>'],
    ['subscript', '<p>H[2]O</p>', '<p>H<sub>2</sub>O</p>'],
    ['heading-2', '<p>|abc</p>', '<h2>abc</h2>'],
    ['heading-2', '<h2>|abc</h2>', '<p>abc</p>'],
    ['heading-3', '<h2>|abc</h2>', '<h3>abc</h3>'],
    ['heading-6', '<p>|abc</p>', '<h6>abc</h6>'],
    ['paragraph', '<h4>|abc</h4>', '<p>abc</p>'],
    ['preformatted', '<p>|abc</p>', '<pre>abc</pre>'],
    ['bulleted-list', '<p>|abc</p>', '<ul><li>abc</li></ul>'],
    ['bulleted-list', '<p>[abc</p><p>def]</p>', '<ul><li>abc</li><li>def</li></ul>'],
    ['bulleted-list', '<p class="note">|abc</p>', '<ul><li><p class="note">abc</p></li></ul>'],
    ['bulleted-list', '<ul><li><p>|abc</p></li></ul>', '<p>abc</p>'],
    ['numbered-list', '<ul><li>|a</li><li>b</li></ul>', '<ol><li>a</li><li>b</li></ol>'],
    ['definition-list', '<p>|Tide</p>', '<dl><dt>Tide</dt><dd></dd></dl>'],
    ['definition-list', '<dl><dt>|Tide</dt><dd>water</dd></dl>', '<p>Tide</p>\n<p>water</p>'],
    ['indent', '<ul><li>a</li><li>|b</li></ul>', '<ul><li>a<ul><li>b</li></ul></li></ul>'],
    ['indent', '<ul><li>|a</li></ul>', 'not possible'],
    ['indent', '<p>|a</p>', '<p class="indent-1">a</p>'],
    ['indent', '<p class="indent-3">|a</p>', '<p class="indent-3">a</p>'],
    ['outdent', '<p class="note indent-2">|a</p>', '<p class="note indent-1">a</p>'],
    ['outdent', '<p class="indent-1">|a</p>', '<p>a</p>'],
    ['outdent', '<p>|a</p>', 'not possible'],
    ['outdent', '<ul><li>a<ul><li>|b</li></ul></li></ul>', '<ul><li>a</li><li>b</li></ul>'],
    ['align-right', '<p class="align-left note">|a</p>', '<p class="note align-right">a</p>'],
    ['align-right', '<p class="align-right">|a</p>', '<p>a</p>'],
    ['align-centre', '<h2>|a</h2>', 'not possible'],
    ['text-direction', '<p>|a</p>', '<p dir="rtl">a</p>'],
    ['text-direction', '<p dir="rtl">|a</p>', '<p>a</p>'],
    ['block-quote', '<p>|abc</p>', '<blockquote><p>abc</p></blockquote>'],
    ['block-quote', '<blockquote><p>|abc</p></blockquote>', '<p>abc</p>'],
    ['details', '<p>[a</p><p>b]</p>', '<details><summary></summary><p>a</p><p>b</p></details>'],
    ['details', '<details><summary>s</summary><p>|a</p></details>', '<p>s</p>\n<p>a</p>'],
    ['rule', '<p>|a</p><p>b</p>', '<p>a</p>\n<hr>\n<p>b</p>'],
    ['summary-break', '<p>a</p><hr class="summary-end"><p>|b</p>', '<p>a</p>\n<p>b</p>\n<hr class="summary-end">\n<p></p>'],
    ['move-up', '<p>a</p><p>|b</p>', '<p>b</p>\n<p>a</p>'],
    ['move-up', '<p>|a</p><p>b</p>', 'not possible'],
    ['move-down', '<ul><li>|a</li><li>b</li></ul>', '<ul><li>b</li><li>a</li></ul>'],
    ['move-down', '<ul><li>a</li><li>|b</li></ul><p>c</p>', 'not possible'],
    ['move-down', '<p>a</p><blockquote><p>|q</p></blockquote><p>c</p>', '<p>a</p>\n<p>c</p>\n<blockquote><p>q</p></blockquote>'],
    ['line-break', '<p>a|b</p>', '<p>a<br>b</p>'],
    ['hard-space', '<p>5|km</p>', '<p>5&nbsp;km</p>'],
    ['soft-hyphen', '<p>Hafen|meister</p>', '<p>Hafen\u00admeister</p>'],
    ['unlink', '<p>a<a href="/x">b|cd</a>e</p>', '<p>abcde</p>'],
    ['unlink', '<p>a|b</p>', 'not possible'],
    ['clear-formatting', '<p>[<strong>a<a href="/x">b</a></strong>]</p>', '<p>a<a href="/x">b</a></p>'],
    ['clear-formatting', '<p class="note">|a</p>', '<p>a</p>'],
  ])('%s on %s', (id, html, result) => expect(press(html, id)).toBe(result));

  test('bold makes the element that the profile chooses', () => {
    const other = contextOf(MARKUP, { toolbar: { options: { bold: { element: 'b' } } } });
    expect(press('<p>[a]</p>', 'bold', other)).toBe('<p><b>a</b></p>');
  });

  test('every button that is declared does something, and says what the rules take where they take it', () => {
    const nothing = contextOf({ elements: { p: {} } });
    for (const { id } of BUTTONS) {
      const button = EDITOR_BUTTONS.get(id)!;
      expect(button.command ?? button.open ?? button.mode).toBeDefined();
      expect(blockedBy(id, context)).toBe('');
      const { makes } = buttonOf(id);
      if (makes !== null && makes !== 'p')
        expect(blockedBy(id, nothing)).toContain(makes === 'hr' ? 'hr' : buttonOf(id).needs(nothing.options)[0]!.element);
    }
  });

  test('a menu button that opens knows where it is of no use', () => {
    const isPossible = (id: ButtonId, html: string): boolean => EDITOR_BUTTONS.get(id)!.isPossible!(stateOf(html), context);
    expect(isPossible('list-numbers', '<p>|a</p>')).toBe(false);
    expect(isPossible('list-numbers', '<ol><li>|a</li></ol>')).toBe(true);
    expect(isPossible('abbreviation', '<p>|</p>')).toBe(false);
    expect(isPossible('abbreviation', '<p>A|IS</p>')).toBe(true);
    expect(isPossible('styles', '<p>|a</p>')).toBe(false);
    expect(isPossible('link', '<pre>a|</pre>')).toBe(false);
  });
});

describe('addresses of links', () => {
  const rules = rulesOf({
    elements: { a: { attributes: { href: { test: 'url' } } } },
    urls: { schemes: { href: ['https', 'mailto', 'tel'] }, relative: false },
  });
  test.each([
    ['https://a.example/x', { address: 'https://a.example/x' }],
    ['a.example/x', { address: 'https://a.example/x', note: 'Completed to https://a.example/x' }],
    ['a.example:8080/x', { address: 'https://a.example:8080/x', note: 'Completed to https://a.example:8080/x' }],
    ['duty@a.example', { address: 'mailto:duty@a.example', note: 'Completed to mailto:duty@a.example' }],
    ['+44 1632 960-001', { address: 'tel:+441632960001', note: 'Completed to tel:+441632960001' }],
    ['  https://a.example ', { address: 'https://a.example' }],
    ['', { refusal: 'Type an address first.' }],
    ['https://', { refusal: 'This is no address: after https:// comes the name of a host.' }],
    ['mailto:duty@a.example', { address: 'mailto:duty@a.example' }],
    ['mailto:duty', { refusal: 'This is no mail address: it has a name, an @ and a host, such as duty@harbour.example.' }],
    ['javascript:alert(1)', { refusal: 'Links of the kind “javascript:” are not allowed here.' }],
    ['ftp://a.example', { refusal: 'Links of the kind “ftp:” are not allowed here.' }],
    ['/page', { refusal: 'Write the whole address, beginning with https://.' }],
  ])('%j', (typed, answer) => expect(checkAddress(typed, rules)).toEqual(answer));
});

describe('addresses of embeds', () => {
  test.each([
    ['https://cams.example/slip', { address: 'https://cams.example/slip' }],
    ['cams.example/slip', { address: 'https://cams.example/slip' }],
    ['<iframe width="5" src="https://cams.example/slip"></iframe>', { address: 'https://cams.example/slip' }],
    ['https://other.example/slip', { refusal: 'Pages of other.example may not be embedded here. Allowed here: cams.example.' }],
    ['http://cams.example/slip', { refusal: 'Addresses of the kind “http:” are not allowed here. Allowed here: cams.example.' }],
    ['', { refusal: 'Type the address of the film, map or camera.' }],
  ])('%j', (typed, answer) => expect(checkEmbed(typed, context)).toEqual(answer));
});

test('keys are printed as they stand on the keyboard', () => {
  expect(keyLabel('Mod-Shift-8')).toBe('Ctrl+Shift+8');
  expect(keyLabel('Mod-b', true)).toBe('⌘+B');
  expect(keyLabel('Mod-Shift--')).toBe('Ctrl+Shift+-');
  expect(keyLabel('Alt-Shift-ArrowUp')).toBe('Alt+Shift+↑');
});

describe('the outline', () => {
  const faults = (html: string): string[] => outlineOf(readDocument(html, context.schema).doc).map(({ fault }) => fault);
  test('gaps, a wrong begin and empty headings are named', () => {
    expect(faults('<h2>a</h2><h3>b</h3><h2>c</h2>')).toEqual(['', '', '']);
    expect(faults('<h2>a</h2><h4>b</h4>')[1]).toBe('Level 2 is followed by level 4: level 3 is left out.');
    expect(faults('<h3>a</h3>')[0]).toBe('The first heading should be of level 2.');
    expect(faults('<h2></h2>')[0]).toContain('empty');
  });
  test('a second heading of level 1 is named', () => {
    const { schema } = contextOf({ elements: { h1: {} } });
    expect(outlineOf(readDocument('<h1>a</h1><h1>b</h1>', schema).doc, 1).map(({ fault }) => fault)).toEqual([
      '',
      'A second heading of level 1.',
    ]);
  });
  test('ids are made of words, and never twice', () => {
    expect(idFor('Tides & times at Thornholm', new Map(), 'c-')).toBe('c-tides-times-at-thornholm');
    expect(idFor('Über', new Map([['uber', 1]]), '')).toBe('uber-2');
    expect(idFor('…', new Map(), '')).toBe('place');
  });
});

test('words and characters are counted as a reader sees them', () => {
  const doc = (html: string) => readDocument(html, context.schema).doc;
  expect(countOf(doc('<p>Low water 05:12, high water 11:20.</p><p>Ends.</p>'))).toEqual({ words: 7, characters: 39 });
  expect(countOf(doc('<p></p>'))).toEqual({ words: 0, characters: 0 });
});

describe('find and replace', () => {
  const { doc } = readDocument('<p>The tide and the <em>ti</em>de; Tide tables.</p><p>ti</p><p>de 5&nbsp;km</p>', context.schema);
  test('words are found across marks, not across blocks', () => {
    expect(findIn(doc, 'tide', false)).toHaveLength(3);
    expect(findIn(doc, 'Tide', true)).toHaveLength(1);
    expect(findIn(doc, '5 km', false)).toHaveLength(1);
    expect(findIn(doc, '', false)).toEqual([]);
  });
  test('all are replaced in one step, and marks stay', () => {
    const state = EditorState.create({ doc });
    const tr = replaceFound(state, findIn(doc, 'tide', false), 'flood');
    expect(writeDocument(tr.doc)).toBe('<p>The flood and the <em>flood</em>; flood tables.</p>\n<p>ti</p>\n<p>de 5&nbsp;km</p>');
  });
});

test('special characters are found by name and by code point', () => {
  expect(findCharacters('half')).toEqual(['½']);
  expect(findCharacters('degree')).toEqual(['°']);
  expect(findCharacters('u+2126')).toEqual(['\u2126']);
  expect(findCharacters('u+0007')).toEqual([]);
  expect(findCharacters('nonsense')).toEqual([]);
  expect(nameOfCharacter('½')).toBe('one half');
  expect(nameOfCharacter('\u2126')).toBe('U+2126');
});

/** Applies styles by their selectors, one after another, to what is selected; groups exclude each other. */
function applyStyles(html: string, ...selectors: (string | { selector: string; group?: string; within?: string[] })[]): string {
  const styles = selectors
    .map((style) => (typeof style === 'string' ? { selector: style } : style))
    .map((style) => ({ label: 'x', ...style }));
  const of = contextOf({
    ...MARKUP,
    elements: {
      ...(MARKUP['elements'] as JsonObject),
      p: { attributes: { class: tokens('note', 'warning', 'total'), lang: { test: 'language' } } },
      h3: { attributes: { class: tokens('quiet') } },
      td: { attributes: { class: tokens('total') } },
      span: { attributes: { class: tokens('wide', 'blue', 'total') } },
      blockquote: { attributes: { class: tokens('note') } },
      mark: {},
      tbody: {},
      tr: {},
    },
  });
  let state = stateOf(html, of);
  state = EditorState.create({ doc: state.doc, selection: state.selection, plugins: [styleMemory()] });
  for (const style of styles) {
    const others = styles.filter((other) => other !== style && 'group' in style && 'group' in other && other.group === style.group);
    const here = styleHere(state, of, style, others);
    if ('whyNot' in here) return here.whyNot;
    here.command(state, (tr) => (state = state.apply(tr)));
    state.doc.check();
  }
  return writeDocument(state.doc);
}

test.each<[string, Parameters<typeof applyStyles>[1][], string]>([
  ['<p>|a</p>', ['p.note'], '<p class="note">a</p>'],
  ['<p>|a</p>', ['p.note', 'p.note'], '<p>a</p>'],
  ['<h2>|a</h2>', ['p.note'], '<p class="note">a</p>'],
  ['<h2>|a</h2>', ['p.note', 'p.note'], '<h2>a</h2>'],
  ['<p>|a</p>', ['h3.quiet'], '<h3 class="quiet">a</h3>'],
  ['<p>|a</p>', ['h3.quiet', 'h3.quiet'], '<p>a</p>'],
  ['<p>|a</p>', ['h3'], '<h3>a</h3>'],
  ['<p>[ab] c</p>', ['.wide.blue'], '<p><span class="wide blue">ab</span> c</p>'],
  ['<p>[ab] c</p>', ['.wide', '.wide'], '<p>ab c</p>'],
  ['<p>[ab] c</p>', ['mark'], '<p><mark>ab</mark> c</p>'],
  ['<p>|a</p>', ['p[lang="en"]'], '<p lang="en">a</p>'],
  ['<p>|a</p>', ['p[lang="en"]', 'p[lang=en]'], '<p>a</p>'],
  [
    '<p>|a</p>',
    [
      { selector: 'p.note', group: 'g' },
      { selector: 'p.warning', group: 'g' },
    ],
    '<p class="warning">a</p>',
  ],
  ['<p>|a</p>', ['p.note', 'p.warning'], '<p class="note warning">a</p>'],
  [
    '<p>[a]</p>',
    [
      { selector: '.wide', group: 'g' },
      { selector: '.blue', group: 'g' },
    ],
    '<p><span class="blue">a</span></p>',
  ],
  ['<blockquote><p>|a</p></blockquote>', ['blockquote.note'], '<blockquote class="note"><p>a</p></blockquote>'],
  ['<p>|a</p>', ['blockquote.note'], 'It cannot be applied here. It goes on blockquote.'],
  ['<p>|a</p>', ['blockquote'], '<blockquote><p>a</p></blockquote>'],
  ['<blockquote><p>|a</p></blockquote>', ['blockquote'], '<p>a</p>'],
  [
    '<table><tbody><tr><td>|12</td></tr></tbody></table>',
    ['table td.total'],
    '<table><tbody><tr><td class="total">12</td></tr></tbody></table>',
  ],
  [
    '<table><tbody><tr><td>[12]</td></tr></tbody></table>',
    ['table .total'],
    '<table><tbody><tr><td><span class="total">12</span></td></tr></tbody></table>',
  ],
  ['<p>[12]</p>', ['table .total'], 'It cannot be applied here. It goes within table.'],
  ['<p>|a</p>', [{ selector: 'p.note', within: ['blockquote'] }], 'It cannot be applied here. It goes within blockquote.'],
  [
    '<blockquote><p>|a</p></blockquote>',
    [{ selector: 'p.note', within: ['blockquote'] }],
    '<blockquote><p class="note">a</p></blockquote>',
  ],
  ['<p>|a</p>', ['p.unknown'], 'The rules do not keep it.'],
  ['<p>|a</p>', ['p:hover'], 'Its selector cannot be applied.'],
  ['<p>|a</p>', ['img.wide'], 'The rules do not keep it.'],
])('%s with %j', (html, styles, result) => expect(applyStyles(html, ...styles)).toBe(result));

test('the mark of an own paste stays on markup that was cleaned', () => {
  expect(ownMarkOf('<p onclick="x" data-pm-slice="1 1 []">a</p>', '<p>a</p>')).toBe('<p data-pm-slice="1 1 []">a</p>');
  expect(ownMarkOf('<p>a</p>', '<p>a</p>')).toBe('<p>a</p>');
});

test('markup is shown with each block on a line of its own', () => {
  expect(formatted('<ul><li>a</li><li>b</li></ul><p>c</p>').trim()).toBe('<ul>\n  <li>a</li>\n  <li>b</li>\n</ul>\n<p>c</p>');
});

test('a picture that is selected is known as such', () => {
  const { doc } = readDocument('<p><img src="https://a.example/a.png" alt="A"></p>', context.schema);
  let state = EditorState.create({ doc });
  state = state.apply(state.tr.setSelection(NodeSelection.create(state.doc, 1)));
  expect(EDITOR_BUTTONS.get('picture')!.isActive!(state, context)).toBe(true);
});
