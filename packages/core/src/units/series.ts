/** So many numbers, each from its place. */
export function series(count: number, at: (i: number) => number): number[] {
  const found: number[] = [];
  for (let i = 0; i < count; i++) found.push(at(i));
  return found;
}

/** The greatest of some numbers, and of a bound that it does not go below; however many there are. */
export function greatestOf(values: Iterable<number>, atLeast = -Infinity): number {
  let found = atLeast;
  for (const v of values) found = Math.max(found, v);
  return found;
}

/** The least of some numbers, and of a bound that it does not go above; however many there are. */
export function leastOf(values: Iterable<number>, atMost = Infinity): number {
  let found = atMost;
  for (const v of values) found = Math.min(found, v);
  return found;
}

/** Things by what they have in common, each group in their order; in one pass, however large a group. */
export function groupedBy<T, K>(things: Iterable<T>, keyOf: (thing: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const thing of things) {
    const key = keyOf(thing);
    const own = groups.get(key);
    if (own) own.push(thing);
    else groups.set(key, [thing]);
  }
  return groups;
}
