import * as z from 'zod';
import type { LedgerEntry } from './entry';
import { REASONS, type Reason } from './reasons';

/** The format that ledgers of this version have wherever they are written. */
export const LEDGER_FORMAT = 'typikon-ledger/1';

const offset = z.int().min(0);

/** Words of a ledger that stand in what is kept of it, too. */
export const LAYERS = z.enum(['html-standard', 'safety-floor', 'house-limits', 'parent-profile', 'profile']);
export const ACTIONS = z.enum(['removed', 'unwrapped', 'renamed', 'changed', 'shown-as-text', 'restructured']);
export const SEVERITIES = z.enum(['loss', 'change', 'tidy']);
export const SUBJECT_KINDS = z.enum(['element', 'attribute', 'property', 'text', 'comment', 'doctype', 'content']);
export const REASON_CODES = z.enum(Object.keys(REASONS) as [Reason, ...Reason[]]);

const subjectSchema = z
  .strictObject({
    kind: SUBJECT_KINDS.describe('What kind of thing it is about. `content` is the text as a whole, or a place in it.'),
    element: z.string().describe('The element itself, or the one that the thing stands in; empty at the top.'),
    attribute: z.string().optional().describe('The attribute; of an element, the one for whose sake it went.'),
    property: z.string().optional().describe('The property of inline style.'),
    value: z.string().optional().describe('The value of the attribute or of the property, cut after 500 characters.'),
    host: z.string().optional().describe('The host that the address names, with its port.'),
    name: z.string().optional().describe('What it is called beside that: characters by name, a parent.'),
  })
  .describe('What the entry is about, told by what changed or removed it.');

export const ledgerEntrySchema = z.strictObject({
  stage: z
    .enum(['read', 'paste', 'markup', 'settle', 'render'])
    .describe('Where it happened, in the order in which markup passes through the stages.'),
  layer: LAYERS.describe('Who decided.'),
  rule: z
    .string()
    .describe(
      'JSON Pointer (RFC 6901) into the resolved profile, the house limits or the safety floor, as `layer` says; empty for the HTML standard.',
    ),
  origin: z.string().optional().describe('The profile that set the rule, for the layers `profile` and `parent-profile`.'),
  action: ACTIONS.describe('What happened to it.'),
  subject: subjectSchema,
  start: offset.describe('UTF-16 offset into the input: where the whole element, attribute or comment begins.'),
  end: offset.describe('Where it ends.'),
  line: z.int().min(1).describe('The line of `start`, from 1.'),
  column: z.int().min(1).describe('The column of `start`, from 1, in UTF-16 units.'),
  path: z.string().describe('Where in the tree, in the manner of a CSS selector.'),
  before: z.string().describe('The source that stood there, cut after 500 characters; of an unwrapped or renamed element its start tag.'),
  after: z.string().describe('What stands there now; empty for nothing.'),
  textLost: z.int().describe('Letters that a reader could see and that are gone; below 0 where more are seen than before.'),
  severity: SEVERITIES.describe('Whether readers miss something, authors may notice, or nobody sees a difference.'),
  reason: REASON_CODES.describe('Why: a code of docs/ledger.md.'),
  detail: z.string().optional().describe('What a guess rests on.'),
}) satisfies z.ZodType<LedgerEntry>;

/** The JSON Schema (draft 2020-12) of a ledger. */
export function ledgerJsonSchema(): object {
  return { ...z.toJSONSchema(z.array(ledgerEntrySchema)), title: `Typikon ledger, format ${LEDGER_FORMAT}` };
}
