import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { cleanWithoutLedger, escapeText, pageKindSchema, renderPage, type JsonObject, type PageKind } from '@typikon/core';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import type { Logger } from 'pino';
import { col, fn } from 'sequelize';
import { AssetModel, DocumentModel, PageKindModel, StylesheetModel } from '../db/models';
import { onError } from '../errors';
import { isSound, wellFormed } from '../json-body';
import { forward, HEAVY_BYTES, type Choice, type Lanes, type Load } from '../lanes/forward';
import { problem } from '../problem';
import { requestLog } from '../request-log';
import { rulesOf, tooManyTags } from '../rules';
import { fromApplication, siteHeaders } from '../security';

export interface SiteOptions {
  log: Logger;
  /** The origins that may show the site in a frame. */
  applicationOrigins: readonly string[];
  /** The folder with the demo's pictures. */
  imagesDir?: string | undefined;
  /** The threads in which pages are made; without them they are made here. */
  lanes?: Lanes;
  /** Whether another process or thread stands before this one, which has let the request in. */
  isBehind?: boolean;
}

/** The start page lists no more pages than this. */
const MOST_LISTED = 2000;
/** So much of a picture is read at once, in bytes. */
const PIECE = 256 * 1024;

const LARGEST_PROOF = 16 * 1024 * 1024;

/**
 * The published site's stand-in: what readers see. It is served from an origin of its own and forbids scripts.
 * Stored markup is cleaned by its profile again each time a page is made.
 */
export function createSite({ log, applicationOrigins, imagesDir, lanes, isBehind = false }: SiteOptions): Hono {
  const site = new Hono();
  if (!isBehind) site.use(requestLog(log), siteHeaders(applicationOrigins), fromApplication(applicationOrigins));
  site.get('/', async (context) => {
    const documents = await DocumentModel.findAll({
      order: [
        ['contentType', 'ASC'],
        ['title', 'ASC'],
      ],
      attributes: ['id', 'title', 'contentType'],
      limit: MOST_LISTED,
      raw: true,
    });
    const kinds = [...new Set(documents.map(({ contentType }) => contentType))];
    const html = kinds
      .map((kind) => {
        const links = documents
          .filter(({ contentType }) => contentType === kind)
          .map(({ id, title }) => `<li><a href="/documents/${id}">${escapeText(title)}</a></li>`);
        return `<h2>${escapeText(kind.charAt(0).toUpperCase() + kind.slice(1))}</h2><ul>${links.join('')}</ul>`;
      })
      .join('\n');
    return context.html(await page(await pageKindOf('article'), 'Saltmarrow Harbours', html));
  });
  site.use('/documents/*', forward('site', lanes, laneOf));
  site.get('/documents/:id', async (context) => {
    const document = await DocumentModel.findByPk(context.req.param('id'));
    if (document === null) return problem(context, 404, 'There is no such page.');
    const html = cleanWithoutLedger(document.html, await rulesOf(document.profileId, document.role));
    return context.html(await page(await pageKindOf(document.pageKindId), document.title, html));
  });
  // A page of markup that is not stored: the bench posts a form here to see it as readers would.
  site.post(
    '/proof',
    bodyLimit({ maxSize: LARGEST_PROOF, onError: (context) => problem(context, 413, 'The markup is too large to show.') }),
    forward('site', lanes, laneOf),
    async (context) => {
      let form: Awaited<ReturnType<typeof context.req.parseBody>>;
      try {
        form = await context.req.parseBody();
      } catch {
        return problem(context, 400, 'The form that came cannot be read.');
      }
      const field = (name: string): string => (typeof form[name] === 'string' ? form[name] : '');
      const drafts = draftsIn(field('profiles'));
      if (drafts === null) return problem(context, 400, 'The profiles that came with the markup are not a JSON object of profiles.');
      const tooMuch = tooManyTags(field('html'));
      if (tooMuch !== null) return problem(context, 422, tooMuch);
      const rules = await rulesOf(field('profile'), field('role'), drafts);
      const html = cleanWithoutLedger(field('html'), rules);
      return context.html(await page(await pageKindOf(field('pageKind')), field('title') || 'A page', html));
    },
  );
  site.get('/stylesheets/:file', async (context) => {
    const [, id = '', tag = ''] = /^([\w-]+)(?:\.([\da-f]+))?\.css$/.exec(context.req.param('file')) ?? [];
    const sheet = await StylesheetModel.findByPk(id);
    if (sheet === null) return problem(context, 404, 'There is no such stylesheet.');
    return context.body(sheet.css, 200, {
      'Content-Type': 'text/css; charset=utf-8',
      // An address that names the content never means another one; every other must be asked for again.
      'Cache-Control': tag === contentTag(sheet.css) ? 'public, max-age=31536000, immutable' : 'no-cache',
    });
  });
  site.get('/assets/:name', async (context) => {
    const name = context.req.param('name');
    const asset = await AssetModel.findByPk(name, { attributes: ['type', 'title', 'size'], raw: true });
    if (asset === null) return problem(context, 404, 'There is no such picture.');
    return context.body(bytesOf(name, asset.size), 200, {
      'Content-Type': asset.type,
      'Content-Length': String(asset.size),
      // What has a title may be replaced by another picture; the rest is named by its bytes.
      'Cache-Control': asset.title === '' ? 'public, max-age=31536000, immutable' : 'no-cache',
      'X-Content-Type-Options': 'nosniff',
    });
  });
  site.get('/images/:file', async (context) => {
    const file = basename(context.req.param('file'));
    if (imagesDir === undefined || !/^[\w-]+\.svg$/.test(file)) return problem(context, 404, 'There is no such picture.');
    try {
      return context.body(await readFile(join(imagesDir, file), 'utf8'), 200, { 'Content-Type': 'image/svg+xml' });
    } catch {
      return problem(context, 404, 'There is no such picture.');
    }
  });
  site.notFound((context) => problem(context, 404, 'There is no such page.'));
  site.onError(onError(log));
  return site;
}

