import { angleBetween, distance, lengthOf, pointAt, scale, add, sub, unit, type Limb, type Vec } from '../space/index.js';
import { archOf, tieDown, type Tied, type TiedAsked } from '../rod/index.js';
import { bandOf, HEFT, safeBendRatio, type Band } from '../wood/index.js';
import { anchorAt, anchorsFor, ANCHOR_KINDS, isBehind, type AnchorPlace, type AnchorRef } from './anchors.js';
import { checkTie, cushionFor, roundsFor, tieFor, type GuyCheck, type TieToCheck } from './checks.js';
import { windlass } from './windlass.js';
import type { GuyWorld } from './world.js';
import { sayForce } from '../units/index.js';

/** A branch to be held by ties: as it lies with no tie on it, and as it shall lie. */
export interface Held {
  branch: string;
  now: Limb;
  wanted: Limb;
}

/** A guy as a plan fixes it. */
export interface GuyRef {
  id: string;
  branch: string;
  at: number;
  anchor: AnchorRef;
  wire?: number;
  cushion?: { kind: string; width?: number | undefined } | undefined;
  /** N, as it was reckoned when it was drawn: what it holds since, the measured branch no longer shows. */
  drawnWith?: number;
}

/** A guy worked out. */
export interface GuyPlan {
  id: string;
  branch: string;
  at: number;
  anchor: AnchorPlace['ref'];
  /** N. */
  tension: number;
  wire: number;
  /** How often it is laid round. */
  rounds: number;
  cushion: { kind: string; width: number };
  /** Length of the doubled tie before any pull, mm, and wire for it with its ends. */
  length: number;
  wireLength: number;
  /** Shortening from the branch as it lies to where it is held, mm: what the hand draws in before it is tied, and the twists for the rest. */
  shortening: number;
  byHand: number;
  windlassTurns: number;
  /** How far the branch stands from its chord under the tie, and as posed, mm. */
  arch: number;
  archWired: number;
  missDeg: number;
  /** How far it is from where it lies to where it shall, degrees. */
  askedDeg: number;
  strain: number;
  strainAt: number;
  /** Thickness where the strain is greatest, mm, and its risk and band. */
  diameter: number;
  risk: number;
  band: Band;
  checks: GuyCheck[];
  because: string[];
  /** In the world: the tie point and the anchor, and the branch under the tie. */
  from: Vec;
  to: Vec;
  line: Limb;
}

/** Wire for the ends: twice round the cushion and the anchor, and the tail that the windlass is held with, mm. */
const ENDS = 120;
/** A windlass makes taut: of a tie's length it takes up so much, within a dozen twists or two. The rest is drawn in by hand first. */
const TWISTED_SHARE = 0.01;
/** Farther from where it shall go than this, it does not reach; degrees. */
export const NEAR_DEG = 4;
const COARSE = 10;
const FINER = 24;
/** So many of the first are to be right; and a short rod is off by so much of a rank in where it leads. No more are told anew than this. */
const FIRST = 3;
const SLACK = 1;
const MOST_NEARER = 16;
/** Of two anchors else alike the one that takes less pull: so many newtons count as a degree missed. */
const RANK_N = 100;
/** What the wood is asked for counts before all else: a pull that folds the branch is none, however near it leads; as degrees missed. */
const RANK_BAND: Record<Band, number> = { calm: 0, careful: 1, heavy: 6, no: 40 };
/** A pull that leads less than half of the way is none either, whatever it spares the wood. */
const RANK_USELESS = 40;
/** What a tie leaves undone, and what it asks of the wood, as degrees missed. */
const costIn = (missDeg: number, askedDeg: number, band: Band): number =>
  missDeg + RANK_BAND[band] + (askedDeg > NEAR_DEG && missDeg > askedDeg / 2 ? RANK_USELESS : 0);
/** A tie is no longer than this share of what the branch measures, or it would be everywhere. */
const REACH = 2.5;

/** A thick branch is tied farther out: the longer its lever, the less it takes. */
const TIE_AT = { slender: 0.62, thick: 0.76, thickFrom: 18 };

/** Where a branch is best tied: in the fork of a side shoot about two thirds out, else there on its bark. */
export function tiePointOf(world: GuyWorld, { branch, now }: Held): { at: number; fork: string | null } {
  const total = lengthOf(now);
  const wanted = (world.branches.get(branch)!.d >= TIE_AT.thickFrom ? TIE_AT.thick : TIE_AT.slender) * total;
  const forks = [...world.branches.values()].filter((b) => b.parent === branch && b.state !== 'dead' && Math.abs(b.at - wanted) < 0.14 * total);
  const fork = forks.sort((a, b) => Math.abs(a.at - wanted) - Math.abs(b.at - wanted))[0];
  return { at: Math.round(fork ? fork.at : wanted), fork: fork?.id ?? null };
}

