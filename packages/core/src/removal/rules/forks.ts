import { greatestOf, clamp, toDeg } from '../../units/index.js';
import { add, angleBetween, cross, dot, lengthOf, norm, pointAt, scale, smooth, sub, unit, type Limb, type Vec } from '../../space/index.js';
import type { PlacedBranch } from '../../tree/index.js';
import type { Draft } from '../finding.js';
import { isLiving, leastUsefulFirst, type Survey } from '../survey.js';
import { list, outOf, parentLine, ringAt, ringed, within } from './shoulders.js';

function crotch(s: Survey, b: PlacedBranch): Draft[] {
  const limit = s.profile.limits.crotchDiameters;
  const away = b.branch.at / b.parentDiameter;
  if (b.order < 2 || !isLiving(b) || !(away < limit)) return [];
  return [
    {
      branch: b.branch.id,
      rule: 'crotch',
      severity: 2,
      evidence: { away: Math.round(b.branch.at), diameters: Math.round(away * 10) / 10, limit },
      advice: 'remove',
      because: [
        `Grows in the crotch of ${s.names(b.branch.parent)}, ${b.branch.at.toFixed(0)} mm from the fork: no light reaches it, and wire finds no room there.`,
      ],
      draw: () => ringed(s, b, b.branch.at, 'crotch'),
    },
  ];
}

/** Circle through a line at a place, over three thicknesses of it: its centre and radius; null where it runs straight. */
export function bendAt(line: Limb, at: number): { center: Vec; radius: number } | null {
  const total = lengthOf(line);
  const reach = Math.min(1.5 * pointAt(line, at).diameter, total / 2);
  const middle = clamp(at, reach, total - reach);
  const [a, b, c] = [middle - reach, middle, middle + reach].map((x) => pointAt(line, x).point) as [Vec, Vec, Vec];
  const ab = sub(b, a);
  const ac = sub(c, a);
  const normal = cross(ab, ac);
  const square = dot(normal, normal);
  if (square < 1e-9 * norm(ac) ** 4) return null;
  const toCenter = scale(add(scale(cross(normal, ab), dot(ac, ac)), scale(cross(ac, normal), dot(ab, ab))), 1 / (2 * square));
  return { center: add(a, toCenter), radius: norm(toCenter) };
}

function insideBend(s: Survey, b: PlacedBranch, line: Limb, along: number): Draft[] {
  const { insideDiameters, insideShare } = s.profile.limits;
  if (!isLiving(b)) return [];
  const at = b.branch.at * along;
  const bend = bendAt(line, at);
  if (!bend || !(bend.radius < insideDiameters * b.parentDiameter)) return [];
  const from = pointAt(line, at).point;
  const inward = dot(outOf(b), unit(sub(bend.center, from)));
  if (!(inward > insideShare)) return [];
  return [
    {
      branch: b.branch.id,
      rule: 'inside-bend',
      severity: 2,
      evidence: { radius: Math.round(bend.radius), inward: Math.round(inward * 100) / 100, limit: insideShare },
      advice: 'remove',
      also: ['move', 'reserve'],
      because: [
        `Leaves ${s.names(b.branch.parent)} on the inside of its bend (radius ${bend.radius.toFixed(0)} mm): a branch is looked for on the outside, where a tree would have grown it.`,
      ],
      draw: () => ({ lines: [[from, bend.center], b.line.points], words: [{ at: bend.center, text: 'centre of the bend' }] }),
    },
  ];
}

/** Branches on the inside of their parent's bends, the parent's line smoothed once for all on it. */
function insideBends(s: Survey): Draft[] {
  return [...s.on.values()].flatMap((children) => {
    const measured = parentLine(s, children[0]!);
    const line = smooth(measured, 6);
    return children.flatMap((b) => insideBend(s, b, line, lengthOf(line) / lengthOf(measured)));
  });
}

/** One shoot of a fork: a branch, or the parent going on beyond it. */
interface Shoot {
  branch: PlacedBranch | null;
  way: Vec;
  d: number;
}

/** How good two shoots are as a fork, 0..1: the angle between them, and like thickness. */
function forkWorth(a: Shoot, b: Shoot, lowDeg: number, highDeg: number): number {
  const angle = toDeg(angleBetween(a.way, b.way));
  const off = Math.max(0, lowDeg - angle, angle - highDeg);
  return 0.6 * clamp(1 - off / 50, 0, 1) + 0.4 * (Math.min(a.d, b.d) / Math.max(a.d, b.d));
}

