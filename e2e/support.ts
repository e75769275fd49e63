import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, afterEach, before, beforeEach } from 'node:test';
import puppeteer, { type Browser, type ElementHandle, type Frame, type Page } from 'puppeteer-core';
import { chromiumOptions } from '../scripts/lib/browser.mjs';
import { startDatabase } from '../scripts/lib/database.mjs';
import { at } from '../scripts/lib/paths.mjs';
import { freePort } from '../scripts/lib/ports.mjs';
import { startServer } from '../scripts/lib/server.mjs';

/** Generous, since the machine may be busy. */
export const PATIENCE_MS = 90_000;

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Running {
  pid: number;
  stop(): Promise<void>;
}
interface RunningDatabase extends Running {
  env: Record<string, string>;
}

type Content = 'demo' | 'empty';

/** The ports of the run that this file is part of: for the first installation; another one beside it has ports of its own. */
let givenPorts = process.env['TYPIKON_TEST_PORTS']?.split(' ').map(Number) ?? null;
function takeGivenPorts(): [number, number] | null {
  const ports = givenPorts;
  givenPorts = null;
  return ports === null ? null : [ports[0]!, ports[1]!];
}

/** The whole of Typikon, with a database, ports and data of its own. */
export class Installation {
  private constructor(
    private readonly folder: string,
    readonly port: number,
    private readonly sitePort: number,
    private database: RunningDatabase,
    private server: Running,
    private readonly settings: Record<string, string>,
    private readonly content: Content,
  ) {}

  /**
   * @param settings of the server, see packages/server/src/config.ts
   * @param content whether the demo is there, or nothing at all
   */
  static async start(settings: Record<string, string> = {}, content: Content = 'demo'): Promise<Installation> {
    const folder = mkdtempSync(join(tmpdir(), 'typikon-e2e-'));
    // A run of all tests fills one database and copies it.
    const filled = process.env['TYPIKON_TEST_DATABASE'];
    if (filled !== undefined && content === 'demo') cpSync(filled, folder, { recursive: true });
    const [port, sitePort] = takeGivenPorts() ?? [await freePort(), await freePort()];
    const database = (await startDatabase(folder)) as RunningDatabase;
    return new Installation(
      folder,
      port,
      sitePort,
      database,
      await Installation.serve(database, port, sitePort, settings, content),
      settings,
      content,
    );
  }

  get address(): string {
    return `http://localhost:${this.port}`;
  }

  get siteAddress(): string {
    return `http://localhost:${this.sitePort}`;
  }

  /** How much memory the server holds, in MB. */
  memoryMb(): number {
    const status = readFileSync(`/proc/${this.server.pid}/status`, 'utf8');
    return Math.round(Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024);
  }

