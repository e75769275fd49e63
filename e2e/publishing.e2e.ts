import assert from 'node:assert/strict';
import { before, describe, test } from 'node:test';
import type { Frame, Page } from 'puppeteer-core';
import { axeFindings, eventually, openPage, pressButton, useTypikon } from './support';

const ID = 'tender-pontoon';

describe('the way of a text to readers', () => {
  const used = useTypikon();
  let page: Page;
  let mishaps: string[];
  const texts = (selector: string): Promise<string[]> =>
    page.$$eval(selector, (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));
  const shown = (selector: string, isRight: (all: string[]) => boolean, what: string): Promise<string[]> =>
    eventually(() => texts(selector), isRight, what);
  const onSite = async (path: string): Promise<string> => (await fetch(`${used.typikon.siteAddress}${path}`)).text();
  async function actAs(person: string, path: string): Promise<void> {
    await page.evaluate((id) => localStorage.setItem('typikon.acting', id), person);
    await page.goto(`${used.typikon.address}${path}`);
  }
  async function editor(): Promise<Frame> {
    const handle = (await page.waitForSelector('[data-field=body] .te-frame'))!;
    const frame = (await handle.contentFrame())!;
    await frame.waitForSelector('[role=textbox]');
    return frame;
  }

  before(async () => {
    ({ page, mishaps } = await openPage(used.browser, { isKept: true }));
    page.on('dialog', (dialog) => void dialog.accept());
    await page.goto(`${used.typikon.address}/keys`);
  });

  test('what a clerk writes in a tender is not seen by readers until somebody else has approved it', async () => {
    await actAs('una-pell', `/write/${ID}`);
    const frame = await editor();
    await frame.focus('[role=textbox]');
    await page.keyboard.down('Control');
    await page.keyboard.press('End');
    await page.keyboard.up('Control');
    await page.keyboard.press('Enter');
    await page.keyboard.type('Offers in crowns only.');
    await pressButton(page, 'ty-title-line', 'Save');
    await shown('ty-publishing-strip header b', ([told]) => told === 'Version 2 is not public. Readers see version 1.', 'it is not told');
    assert.ok(!(await onSite(`/documents/${ID}`)).includes('crowns only'));
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-publishing-strip', 'Ask for approval');
    await shown('ty-publishing-strip header b', ([told]) => /^Version 2 waits for approval/.test(told ?? ''), 'it does not wait');
    // Nobody approves what they wrote themselves.
    assert.ok(!(await texts('ty-publishing-strip button')).includes('Approve it'));
  });

  test('whoever approves finds it, sees what differs, looks at it as a page, and lets readers see it', async () => {
    await actAs('isa-wren', '/write?public=asked');
    await shown('tr.mat-mdc-row .name', (all) => all.length === 1, 'it is not found');
    assert.deepEqual(await texts('.unseen'), ['waits for approval']);
    assert.deepEqual(await axeFindings(page), []);
    await page.click('tr.mat-mdc-row .name');
    await page.waitForSelector('ty-publishing-strip .answer input');
    await pressButton(page, 'ty-publishing-strip', 'A preview to send');
    const address = await page.waitForSelector('ty-publishing-strip .preview a').then((link) => link!.evaluate((node) => node.href));
    const preview = await (await fetch(address)).text();
    assert.match(preview, /Version 2, which readers do not see/);
    assert.match(preview, /crowns only/);
    assert.equal((await fetch(address.replace(/.$/, (last) => (last === 'A' ? 'B' : 'A')))).status, 404);
    assert.deepEqual(await axeFindings(page), []);
    await page.click('ty-publishing-strip header a');
    await shown('ins', (all) => all.some((words) => words.includes('crowns only')), 'what differs is not shown');
    assert.match((await texts('.compared > header'))[0] ?? '', /Version 2 against version 1/);
    await page.goBack();
    await page.waitForSelector('ty-publishing-strip .answer input');
    await page.type('ty-publishing-strip .answer input', 'Good.');
    await pressButton(page, 'ty-publishing-strip', 'Approve it');
    await shown('ty-publishing-strip section', (all) => all.length === 0, 'it is still told');
    assert.ok((await onSite(`/documents/${ID}`)).includes('crowns only'));
  });

  test('it is taken from readers with a reason, and seen again once it is approved', async () => {
    await pressButton(page, 'ty-publishing-strip', 'Take it from readers…');
    await page.waitForSelector('ty-publishing-strip .seen input');
    assert.deepEqual(await axeFindings(page), []);
    await page.type('ty-publishing-strip .seen input', 'The sum is wrong.');
    await pressButton(page, 'ty-publishing-strip', 'Take it from readers');
    await shown(
      'ty-publishing-strip header b',
      ([told]) => told === 'Version 2 is not public. Readers see nothing any more.',
      'it is still seen',
    );
    assert.match((await texts('ty-publishing-strip li'))[0]!, /Isa Wren took version 2 from readers: .?The sum is wrong\./);
    assert.equal((await fetch(`${used.typikon.siteAddress}/documents/${ID}`)).status, 404);
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-publishing-strip', 'Ask for approval');
    await shown('ty-publishing-strip header b', ([told]) => /^Version 2 waits for approval/.test(told ?? ''), 'it does not wait');
    await pressButton(page, 'ty-publishing-strip', 'Approve it');
    await shown('ty-publishing-strip section', (all) => all.length === 0, 'it is still told');
    assert.ok((await onSite(`/documents/${ID}`)).includes('crowns only'));
  });

  test('a new one is marked everywhere until it is approved, and what is sent back says why', async () => {
    const made = await fetch(`${used.typikon.address}/api/v1/documents`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'typikon-person': 'una-pell' },
      body: JSON.stringify({ type: 'tender', title: 'Tender: a new crane' }),
    });
    const { id } = (await made.json()) as { id: string };
    assert.equal((await fetch(`${used.typikon.siteAddress}/documents/${id}`)).status, 404);
    await actAs('una-pell', `/site/${id}`);
    await shown('.unpublished', ([told]) => /Readers do not see this page yet/.test(told ?? ''), 'the site does not say so');
    assert.deepEqual(await axeFindings(page), []);
    await actAs('una-pell', `/write/${id}`);
    await pressButton(page, 'ty-publishing-strip', 'Ask for approval');
    await shown('ty-publishing-strip header b', ([told]) => /waits for approval/.test(told ?? ''), 'it does not wait');
    await actAs('isa-wren', `/write/${id}`);
    await page.waitForSelector('ty-publishing-strip .answer input');
    await page.type('ty-publishing-strip .answer input', 'It says nothing yet.');
    await pressButton(page, 'ty-publishing-strip', 'Send it back');
    await actAs('una-pell', `/write/${id}`);
    await shown(
      'ty-publishing-strip li',
      ([last]) => /Isa Wren sent back version 1: .?It says nothing yet/.test(last ?? ''),
      'no reason is told',
    );
  });

  test('who approves what is a setting of the content type', async () => {
    await actAs('isa-wren', '/types/notice');
    await pressButton(page, 'ty-title-line', 'Name, page, publishing');
    await page.waitForSelector('mat-dialog-container form');
    const labels = await texts('mat-dialog-container label, mat-dialog-container legend');
    assert.ok(
      labels.some((label) => label.startsWith('Readers see what is saved')),
      JSON.stringify(labels),
    );
    assert.deepEqual(await axeFindings(page), []);
  });

  test('nothing went wrong meanwhile', () => {
    assert.deepEqual(mishaps, []);
  });
});
