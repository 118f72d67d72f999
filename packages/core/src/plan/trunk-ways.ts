import { greatestOf, toRad, sayForce } from '../units/index.js';
import { bearingAndElevation, lengthOf, pointAt, stretch, sub, type Limb, type Vec } from '../space/index.js';
import { growingDays, settingOf, speciesOf, woodOf, yearlyGrowthOf } from '../species/index.js';
import { heldShare, recoverable, type Band } from '../wood/index.js';
import {
  formOf,
  namesOf,
  placeTree,
  slope,
  stemsOf,
  TRUNK_WAYS,
  VIGOUR_FACTOR,
  type Device,
  type PlacedTree,
  type PlannedBend,
  type Tree,
  type TrunkWay,
} from '../tree/index.js';
import { bentTrunk, isMain, leanOf, linesInWorld, plannedWay, posedLines, standingOf, trunkDevice, type Standing } from '../pose/index.js';
import { wireBendsTrunk } from '../stand/index.js';
import { planWiring } from '../wire/index.js';
import { DEVICE_WORDS, leadTo, worldOn, type LedTo } from '../guy/index.js';
import { planDevices, type PlanDevice } from './devices.js';
import { planBends, type PlanBend } from './poses.js';
import { plantingOf, SLANT, type TrunkPlanting } from './trunk-planting.js';

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
  /** The device that leads it there, which goes into the plan with it; null where its own wire does, or nothing. */
  device: Omit<Device, 'id'> | null;
  /** How it is planted then; null where nothing is bent. */
  planting: TrunkPlanting | null;
  /** The tree as it would be, and its lines where they are bent, in its own space; null where it is not offered. */
  then: { tree: Tree; lines: [string, Limb][] } | null;
  because: string[];
}

const MOST_YEARS = 15;
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
      ...settingOf(species, bend.diameter),
      radialGrowth: years * yearlyGrowthOf(species, bend.diameter) * VIGOUR_FACTOR[tree.vigour],
    });
    if (held >= HELD) return years;
  }
  return null;
}

const BEND_NAMES: Record<TrunkWay, string> = {
  'gentle-s': 'bend it: a gentle S',
  slanting: 'bend it: slanting',
  'half-cascade': 'bend it: half cascade',
  cascade: 'bend it: cascade',
};

/** How far a trunk leans, degrees from upright, to stand slanting or to hang half; an S and a cascade are no matter of one pull. */
const LEANS: Partial<Record<TrunkWay, number>> = { slanting: SLANT, 'half-cascade': 80 };

const leanOfLine = (trunk: Limb): number => 90 - bearingAndElevation(sub(trunk.points[trunk.points.length - 1]!, trunk.points[0]!)).elevation;

/** The tree with its trunk bent so, led by a device or by none. */
const withWay = (placed: PlacedTree, trunkWay: TrunkWay | null, device: Omit<Device, 'id'> | null): PlacedTree => {
  const others = (placed.tree.plan.devices ?? []).filter((d) => d !== trunkDevice({ ...placed.tree, plan: { ...placed.tree.plan, trunkWay: 'slanting' } }));
  const plan = { ...placed.tree.plan, trunkWay, devices: [...others, ...(device ? [{ ...device, id: 'trunk' }] : [])] };
  return { ...placed, tree: { ...placed.tree, plan } };
};

/** What brings a trunk to a way and holds it there: its own wire, else a jack or a frame; or how far the best of those brings it. */
function holdFor(placed: PlacedTree, way: TrunkWay): { by: 'wire' } | { by: 'device'; led: LedTo } | { by: null; led: LedTo | null } {
  const bent = withWay(placed, way, null);
  const { bends } = bentTrunk(bent)!;
  if (wireBendsTrunk(bent, bends)) return { by: 'wire' };
  const wanted = LEANS[way];
  if (wanted === undefined) return { by: null, led: null };
  const straight = withWay(placed, null, null);
  const { trunk } = standingOf(straight);
  const led = leadTo(worldOn(placed.tree, linesInWorld(straight, [])), leanOf(standingOf(straight)), wanted, leanOfLine);
  const share = led ? (led.reached - leanOfLine(trunk)) / Math.max(1, wanted - leanOfLine(trunk)) : 0;
  return led && share >= (way === 'slanting' ? LEAST_SHARE : WHOLE) ? { by: 'device', led } : { by: null, led };
}

/** A slant is begun with so much of its lean in the first season at least, what hangs is brought there at once; no longer than so many years of it. */
const LEAST_SHARE = 0.45;
const WHOLE = 0.95;
const MOST_LED_YEARS = 4;

