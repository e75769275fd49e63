import { comparePasses, compileRules, PASS_IDS, resolveProfile, type ComparedSide, type JsonObject, type PassId } from '../src/index';
import { DEMO_PROFILES, demoHouse, demoProfile } from './support';

jest.setTimeout(120_000);

describe('passes', () => {
  const side = (name: string, passes: JsonObject): ComparedSide => {
    const resolution = resolveProfile(name, () => ({
      format: 'typikon-profile/1',
      name,
      markup: {
        elements: {
          p: {},
          ul: {},
          li: {},
          b: {},
          strong: {},
          h2: {},
          table: {},
          tbody: {},
          tr: {},
          td: {},
          th: {},
          a: { attributes: { href: { test: 'url' } } },
          br: {},
        },
        attributes: { class: { test: 'text' }, style: { test: 'style', properties: { color: { test: 'any' } } } },
      },
      paste: { passes },
    }));
    if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
    return { profile: resolution.resolved.profile, rules: compileRules(resolution.resolved), name };
  };
  test.each<[string, JsonObject, JsonObject, string]>([
    [
      'lists',
      {},
      { lists: { on: false } },
      'Paste, Rebuild lists: Paragraphs that only look like list items become lists. A does that, B does not.',
    ],
    ['lists', {}, { lists: { typed: false } }, 'Paste, Rebuild lists: A and B set it differently (typed).'],
    [
      'inline-style',
      { 'inline-style': { on: false } },
      {},
      'Paste, Inline style: Weight and slant become strong and em; the rest goes. B does that, A does not.',
    ],
    [
      'typography',
      {},
      { typography: { on: true } },
      'Paste, Typography: Quotation marks, dashes and ellipses take the house form. B does that, A does not.',
    ],
    [
      'links',
      {},
      { links: { on: false } },
      'Paste, Links: Dead links go, their words stay; tracking and redirects are undone. A does that, B does not.',
    ],
    [
      'joined-lines',
      {},
      { 'joined-lines': { on: false } },
      'Paste, Joined lines: Lines broken to fit a page become paragraphs again. A does that, B does not.',
    ],
    [
      'find-replace',
      {},
      { 'find-replace': { rules: [{ find: 'quay', replace: 'Quay' }] } },
      'Paste, Find and replace: A and B set it differently (rules).',
    ],
  ])('%s %j %j', (name, from, to, sentence) => {
    const lines = comparePasses(side('A', from), side('B', to));
    expect(lines.map((line) => line.sentence)).toEqual([sentence]);
    expect(lines[0]).toMatchObject({ subject: { kind: 'pass', name } });
    expect(lines[0]!.results.from).not.toBe(lines[0]!.results.to);
  });
  test('alike where they are set alike', () => {
    const one = demoProfile('story-desk');
    const same = { profile: one.profile, rules: compileRules(one), name: 'A' };
    expect(comparePasses(same, { ...same, profile: structuredClone(one.profile) })).toEqual([]);
  });
});

