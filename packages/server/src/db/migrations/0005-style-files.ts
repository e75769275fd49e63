import { column } from '../shape';
import type { Migration } from './migration';

const { id, serial, longText, moment, count, text } = column;

/** Stylesheets and page kinds that can be edited, with their versions; how alike the editor and the page were over time. */
export const styleFiles: Migration = {
  name: '0005-style-files',
  async up(shape) {
    await shape.addColumn('stylesheets', 'purpose', { ...text(300), defaultValue: '' });
    await shape.addColumn('stylesheets', 'media', { ...text(200), defaultValue: '' });
    await shape.addColumn('stylesheets', 'revision', { ...count, defaultValue: 1 });
    await shape.addColumn('page_kinds', 'revision', { ...count, defaultValue: 1 });
    await shape.createTable('stylesheet_history', {
      stylesheet_id: id,
      revision: { ...count, primaryKey: true },
      css: longText,
      note: { ...text(300), defaultValue: '' },
      saved_at: moment,
    });
    await shape.createTable('likeness_figures', {
      id: serial,
      profile_id: text(64),
      page_kind_id: text(64),
      elements: count,
      alike: count,
      causes: count,
      taken_at: moment,
    });
    await shape.addIndex('likeness_figures', 'likeness_figures_profile_id_page_kind_id_id', ['profile_id', 'page_kind_id', 'id']);
  },
};
