import { z } from '@hono/zod-openapi';

/** Long lists come in pages; an answer that is not the last names the next one in its `Link` header (RFC 8288, `rel="next"`). */
export const pageQuery = (most: number, usual = most) => ({
  limit: z.coerce.number().int().min(1).max(most).default(usual).describe('The most entries in one answer.'),
  after: z.string().max(200).optional().describe('The id of the last entry of the page before; the `Link` header has it.'),
});

export const linkHeader = {
  Link: { schema: { type: 'string' as const }, description: 'The next page, with `rel="next"` (RFC 8288); absent on the last.' },
};
