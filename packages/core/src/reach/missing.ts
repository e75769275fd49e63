/**
 * What one list has and another has not, each as often as it is missing, in the order of the first. What both begin or end with is
 * missing from neither.
 *
 * @param key by what two of them are the same
 */
export function missing<T>(from: readonly T[], to: readonly T[], key: (one: T) => string = String): T[] {
  const [keys, others] = [from.map(key), to.map(key)];
  let [begin, end, otherEnd] = [0, keys.length, others.length];
  while (begin < end && begin < otherEnd && keys[begin] === others[begin]) begin++;
  for (; end > begin && otherEnd > begin && keys[end - 1] === others[otherEnd - 1]; end--) otherEnd--;
  const left = new Map<string, number>();
  for (let at = begin; at < otherEnd; at++) left.set(others[at]!, (left.get(others[at]!) ?? 0) + 1);
  return from.slice(begin, end).filter((_, at) => {
    const name = keys[begin + at]!;
    const count = left.get(name) ?? 0;
    if (count > 0) left.set(name, count - 1);
    return count === 0;
  });
}
