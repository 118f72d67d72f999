import equal from 'fast-deep-equal';
import { memo } from 'react';
import { isCutting, sessionOf, type Fate, type Branch, type Decision, type DecisionDetails as Details, type Finding, type Promised } from '@ustle/core';
import { percent } from '../../shared/say';
import { useSeenWhenChosen } from '../seen-when-chosen';
import { sayRule, SEVERITY_TONES, wordOf } from './fates';
import { OpenBranch } from './OpenBranch';

export interface RowProps {
  branch: Branch;
  name: string;
  fate: Fate;
  decision: Decision | undefined;
  /** The branch that takes it along, whatever is decided of itself. */
  takenBy: string | undefined;
  findings: Finding[];
  promised: Promised | undefined;
  /** Its cut is decided, but not how far. */
  unfinished: boolean;
  open: boolean;
  /** Opens a branch's row; null closes it. */
  onOpen: (branch: string | null) => void;
  onFate: (fate: Fate) => void;
  onDetails: (details: Details) => void;
  onEither: (other: string) => void;
}

type HeadProps = Pick<RowProps, 'branch' | 'name' | 'fate' | 'decision' | 'takenBy' | 'findings' | 'unfinished' | 'open' | 'onOpen'>;

const sameFound = (a: Finding[], b: Finding[]): boolean => a.length === b.length && a.every((f, i) => f.rule === b[i]!.rule && f.severity === b[i]!.severity);

/** Whether two lines say the same; what lies behind a finding is shown only where a row is open. */
const sameLine = (a: HeadProps, b: HeadProps): boolean =>
  a.fate === b.fate &&
  a.name === b.name &&
  a.takenBy === b.takenBy &&
  a.open === b.open &&
  a.unfinished === b.unfinished &&
  a.onOpen === b.onOpen &&
  sameFound(a.findings, b.findings) &&
  equal(a.decision, b.decision) &&
  equal(a.branch, b.branch);

/** One line of the list. Only those that say something else are laid out anew after a decision. */
const BranchHead = memo(function BranchHead({ branch, name, fate, decision, takenBy, findings, unfinished, open, onOpen }: HeadProps) {
  const word = wordOf(fate);
  const later = decision && isCutting(decision) && sessionOf(decision) > 1;
  return (
    <button
      type="button"
      className="flex w-full items-baseline gap-3 px-2 py-2 text-left"
      aria-expanded={open}
      data-branch={branch.id}
      onClick={() => onOpen(open ? null : branch.id)}
    >
      <span className="min-w-0 flex-1">
        <strong className={`block ${fate === 'remove' ? 'line-through decoration-madder decoration-2' : ''}`}>{name}</strong>
        {findings.length ? (
          findings.map((f, i) => (
            <span key={`${f.rule}${i}`} className={SEVERITY_TONES[f.severity]}>
              {i ? ', ' : ''}
              {sayRule(f.rule)}
            </span>
          ))
        ) : (
          <span className="text-quiet">{branch.d.toFixed(1)} mm thick</span>
        )}
      </span>
      <span className={word.tone}>
        {takenBy ? 'goes along' : `${word.done}${unfinished ? ', not finished' : ''}${later ? `, session ${sessionOf(decision)}` : ''}`}
      </span>
      <span className="w-10 text-right text-quiet">{percent(branch.green)}</span>
    </button>
  );
}, sameLine);

/** A branch in the list, with what was found and can be decided when it is open. */
export function BranchRow({ branch, name, fate, decision, takenBy, findings, unfinished, open, onOpen, ...rest }: RowProps) {
  const row = useSeenWhenChosen(open);
  return (
    <li ref={row} className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
      <BranchHead
        branch={branch}
        name={name}
        fate={fate}
        decision={decision}
        takenBy={takenBy}
        findings={findings}
        unfinished={unfinished}
        open={open}
        onOpen={onOpen}
      />
      {open && <OpenBranch branch={branch} name={name} fate={fate} decision={decision} takenBy={takenBy} findings={findings} {...rest} />}
    </li>
  );
}
