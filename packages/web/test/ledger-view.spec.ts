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
    'House, §2 Markup, u(no rule allows it)',
    'Safety floor, §0 Safety, script(nothing can allow it)',
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

test.each([
  [
    '<iframe src="https://cams.example/"></iframe>',
    'The house limits hold for every profile; allowing it here alone would change nothing.',
  ],
  ['<script>x()</script>', ''],
])('what layers above the profile take cannot: %s', async (html, text) => {
  const screen = await open(html);
  await screen.click('.sentence');
  expect(screen.has('.act .ty-quiet')).toBe(false);
  expect(screen.texts('.act')).toEqual([text]);
});

test('the measures say how much of the text is kept and how heavy the markup is', async () => {
  const screen = await Screen.of(MeasureLine, {
    profile: 'story-desk',
    html: '<p><font size="1">Eighteen letters in</font></p><form>gone</form>',
  });
  expect(screen.texts('dd')).toEqual(['80.9 %', '2', '1', '0.5']);
  expect(screen.texts('dt')).toEqual(['of the text kept', 'changes, 2 rules', 'thing lost', 'markup per letter, was 2.1']);
});
