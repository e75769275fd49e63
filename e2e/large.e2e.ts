import assert from 'node:assert/strict';
import { before, describe, test } from 'node:test';
import type { Page } from 'puppeteer-core';
import { axeFindings, eventually, openPage, pressButton, useTypikon } from './support';

/** So many composed documents: more than anybody looks through. */
const DOCUMENTS = 5000;

describe('a site of five thousand documents', () => {
  const used = useTypikon({ TYPIKON_DEMO_DOCUMENTS: String(DOCUMENTS) });
  let page: Page;
  let mishaps: string[];
  const texts = (selector: string): Promise<string[]> =>
    page.$$eval(selector, (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));
  const shown = (selector: string, isRight: (all: string[]) => boolean, what: string): Promise<string[]> =>
    eventually(() => texts(selector), isRight, what);
  async function ask<Body>(method: string, path: string, body?: object): Promise<Body> {
    const response = await fetch(`${used.typikon.address}/api/v1${path}`, {
      method,
      headers: { 'content-type': 'application/json', 'typikon-person': 'isa-wren' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    assert.ok(response.ok, `${method} ${path}: ${response.status}`);
    return (await response.json()) as Body;
  }

  before(async () => {
    ({ page, mishaps } = await openPage(used.browser, { isKept: true }));
    page.on('dialog', (dialog) => void dialog.accept());
  });

  test('is written in the background, while it can be worked with', async () => {
    // The last of them.
    await eventually(
      () => ask<object>('GET', `/documents/ferry-${DOCUMENTS}`),
      () => true,
      'not all documents were written',
    );
    const counts = await ask<{ count: number }[]>('GET', '/texts/counts');
    const count = counts.reduce((sum, { count: some }) => sum + some, 0);
    assert.ok(count > DOCUMENTS);
    assert.equal((await ask<{ texts: number }>('GET', '/fit')).texts, count);
  });

  test('the way to the least rules is shown as a curve and as a table, and a step becomes a profile', async () => {
    await page.goto(`${used.typikon.address}/profiles/notices-desk/fit`);
    await shown('#present-heading', ([heading]) => /Notices desk, edition 1/.test(heading ?? ''), 'the profile does not stand beside it');
    const [told] = await texts('ty-title-line [state]');
    assert.match(told ?? '', /^[\d,]{3,} texts /);
    // Every step keeps more than the one before, and allows more.
    const rows = await page.$$eval('tr.mat-mdc-row', (all) =>
      all.map((row) => [...row.querySelectorAll('td')].map((cell) => cell.textContent.trim())),
    );
    const numbers = rows.map((cells) => [2, 3, 4].map((at) => Number(cells[at]!.replaceAll(',', ''))));
    for (const column of [0, 1, 2])
      assert.ok(
        numbers.every((row, at) => at === 0 || row[column]! > numbers[at - 1]![column]!),
        JSON.stringify(numbers),
      );
    await page.waitForSelector('.chart svg path');
    assert.deepEqual(await axeFindings(page), []);
    // A press on a row opens its step, and the address names it.
    await page.click('tr.mat-mdc-row:nth-child(3) button');
    await shown('#step-heading', ([heading]) => /^Step 2:/.test(heading ?? ''), 'the step is not open');
    assert.match(page.url(), /step=2/);
    const [share] = await texts('#step-heading');
    await pressButton(page, '.right', 'Make a profile of it');
    await page.waitForSelector('#fit-name');
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'mat-dialog-container', 'Make the profile');
    await shown('h1', ([heading]) => heading === 'Least rules of Notices desk', 'the profile is not there');
    assert.match(share ?? '', /whole/);
  });

  test('a change of rules tells whom it touches: only those that hold what changed are looked at', async () => {
    const { document } = await ask<{ document: { markup?: { elements?: object } } }>('GET', '/profiles/notices-desk');
    const elements = { ...document.markup?.elements, caption: { outcome: 'drop' } };
    const changed = { ...document, markup: { ...document.markup, elements } };
    interface Looked {
      texts: number;
      candidates: number;
      sure: number;
      looked: number;
      touched: { reach: { wordsLost: number } }[];
    }
    const looked = await ask<Looked>('POST', '/profiles/notices-desk/reach', { document: changed });
    assert.ok(looked.candidates > 100 && looked.candidates < looked.texts);
    // Each of them has a table with a caption, whose words go.
    assert.ok(looked.touched.length > 0 && looked.touched.every(({ reach }) => reach.wordsLost > 0));
    assert.equal(looked.touched.length, looked.looked);
    // Of most of them that was known before.
    assert.ok(looked.sure > looked.candidates / 2 && looked.sure <= looked.touched.length, `${looked.sure} were known`);
  });

  test('nothing went wrong meanwhile', () => {
    assert.deepEqual(mishaps, []);
  });
});
