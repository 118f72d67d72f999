import { toDeg } from '../units/index.js';
import { bandOf, bendRisk, type Band, type Protection } from '../wood/index.js';
import { BY_HAND, MOST_RISK, PROTECTIONS } from './bends.js';

/** sin φ / φ of the half-angle φ (radians) of equal arcs laid in a row: reach over length. */
const reachOf = (half: number): number => (half > 0 ? Math.sin(half) / half : 1);

/**
 * A branch of a length (mm) laid as so many equal arcs in one plane, so that it reaches so far (mm): the half-angle of each
 * arc (degrees) and its radius (mm). Reach 0 is a row of full circles. docs: Compaction.
 */
export function compaction({ length, reach, arcs }: { length: number; reach: number; arcs: number }): { halfAngleDeg: number; radius: number } {
  let low = 0;
  let high = Math.PI;
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (reachOf(middle) * length > reach) low = middle;
    else high = middle;
  }
  const half = (low + high) / 2;
  return { halfAngleDeg: toDeg(half), radius: length / (2 * arcs * half) };
}

/** One way to lay a branch shorter, with what it does to the wood where it is thickest. */
export interface CompactWay {
  arcs: number;
  planes: 1 | 2;
  radius: number;
  /** How far it stands to the side of its straight way, mm. */
  sideways: number;
  risk: number;
  band: Band;
  protection: Protection;
  /** The wood takes it in one season. */
  bears: boolean;
}

/** A winding about the branch's straight way, a quarter turn an arc: with β between branch and way, cos β = reach/length; radius of curvature r/sin²β. */
function winding({ length, reach, arcs }: { length: number; reach: number; arcs: number }): { radius: number; sideways: number } {
  const sine = Math.sqrt(Math.max(1e-9, 1 - (reach / length) ** 2));
  const r = (length * sine) / ((Math.PI / 2) * arcs);
  return { radius: r / sine ** 2, sideways: 2 * r };
}

const MOST_ARCS = 6;

/** The ways to lay a branch (length and reach in mm, thickness mm, k₀ of its wood) shorter, the ones its wood bears first, fewest arcs first. docs: Compaction. */
export function compactWays({ length, reach, diameter, k0 }: { length: number; reach: number; diameter: number; k0: number }): CompactWay[] {
  const ways: CompactWay[] = [];
  for (const planes of [1, 2] as const) {
    for (let arcs = planes === 1 ? 1 : 3; arcs <= MOST_ARCS; arcs++) {
      const flat = compaction({ length, reach, arcs });
      const half = (flat.halfAngleDeg * Math.PI) / 180;
      const { radius, sideways } = planes === 1 ? { radius: flat.radius, sideways: flat.radius * (1 - Math.cos(half)) } : winding({ length, reach, arcs });
      const riskWith = (protection: Protection): number => bendRisk({ diameter, angleDeg: 57.29578, length: radius, k0, protection });
      const protection = PROTECTIONS.find((p) => riskWith(p) * BY_HAND < 1) ?? 'both';
      const risk = riskWith(protection);
      ways.push({ arcs, planes, radius, sideways, risk, band: bandOf(risk), protection, bears: risk <= MOST_RISK });
    }
  }
  return ways.sort((a, b) => Number(b.bears) - Number(a.bears) || a.arcs - b.arcs || a.planes - b.planes);
}

/** The shortest reach (mm) that the wood bears in some way. */
export function shortestReach(of: { length: number; diameter: number; k0: number }): number {
  let [low, high] = [0.05 * of.length, of.length];
  for (let i = 0; i < 30; i++) {
    const middle = (low + high) / 2;
    if (compactWays({ ...of, reach: middle })[0]!.bears) high = middle;
    else low = middle;
  }
  return high;
}
