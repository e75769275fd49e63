import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { makeDictionary, specimenSchema, withContent, type JsonObject, type SpecimenDocument } from '../src/index';
import { DEMO } from './support';

/** The specimens of the demo scenario, with the texts of their clipboard types. */
export function demoSpecimens(): SpecimenDocument[] {
  const text = (name: string): string => readFileSync(join(DEMO, 'specimens', name), 'utf8');
  return (JSON.parse(text('order.json')) as string[]).map((id) =>
    specimenSchema.parse(withContent(JSON.parse(text(`${id}.specimen.json`)) as JsonObject, text)),
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
