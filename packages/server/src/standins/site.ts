import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { cleanWithoutLedger, escapeText, renderPage, type JsonObject, type PageKind } from '@typikon/core';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import type { Logger } from 'pino';
import { AssetModel, DocumentModel, PageKindModel, StylesheetModel } from '../db/models';
import { onError } from '../errors';
import { problem } from '../problem';
import { requestLog } from '../request-log';
import { rulesOf } from '../rules';
import { siteHeaders } from '../security';

export interface SiteOptions {
  log: Logger;
  /** The origins that may show the site in a frame. */
  applicationOrigins: readonly string[];
  /** The folder with the demo's pictures. */
  imagesDir?: string | undefined;
}

const LARGEST_PROOF = 16 * 1024 * 1024;

/**
 * The published site's stand-in: what readers see. It is served from an origin of its own and forbids scripts.
 * Stored markup is cleaned by its profile again each time a page is made.
 */
export function createSite({ log, applicationOrigins, imagesDir }: SiteOptions): Hono {
  const site = new Hono();
  site.use(requestLog(log), siteHeaders(applicationOrigins));
  site.get('/', async (context) => {
    const documents = await DocumentModel.findAll({
      order: [
        ['contentType', 'ASC'],
        ['title', 'ASC'],
      ],
      attributes: { exclude: ['html', 'census'] },
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
    async (context) => {
      const form = await context.req.parseBody();
      const field = (name: string): string => (typeof form[name] === 'string' ? form[name] : '');
      let drafts: Record<string, JsonObject>;
      try {
        drafts = JSON.parse(field('profiles') || '{}') as Record<string, JsonObject>;
      } catch {
        return problem(context, 400, 'The profiles that came with the markup are not JSON.');
      }
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
    const asset = await AssetModel.findByPk(context.req.param('name'));
    if (asset === null) return problem(context, 404, 'There is no such picture.');
    return context.body(new Uint8Array(asset.bytes), 200, {
      'Content-Type': asset.type,
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

async function pageKindOf(id: string): Promise<PageKind> {
  const kind = (await PageKindModel.findByPk(id)) ?? (await PageKindModel.findOne({ rejectOnEmpty: true }));
  return kind.definition;
}
