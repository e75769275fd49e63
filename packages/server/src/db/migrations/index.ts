import { profilesAndContent } from './0001-profiles-and-content';
import type { Migration } from './migration';

/** Every migration, oldest first. */
export const MIGRATIONS: readonly Migration[] = [profilesAndContent];
