/**
 * Mutates the hostile suite and the demo's documents for some minutes, and compares: our parse with Chromium's, what is
 * stored with what is read back, one cleaning with two. Prints what differs, and exits 1 where anything did.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { clean, parseFragment, type CompiledRules, type PasteSource, type ResolvedProfile } from '../packages/core/src/index';
import { cleansOnce, hiddenStaysHidden, partsHaveWholes, pasteStands, wordsStayApart } from '../packages/core/test/content-laws';
import { HOSTILE_MARKUP } from '../packages/core/test/hostile-markup';
import { mostPermissive } from '../packages/core/test/most-permissive';
import fc from 'fast-check';
import { randomContent } from '../packages/core/test/random-content';
import { randomRuleSets } from '../packages/core/test/random-rules';
import { tangledMarkup } from '../packages/core/test/tangled-markup';
import { compileSchema } from '../packages/editor/src/schema/compile';
import { DEMO_PROFILES, demoProfile } from '../packages/editor/test/demo';
import { opensWhole, undoGivesBack } from '../packages/editor/test/open-law';
import { at } from '../scripts/lib/paths.mjs';
import { launchBrowser } from './support';
import { outlineOf, outlinesInBrowser } from './tree-outline';

const minutes = Number(process.argv[2] ?? 1);
const seed = Number(process.argv[3] ?? Date.now() % 2 ** 31);
const BATCH = 200;
const LONGEST = 4000;

/** A small generator of its own (mulberry32), so that a seed tells the whole run. */
let state = seed;
const random = (): number => {
  state = (state + 0x6d2b79f5) | 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
};
const below = (limit: number): number => Math.floor(random() * limit);
const one = <T>(of: readonly T[]): T => of[below(of.length)]!;

const documents = ['demo/documents', 'demo/specimens'].flatMap((folder) =>
  readdirSync(at(folder))
    .filter((name) => name.endsWith('.html'))
    .map((name) => readFileSync(at(`${folder}/${name}`), 'utf8')),
);
const corpus = [...HOSTILE_MARKUP, ...documents];
const PIECES = [
  '<',
  '>',
  '</',
  '/>',
  '"',
  "'",
  '=',
  '&',
  '&#',
  ';',
  '<!--',
  '-->',
  '<![CDATA[',
  ']]>',
  '\0',
  '\r',
  '\n',
  ' ',
  '<p>',
  '</p>',
  '<table>',
  '<td>',
  '<svg>',
  '</svg>',
  '<math>',
  '<select>',
  '<template>',
  '<noscript>',
  '<b>',
  '<a href=x>',
  '</a>',
  '<form>',
  '<style>',
  '<textarea>',
  '<plaintext>',
  '&lt;',
  '&nbsp;',
  'x',
];

function mutated(): string {
  let html = one(corpus);
  if (html.length > LONGEST) {
    const from = below(html.length - LONGEST);
    html = html.slice(from, from + LONGEST);
  }
  for (let step = 1 + below(6); step > 0; step--) {
    const at_ = below(html.length + 1);
    const length = below(Math.min(40, html.length - at_ + 1));
    switch (below(6)) {
      case 0:
        html = html.slice(0, at_) + html.slice(at_ + length);
        break;
      case 1:
        html = html.slice(0, at_) + one(PIECES) + html.slice(at_);
        break;
      case 2:
        html = html.slice(0, at_) + html.slice(at_, at_ + length) + html.slice(at_);
        break;
      case 3: {
        const other = one(corpus);
        const from = below(other.length);
        html = html.slice(0, at_) + other.slice(from, from + below(200)) + html.slice(at_);
        break;
      }
      case 4:
        html = html.slice(0, at_) + one(PIECES) + html.slice(at_ + length);
        break;
      default:
        html = html.slice(0, at_) + String.fromCharCode(below(128)) + html.slice(at_ + 1);
    }
  }
  return html;
}

const LAW_BATCH = 60;
const SOURCES: readonly PasteSource[] = ['web-page', 'word-processor', 'web-mail'];
const sets = randomRuleSets(60, seed);
const ruleSets = [mostPermissive(), ...sets.map(({ rules }) => rules)];
/** Those that show no tags as text and cut no text off: both make words that were not there. */
const withoutText = sets.filter(({ written }) => !/"outcome":"text"|"unlisted":"text"|"letters":/.test(written)).map(({ rules }) => rules);
const desks = DEMO_PROFILES.map((id): [ResolvedProfile, CompiledRules] => [demoProfile(id).resolved, demoProfile(id).rules]);
const schemas = [...desks.map(([, rules]) => rules), ...ruleSets.slice(0, 20)].map((rules) => ({ rules, schema: compileSchema(rules) }));
const browser = await launchBrowser();
const page = await browser.newPage();
await page.goto('about:blank');
// Functions that are handed to the page were compiled with a helper of this name.
await page.evaluate('window.__name = (named) => named');
const end = Date.now() + minutes * 60_000;
let tried = 0;
let parsed = 0;
const failures: string[] = [];
const fail = (what: string, html: string): void => {
  failures.push(what);
  if (failures.length <= 20) console.log(`${what}\n  ${JSON.stringify(html)}`);
};

