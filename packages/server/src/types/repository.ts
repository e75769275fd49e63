import { fn, type Transaction } from 'sequelize';
import { DocumentFieldModel, DocumentModel } from '../db/document-models';

/** How many documents are of a content type, and in how many something stands in each of their fields. */
export async function useOf(type: string): Promise<{ documents: number; fields: { key: string; documents: number }[] }> {
  const documents = await DocumentModel.count({ where: { typeId: type } });
  const counted = (await DocumentFieldModel.findAll({
    attributes: ['fieldKey', [fn('COUNT', '*'), 'n']],
    include: { model: DocumentModel, as: 'document', attributes: [], where: { typeId: type } },
    group: ['fieldKey'],
    order: ['fieldKey'],
    raw: true,
  })) as unknown as { fieldKey: string; n: number }[];
  return { documents, fields: counted.map(({ fieldKey, n }) => ({ key: fieldKey, documents: Number(n) })) };
}

/** Some documents of a content type, by id. */
export async function someOf(type: string, limit: number, transaction: Transaction): Promise<string[]> {
  const rows = await DocumentModel.findAll({ where: { typeId: type }, attributes: ['id'], order: ['id'], limit, raw: true, transaction });
  return rows.map(({ id }) => id);
}
