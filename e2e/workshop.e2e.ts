import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'puppeteer-core';
import { axeFindings, Bench, chooseFromMenu, eventually, openPage, pressButton, reveal, useTypikon, untilGone } from './support';

const used = useTypikon();

describe('the whole job once', () => {
  let page: Page;
  let bench: Bench;
  let mishaps: string[];

  test('the list of profiles opens a profile', async () => {
    ({ page, mishaps } = await openPage(used.browser, { isKept: true }));
    bench = new Bench(page);
    await page.goto(`${used.typikon.address}/`);
    await page.waitForSelector('tbody tr');
    // Editions have a request of their own.
    const rows = await eventually(
      () => page.$$eval('tbody tr', (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' '))),
      (all) => all.some((row) => /Edition \d/.test(row)),
      'no editions are told',
    );
    assert.equal(rows.length, 7);
    assert.match(
      rows.find((row) => row.includes('Ferry note'))!,
      /Notices desk changes 18 rules Edition 1 of Ferry note as the draft As first set up/,
    );
    await page.click('a[href="/profiles/story-desk"]');
    await page.waitForSelector('ty-ledger-view .entry');
    assert.equal(await bench.text('h1'), 'Story desk');
  });

  test('a button whose markup is removed says so in its place, and allows it', async () => {
    await bench.chapter('toolbar');
    await bench.click('[data-row=underline] input');
    await page.waitForSelector('[data-tile=underline].lacking');
    assert.match(
      await bench.text('ty-button-details .finding'),
      /The markup rules remove u: what authors make with this button is gone when they save/,
    );
    await eventually(
      () => bench.text('ty-title-line'),
      (text) => text.includes('3 findings'),
      'the findings are not counted',
    );
    await bench.press('ty-button-details', 'Allow u');
    await page.waitForSelector('[data-tile=underline]:not(.lacking)');
    assert.match(await bench.text('.draft'), /2 changes not saved yet/);
  });

  test('what the author types with the new button is what is stored', async () => {
    const frame = await bench.authorFrame();
    await frame.click('[role=textbox]');
    await bench.selectAll();
    await page.keyboard.press('Backspace');
    await page.keyboard.type('Low water is ');
    await bench.click('[data-button=underline]');
    await page.keyboard.type('early');
    await bench.click('[data-button=underline]');
    await page.keyboard.type(' today');
    await eventually(
      () => bench.text('#specimen'),
      (text) => text.includes('All that the author has now'),
      'the typed text is not offered',
    );
    assert.match(await bench.stored(), /<p>Low water is <u>early<\/u> today<\/p>|<h2>Low water is <u>early<\/u> today<\/h2>/);
  });

  test('a paste is tidied, and the ledger says what was done by which rule', async () => {
    const frame = await bench.authorFrame();
    await frame.click('[role=textbox]');
    await page.keyboard.down('Control');
    await page.keyboard.press('End');
    await page.keyboard.up('Control');
    await page.keyboard.press('Enter');
    await bench.paste(frame, {
      'text/html':
        '<p class="MsoNormal" style="color:red"><b>Pasted</b> <font face="Arial">from elsewhere</font><script>alert(1)</script></p>',
      'text/plain': 'Pasted from elsewhere',
    });
    await eventually(
      () => bench.sentences(),
      (sentences) => sentences.includes('A <b> became <strong>'),
      'the ledger of the paste is missing',
    );
    const sentences = await bench.sentences();
    for (const expected of [
      'A <font> unwrapped, the words stay',
      'The class taken off a <p>, the content stays',
      'The colour taken off one place, the content stays',
      'A script went, with its content',
    ])
      assert.ok(sentences.includes(expected), `${expected} is not in ${sentences.join('; ')}`);
    assert.match(await bench.text('ty-author-view .te-paste'), /Tidied: 5 changes\. See Text only Undo/);
    assert.match(await frame.$eval('[role=textbox]', (node) => node.innerHTML), /<strong>Pasted<\/strong> from elsewhere/);
    await bench.choose('typed');
    await eventually(
      () => bench.stored(),
      (html) => /<strong>Pasted<\/strong> from elsewhere/.test(html) && /<u>early<\/u>/.test(html),
      'the whole text is not shown',
    );
  });

  test('taking the markup rule away shows at once what goes, and undo brings it back', async () => {
    await bench.chapter('markup');
    await bench.click('[data-element=u] input');
    await eventually(
      () => bench.sentences(),
      (sentences) => sentences.some((sentence) => sentence.startsWith('A <u> unwrapped')),
      'the removal is not in the ledger',
    );
    await bench.click('[aria-label=Undo]');
    await eventually(
      () => bench.sentences(),
      (sentences) => !sentences.some((sentence) => sentence.includes('<u>')),
      'undo did not bring the rule back',
    );
    await bench.click('[aria-label=Redo]');
    await eventually(
      () => bench.sentences(),
      (sentences) => sentences.some((sentence) => sentence.startsWith('A <u> unwrapped')),
      'redo did not take it again',
    );
    await bench.click('[aria-label=Undo]');
  });

  test('choosing an entry marks its place in the source and opens its rule', async () => {
    await bench.choose('specimen:old-site-page');
    await eventually(
      () => bench.sentences(),
      (sentences) => sentences[0]?.startsWith('A frame from cams.orrenstrand.example went') === true,
      'the frame is not the first entry',
    );
    await bench.click('.entry .sentence');
    await page.waitForSelector('ty-markup-view .side:first-child .ty-chosen');
    const marked = await page.$$eval('ty-markup-view .side:first-child .ty-chosen', (nodes) =>
      nodes.map((node) => node.textContent).join(''),
    );
    assert.match(marked, /^<iframe src="https:\/\/cams\.orrenstrand\.example\/slip"/);
    await page.waitForSelector('[data-element=iframe].on');
    assert.deepEqual(await page.evaluate(() => [scrollX, scrollY, document.querySelector('main')!.scrollTop]), [0, 0, 0]);
    assert.match(await bench.text('[data-element=iframe]'), /House limits/);
    assert.match(await bench.text('.entry .cite'), /House limits, §2 Markup, iframe/);
  });

  test('what a rule takes can be kept from now on, by the smallest rule, and undone', async () => {
    await bench.chapter('markup');
    await bench.click('[data-element=u] input');
    const isTaken = (text: string): boolean => text.startsWith('A <u> unwrapped');
    const sentences = await eventually(
      () => bench.sentences(),
      (texts) => texts.some(isTaken),
      'the rule does not take it',
    );
    await bench.click(`.entry:nth-of-type(${sentences.findIndex(isTaken) + 1}) .sentence`);
    // What would keep it is worked out first.
    await page.waitForSelector('.entry.on .act');
    await eventually(
      () => bench.text('.entry.on .act'),
      (text) => text.startsWith('Allow <u> from now on'),
      'it cannot be kept from now on',
    );
    await bench.click('.entry.on .act .ty-quiet');
    await eventually(
      () => bench.sentences(),
      (texts) => !texts.some(isTaken),
      'it is still taken',
    );
    await reveal(page, '[data-element=u] input');
    assert.equal(await page.$eval('[data-element=u] input', (node) => node.checked), true);
  });

  test('where the house limits decide, the ledger offers a way through them instead', async () => {
    await bench.click('.entry:nth-of-type(1) .sentence');
    await page.waitForSelector('.entry.on .act');
    await eventually(
      () => bench.text('.entry.on .act'),
      (text) => text.startsWith('Let it through…'),
      'no way through is offered',
    );
    await bench.click('.entry:nth-of-type(1) .sentence');
  });

  test('choosing a rule marks everything it touched', async () => {
    await bench.click('[data-element=font] .name');
    await eventually(
      () => page.$$eval('ty-markup-view .side:first-child .ty-chosen', (nodes) => nodes.length),
      (count) => count >= 2,
      'the font tags are not marked',
    );
    await page.waitForSelector('.entry.marked');
  });

  test('the published page shows the result, from another origin, without scripts', async () => {
    await bench.view('page');
    const frame = await bench.pageFrame(used.typikon.siteAddress);
    await eventually(
      () => frame.$eval('body', (node) => node.innerText),
      (text) => text.includes('The slip was built in 1911'),
      'the page does not show the content',
    );
    assert.notEqual(new URL(frame.url()).origin, new URL(page.url()).origin);
    assert.equal(await page.$eval('ty-page-view iframe', (node) => node.getAttribute('sandbox')), '');
  });

  test('a change of the source is tried at once', async () => {
    await bench.view('markup');
    await bench.click('ty-markup-view .side:first-child .cm-content');
    await page.keyboard.down('Control');
    await page.keyboard.press('Home');
    await page.keyboard.up('Control');
    await page.keyboard.type('<marquee>Storm warning</marquee>');
    await eventually(
      () => bench.stored(),
      (html) => html.startsWith('<p>Storm warning</p>'),
      'the result does not follow',
    );
    assert.ok((await bench.sentences()).some((sentence) => sentence.includes('<marquee>')));
  });

  test('saved, restarted after a crash, reloaded: unchanged', async () => {
    await bench.save();
    await used.typikon.crashServer();
    await bench.open(used.typikon.address, 'story-desk');
    await bench.chapter('toolbar');
    await page.waitForSelector('[data-row=underline]:not(.off)');
    await bench.chapter('markup');
    await reveal(page, '[data-element=u] input');
    assert.equal(await page.$eval('[data-element=u] input', (node) => node.checked), true);
    assert.deepEqual(mishaps, []);
  });
});

