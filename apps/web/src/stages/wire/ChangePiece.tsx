import { useState } from 'react';
import {
  canBeWoundOn,
  METALS,
  whyNotJoined,
  WIRE_FIELDS,
  type Hand,
  type Intent,
  type MetalName,
  type PlanRun,
  type RouteSide,
  type Run,
  type Start,
  saySize,
} from '@ustle/core';
import { NumberField } from '../../shared/NumberField';
import { Choice, Pick, Quiet } from '../../shared/parts';
import { useDesk } from '../desk';
import { nearestSize, soldSizes } from '../../shared/wire-words';

type RunAct = Extract<Intent, { kind: 'run' }>;

const HAND_NAMES: { value: Hand; name: string }[] = [
  { value: 'cw', name: 'clockwise' },
  { value: 'ccw', name: 'counter-clockwise' },
];
const START_NAMES: { value: Start; name: string }[] = [
  { value: 'over', name: 'over' },
  { value: 'under', name: 'from beneath' },
];

type Winding = Pick<RunAct['branches'][number], 'hand' | 'start'>;

/** All ways to wind on a branch, the wanted one first. */
const windings = ({ hand, start }: Winding): Winding[] => [
  { hand, start },
  ...HAND_NAMES.flatMap((h) => START_NAMES.map((s) => ({ hand: h.value, start: s.value }))),
];

/** A piece as its artist wants it: what is changed here stays, and the rest of the plan is made to go with it. */
export function ChangePiece({ run, settled }: { run: PlanRun; settled: boolean }) {
  const { tree, plan, act, names } = useDesk();
  const [open, setOpen] = useState(false);
  const ends = run.branches.filter((b) => b.onFrom === null);
  const parent = tree.branches.find((b) => b.id === ends[0]!.branch)?.parent;
  const livingOn = (limb: string | undefined): string[] => tree.branches.filter((b) => b.parent === limb && b.state !== 'dead').map((b) => b.id);
  const partners = livingOn(parent).filter((id) => !run.branches.some((r) => r.branch === id));
  const asIs: RunAct = {
    kind: 'run',
    run: run.id,
    metal: run.metal,
    size: run.size,
    strands: run.strands,
    angle: run.angle,
    branches: run.branches.map(({ branch, hand, start }) => ({ branch, hand, start })),
    length: run.length,
  };
  const change = (changes: Partial<RunAct>): void => void act({ ...asIs, ...changes });
  const wind = (i: number, to: { hand?: Hand; start?: Start }): void => change({ branches: asIs.branches.map((b, k) => (k === i ? { ...b, ...to } : b)) });
  /** As each is planned where one piece leads to all, else as there is one. */
  const changeTo = (all: RunAct['branches'][]): void =>
    change({ branches: all.find((branches) => whyNotJoined(tree, { ...asIs, id: run.id, branches } as Run) === null) ?? all[0]! });
  const asPlanned = (branch: string): Winding | undefined => plan?.runs.flatMap((r) => r.branches).find((b) => b.branch === branch);
  const pairWith = (branch: string): void => {
    const first = ends[0]!;
    const kept = asIs.branches.filter((_, i) => run.branches[i] === first || run.branches[i]!.onFrom === first.branch);
    changeTo(
      windings(first).flatMap((a) =>
        windings(asPlanned(branch) ?? { hand: first.hand === 'cw' ? 'ccw' : 'cw', start: 'over' }).map((b) => [
          ...kept.map((own) => (own.branch === first.branch ? { ...own, ...a } : own)),
          { branch, ...b },
        ]),
      ),
    );
  };
  const goOnAlong = (end: string, shoot: string): void => {
    const kept = asIs.branches.filter((_, i) => run.branches[i]!.onFrom !== end);
    changeTo(shoot === '' ? [kept] : windings(asPlanned(shoot) ?? { hand: 'cw', start: 'over' }).map((w) => [...kept, { branch: shoot, ...w }]));
  };
  return (
    <div className="border-t border-rule pt-2">
      <div className="flex flex-wrap gap-x-4">
        {settled ? (
          <Quiet onClick={() => void act({ kind: 'unrun', run: run.id })}>let it be planned anew</Quiet>
        ) : (
          <Quiet onClick={() => change({})}>settle it as it is</Quiet>
        )}
        {run.branches.length > 1 && <Quiet onClick={() => change({ branches: asIs.branches.filter((b) => b.branch === ends[0]!.branch) })}>split it</Quiet>}
        <Quiet onClick={() => setOpen(!open)}>{open ? 'change nothing' : 'change it'}</Quiet>
      </div>
      {open && (
        <div className="mt-2 space-y-3">
          <Choice
            label="Metal"
            value={run.metal}
            options={METALS.map((m) => ({ value: m, name: m }))}
            onChange={(metal: MetalName) =>
              change({
                metal,
                size: nearestSize(metal, run.branches[0]!.rule[metal]),
              })
            }
          />
          <Pick
            label="Size"
            value={String(run.size)}
            options={[...new Set([...soldSizes(run.metal), run.size])].sort((a, b) => a - b).map((s) => ({ value: String(s), name: saySize(run.metal, s) }))}
            onChange={(size) => change({ size: Number(size) })}
          />
          <div className="grid grid-cols-2 gap-3">
            <NumberField label="Wires side by side" rule={WIRE_FIELDS.strands} value={run.strands} onValue={(v) => v && change({ strands: v })} unit="" />
            <NumberField label="Angle to the branch" rule={WIRE_FIELDS.angle} value={run.angle} onValue={(v) => v && change({ angle: v })} unit="degrees" />
          </div>
          {run.branches.map((part, i) => (
            <div key={part.branch} className="space-y-2">
              <p>{names(part.branch)}</p>
              <Choice label="Hand" value={part.hand} options={HAND_NAMES} onChange={(hand) => wind(i, { hand })} />
              <Choice label="Over the shoulder or from beneath" value={part.start} options={START_NAMES} onChange={(start) => wind(i, { start })} />
            </div>
          ))}
          {run.kind === 'pair' && tree.plan.front && (
            <Choice
              label="Round which side"
              value={run.route!.side}
              options={[
                { value: 'behind' as RouteSide, name: 'the back' },
                { value: 'front' as RouteSide, name: 'the front' },
              ]}
              onChange={(side) => change({ side })}
            />
          )}
          {partners.length > 0 && (
            <Pick
              label="Its other half goes on"
              value={ends[1]?.branch ?? ''}
              options={[
                ...(ends[1] ? [{ value: ends[1].branch, name: names(ends[1].branch) }] : [{ value: '', name: 'no other branch' }]),
                ...partners.map((b) => ({ value: b, name: names(b) })),
              ]}
              onChange={(branch) => branch && pairWith(branch)}
            />
          )}
          {ends.map(({ branch }) => {
            const shoots = livingOn(branch).filter((id) => canBeWoundOn(run.size, tree.branches.find((b) => b.id === id)!.d));
            return (
              shoots.length > 0 && (
                <Pick
                  key={branch}
                  label={`From ${names(branch)} it goes on along`}
                  value={run.branches.find((b) => b.onFrom === branch)?.branch ?? ''}
                  options={[{ value: '', name: 'no shoot: to its own tip' }, ...shoots.map((b) => ({ value: b, name: names(b) }))]}
                  onChange={(shoot) => goOnAlong(branch, shoot)}
                />
              )
            );
          })}
        </div>
      )}
    </div>
  );
}
