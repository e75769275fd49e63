/**
 * What one list has and another has not, each as often as it is missing, in the order of the first.
 *
 * @param key by what two of them are the same
 */
export function missing<T>(from: readonly T[], to: readonly T[], key: (one: T) => string = String): T[] {
  const left = new Map<string, number>();
  for (const one of to) {
    const name = key(one);
    left.set(name, (left.get(name) ?? 0) + 1);
  }
  return from.filter((one) => {
    const name = key(one);
    const count = left.get(name) ?? 0;
    if (count > 0) left.set(name, count - 1);
    return count === 0;
  });
}
