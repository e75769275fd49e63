import assert from 'node:assert/strict';
import { before, describe, test } from 'node:test';
import type { Frame, Page } from 'puppeteer-core';
import { axeFindings, Bench, chooseOptions, eventually, openPage, pressButton, useTypikon } from './support';

describe('what was taken of a text', () => {
  const used = useTypikon();
  let page: Page;
  let mishaps: string[];
  const texts = (selector: string): Promise<string[]> =>
    page.$$eval(selector, (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));
  const shown = (selector: string, isRight: (all: string[]) => boolean, what: string): Promise<string[]> =>
    eventually(() => texts(selector), isRight, what);
  async function editor(): Promise<Frame> {
    const handle = (await page.waitForSelector('[data-field=body] .te-frame'))!;
    const frame = (await handle.contentFrame())!;
    await frame.waitForSelector('[role=textbox]');
    return frame;
  }
  const saved = () => shown('ty-title-line [state]', ([state]) => /^Saved/.test(state ?? ''), 'it was not saved');

  before(async () => {
    ({ page, mishaps } = await openPage(used.browser, { isKept: true }));
    page.on('dialog', (dialog) => void dialog.accept());
    await page.evaluateOnNewDocument(() => {
      if (window.top === window) localStorage.setItem('typikon.acting', 'ned-orr');
    });
  });

  test('a sentence that a paste took last month is found by its words, with the rule that took it', async () => {
    await page.goto(`${used.typikon.address}/where`);
    await page.waitForSelector('nav.index a[aria-current]');
    assert.equal(await page.$eval('nav.index a[aria-current]', (link) => (link as HTMLElement).innerText.trim()), 'Desk');
    await page.waitForSelector('.sentence');
    await page.type('input[aria-label="Words that are gone"]', 'ticket pay half');
    await shown('.gone', (all) => all.length === 1, 'it is not found');
    assert.match((await texts('.sentence'))[0]!, /A form went, with its content, and 63 letters of text with it/);
    assert.match((await texts('.gone'))[0]!, /Holders of last year’s ticket pay half until the tenth of April/);
    assert.match((await texts('.when'))[0]!, /29 Aug 2026.*Tom Hallow/);
    assert.match(
      (await texts('.by'))[0]!,
      /Spring timetable, Body, as it was pasted: version 2 · §2 Markup, form of House · with Story desk, edition 1/,
    );
    assert.deepEqual(await axeFindings(page), []);
    // The rule is one press away.
    await page.click('.by a[href*="at="]');
    await page.waitForSelector('ty-element-details');
    assert.match((await texts('h1'))[0]!, /House/);
  });

  test('what is pasted now and taken is kept with the save, and nothing else is lost on the way', async () => {
    await page.goto(`${used.typikon.address}/write/notice-018`);
    const frame = await editor();
    await frame.focus('[role=textbox]');
    await page.keyboard.down('Control');
    await page.keyboard.press('End');
    await page.keyboard.up('Control');
    await page.keyboard.press('Enter');
    await new Bench(page).paste(frame, {
      'text/html': '<p>The limit is five knots.</p><form><p>Report sightings of porpoises to the harbour.</p></form>',
      'text/plain': 'The limit is five knots.',
    });
    await eventually(
      () => frame.$eval('[role=textbox]', (node) => (node as HTMLElement).innerText),
      (text) => text.includes('five knots') && !text.includes('porpoises'),
      'the paste did not come, or was not tidied',
    );
    // The page is closed before that is saved: it is told with the text that is taken back.
    await page.waitForFunction(() => localStorage.getItem('typikon-text:notice-018')?.includes('five knots') === true);
    await page.reload();
    await page.waitForSelector('[data-field=body] .te-draft button');
    await page.click('[data-field=body] .te-draft button');
    await shown('ty-title-line [state]', ([state]) => state === 'Not saved yet', 'it was not taken back');
    await pressButton(page, 'ty-title-line', 'Save');
    await saved();
    await page.click('ty-title-line a[href*="/where"]');
    await shown('.gone', (all) => all.some((words) => words.includes('porpoises')), 'it is not kept');
    assert.match((await texts('h1'))[0]!, /^Where did it go in “Notice 18/);
    assert.match((await texts('.note'))[0]!, /Its page shows all that is stored/);
    // Where what was pasted came to stand beside a word, that word is another by hand.
    assert.ok(
      (await texts('.by')).some((by) => /as it was pasted: version 2/.test(by)),
      'the paste is not named',
    );
  });

  test('two versions are held against each other, by words, by markup and on the page; and one is taken back to', async () => {
    await page.click('.by a[href*="versions"]');
    await page.waitForSelector('ty-versions-page ins');
    assert.match((await texts('ins')).join(' '), /The limit is five knots\./);
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'mat-button-toggle-group', 'Markup');
    await shown('ins', (all) => all.join('').includes('<p>'), 'the markup is not shown');
    await pressButton(page, 'mat-button-toggle-group', 'On the page');
    await page.waitForSelector('.pair iframe[title=After]');
    const framed = await (await page.$('.pair iframe[title=After]'))!.contentFrame();
    await eventually(
      () => framed.$eval('[data-mount]', (node) => (node as HTMLElement).innerText),
      (text) => text.includes('five knots'),
      'the version is not shown on its page',
    );
    assert.equal(await page.$eval('.pair iframe', (frame) => frame.getAttribute('sandbox')), '');
    await pressButton(page, 'mat-button-toggle-group', 'Words');
    await page.click('.versions li:nth-child(2) button');
    await pressButton(page, '.compared', 'Take back to it');
    await pressButton(page, 'mat-dialog-container', 'Take it back');
    await shown('.versions li', (all) => all.length === 3 && /taken back to/.test(all[0]!), 'it was not taken back');
    const answer = await fetch(`${used.typikon.address}/api/v1/documents/notice-018`);
    const { fields } = (await answer.json()) as { fields: { value: string }[] };
    assert.ok(!fields.some(({ value }) => value.includes('five knots')), 'the text is not as it was');
  });

  test('words that were taken out by hand are found, too; and what is no loss when it is asked for', async () => {
    await page.goto(`${used.typikon.address}/where?document=notice-018`);
    await shown('.gone', (all) => all.some((words) => words.includes('five knots')), 'what went by taking back is not told');
    await chooseOptions(page, 'How much it is noticed', 'All of it');
    await page.goto(`${used.typikon.address}/where?document=notice-015&much=all`);
    await shown('.sentence', (all) => all.some((words) => /The class taken off/.test(words)), 'small things are not told');
    assert.deepEqual(mishaps, []);
  });
});
