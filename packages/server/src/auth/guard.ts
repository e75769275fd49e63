import type { OpenAPIHono } from '@hono/zod-openapi';
import { PERSON_HEADER, RIGHT } from '@typikon/api';
import type { Right } from '@typikon/core';
import type { MiddlewareHandler } from 'hono';
import { problem } from '../problem';
import type { SiteService } from '../site/service';
import { actingPerson } from './acting';

type Registry = Pick<OpenAPIHono['openAPIRegistry'], 'definitions'>;

const WORDS: Readonly<Record<Right, string>> = {
  read: 'look at this',
  write: 'write content',
  design: 'change how content is written',
  administer: 'say what there is to write and who writes it',
};

/**
 * Holds every request to the right that its route names in the API's own description; one that names none is open to all.
 *
 * @param registry what the description is made from; it is read with the first request, when all routes are there
 */
export function guard(registry: Registry, site: SiteService): MiddlewareHandler {
  let guarded: { method: string; path: RegExp; right: Right }[] | null = null;
  return async (context, next) => {
    guarded ??= routesOf(registry);
    const { method, path } = context.req;
    const right = guarded.find((route) => route.method === (method === 'HEAD' ? 'GET' : method) && route.path.test(path))?.right;
    if (right === undefined) return next();
    const named = context.req.header(PERSON_HEADER);
    const acting = actingPerson((await site.current()).site, named);
    if (acting === undefined) return problem(context, 403, `There is nobody called "${named}" here. Choose who acts, and try again.`);
    if (acting === null || acting.rights.has(right)) return next();
    return problem(context, 403, `${acting.label} may not ${WORDS[right]}: none of their roles has the right "${right}".`);
  };
}

function routesOf({ definitions }: Registry): { method: string; path: RegExp; right: Right }[] {
  return (
    definitions
      .flatMap((definition) => (definition.type === 'route' ? [definition.route] : []))
      .flatMap((route) => {
        const { [RIGHT]: right } = route as { [RIGHT]?: Right };
        const pattern = route.path.replace(/[.*+?^$()|[\]\\]/g, '\\$&').replace(/\{\w+\}/g, '[^/]+');
        return right === undefined
          ? []
          : [{ method: route.method.toUpperCase(), path: new RegExp(`^${pattern}/?$`), right, order: route.path.includes('{') ? 1 : 0 }];
      })
      // An address that is written out goes before one with a part that is free.
      .sort((one, other) => one.order - other.order)
  );
}
