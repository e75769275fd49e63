/**
 * Measures in Chromium how long a key takes to be seen in a text of 200 kB, what a thousand edits leave in memory, and how
 * large the editor's files are. Started by `npm run bench -- typing`.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { gzipSync } from 'node:zlib';
import type { ElementHandle, Frame } from 'puppeteer-core';
import { clean, compileRules, resolveProfile, type JsonObject } from '../packages/core/src/index';
import { launchBrowser, openPage } from '../e2e/support';
import { at } from '../scripts/lib/paths.mjs';
import { freePort } from '../scripts/lib/ports.mjs';

const KEYS = 300;
const { metafile } = (await import('../packages/editor/build.mjs')) as { metafile: { outputs: Record<string, { bytes: number }> } };
console.log('Files of the editor, as a page loads them:');
for (const [path, { bytes }] of Object.entries(metafile.outputs)) {
  const packed = gzipSync(readFileSync(at('packages/editor', path))).length;
  if (bytes > 10_000)
    console.log(`  ${path.replace('dist/', '')}: ${(bytes / 1024).toFixed(0)} kB, compressed ${(packed / 1024).toFixed(0)} kB`);
}

const documents = Object.fromEntries(
  readdirSync(at('demo/profiles')).map((file) => [
    file.replace('.json', ''),
    JSON.parse(readFileSync(at('demo/profiles', file), 'utf8')) as JsonObject,
  ]),
);
const resolution = resolveProfile('story-desk', (id) => documents[id]);
if (!resolution.ok) throw new Error('The Story desk does not resolve.');
const rules = compileRules(resolution.resolved);
const sources = readdirSync(at('demo/documents')).map((name) => clean(readFileSync(at('demo/documents', name), 'utf8'), rules).html);
let html = '';
for (let i = 0; html.length < 200_000; i++) html += sources[i % sources.length]!;

const server = createServer((request, response) => {
  const path = request.url === '/' ? null : (request.url ?? '');
  response.setHeader('Content-Type', path === null ? 'text/html' : path.endsWith('.css') ? 'text/css' : 'text/javascript');
  response.end(
    path === null
      ? '<!doctype html><link rel="icon" href="data:,"><link rel="stylesheet" href="/typikon-editor.css"><typikon-editor name="a" label="A"></typikon-editor><script type="module" src="/typikon-editor.js"></script>'
      : path.startsWith('/typikon-editor') || path.startsWith('/parts/')
        ? readFileSync(at('packages/editor/dist', path.slice(1)))
        : '',
  );
});
const port = await freePort();
await new Promise<void>((done) => server.listen(port, '127.0.0.1', done));
const browser = await launchBrowser();

interface Editor extends HTMLElement {
  value: string;
  configuration: unknown;
  ready: Promise<void>;
}

try {
  const { page } = await openPage(browser);
  await page.goto(`http://127.0.0.1:${port}/`);
  const css = readFileSync(at('demo/stylesheets/site.css'), 'utf8');
  const opened = await page.evaluate(
    async (all, text, sheet) => {
      await customElements.whenDefined('typikon-editor');
      const editor = document.querySelector('typikon-editor') as unknown as Editor;
      const begin = performance.now();
      editor.value = text;
      editor.configuration = {
        profile: { id: 'story-desk', documents: all },
        surface: {
          pageKind: { id: 'a', name: 'A', wrapper: [], stylesheets: [], contentWidthPx: 720 },
          css: [sheet],
          baseAddress: location.href,
          language: 'en',
        },
      };
      await editor.ready;
      return performance.now() - begin;
    },
    documents,
    html,
    css,
  );
  console.log(`Opening ${(html.length / 1000).toFixed(0)} kB: ${opened.toFixed(0)} ms`);
  const frame = (await (await page.waitForSelector('.te-frame'))!.contentFrame())!;
  const typed = async (where: Frame, what: string): Promise<number> => {
    await where.evaluate(() => {
      const times: number[] = ((globalThis as { times?: number[] }).times = []);
      document.addEventListener(
        'keydown',
        (event) => {
          const begin = event.timeStamp;
          // Painted: the frame after the next one begins.
          requestAnimationFrame(() => setTimeout(() => times.push(performance.now() - begin)));
        },
        true,
      );
      const blocks = document.querySelectorAll('[contenteditable] p');
      const middle = blocks[Math.floor(blocks.length / 2)]!;
      middle.scrollIntoView();
      (document.querySelector('[contenteditable]') as HTMLElement).focus();
      getSelection()!.collapse(middle, 0);
    });
    const letters = 'the tide turns at noon and ';
    for (let n = 0; n < KEYS; n++) {
      await page.keyboard.press(letters[n % letters.length] === ' ' ? 'Space' : (letters[n % letters.length] as 'a'));
      await new Promise((done) => setTimeout(done, 20));
    }
    const times = (await where.evaluate(() => (globalThis as { times?: number[] }).times!)).sort((a, b) => a - b);
    const share = (part: number): number => times[Math.min(times.length - 1, Math.floor(part * times.length))]!;
    console.log(
      `  ${what}: median ${share(0.5).toFixed(1)} ms, 95th percentile ${share(0.95).toFixed(1)} ms, longest ${share(1).toFixed(1)} ms`,
    );
    return share(0.5);
  };
  console.log(`From a key to the screen, ${KEYS} keys:`);
  const own = await typed(frame, 'the editor');
  // The browser alone: the same text, the same stylesheet, nothing that watches.
  const bare = await page.evaluateHandle(
    (text, sheet) => {
      const other = document.createElement('iframe');
      other.style.cssText = 'width:100%;height:420px';
      other.srcdoc = `<style>${sheet}</style><body><div contenteditable style="max-width:720px;white-space:break-spaces">${text}</div>`;
      document.querySelector('typikon-editor')!.before(other);
      return new Promise<HTMLIFrameElement>((done) => other.addEventListener('load', () => done(other)));
    },
    html,
    css,
  );
  const alone = await typed((await (bare as ElementHandle<HTMLIFrameElement>).contentFrame())!, 'the browser alone');
  console.log(`  ratio of the medians ${(own / alone).toFixed(2)}`);
  await bare.evaluate((node) => (node as HTMLElement).remove());
  await frame.focus('[role=textbox]');

  const session = await page.createCDPSession();
  const heap = async (): Promise<number> => {
    await session.send('HeapProfiler.collectGarbage');
    return (await page.metrics()).JSHeapUsedSize! / 1024 / 1024;
  };
  const before = await heap();
  for (let n = 0; n < 1000; n++) await page.keyboard.press(n % 10 === 9 ? 'Enter' : 'x');
  const after = await heap();
  console.log(`Memory: ${before.toFixed(1)} MB before, ${after.toFixed(1)} MB after 1000 edits (with all of them to be undone)`);
} finally {
  await browser.clean();
  server.close();
}
