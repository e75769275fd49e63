import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { extname, join } from 'node:path';
import { after, before, describe, test } from 'node:test';
import type { Browser, Page } from 'puppeteer-core';
import fc from 'fast-check';
import { clean, compileRules, parseFragment, resolveProfile, runPaste, visibleText, type JsonObject } from '../packages/core/src/index';
import { runs } from '../packages/core/test/fixed-seed';
import { randomContent } from '../packages/core/test/random-content';
import { at } from '../scripts/lib/paths.mjs';
import { freePort } from '../scripts/lib/ports.mjs';
import { eventually, launchBrowser, openPage } from './support';

const read = (...path: string[]): string => readFileSync(at('demo', ...path), 'utf8');
const PROFILES = readdirSync(at('demo/profiles')).map((file) => file.replace('.json', ''));
const documents = Object.fromEntries(PROFILES.map((id) => [id, JSON.parse(read('profiles', `${id}.json`)) as JsonObject]));

let browser: Browser & { clean(): Promise<void> };
let server: Server;
let address: string;

// A page of somebody else: plain HTML, a form, and the editor's own file.
before(async () => {
  await import('../packages/editor/build.mjs');
  const types: Record<string, string> = { '.js': 'text/javascript', '.css': 'text/css' };
  server = createServer((request, response) => {
    const path = request.url ?? '/';
    try {
      if (path === '/') response.setHeader('Content-Type', 'text/html').end(PAGE);
      else
        response
          .setHeader('Content-Type', types[extname(path)] ?? 'text/plain')
          .end(readFileSync(join(at('packages/editor/dist'), path.replaceAll('..', ''))));
    } catch {
      response.writeHead(404).end();
    }
  });
  const port = await freePort();
  await new Promise<void>((done) => server.listen(port, '127.0.0.1', done));
  address = `http://127.0.0.1:${port}/`;
  browser = await launchBrowser();
});
after(async () => {
  await browser?.clean();
  server?.close();
});

const PAGE = `<!doctype html><html lang="en"><head><title>A form</title><link rel="stylesheet" href="/typikon-editor.css"><link rel="icon" href="data:,"></head>
<body><form id="form"><label for="name">Name</label><input id="name" name="name" value="Reed"><typikon-editor name="words" label="Words" required></typikon-editor><button>Send</button></form>
<script type="module" src="/typikon-editor.js"></script></body></html>`;

interface Editor extends HTMLElement {
  value: string;
  configuration: unknown;
  ready: Promise<void>;
  checkValidity(): boolean;
  validationMessage: string;
}

async function open(profile: string): Promise<{ page: Page; mishaps: string[] }> {
  const { page, mishaps } = await openPage(browser);
  await page.goto(address);
  await page.evaluate(
    async (id, all) => {
      await customElements.whenDefined('typikon-editor');
      const editor = document.querySelector('typikon-editor') as unknown as Editor;
      editor.configuration = {
        profile: { id, documents: all },
        surface: {
          pageKind: { id: 'plain', name: 'Plain', wrapper: [], stylesheets: [], contentWidthPx: 600 },
          css: [],
          baseAddress: location.href,
          language: 'en',
        },
      };
      await editor.ready;
    },
    profile,
    documents,
  );
  return { page, mishaps };
}

describe('a form of any page', () => {
  test('gets the markup under the name, validity, input and change; reset empties it', async () => {
    const { page, mishaps } = await open('reply');
    const state = () =>
      page.$eval('typikon-editor', (node) => {
        const editor = node as unknown as Editor;
        return {
          isValid: editor.checkValidity(),
          message: editor.validationMessage,
          sent: Object.fromEntries(new FormData(document.querySelector('form')!)),
        };
      });
    assert.deepEqual(await state(), { isValid: false, message: 'Please write something here.', sent: { name: 'Reed', words: '' } });
    await page.evaluate(() => {
      const counts = ((globalThis as { counts?: Record<string, number> }).counts = { input: 0, change: 0 } as Record<string, number>);
      for (const kind of ['input', 'change']) document.querySelector('typikon-editor')!.addEventListener(kind, () => void counts[kind]!++);
    });
    const frame = await (await page.waitForSelector('.te-frame'))!.contentFrame();
    await frame!.click('[role=textbox]');
    await page.keyboard.type('Hi');
    await page.keyboard.down('Control');
    await page.keyboard.press('b');
    await page.keyboard.up('Control');
    await page.keyboard.type('!');
    assert.deepEqual(await state(), { isValid: true, message: '', sent: { name: 'Reed', words: '<p>Hi<strong>!</strong></p>' } });
    await page.focus('#name');
    await eventually(
      () => page.evaluate(() => (globalThis as { counts?: Record<string, number> }).counts!),
      ({ input, change }) => input! >= 3 && change === 1,
      'the events are not as those of a field',
    );
    await page.$eval('form', (form) => form.reset());
    await eventually(state, ({ sent }) => sent['words'] === '', 'it was not emptied');
    assert.deepEqual(mishaps, []);
  });

  test('what is set is cleaned by the rules; nothing in it runs', async () => {
    const { page } = await open('reply');
    const value = await page.$eval('typikon-editor', async (node) => {
      const editor = node as unknown as Editor;
      editor.value = '<h2>Head</h2><p onclick="top.hit=1">Text <img src=x onerror="top.hit=1"><a href="javascript:top.hit=1">go</a></p>';
      await editor.ready;
      await new Promise((done) => setTimeout(done, 300));
      return `${editor.value} ${String((globalThis as { hit?: number }).hit)}`;
    });
    assert.equal(value, '<p>Head</p><p>Text <a>go</a></p> undefined');
  });

  test('composition, right to left and signs beyond the first plane are typed as they are', async () => {
    const { page } = await open('story-desk');
    const frame = await (await page.waitForSelector('.te-frame'))!.contentFrame();
    await frame!.click('[role=textbox]');
    const session = await page.createCDPSession();
    await session.send('Input.imeSetComposition', { text: 'か', selectionStart: 1, selectionEnd: 1 });
    await session.send('Input.imeSetComposition', { text: 'かん', selectionStart: 2, selectionEnd: 2 });
    await session.send('Input.insertText', { text: '漢' });
    await page.keyboard.sendCharacter(' שלום 👩‍👩‍👧 ');
    await page.keyboard.type('end');
    await page.keyboard.press('Backspace');
    await eventually(
      () => page.$eval('typikon-editor', (node) => (node as unknown as Editor).value),
      (html) => html === '<p>漢 שלום 👩‍👩‍👧 en</p>',
      'it was not typed as it is',
    );
  });
});

