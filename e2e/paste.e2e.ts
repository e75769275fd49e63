import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, test } from 'node:test';
import { unzipSync, zipSync } from 'fflate';
import type { ElementHandle, Page } from 'puppeteer-core';
import { longDocument } from '../packages/core/test/long-payloads';
import { at } from '../scripts/lib/paths.mjs';
import { axeFindings, Bench, chooseOptions, eventually, openPage, useTypikon, untilGone } from './support';

const used = useTypikon();
let page: Page;
let bench: Bench;
let mishaps: string[];

const settle = (ms = 400): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** One page for the whole file, opened with the first test. */
const begin = async (): Promise<void> => {
  ({ page, mishaps } = await openPage(used.browser, { isKept: true }));
  await page.setViewport({ width: 1280, height: 800 });
  // Changes that were not saved are left behind between the parts of this file.
  page.on('dialog', (dialog) => void dialog.accept());
  bench = new Bench(page);
};

const open = async (profile: string, specimen: string): Promise<void> => {
  await bench.open(used.typikon.address, profile, 'paste');
  await bench.chapter('paste');
  await bench.choose(`specimen:${specimen}`);
  await page.waitForSelector('[data-pass=spaces]');
};
const figure = (pass: string): Promise<string> => bench.text(`[data-pass=${pass}] .did`);
const storedIs = (isRight: (html: string) => boolean, what: string): Promise<string> => eventually(() => bench.stored(), isRight, what);
const order = (): Promise<string[]> =>
  page.$$eval('[data-pass]', (rungs) => rungs.map((rung) => (rung as HTMLElement).dataset['pass'] ?? ''));
/** Types into a field of the open pass and leaves it. */
const setField = async (key: string, value: string): Promise<void> => {
  await page.waitForSelector(`#pass-${key}`);
  await page.focus(`#pass-${key}`);
  await bench.selectAll();
  await page.keyboard.press('Backspace');
  await page.keyboard.type(value);
  await page.keyboard.press('Tab');
};

