import { randomUUID } from 'node:crypto';
import { createRoute, z } from '@hono/zod-openapi';
import { needs } from '@typikon/api';
import { pictureAddress, pictureTypeOf } from '@typikon/core';
import { Op, UniqueConstraintError, type CreationAttributes, type Sequelize } from 'sequelize';
import { AssetModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import { readPicture } from '../picture';
import { problem } from '../problem';
import { linkHeader, pageOf, pageQuery } from './pages';
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
  ...needs('write'),
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
const MOST_PICTURES = 500;
/** So many numbers are tried behind a title that the folder has already. */
const MOST_TRIES = 200;
const LONGEST_TITLE = 200;

const listRoute = createRoute({
  method: 'get',
  path: '/assets',
  ...needs('read'),
  summary: 'The pictures of the asset library, without their bytes',
  request: {
    query: z.object({ q: z.string().trim().max(200).default(''), folder: z.string().max(60).default(''), ...pageQuery(MOST_PICTURES) }),
  },
  responses: {
    200: { ...json(z.array(assetSchema), 'The pictures whose title or description has the words, newest first'), headers: linkHeader },
  },
});
const foldersRoute = createRoute({
  method: 'get',
  path: '/assets/folders',
  ...needs('read'),
  summary: 'The folders of the asset library',
  responses: { 200: json(z.array(z.string()), 'The folders, sorted') },
});

const asJson = ({ name, title, folder, type, alt, widthPx, heightPx, size }: AssetModel) => ({
  address: `/assets/${name}`,
  title: title === '' ? name : title,
  folder,
  type,
  alt,
  widthPx,
  heightPx,
  bytes: size,
});

/** The asset library. What a picture is, its bytes decide, not what came with them. */
export function assets(sequelize: Sequelize, committing: () => void) {
  // One statement each, but only a commit of its own tells what is known when the database is lost.
  const create = (row: CreationAttributes<AssetModel>) =>
    inTransaction(sequelize, (transaction) => AssetModel.create(row, { transaction }), { committing });
  return router()
    .openapi(foldersRoute, async (context) => {
      const all = await AssetModel.findAll({ attributes: ['folder'], group: ['folder'], order: [['folder', 'ASC']] });
      return context.json(
        all.map(({ folder }) => folder).filter((folder) => folder !== ''),
        200,
      );
    })
    .openapi(listRoute, async (context) => {
      const { q, folder, limit, after } = context.req.valid('query');
      const words = q.split(/\s+/).filter((word) => word !== '');
      const all = await AssetModel.findAll({
        where: {
          ...(folder === '' ? {} : { folder }),
          ...(await older(after)),
          [Op.and]: words.map((word) => {
            const like = { [Op.like]: `%${word.replace(/[\\%_]/g, '\\$&')}%` };
            return { [Op.or]: [{ title: like }, { alt: like }] };
          }),
        },
        order: [
          ['createdAt', 'DESC'],
          ['name', 'ASC'],
        ],
        attributes: { exclude: ['bytes'] },
        limit: limit + 1,
      });
      return context.json(pageOf(context, all, limit, ({ name }) => name).map(asJson), 200);
    })
    .openapi(addRoute, async (context) => {
      const sent = new Uint8Array(await context.req.arrayBuffer());
      const { alt, title, folder, widest, sameName } = context.req.valid('query');
      const picture = await readPicture(sent, widest, title === '');
      if ('refusal' in picture) return problem(context, picture.status, picture.refusal);
      const { type, bytes, widthPx, heightPx } = picture;
      if (title === '') {
        const name = pictureAddress({ type: pictureTypeOf(sent)!, bytes: sent }).replace('/assets/', '');
        try {
          return context.json(asJson(await create({ name, title: '', folder, type, alt, widthPx, heightPx, bytes })), 201);
        } catch (error) {
          if (!(error instanceof UniqueConstraintError)) throw error;
          const known = await AssetModel.findByPk(name, { attributes: { exclude: ['bytes'] }, rejectOnEmpty: true });
          return context.json(asJson(known), 200);
        }
      }
      const find = () => AssetModel.findOne({ where: { title, folder }, attributes: { exclude: ['bytes'] } });
      const existing = sameName === 'keep-both' ? null : await find();
      const met = (asset: AssetModel) =>
        problem(context, 409, `The library has a picture “${title}” here already.`, { existing: asJson(asset) });
      if (existing !== null && sameName === 'ask') return met(existing);
      if (existing !== null && sameName === 'use-existing') return context.json(asJson(existing), 200);
      if (existing !== null && sameName === 'replace') {
        // The address stays, so that every page that shows it shows the new one.
        const change = { type, alt: alt === '' ? existing.alt : alt, widthPx, heightPx, bytes };
        await inTransaction(sequelize, (transaction) => existing.update(change, { transaction }), { committing });
        return context.json(asJson(existing), 200);
      }
      // The key of the table says whether a title is free; somebody else may take it at this very moment.
      const name = `${randomUUID()}.${type.slice('image/'.length).replace('jpeg', 'jpg')}`;
      for (const candidate of titles(title)) {
        try {
          const asset = await create({ name, title: candidate, folder, type, alt, widthPx, heightPx, bytes });
          return context.json(asJson(asset), 201);
        } catch (error) {
          if (!(error instanceof UniqueConstraintError)) throw error;
          const other = sameName === 'keep-both' ? null : await find();
          if (other !== null) return sameName === 'use-existing' ? context.json(asJson(other), 200) : met(other);
        }
      }
      return problem(context, 409, `The folder has ${MOST_TRIES} pictures “${title}” already. Choose another title.`);
    });
}

/** Pictures behind one in the list, which has the newest first. */
async function older(after: string | undefined) {
  const last = after === undefined ? null : await AssetModel.findByPk(after, { attributes: ['name', 'createdAt'] });
  return last === null
    ? {}
    : { [Op.or]: [{ createdAt: { [Op.lt]: last.createdAt } }, { createdAt: last.createdAt, name: { [Op.gt]: last.name } }] };
}

/** A title, and then with a number behind it, within the limit: "quay.jpg", "quay (2).jpg", "quay (3).jpg". */
export function* titles(title: string): Iterable<string> {
  const [, stem = '', ending = ''] = /^(.*?)(\.[a-z0-9]{1,10})?$/isu.exec(title)!;
  yield title;
  for (let n = 2; n <= MOST_TRIES; n++) {
    const number = ` (${n})${ending}`;
    // Letters beyond the first plane are not cut in two.
    yield `${stem.slice(0, LONGEST_TITLE - number.length).replace(/[\ud800-\udbff]$/, '')}${number}`;
  }
}
