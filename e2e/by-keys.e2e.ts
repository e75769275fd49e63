import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Site } from '../packages/core/src/index';
import { Keys } from './keys';
import { eventually, openPage, useTypikon, untilGone } from './support';

const used = useTypikon();

describe('by keys alone', () => {
  test('a type is made, given to a role, seen and written by its author; an old text is moved knowing what goes', async () => {
    const { page, mishaps } = await openPage(used.browser);
    await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    page.on('dialog', (dialog) => void dialog.accept());
    const keys = new Keys(page);
    await page.goto(`${used.typikon.address}/profiles`);
    await page.waitForSelector('tbody tr');

    await keys.enter('a', 'Fields');
    await page.waitForSelector('tr.mat-mdc-row');
    await keys.enter('button', 'New content type');
    await page.waitForSelector('#type-label');
    await keys.write('input', 'What it is called', 'Berth log');
    await keys.press('Enter');
    await page.waitForFunction(() => location.pathname === '/types/berth-log');
    for (const [at, title, help] of [
      [1, 'What lay there', 'Ships, and how long.'],
      [2, 'What was seen', 'Anything odd.'],
    ] as const) {
      await keys.enter('button', 'Add a field');
      await page.waitForFunction((count) => document.querySelectorAll('a.field').length === count, {}, at);
      await page.waitForFunction(() => document.querySelector<HTMLInputElement>('#field-title')?.value.startsWith('New field'));
      await keys.write('input', 'Title that authors see', title);
      await keys.write('textarea', 'Help, always in view', help);
    }
    await keys.expect('a.field .title', (titles) => titles.join() === 'What lay there,What was seen', 'the fields are not called so');

    await keys.enter('a', 'Writers');
    await page.waitForSelector('ty-assignment-grid');
    await keys.enter('button', 'Add a statement');
    await keys.choose('Who', 'Harbour masters');
    await keys.choose('Content types', 'Berth log');
    await keys.choose('With', 'Notices desk');
    await keys.save();
    await keys.expect('ty-site-state .said', ([said]) => said === 'As it holds' || said === 'Saved, not released', 'it was not saved');
    await keys.enter('a', 'Release…');
    await page.waitForSelector('ty-writing-view tbody tr');
    await keys.enter('button', 'Release…');
    await page.waitForSelector('ty-release-dialog');
    await keys.enter('button', 'Release it');
    await keys.expect('ty-edition-list li', ([last]) => last?.startsWith('2 ') === true, 'it was not released');
    const site = (await (await fetch(`${used.typikon.address}/api/v1/site`)).json()) as Site;
    assert.deepEqual(
      site.types.at(-1)?.fields.map(({ title, help }) => [title, help.short]),
      [
        ['What lay there', 'Ships, and how long.'],
        ['What was seen', 'Anything odd.'],
      ],
    );

    // As its author sees it.
    await keys.enter('a', 'Fields');
    await page.waitForSelector('tr.mat-mdc-row');
    await keys.enter('a', 'Berth log');
    await keys.choose('Seen by', 'Ivo Stead');
    await page.waitForSelector('ty-author-sight typikon-editor .te-frame');
    await keys.expect(
      'ty-author-sight ty-field-entry',
      ([said]) => said?.includes('Ships, and how long.') === true,
      'the help is not there',
    );

    // As that author.
    await keys.enter('button', 'Isa Wren');
    await page.waitForSelector('.mat-mdc-menu-item');
    await eventually(
      async () => {
        const name = await page.evaluate(() => (document.activeElement as HTMLElement).innerText.trim());
        if (!name.startsWith('Ivo Stead')) await keys.press('ArrowDown');
        return name;
      },
      (name) => name.startsWith('Ivo Stead'),
      'Ivo Stead cannot be chosen',
    );
    await keys.press('Enter');
    await keys.expect('ty-name-badge .name', ([name]) => name === 'Ivo Stead', 'somebody else acts');
    await keys.enter('a', 'Desk');
    await page.waitForSelector('tr.mat-mdc-row');
    await keys.enter('button', 'New document');
    await page.waitForSelector('.mat-mdc-menu-item');
    await eventually(
      async () => {
        const name = await page.evaluate(() => (document.activeElement as HTMLElement).innerText.trim());
        if (name !== 'Berth log') await keys.press('ArrowDown');
        return name;
      },
      (name) => name === 'Berth log',
      'a Berth log cannot be made',
    );
    await keys.press('Enter');
    await page.waitForSelector('#new-document-title');
    await page.keyboard.type('Fuel berth, May');
    await keys.press('Enter');
    await page.waitForFunction(() => location.pathname === '/write/fuel-berth-may');
    await page.waitForSelector('typikon-editor .te-frame');
    await keys.to('iframe', '');
    await page.keyboard.type('The Dunlin, two nights.');
    await keys.expect('.state', ([said]) => said === 'Not saved yet', 'nothing was written');
    await keys.save();
    await keys.expect('.state', ([said]) => said?.startsWith('Saved') === true, 'it was not stored');
    const stored = (await (await fetch(`${used.typikon.address}/api/v1/documents/fuel-berth-may`)).json()) as {
      changedBy: string;
      fields: { value: string; profile: string }[];
    };
    assert.equal(stored.changedBy, 'ivo-stead');
    assert.ok(stored.fields.some(({ value, profile }) => value.includes('The Dunlin, two nights.') && profile === 'notices-desk'));
    assert.deepEqual(mishaps, []);
  });

  test('an old text is moved to the narrower profile, knowing what goes', async () => {
    const { page, mishaps } = await openPage(used.browser, { isApart: true });
    page.on('dialog', (dialog) => void dialog.accept());
    await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    await page.evaluateOnNewDocument(() => {
      // Frames are sandboxed, and have no storage.
      if (window.top === window) localStorage.setItem('typikon.acting', 'tom-hallow');
    });
    const keys = new Keys(page);
    await page.goto(`${used.typikon.address}/write`);
    await page.waitForSelector('tr.mat-mdc-row');
    await keys.to('input', 'Words of any field');
    await page.keyboard.type('ferry times');
    await keys.expect('tr.mat-mdc-row .name', (names) => names.includes('Ferry times') && names.length < 20, 'it is not found');
    await keys.enter('a', 'Ferry times');
    await page.waitForSelector('[data-field=body] .te-frame');
    await keys.expect('[data-field=body] .moved', ([said]) => said?.includes('stored with Notices desk') === true, 'it is not said why');
    await keys.choose('The profile with which Body is written', 'Story desk');
    await page.waitForSelector('ty-move-dialog iframe');
    await keys.enter('button', 'Stay with');
    await untilGone(page, 'ty-move-dialog');
    await keys.choose('The profile with which Body is written', 'Story desk');
    await page.waitForSelector('ty-move-dialog iframe');
    await keys.enter('button', 'Move it');
    await keys.expect(
      '[data-field=body] .done',
      ([said]) => said?.startsWith('This is moved from Notices desk') === true,
      'it was not moved',
    );
    await keys.save();
    await keys.expect('.state', ([said]) => said?.startsWith('Saved') === true, 'it was not stored');
    assert.deepEqual(mishaps, []);
  });
});
