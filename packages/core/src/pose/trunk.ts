import { greatestOf, isoOf } from '../units/index.js';
import { bearingAndElevation, lengthOf, pointAt, sub, type Limb } from '../space/index.js';
import { northernMonth, speciesOf, woodOf } from '../species/index.js';
import { HEFT } from '../wood/index.js';
import { leadWood, LED_SEGMENTS } from '../rod/index.js';
import {
  asMeasured,
  drawnFrom,
  heldShapeOf,
  isTrunkLead,
  placeTree,
  rimAt,
  type BendInSpace,
  type Device,
  type PlacedTree,
  type PlannedBend,
  type Tree,
  type TrunkWay,
} from '../tree/index.js';
import { bendsBetween } from './bends-between.js';
import { bentLine } from './bent.js';
import { describeBends, MOST_RISK } from './bend-load.js';
import { standingOf, type Standing } from './world.js';

/** A trunk that leans less than this leans nowhere: it is bent to the viewer's left. */
const LEANS_DEG = 2;

/** Which way a trunk already leans, as a bearing. */
export function leanOf({ trunk, front }: Standing): number {
  const way = sub(trunk.points[trunk.points.length - 1]!, trunk.points[0]!);
  const { bearing, elevation } = bearingAndElevation(way);
  return elevation < 90 - LEANS_DEG ? bearing : ((front?.bearing ?? 0) + 90) % 360;
}

/** Where a falling trunk is bent over, the lowest first, as shares of its length; in two arcs, each of which the hand can make. */
const OVER_AT = [0.12, 0.2, 0.3];
const OVER_LENGTH = 0.4;
/** How steeply each arc is drawn down, degrees. */
const OVER_TOWARD = [-40, -75] as const;
const MOST_OVER = 160;
/** How high a falling trunk's end comes to lie, as shares of its length: about level with the rim, or below it by so much of the pot. */
const HANGS_HALF = 0.05;
const HANGS = -0.1;
const BELOW_RIM = 0.4;
/** What lies lower than this, mm, is past the rim, or it would lie in the soil. */
const OVER_SOIL = 4;

/** The bends that bring a trunk's end down to a height, mm, over the rim and not through the soil; none where its length does not do it. */
function fallTo(standing: Standing, height: number): BendInSpace[] {
  const { trunk, placed } = standing;
  const total = lengthOf(trunk);
  const bearing = leanOf(standing);
  const arc = (OVER_LENGTH / OVER_TOWARD.length) * total;
  for (const at of OVER_AT) {
    const bends = (angle: number): BendInSpace[] =>
      OVER_TOWARD.map((elevation, i) => ({ at: at * total + i * arc, length: arc, angle: angle / OVER_TOWARD.length, toward: { bearing, elevation } }));
    const lineOf = (angle: number): Limb => bentLine(trunk, bends(angle)).line;
    const endOf = (angle: number): number => lineOf(angle).points.at(-1)![2];
    let [low, high] = [0, MOST_OVER];
    if (endOf(high) > height) continue;
    for (let i = 0; i < 12; i++) {
      const middle = (low + high) / 2;
      if (endOf(middle) > height) low = middle;
      else high = middle;
    }
    // Its foot stands in the soil; what comes down again is past the rim.
    const { points } = lineOf(high);
    const top = points.findIndex((p) => p[2] === greatestOf(points.map((q) => q[2])));
    if (
      points
        .slice(top)
        .filter((p) => p[2] < OVER_SOIL)
        .every(([x, y]) => Math.hypot(x, y) > rimAt(placed.tree.pot, bearingAndElevation([x, y, 0]).bearing))
    )
      return bends(high);
  }
  return [];
}

/** The bends of each way, by where they are on the trunk, in shares of its length; they go where it leans. */
function bendsOf(standing: Standing, way: TrunkWay): BendInSpace[] {
  const { trunk, placed } = standing;
  const total = lengthOf(trunk);
  const bearing = leanOf(standing);
  const bend = (at: number, over: number, angle: number, toward: number, elevation: number): BendInSpace => ({
    at: at * total,
    length: over * total,
    angle,
    toward: { bearing: ((toward % 360) + 360) % 360, elevation },
  });
  switch (way) {
    case 'gentle-s':
      return [bend(0.1, 0.22, 24, bearing, 0), bend(0.36, 0.24, 40, bearing + 180, 0), bend(0.64, 0.2, 26, bearing, 0)];
    case 'slanting': {
      const { elevation } = bearingAndElevation(sub(trunk.points[trunk.points.length - 1]!, trunk.points[0]!));
      return [bend(0.05, 0.25, Math.max(5, elevation - 55), bearing, 0)];
    }
    case 'half-cascade':
      return fallTo(standing, HANGS_HALF * total);
    case 'cascade':
      return fallTo(standing, Math.min(HANGS * total, -BELOW_RIM * placed.tree.pot.height));
  }
}

