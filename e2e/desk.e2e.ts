import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { ElementHandle, Page } from 'puppeteer-core';
import { axeFindings, chooseOptions, eventually, openPage, pressButton, useTypikon, untilGone } from './support';

const used = useTypikon();

interface Stored {
  revision: number;
  title: string;
  changedBy: string;
  fields: { key: string; value: string; profile: string | null }[];
}

/** Drives the list of documents and the desk as an author would. */
class Desk {
  private constructor(
    readonly page: Page,
    readonly mishaps: string[],
  ) {}

  /** @param as the id of the person who acts */
  static async open(path: string, ready: string, as = 'isa-wren'): Promise<Desk> {
    const { page, mishaps } = await openPage(used.browser, { isApart: true });
    page.on('dialog', (dialog) => void dialog.accept());
    await page.emulateMediaFeatures([
      { name: 'prefers-color-scheme', value: 'light' },
      { name: 'prefers-reduced-motion', value: 'reduce' },
    ]);
    await page.evaluateOnNewDocument((id) => {
      // Frames of the application are sandboxed and have no storage.
      if (window.top === window && localStorage.getItem('typikon.acting') === null) localStorage.setItem('typikon.acting', id);
    }, as);
    const desk = new Desk(page, mishaps);
    await desk.go(path, ready);
    return desk;
  }
  async go(path: string, ready: string): Promise<void> {
    await this.page.goto(`${used.typikon.address}${path}`);
    await this.page.waitForSelector(ready);
  }
  press(within: string, words: string): Promise<void> {
    return pressButton(this.page, within, words);
  }
  choose(label: string, ...options: string[]): Promise<void> {
    return chooseOptions(this.page, label, ...options);
  }
  texts(selector: string): Promise<string[]> {
    return this.page.$$eval(selector, (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));
  }
  /** Waits until the texts of some elements are as they should be. */
  expect(selector: string, isRight: (texts: string[]) => boolean, what: string): Promise<string[]> {
    return eventually(() => this.texts(selector), isRight, what);
  }
  /** Types into the editor of a field, at its end. */
  async type(field: string, words: string): Promise<void> {
    const handle = (await this.page.waitForSelector(`[data-field=${field}] .te-frame`)) as ElementHandle<HTMLIFrameElement>;
    const frame = await handle.contentFrame();
    await frame.waitForSelector('[role=textbox]');
    await frame.focus('[role=textbox]');
    await this.page.keyboard.down('Control');
    await this.page.keyboard.press('End');
    await this.page.keyboard.up('Control');
    await this.page.keyboard.type(words);
  }
  async store(): Promise<void> {
    await this.press('ty-title-line', 'Save');
    await this.expect('.state', ([said]) => said?.startsWith('Saved') === true, 'it was not stored');
  }
  async stored(id: string): Promise<Stored> {
    return (await (await fetch(`${used.typikon.address}/api/v1/documents/${id}`)).json()) as Stored;
  }
}

const valueOf = ({ fields }: Stored, key: string) => fields.find((field) => field.key === key);

