import assert from 'node:assert/strict';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, test } from 'node:test';
import type { Page } from 'puppeteer-core';
import { axeFindings, Bench, chooseOptions, eventually, openPage, useTypikon } from './support';

const used = useTypikon({ TYPIKON_FIGURES_WAIT_MS: '400' });

/** Drives the comparison as a person would. */
class Comparison {
  private constructor(
    readonly page: Page,
    readonly mishaps: string[],
  ) {}

  static async open(profile: string, kind: string): Promise<Comparison> {
    const { page, mishaps } = await openPage(used.browser);
    await page.goto(`${used.typikon.address}/styles/likeness/${profile}/${kind}`);
    await page.waitForSelector('.cause, .causes > .none');
    return new Comparison(page, mishaps);
  }
  titles(): Promise<string[]> {
    return this.page.$$eval('.cause .title', (nodes) => nodes.map((node) => node.textContent ?? ''));
  }
  /** Opens the cause whose heading holds some words, and gives its sentence once its repairs were tried. */
  async choose(words: string): Promise<string> {
    await eventually(
      () =>
        this.page.$$eval(
          '.cause',
          (nodes, wanted) => {
            const button = nodes.find((node) => node.textContent?.includes(wanted));
            if (button?.getAttribute('aria-expanded') === 'false') (button as HTMLElement).click();
            return button?.getAttribute('aria-expanded');
          },
          words,
        ),
      (expanded) => expanded === 'true',
      `no cause about ${words}`,
    );
    await this.page.waitForSelector('li.chosen .repair .tried, li.chosen .repairs > .ty-soft:not([role])');
    return this.text('li.chosen .sentence');
  }
  text(selector: string): Promise<string> {
    return this.page.$eval(selector, (node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim());
  }
  repairs(): Promise<string[]> {
    return this.page.$$eval('li.chosen .repair', (nodes) =>
      nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()),
    );
  }
  /** Presses a button of the repair whose text holds some words. */
  async press(repair: string, button: string): Promise<void> {
    await eventually(
      () =>
        this.page.$$eval(
          'li.chosen .repair',
          (nodes, [wanted, label]) => {
            const place = nodes.find((node) => node.textContent?.includes(wanted!));
            const found = [...(place?.querySelectorAll('button') ?? [])].find(
              (node) => node.textContent?.trim() === label && !node.disabled,
            );
            found?.click();
            return found !== undefined;
          },
          [repair, button],
        ),
      (isPressed) => isPressed,
      `no “${button}” at the repair “${repair}”`,
    );
  }
  async share(): Promise<number> {
    return Number.parseFloat(await this.text('.figure'));
  }
  async untilShare(fits: (share: number) => boolean): Promise<number> {
    return eventually(() => this.share(), fits, 'the figure did not change as it should');
  }
}

/** What a reader's browser shows of a page: without anything kept from before. */
async function reader<T>(path: string, read: (document: Document) => T): Promise<T> {
  const { page } = await openPage(used.browser, { isApart: true });
  await page.goto(`${used.typikon.siteAddress}${path}`);
  const value = await page.evaluate(`(${read.toString()})(document)`);
  await page.browserContext().close();
  return value as T;
}

/** Releases stylesheets and page kinds as they are stored: from then on readers see them. */
async function releaseStyles(): Promise<void> {
  const api = `${used.typikon.address}/api/v1`;
  const { revision } = (await (await fetch(`${api}/style-files`)).json()) as { revision: number };
  const released = await fetch(`${api}/shared/pages/editions`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'if-match': `"${revision}"` },
    body: JSON.stringify({ note: '' }),
  });
  // 409: they are released as they are.
  assert.ok(released.status === 201 || released.status === 409, `${released.status}`);
}

/** The first document of a kind in which something is to be seen. */
async function documentWith(kind: string, text: string): Promise<string> {
  const answer = await fetch(`${used.typikon.address}/api/v1/texts/published?pageKind=${kind}`);
  const all = (await answer.json()) as { id: string; html: string }[];
  return all.find(({ html }) => html.includes(text))!.id.split('/')[0]!;
}

const radius = (document: Document): string => getComputedStyle(document.querySelector('figure.rounded img')!).borderTopLeftRadius;

