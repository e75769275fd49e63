import { BUTTONS, type ButtonId, type JsonObject } from '@typikon/core';
import fc from 'fast-check';
import { undo } from 'prosemirror-history';
import { TextSelection } from 'prosemirror-state';
import { randomContent } from '../../core/test/random-content';
import { tangledMarkup } from '../../core/test/tangled-markup';
import { PROFILE } from './everything';
import { completePage, openPage, type EditorPage } from './page';
import { runs } from '../../core/test/fixed-seed';

completePage();

/** What handlers of events throw is told to the window, not to whoever sends the event. */
const thrown: unknown[] = [];
window.addEventListener('error', (event) => {
  thrown.push(event.error instanceof Error ? event.error.stack : event.error);
  event.preventDefault();
});

type Act = (page: EditorPage) => void;
const KEYS =
  'Enter Shift-Enter Tab Shift-Tab Backspace Delete Mod-Enter Mod-a Mod-b Mod-] Mod-[ Mod-z Mod-y Alt-ArrowUp Alt-ArrowDown Escape'.split(
    ' ',
  );
const letters = fc.constantFrom('a', ' ', '- ', '1. ', '"', '--', '**b** ', '# ', '> ', '. ', '(c)');
const face = fc.nat(999).map((one) => one / 1000);

const act: fc.Arbitrary<[string, Act]> = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.tuple(face, face).map(([from, to]): [string, Act] => [`select ${from} ${to}`, (page) => select(page, from, to)]),
  },
  { weight: 3, arbitrary: fc.constantFrom(...KEYS).map((key): [string, Act] => [key, (page) => page.key(key)]) },
  { weight: 1, arbitrary: letters.map((text): [string, Act] => [`type ${text}`, (page) => page.type(text)]) },
  {
    weight: 4,
    arbitrary: fc
      .tuple(fc.constantFrom(...BUTTONS.map(({ id }) => id)), face)
      .map(([id, die]): [string, Act] => [`${id} ${die}`, (page) => press(page, id, die)]),
  },
);

const kept = (names: string): JsonObject => ({ elements: Object.fromEntries(names.split(' ').map((name) => [name, {}])) });
const PROFILES: readonly JsonObject[] = [
  PROFILE,
  { ...PROFILE, surface: { enter: 'break', shiftEnter: 'paragraph', tab: 'indent' } },
  { ...PROFILE, surface: { enter: 'block', shiftEnter: 'nothing', tab: 'spaces' } },
  { ...PROFILE, markup: kept('ul li b a table tr td h2 blockquote') },
  { ...PROFILE, markup: kept('p br i') },
];

function select({ view }: EditorPage, from: number, to: number): void {
  const { doc, tr } = view.state;
  const [anchor, head] = [from, to].map((die) => doc.resolve(Math.floor(die * (doc.content.size + 1))));
  view.dispatch(tr.setSelection(TextSelection.between(anchor!, head!)));
}

/** Presses a button, something in the menu that it opens, and closes the dialog. */
function press(page: EditorPage, id: ButtonId, die: number): void {
  page.press(id);
  const items = page.host.querySelectorAll<HTMLButtonElement>('.te-menu > button');
  items[Math.floor(die * items.length)]?.click();
  page.host.querySelector('dialog')?.dispatchEvent(new Event('cancel', { cancelable: true }));
}

test('whatever is pressed, nothing is thrown, the text stays one, and undone to the start it is the same bytes', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.oneof(randomContent, tangledMarkup),
      fc.constantFrom(...PROFILES),
      fc.array(act, { minLength: 1, maxLength: 8 }),
      async (html, profile, acts) => {
        const page = await openPage(html.replace(/[[\]|]/g, ''), { profile });
        const given = page.editor.html;
        thrown.length = 0;
        for (const [, run] of acts) {
          run(page);
          page.view.state.doc.check();
          expect(thrown).toEqual([]);
        }
        for (let i = 0; i < 200 && undo(page.view.state, page.view.dispatch); i++);
        expect([acts.map(([name]) => name), page.editor.html]).toEqual([acts.map(([name]) => name), given]);
        page.editor.destroy();
      },
    ),
    { numRuns: runs(60) },
  );
}, 60_000);
