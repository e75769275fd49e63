import { contract } from '@typikon/api';
import type { Sequelize } from 'sequelize';
import { problem } from '../problem';
import { linkNext } from '../routes/pages';
import { router } from '../routes/shared';
import { ComparisonService } from './service';

/** What two profiles treat differently, counted in what is stored. */
export function comparison(sequelize: Sequelize) {
  const service = new ComparisonService(sequelize);
  return router().openapi(contract.countHolding, async (context) => {
    const { from, to, fromRevision, toRevision, after = '', limit } = context.req.valid('query');
    const result = await service.count({ id: from, revision: fromRevision }, { id: to, revision: toRevision }, after, limit);
    switch (result.is) {
      case 'counted':
        if (result.next !== null) linkNext(context, result.next);
        return context.json(
          {
            lines: result.lines.map(({ subject, ...line }) => ({ ...line, subject: { ...subject } })),
            counted: result.counted,
            documents: result.documents,
          },
          200,
        );
      case 'missing':
        return problem(context, 404, result.detail);
      case 'mistaken':
        return problem(context, 422, result.detail);
    }
  });
}
