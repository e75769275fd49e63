import { contract, PERSON_HEADER } from '@typikon/api';
import { sentenceOfBrief } from '@typikon/core';
import type { Context } from 'hono';
import type { Sequelize } from 'sequelize';
import { actingPerson } from '../auth/acting';
import { problem, type ProblemResponse } from '../problem';
import { etagOf, matches } from '../routes/entity-tags';
import { fitting, linkNext, pageOf } from '../routes/pages';
import { router } from '../routes/shared';
import type { SiteService } from '../site/service';
import type { StoredDocument } from './document';
import { sentenceOfTaken } from './taken';
import { DocumentService, type DocumentSave } from './service';

const asJson = ({ createdAt, changedAt, fields, ...rest }: StoredDocument) => ({
  ...rest,
  createdAt: createdAt.toISOString(),
  changedAt: changedAt.toISOString(),
  fields: fields.map(({ key, value, profile, revision, keptEdition }) => ({ key, value, profile, revision, shownBy: keptEdition ?? null })),
});

/** Stored documents: found, read, made, written field by field, and taken back. */
export function documents(sequelize: Sequelize, site: SiteService, committing: () => void) {
  const service = new DocumentService(sequelize, site, committing);
  const actorOf = async (context: Context) => actingPerson((await site.current()).site, context.req.header(PERSON_HEADER)) ?? null;
  const withoutIfMatch = (context: Context) => problem(context, 428, 'Send If-Match with the entity tag of the document that was edited.');

  /** Why nothing was saved. */
  function refusal(context: Context, result: Exclude<DocumentSave, { is: 'saved' }>): ProblemResponse {
    switch (result.is) {
      case 'missing':
        return problem(context, 404, result.detail);
      case 'forbidden':
        return problem(context, 403, `${result.detail} Nothing was stored.`);
      case 'mistaken':
        return problem(context, 422, result.problems.map(({ message }) => message).join(' '), { problems: result.problems });
      case 'outdated':
        return problem(context, 412, 'Somebody else has changed this document since you opened it. Nothing of yours was stored.', {
          current: asJson(result.current),
        });
    }
  }

  /** A document as it was saved, with what the rules changed in it. */
  function saved(context: Context, { stored, changes, notes }: Extract<DocumentSave, { is: 'saved' }>) {
    context.header('ETag', etagOf(stored.revision));
    return { ...asJson(stored), changes, notes };
  }

  return router()
    .openapi(contract.listDocuments, async (context) => {
      const query = context.req.valid('query');
      const { documents: found, count } = await service.find(query);
      const page = found.slice(0, query.limit);
      if (found.length > query.limit) linkNext(context, page[page.length - 1]!.id);
      return context.json({ documents: page.map((one) => ({ ...one, changedAt: one.changedAt.toISOString() })), count }, 200);
    })
    .openapi(contract.makeDocument, async (context) => {
      const actor = await actorOf(context);
      const { type, title } = context.req.valid('json');
      const result = await service.make(type, title, actor);
      if (result.is !== 'saved') return refusal(context, result);
      context.header('ETag', etagOf(result.stored.revision));
      return context.json(asJson(result.stored), 201);
    })
    .openapi(contract.readDocument, async (context) => {
      const { id } = context.req.valid('param');
      const document = await service.read(id);
      if (document === null) return problem(context, 404, `There is no document "${id}".`);
      context.header('ETag', etagOf(document.revision));
      return context.json(asJson(document), 200);
    })
    .openapi(contract.saveDocument, async (context) => {
      const actor = await actorOf(context);
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return withoutIfMatch(context);
      const { id } = context.req.valid('param');
      const result = await service.save(id, context.req.valid('json'), actor, (revision) => matches(ifMatch, revision));
      return result.is === 'saved' ? context.json(saved(context, result), 200) : refusal(context, result);
    })
    .openapi(contract.listVersions, async (context) => {
      const { id } = context.req.valid('param');
      const { limit, after } = context.req.valid('query');
      const versions = await service.versions(id, limit + 1, after === undefined ? undefined : Number(after) || 0);
      if (versions.length === 0 && (await service.read(id)) === null) return problem(context, 404, `There is no document "${id}".`);
      const page = pageOf(context, versions, limit, ({ revision }) => String(revision));
      return context.json(
        page.map((version) => ({ ...version, savedAt: version.savedAt.toISOString() })),
        200,
      );
    })
    .openapi(contract.readVersion, async (context) => {
      const { id, revision } = context.req.valid('param');
      const version = await service.versionAt(id, revision);
      if (version === null) return problem(context, 404, `There is no version ${revision} of the document "${id}".`);
      const fields = version.fields.map(({ key, value, profile, edition }) => ({ key, value, profile, edition }));
      return context.json({ ...version, revision, savedAt: version.savedAt.toISOString(), fields }, 200);
    })
    .openapi(contract.leftOut, async (context) => {
      const { id } = context.req.valid('param');
      const left = await service.leftOut(id);
      if (left === null) return problem(context, 404, `There is no document "${id}".`);
      return context.json(
        left.map(({ line: { words, sample, ...line }, ...of }) => ({ ...of, line, sentence: sentenceOfBrief(line), words, sample })),
        200,
      );
    })
    .openapi(contract.listTaken, async (context) => {
      const query = context.req.valid('query');
      const found = await service.taken({ ...query, limit: query.limit + 1 });
      const page = pageOf(context, found, Math.min(query.limit, fitting(found)), ({ id }) => String(id));
      return context.json(
        (await service.readTaken(page.map(({ id }) => id))).map((row) => ({
          ...row,
          at: row.at.toISOString(),
          sentence: sentenceOfTaken(row),
        })),
        200,
      );
    })
    .openapi(contract.restoreVersion, async (context) => {
      const actor = await actorOf(context);
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return withoutIfMatch(context);
      const { id } = context.req.valid('param');
      const { revision } = context.req.valid('json');
      const result = await service.restore(id, revision, actor, (now) => matches(ifMatch, now));
      return result.is === 'saved' ? context.json(saved(context, result), 200) : refusal(context, result);
    });
}
