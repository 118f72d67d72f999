import type { PlanDocument, Tree } from '../src/index.js';

/** What a plan's wire must be, worked out from the plan document's description alone, with nothing of what made it. */
type V = readonly [number, number, number];
interface Line {
  id: string;
  points: V[];
  diameters: number[];
}

const minus = (a: V, b: V): V => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const plus = (a: V, b: V, k = 1): V => [a[0] + b[0] * k, a[1] + b[1] * k, a[2] + b[2] * k];
const inner = (a: V, b: V): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const size = (a: V): number => Math.sqrt(inner(a, a));
const outer = (a: V, b: V): V => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];

/** Limbs as the tree file tells them: the trunk, and branches from a third of the limb's thickness off its axis on. */
function linesOf(tree: Tree): Line[] {
  const lines: Line[] = [{ id: 'trunk', points: tree.trunk.map((s): V => [s.x, s.y, s.z]), diameters: tree.trunk.map((s) => s.d) }];
  const at = (line: Line, along: number): { point: V; diameter: number } => {
    let gone = 0;
    for (let i = 0; i + 1 < line.points.length; i++) {
      const way = minus(line.points[i + 1]!, line.points[i]!);
      const t = Math.min(1, (along - gone) / size(way));
      if (t < 1 || i + 2 === line.points.length)
        return { point: plus(line.points[i]!, way, t), diameter: line.diameters[i]! + (line.diameters[i + 1]! - line.diameters[i]!) * t };
      gone += size(way);
    }
    throw new Error('no such place');
  };
  const waiting = [...tree.branches];
  while (waiting.length) {
    const b = waiting.shift()!;
    const parent = lines.find((l) => l.id === b.parent);
    if (!parent) {
      waiting.push(b);
      continue;
    }
    const [bearing, elevation] = [(b.bearing * Math.PI) / 180, (b.elevation * Math.PI) / 180];
    const out: V = [Math.cos(elevation) * Math.sin(bearing), Math.cos(elevation) * Math.cos(bearing), Math.sin(elevation)];
    const on = at(parent, b.at);
    const shoulder = plus(on.point, out, 0.3 * on.diameter);
    const points = b.path?.length ? b.path.map((p) => plus(shoulder, p)) : [shoulder, plus(shoulder, out, b.length)];
    const gone = [0];
    points.slice(1).forEach((p, i) => gone.push(gone[i]! + size(minus(p, points[i]!))));
    lines.push({ id: b.id, points, diameters: gone.map((g) => b.d + ((b.tipD - b.d) * g) / gone[gone.length - 1]!) });
  }
  return lines;
}

/** How far a point is from a segment, and how far along it the foot of the perpendicular is. */
function foot(p: V, a: V, b: V): { away: number; t: number; off: V } {
  const way = minus(b, a);
  const t = Math.min(1, Math.max(0, inner(minus(p, a), way) / inner(way, way)));
  const off = minus(p, plus(a, way, t));
  return { away: size(off), t, off };
}

/** Height of a point over a limb's bark, and the limb's direction and the way out there. */
function over(p: V, line: Line): { lift: number; off: V; way: V } {
  let best = { lift: Infinity, off: [0, 0, 0] as V, way: [0, 0, 1] as V };
  for (let i = 0; i + 1 < line.points.length; i++) {
    const { away, t, off } = foot(p, line.points[i]!, line.points[i + 1]!);
    const lift = away - (line.diameters[i]! + (line.diameters[i + 1]! - line.diameters[i]!) * t) / 2;
    if (lift < best.lift) best = { lift, off, way: minus(line.points[i + 1]!, line.points[i]!) };
  }
  return best;
}

