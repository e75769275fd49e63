import { z } from '@hono/zod-openapi';

/** An error as the API tells it (RFC 9457 "Problem Details for HTTP APIs"). */
export const problemSchema = z
  .looseObject({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    detail: z.string(),
    problems: z.array(z.object({ profile: z.string(), pointer: z.string(), message: z.string() })).optional(),
  })
  .openapi('Problem');
export type ProblemDetails = z.infer<typeof problemSchema>;

export const json = <Schema extends z.ZodType>(schema: Schema, description: string) => ({
  description,
  content: { 'application/json': { schema } },
});

export const failure = (description: string) => ({ description, content: { 'application/problem+json': { schema: problemSchema } } });

/** The revision of what is answered (RFC 9110, section 8.8.3). */
export const etagHeader = { ETag: { schema: { type: 'string' as const }, description: 'The revision (RFC 9110, section 8.8.3).' } };

/** What a change must have been begun from. */
export const ifMatch = z.object({ 'if-match': z.string().optional() });
