import { randomUUID } from 'node:crypto';
import { createRoute, z } from '@hono/zod-openapi';
import { pictureAddress, pictureTypeOf } from '@typikon/core';
import { Op } from 'sequelize';
import { AssetModel } from '../db/models';
import { readPicture } from '../picture';
import { problem } from '../problem';
import { failure, json, router } from './shared';

const assetSchema = z
  .object({
    address: z.string(),
    title: z.string(),
    folder: z.string(),
    type: z.string(),
    alt: z.string(),
    widthPx: z.int(),
    heightPx: z.int(),
    bytes: z.int(),
  })
  .openapi('Asset');

const addRoute = createRoute({
  method: 'post',
  path: '/assets',
  summary: 'Takes a picture into the asset library',
  description:
    'PNG, JPEG, GIF and WebP are taken, told by their bytes. Metadata is left out. A picture without a title comes from a paste: its address follows from the bytes that were sent, so that the same picture is kept once. A picture with a title can meet another of the same title in its folder; `sameName` says what is to happen then.',
  request: {
    query: z.object({
      alt: z.string().max(300).default(''),
      title: z.string().trim().max(200).default(''),
      folder: z.string().trim().max(60).default(''),
      widest: z.coerce.number().int().min(0).max(12_000).default(0).describe('Wider pictures are made smaller; 0 for never. In pixels.'),
      sameName: z.enum(['ask', 'keep-both', 'replace', 'use-existing']).default('ask'),
    }),
    body: { required: true, content: { 'application/octet-stream': { schema: z.any() } } },
  },
  responses: {
    200: json(assetSchema, 'It was there already'),
    201: json(assetSchema, 'It is there now'),
    409: failure('The folder has one of this title; `existing` is that'),
    413: failure('It is too large'),
    415: failure('It is no picture of a kind that is taken'),
  },
});
const listRoute = createRoute({
  method: 'get',
  path: '/assets',
  summary: 'The pictures of the asset library, without their bytes',
  request: { query: z.object({ q: z.string().trim().max(200).default(''), folder: z.string().max(60).default('') }) },
  responses: { 200: json(z.array(assetSchema), 'The pictures whose title or description has the words, newest first') },
});
const foldersRoute = createRoute({
  method: 'get',
  path: '/assets/folders',
  summary: 'The folders of the asset library',
  responses: { 200: json(z.array(z.string()), 'The folders, sorted') },
});

const asJson = ({ name, title, folder, type, alt, widthPx, heightPx, bytes }: AssetModel) => ({
  address: `/assets/${name}`,
  title: title === '' ? name : title,
  folder,
  type,
  alt,
  widthPx,
  heightPx,
  bytes: bytes.length,
});

/** The asset library. What a picture is, its bytes decide, not what came with them. */
export function assets() {
  return router()
    .openapi(foldersRoute, async (context) => {
      const all = await AssetModel.findAll({ attributes: ['folder'], group: ['folder'], order: [['folder', 'ASC']] });
      return context.json(
        all.map(({ folder }) => folder).filter((folder) => folder !== ''),
        200,
      );
    })
    .openapi(listRoute, async (context) => {
      const { q, folder } = context.req.valid('query');
      const words = q.split(/\s+/).filter((word) => word !== '');
      const all = await AssetModel.findAll({
        where: {
          ...(folder === '' ? {} : { folder }),
          [Op.and]: words.map((word) => {
            const like = { [Op.like]: `%${word.replace(/[\\%_]/g, '\\$&')}%` };
            return { [Op.or]: [{ title: like }, { alt: like }] };
          }),
        },
        order: [['createdAt', 'DESC']],
      });
      return context.json(all.map(asJson), 200);
    })
    .openapi(addRoute, async (context) => {
      const sent = new Uint8Array(await context.req.arrayBuffer());
      const { alt, title, folder, widest, sameName } = context.req.valid('query');
      const picture = await readPicture(sent, widest, title === '');
      if ('refusal' in picture) return problem(context, picture.status, picture.refusal) as never;
      const { type, bytes, widthPx, heightPx } = picture;
      if (title === '') {
        const name = pictureAddress({ type: pictureTypeOf(sent)!, bytes: sent }).replace('/assets/', '');
        const [asset, isNew] = await AssetModel.findOrCreate({
          where: { name },
          defaults: { name, title: '', folder, type, alt, widthPx, heightPx, bytes },
        });
        return context.json(asJson(asset), isNew ? 201 : 200);
      }
      const existing = await AssetModel.findOne({ where: { title, folder } });
      if (existing !== null && sameName === 'ask')
        return problem(context, 409, `The library has a picture “${title}” here already.`, { existing: asJson(existing) }) as never;
      if (existing !== null && sameName === 'use-existing') return context.json(asJson(existing), 200);
      if (existing !== null && sameName === 'replace') {
        // The address stays, so that every page that shows it shows the new one.
        await existing.update({ type, alt: alt === '' ? existing.alt : alt, widthPx, heightPx, bytes });
        return context.json(asJson(existing), 200);
      }
      const name = `${randomUUID()}.${type.slice('image/'.length).replace('jpeg', 'jpg')}`;
      const asset = await AssetModel.create({ name, title: await freeTitle(title, folder), folder, type, alt, widthPx, heightPx, bytes });
      return context.json(asJson(asset), 201);
    });
}

/** The title, or with a number behind it where the folder has it already: "quay.jpg" becomes "quay (2).jpg". */
async function freeTitle(title: string, folder: string): Promise<string> {
  const taken = new Set((await AssetModel.findAll({ where: { folder }, attributes: ['title'] })).map((asset) => asset.title));
  const [, stem, ending] = /^(.*?)(\.[a-z0-9]+)?$/i.exec(title)!;
  for (let n = 1; ; n++) {
    const candidate = n === 1 ? title : `${stem} (${n})${ending ?? ''}`;
    if (!taken.has(candidate)) return candidate;
  }
}
