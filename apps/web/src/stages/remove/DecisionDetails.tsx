import { useState } from 'react';
import { childrenOf, type Branch, type Decision, type DecisionDetails as Details, type Promised } from '@ustle/core';
import { useDesk } from '../tree-context';

interface Props {
  branch: Branch;
  decision: Decision;
  promised: Promised | undefined;
  onDetails: (details: Details) => void;
}

/** A number that is sent when the field is left, so that nothing half typed is stored. */
function NumberField({ label, unit, value, onValue }: { label: string; unit: string; value: number | null; onValue: (value: number | null) => void }) {
  const [text, setText] = useState<string | null>(null);
  return (
    <label className="flex items-center gap-2">
      <span className="text-quiet">{label}</span>
      <input
        type="number"
        inputMode="decimal"
        className="input w-24 bg-sheet"
        value={text ?? value ?? ''}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          if (text !== null) onValue(text === '' ? null : Number(text));
          setText(null);
        }}
      />
      <span className="text-quiet">{unit}</span>
    </label>
  );
}

/** What goes with a decision: to which length or shoot, until when, why, and in which session. */
export function DecisionDetails({ branch, decision, promised, onDetails }: Props) {
  const { tree, today } = useDesk();
  const [why, setWhy] = useState<string | null>(null);
  const shoots = childrenOf(tree, branch.id);
  const bends = tree.branches.filter((b) => b.id !== branch.id && b.state !== 'dead');
  const { act } = decision;
  return (
    <div className="space-y-2 border-l-2 border-rule pl-3">
      {act === 'shorten' && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          {shoots.length > 0 && (
            <label className="flex items-center gap-2">
              <span className="text-quiet">to</span>
              <select
                className="select w-36 bg-sheet"
                value={decision.toShoot ?? ''}
                onChange={(event) => onDetails(event.target.value ? { toShoot: event.target.value, length: null } : { toShoot: null })}
              >
                <option value="">a length</option>
                {shoots.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.id}, at {s.at.toFixed(0)} mm
                  </option>
                ))}
              </select>
            </label>
          )}
          {!decision.toShoot && (
            <NumberField label="leave" unit={`of ${branch.length.toFixed(0)} mm`} value={decision.length ?? null} onValue={(length) => onDetails({ length })} />
          )}
        </div>
      )}
      {act === 'stub' && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <select
            className="select w-44 bg-sheet"
            aria-label="What the stub is for"
            value={decision.stub ?? 'jin'}
            onChange={(event) => onDetails({ stub: event.target.value as 'jin' | 'anchor' })}
          >
            <option value="jin">for a jin</option>
            <option value="anchor">to tie to</option>
          </select>
          <NumberField label="leave" unit={`of ${branch.length.toFixed(0)} mm`} value={decision.length ?? null} onValue={(length) => onDetails({ length })} />
        </div>
      )}
      {act === 'reserve' && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <label className="flex items-center gap-2">
            <span className="text-quiet">until the bend of</span>
            <select
              className="select w-32 bg-sheet"
              value={decision.untilSet ?? ''}
              onChange={(event) => onDetails(event.target.value ? { untilSet: event.target.value, until: null } : { untilSet: null })}
            >
              <option value="">no other</option>
              {bends.map((b) => (
                <option key={b.id} value={b.id}>
                  {b.id} has set
                </option>
              ))}
            </select>
          </label>
          {!decision.untilSet && (
            <label className="flex items-center gap-2">
              <span className="text-quiet">or until</span>
              <input
                type="date"
                className="input w-40 bg-sheet"
                min={today}
                value={decision.until ?? ''}
                onChange={(event) => onDetails({ until: event.target.value || null })}
              />
            </label>
          )}
        </div>
      )}
      {act === 'sacrifice' && (
        <NumberField
          label={`until ${branch.parent === 'trunk' ? 'the trunk' : branch.parent} is`}
          unit="mm thick there"
          value={decision.untilD ?? null}
          onValue={(untilD) => onDetails({ untilD })}
        />
      )}
      {promised && <p className="text-ochre">{promised.text}</p>}
      <label className="flex items-center gap-2">
        <span className="text-quiet">why</span>
        <input
          className="input w-full bg-sheet"
          maxLength={1000}
          value={why ?? decision.why ?? ''}
          onChange={(event) => setWhy(event.target.value)}
          onBlur={() => {
            if (why !== null) onDetails({ why });
            setWhy(null);
          }}
        />
      </label>
    </div>
  );
}
