import type { MetalName, RackLineOf, StockForm, StockOrigin } from '@ustle/core';

/** What is typed of wire that comes onto the rack; null where nothing is. */
export interface ComingIn {
  on: string;
  form: StockForm;
  origin: StockOrigin;
  metal: MetalName;
  size: number;
  known: 'length' | 'grams';
  /** Metres of a roll, mm of a loose piece. */
  length: number | null;
  grams: number | null;
  reel: number | null;
  soft: boolean;
  price: number | null;
}

/** The line of the rack that tells it, or what is still to be said: what is not known is not taken for nothing. */
export function lineFrom(f: ComingIn, ids: { id: string; roll: string }): RackLineOf<'in'> | { fault: string } {
  const loose = f.form === 'offcut';
  const line = { ...ids, on: f.on, kind: 'in' as const, form: f.form, origin: f.origin, metal: f.metal, size: Number(f.size), soft: f.soft };
  const price = f.price === null ? {} : { price: f.price };
  if (f.known === 'length')
    return f.length === null ? { fault: 'Length: say how long it is.' } : { ...line, length: Math.round(f.length * (loose ? 1 : 1000)), ...price };
  if (f.grams === null) return { fault: 'On the scale: say what it weighs.' };
  if (loose) return { ...line, grams: f.grams, reel: 0, ...price };
  return f.reel === null
    ? { fault: 'Of that the empty reel: say what it weighs; 0 where there is none.' }
    : { ...line, grams: f.grams, reel: f.reel, ...price };
}