describe('unsaved changes', () => {
  test('leaving asks; staying stays, throwing away leaves', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await bench.open(used.typikon.address, 'diary');
    await bench.chapter('markup');
    await bench.click('[data-element=sub] input');
    await bench.click('nav a[href="/site"]');
    await page.waitForSelector('ty-confirm');
    assert.match(await bench.text('ty-confirm'), /This draft is not saved It has one change/);
    await bench.click('ty-confirm button:nth-of-type(1)');
    await untilGone(page, 'ty-confirm');
    assert.match(page.url(), /profiles\/diary/);
    await bench.click('nav a[href="/site"]');
    await page.waitForSelector('ty-confirm');
    await bench.click('ty-confirm button:nth-of-type(2)');
    await page.waitForSelector('ty-site iframe');
    await bench.open(used.typikon.address, 'diary');
    assert.equal(await page.$('.ty-notice'), null);
  });

  test('a reload offers them back', async () => {
    const { page } = await openPage(used.browser);
    page.on('dialog', (dialog) => void dialog.accept());
    const bench = new Bench(page);
    await bench.open(used.typikon.address, 'diary');
    await bench.chapter('markup');
    await bench.click('[data-element=sup] input');
    await eventually(
      () => bench.text('.draft'),
      (text) => text.startsWith('One change'),
      'the change is not counted',
    );
    await page.reload();
    await page.waitForSelector('.ty-notice');
    assert.match(await bench.text('.ty-notice'), /They are still in this browser/);
    await bench.click('.ty-notice [mat-stroked-button]');
    await eventually(
      () => bench.text('.draft'),
      (text) => text.startsWith('One change'),
      'the change did not come back',
    );
    await reveal(page, '[data-element=sup] input');
    assert.equal(await page.$eval('[data-element=sup] input', (node) => node.checked), false);
  });

  test('without a server the save fails with a sentence, and nothing is lost', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await bench.open(used.typikon.address, 'reply');
    await bench.chapter('markup');
    await bench.click('[data-element=br] input');
    await used.typikon.stopServer();
    await bench.click('ty-title-line .go');
    await page.waitForSelector('.ty-notice.bad');
    assert.match(await bench.text('.ty-notice.bad'), /Not saved\. The server does not answer\./);
    await used.typikon.startServer();
    await bench.press('.ty-notice.bad', '');
    await eventually(
      () => bench.text('.draft'),
      (text) => text.startsWith('Draft saved'),
      'the second try did not save',
    );
  });
});

