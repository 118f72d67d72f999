export const METALS = ['aluminium', 'copper'] as const;
export type MetalName = (typeof METALS)[number];

export interface Metal {
  /** Strength σ_w as it works on the branch, MPa. */
  strength: number;
  /** g/cm³. */
  density: number;
  /** Sizes sold, mm. */
  sizes: readonly number[];
}

/** d = 0.127·92^((36−n)/39) mm, the definition of the American gauge; the gauge by itself or as a named value. */
export const awgToMm = (of: number | { gauge: number }): number => 0.127 * 92 ** ((36 - (typeof of === 'number' ? of : of.gauge)) / 39);

export const COPPER_GAUGES = [22, 20, 18, 16, 14, 12, 10, 8, 6] as const;

export const METAL_DATA: Record<MetalName, Metal> = {
  aluminium: { strength: 70, density: 2.7, sizes: [0.8, 1, 1.2, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5, 5.5, 6] },
  copper: { strength: 140, density: 8.96, sizes: COPPER_GAUGES.map((g) => awgToMm(g)) },
};

/** The gauge of a copper size, or null where it is none of the sizes sold. */
export const gaugeOf = (sizeMm: number): number | null => COPPER_GAUGES.find((g) => Math.abs(awgToMm(g) - sizeMm) < 0.02) ?? null;

/** The schools' rules beside the mechanics: aluminium a third of the branch, copper a quarter; mm. */
export const ruleOfThumb = (branchDiameter: number): Record<MetalName, number> => ({
  aluminium: branchDiameter / 3,
  copper: branchDiameter / 4,
});

/** Grams of a length (mm) of wire of a thickness (mm). */
export const wireMass = (metal: MetalName, size: number, length: number): number => (length * (Math.PI / 4) * size ** 2 * METAL_DATA[metal].density) / 1000;

/** Length (mm) of so many grams of wire of a thickness (mm). */
export const wireLength = (metal: MetalName, size: number, grams: number): number => grams / wireMass(metal, size, 1);

/** A roll as it is sold: half a kilogram, of either metal. */
const ROLL_GRAMS = 500;
/** Length of a full roll, mm. */
export const rollLength = (metal: MetalName, size: number): number => wireLength(metal, size, ROLL_GRAMS);

/** Sizes are told to the hundredth of a millimetre. */
const TOLD = 0.006;

/** The size sold that a size (mm) stands for where it was told to the hundredth; another size as it is. */
export const sizeSold = (metal: MetalName, told: number): number => METAL_DATA[metal].sizes.find((size) => Math.abs(size - told) < TOLD) ?? told;
