import { DataTypes } from 'sequelize';
import { column } from '../shape';
import type { Migration } from './migration';

const { id, json, count, text } = column;
const flag = { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false };

/** A column that names a row of another table. */
const link = (model: string, onDelete: 'CASCADE' | 'RESTRICT', { isKey = true } = {}) => ({
  type: DataTypes.STRING(64),
  allowNull: false,
  ...(isKey ? { primaryKey: true } : {}),
  references: { model, key: 'id' },
  onDelete,
  onUpdate: 'CASCADE',
});
const ofStatement = {
  ...count,
  primaryKey: true,
  references: { model: 'statements', key: 'position' },
  onDelete: 'CASCADE',
  onUpdate: 'CASCADE',
} as const;

/** Content types and their fields, roles and people, and the statements that say who writes where with which profile. */
export const site: Migration = {
  name: '0007-site',
  async up(shape) {
    await shape.createTable('site_roles', { id, label: text(120), description: text(500), rights: json, position: count });
    await shape.addIndex('site_roles', 'site_roles_position', ['position'], { unique: true });
    await shape.createTable('people', { id, label: text(120), position: count });
    await shape.addIndex('people', 'people_position', ['position'], { unique: true });
    await shape.createTable('person_roles', {
      person_id: link('people', 'CASCADE'),
      role_id: link('site_roles', 'CASCADE'),
      position: count,
    });
    await shape.createTable('content_types', {
      id,
      label: text(120),
      icon: text(64),
      colour: text(20),
      description: text(1000),
      page_kind_id: link('page_kinds', 'RESTRICT', { isKey: false }),
      position: count,
    });
    await shape.addIndex('content_types', 'content_types_position', ['position'], { unique: true });
    await shape.createTable('fields', {
      type_id: link('content_types', 'CASCADE'),
      key: { ...text(64), primaryKey: true },
      position: count,
      /** All that the document says of the field, but for its key. */
      definition: json,
    });
    await shape.addIndex('fields', 'fields_type_id_position', ['type_id', 'position'], { unique: true });
    await shape.createTable('statements', {
      position: { ...count, primaryKey: true },
      all_roles: flag,
      all_types: flag,
      all_fields: flag,
    });
    await shape.createTable('statement_roles', { statement: ofStatement, role_id: link('site_roles', 'RESTRICT'), position: count });
    await shape.createTable('statement_types', { statement: ofStatement, type_id: link('content_types', 'RESTRICT'), position: count });
    await shape.createTable('statement_fields', { statement: ofStatement, key: { ...text(64), primaryKey: true }, position: count });
    await shape.createTable('statement_profiles', { statement: ofStatement, profile_id: link('profiles', 'RESTRICT'), position: count });
    await shape.createTable('fallback_profiles', { profile_id: link('profiles', 'RESTRICT'), position: count });

    // Roles stood in a setting before there was anything else to say of them.
    const [roles] = await shape.select<{ value: string }>("SELECT value FROM settings WHERE name = 'roles'");
    const [made] = await shape.select<{ n: number }>('SELECT COUNT(*) AS n FROM site_roles');
    const known =
      roles === undefined
        ? []
        : ((typeof roles.value === 'string' ? JSON.parse(roles.value) : roles.value) as { id: string; name: string }[]);
    await shape.inTransaction(async (run) => {
      if (Number(made?.n) === 0)
        for (const [position, role] of known.entries()) {
          // Whoever house limits trust was the one who kept the site.
          const rights = JSON.stringify(position === 0 ? ['read', 'write', 'design', 'administer'] : ['read', 'write']);
          await run('INSERT INTO site_roles (id, label, description, rights, position) VALUES (?, ?, ?, ?, ?)', [
            role.id,
            role.name,
            '',
            rights,
            position,
          ]);
        }
      await run("DELETE FROM settings WHERE name = 'roles'");
      await run("DELETE FROM setting_history WHERE name = 'roles'");
    });
  },
};