describe('the ladder', () => {
  test('says of each pass what it did to the specimen, and where the specimen comes from', async () => {
    await begin();
    await open('notices-desk', 'restarted-numbers');
    await eventually(
      () => figure('lists'),
      (text) => /^13 items/.test(text),
      'the lists are not counted',
    );
    assert.match(await figure('joined-lines'), /not for this source/);
    assert.match(await figure('typography'), /^off/);
    assert.match(await bench.text('.rung.source'), /Word processor: the namespace of a word processor/);
    assert.match(await bench.text('.rung.last'), /After the last pass the markup rules run, always/);
  });

  test('“keep bold and links, nothing else” is one setting, and the ledger says which pass took the colour', async () => {
    await bench.choose('specimen:committee-minutes');
    await bench.click('[data-pass=elements] .switch input');
    await bench.click('[data-pass=elements] .name');
    await setField('only', 'p strong a');
    await page.waitForSelector('[data-pass=elements].on');
    await bench.press('ty-markup-view .which', 'Whole way');
    const html = await storedIs((text) => !/<(em|ul|h2|sup)/.test(text), 'something else is left');
    assert.match(html, /<strong>Present:<\/strong>/);
    assert.match(html, /<a href=/);
    await bench.press('ty-bench .lower', 'Ledger');
    const sentences = await eventually(
      () => bench.sentences(),
      (all) => all.some((sentence) => sentence.startsWith('The colour taken off')),
      'the colour is not in the ledger',
    );
    const place = sentences.findIndex((sentence) => sentence.startsWith('The colour taken off')) + 1;
    assert.match(
      await bench.text(`ty-ledger-view .entry:nth-of-type(${place}) .cite`),
      /House, §3 Paste, Inline style|Notices desk, §3 Paste, Inline style/,
    );
    await bench.click(`ty-ledger-view .entry:nth-of-type(${place}) .ty-cite`);
    await page.waitForSelector('[data-pass=inline-style].on');
    await bench.click('[aria-label=Undo]');
    await bench.click('[aria-label=Undo]');
  });

  test('by the keyboard alone', async () => {
    await open('notices-desk', 'committee-minutes');
    const tabTo = async (selector: string): Promise<void> => {
      for (let i = 0; i < 150; i++) {
        if (await page.evaluate((wanted) => document.activeElement?.matches(wanted) ?? false, selector)) return;
        await page.keyboard.press('Tab');
      }
      throw new Error(`${selector} cannot be reached by the Tab key`);
    };
    await tabTo('[data-pass=elements] .switch input');
    await page.keyboard.press('Space');
    await tabTo('[data-pass=elements] .name');
    await page.keyboard.press('Enter');
    await page.waitForSelector('#pass-only');
    await tabTo('#pass-only');
    await page.keyboard.type('p strong a');
    await page.keyboard.press('Tab');
    await tabTo('ty-markup-view .ways button:last-child');
    await page.keyboard.press('Enter');
    const html = await storedIs((text) => !/<(em|ul|h2|sup)/.test(text), 'something else is left');
    assert.match(html, /<strong>Present:<\/strong>/);
    await bench.click('[aria-label=Undo]');
    await bench.click('[aria-label=Undo]');
  });

  test('a pass shows the content before and after it, in source and as it looks', async () => {
    await bench.choose('specimen:committee-minutes');
    if ((await page.$('[data-pass=inline-style].on')) === null) await bench.click('[data-pass=inline-style] .name');
    await eventually(
      () => bench.text('ty-markup-view'),
      (text) => /Before 3\.7 Inline style/.test(text) && /After/.test(text),
      'the sides are not named',
    );
    await page.waitForSelector('ty-markup-view .side:first-child .ty-removed');
    await bench.press('ty-markup-view .which', 'Look');
    await page.waitForSelector('ty-markup-view iframe[title="How it looks before the step"]');
    const frame = await eventually(
      async () => {
        for (const candidate of page.frames())
          if ((await candidate.title().catch(() => '')) === '' && (await candidate.$('h1 span').catch(() => null)) !== null)
            return candidate;
        return null;
      },
      (found) => found !== null,
      'the look is not shown',
    );
    assert.ok(frame);
    assert.equal(await page.$eval('ty-markup-view iframe', (node) => node.getAttribute('sandbox')), '');
    await bench.press('ty-markup-view .which', 'Source');
    await bench.press('ty-markup-view .which', 'Whole way');
  });

  test('a switch takes effect at once, and undo takes it back', async () => {
    await bench.click('[data-pass=notes] .switch input');
    await storedIs((html) => !html.includes('noteref'), 'the notes are still linked');
    await eventually(
      () => figure('notes'),
      (text) => text === 'off would find 1',
      'what it would find is not said',
    );
    await bench.click('[aria-label=Undo]');
    await storedIs((html) => html.includes('noteref'), 'the notes are not linked again');
  });

  test('passes are moved by the keyboard and by the mouse', async () => {
    assert.deepEqual((await order()).slice(0, 3), ['joined-lines', 'notes', 'lists']);
    await page.focus('[data-pass=lists] .grip');
    await page.keyboard.press('ArrowUp');
    await eventually(order, (ids) => ids[1] === 'lists' && ids[2] === 'notes', 'the arrow key did not move it');
    await eventually(
      () => page.$eval('[data-pass=lists] .grip', (node) => node === document.activeElement),
      (isFocused) => isFocused,
      'the focus did not go along',
    );
    assert.match(await bench.text('[data-pass=lists] .number'), /3\.3/);
    const grip = (await page.$('[data-pass=notes] .grip')) as ElementHandle<HTMLElement>;
    const target = (await page.$('[data-pass=joined-lines]')) as ElementHandle<HTMLElement>;
    const [from, to] = [await grip.boundingBox(), await target.boundingBox()];
    await page.mouse.move(from!.x + 8, from!.y + 8);
    await page.mouse.down();
    await page.mouse.move(from!.x + 8, from!.y - 20, { steps: 6 });
    await page.mouse.move(to!.x + 8, to!.y + 4, { steps: 10 });
    await settle();
    await page.mouse.up();
    await eventually(order, (ids) => ids.indexOf('notes') < ids.indexOf('lists'), 'the mouse did not move it');
    await bench.press('ty-paste-chapter .bar', 'Usual order');
    await eventually(order, (ids) => ids[0] === 'joined-lines' && ids[1] === 'notes', 'the usual order is not back');
  });

  test('what cannot be a setting is said at its place, and nothing is lost by it', async () => {
    await bench.click('[data-pass=inline-style] .name');
    await setField('keep', 'text-align, 2em');
    await page.waitForSelector('[data-setting=pass-keep] .mistake:not(:empty)');
    assert.match(await bench.text('[data-setting=pass-keep] .mistake'), /“2em” must be a CSS property/);
    await setField('keep', '');
    await page.waitForSelector('[data-setting=pass-keep] .mistake:empty');
    await bench.click('[data-pass=inline-style] .name');
  });

  test('a replacement shows its hits, its mistakes, and what becomes of words in the trial box', async () => {
    await bench.click('[data-pass=find-replace] .name');
    await bench.press('ty-replacements', 'Add a replacement');
    await page.type('[aria-label="Look for, replacement 1"]', 'harbo');
    await page.type('[aria-label="Put instead, replacement 1"]', 'Harbo');
    await page.keyboard.press('Tab');
    await eventually(
      () => bench.text('ty-replacements'),
      (text) => /1 hit here|2 hits here/.test(text),
      'the hits are not counted',
    );
    await storedIs((html) => html.includes('the Harbour office'), 'nothing was replaced');
    await chooseOptions(page, 'What it is', 'as a pattern');
    await page.focus('[aria-label="Look for, replacement 1"]');
    await bench.selectAll();
    await page.keyboard.type('(harb');
    await page.keyboard.press('Tab');
    await page.waitForSelector('ty-replacements .mistake');
    assert.match(await bench.text('ty-replacements .mistake'), /pattern cannot be used: missing closing \)/);
    await page.focus('[aria-label="Look for, replacement 1"]');
    await bench.selectAll();
    await page.keyboard.type('har(b)');
    await page.focus('[aria-label="Put instead, replacement 1"]');
    await bench.selectAll();
    await page.keyboard.type('Har$1');
    await page.keyboard.press('Tab');
    await page.type('ty-replacements .trial input', 'the harbour');
    await eventually(
      () => bench.text('ty-replacements'),
      (text) => text.includes('1 hit:') && text.includes('the Harbour'),
      'the trial shows nothing',
    );
    await bench.press('ty-replacements', 'Remove');
    await bench.click('[data-pass=find-replace] .name');
  });
});

