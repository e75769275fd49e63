import * as z from 'zod';

/** Profiles, page kinds and toolbar groups are named by ids that can stand in an address and as a file's name. */
export const idSchema = z
  .string()
  .regex(/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/, 'must be lower-case words joined by hyphens, such as "story-desk"')
  .max(64);

/** A field's key is also the name of the slot that prints it. */
export const fieldKeySchema = z
  .string()
  .regex(/^[a-z][a-z0-9]*([-_][a-z0-9]+)*$/, 'must be lower-case words joined by hyphens, such as "chart-corrections"')
  .max(64);

/** An id made from a name: lower-case words joined by hyphens; empty where the name has no letter of the Latin alphabet. */
export function idFrom(name: string): string {
  return name
    .normalize('NFD')
    .toLowerCase()
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
    .slice(0, 64)
    .replace(/-+$/, '');
}
