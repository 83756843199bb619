/** Groups in the order in which each key first appears. */
export function groupBy<T, K>(all: readonly T[], keyOf: (one: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const one of all) {
    const key = keyOf(one);
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [one]);
    else group.push(one);
  }
  return groups;
}