describe('what is left', () => {
  test('a line is taken away from now on by the right pass, and comes back by undo', async () => {
    await open('notices-desk', 'committee-minutes');
    await bench.press('ty-bench .lower', 'What is left');
    await storedIs((html) => html.includes('<em>'), 'there is no em');
    const row = 'ty-left-view tbody tr:nth-child(5)';
    await eventually(
      () => page.$$eval('ty-left-view tbody [role=rowheader]', (cells) => cells.map((cell) => cell.textContent?.trim())),
      (names) => names.includes('em'),
      'em is not listed',
    );
    const nth =
      (await page.$$eval('ty-left-view tbody [role=rowheader]', (cells) => cells.map((cell) => cell.textContent?.trim()))).indexOf('em') +
      1;
    const line = row.replace('5', String(nth));
    await bench.press(line, 'show');
    await page.waitForSelector('ty-markup-view .side:nth-child(2) .ty-chosen');
    await bench.press(line, 'drop from now on');
    await storedIs((html) => !html.includes('<em>'), 'em is still there');
    assert.match(await bench.text('ty-left-view .done'), /From now on em goes: §3 Elements and attributes\. Undo/);
    await bench.press('ty-left-view .done', 'Undo');
    await storedIs((html) => html.includes('<em>'), 'em is not back');
  });

  test('what went is kept from now on where a rule can do it, and where none can, that is said', async () => {
    await bench.choose('specimen:clauses');
    await bench.press('ty-left-view .ways', 'what went');
    const nthOf = (name: string) =>
      eventually(
        async () =>
          (
            await page.$$eval('ty-left-view .list[aria-busy=false] tbody [role=rowheader]', (cells) =>
              cells.map((cell) => cell.textContent?.replace(/\s+/g, ' ').trim()),
            )
          ).indexOf(name) + 1,
        (found) => found > 0,
        `${name} is not listed`,
      );
    await bench.press(`ty-left-view tbody tr:nth-child(${await nthOf('hard space')})`, 'keep from now on');
    await eventually(
      () => bench.text('ty-left-view .done'),
      (text) => text.includes('From now on hard space stays: §3 Spaces and empties'),
      'the hard spaces are not kept',
    );
    await bench.press('ty-left-view .done', 'Undo');
    await bench.press(`ty-left-view tbody tr:nth-child(${await nthOf('font style')})`, 'keep from now on');
    await eventually(
      () => bench.text('ty-left-view .done'),
      (text) => text.includes('No rule of this profile keeps font style'),
      'nothing is said',
    );
    await bench.press('ty-left-view .ways', 'what is there now');
  });
});

