import assert from 'node:assert/strict';
import { deflateSync, crc32 } from 'node:zlib';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, test } from 'node:test';
import type { ElementHandle, Frame, Page } from 'puppeteer-core';
import { runs } from '../packages/core/test/fixed-seed';
import { at } from '../scripts/lib/paths.mjs';
import { axeFindings, eventually, openPage, useTypikon } from './support';

const used = useTypikon();

interface StoredFields {
  fields: { key: string; value: string }[];
}

/** Drives the author's desk as an author would. */
class Desk {
  private constructor(
    readonly page: Page,
    readonly frame: Frame,
    readonly mishaps: string[],
    readonly id: string,
  ) {}

  static async open(id: string): Promise<Desk> {
    const { page, mishaps } = await openPage(used.browser);
    page.on('dialog', (dialog) => void dialog.accept());
    return Desk.at(page, mishaps, id);
  }
  static async at(page: Page, mishaps: string[], id: string): Promise<Desk> {
    await page.goto(`${used.typikon.address}/write/${id}`);
    return Desk.ready(page, mishaps, id);
  }
  /** Goes on to another document by a link of the application, which is not loaded again. */
  async onward(id: string): Promise<Desk> {
    await this.page.evaluate((to) => {
      history.pushState({}, '', to);
      dispatchEvent(new PopStateEvent('popstate', { state: {} }));
    }, `/write/${id}`);
    return Desk.ready(this.page, this.mishaps, id);
  }
  private static async ready(page: Page, mishaps: string[], id: string): Promise<Desk> {
    const handle = (await page.waitForSelector(`typikon-editor[data-of="${id}"] .te-frame`)) as ElementHandle<HTMLIFrameElement>;
    const frame = await handle.contentFrame();
    await frame.waitForSelector('[role=textbox]');
    return new Desk(page, frame, mishaps, id);
  }

