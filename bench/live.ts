/**
 * Measures in Chromium how long it takes from a change of a rule to the refreshed proof of a 100 kB specimen on the screen, beside the
 * time that the engine itself takes for it in its worker, in the same run. Started by `npm run bench -- live`; with `--save` and
 * `--against` the ratios are kept and compared.
 */
import { readdirSync, readFileSync } from 'node:fs';
import type { Page } from 'puppeteer-core';
import { longDocument } from '../packages/core/test/long-payloads';
import { Bench, Installation, launchBrowser, openPage } from '../e2e/support';
import { at } from '../scripts/lib/paths.mjs';
import { Figures } from './figures.mjs';

const ROUNDS = 60;
const found = new Figures('live', 'lower');
const documents = readdirSync(at('demo/documents')).map((name) => readFileSync(at(`demo/documents/${name}`), 'utf8'));
let html = '';
for (let i = 0; html.length < 100_000; i++) html += documents[i % documents.length]!;

const word = longDocument(Math.round((60 * 100_000) / longDocument().length));

const typikon = await Installation.start();
const browser = await launchBrowser();

/** Presses a box again and again, and prints how long it takes until the figures are there anew, and how long the engine took. */
async function press(page: Page, box: string, figures: string, what: string): Promise<void> {
  const times = await page.evaluate(
    async (rounds, boxSelector, figuresSelector) => {
      const measured: { painted: number; engine: number }[] = [];
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
        const painted = performance.now() - begin;
        // The engine's own time is told beside the figures, in the same drawing or the next.
        await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
        measured.push({ painted, engine: Number.parseFloat(document.querySelector('ty-bench .ms')!.textContent ?? '') });
      }
      return measured;
    },
    ROUNDS,
    box,
    figures,
  );
  const at_ = (of: 'painted' | 'engine', share: number): number => {
    const sorted = times.map((time) => time[of]).sort((one, other) => one - other);
    return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
  };
  const engine = at_('engine', 0.5);
  console.log(`${what}, ${ROUNDS} times, from the press to the refreshed figures on the screen; the engine alone takes ${engine} ms:`);
  for (const [name, share] of [
    ['median', 0.5],
    ['95th percentile', 0.95],
    ['longest', 1],
  ] as const) {
    const painted = at_('painted', share);
    console.log(`  ${name.padEnd(16)} ${painted.toFixed(0).padStart(5)} ms, ${(painted / engine).toFixed(1)} times the engine's own`);
    if (share < 1) found.add(`${what}, ${name}`, painted / engine);
  }
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
  found.finish();
} finally {
  await browser.clean();
  await typikon.stop();
}
process.exit(0);
