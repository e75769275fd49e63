import type { Page } from 'puppeteer-core';

/**
 * Every name that a form, a document and a window of a page answer to by themselves (Web IDL, attributes and operations of
 * the interfaces and of those above them), in lower case and in order. Constructors are left out: they begin with a capital,
 * and names are compared as they are written.
 */
export async function namesInPage(page: Page): Promise<string[]> {
  await page.goto('about:blank');
  const names = (await page.evaluate(`(() => {
    const found = new Set();
    for (const object of [document.createElement('form'), document, window])
      for (let at = object; at !== null; at = Object.getPrototypeOf(at))
        for (const name of Object.getOwnPropertyNames(at)) found.add(name);
    return [...found];
  })()`)) as string[];
  // Helpers that the testing tool puts there.
  const own = names.filter((name) => !/^[A-Z0-9]|puppeteer|^cdc_|^__name$/.test(name));
  return [...new Set(own.map((name) => name.toLowerCase()))].sort();
}
