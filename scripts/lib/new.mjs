/**
 * What a new thing of a kind begins with: files of its own, the one line that each list of its kind needs, and a test that fails
 * until the thing does what it is for. Nothing is written here: the caller gets the texts.
 */

/** The kinds, each with what its name is. */
export const KINDS = {
  pass: 'a pass of paste cleanup, such as "tidy-quotes"',
  check: 'a test of a profile, such as "long-label"',
  button: 'a button of the toolbar, such as "insert-tide"',
  setting: 'a setting of a section: "surface.rulerPx" or "markup.strictness"',
  view: 'a screen with an address of its own, such as "editions"',
  route: 'a route of the API, such as "editions"',
};

export const camelOf = (name) => name.replace(/-([a-z0-9])/g, (_, letter) => letter.toUpperCase());
const pascalOf = (name) => camelOf(name).replace(/^./, (letter) => letter.toUpperCase());
const wordsOf = (name) => name.replaceAll('-', ' ').replace(/^./, (letter) => letter.toUpperCase());

/** Puts text before a place that stands exactly once. */
function before(text, place, added) {
  const at = text.indexOf(place);
  if (at === -1 || text.indexOf(place, at + 1) !== -1) throw new Error(`"${place}" does not stand exactly once`);
  return text.slice(0, at) + added + text.slice(at);
}

/** Puts an import behind the others. */
function withImport(text, line) {
  const end = [...text.matchAll(/^import [^;]*;\n/gm)].at(-1);
  if (end === undefined) throw new Error('there are no imports');
  const at = end.index + end[0].length;
  return `${text.slice(0, at)}${line}\n${text.slice(at)}`;
}

/**
 * @param kind one of KINDS
 * @param name in lower case with hyphens; of a setting, its section, a point and its key
 * @param read gives the text of a file, or null where there is none
 * @returns the texts of all files that are new or change, by their paths
 * @throws Error with a sentence, where the name cannot be used or is taken
 */
export function planOf(kind, name, read) {
  if (!Object.hasOwn(KINDS, kind)) throw new Error(`There is no kind "${kind}". The kinds are ${Object.keys(KINDS).join(', ')}.`);
  const isName = kind === 'setting' ? /^(surface|markup)\.[a-z][A-Za-z0-9]*$/ : /^[a-z][a-z0-9]*(-[a-z0-9]+)*$/;
  if (!isName.test(name)) throw new Error(`"${name}" cannot be the name. It is ${KINDS[kind]}.`);
  const texts = new Map();
  const make = (path, text) => {
    if (read(path) !== null) throw new Error(`${path} is there already.`);
    texts.set(path, text);
  };
  const change = (path, edit) => {
    const text = texts.get(path) ?? read(path);
    if (text === null) throw new Error(`${path} is not there.`);
    texts.set(path, edit(text));
  };
  PLANS[kind]({ name, id: camelOf(name), type: pascalOf(name), words: wordsOf(name), make, change });
  return texts;
}

