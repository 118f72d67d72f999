import { leastOf, clamp, turnDeg, wrapDeg } from '../units/index.js';
import { add, bearingAndElevation, direction, lengthOf, limb, pointAt, scale, unit, type Limb, type Vec } from '../space/index.js';
import { speciesOf, type Habit } from '../species/index.js';
import type { Branch, BranchState, Form, Pot, Tree } from '../tree/index.js';
import { seeded } from './random.js';
import { trunkOf } from './trunk.js';

export interface Growing {
  seed: number;
  name: string;
  species: string;
  /** Height of the apex, mm; of a cascade, the length of its line. */
  height: number;
  /** Trunk diameter above the flare, mm. */
  base: number;
  /** Sideways swing of the trunk over its height; 0 is straight. */
  swing?: number;
  /** Lean of the whole trunk, as a share of its height, towards a bearing. */
  lean?: number;
  leanBearing?: number;
  /** Upright unless said: a cascade's line falls past the rim of its pot, twins are two trunks from one base, a clump stands on several stems. */
  form?: Form;
  primaries: number;
  /** Sub-branches on each primary. */
  secondaries?: number;
  /** Slope at which branches grow before anyone styled them, degrees low and high on the tree. */
  slopes?: [number, number];
  faults?: readonly Fault[];
}

const TRAINING_SHARE = 0.55;

/** About how large a tree of a species is at an age in years, grown in the ground and then in pots: height and base in mm, main branches. */
export function sizeAtAge(speciesKey: string, age: number): Pick<Growing, 'height' | 'base' | 'primaries'> {
  const yearly = speciesOf(speciesKey).yearlyGrowth.value;
  // Wood is laid on fastest while young: half a life counts nearly whole.
  const base = clamp(2 * yearly * TRAINING_SHARE * age * (1 + 6 / (6 + age)), 8, 220);
  const height = clamp(base * (9.5 - Math.min(4, base / 25)), 120, 1300);
  return { height: round(height), base: round(base), primaries: Math.round(clamp(4 + age / 6, 4, 12)) };
}

export const FAULTS = ['bar', 'whorl', 'dead', 'blind', 'hanging'] as const;
export type Fault = (typeof FAULTS)[number];

const NATURAL_SLOPES: Record<Habit, [number, number]> = { down: [12, 40], level: [18, 48], up: [30, 60] };
const round = (x: number): number => Math.round(x * 10) / 10;
const roundVec = (v: Vec): Vec => [round(v[0]), round(v[1]), round(v[2])];

/** Thickness at the tip of a branch, mm: a third of its base, and no twig is thinner than a millimetre but the thinnest. */
const tipOf = (d: number): number => Math.min(d, Math.max(1, d * 0.32));

