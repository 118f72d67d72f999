import { clamp, sayDeg, turnDeg, wrapDeg } from '../units/index.js';
import { add, bearingAndElevation, dot, lengthOf, norm, scale, screenAxes, sub, type Limb, type Vec } from '../space/index.js';
import { greenWithChildren, namesOf, slopeProfile, standsAt, stemsOf, type Gap, type PlacedBranch } from '../tree/index.js';
import { layInLayers } from './layers.js';
import { slopeOfLine, turnBetween, type Main, type Slope, type Target } from './slope.js';
import { isMain, type Standing } from './world.js';

/** Degrees beside the viewer's line where the first branch goes: to one side and a little forward. */
const FIRST = { low: 0.12, high: 0.5, from: 58, to: 80, mostTurn: 40 };
/** Farther round than this a branch gives depth; where none does, one that is this far round already is brought there. */
const BACK = { is: 145, nearly: 95, to: 155, low: 0.15, high: 0.85, mostTurn: 55 };
/** Below two thirds of the height nothing points so straight at the viewer. */
const EYE = { within: 20, to: 38, below: 2 / 3 };
/** To a gap a branch turns at most so far, and leaves its slope at most so far; one that its artist posed lies in it when it misses it by less. */
const GAP = { mostTurn: 45, offSlope: 18, near: 10 };

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

/** Holes that the cuts opened are closed by whichever branch reaches them with the least turn, or by one that its artist has led into them. */
function closeGaps(mains: readonly Main[], gaps: readonly Gap[], standing: Standing): Set<Gap> {
  const { front, out } = standing;
  const closed = new Set<Gap>();
  const byId = new Map(mains.map((m) => [m.id, m]));
  // What leads on by the front is not led into a gap.
  const taken = new Set(mains.filter((m) => !['habit', 'curve', 'plan'].includes(m.target.from)).map((m) => m.id));
  for (const gap of gaps.filter((g) => g.opened)) {
    const ways = gap.fills.flatMap((fill) => {
      const m = byId.get(fill.branch);
      if (!m || !fill.reaches || fill.turnDeg > GAP.mostTurn || taken.has(m.id)) return [];
      const way = bearingAndElevation(sub(out(gap.center), m.line.points[0]!));
      // Seen from the front a hole has no depth: the branch keeps its own and is led up, down or across.
      const elevation = clamp(way.elevation, m.target.elevation - GAP.offSlope, m.target.elevation + GAP.offSlope);
      return [{ m, to: { bearing: gap.seen === 'above' ? way.bearing : m.target.bearing, elevation }, because: fill.because }];
    });
    const posed = ways.find(({ m, to }) => m.target.from === 'plan' && turnBetween(m.target, to) < GAP.near);
    const led = ways.find(({ m, to }) => {
      const intoEye = front && m.share < EYE.below && Math.abs(turnDeg(front.bearing, to.bearing)) < EYE.to;
      return m.target.from !== 'plan' && !intoEye && turnBetween(m.target, to) >= 4;
    });
    if (led && !posed)
      led.m.target = { ...led.to, from: 'gap', because: [`It closes the gap seen from ${gap.seen === 'front' ? 'the front' : 'above'}: ${led.because}.`] };
    const by = posed ?? led;
    if (!by) continue;
    taken.add(by.m.id);
    closed.add(gap);
  }
  return closed;
}

export interface Targets {
  of: ReadonlyMap<string, Target>;
  /** Gaps that no main branch closes. */
  left: Gap[];
}

/** Where the living main branches shall go, those of `fixed` as they are given; of the others only those move for them that they come in the way of. docs: Where to. */
export function mainTargets(standing: Standing, lineNow: (id: string) => Limb, fixed: ReadonlyMap<string, Slope>, gaps: readonly Gap[]): Targets {
  const { placed, front } = standing;
  const profile = slopeProfile(placed.tree);
  const stems = stemsOf(placed.tree);
  const green = greenWithChildren(placed.tree);
  const names = namesOf(placed.tree);
  const lines = placed.branches
    .filter((b) => isMain(b, stems) && b.branch.state !== 'dead')
    .map((b) => ({ id: b.branch.id, b, line: lineNow(b.branch.id) }))
    .sort((a, b) => a.line.points[0]![2] - b.line.points[0]![2] || (a.id < b.id ? -1 : 1));

  /** As the tree's form, its front and its gaps have them. */
  function aimed(given: ReadonlyMap<string, Slope>): { mains: Main[]; closed: Set<Gap> } {
    const mains = lines.map((of): Main => {
      const stands = standsAt(placed, of.b, of.line.points[0]![2], standing.height);
      const { share } = stands;
      const own = given.get(of.id);
      const target: Target = own
        ? { bearing: own.bearing, elevation: own.elevation, from: 'plan', because: [sayPlanned(own)] }
        : {
            bearing: slopeOfLine(of.line).bearing,
            elevation: profile.at(share),
            from: profile.kind === 'drawn' ? 'curve' : 'habit',
            because: [profile.because(stands)],
          };
      return { ...of, share, target };
    });
    if (front) leadByFront(mains, front.bearing, green);
    return { mains, closed: closeGaps(mains, gaps, standing) };
  }

  const posed = lines.some(({ id }) => fixed.has(id));
  const { mains, closed } = aimed(fixed);
  layInLayers(mains, standing.height, names, posed ? layInLayers(aimed(new Map()).mains, standing.height, names) : null);
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
