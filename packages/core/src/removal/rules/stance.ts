import { toDeg } from '../../units/index.js';
import { add, angleBetween, dot, pointAt, ring, scale, sub, unit, type Vec } from '../../space/index.js';
import type { PlacedBranch } from '../../tree/index.js';
import type { Draft } from '../finding.js';
import { isLiving, percent, type Survey } from '../survey.js';

const tip = (b: PlacedBranch): Vec => b.line.points[b.line.points.length - 1]!;
const word = (b: PlacedBranch, text: string) => () => ({ lines: [b.line.points], words: [{ at: tip(b), text }] });

/** How far from straight down a branch leaves its parent, degrees: looked at along the parent. */
function fromBelow(s: Survey, b: PlacedBranch): number {
  const parent = s.placed.byId.get(b.branch.parent)!;
  const axis = pointAt(parent.line, b.branch.at).direction;
  const square = (v: Vec): Vec => sub(v, scale(axis, dot(v, axis)));
  const down = square([0, 0, -1]);
  const out = square(unit(sub(tip(b), b.line.points[0]!)));
  // Hardly aside of its parent, or on an upright one: it has no underside to grow on.
  if (Math.hypot(...out) < 0.4 || Math.hypot(...down) < 0.4) return 180;
  return toDeg(angleBetween(out, down));
}

/** Growth on the underside counts when it is thin beside its parent: a thicker one is a branch to be led. */
const THIN_SHARE = 0.5;

function hanging(s: Survey, b: PlacedBranch): Draft[] {
  if (b.order < 2 || !isLiving(b)) return [];
  const { hangingDeg, underDeg } = s.profile.limits;
  const { elevation } = s.slopeOf(b);
  const below = fromBelow(s, b);
  const steep = elevation < hangingDeg;
  const thin = b.branch.d <= THIN_SHARE * b.parentDiameter;
  if (!steep && !(thin && below < underDeg)) return [];
  const down = (-elevation).toFixed(0);
  return [
    {
      branch: b.branch.id,
      rule: 'hanging',
      severity: 2,
      evidence: steep ? { elevation: Math.round(elevation), limit: hangingDeg } : { fromBelow: Math.round(below), limit: underDeg },
      advice: 'remove',
      also: ['move'],
      because: [
        steep
          ? `Hangs ${down}° below level under ${s.names(b.branch.parent)}: shaded there, and it muddles the underside of the pad.`
          : `Grows from the underside of ${s.names(b.branch.parent)}: shaded there, and it muddles the underside of the pad.`,
      ],
      draw: word(b, steep ? `hangs ${down}°` : 'underside'),
    },
  ];
}

function upright(s: Survey, b: PlacedBranch): Draft[] {
  const { elevation } = s.slopeOf(b);
  const limit = s.profile.limits.uprightDeg;
  if (b.order < 2 || !isLiving(b) || !(elevation > limit)) return [];
  return [
    {
      branch: b.branch.id,
      rule: 'upright',
      severity: 1,
      evidence: { elevation: Math.round(elevation), limit },
      advice: 'move',
      also: ['remove', 'shorten'],
      because: [
        `Stands at ${elevation.toFixed(0)}° on ${s.names(b.branch.parent)}: strong there, it takes what the tips should have. Lay it into the pad, or take it off.`,
      ],
      draw: word(b, `stands ${elevation.toFixed(0)}°`),
    },
  ];
}

function low(s: Survey, b: PlacedBranch): Draft[] {
  const limit = s.profile.limits.clearTrunk;
  const share = b.line.points[0]![2] / s.placed.height;
  if (!s.primaries.includes(b) || !(share < limit)) return [];
  const top = pointAt(s.placed.trunk, 0).diameter * 0.8;
  return [
    {
      branch: b.branch.id,
      rule: 'low',
      severity: 1,
      evidence: { share: Math.round(share * 1000) / 1000, limit },
      advice: 'remove',
      also: ['reserve'],
      because: [
        `Leaves at ${percent(share)} of the height, where the trunk is wanted clear up to ${percent(limit)}. It feeds the base as long as it stays: a sacrifice or a reserve is possible.`,
      ],
      draw: () => ({
        lines: [
          b.line.points,
          ring([0, 0, limit * s.placed.height], top, [
            [1, 0, 0],
            [0, 1, 0],
          ]),
        ],
        words: [{ at: [top, 0, limit * s.placed.height], text: 'clear below' }],
      }),
    },
  ];
}

/** Half a millimetre decides nothing: the caliper is not surer than that. */
const CALIPER_MM = 0.25;

function tooThick(s: Survey): Draft[] {
  const { thickShare, thickStep } = s.profile.limits;
  const living = s.primaries;
  return living.flatMap((b, i): Draft[] => {
    const { id, d } = b.branch;
    const below = living[i - 1];
    const ofTrunk = d / b.parentDiameter;
    const thanBelow = below ? d / below.branch.d : 0;
    const forTrunk = d > thickShare * b.parentDiameter + CALIPER_MM;
    const forBelow = below !== undefined && d > thickStep * below.branch.d + CALIPER_MM;
    if (!forTrunk && !forBelow) return [];
    const shoulder = b.line.points[0]!;
    return [
      {
        branch: id,
        rule: 'too-thick',
        severity: 2,
        evidence: {
          ofTrunk: Math.round(ofTrunk * 100) / 100,
          ...(forBelow ? { with: [below!.branch.id], thanBelow: Math.round(thanBelow * 100) / 100 } : {}),
        },
        advice: 'remove',
        also: ['shorten', 'reserve'],
        because: [
          ...(forTrunk ? [`${d.toFixed(1)} mm thick where the trunk has ${b.parentDiameter.toFixed(1)} mm: it competes with the trunk.`] : []),
          ...(forBelow
            ? [`${d.toFixed(1)} mm thick, ${thanBelow.toFixed(1)} times ${s.names(below!.branch.id)} below it: branches want to grow thinner upward.`]
            : []),
        ],
        draw: () => ({ lines: [b.line.points], words: [{ at: add(shoulder, [0, 0, d / 2]), text: `${d.toFixed(0)} mm` }] }),
      },
    ];
  });
}

/** hanging, upright, low, too-thick: how a branch stands. */
export const stance = (s: Survey): Draft[] => [...s.placed.branches.flatMap((b) => [...hanging(s, b), ...upright(s, b), ...low(s, b)]), ...tooThick(s)];
