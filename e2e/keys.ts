import type { KeyInput, Page } from 'puppeteer-core';
import { eventually } from './support';

/** More presses of Tab than any screen needs. */
const MOST_STOPS = 250;

/** Somebody who has no mouse: nothing is clicked, and nothing gets the focus but by keys. */
export class Keys {
  constructor(readonly page: Page) {}

  /** What has the focus: its role or tag, and its accessible name. */
  here(): Promise<{ kind: string; name: string }> {
    return this.page.evaluate(() => {
      const node = document.activeElement as HTMLElement;
      const named = (node.getAttribute('aria-labelledby') ?? '')
        .split(/\s+/)
        .map((id) => (id === '' ? '' : (document.getElementById(id)?.innerText ?? '')))
        .join(' ');
      const label = (node as HTMLInputElement).labels?.[0]?.innerText ?? '';
      const name = node.getAttribute('aria-label') ?? (named.trim() || label || node.innerText || node.title || '');
      return { kind: node.getAttribute('role') ?? node.tagName.toLowerCase(), name: name.replace(/\s+/g, ' ').trim() };
    });
  }

  /** Which way Tab leads; before it was pressed there is no end to come back from. */
  private isBack = false;
  private isBegun = false;

  /**
   * Goes on by Tab, and back from the end: there the focus would go to the browser's own buttons, which a browser without a window
   * has not got; it would be led into the last frame again.
   */
  async next(): Promise<void> {
    const { kind } = await this.here();
    if (kind === 'body' && this.isBegun) this.isBack = !this.isBack;
    this.isBegun = true;
    const { keyboard } = this.page;
    if (this.isBack) await keyboard.down('Shift');
    await keyboard.press('Tab');
    if (this.isBack) await keyboard.up('Shift');
  }

  /** Presses Tab until something of this kind has the focus whose name begins like this. */
  async to(kind: string, name: string): Promise<void> {
    await eventually(
      async () => {
        for (let stop = 0; stop < MOST_STOPS; stop++) {
          const now = await this.here();
          if (now.kind === kind && now.name.startsWith(name)) return true;
          await this.next();
        }
        return false;
      },
      (isThere) => isThere,
      `no ${kind} “${name}” is reached by Tab`,
    );
  }

  /** Goes to a list by Tab, and from item to item by a key, until one has words like these. */
  async walk(list: string, key: KeyInput, words: string): Promise<void> {
    await eventually(
      async () => {
        for (let stop = 0; stop < MOST_STOPS; stop++) {
          if (await this.page.evaluate((place) => document.activeElement?.closest(place) !== null, list)) return true;
          await this.next();
        }
        return false;
      },
      (isThere) => isThere,
      `${list} is not reached by Tab`,
    );
    await eventually(
      async () => {
        const { name } = await this.here();
        if (!name.includes(words)) await this.press(key);
        return name;
      },
      (name) => name.includes(words),
      `${key} does not lead to “${words}”`,
    );
  }

  async press(...keys: KeyInput[]): Promise<void> {
    for (const key of keys) await this.page.keyboard.press(key);
  }

  async enter(kind: string, name: string): Promise<void> {
    await this.to(kind, name);
    await this.press('Enter');
  }

  async write(kind: string, name: string, text: string): Promise<void> {
    await this.to(kind, name);
    await this.page.keyboard.down('Control');
    await this.press('a');
    await this.page.keyboard.up('Control');
    await this.page.keyboard.type(text);
  }

  /** Opens a select and chooses options by the arrows. */
  async choose(name: string, ...options: string[]): Promise<void> {
    await this.to('combobox', name);
    await this.press('Enter');
    await this.page.waitForSelector('mat-option');
    for (const option of options) {
      let last = '';
      await eventually(
        async () => {
          const active = await this.page.evaluate(() => {
            const id = document.activeElement?.getAttribute('aria-activedescendant') ?? '';
            return document.getElementById(id)?.innerText.trim() ?? '';
          });
          // At the end it goes on from the beginning.
          if (!active.startsWith(option)) await this.press(active === last ? 'Home' : 'ArrowDown');
          last = active;
          return active;
        },
        (active) => active.startsWith(option),
        `${name} does not offer ${option}`,
      );
    }
    await this.press('Enter');
    if ((await this.page.$('mat-option')) !== null) await this.press('Escape');
    await this.page.waitForSelector('mat-option', { hidden: true });
  }

  /** Opens a menu and chooses from it by the arrows. */
  async chooseFromMenu(name: string, item: string): Promise<void> {
    await this.enter('button', name);
    await this.page.waitForSelector('.cdk-overlay-container [mat-menu-item]');
    await eventually(
      async () => {
        const now = await this.here();
        if (!now.name.startsWith(item)) await this.press('ArrowDown');
        return now.name;
      },
      (now) => now.startsWith(item),
      `${name} does not offer ${item}`,
    );
    await this.press('Enter');
    await this.page.waitForSelector('.cdk-overlay-container [mat-menu-item]', { hidden: true });
  }

  /** Goes to the tabs that have one of these names, and by the arrows to that one. */
  async chooseTab(name: string, ...others: readonly string[]): Promise<void> {
    await eventually(
      async () => {
        for (let stop = 0; stop < MOST_STOPS; stop++) {
          const now = await this.here();
          if (now.kind === 'tab' && [name, ...others].some((one) => now.name.startsWith(one))) return true;
          await this.next();
        }
        return false;
      },
      (isThere) => isThere,
      `no tab of ${[name, ...others].join(', ')} is reached by Tab`,
    );
    await eventually(
      async () => {
        const now = await this.here();
        if (!now.name.startsWith(name)) await this.press('ArrowRight');
        return now.name;
      },
      (now) => now.startsWith(name),
      `the arrows do not lead to ${name}`,
    );
  }

  async save(): Promise<void> {
    await this.page.keyboard.down('Control');
    await this.press('s');
    await this.page.keyboard.up('Control');
  }

  said(selector: string): Promise<string[]> {
    return this.page.$$eval(selector, (nodes) => nodes.map((node) => (node as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));
  }

  expect(selector: string, isRight: (said: string[]) => boolean, what: string): Promise<string[]> {
    return eventually(() => this.said(selector), isRight, what);
  }
}
