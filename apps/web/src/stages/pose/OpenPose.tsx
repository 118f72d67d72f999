import { POSE_FIELDS, sayForce, type AsGrown, type PlanPose, type Pose } from '@ustle/core';
import { NumberField } from '../../shared/NumberField';
import { Quiet } from '../../shared/parts';
import type { NumberRule } from '../../shared/numbers';
import { useDesk } from '../desk';
import { usePose } from './kit';
import { BendList } from './BendList';
import { BentLog } from './BentLog';
import { Compact } from './Compact';
import { WoodQuestion } from './WoodQuestion';
import { deg } from './words';

/** Where the branch shall go, in figures. */
function Where({ id, now, pose }: { id: string; now: PlanPose['now']; pose: PlanPose | undefined }) {
  const { tree, act } = useDesk();
  const own = tree.plan.poses.find((p) => p.branch === id);
  const at = pose ?? now;
  const set = (to: Partial<Pose>): void =>
    void act({ kind: 'pose', ...own, branch: id, stays: false, bearing: at.bearing, elevation: at.elevation, ...to, bends: [] });
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-2">
      <NumberField
        label="Towards"
        rule={POSE_FIELDS.bearing as unknown as NumberRule}
        unit="° bearing"
        value={at.bearing}
        onValue={(v) => v !== null && set({ bearing: v })}
      />
      <NumberField
        label="Slope"
        rule={POSE_FIELDS.elevation as unknown as NumberRule}
        unit="°"
        value={at.elevation}
        onValue={(v) => v !== null && set({ elevation: v })}
      />
    </div>
  );
}

/** The same place reached by pulling alone. */
function PulledAlone() {
  const { arching, setArching, pulled } = usePose();
  return (
    <div>
      <Quiet onClick={() => setArching(!arching)}>{arching ? 'Without pulling alone' : 'Beside pulling alone'}</Quiet>
      {arching && pulled && (
        <p>
          Its tip only pulled there, with {sayForce(pulled.pullN)}, it stands {pulled.arch.toFixed(0)} mm off its straight line in one even arch, strained{' '}
          {(pulled.strain * 100).toFixed(1)}% at {pulled.strainAt.toFixed(0)} mm. Wired it has its drop at the shoulder and its own line (
          {pulled.wired.toFixed(0)} mm off).
          {pulled.missed > 2 ? ` Pulled it comes no nearer than ${pulled.missed.toFixed(0)} mm.` : ''}
        </p>
      )}
    </div>
  );
}

const worstOf = (pose: PlanPose): PlanPose['bends'][number] | undefined => [...pose.bends].sort((a, b) => b.risk - a.risk)[0];
const sayPose = (p: PlanPose): string => {
  const worst = worstOf(p);
  return `${deg(p.bearing)}, ${deg(p.elevation)} steep, reaching ${p.reach} mm; ${worst ? `${worst.band}, ${worst.stages ?? 'too many'} ${worst.stages === 1 ? 'stage' : 'stages'}` : 'no bend'}`;
};

/** Another pose of the branch, kept beside its own. */
function Compare({ id, pose }: { id: string; pose: PlanPose | undefined }) {
  const { tree, act } = useDesk();
  const { other } = usePose();
  const own = tree.plan.poses.some((p) => p.branch === id);
  const kept = tree.plan.aside?.some((p) => p.branch === id);
  if (!kept)
    return own && pose ? <Quiet onClick={() => void act({ kind: 'pose-aside', branch: id, what: 'keep' })}>Keep it to compare another with</Quiet> : null;
  return (
    <div className="border-l-4 border-indigo bg-sheet px-3 py-2">
      {pose && <p>This one: {sayPose(pose)}.</p>}
      <p>The other{other ? `: ${sayPose(other.pose)}. It lies in wider dots.` : ' is being worked out.'}</p>
      <span className="flex gap-4">
        <Quiet onClick={() => void act({ kind: 'pose-aside', branch: id, what: 'swap' })}>Take the other</Quiet>
        <Quiet onClick={() => void act({ kind: 'pose-aside', branch: id, what: 'forget' })}>Forget the other</Quiet>
      </span>
    </div>
  );
}

/** One branch: why it goes there, its bends, and what can be done about it. */
export function OpenPose({ id, pose, still }: { id: string; pose: PlanPose | undefined; still: AsGrown | undefined }) {
  const { tree, act } = useDesk();
  const { accept } = usePose();
  const own = tree.plan.poses.find((p) => p.branch === id);
  const now = pose?.now ?? { bearing: still?.bearing ?? 0, elevation: still?.elevation ?? 0 };
  const accepted = own !== undefined && own.bends.length > 0;
  const dead = tree.branches.find((b) => b.id === id)?.state === 'dead';
  return (
    <div className="space-y-2.5 px-2 pb-3">
      {(pose?.because ?? still?.because ?? []).map((b) => (
        <p key={b}>{b}</p>
      ))}
      {!dead && (
        <>
          <div className="flex flex-wrap gap-1.5">
            {pose && (
              <button
                type="button"
                className={`btn btn-sm ${accepted ? 'btn-outline border-rule font-normal' : 'btn-primary'}`}
                disabled={accepted}
                onClick={() => void accept()}
              >
                {accepted ? 'Accepted' : 'Accept'} <kbd className="text-[0.94rem] opacity-70">A</kbd>
              </button>
            )}
            {pose && (
              <button
                type="button"
                className="btn btn-outline btn-sm border-rule font-normal"
                onClick={() => void act({ kind: 'pose', branch: id, ...now, stays: true, bends: [] })}
              >
                Leave as it grows
              </button>
            )}
            {own && (
              <button type="button" className="btn btn-outline btn-sm border-rule font-normal" onClick={() => void act({ kind: 'unpose', branch: id })}>
                Propose anew
              </button>
            )}
          </div>
          <Where id={id} now={now} pose={pose} />
          {pose && <WoodQuestion id={id} pose={pose} />}
          {pose && <BendList pose={pose} />}
          {pose && <PulledAlone />}
          <Compare id={id} pose={pose} />
          <Compact id={id} pose={pose} />
          {pose && <BentLog id={id} pose={pose} />}
        </>
      )}
    </div>
  );
}
