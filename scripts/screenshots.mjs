// Makes the pictures in docs/screenshots from fresh demo data, at 1280 by 800.
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildServer, buildWeb } from './lib/build.mjs';
import { startDatabase } from './lib/database.mjs';
import { chromiumOptions } from './lib/browser.mjs';
import { ensureAll } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { freePort } from './lib/ports.mjs';
import { main, say } from './lib/say.mjs';
import { startServer } from './lib/server.mjs';

const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** Chooses from a select by its label and the begin of an option's words. */
async function chooseOption(page, label, words) {
  await page.click(`mat-select[aria-label="${label}"]`);
  await page.waitForSelector('mat-option');
  await page.$$eval('mat-option', (nodes, begin) => nodes.find((node) => node.innerText.trim().startsWith(begin)).click(), words);
  await page.waitForSelector('mat-option', { hidden: true });
}

/** Every main view: its name, its address, and what to do before the picture. */
const VIEWS = [
  {
    name: 'profiles',
    path: '/profiles',
    ready: 'tbody tr',
    async prepare(page) {
      // A server that has just begun still compares the texts in the background.
      for (let tries = 0; tries < 60 && (await page.$$('.likeness a')).length < 7; tries++) {
        await pause(1000);
        await page.reload({ waitUntil: 'networkidle0' });
      }
    },
  },
  {
    name: 'workshop-markup',
    path: '/profiles/notices-desk',
    ready: '.entry',
    async prepare(page) {
      await page.click('.entry:nth-of-type(2) .sentence');
    },
  },
  { name: 'where', path: '/where', ready: 'ty-where-page .when' },
  { name: 'versions', path: '/write/spring-timetable/versions', ready: 'ty-versions-page del' },
  {
    name: 'workshop-paste',
    path: '/profiles/notices-desk',
    ready: '.entry',
    async prepare(page) {
      await chooseOption(page, 'Bench', 'Works report');
      await page.click('#chapter-tab-paste');
      await page.waitForSelector('[data-pass=inline-style] .name');
      await page.click('[data-pass=inline-style] .name');
      await page.$eval('.scroll', (node) => (node.scrollTop = 150));
    },
  },
  { name: 'specimens', path: '/specimens/slip-pictures', ready: 'ty-specimens-page pre' },
  { name: 'house-limits', path: '/house-limits', ready: 'ty-rule-table [data-element]' },
  {
    name: 'workshop-toolbar',
    path: '/profiles/story-desk',
    ready: '.entry',
    async prepare(page) {
      await page.click('#chapter-tab-toolbar');
      await page.waitForSelector('[data-row=underline] input');
      await page.click('[data-row=underline] input');
      await page.waitForSelector('ty-button-details .finding');
      await page.$eval('[data-row=underline]', (row) => row.scrollIntoView({ block: 'center' }));
      await page.click('#bench-tab-author');
    },
  },
  { name: 'documents', path: '/write', ready: 'tr.mat-mdc-row ty-type-icon svg', prepare: () => pause(800) },
  {
    name: 'desk',
    path: '/write/old-tansy-back',
    ready: '[data-field=body] .te-frame',
    prepare: () => pause(1500),
  },
  {
    name: 'likeness',
    path: '/styles/likeness/story-desk/guide',
    ready: 'li.chosen .repair .tried',
    async prepare(page) {
      await page.evaluate(() =>
        [...document.querySelectorAll('.cause')].find((node) => node.textContent.includes('figure.rounded')).click(),
      );
      await page.waitForFunction(() => document.querySelector('li.chosen .repair pre')?.textContent.includes('border-radius'));
      await page.waitForFunction(() => document.querySelector('ty-contest-tables')?.textContent.includes('general.css'));
      await pause(1200);
    },
  },
  { name: 'stylesheets', path: '/styles/sheet/figures', ready: 'ty-stylesheet-editor .cm-content' },
  {
    name: 'workshop-styles',
    path: '/profiles/story-desk',
    ready: '.entry',
    async prepare(page) {
      await page.click('#chapter-tab-styles');
      await page.waitForSelector('[data-style=fare-note] button');
      await page.click('[data-style=fare-note] button');
      await pause(1200);
    },
  },
  { name: 'fit', path: '/profiles/story-desk/fit?of=all', ready: 'ty-fit-page .chart svg path' },
  { name: 'content-type', path: '/types/story/teaser', ready: 'ty-author-sight typikon-editor .te-frame' },
  {
    name: 'who-writes',
    path: '/writing',
    ready: 'ty-assignment-grid tr.mat-mdc-row',
    async prepare(page) {
      await page.evaluate(() => document.querySelector('ty-assignment-grid .cell').click());
      await page.waitForSelector('.list .fault');
    },
  },
  { name: 'compare', path: '/compare?from=story-desk&to=notices-desk', ready: '.list li' },
  {
    // The last ones, since they change drafts.
    name: 'release-styles',
    path: '/styles/release',
    ready: 'ty-edition-list li .head',
    async prepare(page) {
      await page.evaluate(async () => {
        const { stylesheets } = await (await fetch('/api/v1/style-files')).json();
        const site = stylesheets.find(({ id }) => id === 'site');
        const css = `${site.css}\nh2 {\n  color: #8a2c1c;\n  letter-spacing: 0.02em;\n}\n\ntable {\n  border: 2px solid #17475c;\n}\n`;
        await fetch('/api/v1/style-files/changes', {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ note: 'Headings stand out', stylesheets: [{ ...site, css }] }),
        });
      });
      await page.reload({ waitUntil: 'networkidle0' });
      await page.waitForSelector('ty-look-by-both iframe');
      await page.waitForSelector('ty-shared-release-page .go:not([disabled])');
      await pause(1500);
    },
  },
  {
    name: 'release',
    path: '/profiles/notices-desk/release',
    ready: 'ty-edition-list li .head',
    async prepare(page) {
      await page.evaluate(async () => {
        const address = '/api/v1/profiles/notices-desk';
        const { document, revision } = await (await fetch(address)).json();
        const elements = { ...document.markup.elements, table: { outcome: 'drop' }, figure: {}, figcaption: {} };
        await fetch(`${address}/draft`, {
          method: 'PUT',
          headers: { 'content-type': 'application/json', 'if-match': `"${revision}"` },
          body: JSON.stringify({ ...document, markup: { ...document.markup, elements } }),
        });
      });
      await page.reload({ waitUntil: 'networkidle0' });
      await page.waitForSelector('ty-text-by-both iframe');
      await page.waitForSelector('ty-release-page .go:not([disabled])');
      await pause(1200);
    },
  },
];

