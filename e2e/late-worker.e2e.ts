import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'puppeteer-core';
import { axeFindings, Bench, eventually, openPage, useTypikon } from './support';

const used = useTypikon();

/** Workers that can be kept from hearing anything. While they are, or somebody is in a hurry, patience is shorter than twenty seconds. */
const HANG = `
  window.workers = [];
  window.isHanging = false;
  window.isHurried = false;
  window.Worker = class extends Worker {
    constructor(...given) { super(...given); window.workers.push(this); }
    postMessage(...given) { if (!window.isHanging) super.postMessage(...given); }
  };
  {
    const { setTimeout } = window;
    const patience = () => window.isHanging ? 500 : window.isHurried ? 6000 : 20000;
    window.setTimeout = (act, ms, ...given) => setTimeout(act, ms === 20000 ? patience() : ms, ...given);
  }
`;

const FAILURE = 'ty-bench .message[role=alert]';

async function openHanging(): Promise<{ page: Page; bench: Bench; mishaps: string[] }> {
  const { page, mishaps } = await openPage(used.browser);
  await page.evaluateOnNewDocument(HANG);
  return { page, bench: new Bench(page), mishaps };
}

describe('the live proof never hangs', () => {
  test('a worker that was ended is started anew, and the last request asked again', async () => {
    const { page, bench, mishaps } = await openHanging();
    await bench.open(used.typikon.address, 'story-desk');
    const before = (await page.evaluate('workers.length')) as number;
    await page.evaluate('isHurried = true; for (const worker of workers) worker.terminate()');
    await bench.replaceSource('<p>Low <font>water</font></p>');
    await eventually(
      () => bench.stored(),
      (stored) => stored.includes('<p>Low water</p>'),
      'no answer came',
    );
    assert.ok(((await page.evaluate('workers.length')) as number) > before);
    assert.deepEqual(mishaps, []);
  });

  test('one that hangs is told after the second time, with a way to try again', async () => {
    const { page, bench, mishaps } = await openHanging();
    await bench.open(used.typikon.address, 'story-desk');
    await page.evaluate('isHanging = true');
    await bench.replaceSource('<p>High <font>water</font></p>');
    await page.waitForSelector(FAILURE);
    assert.match(await bench.text(FAILURE), /did not answer, twice\. Nothing that you entered is lost; try again\./);
    assert.equal(await page.$('ty-bench .working'), null);
    assert.deepEqual(await axeFindings(page), []);
    await page.evaluate('isHanging = false');
    await bench.press(FAILURE, 'Try again');
    await eventually(
      () => bench.stored(),
      (stored) => stored.includes('<p>High water</p>'),
      'no answer came after “Try again”',
    );
    assert.equal(await page.$(FAILURE), null);
    assert.deepEqual(mishaps, []);
  });

  test('what is left can be kept again after a failure', async () => {
    const { page, bench, mishaps } = await openHanging();
    await bench.open(used.typikon.address, 'notices-desk', 'paste');
    await bench.replaceSource('<p>Low <u>water</u></p>');
    await bench.press('ty-bench', 'What is left');
    await bench.press('ty-left-view', 'what went');
    await page.waitForSelector('ty-left-view .acts button:not([disabled])');
    await page.evaluate('isHanging = true');
    await bench.press('ty-left-view .acts', 'keep from now on');
    await eventually(
      () => bench.text('ty-left-view'),
      (text) => text.includes('did not answer, twice'),
      'the failure is not told',
    );
    assert.equal(await page.$('ty-left-view .acts button[disabled]'), null);
    assert.deepEqual(mishaps, []);
  });

  test('the comparison of editor and page is told, and made once more when asked', async () => {
    const { page, bench, mishaps } = await openHanging();
    await page.evaluateOnNewDocument('window.isHanging = true');
    await page.goto(`${used.typikon.address}/styles/likeness/story-desk/news`);
    await page.waitForSelector('ty-likeness-page .ty-notice.bad');
    assert.match(await bench.text('ty-likeness-page .ty-notice.bad'), /did not answer, twice/);
    await page.evaluate('isHanging = false');
    await bench.press('ty-likeness-page .ty-notice.bad', 'Try again');
    await page.waitForSelector('.cause, .causes > .none');
    assert.equal(await page.$('ty-likeness-page .ty-notice.bad'), null);
    assert.deepEqual(mishaps, []);
  });
});
