import { useState } from 'react';
import {
  childrenOf,
  DECISION_DETAILS,
  leftBy,
  unfinishedCut,
  type Branch,
  type Decision,
  type DecisionDetails as Details,
  type Promised,
  type Stub,
} from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { NumberField } from '../../shared/NumberField';
import type { NumberRule } from '../../shared/numbers';
import { useDesk } from '../desk';

interface Props {
  branch: Branch;
  decision: Decision;
  promised: Promised | undefined;
  onDetails: (details: Details) => void;
}

/** The bounds of a detail that may also be nothing. */
const ruleOf = (detail: 'length' | 'untilD'): NumberRule => (DECISION_DETAILS[detail].anyOf as NumberRule[])[0]!;

const Length = ({ branch, value, onDetails }: { branch: Branch; value: number | null; onDetails: Props['onDetails'] }) => (
  <NumberField
    inline
    open
    label="leave"
    unit={`mm of ${branch.length.toFixed(0)}`}
    rule={{ ...ruleOf('length'), maximum: Math.max(1, Math.ceil(branch.length) - 1) } as NumberRule}
    value={value}
    onValue={(length) => onDetails({ length })}
  />
);

/** The details that go with one fate. */
function Own({ branch, decision, onDetails }: Omit<Props, 'promised'>) {
  const { tree, today, names } = useDesk();
  switch (decision.act) {
    case 'shorten': {
      const shoots = childrenOf(tree, branch.id);
      const left = leftBy(tree, decision);
      // Told as a length, it is cut where it was to be cut.
      const asLength = left && 'kept' in left ? Math.round(left.kept) : null;
      return (
        <>
          {shoots.length > 0 && (
            <label className="flex items-center gap-2">
              <span className="text-quiet">to</span>
              <select
                className="select w-56 bg-sheet"
                value={decision.toShoot ?? ''}
                onChange={(event) => onDetails(event.target.value ? { toShoot: event.target.value, length: null } : { toShoot: null, length: asLength })}
              >
                <option value="">a length</option>
                {shoots.map((s) => (
                  <option key={s.id} value={s.id}>
                    its shoot at {s.at.toFixed(0)} mm ({names(s.id).split(', ').slice(-1)})
                  </option>
                ))}
              </select>
            </label>
          )}
          {!decision.toShoot && <Length branch={branch} value={decision.length ?? null} onDetails={onDetails} />}
        </>
      );
    }
    case 'stub':
      return (
        <>
          <select
            className="select w-44 bg-sheet"
            aria-label="What the stub is for"
            value={decision.stub ?? 'jin'}
            onChange={(event) => onDetails({ stub: event.target.value as Stub })}
          >
            <option value="jin">for a jin</option>
            <option value="anchor">to tie to</option>
          </select>
          <Length branch={branch} value={decision.length ?? null} onDetails={onDetails} />
        </>
      );
    case 'reserve':
      return (
        <>
          <label className="flex items-center gap-2">
            <span className="text-quiet">until the bend of</span>
            <select
              className="select w-48 bg-sheet"
              value={decision.untilSet ?? ''}
              onChange={(event) => onDetails(event.target.value ? { untilSet: event.target.value, until: null } : { untilSet: null })}
            >
              <option value="">no other</option>
              {tree.branches
                .filter((b) => b.id !== branch.id && b.state !== 'dead')
                .map((b) => (
                  <option key={b.id} value={b.id}>
                    {names(b.id)} has set
                  </option>
                ))}
            </select>
          </label>
          {!decision.untilSet && (
            <DateField
              className="w-60"
              label="or until"
              value={decision.until ?? null}
              today={today}
              min={today}
              open
              onValue={(until) => onDetails({ until })}
            />
          )}
        </>
      );
    case 'sacrifice':
      return (
        <NumberField
          inline
          open
          label={`until ${names(branch.parent)} is`}
          unit="mm thick there"
          rule={ruleOf('untilD')}
          value={decision.untilD ?? null}
          onValue={(untilD) => onDetails({ untilD })}
        />
      );
    default:
      return null;
  }
}

/** What goes with a decision: to which length or shoot, until when, why, and in which session. */
export function DecisionDetails({ branch, decision, promised, onDetails }: Props) {
  const { tree } = useDesk();
  const unfinished = unfinishedCut(tree, decision);
  const [why, setWhy] = useState<string | null>(null);
  const leave = (): void => {
    if (why !== null) onDetails({ why });
    setWhy(null);
  };
  return (
    <div className="space-y-2 border-l-2 border-rule pl-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Own branch={branch} decision={decision} onDetails={onDetails} />
      </div>
      {unfinished && (
        <p role="status" className="text-madder">
          Not finished. {unfinished} Until then nothing of it is cut.
        </p>
      )}
      {promised && <p className="text-ochre">{promised.text}</p>}
      <label className="flex items-center gap-2">
        <span className="text-quiet">why</span>
        <input
          className="input w-full bg-sheet"
          maxLength={1000}
          value={why ?? decision.why ?? ''}
          onChange={(event) => setWhy(event.target.value)}
          onBlur={leave}
        />
      </label>
    </div>
  );
}
