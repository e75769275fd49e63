import { expectationWords, sourceName } from '@typikon/core/settings';
import {
  fieldsOf,
  groupEntries,
  PASS_IDS,
  PASS_WORDS,
  pastePassesSchema,
  resolveProfile,
  runPaste,
  type Expectation,
  type PassId,
} from '@typikon/core';
import { ExpectationsEditor } from '../src/features/specimens/expectations-editor';
import { PassSettings } from '../src/features/paste/pass-settings';
import { PasteChapter } from '../src/features/paste/paste-chapter';
import { LeftView } from '../src/features/bench/left-view';
import { ExpectationsView } from '../src/features/bench/expectations-view';
import { BenchActions, benchFeature } from '../src/state/bench';
import { wordsOf } from '../src/state/ledger-words';
import { overtakenWords, thingName } from '../src/state/paste-words';
import { PROOF_WORKER } from '../src/state/proof-runner';
import { TestBed } from '@angular/core/testing';
import { demoLibrary, Screen } from './support';

/** A worker that never answers: what is shown comes from the proofs that the tests give. */
class SilentWorker extends EventTarget {
  postMessage(): void {}
  terminate(): void {}
}
beforeEach(() => TestBed.configureTestingModule({ providers: [{ provide: PROOF_WORKER, useValue: () => new SilentWorker() }] }));

const library = demoLibrary();
const markup = (id: string): Record<string, string> => ({
  ...library.specimens.find((specimen) => specimen.id === id)!.payload.types,
});

describe('the ladder', () => {
  async function chapter(): Promise<Screen<PasteChapter>> {
    const screen = await Screen.of(PasteChapter, { profile: 'notices-desk' });
    const specimen = library.specimens.find(({ id }) => id === 'committee-minutes')!;
    screen.store.dispatch(BenchActions.specimenChosen({ specimen }));
    screen.paste(markup('committee-minutes'));
    await screen.settle();
    return screen;
  }

  test('numbers the passes in their order, with what each did', async () => {
    const screen = await chapter();
    expect(screen.texts('[data-pass] .number').slice(0, 3)).toEqual(['3.2', '3.3', '3.4']);
    expect(screen.texts('[data-pass] .name')).toEqual(PASS_IDS.map((id) => PASS_WORDS[id].label));
    expect(screen.texts('[data-pass=lists] .did')[0]).toMatch(/^3items, −\d+ B$/);
    expect(screen.texts('[data-pass=joined-lines] .did')).toEqual(['–not for this source']);
    expect(screen.texts('.rung.source .what p')[0]).toMatch(/^Word processor: the namespace of a word processor/);
    expect(screen.texts('.rung.last .did b')[0]).toMatch(/^\d+$/);
  });

  test('a switch is a setting of the draft, and undoable', async () => {
    const screen = await chapter();
    await screen.click('[data-pass=classes] input');
    expect(screen.draft).toMatchObject({ paste: { passes: { classes: { on: false } } } });
    expect(screen.profile.paste.passes.classes.on).toBe(false);
  });

  test('the arrow keys move a pass, and not beyond the ends', async () => {
    const screen = await chapter();
    const press = async (pass: PassId, key: string): Promise<void> => {
      screen.find(`[data-pass=${pass}] .grip`).dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      await screen.settle();
    };
    await press('notes', 'ArrowUp');
    expect(screen.profile.paste.order.slice(0, 2)).toEqual(['notes', 'joined-lines']);
    await press('notes', 'ArrowUp');
    expect(screen.profile.paste.order.slice(0, 2)).toEqual(['notes', 'joined-lines']);
    await press('notes', 'ArrowDown');
    expect(screen.profile.paste.order.slice(0, 2)).toEqual(['joined-lines', 'notes']);
    await press('spaces', 'x');
    expect(screen.profile.paste.order.at(-1)).toBe('spaces');
    await screen.click('.bar .ty-quiet');
    expect(screen.profile.paste.order).toEqual([]);
  });

  test('what a paste becomes is chosen above it', async () => {
    const screen = await chapter();
    await screen.set('#paste-choice', 'ask');
    expect(screen.profile.paste.choice).toBe('ask');
    await screen.click('.rung.source input');
    expect(screen.profile.paste.markdown).toBe(false);
  });
});

