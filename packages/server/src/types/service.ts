import { MOST_GIVEN } from '@typikon/api';
import { misplaced, retyped } from '@typikon/core';
import type { Sequelize } from 'sequelize';
import type { Acting } from '../auth/acting';
import { DocumentModel } from '../db/document-models';
import { inTransaction } from '../db/transaction';
import { loadDocument, placeFieldsOf, storeDocument } from '../documents/repository';
import type { SiteService } from '../site/service';
import { someOf, useOf } from './repository';

/** What became of giving documents another type. */
export type Giving = { is: 'given'; given: number; left: number } | { is: 'missing'; detail: string } | { is: 'mistaken'; detail: string };

/** Content types as their documents have them: how they are used, and documents that become another's. */
export class TypeService {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly site: SiteService,
    private readonly committing: () => void,
  ) {}

  use(type: string): ReturnType<typeof useOf> {
    return useOf(type);
  }

  /**
   * Gives some documents of a type another one, each as a new version of itself, all of them or none.
   *
   * @param places into which field of the other type what stands in a field goes
   */
  async give(typeId: string, otherId: string, places: Readonly<Record<string, string>>, actor: Acting | null): Promise<Giving> {
    const { site } = await this.site.current();
    const [from, to] = [typeId, otherId].map((id) => site.types.find((type) => type.id === id));
    if (from === undefined || to === undefined)
      return { is: 'missing', detail: `There is no content type "${from === undefined ? typeId : otherId}".` };
    if (from === to) return { is: 'mistaken', detail: `Its documents are of the content type “${from.label}” already.` };
    const mistake = misplaced(from, to, places);
    if (mistake !== '') return { is: 'mistaken', detail: mistake };
    return inTransaction(
      this.sequelize,
      async (transaction): Promise<Giving> => {
        const ids = await someOf(typeId, MOST_GIVEN, transaction);
        for (const id of ids) {
          const before = await loadDocument(id, transaction, true);
          // Somebody else may have given it away since.
          if (before?.type !== typeId) continue;
          const make = (key: string, value: string) => ({ key, value, profile: null, role: '', revision: 1 });
          const fields = retyped(before.fields, before.title, to, places, make);
          const known = new Set(before.fields.map(({ key }) => key));
          const next = fields.map((field) => ({ ...field, revision: known.has(field.key) ? field.revision + 1 : 1 }));
          const document = { ...before, type: to.id, pageKind: to.pageKind, fields: next, changedBy: actor?.id ?? '' };
          await storeDocument({ ...document, revision: before.revision + 1 }, before, to, { how: 'retyped' }, transaction);
        }
        // What stands in a field with the same key is not written anew, and shows elsewhere all the same.
        await placeFieldsOf(ids, to, transaction);
        const left = await DocumentModel.count({ where: { typeId }, transaction });
        return { is: 'given', given: ids.length, left };
      },
      { committing: this.committing },
    );
  }
}
