import { ToolbarChapter } from '../src/features/workshop/toolbar-chapter';
import { Screen } from './support';

const open = (profile = 'story-desk') => Screen.of(ToolbarChapter, { profile });
const row = (button: string) => `[data-row="${button}"]`;
const buttonsOf = (screen: Screen<ToolbarChapter>, group: string) => screen.profile.toolbar.groups[group]?.buttons;

test('lists the groups in order with who set them, and what is not on the toolbar', async () => {
  const screen = await open();
  expect(screen.texts('section h2')).toEqual(['Blocks', 'Words', 'Lists', 'Links', 'Steps', 'Not on the toolbar']);
  expect(screen.texts('.from').slice(0, 2)).toEqual(['set by here', 'set by House']);
  expect(screen.texts('.bar .ty-num')).toEqual(['14 of 15 on']);
  expect(screen.has(`${row('underline')}.off`)).toBe(true);
});

test('a button that is switched on stands beside its kin, and says that its markup is removed', async () => {
  const screen = await open();
  await screen.click(`${row('underline')} input`);
  expect(buttonsOf(screen, 'words')).toEqual(['bold', 'italic', 'clear-formatting', 'underline']);
  expect(screen.texts(`${row('underline')} .finding`)).toEqual([
    'The markup rules remove u: what authors make with this button is gone when they save. Allow u',
  ]);
  await screen.click(`${row('underline')} .finding .ty-quiet`);
  expect(screen.has(`${row('underline')} .finding`)).toBe(false);
  expect(screen.profile.markup.elements['u']).toEqual({ outcome: 'keep' });
});

test('a profile without a parent offers the same', async () => {
  const screen = await open('reply');
  await screen.click(`${row('underline')} input`);
  expect(screen.texts(`${row('underline')} .finding`)[0]).toMatch(/Allow u$/);
});

test('switching off takes the button away, and the parent can be followed again', async () => {
  const screen = await open();
  await screen.click(`${row('italic')} input`);
  expect(buttonsOf(screen, 'words')).toEqual(['bold', 'clear-formatting']);
  await screen.click('section:nth-of-type(2) header .ty-quiet');
  expect(buttonsOf(screen, 'words')).toEqual(['bold', 'italic', 'clear-formatting']);
});

test('buttons move earlier and later, also into the next group', async () => {
  const screen = await open();
  await screen.click('[aria-label="Move Italic earlier"]');
  expect(buttonsOf(screen, 'words')).toEqual(['italic', 'bold', 'clear-formatting']);
  await screen.click('[aria-label="Move Clear formatting later"]');
  expect(buttonsOf(screen, 'words')).toEqual(['italic', 'bold']);
  expect(buttonsOf(screen, 'lists')).toEqual(['clear-formatting', 'bulleted-list', 'numbered-list', 'block-quote']);
  expect(screen.find<HTMLButtonElement>('[aria-label="Move Paragraph earlier"]').disabled).toBe(true);
  expect(screen.find<HTMLButtonElement>('[aria-label="Move Redo later"]').disabled).toBe(true);
});
