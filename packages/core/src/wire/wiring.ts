import { turnDeg } from '../units/index.js';
import { lengthOf } from '../space/index.js';
import { speciesOf, woodOf } from '../species/index.js';
import { gaugeOf, GRIP, gripOf, HEFT, METAL_DATA, ruleOfThumb, type MetalName } from '../wood/index.js';
import { slope, type PlacedBranch, type PlacedTree, type PlannedBend, type PlannedPose, type Run } from '../tree/index.js';
import { chooseWire, COIL_ANGLE, sayChoice, spreadOf, tryWire, USUAL_PAST, type BendToHold, type WireChoice, type WireToTry } from './choose.js';
import { coil } from './coil.js';
import { WOUND_SHARE } from './helix.js';

export interface RunBranchPlan {
  branch: string;
  hand: 'cw' | 'ccw';
  start: 'over' | 'under';
  turns: number;
  hold: number;
  springBack: number;
  /** Push test and overbend, as the choice rests on them. */
  firmness: { pushChance: number; overbend: number };
  phaseMissDeg: number | null;
  rule: { aluminium: number; copper: number };
  /** Angle to bend to by hand, the one it settles at under the wire, the target, and the length of the bend; degrees, mm. */
  bendTo: number;
  settles: number;
  target: number;
  bendLength: number;
  /** The same of every bend of its pose, from the shoulder. */
  bends: { bendTo: number; settles: number; spread: number }[];
  because: string[];
}

export interface RunPlan {
  id: string;
  metal: MetalName;
  size: number;
  gauge: number | null;
  strands: number;
  angle: number;
  length: number;
  mass: number;
  order: number;
  route: string | null;
  branches: RunBranchPlan[];
}

export interface WiringPlan {
  runs: RunPlan[];
  unwired: { branch: string; because: string[] }[];
}

/** Moment of a branch's weight about its shoulder, N·mm: a tapered cylinder whose leaves weigh half as much again. */
export function weightMoment(b: PlacedBranch): number {
  const { d, tipD } = b.branch;
  const length = lengthOf(b.line);
  const volume = (Math.PI / 12) * length * (d * d + d * tipD + tipD * tipD);
  const tip = b.line.points[b.line.points.length - 1]!;
  const base = b.line.points[0]!;
  const lever = 0.45 * Math.hypot(tip[0] - base[0], tip[1] - base[1]);
  return volume * HEFT * lever;
}

function bendToHold(placed: PlacedTree, b: PlacedBranch, bend: PlannedBend): BendToHold {
  const species = speciesOf(placed.tree.species);
  const raising = bend.at <= b.branch.d && bend.toward.elevation > slope(b).elevation + 3;
  return {
    diameter: bend.diameter,
    angleDeg: bend.angle,
    length: bend.length,
    wood: woodOf(species),
    k0: species.bendRatio.value,
    protection: bend.protection,
    weightMoment: raising ? weightMoment(b) : 0,
  };
}

type Bends = readonly [BendToHold, ...BendToHold[]];

/** The bends of a branch that its wire has to hold, from the shoulder; one that lies as it should has the smallest worth the name. */
function bendsToHold(placed: PlacedTree, b: PlacedBranch, pose: PlannedPose | undefined): Bends {
  const [first = stillBend(b), ...others] = pose?.bends ?? [];
  return [bendToHold(placed, b, first), ...others.map((bend) => bendToHold(placed, b, bend))];
}

/** Metal by tree: copper for conifers' structure, aluminium for the rest and for soft shoots. */
function metalFor(placed: PlacedTree, b: PlacedBranch): MetalName {
  return speciesOf(placed.tree.species).group.includes('conifer') && b.branch.stage === 'wood' && b.order <= 2 ? 'copper' : 'aluminium';
}

