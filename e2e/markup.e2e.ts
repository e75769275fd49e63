import assert from 'node:assert/strict';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, test } from 'node:test';
import type { Page } from 'puppeteer-core';
import {
  compileRules,
  readHouseLimits,
  resolveProfile,
  toSanitizerConfig,
  parseFragment,
  type JsonObject,
} from '../packages/core/src/index';
import { at } from '../scripts/lib/paths.mjs';
import { Bench, chooseFromMenu, chooseOptions, eventually, openPage, useTypikon, reveal, untilGone } from './support';

const used = useTypikon();

async function workshop(profile: string): Promise<{ page: Page; bench: Bench; mishaps: string[] }> {
  const opened = await openPage(used.browser);
  const bench = new Bench(opened.page);
  await bench.open(used.typikon.address, profile);
  await bench.chapter('markup');
  return { ...opened, bench };
}

describe('a frame that vanished', () => {
  test('the ledger says why, and lets it through for one role', async () => {
    const { page, bench, mishaps } = await workshop('story-desk');
    await bench.click('.entry .sentence');
    await bench.press('.entry.on', 'Why');
    await eventually(
      () => bench.text('ty-ledger-view .why'),
      (text) => /The rule is \/markup\/unlisted of House limits\. It stands as it was first set up/.test(text),
      'the ledger does not say why',
    );
    await bench.press('.entry.on', 'Let it through');
    await page.waitForSelector('ty-let-through-dialog');
    const roles = await page.$$eval('ty-let-through-dialog .roles mat-radio-button', (nodes) =>
      nodes.map((node) => (node as HTMLElement).innerText.trim()),
    );
    await bench.click(`ty-let-through-dialog .roles mat-radio-button:nth-of-type(${roles.indexOf('Duty office alone') + 1}) input`);
    await eventually(
      () => bench.text('ty-let-through-dialog'),
      (text) => text.includes('/trustedRoles/duty-office') && text.includes('cams.orrenstrand.example'),
      'the changes are not shown',
    );
    await bench.press('ty-let-through-dialog', 'Change the house limits');
    await untilGone(page, 'ty-let-through-dialog');
    const frame = /<iframe src="https:\/\/cams\.orrenstrand\.example\/slip"[^>]* sandbox="allow-scripts allow-popups">/;
    await eventually(
      () => bench.stored(),
      (html) => frame.test(html),
      'the frame is not let through for the role',
    );
    await chooseFromMenu(page, 'ty-bench .how', 'By ', 'anybody');
    await eventually(
      () => bench.stored(),
      (html) => !html.includes('<iframe'),
      'the frame is let through for anybody',
    );
    await bench.save();
    assert.deepEqual(mishaps, []);
  });

  test('one camera host is allowed for everybody, and nothing else', async () => {
    const { page, bench } = await workshop('notices-desk');
    await bench.replaceSource('<iframe src="https://cams.thornholm.example/quay"></iframe><iframe src="https://ads.example/"></iframe>');
    await eventually(
      () => bench.sentences(),
      (texts) => texts.some((text) => text.startsWith('2 frames from')),
      'the frames are not in the ledger',
    );
    await bench.click('.entry .sentence');
    await bench.press('.entry.on', 'Let it through');
    await page.waitForSelector('ty-let-through-dialog .hosts mat-radio-button');
    await bench.press('ty-let-through-dialog', 'Change the house limits');
    await eventually(
      () => bench.stored(),
      (html) => html.includes('cams.thornholm.example/quay') && !html.includes('ads.example'),
      'the host is not let through alone',
    );
    await eventually(
      () => bench.sentences(),
      (texts) => texts.some((text) => text.startsWith('A frame from ads.example went')),
      'the other frame is not in the ledger',
    );
  });

  test('the exception is seen among the house limits, and withdrawn', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await page.goto(`${used.typikon.address}/house-limits`);
    await eventually(
      () => bench.text('.exceptions'),
      (text) => /Duty office is not bound by \/elements\/iframe/.test(text),
      'the exception is not listed',
    );
    await page.$$eval('.exceptions h3', (heads) => {
      const list = heads.find((head) => head.textContent === 'Duty office')!.nextElementSibling!;
      list.querySelector('button')!.click();
    });
    await eventually(
      () => bench.text('.exceptions'),
      (text) => !text.includes('Duty office'),
      'the exception was not withdrawn',
    );
    await bench.press('ty-title-line', 'Save the draft');
    await eventually(
      () => bench.text('.ty-notice'),
      (text) => text.startsWith('Saved.'),
      'the house limits were not saved',
    );
    const stored = await page.evaluate(async () => JSON.stringify(await (await fetch('/api/v1/house-limits')).json()));
    assert.match(stored, /"web-team"/);
    assert.ok(!stored.includes('"duty-office"'));
  });
});

