import type { Shape } from '../shape';

/**
 * One step of the database's shape. Steps are only ever added; what a released one leads to is never changed. A step can be
 * made again after it was broken off anywhere.
 */
export interface Migration {
  name: string;
  up(shape: Shape): Promise<void>;
}