/** Pages name a stylesheet by its content, so that no reader sees an old one that a browser has kept. */
async function page(kind: PageKind, title: string, html: string): Promise<string> {
  const sheets = new Map((await StylesheetModel.findAll({ where: { id: kind.stylesheets } })).map((sheet) => [sheet.id, sheet]));
  const stylesheets = kind.stylesheets.flatMap((id) => {
    const sheet = sheets.get(id);
    return sheet === undefined ? [] : [{ address: `/stylesheets/${id}.${contentTag(sheet.css)}.css`, media: sheet.media }];
  });
  return renderPage(kind, { title, html, stylesheets });
}

const contentTag = (css: string): string => createHash('sha256').update(css).digest('hex').slice(0, 12);

/** A page of a site that has no kinds of page yet stands alone. */
const BARE: PageKind = pageKindSchema.parse({
  id: 'bare',
  name: 'Bare',
  wrapper: [{ element: 'main' }],
  stylesheets: [],
  contentWidthPx: 720,
});

async function pageKindOf(id: string): Promise<PageKind> {
  const kind = (await PageKindModel.findByPk(id)) ?? (await PageKindModel.findOne());
  return kind?.definition ?? BARE;
}

/** Pages of long texts take their time; the size is known without loading them. */
async function laneOf({ path, bytes }: Load): Promise<Choice> {
  const id = /^\/documents\/([^/]+)$/.exec(path)?.[1];
  const stored = id === undefined ? null : await DocumentModel.findByPk(decoded(id), { attributes: ['size'], raw: true });
  return Math.max(bytes, stored?.size ?? 0) > HEAVY_BYTES ? 'heavy' : 'quick';
}

function decoded(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return part;
  }
}

/** The bytes of a picture, piece by piece. One that is replaced meanwhile breaks off. */
function bytesOf(name: string, size: number): ReadableStream<Uint8Array> {
  let at = 0;
  return new ReadableStream({
    async pull(controller) {
      if (at >= size) {
        controller.close();
        return;
      }
      const piece = await AssetModel.findOne({
        where: { name, size },
        attributes: [[fn('SUBSTRING', col('bytes'), at + 1, PIECE), 'bytes']],
        raw: true,
      });
      if (piece === null) throw new Error('The picture was replaced while it was read.');
      at += piece.bytes.length;
      controller.enqueue(new Uint8Array(piece.bytes));
    },
  });
}

/** The drafts that are tried; null where what came is no object of objects. */
function draftsIn(text: string): Record<string, JsonObject> | null {
  if (text === '') return {};
  if (!isSound(text)) return null;
  try {
    const value = JSON.parse(wellFormed(text)) as unknown;
    const isObject = (one: unknown): one is JsonObject => typeof one === 'object' && one !== null && !Array.isArray(one);
    return isObject(value) && Object.values(value).every(isObject) ? (value as Record<string, JsonObject>) : null;
  } catch {
    return null;
  }
}