describe.each(PASS_IDS.map((id) => [id]))('settings of %s', (pass) => {
  const settings = () => Screen.of(PassSettings, { profile: 'notices-desk', inputs: { pass } });

  test('every setting of the pass has a field, and every field is a setting', async () => {
    const screen = await settings();
    const known = Object.keys(screen.profile.paste.passes[pass]).filter((key) => key !== 'on' && key !== 'sources');
    const lines = (screen.fixture.nativeElement as HTMLElement).querySelectorAll('[data-setting]');
    const shown = [...lines].map((line) => line.getAttribute('data-setting')!.replace('pass-', ''));
    expect(new Set(shown).size).toBe(shown.length);
    expect(shown).toEqual(expect.arrayContaining([...known, 'sources']));
    expect(shown).not.toContain('on');
    expect(shown).toEqual(
      expect.arrayContaining(Object.keys(pastePassesSchema.shape[pass].def.innerType.shape).filter((key) => key !== 'on')),
    );
  });

  test('every choice that is offered can be made', async () => {
    const screen = await settings();
    for (const { kind, keys, options } of fieldsOf(pastePassesSchema.shape[pass])) {
      if (kind !== 'choice') continue;
      for (const [value] of options) {
        await screen.set(`#pass-${keys[0]}`, value);
        expect(screen.profile.paste.passes[pass]).toMatchObject({ [keys[0]!]: value });
      }
    }
    expect(screen.texts('.mistake').join('')).toBe('');
  });

  test('it can be meant for some sources, but not for none', async () => {
    const screen = await settings();
    const boxes = (): HTMLInputElement[] => [
      ...(screen.fixture.nativeElement as HTMLElement).querySelectorAll<HTMLInputElement>('.sources input'),
    ];
    const before = boxes().filter(({ checked }) => checked).length;
    for (const box of boxes().filter(({ checked }) => checked)) {
      box.click();
      await screen.settle();
    }
    expect(screen.profile.paste.passes[pass].sources).toHaveLength(1);
    expect(screen.texts('ty-sources-field .mistake')[0]).toMatch(/works on one kind of source at least/);
    expect(before).toBeGreaterThan(0);
  });
});

describe('fields', () => {
  test('words are split, checked and kept', async () => {
    const screen = await Screen.of(PassSettings, { profile: 'notices-desk', inputs: { pass: 'inline-style' } });
    await screen.set('#pass-keep', 'text-align, color');
    expect(screen.profile.paste.passes['inline-style'].keep).toEqual(['text-align', 'color']);
    await screen.set('#pass-keep', 'text-align 7up');
    expect(screen.texts('.mistake')).toContain('These properties stay: “7up” must be a CSS property in lower case.');
    expect(screen.profile.paste.passes['inline-style'].keep).toEqual(['text-align', 'color']);
    await screen.set('#pass-drop', 'color');
    expect(screen.profile.paste.passes['inline-style'].drop).toEqual(['color']);
    await screen.set('#pass-drop', ' ');
    expect(screen.profile.paste.passes['inline-style'].drop).toBeUndefined();
  });
  test('an optional number goes when its field is emptied', async () => {
    const screen = await Screen.of(PassSettings, { profile: 'house', inputs: { pass: 'pictures' } });
    expect(screen.profile.paste.passes.pictures.widestPx).toBe(720);
    await screen.set('#pass-widestPx', '');
    expect(screen.profile.paste.passes.pictures.widestPx).toBeUndefined();
    await screen.set('#pass-widestPx', '0');
    expect(screen.texts('.mistake').join('')).toBe('Widest picture: it must be a whole number from 1 to 10,000, or nothing.');
  });
  test('redirects are added, changed and removed; a profile goes back to its parent', async () => {
    const screen = await Screen.of(PassSettings, { profile: 'story-desk', inputs: { pass: 'links' } });
    expect(screen.profile.paste.passes.links.redirects).toHaveLength(2);
    await screen.set('[data-setting=pass-redirects] .row:first-of-type mat-form-field:nth-child(2) input', 'to');
    expect(screen.profile.paste.passes.links.redirects[0]).toEqual({ host: 'redirect.mail.example', parameter: 'to' });
    await screen.click('[data-setting=pass-redirects] .row button');
    expect(screen.profile.paste.passes.links.redirects).toHaveLength(1);
    await screen.click(':scope > button');
    expect(screen.profile.paste.passes.links.redirects).toHaveLength(2);
    expect(screen.draft['paste']).toBeUndefined();
  });
});

