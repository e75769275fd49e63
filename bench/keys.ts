/**
 * Measures in Chromium how long a key or a press in a rule keeps the main thread, beside painting: script alone, from the event to
 * when nothing is left to do, while workers compute what they compute. Started by `npm run bench -- keys`.
 */
import type { CDPSession, Page } from 'puppeteer-core';
import { Bench, Installation, launchBrowser, openPage, reveal } from '../e2e/support';

const ROUNDS = 40;
/** So long it takes at most until a press has been answered, with its proof and its findings, in milliseconds. */
const ANSWERED_MS = 400;
const BUDGET_MS = 8;

/** Seconds that the main thread has spent in script so far (Chrome DevTools Protocol, Performance.getMetrics). */
async function script(session: CDPSession): Promise<number> {
  const { metrics } = await session.send('Performance.getMetrics');
  return metrics.find(({ name }) => name === 'ScriptDuration')!.value;
}

async function measure(page: Page, session: CDPSession, what: string, act: (round: number) => Promise<void>): Promise<void> {
  const times: number[] = [];
  for (let round = -3; round < ROUNDS; round++) {
    const before = await script(session);
    await act(round);
    await new Promise((done) => setTimeout(done, ANSWERED_MS));
    if (round >= 0) times.push((await script(session)) * 1000 - before * 1000);
  }
  times.sort((a, b) => a - b);
  const at = (share: number): string => times[Math.min(times.length - 1, Math.floor(share * times.length))]!.toFixed(1);
  console.log(
    `${what}: median ${at(0.5)} ms, 95th percentile ${at(0.95)} ms${Number(at(0.5)) > BUDGET_MS ? `, of ${BUDGET_MS}: TOO MUCH` : ''}`,
  );
}

const typikon = await Installation.start({ TYPIKON_FIGURES_WAIT_MS: '3600000' });
const browser = await launchBrowser();
try {
  const { page } = await openPage(browser);
  page.on('dialog', (dialog) => void dialog.accept());
  const session = await page.createCDPSession();
  await session.send('Performance.enable');
  const bench = new Bench(page);
  await bench.open(typikon.address, 'story-desk');
  await new Promise((done) => setTimeout(done, 2000));
  const key = async (round: number) => {
    await page.keyboard.press(round % 2 === 0 ? 'Backspace' : 'x');
  };

  await measure(page, session, 'nothing is pressed', async () => undefined);
  await reveal(page, '[data-element=em] input');
  await bench.click('[data-element=a] .name');
  await page.waitForSelector('ty-element-details');
  await measure(page, session, 'a rule is ticked', () => page.$eval('[data-element=em] input', (box) => (box as HTMLElement).click()));
  await bench.chapter('paste');
  await bench.click('[data-pass=links] .name');
  await page.waitForSelector('[data-pass=links].on ty-pass-settings input[matinput], [data-pass=links].on ty-pass-settings input');
  await page.focus('[data-pass=links].on ty-pass-settings .line input:not([type=checkbox])');
  await measure(page, session, 'a letter in a setting of a pass', key);
  await measure(page, session, 'a pass is switched', () => page.$eval('[data-pass=links] input', (box) => (box as HTMLElement).click()));
  await bench.chapter('markup');
  await page.focus('ty-markup-chapter .bar input');
  await measure(page, session, 'a letter in the filter of the rules', key);
} finally {
  await browser.clean();
  await typikon.stop();
}
