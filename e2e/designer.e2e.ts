import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'puppeteer-core';
import { Bench, chooseFromMenu, chooseOptions, eventually, openPage, useTypikon } from './support';

const used = useTypikon();

const profileOf = async (id: string): Promise<{ toolbar?: Record<string, unknown> }> =>
  ((await (await fetch(`${used.typikon.address}/api/v1/profiles/${id}`)).json()) as { document: { toolbar?: Record<string, unknown> } })
    .document;

/** The buttons of the author's toolbar, group by group, as the bench shows it. */
const shown = (page: Page): Promise<string[][]> =>
  page.$$eval('ty-author-view .te-group', (groups) =>
    groups.map((group) => [...group.querySelectorAll<HTMLElement>('[data-button]')].map(({ dataset }) => dataset['button']!)),
  );

async function open(profile: string): Promise<{ page: Page; bench: Bench; mishaps: string[] }> {
  const { page, mishaps } = await openPage(used.browser);
  page.on('dialog', (dialog) => void dialog.accept());
  const bench = new Bench(page);
  await bench.open(used.typikon.address, profile);
  await bench.chapter('toolbar');
  await bench.authorFrame();
  return { page, bench, mishaps };
}

describe('designing a toolbar', () => {
  test('the Ferry note’s toolbar is made from nothing with the keyboard alone', async () => {
    const { page, mishaps } = await open('ferry-note');
    const focused = (): Promise<string> =>
      page.evaluate(() => {
        const node = document.activeElement as HTMLElement | null;
        return node?.getAttribute('aria-label') ?? (node as HTMLInputElement | null)?.labels?.[0]?.innerText ?? node?.innerText ?? '';
      });
    const tabTo = async (isThere: (name: string) => boolean, what: string): Promise<void> => {
      for (let n = 0; n < 300; n++) {
        if (isThere((await focused()).trim())) return;
        await page.keyboard.press('Tab');
      }
      assert.fail(`Tab does not lead to ${what}`);
    };
    const begin = (): Promise<void> => page.focus('#chapter-tab-toolbar');
    /** Goes to the menu of a group, and down in it to what is wanted. */
    const chooseOf = async (group: string, words: string): Promise<void> => {
      await tabTo((name) => name === `What can be done with the group ${group}`, `the menu of ${group}`);
      await page.keyboard.press('Enter');
      await page.waitForSelector('.mat-mdc-menu-panel [mat-menu-item]:focus');
      for (let n = 0; n < 8 && !(await focused()).trim().startsWith(words); n++) await page.keyboard.press('ArrowDown');
      assert.match(await focused(), new RegExp(words));
      await page.keyboard.press('Enter');
      await page.waitForSelector('.mat-mdc-menu-panel', { hidden: true });
    };
    await begin();
    // Everything off: each group goes by its button.
    for (const label of ['Words', 'Links', 'Steps']) {
      await begin();
      await chooseOf(label, 'Remove it');
    }
    await eventually(
      () => page.$$eval('[data-tile]', (nodes) => nodes.length),
      (count) => count === 0,
      'the toolbar is not empty',
    );
    for (const label of ['Words', 'Ways']) {
      await begin();
      await tabTo((name) => name === 'Name of a new group', 'the name of a new group');
      await page.keyboard.type(label);
      await page.keyboard.press('Enter');
    }
    // Buttons are put on from the list; it is filtered first.
    const putOn = async (filter: string, label: string): Promise<void> => {
      await begin();
      await tabTo((name) => name === 'Filter the buttons', 'the filter');
      await page.keyboard.down('Control');
      await page.keyboard.press('KeyA');
      await page.keyboard.up('Control');
      await page.keyboard.type(filter);
      await tabTo((name) => name === `${label}: on the toolbar`, label);
      await page.keyboard.press('Space');
    };
    await putOn('link', 'Link');
    await putOn('remove link', 'Remove link');
    await begin();
    await chooseOf('Words', 'New buttons go here');
    await putOn('bold', 'Bold');
    await putOn('clear', 'Clear formatting');
    await putOn('undo', 'Undo');
    // Undo goes before Bold, and on into the next group and back.
    await begin();
    await tabTo((name) => name.startsWith('Bold'), 'the first button');
    await page.keyboard.press('End');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('ArrowLeft');
    assert.match(await focused(), /^Undo/);
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.up('Alt');
    await eventually(
      () => shown(page),
      (groups) =>
        JSON.stringify(groups) ===
        JSON.stringify([
          ['bold', 'undo', 'clear-formatting'],
          ['link', 'unlink'],
        ]),
      'the toolbar is not as designed',
    );
    await page.keyboard.press('Delete');
    await page.keyboard.down('Control');
    await page.keyboard.press('s');
    await page.keyboard.up('Control');
    await eventually(
      () => page.$eval('.draft', (node) => (node as HTMLElement).innerText),
      (text) => text.startsWith('Draft saved'),
      'it was not saved',
    );
    assert.deepEqual(await shown(page), [
      ['bold', 'clear-formatting'],
      ['link', 'unlink'],
    ]);
    assert.deepEqual(mishaps, []);
  });

  test('a button is dragged from the list into a group, along it, and back to the list; each is one step', async () => {
    const { page, bench } = await open('tender-desk');
    const middle = async (selector: string): Promise<{ x: number; y: number }> => {
      const handle = (await page.waitForSelector(selector))!;
      await handle.evaluate((node) => node.scrollIntoView({ block: 'nearest' }));
      const box = (await handle.boundingBox())!;
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    };
    const drag = async (from: string, to: string, dx = 0): Promise<void> => {
      // What was dropped before still glides to its place.
      await page.waitForSelector('.cdk-drag-preview', { hidden: true });
      await new Promise((done) => setTimeout(done, 300));
      const start = await middle(from);
      await page.mouse.move(start.x, start.y);
      await page.mouse.down();
      await page.mouse.move(start.x + 8, start.y + 8, { steps: 4 });
      const end = await middle(to);
      await page.mouse.move(end.x + dx, end.y, { steps: 12 });
      await page.mouse.move(end.x + dx, end.y, { steps: 2 });
      await page.mouse.up();
    };
    const words = (): Promise<string[]> =>
      page.$$eval('[data-group=words] [data-tile]', (nodes) => nodes.map((node) => (node as HTMLElement).dataset['tile']!));
    assert.deepEqual(await words(), ['bold', 'italic', 'clear-formatting']);
    await page.type('#palette-filter', 'superscript');
    await page.waitForFunction(() => document.querySelectorAll('[data-row]').length === 1);
    await drag('[data-row=superscript] .label', '[data-group=words] [data-tile=italic]', 4);
    await eventually(words, (all) => all.includes('superscript'), 'it was not put in');
    await drag('[data-tile=superscript]', '[data-group=words] [data-tile=bold]', -6);
    await eventually(words, ([first]) => first === 'superscript', 'it was not moved');
    await drag('[data-tile=superscript]', '#palette');
    await eventually(words, (all) => !all.includes('superscript'), 'it was not taken off');
    await bench.click('[aria-label=Undo]');
    await eventually(words, ([first]) => first === 'superscript', 'undo did not bring it back');
    await bench.click('[aria-label=Undo]');
    await bench.click('[aria-label=Undo]');
    await eventually(words, (all) => all.join() === 'bold,italic,clear-formatting', 'undo did not lead to the begin');
  });

  test('a profile that extends another says only what it changes, and follows the rest', async () => {
    const { page, bench } = await open('story-desk');
    await bench.click('[data-tile=italic]');
    await bench.press('ty-button-details', 'Take off');
    await bench.click('[data-row=underline] .pick');
    await bench.press('ty-button-details', 'Put on, and allow u');
    await eventually(
      () => shown(page),
      (groups) => groups[1]?.join() === 'bold,styles,clear-formatting,underline',
      'the author does not have it so',
    );
    assert.match(await bench.text('ty-title-line'), /2 changes|3 changes|4 changes/);
    await bench.save();
    const { toolbar } = await profileOf('story-desk');
    assert.deepEqual(toolbar?.['changes'], {
      'heading-4': { group: 'blocks', place: 'heading-3' },
      styles: { group: 'words', place: 'bold' },
      italic: { place: 'off' },
      underline: { group: 'words', place: 'clear-formatting' },
    });
    // What the house adds, the desk gets.
    const { page: other, bench: house } = await open('house');
    await house.click('[data-row=subscript] .pick');
    await house.press('ty-button-details', 'Put on');
    await house.save();
    await other.close();
    await bench.open(used.typikon.address, 'story-desk');
    await bench.chapter('toolbar');
    await bench.authorFrame();
    assert.ok((await shown(page))[1]!.includes('subscript'));
    assert.ok(!(await shown(page)).flat().includes('italic'));
  });

  test('what must be done is tried against the toolbar, and made possible in one press', async () => {
    const { page, bench } = await open('diary');
    await bench.press('ty-toolbar-chapter .parts', '1.2');
    assert.match(await bench.text('[data-task=table]'), /The toolbar lacks “Table”/);
    assert.match(await bench.text('[data-task=list]'), /typed: - or \* and a space one act|“Bulleted list” one act/);
    await bench.press('[data-task=table]', 'Make it possible');
    await eventually(
      () => bench.text('[data-task=table]'),
      (text) => text.includes('“Table” 2 acts'),
      'it is still not possible',
    );
    await bench.view('author');
    await page.waitForSelector('ty-author-view [data-button=table][aria-disabled=false]');
    await bench.click('[aria-label=Undo]');
    await eventually(
      () => bench.text('[data-task=table]'),
      (text) => text.includes('lacks “Table”'),
      'rules and button were not one step',
    );
  });

  test('the author’s toolbar folds at narrow widths as it will', async () => {
    const { page, bench } = await open('house');
    await bench.press('ty-toolbar-chapter .parts', '1.3');
    await chooseOptions(page, 'Buttons that find no room', 'go under “More”, the last group first');
    await chooseFromMenu(page, 'ty-bench .width', 'phone 390');
    await eventually(
      () => page.$$eval('ty-author-view .te-more-panel .te-group', (nodes) => nodes.map((node) => node.getAttribute('aria-label'))),
      (labels) => labels.length > 2 && labels.includes('Steps'),
      'nothing went under More',
    );
    await chooseFromMenu(page, 'ty-bench .width', 'desk 1280');
    await eventually(
      () => page.$$eval('ty-author-view .te-more-panel .te-group', (nodes) => nodes.map((node) => node.getAttribute('aria-label'))),
      (labels) => labels.join() === 'Tools',
      'it did not come back',
    );
  });
});