describe('two windows on one profile', () => {
  test('a stale save is refused; both versions are offered and neither is lost', async () => {
    const one = await openPage(used.browser);
    const other = await openPage(used.browser);
    const [first, second] = [new Bench(one.page), new Bench(other.page)];
    await first.open(used.typikon.address, 'notices-desk');
    await second.open(used.typikon.address, 'notices-desk');
    for (const bench of [first, second]) await bench.chapter('markup');
    await first.click('[data-element=hr] input');
    await second.click('[data-element=sub] input');
    await first.save();
    await second.click('ty-title-line .go');
    await other.page.waitForSelector('ty-conflict-notice');
    assert.match(await second.text('ty-conflict-notice'), /Somebody else saved this profile.*differ in 2 places/);
    await second.click('ty-conflict-notice [mat-stroked-button]');
    await other.page.waitForSelector('ty-conflict-notice table');
    assert.match(
      await second.text('ty-conflict-notice table'),
      /\/markup\/elements\/hr.*\/markup\/elements\/sub|\/markup\/elements\/sub.*\/markup\/elements\/hr/,
    );
    await second.click('ty-conflict-notice [mat-stroked-button]:nth-of-type(2)');
    await untilGone(other.page, 'ty-conflict-notice');
    const checked = async (element: string) => {
      await reveal(other.page, `[data-element=${element}] input`);
      return other.page.$eval(`[data-element=${element}] input`, (node) => node.checked);
    };
    assert.deepEqual([await checked('hr'), await checked('sub')], [false, true]);
    await second.click('[aria-label=Undo]');
    await eventually(
      async () => [await checked('hr'), await checked('sub')],
      ([hr, sub]) => hr === true && sub === false,
      'the own version is not one undo away',
    );
    await second.save();
  });
});

