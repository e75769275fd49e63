/**
 * Measures in Chromium, with an empty cache, what the views send over the wire and when their first content is there, and how heavy
 * the author's editor is as an element of its own. Started by `npm run bench -- weight`.
 */
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { Installation, launchBrowser, openPage } from '../e2e/support';
import { at } from '../scripts/lib/paths.mjs';

const ROUNDS = 5;
/** What a view may send, in kB, and when its first content has to be there. */
const VIEWS = [
  { name: 'first view', path: '/profiles', ready: 'tbody tr', budgetKb: 200, budgetMs: 1200 },
  { name: 'workshop', path: '/profiles/story-desk', ready: 'ty-ledger-view .entry', budgetKb: 450, budgetMs: null },
] as const;
const EDITOR_BUDGET_KB = 300;

type Kind = 'code' | 'styles' | 'fonts' | 'data' | 'workers';
const kindOf = (address: string): Kind =>
  /\/worker-/.test(address)
    ? 'workers'
    : /\.js$/.test(address)
      ? 'code'
      : /\.css$/.test(address)
        ? 'styles'
        : /\.woff2$/.test(address)
          ? 'fonts'
          : 'data';

const median = (numbers: number[]): number => numbers.sort((a, b) => a - b)[Math.floor(numbers.length / 2)]!;
const typikon = await Installation.start();
const browser = await launchBrowser();
try {
  for (const { name, path, ready, budgetKb, budgetMs } of VIEWS) {
    const contents: number[] = [];
    let sent = new Map<Kind, number>();
    for (let round = 0; round < ROUNDS; round++) {
      const { page } = await openPage(browser);
      const session = await page.createCDPSession();
      await session.send('Network.enable');
      await session.send('Network.setCacheDisabled', { cacheDisabled: true });
      const addresses = new Map<string, string>();
      sent = new Map();
      session.on('Network.responseReceived', ({ requestId, response }) => addresses.set(requestId, response.url));
      session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
        const kind = kindOf(addresses.get(requestId) ?? '');
        sent.set(kind, (sent.get(kind) ?? 0) + encodedDataLength);
      });
      await page.goto(`${typikon.address}${path}`, { waitUntil: 'networkidle0' });
      await page.waitForSelector(ready);
      // Of the two paints that are told (Paint Timing, section 4), the one that shows something.
      contents.push(
        await page.evaluate(() => performance.getEntriesByType('paint').find(({ name }) => name !== 'first-paint')?.startTime ?? Infinity),
      );
      await session.detach();
    }
    const kb = (kind: Kind): number => Math.round((sent.get(kind) ?? 0) / 1000);
    const own = kb('code') + kb('styles');
    console.log(`${name} (${path}), nothing in the cache, over the wire with headers:`);
    console.log(
      `  code and styles ${own} kB of ${budgetKb} kB${own > budgetKb ? ': TOO MUCH' : ''}; fonts ${kb('fonts')} kB, data ${kb('data')} kB`,
    );
    const first = median(contents);
    console.log(
      `  first content after ${first.toFixed(0)} ms${budgetMs === null ? '' : ` of ${budgetMs} ms${first > budgetMs ? ': TOO LATE' : ''}`} (median of ${ROUNDS})`,
    );
  }
} finally {
  await browser.clean();
  await typikon.stop();
}
/** A module and all that it imports at once, compressed one by one, in bytes; what it imports later does not count. */
function weigh(path: string, seen = new Set<string>()): number {
  if (seen.has(path)) return 0;
  seen.add(path);
  const code = readFileSync(path, 'utf8');
  const imported = [...code.matchAll(/(?:from|import)\s*["'](\.[^"']+\.js)["']/g)].map((match) => join(dirname(path), match[1]!));
  return brotliCompressSync(code).length + imported.reduce((sum, one) => sum + weigh(one, seen), 0);
}
const editor = weigh(at('packages/editor/dist/typikon-editor.js')) / 1000;
console.log(
  `author's editor as an element of its own, compressed: ${editor.toFixed(0)} kB of ${EDITOR_BUDGET_KB} kB${editor > EDITOR_BUDGET_KB ? ': TOO MUCH' : ''}`,
);