/** A plausible made-up tree, the same for the same seed: for practice, tests and measuring. */
export function generateTree(growing: Growing): Tree {
  const random = seeded(growing.seed);
  const between = (low: number, high: number): number => low + (high - low) * random();
  const species = speciesOf(growing.species);
  const { height, base } = growing;

  const trunk = trunkOf(growing, between);
  const axis = limb(
    trunk.map((s): Vec => [s.x, s.y, s.z]),
    trunk.map((s) => s.d),
  );
  const slopes = growing.slopes ?? NATURAL_SLOPES[species.habit];
  const branches: Branch[] = [];

  const grow = (parent: string, on: Limb, at: number, bearing: number, elevation: number, length: number, d: number, rising: number): Limb => {
    const points: Vec[] = [[0, 0, 0]];
    const steps = length > 90 ? 6 : 4;
    let b = bearing;
    let e = elevation;
    for (let i = 0; i < steps; i++) {
      points.push(add(points[i]!, scale(direction({ bearingDeg: b, elevationDeg: e }), length / steps)));
      b += between(-22, 22);
      e = clamp(e + between(-12, 12) + rising / steps, -75, 80);
    }
    const rounded = points.map(roundVec);
    const line = limb(
      rounded,
      rounded.map(() => d),
    );
    const chord = bearingAndElevation(unit(rounded[steps]!));
    branches.push({
      id: `b${branches.length + 1}`,
      parent,
      at: round(at),
      bearing: round(chord.bearing),
      elevation: round(chord.elevation),
      length: round(lengthOf(line)),
      d: round(d),
      tipD: round(tipOf(d)),
      path: rounded,
      bareTo: round(between(0.3, 0.45)),
      green: 0,
      state: 'normal',
      stage: 'wood',
      backBuds: random() < 0.5,
    });
    const shoulder = pointAt(on, at).point;
    return limb(
      rounded.map((p) => add(shoulder, p)),
      line.along.map((s) => d + (tipOf(d) - d) * (s / lengthOf(line))),
    );
  };

  const withSecondaries = (line: Limb, parent: string, rising: number, count = growing.secondaries ?? 3, level?: number): void => {
    for (let k = 0; k < count; k++) {
      const at = lengthOf(line) * (0.42 + (0.45 * k) / Math.max(1, count - 1));
      const here = pointAt(line, at);
      const side = k % 2 === 0 ? 1 : -1;
      const slopeHere = bearingAndElevation(here.direction);
      grow(
        parent,
        line,
        at,
        // Away from where the limb goes just there, or it would grow along it.
        wrapDeg(slopeHere.bearing + side * between(40, 65)),
        (level ?? slopeHere.elevation) + between(-6, 14),
        lengthOf(line) * between(0.3, 0.42),
        Math.max(1.4, here.diameter * between(0.5, 0.65)),
        rising,
      );
    }
  };

  const form = growing.form ?? 'upright';
  const stems = STEMS[form];
  if (stems) {
    // Stems from the foot, spread around it; each is a small tree of its own.
    const first = between(0, 360);
    for (let i = 0; i < stems; i++) {
      const out = wrapDeg(first + ((i + 0.5) * 360) / stems + between(-18, 18));
      const line = grow(
        'trunk',
        axis,
        height * between(0.008, 0.028),
        out,
        between(64, 76),
        height * between(0.55, 0.85),
        base * (form === 'twin' ? between(0.7, 0.85) : between(0.5, 0.65)),
        between(4, 10),
      );
      // The second of twins runs out thin, as the trunk does.
      if (form === 'twin') branches[branches.length - 1]!.tipD = round(Math.max(1.5, 0.1 * base));
      withSecondaries(line, branches[branches.length - 1]!.id, between(4, 12), (growing.secondaries ?? 3) + 2, between(slopes[0], slopes[1]));
    }
  }

  let bearing = between(60, 110);
  const total = lengthOf(axis);
  for (let i = 0; i < growing.primaries; i++) {
    const share = 0.24 + 0.66 * (growing.primaries > 1 ? (i / (growing.primaries - 1)) ** 0.88 : 0);
    const at = total * share;
    // On a cascade branches stand away from the pot, to one side and the other of its line.
    if (form === 'cascade') bearing = wrapDeg((growing.leanBearing ?? 90) + (i % 2 ? 1 : -1) * between(35, 95));
    bearing = awayFromInside(axis, at, bearing);
    const elevation = slopes[0] + (slopes[1] - slopes[0]) * share + between(-8, 8);
    const length = height * (0.5 * (1 - share) + 0.1) * between(0.85, 1.15) * REACH[form];
    const d = clamp(pointAt(axis, at).diameter * between(0.3, 0.42), 2, base);
    const line = grow('trunk', axis, at, bearing, elevation, length, d, between(-6, 14));
    withSecondaries(line, branches[branches.length - 1]!.id, between(4, 16));
    // Left, right, back: a spiral of a bit over a third of a turn.
    bearing = wrapDeg(bearing + between(118, 148));
  }
  addFaults(growing.faults ?? [], branches, axis, grow);
  shareGreen(branches);

  return {
    format: 'ustle-tree',
    version: 1,
    name: growing.name,
    species: growing.species,
    styledOn: null,
    repottedOn: null,
    collectedOn: null,
    vigour: 'normal',
    site: { hemisphere: 'north' },
    pot: potFor(form, height, leastOf(trunk.map((s) => s.z))),
    trunk,
    roots: Array.from({ length: 6 }, (_, i) => ({
      bearing: Math.round(wrapDeg(i * 60 + between(-22, 22))),
      length: round(base * between(0.8, 1.5)),
      d: round(base * between(0.22, 0.36)),
    })),
    branches,
    features: [],
    plan: { front: null, decisions: [], poses: [], runs: [], guys: [] },
    record: [],
  };
}

