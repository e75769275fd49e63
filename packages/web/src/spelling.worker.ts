import { makeSpeller, type Speller } from '@typikon/core';
import type { SpellingAnswer, SpellingQuestion } from './state/types';

// The dictionary takes a second to read, and suggestions take long for long words: all of it happens here.
let speller: Promise<Speller> | null = null;

async function load(words: readonly string[]): Promise<Speller> {
  const [aff, dic] = await Promise.all(
    ['aff', 'dic'].map(async (ending) => {
      const response = await fetch(`/dictionaries/en-GB/index.${ending}`);
      if (!response.ok) throw new Error('The dictionary cannot be read.');
      return response.text();
    }),
  );
  return makeSpeller(aff!, dic!, words);
}

async function answer({ task }: SpellingQuestion): Promise<readonly string[]> {
  if (task.kind === 'words') {
    speller = load(task.words);
    await speller;
    return [];
  }
  if (speller === null) throw new Error('The dictionary is not there yet.');
  const dictionary = await speller;
  switch (task.kind) {
    case 'wrong':
      return task.words.filter((word) => !dictionary.knows(word));
    case 'suggest':
      return dictionary.suggest(task.word);
    case 'add':
      dictionary.add(task.word);
      return [];
  }
}

addEventListener('message', ({ data }: MessageEvent<SpellingQuestion>) => {
  answer(data).then(
    (words) => postMessage({ id: data.id, words } satisfies SpellingAnswer),
    (error: unknown) =>
      postMessage({ id: data.id, failure: error instanceof Error ? error.message : String(error) } satisfies SpellingAnswer),
  );
});
