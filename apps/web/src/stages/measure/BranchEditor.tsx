import { useState } from 'react';
import { BRANCH, branchOf, crooked, lastCaliper, MATURITIES, sayDay, type Branch } from '@ustle/core';
import { Choice, Quiet } from '../../shared/parts';
import { percent } from '../../shared/say';
import { useDesk } from '../desk';
import { useMeasure } from './kit';

/** What a branch is called; by its place where nothing is typed. */
function Name({ branch }: { branch: Branch }) {
  const { names } = useDesk();
  const { change } = useMeasure();
  const [name, setName] = useState(branch.name ?? '');
  const leave = (): void => {
    if (name.trim() !== (branch.name ?? '')) void change(branch.id, { name: name.trim() });
  };
  return (
    <label className="block">
      <span className="mb-1 block text-quiet">Called</span>
      <input
        className="input w-full bg-base-100"
        maxLength={BRANCH.properties.name.maxLength}
        placeholder={names(branch.id)}
        value={name}
        onChange={(event) => setName(event.target.value)}
        onBlur={leave}
        onKeyDown={(event) => event.key === 'Enter' && leave()}
      />
    </label>
  );
}

/** Strokes of green, against the average branch: what no ruler gives. */
const STROKES = [
  { value: '0', name: 'none', times: 0 },
  { value: '1', name: 'little', times: 0.5 },
  { value: '2', name: 'as most', times: 1 },
  { value: '3', name: 'more', times: 1.8 },
  { value: '4', name: 'much', times: 3 },
] as const;

/** Bare part and green by eye. */
function ByEye({ branch }: { branch: Branch }) {
  const { tree } = useDesk().stored;
  const { change } = useMeasure();
  const [bare, setBare] = useState<number | null>(null);
  const others = tree.branches.filter((b) => b.id !== branch.id && b.green > 0);
  const usual = others.length ? others.reduce((sum, b) => sum + b.green, 0) / others.length : 0.9 / Math.max(1, tree.branches.length);
  const room = Math.max(0, 1 - tree.branches.reduce((sum, b) => sum + (b.id === branch.id ? 0 : b.green), 0));
  const nearest = STROKES.reduce((best, s) => (Math.abs(s.times * usual - branch.green) < Math.abs(best.times * usual - branch.green) ? s : best));
  const shown = bare ?? branch.bareTo;
  return (
    <>
      <label className="block">
        <span className="mb-1 block text-quiet">Bare from the shoulder, by eye: {percent(shown)}</span>
        <input
          type="range"
          className="range range-sm w-full"
          min={0}
          max={100}
          step={5}
          value={Math.round(shown * 100)}
          onChange={(event) => setBare(Number(event.target.value) / 100)}
          onPointerUp={() => bare !== null && void change(branch.id, { bareTo: bare })}
          onKeyUp={() => bare !== null && void change(branch.id, { bareTo: bare })}
        />
      </label>
      <Choice
        label="Green, beside the other branches"
        value={nearest.value}
        options={STROKES}
        onChange={(value) => {
          const wanted = STROKES.find((s) => s.value === value)!.times * usual;
          void change(branch.id, { green: Math.round(Math.min(room, wanted) * 1000) / 1000 });
        }}
      />
    </>
  );
}

/** When its thickness was measured, and what it has grown to since, as reckoned. */
function Thickness({ branch }: { branch: Branch }) {
  const { stored, tree } = useDesk();
  const last = lastCaliper(stored.tree, branch.id, Infinity);
  const now = branchOf(tree, branch.id)?.d;
  if (!last || last.day === null || !now) return null;
  return (
    <p className="text-quiet">
      {last.d.toFixed(1)} mm thick on {sayDay(last.day)}
      {now > last.d ? `, about ${now.toFixed(1)} mm today by its kind’s usual growth` : ''}.
    </p>
  );
}

/** One branch with what does not fit into the list's line, and what can be done with the line. */
export function BranchEditor({ branch }: { branch: Branch }) {
  const { stored, names } = useDesk();
  const { tree } = stored;
  const { change, indent, mirror, copy, takeOut, hasShoots } = useMeasure();
  const first = tree.branches[0]?.id === branch.id;
  return (
    <section className="mt-4 space-y-3 border-t border-rule pt-3" aria-label={names(branch.id)}>
      <h3 className="text-lg">
        {names(branch.id)} <span className="text-base font-normal text-quiet">{branch.id} in the file</span>
      </h3>
      <Thickness branch={branch} />
      <Name key={branch.id} branch={branch} />
      <ByEye key={`eye ${branch.id}`} branch={branch} />
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <Choice
          label="It is"
          value={branch.stage}
          options={MATURITIES.map((m) => ({ value: m, name: m === 'shoot' ? 'a green shoot' : 'wood' }))}
          onChange={(stage) => void change(branch.id, { stage })}
        />
        <label className="flex min-h-9 items-center pointer-coarse:min-h-11 gap-3">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={branch.backBuds}
            onChange={(event) => void change(branch.id, { backBuds: event.target.checked })}
          />
          back buds show on it
        </label>
      </div>
      {branch.path ? (
        <p className="text-quiet">It is crooked: drag its points on the tree, or move them with the arrow keys.</p>
      ) : (
        <button
          type="button"
          className="btn btn-outline btn-sm border-rule font-normal"
          onClick={() => void change(branch.id, { path: crooked(branch).path! })}
        >
          It is crooked
        </button>
      )}
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {!first && <Quiet onClick={() => indent(branch, true)}>it grows on the one above</Quiet>}
        {branch.parent !== 'trunk' && <Quiet onClick={() => indent(branch, false)}>one order back</Quiet>}
        <Quiet onClick={() => mirror(branch)}>another on the other side</Quiet>
        <Quiet onClick={() => copy(branch)}>another like it</Quiet>
        <Quiet onClick={() => takeOut(branch)}>take it out{hasShoots(branch) ? ', and what grows on it' : ''}</Quiet>
      </div>
    </section>
  );
}
