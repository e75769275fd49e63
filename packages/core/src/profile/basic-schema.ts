import * as z from 'zod';
import { isColour } from '../css/colour';

/** Profiles, page kinds and toolbar groups are named by ids that can stand in an address and as a file's name. */
export const idSchema = z
  .string()
  .regex(/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/, 'must be lower-case words joined by hyphens, such as "story-desk"')
  .max(64);

export const isColourSchema = z.string().refine(isColour, 'must be a CSS colour, such as "#a6301f"');