describe('documents', () => {
  test('are found by words, type, person and profile, and the address says so', async () => {
    const desk = await Desk.open('/write', 'tr.mat-mdc-row');
    const rows = () => desk.page.$$eval('tr.mat-mdc-row .name', (links) => links.map((link) => link.getAttribute('href')!));
    await desk.expect('.above [role=status]', ([said]) => said === '1–50 of 160', 'not all are counted');
    assert.equal((await rows()).length, 50);
    const first = await rows();
    await desk.press('.pages', 'Next page');
    await desk.expect('.above [role=status]', ([said]) => said === '51–100 of 160', 'there is no second page');
    assert.ok((await rows()).every((address) => !first.includes(address)));
    await desk.press('.pages', 'Earlier page');
    await desk.expect('.above [role=status]', ([said]) => said === '1–50 of 160', 'there is no way back');
    await desk.page.type('.words input', 'shipwr');
    await desk.expect('tr.mat-mdc-row .name', (titles) => titles.join() === 'Old Tansy back in service', 'words do not find it');
    assert.match(desk.page.url(), /words=shipwr/);
    await desk.go('/write?type=tender&by=una-pell&sort=title', 'tr.mat-mdc-row');
    const titles = await desk.expect('tr.mat-mdc-row .name', (found) => found.length > 3, 'there are no tenders');
    assert.deepEqual(
      titles,
      [...titles].sort((a, b) => a.localeCompare(b)),
    );
    await desk.choose('Written with', 'Diary');
    await desk.expect('.empty', ([said]) => said?.startsWith('No document has all of this') === true, 'something has all of this');
    await desk.press('.empty', 'Look for anything');
    await desk.expect('.above [role=status]', ([said]) => said?.endsWith('of 160') === true, 'the filters are not gone');
    assert.deepEqual(desk.mishaps, []);
  });

  test('one is made, written in two fields, left and found again, stored, and shown to readers', async () => {
    const desk = await Desk.open('/write', 'tr.mat-mdc-row', 'tom-hallow');
    await eventually(
      () => desk.page.$eval('ty-title-line button', (node) => node.disabled),
      (isDisabled) => !isDisabled,
      'nothing can be made',
    );
    await desk.press('ty-title-line', 'New document');
    await desk.page.waitForSelector('.mat-mdc-menu-item');
    // He writes stories and harbour pages and ferry notes, and nothing else.
    assert.deepEqual((await desk.texts('.mat-mdc-menu-item')).sort(), ['Ferry note', 'Harbour page', 'News story']);
    await desk.page.$$eval('.mat-mdc-menu-item', (nodes) =>
      (nodes.find((node) => (node as HTMLElement).innerText.trim() === 'News story') as HTMLElement).click(),
    );
    await desk.page.waitForSelector('#new-document-title');
    await desk.press('mat-dialog-container', 'Make it');
    await desk.expect('mat-error', ([said]) => said?.startsWith('It needs one') === true, 'an empty title is taken');
    await desk.page.type('#new-document-title', 'Seals at the fuel berth');
    await desk.press('mat-dialog-container', 'Make it');
    await desk.page.waitForFunction(() => location.pathname === '/write/seals-at-the-fuel-berth');
    await desk.expect('aside li', (needed) => needed.join() === 'Body', 'it is not said what is needed');
    await desk.page.type('[data-field=headline] input', ', again');
    await desk.type('body', 'Three of them, asleep.');
    await desk.expect('aside li', (needed) => needed.length === 0, 'it is still said to be missing');
    // Leaving loses nothing: plain fields come back, the editor offers what was typed.
    await desk.page.waitForFunction(() => localStorage.getItem('typikon-text:seals-at-the-fuel-berth') !== null);
    await desk.go('/write/seals-at-the-fuel-berth', '[data-field=body] .te-draft');
    assert.equal(await desk.page.$eval('[data-field=headline] input', (node) => node.value), 'Seals at the fuel berth, again');
    await desk.press('[data-field=body] .te-draft', 'Take it back');
    await desk.expect('aside li', (needed) => needed.length === 0, 'the text did not come back');
    await desk.store();
    const stored = await desk.stored('seals-at-the-fuel-berth');
    assert.equal(stored.changedBy, 'tom-hallow');
    assert.equal(valueOf(stored, 'body')?.value.trimEnd(), '<p>Three of them, asleep.</p>');
    assert.equal(valueOf(stored, 'body')?.profile, 'story-desk');
    const page = await (await fetch(`${used.typikon.siteAddress}/documents/seals-at-the-fuel-berth`)).text();
    assert.match(page, /<h1>Seals at the fuel berth, again<\/h1>\s*<p>Three of them, asleep\.<\/p>/);
    assert.deepEqual(desk.mishaps, []);
  });

  test('help stands beside each field, where it shows, and who may not write sees the text alone', async () => {
    const desk = await Desk.open('/write/old-tansy-back', '[data-field=body] .te-frame');
    assert.match((await desk.texts('[data-field=teaser] .can'))[0]!, /Shows only on Card in a list, not on the page\./);
    assert.match((await desk.texts('[data-field=correction] .can'))[0]!, /It shows nowhere: no page prints it\./);
    await desk.page.click('ty-name-badge button');
    await desk.page.waitForSelector('.mat-mdc-menu-item');
    await desk.page.$$eval('.mat-mdc-menu-item', (nodes) =>
      (nodes.find((node) => (node as HTMLElement).innerText.startsWith('Una Pell')) as HTMLElement).click(),
    );
    await desk.expect('ty-name-badge .name', ([name]) => name === 'Una Pell', 'nobody else acts');
    await desk.expect('[data-field=body] .nobody', ([said]) => said?.includes('Una Pell may not write here') === true, 'she may write');
    assert.match((await desk.texts('[data-field=body] .text'))[0]!, /The shipwrights found more rot/);
    assert.equal(await desk.page.$('[data-field=body] typikon-editor'), null);
  });
});

