/** The sheets of Measure, by their part of the address. */
export const SHEETS = ['branches', 'photographs', 'bring in', 'trunk', 'roots', 'features', 'pot'] as const;
export type Sheet = (typeof SHEETS)[number];
