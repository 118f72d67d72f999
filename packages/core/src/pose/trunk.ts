import { greatestOf, isoOf, toRad } from '../units/index.js';
import { bearingAndElevation, lengthOf, pointAt, sub, type Vec } from '../space/index.js';
import { growingDays, northernMonth, speciesOf, woodOf } from '../species/index.js';
import { heldShare, recoverable, type Band } from '../wood/index.js';
import {
  asMeasured,
  formOf,
  heldShapeOf,
  namesOf,
  placeTree,
  slope,
  stemsOf,
  TRUNK_WAYS,
  VIGOUR_FACTOR,
  type BendInSpace,
  type PlacedTree,
  type PlannedBend,
  type Tree,
  type TrunkWay,
} from '../tree/index.js';
import { bentLine } from './bent.js';
import { BY_HAND, describeBends, MOST_RISK } from './bend-load.js';
import { restFor } from './wood-state.js';
import { isMain, standingOf, type Standing } from './world.js';

/** A trunk that leans less than this leans nowhere: it is bent to the viewer's left. */
const LEANS_DEG = 2;

/** Which way a trunk already leans, as a bearing. */
export function leanOf({ trunk, front }: Standing): number {
  const way = sub(trunk.points[trunk.points.length - 1]!, trunk.points[0]!);
  const { bearing, elevation } = bearingAndElevation(way);
  return elevation < 90 - LEANS_DEG ? bearing : ((front?.bearing ?? 0) + 90) % 360;
}

/** The bends of each way, by where they are on the trunk, in shares of its length; they go where it leans. */
function bendsOf(standing: Standing, way: TrunkWay): BendInSpace[] {
  const { trunk } = standing;
  const total = lengthOf(trunk);
  const bearing = leanOf(standing);
  const bend = (at: number, over: number, angle: number, toward: number, elevation: number): BendInSpace => ({
    at: at * total,
    length: over * total,
    angle,
    toward: { bearing: ((toward % 360) + 360) % 360, elevation },
  });
  const { elevation } = bearingAndElevation(sub(trunk.points[trunk.points.length - 1]!, trunk.points[0]!));
  switch (way) {
    case 'gentle-s':
      return [bend(0.1, 0.22, 24, bearing, 0), bend(0.36, 0.24, 40, bearing + 180, 0), bend(0.64, 0.2, 26, bearing, 0)];
    case 'slanting':
      return [bend(0.05, 0.25, Math.max(5, elevation - 55), bearing, 0)];
    case 'half-cascade':
      return [bend(0.12, 0.32, pointElevation(trunk, 0.12 * total) + 12, bearing, -40)];
    case 'cascade':
      return [bend(0.12, 0.38, pointElevation(trunk, 0.12 * total) + 58, bearing, -60)];
  }
}

const pointElevation = (line: Standing['trunk'], at: number): number => bearingAndElevation(pointAt(line, at).direction).elevation;

/** A bend that was made begins where the planned one does, within so many mm. */
const SAME_PLACE_MM = 1.5;
/** So much of a way at least, or it is another one. */
const LEAST_OF_WAY = 0.45;

/** The bends of a way with what they do to the wood; where it does not take all of them, as far as it goes. */
function plannedWay(standing: Standing, way: TrunkWay): { bends: PlannedBend[]; share: number } {
  const { tree } = standing.placed;
  const of = { line: standing.trunk, k0: speciesOf(tree.species).bendRatio.value };
  const by = (share: number): PlannedBend[] =>
    describeBends(
      of,
      bendsOf(standing, way).map((b) => ({ ...b, angle: b.angle * share, kind: 'movement' as const })),
    );
  const whole = by(1);
  const share = Math.min(1, (0.99 * MOST_RISK) / greatestOf(whole.map((b) => b.risk)));
  return share < 1 && share >= LEAST_OF_WAY && (way === 'gentle-s' || way === 'slanting') ? { bends: by(share), share } : { bends: whole, share: 1 };
}

