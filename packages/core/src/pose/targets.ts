import { clamp, sayDeg, toDeg, turnDeg, wrapDeg } from '../units/index.js';
import { add, angleBetween, bearingAndElevation, direction, dot, lengthOf, norm, scale, screenAxes, sub, type Limb, type Vec } from '../space/index.js';
import { greenWithChildren, namesOf, slopeProfile, stemsOf, type Gap, type PlacedBranch, type PoseSource } from '../tree/index.js';
import { isMain, type Standing } from './world.js';

export interface Slope {
  bearing: number;
  elevation: number;
}

/** Where a branch shall go, and why. */
export interface Target extends Slope {
  from: PoseSource;
  because: string[];
}

/** From shoulder to tip. */
export const slopeOfLine = ({ points }: Limb): Slope => bearingAndElevation(sub(points[points.length - 1]!, points[0]!));

export const turnBetween = (a: Slope, b: Slope): number =>
  toDeg(angleBetween(direction({ bearingDeg: a.bearing, elevationDeg: a.elevation }), direction({ bearingDeg: b.bearing, elevationDeg: b.elevation })));

/** Degrees beside the viewer's line where the first branch goes: to one side and a little forward. */
const FIRST = { low: 0.12, high: 0.5, from: 58, to: 80, mostTurn: 40 };
/** Farther round than this a branch gives depth; where none does, one that is this far round already is brought there. */
const BACK = { is: 145, nearly: 95, to: 155, low: 0.15, high: 0.85, mostTurn: 55 };
/** Below two thirds of the height nothing points so straight at the viewer. */
const EYE = { within: 20, to: 38, below: 2 / 3 };
/** To a gap a branch turns at most so far, and leaves its slope at most so far. */
const GAP = { mostTurn: 45, offSlope: 18 };
/** Pads one above the other, within so many degrees, are so much of the height apart; for that a branch leaves its slope at most so far. */
const LAYER = { within: 32, apart: 0.12, most: 14 };
/** A pad lies so far out along its branch. */
const PAD_AT = 0.7;

interface Main {
  id: string;
  b: PlacedBranch;
  line: Limb;
  /** Share of the height where it leaves. */
  share: number;
  target: Target;
}

export const sayPlanned = ({ elevation }: Slope): string => `The plan has it at ${sayDeg(elevation)}.`;

/** Turns a bearing to lie so far from the front, on the side where it is. */
const asideOf = (front: number, bearing: number, off: number): number => wrapDeg(front + Math.sign(turnDeg(front, bearing) || 1) * off);

/** The first branch to one side and a little forward; one behind, for depth; none into the viewer's eye. */
function leadByFront(mains: readonly Main[], front: number, green: ReadonlyMap<string, number>): void {
  const offOf = (m: Main): number => Math.abs(turnDeg(front, m.target.bearing));
  const leafy = mains.filter((m) => green.get(m.id)! > 0.005);
  const first = leafy.find((m) => m.share > FIRST.low && m.share < FIRST.high && offOf(m) > 30 && offOf(m) < 120);
  if (first && first.target.from !== 'plan') {
    const off = offOf(first);
    const wanted = clamp(off, FIRST.from, FIRST.to);
    if (Math.abs(wanted - off) > 3 && Math.abs(wanted - off) < FIRST.mostTurn) {
      first.target.bearing = asideOf(front, first.target.bearing, wanted);
      const by = Math.abs(wanted - off).toFixed(0);
      first.target.because.unshift(
        wanted < off
          ? `The first branch comes a little forward, so that the tree takes the viewer in: turned ${by}°.`
          : `The first branch comes too far forward: led ${by}° to its side.`,
      );
    } else first.target.because.unshift('The first branch; it comes to the side and a little forward as it grows.');
    first.target.from = 'first';
  }
  const behind = leafy.filter((m) => m !== first && m.share > BACK.low && m.share < BACK.high);
  if (behind.length && !behind.some((m) => offOf(m) >= BACK.is)) {
    const [nearest] = behind.filter((m) => m.target.from !== 'plan').sort((a, b) => offOf(b) - offOf(a));
    if (nearest && offOf(nearest) >= BACK.nearly && BACK.to - offOf(nearest) <= BACK.mostTurn) {
      nearest.target.because.unshift(`Nothing stands behind: led ${(BACK.to - offOf(nearest)).toFixed(0)}° back for depth.`);
      nearest.target.bearing = asideOf(front, nearest.target.bearing, BACK.to);
      nearest.target.from = 'back';
    }
  }
  for (const m of mains) {
    if (m.target.from === 'plan' || m.share >= EYE.below || offOf(m) >= EYE.within || lengthOf(m.line) < 40) continue;
    m.target.bearing = asideOf(front, m.target.bearing, EYE.to);
    m.target.from = 'eye';
    m.target.because.unshift('It points at the viewer: led aside.');
  }
}