/** Looks at what a release of them would do to texts, and makes it. */
async function releaseInPage(): Promise<void> {
  const { page, mishaps } = await openPage(used.browser);
  const bench = new Bench(page);
  await page.goto(`${used.typikon.address}/styles`);
  await page.waitForSelector('ty-title-line a.go');
  assert.equal(await bench.text('ty-title-line a.go'), 'Release…');
  await bench.click('ty-title-line a.go');
  await eventually(
    () => page.$eval('ty-shared-release-page .go', (button) => !(button as HTMLButtonElement).disabled).catch(() => false),
    (isReady) => isReady,
    'not everything was looked at',
  );
  assert.match(await bench.text('ty-pages-changes'), /stylesheets/);
  assert.match(await bench.text('ty-looks-view tbody tr'), /^background-color of p|^[a-z-]+ of [a-z0-9]+: /);
  await page.waitForSelector('ty-look-by-both iframe');
  assert.deepEqual(await axeFindings(page), []);
  await bench.press('ty-shared-release-page', 'Release…');
  await page.waitForSelector('ty-release-dialog');
  assert.deepEqual(await axeFindings(page), []);
  await page.type('#release-note', 'Fares stand out.');
  await bench.press('ty-release-dialog', 'Release it');
  await eventually(
    () => bench.text('ty-edition-list li'),
    (text) => text.includes('Fares stand out.'),
    'the edition is not listed',
  );
  assert.deepEqual(mishaps, []);
  await page.close();
}

