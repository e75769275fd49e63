import { LedgerView } from '../src/features/bench/ledger-view';
import { MeasureLine } from '../src/features/bench/measure-line';
import { benchFeature } from '../src/state/bench';
import { workshopFeature } from '../src/state/workshop';
import { Screen } from './support';

const open = (html: string) => Screen.of(LedgerView, { profile: 'story-desk', html });

test('says in words what happened, with the rule and the number of places', async () => {
  const screen = await open('<p><u>a</u></p>\n<u>b</u><script>c()</script>');
  expect(screen.texts('.sentence')).toEqual(['2 <u> unwrapped, the words stay', 'A script went, with its content']);
  expect(screen.texts('.places')).toEqual(['2 places', 'line 2']);
  expect(screen.texts('.cite')).toEqual([
    'House, §2 Markup, u (no rule allows it)',
    'Safety floor, §0 Safety, script (nothing can allow it)',
  ]);
});

test('says that nothing happened', async () => {
  const screen = await open('<p>fine</p>');
  expect(screen.texts('.empty')).toEqual(['Nothing was changed or removed: what came in is what is stored.']);
});

test('choosing a group shows its places, marks the first and opens the rule', async () => {
  const screen = await open('<p>x</p>\n<u>a</u>\n<u>b</u>');
  await screen.click('.sentence');
  expect(screen.texts('.entry li')).toEqual(['line 2<u>', 'line 3<u>']);
  expect(screen.store.selectSignal(benchFeature.selectEntry)()).toBe(0);
  expect(screen.store.selectSignal(workshopFeature.selectElement)()).toBe('u');
  await screen.click('.entry li:nth-child(2) button');
  expect(screen.store.selectSignal(benchFeature.selectEntry)()).toBe(1);
  await screen.click('.sentence');
  expect(screen.store.selectSignal(benchFeature.selectEntry)()).toBeNull();
});

test('a long group shows its first places and offers the rest', async () => {
  const screen = await open('<u>x</u>'.repeat(50));
  await screen.click('.sentence');
  expect(screen.texts('.entry li')).toHaveLength(21);
  await screen.click('.entry li:last-child button');
  expect(screen.texts('.entry li')).toHaveLength(50);
});

test('what a profile takes can be allowed from there', async () => {
  const screen = await open('<u>x</u>');
  await screen.click('.sentence');
  await screen.click('.act .ty-quiet');
  expect(screen.profile.markup.elements['u']).toEqual({ outcome: 'keep' });
});

test('what the safety floor takes cannot be allowed', async () => {
  const screen = await open('<script>x()</script>');
  await screen.click('.sentence');
  expect(screen.texts('.act .ty-quiet')).toEqual(['Show in source', 'Why']);
  await screen.click('.act .ty-quiet:last-child');
  expect(screen.texts('.why')[0]).toMatch(/holds for every profile and every role: \/elements\/drop ?\. Nothing lifts it/);
});

test('what the house limits take offers a way through them', async () => {
  const screen = await open('<iframe src="https://cams.example/"></iframe>');
  await screen.click('.sentence');
  expect(screen.texts('.act .ty-quiet')).toEqual(['Let it through…', 'Show in source', 'Why']);
});

test('why: the rule, its layer, and when it was set', async () => {
  const screen = await open('<u>x</u>');
  await screen.click('.sentence');
  await screen.click('.act .ty-quiet:last-child');
  screen.http
    .expectOne(({ url }) => url.startsWith('/api/v1/profiles/house/rule-history?pointer=%2Fmarkup%2Funlisted'))
    .flush({ revision: 4, savedAt: '2026-02-03T10:00:00.000Z', before: 'text', after: 'unwrap', isFirst: false });
  await screen.settle();
  expect(screen.texts('.why')[0]).toMatch(/The rule is \/markup\/unlisted of House\. It was set so in save 4, 3 Feb 2026/);
});

test('the measures say how much of the text is kept and how heavy the markup is', async () => {
  const screen = await Screen.of(MeasureLine, {
    profile: 'story-desk',
    html: '<p><font size="1">Eighteen letters in</font></p><form>gone</form>',
  });
  expect(screen.texts('dd')).toEqual(['80.9 %', '2', '1', '0.4', '0']);
  expect(screen.texts('dt')).toEqual([
    'kept of the text',
    'changes by 2 rules',
    'lost',
    'characters of markup a letter, was 2.0',
    'inline styles',
  ]);
});

test('the arrows lead from entry to entry, and Tab into one alone', async () => {
  const screen = await open('<p><u>a</u></p><q>b</q><script>c()</script>');
  const sentences = () => [...document.querySelectorAll<HTMLElement>('.sentence')];
  const focused = () => sentences().indexOf(document.activeElement as HTMLElement);
  const press = async (key: string, more: object = {}) => {
    document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }));
    await screen.settle();
  };
  const stops = () => sentences().map(({ tabIndex }) => tabIndex);
  expect(stops()).toEqual([0, -1]);
  sentences()[0]!.focus();
  await press('ArrowDown');
  expect([focused(), stops()]).toEqual([1, [-1, 0]]);
  await press('ArrowDown');
  await press('ArrowUp', { altKey: true });
  expect(focused()).toBe(1);
  await press('Home');
  await press('Enter');
  expect(focused()).toBe(0);
  sentences()[0]!.click();
  await screen.settle();
  screen.find('.entry li button').focus();
  await press('ArrowUp');
  expect(focused()).toBe(0);
  await press('End');
  expect(focused()).toBe(1);
  // What is in the other entry is passed by, open or not.
  expect([...document.querySelectorAll<HTMLElement>('.entry:first-child button')].every(({ tabIndex }) => tabIndex === -1)).toBe(true);
});
