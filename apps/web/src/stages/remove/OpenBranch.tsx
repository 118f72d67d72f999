import { useState } from 'react';
import { isCutting, takenOff, type Finding } from '@ustle/core';
import { Worded } from '../../words/Worded';
import { useDesk } from '../desk';
import { FATE_WORDS, sayRuleFirst, SEVERITY_TONES } from './fates';
import type { RowProps } from './BranchRow';
import { DecisionDetails } from './DecisionDetails';

const ADVICE_WORDS: Record<string, string> = {
  remove: 'take it off',
  shorten: 'shorten it',
  compact: 'bend it shorter',
  move: 'lead it aside',
  reserve: 'keep it in reserve',
  wait: 'wait',
};

function FindingText({ finding: f }: { finding: Finding }) {
  const [first, ...reasons] = f.because;
  const also = f.also.map((a) => ADVICE_WORDS[a]).join(', or ');
  return (
    <div>
      <p>
        <strong className={SEVERITY_TONES[f.severity]}>{sayRuleFirst(f.rule)}.</strong> {first && <Worded>{first}</Worded>}
      </p>
      {reasons.map((b) => (
        <p key={b}>
          <Worded>{b}</Worded>
        </p>
      ))}
      {f.against.map((b) => (
        <p key={b} className="text-moss">
          Against removing it: {b}
        </p>
      ))}
      <p className="text-quiet">
        One would {ADVICE_WORDS[f.advice]}
        {also ? `; or ${also}` : ''}.
      </p>
      {f.conflicts.length > 0 && <p className="text-madder">It carries {f.conflicts.join(', ')}: that would lose its branch.</p>}
    </div>
  );
}

/** What was found against a branch, what can be decided about it, and what that takes along. */
export function OpenBranch({
  branch,
  name,
  fate,
  decision,
  takenBy,
  findings,
  promised,
  onFate,
  onDetails,
  onEither,
}: Omit<RowProps, 'open' | 'onOpen' | 'unfinished'>) {
  const { tree, names } = useDesk();
  const [pairing, setPairing] = useState(false);
  // Taken along, it has one answer: its own decision counts only where that branch stays.
  const own = takenBy ? (decision?.act ?? 'undecided') : fate;
  const along = decision && isCutting(decision) ? [...takenOff(tree, [decision]).gone].filter((id) => id !== branch.id) : [];
  const pairedWith = (tree.plan.either ?? []).filter((p) => p.includes(branch.id)).map(([a, b]) => (a === branch.id ? b : a));
  return (
    <div className="space-y-2.5 px-2 pb-3">
      {findings.map((f, i) => (
        <FindingText key={`${f.rule}${i}`} finding={f} />
      ))}
      {!findings.length && <p className="text-quiet">Nothing speaks against this branch.</p>}
      {takenBy && (
        <p>
          <strong className="text-madder">Goes along with {names(takenBy)}.</strong> What is decided here counts only if that one stays.
        </p>
      )}
      <div className="flex flex-wrap gap-1.5">
        {FATE_WORDS.map((a) => (
          <button
            key={a.act}
            type="button"
            aria-pressed={a.act === own}
            className={`btn btn-sm px-2.5 ${a.act === own ? 'btn-primary' : 'btn-outline border-rule font-normal'}`}
            onClick={() => onFate(a.act)}
          >
            {a.name} <kbd className="text-[0.94rem] opacity-70">{a.key.toUpperCase()}</kbd>
          </button>
        ))}
      </div>
      {decision && !takenBy && <DecisionDetails key={decision.act} branch={branch} decision={decision} promised={promised} onDetails={onDetails} />}
      {along.length > 0 && !takenBy && <p className="text-quiet">Takes {along.map(names).join('; ')} along.</p>}
      {pairedWith.map((other) => (
        <p key={other} className="text-quiet">
          Either this or {names(other)}.{' '}
          <button type="button" className="text-copper underline-offset-2 hover:underline" onClick={() => onEither(other)}>
            not so
          </button>
        </p>
      ))}
      {pairing ? (
        <select
          autoFocus
          aria-label={`Either ${name} or`}
          className="select w-full bg-sheet"
          value=""
          onBlur={() => setPairing(false)}
          onChange={(event) => {
            setPairing(false);
            onEither(event.target.value);
          }}
        >
          <option value="">either this or…</option>
          {tree.branches
            .filter((b) => b.id !== branch.id && b.parent === branch.parent)
            .map((b) => (
              <option key={b.id} value={b.id}>
                {names(b.id)}, {b.d.toFixed(1)} mm thick
              </option>
            ))}
        </select>
      ) : (
        <button type="button" className="text-[0.94rem] text-copper underline-offset-2 hover:underline" onClick={() => setPairing(true)}>
          either this or another…
        </button>
      )}
    </div>
  );
}
