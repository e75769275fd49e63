import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { StylesChapter } from '../src/features/styles/styles-chapter';
import { StylesFromCss } from '../src/features/styles/styles-from-css';
import { Screen } from './support';

beforeAll(() => {
  // The frames are laid out by a browser only.
  (globalThis as { ResizeObserver?: unknown }).ResizeObserver = class {
    observe(): void {}
    disconnect(): void {}
  };
});

describe('§4 Styles', () => {
  const open = () => Screen.of(StylesChapter, { profile: 'story-desk' });
  const findings = (screen: Screen<StylesChapter>) => screen.test();

  test('lists the styles as they look, with how they stand on each page', async () => {
    const screen = await open();
    expect(screen.texts('tbody [role=rowheader]')).toEqual(['Lead', 'Note', 'Warning', 'Fare note']);
    const note = screen.find<HTMLElement>('[data-style=note] ty-style-look');
    expect(note.style.getPropertyValue('background-color')).toBe('rgb(227, 238, 241)');
    expect(screen.texts('.does')[0]).toMatch(/Turns the block .* into p, and gives it the class lead/);
    expect(screen.texts('.looks li')[0]).toMatch(/Article page.*p\.lead.*site\.css/);
  });
  test('a new style is refused with the reason, or added as one step', async () => {
    const screen = await open();
    await screen.click('.bar button');
    await screen.set('#style-new-label', 'Tide', 'input');
    await screen.set('#style-new-selector', 'p.tide:hover', 'input');
    expect(screen.texts('.new p')[0]).toMatch(/:hover is a state/);
    await screen.click('.new .go');
    expect(screen.texts('.failure')[0]).toMatch(/:hover is a state/);
    await screen.set('#style-new-selector', 'p.tide', 'input');
    await screen.click('.new .go');
    expect(screen.profile.styles['tide']).toEqual({ label: 'Tide', selector: 'p.tide' });
    expect(screen.texts('[data-style=tide] td')[3]).toBe('its markup is removed');
    expect(findings(screen).map(({ check }) => check)).toEqual(expect.arrayContaining(['style-without-markup', 'style-without-rule']));
    // The house limits do not know the class, so it cannot be allowed here.
    await screen.click('.details .bad button');
    expect(screen.texts('.failure')[0]).toMatch(/The house limits do not let it through: the class tide on p/);
  });
  test('fields change the style; an empty one takes its setting away', async () => {
    const screen = await open();
    await screen.click('[data-style=fare-note] button');
    await screen.set('#style-within', 'td, LI');
    expect(screen.profile.styles['fare-note']).toMatchObject({ within: ['td', 'li'] });
    await screen.set('#style-within', '');
    await screen.set('#style-description', '');
    expect(screen.profile.styles['fare-note']).toEqual({ label: 'Fare note', selector: 'p.fare-note', group: 'Boxes' });
    await screen.set('#style-selector', '');
    expect(screen.texts('.failure')[0]).toMatch(/needs a selector/);
    await screen.set('#style-within', '1x');
    expect(screen.texts('.failure')[0]).toMatch(/Name elements/);
  });
  test('a style is taken off the menu', async () => {
    const screen = await open();
    await screen.click('.details .danger');
    expect(Object.keys(screen.profile.styles)).toEqual(['note', 'warning', 'fare-note']);
  });
  test('an inherited one too, and it comes back', async () => {
    const screen = await Screen.of(StylesChapter, { profile: 'ferry-note' });
    expect(screen.texts('[data-style=note] td').at(-1)).toBe('Notices desk');
    await screen.click('.details .danger');
    expect(Object.keys(screen.profile.styles)).toEqual(['warning']);
    await screen.click('.off button');
    expect(Object.keys(screen.profile.styles)).toEqual(['note', 'warning']);
  });
});

describe('choosing styles from a stylesheet', () => {
  const open = async () => {
    const close = jest.fn();
    TestBed.configureTestingModule({
      providers: [
        { provide: MatDialogRef, useValue: { close } },
        { provide: MAT_DIALOG_DATA, useValue: new Set(['p.note']) },
      ],
    });
    return { screen: await Screen.of(StylesFromCss), close };
  };
  test('offers what can be applied, and says what the profile has already', async () => {
    const { screen, close } = await open();
    expect(screen.texts('li b')).toEqual(expect.arrayContaining(['Lead', 'Note', 'Warning']));
    expect(screen.find<HTMLInputElement>('li:nth-child(2) input').disabled).toBe(true);
    await screen.click('li:nth-child(1) input');
    await screen.click('.go');
    expect(close).toHaveBeenCalledWith([expect.objectContaining({ id: 'lead', style: { label: 'Lead', selector: 'p.lead' } })]);
  });
  test('takes the style set of another profile', async () => {
    const { screen } = await open();
    await screen.set('#styles-source', 'profile:notices-desk');
    expect(screen.texts('li b')).toEqual(['Note', 'Warning']);
  });
});
