import assert from 'node:assert/strict';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { after, before, describe, test } from 'node:test';
import type { Browser, Page } from 'puppeteer-core';
import { clean, type ChildNode as CleanNode } from '../packages/core/src/index';
import { HOSTILE_MARKUP } from '../packages/core/test/hostile-markup';
import { mostPermissive } from '../packages/core/test/most-permissive';
import { launchBrowser } from './support';

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

describe(`${HOSTILE_MARKUP.length} hostile inputs, cleaned by the most permissive rules the floor permits, in a browser`, () => {
  const rules = mostPermissive();
  const cleaned = HOSTILE_MARKUP.map((html) => clean(html, rules).html);

  test('the trap works: what is not cleaned does run', async () => {
    const { page } = await trappedPage();
    pages.set('/open', '<!doctype html><body><img src="/none" onerror="alert(1)"></body>');
    await page.goto(`${address}/open`, { waitUntil: 'networkidle0' });
    assert.deepEqual(await page.evaluate('hurt'), ['alert']);
    await page.close();
  });

  test('put into a page by innerHTML: nothing runs, no other host is asked', async () => {
    const { page, asked, dialogs } = await trappedPage();
    pages.set('/blank', '<!doctype html><body></body>');
    await page.goto(`${address}/blank`);
    // A press may lead away from the page, as presses on links do; addresses are tried apart.
    await page.evaluate(
      "addEventListener('click', (event) => event.preventDefault(), true); addEventListener('submit', (event) => event.preventDefault(), true)",
    );
    for (const [index, html] of cleaned.entries()) {
      await page.evaluate(`document.body.innerHTML = ${JSON.stringify(`<div>${html}</div>`)}; ${PROVOKE}`);
      assert.deepEqual(await page.evaluate('hurt'), [], HOSTILE_MARKUP[index]);
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
    for (let from = 0; from < cleaned.length; from += batch) {
      pages.set(
        `/batch/${from}`,
        `<!doctype html><html><body>${cleaned
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
    const seen = await page.evaluate((stored: string[]) => {
      // By way of the prototypes: a form's own properties can be names of its fields.
      const childrenOf = (node: Node): Node[] => [
        ...(Object.getOwnPropertyDescriptor(Node.prototype, 'childNodes')!.get!.call(node) as NodeListOf<ChildNode>),
      ];
      const attributesOf = (element: Element): string =>
        Element.prototype.getAttributeNames
          .call(element)
          .map((name) => `${name}=${JSON.stringify(Element.prototype.getAttribute.call(element, name))}`)
          .join(' ');
      const outline = (node: Node): string =>
        node instanceof Element
          ? `<${node.localName} ${attributesOf(node)}>${childrenOf(node).map(outline).join('')}</>`
          : node instanceof Comment
            ? `<!${JSON.stringify(node.data)}>`
            : JSON.stringify(node.textContent);
      const holder = document.implementation.createHTMLDocument('').body;
      return stored.map((html) => {
        holder.innerHTML = html;
        return [...holder.childNodes].map(outline).join('');
      });
    }, cleaned);
    const outline = (node: CleanNode): string =>
      node.type === 'element'
        ? `<${node.name} ${node.attributes.map(({ name, value }) => `${name}=${JSON.stringify(value)}`).join(' ')}>${node.children.map(outline).join('')}</>`
        : node.type === 'comment'
          ? `<!${JSON.stringify(node.data)}>`
          : JSON.stringify(node.value);
    for (const [index, html] of HOSTILE_MARKUP.entries())
      assert.equal(seen[index], clean(html, rules).root.children.map(outline).join(''), html);
    await page.close();
  });
});
