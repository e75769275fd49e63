import { contract } from '@typikon/api';
import { CensusSum, cleanWithoutLedger, mainField, type Census, type Site } from '@typikon/core';
import { Op, type Sequelize } from 'sequelize';
import { DocumentFieldModel } from '../db/document-models';
import { fitting, linkNext, pageOf } from '../routes/pages';
import { router } from '../routes/shared';
import { rulesOf } from '../rules';
import type { SiteService } from '../site/service';
import { countTexts, listTexts, textId, type StoredText } from './repository';

/** So many censuses are read at once. */
const BATCH = 500;

/** The rich texts that are stored in fields, as they are listed, counted and published. */
export function texts(sequelize: Sequelize, site: SiteService) {
  return router()
    .openapi(contract.listTexts, async (context) => {
      const { site: now } = await site.current();
      const { limit, after } = context.req.valid('query');
      const rows = await listTexts(sequelize, limit + 1, { after });
      const types = new Map(now.types.map((type) => [type.id, type]));
      const told = rows.map((row) => ({
        id: textId(row),
        document: row.document,
        field: row.field,
        title: titleOf(row, types),
        type: row.type,
        contentType: types.get(row.type)?.label ?? row.type,
        profileId: row.profileId,
        pageKindId: row.pageKindId,
        taken: row.taken.split(',').filter((name) => name !== ''),
      }));
      return context.json(
        pageOf(context, told, limit, ({ id }) => id),
        200,
      );
    })
    .openapi(contract.countTexts, async (context) => context.json(await countTexts(sequelize), 200))
    .openapi(contract.publishedTexts, async (context) => {
      const { site: now } = await site.current();
      const { profile, pageKind, limit, after } = context.req.valid('query');
      const rows = await listTexts(sequelize, limit + 1, { profile, pageKind, after });
      const page = rows.slice(0, Math.min(limit, fitting(rows)));
      if (page.length < rows.length) linkNext(context, textId(page[page.length - 1]!));
      const types = new Map(now.types.map((type) => [type.id, type]));
      const published = [];
      for (const row of page) {
        const stored = await DocumentFieldModel.findOne({
          where: { documentId: row.document, fieldKey: row.field },
          attributes: ['value', 'role', 'keptEdition'],
          raw: true,
        });
        if (stored === null) continue;
        const html = cleanWithoutLedger(stored.value, await rulesOf(row.profileId, stored.role, {}, stored.keptEdition));
        published.push({ id: textId(row), title: titleOf(row, types), profileId: row.profileId, pageKindId: row.pageKindId, html });
      }
      return context.json(published, 200);
    })
    .openapi(contract.textsCensus, async (context) => {
      const all = new CensusSum();
      const byProfile = new Map<string, CensusSum>();
      for (let last = ['', '']; ;) {
        const rows: { documentId: string; fieldKey: string; census: Census | null; profileId: string | null }[] =
          await DocumentFieldModel.findAll({
            where: {
              profileId: { [Op.ne]: null },
              [Op.or]: [{ documentId: { [Op.gt]: last[0]! } }, { documentId: last[0]!, fieldKey: { [Op.gt]: last[1]! } }],
            },
            order: [
              ['documentId', 'ASC'],
              ['fieldKey', 'ASC'],
            ],
            attributes: ['documentId', 'fieldKey', 'census', 'profileId'],
            limit: BATCH,
          });
        for (const { census, profileId } of rows) {
          if (census === null || profileId === null) continue;
          all.add(census);
          const own = byProfile.get(profileId) ?? new CensusSum();
          byProfile.set(profileId, own);
          own.add(census);
        }
        const end = rows[rows.length - 1];
        if (rows.length < BATCH || end === undefined) break;
        last = [end.documentId, end.fieldKey];
      }
      const classesByProfile = Object.fromEntries([...byProfile].map(([id, { total }]) => [id, total.classes]));
      return context.json({ ...all.total, classesByProfile }, 200);
    });
}

/** A text is called as its document; behind that stands the field's title where it is not the main one. */
function titleOf({ title, type: typeId, field: key }: StoredText, types: ReadonlyMap<string, Site['types'][number]>): string {
  const type = types.get(typeId);
  const field = type?.fields.find((one) => one.key === key);
  return type === undefined || field === undefined || mainField(type)?.key === key ? title : `${title}: ${field.title}`;
}
