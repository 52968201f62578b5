/**
 * Items by a key, in their order.
 *
 * @example [...groupBy([1, 2, 3], (n) => n % 2).keys()] // [1, 0]
 */
export function groupBy<K, T>(items: Iterable<T>, keyOf: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}

/**
 * Items in groups of so many at most, in their order.
 *
 * @example groupsOf([1, 2, 3], 2) // [[1, 2], [3]]
 */
export const groupsOf = <T>(items: readonly T[], most: number): T[][] =>
  Array.from({ length: Math.ceil(items.length / most) }, (_, at) => items.slice(at * most, (at + 1) * most));
