import * as z from 'zod';
import { payloadSchema, SPECIMEN_FORMAT, specimenSchema } from './specimen';

/** A specimen as it may stand in a file: content is text, or the name of a file beside it. */
const specimenFileSchema = specimenSchema.extend({
  payload: payloadSchema.extend({
    types: z
      .record(
        z.string().min(1).max(200),
        z.union([z.string(), z.strictObject({ file: z.string().min(1).describe('A file beside the specimen, or in a folder there.') })]),
      )
      .describe('The content by its media type: as text, or in a file of its own.'),
  }),
});

/** The JSON Schema (draft 2020-12) of a specimen as a file. */
export function specimenJsonSchema(): object {
  return { ...z.toJSONSchema(specimenFileSchema, { io: 'input' }), title: `Typikon specimen, format ${SPECIMEN_FORMAT}` };
}
