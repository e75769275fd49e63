import { compared } from '../../bench/compared.mjs';

const BEFORE = { stored: 3.7, word: 0.8, sheet: 0.11 };

test.each([
  ['higher', { ...BEFORE, word: 0.5 }, ['SLOWER: word 0.8 → 0.5']],
  ['higher', { ...BEFORE, sheet: 0.4 }, ['faster: sheet 0.11 → 0.4']],
  ['lower', { ...BEFORE, word: 0.5, stored: 5 }, ['SLOWER: stored 3.7 → 5', 'faster: word 0.8 → 0.5']],
  ['higher', { ...BEFORE, word: 0.85 }, ['nothing differs by more than 15 %']],
  ['higher', { stored: 3.7, word: 0.8, old: 1 }, ['new: old 1', 'no longer measured: sheet']],
] as const)('where the %s one of two ratios is the better, %j is told as %j', (better, now, lines) =>
  expect(compared(BEFORE, now, better)).toEqual(lines),
);