/** Rules under which nearly everything stays that a pass may leave: what a pass does is seen. */
function wide(name: string, paste: JsonObject, more: JsonObject = {}): ComparedSide {
  const plain =
    'p div h1 h2 h3 h4 h5 h6 ul ol li b strong i em u s del ins sub sup span font table thead tbody tr td th br blockquote section ruby'.split(
      ' ',
    );
  const text = { test: 'text' };
  const resolution = resolveProfile(name, () => ({
    format: 'typikon-profile/1',
    name,
    markup: {
      elements: {
        ...Object.fromEntries(plain.map((element) => [element, {}])),
        a: { attributes: { href: { test: 'url' }, name: text } },
        img: { attributes: { src: { test: 'url' }, alt: text, width: { test: 'integer' }, height: { test: 'integer' } } },
      },
      attributes: {
        ...Object.fromEntries(['class', 'title', 'lang', 'dir', 'id', 'hidden', 'align', 'width', 'role'].map((key) => [key, text])),
        style: {
          test: 'style',
          properties: Object.fromEntries(
            ['color', 'font-family', 'text-align', 'font-weight', 'font-style', 'display', 'hyphens', '-webkit-hyphens'].map((property) => [
              property,
              { test: 'any' },
            ]),
          ),
        },
      },
      urls: { schemes: { href: ['https', 'file', 'mailto'], src: ['https', 'data'] } },
    },
    styles: { lead: { label: 'Lead', selector: 'p.lead' } },
    paste,
    ...more,
  }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return { profile: resolution.resolved.profile, rules: compileRules(resolution.resolved), name };
}

/** Two settings of a pass that differ in one thing, beside what it takes for that to matter. */
const SETTINGS: readonly [pass: PassId, one: JsonObject, other: JsonObject][] = [
  ['joined-lines', { hyphens: 'dictionary' }, { hyphens: 'close' }],
  ['joined-lines', { hyphens: 'dictionary' }, { hyphens: 'keep' }],
  ['joined-lines', { hyphens: 'close' }, { hyphens: 'keep' }],
  ['joined-lines', {}, { sources: ['web-mail'] }],
  ['notes', { become: 'linked' }, { become: 'bracketed' }],
  ['notes', { become: 'linked' }, { become: 'drop' }],
  ['notes', { become: 'bracketed' }, { become: 'drop' }],
  ['notes', {}, { sources: ['word-processor'] }],
  ['lists', { typed: true }, { typed: false }],
  ['lists', {}, { sources: ['web-mail'] }],
  ['tables', { sources: ['web-mail'] }, { on: false }],
  ['notes', { sources: ['chat'], on: false }, { sources: ['chat'] }],
  ['links', { sources: ['chat'] }, { sources: ['spreadsheet'] }],
  ['office-leftovers', { deletions: 'drop' }, { deletions: 'keep' }],
  ['office-leftovers', { comments: 'drop' }, { comments: 'keep' }],
  ['office-leftovers', { hidden: 'drop' }, { hidden: 'keep' }],
  ['office-leftovers', { languages: 'drop' }, { languages: 'keep' }],
  ['headings', { outline: true }, { outline: false }],
  ['headings', { boldOnly: true }, { boldOnly: false }],
  ['headings', { boldOnly: true, level: 2 }, { boldOnly: true, level: 3 }],
  ['headings', { longest: 30 }, { longest: 31 }],
  ['headings', { longest: 400 }, { longest: 90 }],
  ['headings', { boldOnly: true, outline: false, longest: 30 }, { boldOnly: true, outline: false, longest: 40 }],
  ['inline-style', { keep: ['color'] }, {}],
  ['inline-style', { keep: ['text-align'] }, { keep: ['font-family'] }],
  ['inline-style', { drop: ['color'] }, { drop: [] }],
  ['inline-style', { drop: ['font-family'] }, { keep: ['font-family'] }],
  ['inline-style', { vendor: 'keep' }, { vendor: 'drop' }],
  ['inline-style', { asMarkup: true }, { asMarkup: false }],
  ['inline-style', { alignmentClasses: { center: 'middle' } }, {}],
  ['inline-style', { alignmentClasses: { justify: 'even' } }, { alignmentClasses: { justify: 'both' } }],
  ['classes', { become: 'drop-office' }, { become: 'drop-all' }],
  ['classes', { become: 'drop-office' }, { become: 'keep-named' }],
  ['classes', { become: 'keep-named', keep: ['quay-*'] }, { become: 'keep-named' }],
  ['classes', { become: 'keep-named', keep: ['quay'] }, { become: 'keep-named', keep: ['pier'] }],
  ['classes', { become: 'keep-styles' }, { become: 'keep-named' }],
  ['classes', { drop: ['quay'] }, {}],
  ['wrappers', { which: 'all' }, { which: 'bare' }],
  ['wrappers', { elements: ['span'] }, { elements: ['font'] }],
  ['wrappers', { elements: ['sub'] }, { elements: [] }],
  ['wrappers', { join: true }, { join: false }],
  ['elements', { on: true, unwrap: ['h2'] }, { on: true }],
  ['elements', { on: true, drop: ['sup'] }, { on: true, unwrap: ['sup'] }],
  ['elements', { on: true, attributes: ['title'] }, { on: true }],
  ['elements', { on: true, attributes: ['alt'] }, { on: true }],
  ['elements', { on: true, only: ['p'] }, { on: true }],
  ['elements', { on: true, only: ['p', 'img'] }, { on: true, only: ['p'] }],
  ['elements', { on: true, onlyAttributes: ['href'] }, { on: true }],
  ['elements', { on: true, onlyAttributes: ['href'] }, { on: true, onlyAttributes: ['href', 'lang'] }],
  ['links', { parameters: ['from'] }, { parameters: [] }],
  ['links', { parameters: ['pk_*'] }, { parameters: ['pk_a'] }],
  ['links', { redirects: [{ host: 'safe.mail.example', parameter: 'q' }] }, {}],
  ['links', { unwrapHosts: ['tracker.example'] }, {}],
  ['links', { local: 'keep' }, { local: 'unwrap' }],
  ['links', { bookmarks: 'used' }, { bookmarks: 'drop' }],
  ['links', { bookmarks: 'used' }, { bookmarks: 'keep' }],
  ['links', { bookmarks: 'drop' }, { bookmarks: 'keep' }],
  ['pictures', { embedded: 'library' }, { embedded: 'stand-in' }],
  ['pictures', { embedded: 'library' }, { embedded: 'drop' }],
  ['pictures', { remote: 'keep' }, { remote: 'drop' }],
  ['pictures', { remote: 'stand-in' }, { remote: 'drop' }],
  ['pictures', { local: 'stand-in' }, { local: 'drop' }],
  ['pictures', { pixels: 'drop' }, { pixels: 'keep' }],
  ['pictures', { widestPx: 720 }, {}],
  ['pictures', { widestPx: 720 }, { widestPx: 721 }],
  ['tables', { sizes: 'drop' }, { sizes: 'keep' }],
  ['tables', { headerRow: 'marked' }, { headerRow: 'looks-so' }],
  ['tables', { headerRow: 'marked' }, { headerRow: 'never' }],
  ['tables', { cellParagraphs: 'unwrap' }, { cellParagraphs: 'keep' }],
  ['tables', { layout: 'flatten' }, { layout: 'keep' }],
  ['tables', {}, { sources: ['spreadsheet'] }],
  ['find-replace', { rules: [{ find: 'quay', replace: 'Quay' }] }, {}],
  ['find-replace', { rules: [{ find: 'q[ui]ay{2}', as: 'pattern', replace: 'Quay' }] }, {}],
  ['find-replace', { rules: [{ find: 'quay', in: 'attributes', name: 'title', replace: 'Quay' }] }, {}],
  ['find-replace', { rules: [{ find: 'https://old.example/', in: 'attributes', replace: 'https://new.example/' }] }, {}],
  ['find-replace', { rules: [{ find: 'Sent from my boat', in: 'elements', name: 'div' }] }, {}],
  ['typography', { on: true, quotes: 'curly-single' }, { on: true, quotes: 'curly-double' }],
  ['typography', { on: true, quotes: 'straight' }, { on: true, quotes: 'keep' }],
  ['typography', { on: true, quotes: 'curly-single' }, { on: true, quotes: 'keep' }],
  ['typography', { on: true, dashes: 'spaced-en' }, { on: true, dashes: 'em' }],
  ['typography', { on: true, dashes: 'em' }, { on: true, dashes: 'keep' }],
  ['typography', { on: true, ellipsis: 'character' }, { on: true, ellipsis: 'dots' }],
  ['typography', { on: true, ellipsis: 'dots' }, { on: true, ellipsis: 'keep' }],
  ['spaces', { hardSpaces: 'all' }, { hardSpaces: 'meaningless' }],
  ['spaces', { hardSpaces: 'meaningless' }, { hardSpaces: 'runs' }],
  ['spaces', { hardSpaces: 'runs' }, { hardSpaces: 'keep' }],
  ['spaces', { emptyParagraphs: 'remove' }, { emptyParagraphs: 'breaks' }],
  ['spaces', { emptyParagraphs: 'breaks' }, { emptyParagraphs: 'keep' }],
  ['spaces', { lines: 'enter-key' }, { lines: 'keep' }],
  ['spaces', { whiteSpace: 'collapse' }, { whiteSpace: 'keep' }],
  ['spaces', { breaks: 'paragraphs' }, { breaks: 'keep' }],
  ['spaces', { invisible: true }, { invisible: false }],
];

describe('every setting of every pass', () => {
  test.each(PASS_IDS.map((id) => [id]))('%s on and off', (id) => {
    // These two do nothing that shows before something is named.
    const named: Record<string, JsonObject> = {
      'find-replace': { rules: [{ find: 'quay', replace: 'Quay' }] },
      elements: { unwrap: ['h2'] },
    };
    const [on, off] = [true, false].map((is) => wide(is ? 'A' : 'B', { passes: { [id]: { ...named[id], on: is } } }));
    expect(comparePasses(on!, off!).map(({ subject }) => subject.name)).toEqual([id]);
    expect(comparePasses(off!, on!).map(({ subject }) => subject.name)).toEqual([id]);
  });

  test.each(SETTINGS)('%s %j and %j', (id, one, other) => {
    const [from, to] = [wide('A', { passes: { [id]: one } }), wide('B', { passes: { [id]: other } })];
    for (const lines of [comparePasses(from, to), comparePasses(to, from)]) {
      expect(lines.map(({ subject }) => subject.name)).toEqual([id]);
      expect(lines[0]!.results.from).not.toBe(lines[0]!.results.to);
    }
  });

  test('each of them is among those', () => {
    const { passes } = wide('A', {}).profile.paste;
    const untold = PASS_IDS.flatMap((id) => {
      const told = new Set(
        SETTINGS.filter(([pass]) => pass === id).flatMap(([, one, other]) => [...Object.keys(one), ...Object.keys(other)]),
      );
      return Object.keys(passes[id]).filter((key) => key !== 'on' && key !== 'sources' && !told.has(key));
    });
    expect(untold).toEqual([]);
  });

  test('where one profile has no rule for it, the other shows it', () => {
    const narrow = { ...wide('A', { passes: { tables: { sizes: 'keep' } } }), rules: wide('C', {}).rules };
    const poor = resolveProfile('A', () => ({
      format: 'typikon-profile/1',
      name: 'A',
      markup: { elements: { p: {} } },
      paste: { passes: { tables: { sizes: 'keep' } } },
    }));
    if (!poor.ok) throw new Error('no profile');
    const from: ComparedSide = { profile: poor.resolved.profile, rules: compileRules(poor.resolved), name: 'A' };
    const lines = comparePasses(from, wide('B', {}));
    expect(lines.map(({ subject }) => subject.name)).toEqual(['tables']);
    expect(comparePasses(from, { ...from, profile: narrow.profile, name: 'B' })).toEqual([]);
  });
});

describe('what decides beside the passes', () => {
  test.each<[string, JsonObject, JsonObject, JsonObject, string]>([
    ['choice', {}, { choice: 'plain' }, {}, 'What a paste becomes: A takes it cleaned, B takes its words alone.'],
    ['markdown', {}, { markdown: false }, {}, 'Pasted text that looks like Markdown: A reads it as such, B takes it as plain words.'],
    ['enter', {}, {}, { surface: { enter: 'break' } }, 'Pasted lines stand as the Enter key makes them: A paragraphs, B line breaks.'],
    [
      'order',
      {},
      { order: ['classes', 'headings'] },
      {},
      'The order of the passes: behind 0 alike, A goes on with Joined lines, B with Classes.',
    ],
  ])('%s', (name, from, to, more, sentence) => {
    const [one, other] = [wide('A', from), wide('B', to, more)];
    expect(comparePasses(one, other).map((line) => [line.subject.name, line.sentence])).toEqual([[name, sentence]]);
    expect(comparePasses(other, one).map(({ subject }) => subject.name)).toEqual([name]);
  });
});

describe('laws', () => {
  const ofDemo = DEMO_PROFILES.map((id): ComparedSide => {
    const resolved = demoProfile(id);
    return { profile: resolved.profile, rules: compileRules(resolved, { house: demoHouse() }), name: id };
  });

  test('the other way round the same things are told, with the results changed over', () => {
    for (const from of ofDemo)
      for (const to of ofDemo) {
        const [there, back] = [comparePasses(from, to), comparePasses(to, from)];
        expect(back.map(({ subject }) => subject.name).sort()).toEqual(there.map(({ subject }) => subject.name).sort());
        for (const { results } of there) expect(results.from).not.toBe(results.to);
      }
  });
});
