import * as z from 'zod';
import { ACTIONS, LAYERS, REASON_CODES, SEVERITIES, SUBJECT_KINDS } from '../ledger/schema';
import { LONGEST_KEY, LONGEST_NAME, LONGEST_SAMPLE, LONGEST_WORDS, MOST_LINES, type TakenLine } from './taken';

const name = z.string().max(LONGEST_NAME);
const few = z.array(name).max(10);

/** What one rule did to a text in one step, as it is sent and kept. */
export const takenLineSchema = z.strictObject({
  key: z.string().max(LONGEST_KEY).describe('Stable for as long as the rules are: what, by whom, why.'),
  layer: LAYERS.describe('Who decided.'),
  rule: name.describe('JSON Pointer into the document that `layer` says.'),
  origin: name.optional().describe('The profile that set the rule.'),
  action: ACTIONS,
  reason: REASON_CODES,
  severity: SEVERITIES,
  kind: SUBJECT_KINDS,
  element: name,
  attribute: name,
  property: name,
  after: name,
  textLost: z.int().describe('Letters that went with it.'),
  hosts: few,
  names: few,
  details: few,
  places: z.int().min(1).describe('In how many places it was done.'),
  words: z.string().max(LONGEST_WORDS).describe('The words that went with it, as readers saw them.'),
  sample: z.string().max(LONGEST_SAMPLE).describe('The source that stood at its first place, cut.'),
}) satisfies z.ZodType<TakenLine>;

/** What a step did to a text, by rule. */
export const takenLinesSchema = z.array(takenLineSchema).max(MOST_LINES);
