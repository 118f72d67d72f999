import { useEffect, useRef, useState } from 'react';
import {
  isCutting,
  sessionOf,
  takenOff,
  type Act,
  type Branch,
  type Decision,
  type DecisionDetails as Details,
  type Finding,
  type Promised,
} from '@ustle/core';
import { percent } from '../../shared/say';
import { useDesk } from '../tree-context';
import { ACT_WORDS, sayRule, sayRuleFirst, wordOf } from './acts';
import { DecisionDetails } from './DecisionDetails';

const SEVERITY = ['', 'text-quiet', 'text-ochre', 'text-madder'];
const ADVICE_WORDS: Record<string, string> = {
  remove: 'take it off',
  shorten: 'shorten it',
  compact: 'bend it shorter',
  move: 'lead it aside',
  reserve: 'keep it in reserve',
  wait: 'wait',
};

export interface RowProps {
  branch: Branch;
  act: Act;
  decision: Decision | undefined;
  findings: Finding[];
  promised: Promised | undefined;
  open: boolean;
  onOpen: () => void;
  onAct: (act: Act) => void;
  onDetails: (details: Details) => void;
  onEither: (other: string) => void;
}

function FindingText({ finding: f }: { finding: Finding }) {
  const [first, ...reasons] = f.because;
  const also = f.also.map((a) => ADVICE_WORDS[a]).join(', or ');
  return (
    <div>
      <p>
        <strong className={SEVERITY[f.severity]}>{sayRuleFirst(f.rule)}.</strong> {first}
      </p>
      {reasons.map((b) => (
        <p key={b} className={b.startsWith('Against') ? 'text-moss' : ''}>
          {b}
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

export function BranchRow({ branch, act, decision, findings, promised, open, onOpen, onAct, onDetails, onEither }: RowProps) {
  const { tree } = useDesk();
  const row = useRef<HTMLLIElement>(null);
  const [pairing, setPairing] = useState(false);
  useEffect(() => {
    if (open) row.current?.scrollIntoView({ block: 'nearest' });
  }, [open]);
  const alongWith = act === 'remove' && !decision;
  const word = wordOf(act);
  const along = decision && isCutting(decision) ? [...takenOff(tree, [decision]).gone].filter((id) => id !== branch.id) : [];
  const pairedWith = (tree.plan.either ?? []).filter((p) => p.includes(branch.id)).map(([a, b]) => (a === branch.id ? b : a));
  const later = decision && isCutting(decision) && sessionOf(decision) > 1;
  return (
    <li ref={row} className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
      <button type="button" className="flex w-full items-baseline gap-3 px-2 py-2 text-left" aria-expanded={open} onClick={onOpen}>
        <strong className={`w-10 shrink-0 ${act === 'remove' ? 'line-through decoration-madder decoration-2' : ''}`}>{branch.id}</strong>
        <span className="min-w-0 flex-1 truncate">
          {findings.length ? (
            findings.map((f, i) => (
              <span key={`${f.rule}${i}`} className={SEVERITY[f.severity]}>
                {i ? ', ' : ''}
                {sayRule(f.rule)}
              </span>
            ))
          ) : (
            <span className="text-quiet">{branch.name ?? `on ${branch.parent}, ${branch.d.toFixed(0)} mm`}</span>
          )}
        </span>
        <span className={word.tone}>{alongWith ? 'goes along' : `${word.done}${later ? `, session ${sessionOf(decision)}` : ''}`}</span>
        <span className="w-10 text-right text-quiet">{percent(branch.green)}</span>
      </button>
      {open && (
        <div className="space-y-2.5 px-2 pb-3">
          {findings.map((f, i) => (
            <FindingText key={`${f.rule}${i}`} finding={f} />
          ))}
          {!findings.length && <p className="text-quiet">Nothing speaks against this branch.</p>}
          <div className="flex flex-wrap gap-1.5">
            {ACT_WORDS.map((a) => (
              <button
                key={a.act}
                type="button"
                aria-pressed={a.act === act}
                className={`btn btn-sm px-2.5 ${a.act === act ? 'btn-primary' : 'btn-outline border-rule font-normal'}`}
                onClick={() => onAct(a.act)}
              >
                {a.name} <kbd className="text-[12px] opacity-60">{a.key.toUpperCase()}</kbd>
              </button>
            ))}
          </div>
          {decision && <DecisionDetails key={decision.act} branch={branch} decision={decision} promised={promised} onDetails={onDetails} />}
          {along.length > 0 && <p className="text-quiet">Takes {along.join(', ')} along.</p>}
          {pairedWith.map((other) => (
            <p key={other} className="text-quiet">
              Either this or {other}.{' '}
              <button type="button" className="text-copper underline-offset-2 hover:underline" onClick={() => onEither(other)}>
                not so
              </button>
            </p>
          ))}
          {pairing ? (
            <select
              autoFocus
              aria-label={`Either ${branch.id} or`}
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
                    {b.id}, {b.d.toFixed(0)} mm at {b.at.toFixed(0)} mm
                  </option>
                ))}
            </select>
          ) : (
            <button type="button" className="text-[14px] text-copper underline-offset-2 hover:underline" onClick={() => setPairing(true)}>
              either this or another…
            </button>
          )}
        </div>
      )}
    </li>
  );
}
