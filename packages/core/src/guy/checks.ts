import { serialsOf, sayForce, sayTurning } from '../units/index.js';
import { add, boxed, boxesApart, closestBetween, cross, distance, limb, lerp, pointAt, scale, sub, unit, type Vec } from '../space/index.js';
import { METAL_DATA } from '../wood/index.js';
import type { Bark } from '../species/index.js';
import { isBehind, potStands, type AnchorPlace } from './anchors.js';
import type { GuyWorld } from './world.js';

/** Thicknesses of copper that ties are made of, mm. */
export const TIE_SIZES = [0.8, 1, 1.2, 1.5, 1.8, 2] as const;
/** Widths of cushions along the branch, mm. */
const CUSHIONS = [8, 12, 16, 20, 25, 30, 40];
/** What bark bears of a cushion for months, MPa; own estimates. */
export const BARK_BEARS: Record<Bark, number> = { thin: 0.5, medium: 0.8, corky: 1.2 };
/** A tie keeps so far from other wood, mm; what is farther than that is not looked at. */
export const CLEAR = 3;
export const FAR = 60;
/** So many ties cross one sixth of the soil and a can still gets in. */
const MOST_PER_SIXTH = 2;
/** A tie is laid round so often at most. */
const MOST_ROUNDS = 3;
/** Wire at half of what it yields at. */
const SAFE_SHARE = 0.5;

export interface GuyCheck {
  check: 'wire' | 'anchor' | 'cushion' | 'clear' | 'seen' | 'watering' | 'pot' | 'force' | 'wood';
  value: number;
  limit: number;
  ok: boolean;
  /** A sentence with the value and the limit. */
  said: string;
}

/** What a doubled tie of copper bears safely, N; laid round several times, so many times that. */
export const tieBears = (size: number, rounds = 1): number => 2 * rounds * SAFE_SHARE * METAL_DATA.copper.strength * (Math.PI / 4) * size ** 2;

/** How often a tie is laid round to bear a tension. */
export const roundsFor = (tension: number, size: number): number => Math.min(MOST_ROUNDS, Math.max(1, Math.ceil(tension / tieBears(size) - 1e-9)));

/** The thinnest doubled tie that bears a tension; the thickest where none does. */
export const tieFor = (tension: number): number => TIE_SIZES.find((size) => tieBears(size) >= tension) ?? TIE_SIZES[TIE_SIZES.length - 1]!;

/** The narrowest cushion that bark bears a tension under, mm; the widest where none does. */
export const cushionFor = (tension: number, diameter: number, bark: Bark): number =>
  CUSHIONS.find((width) => tension / (width * diameter) <= BARK_BEARS[bark]) ?? CUSHIONS[CUSHIONS.length - 1]!;

export interface TieToCheck {
  branch: string;
  at: number;
  point: Vec;
  anchor: AnchorPlace;
  tension: number;
  wire: number;
  rounds: number;
  cushion: number;
}

/** The line of a tie or a bar without its ends, where it touches what it holds. */
function middleOf({ from, to }: { from: Vec; to: Vec }, thick: number) {
  const length = distance(from, to);
  const off = Math.min(0.3, 12 / length);
  return limb([lerp(from, to, off), lerp(from, to, 1 - off)], [thick, thick]);
}

/** The wood that a straight piece comes nearest to, and how near, mm; the branches that it holds left out. */
export function nearestWood(world: GuyWorld, piece: { from: Vec; to: Vec }, thick: number, but: readonly string[]): { branch: string; gap: number } | null {
  const line = middleOf(piece, thick);
  const near = [...world.lines].filter(([branch, other]) => !but.includes(branch) && !boxesApart(boxed(line), boxed(other), FAR));
  return world.keep(`wood ${line.points.join(' ')} ${thick} ${serialsOf(near.map(([, other]) => other))}`, () => {
    let nearest: { branch: string; gap: number } | null = null;
    for (const [branch, other] of near) {
      const found = closestBetween(line, other, nearest?.gap ?? FAR);
      if (found) nearest = { branch, gap: found.gap };
    }
    return nearest;
  });
}

