import * as z from 'zod';
import { withoutFormMeta } from './field-meta';
import { houseLimitsSchema, profileSchema } from './schema';

/** The JSON Schema (draft 2020-12) of a profile as it may be written: keys with a default can be left out. */
export function profileJsonSchema(): object {
  return {
    ...z.toJSONSchema(profileSchema, { io: 'input', override: withoutFormMeta }),
    title: 'Typikon profile, format typikon-profile/1',
  };
}

/** The JSON Schema (draft 2020-12) of house limits. */
export function houseLimitsJsonSchema(): object {
  return {
    ...z.toJSONSchema(houseLimitsSchema, { io: 'input', override: withoutFormMeta }),
    title: 'Typikon house limits, format typikon-house/1',
  };
}
