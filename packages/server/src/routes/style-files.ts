import { createRoute, z } from '@hono/zod-openapi';
import { needs } from '@typikon/api';
import { cssMistakes, idSchema, pageKindSchema, stylesheetSchema } from '@typikon/core';
import type { Context } from 'hono';
import { col, fn, type Sequelize, type Transaction } from 'sequelize';
import { idOfActing } from '../auth/acting';
import { StylesheetHistoryModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import { firstEdition } from '../editions/shared';
import { changePages, everything, Refusal } from '../pages/repository';
import { problem } from '../problem';
import type { SiteService } from '../site/service';
import { failure, json, router } from './shared';

const storedSheet = stylesheetSchema.extend({ revision: z.int() }).openapi('Stylesheet');
const storedKind = pageKindSchema.extend({ revision: z.int() }).openapi('PageKind');
const allSchema = z
  .object({
    revision: z.int().describe('Counts the changes; what readers see is the last edition of them.'),
    stylesheets: z.array(storedSheet),
    pageKinds: z.array(storedKind),
  })
  .openapi('StyleFiles');

const revision = z.int().min(1).nullable().describe('The revision that was edited; null for what is new.');
const changesSchema = z
  .object({
    note: z.string().max(300).default(''),
    stylesheets: z.array(stylesheetSchema.extend({ revision })).default([]),
    pageKinds: z.array(pageKindSchema.extend({ revision })).default([]),
    removed: z
      .object({
        stylesheets: z.array(z.object({ id: idSchema, revision: z.int() })).default([]),
        pageKinds: z.array(z.object({ id: idSchema, revision: z.int() })).default([]),
      })
      .prefault({}),
  })
  .openapi('StyleChanges');
const versionSchema = z.object({ revision: z.int(), savedAt: z.string(), note: z.string(), letters: z.int() }).openapi('StylesheetVersion');

/** Older versions than this many are kept, and not listed. */
const MOST_VERSIONS = 1000;

const listRoute = createRoute({
  method: 'get',
  path: '/style-files',
  ...needs('read'),
  summary: 'The stylesheets of the site and its kinds of page',
  responses: { 200: json(allSchema, 'All of them') },
});
const changeRoute = createRoute({
  method: 'post',
  path: '/style-files/changes',
  ...needs('design'),
  summary: 'Changes stylesheets and page kinds together: all of it or nothing',
  request: { body: { required: true, ...json(changesSchema, 'What is stored and what is removed, each with the revision that was seen') } },
  responses: {
    200: json(allSchema, 'It is stored; all stylesheets and page kinds as they are now'),
    409: failure('Something that is removed is still used'),
    412: failure('Somebody else has changed one of them since'),
    422: failure('Something has mistakes'),
  },
});
const versionsRoute = createRoute({
  method: 'get',
  path: '/style-files/stylesheets/{id}/versions',
  ...needs('read'),
  summary: 'The versions of a stylesheet, the newest first',
  request: { params: z.object({ id: idSchema }) },
  responses: { 200: json(z.array(versionSchema), 'The versions') },
});
const versionRoute = createRoute({
  method: 'get',
  path: '/style-files/stylesheets/{id}/versions/{revision}',
  ...needs('read'),
  summary: 'The text of a version of a stylesheet',
  request: { params: z.object({ id: idSchema, revision: z.coerce.number().int() }) },
  responses: {
    200: json(z.object({ css: z.string() }), 'Its text'),
    404: failure('There is no such version'),
  },
});

/**
 * The stylesheets of the site and its kinds of page.
 *
 * @param committing is called when a change is about to be committed
 */
export function styleFiles(sequelize: Sequelize, site: SiteService, committing: () => void) {
  return router()
    .openapi(listRoute, async (context) => context.json(await everything(), 200))
    .openapi(versionsRoute, async (context) => {
      const all = await StylesheetHistoryModel.findAll({
        where: { stylesheetId: context.req.valid('param').id },
        order: [['revision', 'DESC']],
        attributes: ['revision', 'savedAt', 'note', [fn('CHAR_LENGTH', col('css')), 'letters']],
        limit: MOST_VERSIONS,
      });
      return context.json(
        all.map((version) => ({
          revision: version.revision,
          savedAt: version.savedAt.toISOString(),
          note: version.note,
          letters: Number(version.get('letters')),
        })),
        200,
      );
    })
    .openapi(versionRoute, async (context) => {
      const { id, revision: number } = context.req.valid('param');
      const version = await StylesheetHistoryModel.findOne({ where: { stylesheetId: id, revision: number } });
      return version === null
        ? problem(context, 404, `The stylesheet "${id}" has no version ${number}.`)
        : context.json({ css: version.css }, 200);
    })
    .openapi(changeRoute, async (context) => {
      const changes = context.req.valid('json');
      for (const { css, id } of changes.stylesheets) {
        const tooMuch = cssMistakes(css).find(({ isLeftOut }) => isLeftOut);
        if (tooMuch !== undefined)
          return problem(context, 422, `The stylesheet "${id}", line ${tooMuch.line}: ${tooMuch.message} Nothing was stored.`);
      }
      const savedBy = idOfActing((await site.current()).site, context);
      try {
        const change = async (transaction: Transaction) => {
          await changePages(changes, savedBy, transaction);
          await firstEdition('pages', savedBy, transaction);
          return everything(transaction);
        };
        const all = await inTransaction(sequelize, change, { committing });
        return context.json(all, 200);
      } catch (error) {
        if (error instanceof Refusal) return refuse(context, error);
        throw error;
      }
    });
}

const refuse = (context: Context, { status, message }: Refusal) => problem(context, status, message);
