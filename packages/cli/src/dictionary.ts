import { makeDictionary } from '@typikon/core';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

/** The dictionary that hyphens at line ends are closed by; read at the first question, since few pastes ask one. */
export function dictionary(): (word: string) => boolean {
  let isWord: ((word: string) => boolean) | null = null;
  return (word) => (isWord ??= read())(word);
}

function read(): (word: string) => boolean {
  const folder = dirname(createRequire(import.meta.url).resolve('dictionary-en-gb'));
  const text = (file: string): string => readFileSync(join(folder, file), 'utf8');
  return makeDictionary(text('index.aff'), text('index.dic'));
}