/** The bends of the trunk that the plan has chosen, or what is left of them; none where it stays as it stands. */
export function trunkBends(standing: Standing): PlannedBend[] {
  const { tree } = standing.placed;
  const { trunkWay } = tree.plan;
  if (!trunkWay) return [];
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

/** What the plan bends the trunk into, with its bends; null where it stays as it stands. */
export function bentTrunk(placed: PlacedTree): { way: TrunkWay; bends: PlannedBend[] } | null {
  const { trunkWay } = placed.tree.plan;
  return trunkWay ? { way: trunkWay, bends: trunkBends(standingOf(placed)) } : null;
}

/** One way to make a tall trunk into something: bent, or cut back to a new leader. */
export interface TrunkOption {
  key: TrunkWay | string;
  kind: 'bend' | 'cut';
  name: string;
  /** Height left, mm, and what share of the present one. */
  height: number;
  heightShare: number;
  /** Years until it holds, or until the leader carries on from the cut. */
  years: number | null;
  /** Width of the cut, mm; 0 where nothing is cut. */
  wound: number;
  band: Band | null;
  stages: number | null;
  /** Days of its stages, ISO. */
  dates: string[];
  because: string[];
}

const MOST_YEARS = 15;
/** A trunk rests for weeks between its stages. */
const TRUNK_REST_DAYS = 14;
/** A trunk is bent a quarter past where it shall stay, so it is let off its devices when it keeps so much. */
const HELD = 0.8;

/** Years of growth until a bend held by guys or devices keeps its shape; null beyond fifteen. docs: Set. */
function yearsToHold(tree: Tree, bend: PlannedBend, onDay: number): number | null {
  const species = speciesOf(tree.species);
  const curvature = toRad(bend.angle) / bend.length;
  const back = recoverable({ diameter: bend.diameter, curvature, wood: woodOf(species) });
  for (let years = 1; years <= MOST_YEARS; years++) {
    const held = heldShare({
      diameter: bend.diameter,
      curvature,
      recoverable: back,
      growingDays: growingDays(species, tree.site.hemisphere, onDay, onDay + Math.round(years * 365.25)),
      relaxedShare: species.relaxedShare.value,
      relaxationDays: species.relaxationDays.value,
      radialGrowth: years * species.yearlyGrowth.value * VIGOUR_FACTOR[tree.vigour],
    });
    if (held >= HELD) return years;
  }
  return null;
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

const BEND_NAMES: Record<TrunkWay, string> = {
  'gentle-s': 'bend it: a gentle S',
  slanting: 'bend it: slanting',
  'half-cascade': 'bend it: half cascade',
  cascade: 'bend it: cascade',
};

function bendOption(standing: Standing, way: TrunkWay, onDay: number): TrunkOption {
  const { tree } = standing.placed;
  const { bends, share } = plannedWay(standing, way);
  const worst = bends.reduce((a, b) => (b.risk > a.risk ? b : a));
  const bent = bentLine(standing.trunk, bends).line;
  const height = greatestOf(bent.points.map((p) => p[2]));
  const days = Math.max(TRUNK_REST_DAYS, restFor(worst.diameter, worst.risk * BY_HAND).days);
  const stages = bends.some((b) => b.stages === null) ? null : bends.reduce((sum, b) => sum + b.stages!, 0);
  const years = bends.map((b) => yearsToHold(tree, b, onDay));
  const apex = bent.points[bent.points.length - 1]!;
  return {
    key: way,
    kind: 'bend',
    name: BEND_NAMES[way],
    height,
    heightShare: height / standing.height,
    years: stages === null || years.includes(null) ? null : greatestOf(years as number[]),
    wound: 0,
    band: stages === null ? 'no' : worst.band,
    stages,
    dates: stages === null ? [] : stageDates(tree, stages, days, onDay),
    because: [
      ...(share < 1 ? [`As far as its wood goes: ${Math.round(share * 100)}% of the turn.`] : []),
      `The whole trunk stays in use; its growing end comes to ${apex[2].toFixed(0)} mm above the soil.`,
      stages === null
        ? `Its wood, ${worst.diameter.toFixed(0)} mm thick there, does not take ${worst.angle.toFixed(0)}° over ${worst.length.toFixed(0)} mm in one season: a wedge cut or splitting by somebody who knows it, or another way.`
        : `${worst.diameter.toFixed(0)} mm of wood at ${(worst.strain * 100).toFixed(1)}% strain; rest ${days} days between stages, ${worst.protection === 'none' ? 'padded where the device presses' : 'wrapped, with parallel wires, moved by a jack, clamp or guys'}.`,
    ],
  };
}

/** A leader has to be so thick beside the trunk below it that the taper carries on. */
const TAPER = 0.7;
/** The growing end thickens faster than the tree; a wound closes from both sides so many times as fast as wood thickens. Own estimates. */
const LEADER_GROWTH = 1.2;
const CALLUS = 3;
const MOST_LEADERS = 2;

function cutOptions(placed: PlacedTree): TrunkOption[] {
  const { tree } = placed;
  const standing = standingOf(placed);
  const species = speciesOf(tree.species);
  const yearly = species.yearlyGrowth.value * VIGOUR_FACTOR[tree.vigour];
  const names = namesOf(tree);
  const stems = stemsOf(tree);
  return placed.branches
    .filter((b) => isMain(b, stems) && b.branch.parent === 'trunk' && !['dead', 'weak', 'blind'].includes(b.branch.state) && slope(b).elevation > 10)
    .map((b): TrunkOption => {
      const line = standing.lineOf.get(b.branch.id)!;
      const cutAt = pointAt(placed.trunk, Math.min(lengthOf(placed.trunk), b.branch.at + b.parentDiameter));
      const height = greatestOf(line.points.map((p: Vec) => p[2]));
      const thickens = Math.max(0, (TAPER * b.parentDiameter - b.branch.d) / (2 * yearly * LEADER_GROWTH));
      const closes = cutAt.diameter / 2 / (CALLUS * yearly);
      return {
        key: b.branch.id,
        kind: 'cut',
        name: `cut above ${names(b.branch.id)}: a new leader`,
        height,
        heightShare: height / standing.height,
        years: Math.max(thickens, closes),
        wound: cutAt.diameter,
        band: null,
        stages: 1,
        dates: [],
        because: [
          `It is ${b.branch.d.toFixed(0)} mm thick where the trunk has ${b.parentDiameter.toFixed(0)}: about ${thickens.toFixed(0)} years until the taper carries on.`,
          `The wound of ${cutAt.diameter.toFixed(0)} mm closes in about ${closes.toFixed(0)} years, if it closes; ${(100 - (100 * height) / standing.height).toFixed(0)}% of the height and all above is lost.`,
        ],
      };
    })
    .filter((o) => o.height < 0.8 * standing.height && o.height > 0.2 * standing.height)
    .sort((a, b) => a.years! - b.years! || b.height - a.height)
    .slice(0, MOST_LEADERS);
}

/** Bending a trunk against cutting it back to a new leader: height left, years, wound and risk of each. All are estimates; none for one that falls already. docs: The trunk. */
export function trunkOptions(tree: Tree, onDay: number): TrunkOption[] {
  const placed = placeTree(tree);
  if (formOf(tree) === 'cascade') return [];
  const standing = standingOf(placed);
  return [...TRUNK_WAYS.map((way) => bendOption(standing, way, onDay)), ...cutOptions(placed)];
}
