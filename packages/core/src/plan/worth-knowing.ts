import { clamp, normalQuantile, sayDay } from '../units/index.js';
import { learnedOf, raceIfWired, type Known } from '../growth/index.js';
import { sayThick, bandOf, bendRisk, type Band } from '../wood/index.js';
import { bendHeld, chooseWire, gapFor } from '../wire/index.js';
import { branchOf, howKnown, outcomeOf, placeTree, withBranches, type Branch, type PlacedTree, type Tree } from '../tree/index.js';
import type { PlanDocument } from './plan.js';
import type { PlanBend } from './poses.js';

/** A number whose uncertainty changes what is done with a branch, and how. */
export interface WorthKnowing {
  branch: string;
  what: 'd' | 'deg';
  /** Between which values it lies in four cases of five: mm of thickness, degrees of slope. */
  low: number;
  high: number;
  /** What those two come to, shortly. */
  decides: string;
  /** How likely it is that something else is done than is planned now. */
  chance: number;
}

/** What is done with a branch if its numbers were so. */
interface Decision {
  wire: { size: number; strands: number; metal: string } | null;
  band: Band;
  /** The day by which its wire would come off or be looked for to come off; null: none near. */
  off: number | null;
}

/** It is tried at these shares of what it may be; so many days make another date. */
const TRIED = [0.1, 0.3, 0.5, 0.7, 0.9];
const ANOTHER_DATE = 21;
/** Fewer than one case in five changes nothing worth a walk for the caliper; and nobody measures more than so many at once. */
const LEAST_CHANCE = 0.2;
const MOST = 5;

/** The numbers that decide something, the likeliest to change it first: each tried at what it may be, with all else as planned. docs: How well it is known. */
export function worthKnowing(tree: Tree, plan: Pick<PlanDocument, 'poses' | 'runs'>, onDay: number, known?: Known): WorthKnowing[] {
  const after = outcomeOf(tree).tree;
  const learned = learnedOf(placeTree(after), onDay, known);
  const thickness = ({ branch }: WorthKnowing): number => branchOf(after, branch)?.d ?? 0;
  return plan.poses
    .flatMap(({ branch, bends: [main] }): WorthKnowing[] => {
      const own = branchOf(after, branch);
      if (!own?.known || !main) return [];
      const { d, deg } = howKnown(tree, branch);
      const metal = plan.runs.find((r) => r.branches.some((b) => b.branch === branch))?.metal;
      const tried = (what: 'd' | 'deg', sd: number, values: number[], decide: (value: number) => Decision): WorthKnowing[] => {
        if (sd <= 0) return [];
        const found = values.map(decide);
        const middle = found[TRIED.indexOf(0.5)]!;
        const chance = found.filter((f) => differs(f, middle)).length / found.length;
        const [low, high] = [found[0]!, found[found.length - 1]!];
        return chance < LEAST_CHANCE ? [] : [{ branch, what, low: values[0]!, high: values[values.length - 1]!, decides: sayBetween(low, high), chance }];
      };
      const spread = (mean: number, sd: number): number[] => TRIED.map((p) => mean + sd * normalQuantile(p));
      const decideFor = (branchThen: Branch, bend: PlanBend): Decision => {
        const placed = placeTree(withBranches(after, after.branches.map((b) => (b.id === branch ? branchThen : b)))); // prettier-ignore
        return decisionOf(placed, bend, branch, metal, onDay, { known, learned });
      };
      const slopeBy = (angle: number): number => clamp(own.elevation + angle - main.angle, -90, 90);
      const thick = spread(own.d, d).map((x) => Math.max(0.3 * own.d, x));
      const steep = spread(main.angle, deg).map((x) => Math.max(1, x));
      return [
        ...tried('d', d, thick, (x) =>
          decideFor({ ...own, d: x, tipD: Math.min(x, (own.tipD * x) / own.d) }, { ...main, diameter: (main.diameter * x) / own.d }),
        ),
        ...tried('deg', deg, steep, (x) => decideFor(own, { ...main, angle: x })).map((w) => ({ ...w, low: slopeBy(w.low), high: slopeBy(w.high) })),
      ];
    })
    .sort((a, b) => b.chance - a.chance || thickness(b) - thickness(a) || (a.branch < b.branch ? -1 : 1))
    .slice(0, MOST);
}

type Seen = NonNullable<Parameters<typeof raceIfWired>[3]>;

function decisionOf(placed: PlacedTree, bend: PlanBend, branch: string, metal: 'aluminium' | 'copper' | undefined, onDay: number, seen: Seen): Decision {
  const held = bendHeld(placed, branch, bend);
  const wire = chooseWire(held, metal ?? 'copper', placed.tree.plan.firmness);
  const { diameter, angleDeg, length, k0, protection } = held;
  if (!wire) return { wire: null, band: bandOf(bendRisk({ diameter, angleDeg, length, k0, protection })), off: null };
  const { size, strands, metal: of } = wire;
  const put = {
    branch,
    metal: of,
    size,
    strands,
    angle: 45,
    gap: gapFor(placed.byId.get(branch)!),
    bentDeg: wire.bendToDeg,
    targetDeg: angleDeg,
    over: length,
  };
  const { window, limit } = raceIfWired(placed, put, onDay, seen);
  return { wire: { size, strands, metal: of }, band: wire.band, off: window?.from ?? limit };
}

const sameWire = (a: Decision['wire'], b: Decision['wire']): boolean => a?.size === b?.size && a?.strands === b?.strands;
const otherDay = (a: Decision, b: Decision): boolean => a.off !== null && b.off !== null && Math.abs(a.off - b.off) > ANOTHER_DATE;
const differs = (a: Decision, b: Decision): boolean => !sameWire(a.wire, b.wire) || a.band !== b.band || otherDay(a, b);

const sayWire = (wire: Decision['wire']): string =>
  wire ? `${wire.strands > 1 ? `${['', 'one', 'two', 'three'][wire.strands] ?? wire.strands} of ` : ''}${sayThick(wire.size)}` : 'a tie';

/** What the two ends of what it may be come to. */
function sayBetween(low: Decision, high: Decision): string {
  const metal = low.wire?.metal ?? high.wire?.metal;
  if (!sameWire(low.wire, high.wire)) return `${sayWire(low.wire)} or ${sayWire(high.wire)}${metal ? ` ${metal}` : ''}`;
  if (low.band !== high.band) return `${low.band} or ${high.band === 'no' ? 'too much for one season' : high.band}`;
  if (otherDay(low, high)) return `off from ${sayDay(low.off!)} or from ${sayDay(high.off!)}`;
  return 'another wire between the two';
}