/** What is done in stages, and when, as the plan tells it too. */
interface Staged {
  bends: readonly PlanBend[];
  stages: number | null;
  rest: string;
  dates: string[];
  device: PlanDevice | null;
}

/** A trunk bent by hand under its own wire: in the stages of its gravest bend. */
function byWire(placed: PlacedTree, bends: readonly PlannedBend[], onDay: number): Staged {
  const { runs } = planWiring(placed, { poses: [], asGrown: [], trunk: bends });
  const wire = runs.flatMap((r) => r.branches).find((b) => b.branch === 'trunk');
  const told = planBends(placed.tree, { branch: 'trunk', bends: [...bends] }, wire, undefined, onDay).bends;
  const main = told.reduce((a, b) => (b.risk > a.risk ? b : a));
  return { bends: told, stages: told.some((b) => b.stages === null) ? null : main.stages, rest: main.rest, dates: main.dates, device: null };
}

function byDevice(placed: PlacedTree, bends: readonly PlannedBend[], onDay: number): Staged {
  const told = planBends(placed.tree, { branch: 'trunk', bends: [...bends] }, undefined, undefined, onDay).bends;
  const found = planDevices(placed, [], onDay).find((d) => d.id === 'trunk');
  const device = found && !('fault' in found) ? found : null;
  return { bends: told, stages: device?.stages ?? null, rest: device?.rest ?? '', dates: device?.dates ?? [], device };
}

/** How far a pull brings the trunk this season, and how many such years the lean takes; nothing where all of it is reached, or it is no matter of leaning. */
function sayComesOver({ reached, found, device }: LedTo, standing: Standing, way: TrunkWay): string[] {
  const [now, wanted] = [leanOfLine(standing.trunk), LEANS[way]];
  if (wanted === undefined || reached >= wanted - 1) return [];
  const by = reached - now;
  const years = Math.ceil((wanted - now) / Math.max(0.1, by));
  const then = years <= MOST_LED_YEARS ? `: ${years} such years to it` : ', and that is no way to it';
  return [`With a ${DEVICE_WORDS[device.kind].name} (${sayForce(found.force)}) it comes over by ${by.toFixed(0)}° this season${then}.`];
}

function bendOption(placed: PlacedTree, way: TrunkWay, onDay: number): TrunkOption {
  const standing = standingOf(placed);
  const { bends: wholly, share } = plannedWay(standing, way);
  const hold = holdFor(placed, way);
  const device = hold.by === 'device' ? hold.led.device : null;
  const bent = withWay(placed, way, device);
  const { bends } = hold.by ? bentTrunk(bent)! : { bends: wholly };
  const staged = hold.by === null ? null : hold.by === 'wire' ? byWire(bent, bends, onDay) : byDevice(bent, bends, onDay);
  const stages = staged?.stages ?? null;
  const line = hold.by ? linesInWorld(bent, []).get('trunk')! : standing.trunk;
  const height = greatestOf(line.points.map((p) => p[2]));
  const apex = line.points[line.points.length - 1]!;
  const shown = stages === null ? null : posedLines(bent, []);
  const planting = shown && plantingOf(placed, way, shown.get('trunk')!);
  const worst = wholly.length ? wholly.reduce((a, b) => (b.risk > a.risk ? b : a)) : null;
  const years = stages === null ? [null] : bends.filter((b) => b.angle >= 1).map((b) => yearsToHold(placed.tree, b, onDay));
  const told = (staged?.bends ?? []).reduce<PlanBend | null>((a, b) => (a && a.risk >= b.risk ? a : b), null);
  const whyNot = !worst
    ? 'Its end would not come down past the rim of this pot.'
    : worst.stages === null
      ? `Its wood, ${worst.diameter.toFixed(0)} mm thick there, does not take ${worst.angle.toFixed(0)}° over ${worst.length.toFixed(0)} mm in one season: a wedge cut or splitting by somebody who knows it, or another way.`
      : `No coil of the sizes sold holds ${worst.diameter.toFixed(0)} mm of wood there, and no one pull brings it to that shape.`;
  return {
    key: way,
    kind: 'bend',
    name: BEND_NAMES[way],
    height,
    heightShare: height / standing.height,
    years: years.includes(null) ? null : greatestOf(years as number[]),
    wound: 0,
    band: stages === null ? 'no' : (staged!.device?.moved[0]!.band ?? told!.band),
    stages,
    dates: staged?.dates ?? [],
    device: stages === null ? null : device,
    planting,
    then: shown && { tree: bent.tree, lines: [...shown] },
    because:
      stages === null
        ? [whyNot, ...(hold.by === null && hold.led ? sayComesOver(hold.led, standing, way) : [])]
        : [
            ...(hold.by === 'wire' && share < 1 ? [`As far as its wood goes: ${Math.round(share * 100)}% of the turn.`] : []),
            `The whole trunk stays in use; its growing end comes to ${Math.abs(apex[2]).toFixed(0)} mm ${apex[2] < 0 ? 'below' : 'above'} the soil.`,
            staged!.device
              ? `Led by a ${DEVICE_WORDS[staged!.device.device.kind].name} at ${staged!.device.device.at.toFixed(0)} mm, ${sayForce(staged!.device.force)} when it is done, the tree tied fast into its pot first.`
              : `Its own wire holds it: ${told!.diameter.toFixed(0)} mm of wood at ${(told!.strain * 100).toFixed(1)}% strain${told!.protection === 'none' ? '' : ', wrapped before'}.`,
            ...(hold.by === 'device' ? sayComesOver(hold.led, standing, way) : []),
            ...(stages > 1 && staged!.rest ? [`${staged!.rest} of rest between its ${stages} stages.`] : []),
            ...planting!.because,
          ],
  };
}

