import * as z from 'zod';
import { isColour } from '../css/colour';

export const isColourSchema = z.string().refine(isColour, 'must be a CSS colour, such as "#a6301f"');