const angleDeg = (a: Vec, b: Vec): number => (angleBetween(a, b) * 180) / Math.PI;

const towardOf = ({ wanted }: Held, at: number): Vec => sub(pointAt(wanted, Math.min(at, lengthOf(wanted))).point, wanted.points[0]!);

function solve(world: GuyWorld, held: Held, at: number, anchors: readonly Vec[], own: { segments?: number; share?: number; rough?: boolean } = {}): Tied {
  const asked: TiedAsked = { line: held.now, wood: world.wood, heft: HEFT, at, anchors, toward: towardOf(held, at), ...own };
  return world.keep(`tied ${JSON.stringify(asked)}`, () => tieDown(asked));
}

/** Guys on one branch, worked out together: each takes its share of the pull. */
export function solveGuys(world: GuyWorld, held: Held, guys: readonly GuyRef[], others: readonly TieToCheck[] = []): GuyPlan[] {
  const total = lengthOf(held.now);
  const at = Math.min(guys[0]!.at, total);
  const start = pointAt(held.now, at).point;
  const places = guys.map((g) => anchorAt(world, g.anchor, start));
  const pairs = guys.flatMap((guy, i) => (places[i] ? [{ guy, anchor: places[i]! }] : []));
  if (!pairs.length) return [];
  const tied = solve(
    world,
    held,
    at,
    pairs.map((p) => p.anchor.point),
  );
  const { diameter: here } = pointAt(held.now, at);
  const ties = pairs.map(({ guy, anchor }, i): TieToCheck => {
    const tension = Math.max(tied.tensions[i]!, guy.drawnWith ?? 0);
    return {
      branch: held.branch,
      at,
      point: tied.point,
      anchor,
      tension,
      wire: guy.wire ?? tieFor(tension),
      rounds: roundsFor(tension, guy.wire ?? tieFor(tension)),
      cushion: guy.cushion?.width ?? cushionFor(tension, here, world.bark),
    };
  });
  const { diameter } = pointAt(held.now, tied.strainAt);
  const risk = riskOf(world, held, tied);
  const asked = angleDeg(sub(tied.before, held.now.points[0]!), towardOf(held, at));
  return pairs.map(({ guy, anchor }, i): GuyPlan => {
    const tie = ties[i]!;
    const length = distance(tied.before, anchor.point);
    const shortening = Math.max(0, length - distance(tied.point, anchor.point));
    const byHand = Math.max(0, shortening - TWISTED_SHARE * length);
    const twists = windlass({ length: length - byHand, wireDiameter: tie.wire, lines: 2 * tie.rounds, shortening: shortening - byHand });
    return {
      id: guy.id,
      branch: held.branch,
      at,
      anchor: anchor.ref,
      tension: tie.tension,
      wire: tie.wire,
      rounds: tie.rounds,
      cushion: { kind: guy.cushion?.kind ?? 'tube', width: tie.cushion },
      length,
      wireLength: 2 * tie.rounds * length + ENDS,
      shortening,
      byHand,
      windlassTurns: twists,
      arch: archOf(tied.line),
      archWired: archOf(held.wanted),
      missDeg: tied.missDeg,
      askedDeg: asked,
      strain: tied.strain,
      strainAt: tied.strainAt,
      diameter,
      risk,
      band: bandOf(risk),
      checks: checkTie(world, tie, [...ties.filter((t) => t !== tie), ...others]),
      because: [
        ...(tied.missDeg > NEAR_DEG
          ? [`A pull from there brings it to within ${tied.missDeg.toFixed(0)}° of where it shall go, and no nearer: choose another anchor, or a second tie.`]
          : asked < 1
            ? [
                guy.drawnWith
                  ? `It lies where it shall, and is kept there: drawn with about ${sayForce(guy.drawnWith)}.`
                  : 'It lies where it shall already: the tie only keeps it there.',
              ]
            : [`It is drawn by ${(asked - tied.missDeg).toFixed(0)}° with ${sayForce(tie.tension)}.`]),
      ],
      from: tied.point,
      to: anchor.point,
      line: tied.line,
    };
  });
}

