import { fieldSchema } from '@typikon/core';
import { HelpChapter } from '../src/features/help/help-chapter';
import { FieldEntry } from '../src/shared/writing/field-entry';
import { Screen } from './support';

describe('§6 Help', () => {
  const open = () => Screen.of(HelpChapter, { profile: 'story-desk' });
  const part = (name: string, of: string): string => `[data-part=${name}] ${of}`;

  test('tells what the rules say of themselves, part by part', async () => {
    const screen = await open();
    expect(screen.texts(part('headings', 'p'))).toEqual(['Headings of levels 2, 3 and 4.']);
    expect(screen.texts('.can')[0]).toMatch(/^What you can do here Headings of levels 2, 3 and 4\. /);
    expect(screen.texts(part('headings', '.origin'))).toEqual(['as the rules say']);
  });

  test('a part is hidden, has words of its own, and goes back to what the rules say', async () => {
    const screen = await open();
    await screen.click(part('headings', 'input[type=checkbox]'));
    expect(screen.draft['help']).toEqual({ parts: { headings: { shown: false } } });
    expect(screen.texts('.can')[0]).not.toContain('Headings');
    await screen.set(part('pictures', 'input[matInput]'), ' Pictures of boats. ');
    expect(screen.profile.help.parts.pictures).toEqual({ shown: true, words: 'Pictures of boats.' });
    expect(screen.texts('.can')[0]).toContain('Pictures of boats.');
    await screen.click(part('headings', '.origin button'));
    expect(screen.profile.help.parts.headings).toBeUndefined();
    expect(screen.texts('.can')[0]).toContain('Headings of levels');
  });

  test('the text is shown as authors get it: cleaned', async () => {
    const screen = await open();
    await screen.set('#profile-help', '<p onclick="x">Short <b>words</b>.</p><script>x</script>');
    expect(screen.find('.text').innerHTML).toBe('<p>Short <strong>words</strong>.</p>');
  });
});

describe('a field as its author has it', () => {
  const open = (field: object, inputs: Record<string, unknown> = {}) =>
    Screen.of(FieldEntry, { inputs: { field: fieldSchema.parse({ key: 'ferry', title: 'Ferry', kind: 'line', ...field }), ...inputs } });

  test('has its help, more of it in place, and what is wrong once somebody was there', async () => {
    const screen = await open(
      { needed: true, letters: { to: 6 }, help: { short: 'Which one.', long: '<p>By <i>name</i>.</p>', example: 'Dunlin' } },
      { profileHelp: '<p>House words.</p>' },
    );
    expect(screen.texts('.help')[0]).toBe('Which one. More about Ferry');
    expect(screen.has('.long')).toBe(false);
    await screen.click('.help button');
    expect(screen.texts('.long > *')).toEqual(['By name.', 'For example Dunlin', 'House words.']);
    expect(screen.has('.mistake')).toBe(false);
    screen.find('input').dispatchEvent(new FocusEvent('blur'));
    await screen.settle();
    expect(screen.texts('.mistake')).toEqual(['This is needed, and it is empty.']);
    await screen.set('input', 'Old Tansy', 'input');
    expect(screen.texts('.mistake')).toEqual(['This is 3 letters too long.']);
  });

  test('who may not write sees what stands there', async () => {
    const screen = await open({ kind: 'rich' }, { value: '<p>Noon <b>only</b></p>', refusal: 'Not you.' });
    expect(screen.texts('.nobody, .text')).toEqual(['≈ Not you.', 'Noon only']);
  });
});
