import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  actSentence,
  AUTHOR_TASKS,
  asBrowsersWrite,
  bestFirst,
  Cascade,
  causeSentence,
  causeTitle,
  checkProfile,
  clean,
  compareLikeness,
  compileRules,
  cssMistakes,
  DESK,
  elementsIn,
  lessonsOf,
  measure,
  overtakenPasses,
  parseDocument,
  parseFragment,
  pathOf,
  proposeRepairs,
  readStyle,
  refusalSentence,
  repairSentence,
  runPaste,
  specificityText,
  Styles,
  stylesInCss,
  takeCensus,
  takeInventory,
  toSanitizerConfig,
  trialSentence,
  tryRepair,
  tryTasks,
  type LedgerEntry,
  type LikenessInput,
  type Setting,
} from '../src/index';
import { DEMO, DEMO_MARKUP, DEMO_PROFILES, demoHouse, demoProfile } from './support';
import { demoSpecimens, isWord } from './specimens';

/*
 * What becomes of the demo content, line by line. A difference is either meant, and then the file of the snapshot shows it to
 * whoever reads the change, or it is not.
 */

const house = demoHouse();
const sheet = (name: string) => ({ name, css: readFileSync(join(DEMO, 'stylesheets', name), 'utf8') });
const documents = DEMO_MARKUP.filter(({ name }) => name.startsWith('documents/'));
const short = (text: string): string => JSON.stringify(text.length > 120 ? `${text.slice(0, 80)}…${text.slice(-30)}` : text);

/** An entry of a ledger on one line. */
function line({
  stage,
  layer,
  rule,
  action,
  subject,
  start,
  end,
  path,
  reason,
  severity,
  before,
  after,
  textLost,
  detail,
}: LedgerEntry): string {
  const { kind, element, attribute = '', property = attribute, host, name } = subject;
  const about = [kind, property, ...[element, host, name].filter((one) => one !== undefined && one !== '' && !path.endsWith(one))].filter(
    (one) => one !== '',
  );
  const told = [
    `${stage} ${layer}${rule}`,
    action,
    about.join(' '),
    `${path}@${start}-${end}`,
    reason,
    severity,
    `${short(before)} → ${short(after)}`,
  ];
  return [...told, ...(textLost === 0 ? [] : [`lost ${textLost}`]), ...(detail === undefined ? [] : [detail])].join(' · ');
}

describe('pasted', () => {
  test.each(demoSpecimens().map((specimen) => [specimen.id!, specimen] as const))('%s', (_id, { payload, profile }) => {
    for (const id of new Set([profile, 'reply', 'notices-desk'])) {
      const resolved = demoProfile(id);
      const pasted = runPaste(payload, resolved, { house, isWord, whatIf: true });
      const { lettersBefore, lettersAfter, lettersMissed, changes, losses } = measure(
        pasted.input,
        pasted.html,
        pasted.root,
        pasted.ledger,
      );
      expect({
        source: pasted.source,
        html: pasted.html.split('\n'),
        trace: pasted.trace.map((one) => JSON.stringify({ ...one, before: undefined, after: undefined })),
        measures: { lettersBefore, lettersAfter, lettersMissed, changes, losses },
        ledger: pasted.ledger.map(line),
        inventory: takeInventory(pasted.html).map((thing) => JSON.stringify(thing)),
        overtaken: overtakenPasses(payload, resolved, { house, isWord }).map((one) => JSON.stringify(one)),
      }).toMatchSnapshot(id);
    }
  });
});

describe('stored', () => {
  test.each(documents.map(({ name, html }) => [name, html]))('%s', (_name, html) => {
    for (const id of ['reply', 'story-desk']) {
      const cleaned = clean(html, compileRules(demoProfile(id), { house }));
      expect({ html: cleaned.html.split('\n'), ledger: cleaned.ledger.map(line) }).toMatchSnapshot(id);
    }
    expect(takeCensus(parseFragment(html).root)).toMatchSnapshot('census');
  });
});

test.each(DEMO_PROFILES)('the profile %s', (id) => {
  const resolved = demoProfile(id);
  const rules = compileRules(resolved, { house });
  const stylesheets = resolved.profile.styles;
  expect({
    findings: checkProfile({ resolved, rules }).map((finding) => JSON.stringify(finding)),
    tasks: tryTasks(
      resolved.profile.toolbar,
      rules,
      AUTHOR_TASKS.map((task) => task.id),
    ),
    sanitizer: toSanitizerConfig(resolved, rules),
    styles: Object.values(stylesheets).map(({ selector }) => {
      const read = readStyle(selector);
      return `${selector}: ${read.ok ? actSentence(read.act) : refusalSentence(read.refusal)}`;
    }),
    lessons: lessonsOf(DEMO_MARKUP.find(({ name }) => name.includes('old-site-page'))!.html, resolved, { house }),
  }).toMatchSnapshot();
});

const SHEETS = ['reset.css', 'general.css', 'fonts.css', 'site.css', 'figures.css', 'notices.css', 'night.css', 'print.css', 'tender.css'];

test.each(SHEETS)('the stylesheet %s', (name) => {
  const { css } = sheet(name);
  expect({
    mistakes: cssMistakes(css),
    styles: stylesInCss(css).map((style) => JSON.stringify(style)),
  }).toMatchSnapshot();
});

test('who wins each property, who loses, and what is computed', () => {
  const told: string[] = [];
  for (const { name, html } of documents.slice(0, 3)) {
    const cascade = new Cascade(SHEETS.map(sheet), DESK);
    const styles = new Styles(cascade, DESK);
    for (const element of [...elementsIn(parseDocument(html))].slice(0, 60)) {
      const contests = cascade.contests(element).map(({ property, winner, losers }) => {
        const words = [winner, ...losers].map(
          (one) => `${one.sheet}:${one.line} ${one.selector} ${one.value} ${specificityText(one.specificity)}`,
        );
        return `${property}: ${words.join(' < ')} = ${asBrowsersWrite(property, styles.of(element).value(property))}`;
      });
      told.push(`${name} ${pathOf(element)}`, ...contests.sort());
    }
  }
  expect(told).toMatchSnapshot();
});

test('what differs between an editor and a page, why, and what repairs it', () => {
  const setting = (...names: string[]): Setting => ({ sheets: names.map(sheet), media: DESK, wrapper: null, title: '', columnPx: null });
  const pairs: LikenessInput[] = [
    { editor: setting('site.css', 'figures.css'), page: setting('site.css'), editingSheets: [] },
    { editor: setting('general.css', 'notices.css'), page: setting('notices.css', 'general.css'), editingSheets: [] },
    { editor: setting('site.css'), page: setting('reset.css', 'site.css', 'tender.css'), editingSheets: [] },
  ];
  const contents = documents.slice(0, 8).map(({ name, html }) => ({ id: name, html }));
  for (const input of pairs) {
    const report = compareLikeness(input, contents);
    expect(
      report.causes.map((cause) => ({
        title: causeTitle(cause),
        sentence: causeSentence(cause),
        properties: cause.properties,
        places: cause.places.length,
        repairs: bestFirst(
          proposeRepairs(cause, input, new Map(contents.map(({ id, html }) => [id, html])), { mayLoad: () => true }).map((repair) => ({
            repair,
            trial: tryRepair(repair, cause, input, contents, report),
          })),
        ).map(({ repair, trial }) => `${repairSentence(repair)} ${trialSentence(trial)}`),
      })),
    ).toMatchSnapshot();
  }
});
