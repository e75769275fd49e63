import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { COLOUR_RULES, openPage, runAxe, useTypikon } from './support';

const used = useTypikon();

/** Every main view, and what is there once it is drawn. */
const VIEWS: readonly (readonly [path: string, ready: string])[] = [
  ['/profiles', 'tbody tr'],
  ['/profiles/notices-desk', '.entry'],
  ['/profiles/notices-desk/fit', 'ty-fit-page tr.mat-mdc-row'],
  ['/compare', 'ty-compare-page .proof'],
  ['/house-limits', 'ty-rule-table [data-element]'],
  ['/types', 'tbody tr'],
  ['/types/notice', 'ty-type-page'],
  ['/writing', 'ty-assignments-page'],
  ['/writing/people', 'ty-people-page'],
  ['/specimens', 'ty-specimens-page'],
  ['/styles', 'ty-style-files-page'],
  ['/styles/release', 'ty-edition-list li b'],
  ['/styles/likeness/story-desk/guide', 'ty-likeness-page .figure'],
  ['/write', 'tbody tr'],
  ['/write/notice-016', 'typikon-editor .te-frame'],
  ['/write/spring-timetable/versions', 'ty-versions-page .text'],
  ['/where', 'ty-where-page .when'],
  ['/site', 'ty-site'],
  ['/keys', 'ty-keys-page'],
];

/** Rules about where things stand, how large they are, and what can be reached by scrolling. */
const PLACE_RULES = ['target-size', 'scrollable-region-focusable'];

/**
 * A window of 1280 zoomed to 200 % has 640 CSS pixels; 320 is the least that content has to fit (WCAG 2.2, criterion 1.4.10). What no
 * size changes is looked at once, where most is drawn otherwise.
 */
const CIRCUMSTANCES: readonly {
  name: string;
  width: number;
  height: number;
  isContrast?: boolean;
  /** The rules that axe looks at: all where there are none; null where there is more room than in the other tests of a view. */
  rules: readonly string[] | null;
}[] = [
  { name: '320 pixels wide', width: 320, height: 640, rules: [] },
  { name: 'zoomed to 200 %', width: 640, height: 400, rules: PLACE_RULES },
  { name: '1920 pixels wide', width: 1920, height: 1080, rules: null },
  { name: 'high contrast', width: 1280, height: 800, isContrast: true, rules: COLOUR_RULES },
];

describe('axe finds nothing, and nothing is cut off, at every size and in high contrast', () => {
  for (const [path, ready] of VIEWS)
    test(path, async () => {
      const { page, mishaps } = await openPage(used.browser);
      const session = await page.createCDPSession();
      const found: string[] = [];
      await page.goto(`${used.typikon.address}${path}`);
      await page.waitForSelector(ready);
      for (const { name, width, height, isContrast, rules } of CIRCUMSTANCES) {
        await page.setViewport({ width, height });
        await session.send('Emulation.setEmulatedMedia', {
          features: [
            { name: 'forced-colors', value: isContrast === true ? 'active' : 'none' },
            { name: 'prefers-contrast', value: isContrast === true ? 'more' : 'no-preference' },
            { name: 'prefers-reduced-motion', value: 'reduce' },
          ],
        });
        const wider = await page.evaluate(async () => {
          await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
          return document.documentElement.scrollWidth - innerWidth;
        });
        if (wider > 0) found.push(`${name}: the page is ${wider} pixels wider than the window`);
        if (rules !== null) found.push(...(await runAxe(page, '', rules)).map((one) => `${name}, ${one}`));
      }
      await session.detach();
      assert.deepEqual(found, []);
      assert.deepEqual(mishaps, []);
    });
});