/** What a tie is tied to at its two ends. */
const endsOf = ({ branch, anchor: { ref } }: TieToCheck): string[] => [
  branch,
  ...(ref.branch === undefined ? [] : [ref.branch]),
  ...(['trunk', 'screw', 'root'].includes(ref.kind) ? ['trunk'] : []),
];

/** Which sixth of the soil a tie comes down in; null where it goes to wood. */
export function sixthOf({ anchor: { ref, point } }: Pick<TieToCheck, 'anchor'>): number | null {
  if (ref.kind !== 'pot-hole' && ref.kind !== 'pot-rim') return null;
  return Math.floor((((Math.atan2(point[0], point[1]) * 180) / Math.PI + 360) % 360) / 60);
}

/** How far all ties together would turn the tree about its foot, N·mm. */
function rockingOf(ties: readonly TieToCheck[]): number {
  const turn = ties.reduce<Vec>((sum, t) => add(sum, cross(t.point, scale(unit(sub(t.anchor.point, t.point)), t.tension))), [0, 0, 0]);
  return Math.hypot(turn[0], turn[1]);
}

/** All that can be wrong with a tie, each with its value and limit; `others` are the ties beside it. docs: Checks of a guy. */
export function checkTie(world: GuyWorld, tie: TieToCheck, others: readonly TieToCheck[]): GuyCheck[] {
  const { tension, wire, anchor, cushion } = tie;
  const line = world.lines.get(tie.branch)!;
  const { diameter } = pointAt(line, tie.at);
  const n = sayForce;
  const bears = tieBears(wire, tie.rounds);
  const pressure = tension / (cushion * diameter);
  const wood = nearestWood(world, { from: tie.point, to: anchor.point }, 2 * wire, endsOf(tie));
  const inPot = [tie, ...others].filter((t) => sixthOf(t) !== null);
  const sixth = sixthOf(tie);
  const beside = sixth === null ? 0 : inPot.filter((t) => sixthOf(t) === sixth).length;
  const rocks = rockingOf(inPot);
  const stands = potStands(world);
  const behind = isBehind(world, lerp(tie.point, anchor.point, 0.5));
  const checks: GuyCheck[] = [
    {
      check: 'wire',
      value: tension,
      limit: bears,
      ok: tension <= bears,
      said: `The tie, ${wire} mm copper doubled${tie.rounds > 1 ? ` and laid round ${tie.rounds} times` : ''}, bears ${n(bears)} safely; it pulls with ${n(tension)}.`,
    },
    {
      check: 'anchor',
      value: tension,
      limit: anchor.capacity,
      ok: tension <= anchor.capacity,
      said: `Its anchor bears about ${n(anchor.capacity)}.`,
    },
    {
      check: 'cushion',
      value: pressure,
      limit: BARK_BEARS[world.bark],
      ok: pressure <= BARK_BEARS[world.bark],
      said: `A cushion of ${cushion} mm presses with ${pressure.toFixed(2)} MPa; this bark bears ${BARK_BEARS[world.bark].toFixed(1)} MPa for long.`,
    },
    {
      check: 'clear',
      value: wood?.gap ?? FAR,
      limit: CLEAR,
      ok: (wood?.gap ?? FAR) >= CLEAR,
      said: wood && wood.gap < CLEAR ? 'It rubs on wood on its way.' : 'It is clear of other wood.',
    },
  ];
  if (behind !== null)
    checks.push({ check: 'seen', value: behind ? 0 : 1, limit: 1, ok: true, said: behind ? 'Behind the tree, as the front sees it.' : 'Seen from the front.' });
  if (sixth !== null) {
    checks.push({
      check: 'watering',
      value: beside,
      limit: MOST_PER_SIXTH,
      ok: beside <= MOST_PER_SIXTH,
      said: `${beside === 1 ? 'The only tie' : `One of ${beside} ties`} in this sixth of the soil: ${beside <= MOST_PER_SIXTH ? 'a can gets in' : 'hard to water past'}.`,
    });
    checks.push({
      check: 'pot',
      value: rocks / 1000,
      limit: stands / 1000,
      ok: rocks <= stands,
      said: `The ties rock the tree in its pot with ${sayTurning(rocks)}; tied into it, it stands about ${sayTurning(stands)}${rocks > stands ? ': another anchor, or a weight on the soil' : ''}.`,
    });
  }
  return checks;
}