const PLANS = {
  check({ name, id, make, change }) {
    make(
      `packages/core/src/checks/${name}.ts`,
      `import type { Check } from './check';

/** What it costs whom where nobody finds this. */
export const ${id}: Check = {
  id: '${name}',
  purpose: 'Finds …',
  run: () => [],
};
`,
    );
    change('packages/core/src/checks/index.ts', (text) =>
      before(withImport(text, `import { ${id} } from './${name}';`), '  emptyPurpose,\n', `  ${id},\n`),
    );
    make(
      `packages/core/test/${name}.spec.ts`,
      `import { checkProfile, compileRules, resolveProfile, type Finding } from '../src';

const findings = (profile: object): Finding[] => {
  const resolution = resolveProfile('it', () => ({ format: 'typikon-profile/1', name: 'It', purpose: 'To try.', ...profile }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  const { resolved } = resolution;
  return checkProfile({ resolved, rules: compileRules(resolved) }).filter(({ check }) => check === '${name}');
};

test('a profile that breaks it is found, with the rule that does', () => {
  expect(findings({ markup: { elements: { p: {} } } })).toEqual([expect.objectContaining({ pointer: '/markup/elements/p' })]);
});

test('a sound profile is not', () => expect(findings({})).toEqual([]));
`,
    );
  },

  pass({ name, id, words, make, change }) {
    const key = /-/.test(name) ? `'${name}'` : name;
    change('packages/core/src/profile/paste-schema.ts', (text) =>
      before(
        text,
        '});\n\n/** The id of every pass',
        `  ${key}: z
    .strictObject({
      ...common,
      on: common.on.default(false),
      which: z.enum(['some', 'all']).default('some').describe('What it works on.').meta(field({ title: 'Works on', words: { some: 'some', all: 'all' } })),
    })
    .prefault({})
    .describe('What it does, in a sentence.'),
`,
      ),
    );
    make(
      `packages/core/src/paste/passes/${name}.ts`,
      `import { transform } from '../../html/transform';
import type { Pass } from '../pass';

/** What it does to a paste, and why. */
export const ${id}: Pass<'${name}'> = {
  id: '${name}',
  run({ root }) {
    transform(root, { element: () => 'keep' });
  },
};
`,
    );
    change('packages/core/src/paste/passes/index.ts', (text) => {
      const listed = withImport(text, `import { ${id} } from './${name}';`);
      return before(listed, '};\n', `  ${key === id ? id : `${key}: ${id}`},\n`);
    });
    change('packages/core/src/paste/pass-words.ts', (text) =>
      text.replace(
        /};\n$/,
        `  ${key}: {
    label: '${words}',
    effect: 'What becomes of the author’s content, in a sentence.',
    unit: ['place', 'places'],
  },
};
`,
      ),
    );
    // The ledger's sentence is another pass's until it has a reason of its own in ledger/reasons.ts.
    change('packages/core/src/paste/one-pass.ts', (text) => before(text, "  spaces: 'paste-space',\n};", `  ${key}: 'paste-element',\n`));
    // A paste that shows what the pass does: two profiles are compared by it.
    change('packages/core/src/site/compare/pastes.ts', (text) =>
      before(text, '  spaces: function* () {', `  ${key}: function* () {\n    yield ['web-page', '<p>before</p>'];\n  },\n`),
    );
    make(
      `packages/core/test/${name}.spec.ts`,
      `import { resolveProfile, runPaste } from '../src';

const paste = (html: string): string => {
  const passes = { '${name}': { on: true } };
  const resolution = resolveProfile('it', () => ({ format: 'typikon-profile/1', name: 'It', markup: { elements: { p: {} } }, paste: { passes } }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return runPaste({ types: { 'text/html': html } }, resolution.resolved, {}).html;
};

test('what it is for becomes what it should', () => expect(paste('<p>before</p>')).toBe('<p>after</p>'));

test('what it is not for stays', () => expect(paste('<p>other</p>')).toBe('<p>other</p>'));
`,
    );
  },

  button({ name, id, words, make, change }) {
    change('packages/core/src/profile/button-ids.ts', (text) => before(text, "  'keyboard-help',\n", `  '${name}',\n`));
    change('packages/core/src/toolbar/buttons.ts', (text) =>
      before(
        text,
        "declare('work', 'keyboard-help'",
        `declare('words', '${name}', '${words}', 'What it does to the author’s content, in a sentence.', makes('mark'));\n`,
      ),
    );
    make(
      `packages/editor/src/buttons/${name}.ts`,
      `import { Square } from 'lucide';
import type { Button } from './button';

/** What it does for the author. */
export const ${id}: Button = {
  id: '${name}',
  icon: Square,
  command: () => () => false,
};
`,
    );
    change('packages/editor/src/buttons/index.ts', (text) =>
      before(withImport(text, `import { ${id} } from './${name}';`), '  keyboardHelp,\n];', `  ${id},\n`),
    );
    make(
      `packages/editor/test/${name}.spec.ts`,
      `import { buttonOf } from '@typikon/core';
import { EDITOR_BUTTONS } from '../src';

test('it says what it needs and what it does', () => {
  expect(buttonOf('${name}').effect).not.toMatch(/in a sentence/);
  expect(EDITOR_BUTTONS.get('${name}')).toBeDefined();
});

// The author's editor on a page without a browser: see page.ts, and the tables of the other buttons.
test.todo('what it makes of a selection');
`,
    );
  },

  setting({ name, make, change }) {
    const [section, key] = name.split('.');
    const line = `  ${key}: z
    .int()
    .min(1)
    .optional()
    .describe('What it does, in a sentence.')
    .meta(field({ title: '${key}', group: '${section === 'surface' ? 'size' : 'rest'}' })),
`;
    if (section === 'surface')
      change('packages/core/src/profile/surface-schema.ts', (text) =>
        before(text, '    enter: z', line.replace(/^/gm, '  ').replace(/ +$/, '')),
      );
    else
      change('packages/core/src/profile/schema.ts', (text) =>
        before(text, '    unlisted: z', line.replace(/^/gm, '  ').replace(/ +$/, '')),
      );
    make(
      `packages/core/test/${section}-${key}.spec.ts`,
      `import { fieldsOf, ${section}Schema } from '../src';

test('it stands in the form with a label of its own', () => {
  const field = fieldsOf(${section}Schema).find(({ keys }) => keys.join('.') === '${key}');
  expect(field?.title).not.toBe('${key}');
});

test('it does what it says', () => {
  throw new Error('Write down what it does.');
});
`,
    );
  },

  view({ name, type, words, make, change }) {
    make(
      `packages/web/src/features/${name}/${name}-page.ts`,
      `import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TitleLine } from '../../ui/title-line';

/** What the view is for. */
@Component({
  selector: 'ty-${name}-page',
  imports: [TitleLine],
  template: \`<ty-title-line heading="${words}" />\`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ${type}Page {}
`,
    );
    change('packages/web/src/app.routes.ts', (text) =>
      before(
        text,
        "  { path: '**'",
        `  { path: '${name}', loadComponent: () => import('./features/${name}/${name}-page').then((m) => m.${type}Page), title: '${words} · Typikon' },\n`,
      ),
    );
    make(
      `packages/web/test/${name}-page.spec.ts`,
      `import { ${type}Page } from '../src/features/${name}/${name}-page';
import { Screen } from './support';

test('it shows what it is for', async () => {
  const screen = await Screen.of(${type}Page);
  expect(screen.texts('h1')).toEqual(['${words}']);
  expect(screen.texts('main, section, table')).not.toEqual([]);
});
`,
    );
  },

  route({ name, id, type, words, make, change }) {
    make(
      `packages/api/src/${name}.ts`,
      `import { createRoute, z } from '@hono/zod-openapi';
import { json } from './common';
import { needs } from './right';

export const list${type} = createRoute({
  method: 'get',
  path: '/${name}',
  summary: '${words}',
  ...needs('read'),
  responses: { 200: json(z.array(z.object({ id: z.string() }).openapi('${type}')), '${words}') },
});
`,
    );
    change('packages/api/src/index.ts', (text) =>
      before(withImport(text, `import * as ${id} from './${name}';`), '} as const;', `  list${type}: ${id}.list${type},\n`),
    );
    make(
      `packages/server/src/routes/${name}.ts`,
      `import { contract } from '@typikon/api';
import { router } from './shared';

/** ${words}. */
export function ${id}() {
  return router().openapi(contract.list${type}, (context) => context.json([], 200));
}
`,
    );
    change('packages/server/src/app.ts', (text) =>
      before(
        withImport(text, `import { ${id} } from './routes/${name}';`),
        "  app.route('/api/v1', site(sites));",
        `  app.route('/api/v1', ${id}());\n`,
      ),
    );
    make(
      `packages/server/test/${name}.spec.ts`,
      `import { useDemoApp } from './demo-app';

const ask = useDemoApp('${id}', 0);

test('it answers with what there is', async () => {
  const { status, body } = await ask('GET', '/${name}');
  expect([status, body]).toEqual([200, [{ id: expect.any(String) }]]);
});
`,
    );
  },
};
