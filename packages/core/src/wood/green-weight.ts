/** Green branch wood, g/mm³; its leaves weigh half as much again; and gravity. */
const WET_DENSITY = 0.00095;
const FOLIAGE_FACTOR = 1.6;
const G = 0.00981;

/** Weight of a branch with its leaves, N for each mm³ of its wood. */
export const HEFT = WET_DENSITY * FOLIAGE_FACTOR * G;
