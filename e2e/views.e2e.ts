import assert from 'node:assert/strict';
import { after, describe, test } from 'node:test';
import { axeFindings, Bench, eventually, openPage, reveal, useTypikon, untilGone } from './support';

const used = useTypikon();

describe('axe finds nothing, light or dark', () => {
  let last: { path: string; opened: Awaited<ReturnType<typeof openPage>> } | null = null;
  /** Opens a view, or goes on where the test before has left it. */
  const open = async (path: string, ready: string) => {
    if (last?.path !== path) {
      await last?.opened.page.close();
      last = { path, opened: await openPage(used.browser, { isKept: true }) };
      await last.opened.page.goto(`${used.typikon.address}${path}`);
    }
    const { page, mishaps } = last.opened;
    await page.waitForSelector(ready);
    return { page, mishaps, bench: new Bench(page) };
  };
  after(async () => last?.opened.page.close());

  test('list of profiles, and the form of a new one', async () => {
    const { page } = await open('/profiles', 'tbody tr');
    assert.deepEqual(await axeFindings(page), []);
    await page.click('ty-title-line [mat-flat-button]');
    await page.waitForSelector('#new-name');
    assert.deepEqual(await axeFindings(page), []);
  });

  test('dialogs: learning, files, a way through the house limits', async () => {
    const { page, bench } = await open('/profiles/story-desk', '.entry');
    await bench.click('ty-markup-chapter .bar [mat-stroked-button]:nth-of-type(2)');
    await bench.click('ty-learn-dialog .from [mat-stroked-button]');
    await bench.click('ty-learn-dialog .lessons input');
    await page.waitForSelector('ty-learn-dialog ty-changes-table');
    assert.deepEqual(await axeFindings(page), []);
    await page.keyboard.press('Escape');
    await untilGone(page, 'ty-learn-dialog');
    await bench.click('ty-title-line .actions [mat-stroked-button]');
    await page.waitForSelector('ty-files-dialog');
    assert.deepEqual(await axeFindings(page), []);
    await page.keyboard.press('Escape');
    await untilGone(page, 'ty-files-dialog');
    await bench.click('.entry .sentence');
    await bench.click('.entry.on .act button');
    await page.waitForSelector('ty-let-through-dialog ty-changes-table');
    assert.deepEqual(await axeFindings(page), []);
  });

  test('workshop: toolbar with a finding, and the author', async () => {
    const { page, bench } = await open('/profiles/story-desk', '.entry');
    await bench.chapter('toolbar');
    await bench.click('[data-row=underline] input');
    await page.waitForSelector('ty-button-details .finding');
    await bench.authorFrame();
    assert.deepEqual(await axeFindings(page), []);
    await bench.press('ty-toolbar-chapter .parts', '1.2');
    await bench.click('[data-task=embed] input');
    await page.waitForSelector('[data-task=embed].bad');
    assert.deepEqual(await axeFindings(page, 'ty-toolbar-chapter'), []);
    await bench.press('ty-toolbar-chapter .parts', '1.3');
    await page.waitForSelector('[data-shortcut=bold]');
    assert.deepEqual(await axeFindings(page, 'ty-toolbar-chapter'), []);
  });

  test('workshop: findings, and the rest of the markup rules', async () => {
    const { page, bench } = await open('/profiles/story-desk', '.entry');
    await bench.chapter('markup');
    await reveal(page, '#unlisted');
    assert.deepEqual(await axeFindings(page), []);
    await bench.click('[data-element=h1] input');
    await bench.click('#chapter-tab-findings');
    await page.waitForSelector('[data-check]');
    assert.deepEqual(await axeFindings(page), []);
  });

  test('workshop: what an element must have', async () => {
    const { page, bench } = await open('/profiles/story-desk', '.entry');
    await bench.chapter('markup');
    await bench.click('[data-element=img] .name');
    await bench.click('ty-element-details .more');
    await page.waitForSelector('ty-element-demands');
    assert.deepEqual(await axeFindings(page, 'ty-markup-chapter'), []);
  });

  test('workshop: the rules as text', async () => {
    const { page, bench } = await open('/profiles/story-desk', '.entry');
    await bench.click('ty-markup-chapter .bar [mat-stroked-button]:nth-of-type(3)');
    await page.waitForSelector('ty-markup-text .cm-content');
    assert.deepEqual(await axeFindings(page, 'ty-markup-chapter'), []);
  });

  test('the author’s desk with find, outline, menu and word count', async () => {
    const { page } = await open('/write/notice-016', 'typikon-editor .te-frame');
    await eventually(
      () => page.$eval('[data-button=paragraph]', (node) => node.getAttribute('aria-pressed')),
      (pressed) => pressed !== null,
      'the editor did not come up',
    );
    for (const button of ['outline', 'word-count', 'find-replace']) {
      await page.click('.te-more');
      await page.click(`.te-more-panel [data-button=${button}]`);
    }
    await page.waitForSelector('.te-outline li');
    assert.deepEqual(await axeFindings(page), []);
    await page.click('[data-button=styles]');
    await page.waitForSelector('.te-menu button');
    assert.deepEqual(await axeFindings(page), []);
  });

  test('workshop: the surface', async () => {
    const { page, bench } = await open('/profiles/notices-desk', '.entry');
    await bench.chapter('surface');
    await page.waitForSelector('ty-site-words li button');
    assert.deepEqual(await axeFindings(page, 'ty-surface-chapter'), []);
  });

  test('workshop: markup with an open rule, and the markup', async () => {
    const { page, bench } = await open('/profiles/notices-desk', '.entry');
    await bench.chapter('markup');
    await bench.click('[data-element=img] .name');
    await bench.stored();
    await bench.click('.entry .sentence');
    assert.deepEqual(await axeFindings(page), []);
  });

  test('workshop: help, with a part in words of one’s own', async () => {
    const { page, bench } = await open('/profiles/notices-desk', '.entry');
    await bench.chapter('help');
    await page.waitForSelector('ty-help-chapter [data-part]');
    assert.deepEqual(await axeFindings(page, 'ty-help-chapter'), []);
  });

  test('workshop: the paste chapter with a pass open, and what is left', async () => {
    const { page, bench } = await open('/profiles/notices-desk', '.entry');
    await bench.chapter('paste');
    for (const pass of ['inline-style', 'find-replace', 'links']) {
      await bench.click(`[data-pass=${pass}] .name`);
      await page.waitForSelector(`[data-pass=${pass}].on ty-pass-settings`);
      if (pass === 'find-replace') await bench.press('ty-replacements', 'Add a replacement');
      assert.deepEqual(await axeFindings(page, 'ty-paste-chapter'), []);
    }
    await bench.click('#bench-tab-expectations');
    await page.waitForSelector('ty-expectations-view li');
    assert.deepEqual(await axeFindings(page, 'ty-bench'), []);
  });

  test('specimens, and the catcher', async () => {
    const { page, bench } = await open('/specimens', 'ty-specimens-page pre');
    assert.deepEqual(await axeFindings(page), []);
    await bench.press('ty-title-line', 'Catch a paste');
    await page.waitForSelector('.catcher');
    assert.deepEqual(await axeFindings(page), []);
  });

  test('house limits', async () => {
    const { page, bench } = await open('/house-limits', 'ty-rule-table [data-element]');
    await bench.click('[data-element=img] .name');
    await page.waitForSelector('ty-element-details mat-radio-group');
    assert.deepEqual(await axeFindings(page), []);
    await bench.press('.bar', 'As text');
    await page.waitForSelector('.cm-content');
    assert.deepEqual(await axeFindings(page), []);
  });

  test('workshop: the page', async () => {
    const { page, bench } = await open('/profiles/diary', '.entry, .empty');
    await bench.view('page');
    await bench.pageFrame(used.typikon.siteAddress);
    assert.deepEqual(await axeFindings(page), []);
  });

  test('site', async () => {
    const { page } = await open('/site/old-tansy-back', 'ty-site iframe');
    assert.deepEqual(await axeFindings(page), []);
  });

  test('a profile that is not there', async () => {
    const { page } = await open('/profiles/nobody', '.missing');
    assert.deepEqual(await axeFindings(page), []);
  });
});

