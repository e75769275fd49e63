import { createRoute, z } from '@hono/zod-openapi';
import { needs } from '@typikon/api';
import { cssMistakes, idSchema, pageKindSchema, stylesheetSchema, type PageKind } from '@typikon/core';
import type { Context } from 'hono';
import { col, fn, type Sequelize, type Transaction } from 'sequelize';
import { DocumentModel } from '../db/document-models';
import { PageKindModel, ProfileModel, StylesheetHistoryModel, StylesheetModel } from '../db/models';
import { ContentTypeModel } from '../db/site-models';
import { inTransaction } from '../db/transaction';
import { placeFields } from '../documents/repository';
import { problem } from '../problem';
import { loadSite } from '../site/repository';
import { failure, json, router } from './shared';

const storedSheet = stylesheetSchema.extend({ revision: z.int() }).openapi('Stylesheet');
const storedKind = pageKindSchema.extend({ revision: z.int() }).openapi('PageKind');
const allSchema = z.object({ stylesheets: z.array(storedSheet), pageKinds: z.array(storedKind) }).openapi('StyleFiles');

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

/** A change that cannot be made, and what is said of it. */
class Refusal extends Error {
  constructor(
    readonly status: 409 | 412 | 422,
    detail: string,
  ) {
    super(detail);
  }
}

async function everything(transaction?: Transaction) {
  const options = transaction === undefined ? {} : { transaction };
  const [stylesheets, pageKinds] = [
    await StylesheetModel.findAll({ order: [['id', 'ASC']], ...options }),
    await PageKindModel.findAll({ order: [['id', 'ASC']], ...options }),
  ];
  return {
    stylesheets: stylesheets.map(({ id, purpose, media, css, revision: now }) => ({ id, purpose, media, css, revision: now })),
    // What was stored before a setting was there gets its default.
    pageKinds: pageKinds.map(({ definition, revision: now }) => ({ ...pageKindSchema.parse(definition), revision: now })),
  };
}

/**
 * The stylesheets of the site and its kinds of page.
 *
 * @param committing is called when a change is about to be committed
 */
export function styleFiles(sequelize: Sequelize, committing: () => void) {
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
      try {
        const change = async (transaction: Transaction) => {
          await store(changes, transaction);
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

async function store({ note, stylesheets, pageKinds, removed }: z.output<typeof changesSchema>, transaction: Transaction): Promise<void> {
  const lock = transaction.LOCK.UPDATE;
  const expect = (what: string, id: string, seen: number | null, now: number | undefined): void => {
    if (seen === null && now !== undefined) throw new Refusal(409, `There is already a ${what} "${id}". Choose another name.`);
    if (seen !== null && seen !== now)
      throw new Refusal(412, `Somebody else has changed the ${what} "${id}" since you opened it. Nothing was stored.`);
  };
  // Everything that a change may touch is locked first, by its id: of two changes at once the second waits for the first.
  const ids = (...lists: readonly (readonly { id: string }[])[]): string[] => [...new Set(lists.flat().map(({ id }) => id))].sort();
  for (const id of ids(stylesheets, removed.stylesheets)) await StylesheetModel.findByPk(id, { attributes: ['id'], transaction, lock });
  await PageKindModel.findAll({ attributes: ['id'], order: [['id', 'ASC']], transaction, lock });
  for (const { revision: seen, ...sheet } of stylesheets) {
    const stored = await StylesheetModel.findByPk(sheet.id, { transaction, lock });
    expect('stylesheet', sheet.id, seen, stored?.revision);
    // One that was there before goes on with its numbers, so that no version is lost to another.
    const last = await StylesheetHistoryModel.max<number | null, StylesheetHistoryModel>('revision', {
      where: { stylesheetId: sheet.id },
      transaction,
    });
    const number = Math.max(stored?.revision ?? 0, last ?? 0) + 1;
    if (stored === null) await StylesheetModel.create({ ...sheet, revision: number }, { transaction });
    else await stored.update({ ...sheet, revision: number }, { transaction });
    await StylesheetHistoryModel.create({ stylesheetId: sheet.id, revision: number, css: sheet.css, note }, { transaction });
  }
  for (const { revision: seen, ...definition } of pageKinds) {
    const stored = await PageKindModel.findByPk(definition.id, { transaction, lock });
    expect('page kind', definition.id, seen, stored?.revision);
    if (stored === null) await PageKindModel.create({ id: definition.id, definition }, { transaction });
    else await stored.update({ definition, revision: stored.revision + 1 }, { transaction });
  }
  for (const { id, revision: seen } of removed.pageKinds) {
    const stored = await PageKindModel.findByPk(id, { transaction, lock });
    expect('page kind', id, seen, stored?.revision);
    const documents = await DocumentModel.count({ where: { pageKindId: id }, transaction });
    if (documents > 0) throw new Refusal(409, `${documents} stored documents are pages of the kind "${id}". It stays.`);
    const types = await ContentTypeModel.findAll({ include: ['places'], transaction });
    const using = types.find(({ pageKindId, places = [] }) => pageKindId === id || places.some((place) => place.pageKindId === id));
    if (using !== undefined)
      throw new Refusal(409, `Documents of the content type “${using.label}” show on the page kind "${id}". It stays.`);
    const profiles = (await ProfileModel.findAll({ transaction })).filter(
      ({ document }) => (document['surface'] as { pageKind?: unknown } | undefined)?.pageKind === id,
    );
    if (profiles.length > 0) throw new Refusal(409, `The surface of the profile "${profiles[0]!.id}" stands on the page kind "${id}".`);
    await stored?.destroy({ transaction });
  }
  // What a template prints may show somewhere else now.
  if (pageKinds.length > 0) await placeFields((await loadSite(transaction)).site, transaction);
  for (const { id, revision: seen } of removed.stylesheets) {
    const stored = await StylesheetModel.findByPk(id, { transaction, lock });
    expect('stylesheet', id, seen, stored?.revision);
    await stored?.destroy({ transaction });
  }
  await checkLists(transaction);
}

/** Every page kind names stylesheets that are there. */
async function checkLists(transaction: Transaction): Promise<void> {
  const known = new Set((await StylesheetModel.findAll({ attributes: ['id'], transaction })).map(({ id }) => id));
  const kinds = await PageKindModel.findAll({ transaction });
  if (kinds.length === 0) throw new Refusal(409, 'A site needs at least one kind of page.');
  for (const { definition } of kinds as { definition: PageKind }[])
    for (const id of definition.stylesheets)
      if (!known.has(id))
        throw new Refusal(
          409,
          `The page kind "${definition.id}" loads the stylesheet "${id}", which is not there. Take it off there first.`,
        );
}
