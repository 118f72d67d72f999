import { lengthOf, pointAt, viewer, wedge, type Limb, type View } from '../space/index.js';
import { leastOf } from '../units/index.js';
import type { PlacedTree, TrunkWay } from '../tree/index.js';

/** How a tree is planted once its trunk is bent: at what angle, how far off the middle of its pot, and in what pot. */
export interface TrunkPlanting {
  view: View;
  because: string[];
}

/** A root ball is not turned farther than this to either side at one repotting, degrees. */
const MOST_TURN = 8;
/** How far the growing end of an upright trunk leans to its viewer, as a share of its height. */
const TO_VIEWER = 0.06;
/** A slant's lean, degrees from upright; seen from the front it leans to the side only. */
export const SLANT = 35;
/** What a degree of tilt is worth, as a share of the height that the end is off: nobody turns a root ball for nothing. */
const DEGREE = 0.008;
/** A hanging end stays so far above the bench, mm; a slanting tree stands so far from the middle as a share of how far its end reaches, and never nearer to the rim than this share of the pot. */
const ABOVE_BENCH = 20;
const OFF_MIDDLE = 0.3;
const MOST_OFF = 0.2;

const upright = (of: TrunkWay): boolean => of === 'gentle-s';

/** How far the end is from where it should be in a view, as a share of its height. */
function missOf(way: TrunkWay, [right, up, toward]: readonly [number, number, number]): number {
  if (up <= 0) return Infinity;
  const side = upright(way) ? right : Math.abs(right) - up * Math.tan((SLANT * Math.PI) / 180);
  return Math.hypot(side, toward - TO_VIEWER * up) / up;
}

/** The planting angle and the pot that a bent trunk asks for; `trunk` is its line in the tree's own space. docs: The trunk. */
export function plantingOf(placed: PlacedTree, way: TrunkWay, trunk: Limb): TrunkPlanting {
  const { tree } = placed;
  const now: View = tree.plan.front ?? { bearing: 0, pitch: 0, roll: 0 };
  const end = trunk.points[trunk.points.length - 1]!;
  const base = trunk.points[0]!;
  const endIn = (view: View): [number, number, number] => {
    const see = viewer(view);
    const [a, b] = [see(end), see(base)];
    return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
  };
  let best = now;
  // Without a front nobody knows to which side.
  if (tree.plan.front && (way === 'gentle-s' || way === 'slanting')) {
    const costOf = (view: View): number => missOf(way, endIn(view)) + DEGREE * Math.hypot(view.pitch - now.pitch, view.roll - now.roll);
    for (let forward = -MOST_TURN; forward <= MOST_TURN; forward++)
      for (let side = -MOST_TURN; side <= MOST_TURN; side++) {
        const view = { bearing: now.bearing, pitch: now.pitch + forward, roll: now.roll + side };
        if (costOf(view) < costOf(best) - 1e-9) best = view;
      }
  }
  return { view: best, because: [...sayTilt(now, best, wedge(best, tree.pot).height), ...sayPot(placed, way, trunk, endIn(best))] };
}

function sayTilt(now: View, { pitch, roll }: View, under: number): string[] {
  const [forward, side] = [pitch - now.pitch, roll - now.roll];
  const parts = [
    ...(side ? [`${Math.abs(side)}° to the ${side > 0 ? 'right' : 'left'}`] : []),
    ...(forward ? [`${Math.abs(forward)}° ${forward > 0 ? 'towards' : 'away from'} the viewer`] : []),
  ];
  if (!parts.length) return [];
  return [
    `Once it holds, planted about ${parts.join(' and ')}: on a wedge of ${under.toFixed(0)} mm until it is repotted. The fronts are looked for anew then.`,
  ];
}

/** What the pot has to be, or where in it the tree stands. */
function sayPot({ tree: { pot, plan } }: PlacedTree, way: TrunkWay, trunk: Limb, [right]: readonly [number, number, number]): string[] {
  const places = Array.from({ length: 21 }, (_, i) => pointAt(trunk, (i / 20) * lengthOf(trunk)).point[2]);
  const lowest = -leastOf(places);
  if (lowest > 0) {
    const needs = lowest + ABOVE_BENCH;
    return [
      `It hangs ${lowest.toFixed(0)} mm below the soil: ${needs <= pot.height ? `this pot, ${pot.height.toFixed(0)} mm high, is high enough.` : `a pot of ${(Math.ceil(needs / 10) * 10).toFixed(0)} mm or higher, or a stand under this one, and heavy enough not to tip.`}`,
    ];
  }
  if (way !== 'slanting' || !plan.front) return [];
  const off = Math.min(MOST_OFF * pot.width, OFF_MIDDLE * Math.abs(right));
  return off < 5
    ? []
    : [`In its pot it stands ${(Math.round(off / 5) * 5).toFixed(0)} mm to the ${right > 0 ? 'left' : 'right'} of the middle, away from its lean.`];
}
