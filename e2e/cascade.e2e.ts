import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { after, before, describe, test } from 'node:test';
import type { Browser } from 'puppeteer-core';
import { Cascade, DESK, elementsIn, parseDocument, pathOf } from '../packages/core/src/index';
import { at } from '../scripts/lib/paths.mjs';
import { launchBrowser, openPage } from './support';

const file = (name: string): string => readFileSync(createRequire(import.meta.url).resolve(name), 'utf8');

/** Stylesheets that many sites use, the site's own, and one that goes through the standard's corners. */
const SHEETS: Readonly<Record<string, string>> = {
  'the site': readFileSync(at('demo/stylesheets/site.css'), 'utf8'),
  'normalize.css': file('normalize.css/normalize.css'),
  'water.css': file('water.css/out/light.css'),
  'pico.css': file('@picocss/pico/css/pico.css'),
  'bootstrap.css': file('bootstrap/dist/css/bootstrap.css'),
  corners: `
    @layer late, early; @layer early { p { color: rgb(1, 1, 1) } .note { color: rgb(1, 1, 2) !important } }
    @layer late { .note { color: rgb(2, 2, 2) !important } @layer inner { p { text-indent: 1px } } p { text-indent: 2px } }
    :where(main .page) p { letter-spacing: 1px } article > p:not(.note, .lead) { letter-spacing: 2px }
    li:nth-child(2n + 1 of :not(.x)) { word-spacing: 1px } li:is(:first-child, :last-child) { word-spacing: 2px }
    p:has(> a) { font-style: italic } p:has(strong) { font-style: oblique } h2 + p { font-style: normal }
    table { border: 3px solid red; & td { padding: 1px 2px 3px; border-left: 0 } th, td { padding-left: 9px } }
    @media (min-width: 600px) { h2 { margin: 1px auto 2px } } @media (width < 600px) { h2 { margin: 9px } }
    @supports (display: grid) { ul { margin-inline: 7px 8px } } h2 { margin-inline-start: 5px; color: nonsense; color: rgb(5, 5, 5) }
    [href^="http"] { color: rgb(6, 6, 6) } a:not([href*="saltmarrow" i]) { color: rgb(7, 7, 7) } a:hover { color: rgb(8, 8, 8) }
    img { border: 1px solid; width: 50% } figure img { border-width: 2px } :root { --gap: 4px } blockquote { margin: var(--gap) 0; padding: var(--none, 6px) }
    p, p:unknown-thing { color: rgb(9, 9, 9) } td { text-align: right } em { font: italic 700 13px/1.5 Georgia, serif } strong { background: rgb(1, 2, 3) none }`,
};

const BODY = readdirSync(at('demo/documents'))
  .map((name) => readFileSync(at('demo/documents', name), 'utf8'))
  .join('\n');

let browser: Browser & { clean(): Promise<void> };
before(async () => {
  browser = await launchBrowser();
});
after(() => browser?.clean());

