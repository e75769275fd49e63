import {
  BUTTONS,
  buttonOf,
  CHECKS,
  checkProfile,
  compileRules,
  mergePatch,
  missingMarkup,
  patchToAllow,
  readHouseLimits,
  type Finding,
  type JsonObject,
  type Surroundings,
} from '../src/index';
import { DEMO_PROFILES, demoHouse, demoProfile, resolved } from './support';

const head = { format: 'typikon-profile/1', name: 'Desk', purpose: 'For tests.' };
const parent: JsonObject = { ...head, markup: { elements: { p: {}, em: {} }, limits: { nesting: 30 } } };

function findings(document: JsonObject, surroundings: Surroundings = {}): Finding[] {
  const profile = resolved('desk', (id) => (id === 'desk' ? document : parent));
  const { house } = surroundings;
  return checkProfile({ resolved: profile, rules: compileRules(profile, house === undefined ? {} : { house }), ...surroundings });
}

const house = (markup: JsonObject): Surroundings => {
  const read = readHouseLimits({ format: 'typikon-house/1', markup });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return { house: read.house };
};
const elements = (rules: JsonObject): JsonObject => ({ markup: { elements: rules } });
const attribute = (element: string, name: string, test: JsonObject): JsonObject =>
  elements({ [element]: { attributes: { [name]: test } } });
const toolbar = (...buttons: string[]): JsonObject => ({ toolbar: { order: ['g'], groups: { g: { label: 'Group', buttons } } } });

type Row = [check: string, document: JsonObject, pointer: string, words: RegExp, surroundings?: Surroundings];

/** For every check, profiles that break it: where the finding points, what it says. Where there is a fix, it mends it. */
/** A page with one stylesheet. */
const pageWith = (css: string): Surroundings => ({
  pages: [{ name: 'News', wrapper: [{ element: 'main', className: 'page' }], sheets: [{ name: 'site.css', css }] }],
});
const styled = (styles: Record<string, string>, ...rest: JsonObject[]): JsonObject =>
  Object.assign(
    {
      styles: Object.fromEntries(Object.entries(styles).map(([id, selector]) => [id, { label: id, selector }])),
      ...toolbar('styles'),
      ...elements({ p: { attributes: { class: { test: 'tokens', ofStyles: true } } } }),
    },
    ...rest,
  ) as JsonObject;

