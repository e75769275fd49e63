import * as z from 'zod';
import { idSchema } from '../profile/schema';

/** A list of the texts that a site has stored, for checks that look at them; other keys of an entry are passed over. */
export const storedListSchema = z.array(
  z.looseObject({
    file: z.string().min(1).describe('The file that its markup stands in.'),
    profile: idSchema.describe('The profile with which it was last saved.'),
    pageKind: idSchema.optional().describe('The kind of page on which it is published.'),
    id: idSchema.optional().describe('Its document.'),
    type: idSchema.optional().describe('The content type of that.'),
    field: z.string().optional().describe('The field that it stands in.'),
    taken: z.array(z.string()).optional().describe('What the rules took of it when it was written, by what it is called in help.'),
  }),
);