describe('who wins is who wins in Chromium', () => {
  for (const [name, css] of Object.entries(SHEETS))
    for (const widthPx of [1280, 480])
      test(`${name}, ${widthPx} pixels wide`, async () => {
        const html = `<!DOCTYPE html><html lang="en"><head><title>T</title><style>${css.replaceAll('</style', '')}</style></head><body><main class="page"><article class="body">${BODY}</article></main></body></html>`;
        const cascade = new Cascade([{ name: 'sheet.css', css }], { ...DESK, widthPx });
        const elements = [...elementsIn(parseDocument(html))];
        const claims = elements.flatMap((element, index) =>
          cascade
            .contests(element)
            .filter(({ property, winner }) => !property.startsWith('--') && !/^(revert|revert-layer)$/.test(winner.value))
            // What holds a variable is forced as it was written, since it cannot be taken apart.
            .map(({ property, winner }) => ({
              index,
              property,
              set: /\bvar\(/.test(winner.value) ? winner.property : property,
              value: winner.value,
              path: pathOf(element),
              by: winner.selector,
            })),
        );
        const { page } = await openPage(browser);
        // Nothing is asked for: sheets that go by it are computed as for everybody.
        await page.emulateMediaFeatures([]);
        await page.setViewport({ width: widthPx, height: DESK.heightPx });
        await page.setJavaScriptEnabled(true);
        await page.setContent(html, { waitUntil: 'domcontentloaded' });
        await page.addStyleTag({ content: '*, ::before, ::after { transition: none !important; animation: none !important }' });
        // Were a winner another one, forcing the value that we say would change what is shown.
        const wrong = await page.evaluate((all) => {
          const nodes = [...document.querySelectorAll('*')].filter(
            (node, at, list) => !(node.localName === 'style' && at !== list.findIndex((other) => other.localName === 'style')),
          );
          const found: string[] = [];
          let tried = 0;
          for (const { index, property, set, value, path, by } of all) {
            const node = nodes[index] as HTMLElement | undefined;
            if (node?.style === undefined || /^(transition|animation)/.test(property)) continue;
            const computed = getComputedStyle(node);
            const before = computed.getPropertyValue(property);
            if (before === '') continue;
            const own = node.getAttribute('style');
            node.style.setProperty(set, value, 'important');
            if (node.getAttribute('style') === own) continue;
            tried++;
            const after = computed.getPropertyValue(property);
            if (own === null) node.removeAttribute('style');
            else node.setAttribute('style', own);
            if (after !== before) found.push(`${path} ${property}: ${before} is shown, ${value} of ${by} would be ${after}`);
          }
          return { found, tried, elements: nodes.length };
        }, claims);
        assert.equal(wrong.elements, elements.length);
        assert.ok(wrong.tried > 50, `only ${wrong.tried} were tried`);
        const share = 1 - wrong.found.length / wrong.tried;
        assert.ok(
          share >= 0.995,
          `${(share * 100).toFixed(2)} % of ${wrong.tried} agree:\n${[...new Set(wrong.found.map((line) => line.replace(/^\S+( > \S+)* /, '')))].slice(0, 30).join('\n')}`,
        );
        await page.close();
      });
});

/** What the debugging protocol tells of a rule that matches an element. */
interface MatchedRule {
  rule: {
    origin: string;
    selectorList: { text: string };
    style: {
      range?: { startLine: number };
      cssProperties: { name: string; value: string; important?: boolean; disabled?: boolean; parsedOk?: boolean }[];
    };
  };
}

/** So many elements of each kind are asked about; the protocol takes its time. */
const MOST_ALIKE = 3;

describe('who wins is who the browser’s own inspector says', () => {
  for (const [name, css] of Object.entries(SHEETS))
    test(name, async () => {
      const html = `<!DOCTYPE html><html lang="en"><head><title>T</title><style>${css.replaceAll('</style', '')}</style></head><body><main class="page"><article class="body">${BODY}</article></main></body></html>`;
      const cascade = new Cascade([{ name: 'sheet.css', css }], DESK);
      const { page } = await openPage(browser);
      await page.emulateMediaFeatures([]);
      await page.setViewport({ width: DESK.widthPx, height: DESK.heightPx });
      await page.setContent(html, { waitUntil: 'domcontentloaded' });
      const client = await page.createCDPSession();
      await client.send('DOM.enable');
      await client.send('CSS.enable');
      const { root } = await client.send('DOM.getDocument', { depth: -1, pierce: false });
      const nodes: number[] = [];
      const walk = (node: { nodeId: number; nodeType: number; children?: unknown[] }): void => {
        if (node.nodeType === 1) nodes.push(node.nodeId);
        for (const child of (node.children ?? []) as never[]) walk(child);
      };
      walk(root);
      const elements = [...elementsIn(parseDocument(html))];
      assert.equal(nodes.length, elements.length);
      const seen = new Map<object, number>();
      const wrong: string[] = [];
      let compared = 0;
      for (const [index, element] of elements.entries()) {
        const contests = cascade.contests(element);
        const often = (seen.get(contests) ?? 0) + 1;
        seen.set(contests, often);
        if (often > MOST_ALIKE || contests.length === 0) continue;
        const answer = await client.send('CSS.getMatchedStylesForNode', { nodeId: nodes[index]! });
        const rules = ((answer.matchedCSSRules ?? []) as unknown as MatchedRule[]).filter(({ rule }) => rule.origin === 'regular');
        const inline = answer.inlineStyle?.cssProperties ?? [];
        for (const { property, winner, losers } of contests) {
          // Which of several important declarations in layers is stronger, the inspector's list does not say.
          if ([winner, ...losers].filter(({ important, layer }) => important && layer !== '').length > 1) continue;
          if (winner.sheet === 'attributes' || property.startsWith('-webkit-')) continue;
          const declares = (list: MatchedRule['rule']['style']['cssProperties'], wanted: boolean): boolean =>
            list.some(
              (one) => one.name === property && one.disabled !== true && one.parsedOk !== false && (one.important === true) === wanted,
            );
          const find = (wanted: boolean): string | null => {
            if (!wanted && declares(inline, false)) return 'style';
            if (wanted && declares(inline, true)) return 'style';
            const found = [...rules].reverse().find(({ rule }) => declares(rule.style.cssProperties, wanted));
            return found === undefined ? null : `${found.rule.selectorList.text} at ${(found.rule.style.range?.startLine ?? -1) + 1}`;
          };
          const theirs = find(true) ?? find(false);
          // A shorthand that holds a variable is not taken apart by the inspector, and logical names keep their names.
          if (theirs === null) continue;
          compared++;
          const ours = winner.sheet === 'style' ? 'style' : winner.selector;
          // The inspector writes odd and even as formulas, the double colon, no * before it, and & before what is nested.
          const same = (text: string): string =>
            text
              .replace(/\(even\)/g, '(2n)')
              .replace(/\(odd\)/g, '(2n+1)')
              .replace(/[\s"'&]+/g, '')
              .replace(/\*?::?/g, ':')
              .toLowerCase();
          if (theirs === 'style' ? ours !== 'style' : same(theirs.replace(/ at \d+$/, '')) !== same(ours))
            wrong.push(`${pathOf(element).replace(/^.* > /, '')} ${property}: ${ours} here, ${theirs} there`);
        }
      }
      await page.close();
      assert.ok(compared > 50, `only ${compared} were compared`);
      assert.ok(
        wrong.length <= compared * 0.005,
        `${wrong.length} of ${compared} have another winner:\n${[...new Set(wrong)].slice(0, 30).join('\n')}`,
      );
    });
});
