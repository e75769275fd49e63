// Who wins each property, for every element of a page: beside a library that works out styles too.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { JSDOM } from 'jsdom';
import { Cascade, compareLikeness, DESK, elementsIn, parseDocument } from './dist/core.mjs';

const root = join(import.meta.dirname, '..');
const css = readFileSync(join(root, 'node_modules/bootstrap/dist/css/bootstrap.css'), 'utf8');
const documents = readdirSync(join(root, 'demo/documents')).map((file) => readFileSync(join(root, 'demo/documents', file), 'utf8'));
const all = documents.join('\n');
const page = (bytes) =>
  `<!doctype html><html><head><title>T</title></head><body><main class="page">${all.repeat(Math.ceil(bytes / all.length)).slice(0, bytes)}</main></body></html>`;

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
function measure(times, act) {
  const taken = [];
  for (let time = 0; time < times; time++) {
    globalThis.gc?.();
    const begin = performance.now();
    act();
    taken.push(performance.now() - begin);
  }
  return median(taken);
}

const large = page(100_000);
const count = [...elementsIn(parseDocument(large))].length;
const reading = measure(15, () => new Cascade([{ name: 'a.css', css }], DESK));
const cascade = new Cascade([{ name: 'a.css', css }], DESK);
const deciding = measure(15, () => {
  for (const element of elementsIn(parseDocument(large))) cascade.contests(element);
});
console.log(
  `A framework stylesheet of ${Math.round(css.length / 1000)} kB on a page of ${Math.round(large.length / 1000)} kB with ${count} elements, medians:`,
);
console.log(`  reading the stylesheet        ${reading.toFixed(0)} ms, once`);
console.log(`  the page, every contest       ${deciding.toFixed(0)} ms`);

// The other library takes far longer, so it gets a small page; both are counted for an element.
const small = page(6_000);
const ours = measure(9, () => {
  const own = new Cascade([{ name: 'a.css', css }], DESK);
  for (const element of elementsIn(parseDocument(small))) own.contests(element);
});
const theirs = measure(3, () => {
  const { window } = new JSDOM(small.replace('</head>', `<style>${css}</style></head>`));
  for (const element of window.document.querySelectorAll('*')) window.getComputedStyle(element).getPropertyValue('color');
  window.close();
});
const few = [...elementsIn(parseDocument(small))].length;
console.log(`A page of 6 kB with ${few} elements, stylesheet and page read anew, medians:`);
console.log(`  Typikon, every property       ${ours.toFixed(0)} ms`);
console.log(`  jsdom, computed styles        ${theirs.toFixed(0)} ms, ${(theirs / ours).toFixed(1)} times as long`);

const setting = (sheets) => ({ sheets, media: DESK, wrapper: [{ element: 'main', className: 'page' }], title: '', columnPx: 700 });
const many = documents.map((html, id) => ({ id: String(id), html }));
const input = {
  editor: setting([{ name: 'a.css', css }]),
  page: setting([
    { name: 'a.css', css },
    { name: 'b.css', css: 'p, li { color: red } h2 { margin: 0 }' },
  ]),
};
const comparing = measure(7, () => compareLikeness(input, many));
console.log(`Comparing ${many.length} documents under the framework stylesheet and one more: ${comparing.toFixed(0)} ms`);