describe('all at once', () => {
  test('the matrix runs every specimen under the draft and beside it, can be stopped, and leads to one', async () => {
    await bench.press('ty-paste-chapter .bar', 'All specimens');
    await bench.press('ty-matrix-dialog', 'Stop').catch(() => undefined);
    await bench.press('ty-matrix-dialog .bar', 'Run again');
    const summary = await eventually(
      () => bench.text('ty-matrix-dialog .bar p'),
      (text) => /expectations met/.test(text),
      'the matrix did not end',
    );
    assert.match(summary, /^159 of 159 expectations met/);
    assert.deepEqual(await axeFindings(page), []);
    await bench.press('ty-matrix-dialog tbody', 'Berth register');
    await eventually(
      () => bench.text('#specimen'),
      (text) => text.includes('Berth register'),
      'the specimen is not on the bench',
    );
  });

  test('what is on the bench is compared under two profiles, the ledgers subtracted', async () => {
    await bench.choose('specimen:committee-minutes');
    await bench.press('ty-paste-chapter .bar', 'Compare');
    await page.waitForSelector('#compare-other');
    await chooseOptions(page, 'Beside it', 'Diary');
    await eventually(
      () => bench.text('ty-compare-dialog'),
      (text) => text.includes('2 <h2> became <h3>') && text.includes('They come out otherwise'),
      'the difference is not named',
    );
    assert.deepEqual(await axeFindings(page), []);
    await page.keyboard.press('Escape');
    await untilGone(page, 'ty-compare-dialog');
  });
});