/** Holes that the cuts opened are closed by whichever branch reaches them with the least turn. */
function closeGaps(mains: readonly Main[], gaps: readonly Gap[], standing: Standing): Set<Gap> {
  const { front, out } = standing;
  const closed = new Set<Gap>();
  const taken = new Set(mains.filter((m) => m.target.from !== 'habit' && m.target.from !== 'curve').map((m) => m.id));
  for (const gap of gaps.filter((g) => g.opened)) {
    for (const fill of gap.fills.filter((f) => f.reaches && f.turnDeg <= GAP.mostTurn && !taken.has(f.branch))) {
      const m = mains.find((x) => x.id === fill.branch);
      if (!m) continue;
      const way = bearingAndElevation(sub(out(gap.center), m.line.points[0]!));
      // Seen from the front a hole has no depth: the branch keeps its own and is led up, down or across.
      const slope = clamp(way.elevation, m.target.elevation - GAP.offSlope, m.target.elevation + GAP.offSlope);
      const bearing = gap.seen === 'above' ? way.bearing : m.target.bearing;
      if (front && m.share < EYE.below && Math.abs(turnDeg(front.bearing, bearing)) < EYE.to) continue;
      if (turnBetween(m.target, { bearing, elevation: slope }) < 4) continue;
      m.target = {
        bearing,
        elevation: slope,
        from: 'gap',
        because: [`It closes the gap seen from ${gap.seen === 'front' ? 'the front' : 'above'}: ${fill.because}.`],
      };
      taken.add(m.id);
      closed.add(gap);
      break;
    }
  }
  return closed;
}

const padHeight = (m: Main): number => m.line.points[0]![2] + PAD_AT * lengthOf(m.line) * Math.sin((m.target.elevation * Math.PI) / 180);

/** From below: where a pad would lie close above another one, it is raised, else led to the freer side. */
function layOut(mains: readonly Main[], height: number, names: (id: string) => string): void {
  mains.forEach((upper, i) => {
    // What the artist has posed is not moved for another one's sake.
    if (upper.target.from === 'plan') return;
    for (const lower of mains.slice(0, i)) {
      if (Math.abs(turnDeg(lower.target.bearing, upper.target.bearing)) > LAYER.within) continue;
      const short = LAYER.apart * height - (padHeight(upper) - padHeight(lower));
      if (short <= 0 || upper.b.branch.green <= 0 || lower.b.branch.green <= 0) continue;
      const before = upper.target.elevation;
      const arm = PAD_AT * lengthOf(upper.line);
      const wanted = toDeg(Math.asin(clamp(Math.sin((before * Math.PI) / 180) + short / arm, -0.95, 0.95)));
      const raised = Math.min(wanted, before + LAYER.most);
      upper.target.elevation = raised;
      if (raised - before > 2) {
        upper.target.because.push(`Raised ${(raised - before).toFixed(0)}°, so that light reaches ${names(lower.id)} below it.`);
        if (upper.target.from === 'habit' || upper.target.from === 'curve') upper.target.from = 'layer';
      }
      if (raised >= wanted - 0.5) continue;
      const turn = turnDeg(lower.target.bearing, upper.target.bearing);
      const by = Math.min(25, LAYER.within + 3 - Math.abs(turn));
      upper.target.bearing = wrapDeg(upper.target.bearing + (turn < 0 ? -by : by));
      upper.target.because.push(`Led ${by.toFixed(0)}° aside from above ${names(lower.id)}.`);
    }
  });
}

export interface Targets {
  of: ReadonlyMap<string, Target>;
  /** Gaps that no main branch closes. */
  left: Gap[];
}

/** Where the living main branches shall go, those of `fixed` as they are given. docs: Where to. */
export function mainTargets(standing: Standing, lineNow: (id: string) => Limb, fixed: ReadonlyMap<string, Slope>, gaps: readonly Gap[]): Targets {
  const { placed, front } = standing;
  const profile = slopeProfile(placed.tree);
  const stems = stemsOf(placed.tree);
  const mains = placed.branches
    .filter((b) => isMain(b, stems) && b.branch.state !== 'dead')
    .map((b): Main => {
      const line = lineNow(b.branch.id);
      const share = line.points[0]![2] / standing.height;
      const own = fixed.get(b.branch.id);
      const { bearing } = own ?? slopeOfLine(line);
      const target: Target = own
        ? { bearing, elevation: own.elevation, from: 'plan', because: [sayPlanned(own)] }
        : { bearing, elevation: profile.at(share), from: profile.kind === 'drawn' ? 'curve' : 'habit', because: [profile.because(share)] };
      return { id: b.branch.id, b, line, share, target };
    })
    .sort((a, b) => a.line.points[0]![2] - b.line.points[0]![2] || (a.id < b.id ? -1 : 1));
  const open = mains.filter((m) => m.target.from !== 'plan');
  if (front) leadByFront(mains, front.bearing, greenWithChildren(placed.tree));
  const closed = closeGaps(open, gaps, standing);
  const names = namesOf(placed.tree);
  layOut(mains, standing.height, names);
  return { of: new Map(mains.map((m) => [m.id, m.target])), left: gaps.filter((g) => g.opened && !closed.has(g)) };
}

