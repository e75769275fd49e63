import { DataTypes } from 'sequelize';
import { column } from '../shape';
import type { Migration } from './migration';

const { id, json, moment, count, text } = column;

/** Profiles have editions: what authors write with. The first says what the profile says. */
export const editions: Migration = {
  name: '0010-editions',
  async up(shape) {
    await shape.createTable('profile_editions', {
      profile_id: { ...id, references: { model: 'profiles', key: 'id' }, onDelete: 'CASCADE', onUpdate: 'CASCADE' },
      number: { ...count, primaryKey: true },
      chain: json,
      from_revision: count,
      back_to: { ...count, allowNull: true },
      note: { ...text(1000), defaultValue: '' },
      accepted: json,
      reach: { ...json, allowNull: true },
      inputs: json,
      released_at: { ...moment, defaultValue: DataTypes.NOW },
      released_by: { ...text(64), defaultValue: '' },
    });
    const rows = await shape.select<{ id: string; document: unknown; revision: number }>(
      'SELECT id, document, revision FROM profiles ORDER BY id',
    );
    const documents = new Map(
      rows.map(({ id: profile, document }) => [profile, (typeof document === 'string' ? JSON.parse(document) : document) as Document]),
    );
    for (const { id: profile, revision } of rows)
      await shape.run(
        `INSERT IGNORE INTO profile_editions (profile_id, number, chain, from_revision, note, accepted, inputs, released_at, released_by)
         VALUES (?, 1, ?, ?, '', '[]', '{}', NOW(3), '')`,
        [profile, JSON.stringify(chainFrom(documents, profile)), revision],
      );
  },
};

type Document = Readonly<Record<string, unknown>>;

/** A profile's own document and those that it extends, from the nearest on, each once. */
function chainFrom(documents: ReadonlyMap<string, Document>, profile: string): { id: string; document: Document }[] {
  const chain: { id: string; document: Document }[] = [];
  for (let at: unknown = profile; typeof at === 'string' && !chain.some((link) => link.id === at);) {
    const document: Document | undefined = documents.get(at);
    if (document === undefined) break;
    chain.push({ id: at, document });
    at = document['extends'];
  }
  return chain;
}
