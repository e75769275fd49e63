import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, test } from 'node:test';
import { openPage, useTypikon } from './support';

const used = useTypikon();
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Every main view, and what is there once it is drawn. */
const VIEWS: readonly (readonly [path: string, ready: string])[] = [
  ['/profiles', 'tbody tr'],
  ['/profiles/notices-desk', '.entry'],
  ['/compare', 'ty-compare-page mat-select'],
  ['/house-limits', '[data-element=img]'],
  ['/types', 'tbody tr'],
  ['/types/notice', 'ty-type-page'],
  ['/writing', 'ty-assignments-page'],
  ['/writing/people', 'ty-people-page'],
  ['/specimens', 'ty-specimens-page'],
  ['/styles', 'ty-style-files-page'],
  ['/styles/likeness/story-desk/guide', 'ty-likeness-page .figure'],
  ['/write', 'tbody tr'],
  ['/write/notice-016', 'typikon-editor .te-frame'],
  ['/site', 'ty-site'],
  ['/keys', 'ty-keys-page'],
];

/** A window of 1280 zoomed to 200 % has 640 CSS pixels; 320 is the least that content has to fit (WCAG 2.2, criterion 1.4.10). */
const CIRCUMSTANCES = [
  { name: '320 pixels wide', width: 320, height: 640, colours: 'none', contrast: 'no-preference' },
  { name: 'zoomed to 200 %', width: 640, height: 400, colours: 'none', contrast: 'no-preference' },
  { name: '1920 pixels wide', width: 1920, height: 1080, colours: 'none', contrast: 'no-preference' },
  { name: 'high contrast', width: 1280, height: 800, colours: 'active', contrast: 'more' },
];

interface AxeRun {
  violations: { id: string; nodes: { target: unknown[]; failureSummary: string }[] }[];
}

describe('axe finds nothing, and nothing is cut off, at every size and in high contrast', () => {
  for (const [path, ready] of VIEWS)
    test(path, async () => {
      const { page, mishaps } = await openPage(used.browser);
      const session = await page.createCDPSession();
      const found: string[] = [];
      await page.goto(`${used.typikon.address}${path}`);
      await page.waitForSelector(ready);
      await page.evaluate(AXE);
      for (const { name, width, height, colours, contrast } of CIRCUMSTANCES) {
        await page.setViewport({ width, height });
        await session.send('Emulation.setEmulatedMedia', {
          features: [
            { name: 'forced-colors', value: colours },
            { name: 'prefers-contrast', value: contrast },
            { name: 'prefers-reduced-motion', value: 'reduce' },
          ],
        });
        const { wider, violations } = await page.evaluate(async () => {
          await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
          const run = await (globalThis as unknown as { axe: { run(root: unknown, options: object): Promise<AxeRun> } }).axe.run(document, {
            iframes: false,
          });
          return { wider: document.documentElement.scrollWidth - innerWidth, violations: run.violations };
        });
        if (wider > 0) found.push(`${name}: the page is ${wider} pixels wider than the window`);
        for (const { id, nodes } of violations)
          for (const { target, failureSummary } of nodes) found.push(`${name}, ${id}: ${target.join(' ')} ${failureSummary}`);
      }
      await session.detach();
      assert.deepEqual(found, []);
      assert.deepEqual(mishaps, []);
    });
});