describe('what is left', () => {
  test('lists the things of the result; dropping one edits the right pass', async () => {
    const screen = await Screen.of(LeftView, { profile: 'notices-desk' });
    const types = { 'text/html': '<p>a <b>b</b> <i>c</i></p>' };
    screen.paste(types);
    await screen.settle();
    expect(screen.texts('tbody [role=rowheader]')).toEqual(['em', 'strong']);
    // Something else is on the bench still: what is listed is not its.
    const drop = () => screen.find<HTMLButtonElement>('tbody tr:first-child .acts button:last-child');
    expect([drop().disabled, screen.find('.list').getAttribute('aria-busy')]).toEqual([true, 'true']);
    screen.store.dispatch(BenchActions.authorPasted({ payload: { types } }));
    await screen.settle();
    expect([drop().disabled, screen.find('.list').getAttribute('aria-busy')]).toEqual([false, 'false']);
    await screen.click('tbody tr:first-child .acts button:last-child');
    expect(screen.profile.paste.passes.elements).toMatchObject({ on: true, unwrap: ['em', 'i'] });
    expect(screen.texts('.done')[0]).toBe('From now on em goes: §3 Elements and attributes. Undo');
    screen.paste({ 'text/html': '<p>a <b>b</b> <i>c</i></p>' });
    await screen.settle();
    expect(screen.texts('tbody [role=rowheader]')).toEqual(['strong']);
    await screen.click('.ways button:last-child');
    expect(screen.texts('tbody [role=rowheader]')).toEqual(expect.arrayContaining(['b', 'i']));
  });
  test('of stored markup, which no pass works on, nothing is offered to be dropped', async () => {
    const screen = await Screen.of(LeftView, { profile: 'notices-desk', html: '<p><strong>a</strong></p>' });
    expect(screen.texts('tbody .acts')).toEqual(['show']);
  });
  test('plain words leave nothing to list', async () => {
    const screen = await Screen.of(LeftView, { profile: 'notices-desk', html: '<p>Plain.</p>' });
    expect(screen.texts('.empty')).toEqual(['Plain words in paragraphs, and nothing else.']);
  });
});

describe('words', () => {
  const resolution = resolveProfile('notices-desk', (id) => library.profiles.find((profile) => profile.id === id)?.document);
  const resolved = resolution.ok ? resolution.resolved : undefined;

  test.each(library.specimens.map((specimen): [string, (typeof library.specimens)[number]] => [specimen.id, specimen]))(
    'every change of %s is told in a sentence, with its rule',
    (_id, { payload }) => {
      const { ledger } = runPaste(payload, resolved!);
      for (const group of groupEntries(ledger)) {
        const { sentence, citation } = wordsOf(group, (id) => id);
        expect(sentence).toMatch(/^\S.{10,}/);
        expect(sentence).not.toMatch(/undefined|paste-|\bnull\b| {2}/);
        if (group.rule.startsWith('/paste/')) expect(citation).toMatch(/^§3 Paste, [A-Z]/);
      }
    },
  );
  test('every expectation of the demo is told in a sentence', () => {
    for (const { expectations } of library.specimens)
      for (const expectation of expectations) expect(expectationWords(expectation)).toMatch(/^[A-Z0-9].{8,}$/su);
  });
  test('things, sources, passes in vain', () => {
    expect(thingName({ kind: 'class', name: 'note' })).toEqual({ code: '.note', words: '' });
    expect(thingName({ kind: 'link', name: '' }).words).toBe('link within the site');
    expect(sourceName('pdf-viewer')).toBe('PDF viewer');
    expect(overtakenWords({ pass: 'notes', by: 'spaces', how: 'undone' })).toBe('What Notes does here, Spaces and empties takes back.');
    expect(overtakenWords({ pass: 'wrappers', by: 'markup', how: 'anyway' })).toBe(
      'What Wrappers does here, the markup rules would do anyway.',
    );
  });
});

describe('expectations', () => {
  test('each kind can be chosen, and what cannot be expected is said', async () => {
    const screen = await Screen.of(ExpectationsEditor, { inputs: { expectations: [{ expect: 'no-office' }] } });
    const emitted: Expectation[][] = [];
    screen.fixture.componentInstance.changed.subscribe((all) => emitted.push(all));
    const kinds = screen.optionsOf('mat-select');
    expect(kinds).toHaveLength(15);
    for (const kind of kinds) {
      await screen.set('mat-select', kind);
      expect(emitted.at(-1)).toEqual([expect.objectContaining({ expect: kind })]);
    }
    screen.fixture.componentRef.setInput('expectations', [{ expect: 'count', of: 'li', is: 3 }]);
    await screen.settle();
    await screen.set('input[aria-label="Element, .class or @attribute"]', 'li > p');
    expect(screen.texts('p[role=alert]')[0]).toMatch(/must be an element such as li/);
    await screen.set('input[aria-label="How many"]', '4');
    expect(emitted.at(-1)).toEqual([{ expect: 'count', of: 'li', is: 4 }]);
    await screen.click('li button');
    expect(emitted.at(-1)).toEqual([]);
  });
  test('what is missed says what came out instead', async () => {
    const screen = await Screen.of(ExpectationsView, { profile: 'notices-desk' });
    screen.paste({ 'text/html': '<p>a</p>' });
    const proof = screen.store.selectSignal(benchFeature.selectProof)();
    screen.store.dispatch(
      BenchActions.proofComputed({
        proof: {
          ...(proof as object),
          verdicts: [
            { expectation: { expect: 'no-office' }, isMet: true, found: '' },
            { expectation: { expect: 'count', of: 'li', is: 2 }, isMet: false, found: 'none' },
          ],
        } as never,
      }),
    );
    await screen.settle();
    expect(screen.texts('li')).toEqual([
      'MetNothing of an office program is left.',
      'MissedThere are 2 <li>, but it came out otherwise: none',
    ]);
  });
});
