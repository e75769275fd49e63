import { createRoute, z } from '@hono/zod-openapi';
import { pictureAddress, pictureTypeOf } from '@typikon/core';
import { imageSize } from 'image-size';
import { AssetModel } from '../db/models';
import { problem } from '../problem';
import { failure, json, router } from './shared';

/** More pixels than this on a side are refused: no page shows them. */
const WIDEST_PX = 12_000;
const LARGEST = 8 * 1024 * 1024;

const assetSchema = z
  .object({ address: z.string(), type: z.string(), alt: z.string(), widthPx: z.int(), heightPx: z.int(), bytes: z.int() })
  .openapi('Asset');

const addRoute = createRoute({
  method: 'post',
  path: '/assets',
  summary: 'Takes a picture into the asset library',
  description: 'The address follows from the bytes, so that the same picture is kept once. PNG, JPEG, GIF and WebP are taken.',
  request: {
    query: z.object({ alt: z.string().max(300).default('') }),
    body: { required: true, content: { 'application/octet-stream': { schema: z.any() } } },
  },
  responses: {
    200: json(assetSchema, 'It was there already'),
    201: json(assetSchema, 'It is there now'),
    413: failure('It is too large'),
    415: failure('It is no picture of a kind that is taken'),
  },
});
const listRoute = createRoute({
  method: 'get',
  path: '/assets',
  summary: 'The pictures of the asset library, without their bytes',
  responses: { 200: json(z.array(assetSchema), 'The pictures, newest first') },
});

const asJson = ({ name, type, alt, widthPx, heightPx, bytes }: AssetModel) => ({
  address: `/assets/${name}`,
  type,
  alt,
  widthPx,
  heightPx,
  bytes: bytes.length,
});

/** The asset library. What a picture is, its bytes decide, not what came with them. */
export function assets() {
  return router()
    .openapi(listRoute, async (context) => {
      const all = await AssetModel.findAll({ order: [['createdAt', 'DESC']] });
      return context.json(all.map(asJson), 200);
    })
    .openapi(addRoute, async (context) => {
      const bytes = new Uint8Array(await context.req.arrayBuffer());
      if (bytes.length > LARGEST) return problem(context, 413, `A picture can have ${LARGEST / 1024 / 1024} MB at most.`) as never;
      const type = pictureTypeOf(bytes);
      const size = type === null ? null : sizeOf(bytes);
      if (type === null || size === null)
        return problem(context, 415, 'This is no picture that can be taken: PNG, JPEG, GIF and WebP are.') as never;
      if (size.width > WIDEST_PX || size.height > WIDEST_PX)
        return problem(context, 413, `A picture can be ${WIDEST_PX} pixels wide and high at most.`) as never;
      const name = pictureAddress({ type, bytes }).replace('/assets/', '');
      const { alt } = context.req.valid('query');
      const [asset, isNew] = await AssetModel.findOrCreate({
        where: { name },
        defaults: { name, type, alt, widthPx: size.width, heightPx: size.height, bytes: Buffer.from(bytes) },
      });
      return context.json(asJson(asset), isNew ? 201 : 200);
    });
}

function sizeOf(bytes: Uint8Array): { width: number; height: number } | null {
  try {
    const { width, height } = imageSize(bytes);
    return width > 0 && height > 0 ? { width, height } : null;
  } catch {
    return null;
  }
}