/** Stems beside the trunk. */
const STEMS: Record<Form, number> = { upright: 0, cascade: 0, twin: 1, clump: 4 };
/** How far branches reach beside those of an upright tree of the same height. */
const REACH: Record<Form, number> = { upright: 1, cascade: 0.62, twin: 0.8, clump: 0.62 };

/** A pot that suits: wide and low, or for a cascade so tall that its tip hangs clear of the table. */
function potFor(form: Form, height: number, lowest: number): Pot {
  const [width, depth, tall] =
    form === 'cascade' ? [height * 0.3, height * 0.3, Math.max(height * 0.3, 60 - lowest)] : [height * 0.62, height * 0.46, height * 0.12];
  const holes = [90, 270].map((bearing) => ({ bearing, radius: round(width * 0.258) }));
  return { shape: form === 'cascade' ? 'round' : 'oval', width: round(width), depth: round(depth), height: round(tall), holes };
}

/** A bearing turned off the inside of the trunk's bend, where no branch would have found light. */
function awayFromInside(axis: Limb, at: number, bearing: number): number {
  const total = lengthOf(axis);
  const step = total * 0.08;
  const [below, here, above] = [at - step, at, at + step].map((x) => pointAt(axis, clamp(x, 0, total)).point) as [Vec, Vec, Vec];
  const inward: Vec = [below[0] + above[0] - 2 * here[0], below[1] + above[1] - 2 * here[1], 0];
  if (Math.hypot(inward[0], inward[1]) < 0.02 * step) return bearing;
  const off = turnDeg(bearingAndElevation(inward).bearing, bearing);
  return Math.abs(off) >= OUTSIDE_DEG ? bearing : wrapDeg(bearing - off + (off < 0 ? -OUTSIDE_DEG : OUTSIDE_DEG));
}
const OUTSIDE_DEG = 75;

type Grow = (parent: string, on: Limb, at: number, bearing: number, elevation: number, length: number, d: number, rising: number) => Limb;

function addFaults(faults: readonly Fault[], branches: Branch[], axis: Limb, grow: Grow): void {
  const primaries = branches.filter((b) => b.parent === 'trunk');
  const state = (b: Branch | undefined, to: BranchState): void => {
    if (b) Object.assign(b, { state: to });
  };
  for (const fault of faults) {
    const low = primaries[1] ?? primaries[0]!;
    if (fault === 'bar') grow('trunk', axis, low.at + 3, wrapDeg(low.bearing + 180), low.elevation, low.length * 0.8, Math.max(1.4, low.d * 0.9), 4);
    if (fault === 'whorl') {
      const high = primaries[Math.min(3, primaries.length - 1)]!;
      for (const turn of [110, 230]) grow('trunk', axis, high.at + 2, wrapDeg(high.bearing + turn), high.elevation, high.length * 0.7, high.d * 0.8, 4);
    }
    if (fault === 'dead') for (const b of branches.filter((x) => x === primaries[2] || x.parent === primaries[2]?.id)) state(b, 'dead');
    if (fault === 'blind') state(branches.filter((b) => b.parent !== 'trunk')[4], 'blind');
    if (fault === 'hanging') {
      const first = primaries[0]!;
      const line = limb(
        first.path!.map((p) => add(pointAt(axis, first.at).point, p)),
        first.path!.map(() => first.d * 0.6),
      );
      grow(first.id, line, first.length * 0.5, first.bearing + 15, -72, first.length * 0.25, first.d * 0.4, 0);
    }
  }
}

/** Nine tenths of the green by length, none on dead wood; the rest is the apex's. */
function shareGreen(branches: Branch[]): void {
  const weight = (b: Branch): number => (b.state === 'dead' ? 0 : b.length * (1 - b.bareTo));
  const total = branches.reduce((sum, b) => sum + weight(b), 0);
  for (const b of branches) b.green = Math.round((900 * weight(b)) / total) / 1000;
}

/** A tree with as many branches as asked, for measuring speed. */
export function largeTree(branches: number, seed: number): Tree {
  const secondaries = 4;
  const tree = generateTree({
    seed,
    name: `Test ${branches}`,
    species: 'larch',
    height: 900,
    base: 90,
    primaries: Math.ceil(branches / (secondaries + 1)),
    secondaries,
  });
  return { ...tree, branches: tree.branches.slice(0, branches) };
}
