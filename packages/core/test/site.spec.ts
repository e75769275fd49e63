import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  checkSite,
  clean,
  cleanHelp,
  compileRules,
  pageKindSchema,
  resolveProfile,
  SITE_CHECKS,
  siteJsonSchema,
  siteSchema,
  takenOf,
  toldParts,
  toldSentences,
  whatAuthorsCanDo,
  type CanDoPart,
  type ComparedSide,
  type JsonObject,
  type PageKind,
  type Site,
  type StoredTexts,
} from '../src/index';
import { DEMO, DEMO_PROFILES, demoHouse, demoProfile, profileOf } from './support';

const DOCS = join(__dirname, '..', '..', '..', 'docs');

describe('what authors can do', () => {
  const said = (markup: JsonObject, part: CanDoPart, letters = {}): string | undefined => {
    const resolved = profileOf(markup);
    return whatAuthorsCanDo(resolved, compileRules(resolved), letters).find((one) => one.part === part)?.sentence;
  };
  const link = (test: JsonObject, schemes: string[] = ['https']): JsonObject => ({
    elements: { a: { attributes: { href: { test: 'url', ...test } } } },
    urls: { schemes: { href: schemes } },
  });

  test.each<[string, JsonObject, CanDoPart, string | undefined]>([
    ['levels of headings', { elements: { h2: {}, h3: {} } }, 'headings', 'Headings of levels 2 and 3.'],
    ['no heading', { elements: { p: {} } }, 'headings', undefined],
    ['words', { elements: { strong: {}, em: {}, sub: {} } }, 'words', 'Bold, italic and lowered.'],
    ['words that become others', { elements: { b: { outcome: 'rename', to: 'strong' }, strong: {} } }, 'words', 'Bold.'],
    ['words alone', { elements: { p: {} } }, 'words', 'Words alone, without bold or italic.'],
    ['what is missing', { elements: { p: {}, ul: {}, li: {} } }, 'lists', 'Bulleted lists. No headings, tables, pictures or links.'],
    [
      'pictures',
      { elements: { img: { attributes: { src: { test: 'url', hosts: ['pictures.example'] }, width: { test: 'integer', max: 640 } } } } },
      'pictures',
      'Pictures up to 640 px wide, from pictures.example.',
    ],
    ['links to anywhere', link({}, ['https', 'mailto']), 'links', 'Links to any page and mail addresses.'],
    [
      'links to a host',
      { ...link({ hosts: ['harbour.example'] }), urls: { relative: false } },
      'links',
      'Links to pages of harbour.example.',
    ],
    ['links of the site alone', link({}, []), 'links', 'Links to pages of this site.'],
    [
      'frames',
      { elements: { iframe: { attributes: { src: { test: 'url', hosts: ['cams.example'] } } } } },
      'frames',
      'Frames from cams.example.',
    ],
    ['a paste of which nothing stays', { elements: { p: {} } }, 'paste', 'What you paste loses everything but its words.'],
    [
      'a paste',
      { elements: { p: {}, ul: {}, li: {}, b: {} } },
      'paste',
      'What you paste loses its colours and fonts; lists and bold stay.',
    ],
    ['a limit of the rules', { elements: { p: {} }, limits: { letters: 240 } }, 'length', 'At most 240 letters.'],
  ])('%s', (_what, markup, part, sentence) => expect(said(markup, part)).toBe(sentence));

  test.each([
    [{ to: 160 }, 'At most 160 letters.'],
    [{ from: 40, to: 160 }, 'From 40 to 160 letters.'],
    [{ from: 40 }, 'At least 40 letters.'],
  ])('the expected length of a field: %j', (letters, sentence) => expect(said({ elements: { p: {} } }, 'length', letters)).toBe(sentence));

  test('house limits count as well: what they refuse is not promised', () => {
    const resolved = demoProfile('notices-desk');
    const bare = { ...demoHouse(), markup: { ...demoHouse().markup, elements: { p: {} } } };
    const sentences = whatAuthorsCanDo(resolved, compileRules(resolved, { house: bare }));
    expect(sentences.map(({ part }) => part)).not.toContain('headings');
    expect(sentences.find(({ part }) => part === 'lists')?.sentence).toBe('No headings, lists, tables, pictures or links.');
  });
});

