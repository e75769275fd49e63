import { join } from 'node:path';

export const root = join(import.meta.dirname, '..', '..');
export const at = (...parts) => join(root, ...parts);
