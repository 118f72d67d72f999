import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { WorkStep } from '@ustle/core';
import { Dialog } from '../../shared/Dialog';
import { useDesk } from '../desk';
import type { Give } from './StepCard';

/** Changed my mind: about what; the plan is changed where that is done, and the session follows it. */
export function Changed({ step, give, onClose }: { step: WorkStep; give: Give; onClose: () => void }) {
  const { stored, names } = useDesk();
  const navigate = useNavigate();
  const [why, setWhy] = useState('');
  const branch = step.branches.find((b) => b !== 'trunk');
  const places = [
    ...(branch
      ? [
          { stage: 'remove', name: `Whether ${names(branch)} stays` },
          { stage: 'pose', name: 'Where it goes' },
          { stage: 'wire', name: 'Its wire' },
          { stage: 'guy', name: 'Its tie' },
        ]
      : []),
    { stage: 'front', name: 'The front' },
  ];
  const go = async (stage: string): Promise<void> => {
    if (!(await give('changed', why.trim() ? { text: why.trim() } : {}))) return;
    void navigate(`/tree/${stored.id}/${stage}${branch ? `?branch=${branch}` : ''}`);
  };
  return (
    <Dialog label="Changed my mind" onClose={onClose} back="Back to the step">
      <h2 className="text-2xl">Changed my mind</h2>
      <p className="mt-1 text-lg">
        About what? Change it there and come back to Work: the session follows the plan, and says what of the done work it touches.
      </p>
      <label className="mt-3 block">
        <span className="mb-1 block text-quiet">Why (for the record)</span>
        <input className="input w-full bg-base-100" maxLength={1000} value={why} onChange={(event) => setWhy(event.target.value)} />
      </label>
      <div className="mt-3 grid gap-2">
        {places.map(({ stage, name }, i) => (
          <button
            key={stage}
            type="button"
            {...(i ? {} : { 'data-first': true })}
            className="btn btn-outline btn-primary min-h-14 justify-start text-lg"
            onClick={() => void go(stage)}
          >
            {name}
          </button>
        ))}
      </div>
    </Dialog>
  );
}
