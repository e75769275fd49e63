import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import {
  cleanWithoutLedger,
  escapeText,
  fieldSchema,
  pageKindSchema,
  renderPage,
  slotContents,
  slotNameOf,
  type JsonObject,
  type PageContent,
  type PageKind,
  type Stylesheet,
} from '@typikon/core';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import type { Logger } from 'pino';
import { col, fn, type Sequelize } from 'sequelize';
import { DocumentFieldModel } from '../db/document-models';
import { AssetModel } from '../db/models';
import { ContentTypeModel, FieldModel } from '../db/site-models';
import type { StoredDocument } from '../documents/document';
import { onError } from '../errors';
import { isSound, wellFormed } from '../json-body';
import { forward, HEAVY_BYTES, type Choice, type Lanes, type Load } from '../lanes/forward';
import { draftPages, releasedPages, type PagesById } from '../pages/released';
import { problem } from '../problem';
import { isSigned } from '../publishing/preview';
import { documentAt, publicDocument, publicDocuments } from '../publishing/public';
import { requestLog } from '../request-log';
import { rulesOf, tooManyTags } from '../rules';
import { fromApplication, siteHeaders } from '../security';

export interface SiteOptions {
  sequelize: Sequelize;
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
export function createSite({ sequelize, log, applicationOrigins, imagesDir, lanes, isBehind = false }: SiteOptions): Hono {
  const site = new Hono();
  if (!isBehind) site.use(requestLog(log), siteHeaders(applicationOrigins), fromApplication(applicationOrigins));
  site.get('/', async (context) => {
    const documents = await publicDocuments(sequelize, MOST_LISTED);
    const types = await ContentTypeModel.findAll({ order: [['position', 'ASC']], attributes: ['id', 'label'], raw: true });
    const html = types
      .flatMap(({ id: type, label }) => {
        const links = documents
          .filter(({ typeId }) => typeId === type)
          .map(({ id, title }) => `<li><a href="/documents/${id}">${escapeText(title)}</a></li>`);
        return links.length === 0 ? [] : [`<h2>${escapeText(label)}</h2><ul>${links.join('')}</ul>`];
      })
      .join('\n');
    const pages = await releasedPages();
    return context.html(page(pages, pageKindOf(pages, 'article'), 'Saltmarrow Harbours', html));
  });
  site.use('/documents/*', forward('site', lanes, laneOf));
  site.get('/documents/:id', async (context) => {
    const document = await publicDocument(sequelize, context.req.param('id'));
    if (document === null) return problem(context, 404, 'There is no such page.');
    // Parts of a document show on other kinds of page, too; one field of it can be shown where it stands.
    const { on, field } = context.req.query();
    return context.html(await documentPage(document, on ?? document.pageKind, field));
  });
  // One version, for whoever has the address, until its time is over.
  site.use('/previews/*', forward('site', lanes, laneOf));
  site.get('/previews/:id/:revision/:until/:signature', async (context) => {
    const { id, revision, until, signature } = context.req.param();
    const preview = { document: id, revision: Number(revision), untilMs: Number(until) };
    const isOurs = [revision, until].every((number) => /^[1-9]\d{0,14}$/.test(number)) && (await isSigned(sequelize, preview, signature));
    const document = isOurs ? await documentAt(sequelize, id, preview.revision) : null;
    if (document === null) return problem(context, 404, 'There is no such page.');
    for (const [name, value] of PREVIEW_HEADERS) context.header(name, value);
    if (Date.now() > preview.untilMs) return problem(context, 410, 'This preview has ended. Ask whoever sent it for another one.');
    const html = await documentPage(document, document.pageKind);
    const told = `Version ${revision}, ${document.publicRevision === preview.revision ? 'as readers see it' : 'which readers do not see'}. This address ends ${new Date(preview.untilMs).toUTCString()}.`;
    return context.html(html.replace(/<body[^>]*>/, (tag) => `${tag}<p role="note" style="${TOLD}">${escapeText(told)}</p>`));
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
      // What is tried is tried with page kinds and stylesheets as they are worked on.
      const pages = await draftPages();
      return context.html(page(pages, pageKindOf(pages, field('pageKind')), field('title') || 'A page', html));
    },
  );
  site.get('/stylesheets/:file', async (context) => {
    const [, id = '', tag = ''] = /^([\w-]+)(?:\.([\da-f]+))?\.css$/.exec(context.req.param('file')) ?? [];
    // An address with the content's tag may be that of what is worked on, which the bench shows.
    const isAsked = (sheet: Stylesheet | undefined): sheet is Stylesheet =>
      sheet !== undefined && (tag === '' || tag === contentTag(sheet.css));
    const released = (await releasedPages()).stylesheets.get(id);
    const draft = isAsked(released) ? undefined : (await draftPages()).stylesheets.get(id);
    const sheet = isAsked(draft) ? draft : released;
    if (sheet === undefined) return problem(context, 404, 'There is no such stylesheet.');
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

/** Nobody keeps a preview, lists it, or tells others of its address. */
const PREVIEW_HEADERS = [
  ['Cache-Control', 'no-store'],
  ['X-Robots-Tag', 'noindex, nofollow'],
  ['Referrer-Policy', 'no-referrer'],
] as const;
const TOLD = 'margin: 0; padding: 8px 16px; background: #1e2430; color: #fbf9f4; font: 14px/20px sans-serif';

const MARKED = 'outline: 3px solid #a6301f; outline-offset: 4px';

/** A document through the template of a kind of page. What stands in its fields is cleaned once more. */
async function documentPage(document: StoredDocument, kindId: string, marked?: string): Promise<string> {
  const pages = await releasedPages();
  const kind = pageKindOf(pages, kindId);
  const rows = await FieldModel.findAll({ where: { typeId: document.type }, order: [['position', 'ASC']] });
  const fields = rows.map(({ key, definition }) => fieldSchema.parse({ key, ...definition }));
  const values: Record<string, string> = {};
  for (const { key, value, profile, role, keptEdition } of document.fields)
    values[key] = profile === null ? value : cleanWithoutLedger(value, await rulesOf(profile, role, {}, keptEdition));
  const shown = fields.filter(({ kind: of, key }) => of === 'picture' && (values[key] ?? '') !== '').map(({ key }) => values[key]!);
  const names = shown.map((address) => address.replace(/^\/assets\//, ''));
  const alts = new Map(
    (await AssetModel.findAll({ where: { name: names }, attributes: ['name', 'alt'], raw: true })).map(({ name, alt }) => [
      `/assets/${name}`,
      alt,
    ]),
  );
  const { title } = document;
  const html = slotContents({ fields }, kind, { title, fields: values }, (address) => alts.get(address) ?? '');
  const slot = marked === undefined ? null : slotNameOf(marked, { fields }, kind);
  return page(pages, kind, title, html, (name, inside) => (name === slot ? `<div style="${MARKED}">${inside}</div>` : inside));
}

/** Pages name a stylesheet by its content, so that no reader sees an old one that a browser has kept. */
function page(
  { stylesheets: sheets }: PagesById,
  kind: PageKind,
  title: string,
  html: PageContent['html'],
  mark?: PageContent['mark'],
): string {
  const stylesheets = kind.stylesheets.flatMap((id) => {
    const sheet = sheets.get(id);
    return sheet === undefined ? [] : [{ address: `/stylesheets/${id}.${contentTag(sheet.css)}.css`, media: sheet.media }];
  });
  return renderPage(kind, { title, html, stylesheets, ...(mark === undefined ? {} : { mark }) });
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

/** A kind of page; the first that there is where there is none of that id. */
function pageKindOf({ pageKinds }: PagesById, id: string): PageKind {
  const [first = BARE] = pageKinds.values();
  return pageKinds.get(id) ?? first;
}

/** Pages of long texts take their time; the size is known without loading them. */
async function laneOf({ path, bytes }: Load): Promise<Choice> {
  const id = /^\/(?:documents|previews)\/([^/]+)/.exec(path)?.[1];
  const stored = id === undefined ? 0 : await DocumentFieldModel.sum('size', { where: { documentId: decoded(id) } });
  return Math.max(bytes, Number(stored)) > HEAVY_BYTES ? 'heavy' : 'quick';
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
