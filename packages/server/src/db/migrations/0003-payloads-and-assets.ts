import { DataTypes } from 'sequelize';
import { column } from '../shape';
import type { Migration } from './migration';

const { json, moment, count, text } = column;

/** Specimens that are whole clipboard payloads with expectations; the asset library. */
export const payloadsAndAssets: Migration = {
  name: '0003-payloads-and-assets',
  async up(shape) {
    await shape.addColumn('specimens', 'arrives', { ...text(10), defaultValue: 'paste' });
    await shape.addColumn('specimens', 'payload', { ...json, allowNull: true });
    await shape.addColumn('specimens', 'expectations', { ...json, allowNull: true });
    await shape.addColumn('specimens', 'revision', { ...count, defaultValue: 1 });
    if (await shape.hasColumn('specimens', 'html'))
      await shape.run(
        "UPDATE specimens SET payload = JSON_OBJECT('types', JSON_OBJECT('text/html', html)), expectations = '[]' WHERE payload IS NULL",
      );
    await shape.changeColumn('specimens', 'payload', json);
    await shape.changeColumn('specimens', 'expectations', json);
    await shape.dropColumn('specimens', 'html');
    await shape.createTable('assets', {
      name: column.id,
      type: text(40),
      alt: text(300),
      width_px: count,
      height_px: count,
      bytes: { type: DataTypes.BLOB('medium'), allowNull: false },
      created_at: moment,
    });
  },
};