describe('at 1280 by 800 nothing is cut', () => {
  for (const path of ['/profiles', '/profiles/story-desk', '/specimens', '/house-limits', '/site'])
    test(path, async () => {
      const { page } = await openPage(used.browser);
      await page.goto(`${used.typikon.address}${path}`);
      await page.waitForSelector('tbody tr, .entry, .cm-content, ty-site iframe, ty-specimens-page pre');
      const { width, height } = await page.evaluate(() => ({
        width: document.documentElement.scrollWidth,
        height: document.documentElement.scrollHeight,
      }));
      assert.deepEqual([width, height], [1280, 800]);
    });
});

describe('hostile markup', () => {
  test('nothing of it runs in any view, and the demo page asks no other host for anything', async () => {
    const { page, mishaps } = await openPage(used.browser);
    const foreign: string[] = [];
    page.on('request', (request) => {
      const { protocol, hostname } = new URL(request.url());
      if (protocol.startsWith('http') && hostname !== 'localhost') foreign.push(request.url());
    });
    let dialogs = 0;
    page.on('dialog', (dialog) => {
      dialogs++;
      void dialog.dismiss();
    });
    const bench = new Bench(page);
    await bench.open(used.typikon.address, 'reply');
    await bench.choose('specimen:hostile-paste');
    await eventually(
      () => bench.stored(),
      (html) => html.includes('Hover over me') && html.includes('The last words are harmless'),
      'the result is missing',
    );
    const frame = await bench.authorFrame();
    await frame.hover('p');
    await bench.paste(frame, {
      'text/html': '<img src=x onerror="parent.hurt=1"><svg onload="parent.hurt=1"></svg><p onmouseover="parent.hurt=1">x</p>',
      'text/plain': 'x',
    });
    await bench.view('page');
    await bench.pageFrame(used.typikon.siteAddress);
    await new Promise((done) => setTimeout(done, 500));
    assert.equal(await page.evaluate(() => 'hurt' in globalThis), false);
    assert.equal(dialogs, 0);
    assert.deepEqual(foreign, []);
    assert.deepEqual(mishaps, []);
  });
});

