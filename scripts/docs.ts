// Writes the generated documents: the JSON Schemas of the formats. The server describes its API itself, at /api/v1/openapi.json.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { houseLimitsJsonSchema, profileJsonSchema } from '../packages/core/src/index';

const docs = join(import.meta.dirname, '..', 'docs');
const write = (name: string, value: object): void => writeFileSync(join(docs, name), `${JSON.stringify(value, null, 2)}\n`);

write('profile.schema.json', profileJsonSchema());
write('house-limits.schema.json', houseLimitsJsonSchema());