/** A leader has to be so thick beside the trunk below it that the taper carries on. */
const TAPER = 0.7;
/** The growing end thickens faster than the tree; a wound closes from both sides so many times as fast as wood thickens. Own estimates. */
const LEADER_GROWTH = 1.2;
const CALLUS = 3;
const MOST_LEADERS = 2;

/** The tree cut off at a place on its trunk, mm along it. */
function cutBack({ tree, trunk }: PlacedTree, at: number): Tree {
  const { points, diameters } = stretch(trunk, 0, at);
  const above = new Set<string>();
  for (let grew = -1; grew !== above.size;) {
    grew = above.size;
    for (const b of tree.branches) if ((b.parent === 'trunk' && b.at > at) || above.has(b.parent)) above.add(b.id);
  }
  return { ...tree, trunk: points.map(([x, y, z], i) => ({ x, y, z, d: diameters[i]! })), branches: tree.branches.filter((b) => !above.has(b.id)) };
}

const sayYears = (years: number): string => (years < 1.5 ? 'a year' : `${years.toFixed(0)} years`);

function cutOptions(placed: PlacedTree): TrunkOption[] {
  const { tree } = placed;
  const standing = standingOf(placed);
  const species = speciesOf(tree.species);
  const yearlyOf = (diameter: number): number => yearlyGrowthOf(species, diameter) * VIGOUR_FACTOR[tree.vigour];
  const names = namesOf(tree);
  const stems = stemsOf(tree);
  return placed.branches
    .filter((b) => isMain(b, stems) && b.branch.parent === 'trunk' && !['dead', 'weak', 'blind'].includes(b.branch.state) && slope(b).elevation > 10)
    .map((b): TrunkOption => {
      const line = standing.lineOf.get(b.branch.id)!;
      const cutAt = pointAt(placed.trunk, Math.min(lengthOf(placed.trunk), b.branch.at + b.parentDiameter));
      const height = greatestOf(line.points.map((p: Vec) => p[2]));
      const thickens = Math.max(0, (TAPER * b.parentDiameter - b.branch.d) / (2 * yearlyOf(b.branch.d) * LEADER_GROWTH));
      const closes = cutAt.diameter / 2 / (CALLUS * yearlyOf(cutAt.diameter));
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
        device: null,
        planting: null,
        then: { tree: cutBack(placed, Math.min(lengthOf(placed.trunk), b.branch.at + b.parentDiameter)), lines: [] },
        because: [
          `It is ${b.branch.d.toFixed(0)} mm thick where the trunk has ${b.parentDiameter.toFixed(0)}: about ${sayYears(thickens)} until the taper carries on.`,
          `The wound of ${cutAt.diameter.toFixed(0)} mm closes in about ${sayYears(closes)}, if it closes; ${(100 - (100 * height) / standing.height).toFixed(0)}% of the height and all above is lost.`,
        ],
      };
    })
    .filter((o) => o.height < 0.8 * standing.height && o.height > 0.2 * standing.height)
    .sort((a, b) => a.years! - b.years! || b.height - a.height)
    .slice(0, MOST_LEADERS);
}

/** Bending a trunk against cutting it back to a new leader: height left, years, wound and risk of each; bent only where something holds it so. All are estimates; none for one that falls already. docs: The trunk. */
export function trunkOptions(tree: Tree, onDay: number): TrunkOption[] {
  const placed = placeTree(tree);
  if (formOf(tree) === 'cascade') return [];
  return [...TRUNK_WAYS.map((way) => bendOption(placed, way, onDay)), ...cutOptions(placed)];
}