describe('the site', () => {
  test('each document is shown as readers see it', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await page.goto(`${used.typikon.address}/site`);
    const links = 'nav[aria-label="Documents of the site"] a';
    const listed = () => page.$$eval(links, (nodes) => nodes.map((node) => node.getAttribute('href')));
    const said = () => page.$eval('.find [role=status]', (node) => node.textContent.trim());
    await eventually(said, (words) => words === '50 of 160', 'not all documents are counted');
    // Each is there once, however far the list is opened.
    for (let n = 100; n <= 150; n += 50) {
      await page.click('nav .more');
      await eventually(said, (words) => words === `${n} of 160`, 'there are no more');
    }
    await page.click('nav .more');
    await eventually(said, (words) => words === '160 of 160', 'the list has no end');
    const all = await listed();
    assert.equal(new Set(all).size, 160);
    assert.equal(await page.$('nav .more'), null);
    await page.type('input[type=search]', 'delete perch');
    await eventually(
      listed,
      (now) => now.length > 0 && now.length < 10 && now.some((link) => link?.startsWith('/site/notice-016')),
      'words do not find it',
    );
    await page.waitForFunction(() => /words=delete(%20|\+)perch/.test(location.search));
    await page.click('a[href^="/site/notice-016"]');
    await page.waitForFunction(() => location.pathname === '/site/notice-016');
    const frame = await bench.pageFrame(`${used.typikon.siteAddress}/documents/notice-016`);
    await eventually(
      () => frame.$eval('body', (node) => node.innerText),
      (text) => text.includes('Delete perch'),
      'the document is not shown',
    );
    assert.equal(await frame.$('[bgcolor]'), null);
  });

  test('a document is shown everywhere it shows, and what shows nowhere is told', async () => {
    const { page, mishaps } = await openPage(used.browser);
    await page.goto(`${used.typikon.address}/site/old-tansy-back`);
    const bench = new Bench(page);
    await page.waitForSelector('.places mat-button-toggle');
    const said = await page.$eval('.places p', (node) => node.innerText.replace(/\s+/g, ' ').trim());
    assert.match(said, /^Here: Headline, .*Body.* Nowhere: Correction\.$/);
    await bench.pageFrame(`${used.typikon.siteAddress}/documents/old-tansy-back`);
    await page.$$eval('.places mat-button-toggle button', (nodes) =>
      nodes.find((node) => node.innerText.trim() === 'Card in a list')!.click(),
    );
    const frame = await bench.pageFrame(`${used.typikon.siteAddress}/documents/old-tansy-back?on=card`);
    await eventually(
      () => frame.$eval('body', (node) => node.innerText),
      (text) => text.includes('After eleven weeks') && !text.includes('shipwrights'),
      'the card is not shown',
    );
    assert.match(page.url(), /on=card/);
    assert.deepEqual(mishaps, []);
  });
});
