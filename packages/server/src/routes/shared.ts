import { OpenAPIHono, type z } from '@hono/zod-openapi';
import { problemSchema } from '@typikon/api';
import { problem } from '../problem';

/** A router whose requests are validated; what does not fit gets problem details with the place of each mistake. */
export function router(): OpenAPIHono {
  return new OpenAPIHono({
    defaultHook: (result, context) => {
      if (result.success) return undefined;
      const problems = result.error.issues.map(({ path, message }) => ({
        profile: '',
        pointer: path.map((key) => `/${String(key)}`).join(''),
        message,
      }));
      return problem(context, 422, problems.map(({ pointer, message }) => `${pointer || result.target}: ${message}`).join('; '), {
        problems,
      });
    },
  });
}

export const json = <Schema extends z.ZodType>(schema: Schema, description: string) => ({
  description,
  content: { 'application/json': { schema } },
});

export const failure = (description: string) => ({ description, content: { 'application/problem+json': { schema: problemSchema } } });