main(async () => {
  await ensureAll({ chromium: true, mariadb: true });
  await buildServer();
  await buildWeb();
  const { default: puppeteer } = await import('puppeteer-core');
  const work = mkdtempSync(join(tmpdir(), 'typikon-pictures-'));
  const database = await startDatabase(join(work, 'db'));
  const port = await freePort();
  const server = await startServer({
    port,
    env: {
      ...database.env,
      TYPIKON_SITE_PORT: String(await freePort()),
      TYPIKON_DEMO_DIR: at('demo'),
      TYPIKON_WEB_DIR: at('packages/web/dist'),
    },
  });
  const browser = await puppeteer.launch(chromiumOptions(join(work, 'browser')));
  mkdirSync(at('docs/screenshots'), { recursive: true });
  const wanted = process.argv.slice(2);
  for (const { name, path, ready, prepare } of VIEWS.filter((view) => wanted.length === 0 || wanted.includes(view.name))) {
    const context = await browser.createBrowserContext();
    const page = await context.newPage();
    await page.goto(`http://localhost:${port}${path}`, { waitUntil: 'networkidle0' });
    await page.waitForSelector(ready);
    await prepare?.(page);
    await pause(1500);
    await page.screenshot({ path: at('docs/screenshots', `${name}.png`) });
    say(`· docs/screenshots/${name}.png`);
    await context.close();
  }
  await browser.close();
  await server.stop();
  await database.stop();
  rmSync(work, { recursive: true, force: true });
  process.exit(0);
});
