import { clamp, toDeg, turnDeg, wrapDeg } from '../units/index.js';
import { lengthOf } from '../space/index.js';
import { turnBetween, type Main, type Slope } from './slope.js';

/** Pads one above the other, within so many degrees, are so much of the height apart; for that a branch leaves its slope at most so far. */
const LAYER = { within: 32, apart: 0.12, most: 14 };
/** A pad lies so far out along its branch. */
const PAD_AT = 0.7;
/** What its artist turns by no more stands where it was proposed, degrees; nothing goes out of the way of what comes over it by fewer degrees or so little of the height more than before. */
const AS_BEFORE = { turned: 10, beside: 8, nearer: 0.03 };

/** Main branches as they were laid before their artist moved one: where each was to go, where it came to lie, and above which others it went out of the way. */
export type Layers = ReadonlyMap<string, { aimed: Slope; main: Main; above: ReadonlySet<string> }>;

const padHeight = (m: Main): number => m.line.points[0]![2] + PAD_AT * lengthOf(m.line) * Math.sin((m.target.elevation * Math.PI) / 180);

/** By how much (mm) a pad lies too close above one within so many degrees; not above 0: it does not. */
function tooClose(upper: Main, lower: Main, height: number, within: number): number {
  if (upper.b.branch.green <= 0 || lower.b.branch.green <= 0) return 0;
  if (Math.abs(turnDeg(lower.target.bearing, upper.target.bearing)) > within) return 0;
  return LAYER.apart * height - (padHeight(upper) - padHeight(lower));
}

/** Raises a pad that would lie close above another one, else leads it to the freer side; above which ones. */
function clearOf(upper: Main, lowers: readonly Main[], height: number, names: (id: string) => string): Set<string> {
  const above = new Set<string>();
  for (const lower of lowers) {
    const short = tooClose(upper, lower, height, LAYER.within);
    if (short <= 0) continue;
    above.add(lower.id);
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
  return above;
}

/** Lays pads above one another, from below, and tells how they lie; with how they lay before their artist moved one, only those that he came in the way of, or was in the way of, are laid anew. */
export function layInLayers(mains: readonly Main[], height: number, names: (id: string) => string, before: Layers | null = null): Layers {
  const laid = new Map<string, { aimed: Slope; main: Main; above: ReadonlySet<string> }>();
  const wasOf = (m: Main): Main => before!.get(m.id)!.main;
  const crowded = (upper: Main, lowers: readonly Main[]): number =>
    lowers.reduce((most, lower) => Math.max(most, tooClose(upper, lower, height, LAYER.within - AS_BEFORE.beside)), 0);
  const turned = new Set(
    before ? mains.filter((m) => m.target.from === 'plan' && turnBetween(m.target, wasOf(m).target) > AS_BEFORE.turned).map((m) => m.id) : [],
  );

  const liesAsBefore = (upper: Main, lowers: readonly Main[]): boolean => {
    const { aimed, main, above } = before!.get(upper.id)!;
    if (turnBetween(aimed, upper.target) > 0.01 || [...above].some((id) => turned.has(id))) return false;
    return crowded(main, lowers) <= crowded(main, lowers.map(wasOf)) + AS_BEFORE.nearer * height;
  };

  mains.forEach((upper, i) => {
    const aimed = { bearing: upper.target.bearing, elevation: upper.target.elevation };
    const lowers = mains.slice(0, i);
    let above: ReadonlySet<string> = new Set();
    // What the artist has posed is not moved for another one's sake.
    if (upper.target.from !== 'plan') {
      if (before && liesAsBefore(upper, lowers)) {
        upper.target = wasOf(upper).target;
        above = before.get(upper.id)!.above;
      } else above = clearOf(upper, lowers, height, names);
    }
    laid.set(upper.id, { aimed, main: upper, above });
  });
  return laid;
}