/** A branch while its ties are drawn: so much of their shortening made. */
export function drawnTo(
  world: GuyWorld,
  held: Held,
  guys: readonly GuyRef[],
  share: number,
): Pick<Tied, 'line' | 'tensions' | 'strain' | 'strainAt'> & { risk: number; band: Band } {
  const at = Math.min(guys[0]!.at, lengthOf(held.now));
  const start = pointAt(held.now, at).point;
  const anchors = guys.flatMap((g) => anchorAt(world, g.anchor, start) ?? []).map((place) => place.point);
  const tied = solve(world, held, at, anchors, { share });
  const risk = riskOf(world, held, tied);
  return { ...tied, risk, band: bandOf(risk) };
}

/** How good a tie or two are for their branch: the lower, the better. */
export const costOf = ([guy]: readonly GuyPlan[]): number => costIn(guy!.missDeg, guy!.askedDeg, guy!.band);

/** Risk of a bend by its greatest strain. */
const riskOf = (world: GuyWorld, held: Held, tied: Pick<Tied, 'strain' | 'strainAt'>): number =>
  tied.strain * 2 * safeBendRatio(world.bendRatio, pointAt(held.now, tied.strainAt).diameter, 'none');

/** The tie of a guy as it is checked against others. */
export const tieOf = (g: GuyPlan, world: GuyWorld): TieToCheck => ({
  branch: g.branch,
  at: g.at,
  point: g.from,
  anchor: anchorAt(world, g.anchor, g.from)!,
  tension: g.tension,
  wire: g.wire,
  rounds: g.rounds,
  cushion: g.cushion.width,
});

/** An anchor that a branch could be tied to, with what speaks for it; the lower its rank, the better. */
export interface RankedAnchor {
  anchor: AnchorPlace['ref'];
  point: Vec;
  tension: number;
  missDeg: number;
  behind: boolean | null;
  /** How much it asks of the wood. */
  band: Band;
  failed: GuyCheck['check'][];
  rank: number;
}

/** All anchors in reach of a tie point, the best first: dead wood that holds, the pot, a root, the trunk, a thick branch, a screw last. docs: Anchors. */
export function rankAnchors(world: GuyWorld, held: Held, at: number, others: readonly TieToCheck[] = []): RankedAnchor[] {
  const { point, diameter } = pointAt(held.now, Math.min(at, lengthOf(held.now)));
  const root = held.now.points[0]!;
  const toward = towardOf(held, at);
  const to = add(root, scale(unit(toward), distance(point, root)));
  const reach = REACH * Math.max(lengthOf(held.now), point[2]);
  const judge = (anchor: AnchorPlace, segments: number): { ranked: RankedAnchor; least: number } => {
    const tied = solve(world, held, at, [anchor.point], { segments, rough: segments === COARSE });
    const tension = tied.tensions[0]!;
    const tie: TieToCheck = {
      branch: held.branch,
      at,
      point: tied.point,
      anchor,
      tension,
      wire: tieFor(tension),
      rounds: roundsFor(tension, tieFor(tension)),
      cushion: cushionFor(tension, diameter, world.bark),
    };
    const failed = checkTie(world, tie, others)
      .filter((c) => !c.ok)
      .map((c) => c.check);
    const behind = isBehind(world, anchor.point);
    const band = bandOf(riskOf(world, held, tied));
    const asked = angleDeg(sub(tied.before, root), toward);
    const least = ANCHOR_KINDS.indexOf(anchor.ref.kind) * (anchor.ref.kind === 'screw' ? 2 : 1) + tied.missDeg + (behind === false ? 1 : 0) + tension / RANK_N;
    const rank = least - tied.missDeg + costIn(tied.missDeg, asked, band) + 5 * failed.length;
    return { ranked: { anchor: anchor.ref, point: anchor.point, tension, missDeg: tied.missDeg, behind, band, failed, rank }, least };
  };
  const byRank = (a: RankedAnchor, b: RankedAnchor): number => a.rank - b.rank;
  const places = anchorsFor(world, { branch: held.branch, point, to, diameter }, reach);
  const coarse = places.map((place) => ({ place, ...judge(place, COARSE) })).sort((a, b) => a.least - b.least);
  // What a short rod tells of strain is rough; where it leads and how hard it pulls is not. So each is told anew that could be among the first by those.
  const nearer: RankedAnchor[] = [];
  const rest: RankedAnchor[] = [];
  for (const { place, least, ranked } of coarse) {
    const last = [...nearer].sort(byRank)[FIRST - 1]?.rank ?? Infinity;
    if (nearer.length < MOST_NEARER && least < last + SLACK) nearer.push(judge(place, FINER).ranked);
    else rest.push(ranked);
  }
  return [...nearer, ...rest].sort(byRank);
}
