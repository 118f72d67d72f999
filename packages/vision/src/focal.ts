/** A phone's own lens, as a 35 mm film would have it, where the picture does not say. */
const USUAL_35MM = 28;
const FILM_WIDTH = 36;

/** A first guess of a picture's focal length, px, from that on 35 mm film; docs: Photographs. */
export const focalGuessOf = ({ width, height }: { width: number; height: number }, on35mm: number | null): number =>
  ((on35mm && on35mm > 5 ? on35mm : USUAL_35MM) / FILM_WIDTH) * Math.max(width, height);