describe('the law', () => {
  for (const id of PROFILES)
    test(`in a browser, opening and saving changes nothing: ${id}`, async () => {
      const { page, mishaps } = await open(id);
      const resolution = resolveProfile(id, (name) => documents[name]);
      assert.ok(resolution.ok);
      const rules = compileRules(resolution.resolved);
      const stored = [
        ...readdirSync(at('demo/documents')).map((file) => ({ file, html: clean(read('documents', file), rules).html })),
        ...readdirSync(at('demo/specimens'))
          .filter((file) => file.endsWith('.html'))
          .map((file) => ({
            file,
            html: runPaste({ types: { 'text/html': read('specimens', file) } }, resolution.resolved, { rules }).html,
          })),
      ];
      assert.ok(stored.length > 30);
      const changed = await page.evaluate(async (all) => {
        const editor = document.querySelector('typikon-editor') as unknown as Editor;
        const wrong: string[] = [];
        for (const { file, html } of all) {
          editor.value = html;
          await editor.ready;
          // Selecting everything makes the browser look at all of it.
          const frame = editor.querySelector('iframe')!.contentDocument!;
          frame.getSelection()!.selectAllChildren(frame.querySelector('[role=textbox]')!);
          await new Promise((done) => requestAnimationFrame(done));
          if (editor.value !== html) wrong.push(file);
        }
        return wrong;
      }, stored);
      assert.deepEqual(changed, []);
      // Pictures of the made-up sites do not load here; nothing else may go wrong.
      assert.deepEqual(
        mishaps.filter((mishap) => !/Failed to load resource/.test(mishap)),
        [],
      );
    });
});

/** Content of every kind of element, and what once opened as nothing. */
const ODD = [
  '<li>One</li><li>Two</li>',
  '<figcaption>One</figcaption>',
  '<dt>One</dt><dd>Two</dd>',
  '<menu>One<li>Two</li></menu>',
  '<ins>One<p>Two</p></ins>',
  '<p>One</p>\n\n  <p> Two  <b>three</b> </p>\n',
  '<hr>',
  '',
  ...fc.sample(randomContent, { numRuns: runs(40), seed: 21 }),
];

describe('whatever is opened', () => {
  for (const id of ['story-desk', 'reply'])
    test(`a letter typed and taken back, by the keys, leaves the same bytes: ${id}`, async () => {
      const { page } = await open(id);
      const set = (html: string): Promise<{ value: string; words: string }> =>
        page.$eval(
          'typikon-editor',
          async (node, markup) => {
            const editor = node as unknown as Editor;
            editor.value = markup;
            await editor.ready;
            const text = editor.querySelector('iframe')!.contentDocument!.querySelector('[role=textbox]')!;
            editor.focus();
            return { value: editor.value, words: text.textContent.replace(/\s/g, '') };
          },
          html,
        );
      const value = () => page.$eval('typikon-editor', (node) => (node as unknown as Editor).value);
      const letters = (html: string): string => visibleText(parseFragment(html).root).replace(/\s/g, '');
      for (const html of ODD) {
        const before = await set(html);
        for (const word of letters(before.value).match(/w\d+\.|[A-Z][a-z]+/g) ?? [])
          assert.ok(before.words.includes(word), `${word} of ${before.value} is not shown`);
        await page.keyboard.type('X');
        await eventually(value, (typed) => letters(typed).replace('X', '') === letters(before.value), `typed into ${before.value}`);
        await page.keyboard.press('Backspace');
        await eventually(value, (after) => after === before.value, `taken back in ${before.value}`);
        await page.keyboard.type('Xy z');
        for (let i = 0; i < 6; i++) {
          await page.keyboard.down('Control');
          await page.keyboard.press('KeyZ');
          await page.keyboard.up('Control');
        }
        await eventually(value, (after) => after === before.value, `undone in ${before.value}`);
      }
    });
});