  /** How much time of the processor the server has taken, in milliseconds. */
  processorMs(): number {
    const fields = readFileSync(`/proc/${this.server.pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
    // In hundredths of a second (proc(5), utime and stime).
    return (Number(fields[11]) + Number(fields[12])) * 10;
  }

  /** Kills the server as a crash would, and starts it again. */
  async crashServer(): Promise<void> {
    process.kill(this.server.pid, 'SIGKILL');
    await this.server.stop();
    this.server = await Installation.serve(this.database, this.port, this.sitePort, this.settings, this.content);
  }

  /** Kills the database as a crash would, and starts both again on the same data. */
  async crashDatabase(): Promise<void> {
    process.kill(this.database.pid, 'SIGKILL');
    await this.database.stop();
    await this.server.stop();
    this.database = await startDatabase(this.folder);
    this.server = await Installation.serve(this.database, this.port, this.sitePort, this.settings, this.content);
  }

  async stopServer(): Promise<void> {
    await this.server.stop();
  }

  async startServer(): Promise<void> {
    this.server = await Installation.serve(this.database, this.port, this.sitePort, this.settings, this.content);
  }

  async stop(): Promise<void> {
    await this.server.stop();
    // Nobody needs its data any more: it need not write them down.
    process.kill(this.database.pid, 'SIGKILL');
    await this.database.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }

  private static serve(
    database: RunningDatabase,
    port: number,
    sitePort: number,
    settings: Record<string, string>,
    content: Content,
  ): Promise<Running> {
    return startServer({
      port,
      env: {
        ...database.env,
        TYPIKON_SITE_PORT: String(sitePort),
        ...(content === 'demo' ? { TYPIKON_DEMO_DIR: at('demo') } : {}),
        TYPIKON_WEB_DIR: at('packages/web/dist'),
        ...settings,
      },
    });
  }
}

/** The profile folder of the run that this file is part of: what the browser has read of the application stays in it. */
let givenProfile = process.env['TYPIKON_TEST_BROWSER'] ?? null;

/** A browser, the first one with the profile folder of the run, any other with one of its own. */
export async function launchBrowser(): Promise<Browser & { clean(): Promise<void> }> {
  const given = givenProfile;
  givenProfile = null;
  const userDataDir = given ?? mkdtempSync(join(tmpdir(), 'typikon-browser-'));
  const browser = await puppeteer.launch(chromiumOptions(userDataDir));
  return Object.assign(browser, {
    async clean() {
      await browser.close();
      if (given === null) rmSync(userDataDir, { recursive: true, force: true });
    },
  });
}

/** The origins at which a browser may have stored something. */
const origins = new WeakMap<Browser, readonly string[]>();

/** Tests in the browser wait for no thread to be made anew, and for no work in the background that they do not look at. */
const IN_BROWSER = { TYPIKON_THREADS_WAIT_MS: '120000', TYPIKON_FIGURES_WAIT_MS: '3600000' };

/**
 * Starts Typikon and a browser before the tests of a file and ends them after; what it returns is filled by then.
 *
 * @param settings of the server, beside those of all tests in the browser
 */
export function useTypikon(settings: Record<string, string> = {}, content: Content = 'demo'): { typikon: Installation; browser: Browser } {
  const used = {} as { typikon: Installation; browser: Browser & { clean(): Promise<void> } };
  before(async () => {
    [used.typikon, used.browser] = await Promise.all([Installation.start({ ...IN_BROWSER, ...settings }, content), launchBrowser()]);
    origins.set(used.browser, [used.typikon.address, used.typikon.siteAddress]);
  });
  closePagesAfterTests();
  after(async () => {
    await used.browser?.clean();
    await used.typikon?.stop();
  });
  return used;
}

/** Lets a page find an element anew that was drawn again, or moved away, between being found and being clicked. */
function clickWhatIsThere(page: Page): void {
  const click = page.click.bind(page);
  page.click = async (selector, options) => {
    for (let left = 20; ; left--)
      try {
        const element = (await page.$(selector)) as ElementHandle<HTMLElement> | null;
        if (element === null || options !== undefined) return await click(selector, options);
        return await clickFor(element);
      } catch (error) {
        if (left === 0 || !/detached|not clickable|moved away/.test((error as Error).message)) throw error;
        await new Promise((done) => setTimeout(done, 50));
      }
  };
}

/** Clicks an element and makes sure that the pointer met it, and not what took its place. */
async function clickFor(element: ElementHandle<HTMLElement>): Promise<void> {
  const met = await element.evaluateHandle((node) => {
    const seen = { is: false };
    node.ownerDocument.addEventListener('mousedown', (event) => (seen.is = event.composedPath().includes(node)), {
      once: true,
      capture: true,
    });
    return seen;
  });
  await element.click();
  // A page that has gone elsewhere meanwhile was clicked.
  const isMet = await met.evaluate((seen) => seen.is).catch(() => true);
  if (!isMet) throw new Error('The element moved away while it was clicked.');
}

/** Lets a page wait for the element that is to be used, which may still be on its way. */
function waitForWhatIsUsed(page: Page): void {
  const [select, type, focus] = [page.select.bind(page), page.type.bind(page), page.focus.bind(page)];
  page.select = async (selector, ...values) => {
    await page.waitForSelector(selector);
    return select(selector, ...values);
  };
  page.type = async (selector, ...rest) => {
    await page.waitForSelector(selector);
    return type(selector, ...rest);
  };
  page.focus = async (selector) => {
    await page.waitForSelector(selector);
    return focus(selector);
  };
}

/** The page that has the browser's own context, where what was loaded before need not be loaded again. */
const shared = new WeakMap<Browser, Page>();
/** A page, and everything that went wrong in it. */
interface Opened {
  page: Page;
  mishaps: string[];
}

/** Pages that a test opened; none of them outlives it. */
let opened: Opened[] | null = null;

function closePagesAfterTests(): void {
  beforeEach(() => {
    opened = [];
  });
  afterEach(async () => {
    const pages = opened ?? [];
    opened = null;
    for (const { page } of pages) if (!page.isClosed()) await page.close();
  });
}

/**
 * A page that remembers everything that went wrong in it. It finds nothing stored in the browser.
 *
 * @param isApart whether it is somebody else's browser; where another page is open, it always is
 * @param isKept whether the tests that follow go on with it
 */
export async function openPage(browser: Browser, { isApart = false, isKept = false } = {}): Promise<Opened> {
  const isShared = !isApart && shared.get(browser)?.isClosed() !== false;
  const page = await (isShared ? browser : await browser.createBrowserContext()).newPage();
  if (isShared) {
    shared.set(browser, page);
    const session = await page.createCDPSession();
    for (const origin of origins.get(browser) ?? [])
      await session.send('Storage.clearDataForOrigin', {
        origin,
        storageTypes: 'cookies,local_storage,indexeddb,service_workers,cache_storage',
      });
    await session.detach();
  }
  const mishaps: string[] = [];
  if (!isKept) opened?.push({ page, mishaps });
  page.setDefaultTimeout(PATIENCE_MS);
  // Nothing has to be waited for that only moves.
  await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
  clickWhatIsThere(page);
  waitForWhatIsUsed(page);
  page.on('pageerror', (error) => mishaps.push(`error: ${(error as Error).message}`));
  page.on('console', (message) => {
    if (message.type() === 'error') mishaps.push(`console: ${message.text()} ${message.location().url ?? ''}`.trim());
  });
  return { page, mishaps };
}

/**
 * What can be pressed in a page and not be reached by keys: an element that listens to presses, while neither it nor what it stands
 * in or holds takes the focus or is an item of something that does (WCAG 2.2, 2.1.1).
 */
export async function onlyByPointer(page: Page): Promise<string[]> {
  const session = await page.createCDPSession();
  // Who listens to what is told by the inspector alone (Chrome DevTools Protocol, Runtime.evaluate, the command line API).
  const { result, exceptionDetails } = await session.send('Runtime.evaluate', {
    expression: `(${findOnlyByPointer.toString()})(getEventListeners)`,
    includeCommandLineAPI: true,
    returnByValue: true,
  });
  await session.detach();
  if (exceptionDetails !== undefined) throw new Error(exceptionDetails.exception?.description ?? exceptionDetails.text);
  return result.value as string[];
}

/** Runs in the page. */
function findOnlyByPointer(listenersOf: (element: Element) => Record<string, unknown[]>): string[] {
  const FOCUSED =
    'button, a[href], input, select, textarea, summary, label, iframe, [contenteditable], [tabindex]:not([tabindex="-1"]), ' +
    // Items of a composite: its keys lead to them (ARIA in HTML, composite roles).
    ':is([role=listbox], [role=menu], [role=tree], [role=tablist], [role=grid], [role=radiogroup], [role=toolbar]) *';
  const found = [...document.querySelectorAll('body *')].flatMap((element) => {
    const listeners = listenersOf(element);
    if (!['click', 'dblclick', 'mousedown', 'pointerdown'].some((type) => type in listeners)) return [];
    if (element.getClientRects().length === 0) return [];
    // What is kept from assistive technology does once more what the fields beside it do.
    if (element.closest('[aria-hidden=true]') !== null) return [];
    // What has the focus, where it was put by the page, listens to lose it again.
    if (element === document.activeElement) return [];
    // What lies behind a dialog or a menu closes it, as Escape does.
    if (element.matches('ty-root, main, .cdk-overlay-backdrop, mat-dialog-container')) return [];
    if (element.closest(FOCUSED) !== null || element.querySelector(FOCUSED) !== null) return [];
    return [`only by pointer: ${element.outerHTML.slice(0, 160)}`];
  });
  return [...new Set(found)];
}

/** What the open pages say of failures, and what went wrong in them: it tells why something waited for does not come. */
async function complaints(): Promise<string> {
  const said = (opened ?? []).map(async ({ page, mishaps }) => {
    if (page.isClosed()) return [];
    const shown = await page
      .$$eval('[role=alert], .ty-failure, mat-snack-bar-container, mat-dialog-container', (nodes) =>
        nodes.map((node) => (node as HTMLElement).innerText.trim()).filter((text) => text !== ''),
      )
      .catch((error: Error) => [error.message]);
    return [...shown, ...mishaps];
  });
  const all = (await Promise.all(said)).flat();
  return all.length === 0 ? '' : `; the page says: ${JSON.stringify(all)}`;
}

/** Waits until something holds; throws with what was seen last, and with what the pages say. */
export async function eventually<T>(read: () => Promise<T>, isRight: (value: T) => boolean, what: string): Promise<T> {
  const begin = Date.now();
  for (;;) {
    let value: T | undefined;
    try {
      value = await read();
      if (isRight(value)) return value;
    } catch (error) {
      if (Date.now() - begin > PATIENCE_MS) throw error;
    }
    if (Date.now() - begin > PATIENCE_MS) throw new Error(`${what}; last seen: ${JSON.stringify(value)}${await complaints()}`);
    await new Promise((done) => setTimeout(done, 100));
  }
}

/** Scrolls a table of rules until a row is drawn: its groups come as they are seen. */
export async function reveal(page: Page, row: string): Promise<void> {
  await eventually(
    () =>
      page.evaluate((wanted) => {
        if (document.querySelector(wanted) !== null) return true;
        let scroller = document.querySelector('ty-rule-table')?.parentElement ?? null;
        while (scroller !== null && !/auto|scroll/.test(getComputedStyle(scroller).overflowY)) scroller = scroller.parentElement;
        if (scroller === null) return false;
        const isAtEnd = scroller.scrollTop + scroller.clientHeight >= scroller.scrollHeight - 1;
        scroller.scrollTop = isAtEnd ? 0 : scroller.scrollTop + scroller.clientHeight / 2;
        return false;
      }, row),
    (isThere) => isThere,
    `${row} is in no table of rules`,
  );
}

/** Presses the first button in a place whose words begin like this, once it is there and can be pressed. */
export async function pressButton(page: Page, place: string, words: string): Promise<void> {
  await eventually(
    () =>
      page.$$eval(
        `${place} button`,
        (nodes, begin) => {
          const button = nodes.find(
            (node) =>
              (node as HTMLElement).innerText.trim().startsWith(begin) && !node.disabled && node.getAttribute('aria-disabled') !== 'true',
          );
          (button as HTMLElement | undefined)?.click();
          return button !== undefined;
        },
        words,
      ),
    (isPressed) => isPressed,
    `there is no button “${words}” in ${place}`,
  );
}

/** Chooses from a select of Material by its label, and by an option's words or their begin; of several, each is pressed. */
export async function chooseOptions(page: Page, label: string, ...options: string[]): Promise<void> {
  const select = `mat-select[aria-label="${label}"], mat-select[aria-labelledby~="${label}"]`;
  await page.waitForSelector(select);
  // By the keys: what is around it may still move, and a press would meet what came to stand in its place.
  await eventually(
    async () => {
      if ((await page.$('mat-option')) === null) {
        await page.focus(select);
        await page.keyboard.press('Enter');
      }
      return page.waitForSelector('mat-option', { timeout: 2000 }).then(
        () => true,
        () => false,
      );
    },
    (isOpen) => isOpen,
    `${label} does not open`,
  );
  for (const option of options)
    await eventually(
      () =>
        page.$$eval(
          'mat-option',
          (nodes, words) => {
            const texts = nodes.map((node) => (node as HTMLElement).innerText.trim());
            const whole = texts.indexOf(words);
            const found = whole === -1 ? texts.findIndex((text) => text.startsWith(words)) : whole;
            (nodes[found] as HTMLElement | undefined)?.click();
            return found !== -1;
          },
          option,
        ),
      (isThere) => isThere,
      `${label} does not offer ${option}`,
    );
  if ((await page.$('.cdk-overlay-pane mat-option')) !== null) await page.keyboard.press('Escape');
  await page.waitForSelector('mat-option', { hidden: true });
}

/** Opens a menu, and goes through it by the words that items begin with; menus within a menu open on the way. */
export async function chooseFromMenu(page: Page, trigger: string, ...path: string[]): Promise<void> {
  await page.waitForSelector(trigger);
  await page.click(trigger);
  for (const words of path)
    await eventually(
      () =>
        page.$$eval(
          '.cdk-overlay-container [mat-menu-item]',
          (nodes, begin) => {
            const item = nodes.findLast((node) => (node as HTMLElement).innerText.trim().startsWith(begin)) as
              HTMLButtonElement | undefined;
            if (item === undefined || item.disabled) return false;
            item.click();
            return true;
          },
          words,
        ),
      (isThere) => isThere,
      `${trigger} does not offer ${words}`,
    );
  await page.waitForSelector('.cdk-overlay-container [mat-menu-item]', { hidden: true });
}

/**
 * Waits until nothing is there that a selector is for. Unlike a wait for what is hidden, it is not content with an element that draws
 * no box of its own, as that of a dialog's part does not from the first.
 */
export async function untilGone(page: Page, selector: string): Promise<void> {
  await page.waitForFunction((sought) => document.querySelector(sought) === null, {}, selector);
}

/** Drives the workshop as a person would. */
export class Bench {
  constructor(readonly page: Page) {}

  /** Opens a profile; what is on the bench arrives as it says, or as is asked for. */
  async open(address: string, profile: string, arrives: 'paste' | 'stored' = 'stored'): Promise<void> {
    await this.page.goto(`${address}/profiles/${profile}`, { waitUntil: 'domcontentloaded' });
    await this.page.waitForSelector('ty-ledger-view .entry, ty-ledger-view .empty');
    await chooseFromMenu(this.page, 'ty-bench .how', arrives === 'paste' ? 'By paste' : 'As stored');
    await this.stored();
  }
  /** Clicks once the element is there and can be clicked: a dialog may still be on its way. */
  async click(selector: string): Promise<void> {
    await eventually(
      async () => {
        if (selector.startsWith('[data-element=')) await reveal(this.page, selector);
        const element = (await this.page.waitForSelector(selector)) as ElementHandle<HTMLElement>;
        await element.evaluate((node) => node.scrollIntoView({ block: 'center' }));
        await clickFor(element);
        return true;
      },
      (isClicked) => isClicked,
      `${selector} cannot be clicked`,
    );
  }
  press(place: string, words: string): Promise<void> {
    return pressButton(this.page, place, words);
  }
  async selectAll(): Promise<void> {
    await this.page.keyboard.down('Control');
    await this.page.keyboard.press('KeyA');
    await this.page.keyboard.up('Control');
  }
  /** Puts other markup on the bench, as if it were typed. */
  async replaceSource(html: string): Promise<void> {
    const source = 'ty-markup-view .side:first-child .cm-content';
    await this.page.waitForSelector(source);
    await eventually(
      async () => {
        await this.page.focus(source);
        return this.page.$eval(source, (node) => node === document.activeElement);
      },
      (isFocused) => isFocused,
      'the source cannot be reached',
    );
    await this.selectAll();
    await this.page.keyboard.sendCharacter(html);
  }
  async chapter(name: 'toolbar' | 'markup' | 'paste' | 'styles' | 'surface' | 'help' | 'findings'): Promise<void> {
    await this.click(`#chapter-tab-${name}`);
  }
  async view(name: 'author' | 'markup' | 'page'): Promise<void> {
    await this.click(`#bench-tab-${name}`);
  }
  /** Puts a specimen on the bench, by its key, or what the author has typed or pasted. */
  async choose(input: `specimen:${string}` | 'typed' | 'pasted'): Promise<void> {
    if (input === 'typed') await chooseOptions(this.page, 'Bench', 'All that the author has now');
    else if (input === 'pasted') await chooseOptions(this.page, 'Bench', 'The last paste');
    else {
      const answer = await fetch(`${new URL(this.page.url()).origin}/api/v1/specimens/${input.replace('specimen:', '')}`);
      await chooseOptions(this.page, 'Bench', ((await answer.json()) as { name: string }).name);
    }
  }
  text(selector: string): Promise<string> {
    return this.page.$eval(selector, (node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim());
  }
  /** The ledger's sentences. */
  sentences(): Promise<string[]> {
    return this.page.$$eval('.entry .sentence', (nodes) => nodes.map((node) => (node.textContent ?? '').trim()));
  }
  /** What the markup view shows as stored. */
  async stored(): Promise<string> {
    await this.view('markup');
    return eventually(
      () =>
        this.page.$$eval('ty-markup-view .side:nth-child(2) .cm-line', (lines) => lines.map((line) => line.textContent ?? '').join('\n')),
      (text) => text !== '',
      'nothing is shown as stored',
    );
  }
  /** The frame the author types in. */
  async authorFrame(): Promise<Frame> {
    await this.view('author');
    return eventually(
      async () => {
        // Samples and pages stand in frames too; the author's has the text.
        for (const frame of this.page.frames())
          if (frame.url() === 'about:srcdoc' && (await frame.$('[role=textbox]')) !== null) return frame;
        return null;
      },
      (frame) => frame !== null,
      'the editor did not come up',
    ) as Promise<Frame>;
  }
  /** Pastes markup as a browser would hand it over. */
  async paste(frame: Frame, types: Record<string, string>): Promise<void> {
    await frame.$eval(
      '[role=textbox]',
      (node, given) => {
        const clipboardData = new DataTransfer();
        for (const [type, text] of Object.entries(given)) clipboardData.setData(type, text);
        node.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
      },
      types,
    );
  }
  async pageFrame(siteAddress: string): Promise<Frame> {
    return (await eventually(
      () => Promise.resolve(this.page.frames().find((candidate) => candidate.url().startsWith(siteAddress)) ?? null),
      (frame) => frame !== null,
      'the published page did not come',
    )) as Frame;
  }
  async save(): Promise<void> {
    await this.page.keyboard.down('Control');
    await this.page.keyboard.press('s');
    await this.page.keyboard.up('Control');
    await eventually(
      () => this.text('.draft'),
      (text) => text.startsWith('Draft saved'),
      'the draft was not saved',
    );
  }
}

/** Rules that look at colours: the rest of a view is the same, whatever the scheme. */
export const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

interface AxeRun {
  violations: { id: string; nodes: { target: unknown[]; failureSummary: string }[] }[];
}

/**
 * Runs axe on a page as it is.
 *
 * @param within where it looks; without it, in the dialog that is open, as what is behind it cannot be reached, else everywhere
 * @param rules the only ones that it looks at; all where there are none
 */
export async function runAxe(page: Page, within = '', rules: readonly string[] = []): Promise<string[]> {
  if (await page.evaluate(() => !('axe' in globalThis))) await page.evaluate(AXE);
  const { violations } = await page.evaluate(
    async (place, only) => {
      const dialogs = [...document.querySelectorAll('mat-dialog-container, dialog[open]')];
      const root = place === '' ? (dialogs[dialogs.length - 1] ?? document) : document.querySelector(place);
      if (root === null) throw new Error(`There is no ${place}.`);
      // What is behind a dialog is not looked at, but would be measured.
      const behind = document.querySelector<HTMLElement>('ty-root');
      const isBehind = root !== document && behind !== null && !behind.contains(root);
      if (isBehind) behind.style.display = 'none';
      try {
        return await (globalThis as unknown as { axe: { run(root: unknown, options: object): Promise<AxeRun> } }).axe.run(root, {
          iframes: false,
          preload: false,
          resultTypes: ['violations'],
          ...(only.length === 0 ? {} : { runOnly: only }),
        });
      } finally {
        if (isBehind) behind.style.display = '';
      }
    },
    within,
    rules,
  );
  return violations.flatMap(({ id, nodes }) => nodes.map(({ target, failureSummary }) => `${id}: ${target.join(' ')} ${failureSummary}`));
}

/**
 * Every accessibility rule that a view breaks, with the elements that break it: in light colours, and then in dark ones; and what
 * only a pointer reaches.
 *
 * @param within as of `runAxe`
 */
export async function axeFindings(page: Page, within = ''): Promise<string[]> {
  const inScheme = (value: string) =>
    page.emulateMediaFeatures([
      { name: 'prefers-color-scheme', value },
      { name: 'prefers-reduced-motion', value: 'reduce' },
    ]);
  const light = await runAxe(page, within);
  await inScheme('dark');
  // Colours change with the next frame.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  const dark = await runAxe(page, within, COLOUR_RULES);
  await inScheme('light');
  return [...light.map((found) => `light, ${found}`), ...dark.map((found) => `dark, ${found}`), ...(await onlyByPointer(page))];
}