describe('by keyboard alone', () => {
  test('open a profile, change a rule, save', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await page.goto(`${used.typikon.address}/profiles`);
    await page.waitForSelector('tbody tr');
    const focused = () =>
      page.evaluate(
        () =>
          (document.activeElement as HTMLElement).innerText ||
          document.activeElement?.getAttribute('aria-label') ||
          document.activeElement?.id ||
          '',
      );
    const tabTo = async (isThere: (text: string) => boolean, what: string): Promise<void> => {
      for (let presses = 0; presses < 80; presses++) {
        await page.keyboard.press('Tab');
        if (isThere(await focused())) return;
      }
      throw new Error(`${what} cannot be reached by Tab`);
    };
    await tabTo((text) => text.trim() === 'Tender desk', 'the profile');
    await page.keyboard.press('Enter');
    await page.waitForSelector('ty-ledger-view .entry, ty-ledger-view .empty');
    await bench.stored();
    await page.focus('body');
    await tabTo((text) => text.trim() === '§2 Markup' || text.trim() === '§1 Toolbar', 'the chapters');
    await page.keyboard.press('ArrowLeft');
    await page.waitForSelector('ty-toolbar-chapter');
    await page.keyboard.press('ArrowRight');
    await page.waitForSelector('ty-markup-chapter');
    await tabTo((text) => text.startsWith('h3,'), 'the check box of h3');
    await page.keyboard.press('Space');
    await eventually(
      () => bench.text('.draft'),
      (text) => text.startsWith('One change'),
      'the space bar did not change the rule',
    );
    await bench.save();
  });

  test('the toolbar is reached with Alt+F10 and walked with the arrows', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await bench.open(used.typikon.address, 'house');
    const frame = await bench.authorFrame();
    await frame.focus('[role=textbox]');
    await page.keyboard.down('Alt');
    await page.keyboard.press('F10');
    await page.keyboard.up('Alt');
    const current = () => page.evaluate(() => (document.activeElement as HTMLElement).dataset['button'] ?? '');
    assert.equal(await current(), 'paragraph');
    await page.keyboard.press('ArrowRight');
    assert.equal(await current(), 'heading-2');
    await page.keyboard.press('End');
    assert.equal(await page.evaluate(() => document.activeElement?.getAttribute('aria-label')), 'More');
    await page.keyboard.press('Escape');
    await eventually(
      () => page.evaluate(() => document.activeElement?.tagName),
      (name) => name === 'IFRAME',
      'Escape does not lead back into the text',
    );
  });
});

describe('links', () => {
  test('an address is completed, and one that is not allowed is refused with the reason', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await bench.open(used.typikon.address, 'house');
    const frame = await bench.authorFrame();
    await frame.click('[role=textbox]');
    await bench.selectAll();
    await page.keyboard.type('the tables');
    await page.keyboard.down('Control');
    await page.keyboard.press('KeyA');
    await page.keyboard.press('KeyK');
    await page.keyboard.up('Control');
    await page.waitForSelector('dialog[open] .te-part');
    await page.select('dialog select', 'address');
    await page.focus('dialog .te-part input');
    await page.keyboard.type('javascript:alert(1)');
    await page.keyboard.press('Enter');
    assert.match(await bench.text('dialog .te-complaint'), /“javascript:” are not allowed here/);
    await bench.selectAll();
    await page.keyboard.type('saltmarrow.example/tides');
    await page.keyboard.press('Enter');
    await page.waitForSelector('dialog', { hidden: true });
    assert.match(await bench.stored(), /<a href="https:\/\/saltmarrow\.example\/tides">the tables<\/a>/);
  });
});

