import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'puppeteer-core';
import type { Site } from '../packages/core/src/index';
import { axeFindings, chooseOptions, eventually, openPage, pressButton, useTypikon } from './support';

/** A site that holds nothing yet. */
const used = useTypikon({}, 'empty');

const texts = (page: Page, selector: string): Promise<string[]> =>
  page.$$eval(selector, (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));

async function go(page: Page, path: string, ready: string): Promise<void> {
  await page.goto(`${used.typikon.address}${path}`);
  await page.waitForSelector(ready);
}
async function save(page: Page): Promise<void> {
  await pressButton(page, 'ty-site-state', 'Save');
  await eventually(
    () => texts(page, 'ty-site-state .said'),
    ([said]) => said === 'As it holds' || said === 'Saved, not released',
    'it was not saved',
  );
}

describe('an empty site', () => {
  test('every view says what there is to do, and axe finds nothing', async () => {
    const { page, mishaps } = await openPage(used.browser);
    for (const [path, ready, words] of [
      ['/profiles', 'ty-first-steps li', /Four things to begin with/],
      ['/compare', 'ty-compare-page .empty', /There are no profiles to compare yet\. Make the first one\./],
      ['/types', 'ty-content-types .empty', /There is nothing to write yet\./],
      ['/writing', 'ty-assignment-grid .empty', /once there are content types and roles\./],
      ['/writing/people', 'ty-people-page .none', /Nobody is known yet/],
      ['/specimens', 'ty-specimens-page .none', /None yet\./],
      ['/styles', 'ty-style-files-page', /There is no stylesheet yet\./],
      ['/write', 'ty-documents-page .empty', /There is no content type to begin a document with\./],
      ['/site', 'ty-site', /The site has no documents yet\./],
    ] as const) {
      await go(page, path, ready);
      await eventually(
        () => page.$eval('main', (node) => node.innerText.replace(/\s+/g, ' ')),
        (all) => words.test(all),
        `${path} does not say what there is to do`,
      );
      assert.deepEqual(await axeFindings(page), [], path);
    }
    assert.deepEqual(mishaps, []);
  });

  test('is set up from nothing: a profile, a kind of page, a type, a role, a person, a statement; and its first text is written', async () => {
    const { page, mishaps } = await openPage(used.browser);
    page.on('dialog', (dialog) => void dialog.accept());

    await go(page, '/profiles', 'ty-first-steps li');
    await pressButton(page, 'ty-first-steps', 'Make a profile');
    await page.type('#new-name', 'Letters');
    await pressButton(page, 'ty-new-profile', 'Make the profile');
    await page.waitForSelector('ty-workshop');

    await go(page, '/profiles', 'ty-first-steps li.done');
    assert.equal((await texts(page, 'ty-first-steps li.done h3'))[0], 'A profile is there');
    await pressButton(page, 'ty-first-steps', 'Take in the stylesheets');
    await page.waitForSelector('ty-style-files-page');
    await pressButton(page, 'ty-title-line', 'New page kind');
    await pressButton(page, 'ty-page-kind-editor', 'Save');
    await eventually(
      async () => (await (await fetch(`${used.typikon.address}/api/v1/style-files`)).json()) as { pageKinds: unknown[] },
      ({ pageKinds }) => pageKinds.length === 1,
      'there is no kind of page',
    );

    await go(page, '/writing/people', 'ty-people-page .none');
    for (const name of ['Web team', 'Writers']) {
      await page.type('[aria-label="Name of a new role"]', name);
      await page.keyboard.press('Enter');
      await page.waitForFunction((words) => document.querySelector('ty-people-page mat-accordion')?.textContent?.includes(words), {}, name);
    }
    for (const name of ['Isa Wren', 'Tom Hallow']) {
      await page.type('[aria-label="Name of a new person"]', name);
      await page.keyboard.press('Enter');
      await page.waitForSelector(`mat-select[aria-label="Roles of ${name}"]:focus`);
    }
    await chooseOptions(page, 'Roles of Tom Hallow', 'Writers');
    await save(page);

    await go(page, '/types', 'ty-content-types .empty');
    await pressButton(page, 'ty-content-types .empty', 'Make the first one');
    await page.type('#type-label', 'Letter');
    await pressButton(page, 'ty-type-dialog', 'Make it');
    await page.waitForFunction(() => location.pathname === '/types/letter');
    await pressButton(page, 'ty-type-page', 'Add a field');
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('#field-title')?.value.startsWith('New field'));
    await save(page);

    await go(page, '/writing', 'ty-assignments-page');
    await pressButton(page, 'ty-assignments-page', 'Add a statement');
    await chooseOptions(page, 'statement-who', 'Writers');
    await save(page);
    // The content type was the first that was saved, and held at once; what comes after it is released.
    const held = async () => ((await (await fetch(`${used.typikon.address}/api/v1/site`)).json()) as Site).assignments;
    assert.deepEqual(await held(), []);
    await page.waitForSelector('ty-site-state a.mat-mdc-unelevated-button');
    await page.click('ty-site-state a');
    await page.waitForSelector('ty-writing-view tbody tr');
    assert.match((await texts(page, 'ty-writing-view tbody tr'))[0]!, /nobody’s becomes Letters/);
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-shared-release-page', 'Release…');
    await page.waitForSelector('ty-release-dialog');
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-release-dialog', 'Release it');
    await eventually(held, (assignments) => assignments.length === 1, 'it was not released');
    const site = (await (await fetch(`${used.typikon.address}/api/v1/site`)).json()) as Site;
    assert.deepEqual(site.assignments, [{ roles: ['writers'], types: '*', fields: '*', profiles: ['letters'] }]);
    assert.deepEqual(
      site.people.map(({ id, roles }) => [id, roles]),
      [
        ['isa-wren', ['web-team']],
        ['tom-hallow', ['writers']],
      ],
    );

    // From here on it is Tom who writes; he may not change who writes what.
    await page.evaluate(() => localStorage.setItem('typikon.acting', 'tom-hallow'));
    await go(page, '/write', 'ty-documents-page');
    await pressButton(page, 'ty-title-line', 'New document');
    await pressButton(page, '.cdk-overlay-container', 'Letter');
    await page.waitForSelector('ty-new-document input');
    await page.type('ty-new-document input', 'A first letter');
    await pressButton(page, 'ty-new-document', 'Make it');
    const editor = await page.waitForSelector('typikon-editor .te-frame');
    const frame = (await editor!.contentFrame())!;
    await frame.waitForSelector('[role=textbox]');
    await frame.click('[role=textbox]');
    await page.keyboard.type('Dear harbour');
    await pressButton(page, 'ty-desk', 'Save');
    await eventually(
      async () => (await (await fetch(`${used.typikon.address}/api/v1/documents`)).json()) as { documents: { title: string }[] },
      ({ documents }) => documents.some(({ title }) => title === 'A first letter'),
      'the letter was not stored',
    );
    const refused = await fetch(`${used.typikon.address}/api/v1/site`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'if-match': '"0"', 'typikon-person': 'tom-hallow' },
      body: JSON.stringify(site),
    });
    assert.equal(refused.status, 403);
    await go(page, '/profiles', 'ty-profile-list table');
    assert.equal(await page.$('ty-first-steps'), null);
    assert.deepEqual(mishaps, []);
  });
});
