import { ButtonDetails } from '../src/features/toolbar/button-details';
import { TaskCheck } from '../src/features/toolbar/task-check';
import { ToolbarBoard } from '../src/features/toolbar/toolbar-board';
import { ToolbarChapter } from '../src/features/toolbar/toolbar-chapter';
import { ToolbarDesign } from '../src/features/toolbar/toolbar-design';
import { TypedMarks } from '../src/features/toolbar/typed-marks';
import { SurfaceChapter } from '../src/features/surface/surface-chapter';
import { arrangeToolbar, type JsonObject } from '@typikon/core';
import { TestBed } from '@angular/core/testing';
import { Screen } from './support';

const row = (button: string) => `[data-row="${button}"]`;
const group = (screen: Screen<unknown>, id: string) => arrangeToolbar(screen.profile.toolbar).find((one) => one.id === id)?.buttons;
const design = () => TestBed.inject(ToolbarDesign);
const toolbarOf = (screen: Screen<unknown>) => screen.draft['toolbar'] as JsonObject | undefined;

describe('the list of buttons', () => {
  const open = (profile = 'story-desk') => Screen.of(ToolbarChapter, { profile });

  test('is sorted by purpose, says what is on and where, and what the rules take', async () => {
    const screen = await open();
    expect(screen.texts('.list h2')).toEqual([
      'Paragraphs and headings',
      'Words',
      'Lists',
      'Links and places',
      'Pictures, tables, embeds',
      'Characters',
      'Working on the text',
    ]);
    expect(screen.texts('.bar .ty-num')).toEqual(['28 of 62 on']);
    expect(screen.texts(`${row('bold')} .state`)).toEqual(['Words']);
    expect(screen.texts(`${row('underline')} .state`)).toEqual(['off']);
    expect(screen.has(`${row('underline')} .lacks`)).toBe(true);
  });

  test('is filtered by name, element and what a button does', async () => {
    const screen = await open();
    await screen.set('#palette-filter', 'quotation', 'input');
    expect(screen.texts('.label')).toEqual(['Block quote']);
    await screen.set('#palette-filter', 'nonsense', 'input');
    expect(screen.texts('.none')).toEqual(['No button has these words.']);
  });

  test('what a parent has and this profile does not is said', async () => {
    const screen = await open('notices-desk');
    expect(screen.texts(`${row('italic')} .state`)).toEqual(['off here; House has it']);
  });

  test('ticking puts a button beside its kin; ticking again takes it off and leaves nothing behind', async () => {
    const screen = await open();
    const before = toolbarOf(screen);
    await screen.click(`${row('underline')} input`);
    expect(group(screen, 'words')).toEqual(['bold', 'italic', 'styles', 'clear-formatting', 'underline']);
    await screen.click(`${row('underline')} input`);
    expect(toolbarOf(screen)).toEqual(before);
  });
});

