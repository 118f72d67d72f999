import { useState } from 'react';
import { MARK_STAGES, type MarkStage, type PlanWire, type UnwireMethod } from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { Caution } from '../../shared/parts';
import { StageGlyph } from '../../shared/StageGlyph';
import { useDesk } from '../desk';

/** Says what was seen on a coil, or that it came off. */
export function CoilActs({ wire }: { wire: PlanWire }) {
  const { today, act } = useDesk();
  const [on, setOn] = useState(today);
  const [unwiring, setUnwiring] = useState(false);
  const about = { on, branch: wire.branch, ...(wire.run ? { run: wire.run } : {}) };
  const inspect = (stage: MarkStage): void => void act({ ...about, kind: 'inspected', stage });
  const unwire = (method: UnwireMethod): void => void act({ ...about, kind: 'unwired', method });
  return (
    <div className="space-y-3 border-t border-rule pt-3">
      <DateField className="w-60" label="Seen on" value={on} today={today} min={wire.since} max={today} onValue={(iso) => setOn(iso!)} />
      <div role="group" aria-label="What you see" className="grid grid-cols-5 gap-1">
        {MARK_STAGES.map((stage) => (
          <button
            key={stage}
            type="button"
            className="flex h-[68px] flex-col items-center gap-1 pt-2 border border-rule bg-sheet text-[15px] tracking-tight leading-4 hover:border-copper"
            onClick={() => inspect(stage)}
          >
            <StageGlyph stage={stage} size={22} />
            {stage}
          </button>
        ))}
      </div>
      {unwiring ? (
        <div className="space-y-2">
          <p>Cut every turn on copper, thin bark or any mark; unwind only what lies free. Count the pieces: none may stay behind.</p>
          <div className="flex gap-2">
            <button type="button" className="btn btn-primary btn-sm" onClick={() => unwire('cut')}>
              Cut off
            </button>
            <button type="button" className="btn btn-outline btn-primary btn-sm" onClick={() => unwire('unwound')}>
              Unwound
            </button>
            <button type="button" className="btn btn-ghost btn-sm" onClick={() => setUnwiring(false)}>
              Not yet
            </button>
          </div>
          <Caution>Cut ends fly. Protect your eyes, and hold the wire on both sides of the cut.</Caution>
        </div>
      ) : (
        <button type="button" className="btn btn-outline btn-primary btn-sm" onClick={() => setUnwiring(true)}>
          It came off…
        </button>
      )}
    </div>
  );
}
