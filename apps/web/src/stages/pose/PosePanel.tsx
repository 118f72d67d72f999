import { HABITS, sayBranches, slopeProfile, turnBetween, type Habit } from '@ustle/core';
import { BeadGlyph } from '../../shared/BeadGlyph';
import { Caution, Choice, PanelHead, Quiet, Skeleton, Tabs } from '../../shared/parts';
import { count } from '../../shared/say';
import { useDesk } from '../desk';
import { usePose, type Sheet } from './kit';
import { keptPose } from './kept';
import { BranchList } from './BranchList';
import { SlopeLadder } from './SlopeLadder';
import { TrunkSheet } from './TrunkSheet';
import { MOVEMENT_NAMES } from './words';

const SHEETS: { key: Sheet; name: string }[] = [
  { key: 'branches', name: 'Branches' },
  { key: 'trunk', name: 'Trunk' },
];

const HABIT_NAMES: Record<Habit, string> = { down: 'down and out', level: 'level', up: 'up and out' };
const HABIT_OPTIONS: { value: Habit | 'drawn'; name: string }[] = HABITS.map((value) => ({ value, name: HABIT_NAMES[value] }));

/** Poses whose own bends lead elsewhere now: the planting angle has changed, or what they grow on. */
function Astray() {
  const { tree, plan, names, act } = useDesk();
  const own = new Map(tree.plan.poses.map((p) => [p.branch, p]));
  const astray = (plan?.poses ?? []).filter((p) => own.get(p.branch)?.bends.length && p.because.some((b) => b.startsWith('Its bends lead')));
  if (!astray.length) return null;
  const anew = async (): Promise<void> => {
    for (const p of astray) await act({ kind: 'pose', ...own.get(p.branch)!, bends: [] });
  };
  return (
    <p className="mb-3 border-l-4 border-ochre bg-base-100 px-3 py-2">
      {astray.map((p) => names(p.branch)).join(', ')}: as the tree stands now, {astray.length === 1 ? 'its bends lead' : 'their bends lead'} elsewhere. The
      poses mean the same as before. <Quiet onClick={() => void anew()}>Find the bends anew</Quiet>
    </p>
  );
}

/** Takes every pose as it is shown; single ones are changed after. */
function AcceptAll() {
  const { tree, plan, act } = useDesk();
  const own = new Map(tree.plan.poses.map((p) => [p.branch, p]));
  const open = (plan?.poses ?? []).filter((p) => !own.get(p.branch)?.bends.length);
  if (open.length < 2) return null;
  return (
    <button
      type="button"
      className="btn btn-primary mb-1 mt-4 w-full"
      onClick={() => void act({ kind: 'poses', poses: open.map((p) => keptPose(p, own.get(p.branch))) })}
    >
      Accept all {open.length} as shown
    </button>
  );
}

/** What has to move after a planting angle: how many, and which most. */
function Moving() {
  const { tree, plan, names } = useDesk();
  const { pitch = 0, roll = 0 } = tree.plan.front ?? {};
  if (!plan || (!pitch && !roll)) return null;
  const far = plan.poses
    .filter((p) => tree.branches.find((b) => b.id === p.branch)?.parent === 'trunk' && turnBetween(p.now, p) > 15)
    .sort((a, b) => turnBetween(b.now, b) - turnBetween(a.now, a));
  return (
    <p className="mt-1 text-quiet">
      At its planting angle {count(far.length, 'main branch has', 'main branches have')} to move by more than 15°
      {far.length
        ? `: ${sayBranches(
            names,
            far.map((p) => p.branch),
            5,
          )}`
        : ''}
      .
    </p>
  );
}

function BranchesSheet() {
  const { tree, act } = useDesk();
  const profile = slopeProfile(tree);
  const drawn = profile.kind === 'drawn';
  return (
    <>
      <SlopeLadder />
      <p className="mb-2 text-[0.94rem] leading-5 text-quiet">
        <svg width="22" height="10" aria-hidden="true" className="mr-1 inline">
          <path d="M2 5H20" stroke="var(--color-bark)" strokeWidth="4" strokeLinecap="round" />
        </svg>
        as it stands,
        <svg width="22" height="10" aria-hidden="true" className="mx-1 inline">
          <path d="M2 5H20" stroke="var(--color-indigo)" strokeWidth="3.5" strokeDasharray="0.5 5.5" strokeLinecap="round" />
        </svg>
        as wanted. Drag the curve or a stroke, or draw a curve of your own.
      </p>
      <div className="space-y-2">
        <Choice
          label="Slopes"
          value={profile.kind}
          options={drawn ? [...HABIT_OPTIONS, { value: 'drawn', name: 'your curve' }] : HABIT_OPTIONS}
          onChange={(habit) => habit !== 'drawn' && void act({ kind: 'posing', habit, curve: null })}
        />
        <Choice
          label="Movement"
          value={tree.plan.posing?.movement ?? 'moderate'}
          options={MOVEMENT_NAMES}
          onChange={(movement) => void act({ kind: 'posing', movement })}
        />
      </div>
      <AcceptAll />
      <BranchList />
      <p className="mb-3 mt-2 flex flex-wrap items-center gap-x-3 text-[0.94rem] text-quiet">
        {(['calm', 'careful', 'heavy', 'no'] as const).map((band) => (
          <span key={band} className="flex items-center">
            <BeadGlyph band={band} /> {band === 'no' ? 'too much' : band}
          </span>
        ))}
      </p>
      <Caution>
        A branch under load snaps and springs: eyes away from its line, both hands on the wood. Clamps, jacks and guys hold energy: stay out of line, let go
        slowly.
      </Caution>
    </>
  );
}

export function PosePanel() {
  const { tree, plan } = useDesk();
  const { sheet, setSheet } = usePose();
  if (!plan) return <Skeleton lines={9} />;
  return (
    <>
      <PanelHead title="Pose">
        {plan.poses.length
          ? `${count(plan.poses.length, 'branch', 'branches')} would move, ${count(plan.asGrown.length, 'stays as it is', 'stay as they are')}.`
          : 'Every branch lies where it should.'}
        {tree.plan.front ? '' : ' Choose a front first: then the first branch, depth and what points at you are seen to.'}
      </PanelHead>
      <Moving />
      <Tabs label="Pose" sheets={SHEETS} open={sheet} onOpen={setSheet} />
      <Astray />
      {sheet === 'branches' ? <BranchesSheet /> : <TrunkSheet />}
    </>
  );
}
