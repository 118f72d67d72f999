import { useState } from 'react';
import {
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

/** A piece as its artist wants it: what is changed here stays, and the rest of the plan is made to go with it. */
export function ChangePiece({ run, settled }: { run: PlanRun; settled: boolean }) {
  const { tree, plan, act, names } = useDesk();
  const [open, setOpen] = useState(false);
  const parent = tree.branches.find((b) => b.id === run.branches[0]!.branch)?.parent;
  const partners = tree.branches.filter((b) => b.parent === parent && b.state !== 'dead' && !run.branches.some((r) => r.branch === b.id)).map((b) => b.id);
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
  const pairWith = (branch: string): void => {
    const other = plan?.runs.flatMap((r) => r.branches).find((b) => b.branch === branch);
    const first = asIs.branches[0]!;
    const winds = (wanted: { hand: Hand; start: Start }): { hand: Hand; start: Start }[] => [
      wanted,
      ...HAND_NAMES.flatMap((h) => START_NAMES.map((s) => ({ hand: h.value, start: s.value }))),
    ];
    // As each is planned where a way leads from the one to the other, else as there is one.
    const all = winds(first).flatMap((a) =>
      winds(other ?? { hand: first.hand === 'cw' ? 'ccw' : 'cw', start: 'over' }).map((b) => [
        { ...first, ...a },
        { branch, hand: b.hand, start: b.start },
      ]),
    );
    const joined = all.find((branches) => whyNotJoined(tree, { ...asIs, id: run.id, branches } as Run) === null);
    change({ branches: joined ?? all[0]! });
  };
  return (
    <div className="border-t border-rule pt-2">
      <div className="flex flex-wrap gap-x-4">
        {settled ? (
          <Quiet onClick={() => void act({ kind: 'unrun', run: run.id })}>let it be planned anew</Quiet>
        ) : (
          <Quiet onClick={() => change({})}>settle it as it is</Quiet>
        )}
        {run.branches.length > 1 && <Quiet onClick={() => change({ branches: asIs.branches.slice(0, 1) })}>split it</Quiet>}
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
              value={run.branches[1]?.branch ?? ''}
              options={[
                ...(run.branches[1] ? [{ value: run.branches[1].branch, name: names(run.branches[1].branch) }] : [{ value: '', name: 'no other branch' }]),
                ...partners.map((b) => ({ value: b, name: names(b) })),
              ]}
              onChange={(branch) => branch && pairWith(branch)}
            />
          )}
        </div>
      )}
    </div>
  );
}
