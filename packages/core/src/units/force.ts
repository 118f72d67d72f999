const GRAVITY = 9.81;
/** A hand's width: so far out a weight turns as much as is told, mm. */
const HAND = 100;

/** A force (N) as the hand knows it: the weight that pulls so. */
export const sayForce = (newton: number): string => {
  const kg = newton / GRAVITY;
  return `${kg < 3 ? kg.toFixed(1) : kg < 10 ? String(Math.round(2 * kg) / 2) : kg.toFixed(0)} kg`;
};

/** Up to such a pull (N), what it is for the hand. */
const PULLS: readonly [most: number, word: string][] = [
  [15, 'a light pull'],
  [40, 'a firm pull'],
  [80, 'as much as one hand draws'],
  [Infinity, 'more than one hand draws'],
];

/** A pull (N) in words, and the weight that pulls so. */
export const sayPull = (newton: number): string => `${PULLS.find(([most]) => newton <= most)![1]}, ${sayForce(newton)}`;

/** What turns a thing over (N·mm), as a weight a hand's width out. */
export const sayTurning = (newtonMm: number): string => `${sayForce(newtonMm / HAND)} a hand’s width out`;
