import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { BUTTONS, clean, compileRules, resolveProfile, type ButtonId, type CompiledRules, type JsonObject } from '@typikon/core';
import { EditorState, TextSelection, type Command } from 'prosemirror-state';
import { checkAddress, compileSchema, EDITOR_BUTTONS, keyLabel, readHtml, writeHtml } from '../src/index';

const DEMO = join(__dirname, '..', '..', '..', 'demo');

function rulesOf(document: JsonObject): CompiledRules {
  const resolution = resolveProfile('it', () => document);
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return compileRules(resolution.resolved);
}

const profile = (elements: JsonObject): JsonObject => ({ format: 'typikon-profile/1', name: 'It', markup: { elements } });
const ALL = profile({
  p: { attributes: { class: { test: 'text' } } },
  h2: { attributes: { id: { test: 'text' } } },
  h3: {},
  h4: {},
  strong: {},
  em: {},
  u: {},
  ul: {},
  ol: { attributes: { start: { test: 'integer' } } },
  li: {},
  blockquote: {},
  a: { attributes: { href: { test: 'url' } } },
  br: {},
  hr: {},
  img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } } },
  figure: {},
  figcaption: {},
  table: {},
  caption: {},
  thead: {},
  tbody: {},
  tr: {},
  th: {},
  td: { attributes: { colspan: { test: 'integer' } } },
  abbr: { attributes: { title: { test: 'text' } } },
  pre: {},
  dl: {},
  dt: {},
  dd: {},
});

describe('the schema compiled from the rules', () => {
  const rules = rulesOf(ALL);
  const schema = compileSchema(rules);
  const roundTrip = (html: string): string => writeHtml(readHtml(html, schema, document), document);

  test.each([
    '<p>Plain words</p>',
    '<p class="note">A <strong>b <em>c</em></strong> d</p>',
    '<h2 id="x">Heading</h2>\n<p>Text</p>',
    '<ul><li>one</li><li>two<ul><li>three</li></ul></li></ul>',
    '<ol start="3"><li><p>with a paragraph</p></li></ol>',
    '<blockquote><p>said</p></blockquote>',
    '<p><a href="https://a.example/">a <strong>link</strong></a></p>',
    '<p>one<br>two</p>\n<hr>\n<p>three</p>',
    '<p><img src="/a.png" alt="A"></p>',
    '<figure><img src="/a.png" alt="A"><figcaption>Caption</figcaption></figure>',
    '<table><caption>C</caption><thead><tr><th>a</th><th>b</th></tr></thead><tbody><tr><td colspan="2">c</td></tr></tbody></table>',
    '<p><abbr title="Automatic">AIS</abbr></p>',
    '<pre>two\n  lines</pre>',
    '<dl><dt>term</dt><dd>words</dd></dl>',
  ])('opening and saving changes nothing: %s', (html) => expect(roundTrip(html)).toBe(html));

  test('what the rules forbid cannot exist in the editor', () => {
    const narrow = compileSchema(rulesOf(profile({ p: {}, em: {} })));
    expect(writeHtml(readHtml('<h2>T</h2><p><strong>a</strong> <em>b</em></p>', narrow, document), document)).toBe(
      '<p>T</p>\n<p>a <em>b</em></p>',
    );
  });

  test('a profile without paragraphs can still be typed in', () => {
    const bare = compileSchema(rulesOf(profile({ em: {} })));
    expect(writeHtml(readHtml('a <em>b</em>', bare, document), document)).toBe('a <em>b</em>');
  });

  test('a table without rows is left out, not half compiled', () => {
    expect(() => compileSchema(rulesOf(profile({ p: {}, table: {} })))).not.toThrow();
  });

  test('the editor keeps the visible text of every demo document', () => {
    const folder = join(DEMO, 'documents');
    for (const file of readdirSync(folder)) {
      const { html } = clean(readFileSync(join(folder, file), 'utf8'), rules);
      const text = (markup: string): string => {
        const holder = document.createElement('div');
        holder.innerHTML = markup;
        return (holder.textContent ?? '').replace(/\s+/g, '');
      };
      expect(text(roundTrip(html))).toBe(text(html));
    }
  });
});