describe('a profile built from a sample', () => {
  test('begins from nothing, learns what is ticked, and stores just that', async () => {
    const { page } = await openPage(used.browser);
    const bench = new Bench(page);
    await page.goto(`${used.typikon.address}/profiles`);
    await page.waitForSelector('tbody tr');
    await bench.click('ty-title-line [mat-flat-button]');
    await page.waitForSelector('#new-name');
    await page.type('#new-name', 'Guest book');
    await chooseOptions(page, 'new-parent', 'A sample of what authors write');
    await bench.click('mat-dialog-actions [type=submit]');
    await page.waitForSelector('ty-learn-dialog textarea');
    await page.$eval('ty-learn-dialog textarea', (node) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/html', '<p>Thank you, <strong>Marram</strong>! <a href="https://a.example/">More</a> <u>soon</u></p>');
      node.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    });
    await page.waitForSelector('ty-learn-dialog .lessons li');
    for (const label of ['<p>', '<strong>', 'href on <a>'])
      await page.$$eval(
        '.lessons mat-checkbox',
        (nodes, wanted) => {
          const row = nodes.find((node) => (node as HTMLElement).innerText.trim().startsWith(wanted));
          if (row === undefined) throw new Error(`${wanted} is not offered`);
          row.querySelector('input')!.click();
        },
        label,
      );
    await eventually(
      () => bench.text('ty-learn-dialog ty-changes-table'),
      (text) => text.includes('/markup') && text.includes('"href"'),
      'the change is not shown',
    );
    await bench.press('ty-learn-dialog mat-dialog-actions', 'Take 4 rules');
    await untilGone(page, 'ty-learn-dialog');
    await bench.replaceSource('<p class="x">Ahoy <strong>you</strong> <u>and</u> <a href="https://b.example/" title="t">they</a></p>');
    await eventually(
      () => bench.stored(),
      (html) => html === '<p>Ahoy <strong>you</strong> and <a href="https://b.example/">they</a></p>',
      'the learnt rules do not hold',
    );
    await bench.save();
  });
});

describe('findings', () => {
  test('what is wrong with a profile is said in its chapter, opens its rule, and is mended', async () => {
    const { page, bench } = await workshop('tender-desk');
    await bench.click('[data-element=u] input');
    await bench.click('[data-element=section] input');
    await reveal(page, '[aria-label="Hard spaces"]');
    await chooseOptions(page, 'Hard spaces', 'become plain');
    await bench.press('ty-title-line', '2 findings');
    await page.waitForSelector('ty-findings-chapter');
    assert.match(await bench.text('ty-findings-chapter'), /section is allowed here, but not by the house limits/);
    assert.match(await bench.text('ty-findings-chapter'), /readers take underlined words for links/);
    await bench.click('[data-check=above-house] .ty-cite');
    await page.waitForSelector('[data-element=section].on');
    await bench.chapter('findings');
    await bench.press('[data-check=above-house]', 'Take the rule for section out');
    await bench.press('[data-check=underline-allowed]', 'Take the underline off');
    await eventually(
      () => bench.text('ty-findings-chapter'),
      (text) => text.includes('Nothing is wrong'),
      'the findings are not mended',
    );
  });
});

