import * as z from 'zod';
import { withoutFormMeta } from '../profile/field-meta';
import { siteSchema } from './schema';

/** The JSON Schema (draft 2020-12) of a site document as it may be written: keys with a default can be left out. */
export function siteJsonSchema(): object {
  return { ...z.toJSONSchema(siteSchema, { io: 'input', override: withoutFormMeta }), title: 'Typikon site, format typikon-site/1' };
}
