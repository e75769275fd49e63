import type { Sequelize } from 'sequelize';
import { SettingModel } from '../db/models';
import { pageKinds } from '../documents/repository';
import { indexTexts } from '../features/repository';
import { loadSite } from '../site/repository';
import { USUAL_COUNT } from './compose';
import { COMPOSED, composedDocuments, storeDocuments } from './store';

/**
 * Writes some of the composed documents that are still missing, indexed and all, in one transaction with the note how far it came: what is
 * stopped goes on from there.
 *
 * @param upTo how many there are to be
 * @param most so many are written now
 * @returns how many there are then
 */
export async function growDemo(sequelize: Sequelize, upTo: number, most: number): Promise<number> {
  return sequelize.transaction(async (transaction) => {
    const mark = await SettingModel.findByPk(COMPOSED, { transaction, lock: transaction.LOCK.UPDATE });
    const from = typeof mark?.value === 'number' ? mark.value : USUAL_COUNT;
    const to = Math.min(upTo, from + most);
    if (to <= from) return from;
    const { site } = await loadSite(transaction);
    const types = new Set(site.types.map(({ id }) => id));
    // Somebody may have taken a type away since.
    const written = composedDocuments(from + 1, to).filter(({ type }) => types.has(type));
    const texts = await storeDocuments(written, site, await pageKinds(transaction), transaction);
    if (texts.length > 0) await indexTexts(sequelize, texts, transaction);
    await SettingModel.upsert({ name: COMPOSED, value: to, revision: 1 }, { transaction });
    return to;
  });
}
