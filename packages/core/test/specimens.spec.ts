import {
  clean,
  compileRules,
  judge,
  measure,
  parseFragment,
  runPaste,
  visibleLetters,
  visibleText,
  type ClipboardPayload,
  type Expectation,
  type Pasted,
} from '../src/index';
import { demoHouse, demoProfile } from './support';
import { longDocument, longSheet } from './long-payloads';
import { demoSpecimens, isWord } from './specimens';

const house = demoHouse();
const run = (payload: ClipboardPayload, profile: string): Pasted => runPaste(payload, demoProfile(profile), { house, isWord });
const verdicts = (expectations: readonly Expectation[], pasted: Pasted) => {
  const { lettersBefore, lettersMissed } = measure(pasted.input, pasted.html, pasted.root, pasted.ledger);
  return judge(expectations, pasted, lettersBefore === 0 ? 100 : (100 * (lettersBefore - lettersMissed)) / lettersBefore);
};

const SPECIMENS = demoSpecimens();

test('there are at least two dozen', () => expect(SPECIMENS.length).toBeGreaterThanOrEqual(24));

describe.each(SPECIMENS.map((specimen): [string, (typeof SPECIMENS)[number]] => [specimen.id!, specimen]))('%s', (_id, specimen) => {
  const pasted = run(specimen.payload, specimen.profile);

  test('comes out as expected', () => {
    expect(specimen.expectations.length).toBeGreaterThan(1);
    expect(verdicts(specimen.expectations, pasted).filter(({ isMet }) => !isMet)).toEqual([]);
  });

  test('its ledger accounts for every letter', () => {
    const lost = pasted.ledger.reduce((sum, { textLost }) => sum + textLost, 0);
    expect(visibleLetters(pasted.root) + lost).toBe(visibleLetters(parseFragment(pasted.input).root));
  });

  test('cleaned again it stays, pasted again no word of it changes', () => {
    const rules = compileRules(demoProfile(specimen.profile), { house });
    expect(clean(pasted.html, rules).html).toBe(pasted.html);
    const again = run({ types: { 'text/html': pasted.html } }, specimen.profile);
    const words = (html: string): string => visibleText(parseFragment(html).root).replace(/\s+/g, ' ').trim();
    expect(words(again.html).replace(/ /g, '')).toBe(words(pasted.html).replace(/ /g, ''));
    expect(again.ledger.filter(({ severity }) => severity === 'loss')).toEqual([]);
  });
});

describe('long ones', () => {
  test('a document of sixty pages', () => {
    const pasted = run({ types: { 'text/html': longDocument() } }, 'notices-desk');
    expect(
      verdicts(
        [
          { expect: 'source', is: 'word-processor' },
          { expect: 'no-office' },
          { expect: 'no-inline-style' },
          { expect: 'no-empty-paragraph' },
          { expect: 'links-lead-somewhere' },
          { expect: 'count', of: 'h2', is: 60 },
          { expect: 'count', of: 'li', is: 60 * 8 + 60 },
          { expect: 'count', of: 'sup', is: 60 },
          { expect: 'text-has', text: 'item 60.4.2' },
        ],
        pasted,
      ).filter(({ isMet }) => !isMet),
    ).toEqual([]);
    expect(pasted.html).toContain('<ol><li>item 7.1.1<ol type="a"><li>item 7.1.2</li></ol></li><li>item 7.2.1');
  });

  test('a sheet of three thousand rows', () => {
    const pasted = run({ types: { 'text/html': longSheet() } }, 'tender-desk');
    expect(
      verdicts(
        [
          { expect: 'source', is: 'spreadsheet' },
          { expect: 'no-office' },
          { expect: 'no-inline-style' },
          { expect: 'text-kept', percent: 100 },
          { expect: 'count', of: 'tr', is: 3001 },
          { expect: 'count', of: 'th', is: 4 },
          { expect: 'count', of: 'td', is: 12_000 },
          { expect: 'count', of: '@width', is: 0 },
        ],
        pasted,
      ).filter(({ isMet }) => !isMet),
    ).toEqual([]);
  });
});

describe('what a specimen can demand', () => {
  const pasted = run(
    { types: { 'text/html': '<h2>Tides</h2><p style="color:red">High&nbsp;5 <b>now</b></p><p><a href="#nowhere">x</a></p>' } },
    'story-desk',
  );
  test.each<[Expectation, string]>([
    [{ expect: 'count', of: 'strong', is: 2 }, '1'],
    [{ expect: 'count', of: 'table', is: 1 }, 'none'],
    [{ expect: 'text-is', text: 'Tides' }, 'Tides High 5 now x'],
    [{ expect: 'text-has', text: 'low' }, 'not there'],
    [{ expect: 'text-lacks', text: 'now' }, 'still there'],
    [{ expect: 'markup-has', html: '<em>' }, 'not there'],
    [{ expect: 'markup-lacks', html: '<strong>' }, 'still there'],
    [{ expect: 'outline', is: ['2 Fees'] }, '2 Tides'],
    [{ expect: 'source', is: 'chat' }, 'web-page'],
    [{ expect: 'links-lead-somewhere' }, '#nowhere'],
    [{ expect: 'pictures-to-upload', is: 1 }, 'none'],
    [{ expect: 'text-kept', percent: 100 }, ''],
  ])('%j is told apart', (expectation, found) => {
    expect(verdicts([expectation], pasted)).toEqual([{ expectation, isMet: found === '', found }]);
  });
});
