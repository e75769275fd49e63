/**
 * Measures in Chromium how long it takes from a change of a rule to the refreshed proof of a 100 kB specimen, and how long a
 * key takes meanwhile. Started by `npm run bench -- live`.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { Bench, Installation, launchBrowser, openPage } from '../e2e/support';
import { at } from '../scripts/lib/paths.mjs';

const ROUNDS = 60;
const documents = readdirSync(at('demo/documents')).map((name) => readFileSync(at(`demo/documents/${name}`), 'utf8'));
let html = '';
for (let i = 0; html.length < 100_000; i++) html += documents[i % documents.length]!;

const typikon = await Installation.start();
const browser = await launchBrowser();
try {
  const { page } = await openPage(browser);
  const bench = new Bench(page);
  await bench.open(typikon.address, 'story-desk');
  await bench.replaceSource(html);
  await new Promise((done) => setTimeout(done, 2000));
  const times = (await page.evaluate(async (rounds) => {
    const box = document.querySelector<HTMLInputElement>('[data-element=em] input')!;
    const figures = document.querySelector('ty-measure-line')!;
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
        observer.observe(figures, { subtree: true, characterData: true, childList: true });
        box.click();
      });
      measured.push(performance.now() - begin);
    }
    return measured;
  }, ROUNDS)) as number[];
  const sorted = times.sort((a, b) => a - b);
  const at_ = (share: number): string => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!.toFixed(0);
  console.log(`${html.length} characters, ${ROUNDS} changes of a rule, from the press to the refreshed figures on the screen:`);
  console.log(`  median ${at_(0.5)} ms, 95th percentile ${at_(0.95)} ms, longest ${at_(1)} ms`);
} finally {
  await browser.clean();
  await typikon.stop();
}
process.exit(0);