describe('what a profile tells its authors', () => {
  const told = (help: JsonObject) => {
    const resolution = resolveProfile('note', () => ({
      format: 'typikon-profile/1',
      name: 'Note',
      markup: { elements: { p: {}, strong: {}, h2: {} } },
      help,
    }));
    if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
    return toldParts(resolution.resolved, compileRules(resolution.resolved));
  };

  test('is what the rules say, but for parts that are hidden or have words of their own', () => {
    const plain = told({});
    expect(plain.slice(0, 2).map(({ part, sentence, isShown, words }) => [part, sentence, isShown, words])).toEqual([
      ['headings', 'Headings of level 2.', true, ''],
      ['words', 'Bold.', true, ''],
    ]);
    const own = told({ parts: { headings: { words: ' One heading for each boat. ' }, words: { shown: false } } });
    const rest = plain.slice(2).map(({ sentence }) => sentence);
    expect(toldSentences(own)).toBe(['One heading for each boat.', ...rest].join(' '));
    expect(toldSentences(own.map((part) => ({ ...part, isShown: false })))).toBe('');
  });

  test('a part that no rules have is a mistake', () => {
    const resolution = resolveProfile('note', () => ({ format: 'typikon-profile/1', name: 'Note', help: { parts: { colours: {} } } }));
    expect(resolution).toMatchObject({ ok: false });
  });
});

describe('help', () => {
  test.each([
    ['<p>Say <b>when</b>. <a href="/a">More</a></p>', '<p>Say <strong>when</strong>. <a href="/a" rel="noopener">More</a></p>'],
    ['<h2>Title</h2><img src=x onerror=alert(1)><script>x</script>', '<p>Title</p><p><img src="x" alt=""></p>'],
    ['<img src="javascript:x"><img alt="No source">Words', 'Words'],
    ['<a href="javascript:x">a</a>', 'a'],
  ])('is cleaned by its narrow profile: %s', (html, clean) => expect(cleanHelp(html)).toBe(clean));
});