describe('a style that shows nothing on the page', () => {
  test('the file is not loaded there: found, explained, loaded, seen by readers once it is released, taken back', async () => {
    const id = await documentWith('news', 'class="fare-note"');
    const ground = (document: Document): string => getComputedStyle(document.querySelector('p.fare-note')!).backgroundColor;
    assert.equal(await reader(`/documents/${id}`, ground), 'rgba(0, 0, 0, 0)');

    const comparison = await Comparison.open('story-desk', 'news');
    const before = await comparison.share();
    assert.match(
      await comparison.choose('No rule here: p.fare-note'),
      /figures\.css, line \d+ has it, and figures\.css is not loaded on the page/,
    );
    const [load] = await comparison.repairs();
    assert.match(
      load!,
      /Load figures\.css on the page, behind site\.css\. Tried: Settles \d+ places in \d+ documents, changes nothing else\./,
    );
    await comparison.press('Load figures.css', 'Take it');
    await comparison.untilShare((share) => share > before);
    assert.equal(await reader(`/documents/${id}`, ground), 'rgba(0, 0, 0, 0)');
    await releaseInPage();
    assert.equal(await reader(`/documents/${id}`, ground), 'rgb(227, 238, 241)');
    assert.equal(
      (await comparison.titles()).some((title) => title.includes('fare-note')),
      false,
    );
    // The corners of pictures were not loaded either; now another file outweighs them.
    assert.match(
      await comparison.choose('figure.rounded img'),
      /loses border-radius to \.page \.body figure img \(general\.css, line 6\).* 0-2-2 against 0-1-2/,
    );

    await comparison.page.evaluate(() =>
      [...document.querySelectorAll('button')].find((node) => node.textContent?.trim() === 'Take back')!.click(),
    );
    await comparison.untilShare((share) => share === before);
    await releaseStyles();
    assert.equal(await reader(`/documents/${id}`, ground), 'rgba(0, 0, 0, 0)');
    assert.deepEqual(comparison.mishaps, []);
  });

  test('a heavier rule wins: found, explained, repaired by the least weight in a file of its own, and seen by readers once it is released', async () => {
    const id = await documentWith('guide', '<figure class="rounded"');
    assert.equal(await reader(`/documents/${id}`, radius), '0px');
    const comparison = await Comparison.open('story-desk', 'guide');
    const before = await comparison.share();
    assert.match(
      await comparison.choose('Outweighed: figure.rounded img'),
      /figure\.rounded img \(figures\.css, line 4\) is on the page and loses border-radius to \.page \.body figure img \(general\.css, line 6\), since its selector weighs more: 0-2-2 against 0-1-2/,
    );
    const [add] = await comparison.repairs();
    assert.match(
      add!,
      /least weight that wins \(0-2-2\)\. \.(page|body) figure\.rounded img \{ border-radius: 14px; \} Tried: Settles \d+ places .*changes nothing else/,
    );

    // Both contests, as a table.
    await comparison.page.waitForSelector('ty-contest-tables section:nth-of-type(2) tr.wins');
    const rows = await comparison.page.$$eval('ty-contest-tables section:nth-of-type(2) tbody tr', (nodes) =>
      nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()),
    );
    assert.match(rows[0]!, /^\.page \.body figure img general\.css, line 6 0-2-2 0 wins$/);
    assert.match(rows[1]!, /^figure\.rounded img figures\.css, line 4 0-1-2 14px outweighed$/);
    assert.match(rows[2]!, /^img reset\.css, line \d+, in the layer reset 0-0-1 0 loses: its layer yields$/);

    // Before and after, as pictures.
    await comparison.press('least weight', 'Before and after');
    const corners = await eventually(
      async () => {
        const values = [];
        for (const label of ['Before the repair', 'After the repair']) {
          const handle = await comparison.page.waitForSelector(`iframe[title="${label}"]`);
          values.push(
            await (await handle!.contentFrame()).$eval('figure.rounded img', (node) => getComputedStyle(node).borderTopLeftRadius),
          );
        }
        return values;
      },
      (values) => values[1] !== '0px',
      'the repair is not shown',
    );
    assert.deepEqual(corners, ['0px', '14px']);

    await comparison.press('least weight', 'Take it');
    await comparison.untilShare((share) => share > before);
    await releaseStyles();
    assert.equal(await reader(`/documents/${id}`, radius), '14px');
    const links = await reader(`/documents/${id}`, (document) =>
      [...document.querySelectorAll('link[rel=stylesheet]')].map((link) => link.getAttribute('href')),
    );
    assert.match(links.at(-1) as string, /^\/stylesheets\/overrides-guide\.[0-9a-f]{12}\.css$/);
    const css = await (await fetch(`${used.typikon.siteAddress}${links.at(-1)}`)).text();
    assert.match(css, /^\/\* As in figures\.css, line 4, which loses to general\.css, line 6\. \*\/\n/);

    // Loaded anew, the page of the comparison and the list of profiles know it; the figure of the past stands beside.
    await comparison.page.goto(`${used.typikon.address}/profiles`);
    await eventually(
      async () => {
        await comparison.page.reload();
        await comparison.page.waitForSelector('.likeness a');
        return comparison.page.$$eval('.likeness a', (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ')));
      },
      (lines) => lines.some((line) => /Harbour guide was \d/.test(line)),
      'the list does not show the change',
    );
    // What was counted before, and what was saved since, is told as a chart and in figures.
    await comparison.page.click('[aria-label="Over time: Story desk on Harbour guide"]');
    await comparison.page.waitForSelector('ty-likeness-past-dialog .chart svg path');
    const counts = await comparison.page.$$eval('ty-likeness-past-dialog tbody tr', (rows) =>
      rows.map((row) => (row as HTMLElement).innerText.replace(/\s+/g, ' ')),
    );
    assert.ok(counts.length >= 2, counts.join('\n'));
    assert.match(counts[0]!, /overrides-guide\.css/);
    assert.match(counts.at(-1)!, /the first count/);
    assert.deepEqual(comparison.mishaps, []);
  });

  test('a rule can be changed before it is taken; what else it moves is told', async () => {
    const comparison = await Comparison.open('story-desk', 'guide');
    await comparison.choose('Outweighed: hr');
    await comparison.press('least weight', 'Edit');
    await comparison.page.waitForSelector('li.chosen textarea');
    await comparison.page.$eval('li.chosen textarea', (node) => {
      node.value = '/* Too much. */\n.page hr, .page p.lead { border-top-width: 2px; color: red }';
      node.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await comparison.press('', 'Try it');
    const told = await eventually(
      () => comparison.repairs(),
      (repairs) => repairs.some((repair) => /and moves \d+ other places/.test(repair)),
      'what it moves is not told',
    );
    assert.ok(
      told.some((repair) => /color #\w+ → #ff0000/.test(repair)),
      told.join('\n'),
    );
  });
});

describe('the comparison', () => {
  test('is measured in the browser too, and the rules explain what is measured', async () => {
    for (const [profile, kind] of [
      ['story-desk', 'news'],
      ['diary', 'diary'],
      ['ferry-note', 'article'],
    ] as const) {
      const comparison = await Comparison.open(profile, kind);
      await comparison.page.click('#likeness-below-tab-measured');
      await eventually(
        () => comparison.text('#likeness-below-panel'),
        (text) => /shows [1-9]\d* differences in this document; the rules explain every one/.test(text),
        `${profile} on ${kind} is not explained`,
      );
      assert.deepEqual(comparison.mishaps, []);
    }
  });

  test('at another width other rules hold', async () => {
    const comparison = await Comparison.open('tender-desk', 'tender');
    assert.equal(await comparison.share(), 100);
    const { page } = comparison;
    await page.$eval('#likeness-width', (node) => {
      (node as HTMLInputElement).value = '600';
      node.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await eventually(
      () => comparison.text('.width output'),
      (text) => text === '600 px',
      'the width did not change',
    );
    const handle = await page.waitForSelector('iframe[title="As the reader sees it"]');
    await eventually(
      async () => (await handle!.contentFrame()).evaluate(() => innerWidth),
      (width) => width === 600,
      'the page is not as wide as asked for',
    );
    // What is too wide by its words only layout tells: the frames are measured.
    await page.evaluate(async () => {
      const { stylesheets } = (await (await fetch('/api/v1/style-files')).json()) as { stylesheets: { id: string; css: string }[] };
      const tender = stylesheets.find(({ id }) => id === 'tender')!;
      await fetch('/api/v1/style-files/changes', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ stylesheets: [{ ...tender, css: `${tender.css}\n.wide td { white-space: nowrap }\n` }] }),
      });
    });
    await page.reload();
    await page.waitForSelector('#likeness-width');
    await page.$eval('#likeness-width', (node) => {
      (node as HTMLInputElement).value = '320';
      node.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await eventually(
      () => comparison.text('.found'),
      (text) => /table \d+ px in \d+ px on the page/.test(text),
      'the wide table is not found',
    );
  });

  test('both frames scroll together, a mark leads to its cause, and nothing of the content runs', async () => {
    const comparison = await Comparison.open('story-desk', 'guide');
    const { page } = comparison;
    const frames = await Promise.all(
      ['As the author sees it', 'As the reader sees it'].map(async (label) => (await page.waitForSelector(`iframe[title="${label}"]`))!),
    );
    for (const frame of frames) assert.equal(await frame.evaluate((node) => node.getAttribute('sandbox')), 'allow-same-origin');
    const [editor, reading] = await Promise.all(frames.map((frame) => frame.contentFrame()));
    await eventually(
      async () => (await editor!.$$('[data-mount] > *')).length,
      (count) => count > 3,
      'the surface is empty',
    );
    await frames[0]!.hover();
    await page.mouse.wheel({ deltaY: 260 });
    await eventually(
      async () => [await editor!.evaluate(() => scrollY), await reading!.evaluate(() => scrollY)],
      ([one, other]) => one! > 50 && other! > 50,
      'the page does not follow',
    );
    await page.waitForSelector('ty-page-frame .outline button');
    const number = await page.$eval('ty-page-frame .outline:not(.chosen) button', (node) => {
      (node as HTMLElement).click();
      return node.textContent.trim();
    });
    await eventually(
      () => comparison.text('li.chosen .number'),
      (text) => text === number,
      'the mark leads nowhere',
    );
  });

  test('another kind of page is tried with the documents of others, and specimens come too', async () => {
    const comparison = await Comparison.open('story-desk', 'guide');
    const { page } = comparison;
    await chooseOptions(page, 'Page kind', 'Crew diary');
    await page.waitForFunction(() => location.pathname.endsWith('/story-desk/diary'));
    await eventually(
      () => comparison.text('.causes'),
      (text) => /as if it were/.test(text) && /\d elements in \d+ of \d+ documents/.test(text),
      'nothing is compared',
    );
    const titles = async (): Promise<string[]> => {
      await page.click('#likeness-document');
      // A list that is still empty does not open; it is asked again.
      if ((await page.waitForSelector('.cdk-overlay-pane mat-option', { timeout: 5000 }).catch(() => null)) === null) return [];
      const all = await page.$$eval('mat-option', (nodes) => nodes.map((node) => (node as HTMLElement).innerText.trim()));
      await page.keyboard.press('Escape');
      await page.waitForSelector('.cdk-overlay-pane mat-option', { hidden: true });
      return all;
    };
    assert.equal(
      (await titles()).some((title) => title.endsWith('(specimen)')),
      false,
    );
    await page.click('#likeness-specimens');
    await eventually(titles, (all) => all.some((title) => title.endsWith('(specimen)')), 'no specimen comes');
    await chooseOptions(page, 'Profile', 'Reply');
    await page.waitForFunction(() => location.pathname.includes('/reply/'));
    await eventually(titles, (all) => all.length > 0, 'a profile without documents has nothing to compare');
    // Where there is nothing to compare, nothing is said to be the same.
    await chooseOptions(page, 'Profile', 'House');
    await page.waitForFunction(() => location.pathname.includes('/house/'));
    await eventually(
      () => comparison.text('.causes'),
      (text) => text.includes('Nothing is compared') && !text.includes('see the same'),
      'an empty comparison is not told as one',
    );
    assert.equal(await page.$('.figure'), null);
    assert.deepEqual(comparison.mishaps, []);
  });

  test('a second document stands beside, and the keyboard reaches everything', async () => {
    const comparison = await Comparison.open('story-desk', 'guide');
    const { page } = comparison;
    await page.focus('#likeness-below-tab-contest');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.waitForSelector('iframe[title="The second document, page"]');
    const titles = await page.evaluate(() => [...document.querySelectorAll('iframe')].map((frame) => frame.contentDocument?.title));
    assert.equal(new Set(titles.filter((title) => title !== 'The surface')).size, 2);
    await page.focus('.cause[aria-expanded=false]');
    await page.keyboard.press('Enter');
    await page.waitForSelector('li.chosen .repair .take');
    assert.deepEqual(comparison.mishaps, []);
  });
});

describe('stylesheets and page kinds', () => {
  const open = async (path: string) => {
    const { page, mishaps } = await openPage(used.browser);
    await page.goto(`${used.typikon.address}${path}`);
    await page.waitForSelector('ty-stylesheet-editor .cm-content, ty-page-kind-editor h2');
    return { page, mishaps, bench: new Bench(page) };
  };
  const type = async (page: Page, bench: Bench, text: string): Promise<void> => {
    await page.click('ty-stylesheet-editor .cm-content');
    await bench.selectAll();
    await page.keyboard.sendCharacter(text);
  };
  const said = (page: Page, selector: string): Promise<string> =>
    page.$eval(selector, (node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim());

  test('a mistake is told at its line; what is stored has another address; an older version comes back', async () => {
    const { page, bench, mishaps } = await open('/styles/sheet/tender');
    const link = (document: Document): string => document.querySelector('link[href*=tender]')!.getAttribute('href')!;
    await releaseStyles();
    const before = await reader('/documents/tender-pontoon', link);
    await type(page, bench, '.wide td { color: rgb(1, 2, 3) }\n.wide { color red }\n');
    await eventually(
      () => said(page, 'ty-stylesheet-editor .mistakes'),
      (text) => text.startsWith('Line 2:'),
      'the mistake is not told',
    );
    await page.waitForSelector('nav .changed');
    await page.type('#sheet-note', 'Only a try');
    await bench.press('ty-stylesheet-editor', 'Save');
    await eventually(
      () => said(page, '.done'),
      (text) => text.startsWith('Saved.'),
      'it is not stored',
    );
    await releaseStyles();
    const after = await reader('/documents/tender-pontoon', link);
    assert.notEqual(after, before);
    const answer = await fetch(`${used.typikon.siteAddress}${after}`);
    assert.match(answer.headers.get('cache-control')!, /immutable/);
    assert.equal((await fetch(`${used.typikon.siteAddress}${before}`)).headers.get('cache-control'), 'no-cache');
    await eventually(
      () => said(page, '.versions'),
      (text) => text.includes('Only a try'),
      'the version is not listed',
    );
    await bench.press('.versions', 'Bring back');
    await eventually(
      () => said(page, 'ty-stylesheet-editor .cm-content'),
      (text) => text.includes('Long tables'),
      'the old text is not there',
    );
    await page.waitForSelector('nav .changed');
    await bench.press('ty-stylesheet-editor', 'Save');
    await page.waitForFunction(() => document.querySelector('nav .changed') === null);
    await releaseStyles();
    assert.equal(await reader('/documents/tender-pontoon', link), before);
    assert.deepEqual(mishaps, []);
  });

  test('what is not stored stays while another one is looked at, and can be given up', async () => {
    const { page, bench } = await open('/styles/sheet/print');
    await type(page, bench, 'body { color: #111 }');
    await page.waitForSelector('nav a.on .changed');
    await bench.click('nav a[href="/styles/kind/news"]');
    await page.waitForSelector('ty-page-kind-editor h2');
    await bench.click('nav a[href="/styles/sheet/print"]');
    await eventually(
      () => said(page, 'ty-stylesheet-editor .cm-content'),
      (text) => text === 'body { color: #111 }',
      'the text is lost',
    );
    await bench.press('ty-stylesheet-editor', 'Give up changes');
    await eventually(
      () => said(page, 'ty-stylesheet-editor .cm-content'),
      (text) => text.includes('11pt'),
      'the stored text is not back',
    );
  });

  test('a file is taken in, loaded on one kind of page only, and removed again', async () => {
    const { page, bench } = await open('/styles');
    const input = await page.$('ty-title-line input[type=file]');
    const path = join(mkdtempSync(join(tmpdir(), 'typikon-css-')), 'Harbour colours.css');
    writeFileSync(path, 'h1 { color: rgb(9, 8, 7) }');
    await (input as unknown as { uploadFile(file: string): Promise<void> }).uploadFile(path);
    await page.waitForFunction(() => location.pathname === '/styles/sheet/harbour-colours');
    await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('.check')]
        .find((node) => node.innerText.includes('Tender page'))!
        .querySelector('input')!
        .click(),
    );
    await bench.press('ty-stylesheet-editor', 'Save');
    await eventually(
      () => said(page, '.done'),
      (text) => text.startsWith('Saved.'),
      'it is not stored',
    );
    const colour = (document: Document): string => getComputedStyle(document.querySelector('h1')!).color;
    await releaseStyles();
    assert.equal(await reader('/documents/tender-pontoon', colour), 'rgb(9, 8, 7)');
    assert.notEqual(await reader('/documents/notice-016', colour), 'rgb(9, 8, 7)');
    // It is still loaded somewhere, so it stays.
    await bench.press('ty-stylesheet-editor', 'Remove');
    await bench.press('ty-confirm', 'Remove it');
    await eventually(
      () => said(page, '[role=alert] p'),
      (text) => /loads the stylesheet "harbour-colours"/.test(text),
      'it is not refused',
    );
    await bench.click('nav a[href="/styles/kind/tender"]');
    await page.waitForSelector('[aria-label="Do not load harbour-colours.css here"]');
    await bench.click('[aria-label="Do not load harbour-colours.css here"]');
    await bench.press('ty-page-kind-editor', 'Save');
    await eventually(
      () => said(page, '.done'),
      (text) => text.startsWith('Saved.'),
      'the list is not stored',
    );
    await bench.click('nav a[href="/styles/sheet/harbour-colours"]');
    await page.waitForSelector('ty-stylesheet-editor .cm-content');
    await bench.press('ty-stylesheet-editor', 'Remove');
    await bench.press('ty-confirm', 'Remove it');
    await page.waitForFunction(() => location.pathname === '/styles');
    assert.equal(await page.$('nav a[href="/styles/sheet/harbour-colours"]'), null);
  });

  test('the order of files and the elements around content are changed; what cannot be read is not stored', async () => {
    const { page, bench } = await open('/styles/kind/diary');
    await page.click('#kind-wrapper', { count: 3 });
    await page.keyboard.type('main..x');
    await eventually(
      () => said(page, '#kind-wrapper-hint'),
      (text) => text.startsWith('Write main, article'),
      'the mistake is not told',
    );
    await page.click('#kind-wrapper', { count: 3 });
    await page.keyboard.type('main.page.night > section.body');
    await bench.click('[aria-label="Load night.css earlier"]');
    await bench.press('ty-page-kind-editor', 'Save');
    await eventually(
      () => said(page, '.done'),
      (text) => text.startsWith('Saved.'),
      'it is not stored',
    );
    await releaseStyles();
    const shown = await reader('/documents/diary-slip-day', (document) => [
      document.querySelector('main > section.body') !== null,
      [...document.querySelectorAll('link')].map((node) => node.getAttribute('href')!.replace(/^.*\/(\w+)\..*$/, '$1')).join(),
    ]);
    assert.deepEqual(shown, [true, 'reset,site,night,figures']);
  });

  test('two people change one file: the second is told and nothing is overwritten', async () => {
    const first = await open('/styles/sheet/night');
    const second = await open('/styles/sheet/night');
    await type(first.page, first.bench, 'body { background: #000 }');
    await first.bench.press('ty-stylesheet-editor', 'Save');
    await eventually(
      () => said(first.page, '.done'),
      (text) => text.startsWith('Saved.'),
      'it is not stored',
    );
    await type(second.page, second.bench, 'body { background: #fff }');
    await second.bench.press('ty-stylesheet-editor', 'Save');
    await eventually(
      () => said(second.page, '.failure'),
      (text) => /Somebody else has changed the stylesheet "night"/.test(text),
      'nobody is told',
    );
    assert.equal(await said(second.page, 'ty-stylesheet-editor .cm-content'), 'body { background: #fff }');
  });
});

describe('§4 Styles', () => {
  const open = async () => {
    const { page, mishaps } = await openPage(used.browser);
    const bench = new Bench(page);
    await bench.open(used.typikon.address, 'story-desk');
    await bench.chapter('styles');
    await page.waitForSelector('tr[data-style=note]');
    return { page, bench, mishaps };
  };
  const typeIn = async (page: Page, selector: string, text: string): Promise<void> => {
    await page.click(selector, { count: 3 });
    await page.keyboard.type(text);
  };

  test('what applying does follows from the selector, while it is typed; what cannot be applied is refused', async () => {
    const { page, bench } = await open();
    await bench.press('ty-styles-chapter .bar', 'New style');
    const sentence = (): Promise<string> => bench.text('ty-styles-chapter .new p');
    for (const [selector, words] of [
      ['.tide', /Wraps the selected words in <span class="tide">/],
      ['p.tide', /Turns the block .* into p, and gives it the class tide/],
      ['p.tide:hover', /:hover is a state/],
      ['table td.tide', /Gives the td .* Only within table/],
    ] as const) {
      await typeIn(page, '#style-new-selector', selector);
      await eventually(sentence, (text) => words.test(text), `nothing is said of ${selector}`);
    }
    await page.type('#style-new-label', 'Tide');
    await typeIn(page, '#style-new-selector', 'p::before');
    await bench.press('ty-styles-chapter .new', 'Add it');
    await eventually(
      () => bench.text('ty-styles-chapter .failure'),
      (text) => /drawn by the stylesheet/.test(text),
      'it is not refused',
    );
    await typeIn(page, '#style-new-selector', 'p.tide');
    await bench.press('ty-styles-chapter .new', 'Add it');
    await page.waitForSelector('tr[data-style=tide].on');
    // Neither the rules nor any stylesheet know it; both is said.
    await eventually(
      () => bench.text('tr[data-style=tide]'),
      (text) => /its markup is removed/.test(text),
      'its fate is not told',
    );
    await bench.chapter('findings');
    await page.waitForSelector('[data-check=style-without-markup]');
    await page.waitForSelector('[data-check=style-without-rule]');
  });

  test('styles are chosen from a stylesheet, named by comments or guessed, and written back', async () => {
    const { page, bench } = await open();
    await bench.press('ty-styles-chapter .bar', 'Choose from a stylesheet');
    await page.waitForSelector('ty-styles-from-css li');
    const path = join(mkdtempSync(join(tmpdir(), 'typikon-css-')), 'set.css');
    writeFileSync(
      path,
      '/* Style: Tide line; Group: Boxes */\np.tide { color: blue }\n.page .body p.calm { color: green }\na:hover { color: red }',
    );
    await ((await page.$('ty-styles-from-css input[type=file]')) as unknown as { uploadFile(file: string): Promise<void> }).uploadFile(
      path,
    );
    const rows = await eventually(
      () => page.$$eval('ty-styles-from-css li', (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' '))),
      (all) => all.length === 2,
      'the file is not read',
    );
    assert.match(rows[0]!, /Tide line p\.tide/);
    assert.match(rows[1]!, /Calm p\.calm/);
    await bench.press('ty-styles-from-css', 'Take one style');
    await page.waitForSelector('tr[data-style=tide-line]');
    assert.match(await bench.text('tr[data-style=tide-line]'), /p\.tide Boxes/);
  });

  test('the menu shows each style as it looks; it is applied, excludes its group, and taken off restores what was there', async () => {
    const { page, bench, mishaps } = await open();
    const frame = await bench.authorFrame();
    await page.bringToFront();
    await frame.waitForSelector('[role=textbox] p');
    const html = (): Promise<string> =>
      frame.$eval('[role=textbox]', (node) => node.querySelector('h2, p')!.outerHTML.replace(/ data-\w+="[^"]*"/g, ''));
    const block = await frame.$eval('[role=textbox]', (node) => node.querySelector('h2, p')!.localName);
    await (await frame.$(`[role=textbox] ${block}`))!.click();
    const choose = async (label: string): Promise<void> => {
      await bench.click('ty-author-view [data-button=styles]');
      await page.waitForSelector('.te-menu button');
      await page.evaluate(
        (wanted) =>
          [...document.querySelectorAll<HTMLElement>('.te-menu button')].find((node) => node.innerText.trim() === wanted)!.click(),
        label,
      );
    };
    await bench.click('ty-author-view [data-button=styles]');
    await page.waitForSelector('.te-menu button');
    const looks = await page.$$eval('.te-menu button span', (nodes) =>
      nodes.map((node) => [node.textContent, getComputedStyle(node).backgroundColor]),
    );
    assert.deepEqual(Object.fromEntries(looks as [string, string][])['Note'], 'rgb(227, 238, 241)');
    await page.keyboard.press('Escape');
    await choose('Note');
    await eventually(html, (text) => text.startsWith('<p class="note"'), 'the style is not applied');
    await choose('Fare note');
    await eventually(html, (text) => text.startsWith('<p class="fare-note"'), 'the group does not exclude');
    await choose('Fare note');
    await eventually(html, (text) => !text.includes('fare-note') && !text.includes('"note"'), 'the style is not taken off');
    assert.deepEqual(mishaps, []);
  });
});

for (const scheme of ['light', 'dark'] as const)
  test(`axe finds nothing in the screens of styles, ${scheme}`, async () => {
    const { page } = await openPage(used.browser);
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }]);
    for (const [path, ready] of [
      ['/styles', 'ty-stylesheet-editor .cm-content'],
      ['/styles/kind/news', '.order li'],
      ['/styles/likeness/story-desk/news', 'li.chosen .repair .tried'],
      ['/profiles', '.likeness a'],
    ] as const) {
      await page.goto(`${used.typikon.address}${path}`);
      await page.waitForSelector(ready);
      assert.deepEqual(await axeFindings(page), [], path);
    }
    const bench = new Bench(page);
    await bench.open(used.typikon.address, 'story-desk');
    await bench.chapter('styles');
    await page.waitForSelector('.details .sample iframe');
    assert.deepEqual(await axeFindings(page), []);
    await bench.press('ty-styles-chapter .bar', 'Choose from a stylesheet');
    await page.waitForSelector('ty-styles-from-css li');
    await new Promise((done) => setTimeout(done, 400));
    assert.deepEqual(await axeFindings(page), []);
  });
