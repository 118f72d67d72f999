import { greatestOf, clamp, toDeg, toRad, turnDeg, wrapDeg } from '../units/index.js';
import { lengthOf } from '../space/index.js';
import { turnBetween, type Main, type Slope, type Target } from './slope.js';

/** Pads one above the other, within so many degrees, are so much of the height apart; for that a branch is raised at most so far, and led aside at most so far, in such steps. */
const LAYER = { within: 32, apart: 0.12, raised: 14, aside: 25, step: 5 };
/** A pad lies so far out along its branch. */
const PAD_AT = 0.7;
/** What is this little too close is not, mm. */
const TINY = 1e-6;
/** So much of the height too close is said. */
const CLOSE = 0.03;
/** What its artist turns by no more stands where it was proposed, degrees; nothing goes out of the way of what comes under it by fewer degrees, or by so little of the height more than before. */
const AS_BEFORE = { turned: 10, beside: 8, nearer: 0.03 };

interface Lying {
  aimed: Slope;
  main: Main;
  /** Above which others it went out of the way. */
  above: ReadonlySet<string>;
}

/** Main branches with where each was to go, and where it came to lie. */
export type Layers = ReadonlyMap<string, Lying>;

const armOf = (m: Main): number => PAD_AT * lengthOf(m.line);
const padHeight = (m: Main, { elevation }: Slope): number => m.line.points[0]![2] + armOf(m) * Math.sin(toRad(elevation));

/** By how much (mm) a pad would lie too close above another one that is within so many degrees; not above 0: it would not. */
function tooClose(upper: Main, at: Slope, lower: Main, height: number, within = LAYER.within): number {
  if (upper.b.branch.green <= 0 || lower.b.branch.green <= 0) return 0;
  if (Math.abs(turnDeg(lower.target.bearing, at.bearing)) > within) return 0;
  return LAYER.apart * height - (padHeight(upper, at) - padHeight(lower, lower.target));
}

/** Of lower ones the one that a pad would lie the most too close above. */
function closest(upper: Main, at: Slope, lowers: readonly Main[], height: number): { lower: Main | null; by: number } {
  let most: { lower: Main | null; by: number } = { lower: null, by: 0 };
  for (const lower of lowers) {
    const by = tooClose(upper, at, lower, height);
    if (by > most.by) most = { lower, by };
  }
  return most;
}

/** How far a pad has to be raised at a bearing to be clear of what lies beneath, as far as it may be. */
function raisedAt(upper: Main, at: Slope, lowers: readonly Main[], height: number): Slope {
  const { by } = closest(upper, at, lowers, height);
  if (by <= 0) return at;
  const wanted = toDeg(Math.asin(clamp(Math.sin(toRad(at.elevation)) + by / armOf(upper), -0.95, 0.95)));
  return { bearing: at.bearing, elevation: Math.max(at.elevation, Math.min(wanted, at.elevation + LAYER.raised)) };
}

/** How far to the side of another one a way leads, degrees. */
const asideOf = ({ bearing }: Slope, lower: Main | null): number => (lower ? Math.abs(turnDeg(lower.target.bearing, bearing)) : 180);

/** Raises a pad that would lie close above others; where that is not enough, leads it aside to where it lies the clearest. */
function clearOf(upper: Main, lowers: readonly Main[], height: number, names: (id: string) => string): Target {
  const aimed = upper.target;
  const first = closest(upper, aimed, lowers, height);
  if (!first.lower) return aimed;
  const away = turnDeg(first.lower.target.bearing, aimed.bearing) < 0 ? -1 : 1;
  let best = { off: 0, at: raisedAt(upper, aimed, lowers, height) };
  let left = closest(upper, best.at, lowers, height);
  const beneath = left.lower;
  for (let off = LAYER.step; off <= LAYER.aside && left.by > TINY; off += LAYER.step)
    for (const side of [away, -away]) {
      const at = raisedAt(upper, { bearing: wrapDeg(aimed.bearing + side * off), elevation: aimed.elevation }, lowers, height);
      const close = closest(upper, at, lowers, height);
      // No clearer, but farther from right above it, is better too.
      const farther = close.by < left.by + TINY && asideOf(at, close.lower) > asideOf(best.at, left.lower);
      if (close.by < left.by - TINY || farther) [best, left] = [{ off, at }, close];
    }
  const raised = best.at.elevation - aimed.elevation;
  const because = [...aimed.because];
  if (raised > 2) because.push(`Raised ${raised.toFixed(0)}°, so that light reaches ${names(first.lower.id)} below it.`);
  if (best.off) because.push(`Led ${best.off}° aside from above ${names(beneath!.id)}.`);
  if (left.lower && left.by > CLOSE * height) because.push(`It still lies close above ${names(left.lower.id)}: there may be one branch too many.`);
  const isByForm = aimed.from === 'habit' || aimed.from === 'curve';
  return { ...best.at, from: raised > 2 && isByForm ? 'layer' : aimed.from, because };
}

/** Lays pads above one another, from below; with how they lay before their artist moved one, only those are laid anew that had gone out of its way, or that it comes under. docs: Where to. */
export function layInLayers(mains: readonly Main[], height: number, names: (id: string) => string, before: Layers | null = null): Layers {
  const laid = new Map<string, Lying>();
  const wasOf = (m: Main): Main => before!.get(m.id)!.main;
  const turned = new Set(
    before ? mains.filter((m) => m.target.from === 'plan' && turnBetween(m.target, wasOf(m).target) > AS_BEFORE.turned).map((m) => m.id) : [],
  );
  const crowded = (upper: Main, lowers: readonly Main[]): number =>
    greatestOf(
      lowers.map((lower) => tooClose(upper, upper.target, lower, height, LAYER.within - AS_BEFORE.beside)),
      0,
    );

  const liesAsBefore = (upper: Main, lowers: readonly Main[]): boolean => {
    const { main, above } = before!.get(upper.id)!;
    if ([...above].some((id) => turned.has(id))) return false;
    return crowded(main, lowers) <= crowded(main, lowers.map(wasOf)) + AS_BEFORE.nearer * height;
  };

  /** Whether it is worth to move: where it lies clearly better, or back where it was to go. */
  const gains = (upper: Main, was: Target, to: Target, lowers: readonly Main[]): boolean =>
    closest(upper, was, lowers, height).by - closest(upper, to, lowers, height).by > AS_BEFORE.nearer * height ||
    turnBetween(upper.target, was) - turnBetween(upper.target, to) > AS_BEFORE.turned;

  const laidAnew = (upper: Main, lowers: readonly Main[]): Target => {
    const to = clearOf(upper, lowers, height, names);
    if (!before || turnBetween(before.get(upper.id)!.aimed, upper.target) > 0.01) return to;
    const was = wasOf(upper).target;
    return liesAsBefore(upper, lowers) || !gains(upper, was, to, lowers) ? was : to;
  };

  mains.forEach((upper, i) => {
    const aimed = upper.target;
    const lowers = mains.slice(0, i);
    const above = new Set(lowers.filter((lower) => tooClose(upper, aimed, lower, height) > 0).map((m) => m.id));
    // What the artist has posed is not moved for another one's sake.
    if (aimed.from !== 'plan') upper.target = laidAnew(upper, lowers);
    laid.set(upper.id, { aimed, main: upper, above });
  });
  return laid;
}
