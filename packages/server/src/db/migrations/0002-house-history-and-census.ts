import { parseFragment, takeCensus } from '@typikon/core';
import { column } from '../shape';
import type { Migration } from './migration';

const { id, json, moment, count, text } = column;

/** House limits that are edited with a history of their own; what each document holds, counted once when it is stored; who stored it. */
export const houseHistoryAndCensus: Migration = {
  name: '0002-house-history-and-census',
  async up(shape) {
    await shape.addColumn('settings', 'revision', { ...count, defaultValue: 1 });
    await shape.createTable('setting_history', { name: id, revision: { ...count, primaryKey: true }, value: json, saved_at: moment });
    await shape.run(
      'INSERT IGNORE INTO setting_history (name, revision, value, saved_at) SELECT name, revision, value, NOW(3) FROM settings',
    );
    await shape.addColumn('documents', 'role', { ...text(64), defaultValue: '' });
    await shape.addColumn('documents', 'census', { ...json, allowNull: true });
    // One after another, so that a large site needs no more memory than its largest document.
    for (;;) {
      const [document] = await shape.select<{ id: string; html: string }>('SELECT id, html FROM documents WHERE census IS NULL LIMIT 1');
      if (document === undefined) break;
      const census = JSON.stringify(takeCensus(parseFragment(document.html).root));
      await shape.run('UPDATE documents SET census = ? WHERE id = ?', [census, document.id]);
    }
    await shape.changeColumn('documents', 'census', json);
  },
};