/** Least and greatest of some points in each direction. */
type Box = readonly [low: V, high: V];
const boxOf = (points: readonly V[]): Box => {
  const every = (pick: (...of: number[]) => number): V => [0, 1, 2].map((k) => points.reduce((best, p) => pick(best, p[k]!), points[0]![k]!)) as unknown as V;
  return [every(Math.min), every(Math.max)];
};
/** Two things whose boxes are farther apart than this do not touch. */
const apart = (a: Box, b: Box, by: number): boolean => [0, 1, 2].some((k) => a[0][k]! - b[1][k]! > by || b[0][k]! - a[1][k]! > by);
const nearer = (a: V, b: V, than: number): boolean => (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2 < than * than;

/** mm by which a wire may be drawn tight into another one or into bark. */
const GIVES = 0.3;

/** All faults of the wire of a plan with paths, each in a sentence; none where it is sound. `tree` as the plan's cuts leave it. */
export function wireFaults(tree: Tree, plan: Pick<PlanDocument, 'runs' | 'order'>): string[] {
  const faults: string[] = [];
  const lines = linesOf(tree);
  const byId = new Map(lines.map((l) => [l.id, l]));
  const woodBox = new Map(lines.map((l) => [l.id, boxOf(l.points)]));
  const wireBox = new Map(plan.runs.map((r) => [r.id, boxOf(r.path!)]));
  const parentOf = new Map(tree.branches.map((b) => [b.id, b.parent]));
  const seen = new Map<string, string>();
  for (const run of plan.runs) {
    const fault = (what: string): number => faults.push(`${run.id} (${run.branches.map((b) => b.branch).join('+')}): ${what}`);
    const path = run.path!;
    const gone = [0];
    path.slice(1).forEach((p, i) => {
      const step = size(minus(p, path[i]!));
      if (step > 4.05) fault(`points ${step.toFixed(2)} mm apart`);
      gone.push(gone[i]! + step);
    });
    const whole = gone[gone.length - 1]!;
    const soil = run.anchor?.soil ?? 0;
    if (Math.abs((whole + soil + 20 * run.size) * 1.05 - run.length) > 0.02 * run.length + 2)
      fault(`said to be ${run.length} mm, is ${whole.toFixed(0)} and its loops`);
    for (const { branch } of run.branches) {
      if (seen.has(branch)) fault(`${branch} is wired by ${seen.get(branch)} already`);
      seen.set(branch, run.id);
    }
    // What grows on another branch of its piece is wired on from that one's coil, which comes next to it.
    const isOn = (part: { branch: string }): boolean => run.branches.some((b) => b.branch === parentOf.get(part.branch));
    const ends = run.branches.filter((b) => !isOn(b));
    run.branches.forEach((part, i) => {
      if (!isOn(part)) return;
      const carrier = [run.branches[i - 1], run.branches[i + 1]].find((b) => b?.branch === parentOf.get(part.branch));
      if (!carrier) fault(`${part.branch} does not come next to what it grows on`);
      else if (Math.min(Math.abs(part.from - carrier.to), Math.abs(carrier.from - part.to)) > 45 + 4 * run.size)
        fault(`leaves the bark on its way on to ${part.branch}`);
    });
    if ((run.kind === 'pair') !== (ends.length === 2)) fault(`a ${run.kind} with ${ends.length} branches`);
    const heads = ends.length === 2 ? run.branches.indexOf(ends[0]!) + 1 : Number(run.branches.length === 1 && ends[0]!.from < 0.1 && ends[0]!.to < whole - 1);
    if (run.kind === 'pair') {
      const [a, b] = ends.map((x) => parentOf.get(x.branch));
      if (a !== b) fault('its branches grow on different limbs');
      if (run.route!.turnDeg < 143 || run.route!.turnDeg > 960) fault(`goes round by ${run.route!.turnDeg}°`);
    } else if (run.kind === 'trunk') {
      if (soil < 0.5 * tree.pot.height || soil > tree.pot.height) fault(`is pushed ${soil} mm into a pot of ${tree.pot.height} mm`);
      if (path[0]![2] > 15) fault('does not come out of the soil');
    } else if ((run.anchor?.turns ?? 0) < 0.95) fault(`is anchored by ${run.anchor?.turns} turns`);
    run.branches.forEach((part, index) => {
      const line = byId.get(part.branch)!;
      const own = path.filter((_, i) => gone[i]! >= part.from - 0.05 && gone[i]! <= part.to + 0.05);
      // Wound from the shoulder outwards: a first half is told from its tip.
      const outwards = index < heads ? [...own].reverse() : own;
      let turned = 0;
      outwards.forEach((p, i) => {
        const here = over(p, line);
        if (Math.abs(here.lift - run.size / 2) > 0.35) fault(`lies ${here.lift.toFixed(2)} mm over ${part.branch}, not ${(run.size / 2).toFixed(2)}`);
        const before = i ? over(outwards[i - 1]!, line) : here;
        turned += Math.atan2(inner(here.way, outer(before.off, here.off)) / size(here.way), inner(before.off, here.off));
      });
      if (turned > 0 !== (part.hand === 'cw')) fault(`winds ${(turned / 2 / Math.PI).toFixed(1)} turns on ${part.branch}, said to be ${part.hand}`);
      if (Math.abs(Math.abs(turned) / 2 / Math.PI - part.turns) > 0.6)
        fault(`has ${(Math.abs(turned) / 2 / Math.PI).toFixed(1)} turns on ${part.branch}, said to be ${part.turns}`);
    });
    for (const line of lines) {
      if (apart(woodBox.get(line.id)!, wireBox.get(run.id)!, Math.max(...line.diameters) / 2 + run.size)) continue;
      const deepest = Math.min(...path.map((p) => over(p, line).lift));
      if (deepest < run.size / 2 - GIVES) fault(`is ${(run.size / 2 - deepest).toFixed(2)} mm in the wood of ${line.id}`);
    }
  }
  plan.runs.forEach((a, i) =>
    plan.runs.slice(i + 1).forEach((b) => {
      const need = (a.size * a.strands + b.size * b.strands) / 2;
      if (apart(wireBox.get(a.id)!, wireBox.get(b.id)!, need)) return;
      const near = a.path!.some((p) => b.path!.some((q, k) => k > 0 && nearer(p, q, need + 5) && foot(p, b.path![k - 1]!, q).away < need - GIVES));
      if (near) faults.push(`${a.id} (${a.branches.map((x) => x.branch).join('+')}) crosses ${b.id} (${b.branches.map((x) => x.branch).join('+')})`);
    }),
  );
  if (plan.order.join() !== plan.runs.map((r) => r.id).join()) faults.push('the order is not that of its pieces');
  plan.runs.forEach((run, i) => {
    const before = plan.runs[i - 1];
    if (before && (before.order > run.order || (before.order === run.order && before.size < run.size - 1e-9))) faults.push(`${run.id} comes too late`);
    if (run.anchor?.run && plan.order.indexOf(run.anchor.run) > i) faults.push(`${run.id} is anchored on a piece that goes on later`);
  });
  return faults;
}
