import fc from 'fast-check';
import {
  arrangeToolbar,
  BUTTON_IDS,
  BUTTONS,
  changesToArrange,
  checkProfile,
  compileRules,
  markupOnlyFor,
  mergePatch,
  missingMarkup,
  buttonOf,
  patchToTakeBack,
  resolveProfile,
  setToolbar,
  SHORTCUTS,
  tryTasks,
  unusedButtons,
  type ArrangedGroup,
  type ButtonId,
  type JsonObject,
  type ResolvedProfile,
} from '../src/index';

const head = { format: 'typikon-profile/1', name: 'It' };
const group = (label: string, ...buttons: ButtonId[]): JsonObject => ({ label, buttons });

function resolve(documents: Record<string, JsonObject>, id = 'it'): ResolvedProfile {
  const resolution = resolveProfile(id, (name) => documents[name]);
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return resolution.resolved;
}
const plain = (groups: readonly ArrangedGroup[]): Record<string, readonly ButtonId[]> =>
  Object.fromEntries(groups.map(({ id, buttons }) => [id, buttons]));

describe('arranging', () => {
  const groups = { words: group('Words', 'bold', 'italic', 'underline'), lists: group('Lists', 'bulleted-list', 'bold') };
  const arranged = (changes: JsonObject, order: string[] = ['words', 'lists']) =>
    plain(arrangeToolbar(resolve({ it: { ...head, toolbar: { order, groups, changes } } }).profile.toolbar));

  test.each<[string, JsonObject, Record<string, ButtonId[]>]>([
    ['as the groups say; a button is there once', {}, { words: ['bold', 'italic', 'underline'], lists: ['bulleted-list'] }],
    ['taken off', { italic: { place: 'off' } }, { words: ['bold', 'underline'], lists: ['bulleted-list'] }],
    [
      'first in another group',
      { italic: { group: 'lists', place: 'first' } },
      { words: ['bold', 'underline'], lists: ['italic', 'bulleted-list'] },
    ],
    [
      'behind another',
      { link: { group: 'words', place: 'bold' } },
      { words: ['bold', 'link', 'italic', 'underline'], lists: ['bulleted-list'] },
    ],
    [
      'behind one that is moved as well, whatever their order',
      { link: { group: 'lists', place: 'undo' }, undo: { group: 'lists', place: 'first' } },
      { words: ['bold', 'italic', 'underline'], lists: ['undo', 'link', 'bulleted-list'] },
    ],
    [
      'behind one that is not there: last',
      { link: { group: 'words', place: 'table' } },
      { words: ['bold', 'italic', 'underline', 'link'], lists: ['bulleted-list'] },
    ],
    [
      'in a circle: last',
      { link: { group: 'words', place: 'undo' }, undo: { group: 'words', place: 'link' } },
      { words: ['bold', 'italic', 'underline', 'link', 'undo'], lists: ['bulleted-list'] },
    ],
    [
      'in a group that is not shown: nowhere',
      { link: { group: 'none', place: 'first' } },
      { words: ['bold', 'italic', 'underline'], lists: ['bulleted-list'] },
    ],
  ])('%s', (_name, changes, result) => expect(arranged(changes)).toEqual(result));

  test('a group that is not in the order is not shown, and an unknown one is passed over', () => {
    expect(arranged({}, ['lists', 'none', 'lists'])).toEqual({ lists: ['bulleted-list', 'bold'] });
  });

  test('the changes lead from the groups to whatever is wanted', () => {
    const buttons = BUTTON_IDS.slice(0, 8) as readonly ButtonId[];
    const split = fc
      .shuffledSubarray([...buttons])
      .chain((all) => fc.nat(all.length).map((at): [ButtonId[], ButtonId[]] => [all.slice(0, at), all.slice(at)]));
    fc.assert(
      fc.property(split, split, ([a, b], [c, d]) => {
        const own = { one: { label: '', buttons: a }, two: { label: '', buttons: b } };
        const wanted = new Map([
          ['one', c],
          ['two', d],
        ] as const);
        const changes = changesToArrange({ order: ['one', 'two'], groups: own }, wanted);
        expect(plain(arrangeToolbar({ order: ['one', 'two'], groups: own, changes }))).toEqual({ one: c, two: d });
      }),
    );
  });
});

