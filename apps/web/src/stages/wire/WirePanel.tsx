import { useState } from 'react';
import { coilsOn, dayOf, METALS, METAL_DATA, gaugeOf, type MetalName, type RunPlan, type RunBranchPlan, type Wrap } from '@ustle/core';
import { useNotice } from '../../app/notice';
import { postWired } from '../../shared/api';
import { Caution, Choice, PanelHead, Skeleton } from '../../shared/parts';
import { percent, sayDate, sayMetal } from '../../shared/say';
import { useDesk } from '../tree-context';

const HANDS = { cw: 'clockwise', ccw: 'counter-clockwise' } as const;
const SNUG = [
  { value: '0', name: 'snug' },
  { value: '0.3', name: 'slight gap' },
  { value: '0.8', name: 'loose' },
] as const;
const WRAPS: { value: Wrap; name: string }[] = [
  { value: 'none', name: 'no wrap' },
  { value: 'raffia', name: 'raffia' },
  { value: 'tape', name: 'tape' },
];

function Facts({ run, part }: { run: RunPlan; part: RunBranchPlan }) {
  const facts: [string, string][] = [
    ['Wind', `${HANDS[part.hand]}, starting ${part.start} the shoulder`],
    ['Turns', `${part.turns.toFixed(1)} at ${run.angle}° to the branch`],
    ['Piece', `${run.length.toFixed(0)} mm, ${run.mass.toFixed(0)} g`],
    ['Bend to', `${part.bendTo.toFixed(0)}° by hand, over ${part.bendLength.toFixed(0)} mm`],
    ['Springs back', `${percent(part.springBack)}, under the wire`],
    ['Rules of thumb', `aluminium ${part.rule.aluminium.toFixed(1)} mm, copper ${part.rule.copper.toFixed(1)} mm`],
  ];
  return (
    <dl className="grid grid-cols-[108px_1fr] gap-x-3 gap-y-1">
      {facts.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-quiet">{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

/** What was really put on may differ from the plan: all of it can be said here. */
function PutOn({ run, part }: { run: RunPlan; part: RunBranchPlan }) {
  const { view, today } = useDesk();
  const { attempt } = useNotice();
  const [on, setOn] = useState(today);
  const [metal, setMetal] = useState<MetalName>(run.metal);
  const [size, setSize] = useState(run.size);
  const [strands, setStrands] = useState(run.strands);
  const [gap, setGap] = useState<(typeof SNUG)[number]['value']>('0');
  const [wrap, setWrap] = useState<Wrap>('none');
  const [bent, setBent] = useState(part.bendTo);
  const sizes = [...new Set([...METAL_DATA[metal].sizes.map((s) => Math.round(s * 100) / 100), ...(metal === run.metal ? [run.size] : [])])].sort(
    (a, b) => a - b,
  );
  const changeMetal = (to: MetalName): void => {
    setMetal(to);
    setSize(
      METAL_DATA[to].sizes.map((s) => Math.round(s * 100) / 100).reduce((best, s) => (Math.abs(s - part.rule[to]) < Math.abs(best - part.rule[to]) ? s : best)),
    );
  };
  const save = (): void =>
    void attempt(() =>
      postWired(view, {
        on,
        branch: part.branch,
        metal,
        size,
        strands,
        angle: run.angle,
        hand: part.hand,
        start: part.start,
        gap: Number(gap),
        wrap,
        bentDeg: bent,
        targetDeg: part.target,
        over: part.bendLength,
      }),
    );
  return (
    <form
      className="space-y-3 border-t border-rule pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <h3 className="text-lg">Put on</h3>
      <div className="grid grid-cols-2 gap-3">
        <label>
          <span className="mb-1 block text-[14px] text-quiet">On</span>
          <input type="date" required className="input bg-base-100" value={on} max={today} onChange={(event) => setOn(event.target.value)} />
        </label>
        <label>
          <span className="mb-1 block text-[14px] text-quiet">Bent to, degrees</span>
          <input
            type="number"
            required
            min={1}
            max={180}
            step={0.1}
            className="input bg-base-100"
            value={bent}
            onChange={(event) => setBent(Number(event.target.value))}
          />
        </label>
        <label>
          <span className="mb-1 block text-[14px] text-quiet">Size</span>
          <select className="select bg-base-100" value={size} onChange={(event) => setSize(Number(event.target.value))}>
            {sizes.map((s) => (
              <option key={s} value={s}>
                {s.toFixed(1)} mm{metal === 'copper' && gaugeOf(s) !== null ? `, gauge ${gaugeOf(s)}` : ''}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="mb-1 block text-[14px] text-quiet">Wires side by side</span>
          <input
            type="number"
            required
            min={1}
            max={6}
            className="input bg-base-100"
            value={strands}
            onChange={(event) => setStrands(Number(event.target.value))}
          />
        </label>
      </div>
      <Choice label="Metal" value={metal} options={METALS.map((m) => ({ value: m, name: m }))} onChange={changeMetal} />
      <Choice label="How it lies" value={gap} options={SNUG} onChange={setGap} />
      <Choice label="Under it" value={wrap} options={WRAPS} onChange={setWrap} />
      <button type="submit" className="btn btn-primary w-full">
        It is on {part.branch}
      </button>
    </form>
  );
}

export function WirePanel() {
  const { tree, plan, branch, setBranch, today } = useDesk();
  if (!plan) return <Skeleton lines={9} />;
  const on = new Map(coilsOn(tree, dayOf(today)).map((c) => [c.branch, c]));
  const runs = plan.runs.filter((r) => r.branches.some((b) => !on.has(b.branch)));
  const chosenOn = branch ? plan.wires.find((w) => w.branch === branch) : undefined;
  return (
    <>
      <PanelHead title="Wire">
        {runs.length
          ? `${runs.length} ${runs.length === 1 ? 'branch' : 'branches'} to wire, thick before thin, from inside and below. Press a wire against the branch: whichever gives way is the weaker.`
          : 'No branch waits for wire.'}
      </PanelHead>
      {chosenOn && (
        <p className="mb-3 border-l-4 border-copper bg-base-100 px-3 py-2">
          {branch} carries wire since {sayDate(chosenOn.since)}. See it under Watch.
        </p>
      )}
      <ul className="mb-4 border-b border-rule">
        {runs.map((run) =>
          run.branches.map((part) => {
            const open = part.branch === branch;
            const pose = plan.poses.find((p) => p.branch === part.branch);
            const bend = pose?.bends[0];
            return (
              <li key={`${run.id}${part.branch}`} className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
                <button
                  type="button"
                  aria-expanded={open}
                  className="flex w-full items-baseline gap-3 px-2 py-2 text-left"
                  onClick={() => setBranch(open ? null : part.branch)}
                >
                  <strong className="w-10 shrink-0">{part.branch}</strong>
                  <span className="min-w-0 flex-1">
                    {run.strands > 1 && `${run.strands} × `}
                    {sayMetal(run.metal, run.size, run.gauge)}
                  </span>
                  <span className="text-quiet">
                    {part.target.toFixed(0)}°{bend && bend.band !== 'calm' ? `, ${bend.band}` : ''}
                  </span>
                </button>
                {open && (
                  <div className="space-y-3 px-2 pb-3">
                    {part.because.slice(0, 2).map((b) => (
                      <p key={b}>{b}</p>
                    ))}
                    <Facts run={run} part={part} />
                    {bend && (
                      <p className="text-quiet">
                        Risk {bend.risk.toFixed(2)} of what the wood takes, {bend.band}.{' '}
                        {bend.protection !== 'none' && `Under it: ${bend.protection === 'both' ? 'raffia and parallel wires' : bend.protection}. `}
                        {bend.stages !== null && bend.stages > 1 && `In ${bend.stages} stages, with rest between.`}
                      </p>
                    )}
                    <PutOn key={`${run.id}${run.size}`} run={run} part={part} />
                  </div>
                )}
              </li>
            );
          }),
        )}
      </ul>
      <Caution>
        A wire's end springs: hold it, and protect your eyes. Copper under load more so. Annealing is fire, hot metal and fumes: outdoors, and by someone who
        knows it.
      </Caution>
      {plan.unwired.length > 0 && (
        <details className="mt-4">
          <summary className="cursor-pointer">{plan.unwired.length} without wire, and why</summary>
          <ul className="mt-2 space-y-1">
            {plan.unwired.map((u) => (
              <li key={u.branch}>
                <strong>{u.branch}</strong> <span className="text-quiet">{u.because.join(' ')}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
