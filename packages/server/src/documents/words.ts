/** MariaDB indexes no shorter words (innodb_ft_min_token_size), and none of these (information_schema.innodb_ft_default_stopword). */
const SHORTEST_WORD = 3;
const STOPWORDS: ReadonlySet<string> = new Set(
  'a about an are as at be by com de en for from how i in is it la of on or that the this to was what when where who will with und www'.split(
    ' ',
  ),
);
const isIndexed = (word: string): boolean => word.length >= SHORTEST_WORD && !STOPWORDS.has(word.toLowerCase());

/** What a search for words asks for. */
export interface WordSearch {
  /** SQL, to be joined with AND; none where nothing is searched for. */
  conditions: string[];
  /** Whether the index of words is asked. */
  isIndexed: boolean;
}

/**
 * Conditions by which rows hold all of some words, or their beginnings.
 *
 * @param columns those of the index of words, with commas between
 * @param place where words are looked for that the index leaves out: in what the others found, and where there are none
 * @param values gets what stands in the conditions by name
 */
export function searchFor(
  text: string,
  columns: string,
  place: { beside: string; alone: string },
  values: Record<string, unknown>,
): WordSearch {
  const words = text.match(/[\p{L}\p{N}]+/gu) ?? [];
  const indexed = words.filter(isIndexed);
  const conditions: string[] = [];
  const looked = indexed.length > 0 ? place.beside : place.alone;
  words.forEach((word, at) => {
    values[`word${at}`] = word;
    if (!isIndexed(word)) conditions.push(`${looked} LIKE CONCAT('%', :word${at}, '%')`);
  });
  if (indexed.length > 0) {
    values['search'] = indexed.map((word) => `+${word}*`).join(' ');
    conditions.push(`MATCH (${columns}) AGAINST (:search IN BOOLEAN MODE)`);
  }
  return { conditions, isIndexed: indexed.length > 0 };
}
