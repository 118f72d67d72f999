import { scale, type Vec } from '../space/index.js';
import type { Hand } from '../tree/index.js';
import { fitCoil, type CoilAsked } from './coil-fit.js';
import type { BarkPlace, FlatBark } from './flat-bark.js';
import type { CoilOn } from './limb-work.js';

/** Where the trunk's wire comes out of the soil, mm along the trunk, and how deep of the pot it is pushed in. */
const OUT_OF_SOIL = 2;
export const SOIL_SHARE = 0.8;
/** A coil that ends at wood on its way is worth less than one that misses its bends. */
const BLOCKED_COSTS = 1e5;

interface TrunkAsked extends Pick<CoilAsked, 'half' | 'end' | 'knots' | 'outsides'> {
  bark: FlatBark;
  angle: number;
  /** Half the thickness of one wire, mm. */
  lift: number;
  hands: readonly Hand[];
  /** Towards the viewer: it comes out of the soil behind the trunk. */
  toward: Vec | null;
}

/** The coil on a bent trunk, from the soil on, with the hand that misses the outsides of its bends least. */
export function trunkCoil({ bark, angle, lift, hands, toward, ...asked }: TrunkAsked): { hand: Hand; coil: CoilOn } {
  const start: BarkPlace = { s: OUT_OF_SOIL, turn: toward ? bark.turnTo(OUT_OF_SOIL, scale(toward, -1)) : 0, lift };
  const fits = hands.map((hand) => {
    const fitted = fitCoil({ bark, hand, angleDeg: angle, start, ...asked });
    const missed = fitted.missDeg.reduce((sum, miss, i) => sum + miss * asked.outsides[i]!.angleDeg, 0) + (fitted.blocked ? BLOCKED_COSTS : 0);
    return { hand, fitted, missed };
  });
  const { hand, fitted } = fits.reduce((best, f) => (f.missed < best.missed ? f : best));
  const places = fitted.blocked ? fitted.places.slice(0, Math.max(2, fitted.blocked.index - 1)) : fitted.places;
  return { hand, coil: { ...fitted, places, points: places.map((p) => bark.point(p)) } };
}