/** A bend that was made begins where the planned one does, within so many mm. */
const SAME_PLACE_MM = 1.5;
/** So much of a way at least, or it is another one. */
const LEAST_OF_WAY = 0.45;

/** The bends of a way with what they do to the wood; where it does not take all of them, as far as it goes. */
export function plannedWay(standing: Standing, way: TrunkWay): { bends: PlannedBend[]; share: number } {
  const { tree } = standing.placed;
  const of = { line: standing.trunk, k0: speciesOf(tree.species).bendRatio.value };
  const by = (share: number): PlannedBend[] =>
    describeBends(
      of,
      bendsOf(standing, way).map((b) => ({ ...b, angle: b.angle * share, kind: 'movement' as const })),
    );
  const whole = by(1);
  if (!whole.length) return { bends: [], share: 0 };
  const share = Math.min(1, (0.99 * MOST_RISK) / greatestOf(whole.map((b) => b.risk)));
  return share < 1 && share >= LEAST_OF_WAY && (way === 'gentle-s' || way === 'slanting') ? { bends: by(share), share } : { bends: whole, share: 1 };
}

/** The device of the plan that leads the trunk to what it is bent into; null where a coil does, or nothing. */
export const trunkDevice = ({ plan }: Tree): Device | null => (plan.trunkWay && plan.devices?.find((d) => d.branch === 'trunk' && isTrunkLead(d.kind))) || null;

/** So many bends tell how a device leads the trunk. */
const LED_IN = 5;

/** What a device makes of a trunk is asked for by every line that grows on it: worked out once. */
const led = new WeakMap<Limb, Map<string, PlannedBend[]>>();

/** How a device leads the trunk, as bends of it; none where it cannot be. */
function ledBends(standing: Standing, device: Device): PlannedBend[] {
  const { trunk, placed } = standing;
  const known = led.get(placed.trunk) ?? new Map<string, PlannedBend[]>();
  led.set(placed.trunk, known);
  const key = JSON.stringify([device, standing.front, placed.tree.species, placed.tree.pot]);
  const bends = known.get(key) ?? workOutBends(standing.placed.tree, trunk, device);
  known.set(key, bends);
  return bends;
}

function workOutBends({ species, pot }: Tree, trunk: Limb, device: Device): PlannedBend[] {
  const kind = speciesOf(species);
  if (trunk.points.length < 2 || device.at > lengthOf(trunk)) return [];
  const { point } = pointAt(trunk, device.at);
  const from = drawnFrom(device, pot, point);
  if (!from) return [];
  const { line } = leadWood({ line: trunk, at: device.at, way: sub(from, point), wood: woodOf(kind), heft: HEFT, segments: LED_SEGMENTS }, device.by);
  const bends = bendsBetween(trunk, line, lengthOf(trunk), LED_IN);
  return describeBends(
    { line: trunk, k0: kind.bendRatio.value },
    bends.map((b) => ({ ...b, kind: 'movement' as const })),
  );
}

/** The bends of the trunk that the plan has chosen, or what is left of them; none where it stays as it stands. */
export function trunkBends(standing: Standing): PlannedBend[] {
  const { tree } = standing.placed;
  const { trunkWay } = tree.plan;
  if (!trunkWay) return [];
  const device = trunkDevice(tree);
  if (device) return ledBends(standing, device);
  const held = heldShapeOf(tree, 'trunk');
  if (!held) return plannedWay(standing, trunkWay).bends;
  // Told from where it lay before; each bend that was made is the one planned nearest to it.
  const lay = standingOf(placeTree({ ...asMeasured(tree), trunk: [...tree.stands!.layTrunk] }));
  const { bends } = plannedWay(lay, trunkWay);
  return bends.map((bend) => {
    const made = held.made.find((m) => Math.abs(m.at - bend.at) <= SAME_PLACE_MM);
    return { ...bend, angle: Math.max(0, bend.angle - (made?.angle ?? 0)) };
  });
}

/** What the plan bends the trunk into, with its bends and what leads it there; null where it stays as it stands. */
export function bentTrunk(placed: PlacedTree): { way: TrunkWay; bends: PlannedBend[]; device: string | null } | null {
  const { trunkWay } = placed.tree.plan;
  return trunkWay ? { way: trunkWay, bends: trunkBends(standingOf(placed)), device: trunkDevice(placed.tree)?.id ?? null } : null;
}

/** The days of so many stages with their rests, each in a month that is not bad for heavy bending. */
export function stageDates(tree: Tree, stages: number, restDays: number, fromDay: number): string[] {
  const { bad } = speciesOf(tree.species).months.heavyBending;
  const dates: string[] = [];
  let day = fromDay;
  for (let i = 0; i < stages; i++) {
    for (let tries = 0; tries < 366 && bad.includes(northernMonth(tree.site.hemisphere, day)); tries++) day++;
    dates.push(isoOf(day));
    day += Math.max(1, restDays);
  }
  return dates;
}