describe('as text and as files', () => {
  test('a mistake is shown at its line and cannot be taken over; what is sound can', async () => {
    const { page, bench } = await workshop('diary');
    await bench.press('ty-markup-chapter .bar', 'As text');
    await page.waitForSelector('ty-markup-text .cm-content');
    const type = async (text: string): Promise<void> => {
      await bench.click('ty-markup-text .cm-content');
      await bench.selectAll();
      await page.keyboard.sendCharacter(text);
    };
    await type('{\n  "unlisted": "drop",\n  "elemnts": {}\n}');
    await page.waitForSelector('ty-markup-text .cm-lint-marker-error');
    assert.match(await bench.text('ty-markup-text .bar'), /One mistake/);
    assert.equal(await page.$eval('ty-markup-text .go', (node) => (node as HTMLButtonElement).disabled), true);
    const line = await page.$eval('ty-markup-text .cm-lintRange-error', (node) => node.textContent);
    assert.equal(line, '"elemnts"');
    await type('{\n  "unlisted": "drop"\n}');
    await bench.press('ty-markup-text', 'Take over');
    await bench.press('ty-markup-text', 'As a table');
    await reveal(page, '#unlisted');
    assert.equal(await bench.text('#unlisted'), 'go with their content');
    await bench.click('[aria-label=Undo]');
    await eventually(
      () => bench.text('#unlisted'),
      (words) => words === 'go, their content stays',
      'undo did not bring the rules back',
    );
  });

  test('a profile file shows what it would change before it does', async () => {
    const { page, bench } = await workshop('tender-desk');
    await bench.press('ty-title-line', 'Files');
    await page.waitForSelector('ty-files-dialog');
    const path = join(mkdtempSync(join(tmpdir(), 'typikon-file-')), 'tender-desk.json');
    const document = JSON.parse(readFileSync(at('demo/profiles/tender-desk.json'), 'utf8')) as JsonObject;
    writeFileSync(path, JSON.stringify({ ...document, purpose: 'From a file.' }));
    const field = (await page.$('ty-files-dialog input[type=file]'))!;
    await (field as unknown as { uploadFile(path: string): Promise<void> }).uploadFile(path);
    await eventually(
      () => bench.text('ty-files-dialog ty-changes-table'),
      (text) => text.includes('/purpose') && text.includes('From a file.'),
      'the change is not shown',
    );
    assert.match(await bench.text('.draft'), /^Draft saved/);
    await bench.press('ty-files-dialog', 'Take the file over');
    await eventually(
      () => bench.text('.draft'),
      (text) => text.startsWith('One change'),
      'the file was not taken over',
    );
  });
});

describe('the rules as a configuration for the browser’s own sanitizer', () => {
  test('Chromium takes it, and keeps no element or attribute that we would not', async () => {
    const json = (path: string): JsonObject => JSON.parse(readFileSync(at(path), 'utf8')) as JsonObject;
    const resolution = resolveProfile('tender-desk', (id) => json(`demo/profiles/${id}.json`));
    const house = readHouseLimits(json('demo/house-limits.json'));
    assert.ok(resolution.ok && house.ok);
    const rules = compileRules(resolution.resolved, { house: house.house });
    const { config } = toSanitizerConfig(resolution.resolved, rules);
    const documents = ['demo/documents', 'demo/specimens'].flatMap((folder) =>
      readdirSync(at(folder))
        .filter((name) => name.endsWith('.html'))
        .map((name) => readFileSync(at(`${folder}/${name}`), 'utf8')),
    );
    const { page } = await openPage(used.browser);
    await page.goto(used.typikon.address);
    const kept: string[] = await page.evaluate(
      (sanitizer: unknown, sources: string[]) =>
        sources.map((html) => {
          const holder = document.createElement('div') as HTMLDivElement & { setHTML(html: string, options: object): void };
          holder.setHTML(html, { sanitizer });
          return holder.innerHTML;
        }),
      config,
      documents,
    );
    assert.equal(kept.length, documents.length);
    for (const html of kept) {
      const stack = [...parseFragment(html).root.children];
      for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
        if (node.type !== 'element') continue;
        const rule = rules.element(node.name);
        assert.equal(rule.outcome, 'keep', `<${node.name}> was kept`);
        for (const { name } of node.attributes) assert.ok(rule.attributes.has(name), `${name} on <${node.name}> was kept`);
        stack.push(...node.children);
      }
    }
    assert.ok(kept.some((html) => html.includes('<table')));
  });
});