describe('another profile', () => {
  const LABEL = 'The profile with which Body is written';

  test('what it takes is shown before anything happens; staying changes nothing, moving can be put back and taken back', async () => {
    const desk = await Desk.open('/write/ferry-times', '[data-field=body] .te-frame', 'tom-hallow');
    const before = await desk.stored('ferry-times');
    await desk.expect(
      '[data-field=body] .moved',
      ([said]) => said?.includes('stored with Notices desk') === true && said.includes('Story desk is what is given here now'),
      'it is not said that the profile is another one',
    );
    await desk.choose(LABEL, 'Story desk, usual here');
    await desk.page.waitForSelector('ty-move-dialog iframe');
    assert.match((await desk.texts('ty-move-dialog h2'))[0]!, /Body: from Notices desk to Story desk/);
    assert.ok((await desk.texts('ty-move-dialog li')).some((text) => text.includes('table')));
    assert.deepEqual(await axeFindings(desk.page), []);
    await desk.press('ty-move-dialog', 'Stay with Notices desk');
    await untilGone(desk.page, 'ty-move-dialog');
    await desk.expect('[data-field=body] .chooser mat-select', ([said]) => said?.startsWith('Notices desk') === true, 'it was moved');
    await desk.choose(LABEL, 'Story desk, usual here');
    await desk.press('ty-move-dialog', 'Move it');
    await desk.expect(
      '[data-field=body] .done',
      ([said]) => said?.startsWith('This is moved from Notices desk') === true,
      'it was not moved',
    );
    await desk.press('[data-field=body] .done', 'Put it back');
    await desk.expect(
      '[data-field=body] .chooser mat-select',
      ([said]) => said?.startsWith('Notices desk') === true,
      'it was not put back',
    );
    assert.deepEqual(await desk.stored('ferry-times'), before);
    await desk.choose(LABEL, 'Story desk, usual here');
    await desk.press('ty-move-dialog', 'Move it');
    await desk.store();
    const moved = await desk.stored('ferry-times');
    assert.equal(valueOf(moved, 'body')?.profile, 'story-desk');
    assert.doesNotMatch(valueOf(moved, 'body')!.value, /<table/);
    await desk.press('ty-title-line', 'As it was before');
    await desk.expect(
      '[data-field=body] .chooser mat-select',
      ([said]) => said?.startsWith('Notices desk') === true,
      'it was not taken back',
    );
    const back = await desk.stored('ferry-times');
    assert.equal(valueOf(back, 'body')?.profile, 'notices-desk');
    assert.match(valueOf(back, 'body')!.value, /<table/);
    assert.deepEqual(desk.mishaps, []);
  });

  test('what has no room can keep its words', async () => {
    // Where the other profile would take tables with their words.
    const address = `${used.typikon.address}/api/v1/profiles/story-desk`;
    const { document, revision } = (await (await fetch(address)).json()) as { document: Record<string, unknown>; revision: number };
    const markup = document['markup'] as { elements?: object };
    const saved = await fetch(`${address}/draft`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'if-match': `"${revision}"` },
      body: JSON.stringify({ ...document, markup: { ...markup, elements: { ...markup.elements, table: { outcome: 'drop' } } } }),
    });
    assert.equal(saved.status, 200);
    // Authors write with what was released.
    const released = await fetch(`${address}/editions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'if-match': `"${revision + 1}"` },
      body: JSON.stringify({ note: 'Tables stand in tenders.' }),
    });
    assert.equal(released.status, 201);
    const desk = await Desk.open('/write/ferry-times', '[data-field=body] .te-frame', 'tom-hallow');
    const before = valueOf(await desk.stored('ferry-times'), 'body')!.value;
    const cell = /<t[dh][^>]*>([A-Z][a-z]{3,})/.exec(before)?.[1];
    assert.ok(cell !== undefined);
    await desk.choose(LABEL, 'Story desk, usual here');
    await desk.expect('ty-move-dialog .sum', ([said]) => /words? goe?s?:/.test(said ?? ''), 'the words that go are not told');
    await desk.press('ty-move-dialog', 'Move what fits, keep the words');
    await desk.store();
    const moved = valueOf(await desk.stored('ferry-times'), 'body')!;
    assert.equal(moved.profile, 'story-desk');
    assert.doesNotMatch(moved.value, /<table/);
    assert.match(moved.value, new RegExp(cell));
    assert.deepEqual(desk.mishaps, []);
  });

  test('what somebody else stored meanwhile is offered; nothing of one’s own is lost', async () => {
    const desk = await Desk.open('/write/notice-018', '[data-field=body] .te-frame', 'ned-orr');
    const { revision } = await desk.stored('notice-018');
    const theirs = await fetch(`${used.typikon.address}/api/v1/documents/notice-018`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'if-match': `"${revision}"` },
      body: JSON.stringify({ fields: { title: { value: 'Theirs' } } }),
    });
    assert.equal(theirs.status, 200);
    await desk.page.$eval('[data-field=title] input', (node) => node.select());
    await desk.page.type('[data-field=title] input', 'Mine');
    await desk.press('ty-title-line', 'Save');
    await desk.expect(
      '.ty-notice.bad',
      ([said]) => said?.includes('Somebody else has changed this document') === true,
      'it was written over',
    );
    assert.equal((await desk.stored('notice-018')).title, 'Theirs');
    await desk.press('.ty-notice.bad', 'Save mine over theirs');
    await desk.expect('.state', ([said]) => said?.startsWith('Saved') === true, 'it was not stored');
    assert.equal((await desk.stored('notice-018')).title, 'Mine');
  });

  test('a value that cannot stand where it is, is told where it is, and not sent', async () => {
    const desk = await Desk.open('/write/notice-016', '[data-field=body] .te-frame', 'ned-orr');
    const { revision } = await desk.stored('notice-016');
    await desk.page.$eval('[data-field=title] input', (node) => node.select());
    await desk.page.keyboard.press('Backspace');
    await desk.press('ty-title-line', 'Save');
    await desk.expect('[data-field=title] .mistake', ([said]) => said === 'This is needed, and it is empty.', 'nothing is told');
    assert.equal((await desk.stored('notice-016')).revision, revision);
  });
});

describe('axe finds nothing on the desk, light or dark', () => {
  for (const [path, ready] of [
    ['/write', 'tr.mat-mdc-row'],
    ['/write?words=quetzalcoatlus', '.empty button'],
    ['/write/ferry-today', '[data-field=text] .te-frame'],
    ['/write/nothing', '.missing'],
  ] as const)
    test(path, async () => {
      const desk = await Desk.open(path, ready);
      assert.deepEqual(await axeFindings(desk.page), []);
    });
});
