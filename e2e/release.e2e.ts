import assert from 'node:assert/strict';
import { before, describe, test } from 'node:test';
import type { Page } from 'puppeteer-core';
import { axeFindings, chooseOptions, eventually, openPage, pressButton, untilGone, useTypikon } from './support';

interface Profile {
  document: { markup: { elements: Record<string, object> } };
  revision: number;
}

describe('a release', () => {
  const used = useTypikon();
  let page: Page;
  let mishaps: string[];
  const api = async <Body>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Body> => {
    const answer = await fetch(`${used.typikon.address}/api/v1${path}`, {
      method,
      headers: { 'content-type': 'application/json', ...headers },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    assert.ok(answer.ok, `${method} ${path}: ${answer.status}`);
    return (await answer.json()) as Body;
  };
  const texts = (selector: string): Promise<string[]> =>
    page.$$eval(selector, (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));
  const looked = (): Promise<boolean> =>
    eventually(
      () => page.$eval('ty-release-page .go', (button) => !(button as HTMLButtonElement).disabled).catch(() => false),
      (isReady) => isReady,
      'not everything was looked at',
    );

  before(async () => {
    ({ page, mishaps } = await openPage(used.browser));
    // Notices are made stricter: tables go, with what stands in them.
    const { document, revision } = await api<Profile>('GET', '/profiles/notices-desk');
    const elements = { ...document.markup.elements, table: { outcome: 'drop' } };
    const stricter = { ...document, markup: { ...document.markup, elements } };
    await api('PUT', '/profiles/notices-desk/draft', stricter, { 'if-match': `"${revision}"` });
  });

  test('tells which drafts are ahead of what authors write with', async () => {
    await page.goto(`${used.typikon.address}/profiles`);
    await page.waitForSelector('tbody tr');
    const rows = await texts('tbody tr');
    assert.ok(rows.find((row) => row.includes('Notices desk'))!.includes('the draft is ahead'));
    assert.ok(rows.find((row) => row.startsWith('Diary'))!.includes('as the draft'));
    assert.deepEqual(await axeFindings(page), []);
  });

  test('shows beforehand what changed, whom it touches and what each text loses, by both', async () => {
    await page.goto(`${used.typikon.address}/profiles/notices-desk`);
    await page.waitForSelector('ty-title-line a.edition');
    assert.deepEqual(await texts('ty-title-line a.edition'), ['Release…']);
    await page.click('ty-title-line a.edition');
    await page.waitForSelector('ty-release-page tbody tr');
    await looked();
    assert.match((await texts('ty-release-page .changes'))[0]!, /<table>: edition 1 leaves it as it is; the draft takes it away\./);
    const [all, touched, losing] = (await texts('.strip dd')).map(Number) as [number, number, number];
    assert.ok(all >= touched && touched >= losing && losing > 0, `${all} ${touched} ${losing}`);
    assert.match((await texts('ty-release-page tbody tr'))[0]!, /tables went, with their content/);
    await page.waitForSelector('ty-text-by-both iframe');
    const shown = async (at: number): Promise<string> => {
      const frame = await (await page.$$('ty-text-by-both iframe'))[at]!.contentFrame();
      return eventually(
        () => frame.$eval('[data-mount]', (node) => (node as HTMLElement).innerText).catch(() => ''),
        (words) => words !== '',
        'the text is not shown',
      );
    };
    const [lost] = (await texts('ty-text-by-both .bad em')) as [string];
    const first = lost.split(' ')[0]!;
    assert.ok((await shown(0)).includes(first), 'what goes is not in the text as it is');
    assert.ok(!(await shown(1)).includes(lost), 'what goes is still in the text as it would be');
    assert.deepEqual(await axeFindings(page), []);
  });

  /** Plans a release for a time to come, sees it told on its page, and calls it off. */
  const planAndCallOff = async (view: string): Promise<void> => {
    await pressButton(page, view, 'Release…');
    await page.waitForSelector('ty-release-dialog #release-note');
    for (const field of await page.$$('ty-release-dialog input[id^=release-reason]')) await field.type('Tables stand in tenders.');
    await page.click('ty-release-dialog input[type=radio][value=later]');
    await page.waitForSelector('#release-at');
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-release-dialog', 'Plan it');
    await eventually(
      () => texts('ty-scheduled-strip p'),
      ([told]) => /^The draft as it was saved last is released on .* 09:00, planned by/.test(told ?? ''),
      'the plan is not told',
    );
    await pressButton(page, 'ty-scheduled-strip', 'Call it off');
    await untilGone(page, 'ty-scheduled-strip .ty-notice');
  };

  test('the least that texts need is shown before it is allowed; a release is planned and called off', async () => {
    const { revision } = await api<Profile>('GET', '/profiles/notices-desk');
    await pressButton(page, 'ty-release-page', 'Allow it…');
    await page.waitForSelector('ty-allow li');
    assert.deepEqual(await texts('ty-allow li'), ['<table>']);
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-allow', 'Leave it');
    await untilGone(page, 'ty-allow');
    assert.equal((await api<Profile>('GET', '/profiles/notices-desk')).revision, revision);
    await planAndCallOff('ty-release-page');
    const [planned] = await api<{ state: string }[]>('GET', '/profiles/notices-desk/scheduled');
    assert.equal(planned?.state, 'off');
  });

  test('the texts of a group are converted: tried first, run in the background, and put back to the letter', async () => {
    const stored = async () =>
      (await api<{ fields: { key: string; value: string }[] }>('GET', '/documents/notice-016')).fields.find(({ key }) => key === 'body')!
        .value;
    const before = await stored();
    await pressButton(page, 'ty-release-page', 'Convert…');
    await page.waitForSelector('ty-convert #convert-to');
    assert.equal(await page.$eval('#convert-element', (input) => (input as HTMLInputElement).value), 'table');
    await page.type('#convert-to', 'script');
    await eventually(
      () => texts('ty-convert .bad'),
      ([mistake]) => mistake === '“Becomes” must be an element that can hold content.',
      'a mistake is not told',
    );
    await chooseOptions(page, 'convert-kind', 'Take the tags off');
    await page.waitForSelector('ty-convert ol del');
    assert.match((await texts('ty-convert .sentence'))[0]!, /<table> goes, what it holds stays, wherever it fits\./);
    assert.deepEqual(await axeFindings(page), []);
    assert.equal(await stored(), before);
    await pressButton(page, 'ty-convert', 'Convert ');
    await untilGone(page, 'ty-convert');
    await eventually(
      () => texts('ty-conversion-strip'),
      ([strip]) => /was done in \d+ text/.test(strip ?? ''),
      'the conversion did not come to its end',
    );
    assert.ok(!(await stored()).includes('<table'), 'the text is as it was');
    await pressButton(page, 'ty-conversion-strip', 'Undo it');
    await eventually(
      () => texts('ty-conversion-strip'),
      ([strip]) => /was undone in \d+ text/.test(strip ?? ''),
      'the conversion was not undone',
    );
    assert.equal(await stored(), before);
    await looked();
  });

  test('an author is asked with both renderings, and what they say stands on the page', async () => {
    await pressButton(page, 'ty-release-page', 'Ask who wrote…');
    await page.waitForSelector('#ask-note');
    await page.type('#ask-note', 'May the tables go?');
    await pressButton(page, 'ty-ask', 'Ask');
    await untilGone(page, 'ty-ask');
    await page.waitForSelector('ty-asked-list li');
    const { page: desk } = await openPage(used.browser, { isApart: true });
    await desk.evaluateOnNewDocument(() => {
      if (window.top === window) localStorage.setItem('typikon.acting', 'ned-orr');
    });
    await desk.goto(`${used.typikon.address}/write`);
    await desk.waitForSelector('.asked a');
    assert.match(await desk.$eval('.asked', (node) => (node as HTMLElement).innerText), /Ned Orr is asked about .*May the tables go\?/s);
    assert.deepEqual(await axeFindings(desk), []);
    await desk.goto(`${used.typikon.address}/write/notice-016`);
    await desk.waitForSelector('ty-question-notice iframe');
    const shown = async (at: number): Promise<number> => {
      const frame = await (await desk.$$('ty-question-notice iframe'))[at]!.contentFrame();
      await frame.waitForSelector('[data-mount]');
      return frame.$$eval('[data-mount] table', (nodes) => nodes.length);
    };
    assert.deepEqual([await shown(0), await shown(1)], [1, 0]);
    assert.deepEqual(await axeFindings(desk), []);
    await desk.type('ty-question-notice input', 'Charts are corrected by it.');
    await pressButton(desk, 'ty-question-notice', 'It must stay');
    await untilGone(desk, 'ty-question-notice');
    await page.reload();
    await page.waitForSelector('ty-asked-list li');
    await eventually(
      () => texts('ty-asked-list li'),
      (all) => all.some((one) => /Ned Orr: it must stay as it is “Charts are corrected by it\.”/.test(one)),
      'the answer is not shown',
    );
    await looked();
  });

  test('a group can be left as it is: it is marked, and let follow again', async () => {
    await pressButton(page, 'ty-release-page .acts', 'Leave as they are');
    await page.waitForSelector('.texts li em');
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-release-page .acts', 'Let them follow');
    await untilGone(page, '.texts li em');
  });

  test('is made with a reason for what is amiss; until then authors write as before', async () => {
    const ferry = await page.evaluate(async () => {
      const answer = await fetch('/api/v1/editions');
      return ((await answer.json()) as { profile: string; number: number }[]).find(({ profile }) => profile === 'notices-desk')!.number;
    });
    assert.equal(ferry, 1);
    await pressButton(page, 'ty-release-page', 'Release…');
    await page.waitForSelector('ty-release-dialog');
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-release-dialog', 'Release it');
    await page.waitForSelector('ty-release-dialog mat-error');
    for (const field of await page.$$('ty-release-dialog input[id^=release-reason]')) await field.type('Tables stand in tenders.');
    await page.type('#release-note', 'Notices are short.');
    await pressButton(page, 'ty-release-dialog', 'Release it');
    await untilGone(page, 'ty-release-dialog');
    await eventually(
      () => texts('ty-edition-list li'),
      ([last]) =>
        last?.startsWith('2 ') === true && last.includes('Notices are short.') && last.includes('Because: Tables stand in tenders.'),
      'the edition is not listed',
    );
    assert.match((await texts('h1'))[0]!, /^Notices desk, edition 2$/);
    assert.deepEqual(await axeFindings(page), []);
  });

  test('is taken back to what was before, and the draft follows', async () => {
    await pressButton(page, 'ty-edition-list', 'Take back to it…');
    await page.waitForSelector('ty-take-back');
    assert.deepEqual(await axeFindings(page), []);
    await page.type('#take-back-why', 'Tables are wanted after all.');
    await pressButton(page, 'ty-take-back', 'Take back to it');
    await untilGone(page, 'ty-take-back');
    await eventually(
      () => texts('ty-edition-list li'),
      ([last]) => last?.startsWith('3 ') === true && last.includes('Back to edition 1: Tables are wanted after all.'),
      'it was not taken back',
    );
    const { document } = await api<Profile>('GET', '/profiles/notices-desk');
    assert.notDeepEqual(document.markup.elements['table'], { outcome: 'drop' });
    assert.deepEqual(await texts('ty-release-page .note'), ['There is nothing to release: authors write with what the draft says.']);
  });

  test('of house limits shows what they do to every profile and text, and holds only once it is made', async () => {
    await page.goto(`${used.typikon.address}/house-limits`);
    await page.waitForSelector('ty-rule-table [data-element=em] mat-checkbox input');
    await page.$eval('ty-rule-table [data-element=em] mat-checkbox input', (box) => box.click());
    await pressButton(page, 'ty-title-line', 'Save the draft');
    await page.waitForSelector('ty-title-line a.go');
    await eventually(
      () => texts('ty-title-line a.go'),
      ([link]) => link === 'Release…',
      'the draft is not ahead',
    );
    const cleaned = async (): Promise<string> => {
      const { id } = (await api<{ documents: { id: string }[] }>('GET', '/documents?limit=1&profile=story-desk')).documents[0]!;
      const answer = await fetch(`${used.typikon.address}/api/v1/documents/${id}`);
      const document = (await answer.json()) as { fields: { key: string; profile: string | null; value: string }[] };
      const field = document.fields.find(({ profile }) => profile !== null)!;
      const value = `<p>One <em>word</em></p>${field.value}`;
      const saved = await fetch(`${used.typikon.address}/api/v1/documents/${id}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json', 'if-match': answer.headers.get('etag')! },
        body: JSON.stringify({ fields: { [field.key]: { value, profile: field.profile } } }),
      });
      assert.ok(saved.ok, `the save: ${saved.status}`);
      return ((await saved.json()) as typeof document).fields.find(({ key }) => key === field.key)!.value;
    };
    assert.match(await cleaned(), /^<p>One <em>word<\/em>/);
    await page.click('ty-title-line a.go');
    await page.waitForSelector('ty-shared-release-page tbody tr');
    await eventually(
      () => page.$eval('ty-shared-release-page .go', (button) => !(button as HTMLButtonElement).disabled).catch(() => false),
      (isReady) => isReady,
      'not everything was looked at',
    );
    assert.match((await texts('ty-shared-release-page .changes'))[0]!, /<em>: edition 1 leaves it as it is; the draft/);
    assert.deepEqual(await axeFindings(page), []);
    await planAndCallOff('ty-shared-release-page');
    const [planned] = await api<{ state: string }[]>('GET', '/shared/house-limits/scheduled');
    assert.equal(planned?.state, 'off');
    await pressButton(page, 'ty-shared-release-page', 'Release…');
    await page.waitForSelector('ty-release-dialog');
    for (const field of await page.$$('ty-release-dialog input[id^=release-reason]')) await field.type('Nobody stresses here.');
    await page.type('#release-note', 'Plain words.');
    await pressButton(page, 'ty-release-dialog', 'Release it');
    await untilGone(page, 'ty-release-dialog');
    await eventually(
      () => texts('ty-edition-list li'),
      ([last]) => last?.startsWith('2 ') === true && last.includes('Plain words.'),
      'the edition is not listed',
    );
    assert.doesNotMatch(await cleaned(), /<em>/);
    await pressButton(page, 'ty-edition-list', 'Compare with the draft');
    await page.waitForSelector('ty-edition-changes tbody tr');
    assert.match((await texts('ty-edition-changes tbody td'))[0]!, /^\/markup\/elements\/em/);
    assert.deepEqual(await axeFindings(page), []);
    await pressButton(page, 'ty-edition-changes', 'Close');
    await untilGone(page, 'ty-edition-changes');
    await pressButton(page, 'ty-edition-list', 'Take back to it…');
    await page.waitForSelector('ty-take-back');
    await pressButton(page, 'ty-take-back', 'Take back to it');
    await untilGone(page, 'ty-take-back');
    await eventually(
      () => texts('ty-edition-list li'),
      ([last]) => last?.startsWith('3 ') === true,
      'it was not taken back',
    );
    assert.match(await cleaned(), /<em>/);
    assert.deepEqual(mishaps, []);
  });
});