/** Hand and start that tighten the coil as the branch is bent: left counter-clockwise, right clockwise; over to lower, under to raise. */
function windFor({ now, bearing, elevation }: PlannedPose): { hand: 'cw' | 'ccw'; start: 'over' | 'under' } {
  const turn = turnDeg(now.bearing, bearing);
  // Bearings run clockwise from above, so a falling bearing brings the tip to the left as seen from the parent.
  return { hand: turn < -2 ? 'ccw' : 'cw', start: elevation < now.elevation ? 'over' : 'under' };
}

/** Loops at both ends, and a twentieth for the hands. */
const runLength = (coils: number, size: number): number => (coils + 2 * 10 * size) * 1.05;

function asRun(
  id: string,
  order: number,
  wire: { metal: MetalName; size: number; strands: number; angle: number },
  parts: { plan: RunBranchPlan; wireLength: number }[],
): RunPlan {
  const length = runLength(
    parts.reduce((sum, p) => sum + p.wireLength, 0),
    wire.size,
  );
  const volume = (Math.PI / 4) * wire.size ** 2 * length * wire.strands;
  return {
    id,
    ...wire,
    gauge: wire.metal === 'copper' ? gaugeOf(wire.size) : null,
    length,
    mass: (volume * METAL_DATA[wire.metal].density) / 1000,
    order,
    route: null,
    branches: parts.map((p) => p.plan),
  };
}

function branchPart(
  b: PlacedBranch,
  [bend, ...others]: Bends,
  choice: WireChoice,
  past: number,
  angle: number,
  wind: { hand: 'cw' | 'ccw'; start: 'over' | 'under' },
): { plan: RunBranchPlan; wireLength: number } {
  const { d, tipD } = b.branch;
  const wound = coil({
    baseDiameter: d,
    tipDiameter: d + (tipD - d) * WOUND_SHARE,
    length: lengthOf(b.line) * WOUND_SHARE,
    wireDiameter: choice.size,
    coilAngleDeg: angle,
  });
  return {
    wireLength: wound.wireLength,
    plan: {
      branch: b.branch.id,
      ...wind,
      turns: wound.turns,
      hold: choice.hold,
      springBack: choice.springBack,
      firmness: { pushChance: choice.pushChance, overbend: choice.overbend },
      phaseMissDeg: null,
      rule: ruleOfThumb(d),
      bendTo: choice.bendToDeg,
      settles: choice.settlesDeg,
      target: bend.angleDeg,
      bendLength: bend.length,
      bends: [
        { bendTo: choice.bendToDeg, settles: choice.settlesDeg, spread: spreadOf(bend, choice) },
        ...others.map((other) => {
          const tried = tryWire(other, { ...choice, coilAngleDeg: angle, grip: GRIP.snug }, past);
          return { bendTo: tried.bendToDeg, settles: tried.settlesDeg, spread: spreadOf(other, tried) };
        }),
      ],
      because: sayChoice(bend, choice),
    },
  };
}

/** A run that the plan fixes: checked and kept as it is. */
function fixedRun(placed: PlacedTree, run: Run, poses: ReadonlyMap<string, PlannedPose>, order: number): RunPlan {
  const parts = run.branches.map((own) => {
    const b = placed.byId.get(own.branch)!;
    const bends = bendsToHold(placed, b, poses.get(own.branch));
    const choice = tryWire(bends[0], { metal: run.metal, size: run.size, strands: run.strands, coilAngleDeg: run.angle, grip: gripOf(0) });
    return branchPart(b, bends, choice, USUAL_PAST, run.angle, { hand: own.hand, start: own.start });
  });
  return asRun(run.id, order, { metal: run.metal, size: run.size, strands: run.strands, angle: run.angle }, parts);
}

