import * as z from 'zod';

/** The parts of what the rules say to an author by themselves, in the order in which they are told. */
export const CAN_DO_PARTS = ['headings', 'words', 'lists', 'pictures', 'links', 'frames', 'styles', 'paste', 'length'] as const;
export type CanDoPart = (typeof CAN_DO_PARTS)[number];

/** The help that comes along wherever a profile is used; the help of a field stands before it. */
export const helpSchema = z.strictObject({
  text: z.string().max(20_000).default('').describe('Markup; it is cleaned by a narrow profile that is built in.'),
  parts: z
    .partialRecord(
      z.enum(CAN_DO_PARTS),
      z.strictObject({
        shown: z.boolean().default(true).describe('Whether authors read it.'),
        words: z.string().max(500).default('').describe('Words in the place of those that the rules give; empty for theirs.'),
      }),
    )
    .default({})
    .describe('What the rules say of themselves, part by part.'),
});
