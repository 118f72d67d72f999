import { BEND, greatestOf, poseFaults, sayByHand, type Bend, type PlanPose, sayTurn } from '@ustle/core';
import { BeadGlyph } from '../../shared/BeadGlyph';
import { NumberField } from '../../shared/NumberField';
import type { NumberRule } from '../../shared/numbers';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';
import { usePose } from './kit';
import { keptBend, keptPose } from './kept';
import { isInArcs } from './use-beads';
import { BANDS, bendName, deg, PROTECTIONS } from './words';

type Planned = PlanPose['bends'][number];
const RULES = BEND.properties as unknown as Record<'at' | 'over' | 'angle', NumberRule>;
const TOWARD = BEND.properties.toward.properties as unknown as Record<'bearing' | 'elevation', NumberRule>;

/** What the hand does, in the order it does it. */
function sayHand(b: Planned): string {
  const hand =
    b.handDeg === null
      ? 'No coil holds it: a tie may.'
      : `By hand to about ${sayByHand(b.handDeg)}; under the wire it settles at ${deg(b.settlesDeg!)} and stays at ${deg(b.angle)}${b.spreadDeg! >= 0.5 ? ` ± ${deg(b.spreadDeg!)}` : ''}.`;
  const stages =
    b.stages === null
      ? ''
      : b.stages === 1
        ? ' In one go, slowly.'
        : ` In ${b.stages} stages, ${b.rest} between${b.dates.length ? `: ${b.dates.map(sayDate).join(', ')}` : ''}.`;
  return hand + stages;
}

function Fields({ pose, index }: { pose: PlanPose; index: number }) {
  const { tree, act } = useDesk();
  const branch = tree.branches.find((b) => b.id === pose.branch)!;
  const own = tree.plan.poses.find((p) => p.branch === pose.branch);
  const bend = keptBend(pose.bends[index]!);
  const changed = (to: Partial<Bend>) => ({ ...keptPose(pose, own), bends: pose.bends.map((b, i) => (i === index ? { ...bend, ...to } : keptBend(b))) });
  const check =
    (to: (v: number) => Partial<Bend>) =>
    (v: number | null): string | null =>
      v === null ? null : (poseFaults(branch, changed(to(v)))[0]?.message ?? null);
  const field = (label: string, rule: NumberRule, value: number, to: (v: number) => Partial<Bend>, unit: string) => (
    <NumberField
      key={label}
      label={label}
      rule={rule}
      unit={unit}
      value={value}
      check={check(to)}
      onValue={(v) => v !== null && void act({ kind: 'pose', ...changed(to(v)) })}
    />
  );
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-3 gap-y-2">
      {field('Begins at', RULES.at, bend.at, (at) => ({ at }), 'mm')}
      {field('Spread over', RULES.over, bend.over, (over) => ({ over }), 'mm')}
      {field('Turned by', RULES.angle, bend.angle, (angle) => ({ angle }), '°')}
      <div />
      {field('Towards', TOWARD.bearing, bend.toward.bearing, (bearing) => ({ toward: { ...bend.toward, bearing } }), '°')}
      {field('Slope there', TOWARD.elevation, bend.toward.elevation, (elevation) => ({ toward: { ...bend.toward, elevation } }), '°')}
    </div>
  );
}

/** The arcs that make a branch shorter: made one behind the other, as they are drawn. */
function Arcs({ bends }: { bends: readonly Planned[] }) {
  const gravest = bends.reduce((a, b) => (b.risk > a.risk ? b : a));
  const [first, last] = [bends[0]!, bends[bends.length - 1]!];
  const most = greatestOf(bends.map((b) => b.handDeg ?? b.angle));
  return (
    <li className="flex gap-2 border-b border-rule py-1.5">
      <span className="shrink-0">
        <BeadGlyph band={gravest.band as 'calm'} />
      </span>
      <span>
        <strong>{bends.length} bends, each going on where the last ended</strong>, as they are drawn
        <span className="block text-quiet">
          {first.at} to {last.at + last.length} mm; by hand to about {sayByHand(most)} at most; {BANDS[gravest.band]}
        </span>
        {PROTECTIONS[gravest.protection] && `${PROTECTIONS[gravest.protection]![0]!.toUpperCase()}${PROTECTIONS[gravest.protection]!.slice(1)}.`}
      </span>
    </li>
  );
}

/** The bends of a pose from the shoulder; one of them open, to be changed. */
export function BendList({ pose }: { pose: PlanPose }) {
  const { bend: open, setBend } = usePose();
  return (
    <ol className="border-t border-rule">
      {pose.bends.map((b, i) => {
        if (b.kind === 'arc') return isInArcs(pose, i) ? null : <Arcs key={i} bends={pose.bends.filter((a) => a.kind === 'arc')} />;
        const turn = sayTurn(b.start, b.toward);
        return (
          <li key={i} className="border-b border-rule py-1.5">
            <button type="button" aria-expanded={open === i} className="flex w-full gap-2 text-left" onClick={() => setBend(open === i ? null : i)}>
              <span className="shrink-0">
                <BeadGlyph band={b.band as 'calm'} chosen={open === i} />
              </span>
              <span>
                <strong>
                  {deg(b.angle)} {turn}
                </strong>
                , {bendName(b, i).split(', ')[1]}
                <span className="block text-quiet">
                  {b.at} to {b.at + b.length} mm; radius {b.radius} mm, strain {(b.strain * 100).toFixed(1)}%, {BANDS[b.band]}
                </span>
              </span>
            </button>
            {b.nearest && (
              <p role="alert" className="pl-[34px] text-madder">
                {b.nearest}
              </p>
            )}
            {(open === i || b.kind === 'drop' || b.risk >= 0.6) && (
              <p className="pl-[34px]">
                {sayHand(b)} {PROTECTIONS[b.protection] && `${PROTECTIONS[b.protection]![0]!.toUpperCase()}${PROTECTIONS[b.protection]!.slice(1)}.`}
              </p>
            )}
            {open === i && <Fields pose={pose} index={i} />}
          </li>
        );
      })}
    </ol>
  );
}
