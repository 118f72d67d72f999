/** Twists that shorten a doubled tie so far: of two wires wound round each other each turn takes up a circle of their thickness. √(L² − (π·d_w·N)²) = L − s. */
export function windlass({ length, wireDiameter, shortening }: { length: number; wireDiameter: number; shortening: number }): number {
  const left = length - Math.min(shortening, length);
  return Math.sqrt(length ** 2 - left ** 2) / (Math.PI * wireDiameter);
}
