import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { ElementHandle, Page } from 'puppeteer-core';
import type { Site } from '../packages/core/src/index';
import { axeFindings, chooseOptions, eventually, openPage, pressButton, useTypikon } from './support';

const used = useTypikon();

/** Drives the screens of content types and of who writes them. */
class Fields {
  private constructor(
    readonly page: Page,
    readonly mishaps: string[],
  ) {}

  static async open(path: string, ready: string): Promise<Fields> {
    const { page, mishaps } = await openPage(used.browser);
    page.on('dialog', (dialog) => void dialog.accept());
    await page.emulateMediaFeatures([
      { name: 'prefers-color-scheme', value: 'light' },
      { name: 'prefers-reduced-motion', value: 'reduce' },
    ]);
    await page.goto(`${used.typikon.address}${path}`);
    await page.waitForSelector(ready);
    return new Fields(page, mishaps);
  }

  press(within: string, words: string): Promise<void> {
    return pressButton(this.page, within, words);
  }
  choose(label: string, ...options: string[]): Promise<void> {
    return chooseOptions(this.page, label, ...options);
  }
  async fill(field: string, text: string): Promise<void> {
    await this.page.focus(field);
    await this.page.$eval(field, (node) => (node as HTMLInputElement).select());
    await this.page.keyboard.press('Backspace');
    await this.page.keyboard.type(text);
  }
  texts(selector: string): Promise<string[]> {
    return this.page.$$eval(selector, (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));
  }
  /** Saves the site and releases it, so that it holds. */
  async save(): Promise<void> {
    await this.press('ty-site-state', 'Save');
    await eventually(
      () => this.texts('ty-site-state .said'),
      ([said]) => said === 'As it holds' || said === 'Saved, not released',
      'it was not saved',
    );
    const revision = (await fetch(`${used.typikon.address}/api/v1/site/draft`)).headers.get('etag')!;
    const released = await fetch(`${used.typikon.address}/api/v1/shared/site/editions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'if-match': revision },
      body: JSON.stringify({ note: '' }),
    });
    // 409: roles and people alone hold without a release.
    assert.ok(released.status === 201 || released.status === 409, `the release: ${released.status}`);
  }
  async stored(): Promise<Site> {
    return (await (await fetch(`${used.typikon.address}/api/v1/site`)).json()) as Site;
  }
}

describe('content types', () => {
  test('a space typed before the screen has caught up with the word stays', async () => {
    const { page } = await Fields.open('/types/notice', 'ty-field-form #field-title');
    const after = await page.$eval('#field-title', async (node) => {
      const input = node as HTMLInputElement;
      for (const value of ['What', 'What ']) {
        input.value = value;
        input.dispatchEvent(new Event('input', { bubbles: true }));
      }
      await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 100)));
      return input.value;
    });
    assert.equal(after, 'What ');
  });
  test('one is made with two fields, help and a role that writes it; its author sees it so', async () => {
    const fields = await Fields.open('/types', 'tr.mat-mdc-row');
    const { page } = fields;
    assert.equal((await fields.texts('tr.mat-mdc-row')).length, 6);
    await fields.press('ty-title-line', 'New content type');
    await page.type('#type-label', 'Berth offer');
    await fields.choose('Published on', 'Notice page');
    await fields.press('mat-dialog-container', 'Make it');
    await page.waitForFunction(() => location.pathname === '/types/berth-offer');
    await fields.press('.fields', 'Add a field');
    await page.waitForSelector('#field-title');
    await fields.fill('#field-title', 'What is offered');
    await fields.fill('#field-help-short', 'Length, depth, and for how long.');
    await page.click('mat-checkbox:first-of-type input');
    await fields.press('.fields', 'Add a field');
    await page.waitForFunction(() => document.querySelectorAll('a.field').length === 2);
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('#field-title')?.value.startsWith('New field'));
    await fields.fill('#field-title', 'Conditions');
    await eventually(
      () => fields.texts('a.field .title'),
      (titles) => titles.join() === 'What is offered,Conditions',
      'the fields are not called so',
    );
    // Nobody writes it yet, and that is said where it is.
    await eventually(
      () => fields.texts('.settings .fault'),
      ([fault]) => fault?.includes('Nobody may write in “Conditions” of Berth offer') === true,
      'nobody says that nobody writes here',
    );
    await page.click('a[href="/writing"]');
    await page.waitForSelector('ty-assignment-grid');
    await fields.press('.list', 'Add a statement');
    await fields.choose('statement-who', 'Harbour masters');
    await fields.choose('statement-where', 'Berth offer');
    await fields.choose('statement-first', 'Notices desk');
    await fields.save();
    const site = await fields.stored();
    const type = site.types.find(({ id }) => id === 'berth-offer');
    assert.deepEqual(
      type?.fields.map(({ title, needed, help }) => [title, needed, help.short]),
      [
        ['What is offered', true, 'Length, depth, and for how long.'],
        ['Conditions', false, ''],
      ],
    );
    assert.deepEqual(site.assignments.at(-1), {
      roles: ['harbour-masters'],
      types: ['berth-offer'],
      fields: '*',
      profiles: ['notices-desk'],
    });
    // As one of them sees it, with what the rules say of themselves.
    await page.goto(`${used.typikon.address}/types/berth-offer`);
    await fields.choose('Seen by', 'Ivo Stead');
    await page.waitForSelector('ty-author-sight typikon-editor .te-frame');
    assert.match(
      (await fields.texts('ty-author-sight ty-field-entry'))[0]!,
      /What is offered needed .*Length, depth, and for how long\..*What you can do here Headings of levels 2, 3 and 4\..*tables/,
    );
    await fields.choose('Seen by', 'Kit Marsh');
    await eventually(
      () => fields.texts('ty-author-sight .nobody'),
      (said) => said.length === 2,
      'somebody else may write there',
    );
    assert.deepEqual(fields.mishaps, []);
  });

  test('fields are put in another order by the keys, each step is taken back, and a reload finds what was not saved', async () => {
    const fields = await Fields.open('/types/notice', 'a.field');
    const { page } = fields;
    const titles = () => fields.texts('a.field .title');
    const before = await titles();
    await page.focus('ol li:nth-child(2) a.field');
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowUp');
    await page.keyboard.up('Alt');
    await eventually(titles, (now) => now[0] === before[1], 'the field did not move');
    assert.match((await fields.texts('.ty-unseen[aria-live]'))[0]!, /is now number 1 of 4/);
    await page.reload();
    await page.waitForSelector('a.field');
    assert.deepEqual((await titles())[0], before[1]);
    assert.deepEqual(await fields.texts('ty-site-state .said'), ['Changed, not saved']);
    await page.focus('ol li:nth-child(1) a.field');
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.up('Alt');
    await eventually(titles, (now) => now.join() === before.join(), 'the field did not move back');
    await eventually(
      () => fields.texts('ty-site-state .said'),
      ([said]) => said === 'As it holds' || said === 'Saved, not released',
      'it is not as it is saved',
    );
    await fields.press('ty-site-state', 'Undo');
    await eventually(titles, (now) => now[0] === before[1], 'the step was not taken back');
    await fields.press('ty-site-state', 'Redo');
    await eventually(titles, (now) => now.join() === before.join(), 'the step was not made again');
  });

  test('where a field shows is drawn, with the field marked; what no page prints is told', async () => {
    const fields = await Fields.open('/types/story/teaser', 'ty-place-picture iframe');
    const { page } = fields;
    assert.deepEqual(await fields.texts('ty-field-form .place strong'), ['Card in a list']);
    const marked = await page.$eval('ty-place-picture iframe', (node) => node.srcdoc);
    assert.match(marked, /outline:6px dashed[^>]*>.*This is what stands in it/s);
    await page.goto(`${used.typikon.address}/types/story/correction`);
    await eventually(
      () => fields.texts('ty-field-form .places .amiss'),
      ([said]) => said?.includes('No template prints it') === true,
      'it is not told',
    );
    assert.equal(await page.$('ty-place-picture'), null);
    assert.deepEqual(fields.mishaps, []);
  });

  test('more help opens in place, a text that is too long is told, and what was typed stays', async () => {
    const fields = await Fields.open('/types/story/teaser', 'ty-author-sight typikon-editor .te-frame');
    const { page } = fields;
    await page.evaluate(() => document.querySelector<HTMLElement>('[data-field=teaser] [aria-expanded]')!.click());
    await eventually(
      () => fields.texts('[data-field=teaser] .long'),
      ([long]) => long?.includes('Say what happens, where and when.') === true,
      'no more help came',
    );
    const handle = (await page.waitForSelector('[data-field=teaser] .te-frame'))!;
    const frame = await (handle as ElementHandle<HTMLIFrameElement>).contentFrame();
    await frame.waitForSelector('[role=textbox]');
    await frame.click('[role=textbox]');
    await page.keyboard.type('Old Tansy is back. '.repeat(10));
    await eventually(
      () => fields.texts('[data-field=teaser] .mistake'),
      ([said]) => /^This is \d+ letters too long\.$/.test(said ?? ''),
      'nobody says that it is too long',
    );
    assert.match(await frame.$eval('[role=textbox]', (node) => node.textContent ?? ''), /^Old Tansy is back/);
  });

  test('what somebody else saved meanwhile is offered beside one’s own', async () => {
    const fields = await Fields.open('/types/tender/body', '#field-title');
    await fields.fill('#field-help-short', 'With its tables.');
    const theirs = await fields.stored();
    theirs.people[0]!.label = 'Isa Wren, away';
    const { status } = await fetch(`${used.typikon.address}/api/v1/site`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'if-match': '*' },
      body: JSON.stringify(theirs),
    });
    assert.equal(status, 200);
    await fields.press('ty-site-state', 'Save');
    await eventually(
      () => fields.texts('ty-site-state .said'),
      ([said]) => said?.includes('Somebody else has changed the site') === true,
      'nobody was told',
    );
    await fields.press('ty-site-state', 'Keep mine');
    await fields.save();
    assert.equal((await fields.stored()).types.find(({ id }) => id === 'tender')?.fields[1]?.help.short, 'With its tables.');
  });
});

describe('who writes with what', () => {
  test('the probe names the statement that won and those that lost; faults stand where they are', async () => {
    const fields = await Fields.open('/writing', 'ty-assignment-grid tr.mat-mdc-row');
    await fields.choose('Who', 'Bea Lund');
    await fields.choose('Content type', 'News story');
    await fields.choose('Field', 'Body');
    await eventually(
      () => fields.texts('ty-assignment-probe p'),
      ([said]) =>
        said?.startsWith('Story desk. Statement 2 is the first that fits. Statement 9 would fit as well and comes later.') === true,
      'the answer is another one',
    );
    assert.deepEqual(await fields.texts('li.won .place'), ['2']);
    assert.deepEqual(await fields.texts('li.beaten .place'), ['9']);
    await eventually(
      () => fields.texts('.list .fault'),
      (faults) =>
        faults.some((fault) => fault.includes('Statement 8 never wins')) &&
        faults.some((fault) => /Harbour masters take what .* figure/.test(fault)),
      'the faults are not marked',
    );
    // Moved up, the statement wins.
    await fields.page.focus('ol li:nth-child(8) .say');
    for (let n = 0; n < 5; n++) {
      await fields.page.keyboard.down('Alt');
      await fields.page.keyboard.press('ArrowUp');
      await fields.page.keyboard.up('Alt');
      await eventually(
        () => fields.page.evaluate(() => (document.activeElement as HTMLElement).innerText.trim().split(/\s/)[0]!),
        (place) => place === String(7 - n),
        'the focus did not follow',
      );
    }
    await eventually(
      () => fields.texts('.list .fault'),
      (faults) => !faults.some((fault) => fault.includes('never wins')),
      'it still never wins',
    );
    assert.deepEqual(fields.mishaps, []);
  });

  test('of a stored document it is told what its text was last saved with, and the desk leads there', async () => {
    const fields = await Fields.open('/profiles', 'tbody tr');
    await fields.page.evaluate(() => localStorage.setItem('typikon.acting', 'tom-hallow'));
    await fields.page.goto(`${used.typikon.address}/write/ferry-times`);
    await fields.page.waitForSelector('[data-field=body] .moved a');
    await fields.page.click('[data-field=body] .moved a');
    await eventually(
      () => fields.texts('ty-assignment-probe p'),
      ([said]) => /The text of “Ferry times” was last saved with Notices desk and keeps it/.test(said ?? ''),
      'it is not told why',
    );
    // Another one is found by its words.
    await fields.fill('ty-assignment-probe input', 'old tansy back');
    await eventually(
      () => fields.texts('mat-option'),
      (titles) => titles.includes('Old Tansy back in service'),
      'it is not found',
    );
    await fields.page.$$eval('mat-option', (nodes) =>
      (nodes.find((node) => (node as HTMLElement).innerText.trim() === 'Old Tansy back in service') as HTMLElement).click(),
    );
    await eventually(
      () => fields.texts('ty-assignment-probe p'),
      ([said]) => /“Old Tansy back in service” was last saved with Story desk/.test(said ?? ''),
      'the other document is not told of',
    );
    assert.deepEqual(fields.mishaps, []);
  });

  test('two profiles are compared, each line with its proof', async () => {
    const fields = await Fields.open('/compare?from=story-desk&to=notices-desk', '.list li');
    const sentences = await fields.texts('.list .sentence');
    assert.ok(sentences.some((sentence) => sentence.startsWith('<table>: Story desk takes the tag away')));
    await fields.press('header', 'Notices desk keeps');
    await eventually(
      () => fields.texts('.list .sentence'),
      (now) => now.length > 0 && now.length < sentences.length,
      'all lines are shown still',
    );
    const [witness, one, other] = await fields.texts('.proof pre');
    assert.ok(witness?.includes('<table>') && !one?.includes('<table>') && other?.includes('<table>'));
    // Documents are counted beside each line, and what stands in none can be left out.
    const counted = await eventually(
      () => fields.texts('.list header [role=status]'),
      ([said]) => said === '160 documents counted',
      'the documents are not counted',
    );
    assert.equal(counted.length, 1);
    const stored = await fields.texts('.list li');
    assert.ok(stored.some((line) => /^<table>.* in \d+ stored documents$/.test(line)));
    await fields.press('header', 'All');
    const all = await fields.texts('.list li');
    assert.ok(all.some((line) => line.endsWith('in no stored document')));
    await fields.page.click('.list header mat-checkbox input');
    await eventually(
      () => fields.texts('.list li'),
      (lines) => lines.length > 0 && lines.length < all.length && !lines.some((line) => line.endsWith('in no stored document')),
      'what stands in no document is still told',
    );
    await fields.choose('The other profile', 'Story desk');
    await eventually(
      () => fields.texts('.empty'),
      ([said]) => said?.startsWith('This is one profile twice.') === true,
      'a profile differs from itself',
    );
    assert.deepEqual(fields.mishaps, []);
  });

  test('a profile is compared with what it was', async () => {
    const address = `${used.typikon.address}/api/v1/profiles/diary`;
    const { document, revision } = (await (await fetch(address)).json()) as { document: Record<string, unknown>; revision: number };
    const markup = document['markup'] as { elements?: object };
    const saved = await fetch(`${address}/draft`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'if-match': `"${revision}"` },
      body: JSON.stringify({ ...document, markup: { ...markup, elements: { ...markup.elements, strong: { outcome: 'unwrap' } } } }),
    });
    assert.equal(saved.status, 200);
    const fields = await Fields.open('/compare?from=diary&to=diary', '.empty');
    await eventually(
      async () => {
        await fields.page.click('mat-select[aria-label="One profile: which state of it"]');
        await fields.page.waitForSelector('mat-option');
        const options = await fields.texts('mat-option');
        if (options.length === 1) await fields.page.keyboard.press('Escape');
        return options;
      },
      (options) => options.length === 2 && options[1]!.startsWith(`revision ${revision}, `),
      'what it was is not offered',
    );
    await fields.page.$$eval('mat-option', (nodes) => (nodes[1] as HTMLElement).click());
    const [line] = await eventually(
      () => fields.texts('.list li'),
      (lines) => lines.length > 0 && / stored document/.test(lines[0]!),
      'it does not differ from what it was',
    );
    assert.match(line!, new RegExp(`^<strong>: Diary as of revision ${revision} leaves it as it is; Diary takes the tag away`));
    assert.match(fields.page.url(), new RegExp(`fromRevision=${revision}`));
    assert.deepEqual(fields.mishaps, []);
  });
});

describe('the site as a file, and types that go', () => {
  /** Opens the dialog of files and gives it one. */
  async function openFile(fields: Fields, name: string, text: string): Promise<void> {
    if ((await fields.page.$('ty-site-file-dialog')) === null) await fields.press('ty-title-line', 'File');
    const field = await fields.page.waitForSelector('ty-site-file-dialog input[type=file]');
    await field!.evaluate(
      (node, title, content) => {
        const files = new DataTransfer();
        files.items.add(new File([content], title, { type: 'application/json' }));
        node.files = files.files;
        node.dispatchEvent(new Event('change'));
      },
      name,
      text,
    );
  }

  test('a file says what it would change before it does; one with mistakes changes nothing; taking over can be undone', async () => {
    const fields = await Fields.open('/types', 'tr.mat-mdc-row');
    const before = await fields.stored();
    await openFile(fields, 'broken.json', '{"format": ');
    await eventually(
      () => fields.texts('ty-site-file-dialog [role=alert]'),
      ([said]) => said?.startsWith('broken.json is not JSON') === true,
      'a broken file is taken',
    );
    await openFile(fields, 'wrong.json', JSON.stringify({ ...before, types: [{ id: 'note' }] }));
    await eventually(
      () => fields.texts('ty-site-file-dialog [role=alert]'),
      (said) => said.includes('wrong.json, /types/0/label is missing.'),
      'what is wrong is not told',
    );
    const [story, ...others] = before.types;
    const changed = { ...before, types: [{ ...story, label: 'Harbour story' }, ...others], people: before.people.slice(1) };
    await openFile(fields, 'other.json', JSON.stringify(changed));
    const lines = await eventually(
      () => fields.texts('ty-site-file-dialog li'),
      (told) => told.length === 2,
      'what would change is not told',
    );
    assert.match(lines[0]!, /“Harbour story”: its name, “News story” before, becomes “Harbour story”\.$/);
    assert.match(lines[1]!, /goes\.$/);
    assert.deepEqual(await axeFindings(fields.page), []);
    await fields.press('mat-dialog-actions', 'Take the file over');
    await eventually(
      () => fields.texts('tr.mat-mdc-row .name'),
      ([name]) => name === 'Harbour story',
      'the file is not taken over',
    );
    assert.deepEqual(await fields.stored(), before);
    await fields.press('ty-site-state', 'Undo');
    await eventually(
      () => fields.texts('ty-site-state .said'),
      ([said]) => said === 'As it holds' || said === 'Saved, not released',
      'it cannot be undone',
    );
    assert.deepEqual(fields.mishaps, []);
  });

  test('a type goes once its documents are of another, which is asked and said', async () => {
    const fields = await Fields.open('/types', 'tr.mat-mdc-row');
    const of = async (type: string): Promise<number> =>
      ((await (await fetch(`${used.typikon.address}/api/v1/types/${type}/use`)).json()) as { documents: number }).documents;
    const [tenders, stories] = [await of('tender'), await of('story')];
    assert.ok(tenders > 1);
    await fields.page.$$eval('tr.mat-mdc-row', (rows) => {
      const row = rows.find((one) => (one as HTMLElement).innerText.startsWith('Tender'))!;
      row.querySelector('button')!.click();
    });
    await fields.page.waitForSelector('.mat-mdc-menu-item');
    await fields.press('.mat-mdc-menu-panel', 'Take it away');
    await eventually(
      () => fields.texts('ty-give-dialog h2'),
      ([said]) => said === `There are ${tenders} documents of “Tender”`,
      'its documents are not told',
    );
    await fields.choose('give-to', 'News story');
    await eventually(
      () => fields.texts('ty-give-dialog tbody tr'),
      (rows) => rows.some((row) => /^\w.* in \d+ documents .*Body/.test(row)),
      'it is not said where what stands in its fields goes',
    );
    assert.deepEqual(await axeFindings(fields.page), []);
    await fields.press('mat-dialog-actions', `Change ${tenders} documents`);
    await eventually(
      () => fields.texts('tr.mat-mdc-row .name'),
      (names) => names.length > 0 && !names.includes('Tender'),
      'the type is still there',
    );
    await fields.save();
    assert.deepEqual([await of('tender'), await of('story')], [0, stories + tenders]);
    assert.equal(
      (await fields.stored()).types.some(({ id }) => id === 'tender'),
      false,
    );
    assert.deepEqual(fields.mishaps, []);
  });
});

describe('axe finds nothing in the screens of fields, light or dark', () => {
  for (const [path, ready] of [
    ['/types', 'tr.mat-mdc-row'],
    ['/types/story/body', 'ty-author-sight typikon-editor .te-frame'],
    ['/writing', 'ty-assignment-grid tr.mat-mdc-row'],
    ['/compare?from=story-desk&to=tender-desk', '.list li'],
  ] as const)
    test(path, async () => {
      const { page } = await Fields.open(path, ready);
      assert.deepEqual(await axeFindings(page), []);
    });
});
