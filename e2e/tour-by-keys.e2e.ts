import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { Keys } from './keys';
import { openPage, untilGone, useTypikon } from './support';

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

  test('a frame that vanished is walked to in the ledger: its rule, why it went, and the way through the house limits', async () => {
    const { page, mishaps } = await openPage(used.browser);
    const keys = new Keys(page);
    await page.goto(`${used.typikon.address}/profiles`);
    await page.waitForSelector('tbody tr');
    await keys.enter('a', 'Story desk');
    await page.waitForSelector('ty-ledger-view .entry');
    await keys.walk('ty-ledger-view', 'ArrowDown', 'cams.orrenstrand.example');
    await keys.press('Enter');
    await keys.expect(
      'ty-ledger-view .entry.on .sentence',
      ([said]) => said?.includes('cams.orrenstrand.example') === true,
      'it is not open',
    );
    await page.waitForSelector('ty-rule-table tr.on[data-element=iframe]');
    await keys.enter('button', 'Why');
    await keys.expect('ty-ledger-view .why', ([said]) => said?.startsWith('The rule is /') === true, 'it is not said why');
    await keys.press('ArrowUp');
    assert.match((await keys.here()).name, /cams\.orrenstrand\.example/);
    await keys.enter('button', 'Let it through…');
    await page.waitForSelector('ty-let-through-dialog ty-changes-table');
    await keys.press('Escape');
    await untilGone(page, 'ty-let-through-dialog');
    assert.deepEqual(mishaps, []);
  });

  test('a profile is copied, and what it would do is looked at, text by text, and released', async () => {
    const { page, mishaps } = await openPage(used.browser);
    const keys = new Keys(page);
    await page.goto(`${used.typikon.address}/profiles`);
    await page.waitForSelector('tbody tr');
    await keys.chooseFromMenu('More to do with Diary', 'Copy it');
    await page.waitForSelector('mat-dialog-container input');
    await keys.write('input', 'Name', 'Diary by keys');
    await keys.press('Enter');
    await keys.expect('tbody tr', (rows) => rows.some((row) => row.startsWith('Diary by keys')), 'there is no copy');

    const path = `${used.typikon.address}/api/v1/profiles/notices-desk`;
    const stored = await fetch(path);
    const { document } = (await stored.json()) as { document: { markup: { elements: object } } };
    const elements = { ...document.markup.elements, table: { outcome: 'drop' } };
    const saved = await fetch(`${path}/draft`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'if-match': stored.headers.get('etag')!, 'typikon-person': 'isa-wren' },
      body: JSON.stringify({ ...document, markup: { ...document.markup, elements } }),
    });
    assert.equal(saved.status, 200);
    await page.goto(`${used.typikon.address}/profiles/notices-desk/release`);
    await page.waitForSelector('ty-reach-view .groups tbody tr');
    await page.waitForSelector('.go:not([disabled])');
    await keys.walk('ty-reach-view .groups table', 'Tab', 'table');
    await keys.press('Enter');
    await page.waitForSelector('ty-reach-view .texts li');
    await page.waitForSelector('ty-text-by-both iframe');
    for (const [action, dialog] of [
      ['Convert…', 'ty-convert'],
      ['Allow it…', 'ty-allow'],
      ['Ask who wrote…', 'ty-ask'],
    ] as const) {
      await keys.enter('button', action);
      await page.waitForSelector(dialog);
      await keys.press('Escape');
      await untilGone(page, dialog);
    }
    await keys.enter('button', 'Release…');
    await page.waitForSelector('ty-release-dialog');
    await page.keyboard.type('Tables are for the harbour office alone');
    const reasons = await page.$$eval('ty-release-dialog [id^=release-reason-]', (nodes) => nodes.length);
    assert.ok(reasons > 0);
    for (let n = 0; n < reasons; n++) {
      await keys.to('input', 'Released all the same, because');
      await page.keyboard.type('Nobody reads them');
      await keys.next();
    }
    await keys.enter('button', 'Release it');
    await untilGone(page, 'ty-release-dialog');
    await keys.expect('ty-edition-list li', ([last]) => last?.startsWith('2 ') === true, 'it was not released');
    assert.deepEqual(mishaps, []);
  });

  test('versions are held against each other, and a sentence that is gone is found', async () => {
    const { page, mishaps } = await openPage(used.browser);
    const keys = new Keys(page);
    await page.goto(`${used.typikon.address}/write/spring-timetable/versions`);
    await page.waitForSelector('ty-versions-page .text');
    const heads = () => keys.said('ty-versions-page nav [aria-current=true], ty-versions-page nav .on');
    const [before] = await heads();
    await keys.walk('ty-versions-page nav button', 'Tab', (await keys.said('ty-versions-page nav button'))[1]!.slice(0, 12));
    await keys.press('Enter');
    await keys.expect('ty-versions-page nav [aria-current=true], ty-versions-page nav .on', ([now]) => now !== before, 'it is not shown');
    await keys.to('radio', 'Words');
    await keys.press('ArrowRight');
    await keys.expect('ty-versions-page .text', ([said]) => said?.includes('<p>') === true, 'its markup is not shown');
    await keys.enter('a', 'Where did it go?');
    await page.waitForSelector('ty-where-page input');
    await keys.write('input', 'Words that are gone', 'ticket pay half');
    await keys.expect('ty-where-page .when', (lines) => lines.length > 0, 'nothing is found');
    assert.deepEqual(mishaps, []);
  });
});
