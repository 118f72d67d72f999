/** The sheets of Measure, by their part of the address. */
export const SHEETS = ['branches', 'trunk', 'roots', 'features', 'pot', 'photographs', 'bring in'] as const;
export type Sheet = (typeof SHEETS)[number];
