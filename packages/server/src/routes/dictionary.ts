import { createRoute, z } from '@hono/zod-openapi';
import { needs } from '@typikon/api';
import type { Sequelize, Transaction } from 'sequelize';
import { SettingModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import { json, router } from './shared';

const NAME = 'site-dictionary';
const word = z.string().regex(/^[\p{L}\p{M}'’-]{2,60}$/u, 'must be one word of letters');
const wordsSchema = z.object({ words: z.array(word).max(20_000) }).openapi('SiteDictionary');

const readRoute = createRoute({
  method: 'get',
  path: '/site-dictionary',
  ...needs('read'),
  summary: 'The words that the site has beside those of the dictionary',
  responses: { 200: json(wordsSchema, 'The words, sorted') },
});
const addRoute = createRoute({
  method: 'post',
  path: '/site-dictionary/words',
  ...needs('write'),
  summary: 'Adds a word',
  request: { body: { required: true, ...json(z.object({ word }), 'The word') } },
  responses: { 200: json(wordsSchema, 'The words now') },
});
const removeRoute = createRoute({
  method: 'delete',
  path: '/site-dictionary/words/{word}',
  ...needs('write'),
  summary: 'Takes a word out',
  request: { params: z.object({ word }) },
  responses: { 200: json(wordsSchema, 'The words now') },
});

/** The site's own dictionary, which the administrator keeps. */
export function dictionary(sequelize: Sequelize, committing: () => void) {
  const change = (act: (words: Set<string>) => void) => {
    const save = async (transaction: Transaction) => {
      const [setting] = await SettingModel.findOrCreate({
        where: { name: NAME },
        defaults: { name: NAME, value: [] },
        transaction,
        lock: transaction.LOCK.UPDATE,
      });
      const words = new Set(setting.value as string[]);
      act(words);
      const sorted = [...words].sort((a, b) => a.localeCompare(b));
      await setting.update({ value: sorted, revision: setting.revision + 1 }, { transaction });
      return { words: sorted };
    };
    return inTransaction(sequelize, save, { committing });
  };
  return router()
    .openapi(readRoute, async (context) => {
      const setting = await SettingModel.findByPk(NAME);
      return context.json({ words: (setting?.value ?? []) as string[] }, 200);
    })
    .openapi(addRoute, async (context) => {
      const added = context.req.valid('json').word;
      return context.json(await change((words) => words.add(added)), 200);
    })
    .openapi(removeRoute, async (context) => {
      const removed = context.req.valid('param').word;
      return context.json(await change((words) => words.delete(removed)), 200);
    });
}
