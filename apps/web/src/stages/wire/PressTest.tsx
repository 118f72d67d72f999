import { useState } from 'react';
import { isSameWire, isUsable, METALS, standing, type MetalName, saySize } from '@ustle/core';
import { Choice } from '../../shared/parts';
import { useRack } from '../../shared/queries';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';
import { nearestSize, soldSizes } from '../../shared/wire-words';

/** A wire pressed against a branch: which of the two gave way says how stiff it is, and its siblings with it. */
export function PressTest({ branch, metal: usual, size: first }: { branch: string; metal: MetalName; size: number }) {
  const { tree, today, act, names } = useDesk();
  const [metal, setMetal] = useState(usual);
  const [size, setSize] = useState(first);
  const { data: rack } = useRack();
  const sizes = soldSizes(metal).sort((a, b) => a - b);
  const chosen = nearestSize(metal, size);
  const at = sizes.indexOf(chosen);
  const row = sizes.slice(Math.max(0, at - 2), at + 3);
  const onRack = (wire: number): boolean => rack?.stock.some((s) => isUsable(s) && isSameWire(s, { metal, size: wire })) ?? false;
  const before = standing(tree.record).filter((line) => line.kind === 'pushed' && line.branch === branch);
  const gave = (what: 'branch' | 'wire'): void => void act({ kind: 'pushed', on: today, branch, metal, size: chosen, strands: 1, gave: what });
  return (
    <details className="border-t border-rule pt-2">
      <summary className="cursor-pointer">Press a wire against {names(branch)}</summary>
      <div className="mt-2 space-y-3">
        <p className="text-quiet">Hold the wire across the branch where it is to bend, and press. Whichever gives way first is the weaker.</p>
        <Choice label="Metal" value={metal} options={METALS.map((m) => ({ value: m, name: m }))} onChange={setMetal} />
        <Choice
          label="Wire"
          value={String(chosen)}
          options={row.map((s) => ({ value: String(s), name: saySize(metal, s) }))}
          onChange={(s) => setSize(Number(s))}
        />
        {rack && rack.stock.length > 0 && (
          <p className="text-quiet">
            On the rack:{' '}
            {row
              .filter(onRack)
              .map((s) => saySize(metal, s))
              .join('; ') || 'none of these'}
            .
          </p>
        )}
        <div className="grid grid-cols-2 gap-2">
          <button type="button" className="btn h-16 btn-outline border-rule text-lg font-normal" onClick={() => gave('branch')}>
            The branch gave
          </button>
          <button type="button" className="btn h-16 btn-outline border-rule text-lg font-normal" onClick={() => gave('wire')}>
            The wire gave
          </button>
        </div>
        {before.map((line, i) =>
          line.kind === 'pushed' ? (
            <p key={line.id ?? i} className="text-quiet">
              {sayDate(line.on)}: {line.size?.toFixed(1)} mm {line.metal}, the {line.gave} gave.
            </p>
          ) : null,
        )}
      </div>
    </details>
  );
}
