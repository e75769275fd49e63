import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { after, before, describe, test } from 'node:test';
import type { Browser } from 'puppeteer-core';
import { DESK, elementsIn, Likeness, parseDocument, pathOf, SEEN } from '../packages/core/src/index';
import { at } from '../scripts/lib/paths.mjs';
import { launchBrowser, openPage } from './support';

const file = (name: string): string => readFileSync(createRequire(import.meta.url).resolve(name), 'utf8');
const site = readFileSync(at('demo/stylesheets/site.css'), 'utf8');

/** Containers whose width follows from their rules, and others that are none. */
const containers = (widthPx: number): string => `
  body { margin: 0 } .page { container: page / inline-size; width: ${widthPx}px } .body { padding: 0 20px; container-type: inline-size; box-sizing: border-box }
  @container page (min-width: 700px) { h2 { color: rgb(1, 2, 3); letter-spacing: 2px } }
  @container (width < 640px) { p { font-style: italic } @container page (inline-size > 500px) { p { text-transform: uppercase } } }
  @container nobody (min-width: 1px) { h3 { color: red } } @container (min-height: 1px) { h4 { word-spacing: 4px } }
  @container not (min-width: 700px) { li { text-indent: 3px } }`;

/** Pairs of what the editor loads and what the page loads. */
const PAIRS: Readonly<Record<string, readonly [editor: readonly string[], page: readonly string[], widths?: readonly [number, number]]>> = {
  'nothing against the site': [[], [site]],
  'normalize against water': [[file('normalize.css/normalize.css')], [file('water.css/out/light.css')]],
  'the site, and after pico': [[site], [site, file('@picocss/pico/css/pico.css')]],
  'bootstrap at two widths': [
    [site, file('bootstrap/dist/css/bootstrap.css')],
    [file('bootstrap/dist/css/bootstrap.css'), site],
    [1280, 480],
  ],
  'containers of two widths': [[containers(760)], [containers(620)]],
};

const BODY = readdirSync(at('demo/documents'))
  .map((name) => readFileSync(at('demo/documents', name), 'utf8'))
  .join('\n');

/** What only layout tells, or what a browser writes in ways of its own. */
const LAYOUT =
  /^(width|height|min-width|min-height|top|right|bottom|left|margin-(left|right)|aspect-ratio|grid-|transform|text-wrap|white-space|overflow|font-variant$|font-synthesis|counter-|text-emphasis-color|justify-items|align-|flex-basis|background-position|quotes|appearance|border-image|content|-webkit|text-decoration-thickness|vertical-align|mask-image)/;
const MEASURED = [...SEEN.keys()].filter((name) => !LAYOUT.test(name));

let browser: Browser & { clean(): Promise<void> };
before(async () => {
  browser = await launchBrowser();
});
after(() => browser?.clean());

describe('what the rules say differs is what differs in Chromium', () => {
  for (const [name, [editor, page, widths = [1280, 1280]]] of Object.entries(PAIRS))
    test(name, async () => {
      const html = `<!DOCTYPE html><html lang="en"><head><title>T</title></head><body><main class="page"><article class="body">${BODY}</article></main></body></html>`;
      const sheets = (all: readonly string[]) => all.map((css, index) => ({ name: `${index}.css`, css }));
      const setting = (all: readonly string[], widthPx: number) => ({
        sheets: sheets(all),
        media: { ...DESK, widthPx },
        wrapper: null,
        title: '',
        columnPx: null,
      });
      const likeness = new Likeness({ editor: setting(editor, widths[0]), page: setting(page, widths[1]) });
      likeness.add({ id: 'all', html });
      const report = likeness.report();
      const said = new Set<string>();
      for (const { places } of report.causes)
        for (const { path, pseudo, differences } of places)
          if (pseudo === '') for (const { property } of differences) said.add(`${path} ${property}`);

      const measure = async (all: readonly string[], widthPx: number): Promise<string[][]> => {
        const { page: tab } = await openPage(browser);
        await tab.setViewport({ width: widthPx, height: DESK.heightPx });
        await tab.setContent(html, { waitUntil: 'domcontentloaded' });
        for (const css of all) await tab.addStyleTag({ content: css });
        const values = await tab.evaluate(
          (names) =>
            [...document.querySelectorAll('html, body, body *')].map((element) => {
              const style = getComputedStyle(element);
              return names.map((property) => style.getPropertyValue(property).replace(/^start$/, 'left'));
            }),
          MEASURED,
        );
        await tab.close();
        return values;
      };
      const [one, other] = [await measure(editor, widths[0]), await measure(page, widths[1])];
      const elements = [...elementsIn(parseDocument(html))].filter(({ name: tag }) => tag !== 'head' && tag !== 'title');
      assert.equal(one.length, elements.length);
      const missed: string[] = [];
      const invented: string[] = [];
      let both = 0;
      elements.forEach((element, index) => {
        const path = pathOf(element);
        MEASURED.forEach((property, column) => {
          const isSaid = said.has(`${path} ${property}`);
          const isMeasured = one[index]![column] !== other[index]![column];
          const about = `${element.name} ${property}: ${one[index]![column]} / ${other[index]![column]}`;
          if (isSaid && isMeasured) both++;
          else if (isSaid) invented.push(about);
          else if (isMeasured && isShown(element, property, one[index]!, other[index]!)) missed.push(about);
        });
      });
      const tell = (all: string[]): string => [...new Set(all)].slice(0, 25).join('\n');
      assert.ok(both > 20, `only ${both} differences`);
      assert.ok(missed.length <= 0.005 * both, `${missed.length} of ${both + missed.length} were not said:\n${tell(missed)}`);
      assert.ok(invented.length <= 0.005 * both, `${invented.length} of ${both} are not there:\n${tell(invented)}`);
    });
});

/** Whether the property is one that this element shows: the comparison leaves out what nobody sees. */
function isShown(element: ReturnType<typeof parseDocument>['children'][number], property: string, one: string[], other: string[]): boolean {
  if (element.type !== 'element') return false;
  const { on } = SEEN.get(property)!;
  const value = (all: string[], name: string): string => all[MEASURED.indexOf(name)]!;
  if (value(one, 'display') === 'none' && value(other, 'display') === 'none') return false;
  const line = /^(border-(?:top|right|bottom|left)|outline|column-rule)-color$/.exec(property)?.[1];
  if (
    line !== undefined &&
    [one, other].some((all) => /^(none|hidden)$/.test(value(all, `${line}-style`)) || value(all, `${line}-width`) === '0px')
  )
    return false;
  if (property === 'text-decoration-color' && [one, other].some((all) => value(all, 'text-decoration-line') === 'none')) return false;
  // Lines are set in and aligned by the block that they stand in.
  if (/^text-(align|indent)/.test(property) && value(one, 'display') === 'inline') return false;
  if (on === 'text' || /^text-(align|indent)/.test(property))
    return element.children.some((child) => child.type === 'text' && child.value.trim() !== '') && property !== 'text-decoration-color';
  if (on === 'block') return value(one, 'display') !== 'inline';
  if (on === 'item') return value(one, 'display') === 'list-item';
  if (on === 'table') return element.name === 'table';
  if (on === 'caption') return element.name === 'caption';
  if (on === 'cell') return element.name === 'td' || element.name === 'th';
  if (on === 'picture') return element.name === 'img';
  return element.name !== 'br';
}