  /** What would be stored. */
  value(): Promise<string> {
    return this.page.$eval(this.editor, (node) => (node as HTMLElement & { value: string }).value);
  }
  /** The editor of the main text. */
  get editor(): string {
    return `typikon-editor[data-of="${this.id}"]`;
  }
  /** The key of the field that it is for. */
  key(): Promise<string> {
    return this.page.$eval(this.editor, (node) => node.getAttribute('name')!);
  }
  /** The same without the line end that files have. */
  async html(): Promise<string> {
    return (await this.value()).trimEnd();
  }
  /** Empties the text and puts the cursor there. */
  async empty(): Promise<void> {
    await this.frame.click('[role=textbox]');
    await this.keys('Control+A');
    await this.page.keyboard.press('Backspace');
    if (await this.page.$(`${this.editor} [data-button=paragraph][aria-pressed=false]`)) await this.press('paragraph');
  }
  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text);
  }
  /** Presses keys together, such as Control+Shift+7. */
  async keys(keys: string): Promise<void> {
    const all = keys.split('+') as Parameters<Page['keyboard']['press']>[0][];
    const last = all.pop()!;
    for (const key of all) await this.page.keyboard.down(key);
    await this.page.keyboard.press(
      last.length === 1 ? (/\d/.test(last) ? (`Digit${last}` as typeof last) : (`Key${last}` as typeof last)) : last,
    );
    for (const key of all.reverse()) await this.page.keyboard.up(key);
  }
  /** Presses a button of the toolbar, also one under “More”. */
  async press(button: string): Promise<void> {
    const isFolded = await this.page.$eval(
      `${this.editor} [data-button=${button}]`,
      (node) => node.closest('.te-more-panel') !== null && node.closest<HTMLElement>('.te-more-panel')!.hidden,
    );
    if (isFolded) await this.page.click(`${this.editor} .te-more`);
    await this.page.click(`${this.editor} [data-button=${button}]`);
  }
  async dialog(): Promise<void> {
    await this.page.waitForSelector('dialog[open]');
  }
  /** Fills a field of the open dialog by its label. */
  async fill(label: string, value: string): Promise<void> {
    const id = await this.page.$$eval(
      'dialog label',
      (nodes, text) => nodes.find((node) => (node.textContent ?? '').trim() === text)?.htmlFor ?? '',
      label,
    );
    const field = `#${id}`;
    const tag = await this.page.$eval(field, (node) => node.tagName);
    if (tag === 'SELECT') await this.page.select(field, value);
    else {
      await this.page.$eval(field, (node) => {
        (node as HTMLInputElement).value = '';
        (node as HTMLInputElement).focus();
      });
      await this.type(value);
    }
  }
  async go(): Promise<void> {
    await this.page.click('dialog .te-go');
  }
  async gone(): Promise<void> {
    await this.page.waitForSelector('dialog', { hidden: true });
  }
  complaint(): Promise<string> {
    return this.page.$eval('dialog .te-complaint', (node) => node.textContent ?? '');
  }
  async menu(label: string): Promise<void> {
    await this.page.waitForSelector('.te-menu');
    const isThere = await this.page.$$eval(
      '.te-menu button',
      (nodes, text) => {
        const item = nodes.find((node) => (node.textContent ?? '').trim().startsWith(text));
        (item as HTMLElement | undefined)?.click();
        return item !== undefined;
      },
      label,
    );
    assert.ok(isThere, `the menu has no ${label}`);
  }
  async store(): Promise<string> {
    await this.keys('Control+S');
    return eventually(
      () => this.page.$eval('.state', (node) => (node.textContent ?? '').trim()),
      (text) => text.startsWith('Saved'),
      'it was not stored',
    );
  }
  async stored(): Promise<string> {
    const main = await this.key();
    const { fields } = (await (await fetch(`${used.typikon.address}/api/v1/documents/${this.id}`)).json()) as StoredFields;
    return fields.find(({ key }) => key === main)?.value ?? '';
  }
  /** Stores the text as it stands in the editor, although nothing was changed. */
  async storeAnyway(): Promise<void> {
    const address = `${used.typikon.address}/api/v1/documents/${this.id}`;
    const etag = (await fetch(address)).headers.get('etag')!;
    const body = JSON.stringify({ fields: { [await this.key()]: { value: await this.value() } } });
    const answer = await fetch(address, { method: 'PUT', headers: { 'content-type': 'application/json', 'if-match': etag }, body });
    assert.equal(answer.status, 200, `${this.id} cannot be stored`);
  }
  async expect(html: string): Promise<void> {
    await eventually(
      () => this.html(),
      (found) => found === html,
      `expected ${html}`,
    );
  }
}

