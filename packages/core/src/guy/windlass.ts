/** How much larger the circle is that wires of a tie turn on, by how many lie in it. */
const CIRCLE: Record<number, number> = { 2: 1, 4: Math.SQRT2, 6: 2 };

/** Twists that shorten a tie of so many wires so far: wound round each other each turn takes up a circle of their thickness. √(L² − (π·d_w·N)²) = L − s, the circle larger for four or six. */
export function windlass({ length, wireDiameter, lines, shortening }: { length: number; wireDiameter: number; lines: number; shortening: number }): number {
  const left = length - Math.min(shortening, length);
  return Math.sqrt(length ** 2 - left ** 2) / (Math.PI * wireDiameter * (CIRCLE[lines] ?? 2));
}
