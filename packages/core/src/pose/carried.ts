import { add, pointAt, sub, type Limb, type Vec } from '../space/index.js';
import type { Frame } from '../rod/index.js';
import { turnedBy, type Bent } from './bent.js';

/** A line as it was, and as it lies after its bends. */
export interface LaidLine<B extends Pick<Bent, 'carried'> = Bent> {
  grown: Limb;
  bent: B;
}
/** How a shoulder was turned, and where it has gone. */
export interface Carried {
  turn: Frame;
  point: Vec;
}

/** Where a branch's shoulder has gone with what it grows on. */
export function carriedOn(parent: LaidLine<Pick<Bent, 'carried'>> | undefined, line: Limb, at: number): Carried | undefined {
  if (!parent) return undefined;
  const { turn, point } = parent.bent.carried(at);
  const offset = sub(line.points[0]!, pointAt(parent.grown, at).point);
  return { turn, point: add(point, turnedBy(turn, offset)) };
}