describe('checks of a site', () => {
  const house = demoHouse();
  const profiles = new Map(
    DEMO_PROFILES.map((id): [string, ComparedSide] => {
      const resolved = demoProfile(id);
      return [id, { profile: resolved.profile, rules: compileRules(resolved, { house }), name: resolved.profile.name }];
    }),
  );
  const site = siteSchema.parse({
    format: 'typikon-site/1',
    roles: [
      { id: 'desk', label: 'Communications' },
      { id: 'office', label: 'Duty office' },
    ],
    types: [
      {
        id: 'notice',
        label: 'Notice',
        pageKind: 'notice',
        fields: [
          { key: 'body', title: 'Notice', help: { short: 'What, where, when.' } },
          { key: 'lead', title: 'Lead', help: { short: 'One sentence.' } },
        ],
      },
    ],
    assignments: [{ roles: '*', types: '*', fields: '*', profiles: ['notices-desk'] }],
  });
  const found = (change: (site: Site, kind: PageKind, texts: StoredTexts[]) => void): string[] => {
    const copy = structuredClone(site);
    const kind = pageKindSchema.parse({
      id: 'notice',
      name: 'Notice page',
      wrapper: [{ element: 'main' }],
      stylesheets: [],
      contentWidthPx: 700,
    });
    const texts: StoredTexts[] = [{ type: 'notice', field: 'body', profile: 'notices-desk', count: 40 }];
    change(copy, kind, texts);
    const pageKinds = new Map([[kind.id, kind]]);
    return checkSite({ site: copy, profiles, house, pageKinds, texts, pages: new Set(['/', '/documents/thornholm']) }).map(
      ({ check, sentence, pointer }) => `${check} ${pointer} ${sentence}`,
    );
  };
  const reached = new Set<string>();

  test('a site without faults has no findings', () => expect(found(() => undefined)).toEqual([]));
  test.each<[string, (site: Site, kind: PageKind, texts: StoredTexts[]) => void, string[]]>([
    [
      'a field of nobody',
      (copy) => (copy.assignments[0]!.fields = ['body']),
      ['field-of-nobody /types/0/fields/1 Nobody may write in “Lead” of Notice: no statement fits any role.'],
    ],
    [
      'a statement that never wins',
      (copy) => copy.assignments.push({ roles: ['desk'], types: '*', fields: ['lead'], profiles: ['reply'] }),
      ['statement-never-reached /assignments/1 Statement 2 never wins: wherever it fits, statement 1 comes first.'],
    ],
    [
      'a statement that fits nothing',
      (copy) => copy.assignments.unshift({ roles: ['desk'], types: '*', fields: ['gone'], profiles: ['reply'] }),
      ['statement-never-reached /assignments/0 Statement 1 fits no field of any content type.'],
    ],
    [
      'a profile that is not there',
      (copy) => copy.assignments[0]!.profiles.push('gone'),
      [
        'profile-gone /assignments/0/profiles/1 Statement 1 gives the profile “gone”, which is not there or has mistakes: nothing can be written with it.',
      ],
    ],
    [
      'roles that take each other’s content',
      (copy) => copy.assignments.unshift({ roles: ['office'], types: '*', fields: ['body'], profiles: ['story-desk'] }),
      [
        'roles-that-eat /types/0/fields/0 Duty office take what Communications may write in “Notice” of Notice: table.',
        'roles-that-eat /types/0/fields/0 Communications take what Duty office may write in “Notice” of Notice: cite, q, figure.',
      ],
    ],
    [
      'a field that no template prints',
      (_copy, kind) => (kind.template = '<h1><slot name="title"></slot></h1><slot name="body"></slot>'),
      ['field-on-no-page /types/0/fields/1 No template prints “Lead” of Notice: what authors write there is seen by nobody.'],
    ],
    [
      'rich text where only words can stand',
      (_copy, kind) => (kind.template = '<div class="top"><p><slot name="lead"></slot></p></div><slot></slot>'),
      [
        'blocks-among-words /types/0/fields/1 Notice page prints “Lead” of Notice in main > div.top > p, where paragraphs and lists cannot stand.',
      ],
    ],
    [
      'a slot that no field fills',
      (_copy, kind) => (kind.template = '<slot></slot><slot name="contact"></slot>'),
      [
        'slot-without-field /types/0/pageKind The template of Notice page has a slot “contact”, and no field of what is published there is called so.',
      ],
    ],
    [
      'a stored text whose profile is gone',
      (_copy, _kind, texts) => texts.push({ type: 'notice', field: 'lead', profile: 'old-desk', count: 1 }),
      [
        'text-of-another-profile /types/0/fields/1 One stored text in “Lead” of Notice has the profile “old-desk”, which is gone or has mistakes.',
      ],
    ],
    [
      'stored texts of a profile that is not given there any more',
      (_copy, _kind, texts) => texts.push({ type: 'notice', field: 'body', profile: 'story-desk', count: 3 }),
      [
        'text-of-another-profile /types/0/fields/0 3 stored texts in “Notice” of Notice keep Story desk; Notices desk is given there now. Story desk allows cite, q, figure, which a move would take, and lacks table.',
      ],
    ],
    [
      'help that speaks of what is not there',
      (copy, _kind, texts) => {
        texts.length = 0;
        copy.types[0]!.fields[0]!.help.short = 'Positions in a table. Never a picture.';
        copy.assignments[0]!.profiles = ['ferry-note'];
      },
      ['help-of-what-is-not-there /types/0/fields/0/help The help of “Notice” of Notice speaks of tables, and Ferry note keeps none.'],
    ],
    [
      'help that is silent about what was taken',
      (_copy, _kind, texts) => (texts[0]!.taken = { underlining: 2, tables: 5, frames: 0 }),
      [
        'help-silent-about-limit /types/0/fields/0/help Notices desk took underlining from “Notice” of Notice in 2 stored documents, and no help there speaks of it.',
      ],
    ],
    [
      'a picture in help that says nothing',
      (copy) => (copy.types[0]!.fields[0]!.help.long = '<p><img src="/a.png"><img src="/b.png" alt="The form"></p>'),
      [
        'help-picture-without-alternative /types/0/fields/0/help/long A picture in the help of “Notice” of Notice says nothing to those who do not see it.',
      ],
    ],
    [
      'two fields called the same',
      (copy) => (copy.types[0]!.fields[1]!.title = 'notice '),
      ['repeated-title /types/0/fields/1/title Two fields of Notice are called “notice ”: authors cannot tell them apart.'],
    ],
    [
      'a field that nothing explains',
      (copy) => (copy.types[0]!.fields[0]!.help.short = ''),
      ['field-without-help /types/0/fields/0/help Nothing explains “Notice” of Notice to its authors.'],
    ],
    [
      'help that links nowhere',
      (copy) => {
        copy.types[0]!.fields[0]!.help.link = '/documents/thornholm#top';
        copy.types[0]!.fields[1]!.help.link = '/documents/gone';
        copy.types[0]!.fields[1]!.help.long = '<p><a href="https://elsewhere.example/">a</a> <a href="/lost?x=1">b</a></p>';
      },
      [
        'help-link-nowhere /types/0/fields/1/help/link The help of “Lead” links to /documents/gone, and the site has no such page.',
        'help-link-nowhere /types/0/fields/1/help/long The help of “Lead” links to /lost, and the site has no such page.',
      ],
    ],
    [
      'help that is too long',
      (copy) => (copy.types[0]!.fields[0]!.help.short = 'x'.repeat(141)),
      [
        'help-too-long /types/0/fields/0/help/short The help of “Notice” has 141 letters; beside a field 140 are read. The rest can open in place.',
      ],
    ],
  ])('%s', (_what, change, findings) => {
    expect(found(change).sort()).toEqual(findings.sort());
    for (const finding of findings) reached.add(finding.split(' ')[0]!);
  });
  test('a profile that the house limits do not allow, but for a role that is trusted with it', () => {
    const resolved = profileOf({ elements: { p: {}, strong: {}, iframe: { attributes: { src: { test: 'url' } } }, p2: {} } });
    const camera: ComparedSide = { profile: resolved.profile, rules: compileRules(resolved, { house }), name: 'Camera desk' };
    const of = (roles: '*' | string[]): string[] =>
      checkSite({
        site: siteSchema.parse({
          ...site,
          roles: [...site.roles, { id: 'web-team', label: 'Web team' }],
          assignments: [{ roles, types: '*', fields: '*', profiles: ['notices-desk', 'camera'] }],
        }),
        profiles: new Map([...profiles, ['camera', camera]]),
        house,
      })
        .filter(({ check }) => check === 'profile-beyond-house')
        .map(({ sentence, statement }) => `${statement} ${sentence}`);
    expect(of('*')).toEqual([
      '0 Camera desk allows iframe, p2, but the house limits do not for Communications, Duty office, Web team: it goes all the same.',
    ]);
    expect(of(['web-team'])).toEqual(['0 Camera desk allows p2, but the house limits do not for Web team: it goes all the same.']);
    reached.add('profile-beyond-house');
  });
  test('every check was met above', () => expect([...reached].sort()).toEqual(SITE_CHECKS.map(({ id }) => id).sort()));

  test('the demo has faults that are worth finding, and no others', () => {
    const demo = siteSchema.parse(JSON.parse(readFileSync(join(DEMO, 'site.json'), 'utf8')));
    const kinds = pageKindSchema.array().parse(JSON.parse(readFileSync(join(DEMO, 'page-kinds.json'), 'utf8')));
    const findings = checkSite({ site: demo, profiles, house, pageKinds: new Map(kinds.map((kind) => [kind.id, kind])) });
    expect(new Set(findings.map(({ check }) => check))).toEqual(
      new Set([
        'field-of-nobody',
        'statement-never-reached',
        'roles-that-eat',
        'field-on-no-page',
        'slot-without-field',
        'help-of-what-is-not-there',
      ]),
    );
    expect(findings.length).toBeLessThan(12);
  });
});