const BROKEN: Row[] = [
  ['button-without-markup', toolbar('bold'), '/toolbar/groups/g', /“Bold” is on, but the rules remove its markup \(strong\)/],
  ['button-without-markup', { ...toolbar('underline'), ...elements({ u: {} }) }, '/toolbar/groups/g', /the house limits remove/, house({})],
  ['shortcut-without-markup', { toolbar: { shortcuts: { bold: true } } }, '/toolbar/shortcuts/bold', /none of strong, b/],
  ['menu-without-entries', toolbar('styles'), '/toolbar/groups', /names no styles/],
  ['style-refused', styled({ hover: 'p.note:hover' }), '/styles/hover/selector', /“hover” cannot be applied. :hover is a state/],
  ['style-refused', styled({ two: 'p.a, p.b' }), '/styles/two/selector', /a second one/],
  ['style-without-markup', styled({ quiet: 'h3.quiet' }), '/styles/quiet/selector', /the rules remove h3/],
  ['style-without-markup', styled({ note: 'p.note' }, elements({ p: {} })), '/styles/note/selector', /remove the class note on p/],
  [
    'style-without-rule',
    styled({ note: 'p.note' }),
    '/styles/note/selector',
    /shows nothing on any page kind/,
    pageWith('p.lead { color: red }'),
  ],
  [
    'style-without-rule',
    styled({ note: 'p.note' }),
    '/styles/note/selector',
    /shows nothing on “News”: no stylesheet there has a rule for p.note/,
    { pages: [...pageWith('').pages!, { name: 'Guide', wrapper: [], sheets: [{ name: 'a.css', css: '.note { color: red }' }] }] },
  ],
  [
    'class-without-style',
    styled({ note: 'p.note' }, elements({ p: { attributes: { class: { test: 'text' } } } })),
    '/styles',
    /use lead \(4 places\), which the pages style/,
    { ...pageWith('.note, .lead { color: red }'), storedClasses: { lead: 4, note: 2, unknown: 9, page: 1 } },
  ],
  [
    'styles-look-alike',
    styled({ note: 'p.note', box: 'p.box' }),
    '/styles/box',
    /“note” and “box” look the same/,
    pageWith('.note, .box { color: #333 }'),
  ],
  [
    'style-contrast',
    styled({ note: 'p.note' }),
    '/styles/note/selector',
    /hard to read: its contrast is 2.3 on “News”/,
    pageWith('p { background: #fff } .note { color: #aaa }'),
  ],
  [
    'scheme-runs-code',
    { markup: { urls: { schemes: { href: ['https', 'javascript'] } } } },
    '/markup/urls/schemes/href',
    /javascript, which runs code/,
  ],
  ['frame-without-host', attribute('iframe', 'src', { test: 'url' }), '/markup/elements/iframe/attributes/src', /any host/],
  ['frame-without-host', elements({ iframe: {} }), '/markup/elements/iframe', /stays empty/],
  [
    'escaping-sandbox',
    attribute('iframe', 'sandbox', { test: 'tokens', values: ['allow-scripts', 'allow-same-origin'] }),
    '/markup/elements/iframe/attributes/sandbox',
    /take its sandbox off/,
  ],
  ['any-style', attribute('p', 'style', { test: 'text' }), '/markup/elements/p/attributes/style', /every property may stay/],
  [
    'any-style',
    { markup: { attributes: { style: { test: 'style', properties: { color: { test: 'any' } } } } } },
    '/markup/attributes/style/properties/color',
    /color in style on any element may have any value/,
  ],
  [
    'wide-pattern',
    attribute('p', 'id', { test: 'pattern', pattern: '.*' }),
    '/markup/elements/p/attributes/id/pattern',
    /accepts everything/,
  ],
  [
    'wide-pattern',
    attribute('p', 'id', { test: 'pattern', pattern: '[a-z]*' }),
    '/markup/elements/p/attributes/id/pattern',
    /accepts the empty text/,
  ],
  [
    'lost-renaming',
    elements({ b: { outcome: 'rename', to: 'i' }, i: { outcome: 'rename', to: 'b' } }),
    '/markup/elements/b/to',
    /b becomes i becomes b: a circle/,
  ],
  ['lost-renaming', elements({ b: { outcome: 'rename', to: 'strong' } }), '/markup/elements/b/to', /strong, which is not allowed/],
  [
    'lost-demand',
    elements({ img: { required: { alt: { otherwise: 'drop' } } } }),
    '/markup/elements/img/required/alt',
    /required on img, but not allowed there/,
  ],
  ['lost-demand', elements({ p: { forced: { onclick: { value: 'x()' } } } }), '/markup/elements/p/forced/onclick', /cannot stay there/],
  ['above-house', elements({ u: {} }), '/markup/elements/u', /not by the house limits/, house({ elements: { p: {} } })],
  [
    'above-house',
    attribute('p', 'id', { test: 'text' }),
    '/markup/elements/p/attributes/id',
    /not by the house limits/,
    house({ elements: { p: {} } }),
  ],
  [
    'above-house',
    attribute('p', 'class', { test: 'tokens', values: ['note', 'loud'] }),
    '/markup/elements/p/attributes/class/values',
    /may be loud here/,
    house({ elements: { p: { attributes: { class: { test: 'tokens', values: ['note'] } } } } }),
  ],
  [
    'above-house',
    attribute('ol', 'start', { test: 'integer', min: 1 }),
    '/markup/elements/ol/attributes/start',
    /more than 9/,
    house({ elements: { ol: { attributes: { start: { test: 'integer', min: 1, max: 9 } } } } }),
  ],
  ['above-house', { markup: { limits: { nesting: 90 } } }, '/markup/limits/nesting', /90 here and 40/, house({ limits: { nesting: 40 } })],
  ['above-house', { markup: { comments: 'keep' } }, '/markup/comments', /Comments may stay here/, house({})],
  [
    'above-house',
    { markup: { urls: { schemes: { href: ['https', 'ftp'] } } } },
    '/markup/urls/schemes/href',
    /may have ftp here/,
    house({ urls: { schemes: { href: ['https'] } } }),
  ],
  [
    'attribute-without-element',
    elements({ b: { outcome: 'unwrap', attributes: { class: { test: 'text' } } } }),
    '/markup/elements/b/attributes',
    /class on b has a rule/,
  ],
  ['impossible-markup', elements({ li: {} }), '/markup/elements/li', /li is allowed, but not ul, ol or menu/],
  ['impossible-markup', elements({ p: { parents: ['section'] } }), '/markup/elements/p/parents', /p is allowed, but not section/],
  [
    'id-without-prefix',
    attribute('h2', 'id', { test: 'text' }),
    '/markup/elements/h2/attributes/id',
    /id is allowed on h2 without a prefix/,
  ],
  [
    'target-without-rel',
    attribute('a', 'target', { test: 'list', values: ['_blank'] }),
    '/markup/elements/a/attributes/target',
    /noopener/,
  ],
  ['level-one-heading', elements({ h1: {}, h2: {} }), '/markup/elements/h1', /two titles/],
  ['picture-without-alternative', attribute('img', 'src', { test: 'url' }), '/markup/elements/img', /alt on img is not allowed/],
  ['picture-without-alternative', attribute('img', 'alt', { test: 'text' }), '/markup/elements/img', /allowed without alt/],
  [
    'class-without-stylesheet',
    attribute('p', 'class', { test: 'tokens', values: ['note', 'ghost'], prefixes: ['is-'] }),
    '/markup/elements/p/attributes/class/values',
    /may be ghost, is-…, but no stylesheet/,
    { stylesheetClasses: new Set(['note']) },
  ],
  [
    'weak-contrast',
    attribute('p', 'style', { test: 'style', properties: { color: { test: 'colour', values: ['#ffd400', '#1e2430'] } } }),
    '/markup/elements/p/attributes/style/properties/color',
    /#ffd400 on white \(1\.4\)/,
  ],
  [
    'tight-limit',
    { markup: { limits: { letters: 100 } } },
    '/markup/limits/letters',
    /a stored document has 900/,
    { documents: { nesting: 9, elements: 9, letters: 900 } },
  ],
  [
    'tight-limit',
    { markup: { limits: { nesting: 4 } } },
    '/markup/limits/nesting',
    /a stored document has 9/,
    { documents: { nesting: 9, elements: 9, letters: 9 } },
  ],
  ['underline-allowed', elements({ u: {} }), '/markup/elements/u', /readers take underlined words for links/],
  ['repeated-setting', { extends: 'parent', markup: { limits: { nesting: 30 } } }, '/markup/limits', /limits repeats what is inherited/],
  ['group-without-buttons', toolbar(), '/toolbar/groups/g/buttons', /has no buttons/],
  ['group-without-buttons', { toolbar: { order: ['lost'] } }, '/toolbar/order/0', /does not exist/],
  ['empty-purpose', { purpose: ' ' }, '/purpose', /does not say what it is for/],
];

