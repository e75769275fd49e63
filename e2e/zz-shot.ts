import { Installation, launchBrowser, openPage, Bench } from './support';
import { createServer } from 'node:http';
const t = await Installation.start({ TYPIKON_FIGURES_WAIT_MS: "3600000", ...(process.env.WEBDIR ? { TYPIKON_WEB_DIR: process.env.WEBDIR } : {}) });
const browser = await launchBrowser();
const { page } = await openPage(browser);
await page.setViewport({ width: 1280, height: 800 });
page.on('dialog', (d) => void d.accept());
const b = new Bench(page);
const AsyncFunction = Object.getPrototypeOf(async function () {}).constructor;
createServer(async (req, res) => {
  let body = ''; for await (const c of req) body += c;
  try { const r = await new AsyncFunction('page', 't', 'b', 'browser', body)(page, t, b, browser); res.end(JSON.stringify(r ?? null, null, 1)); }
  catch (e) { res.end('ERR ' + (e as Error).stack); }
}).listen(7799, () => console.log('ready'));
