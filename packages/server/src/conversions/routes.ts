import { contract } from '@typikon/api';
import { conversionWords } from '@typikon/core';
import type { Sequelize } from 'sequelize';
import { idOfActing } from '../auth/acting';
import { problem } from '../problem';
import { pageOf } from '../routes/pages';
import { router } from '../routes/shared';
import type { SiteService } from '../site/service';
import type { StoredConversion } from './repository';
import { ConversionService } from './service';

const told = ({ askedAt, conversion, ...rest }: StoredConversion) => ({
  ...rest,
  conversion: conversion as Record<string, unknown>,
  sentence: conversionWords(conversion),
  askedAt: askedAt.toISOString(),
});

/** Prepared replacements over stored texts. */
export function conversions(sequelize: Sequelize, site: SiteService, committing: () => void) {
  const service = new ConversionService(sequelize, committing);
  return router()
    .openapi(contract.tryConversion, async (context) => {
      const { conversion, texts } = context.req.valid('json');
      return context.json(await service.try(context.req.valid('param').id, conversion, texts), 200);
    })
    .openapi(contract.askConversion, async (context) => {
      const { conversion, note, texts } = context.req.valid('json');
      const by = idOfActing((await site.current()).site, context);
      const result = await service.ask(context.req.valid('param').id, conversion, note, texts, by);
      if (result.is === 'asked') return context.json(told(result.conversion), 202);
      return problem(context, result.is === 'missing' ? 404 : 422, result.detail);
    })
    .openapi(contract.listConversions, async (context) => {
      const { limit, after } = context.req.valid('query');
      const rows = await service.find(context.req.valid('param').id, limit + 1, after === undefined ? undefined : Number(after) || 0);
      return context.json(pageOf(context, rows, limit, ({ id }) => String(id)).map(told), 200);
    })
    .openapi(contract.readConversion, async (context) => {
      const result = await service.told(context.req.valid('param').number);
      return result.is === 'asked' ? context.json(told(result.conversion), 200) : problem(context, 404, result.detail);
    })
    .openapi(contract.convertedTexts, async (context) => {
      const { state, limit, after = '' } = context.req.valid('query');
      const [document = '', field = ''] = after.split('/');
      const rows = await service.texts(context.req.valid('param').number, state, limit + 1, after === '' ? null : { document, field });
      return context.json(
        pageOf(context, rows, limit, (row) => `${row.document}/${row.field}`),
        200,
      );
    })
    .openapi(contract.moveConversion, async (context) => {
      const { number, act } = context.req.valid('param');
      const result = await (act === 'stop' ? service.stop(number) : act === 'go-on' ? service.goOn(number) : service.undo(number));
      if (result.is === 'asked') return context.json(told(result.conversion), 200);
      return problem(context, result.is === 'missing' ? 404 : 409, result.detail);
    });
}
