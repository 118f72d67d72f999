/** So many numbers, each from its place. */
export function series(count: number, at: (i: number) => number): number[] {
  const found: number[] = [];
  for (let i = 0; i < count; i++) found.push(at(i));
  return found;
}