describe('the surface', () => {
  test('an editing stylesheet of its own, keys and height reach the author', async () => {
    const { page, bench } = await open('reply');
    await bench.chapter('surface');
    await page.waitForSelector('#surface-stylesheets');
    await chooseOptions(page, 'The text stands on', 'an editing stylesheet of its own');
    await page.waitForSelector('ty-css-field .cm-content');
    await page.click('ty-css-field .cm-content');
    await page.keyboard.sendCharacter('p { color: rgb(1, 2, 3) }\n.x { color }');
    await eventually(
      () => page.$$eval('ty-css-field .cm-lint-marker', (nodes) => nodes.length),
      (count) => count === 1,
      'the mistake is not marked at its line',
    );
    await page.focus('#surface-height');
    await chooseOptions(page, 'The buttons are', 'below the text');
    await chooseOptions(page, 'Enter begins', 'a line: br');
    await page.focus('#surface-heightPx');
    await bench.selectAll();
    await page.keyboard.type('20');
    await page.keyboard.press('Tab');
    await eventually(
      () => bench.text('[data-setting=surface-heightPx] .mistake'),
      (text) => text.includes('must be a whole number from 60 to 2,000'),
      'the wrong height is not told',
    );
    const frame = await bench.authorFrame();
    assert.equal(await frame.$eval('p', (node) => getComputedStyle(node).color), 'rgb(1, 2, 3)');
    await frame.click('p');
    await bench.selectAll();
    await page.keyboard.type('one');
    await page.keyboard.press('Enter');
    await page.keyboard.type('two');
    await page.waitForSelector('ty-author-view .te-bar-bottom .te-text + .te-toolbar');
    assert.match(await bench.stored(), /<p>one<br>two<\/p>/);
  });

  test('words of the site are added and taken out', async () => {
    const { page, bench } = await open('diary');
    await bench.chapter('surface');
    await page.waitForSelector('#site-word');
    await page.type('#site-word', 'x1');
    await page.keyboard.press('Enter');
    await eventually(
      () => bench.text('ty-site-words .failure'),
      (text) => text === 'One word of letters, please.',
      'it was taken',
    );
    await page.$eval('#site-word', (node) => ((node as HTMLInputElement).value = ''));
    await page.type('#site-word', 'gunwale');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[aria-label="Take out gunwale"]');
    await bench.click('[aria-label="Take out gunwale"]');
    await page.waitForSelector('[aria-label="Take out gunwale"]', { hidden: true });
  });
});
