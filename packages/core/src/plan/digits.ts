/** A figure as the plan tells it: so many places. */
export const digits = (value: number, places: number): number => Math.round(value * 10 ** places) / 10 ** places;
export const angle = (deg: number): number => digits(deg, 1);