/** A picture of one colour, as PNG. */
function png(width: number, height: number): Buffer {
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2], 8);
  const row = Buffer.alloc(1 + width * 3, 90);
  row[0] = 0;
  return Buffer.concat([
    Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.concat(Array.from({ length: height }, () => row)))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('opening and saving', () => {
  test('no document is changed by opening it, and one edit changes one block', async () => {
    // Those that were written by hand; `element.e2e.ts` opens and saves all of them.
    const all = JSON.parse(readFileSync(at('demo', 'documents.json'), 'utf8')) as { id: string }[];
    const { page, mishaps } = await openPage(used.browser);
    page.on('dialog', (dialog) => void dialog.accept());
    let desk: Desk | null = null;
    // As many as laws are tried, from the first to the last.
    const step = Math.max(1, Math.floor(all.length / runs(2 * all.length)));
    for (const { id } of all.filter((_one, at) => at % step === 0)) {
      desk = desk === null ? await Desk.at(page, mishaps, id) : await desk.onward(id);
      const before = await desk.value();
      await desk.storeAnyway();
      assert.equal(await desk.stored(), before, id);
      assert.equal(await desk.value(), before, id);
      // The first paragraph that holds words alone.
      const isTyped = await desk.frame.$$eval('[role=textbox] p', (nodes) => {
        const paragraph = nodes.find((node) => node.childNodes.length === 1 && node.firstChild?.nodeType === 3);
        if (paragraph === undefined) return false;
        const selection = getSelection()!;
        (paragraph.closest('[role=textbox]') as HTMLElement).focus();
        selection.collapse(paragraph.firstChild, paragraph.firstChild!.nodeValue!.length);
        return true;
      });
      if (!isTyped) continue;
      await new Promise((done) => setTimeout(done, 60));
      await page.keyboard.type('X');
      const after = await eventually(
        () => desk!.value(),
        (html) => html !== before,
        'nothing was typed',
      );
      let start = 0;
      while (before[start] === after[start]) start++;
      let end = 0;
      while (end < before.length - start && before[before.length - 1 - end] === after[after.length - 1 - end]) end++;
      const [gone, come] = [before.slice(start, before.length - end), after.slice(start, after.length - end)];
      assert.ok(come.includes('X') && (gone + come).length < 80 && !/<\/?(p|div|ul|table)\b/.test(gone), `${id}: ${gone} → ${come}`);
    }
    assert.deepEqual(mishaps, []);
  });
});

describe('writing', () => {
  test('a page with headings, lists, links, a picture and a teaser, and what is stored is what was seen', async () => {
    const desk = await Desk.open('new-beacon');
    const { page, frame } = desk;
    await desk.empty();
    await desk.type('## The new beacon');
    await page.keyboard.press('Enter');
    await desk.type('It stands on the outer bar -- 4 m above "high water"...  and was lit on ');
    await desk.type('**Monday**');
    await desk.type('.');
    await page.keyboard.press('Enter');
    await desk.press('summary-break');
    await desk.type('- white light');
    await page.keyboard.press('Enter');
    await desk.type('flashes twice');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await desk.type('See the tide tables.');
    await desk.expect(
      '<h2>The new beacon</h2>\n<p>It stands on the outer bar – 4 m above “high water”… and was lit on <strong>Monday</strong>.</p>\n<hr class="summary-end">\n<ul><li>white light</li><li>flashes twice</li></ul>\n<p>See the tide tables.</p>',
    );
    // A link to the heading, which gets a name for it.
    for (let n = 0; n < 'tide tables.'.length; n++) await desk.keys('Shift+ArrowLeft');
    await desk.keys('Shift+ArrowRight');
    await desk.press('link');
    await desk.dialog();
    await page.select('dialog select', 'heading');
    await page.waitForSelector('dialog .te-list option');
    await page.$eval('dialog .te-list', (node) => ((node as HTMLSelectElement).selectedIndex = 0));
    await desk.go();
    await desk.gone();
    assert.match(await desk.html(), /<h2 id="c-the-new-beacon">The new beacon<\/h2>[\s\S]*<a href="#c-the-new-beacon">/);
    // A picture from the library, to the right, with a caption.
    await desk.keys('Control+End');
    await desk.press('picture');
    await desk.dialog();
    await page.waitForSelector('.te-pictures button');
    await page.type('dialog input[type=search]', 'outer bar');
    await eventually(
      () => page.$$eval('.te-pictures button', (nodes) => nodes.length),
      (count) => count === 1,
      'the library was not searched',
    );
    await page.click('.te-pictures button');
    await page.click('input[name=te-place][value=right]');
    await desk.fill('Caption', 'Where it stands');
    await desk.go();
    await desk.gone();
    const html = await desk.value();
    assert.match(
      html,
      /<figure class="right"><img src="\/assets\/chart-outer-bar\.png" alt="Sketch of the outer bar with the new buoy" width="720" height="400"><figcaption>Where it stands<\/figcaption><\/figure>/,
    );
    await desk.store();
    // The paragraph that waits behind the picture is empty, and the rules store no empty paragraphs.
    assert.equal((await desk.stored()).trim(), html.replace('<p></p>', '').trim());
    // What the author saw is what readers see.
    const seen = await frame.$eval('[role=textbox]', (node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim());
    const reader = await page.browserContext().newPage();
    await reader.goto(`${used.typikon.siteAddress}/documents/new-beacon`);
    const read = await reader.$eval('article', (node) => node.innerText.replace(/\s+/g, ' ').trim());
    assert.ok(read.endsWith(seen), `${read} / ${seen}`);
    assert.ok(await reader.$eval('figure img', (node) => node.naturalWidth > 0));
    assert.deepEqual(desk.mishaps, []);
  });

  test('a table is made, filled by Tab, and its cells are joined and split', async () => {
    const desk = await Desk.open('tender-pontoon');
    const { page, frame } = desk;
    await desk.empty();
    await desk.press('table');
    await desk.dialog();
    assert.deepEqual(await axeFindings(page), []);
    await desk.fill('Rows', '500');
    await desk.go();
    assert.equal(await desk.complaint(), 'A table here can have 1 to 200 rows.');
    await desk.fill('Rows', '2');
    await desk.fill('Columns', '2');
    await desk.fill('Caption', 'Prices');
    await desk.go();
    await desk.gone();
    // The cursor is in the caption; Tab goes on in the cells.
    await frame.click('th');
    await desk.type('Item');
    await page.keyboard.press('Tab');
    await desk.type('Price');
    await page.keyboard.press('Tab');
    await desk.type('Pile');
    await page.keyboard.press('Tab');
    await desk.type('40');
    await page.keyboard.press('Tab');
    await desk.type('Plank');
    const table =
      '<caption>Prices</caption><thead><tr><th scope="col">Item</th><th scope="col">Price</th></tr></thead><tbody><tr><td>Pile</td><td>40</td></tr>';
    assert.equal(await desk.html(), `<table>${table}<tr><td>Plank</td><td></td></tr></tbody></table>`);
    for (let n = 0; n < 8; n++) await desk.keys('Shift+ArrowRight');
    await desk.keys('Shift+ArrowDown');
    await desk.press('table');
    await desk.menu('Join the selected cells');
    await eventually(
      () => desk.html(),
      (html) => html.includes('colspan="2"'),
      'the cells were not joined',
    ).catch(async () => assert.fail(await desk.html()));
    await desk.press('table');
    await desk.menu('Split the cell');
    await desk.press('table');
    await desk.menu('Delete the row');
    await desk.expect(`<table>${table}</tbody></table>`);
    await desk.keys('Control+Z');
    await desk.keys('Control+Z');
    assert.match(await desk.html(), /colspan="2"/);
    assert.deepEqual(desk.mishaps, []);
  });

  test('lists go deeper and out again, begin where they should, and blocks move past each other', async () => {
    const desk = await Desk.open('tender-pontoon');
    const { page } = desk;
    await desk.empty();
    await desk.type('1. one');
    await page.keyboard.press('Enter');
    await desk.type('two');
    await desk.keys('Control+BracketRight');
    await desk.expect('<ol><li>one<ol><li>two</li></ol></li></ol>');
    await desk.keys('Control+BracketLeft');
    await desk.keys('Alt+Shift+ArrowUp');
    await desk.expect('<ol><li>two</li><li>one</li></ol>');
    await desk.press('list-numbers');
    await desk.dialog();
    await desk.fill('Counts', 'a');
    await desk.fill('Begins with', '1200');
    await desk.go();
    assert.equal(await desk.complaint(), 'The rules let no list begin with 1200.');
    await desk.fill('Begins with', '4');
    await desk.go();
    await desk.gone();
    await desk.expect('<ol type="a" start="4"><li>two</li><li>one</li></ol>');
    await desk.keys('Control+Z');
    await desk.expect('<ol><li>two</li><li>one</li></ol>');
  });

  test('styles of the profile are applied and taken off', async () => {
    const desk = await Desk.open('spring-timetable');
    await desk.empty();
    await desk.type('Mind the gap');
    await desk.press('styles');
    await desk.menu('Warning');
    await desk.expect('<p class="warning">Mind the gap</p>');
    await desk.press('styles');
    await desk.menu('Warning');
    await desk.expect('<p>Mind the gap</p>');
  });

  test('signs are found by name, and words are found and replaced', async () => {
    const desk = await Desk.open('ferry-times');
    const { page } = desk;
    await desk.empty();
    await desk.type('tide and tide and TIDE at 12');
    await desk.press('special-characters');
    await desk.dialog();
    await desk.type('degree');
    await page.waitForSelector('.te-signs button[aria-label=degree]');
    await page.click('.te-signs button[aria-label=degree]');
    await desk.gone();
    await desk.press('find-replace');
    await page.waitForSelector(`${desk.editor} .te-find:not([hidden])`);
    await desk.type('tide');
    await eventually(
      () => page.$eval(`${desk.editor} .te-count`, (node) => node.textContent),
      (text) => text === '3 places',
      'not found',
    );
    await page.type(`${desk.editor} .te-find input[aria-label="Replace with"]`, 'flood');
    await page.$$eval(`${desk.editor} .te-find button`, (nodes) => nodes.find((node) => node.textContent === 'All')!.click());
    await desk.expect('<p>flood and flood and flood at 12°</p>');
    await page.keyboard.press('Escape');
    await desk.keys('Control+Z');
    await desk.expect('<p>tide and tide and TIDE at 12°</p>');
  });

  test('the source is cleaned, and what that takes is shown before it is taken', async () => {
    const desk = await Desk.open('ferry-times');
    const { page } = desk;
    await desk.empty();
    await desk.type('One');
    await desk.press('source');
    await page.waitForSelector('dialog .cm-content');
    assert.deepEqual(await axeFindings(page), []);
    await desk.keys('Control+A');
    await page.keyboard.sendCharacter('<p>Two <blink>three</blink></p><script>alert(1)</script>');
    await desk.go();
    await page.waitForSelector('.te-told li');
    assert.match(await page.$eval('.te-told', (node) => (node as HTMLElement).innerText), /A script went, with its content/);
    assert.equal(await desk.html(), '<p>One</p>');
    await desk.go();
    await desk.gone();
    await desk.expect('<p>Two three</p>');
    await desk.keys('Control+Z');
    await desk.expect('<p>One</p>');
  });

  test('misspelt words are marked, and the right one is offered', async () => {
    const desk = await Desk.open('ferry-times');
    const { page, frame } = desk;
    await desk.empty();
    await desk.type('The tiide at Thornholm is hgih today');
    await desk.press('spelling');
    const marked = await eventually(
      () => frame.$$eval('.te-misspelt', (nodes) => nodes.map((node) => node.textContent)),
      (words) => words.length === 2,
      'nothing is marked',
    );
    assert.deepEqual(marked, ['tiide', 'hgih']);
    await frame.click('.te-misspelt', { button: 'right' });
    await desk.menu('tide');
    await desk.expect('<p>The tide at Thornholm is hgih today</p>');
    await frame.click('.te-misspelt', { button: 'right' });
    await desk.menu('Add “hgih”');
    await eventually(
      () => frame.$$eval('.te-misspelt', (nodes) => nodes.length),
      (count) => count === 0,
      'the word was not learned',
    );
    const { words } = (await (await fetch(`${used.typikon.address}/api/v1/site-dictionary`)).json()) as { words: string[] };
    assert.ok(words.includes('hgih'));
    assert.equal(page.isClosed(), false);
  });

  test('outline, structure and word count show what is there; faults are named', async () => {
    const desk = await Desk.open('spring-timetable');
    const { page, frame } = desk;
    await desk.empty();
    await desk.type('## Spring');
    await page.keyboard.press('Enter');
    await desk.type('#### Marram');
    await page.keyboard.press('Enter');
    await desk.type('Two sailings.');
    await desk.press('outline');
    assert.match(
      await page.$eval(`${desk.editor} .te-outline`, (node) => (node as HTMLElement).innerText),
      /Marram\s+Level 2 is followed by level 4/,
    );
    await desk.press('structure');
    assert.deepEqual(await frame.$$eval('[data-te-block]', (nodes) => nodes.map((node) => (node as HTMLElement).dataset['teBlock'])), [
      'h2',
      'h4',
      'p',
    ]);
    await desk.press('word-count');
    assert.equal(await page.$eval(`${desk.editor} .te-line p`, (node) => node.textContent), '4 words, 25 characters');
    await desk.press('keyboard-help');
    await desk.dialog();
    const help = await page.$eval('dialog', (node) => (node as HTMLElement).innerText);
    assert.match(help, /## and a space\s+makes a heading/);
    assert.match(help, /Ctrl\+B\s+Bold/);
    assert.deepEqual(await axeFindings(page), []);
    await page.keyboard.press('Escape');
    await desk.gone();
    assert.equal(await page.evaluate(() => document.activeElement?.tagName), 'IFRAME');
  });

  test('a link that leads nowhere in the text is marked', async () => {
    const desk = await Desk.open('spring-timetable');
    await desk.empty();
    await desk.page.$eval(desk.editor, (node) => {
      (node as HTMLElement & { value: string }).value = '<h2 id="c-a">A</h2><p><a href="#c-a">good</a> <a href="#c-b">bad</a></p>';
    });
    const handle = (await desk.page.waitForSelector(`${desk.editor} .te-frame`)) as ElementHandle<HTMLIFrameElement>;
    const frame = await handle.contentFrame();
    await frame.waitForSelector('.te-broken');
    assert.deepEqual(await frame.$$eval('.te-broken', (nodes) => nodes.map((node) => node.textContent)), ['bad']);
  });
});

describe('pictures of one’s own', () => {
  const folder = mkdtempSync(join(tmpdir(), 'typikon-pictures-'));
  const file = (name: string, bytes: Buffer): string => {
    const path = join(folder, name);
    writeFileSync(path, bytes);
    return path;
  };

  test('are told by their content, made smaller, and a name that is taken is asked about', async () => {
    const desk = await Desk.open('volunteers-wanted');
    const { page } = desk;
    await desk.empty();
    const bring = async (path: string): Promise<void> => {
      const input = (await page.waitForSelector('dialog input[type=file]')) as ElementHandle<HTMLInputElement>;
      await input.uploadFile(path);
    };
    await desk.press('picture');
    await desk.dialog();
    await bring(file('page.png', Buffer.from('<html>not a picture</html>')));
    await eventually(
      () => desk.complaint(),
      (text) => text.includes('This is no picture that can be taken'),
      'what is no picture was taken',
    );
    const wide = file('wide.png', png(2400, 300));
    await bring(wide);
    await page.waitForSelector('.te-pictures button[aria-pressed=true]');
    assert.match(await page.$eval('.te-preview figcaption', (node) => node.textContent ?? ''), /wide\.png, 1440 × 180/);
    await desk.go();
    assert.match(await desk.complaint(), /Say what the picture shows/);
    assert.deepEqual(await axeFindings(page), []);
    await desk.fill('What it shows', 'A grey strip');
    await desk.go();
    await desk.gone();
    assert.match(await desk.html(), /^<p><img src="\/assets\/[0-9a-f-]+\.png" alt="A grey strip" width="720" height="90"><\/p>$/);
    await desk.press('picture');
    await desk.dialog();
    await bring(wide);
    await page.waitForSelector('.te-asked button');
    assert.match(await page.$eval('.te-asked', (node) => (node as HTMLElement).innerText), /has a picture named wide\.png already/);
    await page.$$eval('.te-asked button', (nodes) => nodes.find((node) => node.textContent === 'Keep both')!.click());
    await eventually(
      () => page.$$eval('.te-pictures button[aria-pressed=true] span', (nodes) => nodes.map((node) => node.textContent)),
      ([title]) => title === 'wide (2).png',
      'both were not kept',
    );
    await page.keyboard.press('Escape');
    await desk.gone();
    rmSync(folder, { recursive: true, force: true });
  });

  test('are resized by their handle, within the column', async () => {
    const desk = await Desk.open('old-tansy-back');
    const { page, frame } = desk;
    await eventually(
      () => frame.$eval('img[src]', (node) => node.naturalWidth),
      (px) => px > 0,
      'the picture did not come',
    );
    const handle = async () => {
      await frame.$eval('.te-knob', (node) => node.scrollIntoView({ block: 'center' }));
      return (await frame.$('.te-knob'))?.boundingBox() ?? null;
    };
    const html = await eventually(
      async () => {
        // A second click soon after the first would be a double one, which opens the picture's dialog.
        if ((await frame.$('.te-knob')) === null) await frame.click('img[src]', { delay: 600 });
        await frame.waitForSelector('.te-knob');
        // The handle is drawn anew as the text settles: it is taken where it stays, and once more where it was missed.
        const [box, again] = [await handle(), await handle()];
        if (box === null || again === null || box.x !== again.x || box.y !== again.y) return desk.html();
        await page.mouse.move(box.x + 5, box.y + 5);
        await page.mouse.down();
        await page.mouse.move(box.x - 195, box.y - 100, { steps: 5 });
        await page.mouse.up();
        return desk.html();
      },
      (found) => !found.includes('width="720"'),
      'the width did not change',
    );
    const width = Number(/<img[^>]*width="(\d+)"/.exec(html)![1]);
    assert.ok(width > 500 && width < 540, String(width));
    await desk.keys('Control+Z');
    assert.match(await desk.html(), /width="720" height="400"/);
  });
});

describe('nothing is lost', () => {
  test('text that was not stored is offered back, as the page is opened again', async () => {
    const desk = await Desk.open('ferry-today');
    await desk.empty();
    await desk.type('The Dunlin sails at noon.');
    await eventually(
      () => desk.page.evaluate(() => localStorage.getItem('typikon-text:ferry-today') ?? ''),
      (kept) => kept.includes('sails at noon'),
      'nothing is kept',
    );
    const again = await Desk.at(desk.page, desk.mishaps, 'ferry-today');
    await again.page.waitForSelector(`${again.editor} .te-draft`);
    assert.doesNotMatch(await again.html(), /sails at noon/);
    await again.page.click(`${again.editor} .te-draft button`);
    await again.expect('<p>The Dunlin sails at noon.</p>');
    await used.typikon.stopServer();
    await again.keys('Control+S');
    await again.page.waitForSelector('.ty-notice.bad');
    assert.match(
      await again.page.$eval('.ty-notice.bad', (node) => node.textContent ?? ''),
      /Not saved\. The server does not answer\. What you wrote stays here, and in this browser\./,
    );
    await used.typikon.startServer();
    await again.store();
    assert.equal((await again.stored()).trimEnd(), '<p>The Dunlin sails at noon.</p>');
    assert.equal(await again.page.evaluate(() => localStorage.getItem('typikon-text:ferry-today')), null);
  });

  test('what somebody else stored meanwhile is not written over', async () => {
    const [one, other] = [await Desk.open('ferry-tomorrow'), await Desk.open('ferry-tomorrow')];
    await one.empty();
    await one.type('First.');
    await one.store();
    await other.empty();
    await other.type('Second.');
    await other.keys('Control+S');
    await other.page.waitForSelector('.ty-notice.bad');
    assert.equal((await one.stored()).trimEnd(), '<p>First.</p>');
  });

  test('an empty text that is needed is not stored', async () => {
    const desk = await Desk.open('ferry-today');
    await desk.empty();
    assert.equal(await desk.page.$eval(desk.editor, (node) => (node as HTMLElement & { checkValidity(): boolean }).checkValidity()), false);
    const sent = await desk.page.$eval(desk.editor, (node) => {
      const form = (node as HTMLElement & { form: HTMLFormElement }).form;
      return [...new FormData(form).entries()];
    });
    assert.deepEqual(sent, [['text', '<p></p>\n']]);
  });
});

describe('hostile clipboards', () => {
  test('what says that it comes from an editor is cleaned as anything else', async () => {
    const desk = await Desk.open('ferry-times');
    await desk.empty();
    await desk.frame.$eval('[role=textbox]', (node) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData(
        'text/html',
        '<p data-pm-slice="0 0 []" onclick="top.hit=1">Words<typikon-opaque data-inline="true" data-markup="&lt;img src=x onerror=&quot;parent.hit=1&quot;&gt;"></typikon-opaque></p>',
      );
      node.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    });
    await eventually(
      () => desk.html(),
      (html) => html.includes('Words'),
      'nothing was pasted',
    );
    await new Promise((done) => setTimeout(done, 300));
    assert.equal(await desk.page.evaluate(() => (globalThis as { hit?: number }).hit), undefined);
    assert.doesNotMatch(await desk.frame.$eval('[role=textbox]', (node) => node.innerHTML), /onclick|onerror/);
  });
});
