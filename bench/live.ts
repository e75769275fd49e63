/**
 * Measures in Chromium how long it takes from a change of a rule to the refreshed proof of a 100 kB specimen, and how long a
 * key takes meanwhile. Started by `npm run bench -- live`.
 */
import { readdirSync, readFileSync } from 'node:fs';
import type { Page } from 'puppeteer-core';
import { longDocument } from '../packages/core/test/long-payloads';
import { Bench, Installation, launchBrowser, openPage } from '../e2e/support';
import { at } from '../scripts/lib/paths.mjs';

const ROUNDS = 60;
const documents = readdirSync(at('demo/documents')).map((name) => readFileSync(at(`demo/documents/${name}`), 'utf8'));
let html = '';
for (let i = 0; html.length < 100_000; i++) html += documents[i % documents.length]!;

const word = longDocument(Math.round((60 * 100_000) / longDocument().length));

const typikon = await Installation.start();
const browser = await launchBrowser();

/** Presses a box again and again, and prints how long it takes until the figures are there anew. */
async function press(page: Page, box: string, figures: string, what: string): Promise<void> {
  const times = (await page.evaluate(
    async (rounds, boxSelector, figuresSelector) => {
      const measured: number[] = [];
      for (let round = 0; round < rounds; round++) {
        await new Promise((done) => setTimeout(done, 150));
        const begin = performance.now();
        await new Promise<void>((done) => {
          const observer = new MutationObserver(() => {
            observer.disconnect();
            // Shown, not only computed.
            requestAnimationFrame(() => setTimeout(done));
          });
          observer.observe(document.querySelector(figuresSelector)!, { subtree: true, characterData: true, childList: true });
          document.querySelector<HTMLInputElement>(boxSelector)!.click();
        });
        measured.push(performance.now() - begin);
      }
      return measured;
    },
    ROUNDS,
    box,
    figures,
  )) as number[];
  const sorted = times.sort((a, b) => a - b);
  const at_ = (share: number): string => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!.toFixed(0);
  console.log(`${what}, ${ROUNDS} times, from the press to the refreshed figures on the screen:`);
  console.log(`  median ${at_(0.5)} ms, 95th percentile ${at_(0.95)} ms, longest ${at_(1)} ms`);
}

try {
  const { page } = await openPage(browser);
  page.on('dialog', (dialog) => void dialog.accept());
  const bench = new Bench(page);
  await bench.open(typikon.address, 'story-desk');
  await bench.replaceSource(html);
  await new Promise((done) => setTimeout(done, 2000));
  await press(page, '[data-element=em] input', 'ty-measure-line', `${html.length} characters of stored markup, a rule changed`);
  await bench.open(typikon.address, 'notices-desk', 'paste');
  await bench.chapter('paste');
  await bench.replaceSource(word);
  await new Promise((done) => setTimeout(done, 3000));
  await press(
    page,
    '[data-pass=classes] [role=switch]',
    '[data-pass=classes] .did',
    `${word.length} characters from a word processor, a pass switched`,
  );
} finally {
  await browser.clean();
  await typikon.stop();
}
process.exit(0);
