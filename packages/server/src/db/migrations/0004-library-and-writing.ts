import { column } from '../shape';
import type { Migration } from './migration';

const { count, text } = column;

/** Names and folders for the pictures of the library; documents that can be changed. */
export const libraryAndWriting: Migration = {
  name: '0004-library-and-writing',
  async up(shape) {
    await shape.addColumn('assets', 'title', { ...text(200), defaultValue: '' });
    await shape.addColumn('assets', 'folder', { ...text(60), defaultValue: '' });
    await shape.addIndex('assets', 'assets_folder_title', ['folder', 'title']);
    await shape.addColumn('documents', 'revision', { ...count, defaultValue: 1 });
  },
};
