// Prints how fast Typikon cleans, beside other libraries, in one process: interleaved runs, medians of processor time,
// speeds relative to parse5's parse and serialize alone (1.00; higher is faster). With --save they are kept in history.jsonl, with
// --against they are compared with those that were kept last.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import createDOMPurify from 'dompurify';
import { JSDOM } from 'jsdom';
import { parseFragment, serialize } from 'parse5';
import rehypeParse from 'rehype-parse';
import rehypeSanitize from 'rehype-sanitize';
import rehypeStringify from 'rehype-stringify';
import sanitizeHtml from 'sanitize-html';
import { unified } from 'unified';
import { corpus } from './corpus.mjs';
import {
  clean,
  cleanWithoutLedger,
  compileRules,
  parseFragment as read,
  readHouseLimits,
  readings,
  resolveProfile,
  runPaste,
} from './dist/core.mjs';
import { Figures } from './figures.mjs';
import { longDocument, longSheet } from './dist/long-payloads.mjs';

const root = join(import.meta.dirname, '..');
const json = (...path) => JSON.parse(readFileSync(join(root, 'demo', ...path), 'utf8'));
const resolution = resolveProfile('story-desk', (id) => json('profiles', `${id}.json`));
const house = readHouseLimits(json('house-limits.json'));
const rules = compileRules(resolution.resolved, { house: house.house });

const purify = createDOMPurify(new JSDOM('').window);
const rehype = unified().use(rehypeParse, { fragment: true }).use(rehypeSanitize).use(rehypeStringify);
const allowed = { allowedTags: [...rules.kept], allowedAttributes: { '*': ['class', 'href', 'src', 'alt', 'title', 'id', 'lang'] } };

const ENGINES = {
  'parse5 parse + serialize': (html) => serialize(parseFragment(html)),
  'Typikon, whole ledger': (html) => clean(html, rules),
  'Typikon, no ledger': (html) => cleanWithoutLedger(html, rules),
  'parse5 with source places': (html) => serialize(parseFragment(html, { sourceCodeLocationInfo: true })),
  'sanitize-html': (html) => sanitizeHtml(html, allowed),
  'rehype-sanitize': (html) => String(rehype.processSync(html)),
  'DOMPurify on jsdom': (html) => purify.sanitize(html),
};

const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];

function time(engine, html) {
  const begin = process.cpuUsage();
  engine(html);
  const { user, system } = process.cpuUsage(begin);
  return (user + system) / 1000;
}

/** Medians in milliseconds; the engines take turns, so that a busy moment hits all alike. */
function measure(html, engines, rounds) {
  const times = Object.fromEntries(Object.keys(engines).map((name) => [name, []]));
  for (let round = -3; round < rounds; round++)
    for (const [name, engine] of Object.entries(engines)) {
      const ms = time(engine, html);
      if (round >= 0) times[name].push(ms);
    }
  return Object.fromEntries(Object.entries(times).map(([name, values]) => [name, median(values)]));
}

const { kinds, growth } = corpus(root);
const figures = new Figures('main', 'higher');

/** The share of some markup that the quick reader reads; the rest is left to the standard's algorithm. */
function readQuickly(html) {
  const before = { ...readings };
  read(html);
  return (readings.quick - before.quick) / html.length;
}
const width = Math.max(...Object.keys(ENGINES).map((name) => name.length));

console.log(`Node ${process.version}. Medians of processor time in ms, and speed beside parse5 alone (1.00, higher is faster).\n`);
const speeds = Object.fromEntries(Object.keys(ENGINES).map((name) => [name, []]));
for (const [kind, html] of Object.entries(kinds)) {
  const quick = `${(readQuickly(html) * 100).toFixed(0)} % read quickly`;
  console.log(`${kind} (${html.length} characters, ${clean(html, rules).ledger.length} ledger entries, ${quick})`);
  const medians = measure(html, ENGINES, 15);
  for (const [name, ms] of Object.entries(medians)) {
    const speed = medians['parse5 parse + serialize'] / ms;
    speeds[name].push(speed);
    if (name.startsWith('Typikon')) figures.add(`${kind}, ${name}`, speed);
    console.log(`  ${name.padEnd(width)}  ${ms.toFixed(1).padStart(8)} ms  ${speed.toFixed(2).padStart(6)}`);
  }
}
console.log('\nMiddle speed over all kinds');
for (const [name, values] of Object.entries(speeds)) console.log(`  ${name.padEnd(width)}  ${median(values).toFixed(2)}`);

console.log('\nGrowth with the input: ms, and ms for each 10 000 characters');
for (const html of growth) {
  const engines = {
    'parse5 parse + serialize': ENGINES['parse5 parse + serialize'],
    'Typikon, whole ledger': ENGINES['Typikon, whole ledger'],
  };
  const medians = measure(html, engines, html.length > 5e6 ? 3 : 7);
  figures.add(`${html.length} characters, whole ledger`, medians['parse5 parse + serialize'] / medians['Typikon, whole ledger']);
  for (const [name, ms] of Object.entries(medians))
    console.log(
      `  ${String(html.length).padStart(9)}  ${name.padEnd(width)}  ${ms.toFixed(1).padStart(8)}  ${((ms / html.length) * 10_000).toFixed(2).padStart(6)}`,
    );
}
console.log('\nNesting (div in div): ms');
for (const depth of [1000, 10_000, 100_000]) {
  const html = `${'<div>'.repeat(depth)}x${'</div>'.repeat(depth)}`;
  const { 'Typikon, whole ledger': ms } = measure(html, { 'Typikon, whole ledger': ENGINES['Typikon, whole ledger'] }, 3);
  console.log(`  ${String(depth).padStart(9)}  ${ms.toFixed(1).padStart(8)}`);
}

console.log('\nPaste: the default ladder and the markup rules, beside parse5 alone (1.00)');
for (const [kind, html] of [
  ['word processor', longDocument(Math.round((60 * 100_000) / longDocument().length))],
  ['spreadsheet', longSheet(Math.round((3000 * 100_000) / longSheet().length))],
]) {
  const paste = (trace) => (text) => runPaste({ types: { 'text/html': text } }, resolution.resolved, { rules, trace });
  const medians = measure(
    html,
    {
      'parse5 parse + serialize': ENGINES['parse5 parse + serialize'],
      'Typikon, paste': paste('counts'),
      'Typikon, paste with sizes': paste('sizes'),
      'Typikon, rules alone': ENGINES['Typikon, whole ledger'],
    },
    15,
  );
  console.log(`${kind} (${html.length} characters, ${paste('counts')(html).ledger.length} ledger entries)`);
  for (const [name, ms] of Object.entries(medians)) {
    const speed = medians['parse5 parse + serialize'] / ms;
    if (name.startsWith('Typikon')) figures.add(`${kind}, ${name}`, speed);
    console.log(`  ${name.padEnd(width)}  ${ms.toFixed(1).padStart(8)} ms  ${speed.toFixed(2).padStart(6)}`);
  }
}
figures.finish();
