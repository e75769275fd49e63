import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { groupEntries, ledgerEntrySchema, ledgerJsonSchema, REASONS, sentenceOf, type Reason } from '../src/index';
import { SENTENCE_VARIABLES } from '../src/ledger/words';
import { ledgerPage } from './ledger-page';
import { outcomeOf, WITNESSES } from './reasons';

const DOCS = join(__dirname, '..', '..', '..', 'docs');
const codes = Object.keys(REASONS) as Reason[];

describe('the table of reasons', () => {
  test.each(codes)('%s is reached, and says what happened', (reason) => {
    const { ledger } = outcomeOf(WITNESSES[reason]);
    const groups = groupEntries(ledger).filter((group) => group.reason === reason);
    expect(groups).not.toEqual([]);
    for (const group of groups) expect(sentenceOf(group)).toMatch(/^[^{}[\]|]*[^{}[\]|.]$/);
    for (const entry of ledger) expect(ledgerEntrySchema.safeParse(entry)).toMatchObject({ success: true });
  });

  test.each(codes)('the sentences of %s hold only variables that there are', (reason) => {
    for (const { sentence } of REASONS[reason].wordings) {
      for (const [, name] of sentence.matchAll(/\{(\w+)\}/g)) expect(SENTENCE_VARIABLES).toContain(name);
      expect(sentence.replace(/\[[^[\]|]*\|[^[\]|]*\]/g, '').replace(/\{\w+\}/g, '')).not.toMatch(/[[\]{}|]/);
    }
  });

  test('an entry is as severe as the table says, or a loss where letters are missed', () => {
    for (const reason of codes) {
      const { severity } = REASONS[reason];
      if (severity === 'seen') continue;
      for (const entry of outcomeOf(WITNESSES[reason]).ledger.filter((one) => one.reason === reason))
        expect([reason, entry.severity]).toEqual([reason, entry.textLost > 0 ? expect.stringMatching(`loss|${severity}`) : severity]);
    }
  });
});

test('docs/ledger.md and docs/ledger.schema.json are those of the table (npm run docs writes them)', () => {
  expect(readFileSync(join(DOCS, 'ledger.md'), 'utf8')).toBe(ledgerPage());
  expect(JSON.parse(readFileSync(join(DOCS, 'ledger.schema.json'), 'utf8'))).toEqual(JSON.parse(JSON.stringify(ledgerJsonSchema())));
});