describe('in the author’s editor', () => {
  const WORD =
    '<html xmlns:w="urn:schemas-microsoft-com:office:word"><body><p class=MsoNormal style="color:red">Low <b>water</b></p>' +
    '<p class=MsoListParagraph style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">·&nbsp;</span>one</p><p class=MsoListParagraph style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">·&nbsp;</span>two</p></body></html>';
  const text = (): Promise<string> => bench.authorFrame().then((frame) => frame.$eval('[role=textbox]', (node) => node.innerHTML));
  const strip = (): Promise<string> => bench.text('.te-paste');
  const empty = async (): Promise<void> => {
    const frame = await bench.authorFrame();
    await frame.click('[role=textbox]');
    await bench.selectAll();
    await page.keyboard.press('Backspace');
  };

  test('a paste goes through the passes; the strip offers to see, to take the words alone, to undo', async () => {
    await bench.open(used.typikon.address, 'notices-desk', 'paste');
    await empty();
    await bench.paste(await bench.authorFrame(), { 'text/html': WORD, 'text/plain': 'Low water\none\ntwo' });
    await eventually(
      text,
      (html) => /<p>Low <strong>water<\/strong><\/p><ul><li>.*one.*<\/li><li>.*two.*<\/li><\/ul>/.test(html),
      'the list was not rebuilt',
    );
    assert.match(await strip(), /^Tidied: \d+ changes\. See Text only Undo$/);
    await bench.press('.te-paste', 'Text only');
    await eventually(text, (html) => !html.includes('<ul') && html.includes('Low water'), 'the words alone did not come');
    await bench.press('.te-paste', 'Undo');
    await eventually(text, (html) => !html.includes('Low'), 'undo left something');
    await bench.paste(await bench.authorFrame(), { 'text/html': WORD });
    await eventually(strip, (said) => said.startsWith('Tidied'), 'nothing was said');
    await bench.press('.te-paste', 'See');
    await eventually(
      () => bench.sentences(),
      (sentences) => sentences.some((sentence) => sentence.startsWith('2 paragraphs became list items')),
      'the ledger of the paste is not shown',
    );
  });

  test('from the real clipboard, by the keys of the author', async () => {
    const context = page.browserContext();
    await context.overridePermissions(used.typikon.address, ['clipboard-read', 'clipboard-write', 'clipboard-sanitized-write']);
    await page.evaluate(() =>
      navigator.clipboard.write([
        new ClipboardItem({
          'text/html': new Blob(['<p style="color:red">From <b>the clipboard</b></p>'], { type: 'text/html' }),
          'text/plain': new Blob(['From the clipboard'], { type: 'text/plain' }),
        }),
      ]),
    );
    await empty();
    await page.keyboard.down('Control');
    await page.keyboard.press('KeyV');
    await page.keyboard.up('Control');
    await eventually(
      text,
      (html) => /From <strong>the clipboard<\/strong>/.test(html) && !html.includes('color'),
      'the clipboard did not come in',
    );
  });

  test('what is dropped goes the same way', async () => {
    await empty();
    const frame = await bench.authorFrame();
    await frame.$eval('[role=textbox]', (node) => {
      const dataTransfer = new DataTransfer();
      dataTransfer.setData('text/html', '<p><font face="Arial">Dropped <i>here</i></font></p>');
      const { left, top } = node.getBoundingClientRect();
      node.dispatchEvent(new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true, clientX: left + 20, clientY: top + 12 }));
    });
    await eventually(text, (html) => html.includes('Dropped <em>here</em>') && !html.includes('font'), 'the drop did not come in');
    assert.match(await strip(), /^Tidied/);
  });

  test('an embedded picture goes to the asset library and is served by the site; one that is missing is asked for', async () => {
    await bench.open(used.typikon.address, 'story-desk', 'paste');
    await empty();
    const png = 'iVBORw0KGgoAAAANSUhEUgAAAAgAAAAICAIAAABLbSncAAAAEklEQVR4nGNQTo3Ciph1FhYAN5cKeQzB1RkAAAAASUVORK5CYII=';
    await bench.paste(await bench.authorFrame(), {
      'text/html': `<p>A mark <img src="data:image/png;base64,${png}" alt="Mark"> and <img src="file:///C:/x.png" alt="The slip"></p>`,
    });
    const html = await eventually(text, (markup) => markup.includes('/assets/'), 'the picture is not in the library');
    assert.match(html, /\[Picture to upload: The slip\]/);
    assert.match(html, /te-stand-in/);
    assert.match(await strip(), /; one picture to upload\./);
    const [address] = /\/assets\/[0-9a-f]{32}\.png/.exec(html) ?? [''];
    const answer = await fetch(`${used.typikon.siteAddress}${address}`);
    assert.equal(answer.status, 200);
    assert.equal(answer.headers.get('content-type'), 'image/png');
  });

  test('where the profile says so, the author is asked, or gets words alone', async () => {
    await bench.chapter('paste');
    await page.waitForSelector('#paste-choice');
    await chooseOptions(page, 'A paste becomes', 'what the author says, each time');
    await settle(800);
    await empty();
    await bench.paste(await bench.authorFrame(), { 'text/html': '<p>As <b>bold</b> as that</p>', 'text/plain': 'As bold as that' });
    await eventually(strip, (said) => said === 'How should it be pasted? Tidied Text only Not at all', 'nobody asked');
    assert.doesNotMatch(await text(), /bold/);
    await bench.press('.te-paste', 'Tidied');
    await eventually(text, (html) => html.includes('<strong>bold</strong>'), 'it did not come tidied');
    await chooseOptions(page, 'A paste becomes', 'words alone');
    await settle(800);
    await empty();
    await bench.paste(await bench.authorFrame(), { 'text/html': '<p>As <b>bold</b> as that</p>', 'text/plain': 'As bold as that' });
    await eventually(text, (html) => html.includes('As bold as that') && !html.includes('strong'), 'it did not come as words');
  });
});

