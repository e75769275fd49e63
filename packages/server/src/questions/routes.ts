import { contract } from '@typikon/api';
import type { Sequelize } from 'sequelize';
import { idOfActing } from '../auth/acting';
import { problem } from '../problem';
import { fitting, pageOf } from '../routes/pages';
import { router } from '../routes/shared';
import type { SiteService } from '../site/service';
import type { StoredQuestion } from './repository';
import { QuestionService } from './service';

const told = ({ askedAt, answeredAt, ...rest }: StoredQuestion) => ({
  ...rest,
  askedAt: askedAt.toISOString(),
  answeredAt: answeredAt?.toISOString() ?? null,
});
const STATUS = { missing: 404, forbidden: 403, otherwise: 409 } as const;

/** What is asked of authors about their texts, and what they say. */
export function questions(sequelize: Sequelize, site: SiteService, committing: () => void) {
  const service = new QuestionService(sequelize, committing);
  return router()
    .openapi(contract.askAuthors, async (context) => {
      const { texts, note } = context.req.valid('json');
      const by = idOfActing((await site.current()).site, context);
      const result = await service.ask(context.req.valid('param').id, texts, note, by);
      if (result.is !== 'asked') return problem(context, result.is === 'missing' ? 404 : 422, result.detail);
      const { asked, untouched, missing } = result;
      return context.json({ asked, untouched, missing }, 201);
    })
    .openapi(contract.listQuestions, async (context) => {
      const { person, document, profile, open, limit, after } = context.req.valid('query');
      const before = after === undefined ? undefined : Number(after) || 0;
      const found = await service.find({ person, document, profile, isOpen: open, limit: limit + 1, before });
      // Both texts of each may be long.
      const ids = pageOf(context, found, Math.min(limit, fitting(found)), ({ id }) => String(id)).map(({ id }) => id);
      return context.json((await service.read(ids)).map(told), 200);
    })
    .openapi(contract.answerQuestion, async (context) => {
      const { answer, reply } = context.req.valid('json');
      const by = idOfActing((await site.current()).site, context);
      const result = await service.answer(context.req.valid('param').number, answer, reply, by);
      if (result.is === 'answered') return context.json(told(result.question), 200);
      return problem(context, STATUS[result.is], result.detail);
    });
}