describe('changing the toolbar of a profile', () => {
  const parent: JsonObject = {
    ...head,
    toolbar: { order: ['words', 'lists'], groups: { words: group('Words', 'bold', 'italic'), lists: group('Lists', 'bulleted-list') } },
  };
  const change = (own: JsonObject, edit: (groups: ArrangedGroup[]) => ArrangedGroup[], of = parent) => {
    const { chain, profile } = resolve({ it: { ...head, extends: 'parent', ...own }, parent: of });
    const document = setToolbar(chain, edit(arrangeToolbar(profile.toolbar)));
    const after = (over: JsonObject = of) => plain(arrangeToolbar(resolve({ it: document, parent: over }).profile.toolbar));
    return { toolbar: document['toolbar'], after };
  };
  const without = (id: ButtonId) => (groups: ArrangedGroup[]) =>
    groups.map((one) => ({ ...one, buttons: one.buttons.filter((other) => other !== id) }));

  test('a child says one button, not the whole group, and goes on following its parent', () => {
    const { toolbar, after } = change({}, without('italic'));
    expect(toolbar).toEqual({ changes: { italic: { place: 'off' } } });
    expect(after()).toEqual({ words: ['bold'], lists: ['bulleted-list'] });
    const richer = mergePatch(parent, { toolbar: { groups: { words: { buttons: ['bold', 'italic', 'code'] } } } }) as JsonObject;
    expect(after(richer)).toEqual({ words: ['bold', 'code'], lists: ['bulleted-list'] });
  });

  test('what is put back as the parent has it leaves nothing behind', () => {
    const { toolbar } = change({ toolbar: { changes: { italic: { place: 'off' } } } }, ([words, lists]) => [
      { ...words!, buttons: ['bold', 'italic'] },
      lists!,
    ]);
    expect(toolbar).toBeUndefined();
  });

  test('a group that repeats the whole list is turned into single changes', () => {
    const { toolbar } = change({ toolbar: { groups: { words: { buttons: ['bold', 'link', 'italic'] } } } }, (groups) => groups);
    expect(toolbar).toEqual({ changes: { link: { group: 'words', place: 'bold' } } });
  });

  test('what the parent changes is taken back by the child', () => {
    const changed = mergePatch(parent, { toolbar: { changes: { italic: { place: 'off' } } } }) as JsonObject;
    const { toolbar, after } = change({}, ([words, lists]) => [{ ...words!, buttons: ['bold', 'italic'] }, lists!], changed);
    expect(after()).toEqual({ words: ['bold', 'italic'], lists: ['bulleted-list'] });
    expect(toolbar).toEqual({ changes: { italic: null } });
  });

  test('a group of its own, one left out, another name and another order', () => {
    const { toolbar, after } = change({}, ([words]) => [
      { id: 'more', label: 'More', buttons: ['undo', 'bold'], newRow: true, inMore: false },
      { ...words!, label: 'Text', buttons: ['italic'] },
    ]);
    expect(after()).toEqual({ more: ['undo', 'bold'], words: ['italic'] });
    expect(toolbar).toEqual({
      order: ['more', 'words'],
      groups: { more: { label: 'More', buttons: ['undo'], newRow: true }, words: { label: 'Text' } },
      changes: { bold: { group: 'more', place: 'undo' } },
    });
  });

  test('a profile without a parent has its lists as they are', () => {
    const { chain } = resolve({ it: { ...head, toolbar: { order: ['a'], groups: { a: group('A', 'bold') } } } });
    expect(setToolbar(chain, [{ id: 'b', label: 'B', buttons: ['link', 'bold'], newRow: false, inMore: true }])['toolbar']).toEqual({
      order: ['b'],
      groups: { b: { label: 'B', buttons: ['link', 'bold'], inMore: true } },
    });
  });
});

describe('what buttons need', () => {
  const elements = (names: string): JsonObject => Object.fromEntries(names.split(' ').map((name) => [name, {}]));

  test('every button has an id of the list, a sentence and needs that name elements', () => {
    expect(BUTTONS.map(({ id }) => id)).toEqual([...BUTTON_IDS]);
    const { options } = resolve({ it: head }).profile.toolbar;
    for (const { effect, needs, makes } of BUTTONS) {
      expect(effect).toMatch(/^[A-Z].*\.$/);
      if (makes !== null) expect(needs(options).some(({ element }) => element === makes || makes === 'strong')).toBe(true);
    }
  });

  test('every option belongs to a button', () => {
    const { options } = resolve({ it: head }).profile.toolbar;
    expect([...new Set(BUTTONS.flatMap((button) => button.options ?? []))].sort()).toEqual(Object.keys(options).sort());
  });

  test('values count, not only that the attribute is there', () => {
    const of = (values: string[]) => {
      const profile = resolve({ it: { ...head, markup: { elements: { p: { attributes: { class: { test: 'tokens', values } } } } } } });
      return missingMarkup(buttonOf('align-right'), compileRules(profile), profile.profile.toolbar.options);
    };
    expect(of(['align-right'])).toEqual([]);
    expect(of(['note'])).toMatchObject([{ element: 'p', attribute: 'class', values: ['align-right'] }]);
  });

  test('the colours of a palette must all be kept', () => {
    const profile = resolve({
      it: {
        ...head,
        toolbar: {
          options: {
            'text-colour': {
              colours: [
                { name: 'Red', value: '#a6301f' },
                { name: 'Sea', value: '#17475c' },
              ],
            },
          },
        },
        markup: {
          elements: { span: { attributes: { style: { test: 'style', properties: { color: { test: 'colour', values: ['#a6301f'] } } } } } },
        },
      },
    });
    expect(missingMarkup(buttonOf('text-colour'), compileRules(profile), profile.profile.toolbar.options)).toMatchObject([
      { values: ['color: #17475c'] },
    ]);
  });

  test('what nothing else needs can be taken back with a button', () => {
    const profile = resolve({ it: { ...head, markup: { elements: elements('p ul ol li table tbody tr td th') } } });
    const rules = compileRules(profile);
    expect(markupOnlyFor('bulleted-list', ['bulleted-list', 'numbered-list'], profile, rules)).toEqual(['ul']);
    expect(markupOnlyFor('table', ['table'], profile, rules)).toEqual(['table', 'tbody', 'tr', 'td', 'th']);
    expect(markupOnlyFor('paragraph', ['paragraph'], profile, rules)).toEqual([]);
    const without = resolve({ it: mergePatch(profile.chain[0]!.document, patchToTakeBack(['ul'])) as JsonObject });
    expect(compileRules(without).element('ul').outcome).toBe('unwrap');
  });

  test('buttons whose element is in no document are told', () => {
    const unused = unusedButtons({ p: 4, strong: 2, table: 0 });
    expect(unused.has('table')).toBe(true);
    expect(unused.has('bold')).toBe(false);
    expect(unused.has('undo')).toBe(false);
  });
});

