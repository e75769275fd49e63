import { DataTypes } from 'sequelize';
import type { Migration } from './migration';

/** Releases that wait for their time; and who saved each state of a draft, which may not be who releases it. */
export const scheduledReleases: Migration = {
  name: '0016-scheduled-releases',
  async up(shape) {
    await shape.run(
      `CREATE TABLE IF NOT EXISTS scheduled_releases (
         id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
         profile_id VARCHAR(64) NOT NULL,
         revision INT UNSIGNED NOT NULL,
         body JSON NOT NULL,
         due_at DATETIME(3) NOT NULL,
         asked_at DATETIME(3) NOT NULL,
         asked_by VARCHAR(64) NOT NULL DEFAULT '',
         state VARCHAR(8) NOT NULL,
         detail VARCHAR(1000) NOT NULL DEFAULT '',
         edition INT UNSIGNED NULL,
         KEY scheduled_releases_profile (profile_id, id),
         KEY scheduled_releases_state (state)
       )`,
    );
    await shape.addColumn('draft_history', 'saved_by', { type: DataTypes.STRING(64), allowNull: false, defaultValue: '' });
  },
};