/** Green of a branch beyond a place on it: its own, if its bare part ends there or before, and that of what leaves it farther out. */
function greenBeyond(s: Survey, stem: PlacedBranch, at: number): number {
  const { id, length, bareTo } = stem.branch;
  const onwards = (s.on.get(id) ?? []).filter((b) => b.branch.at > at).reduce((sum, b) => sum + s.greenWith.get(b.branch.id)!, 0);
  return onwards + stem.branch.green * clamp((length - at) / Math.max(1, length * (1 - bareTo)), 0, 1);
}

function forks(s: Survey): Draft[] {
  const { forkLowDeg, forkHighDeg } = s.profile.limits;
  return [...s.on].flatMap(([parent, children]): Draft[] => {
    const stem = s.placed.byId.get(parent);
    if (!stem) return [];
    const groups = within(children.filter(isLiving), (b) => Math.max(4, b.parentDiameter));
    const seen = new Set<string>();
    return groups.flatMap((whole): Draft[] => {
      const group = whole.filter((b) => !seen.has(b.branch.id));
      const at = greatestOf(group.map((b) => b.branch.at));
      const beyond = lengthOf(stem.line) - at;
      const here = pointAt(stem.line, at);
      const shoots: Shoot[] = group.map((branch) => ({ branch, way: outOf(branch), d: branch.branch.d }));
      if (beyond > 3 * here.diameter) {
        const end = pointAt(stem.line, Math.min(lengthOf(stem.line), at + 6 * here.diameter)).point;
        shoots.push({ branch: null, way: unit(sub(end, here.point)), d: here.diameter });
      }
      if (group.length < 2 || shoots.length < 3) return [];
      const order = leastUsefulFirst(s, group);
      const rank = (x: Shoot): number => (x.branch ? order.indexOf(x.branch) : order.length);
      // The line that goes on and carries the green is one of the two, whatever leaves beside it.
      const green = group.map((b) => s.greenWith.get(b.branch.id)!);
      const goesOn = shoots.length > group.length && isLiving(stem) && greenBeyond(s, stem, at) >= greatestOf(green);
      const pairs = shoots.flatMap((a, i) =>
        shoots
          .slice(i + 1)
          .filter((b) => !goesOn || a.branch === null || b.branch === null)
          .map((b) => ({ a, b, worth: forkWorth(a, b, forkLowDeg, forkHighDeg) + 0.001 * (rank(a) + rank(b)) })),
      );
      const best = pairs.reduce((x, y) => (y.worth > x.worth ? y : x));
      const angle = Math.round(toDeg(angleBetween(best.a.way, best.b.way)));
      const name = (x: Shoot): string => (x.branch ? s.names(x.branch.branch.id) : `${s.names(parent)} itself`);
      for (const b of group) seen.add(b.branch.id);
      return shoots
        .filter((x) => x !== best.a && x !== best.b)
        .map((x): Draft => {
          const about = x.branch ?? stem;
          return {
            branch: about.branch.id,
            rule: 'fork',
            severity: 1,
            evidence: { with: shoots.filter((y) => y !== x).map((y) => y.branch?.branch.id ?? parent), angle, at: Math.round(at) },
            advice: x.branch ? 'remove' : 'shorten',
            also: ['reserve'],
            because: [
              `${shoots.length} shoots from one point (${list(shoots.map(name))}): two make a fork. ${goesOn ? `${s.names(parent)} goes on and carries the green; with ${name(best.a.branch ? best.a : best.b)} it stands ${angle}° apart.` : `${name(best.a)} and ${name(best.b)} stand ${angle}° apart and are most alike in thickness.`}`,
              ...(x.branch ? [] : [`Shortened to ${at.toFixed(0)} mm, ${s.names(parent)} ends in that fork.`]),
            ],
            draw: () => ({ lines: [ringAt(stem.line, at), about.line.points], words: [{ at: here.point, text: `${shoots.length} from one point` }] }),
          };
        });
    });
  });
}

/** crotch, inside-bend, fork: where branches leave. */
export const forksAndBends = (s: Survey): Draft[] => [...s.placed.branches.flatMap((b) => crotch(s, b)), ...insideBends(s), ...forks(s)];