/** Chromium's newer rules for `select`, and its flattening of what is nested deeper than 512, are not parse5's. */
const isComparable = (html: string): boolean => !/<(select|option|optgroup|selectedcontent|hr|search)\b/i.test(html);

/**
 * What is never stored may be read in two ways: `noscript` depends on whether scripts may run, `template` keeps a tree of its
 * own, the names in foreign elements have their own case, Chromium keeps some NUL characters and flattens deep nesting. It
 * also makes processing instructions of `<?`, which were comments, and its quick parser for short fragments reads
 * references without a semicolon or a digit in attributes, and does not reopen formatting that has an attribute `is`.
 */
const isComparableUncleaned = (html: string): boolean =>
  !/<(template|svg|math|noscript)\b|\0|<\?|<[^>]*\sis[\s=>/]|&[a-z]+[0-9=a-z]*[^;a-z0-9]|&#(?:x(?![0-9a-f])|(?![0-9x]))|&(?:nbsp|amp|lt|gt|quot)[a-z0-9]/i.test(
    html,
  ) && (html.match(/<[a-z]/gi) ?? []).length < 400;

/** Content of every kind of element, tried by the laws that the unit tests try with a seed that stays. */
const LAWS: readonly { name: string; broken: (html: string) => string | null }[] = [
  { name: 'words stay apart', broken: (html) => wordsStayApart(html, one(withoutText)) },
  { name: 'what is hidden stays hidden', broken: (html) => hiddenStaysHidden(html, one(withoutText)) },
  { name: 'parts have their wholes', broken: (html) => partsHaveWholes(html, one(ruleSets)) },
  { name: 'cleaning twice is cleaning once', broken: (html) => cleansOnce(html, one(ruleSets)) },
  { name: 'a paste stands in blocks and stays', broken: (html) => pasteStands(html, ...one(desks), one(SOURCES)) },
  {
    name: 'the editor shows all that it will store',
    broken: (html) => {
      const { rules, schema } = one(schemas);
      return opensWhole(html, schema) ?? opensWhole(clean(html, rules).html, schema);
    },
  },
  {
    name: 'undo to the start gives the same bytes',
    broken: (html) => undoGivesBack(html, one(schemas).schema, Array.from({ length: 3 + below(12) }, random)),
  },
];
let cases = 0;

function tryLaws(round: number): void {
  const contents = [
    ...fc.sample(randomContent, { numRuns: LAW_BATCH, seed: seed + round }),
    ...fc.sample(tangledMarkup, { numRuns: LAW_BATCH, seed: seed + round }).filter((html) => !/[\r\0]/.test(html)),
  ];
  for (const html of contents)
    for (const { name, broken } of LAWS) {
      cases++;
      let why: string | null;
      try {
        why = broken(html);
      } catch (error) {
        why = `threw ${(error as Error).message}`;
      }
      if (why !== null) fail(`${name}: ${why}`, html);
    }
}

for (let round = 0; Date.now() < end; round++) {
  tryLaws(round);
  const batch = Array.from({ length: BATCH }, mutated);
  tried += batch.length;
  // Halves of characters are marked before anything is read.
  const raw = batch.filter((html) => isComparable(html) && isComparableUncleaned(html)).map((html) => parseFragment(html).input);
  const seenRaw = await outlinesInBrowser(page, raw);
  parsed += raw.length;
  raw.forEach((html, index) => {
    const ours = outlineOf(parseFragment(html).root);
    const theirs = seenRaw[index]!;
    if (ours === theirs) return;
    const at_ = [...ours].findIndex((character, i) => character !== theirs[i]);
    fail(
      `Chromium reads this input as another tree: ${theirs.slice(Math.max(0, at_ - 40), at_ + 60)} instead of ${ours.slice(Math.max(0, at_ - 40), at_ + 60)}`,
      html,
    );
  });
  const cleaned = batch.map((html) => {
    const rules = one(ruleSets);
    const once = clean(html, rules);
    if (clean(once.html, rules).html !== once.html) fail('cleaning twice is not cleaning once', html);
    return { html, once };
  });
  const seen = await outlinesInBrowser(
    page,
    cleaned.map(({ once }) => once.html),
  );
  cleaned.forEach(({ html, once }, index) => {
    if (outlineOf(once.root) !== seen[index] && isComparable(once.html)) fail('Chromium reads what is stored as another tree', html);
  });
}
await browser.clean();
console.log(
  `Seed ${seed}, ${minutes} min: ${cases + tried} cases, ${LAWS.length + 3} laws, ${failures.length} failures; ${parsed} inputs were also compared with Chromium before cleaning.`,
);
process.exit(failures.length === 0 ? 0 : 1);
