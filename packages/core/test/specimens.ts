import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { makeDictionary, specimenSchema, SPECIMEN_FORMAT, type SpecimenDocument } from '../src/index';
import { DEMO } from './support';

interface Listed {
  types: Record<string, string>;
}

/** The specimens of the demo scenario, with the texts of their clipboard types. */
export function demoSpecimens(): SpecimenDocument[] {
  const listed = JSON.parse(readFileSync(join(DEMO, 'specimens.json'), 'utf8')) as Listed[];
  return listed.map(({ types, ...rest }) =>
    specimenSchema.parse({
      ...rest,
      format: SPECIMEN_FORMAT,
      payload: {
        types: Object.fromEntries(Object.entries(types).map(([type, file]) => [type, readFileSync(join(DEMO, 'specimens', file), 'utf8')])),
      },
    }),
  );
}

const require = createRequire(__filename);

/** British English, as the command line and the server read it. */
export const isWord: (word: string) => boolean = (() => {
  const folder = dirname(require.resolve('dictionary-en-gb'));
  const text = (file: string): string => readFileSync(join(folder, file), 'utf8');
  let known: ((word: string) => boolean) | null = null;
  return (word) => (known ??= makeDictionary(text('index.aff'), text('index.dic')))(word);
})();
