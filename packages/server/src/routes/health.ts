import { createRoute, z } from '@hono/zod-openapi';
import { QueryTypes, type Sequelize } from 'sequelize';
import { problem } from '../problem';
import { failure, json, router } from './shared';

/** Says whether the server works, its database included. */
export function health(sequelize: Sequelize) {
  const route = createRoute({
    method: 'get',
    path: '/health',
    summary: 'Whether the server and its database work',
    responses: { 200: json(z.object({ status: z.literal('ok') }), 'Both work'), 503: failure('The database does not answer') },
  });
  return router().openapi(route, async (context) => {
    try {
      await sequelize.query('SELECT 1 AS one', { type: QueryTypes.SELECT });
      return context.json({ status: 'ok' as const }, 200);
    } catch {
      return problem(context, 503, 'The database does not answer.');
    }
  });
}
