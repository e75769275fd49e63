import { DataTypes } from 'sequelize';
import { column } from '../shape';
import type { Migration } from './migration';

const { id, serial, json, moment, count, text } = column;
const DIGEST = text(64);

/**
 * Work that is done in the background; the counts of likeness, document by document; sizes beside contents, so that lists need
 * not load them; one title once in a folder, and one place for each specimen.
 */
export const jobsSizesAndKeys: Migration = {
  name: '0006-jobs-sizes-and-keys',
  async up(shape) {
    await shape.createTable('jobs', {
      id: serial,
      kind: text(40),
      subject: text(200),
      /** Grows whenever the job is asked for, so that what was asked while it ran is done again. */
      asked: { ...count, defaultValue: 1 },
      attempts: { ...count, defaultValue: 0 },
      due_at: moment,
      lease: { ...text(36), defaultValue: '' },
      leased_until: { ...moment, allowNull: true },
      failure: { ...text(1000), defaultValue: '' },
    });
    await shape.addIndex('jobs', 'jobs_kind_subject', ['kind', 'subject'], { unique: true });
    await shape.addIndex('jobs', 'jobs_due_at', ['due_at']);
    await shape.createTable('likeness_counts', {
      document_id: id,
      profile_id: text(64),
      page_kind_id: text(64),
      revision: count,
      inputs: DIGEST,
      elements: count,
      alike: count,
      causes: json,
      failure: { ...text(300), defaultValue: '' },
    });
    await shape.addIndex('likeness_counts', 'likeness_counts_profile_id_page_kind_id', ['profile_id', 'page_kind_id']);

    await shape.addColumn('assets', 'size', { ...count, defaultValue: 0 });
    await shape.run('UPDATE assets SET size = LENGTH(bytes) WHERE size = 0');
    await shape.addColumn('documents', 'size', { ...count, defaultValue: 0 });
    await shape.run('UPDATE documents SET size = LENGTH(html) WHERE size = 0');
    await shape.addIndex('documents', 'documents_title_id', ['title', 'id']);
    await shape.addColumn('specimens', 'size', { ...count, defaultValue: 0 });
    await shape.run('UPDATE specimens SET size = LENGTH(payload) WHERE size = 0');

    if (!(await shape.hasIndex('assets', 'assets_folder_title_key'))) {
      // Pictures of a paste have no title, and there may be any number of them.
      await shape.addColumn('assets', 'title_key', { type: "VARCHAR(200) AS (NULLIF(title, '')) PERSISTENT" });
      await shape.run(`UPDATE assets JOIN (
          SELECT name, ROW_NUMBER() OVER (PARTITION BY folder, title ORDER BY created_at, name) AS n FROM assets WHERE title <> ''
        ) AS numbered USING (name)
        SET title = CONCAT(LEFT(title, 150), ' (', n, ', ', LEFT(name, 36), ')') WHERE n > 1`);
      await shape.addIndex('assets', 'assets_folder_title_key', ['folder', 'title_key'], { unique: true });
    }
    if (!(await shape.hasIndex('specimens', 'specimens_position'))) {
      await shape.run(`UPDATE specimens JOIN (
          SELECT id, ROW_NUMBER() OVER (ORDER BY position, id) AS n FROM specimens
        ) AS numbered USING (id) SET position = n`);
      await shape.addIndex('specimens', 'specimens_position', ['position'], { unique: true });
    }
    // The database gives the next place, so that two at once never get the same.
    await shape.changeColumn('specimens', 'position', { type: DataTypes.INTEGER, allowNull: false, autoIncrement: true });
  },
};