test.each(
  BROKEN.map(([check, changes, pointer, words, surroundings = {}]): Required<Row> => [check, changes, pointer, words, surroundings]),
)('%s: %j', (check, changes, pointer, words, surroundings) => {
  const document = { ...head, ...changes };
  const found = findings(document, surroundings).filter((finding) => finding.check === check);
  expect(found.map(({ pointer: at }) => at)).toContain(pointer);
  const finding = found.find(({ pointer: at }) => at === pointer)!;
  expect(finding.sentence).toMatch(words);
  if (finding.fix === undefined) return;
  const mended = mergePatch(document, finding.fix.patch) as JsonObject;
  expect(findings(mended, surroundings).filter((other) => other.check === check && other.pointer === pointer)).toEqual([]);
});

test('every check has a profile above that breaks it', () => {
  expect([...new Set(BROKEN.map(([check]) => check))].sort()).toEqual(CHECKS.map(({ id }) => id).sort());
});

test('a sound profile has no findings, the gravest come first', () => {
  expect(findings({ ...head, ...elements({ p: {}, strong: {} }), ...toolbar('bold') })).toEqual([]);
  expect(
    findings({ ...head, purpose: '', ...toolbar('bold', 'underline'), ...elements({ u: {} }) }).map(({ severity }) => severity),
  ).toEqual(['error', 'note', 'note']);
});

test.each(BUTTONS.map(({ id, label }): [string, string] => [label, id]))('%s can be allowed from nothing', (_label, id) => {
  const empty = { ...head, ...toolbar(id) };
  const rules = compileRules(resolved('x', () => empty));
  const mended = mergePatch(
    empty,
    patchToAllow(missingMarkup(buttonOf(id as never), rules, resolved('x', () => empty).profile.toolbar.options)),
  ) as JsonObject;
  expect(findings(mended).filter(({ check }) => check === 'button-without-markup')).toEqual([]);
});

test.each(DEMO_PROFILES)('the demo profile %s has no findings', (id) => {
  const profile = demoProfile(id);
  expect(checkProfile({ resolved: profile, rules: compileRules(profile, { house: demoHouse() }), house: demoHouse() })).toEqual([]);
});
