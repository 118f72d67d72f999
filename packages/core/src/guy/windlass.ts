/** Twists that shorten a doubled tie so far: of two wires wound round each other each turn takes up a circle of their thickness. √(L² − (π·d_w·N)²) = L − s. */
export function windlass({ length, wireDiameter, shortening }: { length: number; wireDiameter: number; shortening: number }): number {
  const left = length - Math.min(shortening, length);
  return Math.sqrt(length ** 2 - left ** 2) / (Math.PI * wireDiameter);
}

/** What so many twists shorten a doubled tie by, mm; never by more than its length. */
export function shortenedBy({ length, wireDiameter, twists }: { length: number; wireDiameter: number; twists: number }): number {
  const round = Math.min(length, Math.PI * wireDiameter * twists);
  return length - Math.sqrt(length ** 2 - round ** 2);
}