describe('what the rules took of a text, by what it is called', () => {
  const taken = (html: string, markup: JsonObject = { elements: { p: {}, a: { attributes: { href: { test: 'url' } } }, img: {} } }) => {
    const resolved = profileOf(markup);
    return takenOf(clean(html, compileRules(resolved)).ledger);
  };
  test.each<[string, string[]]>([
    ['<p>words</p>', []],
    ['<table><tr><td>a</td></tr></table><p><u>b</u> <u>c</u></p>', ['tables', 'underlining']],
    ['<h2>a</h2><ul><li>b</li></ul>', ['headings', 'lists']],
    // An attribute is no element, and what the standard ignores nobody took.
    ['<p title="a">b</p></table>', []],
    ['<p><a href="gopher://a.example/">a</a></p>', ['addresses']],
    ['<iframe src="https://a.example/"></iframe>', ['frames']],
  ])('%s', (html, names) => expect(taken(html)).toEqual(names));

  test('a text that was too long', () =>
    expect(taken('<p>too long</p>', { elements: { p: {} }, limits: { letters: 3 } })).toEqual(['length']));
  test('a bold word that becomes another element is not taken', () =>
    expect(taken('<p><b>a</b></p>', { elements: { p: {}, strong: {}, b: { outcome: 'rename', to: 'strong' } } })).toEqual([]));
});

test('the committed JSON Schema is that of the format', () =>
  expect(JSON.parse(readFileSync(join(DOCS, 'site.schema.json'), 'utf8'))).toEqual(siteJsonSchema()));