describe('the board', () => {
  const open = (profile = 'story-desk') => Screen.of(ToolbarBoard, { profile });
  const key = async (screen: Screen<unknown>, tile: string, name: string, rest: KeyboardEventInit = {}) => {
    screen.find(`[data-tile=${tile}]`).dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true, ...rest }));
    await screen.settle();
  };

  test('shows groups with their buttons; what the rules take and what no document uses is said of each', async () => {
    const screen = await open();
    expect(screen.texts('.group .none')).toEqual([]);
    const label = (tile: string) => screen.find(`[data-tile=${tile}]`).getAttribute('aria-label');
    expect(label('bold')).toBe('Bold; in none of the stored documents; from House');
    expect(label('heading-4')).toBe('Heading 4; in none of the stored documents; added here');
    expect(label('undo')).toBe('Undo; from House');
  });

  test('one tab stop; arrows walk, Alt and arrows move across groups, Delete takes off', async () => {
    const screen = await open();
    const stops = () =>
      [...(screen.fixture.nativeElement as HTMLElement).querySelectorAll<HTMLElement>('[data-tile]')]
        .filter(({ tabIndex }) => tabIndex === 0)
        .map(({ dataset }) => dataset['tile']);
    expect(stops()).toEqual(['paragraph']);
    await key(screen, 'paragraph', 'ArrowRight');
    expect(stops()).toEqual(['heading-2']);
    await key(screen, 'heading-2', 'End');
    expect(stops()).toEqual(['keyboard-help']);
    await key(screen, 'heading-4', 'ArrowRight', { altKey: true });
    expect(group(screen, 'words')?.[0]).toBe('heading-4');
    expect(screen.texts('[role=status]')).toEqual(['Heading 4 is number 1 of 5 in Words.']);
    await key(screen, 'heading-4', 'ArrowLeft', { altKey: true });
    expect(group(screen, 'blocks')).toEqual(['paragraph', 'heading-2', 'heading-3', 'heading-4']);
    await key(screen, 'heading-2', 'Delete');
    expect(group(screen, 'blocks')).toEqual(['paragraph', 'heading-3', 'heading-4']);
    expect(stops()).toEqual(['heading-3']);
  });

  test('groups are named, moved, folded away, begun on a row, added and removed', async () => {
    const screen = await open();
    await screen.set('[aria-label="Name of the group Words"]', 'Text');
    await screen.choose('[data-group=words] .acts', 'Move earlier');
    await screen.choose('[data-group=words] .acts', 'Always under');
    await screen.choose('[data-group=lists] .acts', 'Begins a row');
    const groups = arrangeToolbar(screen.profile.toolbar);
    expect(groups.slice(0, 3).map(({ id, label, inMore, newRow }) => [id, label, inMore, newRow])).toEqual([
      ['words', 'Text', true, false],
      ['blocks', 'Blocks', false, false],
      ['lists', 'Lists', false, true],
    ]);
    screen.find<HTMLInputElement>('#new-group').value = 'Words';
    screen.find('form').dispatchEvent(new Event('submit', { cancelable: true }));
    await screen.settle();
    expect(arrangeToolbar(screen.profile.toolbar).at(-1)).toMatchObject({ id: 'words-2', label: 'Words', buttons: [] });
    expect(design().target()).toBe('words-2');
    await screen.choose('[data-group=words-2] .acts', 'Remove it');
    expect(group(screen, 'words-2')).toBeUndefined();
    await screen.click('.add .ty-quiet');
    expect(toolbarOf(screen)).toBeUndefined();
    expect(group(screen, 'words')).toEqual(['bold', 'italic', 'clear-formatting']);
  });

  test('a name that is emptied comes back', async () => {
    const screen = await open();
    await screen.set('[aria-label="Name of the group Words"]', ' ');
    expect(screen.find<HTMLInputElement>('[aria-label="Name of the group Words"]').value).toBe('Words');
  });

  test('an empty toolbar says how to begin', async () => {
    const screen = await open('reply');
    await screen.choose('[data-group=words] .acts', 'Remove it');
    await screen.choose('[data-group=links] .acts', 'Remove it');
    expect(screen.texts('.groups p')[0]).toMatch(/^The toolbar is empty/);
    design().putOn('bold');
    expect(arrangeToolbar(screen.profile.toolbar)).toEqual([
      { id: 'buttons', label: 'Buttons', buttons: ['bold'], newRow: false, inMore: false },
    ]);
  });
});

