import { column } from '../shape';
import type { Migration } from './migration';

/** What the whole site has once can be released at a time to come, too; such a release names no profile. */
export const plannedParts: Migration = {
  name: '0019-planned-parts',
  async up(shape) {
    await shape.addColumn('scheduled_releases', 'part', { ...column.text(20), allowNull: true });
  },
};