describe('specimens', () => {
  const raw = (): Promise<string> => bench.text('ty-specimens-page pre');

  test('the catcher takes every type of a paste, as it is, and keeps it with what must come out', async () => {
    await page.goto(`${used.typikon.address}/specimens`);
    await bench.press('ty-title-line', 'Catch a paste');
    await page.waitForSelector('.catcher');
    await page.$eval('.catcher', (node) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/html', '<p class=MsoNormal>Tide <b>now</b></p>');
      clipboardData.setData('text/plain', 'Tide now');
      clipboardData.setData('text/rtf', '{\\rtf1 Tide \\b now\\b0}');
      node.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    });
    await page.waitForSelector('#specimen-name');
    assert.match(await raw(), /<p class=MsoNormal>Tide <b>now<\/b><\/p>/);
    await bench.press('.types', 'text/rtf');
    assert.match(await eventually(raw, (text) => text.includes('rtf1'), 'the rich text is not shown'), /Tide \\b now/);
    await page.type('#specimen-name', 'A tide, caught');
    await bench.press('ty-expectations-editor', 'Add an expectation');
    await chooseOptions(page, 'Expectation 1', 'the text has');
    await page.waitForSelector('ty-expectations-editor input[aria-label="the text has"]');
    await page.focus('ty-expectations-editor input[aria-label="the text has"]');
    await bench.selectAll();
    await page.keyboard.type('Tide now');
    await page.keyboard.press('Tab');
    await bench.press('ty-specimens-page .others', 'Keep this specimen');
    await page.waitForFunction(() => location.pathname === '/specimens/a-tide-caught');
    await page.reload();
    await page.waitForSelector('ty-specimens-page nav a.on');
    assert.match(await bench.text('ty-specimens-page nav a.on'), /A tide, caught word processor, html, text, rtf, 1 expectations/);
    await bench.open(used.typikon.address, 'notices-desk', 'paste');
    await bench.choose('specimen:a-tide-caught');
    await bench.click('#bench-tab-expectations');
    await eventually(
      () => bench.text('ty-expectations-view'),
      (text) => text === 'Met The text has “Tide now”.',
      'the expectation is not judged',
    );
  });

  test('documents, sheets and mail are read from files; what cannot be read is said', async () => {
    await page.goto(`${used.typikon.address}/specimens`);
    const read = async (file: string): Promise<void> => {
      await bench.press('ty-title-line', 'Catch a paste');
      const input = (await page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
      await input.uploadFile(at('e2e', 'files', file));
      await page.waitForSelector('#specimen-name');
    };
    await read('works.docx');
    await eventually(raw, (text) => text.includes('<li>Dredging<ol><li>north basin</li>'), 'the document was not read');
    await bench.press('ty-specimens-page .others', 'Throw away');
    await read('berths.xlsx');
    await eventually(raw, (text) => text.includes('<tr><td>Berth</td><td>Depth m</td></tr>'), 'the sheet was not read');
    await bench.press('ty-specimens-page .others', 'Throw away');
    await read('notice.eml');
    await eventually(raw, (text) => text.includes('<b>Orrenstrand</b>'), 'the mail was not read');
    await bench.press('ty-specimens-page .others', 'Throw away');
    await bench.press('ty-title-line', 'Catch a paste');
    const input = (await page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(at('package.json'));
    await page.waitForSelector('.ty-notice.bad');
    assert.match(await bench.text('.ty-notice.bad'), /package\.json cannot be read: There is no specimen in it/);
  });

  test('one is changed, exported, removed, and taken in again', async () => {
    await page.goto(`${used.typikon.address}/specimens/a-tide-caught`);
    await page.waitForSelector('#specimen-name');
    await page.type('#specimen-name', ' twice');
    await bench.press('ty-specimens-page .others', 'Save');
    await eventually(
      () => bench.text('ty-specimens-page nav a.on'),
      (text) => text.startsWith('A tide, caught twice'),
      'it was not saved',
    );
    const exported = await (await fetch(`${used.typikon.address}/api/v1/specimens`)).json();
    const one = (exported as { id: string; name: string; payload: unknown }[]).find(({ id }) => id === 'a-tide-caught');
    assert.equal(one?.name, 'A tide, caught twice');
    await bench.press('ty-specimens-page .others', 'Remove');
    await bench.press('ty-confirm', 'Remove it');
    await eventually(
      () => page.$$eval('ty-specimens-page nav a', (links) => links.map((link) => link.textContent ?? '')),
      (names) => !names.some((name) => name.includes('A tide, caught')),
      'it is still listed',
    );
  });

  test('all are exported as a folder that the command line proves, and come in again as one', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'typikon-export-'));
    const session = await page.createCDPSession();
    await session.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
    await page.goto(`${used.typikon.address}/specimens`);
    await bench.press('ty-title-line', 'Export all');
    const zip = join(folder, 'specimens.zip');
    const files = await eventually(
      () => Promise.resolve(unzipSync(readFileSync(zip))),
      (found) => Object.keys(found).length > 50,
      'nothing was exported',
    );
    await session.detach();
    for (const [name, content] of Object.entries(files)) writeFileSync(join(folder, name), content);
    const { status, stdout } = spawnSync(
      process.execPath,
      [at('packages/cli/bin/typikon.mjs'), 'prove', '--profile', at('demo/profiles/notices-desk.json'), '--own', folder],
      { encoding: 'utf8' },
    );
    assert.equal(status, 0, stdout);
    assert.match(stdout, /^met {3}committee-minutes: 9 of 9 expectations met/m);
    // What comes in beside one of the same key gets another.
    const again = join(folder, 'again.zip');
    const names = ['pdf-notice.specimen.json', 'pdf-notice.txt', 'plain-agenda.specimen.json', 'plain-agenda.txt'];
    writeFileSync(again, zipSync(Object.fromEntries(names.map((name) => [name, files[name]!]))));
    await bench.press('ty-title-line', 'Catch a paste');
    const input = (await page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(again);
    await eventually(
      () => page.$$eval('.ty-notice', (nodes) => nodes.map((node) => node.textContent?.trim() ?? '')),
      (notices) => notices.includes('2 specimens were taken in.'),
      'they were not taken in',
    );
    const api = `${used.typikon.address}/api/v1/specimens`;
    const stored = (await (await fetch(api)).json()) as { id: string; revision: number }[];
    const copies = stored.filter(({ id }) => /^(pdf-notice|plain-agenda)-\d$/.test(id));
    assert.equal(copies.length, 2);
    for (const { id, revision } of copies) await fetch(`${api}/${id}`, { method: 'DELETE', headers: { 'if-match': `"${revision}"` } });
    rmSync(folder, { recursive: true, force: true });
  });

  test('a payload of many megabytes tells how far it is, and can be stopped', async () => {
    const once = longDocument();
    const specimen = {
      format: 'typikon-specimen/1',
      id: 'a-very-long-one',
      name: 'A very long one',
      profile: 'notices-desk',
      payload: { types: { 'text/html': once.repeat(Math.ceil(10_000_000 / once.length)) } },
    };
    const api = `${used.typikon.address}/api/v1/specimens`;
    const answer = await fetch(api, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(specimen) });
    assert.equal(answer.status, 201);
    await bench.open(used.typikon.address, 'notices-desk', 'paste');
    await bench.choose('specimen:a-very-long-one');
    await eventually(
      () => bench.text('ty-bench .working'),
      (text) => /^Step \d+ of 16 …/.test(text),
      'nothing is said while it works',
    );
    await bench.press('ty-bench .working', 'Stop');
    await eventually(
      () => bench.text('ty-bench .message'),
      (text) => text.includes('The last run was stopped'),
      'it was not stopped',
    );
    await bench.choose('specimen:committee-minutes');
    await storedIs((html) => html.includes('Harbour committee'), 'the bench does not go on');
  });

  test('nothing went wrong in the browser meanwhile', () => assert.deepEqual(mishaps, []));
});
