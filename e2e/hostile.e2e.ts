import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { after, before, describe, test } from 'node:test';
import type { Browser, Page } from 'puppeteer-core';
import {
  clean,
  compileRules,
  readHouseLimits,
  resolveProfile,
  SAFETY_FLOOR,
  type CompiledRules,
  type JsonObject,
} from '../packages/core/src/index';
import { HOSTILE_MARKUP } from '../packages/core/test/hostile-markup';
import { mostPermissive } from '../packages/core/test/most-permissive';
import { at } from '../scripts/lib/paths.mjs';
import { namesInPage } from './names-in-page';
import { launchBrowser } from './support';
import { outlineOf, outlinesInBrowser } from './tree-outline';

/** What runs in the page before anything else: code that gets to run is counted. */
const TRAP = `
  window.hurt = [];
  // Functions that are handed to the page were compiled with a helper of this name.
  window.__name = (named) => named;
  for (const name of ['alert', 'confirm', 'prompt']) window[name] = () => window.hurt.push(name);
`;

/** Every element is pointed at, focused and pressed, as a reader might. */
const PROVOKE = `
  for (const element of document.querySelectorAll('body *')) {
    for (const type of ['mouseover', 'mouseenter', 'pointerenter', 'pointerdown', 'mousedown', 'focus', 'focusin', 'animationstart', 'wheel', 'toggle'])
      element.dispatchEvent(new Event(type, { bubbles: true }));
    element.focus?.();
    if (!(element instanceof HTMLIFrameElement)) element.click?.();
  }
`;

/**
 * Whether any part of the page hides behind content: a property of the window, of the document or of an element that is no
 * longer what it was. `pristine` was noted before there was any content.
 */
const NOTE_PRISTINE = `
  window.namesIn = (object) => {
    const names = new Set();
    for (let at = object; at !== null; at = Object.getPrototypeOf(at)) for (const name of Object.getOwnPropertyNames(at)) names.add(name);
    return [...names];
  };
  window.pristine = Object.fromEntries(namesIn(document).map((name) => { try { return [name, typeof document[name]]; } catch { return [name, 'none']; } }));
  window.pristineWindow = namesIn(window).filter((name) => { try { return !(window[name] instanceof Element); } catch { return false; } });
`;
const CLOBBERED = `(() => {
  const found = [];
  for (const [name, type] of Object.entries(pristine)) {
    let value; try { value = document[name]; } catch { continue; }
    if (typeof value !== type) found.push('document.' + name);
  }
  for (const name of pristineWindow) { let value; try { value = window[name]; } catch { continue; } if (value instanceof Element || value instanceof HTMLCollection) { if (name !== 'event' && !/^(embeds|plugins|links|images|forms|scripts|all|anchors)$/.test(name)) found.push('window.' + name); } }
  const proto = (element, name) => { for (let at = element; at !== null; at = Object.getPrototypeOf(at)) { const own = Object.getOwnPropertyDescriptor(at, name); if (own && at !== element) return own; } };
  for (const element of document.querySelectorAll('body *'))
    for (const name of ['attributes', 'parentNode', 'childNodes', 'firstChild', 'nodeName', 'tagName', 'textContent', 'innerHTML', 'setAttribute', 'getAttribute', 'removeChild', 'remove', 'appendChild', 'submit', 'action', 'id', 'className', 'ownerDocument']) {
      const own = proto(element, name);
      if (own === undefined) continue;
      const real = own.get ? own.get.call(element) : own.value;
      if (element[name] !== real) found.push(element.localName + '.' + name);
    }
  return found;
})()`;

let server: Server;
let address: string;
let browser: Browser & { clean(): Promise<void> };
/** What the server sends, by path. */
const pages = new Map<string, string>();