describe('tasks', () => {
  const profile = resolve({
    it: {
      ...head,
      toolbar: {
        order: ['a', 'b'],
        groups: { a: group('A', 'bold', 'bulleted-list', 'table'), b: { ...group('B', 'link'), inMore: true } },
        shortcuts: { heading: true, 'numbered-list': true },
      },
      markup: { elements: { p: {}, strong: {}, ul: {}, li: {}, h2: {}, a: { attributes: { href: { test: 'url' } } } } },
    },
  });
  const { answers, unasked } = tryTasks(profile.profile.toolbar, compileRules(profile), [
    'list',
    'link',
    'heading',
    'steps',
    'picture',
    'table',
  ]);
  const answer = (id: string) => answers.find(({ task }) => task.id === id)!;

  test('the quickest way is counted in acts, one more under “More”', () => {
    expect(answer('list').way).toEqual({ kind: 'button', label: 'Bulleted list', acts: 1 });
    expect(answer('link').way).toEqual({ kind: 'button', label: 'Link', acts: 4 });
    expect(answer('heading').way).toMatchObject({ kind: 'typed' });
  });
  test('what cannot be done is said with the reason', () => {
    expect(answer('picture')).toMatchObject({ way: null, why: 'The toolbar lacks “Picture”.' });
    expect(answer('table').why).toMatch(/^“Table” is there, but the rules remove table, /);
    expect(answer('steps').way).toBeNull();
  });
  test('buttons that nobody asked for are named', () => expect(unasked).toEqual(['bold']));
});

describe('checks of the toolbar', () => {
  const findings = (toolbar: JsonObject, markup: JsonObject = {}, rest: JsonObject = {}) => {
    const profile = resolve({ it: { ...head, purpose: 'x', toolbar, markup, ...rest } });
    return checkProfile({ resolved: profile, rules: compileRules(profile) }).filter(({ check }) =>
      ['shortcut-without-markup', 'menu-without-entries'].includes(check),
    );
  };
  test.each(SHORTCUTS.filter(({ elements }) => elements.length > 0).map(({ id }) => id))(
    '%s without its markup, and with what the fix allows',
    (id) => {
      const [finding] = findings({ shortcuts: { [id]: true } });
      expect(finding?.check).toBe('shortcut-without-markup');
      const mended = mergePatch({ toolbar: { shortcuts: { [id]: true } } }, finding!.fix!.patch) as JsonObject;
      expect(findings(mended['toolbar'] as JsonObject, mended['markup'] as JsonObject)).toEqual([]);
      expect(findings({ shortcuts: { [id]: false } })).toEqual([]);
    },
  );
  test('menus that stay empty, and styles without a menu', () => {
    const shown = (id: ButtonId): JsonObject => ({ order: ['a'], groups: { a: group('A', id) } });
    const styles = { styles: { note: { label: 'Note', selector: 'p.note' } } };
    expect(findings(shown('styles')).map(({ sentence }) => sentence)).toEqual([
      'The button “Styles” is on, but this profile names no styles, so its menu stays empty.',
    ]);
    expect(findings(shown('styles'), {}, styles)).toEqual([]);
    expect(findings(shown('bold'), {}, styles)[0]!.sentence).toContain('no button offers them');
    expect(findings(shown('text-colour'))[0]!.sentence).toContain('no colours to offer');
    expect(findings({ ...shown('block-kind'), options: { 'block-kind': { levels: [] } } })[0]!.sentence).toContain('no heading level');
  });
});
