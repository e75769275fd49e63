import { findChromium } from './install.mjs';

/**
 * How Chromium is started by tests and for pictures: at 1280 by 800, without a monitor and without asking anybody outside.
 *
 * @returns {import('puppeteer-core').LaunchOptions}
 */
export function chromiumOptions(userDataDir) {
  const { path, isHeadless } = findChromium();
  return {
    executablePath: path,
    headless: isHeadless ? 'shell' : true,
    userDataDir,
    protocolTimeout: 120_000,
    defaultViewport: { width: 1280, height: 800 },
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-default-apps',
      '--disable-extensions',
      '--disable-component-extensions-with-background-pages',
      '--disable-lcd-text',
      '--mute-audio',
      // No second renderer waits for a page that never comes.
      '--disable-features=SpareRendererForSitePerProcess,Translate,OptimizationHints,MediaRouter',
    ],
  };
}
