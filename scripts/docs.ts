// Writes the generated documents: the JSON Schemas of the formats, and the description of the API that the server gives of itself.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { houseLimitsJsonSchema, ledgerJsonSchema, profileJsonSchema, siteJsonSchema, specimenJsonSchema } from '../packages/core/src/index';
import { ledgerPage } from '../packages/core/test/ledger-page';
import { buttonsPage, checksPage, passesPage } from '../packages/core/test/lists-page';
import { specimenPage } from '../packages/core/test/specimen-page';
import { apiDescription } from '../packages/server/src/description';

const docs = join(import.meta.dirname, '..', 'docs');
const write = (name: string, value: object): void => writeFileSync(join(docs, name), `${JSON.stringify(value, null, 2)}\n`);

write('profile.schema.json', profileJsonSchema());
write('house-limits.schema.json', houseLimitsJsonSchema());
write('site.schema.json', siteJsonSchema());
write('ledger.schema.json', ledgerJsonSchema());
write('specimen.schema.json', specimenJsonSchema());
writeFileSync(join(docs, 'ledger.md'), ledgerPage());
writeFileSync(join(docs, 'specimen-format.md'), specimenPage());
writeFileSync(join(docs, 'passes.md'), passesPage());
writeFileSync(join(docs, 'checks.md'), checksPage());
writeFileSync(join(docs, 'buttons.md'), buttonsPage());
void apiDescription().then((description) => write('openapi.json', description));
