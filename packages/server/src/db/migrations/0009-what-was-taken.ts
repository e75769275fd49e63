import { column } from '../shape';
import type { Migration } from './migration';

/** What the rules took of a text while it was written stands beside it, so that help can be held against it. */
export const whatWasTaken: Migration = {
  name: '0009-what-was-taken',
  async up(shape) {
    await shape.addColumn('document_fields', 'taken', { ...column.text(300), defaultValue: '' });
  },
};
