import { DataTypes } from 'sequelize';
import { column } from '../shape';
import type { Migration } from './migration';

const { json, moment, count, text } = column;

/** What the whole site has once has editions, too. The first says what held until then; who saves a draft is kept from now on. */
export const sharedEditions: Migration = {
  name: '0018-shared-editions',
  async up(shape) {
    await shape.createTable('shared_editions', {
      part: { ...text(20), primaryKey: true },
      number: { ...count, primaryKey: true },
      document: json,
      from_revision: count,
      back_to: { ...count, allowNull: true },
      note: { ...text(1000), defaultValue: '' },
      accepted: json,
      reach: { ...json, allowNull: true },
      released_at: { ...moment, defaultValue: DataTypes.NOW },
      released_by: { ...text(64), defaultValue: '' },
    });
    await shape.addColumn('setting_history', 'saved_by', { ...text(64), defaultValue: '' });
    await shape.run(
      `INSERT IGNORE INTO shared_editions (part, number, document, from_revision, note, accepted, released_at, released_by)
       SELECT name, 1, value, revision, '', '[]', NOW(3), '' FROM settings WHERE name = 'house-limits'`,
    );
    const [site] = await shape.select<{ value: unknown }>(
      "SELECT value FROM setting_history WHERE name = 'site' ORDER BY revision DESC LIMIT 1",
    );
    if (site !== undefined) {
      const { types, assignments, fallback } = (typeof site.value === 'string' ? JSON.parse(site.value) : site.value) as Record<
        string,
        unknown
      >;
      const writing = JSON.stringify({ types, assignments, fallback });
      await shape.run("INSERT IGNORE INTO settings (name, value, revision) VALUES ('site-draft', ?, 1)", [writing]);
      await shape.run(
        `INSERT IGNORE INTO shared_editions (part, number, document, from_revision, note, accepted, released_at, released_by)
         VALUES ('site', 1, ?, 1, '', '[]', NOW(3), '')`,
        [writing],
      );
    }
    const kinds = await shape.select<{ definition: unknown }>('SELECT definition FROM page_kinds ORDER BY id');
    if (kinds.length === 0) return;
    const stylesheets = await shape.select('SELECT id, purpose, media, css FROM stylesheets ORDER BY id');
    const pageKinds = kinds.map(({ definition }): unknown => (typeof definition === 'string' ? JSON.parse(definition) : definition));
    await shape.run("INSERT IGNORE INTO settings (name, value, revision) VALUES ('pages', '{}', 1)");
    await shape.run(
      `INSERT IGNORE INTO shared_editions (part, number, document, from_revision, note, accepted, released_at, released_by)
       VALUES ('pages', 1, ?, 1, '', '[]', NOW(3), '')`,
      [JSON.stringify({ pageKinds, stylesheets })],
    );
  },
};