describe('all about a button', () => {
  const open = async (button: Parameters<ToolbarDesign['putOn']>[0], profile = 'story-desk') => {
    const screen = await Screen.of(ButtonDetails, { profile });
    design().chosen.set(button);
    await screen.settle();
    return screen;
  };
  const press = async (screen: Screen<unknown>, words: string) => {
    const button = [...(screen.fixture.nativeElement as HTMLElement).querySelectorAll('button')].find((one) =>
      (one.textContent ?? '').trim().startsWith(words),
    );
    if (button === undefined) throw new Error(`No “${words}” in ${screen.texts('button').join('; ')}`);
    button.click();
    await screen.settle();
  };

  test('switching on offers the rules it lacks, in one step', async () => {
    const screen = await open('underline');
    expect(screen.texts('.needs li')).toEqual(['×u is removed']);
    await press(screen, 'Put on, and allow u');
    expect(screen.profile.markup.elements['u']).toEqual({ outcome: 'keep' });
    expect(group(screen, 'words')).toContain('underline');
    expect(screen.texts('.needs li')).toEqual(['✓u is kept']);
  });

  test('switching off offers to take back what nothing else needs, in one step', async () => {
    const screen = await open('table', 'notices-desk');
    await press(screen, 'Take off, and take back table, tbody, tr, td, th');
    expect(screen.profile.markup.elements['table']?.outcome).toBe('unwrap');
    expect(group(screen, 'things')).toEqual(['picture']);
  });

  test('where the house limits stand against it, that is said and nothing is offered', async () => {
    const screen = await open('embed');
    expect(screen.texts('.finding')[0]).toMatch(/^The house limits remove/);
    expect(screen.texts('.acts button')).toEqual(['Put on']);
    await press(screen, 'Put on');
    expect(screen.texts('.finding')[0]).toMatch(/Only the house limits can change that\.$/);
  });

  test('a profile of its own allows with one press what a button lacks', async () => {
    const screen = await open('bulleted-list', 'reply');
    await press(screen, 'Put on');
    expect(screen.texts('.finding')[0]).toMatch(/^The markup rules remove ul, li/);
    await press(screen, 'Allow ul, li');
    expect(screen.has('.finding')).toBe(false);
  });

  test('moves earlier, later and to another group', async () => {
    const screen = await open('italic');
    await screen.click('[aria-label="Move Italic earlier"]');
    expect(group(screen, 'words')?.[0]).toBe('italic');
    await screen.set('mat-select', 'links');
    expect(group(screen, 'links')?.at(-1)).toBe('italic');
    expect(screen.texts('.where')[0]).toMatch(/House has it elsewhere/);
  });

  test('options are read, refused with what they must be, and followed again', async () => {
    const screen = await open('table', 'notices-desk');
    expect(screen.texts('.from')).toEqual(['here Follow', 'here Follow', 'default']);
    await screen.set('#option-table-maxRows', 'many');
    expect(screen.texts('[data-setting=option-table-maxRows] .mistake')).toEqual(['Most rows: it must be a whole number from 1 to 500.']);
    await screen.set('#option-table-maxRows', '12');
    expect(screen.profile.toolbar.options.table.maxRows).toBe(12);
    await screen.click('[aria-label="Follow the parent again: Most rows"]');
    expect(screen.profile.toolbar.options.table.maxRows).toBe(60);
    await screen.click('#option-table-headerRow-input');
    expect(screen.profile.toolbar.options.table.headerRow).toBe(false);
  });

  test('a palette is written in lines', async () => {
    const screen = await open('text-colour');
    await screen.set('textarea', 'Sea: #17475c\nBuoy = #b5451c');
    expect(screen.profile.toolbar.options['text-colour'].colours).toEqual([
      { name: 'Sea', value: '#17475c' },
      { name: 'Buoy', value: '#b5451c' },
    ]);
    await screen.set('textarea', 'Sea #17475c');
    expect(screen.texts('.mistake').join('')).toMatch(/must be lines such as “Sea: #17475c”/);
    await screen.set('textarea', 'Sea: wet');
    expect(screen.texts('.mistake').join('')).toMatch(/must be/);
  });

  test.each([
    ['block-kind', '#option-block-kind-levels', '2 3 9', false],
    ['block-kind', '#option-block-kind-levels', '3, 4', true],
    ['link', '#option-link-kinds', 'page mail', true],
    ['link', '#option-link-kinds', 'page fax', false],
    ['picture', '#option-picture-placements-left', '', true],
    ['picture', '#option-picture-placements-left', 'two words', false],
    ['word-count', '#option-word-count-most', '', true],
    ['bold', '#option-bold-element', 'b', true],
  ] as const)('%s: %s takes “%s”: %s', async (button, field, typed, isTaken) => {
    const screen = await open(button);
    await screen.set(field, typed);
    expect(screen.texts('.mistake').join('') === '').toBe(isTaken);
  });
});

describe('what authors must do', () => {
  test('is tried, told with the reason, and made possible with its rules', async () => {
    const screen = await Screen.of(TaskCheck, { profile: 'reply' });
    expect(screen.texts('.intro')[0]).toContain('1 of 5 can be done');
    expect(screen.texts('[data-task=list]')[0]).toContain('The toolbar lacks “Bulleted list”.');
    await screen.click('[data-task=list] .ty-quiet');
    expect(screen.texts('[data-task=list]')[0]).toMatch(/“Bulleted list”\s*one act/);
    expect(screen.profile.markup.elements['ul']).toBeDefined();
    expect(screen.texts('section li')).toEqual(['Bold Take off', 'Italic Take off']);
    await screen.click('[aria-label="Take Italic off"]');
    expect(screen.texts('section li')).toEqual(['Bold Take off']);
    await screen.click('[data-task=stress] input');
    expect(screen.texts('section p')).toEqual(['Nothing.']);
  });
});

describe('marks while typing', () => {
  test('say what the rules lack, where they come from, and are switched', async () => {
    const screen = await Screen.of(TypedMarks, { profile: 'ferry-note' });
    expect(screen.texts('[data-shortcut=bold] .from')).toEqual(['House']);
    expect(screen.texts('[data-shortcut=heading] .from')).toEqual(['here']);
    expect(screen.has('[data-shortcut=heading].bad')).toBe(false);
    await screen.click('[data-shortcut=heading] input');
    expect(screen.has('[data-shortcut=heading].bad')).toBe(true);
    await screen.set('#narrow', 'more');
    expect(screen.profile.toolbar.narrow).toBe('more');
  });
});

describe('the surface', () => {
  const open = async (profile = 'notices-desk') => {
    const screen = await Screen.of(SurfaceChapter, { profile });
    for (const request of screen.http.match('/api/v1/site-dictionary')) request.flush({ words: ['Marram'] });
    await screen.settle();
    return screen;
  };

  test('settings say where they come from, are changed, and followed again', async () => {
    const screen = await open();
    const from = (setting: string) => screen.texts(`[data-setting=${setting}] .from`);
    expect(from('surface-heightPx')).toEqual(['here Follow']);
    expect(from('surface-widthsPx')).toEqual(['House']);
    await screen.set('#surface-heightPx', '500');
    expect(screen.profile.surface.heightPx).toBe(500);
    await screen.click('[aria-label="Follow the parent again: Height, or least height"]');
    expect(screen.profile.surface.heightPx).toBe(420);
    await screen.set('#surface-heightPx', '');
    expect(screen.texts('.mistake').join(' ')).toMatch(/must be a whole number from 60 to 2,000/);
    expect(screen.profile.surface.heightPx).toBe(420);
    await screen.set('#surface-widthsPx', '400, 600');
    expect(screen.profile.surface.widthsPx).toEqual([400, 600]);
    await screen.click('#surface-spelling-atOnce-input');
    expect(screen.profile.surface.spelling.atOnce).toBe(true);
  });

  test('the greatest height is asked only where it counts, the stylesheet only where it is used', async () => {
    const screen = await open();
    expect(screen.has('#surface-tallestPx')).toBe(false);
    await screen.set('#surface-height', 'between');
    expect(screen.has('#surface-tallestPx')).toBe(true);
    expect(screen.has('ty-css-field')).toBe(false);
    await screen.set('#surface-stylesheets', 'both');
    expect(screen.has('ty-css-field .cm-content')).toBe(true);
  });

  test('the site’s words are listed, and one that is no word is refused', async () => {
    const screen = await open();
    expect(screen.texts('ty-site-words li')).toEqual(['Marram×']);
    screen.find<HTMLInputElement>('#site-word').value = 'two words';
    screen.find('ty-site-words form').dispatchEvent(new Event('submit', { cancelable: true }));
    await screen.settle();
    expect(screen.texts('ty-site-words .failure')).toEqual(['One word of letters, please.']);
    screen.http.expectNone('/api/v1/site-dictionary/words');
  });
});
