import { lengthOf, poseFaults, POSE_FIELDS, type CompactWay, type PlanPose, type Pose } from '@ustle/core';
import { BeadGlyph } from '../../shared/BeadGlyph';
import { NumberField } from '../../shared/NumberField';
import type { NumberRule } from '../../shared/numbers';
import { useAnswer, worker } from '../../jobs/use-planner';
import { useDesk } from '../desk';
import { usePlacedAfter } from '../posed-lines';

const REACH_RULE = (POSE_FIELDS.reach as unknown as { anyOf: NumberRule[] }).anyOf[0]!;

/** In one plane a branch becomes no shorter than about four fifths. */
const ONE_PLANE = 0.8;
const usualArcs = (share: number): Pick<Pose, 'arcs' | 'planes'> => (share < ONE_PLANE ? { arcs: 6, planes: 2 } : { arcs: 2, planes: 1 });

function Way({ way: w, chosen, onChoose }: { way: CompactWay; chosen: boolean; onChoose: () => void }) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={chosen}
        className={`flex w-full items-center gap-2 border px-2 py-1 text-left ${chosen ? 'border-copper' : 'border-rule'}`}
        onClick={onChoose}
      >
        <BeadGlyph band={w.band} />
        <span>
          {w.arcs} {w.arcs === 1 ? 'arc' : 'arcs'} in {w.planes === 1 ? 'one plane' : 'two planes'}
          <span className="block text-quiet">
            radius {w.radius.toFixed(0)} mm, {w.sideways.toFixed(0)} mm off its way{w.bears && w.roll > 20 ? `, its pad turned by ${w.roll.toFixed(0)}°` : ''}
            {w.bears
              ? ''
              : w.roll > 30
                ? ': its pad comes to lie on its side'
                : w.gap < 2
                  ? ': it comes against other wood'
                  : ': more than this wood takes, or not so short'}
          </span>
        </span>
      </button>
    </li>
  );
}

/** A long bare branch made shorter: the ways that its wood takes, and what else would do. */
export function Compact({ id, pose }: { id: string; pose: PlanPose | undefined }) {
  const { tree, plan, act, names } = useDesk();
  const placed = usePlacedAfter(tree);
  const b = placed.byId.get(id)!;
  const length = lengthOf(b.line);
  const own = tree.plan.poses.find((p) => p.branch === id);
  const reach = own?.reach ?? null;
  const at = pose ?? own ?? { bearing: b.branch.bearing, elevation: b.branch.elevation };
  const base: Pose = { branch: id, bearing: at.bearing, elevation: at.elevation, bends: [] };
  const found = useAnswer(
    () =>
      reach !== null && reach < length && plan
        ? worker('weighing').compact(tree, plan.poses, { branch: id, bearing: at.bearing, elevation: at.elevation, reach })
        : Promise.resolve(null),
    [tree, plan, reach],
  );
  const ways = found ? (found.least === null ? found.ways.filter((w) => w.bears).slice(0, 5) : found.ways.slice(0, 2)) : [];
  const set = (to: Partial<Pose>): void =>
    void act({ kind: 'pose', ...base, ...(own?.reach ? { reach: own.reach, arcs: own.arcs ?? 2, planes: own.planes ?? 1 } : {}), ...to });
  const shoot = tree.branches.filter((s) => s.parent === id && s.at < (reach ?? length) && s.green > 0).sort((x, y) => y.at - x.at)[0];
  return (
    <details open={reach !== null} className="border-t border-rule pt-2">
      <summary className="cursor-pointer">
        Make it shorter{b.branch.bareTo > 0.5 ? `: it is bare for ${Math.round(b.branch.bareTo * 100)}% of its ${length.toFixed(0)} mm` : ''}
      </summary>
      <div className="mt-2 space-y-2">
        <NumberField
          inline
          open
          label="reaching"
          unit={`mm of ${length.toFixed(0)}`}
          rule={REACH_RULE}
          value={reach}
          check={(v) => (v === null ? null : (poseFaults(b.branch, { ...base, reach: v })[0]?.message ?? null))}
          onValue={(v) => set({ reach: v, ...(v ? usualArcs(v / length) : {}) })}
        />
        {reach !== null && (
          <ul className="space-y-1">
            {ways.map((w) => (
              <Way
                key={`${w.arcs} ${w.planes}`}
                way={w}
                chosen={own?.arcs === w.arcs && own.planes === w.planes}
                onChoose={() => set({ arcs: w.arcs, planes: w.planes })}
              />
            ))}
          </ul>
        )}
        {found && found.least !== null && (
          <p className="text-madder">
            However it is laid, this wood takes no less than {Math.ceil(found.least)} mm in one season, wrapped and with parallel wires.{' '}
            {shoot
              ? `Or cut it back to ${names(shoot.id).split(', ').slice(-1)[0]}, at ${shoot.at.toFixed(0)} mm, under Remove.`
              : 'It has no shoot to cut back to.'}{' '}
            Or graft a shoot nearer the trunk in spring, as the tree gains strength.
          </p>
        )}
      </div>
    </details>
  );
}