/** A coil on a branch that already lies where it should: it holds the smallest bend worth the name. */
function stillBend(b: PlacedBranch): PlannedBend {
  const length = lengthOf(b.line) / 2;
  const radius = length / 0.01745;
  const strain = b.branch.d / (2 * radius);
  return {
    kind: 'movement',
    at: 0,
    length,
    angle: 1,
    toward: slope(b),
    start: slope(b),
    diameter: b.branch.d,
    radius,
    strain,
    risk: 0,
    band: 'calm',
    stages: 1,
    protection: 'none',
    nearest: null,
  };
}

/** How far past its target a bend is left under a wire: chosen by the window that it opens for taking the wire off. */
export type PastOf = (branch: string, bend: BendToHold, wire: WireToTry) => number;

/** Which branches shall move, and why the others stay as they grow. */
export interface PosedBranches {
  poses: readonly PlannedPose[];
  asGrown: readonly { branch: string; because: string[] }[];
}

/** One piece of wire for each branch that must move; what the plan fixes is kept. Thick before thin within an order, from below. */
export function planWiring(placed: PlacedTree, { poses, asGrown }: PosedBranches, pastOf: PastOf = () => USUAL_PAST): WiringPlan {
  const poseOf = new Map(poses.map((p) => [p.branch, p]));
  const stays = new Map(asGrown.map((b) => [b.branch, b.because]));
  const fixed = placed.tree.plan.runs.map((run) => fixedRun(placed, run, poseOf, Math.min(...run.branches.map((b) => placed.byId.get(b.branch)!.order))));
  const wired = new Set(placed.tree.plan.runs.flatMap((r) => r.branches.map((b) => b.branch)));
  const used = new Set(placed.tree.plan.runs.map((r) => r.id));
  const unwired: WiringPlan['unwired'] = [];
  const proposed: { b: PlacedBranch; bends: Bends; choice: WireChoice; past: number; pose: PlannedPose }[] = [];

  for (const b of placed.branches) {
    const { id } = b.branch;
    if (wired.has(id)) continue;
    const pose = poseOf.get(id);
    if (b.branch.state === 'dead') unwired.push({ branch: id, because: ['Dead wood is not wired.'] });
    else if (b.branch.state === 'weak') unwired.push({ branch: id, because: ['Weak: let it grow stronger first.'] });
    else if (!pose) unwired.push({ branch: id, because: stays.get(id) ?? [] });
    else {
      const bends = bendsToHold(placed, b, pose);
      const [bend, ...others] = bends;
      const chosen = chooseWire(bend, metalFor(placed, b), placed.tree.plan.firmness, undefined, others);
      const wire = chosen && { metal: chosen.metal, size: chosen.size, strands: chosen.strands, coilAngleDeg: COIL_ANGLE, grip: GRIP.snug };
      const past = wire ? pastOf(id, bend, wire) : USUAL_PAST;
      const choice = wire && tryWire(bend, wire, past);
      if (choice && choice.risk <= 1.6) proposed.push({ b, bends, choice, past, pose });
      else
        unwired.push({
          branch: id,
          because: [
            ...sayChoice(bend, null).slice(0, 1),
            ...(choice ? ['The bend by hand is more than the wood takes in one season: choose another plan, or a technique such as a wedge cut.'] : []),
          ].slice(choice ? 1 : 0),
        });
    }
  }
  proposed.sort(
    (x, y) =>
      x.b.order - y.b.order || y.choice.size - x.choice.size || x.b.line.points[0]![2] - y.b.line.points[0]![2] || (x.b.branch.id < y.b.branch.id ? -1 : 1),
  );
  let next = 1;
  const newId = (): string => {
    while (used.has(`w${next}`)) next++;
    used.add(`w${next}`);
    return `w${next}`;
  };
  const runs = proposed.map(({ b, bends, choice, past, pose }) =>
    asRun(newId(), b.order, { metal: choice.metal, size: choice.size, strands: choice.strands, angle: COIL_ANGLE }, [
      branchPart(b, bends, choice, past, COIL_ANGLE, windFor(pose)),
    ]),
  );
  return { runs: [...fixed, ...runs], unwired };
}