describe('the surface', () => {
  test('is as high as the profile says, and its column as wide as the page', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await bench.open(used.typikon.address, 'ferry-note');
    const frame = await bench.authorFrame();
    assert.equal(await page.$eval('.te-frame', (node) => node.getBoundingClientRect().height), 160);
    assert.equal(await frame.$eval('[role=textbox]', (node) => getComputedStyle(node).maxWidth), '720px');
    assert.match(await frame.$eval('[role=textbox] p', (node) => getComputedStyle(node).fontFamily), /Georgia/);
  });
});

describe('making a profile', () => {
  test('a new profile begins from another and opens', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await page.goto(`${used.typikon.address}/profiles`);
    await page.waitForSelector('tbody tr');
    await bench.click('ty-title-line [mat-flat-button]');
    await page.waitForSelector('#new-name');
    await page.type('#new-name', 'House');
    await bench.click('mat-dialog-actions [type=submit]');
    await eventually(
      () => bench.text('ty-new-profile .failure'),
      (text) => text.includes('already a profile'),
      'a taken name is not refused',
    );
    await page.type('#new-name', ' of pictures');
    await page.type('#new-purpose', 'Picture pages');
    await bench.click('mat-dialog-actions [type=submit]');
    await page.waitForSelector('ty-workshop');
    await eventually(
      () => bench.text('h1'),
      (text) => text === 'House of pictures',
      'the new profile did not open',
    );
    assert.match(page.url(), /profiles\/house-of-pictures$/);
  });

  test('is copied, renamed, taken away and brought back; one that others need stays', async () => {
    const { page, mishaps } = await openPage(used.browser);
    page.on('dialog', (dialog) => void dialog.accept());
    const names = () => page.$$eval('td.mat-column-name .name', (links) => links.map((link) => link.textContent));
    const menuOf = (name: string) => `tr:has(td.mat-column-name a[href$="/${name}"]) td.mat-column-more button`;
    await page.goto(`${used.typikon.address}/profiles`);
    await page.waitForSelector('tbody tr');
    await chooseFromMenu(page, menuOf('tender-desk'), 'Copy it');
    await page.waitForSelector('#profile-name');
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-profile-name', 'Make the copy');
    await eventually(names, (all) => all.includes('Copy of Tender desk'), 'there is no copy');
    await chooseFromMenu(page, menuOf('copy-of-tender-desk'), 'Rename it');
    await page.waitForSelector('#profile-name');
    await page.type('#profile-name', ' for small boats');
    await pressButton(page, 'ty-profile-name', 'Rename it');
    await eventually(names, (all) => all.includes('Copy of Tender desk for small boats'), 'it is not renamed');
    await chooseFromMenu(page, menuOf('copy-of-tender-desk'), 'Let it extend another');
    await page.waitForSelector('ty-profile-parent mat-select');
    await page.click('ty-profile-parent mat-select');
    await page.waitForSelector('mat-option');
    await page.$$eval('mat-option', (options) => (options.find((one) => one.textContent?.trim() === 'Reply') as HTMLElement).click());
    await page.waitForSelector('ty-profile-parent ty-changes-table');
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-profile-parent', 'Let it extend this');
    await untilGone(page, 'ty-profile-parent');
    await chooseFromMenu(page, menuOf('copy-of-tender-desk'), 'Take it away');
    await pressButton(page, 'ty-profile-removal', 'Take it away');
    await eventually(names, (all) => !all.includes('Copy of Tender desk for small boats'), 'it did not go');
    await pressButton(page, 'mat-snack-bar-container', 'Bring it back');
    await eventually(names, (all) => all.includes('Copy of Tender desk for small boats'), 'it did not come back');
    const { document } = (await (await fetch(`${used.typikon.address}/api/v1/profiles/copy-of-tender-desk`)).json()) as {
      document: Record<string, unknown>;
    };
    assert.equal(document['extends'], 'reply');
    await chooseFromMenu(page, menuOf('house'), 'Take it away');
    await page.waitForSelector('ty-profile-removal li');
    assert.equal(
      await page.$eval('ty-profile-removal [mat-flat-button]', (button) => (button as HTMLButtonElement).disabled),
      true,
      'what others extend can be taken away',
    );
    assert.deepEqual(await axeFindings(page), []);
    assert.deepEqual(mishaps, []);
  });
});

