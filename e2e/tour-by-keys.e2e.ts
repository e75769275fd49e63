import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { Keys } from './keys';
import { openPage, useTypikon } from './support';

const used = useTypikon();
const CHAPTERS = ['§1 Toolbar', '§2 Markup', '§3 Paste', '§4 Styles', '§5 Surface', '§6 Help'] as const;

describe('the workshop by keys alone', () => {
  test('a pass is chosen, moved and switched; all specimens are run', async () => {
    const { page, mishaps } = await openPage(used.browser);
    page.on('dialog', (dialog) => void dialog.accept());
    const keys = new Keys(page);
    await page.goto(`${used.typikon.address}/profiles/notices-desk`);
    await page.waitForSelector('ty-ledger-view .entry');
    await keys.chooseTab('§3 Paste', ...CHAPTERS);
    await page.waitForSelector('[data-pass=classes]');
    const order = () => page.$$eval('[data-pass]', (rungs) => rungs.map((rung) => (rung as HTMLElement).dataset['pass']!));
    const before = await order();
    await keys.to('button', 'Move Classes');
    await keys.press('ArrowUp');
    await keys.expect('.draft', ([said]) => said?.startsWith('One change') === true, 'the pass did not move');
    const at = before.indexOf('classes');
    assert.deepEqual((await order()).slice(at - 1, at + 1), ['classes', before[at - 1]]);
    await keys.to('input', 'Classes works');
    await keys.press('Space');
    await page.waitForSelector('[data-pass=classes].rests');
    await keys.enter('button', 'Classes');
    await page.waitForSelector('[data-pass=classes].on');
    await keys.enter('button', 'All specimens');
    await page.waitForSelector('ty-matrix-dialog tbody tr');
    await keys.press('Escape');
    assert.deepEqual(mishaps, []);
  });

  test('what the checks find is read, and mended by the press of a key', async () => {
    const { page, mishaps } = await openPage(used.browser);
    page.on('dialog', (dialog) => void dialog.accept());
    const keys = new Keys(page);
    await page.goto(`${used.typikon.address}/profiles/story-desk`);
    await page.waitForSelector('ty-ledger-view .entry');
    await keys.chooseTab('§2 Markup', ...CHAPTERS);
    await page.waitForSelector('[data-element]');
    await keys.write('input', 'Filter by element', 'section');
    await page.waitForSelector('[data-element=section] input');
    await keys.to('input', 'section,');
    await keys.press('Space');
    await keys.expect('.draft', ([said]) => said?.startsWith('One change') === true, 'section is not allowed');
    await keys.chooseTab('¶ Findings', ...CHAPTERS);
    await keys.expect(
      'ty-findings-chapter li, ty-findings-chapter .finding',
      (said) => said.some((one) => one.includes('section is allowed here, but not by the house limits')),
      'what the house limits say is not found',
    );
    assert.deepEqual(mishaps, []);
  });
});