before(async () => {
  server = createServer((request, response) => {
    const body = pages.get(request.url ?? '');
    response.writeHead(body === undefined ? 404 : 200, { 'content-type': 'text/html; charset=utf-8' });
    response.end(body ?? '');
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  browser = await launchBrowser();
});
after(async () => {
  await browser?.clean();
  server?.close();
});

async function trappedPage(): Promise<{ page: Page; asked: string[]; dialogs: string[] }> {
  const page = await browser.newPage();
  const asked: string[] = [];
  const dialogs: string[] = [];
  await page.setRequestInterception(true);
  page.on('request', (request) => {
    const isOwn = request.url().startsWith(address) || request.url().startsWith('data:image/');
    // Leaving the page is what a link is for; the test goes on where it is.
    if (request.isNavigationRequest() && !isOwn) void request.abort();
    else if (isOwn) void request.continue();
    else {
      asked.push(request.url());
      void request.abort();
    }
  });
  page.on('dialog', (dialog) => {
    dialogs.push(dialog.message());
    void dialog.dismiss();
  });
  await page.evaluateOnNewDocument(TRAP);
  return { page, asked, dialogs };
}

/** The rules of every demo profile, under the house limits. */
function demoRules(): CompiledRules[] {
  const json = (path: string): JsonObject => JSON.parse(readFileSync(at(path), 'utf8')) as JsonObject;
  const house = readHouseLimits(json('demo/house-limits.json'));
  if (!house.ok) throw new Error('The house limits of the demo have mistakes.');
  return readdirSync(at('demo/profiles')).map((file) => {
    const resolution = resolveProfile(file.replace('.json', ''), (id) => json(`demo/profiles/${id}.json`));
    if (!resolution.ok) throw new Error(`${file} has mistakes.`);
    return compileRules(resolution.resolved, { house: house.house });
  });
}

describe(`${HOSTILE_MARKUP.length} hostile inputs, cleaned by every demo profile and by the most permissive rules the floor permits, in a browser`, () => {
  const rules = mostPermissive();
  const cleaned = HOSTILE_MARKUP.map((html) => clean(html, rules).html);
  /** What any of the profiles stores of them, each text once, with where it comes from. */
  const stored = new Map<string, string>();
  for (const some of [rules, ...demoRules()]) for (const html of HOSTILE_MARKUP) stored.set(clean(html, some).html, html);

  test('the trap works: what clobbers is found', async () => {
    const { page } = await trappedPage();
    pages.set('/blank', '<!doctype html><body></body>');
    await page.goto(`${address}/blank`);
    await page.evaluate(NOTE_PRISTINE);
    await page.evaluate('document.body.innerHTML = "<img name=cookie><form><input name=attributes></form>"');
    assert.deepEqual(await page.evaluate(CLOBBERED), ['document.cookie', 'form.attributes']);
    await page.close();
  });

  test('the trap works: what is not cleaned does run', async () => {
    const { page } = await trappedPage();
    pages.set('/open', '<!doctype html><body><img src="/none" onerror="alert(1)"></body>');
    await page.goto(`${address}/open`, { waitUntil: 'networkidle0' });
    assert.deepEqual(await page.evaluate('hurt'), ['alert']);
    await page.close();
  });

  test('put into a page by innerHTML: nothing runs, nothing is clobbered, no other host is asked', async () => {
    const { page, asked, dialogs } = await trappedPage();
    pages.set('/blank', '<!doctype html><body></body>');
    await page.goto(`${address}/blank`);
    // A press may lead away from the page, as presses on links do; addresses are tried apart.
    await page.evaluate(
      "addEventListener('click', (event) => event.preventDefault(), true); addEventListener('submit', (event) => event.preventDefault(), true)",
    );
    await page.evaluate(NOTE_PRISTINE);
    for (const [html, source] of stored) {
      await page.evaluate(`document.body.innerHTML = ${JSON.stringify(`<div>${html}</div>`)}; ${PROVOKE}`);
      assert.deepEqual(await page.evaluate('hurt'), [], source);
      assert.deepEqual(await page.evaluate(CLOBBERED), [], source);
    }
    await new Promise((done) => setTimeout(done, 300));
    assert.deepEqual(await page.evaluate('hurt'), []);
    assert.deepEqual(dialogs, []);
    assert.deepEqual(
      asked
        .filter((url) => url.includes('collect.example'))
        .filter((url) => !cleaned.some((html) => html.includes(`src="${url}"`) || html.includes(`src="${url.replace(/\/$/, '')}`))),
      [],
    );
    await page.close();
  });

  test('loaded as a page: nothing runs, and no address runs code', async () => {
    const { page, dialogs } = await trappedPage();
    const batch = 24;
    const all = [...stored.keys()];
    for (let from = 0; from < all.length; from += batch) {
      pages.set(
        `/batch/${from}`,
        `<!doctype html><html><body>${all
          .slice(from, from + batch)
          .map((html) => `<section>${html}</section>`)
          .join('\n')}</body></html>`,
      );
      await page.goto(`${address}/batch/${from}`, { waitUntil: 'domcontentloaded' });
      await page.evaluate(
        "addEventListener('click', (event) => event.preventDefault(), true); addEventListener('submit', (event) => event.preventDefault(), true)",
      );
      await page.evaluate(PROVOKE);
      assert.deepEqual(await page.evaluate('hurt'), [], `batch ${from}`);
      const codes = await page.$$eval('[href],[src],[action],[formaction],[data],[poster]', (nodes) =>
        nodes
          .flatMap((node) =>
            ['href', 'src', 'action', 'formAction', 'data', 'poster'].map(
              (name) =>
                // As the browser resolved it; a property that is no text is none of an address.
                `${(node as unknown as Record<string, string | undefined>)[name]}`,
            ),
          )
          .filter((url) => /^(javascript|vbscript|data:text)/i.test(url)),
      );
      assert.deepEqual(codes, [], `batch ${from}`);
    }
    assert.deepEqual(dialogs, []);
    await page.close();
  });

  test('Chromium reads what was stored as the tree it was written from', async () => {
    const { page } = await trappedPage();
    await page.goto(`${address}/blank`);
    const seen = await outlinesInBrowser(page, cleaned);
    for (const [index, html] of HOSTILE_MARKUP.entries()) assert.equal(seen[index], outlineOf(clean(html, rules).root), html);
    await page.close();
  });
});

test('the guard knows every name that a form, a document and a window of this browser answer to', async () => {
  const page = await browser.newPage();
  const known = new Set(SAFETY_FLOOR.clobberingNames);
  assert.deepEqual(
    (await namesInPage(page)).filter((name) => !known.has(name)),
    [],
  );
  await page.close();
});