describe('the bench', () => {
  test('shows twenty lines on a small screen, all the height by a key, and three things side by side on a wide one', async () => {
    const { page, mishaps } = await openPage(used.browser);
    const bench = new Bench(page);
    await page.setViewport({ width: 1280, height: 800 });
    await page.goto(`${used.typikon.address}/profiles/notices-desk`);
    await page.waitForSelector('.entry');
    const lines = await page.$eval('ty-markup-view .cm-scroller', (scroller) => {
      const line = scroller.querySelector('.cm-line')!;
      return scroller.clientHeight / Number.parseFloat(getComputedStyle(line).lineHeight);
    });
    assert.ok(lines >= 20, `${lines} lines of markup`);
    await page.keyboard.down('Alt');
    await page.keyboard.press('KeyB');
    await page.keyboard.up('Alt');
    await page.waitForSelector('ty-bench .below', { hidden: true });
    await bench.view('author');
    const frame = await bench.authorFrame();
    const author = await eventually(
      async () => {
        const height = await page.$eval('ty-author-view .te-frame', (node) => node.clientHeight);
        return height / (await frame.$eval('p', (text) => Number.parseFloat(getComputedStyle(text).lineHeight)));
      },
      (count) => count >= 20,
      'the author does not see twenty lines',
    );
    assert.ok(author < 40, `${author} lines of text`);
    await page.click('ty-bench .whole');
    await page.waitForSelector('ty-bench .below', { visible: true });
    await page.setViewport({ width: 1920, height: 1080 });
    await page.reload();
    await page.waitForSelector('.entry');
    await bench.view('markup');
    const [source, result, ledger] = await eventually(
      () =>
        page.$$eval('ty-markup-view .side, ty-ledger-view', (parts) =>
          parts.map((part) => part.getBoundingClientRect()).map(({ left, right, top }) => ({ left, right, top })),
        ),
      (parts) => parts.length === 3 && parts[2]!.left >= parts[1]!.right,
      'the ledger is not beside the result',
    );
    assert.ok(source!.right <= result!.left + 1 && result!.right <= ledger!.left, JSON.stringify([source, result, ledger]));
    assert.deepEqual(mishaps, []);
  });
});

describe('going anywhere', () => {
  test('an element, a setting, a pass, a document and all keys are found by their words', async () => {
    const { page, mishaps } = await openPage(used.browser);
    const find = async (words: string, label: string): Promise<void> => {
      await page.keyboard.down('Control');
      await page.keyboard.press('KeyK');
      await page.keyboard.up('Control');
      await page.waitForSelector('ty-finder input:focus');
      await page.keyboard.type(words);
      await eventually(
        () => page.$$eval('mat-option .line span:first-child', (options) => options.map((option) => option.textContent)),
        ([first]) => first === label,
        `${words} does not find ${label}`,
      );
      await page.keyboard.press('Enter');
      await untilGone(page, 'ty-finder');
    };
    await page.goto(`${used.typikon.address}/profiles/notices-desk`);
    await page.waitForSelector('.entry');
    await find('img', 'img');
    await page.waitForSelector('[data-element=img].on');
    await find('hard spaces', 'Hard spaces');
    await page.waitForSelector('[data-setting=text-hardSpaces] mat-select:focus');
    await find('office', 'Office leftovers');
    await page.waitForSelector('[data-pass=office-leftovers].on');
    await find('tansy back', 'Old Tansy back in service');
    await page.waitForFunction(() => location.pathname === '/write/old-tansy-back');
    await page.waitForSelector('typikon-editor .te-frame');
    await find('all keys', 'All keys');
    await page.waitForSelector('ty-keys-page tr.mat-mdc-row');
    assert.deepEqual(await axeFindings(page), []);
    await page.click('.find');
    await page.waitForSelector('ty-finder input:focus');
    await page.waitForSelector('mat-option');
    // What was gone to last stands first.
    assert.deepEqual(
      (await page.$$eval('mat-option .line span:first-child', (options) => options.map((option) => option.textContent))).slice(0, 3),
      ['All keys', 'Office leftovers', 'Hard spaces'],
    );
    assert.deepEqual(await axeFindings(page), []);
    assert.deepEqual(mishaps, []);
  });
});