describe('buttons', () => {
  const schema = compileSchema(rulesOf(ALL));
  const press = (html: string, from: number, to: number, id: ButtonId): string => {
    const doc = readHtml(html, schema, document);
    let state = EditorState.create({ doc });
    state = state.apply(state.tr.setSelection(TextSelection.create(doc, from, to)));
    const command = EDITOR_BUTTONS.get(id)!.command(schema) as Command;
    command(state, (tr) => (state = state.apply(tr)));
    return writeHtml(state.doc, document);
  };

  test.each<[ButtonId, string, number, number, string]>([
    ['bold', '<p>abc</p>', 1, 3, '<p><strong>ab</strong>c</p>'],
    ['bold', '<p><strong>abc</strong></p>', 1, 4, '<p>abc</p>'],
    ['italic', '<p>abc</p>', 2, 3, '<p>a<em>b</em>c</p>'],
    ['underline', '<p>abc</p>', 1, 4, '<p><u>abc</u></p>'],
    ['heading-2', '<p>abc</p>', 1, 1, '<h2>abc</h2>'],
    ['heading-2', '<h2>abc</h2>', 1, 1, '<p>abc</p>'],
    ['heading-3', '<h2>abc</h2>', 1, 1, '<h3>abc</h3>'],
    ['heading-4', '<p>abc</p>', 1, 1, '<h4>abc</h4>'],
    ['paragraph', '<h4>abc</h4>', 1, 1, '<p>abc</p>'],
    ['bulleted-list', '<p>abc</p>', 1, 1, '<ul><li><p>abc</p></li></ul>'],
    ['bulleted-list', '<ul><li><p>abc</p></li></ul>', 3, 3, '<p>abc</p>'],
    ['numbered-list', '<ul><li>a</li><li>b</li></ul>', 3, 3, '<ol><li>a</li><li>b</li></ol>'],
    ['block-quote', '<p>abc</p>', 1, 1, '<blockquote><p>abc</p></blockquote>'],
    ['block-quote', '<blockquote><p>abc</p></blockquote>', 2, 2, '<p>abc</p>'],
    ['unlink', '<p>a<a href="/x">bcd</a>e</p>', 3, 3, '<p>abcde</p>'],
    ['clear-formatting', '<p><strong>a<a href="/x">b</a></strong></p>', 1, 3, '<p>a<a href="/x">b</a></p>'],
  ])('%s on %s', (id, html, from, to, result) => expect(press(html, from, to, id)).toBe(result));

  test('every button that is declared does something, and has no command where its markup is missing', () => {
    const nothing = compileSchema(rulesOf(profile({ p: {} })));
    for (const { id, needs } of BUTTONS) {
      const button = EDITOR_BUTTONS.get(id as ButtonId);
      expect(button).toBeDefined();
      if (needs.some(({ element }) => element !== 'p')) expect(button!.command(nothing)).toBeNull();
      expect(button!.command(schema)).not.toBeNull();
    }
  });
});

describe('addresses of links', () => {
  const rules = rulesOf({
    ...profile({ a: { attributes: { href: { test: 'url' } } } }),
    markup: {
      elements: { a: { attributes: { href: { test: 'url' } } } },
      urls: { schemes: { href: ['https', 'mailto'] }, relative: false },
    },
  });
  test.each([
    ['https://a.example/x', { address: 'https://a.example/x' }],
    ['a.example/x', { address: 'https://a.example/x', note: 'Completed to https://a.example/x' }],
    ['duty@a.example', { address: 'mailto:duty@a.example', note: 'Completed to mailto:duty@a.example' }],
    ['  https://a.example ', { address: 'https://a.example' }],
    ['', { refusal: 'Type an address first.' }],
    ['javascript:alert(1)', { refusal: 'Links of the kind “javascript:” are not allowed here.' }],
    ['ftp://a.example', { refusal: 'Links of the kind “ftp:” are not allowed here.' }],
    ['/page', { refusal: 'Write the whole address, beginning with https://.' }],
  ])('%j', (typed, answer) => expect(checkAddress(typed, rules)).toEqual(answer));
});

test('keys are printed as they stand on the keyboard', () => {
  expect(keyLabel('Mod-Shift-8')).toBe('Ctrl+Shift+8');
  expect(keyLabel('Mod-b', true)).toBe('⌘+B');
});