/** Side shoots lie flat to both sides: so many degrees from their branch, fewer the farther out; their tips a little up. */
const FAN = { inner: 58, outer: 38, rise: 6, upright: 55 };
/** A side shoot is turned to a hole at most so far. */
const TO_HOLE_DEG = 28;

/** For each gap that is left the shoot whose tip is nearest to it, where it is near enough; seen from the front a gap lies at the tip's own depth, from above at its height. */
export function nearestToGaps(standing: Standing, shoots: readonly { id: string; line: Limb }[], gaps: readonly Gap[]): Map<string, { gap: Gap; center: Vec }> {
  const toward = screenAxes(standing.front?.bearing ?? 0).toward;
  const found = new Map<string, { gap: Gap; center: Vec }>();
  for (const gap of gaps) {
    const middle = standing.out(gap.center);
    const centerFor = ({ points }: Limb): Vec => {
      const off = sub(points[points.length - 1]!, middle);
      return gap.seen === 'above' ? [middle[0], middle[1], middle[2] + off[2]] : add(middle, scale(toward, dot(off, toward)));
    };
    const away = (line: Limb): number => norm(sub(centerFor(line), line.points[line.points.length - 1]!));
    const near = shoots.filter(({ id, line }) => !found.has(id) && away(line) < gap.radius + 0.5 * lengthOf(line));
    const [nearest] = near.sort((a, b) => away(a.line) - away(b.line));
    if (nearest) found.set(nearest.id, { gap, center: centerFor(nearest.line) });
  }
  return found;
}

/** Where the side shoots of a bent branch shall go: fanned flat to both sides, one nearest a hole turned into it. */
export function fanTargets(
  parent: { way: Vec; length: number },
  shoots: readonly { b: PlacedBranch; line: Limb }[],
  holes: ReadonlyMap<string, { gap: Gap; center: Vec }>,
): Map<string, Target> {
  const targets = new Map<string, Target>();
  // From the branch's straight way, not from each of its turns: so neighbours part.
  const along = bearingAndElevation(parent.way);
  let [left, right] = [0, 0];
  for (const { b, line } of [...shoots].sort((x, y) => x.b.branch.at - y.b.branch.at || (x.b.branch.id < y.b.branch.id ? -1 : 1))) {
    const now = slopeOfLine(line);
    const off = turnDeg(along.bearing, now.bearing);
    // One that stands straight up, hangs, or grows in its branch's own line goes to the side that has fewer.
    const unclear = Math.abs(now.elevation) > FAN.upright || Math.abs(off) < 12 || Math.abs(off) > 160;
    const side = unclear ? (left < right ? -1 : right < left ? 1 : off < 0 ? -1 : 1) : Math.sign(off);
    if (side < 0) left++;
    else right++;
    const share = clamp(b.branch.at / parent.length, 0, 1);
    const fan = FAN.inner + (FAN.outer - FAN.inner) * share;
    const target: Target = {
      bearing: wrapDeg(along.bearing + side * fan),
      elevation: clamp(along.elevation * 0.5 + FAN.rise, -25, 35),
      from: 'fan',
      because: [`Fanned flat to the ${side < 0 ? 'left' : 'right'} of its branch, ${fan.toFixed(0)}° from it.`],
    };
    const hole = holes.get(b.branch.id);
    if (hole) {
      const way = bearingAndElevation(sub(hole.center, line.points[0]!));
      const turn = clamp(turnDeg(target.bearing, way.bearing), -TO_HOLE_DEG, TO_HOLE_DEG);
      // Not across its own branch.
      if (side * turnDeg(along.bearing, target.bearing + turn) > 15 && Math.abs(turn) > 4) {
        target.bearing = wrapDeg(target.bearing + turn);
        target.because.push(`Turned ${Math.abs(turn).toFixed(0)}° into the gap seen from ${hole.gap.seen === 'front' ? 'the front' : 'above'}.`);
        target.from = 'gap';
      }
    }
    targets.set(b.branch.id, target);
  }
  return targets;
}
